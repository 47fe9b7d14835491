"""A pan is under one pot at a time: the next free one is taken, and told."""

from collections.abc import Collection, Mapping, Sequence
from dataclasses import replace
from typing import NamedTuple

from django.db.models import QuerySet

from kestrel.accounts.models import Kitchen
from kestrel.larder.models import Pan as PanRow
from kestrel.stove.models import Batch
from saucier import constants as K
from saucier.check import check, meets_metal
from saucier.errors import BadInput
from saucier.heat import POT_SHAPES, Pan, SideView, pan_reached_for
from saucier.kitchen import Kitchen as CoreKitchen
from saucier.sheet import Sheet, SheetPan, read_sheet, write_sheet
from saucier.solve import stops_as_written
from saucier.steps import load_of
from saucier.words import Sentence, plain, say


def _on(kitchen: Kitchen) -> QuerySet[Batch]:
    """The pots that stand in a pan now; those that were put away stand in none."""
    rows = Batch.objects.filter(kitchen=kitchen, status=Batch.Status.ON, put_away_at=None)
    return rows.exclude(kind=Batch.Kind.ASIDE).order_by("pk")


def pots_in(kitchen: Kitchen, apart_from: Collection[int] = ()) -> dict[str, list[str]]:
    """Which pots stand in which pan now, by their names."""
    there: dict[str, list[str]] = {}
    rows = _on(kitchen).exclude(pk__in=apart_from)
    for pan, name in rows.values_list("plan__pan__name", "plan__name"):
        there.setdefault(pan, []).append(name)
    return there


def pan_under(batch: Batch, core: CoreKitchen) -> Pan | None:
    """The pan ``batch`` stands in since it was started (None: its sheet says). Of batches of before, which do not say it
    whole, by its name."""
    stands_in = batch.plan.get("stands_in")
    if stands_in is not None:
        return Pan(**stands_in)
    name = batch.plan["pan"]["name"]
    return next((pan for pan in core.pans if pan.name == name), None)


def sharing_a_pan(kitchen: Kitchen) -> dict[int, Sentence]:
    """By its number, each pot in a pan that more pots stand in than there are such: one was put back on whose pan was
    taken meanwhile, or no pan was free. A sauce may be finished in the pan of its mother, which is of no sauce by itself.
    """
    counts = dict(PanRow.objects.filter(kitchen=kitchen).values_list("name", "count"))
    in_pan: dict[str, list[_Stands]] = {}
    fields = ("pk", "plan__name", "service_id", "version_id", "plan__pan__name")
    for *pot, pan in _on(kitchen).values_list(*fields):
        in_pan.setdefault(pan, []).append(_Stands(*pot))
    told: dict[int, Sentence] = {}
    for pan, pots in in_pan.items():
        for pot in pots:
            others = [other for other in pots if other is not pot and not other.mother_of(pot)]
            if len(others) >= counts.get(pan, len(pots)):
                told[pot.pk] = say("pan-is-under-too", pan=pan, other=others[-1].name)
    return told


class _Stands(NamedTuple):
    """A pot that stands in a pan."""

    pk: int
    name: str
    service: int | None
    version: int | None

    def mother_of(self, other: "_Stands") -> bool:
        """Whether one of both is the mother that the other may be finished in the pan of."""
        of_one_service = self.service is not None and self.service == other.service
        return of_one_service and (self.version is None) != (other.version is None)


def with_free_pans(
    kitchen: Kitchen, core: CoreKitchen, apart_from: Collection[int] = ()
) -> CoreKitchen:
    """``core`` with the pans that are under no pot (none: with all of them)."""
    free = _free(core, pots_in(kitchen, apart_from))
    return replace(core, pans=free) if free else core


def _free(core: CoreKitchen, there: Mapping[str, Sequence[str]]) -> tuple[Pan, ...]:
    """The pans sauces are made in of which one is under no pot, ``there`` being what stands in which."""
    pans = (pan for pan in core.pans if pan.shape in POT_SHAPES)
    return tuple(pan for pan in pans if len(there.get(pan.name, ())) < pan.count)


def pan_named(name: str, core: CoreKitchen) -> Pan:
    """The pan of ``core`` called ``name`` that sauces are made in. Raises :class:`BadInput` (``pan``)."""
    for pan in core.pans:
        if pan.name == name and pan.shape in POT_SHAPES:
            return pan
    raise BadInput.at("pan", "is-no-pan-of-yours", name=name[:60])


def put_in_pan(batch: Batch, pan: Pan, core: CoreKitchen) -> None:
    """``batch`` stands in ``pan``; it is not saved here. What was planned for it stays as it was planned; a stop by
    minutes is where they bring it in the pan it stood in."""
    sheet = read_sheet(batch.sheet)
    if sheet.steps:
        written = sheet.model_copy(update={"pan": SheetPan.of(pan_under(batch, core) or pan)})
        sheet = stops_as_written(written, core)
    batch.sheet = write_sheet(sheet.model_copy(update={"pan": SheetPan.of(pan)}))
    batch.plan = {**batch.plan, "pan": plain(SideView.of(pan)), "stands_in": plain(pan)}


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
        for pan in _free(core, there)
        if load.fullest <= K.BOILED_FULL_MOST * pan.capacity_ml and not (sour and pan.reactive)
    ]
    other = there[own.name][-1]
    if not free:
        return sheet, say("no-pan-is-free", pan=own.name, other=other)
    taken = pan_reached_for(load, free)
    moved = sheet.model_copy(
        update={"pan": SheetPan.of(taken), "steps": stops_as_written(sheet, core).steps}
    )
    return moved, say("takes-another-pan", pan=own.name, other=other, taken=taken.name)
