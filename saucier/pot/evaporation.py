"""Boiling off: vapour takes water and alcohol, and never more than there is."""

import math

from saucier.constants import ALCOHOL_EXPONENT
from saucier.pot.balance import Balance


def alcohol_left(alcohol_g: float, water_share_left: float) -> float:
    """Grams of alcohol left when ``water_share_left`` of the water is.

    >>> round(alcohol_left(10.0, 0.9), 2)
    3.49
    """
    return alcohol_g * math.pow(water_share_left, ALCOHOL_EXPONENT)


def boil_off(balance: Balance, loss_g: float) -> Balance:
    """``balance`` less ``loss_g`` grams of vapour, shared between water and alcohol.

    ``loss_g`` must lie between 0 and the water and alcohol present; the caller says the
    floor to the cook. Solves loss = W₀ − W + A₀·(1 − (W/W₀)^10) for W by Newton's method
    kept inside its bracket. Source: docs/model.md 2.

    >>> left = boil_off(Balance(water=870, alcohol=100), 200)
    >>> round(left.water), round(left.alcohol, 1)
    (748, 22.1)
    """
    water, alcohol = balance.water, balance.alcohol
    if loss_g <= 0.0:
        return balance
    if alcohol <= 0.0:
        return balance.with_liquids(max(0.0, water - loss_g), 0.0)
    if loss_g >= water + alcohol:
        return balance.with_liquids(0.0, 0.0)
    low, high = 0.0, 1.0
    share = max(0.0, 1.0 - loss_g / (water + alcohol))
    for _ in range(60):
        left = alcohol_left(alcohol, share)
        excess = water * (1.0 - share) + alcohol - left - loss_g
        if excess > 0.0:
            low = share
        else:
            high = share
        if abs(excess) < 1e-10 * (water + alcohol):
            break
        slope = water + ALCOHOL_EXPONENT * left / share if share > 0.0 else water
        trial = share + excess / slope if slope > 0.0 else 0.5 * (low + high)
        share = trial if low < trial < high else 0.5 * (low + high)
    return balance.with_liquids(water * share, alcohol_left(alcohol, share))
