"""Scales, probes and label printers: entered by a cook, and speaking for themselves by their tokens."""

from typing import Any, cast

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Status
from ninja.security import HttpBearer

from kestrel.accounts.auth import KitchenRequest
from kestrel.live import tell
from kestrel.once import TOLD_ONCE
from kestrel.problems import Message
from kestrel.stove.api import batch_of, label_told
from kestrel.stove.labels import next_for, picture_of, printed
from kestrel.stove.models import Device, Label
from kestrel.stove.readings import (
    add_device,
    digest_of,
    put_under,
    rename_device,
    renew_device,
    take,
)
from kestrel.stove.schemas import (
    DeviceIn,
    DeviceMade,
    DeviceOut,
    LabelOut,
    LabelToPrint,
    PutUnderIn,
    ReadingTaken,
    RenamedIn,
)
from saucier.watch import read_readings
from saucier.words import go_by

devices = Router(tags=["devices"])
readings = Router(tags=["readings"])
labels = Router(tags=["labels"])


class ByToken(HttpBearer):
    """Lets a device of one of ``kinds`` through by its token."""

    def __init__(self, *kinds: str) -> None:
        super().__init__()
        self.kinds = kinds

    def authenticate(self, request: HttpRequest, token: str) -> Any:
        rows = Device.objects.select_related("kitchen", "batch__kitchen")
        device = rows.filter(kind__in=self.kinds, digest=digest_of(token), stopped_at=None).first()
        if device is not None:
            go_by(device.kitchen.ways)
        return device


_reads = ByToken(Device.Kind.SCALE, Device.Kind.PROBE)
_prints = ByToken(Device.Kind.PRINTER)


@devices.get("", response=list[DeviceOut])
def list_devices(request: HttpRequest):
    rows = Device.objects.filter(kitchen=cast(KitchenRequest, request).kitchen)
    return rows.select_related("made_by")


@devices.post("", response={201: DeviceMade, 409: Message})
def new_device(request: HttpRequest, response: HttpResponse, given: DeviceIn):
    """A scale or a probe; its token is told once."""
    response[TOLD_ONCE] = "1"
    asking = cast(KitchenRequest, request)
    device, token = add_device(asking.kitchen, asking.user, given.name, given.kind, given.simulated)
    told = DeviceOut.from_orm(device).dict()
    return Status(201, {**told, "token": token})


@devices.put("/{device_id}", response={200: DeviceOut, 404: Message})
def stands_under(request: HttpRequest, device_id: int, given: PutUnderIn):
    """Put it under a pot, or under none; or into a tray of what was put away of it (its key)."""
    device = _device(request, device_id)
    batch = None if given.batch_id is None else batch_of(request, given.batch_id)
    return put_under(device, batch, given.kept_key or "", given.tray)


@devices.post("/{device_id}/token", response={200: DeviceMade, 404: Message})
def renew(request: HttpRequest, response: HttpResponse, device_id: int):
    """A new token, told once: for one that was stopped, since who entered it was let go, or whose token was lost."""
    device = _device(request, device_id)
    token = renew_device(device, cast(KitchenRequest, request).user)
    return {**DeviceOut.from_orm(device).dict(), "token": token}


@devices.put("/{device_id}/name", response={200: DeviceOut, 404: Message})
def rename(request: HttpRequest, device_id: int, given: RenamedIn):
    """Call it otherwise; it keeps its token."""
    return rename_device(_device(request, device_id), given.name)


@devices.delete("/{device_id}", response={204: None, 404: Message})
def forget_device(request: HttpRequest, device_id: int):
    """Forget it, and its token; what it read stays with the batches that are done."""
    device = _device(request, device_id)
    tell(device.kitchen_id, "devices", {})
    device.delete()
    return Status(204, None)


@readings.post("", auth=_reads, response={200: ReadingTaken, 401: Message})
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


# -- label printers


@labels.get("/{label_id}.svg", response={200: None, 404: Message})
def label_picture(request: HttpRequest, label_id: int):
    """The label as a picture."""
    kitchen = cast(KitchenRequest, request).kitchen
    label = get_object_or_404(Label, kitchen=kitchen, pk=label_id)
    return HttpResponse(picture_of(label), content_type="image/svg+xml")


@labels.get("/next", auth=_prints, response={200: LabelToPrint, 204: None, 401: Message})
def next_label(request: HttpRequest):
    """The oldest label that is not printed, for the printer whose token comes with it; 204: none."""
    label = next_for(cast(Device, cast(Any, request).auth))
    if label is None:
        return Status(204, None)
    return {**label_told(label), "svg": picture_of(label)}


@labels.post(
    "/{label_id}/printed", auth=_prints, response={200: LabelOut, 401: Message, 404: Message}
)
def is_printed(request: HttpRequest, label_id: int):
    """It is out. Said again, nothing changes."""
    label = printed(cast(Device, cast(Any, request).auth), label_id)
    if label is None:
        return Status(404, {"message": "No such label."})
    return label_told(label)
