"""The units the sheet knows, with their size, taken from pint's registry of kitchen units."""

import re
from dataclasses import dataclass
from enum import StrEnum
from functools import lru_cache
from pathlib import Path
from typing import Any

from saucier.errors import BadInput


class Dimension(StrEnum):
    """What a unit measures."""

    WEIGHT = "weight"
    VOLUME = "volume"
    COUNT = "count"


@dataclass(frozen=True, slots=True)
class Unit:
    """A unit of the sheet: ``size`` is grams, millilitres or pieces in one of it."""

    name: str
    dimension: Dimension
    size: float


UNITS: dict[str, Unit] = {
    unit.name: unit
    for unit in (
        Unit("g", Dimension.WEIGHT, 1.0),
        Unit("kg", Dimension.WEIGHT, 1000.0),
        Unit("oz", Dimension.WEIGHT, 28.349523125),
        Unit("lb", Dimension.WEIGHT, 453.59237),
        Unit("mL", Dimension.VOLUME, 1.0),
        Unit("L", Dimension.VOLUME, 1000.0),
        Unit("tsp", Dimension.VOLUME, 5.0),
        Unit("tbsp", Dimension.VOLUME, 15.0),
        Unit("cup", Dimension.VOLUME, 240.0),
        Unit("fl oz", Dimension.VOLUME, 29.5735295625),
        Unit("piece", Dimension.COUNT, 1.0),
    )
}
"""Sizes are pinned here so that the hot path needs no registry; a test holds them against
pint's definitions."""

SPOONS = ("tsp", "tbsp", "cup")
"""Volumes that are spooned, so that packing matters."""

_DIMENSION_OF_PINT = {
    "[weight]": Dimension.WEIGHT,
    "[bulk]": Dimension.VOLUME,
    "[count]": Dimension.COUNT,
}


_A_WORD = re.compile(r"[A-Za-z]+( [A-Za-z]+)?")
BASE_UNIT = {Dimension.WEIGHT: "g", Dimension.VOLUME: "mL", Dimension.COUNT: "piece"}


@lru_cache(maxsize=1)
def registry() -> Any:
    """pint's registry with the kitchen's units only. Loaded on first use: pint costs a
    quarter of a second that a plain check need not pay.

    >>> registry().Quantity(1, 'cup').to('mL').magnitude
    240
    """
    import pint

    return pint.UnitRegistry(str(Path(__file__).with_name("kitchen_units.txt")))


@lru_cache(maxsize=512)
def unit_named(name: str) -> Unit:
    """The unit a cook means by ``name``, in any usual spelling.

    >>> unit_named("tablespoons").name
    'tbsp'
    >>> unit_named("dl").size
    100.0

    Raises :class:`BadInput` (field ``unit``) when it is no unit of the kitchen.
    """
    if name in UNITS:
        return UNITS[name]
    written = " ".join(name.strip().strip(".").split())
    folded = written.lower()
    for unit in UNITS.values():
        if folded == unit.name.lower():
            return unit
    for spelling in (written, folded) if _A_WORD.fullmatch(written) else ():
        unit_read = _from_pint(spelling.replace(" ", "_"))
        if unit_read:
            return unit_read
    raise BadInput.at("unit", "is-no-unit", shown=written[:40], units=_known())


def _from_pint(spelling: str) -> Unit | None:
    """The unit pint reads in ``spelling``: one of :data:`UNITS` where the size is the same."""
    import pint

    try:
        parsed = registry().Unit(spelling)
    except pint.errors.UndefinedUnitError:
        return None
    ((dimension, power),) = parsed.dimensionality.items() or [("", 0)]
    kind = _DIMENSION_OF_PINT.get(dimension)
    if kind is None or power != 1:
        return None
    size = float(registry().Quantity(1, parsed).to_root_units().magnitude)
    for unit in UNITS.values():
        if unit.dimension == kind and abs(unit.size - size) < 1e-9 * size:
            return unit
    return Unit(spelling, kind, size)


def _known() -> str:
    return ", ".join(UNITS)
