"""The plate: sauce, food and plate mix to one temperature, food gives water or drinks it, and that is what
the guest gets."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from saucier import constants as K
from saucier.dish.document import Dish
from saucier.dish.needs import is_pasta
from saucier.heat import mixed_temperature_c
from saucier.kitchen import Kitchen
from saucier.larder import Larder
from saucier.pot import Pot

_BAKED = frozenset(["pasta-baked", "layers", "layer-top"])
"""Uses that say by themselves that the dish is baked."""


@dataclass(frozen=True, slots=True)
class AtTable:
    """A portion as it is eaten: its temperature, and the grams of water its food ``gives`` to its sauces
    and ``drinks`` of them."""

    at_c: float
    gives_g: float
    drinks_g: float

    def as_eaten(self, pot: Pot, sauces_g: float) -> Pot:
        """``pot`` as it is eaten in a portion with ``sauces_g`` of sauce in all: each sauce gets, and is drunk of, its
        share by weight. Food never drinks more than starch and protein let go of."""
        if sauces_g <= 0.0 or not pot.yield_g:
            return pot
        water = (self.gives_g - self.drinks_g) / sauces_g * pot.yield_g
        left = max((1.0 - K.FOOD_DRINKS_MOST) * pot.balance.water, pot.balance.water + water)
        return pot._replace(balance=pot.balance._replace(water=left))


def at_the_table(
    dish: Dish, uses: Iterable[str], sauces: Sequence[tuple[float, float]], kitchen: Kitchen
) -> AtTable:
    """A portion of ``dish`` with its ``sauces``, used as ``uses`` (keys) say: each J/K of a portion and
    the °C it is poured at."""
    heat = sum(one for one, _ in sauces)
    poured = sum(one * at for one, at in sauces) / heat if heat else dish.food_c
    baked = dish.finish == "oven" or dish.filled == "cold" or bool(_BAKED & set(uses))
    gives = drinks = 0.0
    for solid in dish.solids:
        row = kitchen.larder[solid.ingredient]
        if is_pasta(row):
            dry = solid.grams if solid.state == "dry" else solid.grams / row.drained_share
            drinks += (K.PASTA_DRINKS_BAKED if baked else K.PASTA_DRINKS_TOSSED) * dry
        elif baked:
            gives += K.DRAINED_STILL_GIVES * row.leak_share * solid.grams
    return AtTable(on_plate_c(dish, heat, poured, kitchen.larder), gives, drinks)


def on_plate_c(dish: Dish, sauce_j_per_k: float, sauce_c: float, larder: Larder) -> float:
    """°C at which a portion of ``dish`` is eaten: its sauces (``sauce_j_per_k`` J/K of a portion, at
    ``sauce_c``), its solids at ``food_c`` and its plate at ``plate_c`` mixed. Source: docs/model.md 6.

    Nothing is lost to the air: it errs on the warm side by what the walk to the table takes.

    >>> from saucier.dish import read_dish
    >>> from saucier.larder.larder import shipped_larder
    >>> dish = read_dish({'name': 'Leeks', 'solids': [{'ingredient': 'leek', 'grams': 150}]})
    >>> round(on_plate_c(dish, 220, 80, shipped_larder()))
    66
    """
    food = sum(larder[one.ingredient].heat_j_per_gk * one.grams for one in dish.solids)
    plate = K.HEAT_CAPACITY_PLATE * dish.plate_g
    warm = mixed_temperature_c(sauce_j_per_k, sauce_c, food, dish.food_c) if food else sauce_c
    return mixed_temperature_c(sauce_j_per_k + food, warm, plate, dish.plate_c) if plate else warm
