"""Waste and yield: what was made, served, kept and thrown away, week by week; and what to plan instead."""

from collections import defaultdict
from dataclasses import dataclass, field
from datetime import UTC, date, datetime, time, timedelta
from itertools import groupby

from django.utils import timezone

from kestrel.accounts.models import Kitchen
from kestrel.journal.models import Served
from kestrel.keeping.actions import fate_of
from kestrel.keeping.models import Kept
from kestrel.stove.models import Batch
from saucier.words import Sentence, say

MOST_WEEKS = 53
TOO_MUCH, LEAST_BATCHES = 0.05, 2
"""More than this share thrown away, of so many batches of which it was said, is worth planning otherwise."""


@dataclass
class SauceWeek:
    """A week of one sauce, g: ``made``, ``served`` (what is neither kept nor thrown away), put away and not
    yet used (``kept``), and ``thrown`` away, fresh or from the fridge; what that ``cost``. ``portions``
    that went out, where they were said, and the ``portions_g`` served as them; ``said_g`` made in batches of
    which somebody said what became of them; ``reasons`` why it was thrown away; of how many batches
    nobody said what became, ``unsaid``."""

    week: str
    name: str
    sauce_id: int | None
    batches: int = 0
    made_g: float = 0.0
    served_g: float = 0.0
    kept_g: float = 0.0
    thrown_g: float = 0.0
    cost: float = 0.0
    portions: float = 0.0
    portions_g: float = 0.0
    said_g: float = 0.0
    unsaid: int = 0
    reasons: list[str] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class PlanInstead:
    """A sauce of which too much is made, and what to plan instead."""

    name: str
    sauce_id: int | None
    words: Sentence
    cost: float


@dataclass(frozen=True, slots=True)
class Week:
    """A week: its sauces, what most was thrown away of first, and all of them together; ``thrown_pct`` is of
    what was made in batches of which somebody said what became of them (None: of none)."""

    week: str
    made_g: float
    said_g: float
    thrown_pct: float | None
    cost: float
    lines: list[SauceWeek]


@dataclass(frozen=True, slots=True)
class Weeks:
    """Weeks, newest first, and what to plan instead, what costs most first."""

    weeks: list[Week]
    instead: list[PlanInstead]


def weeks(kitchen: Kitchen, first: date, last: date, offset_min: int) -> Weeks:
    """From the day ``first`` to ``last``, by clocks ``offset_min`` ahead of UTC: newest week first, in it
    what most was thrown away of."""
    shift = timedelta(minutes=offset_min)
    begin = timezone.make_aware(datetime.combine(first, time.min), UTC) - shift
    end = timezone.make_aware(datetime.combine(last, time.max), UTC) - shift
    done = Batch.objects.filter(
        kitchen=kitchen, status=Batch.Status.DONE, ended_at__range=(begin, end)
    ).exclude(kind=Batch.Kind.ASIDE)
    rows = done.select_related("version__sauce", "entry").prefetch_related("entry__corrections")
    batches = list(rows.defer("sheet"))
    numbers = [batch.pk for batch in batches]
    said = {row.batch_id: row for row in Served.objects.filter(batch_id__in=numbers)}
    fates: dict[int, list[tuple[float, float, list[str]]]] = defaultdict(list)
    for kept in Kept.objects.filter(batch_id__in=numbers).prefetch_related("events"):
        fates[kept.batch_id].append(fate_of(kept))
    found: dict[tuple[str, str, int | None], SauceWeek] = {}
    for batch in batches:
        assert batch.ended_at is not None
        year, week, _ = (batch.ended_at + shift).isocalendar()
        sauce = batch.version.sauce if batch.version else None
        name = sauce.name if sauce else str(batch.plan["name"])
        key = (f"{year}-W{week:02}", name, sauce.pk if sauce else None)
        line = found.setdefault(key, SauceWeek(*key))
        _add(line, batch, said.get(batch.pk), fates.get(batch.pk, []))
    for line in found.values():
        line.reasons = sorted(set(line.reasons))
    lines = sorted(found.values(), key=lambda one: (one.week, one.thrown_g), reverse=True)
    by_week = groupby(lines, key=lambda one: one.week)
    return Weeks([_week(week, list(of_it)) for week, of_it in by_week], _instead(lines))


def _week(week: str, lines: list[SauceWeek]) -> Week:
    made, said, thrown, cost = (
        sum(getattr(one, key) for one in lines) for key in ("made_g", "said_g", "thrown_g", "cost")
    )
    return Week(week, made, said, 100.0 * thrown / said if said else None, cost, lines)


def _add(
    line: SauceWeek,
    batch: Batch,
    said: Served | None,
    fates: list[tuple[float, float, list[str]]],
) -> None:
    entry = getattr(batch, "entry", None)
    final = batch.plan["final"]
    planned = float(final.get("total_g") or final["mass_g"])
    weighed = entry.stands.weighed_g if entry else None
    made = planned if weighed is None else float(weighed)
    left = sum(one[0] for one in fates)
    thrown = sum(one[1] for one in fates)
    reasons = [reason for one in fates for reason in one[2]]
    if said is not None and said.thrown_g:
        thrown += said.thrown_g
        reasons.append(said.reason)
    line.batches += 1
    line.made_g += made
    line.kept_g += left
    line.thrown_g += thrown
    line.cost += float(final.get("cost") or 0.0) * thrown / max(1.0, planned)
    served = max(0.0, made - left - thrown)
    line.served_g += served
    if said is not None and said.portions:
        line.portions += said.portions
        line.portions_g += served
    if said is None and not fates:
        line.unsaid += 1
    else:
        line.said_g += made
    line.reasons += [reason for reason in reasons if reason]


def _instead(lines: list[SauceWeek]) -> list[PlanInstead]:
    """Of all weeks together: a single evening says little."""
    by_sauce: dict[tuple[str, int | None], list[SauceWeek]] = defaultdict(list)
    for line in lines:
        by_sauce[line.name, line.sauce_id].append(line)
    found = []
    for (name, sauce_id), weeks_of_it in by_sauce.items():
        batches = sum(one.batches for one in weeks_of_it)
        made, thrown, portions, served_as, cost = (
            sum(getattr(one, key) for one in weeks_of_it)
            for key in ("said_g", "thrown_g", "portions", "portions_g", "cost")
        )
        share = thrown / made if made else 0.0
        said = batches - sum(one.unsaid for one in weeks_of_it)
        if share <= TOO_MUCH or said < LEAST_BATCHES:
            continue
        # A little is left over for whoever comes late: not all of what was thrown away is planned away.
        less = share - 0.5 * TOO_MUCH
        each_g = less * made / said
        if portions and served_as:
            each = each_g / (served_as / portions)
            words = say("plan-fewer", pct=100.0 * less, portions=each, grams=each_g)
        else:
            words = say("plan-less", pct=100.0 * less, grams=each_g)
        found.append(PlanInstead(name, sauce_id, words, cost))
    return sorted(found, key=lambda one: -one.cost)
