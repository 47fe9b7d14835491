"""Writes on the journal, one transaction each."""

import math
from datetime import datetime

from django.db import transaction
from django.utils import timezone

from kestrel.accounts.models import User
from kestrel.journal.learning import lesson_of
from kestrel.journal.models import Correction, Entry
from kestrel.live import tell
from kestrel.problems import Conflict
from kestrel.same_thing import refuse_other_thing
from kestrel.stove.doing import end, milestone
from kestrel.stove.models import Batch, Milestone
from kestrel.stove.typed import grams_typed, without_pan
from saucier.errors import BadInput, Problem, problem
from saucier.words import say

MAX_NOTE = 2000


@transaction.atomic
def write_down(
    batch: Batch,
    user: User,
    *,
    weighed: str,
    with_pan: bool,
    reached_pa_s: float | None,
    verdict: str,
    note: str,
    made_at: datetime | None = None,
) -> Entry:
    """The entry for ``batch``, which comes off the stove.

    ``weighed`` is text such as "2310 g" (a bare number is grams; empty: not weighed), with the
    pan's tare taken off when ``with_pan``. Raises :class:`BadInput` by field,
    :class:`Conflict` when it was written down already.
    """
    if Entry.objects.filter(batch=batch).exists():
        raise Conflict(say("written-down-already"))
    if batch.status == Batch.Status.LEFT:
        raise BadInput.at("batch", "was-taken-off")
    grams = _looked_over(batch, weighed, with_pan, reached_pa_s, verdict, note)
    batch = Batch.objects.select_for_update().get(pk=batch.pk)
    if batch.status != Batch.Status.DONE:
        ended_at = made_at or timezone.now()
        milestone(batch, Milestone.Kind.DONE, ended_at, user)
        end(batch, Batch.Status.DONE, ended_at)
    batch.judged_pa_s, batch.weighed_g = reached_pa_s, grams
    batch.revision += 1
    batch.save()
    transaction.on_commit(lambda: tell(batch.kitchen_id, "batch", {"id": batch.pk}))
    entry = Entry.objects.create(
        kitchen=batch.kitchen,
        batch=batch,
        made_at=made_at or timezone.now(),
        weighed_g=grams,
        reached_pa_s=reached_pa_s,
        verdict=verdict,
        note=note.strip(),
        by=user,
    )
    lesson_of(entry)
    return entry


MAX_WHY = 300


@transaction.atomic
def correct(
    entry: Entry,
    user: User,
    *,
    key: str,
    weighed: str,
    with_pan: bool,
    reached_pa_s: float | None,
    verdict: str,
    note: str,
    why: str,
) -> None:
    """What was written of a finished batch, anew and as a whole, beside what stood before; sent twice it is
    written once. What it teaches is reckoned again. Raises :class:`BadInput` by field."""
    there = Correction.objects.filter(kitchen=entry.kitchen, key=key).first()
    if there is not None:
        refuse_other_thing(there.entry_id, entry.pk)
        return
    grams = _looked_over(entry.batch, weighed, with_pan, reached_pa_s, verdict, note)
    if not 1 <= len(why.strip()) <= MAX_WHY:
        raise BadInput.at("why", "correction-has-no-reason", most=MAX_WHY)
    Correction.objects.create(
        kitchen=entry.kitchen,
        entry=entry,
        key=key,
        weighed_g=grams,
        reached_pa_s=reached_pa_s,
        verdict=verdict,
        note=note.strip(),
        why=why.strip(),
        by=user,
    )
    Batch.objects.filter(pk=entry.batch_id).update(judged_pa_s=reached_pa_s, weighed_g=grams)
    lesson_of(Entry.objects.get(pk=entry.pk))  # read anew, with what was just written


def _looked_over(
    batch: Batch,
    weighed: str,
    with_pan: bool,
    reached_pa_s: float | None,
    verdict: str,
    note: str,
) -> float | None:
    """The grams ``weighed`` as typed comes to. Raises :class:`BadInput` with all that is wrong."""
    problems: list[Problem] = []
    grams = grams_typed(weighed, "weighed", problems)
    if grams is not None and with_pan:
        grams = without_pan(grams, batch.plan["pan"], "weighed", problems)
    if verdict not in Entry.Verdict.values:
        problems.append(
            problem(
                "verdict",
                "verdict-is-not-chosen",
                verdicts=tuple(str(one) for one in Entry.Verdict.labels),
            )
        )
    if reached_pa_s is not None and not (math.isfinite(reached_pa_s) and 0 < reached_pa_s < 1e4):
        problems.append(problem("reached_pa_s", "is-no-thickness"))
    if len(note) > MAX_NOTE:
        problems.append(problem("note", "note-is-too-long", most=MAX_NOTE))
    if problems:
        raise BadInput(*problems)
    return grams
