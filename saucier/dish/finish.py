"""How a dish ends: grill, oven, torch or lid, straight from the pot or from the fridge."""

import math

from saucier import constants as K
from saucier.dish.document import Dish
from saucier.dish.layout import Layout
from saucier.words import Sentence, say


def through_minutes(depth_mm: float, oven_c: float | None = None, oven: str = "still") -> float:
    """Minutes in an oven at ``oven_c`` [°C] (None: a moderate one) until a dish filled ``depth_mm``
    [mm] deep is hot in its middle, from the fridge. Time goes nearly with the depth squared in a
    slab, less with its sides warmed too: the power is fitted to kitchen figures (25, 45, 60 min at
    25, 40, 50 mm); 10 to 80 mm. It falls with how far the oven is above the food, and a fan does
    what some 20 °C more do; 100 to 300 °C.

    >>> round(through_minutes(40)), round(through_minutes(40, 150)), round(through_minutes(40, 160, "fan"))
    (45, 63, 45)
    """
    moderate = K.OVEN_MIN_AT_25_MM * math.pow(depth_mm / 25.0, K.OVEN_DEPTH_POWER)
    as_still = (K.MODERATE_OVEN_C if oven_c is None else oven_c) + (
        K.FAN_IS_WORTH_C if oven == "fan" and oven_c is not None else 0.0
    )
    return moderate * (K.MODERATE_OVEN_C - K.FOOD_IN_OVEN_C) / (as_still - K.FOOD_IN_OVEN_C)


def finish_of(dish: Dish, layout: Layout | None) -> Sentence | None:
    """What is still to be done with the filled or plated dish; None: nothing.

    >>> from saucier.dish import read_dish
    >>> dish = read_dish({'name': 'Leeks', 'sauces': [], 'finish': 'grill', 'finish_minutes': 4})
    >>> str(finish_of(dish, None))
    'under a hot grill, 4 min; out at once'
    """
    where = None if dish.finish == "none" else say(f"finish.{dish.finish}")
    oven = _oven(dish)
    if dish.finish == "oven" and dish.oven_c is not None:
        where = oven
    if where and dish.finish_minutes:
        where = say("finish.for-minutes", where=where, minutes=dish.finish_minutes)
    if dish.filled == "cold" and layout:
        through = max(5.0, 5.0 * round(_through(dish, layout) / 5.0))
        # In the oven all the while, the dish's own minutes are of the whole, not of its colour.
        own = dish.finish_minutes if dish.finish == "oven" else 0.0
        return say(
            "finish.from-the-fridge",
            minutes=through,
            oven=oven,
            depth_mm=layout.fill_mm,
            own=say("finish.own-minutes", minutes=own) if own else "",
            last=say("finish.last", where=where) if where and dish.finish != "oven" else "",
        )
    if dish.filled == "cold":
        hot = say("finish.hot-through-first")
        return say("finish.hot-through-then", where=where) if where else hot
    if dish.finish in ("grill", "oven", "torch"):
        return say("finish.out-at-once", where=where)
    return where


def _oven(dish: Dish) -> Sentence:
    """The oven it goes into: its kind and temperature, where they are told."""
    if dish.oven_c is None:
        return say("finish.moderate-fan-oven" if dish.oven == "fan" else "finish.moderate-oven")
    return say(f"finish.{dish.oven}-oven", to_c=dish.oven_c)


def _through(dish: Dish, layout: Layout) -> float:
    return through_minutes(layout.fill_mm, dish.oven_c, dish.oven)
