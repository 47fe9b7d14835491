"""Keys of before December 2026, put in place of today's: a mother pot went by her rank, and changed places with
another as portions changed; tasks of what is warmed or thawed went by how much of it, or where it stood in a list.

Done after all migrations, since it plans each service once with today's code; what is done already is not looked at.
"""

import logging
import re
from collections.abc import Callable, Mapping
from typing import Any

from django.apps import AppConfig
from django.db import transaction
from django.db.models.signals import post_migrate
from django.dispatch import receiver

from kestrel.run_up.models import RunUp
from kestrel.service.models import Service
from kestrel.service.work import gathered, typed_service
from kestrel.stove.models import Batch

_RANKED = re.compile(r"mother-(\d+)(?=$|[#/.])")
_FIRST_OF = re.compile(r"^(oven|grill|prep):(.+)#1$")
"""The first of several loads bore a number, and the only one none: one key now, however many there are."""
_KEYED = ("rings", "minutes", "pins", "marks")
_log = logging.getLogger(__name__)


@receiver(post_migrate, dispatch_uid="run_up.rename_ranked_mothers")
def rename_ranked_mothers(sender: AppConfig, **_: Any) -> None:
    if sender.name != "kestrel.run_up":
        return
    batches = Batch.objects.filter(pot__regex=r"^mother-\d+").values_list("service", flat=True)
    services = Service.objects.filter(pk__in=set(batches))
    by_pans = [
        service.pk
        for service in Service.objects.filter(document__has_key="pans")
        if any(_RANKED.search(key) for key in service.document["pans"])
    ]
    by_run_up = [
        row.service_id
        for row in RunUp.objects.exclude(service=None)
        if any(_RANKED.search(key) for name in _KEYED for key in row.document.get(name, {}))
    ]
    for row in RunUp.objects.all():
        document = {
            **row.document,
            **{
                name: _with(row.document[name], _as_first)
                for name in _KEYED
                if name in row.document
            },
        }
        if document != row.document:
            RunUp.objects.filter(pk=row.pk).update(document=document, planned=None, planned_of="")
    for service in services | Service.objects.filter(pk__in=[*by_pans, *by_run_up]):
        try:
            with transaction.atomic():
                _rename(service)
        except (
            Exception
        ):  # one service that cannot be planned any more keeps nobody from the others
            _log.exception("The pots of service %s keep their keys of before", service.pk)


def _as_first(key: str) -> str:
    return _FIRST_OF.sub(r"\1:\2", key)


def _rename(service: Service) -> None:
    whole = gathered(service.kitchen, service.document, service.pinned)
    plan = whole.plan(typed_service(service.document, whole.kitchen))
    # The rank she had then is the place she has among the mothers of the same plan.
    mothers = [pot.key for pot in plan.pots if pot.mother]

    def turned(key: str) -> str:
        def named(found: re.Match[str]) -> str:
            rank = int(found[1])
            return mothers[rank - 1] if 1 <= rank <= len(mothers) else found[0]

        return _RANKED.sub(named, key)

    if pans := service.document.get("pans"):
        service.document = {**service.document, "pans": _with(pans, turned)}
        Service.objects.filter(pk=service.pk).update(document=service.document)
    for batch in Batch.objects.filter(service=service, pot__startswith="mother-"):
        Batch.objects.filter(pk=batch.pk).update(pot=turned(batch.pot))
    for row in RunUp.objects.filter(service=service):
        document = {
            **row.document,
            **{name: _with(row.document[name], turned) for name in _KEYED if name in row.document},
        }
        if document != row.document:
            RunUp.objects.filter(pk=row.pk).update(document=document, planned=None, planned_of="")


def _with(keyed: Mapping[str, Any], turned: Callable[[str], str]) -> dict[str, Any]:
    return {turned(key): value for key, value in keyed.items()}
