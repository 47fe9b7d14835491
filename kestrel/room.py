"""How many of a kind a kitchen may have: lists that are looked at whole, in every check or on every page."""

from typing import Any

from kestrel.accounts.models import Kitchen, OfKitchen
from saucier.errors import BadInput

MOST = {
    "OwnIngredient": 600,
    "OwnMeasure": 300,
    "OwnWay": 300,
    "Pan": 200,
    "Burner": 60,
    "Gear": 100,
    "Cook": 60,
    "Device": 100,
    "Sauce": 20_000,
    "Dish": 20_000,
    "Service": 20_000,
}
"""With all of these full a check stays under its bound (kestrel.tests.test_room)."""


def room_for_another(model: type[OfKitchen], kitchen: Kitchen, field: str, **there: Any) -> None:
    """Raises :class:`BadInput` (``field``) where ``kitchen`` has as many as it may, unless the one is
    ``there`` already."""
    rows: Any = model._default_manager.filter(kitchen=kitchen)
    if there and rows.filter(**there).exists():
        return
    most = MOST[model.__name__]
    if rows.count() >= most:
        raise BadInput.at(field, "so-many-of-its-own", most=most)
