"""Amounts as a kitchen weighs them: 0.1 g under 3 g, 1 g under 100 g, 5 g to a kilo, 10 g above, whole
pieces."""

import math
from collections.abc import Callable, Iterable
from dataclasses import replace
from typing import TypeVar

from saucier.units.amount import Amount
from saucier.units.spoons import FILLED_IN
from saucier.units.table import UNITS, Dimension

FINENESS = (1.0, 0.5, 0.2, 0.1, 0.05, 0.01)
"""Steps tried in turn, as shares of the kitchen's: coarse ones first."""
T = TypeVar("T")
_SPOONS = FILLED_IN | {"fl oz": 0.25}
_LEAST_ML = 1.25
"""A quarter of a teaspoon is as little as is filled beside a cup or a tablespoon."""
_LEAST_G = 0.1
"""As little as a kitchen's scale tells."""
_BY_HAND = 0.25
_SPICE = 3.0
"""So few grams are spice: a whole one more would be a third too much."""


def kitchen_step(amount: Amount, fineness: float = 1.0) -> float:
    """The step ``amount`` is weighed or measured in, in its own unit.

    ``fineness`` below 1 asks for finer steps, where whole grams would cost the grade.

    >>> kitchen_step(Amount(1.2, "kg"))
    0.01
    """
    if amount.dimension is Dimension.COUNT:
        return 1.0
    size = amount.definition.size
    if amount.unit in _SPOONS:
        step_ml = _SPOONS[amount.unit] * size
        quarters = max(1, round(step_ml * fineness / _LEAST_ML))
        return (step_ml if fineness >= 1.0 else quarters * _LEAST_ML) / size
    base = amount.base
    if amount.unit in ("oz", "lb"):
        step = 0.05 if base < 120 else 0.25
        step_base = step * 28.349523125
    else:
        step_base = 0.1 if base < _SPICE else 1.0 if base < 100 else 5.0 if base < 1000 else 10.0
    tenths = math.floor(step_base * fineness / _LEAST_G + 1e-9)
    return max(1, tenths) * _LEAST_G / size


def kitchen_round(amount: Amount, fineness: float = 1.0) -> Amount:
    """``amount`` to the nearest step a kitchen uses, never down to nothing. What is measured by
    hand comes in quarters of its measure; where that is too coarse it is weighed after all.

    >>> kitchen_round(Amount(83.4, "g"))
    Amount(value=83.0, unit='g')
    """
    by = amount.measure
    if (
        by and by.name in UNITS and by.name == amount.unit
    ):  # weighed or poured, and only about so much
        exact = kitchen_round(Amount(amount.value, amount.unit), fineness)
        return replace(exact, measure=replace(by, count=exact.value))
    if by and fineness >= 1.0:  # by hand: quarters of the measure
        return amount.times(max(1, round(by.count / _BY_HAND)) * _BY_HAND / by.count)
    step = kitchen_step(amount, fineness)
    # Rounding to nine places takes off binary dust (0.30000000000000004 kg).
    return Amount(round(max(1, round(amount.value / step)) * step, 9), amount.unit)


def coarsest(
    made_at: Callable[[float], Iterable[T]], keeps: Callable[[T], bool]
) -> tuple[T, float] | None:
    """The coarsest rounding that ``keeps`` what must be kept, and its fineness: ``made_at`` gives
    what there is to try at each; None where none does.

    >>> coarsest(lambda fineness: [kitchen_round(Amount(83.4, "g"), fineness).value], lambda g: g > 83)
    (83.5, 0.5)
    """
    for fineness in FINENESS:
        for made in made_at(fineness):
            if keeps(made):
                return made, fineness
    return None
