"""What probes tell of a pot: how warm it is, how warm it was, and what is still to be shown of it."""

from datetime import datetime

from django.db.models import Max

from kestrel.stove.counting import counted, now_of
from kestrel.stove.models import Act, Batch
from saucier import constants as K
from saucier.keeping import ProbeRead
from saucier.steps import Reheat
from saucier.watch import Following, Probed, probed, probed_middle
from saucier.words import Sentence, say

READ_OFF = Act.objects.filter(kind="saw", data__what="probe")
"""What cooks read off probes. A list of pots fetches theirs at once, as ``probe_acts``."""
_HEATS_ON = frozenset({"simmer", "reduce", "reheat", "hold"})
"""Steps after a liaison that warm it anew: what is read there says nothing of the liaison."""


def liaisons_read(batch: Batch) -> dict[int, float]:
    """The hottest a probe read each liaison of ``batch``, by the number of its step; those nobody read are not
    there."""
    steps = batch.sheet.get("steps", [])
    hottest: dict[int, float] = {}
    for number, step in enumerate(steps):
        if step.get("op") != "liaison" or str(number) not in batch.began:
            continue
        heated = next(
            (n for n in range(number + 1, len(steps)) if steps[n].get("op") in _HEATS_ON), None
        )
        until = batch.began.get(str(heated)) if heated is not None else None
        read = hottest_read(batch, batch.began[str(number)], until)
        if read is not None:
            hottest[number] = read
    return hottest


def hottest_read(batch: Batch, since: str, until: str | None = None) -> float | None:
    """The hottest a probe read the pot of ``batch`` from one moment to another (None: to its end), °C, by itself or read
    off by a cook. None: nothing was read."""
    first = datetime.fromisoformat(since)
    rows = batch.readings.filter(kind="probe", kept_key="", at__gte=first)
    last = datetime.fromisoformat(until) if until else batch.ended_at
    if last is not None:
        rows = rows.filter(at__lte=last)
    hottest = rows.aggregate(hottest=Max("value"))["hottest"]
    read = [
        float(act.data["value"])
        for act in read_off(batch)
        if act.at >= first and (not last or act.at <= last)
    ]
    if hottest is not None:
        read.append(float(hottest))
    return max(read, default=None)


def read_off(batch: Batch) -> list[Act]:
    """What a cook read off a probe of the pot of ``batch`` and has not taken back, in order."""
    fetched = getattr(batch, "probe_acts", None)
    if not (READ_OFF.filter(batch=batch).exists() if fetched is None else fetched):
        return []  # of nearly every pot: it is asked of each at every look
    return [act for act in counted(batch) if act.kind == "saw" and act.data["what"] == "probe"]


def warms_to(batch: Batch) -> float | None:
    """°C the middle comes to at the step ``batch`` is at; None: that step asks for none."""
    steps = batch.sheet.get("steps", [])
    if batch.kind != Batch.Kind.SAUCE or not batch.step < len(steps):
        return None
    step = steps[batch.step]
    return float(step.get("to_c", Reheat().to_c)) if step.get("op") == "reheat" else None


def middle_read_c(batch: Batch) -> float | None:
    """The hottest the pot was read since ``batch`` came to the step it is at, the last time it did, °C. None: nobody has
    read it since."""
    came = batch.acts.filter(kind="go", taken=True, data__to_step=batch.step).last()
    since = came.at if came else batch.started_at
    rows = batch.readings.filter(kind="probe", kept_key="", at__gte=since)
    read = [
        float(act.data["value"])
        for act in read_off(batch)
        if came is None or act.pk > came.pk  # moments of one press are too near to go by
    ]
    hottest = rows.aggregate(hottest=Max("value"))["hottest"]
    return max([*read, *([] if hottest is None else [float(hottest)])], default=None)


def asks_of(batch: Batch) -> Sentence | None:
    """What is still to be shown of the step ``batch`` is at before it is left: its middle, by a probe. None: nothing."""
    to_c = warms_to(batch)
    if to_c is None or batch.status != Batch.Status.ON:
        return None
    read = middle_read_c(batch)
    if read is None:
        return say("middle-unread", to_c=to_c)
    return say("middle-below", to_c=to_c, read_c=read) if read < to_c else None


def yolk_read_c(batch: Batch) -> float | None:
    """The hottest a probe read the pot since its first liaison went in; None: nothing was read, or it has none."""
    steps = batch.sheet.get("steps", [])
    first = next((n for n, step in enumerate(steps) if step.get("op") == "liaison"), None)
    if first is None or str(first) not in batch.began:
        return None
    return hottest_read(batch, batch.began[str(first)])


def probed_now(batch: Batch, found: Following | None) -> Probed | None:
    """What the probe in ``batch`` tells of the step it is at; None: none does, or not of late."""
    read = last_probe(batch)
    if read is None or read.minutes_ago > K.PROBE_FRESH_MIN:
        return None
    at_c = read.celsius
    middle_c = batch.plan.get("middle_c")
    if middle_c is not None:
        return probed_middle(at_c, middle_c)
    return None if found is None else probed(found.checked, batch.step, found.before, at_c)


def last_probe(batch: Batch) -> ProbeRead | None:
    """What a probe read last of the pot ``batch`` itself, whatever it hangs in now, and how long ago."""
    row = batch.readings.filter(kind="probe", kept_key="").order_by("at").last()
    read = [(row.at, row.value)] if row else []
    read += [(act.at, float(act.data["value"])) for act in read_off(batch)]
    # Not all that one reads is kept: what it shows now is.
    read += [
        (device.read_at, device.value)
        for device in batch.devices.all()
        if device.kind == "probe" and not device.kept_key and device.value is not None
        if device.read_at and device.read_at >= batch.started_at
    ]
    if not read:
        return None
    at, celsius = max(read)
    return ProbeRead(celsius, max(0.0, (now_of(batch) - at).total_seconds() / 60.0))
