"""Keys of before December 2026, turned into today's: a mother pot went by her rank, and changed places with
another as portions changed; a sauce made first for another went by the number of the step it is for; the first of
several loads bore a number.

Done after all migrations, since it plans each service once with today's code; what is done already is not looked at.
"""

import logging
import re
from collections.abc import Callable, Iterable, Mapping
from typing import Any

from django.apps import AppConfig
from django.db import transaction
from django.db.models.signals import post_migrate
from django.dispatch import receiver

from kestrel.run_up.models import RunUp
from kestrel.service.models import Service
from kestrel.service.work import gathered, typed_service
from kestrel.stove.models import Batch
from saucier.check import keys_inside
from saucier.errors import BadInput
from saucier.service import first_key
from saucier.sheet import read_sheet
from saucier.steps import AnyStep, Use

_RANKED = re.compile(r"mother-(\d+)(?=$|[#/.])")
_FIRST_OF = re.compile(r"^(oven|grill|prep):(.+)#1$")
"""The first of several loads bore a number, and the only one none: one key now, however many there are."""
_INSIDE = re.compile(r"[/.]\d+(?:\.\d+)*$")
"""A sauce made first for another: by the number of its step, and of the step in that."""
_TASK = re.compile(r"^(?P<before>(?:wash:)?(?:pot:|weigh:)?)(?P<pot>.+?)(?P<after>#\d+)?$")
_KEYED = ("rings", "minutes", "pins", "marks")
_log = logging.getLogger(__name__)


@receiver(post_migrate, dispatch_uid="run_up.rename_old_keys")
def rename_old_keys(sender: AppConfig, **_: Any) -> None:
    if sender.name != "kestrel.run_up":
        return
    for batch in Batch.objects.exclude(made_for=None):
        if _INSIDE.search(batch.pot):
            _name_inside(batch)
    batches = Batch.objects.filter(pot__regex=r"^mother-\d+").values_list("service", flat=True)
    services = Service.objects.filter(pk__in=set(batches))
    by_pans = [
        service.pk
        for service in Service.objects.filter(document__has_key="pans")
        if any(_is_old(key) for key in service.document["pans"])
    ]
    by_run_up = [
        row.service_id
        for row in RunUp.objects.exclude(service=None)
        if any(_is_old(key) for name in _KEYED for key in row.document.get(name, {}))
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


def _is_old(key: str) -> bool:
    task = _TASK.match(key)
    return bool(_RANKED.search(key) or (task and _INSIDE.search(task["pot"])))


def _name_inside(batch: Batch) -> None:
    """``batch``, made first for another, goes by its name instead of by the number of a step."""
    last = batch
    while last.made_for is not None:
        last = last.made_for
    try:
        inside = _numbered(read_sheet(last.sheet).steps)
    except BadInput:  # a sheet nobody can read any more keeps its key
        return
    for numbers, path in inside.items():
        if batch.pot == _by_number(last.pot, numbers):
            Batch.objects.filter(pk=batch.pk).update(pot=first_key(last.pot, path))


def _numbered(steps: Iterable[AnyStep]) -> dict[str, str]:
    """The path of every sauce made first for ``steps``, by the numbers of its steps ("2.0")."""
    steps = tuple(steps)
    found: dict[str, str] = {}
    for number, key in keys_inside(steps).items():
        step = steps[number]
        assert isinstance(step, Use)
        found[str(number)] = key
        for deeper, path in _numbered(step.sauce.steps).items():
            found[f"{number}.{deeper}"] = f"{key}/{path}"
    return found


def _by_number(pot: str, numbers: str) -> str:
    """The key a sauce made first for ``pot`` had until December 2026."""
    return f"{pot}.{numbers}" if "/" in pot else f"{pot}/{numbers}"


def _rename(service: Service) -> None:
    whole = gathered(service.kitchen, service.document, service.pinned)
    plan = whole.plan(typed_service(service.document, whole.kitchen))
    # The rank she had then is the place she has among the mothers of the same plan.
    mothers = [pot.key for pot in plan.pots if pot.mother]

    inside = {
        _by_number(pot, numbers): first_key(pot, path)
        for branch in plan.branches
        for pot in (branch.key, branch.pot)
        for numbers, path in _numbered(branch.sheet.steps).items()
    }

    def turned(key: str) -> str:
        task = _TASK.match(key)
        if task and task["pot"] in inside:
            return f"{task['before']}{inside[task['pot']]}{task['after'] or ''}"

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


def rekeyed(document: dict[str, Any], turned: Callable[[str], str]) -> dict[str, Any]:
    """The document of a run-up with the pots its tasks, rings, pins and marks are of ``turned``."""

    def task(key: str) -> str:
        found = _TASK.match(key)
        assert found is not None
        return f"{found['before']}{turned(found['pot'])}{found['after'] or ''}"

    keyed = {name: _with(document[name], task) for name in _KEYED if name in document}
    return {**document, **keyed}


def _with(keyed: Mapping[str, Any], turned: Callable[[str], str]) -> dict[str, Any]:
    return {turned(key): value for key, value in keyed.items()}
