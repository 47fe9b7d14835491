"""How a dish ends: grill, oven, torch or lid, straight from the pot or from the fridge."""

import math
from dataclasses import dataclass

from saucier import constants as K
from saucier.dish.document import Dish
from saucier.dish.layout import Layout
from saucier.errors import BadInput
from saucier.keeping import Rules
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


@dataclass(frozen=True, slots=True)
class HeatedThrough:
    """How a filled dish from the fridge comes to ``to_c`` in its middle: the ``minutes``, ``low`` to ``high``,
    whether even the longest is within the rule's ``limit_min``, and what to do."""

    minutes: float
    low: float
    high: float
    to_c: float
    limit_min: float
    ok: bool
    words: Sentence


def heated_through(
    depth_mm: float, oven_c: float, oven: str, covered: bool, rules: Rules
) -> HeatedThrough:
    """A dish filled ``depth_mm`` deep, from the fridge, in an oven at ``oven_c`` (``still`` or ``fan``) to the
    middle that ``rules`` want. Raises :class:`BadInput` by field.

    >>> from saucier.keeping import shipped_rules
    >>> found = heated_through(40, 180, "still", False, shipped_rules()["two-steps-57"])
    >>> round(found.minutes), found.ok
    (45, True)
    """
    if not 10.0 <= depth_mm <= 80.0:
        raise BadInput.at("depth_mm", "dish-is-not-so-deep", low=10.0, most=80.0)
    if not 100.0 <= oven_c <= 300.0 or oven not in ("still", "fan"):
        raise BadInput.at("oven_c", "oven-is-not-so-hot", low=100.0, most=300.0)
    # The last degrees come slowest: the middle nears the oven as an exponential.
    to_c = rules.reheat_c
    share = math.log((oven_c - K.FRIDGE_C) / (oven_c - to_c))
    share /= math.log((oven_c - K.FRIDGE_C) / (oven_c - K.FOOD_IN_OVEN_C))
    minutes = through_minutes(depth_mm, oven_c, oven) * share + rules.reheat_hold_minutes
    minutes *= K.COVERED_TAKES if covered else 1.0
    high = minutes * (1.0 + K.OVEN_SPREAD)
    ok = high <= rules.reheat_minutes
    code = "heated.through" if ok else "heated.too-slow"
    words = say(code, to_c=to_c, limit=rules.reheat_minutes, oven_c=oven_c)
    return HeatedThrough(
        minutes, minutes * (1.0 - K.OVEN_SPREAD), high, to_c, rules.reheat_minutes, ok, words
    )


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
