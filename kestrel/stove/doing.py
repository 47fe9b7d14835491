"""Acts at a batch: each written down once, in the order it comes, and what it does to the batch."""

from collections.abc import Callable, Sequence
from datetime import datetime, timedelta
from typing import Any, cast

from django.db import transaction
from django.utils import timezone

from kestrel.accounts.models import Kitchen, User
from kestrel.live import tell
from kestrel.stove import acts as A
from kestrel.stove.models import Act, Batch
from saucier.errors import BadInput
from saucier.rescue import sign_named
from saucier.watch import Seen, as_put
from saucier.words import Sentence, say

MAX_MENDS = 20
CLOCK_OFF_S = 2.0
"""A device's clock that is off by less is taken as right."""
_VOIDED = frozenset({"saw", "put", "turned", "noted"})


class _NotTaken(Exception):
    """It changes nothing any more, and why."""

    def __init__(self, why: Sentence) -> None:
        super().__init__(str(why))
        self.why = why


def do(
    kitchen: Kitchen, user: User, batch: Batch, done: Sequence[A.AnyAct], sent_at: datetime
) -> list[A.ActOut]:
    """``done`` at ``batch``, in order; what of it is there already is passed over. What cannot be taken
    any more is written down with the reason, and holds up nothing behind it. What makes no sense is
    refused as a whole: raises :class:`BadInput` (``acts[n].field``)."""
    off = timezone.now() - sent_at
    if abs(off.total_seconds()) < CLOCK_OFF_S:
        off = timedelta()
    with transaction.atomic():
        batch = Batch.objects.select_for_update().get(pk=batch.pk)
        told = []
        for number, act in enumerate(done):
            try:
                told.append(_once(kitchen, user, batch, act, off))
            except BadInput as bad:
                raise bad.under(f"acts[{number}]") from None
        batch.revision += 1
        batch.save()
        transaction.on_commit(lambda: tell(kitchen.pk, "batch", {"id": batch.pk}))
    return told


def _once(kitchen: Kitchen, user: User, batch: Batch, act: A.AnyAct, off: timedelta) -> A.ActOut:
    there = Act.objects.filter(kitchen=kitchen, key=act.key).first()
    if there is not None:
        return A.ActOut(key=there.key, taken=there.taken, why=there.why)
    now = timezone.now()
    at = max(batch.started_at, min(now, act.at + off))
    if not isinstance(act, A.TimerOn | A.TimerOff):
        at += now_of(batch) - now  # by the pot's own clock, where a simulated device is ahead
    step = getattr(act, "step", batch.step)
    why = ""
    try:
        _DOES[act.kind](batch, act, at)
    except _NotTaken as late:
        why = str(late.why)
    data = act.model_dump(mode="json", exclude={"key", "at", "kind", "step"})
    Act.objects.create(
        kitchen=kitchen,
        batch=batch,
        key=act.key,
        kind=act.kind,
        step=step,
        data=data,
        at=at,
        by=user,
        taken=not why,
        why=why,
    )
    return A.ActOut(key=act.key, taken=not why, why=why)


# -- what each does


def _go(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    assert isinstance(act, A.Go)
    last = len(batch.plan["cards"])
    if not 0 <= act.to_step <= last:
        raise BadInput.at("to_step", "is-not-a-step-of-it", step=act.to_step, last=last)
    _on(batch)
    if batch.step != act.from_step:
        raise _NotTaken(say("is-behind", from_step=act.from_step + 1, step=batch.step + 1))
    began = {step: when for step, when in batch.began.items() if int(step) <= act.to_step}
    batch.began = {**began, str(act.to_step): began.get(str(act.to_step), at.isoformat())}
    batch.step = act.to_step
    batch.timers = [timer for timer in batch.timers if timer["name"] != "step"]


def _timer_on(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    assert isinstance(act, A.TimerOn)
    if not 1 <= act.seconds <= A.MAX_TIMER_S:
        raise BadInput.at("seconds", "is-no-time-to-wait", seconds=act.seconds)
    _on(batch)
    others = [timer for timer in batch.timers if timer["name"] != act.name][-19:]
    timer = {"name": act.name, "started_at": at.isoformat(), "seconds": act.seconds}
    batch.timers = [*others, timer]


def _timer_off(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    assert isinstance(act, A.TimerOff)
    _on(batch)
    batch.timers = [timer for timer in batch.timers if timer["name"] != act.name]


def _saw(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    assert isinstance(act, A.Saw)
    Seen(0.0, act.what, act.value)  # raises where that cannot be seen
    if not 0 <= act.step <= batch.step:
        raise BadInput.at("step", "look-at-step", step=act.step, last=batch.step)
    _on(batch)


def _put(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    assert isinstance(act, A.Put)
    _on(batch)
    as_put(batch.sheet, {(act.step, act.field): act.grams})


def _turned(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    assert isinstance(act, A.Turned)
    _on(batch)
    for number, one in enumerate(act.changes):
        try:
            as_put(batch.sheet, {(one.step, one.field): one.grams})
        except BadInput as bad:
            raise bad.under(f"changes[{number}]") from None


def _mended(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    assert isinstance(act, A.TookRemedy)
    known = sign_named(act.sign)
    if not act.title.strip() or len(batch.mends) >= MAX_MENDS:
        raise BadInput.at("title", "mend-is-empty-or-long")
    _on(batch)
    mend = {"step": batch.step, "sign": str(known.name), "title": act.title.strip(), "do": act.do}
    batch.mends = [*batch.mends, mend]


def _noted(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    """A note is written down, whatever has become of the batch."""


def _undone(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    assert isinstance(act, A.Undone)
    if not Act.objects.filter(batch=batch, key=act.of, kind__in=_VOIDED).exists():
        raise _NotTaken(say("is-no-act"))


def _left(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    _on(batch)
    end(batch, Batch.Status.LEFT, at)


def _back(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    if batch.status == Batch.Status.LEFT:
        batch.status, batch.ended_at = Batch.Status.ON, None


def end(batch: Batch, status: Batch.Status, at: datetime) -> None:
    """``batch`` off the stove: done, or left unfinished. It is not saved here."""
    batch.status, batch.ended_at, batch.timers = status, at, []


def _on(batch: Batch) -> None:
    if batch.status != Batch.Status.ON:
        raise _NotTaken(say("is-off-the-stove"))


_DOES: dict[str, Callable[[Batch, A.AnyAct, datetime], None]] = {
    "go": _go,
    "timer-on": _timer_on,
    "timer-off": _timer_off,
    "saw": _saw,
    "put": _put,
    "turned": _turned,
    "mended": _mended,
    "noted": _noted,
    "undone": _undone,
    "left": _left,
    "back": _back,
}


def now_of(batch: Batch) -> datetime:
    """This moment; a simulated device may be ahead of it, and then it is its."""
    latest = max(
        (d.read_at for d in batch.devices.all() if d.simulated and d.read_at), default=None
    )
    now = timezone.now()
    return max(now, latest) if latest else now


def counted(batch: Batch) -> list[Act]:
    """What was done at ``batch`` and counts: taken, and not undone since."""
    rows = [act for act in batch.acts.select_related("by") if act.taken]
    void = {cast(dict[str, Any], act.data)["of"] for act in rows if act.kind == "undone"}
    return [act for act in rows if act.key not in void and act.kind != "undone"]
