"""What a kitchen has learned and goes by, one transaction each."""

from django.db import transaction
from django.utils import timezone

from kestrel.accounts.models import Kitchen, User
from kestrel.larder.models import Learnt
from saucier.errors import BadInput
from saucier.heat import Heat, Pace
from saucier.kitchen import Kitchen as CoreKitchen
from saucier.learn import Estimate, learned_strength

Thing = tuple[str, str, str]
"""Kind, of what, at which heat."""


def in_force(kitchen: Kitchen) -> dict[Thing, Learnt]:
    """What ``kitchen`` goes by now, by what it is of."""
    rows = Learnt.objects.filter(kitchen=kitchen, dropped_at=None).order_by("pk")
    return {(row.kind, row.of, row.at): row for row in rows}


def knowing(core: CoreKitchen, rows: dict[Thing, Learnt]) -> CoreKitchen:
    """``core`` with what has been learned of its pans, its flours and its pots."""
    paces: dict[tuple[str, Heat], Pace] = {
        (of, at): Pace(row.log, row.spread)  # type: ignore[misc]
        for (kind, of, at), row in rows.items()
        if kind == Learnt.Kind.PACE
    }
    strengths = {
        of: learned_strength(Estimate(row.log, row.spread, row.records, row.scale))
        for (kind, of, _), row in rows.items()
        if kind == Learnt.Kind.STRENGTH
    }
    return core.knowing(strengths, paces)


@transaction.atomic
def go_by(kitchen: Kitchen, user: User, thing: Thing, found: Estimate) -> Learnt:
    """Go by ``found`` of ``thing`` from now on. What was gone by before stays, under it."""
    kind, of, at = thing
    return Learnt.objects.create(
        kitchen=kitchen,
        kind=kind,
        of=of[:60],
        at=at[:20],
        log=found.log,
        spread=found.spread,
        scale=found.scale,
        records=found.n,
        taken_by=user,
    )


@transaction.atomic
def drop(kitchen: Kitchen, thing: Thing, *, all_of_it: bool = False) -> None:
    """Go by what was gone by before it (with ``all_of_it``: by the usual again). Raises :class:`BadInput`
    (field ``of``) where nothing is gone by."""
    kind, of, at = thing
    rows = Learnt.objects.filter(kitchen=kitchen, kind=kind, of=of, at=at, dropped_at=None)
    newest = rows.order_by("pk").last()
    if newest is None:
        raise BadInput.at("of", "is-not-gone-by")
    gone = rows if all_of_it else rows.filter(pk=newest.pk)
    gone.update(dropped_at=timezone.now())
