"""Writes on dishes and services, one transaction each."""

import secrets
from collections.abc import Mapping
from datetime import date, timedelta
from typing import Any, TypeVar

from django.db import transaction
from django.utils import timezone

from kestrel.accounts.models import Kitchen
from kestrel.problems import Conflict
from kestrel.room import room_for_another
from kestrel.sauces.models import Sauce
from kestrel.service.models import Dish, Kept, Service
from kestrel.service.signals import service_changed
from saucier.dish import Dish as DishDocument
from saucier.dish import read_dish, write_dish
from saucier.errors import BadInput
from saucier.service import Service as ServiceDocument
from saucier.service import read_service, write_service
from saucier.words import say

Row = TypeVar("Row", bound=Kept)


def row_number(key: object) -> int | None:
    """The number a document's ``key`` gives a row of this kitchen; None where it cannot be one."""
    text = str(key)
    number = int(text) if text.isascii() and text.isdecimal() and len(text) < 19 else 0
    return number or None


def checked_dish(kitchen: Kitchen, data: Mapping[str, Any]) -> DishDocument:
    """A dish as it would be kept in this kitchen. Raises :class:`BadInput` by field."""
    dish = read_dish(data)
    keys = [row_number(used.sauce) for used in dish.sauces]
    known = set(
        Sauce.objects.filter(kitchen=kitchen, pk__in=[key for key in keys if key]).values_list(
            "pk", flat=True
        )
    )
    for number, key in enumerate(keys):
        if key not in known:
            raise BadInput.at(f"sauces[{number}].sauce", "is-no-sauce-of-yours")
    return dish


def save_dish(kitchen: Kitchen, data: Mapping[str, Any]) -> Dish:
    """A new dish. Raises :class:`BadInput` by field."""
    room_for_another(Dish, kitchen, "document")
    document = write_dish(checked_dish(kitchen, data))
    return Dish.objects.create(kitchen=kitchen, name=document["name"], document=document)


@transaction.atomic
def change_dish(dish: Dish, data: Mapping[str, Any], revision: int) -> Dish:
    """``dish`` as ``data``. Raises :class:`Conflict` when it was changed meanwhile."""
    document = write_dish(checked_dish(dish.kitchen, data))
    if sent_again(dish, document):
        return dish
    dish = current(dish, revision)
    dish.name, dish.document = document["name"], document
    return moved(dish)


def _with_new_ids(data: Mapping[str, Any]) -> Mapping[str, Any]:
    """``data`` with an id for lines that have none: one no line of it ever had, so that what was begun for another
    that is gone is never theirs."""
    lines = data.get("lines")
    if not isinstance(lines, list):
        return data
    return {
        **data,
        "lines": [
            {**line, "id": 1000 + secrets.randbelow(10**9)}
            if isinstance(line, Mapping) and line.get("id") is None
            else line
            for line in lines
        ],
    }


def checked_service(kitchen: Kitchen, data: Mapping[str, Any]) -> ServiceDocument:
    """A service as it would be kept in this kitchen. Raises :class:`BadInput` by field."""
    service = read_service(data)
    keys = [row_number(line.dish) for line in service.lines]
    rows = Dish.objects.filter(kitchen=kitchen, pk__in=[key for key in keys if key])
    known = set(rows.values_list("pk", flat=True))
    for number, key in enumerate(keys):
        if key not in known:
            raise BadInput.at(f"lines[{number}].dish", "is-no-dish-of-yours")
    return service


def save_service(kitchen: Kitchen, data: Mapping[str, Any]) -> Service:
    """A new service, its sauces pinned at their newest versions. Raises :class:`BadInput`."""
    room_for_another(Service, kitchen, "document")
    document = write_service(checked_service(kitchen, data))
    return Service.objects.create(
        kitchen=kitchen,
        name=document["name"],
        date=_day(document),
        document=document,
        pinned=pins(kitchen, document, {}),
    )


@transaction.atomic
def change_service(service: Service, data: Mapping[str, Any], revision: int) -> Service:
    """``service`` as ``data``; sauces it had keep their versions, new ones are pinned. Raises
    :class:`Conflict` when it was changed meanwhile."""
    document = write_service(checked_service(service.kitchen, _with_new_ids(data)))
    if sent_again(service, document):
        return service
    service = current(service, revision)
    before, pinned_before = service.document, service.pinned
    service.name, service.date, service.document = document["name"], _day(document), document
    service.pinned = pins(service.kitchen, document, service.pinned)
    service = moved(service)
    service_changed.send(Service, service=service, before=before, pinned_before=pinned_before)
    return service


@transaction.atomic
def renew(service: Service, sauce_id: int, revision: int) -> Service:
    """Take the newest version of a sauce into ``service``. Raises :class:`BadInput` for a sauce that
    is deleted, :class:`Conflict` as above."""
    sauce = Sauce.objects.filter(kitchen=service.kitchen, pk=sauce_id, deleted_at=None).first()
    if sauce is None:
        raise BadInput.at("sauce_id", "is-no-sauce-any-more")
    if service.deleted_at is None and service.pinned.get(str(sauce.pk)) == sauce.version:
        return service  # sent again: the answer was lost
    service = current(service, revision)
    service.pinned = {**service.pinned, str(sauce.pk): sauce.version}
    return moved(service)


def copy(service: Service, day: date | None) -> Service:
    """The same service on another ``day``, once; None: a week on, or the first such weekday after
    today. What was on hand is not: it was of that day."""
    if day is None:
        today = timezone.localdate()
        day = _week_on(service.date or today, after=max(today, service.date or today))
    return _again(service, day, "never")


def carry_on(kitchen: Kitchen) -> list[Service]:
    """Weekly services whose day is over, planned for their next day from today on with the newest
    sauces. The new one carries the repeat; the old one stays as what was served."""
    today = timezone.localdate()
    over = Service.objects.filter(
        kitchen=kitchen, deleted_at=None, date__lt=today, document__repeats="weekly"
    )
    if not over.exists():  # nearly always: looking at the list takes no lock
        return []
    made = []
    with transaction.atomic():
        for row in over.select_for_update():
            assert row.date is not None  # by the query
            day = _week_on(row.date, after=today - timedelta(days=1))
            made.append(_again(row, day, "weekly"))
            row.document = {**row.document, "repeats": "never"}
            moved(row)
    return made


def _week_on(day: date, after: date) -> date:
    """The first such weekday past ``after``."""
    while day <= after:
        day += timedelta(days=7)
    return day


def _again(service: Service, day: date, repeats: str) -> Service:
    document = {**service.document, "date": day.isoformat(), "repeats": repeats, "on_hand": []}
    return save_service(service.kitchen, document)


def delete(row: Kept) -> None:
    """Off the list; :func:`restore` brings it back."""
    type(row)._default_manager.filter(pk=row.pk).update(deleted_at=timezone.now())


def restore(row: Kept) -> None:
    type(row)._default_manager.filter(pk=row.pk).update(deleted_at=None)


def pins(
    kitchen: Kitchen, document: Mapping[str, Any], before: Mapping[str, int]
) -> dict[str, int]:
    """The version of every sauce ``document`` needs: as pinned ``before``, else the newest."""
    wanted = sauces_of(kitchen, document)
    newest = dict(
        Sauce.objects.filter(kitchen=kitchen, pk__in=[int(key) for key in wanted]).values_list(
            "pk", "version"
        )
    )
    return {key: before.get(key, newest[int(key)]) for key in sorted(wanted) if int(key) in newest}


def sauces_of(kitchen: Kitchen, document: Mapping[str, Any]) -> set[str]:
    """Numbers of the sauces the lines' dishes use."""
    keys = {key for line in document.get("lines", []) if (key := row_number(line["dish"]))}
    rows = Dish.objects.filter(kitchen=kitchen, pk__in=keys)
    return {
        used["sauce"]
        for row in rows
        for used in row.document.get("sauces", [])
        if row_number(used["sauce"])
    }


def _day(document: Mapping[str, Any]) -> date | None:
    return date.fromisoformat(document["date"]) if document.get("date") else None


def sent_again(row: Kept, document: Mapping[str, Any]) -> bool:
    """Whether ``row`` is ``document`` already: the answer to a save may have been lost."""
    return row.deleted_at is None and row.document == document


def current(row: Row, revision: int) -> Row:
    """``row`` as it is now, to be changed. Raises :class:`Conflict` when it is not at ``revision``, and
    :class:`BadInput` when it was deleted."""
    row = type(row)._default_manager.select_for_update().get(pk=row.pk)
    if row.deleted_at is not None:
        raise BadInput.at("revision", "was-deleted", name=row.name)
    if row.revision != revision:
        raise Conflict(
            say("saved-elsewhere", name=row.name), document=row.document, revision=row.revision
        )
    return row


def moved(row: Row) -> Row:
    """``row`` changed, and kept."""
    row.revision += 1
    row.save()
    return row
