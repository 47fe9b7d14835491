"""A pot as it was found rather than as it was planned: another weight, another strength."""

import math
from dataclasses import replace

from saucier import constants as K
from saucier.check import State
from saucier.pot import Pot, boil_off


def as_judged(state: State, judged_pa_s: float | None, weighed_g: float | None) -> State:
    """``state`` of a finished pot as a cook judged it, Pa·s at serving temperature, and as it weighed, g (None: nobody
    said): these win over what is reckoned. What it weighs less clings to pot and spoon or was tasted: it is less of the
    same. Its composition stays as it was cooked: how long it keeps does not hang on an eye."""
    pot = state.pot
    if weighed_g is not None and pot.total_g > 0.0:
        pot = pot.part(weighed_g / pot.total_g)
    return replace(state, pot=pot, judged_pa_s=judged_pa_s)


def as_found(pot: Pot, total_g: float | None = None, log_strength: float = 0.0) -> Pot:
    """``pot`` with ``total_g`` grams in it, less or more of its water than planned, and its thickening
    as strong as the spoon says: ``log_strength`` is by how much log η is off.

    >>> from saucier.pot import Balance
    >>> pot = Pot(Balance(water=800, solids=90, fat=40, thickener=50, flour=50), wetted=True)
    >>> round(as_found(pot, 900).total_g), round(as_found(pot, None, 0.37).balance.thickener, 1)
    (900, 55.3)
    """
    balance = pot.balance
    if log_strength:
        by = math.exp(log_strength / K.FLOUR_EXPONENT)
        balance = balance._replace(
            thickener=balance.thickener * by, body=balance.body * by, gel=balance.gel * by
        )
    if total_g is not None:
        gone = pot.total_g - total_g
        there = balance.water + balance.alcohol
        if gone > 0.0:
            balance = boil_off(balance, min(gone, (1.0 - K.DRY_LEFT) * there))
        else:
            balance = balance._replace(water=balance.water - gone)
    return pot._replace(balance=balance)
