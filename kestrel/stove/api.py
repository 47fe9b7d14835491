"""Cooking along."""

from typing import Any, cast

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router, Status
from ninja.security import HttpBearer

from kestrel.accounts.auth import KitchenRequest
from kestrel.live import tell
from kestrel.problems import Message, Problems
from kestrel.sauces.models import Sauce
from kestrel.service.models import Service
from kestrel.stove import actions
from kestrel.stove.acts import ActsIn
from kestrel.stove.doing import counted, do
from kestrel.stove.following import as_cooked, clashes, poured_g, told_of
from kestrel.stove.models import Batch, Device
from kestrel.stove.readings import add_device, digest_of, put_under, take
from kestrel.stove.schemas import (
    ActsOut,
    BatchLine,
    BatchOut,
    DeviceIn,
    DeviceMade,
    DeviceOut,
    PotOfService,
    PutUnderIn,
    ReadingTaken,
    StartIn,
    StartPotIn,
)
from saucier.correction import SpoonSeen, spoons_about
from saucier.heat import Pan, SideView
from saucier.sheet import write_sheet
from saucier.watch import PotFollowed, read_readings
from saucier.words import say

router = Router(tags=["stove"])
devices = Router(tags=["devices"])
readings = Router(tags=["readings"])


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
        "hands": "all" if at_end else cards[batch.step].get("hands", "now-and-then"),
        "pan": batch.plan["pan"]["name"],
        "timers": batch.timers,
        "now": timezone.now(),
    }


def _drawn(pan: dict[str, Any]) -> dict[str, Any] | SideView:
    """The pan of a plan with its outline, which batches of before do not have."""
    return pan if pan.get("outline") else SideView.of(Pan(**pan))


def _whole(batch: Batch) -> dict[str, Any]:
    acts = counted(batch)
    cooked = as_cooked(batch, acts)
    return {
        **_line(batch),
        "sauce_id": batch.version.sauce_id if batch.version else None,
        "version": batch.version.number if batch.version else None,
        "service_id": batch.service_id,
        "status": batch.status,
        "revision": batch.revision,
        "started_at": batch.started_at,
        "plan": {**batch.plan, "pan": _drawn(batch.plan["pan"])},
        "sheet": write_sheet(cooked.sheet),
        "began": batch.began,
        "cards": cooked.cards or batch.plan["cards"],
        "followed": cooked.followed,
        "followed_why": cooked.why,
        "spoons": _spoons(cooked.followed, batch.step),
        "acts": told_of(acts),
        "devices": list(batch.devices.all()),
        "poured_g": poured_g(batch),
        "mends": batch.mends,
        "beside": [
            *(_beside(first, into=False) for first in batch.made_first.order_by("pk")),
            *([_beside(batch.made_for, into=True)] if batch.made_for else []),
        ],
    }


def _spoons(followed: PotFollowed | None, step: int) -> tuple[SpoonSeen, ...]:
    """Spoons to pick from about where the pot is likely to be."""
    if followed is None or not followed.states:
        return ()
    eta = followed.states[min(step, len(followed.states) - 1)].viscosity_pa_s
    if followed.watched is not None:
        eta = followed.watched.viscosity_pa_s.value
    return spoons_about(min(30.0, max(0.06, eta))) if eta else ()


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
    batches = list(
        Batch.objects.filter(kitchen=kitchen, status=Batch.Status.ON).prefetch_related("devices")
    )
    told = clashes(batches)
    return [{**_line(batch), "clash": told.get(batch.pk)} for batch in batches]


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


@router.post("/{batch_id}/acts", response={200: ActsOut, 404: Message, 422: Problems})
def act(request: HttpRequest, batch_id: int, given: ActsIn):
    """What was done at it, in order. An act that is sent again happens once; one that came too late is
    written down and says why it changed nothing."""
    asking = cast(KitchenRequest, request)
    batch = batch_of(request, batch_id)
    told = do(asking.kitchen, asking.user, batch, given.acts, given.sent_at)
    return {"acts": told, "batch": _whole(batch_of(request, batch_id))}


# -- scales and probes


class ByToken(HttpBearer):
    """Lets a device through by its token."""

    def authenticate(self, request: HttpRequest, token: str) -> Any:
        rows = Device.objects.select_related("batch__kitchen")
        return rows.filter(digest=digest_of(token)).first()


@devices.get("", response=list[DeviceOut])
def list_devices(request: HttpRequest):
    return Device.objects.filter(kitchen=cast(KitchenRequest, request).kitchen)


@devices.post("", response={201: DeviceMade, 422: Problems})
def new_device(request: HttpRequest, given: DeviceIn):
    """A scale or a probe; its token is told once."""
    kitchen = cast(KitchenRequest, request).kitchen
    device, token = add_device(kitchen, given.name, given.kind, given.simulated)
    told = DeviceOut.from_orm(device).dict()
    return Status(201, {**told, "token": token})


@devices.put("/{device_id}", response={200: DeviceOut, 404: Message, 422: Problems})
def stands_under(request: HttpRequest, device_id: int, given: PutUnderIn):
    """Put it under a pot, or under none."""
    device = _device(request, device_id)
    batch = None if given.batch_id is None else batch_of(request, given.batch_id)
    return put_under(device, batch)


@devices.delete("/{device_id}", response={204: None, 404: Message})
def forget_device(request: HttpRequest, device_id: int):
    """Forget it, and its token; what it read stays with the batches that are done."""
    device = _device(request, device_id)
    tell(device.kitchen_id, "devices", {})
    device.delete()
    return Status(204, None)


@readings.post("", auth=ByToken(), response={200: ReadingTaken, 401: Message, 422: Problems})
def read(request: HttpRequest, given: dict[str, Any] | list[Any]):
    """A reading (docs/formats/reading.schema.json), or several, oldest first, of the device whose token
    comes with it."""
    device = cast(Device, cast(Any, request).auth)
    several = read_readings(given)
    watched = take(device, several)
    left = watched.minutes_left if watched else None
    return {
        "taken": len(several),
        "batch": device.batch.plan["name"] if device.batch else None,
        "mass_g": watched.mass_g.value if watched else None,
        "minutes_left": left.value if left else None,
        "minutes_low": left.low if left else None,
        "minutes_high": left.high if left else None,
    }


def _device(request: HttpRequest, device_id: int) -> Device:
    kitchen = cast(KitchenRequest, request).kitchen
    return get_object_or_404(Device, kitchen=kitchen, pk=device_id)
