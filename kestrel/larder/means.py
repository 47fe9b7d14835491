"""What a kitchen has to cook with, kept and told to the core: cooks, rings, things, ways."""

import math
from collections.abc import Mapping, Sequence
from typing import Any

from django.db import IntegrityError, transaction

from kestrel.accounts.models import Kitchen
from kestrel.larder.learnt import in_force
from kestrel.larder.models import Burner, Cook, Gear, Learnt, OwnWay, Pan
from kestrel.room import room_for_another
from saucier.errors import BadInput
from saucier.run_up import (
    SKILLS,
    Library,
    Means,
    Ring,
    Way,
    gear_of,
    kinds,
    new_way,
    read_way,
    shipped_ways,
)
from saucier.run_up import Cook as CoreCook
from saucier.sheet import SheetBurner, read_part

MOST_OF_ITS_KIND = 40


def means_of(kitchen: Kitchen) -> Means:
    """Everything ``kitchen`` has to cook with; what it never said is taken for granted."""
    rings: list[Ring] = []
    for number, burner in enumerate(Burner.objects.filter(kitchen=kitchen)):
        part = SheetBurner.model_validate({"kind": burner.kind, "watts": burner.watts})
        there = [ring.name for ring in rings]
        name = burner.name if burner.name not in there else f"{burner.name} {number + 1}"
        rings.append(Ring(name, part, burner.takes_cm))
    return Means.of(
        cooks=[
            CoreCook(cook.name, frozenset(cook.can or SKILLS))
            for cook in Cook.objects.filter(kitchen=kitchen)
        ],
        rings=rings,
        gear=[
            gear_of(
                gear.kind,
                gear.name,
                gear.count,
                can=gear.can,
                shelves=gear.shelves,
                area_cm2=gear.area_cm2,
                litres=gear.litres,
            )
            for gear in Gear.objects.filter(kitchen=kitchen)
        ],
        pans=[pan.core() for pan in Pan.objects.filter(kitchen=kitchen)],
    )


def library_of(kitchen: Kitchen) -> Library:
    """The ways this kitchen cooks by."""
    rows = OwnWay.objects.filter(kitchen=kitchen).values_list("row", flat=True)
    hands = {
        of: math.exp(row.log)
        for (kind, of, _), row in in_force(kitchen).items()
        if kind == Learnt.Kind.WORK
    }
    return Library.of((read_way(row) for row in rows), hands)


def add_burner(kitchen: Kitchen, name: str, takes_cm: object = None, **rating: object) -> Burner:
    """A ring for ``kitchen``; ``takes_cm`` is the widest pan it takes (nothing: any). Raises
    :class:`BadInput` by field."""
    burner = read_part(SheetBurner, rating, "")
    if not 1 <= len(name.strip()) <= 60:
        raise BadInput.at("name", "ring-name-is-empty-or-long")
    room_for_another(Burner, kitchen, "name")
    return Burner.objects.create(
        kitchen=kitchen,
        name=name.strip(),
        kind=burner.kind,
        watts=burner.watts,
        takes_cm=None if takes_cm in (None, "") else _within("takes_cm", takes_cm, 5, 100),
    )


def add_gear(kitchen: Kitchen, kind: str, name: str, **told: Any) -> Gear:
    """One more thing. Raises :class:`BadInput` by field."""
    kind, name = str(kind).strip()[:31], str(name).strip()
    if not name:
        name = str(kinds().get(kind, {}).get("name", ""))
    if not 1 <= len(name) <= 60:
        raise BadInput.at("name", "gear-has-no-name")
    can = told.get("can")
    if kind not in kinds() and not can:
        raise BadInput.at("kind", "gear-of-no-known-kind", kind=kind)
    if can is not None and not (
        isinstance(can, list) and all(isinstance(one, str) and len(one) <= 30 for one in can)
    ):
        raise BadInput.at("can", "gear-can-is-no-list")
    numbers: dict[str, float | None] = {}
    for field, low, most in _REACH:
        value = told.get(field)
        numbers[field] = None if value in (None, "") else _within(field, value, low, most)
    count = int(numbers.pop("count") or 1)
    shelves = numbers.pop("shelves")
    room_for_another(Gear, kitchen, "name")
    return Gear.objects.create(
        kitchen=kitchen,
        kind=kind,
        name=name,
        count=count,
        can=can,
        shelves=None if shelves is None else int(shelves),
        **numbers,
    )


_REACH = (
    ("count", 1, MOST_OF_ITS_KIND),
    ("shelves", 1, MOST_OF_ITS_KIND),
    ("area_cm2", 50, 50_000),
    ("litres", 0.5, 500),
)


def _within(field: str, value: object, low: float, most: float) -> float:
    try:
        number = float(str(value).replace(",", "."))
    except ValueError:
        number = float("nan")
    if isinstance(value, bool) or not low <= number <= most:
        raise BadInput.at(field, "gear-is-out-of-reach", value=str(value)[:20], low=low, most=most)
    return number


def add_cook(kitchen: Kitchen, name: str, can: list[str]) -> Cook:
    """Somebody more who cooks. Raises :class:`BadInput` by field."""
    name = str(name).strip()
    if not 1 <= len(name) <= 60:
        raise BadInput.at("name", "cook-has-no-name")
    unknown = [one for one in can if one not in SKILLS]
    if unknown:
        raise BadInput.at("can", "is-no-skill", skill=str(unknown[0])[:30], skills=SKILLS)
    room_for_another(Cook, kitchen, "name")
    try:
        with transaction.atomic():
            return Cook.objects.create(kitchen=kitchen, name=name, can=sorted(set(can)))
    except IntegrityError:
        raise BadInput.at("name", "cook-is-there", name=name) from None


@transaction.atomic
def add_way(kitchen: Kitchen, name: str, does: Sequence[str]) -> Way:
    """A way of ``kitchen``'s own for what it ``does``, with figures to begin from. Raises :class:`BadInput`
    by field."""
    way = new_way(name, does, library_of(kitchen).ways)
    return save_way(kitchen, way.model_dump(mode="json"))


def own_ways(kitchen: Kitchen) -> dict[str, bool]:
    """Keys of the ways ``kitchen`` has figures of its own for, and whether such a way is shipped at all."""
    keys = OwnWay.objects.filter(kitchen=kitchen).values_list("key", flat=True)
    return {key: key in shipped_ways() for key in keys}


def save_way(kitchen: Kitchen, row: Mapping[str, Any]) -> Way:
    """Keep a way as this kitchen's own. Raises :class:`BadInput` by field."""
    way = read_way(row)
    room_for_another(OwnWay, kitchen, "key", key=way.key)
    OwnWay.objects.update_or_create(
        kitchen=kitchen, key=way.key, defaults={"row": way.model_dump(mode="json")}
    )
    return way
