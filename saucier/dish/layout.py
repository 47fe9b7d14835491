"""How vessels are filled: how many, how deep, what goes over them, by weight each."""

from dataclasses import dataclass

from saucier import constants as K
from saucier.dish.document import Dish
from saucier.dish.needs import SauceNeed, vessels_for
from saucier.errors import BadInput
from saucier.larder import Larder
from saucier.words import Sentence, say

__all__ = ["Layout", "layout_of", "vessels_for"]


@dataclass(frozen=True, slots=True)
class Layout:
    """``vessels`` filled alike: each takes ``solids_g``, ``sauce_ml`` and weighs ``each_g`` filled
    (sauce at 1.03 g/mL); the filling stands ``fill_mm`` high, ``fill_share`` of the depth.
    ``toppings`` are grams for each vessel by ingredient. ``layers`` tells what is built up in
    which thickness; ``warning`` where it does not fit."""

    vessels: int
    name: str
    solids_g: float
    sauce_ml: float
    each_g: float
    fill_mm: float
    fill_share: float
    toppings: dict[str, float]
    layers: tuple[Sentence, ...]
    warning: Sentence | None


def layout_of(dish: Dish, portions: float, needs: list[SauceNeed], larder: Larder) -> Layout | None:
    """How ``portions`` of ``dish`` fill its vessels; None where it has none. Solids take room by
    their own density. Raises :class:`BadInput` (field ``solids[i].ingredient``)."""
    vessel = dish.vessel
    count = vessels_for(dish, portions)
    if vessel is None or count == 0:
        return None
    solids_ml = solids_g = 0.0
    for number, solid in enumerate(dish.solids):
        try:
            row = larder[solid.ingredient]
        except BadInput as bad:
            raise bad.under(f"solids[{number}]") from None
        grams = solid.grams * portions / count
        # Dry grain and pasta go in cooked: they have drunk by then.
        grams *= row.drained_share if solid.state == "dry" else 1.0
        solids_g += grams
        solids_ml += grams / max(row.density, 0.5)
    margin = 1.0 + dish.margin_pct / 100.0
    sauce_ml = sum(need.volume_ml for need in needs) / margin / count
    pan = vessel.as_pan()
    level = pan.level_mm(solids_ml + sauce_ml)
    share = level / (10.0 * vessel.depth_cm)
    toppings: dict[str, float] = {}
    for topping in dish.toppings:  # crumbs all around and crumbs on top are both crumbs
        grams = (
            topping.g_per_cm2 * vessel.area_cm2
            if topping.g_per_cm2 is not None
            else (topping.grams or 0.0) * portions / count
        )
        toppings[topping.ingredient] = toppings.get(topping.ingredient, 0.0) + grams
    layers = tuple(
        say("layer", of=need.use.name.lower(), thick=_thick(dish, number, need))
        for number, need in enumerate(needs)
        if need.use.basis == "vessel-cm2"
    )
    warning = None
    if share > 1.0:
        warning = say("vessel-overflows", ml=solids_ml + sauce_ml, holds_ml=pan.capacity_ml)
    elif share > K.VESSEL_FULLEST:
        warning = say("vessel-to-the-rim")
    elif share < K.VESSEL_SHALLOWEST:
        warning = say("vessel-too-wide", level_mm=level)
    each = solids_g + sauce_ml * K.SAUCE_G_PER_ML
    return Layout(
        vessels=count,
        name=vessel.name,
        solids_g=solids_g,
        sauce_ml=sauce_ml,
        each_g=each,
        fill_mm=level,
        fill_share=share,
        toppings=toppings,
        layers=layers,
        warning=warning,
    )


def _thick(dish: Dish, number: int, need: SauceNeed) -> Sentence:
    used = dish.sauces[number]
    per = need.use.per_ml if used.per_ml is None else used.per_ml
    return say("layers" if used.layers > 1 else "one-layer", layers=used.layers, mm=10 * per)
