"""Heat balance when something goes into a pot."""

from saucier.constants import HEAT_CAPACITY
from saucier.pot import Balance


def heat_capacity_j_per_k(balance: Balance) -> float:
    """J/K of everything in ``balance``, from its composition."""
    return (
        balance.water * HEAT_CAPACITY["water"]
        + balance.fat * HEAT_CAPACITY["fat"]
        + balance.alcohol * HEAT_CAPACITY["alcohol"]
        + balance.dry_g * HEAT_CAPACITY["dry"]
    )


def mixed_temperature_c(
    balance: Balance,
    temperature_c: float,
    addition_per_gram: Balance,
    addition_g: float,
    addition_c: float,
) -> float:
    """°C of ``balance`` with ``addition_g`` grams stirred in at ``addition_c``, no heat lost."""
    here = heat_capacity_j_per_k(balance)
    there = heat_capacity_j_per_k(addition_per_gram) * addition_g
    if here + there <= 0.0:
        return addition_c
    return (here * temperature_c + there * addition_c) / (here + there)
