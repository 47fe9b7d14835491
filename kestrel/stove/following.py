"""A batch followed: what was put in, seen and read of it, taken together by the core."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from itertools import pairwise
from typing import Any

from kestrel.larder.actions import core_kitchen
from kestrel.stove.doing import counted, now_of
from kestrel.stove.models import Act, Batch, Reading
from saucier.cards import Card, cards
from saucier.check import check
from saucier.errors import BadInput
from saucier.sheet import Sheet
from saucier.watch import PotFollowed, Seen, StepAsDone, as_put, boils_since, follow
from saucier.words import Sentence, say

CLASH = timedelta(minutes=1)
"""Two pots that want hands nearer to each other than so are told."""
MOST_READINGS = 240
"""Of a step that are looked at: more tell nothing new."""


@dataclass(frozen=True)
class AsCooked:
    """A batch as it is cooked: its ``sheet`` with what really went in, the ``cards`` of that, the core's
    :class:`PotFollowed` (None: with what was put in it cannot be played; ``why``)."""

    sheet: Sheet
    cards: tuple[Card, ...]
    followed: PotFollowed | None
    why: str


def as_cooked(batch: Batch, acts: Sequence[Act] | None = None) -> AsCooked:
    """``batch`` with all that was done at it (``acts``, where they are at hand)."""
    acts = counted(batch) if acts is None else acts
    puts = puts_of(acts)
    kitchen = core_kitchen(batch.kitchen)
    sheet = as_put(batch.sheet, {})
    touched = any(a.step == batch.step and a.kind in ("put", "saw") for a in acts)
    try:
        cooked = as_put(batch.sheet, puts)
        done = _done(batch, acts)
        followed = follow(cooked, kitchen, batch.step, done, sheet, batch.step + touched)
        told = tuple(cards(check(cooked, kitchen))) if puts else ()
        return AsCooked(cooked, told, followed, "")
    except BadInput as bad:
        return AsCooked(sheet, (), None, str(bad.problems[0].told))


def puts_of(acts: Iterable[Act]) -> dict[tuple[int, str], float]:
    """What went in, or is to go in, where that is not as the sheet says: the last word counts."""
    puts: dict[tuple[int, str], float] = {}
    for act in acts:
        if act.kind == "put":
            puts[act.step, act.data["field"]] = float(act.data["grams"])
        elif act.kind == "turned":
            for one in act.data["changes"]:
                puts[int(one["step"]), one["field"]] = float(one["grams"])
    return puts


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


def _done(batch: Batch, acts: Iterable[Act]) -> dict[int, StepAsDone]:
    now = batch.ended_at or now_of(batch)
    began = {int(step): datetime.fromisoformat(at) for step, at in batch.began.items()}
    readings = list(Reading.objects.filter(batch=batch).order_by("at"))
    looks = [act for act in acts if act.kind == "saw"]
    done = {}
    for step, since in began.items():
        until = min((at for later, at in began.items() if later > step), default=now)
        seen = [
            Seen(_minutes(since, act.at), act.data["what"], float(act.data["value"]))
            for act in looks
            if act.step == step
        ]
        inside = [one for one in readings if since <= one.at <= until]
        seen += _read(inside, since)
        done[step] = StepAsDone(seen, _minutes(since, until))
    return done


def _read(readings: list[Reading], since: datetime) -> list[Seen]:
    """Readings as what is seen: a scale's as they are, thinned; a probe's where they say that it boils."""
    scale = [one for one in readings if one.kind == "scale"]
    every = max(1, len(scale) // MOST_READINGS)
    seen = [Seen(_minutes(since, one.at), "scale", one.value) for one in scale[::every]]
    probe = [(_minutes(since, one.at), one.value) for one in readings if one.kind == "probe"]
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
            "by": act.by.username if act.by else "",
        }
        for act in acts
    ]
