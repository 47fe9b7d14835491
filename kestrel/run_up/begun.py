"""What was begun follows its pot where a change of its service gives that pot another key."""

from typing import Any

from django.dispatch import receiver

from kestrel.run_up.models import RunUp
from kestrel.run_up.renaming import rekeyed
from kestrel.service.models import Service
from kestrel.service.signals import service_changed
from kestrel.service.work import gathered, typed_service
from kestrel.stove.models import Batch
from saucier.errors import BadInput
from saucier.service import Plan, renamed_pots


@receiver(service_changed, dispatch_uid="run_up.begun_follows_its_pot")
def begun_follows_its_pot(
    sender: object,
    service: Service,
    before: dict[str, Any],
    pinned_before: dict[str, int],
    **more: Any,
) -> None:
    """Batches, chosen pans and marks of ``service`` under a key that is no more go on under that of the very same
    sauce (:func:`renamed_pots`); looked at only where something was begun, or a key can have changed."""
    batches = Batch.objects.filter(service=service).exclude(status=Batch.Status.LEFT)
    if before.get("on_hand") == service.document.get("on_hand") or not batches.exists():
        return
    try:
        renamed = renamed_pots(
            _planned(service, before, pinned_before),
            _planned(service, service.document, service.pinned),
        )
    except BadInput:  # what cannot be planned has no pots to follow
        return
    if not renamed:
        return

    def turned(pot: str) -> str:
        head, slash, inside = pot.partition("/")
        return f"{renamed[head]}{slash}{inside}" if head in renamed else pot

    for batch in batches:
        if (pot := turned(batch.pot)) != batch.pot:
            Batch.objects.filter(pk=batch.pk).update(pot=pot)
    if pans := service.document.get("pans"):
        service.document["pans"] = {turned(key): pan for key, pan in pans.items()}
        Service.objects.filter(pk=service.pk).update(document=service.document)
    for row in RunUp.objects.filter(service=service):
        document = rekeyed(row.document, turned)
        if document != row.document:
            RunUp.objects.filter(pk=row.pk).update(document=document, planned=None, planned_of="")


def _planned(service: Service, document: dict[str, Any], pinned: dict[str, int]) -> Plan:
    whole = gathered(service.kitchen, document, pinned)
    return whole.plan(typed_service(document, whole.kitchen))
