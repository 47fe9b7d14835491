"""Cooking along."""

from typing import Any, cast

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router, Status

from kestrel.accounts.auth import KitchenRequest
from kestrel.problems import Message, Problems
from kestrel.sauces.models import Sauce
from kestrel.service.models import Service
from kestrel.stove import actions
from kestrel.stove.models import Batch
from kestrel.stove.schemas import (
    BatchLine,
    BatchOut,
    GoIn,
    MendIn,
    PotOfService,
    StartIn,
    StartPotIn,
    TimerIn,
)
from saucier.heat import Pan, SideView
from saucier.words import say

router = Router(tags=["stove"])


def batch_of(request: HttpRequest, batch_id: int) -> Batch:
    """The kitchen's batch; 404 for anybody else's."""
    kitchen = cast(KitchenRequest, request).kitchen
    rows = Batch.objects.select_related("version", "made_for").filter(kitchen=kitchen)
    return get_object_or_404(rows, pk=batch_id)


def _line(batch: Batch) -> dict[str, Any]:
    cards = batch.plan["cards"]
    at_end = batch.step >= len(cards)
    return {
        "id": batch.pk,
        "name": batch.plan["name"],
        "step": batch.step,
        "steps": len(cards),
        "title": say("at-the-end") if at_end else cards[batch.step]["title"],
        "cue": say("at-the-end-cue") if at_end else cards[batch.step]["cue"],
        "timer_started_at": batch.timer_started_at,
        "timer_s": batch.timer_s,
        "now": timezone.now(),
    }


def _drawn(pan: dict[str, Any]) -> dict[str, Any] | SideView:
    """The pan of a plan with its outline, which batches of before do not have."""
    return pan if pan.get("outline") else SideView.of(Pan(**pan))


def _whole(batch: Batch) -> dict[str, Any]:
    return {
        **_line(batch),
        "sauce_id": batch.version.sauce_id if batch.version else None,
        "version": batch.version.number if batch.version else None,
        "service_id": batch.service_id,
        "status": batch.status,
        "revision": batch.revision,
        "started_at": batch.started_at,
        "plan": {**batch.plan, "pan": _drawn(batch.plan["pan"])},
        "sheet": batch.sheet,
        "mends": batch.mends,
        "beside": [
            *(_beside(first, into=False) for first in batch.made_first.order_by("pk")),
            *([_beside(batch.made_for, into=True)] if batch.made_for else []),
        ],
    }


def _beside(batch: Batch, *, into: bool) -> dict[str, Any]:
    return {
        "id": batch.pk,
        "name": batch.plan["name"],
        "status": batch.status,
        "into": into,
    }


@router.get("", response=list[BatchLine])
def on_now(request: HttpRequest):
    """The pots that are on now."""
    kitchen = cast(KitchenRequest, request).kitchen
    return [_line(batch) for batch in Batch.objects.filter(kitchen=kitchen, status=Batch.Status.ON)]


@router.post("", response={201: BatchOut, 404: Message, 422: Problems})
def start(request: HttpRequest, given: StartIn):
    """Start a saved sauce: its newest version, or the one named."""
    asking = cast(KitchenRequest, request)
    sauce = get_object_or_404(Sauce, kitchen=asking.kitchen, pk=given.sauce_id)
    version = get_object_or_404(sauce.versions, number=given.version or sauce.version)
    return Status(201, _whole(actions.start(asking.kitchen, asking.user, version)))


@router.get("/of-service/{service_id}", response={200: list[PotOfService], 404: Message})
def of_service(request: HttpRequest, service_id: int):
    """The batches of a service: on the stove, or done."""
    kitchen = cast(KitchenRequest, request).kitchen
    service = get_object_or_404(Service, kitchen=kitchen, pk=service_id)
    return Batch.objects.filter(service=service).exclude(status=Batch.Status.LEFT)


@router.post("/of-service/{service_id}", response={201: BatchOut, 404: Message, 422: Problems})
def start_pot(request: HttpRequest, service_id: int, given: StartPotIn):
    """Start a pot of a service as it is saved: one batch of it, in its sauces' versions there."""
    asking = cast(KitchenRequest, request)
    service = get_object_or_404(Service, kitchen=asking.kitchen, pk=service_id)
    return Status(201, _whole(actions.start_pot(asking.kitchen, asking.user, service, given.pot)))


@router.get("/{batch_id}", response={200: BatchOut, 404: Message})
def one_batch(request: HttpRequest, batch_id: int):
    return _whole(batch_of(request, batch_id))


@router.post("/{batch_id}/step", response={200: BatchOut, 409: Message, 422: Problems})
def go_to(request: HttpRequest, batch_id: int, given: GoIn):
    return _whole(actions.go_to(batch_of(request, batch_id), given.step, given.revision))


@router.post("/{batch_id}/timer", response={200: BatchOut, 409: Message, 422: Problems})
def timer(request: HttpRequest, batch_id: int, given: TimerIn):
    """Start the timer of the step over so many seconds, or stop it with null."""
    return _whole(actions.run_timer(batch_of(request, batch_id), given.seconds, given.revision))


@router.post("/{batch_id}/mended", response={200: BatchOut, 409: Message, 422: Problems})
def mended(request: HttpRequest, batch_id: int, given: MendIn):
    """Write down a remedy that was taken; the plan stays as it was."""
    batch = batch_of(request, batch_id)
    return _whole(actions.mend(batch, given.sign, given.title, given.do, given.revision))


@router.post("/{batch_id}/leave", response=BatchOut)
def leave(request: HttpRequest, batch_id: int):
    """Take it off unfinished; `put-back` undoes it."""
    return _whole(actions.end(batch_of(request, batch_id), Batch.Status.LEFT))


@router.post("/{batch_id}/put-back", response=BatchOut)
def put_back(request: HttpRequest, batch_id: int):
    return _whole(actions.put_back(batch_of(request, batch_id)))
