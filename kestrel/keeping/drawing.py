"""What a service takes from the fridge, drawn off once its first pot goes on: oldest first."""

from typing import Any

from django.dispatch import receiver
from django.utils import timezone

from kestrel.accounts.models import User
from kestrel.keeping.actions import LEAST_G, apart, frozen, left_g, told_of
from kestrel.keeping.models import Event, Kept
from kestrel.larder.actions import core_kitchen
from kestrel.stove.models import Batch
from kestrel.stove.signals import pot_of_service_begun
from saucier.service import Plan


@receiver(pot_of_service_begun, dispatch_uid="keeping.drawing")
def draw_for_service(sender: object, batch: Batch, user: User, plan: Plan, **more: Any) -> None:
    """What ``plan`` takes of each sauce that stands made, off what is kept of it: only what is that sauce and
    nothing else, and is not past its day. Once for a service; each is taken back where it is kept."""
    service = batch.service
    if service is None:
        return
    mark = f"service-{service.pk}-"
    if Event.objects.filter(kitchen=batch.kitchen, key__startswith=mark).exists():
        return
    wanted: dict[str, float] = {}
    for branch in plan.branches:
        if branch.from_stock_ml > 0.0:
            wanted[branch.sauce] = wanted.get(branch.sauce, 0.0) + branch.from_stock_ml
    if not wanted:
        return
    core = core_kitchen(batch.kitchen)
    for sauce, ml in wanted.items():
        rows = Kept.objects.filter(
            kitchen=batch.kitchen,
            batch__version__sauce_id=int(sauce),
        )
        rows = rows.select_related("batch__version__sauce", "kitchen").order_by("put_at", "pk")
        prefetched = rows.prefetch_related("events", "batch__version__sauce__versions")
        for kept in sorted(prefetched, key=frozen):  # the freezer last
            left = left_g(kept)
            past = kept.use_by < timezone.localdate() and not frozen(kept)
            if ml <= 0.0 or left < LEAST_G or past or any(apart(kept, core)):
                continue
            g_per_ml = _density(kept)
            grams = round(min(left, ml * g_per_ml), 1)
            ml -= grams / g_per_ml
            Event.objects.create(
                kitchen=batch.kitchen,
                kept=kept,
                key=f"{mark}kept-{kept.pk}",
                kind="drawn",
                data={"grams": grams, "purpose": service.name[:120]},
                at=timezone.now(),
                by=user,
            )
            told_of(kept)


def _density(kept: Kept) -> float:
    final = kept.batch.plan["final"]
    return max(0.5, float(final["mass_g"]) / max(1.0, float(final["volume_ml"])))
