"""Boiling off: vapour takes water and alcohol, and never more than there is."""

import math
from collections.abc import Sequence
from typing import NamedTuple

from saucier import constants as K
from saucier.pot.balance import Balance


class Spirit(NamedTuple):
    """Alcohol that went in together: its ``share`` of all there is in the pot (0 to 1), and its minutes since it met
    a simmer."""

    share: float
    simmered_min: float = 0.0

    def left_after(self, minutes: float) -> float:
        """Share of it left after ``minutes`` more at a simmer that boil nothing down.

        >>> [round(Spirit(1.0).left_after(minutes), 2) for minutes in (15, 30, 60)]
        [0.41, 0.33, 0.25]
        """
        return math.exp(_simmered(self.simmered_min) - _simmered(self.simmered_min + minutes))


Spirits = tuple[Spirit, ...]
UNSIMMERED: Spirits = (Spirit(1.0),)


def _simmered(minutes: float) -> float:
    """−log of the alcohol left after ``minutes`` at a simmer: published retention, 40 % at 15 min, 35 at 30,
    25 at 60."""
    quick = K.ALCOHOL_SOON * (1.0 - math.exp(-minutes / K.ALCOHOL_SOON_MIN))
    return quick + K.ALCOHOL_PER_MIN * minutes


def alcohol_left(
    alcohol_g: float,
    water_share_left: float,
    minutes: float = 0.0,
    spirits: Sequence[Spirit] = UNSIMMERED,
) -> float:
    """Grams of alcohol left when ``water_share_left`` of the water is, after ``minutes`` at a simmer: of each part
    the less of what boiling down and what simmering leaves.

    >>> round(alcohol_left(10.0, 0.9), 2), round(alcohol_left(10.0, 0.9, 30.0), 2)
    (6.22, 3.27)
    """
    by_boiling = math.pow(water_share_left, K.ALCOHOL_EXPONENT)
    if minutes <= 0.0:
        return alcohol_g * by_boiling
    return alcohol_g * sum(
        part.share * min(by_boiling, part.left_after(minutes)) for part in spirits
    )


def boil_off(
    balance: Balance, loss_g: float, minutes: float = 0.0, spirits: Sequence[Spirit] = UNSIMMERED
) -> Balance:
    """``balance`` less ``loss_g`` grams of vapour, shared between water and alcohol, of which ``minutes`` at a simmer
    take their part (:func:`alcohol_left`).

    ``loss_g`` must lie between 0 and the water and alcohol present; the caller says the
    floor to the cook. Solves loss = W₀ − W + A₀ − A(W/W₀) for W by Newton's method
    kept inside its bracket. Source: docs/model.md 2.

    >>> left = boil_off(Balance(water=870, alcohol=100), 200)
    >>> round(left.water), round(left.alcohol, 1)
    (726, 44.2)
    >>> round(boil_off(Balance(water=870, alcohol=100), 200, 30.0).alcohol, 1)
    32.7
    """
    water, alcohol = balance.water, balance.alcohol
    if loss_g <= 0.0:
        return balance
    if alcohol <= 0.0:
        return balance.with_liquids(max(0.0, water - loss_g), 0.0)
    if loss_g >= water + alcohol:
        return balance.with_liquids(0.0, 0.0)
    if alcohol - alcohol_left(alcohol, 1.0, minutes, spirits) >= loss_g:
        return balance.with_liquids(water, alcohol - loss_g)
    low, high = 0.0, 1.0
    share = max(0.0, 1.0 - loss_g / (water + alcohol))
    for _ in range(60):
        left = alcohol_left(alcohol, share, minutes, spirits)
        excess = water * (1.0 - share) + alcohol - left - loss_g
        if excess > 0.0:
            low = share
        else:
            high = share
        if abs(excess) < 1e-10 * (water + alcohol):
            break
        # Of what simmering takes beyond this the slope is smaller: the bracket sees to it.
        slope = water + K.ALCOHOL_EXPONENT * left / share if share > 0.0 else water
        trial = share + excess / slope if slope > 0.0 else 0.5 * (low + high)
        share = trial if low < trial < high else 0.5 * (low + high)
    return balance.with_liquids(water * share, alcohol_left(alcohol, share, minutes, spirits))


def simmered(spirits: Spirits, minutes: float, water_share_left: float) -> Spirits:
    """``spirits`` after ``minutes`` that boiled the water down to ``water_share_left``: what is left of each.

    >>> early, late = simmered((Spirit(0.5, 30.0), Spirit(0.5)), 10.0, 1.0)
    >>> early.simmered_min, round(early.share, 2), round(late.share, 2)
    (40.0, 0.65, 0.35)
    """
    by_boiling = math.pow(min(1.0, water_share_left), K.ALCOHOL_EXPONENT)
    left = [part.share * min(by_boiling, part.left_after(minutes)) for part in spirits]
    whole = sum(left)
    if whole <= 0.0:
        return ()
    return tuple(
        Spirit(grams / whole, part.simmered_min + minutes)
        for grams, part in zip(left, spirits, strict=True)
    )


def spirits_mixed(one: Spirits, alcohol_g: float, other: Spirits, other_g: float) -> Spirits:
    """The alcohol of two pots put together, ``alcohol_g`` and ``other_g`` grams of it.

    >>> [part.share for part in spirits_mixed((Spirit(1.0, 20.0),), 3.0, (Spirit(1.0),), 1.0)]
    [0.75, 0.25]
    """
    whole = alcohol_g + other_g
    if whole <= 0.0:
        return ()
    return tuple(
        part._replace(share=part.share * grams / whole)
        for spirits, grams in ((one, alcohol_g), (other, other_g))
        for part in (spirits or (UNSIMMERED if grams > 0.0 else ()))
    )
