"""Dishes, services, and what they come to."""

import re
from typing import Any, cast

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from kestrel.accounts.auth import KitchenRequest
from kestrel.accounts.models import Kitchen, User
from kestrel.pages import InSpan, page_of
from kestrel.problems import Message
from kestrel.sauces.models import Sauce
from kestrel.service import actions, file, work
from kestrel.service.calendar import services_ics
from kestrel.service.models import Dish, Service
from kestrel.service.schemas import (
    CopyIn,
    DishIn,
    DishName,
    DishOut,
    DishRead,
    DishStartOut,
    FileIn,
    FlowIn,
    KeptTaken,
    RenewIn,
    ScaleIn,
    ServiceIn,
    ServiceOut,
    ServicePage,
    ShortIn,
    WorkIn,
)
from kestrel.service.work import ServiceWorked
from saucier.dish import dish_starts
from saucier.document import amount_field
from saucier.errors import BadInput
from saucier.service import Short, flowed, production_of, scaled, short_of, write_service

dishes = Router(tags=["service"])
services = Router(tags=["service"])


def _kitchen(request: HttpRequest) -> Kitchen:
    return cast(KitchenRequest, request).kitchen


def _dish(request: HttpRequest, dish_id: int) -> Dish:
    return get_object_or_404(Dish, kitchen=_kitchen(request), pk=dish_id)


def _service(request: HttpRequest, service_id: int) -> Service:
    return get_object_or_404(Service, kitchen=_kitchen(request), pk=service_id)


@dishes.get("", response=list[DishOut])
def list_dishes(request: HttpRequest):
    return Dish.objects.filter(kitchen=_kitchen(request), deleted_at=None)


@dishes.get("/names", response=list[DishName])
def dish_names(request: HttpRequest):
    """Every dish by name alone, to choose from."""
    return Dish.objects.filter(kitchen=_kitchen(request), deleted_at=None).values("id", "name")


@dishes.post("", response={201: DishOut})
def new_dish(request: HttpRequest, given: DishIn):
    return Status(201, actions.save_dish(_kitchen(request), given.document))


@dishes.post("/read", response={200: DishRead})
def read_dish(request: HttpRequest, given: DishIn):
    """A dish as it would be kept, with its picture and what a portion comes to. Nothing is stored."""
    kitchen = _kitchen(request)
    dish = actions.checked_dish(kitchen, given.document)
    return {"dish": dish, "seen": work.dish_seen(kitchen, dish)}


@dishes.get("/starts", response=list[DishStartOut])
def list_starts(request: HttpRequest):
    """Kinds of dish to start from."""
    rows = Sauce.objects.filter(kitchen=_kitchen(request), deleted_at=None)
    sauces = [(str(row.pk), row.family) for row in rows]
    return [
        {"key": s.key, "name": s.name, "why": s.why, "document": s.with_sauces(sauces)}
        for s in dish_starts()
    ]


@dishes.get("/{dish_id}", response={200: DishOut, 404: Message})
def get_dish(request: HttpRequest, dish_id: int):
    return _dish(request, dish_id)


@dishes.put("/{dish_id}", response={200: DishOut, 404: Message, 409: KeptTaken})
def change_dish(request: HttpRequest, dish_id: int, given: DishIn):
    return actions.change_dish(_dish(request, dish_id), given.document, given.revision)


@dishes.delete("/{dish_id}", response={204: None, 404: Message})
def delete_dish(request: HttpRequest, dish_id: int):
    """Off the list; services that serve it still do. `restore` undoes it."""
    actions.delete(_dish(request, dish_id))
    return Status(204, None)


@dishes.post("/{dish_id}/restore", response={204: None, 404: Message})
def restore_dish(request: HttpRequest, dish_id: int):
    actions.restore(_dish(request, dish_id))
    return Status(204, None)


def _line(row: Service) -> dict[str, Any]:
    lines = row.document.get("lines", [])
    return {
        "id": row.pk,
        "name": row.name,
        "date": row.date,
        "portions": sum(line["portions"] for line in lines),
        "dishes": len({line["dish"] for line in lines}),
        "repeats": row.document.get("repeats", "never"),
        "updated_at": row.updated_at,
    }


@services.get("", response={200: ServicePage})
def list_services(request: HttpRequest, span: InSpan, q: str = ""):
    """The kitchen's services a page at a time, newest first; every word of ``q`` must be in the name."""
    rows = Service.objects.filter(kitchen=_kitchen(request), deleted_at=None)
    for word in q.split()[:8]:
        rows = rows.filter(name__icontains=word)
    return page_of(rows.defer("pinned"), span, _line)


@services.get("/calendar.ics", include_in_schema=False)
def calendar(request: HttpRequest):
    """Every service that has a day, for a calendar program."""
    kitchen = _kitchen(request)
    rows = Service.objects.filter(kitchen=kitchen, deleted_at=None).exclude(date=None)
    dishes = {str(one.pk): one for one in Dish.objects.filter(kitchen=kitchen).only("name")}
    answer = HttpResponse(services_ics(rows, dishes, kitchen.name), content_type="text/calendar")
    answer["Content-Disposition"] = 'attachment; filename="services.ics"'
    return answer


@services.post("/carry-on", response=int)
def carry_on(request: HttpRequest):
    """Weekly services whose day is over, planned for their next day: how many were."""
    return len(actions.carry_on(_kitchen(request)))


@services.post("", response={201: ServiceOut})
def new_service(request: HttpRequest, given: ServiceIn):
    return Status(201, actions.save_service(_kitchen(request), given.document))


@services.post("/work", response={200: ServiceWorked})
def work_out(request: HttpRequest, given: WorkIn):
    """A service as it stands, with all that follows. Nothing is stored."""
    return work.worked(_kitchen(request), given.document, given.pinned)


@services.post("/flow", response={200: ServiceWorked})
def flow(request: HttpRequest, given: FlowIn):
    """A pot or a sauce made larger or smaller: its dishes' portions follow, and all else."""
    kitchen = _kitchen(request)
    all_of_it = work.gathered(kitchen, given.document, given.pinned)
    plan = all_of_it.plan(work.typed_service(given.document, all_of_it.kitchen))
    document = write_service(flowed(plan, given.node, given.ml))
    return work.worked(kitchen, document, given.pinned)


@services.post("/scale", response={200: ServiceWorked})
def scale(request: HttpRequest, given: ScaleIn):
    """The whole service for so many covers."""
    kitchen = _kitchen(request)
    all_of_it = work.gathered(kitchen, given.document, given.pinned)
    document = write_service(
        scaled(work.typed_service(given.document, all_of_it.kitchen), given.covers)
    )
    return work.worked(kitchen, document, given.pinned)


@services.post("/short", response={200: Short})
def short(request: HttpRequest, given: ShortIn):
    """Only so much of an ingredient: what can still be served."""
    all_of_it = work.gathered(_kitchen(request), given.document, given.pinned)
    plan = all_of_it.plan(work.typed_service(given.document, all_of_it.kitchen))
    try:
        have = amount_field(given.have)
    except BadInput as bad:
        raise bad.under("have") from None
    return short_of(plan, given.ingredient, have, all_of_it.kitchen, all_of_it.plan)


@services.post("/file", response={201: ServiceOut})
def read_file(request: HttpRequest, given: FileIn):
    """A service from a file of another kitchen's, with its dishes, sauces and pans."""
    user = cast(User, request.user)
    return Status(201, file.read_in(_kitchen(request), user, given.text))


@services.get("/{service_id}", response={200: ServiceOut, 404: Message})
def one_service(request: HttpRequest, service_id: int):
    return _service(request, service_id)


@services.put("/{service_id}", response={200: ServiceOut, 404: Message, 409: KeptTaken})
def change_service(request: HttpRequest, service_id: int, given: ServiceIn):
    return actions.change_service(_service(request, service_id), given.document, given.revision)


@services.post("/{service_id}/renew", response={200: ServiceOut, 404: Message, 409: KeptTaken})
def renew(request: HttpRequest, service_id: int, given: RenewIn):
    """Take the newest version of a sauce into a planned service."""
    return actions.renew(_service(request, service_id), given.sauce_id, given.revision)


@services.post("/{service_id}/copy", response={201: ServiceOut, 404: Message})
def copy_service(request: HttpRequest, service_id: int, given: CopyIn):
    """The same on another day; with no day, a week on."""
    return Status(201, actions.copy(_service(request, service_id), given.day))


@services.delete("/{service_id}", response={204: None, 404: Message})
def delete_service(request: HttpRequest, service_id: int):
    actions.delete(_service(request, service_id))
    return Status(204, None)


@services.post("/{service_id}/restore", response={204: None, 404: Message})
def restore_service(request: HttpRequest, service_id: int):
    actions.restore(_service(request, service_id))
    return Status(204, None)


def _file(row: Service, text: str, ending: str, kind: str) -> HttpResponse:
    name = re.sub(r"[^a-z0-9]+", "-", row.name.lower()).strip("-") or "service"
    answer = HttpResponse(text, content_type=kind)
    answer["Content-Disposition"] = f'attachment; filename="{name}.{ending}"'
    return answer


@services.get("/{service_id}/production.csv", include_in_schema=False)
def production_csv(request: HttpRequest, service_id: int):
    row = _service(request, service_id)
    all_of_it = work.gathered(row.kitchen, row.document, row.pinned)
    plan = all_of_it.plan(work.typed_service(row.document, all_of_it.kitchen))
    text = work.production_csv(plan, production_of(plan, all_of_it.kitchen))
    return _file(row, text, "csv", "text/csv")


@services.get("/{service_id}/whole.json", include_in_schema=False)
def whole_json(request: HttpRequest, service_id: int):
    """The service with its dishes, sauces and pans as open documents, and what it comes to."""
    row = _service(request, service_id)
    return _file(row, file.written(row), "json", "application/json")
