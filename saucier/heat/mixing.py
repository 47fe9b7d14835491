"""Heat balance when something goes into a pot."""

from saucier.constants import HEAT_CAPACITY
from saucier.pot import Balance, Pot

_WATER, _FAT = HEAT_CAPACITY["water"], HEAT_CAPACITY["fat"]
_ALCOHOL, _DRY = HEAT_CAPACITY["alcohol"], HEAT_CAPACITY["dry"]


def heat_capacity_j_per_k(balance: Balance) -> float:
    """J/K of everything in ``balance``, from its composition.

    >>> round(heat_capacity_j_per_k(Balance(water=1000)))
    4180
    >>> round(heat_capacity_j_per_k(Balance(water=870, fat=35, solids=90)))
    3851
    """
    water, fat, alcohol = balance.water, balance.fat, balance.alcohol
    dry = balance.mass_g - water - fat - alcohol
    return water * _WATER + fat * _FAT + alcohol * _ALCOHOL + dry * _DRY


def mixed_temperature_c(
    here_j_per_k: float, here_c: float, there_j_per_k: float, there_c: float
) -> float:
    """°C of two things stirred together, from the heat each holds per degree; none is lost.

    >>> mixed_temperature_c(100, 20, 100, 80)
    50.0
    """
    both = here_j_per_k + there_j_per_k
    if both <= 0.0:
        return there_c
    return (here_j_per_k * here_c + there_j_per_k * there_c) / both


def pot_heat_j_per_k(pot: Pot) -> float:
    """J/K of sauce and pieces together.

    >>> pot_heat_j_per_k(Pot(Balance(water=100)))
    418.0
    """
    heat = heat_capacity_j_per_k(pot.balance)
    for piece in pot.pieces:
        heat += heat_capacity_j_per_k(piece.content)
    return heat
