"""A service as one file: with its dishes, its sauces, the pans and own ingredients they need, into another
kitchen."""

import json
from collections.abc import Mapping
from dataclasses import asdict, fields
from typing import Any

from django.db import transaction
from pydantic import TypeAdapter

from kestrel.accounts.models import Kitchen, User
from kestrel.larder.actions import add_pan, core_kitchen, save_ingredient
from kestrel.larder.models import OwnIngredient, Pan
from kestrel.sauces.actions import save_new
from kestrel.sauces.models import Sauce, SauceVersion
from kestrel.service import work
from kestrel.service.actions import row_number, save_dish, save_service
from kestrel.service.models import Dish, Service
from kestrel.service.work import ServiceWorked
from saucier.dish import read_dish, write_dish
from saucier.errors import BadInput
from saucier.heat import Pan as CorePan
from saucier.service import read_service
from saucier.service.eaten import named_in
from saucier.sheet import parse_json, read_sheet, write_sheet

FORMAT = "kestrel-fog/service-file"
MOST_BYTES = 1024 * 1024


def written(row: Service) -> str:
    """``row`` as a file: its documents, and what they come to (for whoever reads, not read back)."""
    worked = work.worked(row.kitchen, row.document, row.pinned)
    used = {key for line in row.document.get("lines", []) if (key := row_number(line["dish"]))}
    dishes = Dish.objects.filter(kitchen=row.kitchen, pk__in=used)
    versions = SauceVersion.objects.filter(
        sauce__kitchen=row.kitchen, sauce_id__in=list(row.pinned)
    )
    sauces = {
        str(version.sauce_id): version.sheet
        for version in versions
        if row.pinned[str(version.sauce_id)] == version.number
    }
    document = {
        "format": FORMAT,
        "version": 1,
        "service": row.document,
        "dishes": {str(dish.pk): dish.document for dish in dishes},
        "sauces": sauces,
        "pans": [asdict(pan.core()) for pan in Pan.objects.filter(kitchen=row.kitchen)],
        "ingredients": _own_rows(row, [dish.document for dish in dishes], sauces),
        **TypeAdapter(ServiceWorked).dump_python(worked, mode="json"),
    }
    return json.dumps(document, indent=1, ensure_ascii=False)


_PAN = tuple(field.name for field in fields(CorePan))
"""What a pan is told by: all the core knows of one."""


def _own_rows(
    row: Service, dishes: list[dict[str, Any]], sauces: Mapping[str, Any]
) -> list[dict[str, str]]:
    """The kitchen's own ingredients that anything of the service names."""
    named = {part["ingredient"] for dish in dishes for part in dish.get("solids", [])}
    named |= {part["ingredient"] for dish in dishes for part in dish.get("toppings", [])}
    for sheet in sauces.values():
        named |= named_in(read_sheet(sheet))
    for line in row.document.get("lines", []):
        named |= set((line.get("swaps") or {}).values())
    own = OwnIngredient.objects.filter(kitchen=row.kitchen, key__in=named)
    return [one.row for one in own]


@transaction.atomic
def read_in(kitchen: Kitchen, user: User, data: object) -> Service:
    """The service of a file as one of this kitchen's: dishes and sauces it has already, word for word, are
    used; the rest is added, as are pans and ingredients it does not have. Raises :class:`BadInput` by
    field; then nothing is stored."""
    if isinstance(data, str | bytes):
        data = parse_json(data, MOST_BYTES)
    if not isinstance(data, Mapping) or data.get("format") != FORMAT:
        raise BadInput.at("format", "is-no-service-file", format=FORMAT)
    for at in ("dishes", "sauces"):
        if not isinstance(data.get(at), Mapping):
            raise BadInput.at(at, "part-is-missing")
    service = read_service(_mapping(data, "service"))
    _take_rows(kitchen, data.get("ingredients"))
    _take_pans(kitchen, data.get("pans"))
    sauces = {
        str(key): _sauce(kitchen, user, sheet, f"sauces.{key}")
        for key, sheet in data["sauces"].items()
    }
    dishes = {
        str(key): _dish(kitchen, dish, sauces, f"dishes.{key}")
        for key, dish in data["dishes"].items()
    }
    document = {
        **service.model_dump(mode="json", exclude_none=True),
        "lines": [
            {
                **line.model_dump(mode="json", exclude_none=True),
                "dish": dishes.get(line.dish, line.dish),
            }
            for line in service.lines
        ],
        "force": {sauces.get(key, key): way for key, way in service.force.items()},
        # A tub stands in the fridge it stands in, and a pan's key names the sauces there.
        "on_hand": [],
        "pans": {},
    }
    return save_service(kitchen, document)


def _mapping(data: Mapping[str, Any], at: str) -> Mapping[str, Any]:
    part = data.get(at)
    if not isinstance(part, Mapping):
        raise BadInput.at(at, "part-is-missing")
    return part


def _take_rows(kitchen: Kitchen, rows: object) -> None:
    larder = core_kitchen(kitchen).larder
    for number, row in enumerate(rows if isinstance(rows, list) else []):
        if not isinstance(row, Mapping) or str(row.get("key")) in larder:
            continue
        try:
            save_ingredient(kitchen, {str(k): str(v) for k, v in row.items()}, 0)
        except BadInput as bad:
            raise bad.under(f"ingredients[{number}]") from None


def _take_pans(kitchen: Kitchen, pans: object) -> None:
    there = set(Pan.objects.filter(kitchen=kitchen).values_list("name", flat=True))
    for number, pan in enumerate(pans if isinstance(pans, list) else []):
        if not isinstance(pan, Mapping) or str(pan.get("name")) in there:
            continue
        try:
            add_pan(kitchen, **{name: pan[name] for name in _PAN if pan.get(name) is not None})
        except BadInput as bad:
            raise bad.under(f"pans[{number}]") from None


def _sauce(kitchen: Kitchen, user: User, data: Any, at: str) -> str:
    try:
        sheet = read_sheet(data)
        whole = write_sheet(sheet)
        for sauce in Sauce.objects.filter(kitchen=kitchen, name=sheet.name, deleted_at=None):
            if sauce.newest.sheet == whole:
                return str(sauce.pk)
        return str(save_new(kitchen, user, sheet).pk)
    except BadInput as bad:
        raise bad.under(at) from None


def _dish(kitchen: Kitchen, data: Any, sauces: Mapping[str, str], at: str) -> str:
    try:
        document = write_dish(read_dish(data))
        for used in document.get("sauces", []):
            used["sauce"] = sauces.get(used["sauce"], used["sauce"])
        for dish in Dish.objects.filter(kitchen=kitchen, name=document["name"], deleted_at=None):
            if dish.document == document:
                return str(dish.pk)
        return str(save_dish(kitchen, document).pk)
    except BadInput as bad:
        raise bad.under(at) from None
