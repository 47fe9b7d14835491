"""Spoons and cups as they are filled: "⅞ cup + 2 tsp" for what no single one holds."""

import math

from saucier.units.amount import Amount
from saucier.units.table import unit_named

FILLED_IN = {"tsp": 0.25, "tbsp": 0.25, "cup": 0.125}
"""The parts of each that a kitchen has or fills by eye."""
NEAR = 0.02
"""A share by which nobody fills a spoon more exactly."""
SPOONED_WITHIN = 0.05
"""Spoons said beside a weight are within this share of it."""
_TSP_ML, _TBSP_ML = 5.0, 15.0


def in_parts(amount: Amount) -> tuple[Amount, ...]:
    """``amount`` in one cup or spoon where that is within 2 %, else in that and what is left over in a smaller one;
    as it is where it is not spooned.

    >>> [str(part) for part in in_parts(Amount(0.9147, "cup"))]
    ['0.875 cup', '2 tsp']
    >>> [str(part) for part in in_parts(Amount(2.744, "tbsp"))]
    ['2.75 tbsp']
    """
    step = FILLED_IN.get(amount.unit)
    if step is None or amount.measure or amount.value <= 0.0:
        return (amount,)
    nearest = round(amount.value / step) * step
    if abs(nearest / amount.value - 1.0) <= NEAR or amount.unit == "tsp":
        return (Amount(max(step, nearest), amount.unit),)
    whole = math.floor(amount.value / step) * step
    rest_ml = (amount.value - whole) * unit_named(amount.unit).size
    unit, size = ("tbsp", _TBSP_ML) if rest_ml >= _TBSP_ML else ("tsp", _TSP_ML)
    if not whole:
        return in_parts(Amount(rest_ml / size, unit))
    part = FILLED_IN[unit]
    return Amount(whole, amount.unit), Amount(max(part, round(rest_ml / size / part) * part), unit)


def spooned(ml: float, tablespoon_ml: float = _TBSP_ML) -> Amount | None:
    """``ml`` in the spoon or cup it is measured with, or in two, within 5 %; None where none comes near.
    ``tablespoon_ml``: what this kitchen's tablespoon holds.

    >>> spooned(11.3), spooned(110.0)
    (Amount(value=2.25, unit='tsp'), Amount(value=0.453125, unit='cup'))
    """
    unit, size = ("tsp", 5.0) if ml < 15.0 else ("tbsp", 15.0) if ml < 60.0 else ("cup", 240.0)
    exact = Amount(ml / size, unit)
    coarse = round(exact.value / FILLED_IN[unit]) * FILLED_IN[unit]
    if coarse and abs(coarse / exact.value - 1.0) <= SPOONED_WITHIN:
        return Amount(coarse, unit)
    parts = in_parts(exact)
    filled_ml = sum(part.base for part in parts)
    if abs(filled_ml / ml - 1.0) > SPOONED_WITHIN:
        return None
    return Amount(filled_ml / size, unit)
