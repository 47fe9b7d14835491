"""Scales and probes: known by a token, put under a pot, and what they read."""

import hashlib
import secrets
from dataclasses import asdict
from datetime import datetime, timedelta
from typing import Any

from django.db import transaction
from django.dispatch import receiver
from django.utils import timezone

from kestrel.accounts.models import Kitchen, User
from kestrel.accounts.people import person_left
from kestrel.live import listening, tell
from kestrel.room import room_for_another
from kestrel.stove.following import as_cooked, poured_g
from kestrel.stove.models import Batch, Device
from kestrel.stove.models import Reading as Row
from kestrel.stove.probes import asks_of, probed_now
from saucier.errors import BadInput
from saucier.thinning import thinned
from saucier.watch import Reading, Watched
from saucier.words import plain

DRAWN = 300
"""Points of a curve that are drawn: more are not seen."""
APART_S = 2.0
"""Readings of one device nearer to each other than so are not all kept."""
AHEAD = timedelta(hours=24)
"""What a simulated device may be ahead of the clock."""
CLOCK_OFF = timedelta(seconds=2)


def add_device(
    kitchen: Kitchen, user: User, name: str, kind: str, simulated: bool
) -> tuple[Device, str]:
    """A device that ``user`` enters, and its token: told once, and not kept. Raises :class:`BadInput` by field."""
    name = _named(name)
    if kind not in Device.Kind.values:
        raise BadInput.at("kind", "device-is-of-no-kind", kind=kind[:20])
    room_for_another(Device, kitchen, "name")
    token = secrets.token_urlsafe(24)
    device = Device.objects.create(
        kitchen=kitchen,
        name=name,
        kind=kind,
        simulated=simulated,
        digest=digest_of(token),
        made_by=user,
    )
    return device, token


def _at(device: Device, batch: Batch) -> bool:
    """Whether ``device`` can be at ``batch``: a scale or a probe while it is on, a probe while it cools."""
    if batch.status == Batch.Status.DONE:
        return device.kind == Device.Kind.PROBE
    return batch.status == Batch.Status.ON and device.kind != Device.Kind.PRINTER


def rename_device(device: Device, name: str) -> Device:
    """``device`` called ``name``. Raises :class:`BadInput`."""
    device.name = _named(name)
    device.save(update_fields=["name"])
    tell(device.kitchen_id, "devices", {})
    return device


def _named(name: str) -> str:
    name = name.strip()
    if not 1 <= len(name) <= 60:
        raise BadInput.at("name", "device-has-no-name")
    return name


def digest_of(token: str) -> str:
    """What is kept of a token."""
    return hashlib.sha256(token.encode()).hexdigest()


@transaction.atomic
def put_under(
    device: Device, batch: Batch | None, kept_key: str = "", tray: int | None = None
) -> Device:
    """``device`` under ``batch``, or under none; of what was put away of it, in a ``tray`` of ``kept_key``. What
    stood there before is without. Raises :class:`BadInput` (``batch_id``; ``kept_key`` for no lot of that batch)."""
    if batch is not None and not _at(device, batch):
        raise BadInput.at("batch_id", "is-no-batch-on")
    if kept_key:
        # Readings of a lot nobody put away would be nobody's: none is lost that way.
        lot = None if batch is None else batch.kept.filter(key=kept_key).first()
        if lot is None or not 1 <= (tray or 1) <= lot.trays:
            raise BadInput.at("kept_key", "is-no-lot-of-it")
    if batch is not None:
        there = Device.objects.filter(batch=batch, kind=device.kind, kept_key=kept_key, tray=tray)
        there.exclude(pk=device.pk).update(batch=None, kept_key="", tray=None)
    if batch is None:
        kept_key, tray = "", None
    if (device.batch_id, device.kept_key, device.tray) != (
        batch.pk if batch else None,
        kept_key,
        tray,
    ):
        if device.value is not None and device.read_at is not None and device.batch is not None:
            of, at = device.batch.plan["name"], device.read_at.isoformat()
            device.read_before = {"value": device.value, "at": at, "of": of}
        device.value = device.read_at = None  # what it shows is of where it was
    device.batch, device.kept_key, device.tray = batch, kept_key, tray
    device.save(update_fields=["batch", "kept_key", "tray", "value", "read_at", "read_before"])
    transaction.on_commit(lambda: tell(device.kitchen_id, "devices", {}))
    return device


def readings_of(batch: Batch) -> dict[str, list[dict[str, float]]]:
    """What was read of ``batch`` in all, by kind of device, in at most :data:`DRAWN` points each."""
    found: dict[str, list[dict[str, float]]] = {"scale": [], "probe": []}
    for at, kind, value in batch.readings.order_by("at").values_list("at", "kind", "value"):
        minutes = (at - batch.started_at).total_seconds() / 60.0
        found[kind].append({"at_min": round(minutes, 2), "value": value})
    return {kind: thinned(rows, DRAWN) for kind, rows in found.items()}


@receiver(person_left, dispatch_uid="stove.stop_devices")
def stop_devices(sender: object, user: User, kitchen: Kitchen, **more: Any) -> None:
    """What somebody entered who was let go is let in no more."""
    theirs = Device.objects.filter(kitchen=kitchen, made_by=user, stopped_at=None)
    if theirs.update(stopped_at=timezone.now(), batch=None, kept_key="", tray=None):
        transaction.on_commit(lambda: tell(kitchen.pk, "devices", {}))


@transaction.atomic
def renew_device(device: Device, user: User) -> str:
    """A new token for ``device``, which is ``user``'s from now on: it is let in again. The token is told once."""
    token = secrets.token_urlsafe(24)
    device.digest, device.made_by, device.stopped_at = digest_of(token), user, None
    device.save(update_fields=["digest", "made_by", "stopped_at"])
    transaction.on_commit(lambda: tell(device.kitchen_id, "devices", {}))
    return token


def _last_kept(device: Device) -> datetime | None:
    """When the newest reading was that is kept of ``device`` where it stands. (What it last read may be newer, and not kept:
    a scale that sends each second would never be that far from its last.)"""
    rows = Row.objects.filter(
        batch=device.batch, device=device, kept_key=device.kept_key, tray=device.tray
    )
    return rows.order_by("-at").values_list("at", flat=True).first() if device.batch_id else None


def take(device: Device, readings: list[Reading]) -> Watched | None:
    """``readings`` of ``device``, oldest first; what is believed of the pot it is at, where it boils.
    Raises :class:`BadInput` for what such a device does not read."""
    now = timezone.now()
    latest = now + (AHEAD if device.simulated else CLOCK_OFF)
    kept = []
    before = _last_kept(device)
    for number, one in enumerate(readings):
        if one.kind != device.kind:
            field = "temperature_c" if one.kind == "probe" else "mass_g"
            raise BadInput.at(f"[{number}].{field}", "reads-something-else", kind=device.kind)
        at = min(one.at or now, latest)
        device.value, device.read_at = one.value, at
        if before is None or abs((at - before).total_seconds()) >= APART_S:
            before = at
            ahead_s = (one.at - now).total_seconds() if one.at else 0.0
            kept.append(
                Row(
                    device=device,
                    batch=device.batch,
                    kind=one.kind,
                    at=at,
                    value=one.value,
                    kept_key=device.kept_key,
                    tray=device.tray,
                    device_name=device.name,
                    simulated=device.simulated,
                    clock_off_s=0.0 if device.simulated else max(0.0, ahead_s),
                    written_at=now,
                )
            )
    batch = device.batch
    if batch is not None and not _at(device, batch):
        batch = None
    with transaction.atomic():
        device.save(update_fields=["value", "read_at"])
        if batch is not None:
            Row.objects.bulk_create(kept)
    cooked = as_cooked(batch) if batch and batch.status == Batch.Status.ON else None
    probe = batch is not None and device.kind == Device.Kind.PROBE
    found = cooked.following if cooked else None
    about: dict[str, Any] = {
        "device": device.pk,
        "batch": batch.pk if batch else None,
        "kind": device.kind,
        "value": device.value,
        "at": device.read_at.isoformat() if device.read_at else None,
        "poured_g": poured_g(batch) if cooked and batch and device.kind == "scale" else None,
        "probed": plain(probed_now(batch, found)) if batch and cooked and probe else None,
        "asks": plain(asks_of(batch)) if batch and cooked and probe else None,
    }
    tell(device.kitchen_id, "reading", about)
    watched = found.told.watched if found else None
    if batch and watched is not None and listening(device.kitchen_id):
        tell(device.kitchen_id, "watched", {"batch": batch.pk, "watched": plain(asdict(watched))})
    return watched
