"""How much sauce a dish asks for, with its arithmetic on show."""

import math
from dataclasses import dataclass

from saucier.check import DEFAULT_KITCHEN
from saucier.demand import Use, use_named
from saucier.dish.document import Dish, DishSauce
from saucier.kitchen import Kitchen


@dataclass(frozen=True, slots=True)
class SauceNeed:
    """``volume_ml`` of a ``sauce`` for a dish, of it ``kept_back_ml`` for the top or the pass;
    ``lines`` are the arithmetic. ``grade`` and ``serving_c`` as the table has them."""

    sauce: str
    use: Use
    volume_ml: float
    kept_back_ml: float
    grade: str | None
    lines: tuple[str, ...]


def needs_of(dish: Dish, portions: float, kitchen: Kitchen = DEFAULT_KITCHEN) -> list[SauceNeed]:
    """What ``portions`` of ``dish`` ask for, one need for each way a sauce is used."""
    vessels = vessels_for(dish, portions)
    return [_need(dish, used, portions, vessels, kitchen) for used in dish.sauces]


def vessels_for(dish: Dish, portions: float) -> int:
    """How many of its vessels ``portions`` fill; 0 where it has none."""
    if dish.vessel is None or portions <= 0.0:
        return 0
    return math.ceil(portions / dish.vessel.portions - 1e-9)


def _need(
    dish: Dish, used: DishSauce, portions: float, vessels: int, kitchen: Kitchen
) -> SauceNeed:
    use = use_named(used.use, kitchen)
    per = use.per_ml if used.per_ml is None else used.per_ml
    if use.basis == "vessel-cm2":
        assert dish.vessel is not None
        area = dish.vessel.area_cm2
        layers = f" · {used.layers} layers" if used.layers > 1 else ""
        volume = vessels * area * used.layers * per
        line = (
            f"{vessels} × {dish.vessel.name} of {area:.0f} cm²{layers} · {10 * per:.3g} mm "
            f"= {volume:.0f} mL"
        )
    else:
        each, words = _each(dish, used, use)
        volume = portions * each * per
        line = f"{portions:g} portions{words} · {per:g} mL = {volume:.0f} mL"
    lines = [line]
    margin = volume * dish.margin_pct / 100.0
    if margin:
        lines.append(f"margin {dish.margin_pct:g} % = {margin:.0f} mL")
    whole = volume + margin
    kept = whole * used.kept_back_pct / 100.0
    if kept:
        lines.append(f"of it kept back {used.kept_back_pct:g} % = {kept:.0f} mL")
    return SauceNeed(used.sauce, use, whole, kept, used.grade, tuple(lines))


def _each(dish: Dish, used: DishSauce, use: Use) -> tuple[float, str]:
    """Units of the use in a portion, and the words for them."""
    if use.basis == "portion":
        each = used.each or 1.0
        return each, "" if each == 1.0 else f" · {each:g}"
    if use.basis == "piece":
        each = used.each or 1.0
        return each, f" · {each:g} {use.counted_in}"
    if use.basis == "solids-g":
        each = used.each or dish.solids_g
        return each, f" · {each:g} g drained"
    dry = sum(solid.grams for solid in dish.solids if solid.state == "dry") or dish.solids_g
    each = (used.each or dry or 100.0) / 100.0
    return each, f" · {100 * each:g} g"
