"""How a dish ends: grill, oven, torch or lid, straight from the pot or from the fridge."""

import math

from saucier import constants as K
from saucier.dish.document import Dish
from saucier.dish.layout import Layout

_WHERE = {
    "grill": "under a hot grill",
    "oven": "in the oven",
    "torch": "torch for colour only",
    "lid": "under a lid",
}


def through_minutes(depth_mm: float) -> float:
    """Minutes in a moderate oven until a dish filled ``depth_mm`` [mm] deep is hot in its middle,
    from the fridge. Time goes nearly with the depth squared in a slab, less with its sides warmed
    too: the power is fitted to domain.md (25, 45, 60 min at 25, 40, 50 mm); 10 to 80 mm.

    >>> round(through_minutes(40))
    45
    """
    return K.OVEN_MIN_AT_25_MM * math.pow(depth_mm / 25.0, K.OVEN_DEPTH_POWER)


def finish_of(dish: Dish, layout: Layout | None) -> str:
    """What is still to be done with the filled or plated dish, in words; '' for nothing."""
    where = _WHERE.get(dish.finish, "")
    if where and dish.finish_minutes:
        where += f", {dish.finish_minutes:g} min"
    if dish.filled == "cold" and layout:
        through = max(5.0, 5.0 * round(through_minutes(layout.fill_mm) / 5.0))
        # In the oven all the while, the dish's own minutes are of the whole, not of its colour.
        own = dish.finish_minutes if dish.finish == "oven" else 0.0
        yours = f" (your dish says {own:g})" if own else ""
        last = f": {where}" if where and dish.finish != "oven" else ""
        return (
            f"from the fridge about {through:.0f} min{yours} in a moderate oven at "
            f"{layout.fill_mm:.0f} mm deep, covered or low first, colour last{last}; check the middle"
        )
    if dish.filled == "cold":
        return f"from the fridge: hot through first{f', then {where}' if where else ''}"
    if dish.finish in ("grill", "oven", "torch"):
        return f"{where}; out at once"
    return where
