"""Viscosity of a balance at a temperature, with its validity and its uncertainty (model.md 3)."""

import math
from typing import NamedTuple

from saucier.constants import (
    DENSITY_FAT,
    DENSITY_WATER,
    EMULSION_CAUTION,
    EMULSION_OILY,
    EMULSION_SPLIT,
    FAT_CROWDING,
    FAT_CROWDING_LIMIT,
    FAT_EXPONENT,
    FLOUR_EXPONENT,
    FLOUR_FACTOR,
    MASS_UNCERTAINTY,
    MAX_FAT_VOLUME_SHARE,
    MAX_FLOUR_PER_100_WATER,
    MAX_PROTEIN_SHARE,
    PREDICTION_FACTOR,
    PROTEIN_EXPONENT,
    REFERENCE_C,
    SETS_BELOW_C,
    SOLIDS_EXPONENT,
    TEMPERATURE_EXPONENT_K,
    VISCOSITY_BASE,
    YOLK_AS_FLOUR,
)
from saucier.pot import Balance
from saucier.thickness.grades import grade_of


class Thickness(NamedTuple):
    """How thick a pot is at ``temperature_c``.

    ``viscosity_pa_s`` and ``grade`` are None with a ``reason`` in kitchen words where the
    formula does not hold; ``low`` and ``high`` (Pa·s) are the edges of its uncertainty.
    ``emulsion`` is None until the pot is a liquid.
    """

    viscosity_pa_s: float | None
    grade: str | None
    low_pa_s: float | None
    high_pa_s: float | None
    reason: str | None
    temperature_c: float
    fat_volume_share: float
    flour_per_100_water: float
    emulsion: str | None


def raw_viscosity_pa_s(balance: Balance, flour_given: float = 1.0, yolk_set: bool = True) -> float:
    """η at 65 °C in Pa·s by the formula alone, without looking whether it holds.

    ``flour_given`` is the share of the flour's thickening that has come out (0 to 1),
    ``yolk_set`` whether yolk has been past 75 °C. Infinite where there is no water.
    Source: model.md 3.
    """
    liquid = balance.water + balance.alcohol
    if liquid <= 0.0:
        return math.inf
    casein, solids = balance.thickening_protein, balance.solids
    return math.exp(
        _log_viscosity(
            liquid,
            liquid + solids + casein,
            SOLIDS_EXPONENT * solids + PROTEIN_EXPONENT * casein,
            _thickening(balance, flour_given, yolk_set),
            balance.fat / DENSITY_FAT / balance.volume_ml,
        )
    )


def _thickening(balance: Balance, flour_given: float, yolk_set: bool) -> float:
    """Grams of wheat flour in a white roux that would thicken as much."""
    yolk = YOLK_AS_FLOUR * balance.yolk_protein if yolk_set else 0.0
    return balance.thickener * flour_given + yolk


def _log_viscosity(
    liquid: float, aq: float, dissolved: float, thickening: float, phi: float
) -> float:
    """log η (η in Pa·s, at 65 °C) from water and alcohol ``liquid`` g, with what is dissolved in
    them ``aq`` g, their exponent ``dissolved``, the ``thickening`` g and the fat's share ``phi``."""
    f = min(FAT_CROWDING * phi, FAT_CROWDING_LIMIT)
    return (
        _LOG_BASE
        + dissolved / aq
        + FAT_EXPONENT * f / (1.0 - f)
        + math.log1p(FLOUR_FACTOR * (100.0 * thickening / liquid) ** FLOUR_EXPONENT)
    )


_LOG_BASE = math.log(VISCOSITY_BASE)
_LOG_FACTOR_SQUARED = math.log(PREDICTION_FACTOR) ** 2


def at_temperature(viscosity_pa_s: float, temperature_c: float) -> float:
    """η (Pa·s, known at 65 °C) at ``temperature_c``.

    >>> round(at_temperature(0.861, 85), 3)
    0.619
    """
    return viscosity_pa_s * math.exp(_log_by_temperature(temperature_c))


def _log_by_temperature(temperature_c: float) -> float:
    return TEMPERATURE_EXPONENT_K * (1.0 / (temperature_c + 273.0) - 1.0 / (REFERENCE_C + 273.0))


def assess(
    balance: Balance,
    *,
    wetted: bool = True,
    flour_given: float = 1.0,
    yolk_set: bool = True,
    temperature_c: float = REFERENCE_C,
    spread: float = 0.0,
) -> Thickness:
    """How thick ``balance`` is at ``temperature_c``, and within which limits.

    ``spread`` is what vague measures add to the uncertainty, as a standard share of the
    logarithm of η. Uncertainty is a factor 1.7 either way combined with ± 2 % of the pot's
    mass, each side by itself: near the end of a cream reduction the thick side runs away.
    """
    water, fat, _, casein, _, solids, _, alcohol, _, _, _, _ = balance
    volume, mass = balance.volume_ml, balance.mass_g
    fat_ml, liquid = fat / DENSITY_FAT, water + alcohol
    phi = fat_ml / volume if volume > 0.0 else 0.0
    thickening = _thickening(balance, flour_given, yolk_set)
    c = 100.0 * thickening / liquid if liquid > 0.0 else math.inf
    reason = _why_not(balance, mass, wetted, phi, c, temperature_c)
    emulsion = emulsion_state(phi) if wetted else None
    if reason is not None:
        shown_c = c if math.isfinite(c) else 0.0
        return Thickness(None, None, None, None, reason, temperature_c, phi, shown_c, emulsion)
    aq = liquid + solids + casein
    dissolved = SOLIDS_EXPONENT * solids + PROTEIN_EXPONENT * casein
    log_eta = _log_viscosity(liquid, aq, dissolved, thickening, phi)
    # The same pot with a little more water, and with a little less.
    slip = min(MASS_UNCERTAINTY * mass, 0.9 * water)
    slip_ml = slip / DENSITY_WATER
    wetter = log_eta - _log_viscosity(
        liquid + slip, aq + slip, dissolved, thickening, fat_ml / (volume + slip_ml)
    )
    drier = log_eta - _log_viscosity(
        liquid - slip, aq - slip, dissolved, thickening, fat_ml / (volume - slip_ml)
    )
    base = _LOG_FACTOR_SQUARED + spread * spread
    eta = math.exp(log_eta + _log_by_temperature(temperature_c))
    low = eta * math.exp(-math.sqrt(base + wetter * wetter))
    high = eta * math.exp(math.sqrt(base + drier * drier))
    return Thickness(eta, grade_of(eta), low, high, None, temperature_c, phi, c, emulsion)


def mass_at_fat_share(balance: Balance, fat_share: float) -> float:
    """Grams ``balance`` weighs once boiling has brought its fat to ``fat_share`` of the volume:
    where a reduction gets risky, told before it happens. Above its present mass when it is
    past that already.
    """
    volume = balance.fat / DENSITY_FAT / fat_share
    return balance.mass_g - (balance.volume_ml - volume) * DENSITY_WATER


EMULSION_EDGES = (EMULSION_CAUTION, EMULSION_OILY, EMULSION_SPLIT)
"""Fat shares of volume where a cream turns rich, oily, split."""


def emulsion_state(fat_share: float) -> str:
    """How near a reduced cream is to turning: ``stable``, ``caution``, ``oily`` or ``split``."""
    if fat_share >= EMULSION_SPLIT:
        return "split"
    if fat_share >= EMULSION_OILY:
        return "oily"
    if fat_share >= EMULSION_CAUTION:
        return "caution"
    return "stable"


def _why_not(
    balance: Balance, mass_g: float, wetted: bool, phi: float, c: float, temperature_c: float
) -> str | None:
    """Why no number can be given, in kitchen words; None where one can."""
    if mass_g <= 0.0:
        return "nothing in the pot yet"
    if not wetted:
        if balance.flour > 0.0:
            return "a roux: no liquid in it yet"
        return "only fat: nothing to thicken yet" if balance.fat > 0.0 else "no liquid in it yet"
    aq = balance.water + balance.alcohol + balance.solids + balance.thickening_protein
    if aq <= 0.0 or balance.water + balance.alcohol <= 0.0:
        return "boiled dry"
    if phi >= MAX_FAT_VOLUME_SHARE:
        return "split cream: too little water left to hold the fat"
    if c > MAX_FLOUR_PER_100_WATER:
        return "a dough: more flour than a sauce can carry"
    if balance.thickening_protein / aq > MAX_PROTEIN_SHARE:
        return "melted cheese: too little sauce around it"
    if temperature_c < SETS_BELOW_C and balance.flour > 0.0:
        return f"set: below {SETS_BELOW_C:.0f} °C a roux sauce stiffens beyond what can be told"
    return None
