"""A run-up gathered for the core: its service, the kitchen's means, what happened at the stove."""

import hashlib
import json
from collections.abc import Mapping
from dataclasses import asdict, dataclass
from datetime import datetime, timedelta
from typing import Any

from django.db.models import Q
from django.utils import timezone

from kestrel.larder.means import library_of, means_of
from kestrel.run_up.models import RunUp
from kestrel.service.work import gathered as gathered_service
from kestrel.service.work import typed_service
from kestrel.stove.counting import now_of as now_at_stove
from kestrel.stove.following import as_cooked
from kestrel.stove.models import Batch
from saucier.errors import BadInput
from saucier.kitchen import Kitchen as CoreKitchen
from saucier.run_up import Gathered, Library, Means, read_run_up, run_up
from saucier.run_up import RunUp as Document
from saucier.run_up.document import FIRST, LAST, Happened
from saucier.run_up.timed import Stands, stands
from saucier.service import Plan


@dataclass(frozen=True)
class Ready:
    """All that a run-up of ``row`` is planned with."""

    row: RunUp
    plan: Plan
    kitchen: CoreKitchen
    means: Means
    library: Library

    def gathered(self, document: Document) -> Gathered:
        """Its jobs, as ``document`` has it. Raises :class:`BadInput` by field."""
        return run_up(self.plan, self.kitchen, self.means, document, self.library)

    @property
    def of(self) -> str:
        """A mark of everything the plan goes by, dishes, larder and pans included: another one, and it has
        to be planned anew. The clock alone is no reason; a step further at the stove is."""
        document = document_of(self.row)
        marks = {
            key: mark.model_copy(update={"left": None}) for key, mark in document.marks.items()
        }
        now = read_run_up(self.row.document).now
        still = document.model_copy(update={"calls": (), "marks": marks, "now": now})
        gathered = self.gathered(still)
        told = {
            "steps": [(batch.pk, batch.step) for batch in batches_of(self.row)],
            "questions": [asdict(gathered.problem(day)) for day in gathered.days],
            "ways": asdict(self.row.kitchen.ways),  # it is kept in words
            "words": [f"{job.name} {job.amount}" for job in gathered.board.jobs.values()],
            "to_order": still.to_order,
        }
        text = json.dumps(told, sort_keys=True, default=sorted)  # sets, in an order of their own
        return hashlib.sha256(text.encode()).hexdigest()


def service_document(row: RunUp) -> Mapping[str, Any]:
    """The service it is of, or the one dish of tonight."""
    document: Mapping[str, Any] = row.service.document if row.service else row.meal or {}
    return document


def ready(row: RunUp) -> Ready:
    """Everything for planning ``row``. Raises :class:`BadInput` where there is nothing to plan."""
    document = service_document(row)
    pinned = row.service.pinned if row.service else {}
    all_of_it = gathered_service(row.kitchen, document, pinned)
    plan = all_of_it.plan(typed_service(document, all_of_it.kitchen))
    if not any(not line.refused for line in plan.lines):
        raise BadInput.at("lines", "nothing-to-time")
    return Ready(row, plan, all_of_it.kitchen, means_of(row.kitchen), library_of(row.kitchen))


def document_of(row: RunUp) -> Document:
    """The cook's own word, with what happened at the stove in it."""
    document = read_run_up(row.document)
    stove = at_the_stove(row)
    now = document.now
    if any(mark.over is None for mark in stove.values()):  # a pot is on: it is under way
        moment = of_its_days(row)
        now = now if moment is None else moment
    return document.model_copy(update={"marks": {**document.marks, **stove}, "now": now})


def at_the_stove(row: RunUp) -> dict[str, Happened]:
    """Pots of its service that are on the stove or done, as marks of their tasks."""
    found: dict[str, Happened] = {}
    for batch in batches_of(row):
        began = minute_at(row, batch.started_at)
        over = min(LAST, minute_at(row, batch.ended_at)) if batch.ended_at else None
        if FIRST <= began <= LAST:
            left = None if over is not None else minutes_left(batch)
            found[task_of(row, batch)] = Happened(began=began, over=over, left=left)
    return found


def states_of(row: RunUp) -> dict[str, Stands]:
    """How each task that was begun stands by now, at the stove or by the cook's word."""
    document = read_run_up(row.document)
    by_word = {key: stands(mark) for key, mark in document.marks.items()}
    at_stove: dict[str, Stands] = {
        task_of(row, batch): "done" if batch.ended_at else "going"
        for batch in batches_of(row)
        if FIRST <= minute_at(row, batch.started_at) <= LAST
    }
    return {**by_word, **at_stove}


def pots_on(row: RunUp) -> dict[str, int]:
    """Which task is which pot on the stove now, by the pot's number."""
    on = (batch for batch in batches_of(row) if batch.status == Batch.Status.ON)
    return {task_of(row, batch): batch.pk for batch in on}


def aside_of(row: RunUp, key: str = "") -> str:
    """What a batch that is no sauce is called that is the task ``key`` of ``row``."""
    return f"task:{row.pk}:{key}"


def task_of(row: RunUp, batch: Batch) -> str:
    """The task of ``row`` that ``batch`` is."""
    if batch.kind == Batch.Kind.ASIDE:
        return batch.pot.removeprefix(aside_of(row))
    # What is kept is warmed by a task that bears its own name.
    head = "" if batch.drawn_key else "pot:"
    return f"{head}{batch.pot}#{batch.number}"


def batches_of(row: RunUp) -> list[Batch]:
    """Its tasks that were begun at the stove and not abandoned: pots of its service, and what is no sauce."""
    mine = Q(kind=Batch.Kind.ASIDE, pot__startswith=aside_of(row))
    if row.service is not None:
        mine |= Q(service=row.service)
    batches = Batch.objects.filter(mine, kitchen=row.kitchen).exclude(status=Batch.Status.LEFT)
    return list(batches.order_by("started_at", "pk"))


def minutes_left(batch: Batch) -> float:
    """What is left of a batch: of the step it is at what its timer or what was seen of the pot says, else what was
    planned of it less how long it lasts already; and of the steps after it as planned."""
    states = batch.plan["states"]
    if batch.kind == Batch.Kind.ASIDE:
        waits = [float(card.get("timer_s") or 0.0) / 60.0 for card in batch.plan["cards"]]
        here = waits[batch.step] if batch.step < len(waits) else 0.0
        return min(1440.0, max(0.5, _left_of_step(batch, here) + sum(waits[batch.step + 1 :])))
    total = float(batch.plan["final"]["minutes"])
    if batch.step >= len(states):
        return 0.5
    before = float(states[batch.step - 1]["minutes"]) if batch.step else 0.0
    after = float(states[batch.step]["minutes"])
    return min(1440.0, max(0.5, _left_of_step(batch, after - before) + total - after))


def _left_of_step(batch: Batch, planned: float) -> float:
    now = now_at_stove(batch)
    watched = as_cooked(batch).followed
    if (
        watched is not None
        and watched.watched is not None
        and watched.watched.minutes_left is not None
    ):
        return max(0.0, watched.watched.minutes_left.value)
    for timer in batch.timers:
        if timer["name"] == "step":
            over = datetime.fromisoformat(timer["started_at"]) + timedelta(seconds=timer["seconds"])
            return max(0.0, (over - now).total_seconds() / 60.0)
    began = batch.began.get(str(batch.step))
    lasted = (now - datetime.fromisoformat(began)).total_seconds() / 60.0 if began else 0.0
    return max(0.0, planned - lasted)


def minute_at(row: RunUp, moment: datetime) -> float:
    """A moment as minutes from midnight of the day, by the kitchen's clock."""
    local = moment + timedelta(minutes=row.utc_offset_min)
    midnight = datetime(row.date.year, row.date.month, row.date.day, tzinfo=moment.tzinfo)
    return round((local - midnight).total_seconds() / 60.0 * 2) / 2


def now_of(row: RunUp) -> float:
    """This moment, minutes from midnight of the day."""
    return minute_at(row, timezone.now())


def of_its_days(row: RunUp) -> float | None:
    """This moment as :func:`now_of`; None where the day it is of is too far off for anything to happen
    in it."""
    now = now_of(row)
    return now if FIRST <= now <= LAST else None
