"""What a service takes from the fridge, drawn off once its first pot goes on: oldest first."""

from collections.abc import Iterator
from typing import Any

from django.dispatch import receiver
from django.utils import timezone

from kestrel.accounts.models import Kitchen, User
from kestrel.keeping.actions import LEAST_G, apart, frozen, g_per_ml, left_g, told_of
from kestrel.keeping.models import OF_SERVICE, Event, Kept
from kestrel.keeping.trays import failed_words, trays_of, with_readings
from kestrel.larder.actions import core_kitchen
from kestrel.problems import Conflict
from kestrel.service.models import Service
from kestrel.stove.models import Batch
from kestrel.stove.signals import pot_of_service_begun
from saucier.service import Plan
from saucier.words import say


@receiver(pot_of_service_begun, dispatch_uid="keeping.drawing")
def draw_for_service(
    sender: object,
    batch: Batch,
    user: User,
    plan: Plan,
    use_unshown: bool | None = None,
    **more: Any,
) -> None:
    """Its first pot draws what it takes from the fridge."""
    if batch.service is not None:
        draw(batch.service, user, plan, use_unshown)


def mark_of(service: Service) -> str:
    """What the keys of all begin with that ``service`` draws."""
    return f"{OF_SERVICE}{service.pk}-"


def draw(service: Service, user: User, plan: Plan, use_unshown: bool | None) -> None:
    """What ``plan`` takes of each sauce that stands made, off what is kept of it: only what is that sauce and
    nothing else, and is not past its day. Once for a service; each is taken back where it is kept.

    Of what nothing shows that it cooled in time it draws only where somebody said so (``use_unshown``); where nobody
    was asked yet (None), raises :class:`Conflict` that asks, and nothing is begun."""
    kitchen, mark = service.kitchen, mark_of(service)
    if Event.objects.filter(kitchen=kitchen, key__startswith=mark).exists():
        return
    wanted: dict[str, float] = {}
    for branch in plan.branches:
        if branch.from_stock_ml > 0.0:
            wanted[branch.sauce] = wanted.get(branch.sauce, 0.0) + branch.from_stock_ml
    asks: list[Kept] = []
    for sauce, ml in wanted.items():
        for kept, failed in _lots(kitchen, sauce):
            left, density = left_g(kept), g_per_ml(kept)
            if ml <= 0.0 or left < LEAST_G:
                continue
            if failed and use_unshown is None:
                asks.append(kept)
            if failed and not use_unshown:
                continue
            grams = round(min(left, ml * density), 1)
            ml -= grams / density
            Event.objects.create(
                kitchen=kitchen,
                kept=kept,
                key=f"{mark}kept-{kept.pk}",
                kind="drawn",
                data={"grams": grams, "purpose": service.name[:120], "although": failed},
                at=timezone.now(),
                by=user,
            )
            told_of(kept)
    if asks:
        names = tuple(f"{kept.name}, B{kept.batch_id}" for kept in asks)
        raise Conflict(say("asks-before-drawing", names=names), asks=[kept.pk for kept in asks])


def _lots(kitchen: Kitchen, sauce: str) -> Iterator[tuple[Kept, bool]]:
    """What is kept of ``sauce`` and may be drawn on, oldest first and the freezer last; with whether nothing shows
    that it cooled in time."""
    core = core_kitchen(kitchen)
    rows = Kept.objects.filter(kitchen=kitchen, batch__version__sauce_id=int(sauce))
    rows = with_readings(rows.select_related("batch__version__sauce").order_by("put_at", "pk"))
    for kept in sorted(rows.prefetch_related("batch__version__sauce__versions"), key=frozen):
        past = kept.use_by < timezone.localdate() and not frozen(kept)
        if past or any(apart(kept, core)):
            continue
        yield kept, failed_words(trays_of(kept, ahead=False)) is not None
