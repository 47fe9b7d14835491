"""Writes on run-ups, one transaction each."""

from collections.abc import Mapping
from dataclasses import replace
from datetime import date, timedelta
from typing import Any

from django.db import transaction
from django.db.models import Case, Q, When
from django.utils import timezone

from kestrel.accounts.models import Kitchen
from kestrel.run_up import work
from kestrel.run_up.models import Planning, RunUp
from kestrel.service.actions import current, moved, sent_again
from kestrel.service.models import Dish, Service
from saucier.errors import BadInput
from saucier.run_up import RunUp as Document
from saucier.run_up import read_run_up, write_run_up
from saucier.run_up.document import Called, Happened
from saucier.service import read_service, write_service
from saucier.words import say

KEPT_PLANNINGS = 20
"""Of a run-up; older ones are forgotten."""
MOST_LOST = 3
"""Processes that may end over one planning before it is given up."""


@transaction.atomic
def of_service(kitchen: Kitchen, service: Service, utc_offset_min: int) -> RunUp:
    """The run-up of ``service``: the one there is, else a new one. Raises :class:`BadInput` where there is
    nothing to time."""
    there = RunUp.objects.filter(kitchen=kitchen, service=service).first()
    if there is None:
        there = RunUp(kitchen=kitchen, service=service, document=write_run_up(Document()))
    there.deleted_at = None
    there.name = service.name
    there.date = service.date or timezone.localdate()
    there.utc_offset_min = utc_offset_min
    there.save()
    work.ready(there)
    return there


@transaction.atomic
def tonight(
    kitchen: Kitchen,
    dish: Dish,
    portions: float,
    clock: str,
    day: date | None,
    utc_offset_min: int,
) -> RunUp:
    """The run-up of one dish, without a service. Raises :class:`BadInput` by field."""
    name = str(say("tonight-of", dish=dish.name, portions=portions, clock=clock))
    meal = write_service(
        read_service(
            {
                "name": name[:120],
                "serve_at": [clock],
                "lines": [{"dish": str(dish.pk), "portions": portions}],
            }
        )
    )
    row = RunUp.objects.create(
        kitchen=kitchen,
        meal=meal,
        name=name[:120],
        date=day or timezone.localdate(),
        document=write_run_up(Document(served_over=0)),
        utc_offset_min=utc_offset_min,
    )
    work.ready(row)
    return row


@transaction.atomic
def change(row: RunUp, data: Mapping[str, Any], revision: int) -> RunUp:
    """``row`` as ``data``. Raises :class:`BadInput` by field, :class:`Conflict` when it was changed
    meanwhile."""
    document = write_run_up(read_run_up(data))
    if sent_again(row, document):
        return row
    row = current(row, revision)
    row.document = document
    return moved(row)


@transaction.atomic
def mark(row: RunUp, key: str, what: str, at: float | None, revision: int) -> RunUp:
    """A task begun, over, or neither after all. Raises as :func:`change`, and for a task it does not
    have."""
    row = current(row, revision)
    document = read_run_up(row.document)
    if key not in _known(row):
        raise BadInput.at("key", "is-no-task-of-it", key=key[:60])
    now = work.of_its_days(row) if at is None else at
    marks = dict(document.marks)
    if what == "undo":
        marks.pop(key, None)
        now = document.now if now is None else now
    elif now is None:
        raise BadInput.at("key", "is-of-another-day", day=row.date.isoformat())
    elif what == "began":
        marks[key] = Happened(began=now)
    else:
        began = marks[key].began if key in marks else _planned_start(row, key, now)
        marks[key] = Happened(began=min(began, now), over=now, usual=_usual_minutes(row, key))
    row.document = write_run_up(
        Document.model_validate({**document.model_dump(), "marks": marks, "now": now})
    )
    return moved(row)


@transaction.atomic
def call(row: RunUp, line: int, portions: int, table: str, at: float | None) -> RunUp:
    """A plate called. Raises :class:`BadInput` by field."""
    row = RunUp.objects.select_for_update().get(pk=row.pk)
    document = read_run_up(row.document)
    if line not in document.to_order:
        raise BadInput.at("line", "is-not-to-order", line=line)
    now = work.of_its_days(row) if at is None else at
    if now is None:
        raise BadInput.at("line", "is-of-another-day", day=row.date.isoformat())
    called = {"line": line, "portions": portions, "table": table.strip(), "at": now}
    calls = [*(one.model_dump() for one in document.calls), called]
    row.document = write_run_up(read_run_up({**write_run_up(document), "calls": calls}))
    return moved(row)


@transaction.atomic
def gone(row: RunUp, number: int, gone: bool) -> RunUp:
    """A call that went out, or did not after all. Raises :class:`BadInput` (field ``number``)."""
    row = RunUp.objects.select_for_update().get(pk=row.pk)
    document = read_run_up(row.document)
    if not 0 <= number < len(document.calls):
        raise BadInput.at("number", "is-no-call", number=number)
    calls = [
        Called(**{**one.model_dump(), "gone": gone}) if n == number else one
        for n, one in enumerate(document.calls)
    ]
    row.document = write_run_up(document.model_copy(update={"calls": tuple(calls)}))
    return moved(row)


@transaction.atomic
def take_mend(row: RunUp, key: str, revision: int) -> RunUp:
    """A change that was offered. Raises :class:`BadInput` (field ``key``), :class:`Conflict`."""
    row = current(row, revision)
    offered = (row.planned or {}).get("mends", [])
    found = next((one for one in offered if one["key"] == key), None)
    if found is None:
        raise BadInput.at("key", "is-no-mend-any-more", key=key[:60])
    row.document = write_run_up(read_run_up({**row.document, **found["change"]}))
    return moved(row)


@transaction.atomic
def ask(row: RunUp, what: Planning.What, asked: Mapping[str, Any] | None = None) -> Planning:
    """Have ``row`` planned, or something tried with it. Another plan takes the place of one that is not
    through; a move or a call is an act of somebody's: none is ever dropped, and what is being planned
    makes room for it and is planned again after it."""
    open_ = Planning.objects.filter(run_up=row, what=Planning.What.PLAN, state__in=Planning.OPEN)
    if what == Planning.What.PLAN:
        open_.filter(state=Planning.State.WAITING).update(state=Planning.State.DONE, cancel=True)
        open_.update(cancel=True, again=False)
    else:
        open_.filter(state=Planning.State.RUNNING).update(cancel=True, again=True)
    ended = Planning.objects.filter(run_up=row).exclude(state__in=Planning.OPEN)
    old = ended.order_by("-pk").values_list("pk", flat=True)[KEPT_PLANNINGS:]
    Planning.objects.filter(pk__in=list(old)).delete()
    return Planning.objects.create(
        kitchen=row.kitchen, run_up=row, what=what, asked=dict(asked or {})
    )


def cancel(row: RunUp) -> None:
    """Stop with the best there is so far."""
    Planning.objects.filter(run_up=row, state__in=Planning.OPEN).update(cancel=True, again=False)


def claim() -> Planning | None:
    """The next planning to do, taken: one that waits (what somebody tries before what is only planned),
    or one whose process is gone."""
    lost = Q(state=Planning.State.RUNNING, beat_at__lt=timezone.now() - timedelta(seconds=15))
    to_do = Planning.objects.filter(lost | Q(state=Planning.State.WAITING))
    if not to_do.exists():  # nearly always: looking takes no lock, ten times a second
        return None
    with transaction.atomic():
        plans_last = Case(When(what=Planning.What.PLAN, then=1), default=0)
        row = to_do.select_for_update().order_by(plans_last, "pk").first()
        if row is None:
            return None
        row.lost += row.state == Planning.State.RUNNING
        row.state, row.beat_at = Planning.State.RUNNING, timezone.now()
        if row.lost > MOST_LOST:
            row.state, row.ended_at = Planning.State.FAILED, row.beat_at
            row.answer = {"words": str(say("planning.lost", times=row.lost))}
        row.save(update_fields=["state", "beat_at", "lost", "ended_at", "answer"])
    return row if row.state == Planning.State.RUNNING else claim()


def _usual_minutes(row: RunUp, key: str) -> float | None:
    """What work at the board usually takes, whatever is gone by here: what it took can be held against
    that. None of any other task."""
    if not key.startswith("prep:"):
        return None
    ready = work.ready(row)
    usual = replace(ready, library=replace(ready.library, hands={}))
    job = usual.gathered(Document()).board.jobs.get(key)
    return None if job is None else max(0.1, sum(part.minutes for part in job.parts))


def _known(row: RunUp) -> set[str]:
    days = (row.planned or {}).get("days", [])
    return {block["key"] for day in days for block in day["blocks"]}


def _planned_start(row: RunUp, key: str, otherwise: float) -> float:
    days = (row.planned or {}).get("days", [])
    for day in days:
        for block in day["blocks"]:
            if block["key"] == key:
                return float(block["start"])
    return otherwise
