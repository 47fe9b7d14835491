"""The plate: sauce, food and plate mix to one temperature, and that is what the guest gets."""

from saucier import constants as K
from saucier.dish.document import Dish
from saucier.heat import mixed_temperature_c
from saucier.larder import Larder


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
