"""What the batches of a kitchen teach: gathered from its journal, told, gone by when a cook says so."""

import math
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from typing import cast

from django.db import transaction
from django.utils import timezone

from kestrel.accounts.models import Kitchen, User
from kestrel.journal.models import Entry, Lesson, Served
from kestrel.larder.actions import core_kitchen
from kestrel.larder.learnt import Thing, go_by, in_force
from kestrel.larder.models import Habits, Learnt
from kestrel.run_up.models import RunUp
from kestrel.stove.following import as_cooked
from kestrel.stove.models import Batch
from saucier import constants as K
from saucier.demand import USES
from saucier.errors import BadInput
from saucier.heat import Heat, evaporation_g_per_min
from saucier.kitchen import Kitchen as CoreKitchen
from saucier.learn import Estimate, Finished, Observed, estimate, learned_strength, observed
from saucier.run_up import read_run_up
from saucier.run_up.library import prepare_for, shipped_prepares
from saucier.thickness import MODEL_SPREAD
from saucier.words import Sentence, say

SPREADS: dict[str, float] = {
    Learnt.Kind.PACE: K.LEARNED_PACE_SPREAD,
    Learnt.Kind.STRENGTH: K.LEARNED_STRENGTH_SPREAD,
    Learnt.Kind.FILM: K.LEARNED_FILM_SPREAD,
    Learnt.Kind.SERVED: K.LEARNED_SERVED_SPREAD,
    Learnt.Kind.WORK: K.LEARNED_WORK_SPREAD,
}
LEAST_RECORDS = 3
"""So many records are wanted before anything is proposed."""
_MOVED = 0.5
"""What is proposed anew differs by so many of its spreads from what is gone by."""
CATCH_UP = 40
"""Entries without a lesson (of before there were any) that are read through at a time."""


@dataclass(frozen=True, slots=True)
class Record:
    """One record behind what is learned: of which entry, when, how much more than usual it was, with the
    edges of that, and whether it fits the others."""

    entry_id: int | None
    batch_id: int | None
    at: datetime
    factor: float
    low: float
    high: float
    odd: bool


@dataclass(frozen=True, slots=True)
class Taught:
    """One thing that is learned. ``factor`` is how much more than usual it is, nine times in ten between
    ``low`` and ``high``, by ``records``; ``usual``, ``now`` and ``value`` are the figure itself in ``unit``: as is usual, as
    it is gone by, and as it would be, from ``value_low`` to ``value_high``. ``gone_by`` is the factor in force (None: the usual) by ``gone_by_records``; ``edge`` by what factor a
    thickness is then off either way, where it is ``edge_usual`` before (None: nothing of a thickness). ``ready``: it is worth
    going by. ``words`` say it, ``why_not`` what is still missing."""

    kind: str
    of: str
    at: str
    name: Sentence | str
    words: Sentence
    unit: str
    usual: float
    now: float
    value: float
    value_low: float
    value_high: float
    factor: float
    low: float
    high: float
    records: int
    gone_by: float | None
    gone_by_records: int
    edge_usual: float | None
    edge: float | None
    ready: bool
    why_not: Sentence | None
    changed_at: datetime | None
    seen: tuple[Record, ...]


def lesson_of(entry: Entry) -> Lesson:
    """What ``entry`` says, reckoned and kept. What was cooked free hand had no plan to differ from, and what was only
    warmed was not cooked: they teach nothing."""
    planned = entry.batch.kind == Batch.Kind.SAUCE and not entry.batch.drawn_key
    told = observed(finished(entry), core_kitchen(entry.kitchen, usual=True)) if planned else ()
    lines = [
        {"kind": o.kind, "of": o.of, "at": o.at, "log": o.seen.log, "spread": o.seen.spread}
        for o in told
    ]
    lesson, _ = Lesson.objects.update_or_create(
        entry=entry, defaults={"kitchen": entry.kitchen, "told": lines}
    )
    return lesson


def finished(entry: Entry) -> Finished:
    """``entry`` as the core learns of it."""
    batch = entry.batch
    found = as_cooked(batch)
    if found.following is None or batch.kind == Batch.Kind.ASIDE:
        return Finished(found.made)
    mends = found.following.mends
    began = {int(n): datetime.fromisoformat(at) for n, at in batch.began.items()}
    # With something put in between, a step's minutes are no longer those of what it boiled.
    minutes = (
        {} if mends else {n: _minutes(began[n], began[n + 1]) for n in began if n + 1 in began}
    )
    done = [n for n in range(len(found.sheet.steps)) if n not in found.left_out]
    minutes = {at: minutes[n] for at, n in enumerate(done) if n in minutes}
    stands = entry.stands
    return Finished(found.made, minutes, stands.weighed_g, stands.reached_pa_s)


def _minutes(since: datetime, until: datetime) -> float:
    return max(0.0, (until - since).total_seconds() / 60.0)


def catch_up(kitchen: Kitchen) -> int:
    """Lessons of entries that have none yet, the newest first; how many are still to do."""
    without = Entry.objects.filter(kitchen=kitchen, lesson=None)
    rows = without.select_related("batch__kitchen", "kitchen")
    for entry in rows.prefetch_related("batch__acts", "corrections")[:CATCH_UP]:
        lesson_of(entry)
    return without.count()


_Seen = tuple[Observed, int | None, int | None, datetime]
"""What was seen, of which entry, which batch, when."""


def _gathered(kitchen: Kitchen, core: CoreKitchen) -> dict[Thing, list[_Seen]]:
    """Everything seen of each thing, oldest first."""
    found: dict[Thing, list[_Seen]] = defaultdict(list)
    lessons = Lesson.objects.filter(kitchen=kitchen).exclude(told=[])
    rows = lessons.order_by("-entry__made_at", "-entry__pk").values_list(
        "told", "entry_id", "entry__batch_id", "entry__made_at"
    )
    for told, entry_id, batch_id, made_at in rows[: 40 * K.LEARNED_FROM]:
        for one in told:
            seen = Observed(one["log"], one["spread"], made_at.toordinal())
            found[one["kind"], one["of"], one["at"]].append((seen, entry_id, batch_id, made_at))
    after = Served.objects.filter(kitchen=kitchen).exclude(told=[]).order_by("-pk")
    newest: set[int] = set()
    for told, batch_id, at in after.values_list("told", "batch_id", "at")[: 8 * K.LEARNED_FROM]:
        for one in () if batch_id in newest else told:  # said again: the last word counts
            seen = Observed(one["log"], one["spread"], at.toordinal())
            found[one["kind"], one["of"], one["at"]].append((seen, None, batch_id, at))
        newest.add(batch_id)
    for thing, seen_of_it in _at_the_board(kitchen, core):
        found[thing].append(seen_of_it)
    return {
        thing: sorted(seen, key=lambda one: one[3])[-K.LEARNED_FROM :]
        for thing, seen in found.items()
    }


_HANDS_OFF = 0.3
"""By how much the minutes of one piece of work at the board differ from the next; estimate."""
_LEAST_AT_THE_BOARD_MIN = 1.0
_RUN_UPS = 60


def _at_the_board(kitchen: Kitchen, core: CoreKitchen) -> Iterator[tuple[Thing, _Seen]]:
    """What cutting, peeling and grating really took, by the run-ups where it was begun and done."""
    rows = RunUp.objects.filter(kitchen=kitchen).order_by("-date", "-pk")[:_RUN_UPS]
    larder = core.larder
    for row in rows:
        midnight = datetime(row.date.year, row.date.month, row.date.day, tzinfo=UTC)
        midnight -= timedelta(minutes=row.utc_offset_min)
        for key, mark in read_run_up(row.document).marks.items():
            ingredient = key.split(":")[1] if key.startswith("prep:") else ""
            prepare = prepare_for(larder[ingredient]) if ingredient in larder else None
            took = None if mark.over is None else mark.over - mark.began
            if prepare is None or not took or not mark.usual:
                continue
            factor = took / mark.usual
            if took < _LEAST_AT_THE_BOARD_MIN or not 0.2 <= factor <= 5.0:
                continue  # pressed begin and done at once, or forgotten
            moment = midnight + timedelta(minutes=mark.over or 0.0)
            spread = math.hypot(_HANDS_OFF, 0.5 / took)
            seen = Observed(math.log(factor), spread, moment.toordinal())
            yield ("work", prepare.key, ""), (seen, None, None, moment)


def taught(kitchen: Kitchen) -> list[Taught]:
    """Everything that is learned here, what is ready to go by first."""
    core, rows = core_kitchen(kitchen, usual=True), in_force(kitchen)
    by_hand = Habits.objects.filter(kitchen=kitchen).first()
    found = []
    for thing, seen in _gathered(kitchen, core).items():
        if _set_by_hand(thing, by_hand):
            continue
        one = _taught(thing, seen, rows.get(thing), core)
        if one is not None:
            found.append(one)
    order = {kind: n for n, kind in enumerate(SPREADS)}
    return sorted(found, key=lambda one: (not one.ready, order[one.kind], str(one.name), one.at))


def _set_by_hand(thing: Thing, habits: Habits | None) -> bool:
    """A cook who set it in the larder knows better."""
    kind, of, _ = thing
    if habits is None:
        return False
    by_hand: bool = (kind == "film" and habits.film_ml is not None) or (
        kind == "served" and of in habits.per_ml
    )
    return by_hand


def found_of(seen: list[_Seen], kind: str) -> Estimate:
    return estimate([one[0] for one in seen], SPREADS[kind], timezone.now().toordinal())


def _taught(
    thing: Thing, seen: list[_Seen], row: Learnt | None, core: CoreKitchen
) -> Taught | None:
    kind, of, at = thing
    figure = _figure(kind, of, at, core)
    if figure is None:
        return None
    name, unit, usual = figure
    found = found_of(seen, kind)
    low, high = found.within()
    enough = found.n >= LEAST_RECORDS
    new = (
        row is None
        or abs(found.log - row.log) > _MOVED * found.spread
        or found.n >= 2 * row.records
    )
    why_not = None
    if not enough:
        why_not = say("learned.more-wanted", more=LEAST_RECORDS - found.n)
    elif not new:
        why_not = say("learned.as-gone-by")
    how = "same" if abs(found.factor - 1.0) < 0.01 else "more" if found.log > 0.0 else "less"
    code = f"learned.{kind}-{how}"
    edge_usual = edge = None
    if kind == Learnt.Kind.STRENGTH:
        edge_usual = math.exp(MODEL_SPREAD)
        edge = math.exp(learned_strength(found).model_spread)
    changed = None if found.changed_at is None else seen[found.changed_at][3]
    return Taught(
        kind=kind,
        of=of,
        at=at,
        name=name,
        words=say(
            code,
            name=name,
            heat=say(f"heat-{at}") if at else "",
            pct=100.0 * abs(found.factor - 1.0),
        ),
        unit=unit,
        usual=usual,
        now=usual if row is None else usual * math.exp(row.log),
        value=usual * found.factor,
        value_low=usual * low,
        value_high=usual * high,
        factor=found.factor,
        low=low,
        high=high,
        records=found.n,
        gone_by=None if row is None else math.exp(row.log),
        gone_by_records=0 if row is None else row.records,
        edge_usual=edge_usual,
        edge=edge,
        ready=enough and new,
        why_not=why_not,
        changed_at=changed,
        seen=tuple(_record(one, n in found.odd) for n, one in enumerate(seen)),
    )


def _record(one: _Seen, odd: bool) -> Record:
    seen, entry_id, batch_id, at = one
    low, high = Estimate(seen.log, seen.spread, 1).within()
    return Record(entry_id, batch_id, at, math.exp(seen.log), low, high, odd)


def _figure(
    kind: str, of: str, at: str, core: CoreKitchen
) -> tuple[Sentence | str, str, float] | None:
    """What a thing is called, its unit, and what is usual of it; None where it is no more."""
    if kind == Learnt.Kind.PACE:
        pan = next((pan for pan in core.pans if pan.name == of), None)
        if pan is None:
            return None
        # Half full: what a cook has before the eyes.
        stove = replace(core.stove, pan=pan)
        return (
            of,
            "g a minute",
            evaporation_g_per_min(0.5 * pan.capacity_ml, cast(Heat, at), stove, lid=False),
        )
    if kind == Learnt.Kind.STRENGTH:
        if of not in core.larder:
            return None
        row = core.larder[of]
        return row.spoken_name, "of wheat flour", row.power
    if kind == Learnt.Kind.FILM:
        return "pot and whisk", "mL", K.FILM_ML
    if kind == Learnt.Kind.WORK:
        prepare = shipped_prepares().get(of)
        return None if prepare is None else (say(f"learned.{of}"), "min a kilo", prepare.per_kg)
    use = USES.get(of)
    return None if use is None else (use.name, "mL", use.per_ml)


@transaction.atomic
def take(kitchen: Kitchen, user: User, thing: Thing) -> Learnt:
    """Go by what the batches say of ``thing`` from now on. Raises :class:`BadInput` (field ``of``) where they
    say nothing of it, or not enough."""
    seen = _gathered(kitchen, core_kitchen(kitchen, usual=True)).get(thing)
    if seen is None:
        raise BadInput.at("of", "nothing-is-learned-of-it")
    found = found_of(seen, thing[0])
    if found.n < LEAST_RECORDS:
        raise BadInput.at("of", "too-little-is-learned-of-it", least=LEAST_RECORDS)
    return go_by(kitchen, user, thing, found)
