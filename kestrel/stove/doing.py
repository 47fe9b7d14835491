"""Acts at a batch: each written down once, in the order it comes, and what it does to the batch."""

from collections.abc import Callable, Sequence
from dataclasses import replace
from datetime import datetime, timedelta
from typing import Any

from django.db import transaction
from django.utils import timezone

from kestrel.accounts.models import Kitchen, User
from kestrel.accounts.people import who_did
from kestrel.larder.actions import core_kitchen
from kestrel.live import tell
from kestrel.same_thing import refuse_other_thing
from kestrel.sauces.work import read_typed
from kestrel.stove import acts as A
from kestrel.stove.counting import counted, now_of
from kestrel.stove.following import as_cooked, by_the_clock
from kestrel.stove.models import Act, Batch, Milestone
from kestrel.stove.pans import pan_named, pan_under, put_in_pan, with_free_pans
from kestrel.stove.plans import plan_of
from kestrel.stove.probes import middle_read_c, warms_to
from kestrel.stove.signals import middle_read
from saucier.check import check
from saucier.errors import BadInput
from saucier.rescue import sign_named
from saucier.sheet import read_sheet, write_sheet
from saucier.units import read_temperature_c
from saucier.watch import (
    Poured,
    PutIn,
    Seen,
    as_put,
    check_put,
    poured,
    put_as_typed,
    read_told,
    with_mends,
)
from saucier.watch.put import MOST_G
from saucier.words import Sentence, say

MAX_MENDS = 20
MAX_FREE_STEPS = 80
CLOCK_OFF_S = 2.0
"""A device's clock that is off by less is taken as right."""
_LAST_STEP = 1000
"""More than any sheet has: a number beyond is no step of anything."""
_VOIDED = frozenset(
    {"saw", "put", "poured", "turned", "noted", "added", "mended", "corrected", "skipped"}
)


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
        keys = [act.key for act in done]
        there = {act.key: act for act in Act.objects.filter(kitchen=kitchen, key__in=keys)}
        told = []
        for number, act in enumerate(done):
            try:
                before = there.get(act.key)
                if before is not None:
                    refuse_other_thing((before.batch_id, before.kind), (batch.pk, act.kind))
                doer = who_did(kitchen, user, act.done_by)
                there[act.key] = before or _write(kitchen, doer, batch, act, off)
                one = there[act.key]
                told.append(A.ActOut(key=one.key, taken=one.taken, why=one.why))
            except BadInput as bad:
                raise bad.under(f"acts[{number}]") from None
        batch.revision += 1
        batch.save()
        transaction.on_commit(lambda: tell(kitchen.pk, "batch", {"id": batch.pk}))
    return told


def _write(kitchen: Kitchen, user: User, batch: Batch, act: A.AnyAct, off: timedelta) -> Act:
    now = timezone.now()
    at = max(batch.started_at, min(now, _by_our_clock(act.at, off, now)))
    if not isinstance(act, A.TimerOn | A.TimerOff):
        at += now_of(batch) - now  # by the pot's own clock, where a simulated device is ahead
    why, found = "", None
    if not 0 <= (said := getattr(act, "step", 0)) <= _LAST_STEP:
        raise BadInput.at("step", "look-at-step", step=said, last=batch.step)
    try:
        before = batch.status
        found = _DOES[act.kind](batch, act, at)
        if batch.status != before:
            milestone(batch, _BECAME[batch.status], at, user)
        if found and "asked_c" in found:
            middle_read.send(Batch, batch=batch, user=user, key=act.key, at=at, **found)
    except _NotTaken as late:
        why = str(late.why)
    # An added step is the one the pot is at now.
    step = getattr(act, "step", batch.step)
    data = act.model_dump(mode="json", exclude={"key", "at", "kind", "step", "done_by"})
    return Act.objects.create(
        kitchen=kitchen,
        batch=batch,
        key=act.key,
        kind=act.kind,
        step=step,
        data={**data, **(found or {})},
        at=at,
        by=user,
        taken=not why,
        why=why,
    )


def _by_our_clock(at: datetime, off: timedelta, now: datetime) -> datetime:
    """The moment a device calls ``at``, by the server's clock; ``now`` where that is beyond the calendar."""
    try:
        return at + off
    except OverflowError:
        return now


# -- what each does


def _go(batch: Batch, act: A.AnyAct, at: datetime) -> dict[str, Any] | None:
    assert isinstance(act, A.Go)
    last = len(batch.plan["cards"])
    if not 0 <= act.to_step <= last:
        raise BadInput.at("to_step", "is-not-a-step-of-it", step=act.to_step, last=last)
    _on(batch)
    if batch.step != act.from_step:
        raise _NotTaken(say("is-behind", from_step=act.from_step + 1, step=batch.step + 1))
    if batch.kind == Batch.Kind.FREE and act.to_step == last:
        _grown(batch, by_the_clock(batch, at))
    shown = _middle_shown(batch) if act.to_step > act.from_step else None
    began = {step: when for step, when in batch.began.items() if int(step) <= act.to_step}
    batch.began = {**began, str(act.to_step): began.get(str(act.to_step), at.isoformat())}
    batch.step, batch.put_away_at = act.to_step, None  # back on the fire it is not put away
    batch.timers = [timer for timer in batch.timers if timer["name"] != "step"]
    return shown


def _middle_shown(batch: Batch) -> dict[str, Any] | None:
    """What is known of the middle at a step that warms it, as that step is left: what is asked, and what was read."""
    asked_c = warms_to(batch)
    return None if asked_c is None else {"asked_c": asked_c, "read_c": middle_read_c(batch)}


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


def _saw(batch: Batch, act: A.AnyAct, at: datetime) -> dict[str, Any]:
    assert isinstance(act, A.Saw)
    value = act.value
    if isinstance(value, str):
        if act.what == "probe":
            value = _celsius(value)
        elif act.what in ("scale", "level"):
            value = read_told("scale" if act.what == "scale" else "level", value, "value")
        else:
            raise BadInput.at("value", "is-no-number")
    if act.what == "probe":
        if not -60.0 <= value <= 150.0:
            raise BadInput.at("value", "is-no-kitchen-temperature")
    else:
        Seen(0.0, act.what, value)  # raises where that cannot be seen
    if not 0 <= act.step <= batch.step:
        raise BadInput.at("step", "look-at-step", step=act.step, last=batch.step)
    _on(batch)
    return {"value": value}


def _celsius(text: str) -> float:
    try:
        return read_temperature_c(text)
    except BadInput as bad:
        raise bad.under("value") from None


def _put(batch: Batch, act: A.AnyAct, at: datetime) -> dict[str, Any] | None:
    """What was typed is read as it comes: by this kitchen's measures, and by what the sheet has there."""
    assert isinstance(act, A.Put)
    _on(batch)
    if act.amount is None:
        if act.grams is None:
            raise BadInput.at("grams", "put-says-nothing")
        as_put(batch.sheet, {(act.step, act.field): PutIn(act.grams)})
        return None
    core = core_kitchen(batch.kitchen)
    put = put_as_typed(batch.sheet, act.step, act.field, act.amount, act.unit, core)
    as_put(batch.sheet, {(act.step, act.field): put})
    if not act.sure:
        found = as_cooked(batch).following
        holds_g = found.checked.pan.capacity_ml if found else MOST_G  # a mL weighs about a gram
        check_put(batch.sheet, act.step, act.field, put.grams, core, holds_g)
    return {"grams": put.grams, "spread": round(put.spread, 4)}


def _poured(batch: Batch, act: A.AnyAct, at: datetime) -> dict[str, Any]:
    """The grams are reckoned from the pot as it is believed to have been before that step."""
    assert isinstance(act, A.PouredIn)
    _on(batch)
    as_put(batch.sheet, {(act.step, act.field): PutIn(1.0)})
    found = as_cooked(batch, at=act.step).following
    if found is None:
        raise _NotTaken(say("cannot-be-played"))
    after, before = (
        read_told(act.how, value, name) if isinstance(value, str) else value
        for name, value in (("after", act.after), ("before", act.before))
    )
    told = Poured(act.how, after, before)
    put = poured(found.checked, act.step, act.field, found.before, told, found.checked.pan.tare_g)
    return {"after": after, "before": before, "grams": put.grams, "spread": round(put.spread, 4)}


def _added(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    assert isinstance(act, A.Added)
    _on(batch)
    if batch.kind != Batch.Kind.FREE:
        raise BadInput.at("kind", "is-cooked-by-its-sheet")
    steps = by_the_clock(batch, at)["steps"] if batch.sheet["steps"] else []
    if len(steps) >= MAX_FREE_STEPS:
        raise _NotTaken(say("so-many-steps", most=MAX_FREE_STEPS))
    number = len(steps)
    try:
        _grown(batch, {**batch.sheet, "steps": [*steps, act.put]})
    except BadInput as bad:
        raise _of_the_step(bad, number) from None
    level_mm, depth_cm = batch.plan["final"]["level_mm"], batch.plan["pan"]["depth_cm"]
    if level_mm > 10.0 * depth_cm and not act.sure:
        raise BadInput.at("put", "added-beyond-pan-is-meant", pan=batch.plan["pan"]["name"])
    batch.step = number
    batch.began = {**batch.began, str(number): at.isoformat()}
    batch.timers = [timer for timer in batch.timers if timer["name"] != "step"]


def _of_the_step(bad: BadInput, number: int) -> BadInput:
    """A problem of the step that was added, as one of ``put``; of the others as it is."""
    head = f"steps[{number}]"
    return BadInput(
        *(
            replace(one, field="put" + one.field[len(head) :])
            if one.field.startswith(head)
            else one
            for one in bad.problems
        )
    )


def _grown(batch: Batch, document: dict[str, Any]) -> None:
    """A pot cooked free hand with ``document`` for its sheet, read as it is typed: "2 ladles" are this
    kitchen's. Raises :class:`BadInput` as checking does."""
    core = core_kitchen(batch.kitchen)
    sheet = read_typed(document, core)
    batch.plan = plan_of(sheet, with_free_pans(batch.kitchen, core, [batch.pk]))
    batch.sheet = write_sheet(sheet)


def _stands(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    assert isinstance(act, A.Stands)
    _on(batch)
    if act.pan is not None:
        core = core_kitchen(batch.kitchen)
        if batch.kind == Batch.Kind.ASIDE:
            raise BadInput.at("pan", "is-no-pan-of-yours", name=act.pan)
        put_in_pan(batch, pan_named(act.pan, core), core)
    batch.ring, batch.cook = act.ring.strip(), act.cook.strip()


def _turned(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    assert isinstance(act, A.Turned)
    _on(batch)
    for number, one in enumerate(act.changes):
        try:
            as_put(batch.sheet, {(one.step, one.field): PutIn(one.grams)})
        except BadInput as bad:
            raise bad.under(f"changes[{number}]") from None


def _mended(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    assert isinstance(act, A.TookRemedy)
    known = sign_named(act.sign)
    if not act.title.strip() or len(batch.mends) >= MAX_MENDS:
        raise BadInput.at("title", "mend-is-empty-or-long")
    _on(batch)
    if act.steps:
        # They must be such as can be taken here; what they make of the pot is followed from the acts.
        sheet = read_sheet({"name": act.title, "steps": act.steps})
        found = as_cooked(batch).following
        if found is not None:
            here = (*found.mends.get(batch.step, ()), *sheet.steps)
            whole = with_mends(found.sheet, {**found.mends, batch.step: here})
            core = core_kitchen(batch.kitchen)
            check(whole, core, pan_under(batch, core))
    mend = {"step": batch.step, "sign": str(known.name), "title": act.title.strip(), "do": act.do}
    batch.mends = [*batch.mends, {**mend, "key": act.key}]


def _corrected(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    assert isinstance(act, A.Corrected)
    _on(batch)
    steps = batch.sheet["steps"]
    if not 0 <= act.step < len(steps) or steps[act.step].get("op") != "correct":
        raise BadInput.at("step", "nothing-is-corrected-there")


def _skipped(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    assert isinstance(act, A.Skipped)
    if batch.kind != Batch.Kind.SAUCE:
        raise BadInput.at("kind", "is-not-cooked-by-its-sheet")
    last = len(batch.sheet["steps"])
    if not 0 <= act.step < last:
        raise BadInput.at("step", "is-not-a-step-of-it", step=act.step, last=last - 1)
    _on(batch)


def _noted(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    """A note is written down, whatever has become of the batch."""


def _undone(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    assert isinstance(act, A.Undone)
    of = Act.objects.filter(batch=batch, key=act.of, kind__in=_VOIDED, taken=True).first()
    if of is None or not any(one.key == act.of for one in counted(batch)):
        raise _NotTaken(say("is-no-act"))
    if of.kind == "mended":
        batch.mends = [one for one in batch.mends if one.get("key") != of.key]
    if of.kind == "added":
        _on(batch)
        if of.step != len(batch.sheet["steps"]) - 1:
            raise _NotTaken(say("later-steps-first"))
        _grown(batch, {**batch.sheet, "steps": batch.sheet["steps"][:-1]})
        batch.began = {step: when for step, when in batch.began.items() if int(step) < of.step}
        batch.step = max(0, of.step - 1)


def _through(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    _on(batch)
    if batch.kind != Batch.Kind.ASIDE:
        raise _NotTaken(say("is-weighed-first"))
    end(batch, Batch.Status.DONE, at)


def _left(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    _on(batch)
    end(batch, Batch.Status.LEFT, at)


def _back(batch: Batch, act: A.AnyAct, at: datetime) -> None:
    if batch.status == Batch.Status.LEFT:
        if batch.service_id is not None:  # another may have been begun in its place meanwhile
            batch.number = free_number(batch.service_id, batch.pot, batch.number)
        batch.status, batch.ended_at = Batch.Status.ON, None


def free_number(service_id: int, pot: str, wanted: int = 1) -> int:
    """The number of a batch of ``pot``: ``wanted`` where no other has it that is on or done, else the first that is
    free."""
    there = Batch.objects.filter(service=service_id, pot=pot).exclude(status=Batch.Status.LEFT)
    taken = set(there.values_list("number", flat=True))
    return (
        wanted
        if wanted not in taken
        else next(n for n in range(1, len(taken) + 2) if n not in taken)
    )


_BECAME: dict[str, Milestone.Kind] = {
    Batch.Status.ON: Milestone.Kind.RESUMED,
    Batch.Status.DONE: Milestone.Kind.DONE,
    Batch.Status.LEFT: Milestone.Kind.ABANDONED,
}


def milestone(batch: Batch, kind: Milestone.Kind, at: datetime, user: User | None) -> None:
    """A line of the record: what became of ``batch`` as a whole."""
    Milestone.objects.create(
        kitchen_id=batch.kitchen_id,
        batch=batch,
        kind=kind,
        name=str(batch.plan["name"])[:160],
        at=at,
        by=user,
    )


def end(batch: Batch, status: Batch.Status, at: datetime) -> None:
    """``batch`` off the stove: done, or left unfinished. It is not saved here."""
    batch.status, batch.ended_at, batch.timers = status, at, []


def _on(batch: Batch) -> None:
    if batch.status != Batch.Status.ON:
        raise _NotTaken(say("is-off-the-stove"))


_DOES: dict[str, Callable[[Batch, A.AnyAct, datetime], dict[str, Any] | None]] = {
    "go": _go,
    "timer-on": _timer_on,
    "timer-off": _timer_off,
    "saw": _saw,
    "put": _put,
    "poured": _poured,
    "added": _added,
    "stands": _stands,
    "through": _through,
    "turned": _turned,
    "mended": _mended,
    "corrected": _corrected,
    "skipped": _skipped,
    "noted": _noted,
    "undone": _undone,
    "left": _left,
    "back": _back,
}
