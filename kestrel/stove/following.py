"""A batch followed: what was put in, seen and read of it, taken together by the core."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from functools import lru_cache
from itertools import pairwise
from typing import Any

from kestrel.larder.actions import core_kitchen, rules_of
from kestrel.stove.counting import counted, now_of
from kestrel.stove.models import Act, Batch, Reading
from kestrel.stove.pans import pan_under
from kestrel.stove.probes import last_probe, liaisons_read
from saucier.cards import Card, cards
from saucier.errors import BadInput
from saucier.heat import Pan
from saucier.keeping import Held, held
from saucier.learn import Finished, as_it_went
from saucier.pot import Pot
from saucier.sheet import Sheet, read_sheet
from saucier.thickness import grade_of
from saucier.thinning import thinned
from saucier.watch import (
    Following,
    Mend,
    PotFollowed,
    PutIn,
    Seen,
    StepAsDone,
    as_judged,
    as_made,
    as_put,
    as_seen,
    boils_since,
    following,
    heated_as_read,
    with_left_out,
)
from saucier.words import Sentence, say

CLASH = timedelta(minutes=1)
"""Two pots that want hands nearer to each other than so are told."""
MOST_READINGS = 160
"""Of a step that are looked at: more tell nothing new."""
_TOUCHES = frozenset({"put", "poured", "saw", "mended", "corrected"})
"""Acts that say that what goes in at a step is in."""
_BY_THE_CLOCK = frozenset({"simmer", "sweat", "infuse", "hold"})
"""Steps that last, cooked free hand, as long as they lasted."""


@dataclass(frozen=True)
class AsCooked:
    """A batch as it is cooked: its ``sheet`` with what really went in, the numbers of the steps that were
    ``left_out``, the ``cards`` of the pot there is, and what the core makes of it, ``following`` (None: so
    it cannot be played, ``why``; or it is no sauce)."""

    sheet: Sheet
    cards: tuple[Card, ...]
    following: Following | None
    why: str
    left_out: frozenset[int] = frozenset()

    @property
    def made(self) -> Sheet:
        """What was done, as a sheet."""
        if self.following is None:
            return with_left_out(self.sheet, self.left_out)
        return as_made(self.following)

    @property
    def followed(self) -> PotFollowed | None:
        return self.following.told if self.following else None


def as_cooked(batch: Batch, acts: Sequence[Act] | None = None, at: int | None = None) -> AsCooked:
    """``batch`` with all that was done at it (``acts``, where they are at hand), as it was ``at`` a step
    (None: where it is)."""
    acts = counted(batch) if acts is None else acts
    now = batch.ended_at or now_of(batch)
    document = by_the_clock(batch, now) if batch.kind == Batch.Kind.FREE else batch.sheet
    sheet = as_put(document, {})
    if not sheet.steps:
        return AsCooked(sheet, (), None, "")
    step = batch.step if at is None else at
    left_out = frozenset(act.step for act in acts if act.kind == "skipped")
    touched = any(a.step == step and a.kind in _TOUCHES for a in acts)
    try:
        kitchen = core_kitchen(batch.kitchen)
        cooked = heated_as_read(as_put(document, puts_of(acts)), liaisons_read(batch))
        done = _done(batch, acts, now)
        there = with_left_out(cooked, left_out)
        pan = pan_under(batch, kitchen)
        found = following(there, kitchen, step, done, sheet, step + touched, pan)
        return AsCooked(cooked, tuple(cards(found.checked)), found, "", left_out)
    except BadInput as bad:
        return AsCooked(sheet, (), None, str(bad.problems[0].told), left_out)


def came_out(batch: Batch) -> Following | None:
    """``batch`` with its last state as it was judged and weighed, where somebody did: that is what is labelled, put
    away, kept hot and let down. None: it cannot be played, or is no sauce."""
    found = as_cooked(batch).following
    if found is None or not found.checked.steps:
        return found
    if batch.judged_pa_s is None and batch.weighed_g is None:
        return found
    *steps, last = found.checked.steps
    last = as_judged(last, batch.judged_pa_s, batch.weighed_g)
    return replace(found, checked=replace(found.checked, steps=(*steps, last)), now=last.pot)


def made_of(batch: Batch) -> Sheet:
    """``batch`` as the sheet of a sauce: what went in, what was seen and weighed of it, as thick as it was judged. Raises
    :class:`BadInput` (``steps``) where nothing is in it."""
    cooked = as_cooked(batch)
    if not cooked.sheet.steps:
        raise BadInput.at("steps", "there-are-no-steps-to-cook")
    made = cooked.made
    if cooked.following is None:
        return made
    kitchen = core_kitchen(batch.kitchen)
    judged = batch.judged_pa_s
    seen = as_seen(made, cooked.following, kitchen)
    grade = None if judged is None else grade_of(judged)
    return as_it_went(Finished(seen, {}, batch.weighed_g, judged), grade, kitchen)


def off_fire_at(batch: Batch) -> datetime | None:
    """The end of its cooking: when it was through its last step, else when it came off the stove. None: neither was."""
    last = batch.began.get(str(len(batch.plan["cards"])))
    through = datetime.fromisoformat(last) if last and batch.plan["cards"] else None
    return through or batch.ended_at


def by_the_clock(batch: Batch, now: datetime) -> dict[str, Any]:
    """The sheet of what is cooked free hand, its steps as long as they lasted until ``now``."""
    steps = []
    for number, step in enumerate(batch.sheet["steps"]):
        began, until = (batch.began.get(str(n)) for n in (number, number + 1))
        if step["op"] in _BY_THE_CLOCK and began:
            end = datetime.fromisoformat(until) if until else now
            lasted = _minutes(datetime.fromisoformat(began), end)
            step = {**step, "minutes": round(max(0.1, min(1440.0, lasted)), 2)}
        steps.append(step)
    return {**batch.sheet, "steps": steps}


def puts_of(acts: Iterable[Act]) -> dict[tuple[int, str], PutIn]:
    """What went in, or is to go in, where that is not as the sheet says: the last word counts."""
    puts: dict[tuple[int, str], PutIn] = {}
    for act in acts:
        if act.kind in ("put", "poured"):
            spread = float(act.data.get("spread", 0.0))
            puts[act.step, act.data["field"]] = PutIn(float(act.data["grams"]), spread)
        elif act.kind == "turned":
            for one in act.data["changes"]:
                puts[int(one["step"]), one["field"]] = PutIn(float(one["grams"]))
    return puts


# -- how it waits


def waits(batch: Batch) -> Held | None:
    """How a finished sauce stands there: its grade now, and what brings it back. None: it is not through,
    no sauce, or put away."""
    began = batch.began.get(str(len(batch.plan["cards"])))
    if batch.step < len(batch.plan["cards"]) or not batch.step or began is None:
        return None
    if batch.put_away_at is not None:
        return None
    stands = _standing(batch.pk, batch.started_at, batch.revision)
    if stands is None:
        return None
    pot, pan, serving_c = stands
    minutes = _minutes(datetime.fromisoformat(began), now_of(batch))
    hot_c = rules_of(batch.kitchen).hot_c
    read = last_probe(batch)
    if read is not None and read.minutes_ago > minutes:
        read = None  # of when it still cooked
    return held(pot, pan, minutes, serving_c, hot_c, read)


@lru_cache(maxsize=64)
def _standing(batch_id: int, started_at: datetime, revision: int) -> tuple[Pot, Pan, float] | None:
    """The pot of a batch that is through, in its pan: the same until something is done at it."""
    found = as_cooked(Batch.objects.get(pk=batch_id)).following
    if found is None or not found.now.wetted:
        return None
    return found.now, found.checked.pan, found.checked.sheet.target.serving_c


def poured_g(batch: Batch) -> float | None:
    """What has gone in since the step began, by the scale under the pot, g; None where none says so."""
    if str(batch.step) not in batch.began:
        return None
    began = datetime.fromisoformat(batch.began[str(batch.step)]) + timedelta(seconds=0.5)
    scale = Reading.objects.filter(batch=batch, kind="scale")
    latest = scale.filter(at__gt=began).order_by("-at").first()
    before = scale.filter(at__lte=began).order_by("-at").first()
    before = before or scale.filter(at__gt=began).order_by("at").first()
    if latest is None or before is None or latest.at <= before.at:
        return None
    return max(0.0, latest.value - before.value)


def _done(batch: Batch, acts: Iterable[Act], now: datetime) -> dict[int, StepAsDone]:
    began = {int(step): datetime.fromisoformat(at) for step, at in batch.began.items()}
    rows = Reading.objects.filter(batch=batch).order_by("at")
    readings: list[_Read] = list(rows.values_list("at", "kind", "value"))
    looks = [act for act in acts if act.kind == "saw"]
    mends = [act for act in acts if act.kind == "mended" and act.data.get("steps")]
    corrected = {act.step: float(act.data["grams"]) for act in acts if act.kind == "corrected"}
    done = {}
    for step, since in began.items():
        until = min((at for later, at in began.items() if later > step), default=now)
        seen = [
            Seen(_minutes(since, act.at), act.data["what"], float(act.data["value"]), by_hand=True)
            for act in looks
            if act.step == step and act.data["what"] != "probe"
        ]
        inside = [one for one in readings if since <= one[0] <= until]
        seen += _read(inside, since)
        if batch.kind == Batch.Kind.FREE:  # what boils is said once it does
            seen.append(Seen(0.0, "boils"))
        mended = [_mend(act, since) for act in mends if act.step == step]
        put_g = corrected.get(step)
        done[step] = StepAsDone(seen, _minutes(since, until), mended, put_g)
    return done


def _mend(act: Act, since: datetime) -> Mend:
    sheet = read_sheet({"name": act.data["title"], "steps": act.data["steps"]})
    return Mend(_minutes(since, act.at), sheet.steps)


_Read = tuple[datetime, str, float]
"""A reading: when, of what kind of device, what."""


def _read(readings: list[_Read], since: datetime) -> list[Seen]:
    """Readings as what is seen: a scale's as they are, thinned; a probe's where they say that it boils."""
    scale, probe = (
        [(_minutes(since, at), value) for at, kind, value in readings if kind == device]
        for device in ("scale", "probe")
    )
    seen = [Seen(at, "scale", value) for at, value in thinned(scale, MOST_READINGS)]
    boils = boils_since(probe)
    return seen if boils is None else [*seen, Seen(boils, "boils")]


def _minutes(since: datetime, at: datetime) -> float:
    return max(0.0, (at - since).total_seconds() / 60.0)


def clashes(batches: Sequence[Batch]) -> dict[int, Sentence]:
    """Pots whose next step wants a cook throughout, and wants it in the same minute as another's."""
    wanted = sorted(
        ((at, batch) for batch in batches if (at := _wants_hands_at(batch)) is not None),
        key=lambda pair: pair[0],
    )
    found: dict[int, Sentence] = {}
    for (at, one), (later, other) in pairwise(wanted):
        if later - at < CLASH:
            for batch, beside in ((one, other), (other, one)):
                found[batch.pk] = say("hands-clash", other=beside.plan["name"])
    return found


def _wants_hands_at(batch: Batch) -> datetime | None:
    """When the timer of its step runs out, and the step after it wants hands throughout."""
    cards = batch.plan["cards"]
    own = next((timer for timer in batch.timers if timer["name"] == "step"), None)
    after = cards[batch.step + 1] if batch.step + 1 < len(cards) else None
    if own is None or after is None or after.get("hands", "all") != "all":
        return None
    return datetime.fromisoformat(own["started_at"]) + timedelta(seconds=own["seconds"])


def told_of(acts: Iterable[Act]) -> list[dict[str, Any]]:
    """What was done, for the record on the screen: in order, with when and by whom."""
    return [
        {
            "key": act.key,
            "kind": act.kind,
            "step": act.step,
            "at": act.at,
            "data": act.data,
            "by": act.by_name,
        }
        for act in acts
    ]
