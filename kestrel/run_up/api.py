"""Run-ups: asked for here, planned beside the server."""

from typing import Any, cast

from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Status
from pydantic import TypeAdapter

from kestrel.accounts.auth import KitchenRequest
from kestrel.problems import Message
from kestrel.run_up import actions, work
from kestrel.run_up.models import Planning, RunUp
from kestrel.run_up.schemas import (
    CallIn,
    ChangeIn,
    GoneIn,
    MarkIn,
    MoveIn,
    NewRunUp,
    PlanningOut,
    RunUpOut,
    RunUpRow,
    TakeMendIn,
)
from kestrel.service import actions as kept
from kestrel.service.models import Dish, Service
from kestrel.service.schemas import KeptTaken
from saucier.errors import BadInput
from saucier.run_up import read_run_up
from saucier.run_up.sheets import RunSheet, run_csv, run_ics

router = Router(tags=["run-up"])


def _row(request: HttpRequest, run_up_id: int) -> RunUp:
    rows = RunUp.objects.select_related("kitchen", "service")
    return get_object_or_404(rows, kitchen=cast(KitchenRequest, request).kitchen, pk=run_up_id)


def _whole(row: RunUp) -> dict[str, Any]:
    planning = _last_planning(row.pk)
    stale = False
    if planning is None or not planning.going:
        stale = row.planned is None or work.ready(row).of != row.planned_of
    return {
        "id": row.pk,
        "name": row.name,
        "date": row.date,
        "service_id": row.service_id,
        "revision": row.revision,
        "document": row.document,
        "planned": _as_it_is(row),
        "planning": planning,
        "stale": stale,
        "now": work.now_of(row),
        "pots_on": work.pots_on(row),
    }


def _as_it_is(row: RunUp) -> dict[str, Any] | None:
    """What was planned, each task as it stands by now: begun and done at the stove is so here before the plan is made
    anew."""
    planned: dict[str, Any] | None = row.planned
    if planned is None:
        return None
    states = work.states_of(row)
    return {
        **planned,
        "days": [
            {
                **day,
                "blocks": [
                    {**block, "state": states.get(block["key"], "planned")}
                    for block in day["blocks"]
                ],
            }
            for day in planned["days"]
        ],
    }


def _last_planning(run_up_id: int) -> Planning | None:
    """What was asked for last, and whether anything is still to be done."""
    rows = Planning.objects.filter(run_up=run_up_id)
    last = rows.order_by("-pk").first()
    if last is not None:
        last.going = rows.filter(state__in=Planning.OPEN).exists()
    return last


@router.get("", response=list[RunUpRow])
def list_run_ups(request: HttpRequest):
    """The kitchen's run-ups, the latest first, without those of services that were taken off the list."""
    rows = RunUp.objects.filter(kitchen=cast(KitchenRequest, request).kitchen, deleted_at=None)
    rows = rows.exclude(service__deleted_at__isnull=False)
    return rows.only("name", "date", "service", "updated_at")[:200]


@router.post("", response={201: RunUpOut})
def new_run_up(request: HttpRequest, given: NewRunUp):
    """The run-up of a service (the one there is, else a new one), or of one dish. It is planned at
    once."""
    kitchen = cast(KitchenRequest, request).kitchen
    if given.service_id is not None:
        service = Service.objects.filter(kitchen=kitchen, pk=given.service_id).first()
        if service is None:
            raise BadInput.at("service_id", "is-no-service-of-yours")
        row = actions.of_service(kitchen, service, given.utc_offset_min)
    elif given.dish_id is not None:
        dish = Dish.objects.filter(kitchen=kitchen, pk=given.dish_id).first()
        if dish is None:
            raise BadInput.at("dish_id", "is-no-dish-of-yours")
        row = actions.tonight(
            kitchen, dish, given.portions, given.serve_at, given.day, given.utc_offset_min
        )
    else:
        raise BadInput.at("service_id", "run-up-of-nothing")
    if row.planned is None or work.ready(row).of != row.planned_of:
        actions.ask(row, Planning.What.PLAN)
    return Status(201, _whole(row))


@router.get("/{run_up_id}", response={200: RunUpOut, 404: Message})
def one_run_up(request: HttpRequest, run_up_id: int):
    return _whole(_row(request, run_up_id))


@router.get("/{run_up_id}/planning", response={200: PlanningOut | None, 404: Message})
def how_far(request: HttpRequest, run_up_id: int):
    """How far the planning is: what a page asks again and again."""
    kitchen = cast(KitchenRequest, request).kitchen
    if not RunUp.objects.filter(kitchen=kitchen, pk=run_up_id).exists():
        raise Http404
    return _last_planning(run_up_id)


@router.put("/{run_up_id}", response={200: RunUpOut, 404: Message, 409: KeptTaken})
def change_run_up(request: HttpRequest, run_up_id: int, given: ChangeIn):
    """Another word of the cook's: it is planned anew."""
    row = _row(request, run_up_id)
    document = read_run_up(given.document)
    work.ready(row).gathered(document)  # says what is wrong with it, by field
    return _asked(actions.change(row, given.document, given.revision))


def _asked(row: RunUp, what: Planning.What = Planning.What.PLAN) -> dict[str, Any]:
    actions.ask(row, what)
    return _whole(row)


@router.delete("/{run_up_id}", response={204: None, 404: Message})
def delete_run_up(request: HttpRequest, run_up_id: int):
    """Off the list; `restore` brings it back."""
    kept.delete(_row(request, run_up_id))
    return Status(204, None)


@router.post("/{run_up_id}/restore", response={204: None, 404: Message})
def restore_run_up(request: HttpRequest, run_up_id: int):
    kept.restore(_row(request, run_up_id))
    return Status(204, None)


@router.post("/{run_up_id}/plan", response={200: RunUpOut, 404: Message})
def plan_again(request: HttpRequest, run_up_id: int):
    row = _row(request, run_up_id)
    work.ready(row)
    return _asked(row)


@router.post("/{run_up_id}/cancel", response={200: RunUpOut, 404: Message})
def cancel(request: HttpRequest, run_up_id: int):
    """Stop planning: the best plan so far stands."""
    row = _row(request, run_up_id)
    actions.cancel(row)
    return _whole(row)


@router.post("/{run_up_id}/move", response={200: RunUpOut, 404: Message})
def move(request: HttpRequest, run_up_id: int, given: MoveIn):
    """Try a task at another time: kept where nothing is spoilt by it, else the planning says why not."""
    row = _row(request, run_up_id)
    jobs = work.ready(row).gathered(work.document_of(row)).board.jobs
    if given.key not in jobs:
        raise BadInput.at("key", "is-no-task-of-it", key=given.key[:60])
    actions.ask(row, Planning.What.MOVE, given.dict())
    return _whole(row)


@router.post("/{run_up_id}/mark", response={200: RunUpOut, 404: Message, 409: KeptTaken})
def mark(request: HttpRequest, run_up_id: int, given: MarkIn):
    """A task begun or over: the rest is planned from there."""
    row = _row(request, run_up_id)
    return _asked(actions.mark(row, given.key, given.what, given.at, given.revision))


@router.post("/{run_up_id}/mend", response={200: RunUpOut, 404: Message, 409: KeptTaken})
def take_mend(request: HttpRequest, run_up_id: int, given: TakeMendIn):
    """A change that was offered because it mends the plan."""
    return _asked(actions.take_mend(_row(request, run_up_id), given.key, given.revision))


@router.post("/{run_up_id}/calls", response={200: RunUpOut, 404: Message})
def call(request: HttpRequest, run_up_id: int, given: CallIn):
    """A plate called: when it starts so that its table goes out together."""
    row = _row(request, run_up_id)
    row = actions.call(row, given.line, given.portions, given.table, given.at)
    return _asked(row, Planning.What.CALL)


@router.post("/{run_up_id}/calls/{number}", response={200: RunUpOut, 404: Message})
def call_gone(request: HttpRequest, run_up_id: int, number: int, given: GoneIn):
    """It went out, or did not after all."""
    row = actions.gone(_row(request, run_up_id), number, given.gone)
    return _asked(row, Planning.What.CALL)


def _sheets(row: RunUp) -> list[RunSheet]:
    return TypeAdapter(list[RunSheet]).validate_python((row.planned or {}).get("sheets", []))


@router.get("/{run_up_id}/run-sheets.csv", include_in_schema=False)
def sheets_csv(request: HttpRequest, run_up_id: int):
    row = _row(request, run_up_id)
    answer = HttpResponse(run_csv(_sheets(row)), content_type="text/csv")
    answer["Content-Disposition"] = 'attachment; filename="run-sheets.csv"'
    return answer


@router.get("/{run_up_id}/run-sheets.ics", include_in_schema=False)
def sheets_ics(request: HttpRequest, run_up_id: int):
    """The run sheets as a calendar with alarms."""
    row = _row(request, run_up_id)
    text = run_ics(_sheets(row), row.date, row.name, f"run-up-{row.pk}-{row.revision}")
    answer = HttpResponse(text, content_type="text/calendar")
    answer["Content-Disposition"] = 'attachment; filename="run-sheets.ics"'
    return answer
