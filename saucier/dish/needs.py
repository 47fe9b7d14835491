"""How much sauce a dish asks for, with its arithmetic on show."""

import math
from dataclasses import dataclass

from saucier.check import DEFAULT_KITCHEN
from saucier.demand import PASTA_BASIS, SauceUse, use_named
from saucier.dish.document import Dish, DishSauce
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class SauceNeed:
    """``volume_ml`` of a ``sauce`` for a dish, of it ``kept_back_ml`` for the top or the pass and ``margin_ml`` beyond what
    is eaten; ``lines`` are the arithmetic. ``grade`` and ``salt_pct`` where the dish wants them otherwise than the sauce's sheet."""

    sauce: str
    use: SauceUse
    volume_ml: float
    kept_back_ml: float
    margin_ml: float
    grade: str | None
    lines: tuple[Sentence, ...]
    salt_pct: float | None = None


def needs_of(dish: Dish, portions: float, kitchen: Kitchen = DEFAULT_KITCHEN) -> list[SauceNeed]:
    """What ``portions`` of ``dish`` ask for, one need for each way a sauce is used.

    >>> from saucier.dish import read_dish
    >>> dish = read_dish({'name': 'Leeks', 'sauces': [{'sauce': '1', 'use': 'nap'}]})
    >>> [need.volume_ml for need in needs_of(dish, 10)]
    [577.5]
    """
    vessels = vessels_for(dish, portions)
    return [_need(dish, used, portions, vessels, kitchen) for used in dish.sauces]


def vessels_for(dish: Dish, portions: float) -> int:
    """How many of its vessels ``portions`` fill; 0 where it has none.

    >>> from saucier.dish import read_dish
    >>> tray = {'name': 'tray', 'shape': 'tray', 'diameter_cm': 50, 'width_cm': 30, 'depth_cm': 6}
    >>> dish = read_dish({'name': 'Bake', 'vessel': {**tray, 'portions': 16}})
    >>> vessels_for(dish, 40)
    3
    """
    if dish.vessel is None or portions <= 0.0:
        return 0
    return math.ceil(portions / dish.vessel.portions - 1e-9)


def is_pasta(row: Ingredient) -> bool:
    """Whether a row is pasta: what drinks water and sauce as pasta does."""
    return "pasta" in (*row.kin, *row.key.split("-"))


def _need(
    dish: Dish, used: DishSauce, portions: float, vessels: int, kitchen: Kitchen
) -> SauceNeed:
    use = use_named(used.use, kitchen)
    per = use.per_ml if used.per_ml is None else used.per_ml
    if use.basis == "vessel-cm2":
        assert dish.vessel is not None
        area = dish.vessel.area_cm2
        volume = vessels * area * used.layers * per
        line = say(
            "need-by-surface-in-layers" if used.layers > 1 else "need-by-surface",
            vessels=vessels,
            vessel=dish.vessel.name,
            area_cm2=area,
            layers=used.layers,
            mm=10 * per,
            ml=volume,
        )
    else:
        each, told = _each(dish, used, use, kitchen)
        volume = portions * each * per
        line = say("need-by-portion", portions=portions, each=told, per_ml=per, ml=volume)
    lines = [line]
    margin = volume * dish.margin_pct / 100.0
    if margin:
        lines.append(say("need-margin", margin_pct=dish.margin_pct, ml=margin))
    whole = volume + margin
    kept = whole * used.kept_back_pct / 100.0
    if kept:
        lines.append(say("need-kept-back", share_pct=used.kept_back_pct, ml=kept))
    return SauceNeed(
        sauce=used.sauce,
        use=use,
        volume_ml=whole,
        kept_back_ml=kept,
        margin_ml=margin,
        grade=used.grade,
        lines=tuple(lines),
        salt_pct=used.salt_pct,
    )


def _each(
    dish: Dish, used: DishSauce, use: SauceUse, kitchen: Kitchen
) -> tuple[float, Sentence | str]:
    """Units of the use in a portion, and how they are told."""
    if use.basis == "portion":
        each = used.each or 1.0
        return each, "" if each == 1.0 else say("each-times", each=each)
    if use.basis == "piece":
        each = used.each or 1.0
        return each, say("each-counted", each=each, unit=use.counted_in)
    if use.basis == "solids-g":
        each = used.each or dish.solids_g
        return each, say("each-drained", grams=each)
    if use.basis == PASTA_BASIS:
        larder = kitchen.larder
        pasta = [s for s in dish.solids if is_pasta(larder[s.ingredient])]
        # Pasta that was cooked and drained is reckoned back to what it was dry.
        own = sum(
            s.grams / (1.0 if s.state == "dry" else larder[s.ingredient].drained_share)
            for s in pasta
        )
    else:
        own = dish.solids_g
    each = (used.each or own or 100.0) / 100.0
    return each, say("each-weighed", grams=100 * each)
