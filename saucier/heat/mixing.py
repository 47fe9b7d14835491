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
