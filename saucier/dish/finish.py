"""How a dish ends: grill, oven, torch or lid, straight from the pot or from the fridge."""

import math

from saucier import constants as K
from saucier.dish.document import Dish
from saucier.dish.layout import Layout
from saucier.words import Sentence, say


def through_minutes(depth_mm: float) -> float:
    """Minutes in a moderate oven until a dish filled ``depth_mm`` [mm] deep is hot in its middle,
    from the fridge. Time goes nearly with the depth squared in a slab, less with its sides warmed
    too: the power is fitted to kitchen figures (25, 45, 60 min at 25, 40, 50 mm); 10 to 80 mm.

    >>> round(through_minutes(40))
    45
    """
    return K.OVEN_MIN_AT_25_MM * math.pow(depth_mm / 25.0, K.OVEN_DEPTH_POWER)


def finish_of(dish: Dish, layout: Layout | None) -> Sentence | None:
    """What is still to be done with the filled or plated dish; None: nothing.

    >>> from saucier.dish import read_dish
    >>> dish = read_dish({'name': 'Leeks', 'sauces': [], 'finish': 'grill', 'finish_minutes': 4})
    >>> str(finish_of(dish, None))
    'under a hot grill, 4 min; out at once'
    """
    where = None if dish.finish == "none" else say(f"finish.{dish.finish}")
    if where and dish.finish_minutes:
        where = say("finish.for-minutes", where=where, minutes=dish.finish_minutes)
    if dish.filled == "cold" and layout:
        through = max(5.0, 5.0 * round(through_minutes(layout.fill_mm) / 5.0))
        # In the oven all the while, the dish's own minutes are of the whole, not of its colour.
        own = dish.finish_minutes if dish.finish == "oven" else 0.0
        return say(
            "finish.from-the-fridge",
            minutes=through,
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
