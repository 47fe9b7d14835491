"""A pan is under one pot at a time: the next free one is taken, and told."""

from collections.abc import Collection

from kestrel.accounts.models import Kitchen
from kestrel.stove.models import Batch
from saucier import constants as K
from saucier.check import check, meets_metal
from saucier.heat import POT_SHAPES, pan_reached_for
from saucier.kitchen import Kitchen as CoreKitchen
from saucier.sheet import Sheet, SheetPan
from saucier.solve import stops_as_written
from saucier.steps import load_of
from saucier.words import Sentence, say


def pots_in(kitchen: Kitchen, apart_from: Collection[int] = ()) -> dict[str, list[str]]:
    """Which pots stand in which pan now, by their names; those that were put away stand in none."""
    rows = Batch.objects.filter(kitchen=kitchen, status=Batch.Status.ON, put_away_at=None)
    there: dict[str, list[str]] = {}
    for batch in rows.exclude(kind=Batch.Kind.ASIDE).exclude(pk__in=apart_from):
        there.setdefault(batch.plan["pan"]["name"], []).append(batch.plan["name"])
    return there


def in_a_free_pan(
    kitchen: Kitchen, sheet: Sheet, core: CoreKitchen, apart_from: Collection[int] = ()
) -> tuple[Sheet, Sentence | None]:
    """``sheet`` in the pan it is meant for, or where all of those are under other pots, in the next that is free and
    takes it; and what is to be told of that. ``apart_from``: pots whose pan it may share (a sauce finished in its
    mother's). Raises :class:`BadInput` as checking does."""
    checked = check(sheet, core)
    meant = checked.pan
    own = next((pan for pan in core.pans if pan.name == meant.name), None)
    there = pots_in(kitchen, apart_from)
    if own is None or len(there.get(own.name, [])) < own.count:
        return sheet, None
    load = load_of(sheet, core)
    sour = any(meets_metal(state.pot.balance) for state in checked.steps)
    free = [
        pan
        for pan in core.pans
        if pan.shape in POT_SHAPES
        and len(there.get(pan.name, [])) < pan.count
        and load.fullest <= K.BOILED_FULL_MOST * pan.capacity_ml
        and not (sour and pan.reactive)
    ]
    other = there[own.name][-1]
    if not free:
        return sheet, say("no-pan-is-free", pan=own.name, other=other)
    taken = pan_reached_for(load, free)
    moved = sheet.model_copy(
        update={"pan": SheetPan.of(taken), "steps": stops_as_written(sheet, core).steps}
    )
    return moved, say("takes-another-pan", pan=own.name, other=other, taken=taken.name)
