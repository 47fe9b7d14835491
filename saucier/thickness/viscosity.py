"""Viscosity of a balance at a temperature, with its validity and its uncertainty (model.md 3)."""

import math
from typing import NamedTuple

from saucier.constants import (
    COMPANION_FAT,
    CROWDED_FROM,
    CROWDED_MOST,
    CROWDED_OVER,
    CROWDING_EXPONENT,
    DENSITY_FAT,
    DENSITY_WATER,
    EMULSION_CAUTION,
    EMULSION_OILY,
    EMULSION_SPLIT,
    FAT_CROWDING,
    FLOUR_EXPONENT,
    FLOUR_FACTOR,
    MASS_UNCERTAINTY,
    MAX_FAT_VOLUME_SHARE,
    MAX_FLOUR_PER_100_WATER,
    MAX_PROTEIN_SHARE,
    MAX_VISCOSITY_PA_S,
    PREDICTION_FACTOR,
    PROTEIN_CROWDING_ML_PER_G,
    REFERENCE_C,
    SETS_BELOW_C,
    SOLIDS_EXPONENT,
    STARCH_CROWDING,
    STARCH_ROOM,
    TEMPERATURE_EXPONENT_K,
    VISCOSITY_BASE,
    YOLK_AS_FLOUR,
)
from saucier.pot import Balance, Pot, boil_off
from saucier.thickness.grades import grade_of
from saucier.words import Sentence, say


class Thickness(NamedTuple):
    """How thick a pot is at ``temperature_c``.

    ``viscosity_pa_s`` and ``grade`` are None where the formula does not hold, with ``why_not``, one
    of :data:`REASONS`; ``low`` and ``high`` (Pa·s) are the edges of its uncertainty. ``emulsion`` is
    None until the pot is a liquid.
    """

    viscosity_pa_s: float | None
    grade: str | None
    low_pa_s: float | None
    high_pa_s: float | None
    why_not: str | None
    temperature_c: float
    fat_volume_share: float
    flour_per_100_water: float
    emulsion: str | None

    @property
    def edges(self) -> float:
        """The factor from its low edge to its high one; 1 where there is no number."""
        return self.high_pa_s / self.low_pa_s if self.high_pa_s and self.low_pa_s else 1.0

    @property
    def reason(self) -> Sentence | None:
        """Why there is no number."""
        if self.why_not is None:
            return None
        return say(f"why-not-{self.why_not}", sets_below_c=SETS_BELOW_C)


REASONS = frozenset(
    [
        "empty",
        "roux",
        "only-fat",
        "no-liquid",
        "dry",
        "split",
        "fat-on-liquid",
        "dough",
        "mash",
        "melted-cheese",
        "companion",
        "set",
        "paste",
    ]
)
"""Why no number can be given, by code."""


def crowded(x: float) -> float:
    """The share of room f that a crowd x of droplets and swollen protein takes up: x itself up to
    0.60, above it less and less more, as droplets deform.

    >>> crowded(0.5), round(crowded(0.8), 3)
    (0.5, 0.721)
    """
    if x <= CROWDED_FROM:
        return x
    return CROWDED_MOST - (CROWDED_MOST - CROWDED_FROM) * math.exp(
        -(x - CROWDED_FROM) / CROWDED_OVER
    )


def _log_viscosity(
    liquid: float,
    solids: float,
    thickening: float,
    fat_ml: float,
    protein: float,
    volume: float,
) -> float:
    """log η (η in Pa·s, at 65 °C) from grams of ``liquid`` (water and alcohol, above zero), of
    ``solids`` dissolved in it, of what is ``thickening`` it as flour, of swollen ``protein``, and
    from the mL of fat and of the whole."""
    log_g, f = _crowd(fat_ml, protein, volume)
    base = _LOG_BASE + SOLIDS_EXPONENT * solids / (liquid + solids) + log_g
    if thickening <= 1e-12 * liquid:
        return base
    return base + math.log1p(math.exp(_log_starch(thickening / liquid, log_g, f) - log_g))


def _crowd(fat_ml: float, protein: float, volume: float) -> tuple[float, float]:
    """log G of the crowd of droplets and swollen protein, and the share f of room it takes up."""
    f = (FAT_CROWDING * fat_ml + PROTEIN_CROWDING_ML_PER_G * protein) / volume
    if f > CROWDED_FROM:
        f = crowded(f)
    return CROWDING_EXPONENT * f / (1.0 - f), f


def _log_starch(flour_share: float, log_g: float, f: float) -> float:
    """log of the starch S·G^0.72·(1 − f)^0.28 in a crowd f, from flour to a gram of liquid."""
    starch = _LOG_FLOUR + FLOUR_EXPONENT * math.log(100.0 * flour_share)
    return starch + STARCH_CROWDING * log_g + STARCH_ROOM * math.log1p(-f)


def _thickening(balance: Balance, flour_given: float, yolk_set: bool) -> float:
    """Grams of wheat flour in a white roux that would thicken as much."""
    yolk = YOLK_AS_FLOUR * balance.yolk_protein if yolk_set else 0.0
    return balance.thickener * flour_given + yolk + balance.body


def raw_viscosity_pa_s(balance: Balance, flour_given: float = 1.0, yolk_set: bool = True) -> float:
    """η at 65 °C in Pa·s by the formula alone, without looking whether it holds.

    ``flour_given`` is the share of the flour's thickening that has come out (0 to 1),
    ``yolk_set`` whether yolk has been past 75 °C. Infinite where there is no water.
    Source: model.md 3.
    """
    liquid = balance.water + balance.alcohol
    if liquid <= 0.0:
        return math.inf
    log_eta = _log_viscosity(
        liquid,
        balance.solids,
        _thickening(balance, flour_given, yolk_set),
        balance.fat / DENSITY_FAT,
        balance.thickening_protein,
        balance.volume_ml,
    )
    return math.exp(min(700.0, log_eta))


def raw_viscosity_of(pot: Pot, temperature_c: float = REFERENCE_C) -> float:
    """η of ``pot`` at ``temperature_c`` in Pa·s, as :func:`raw_viscosity_pa_s`."""
    return at_temperature(
        raw_viscosity_pa_s(pot.balance, pot.flour_given, pot.yolk_set), temperature_c
    )


_LOG_BASE = math.log(VISCOSITY_BASE)
_LOG_FLOUR = math.log(FLOUR_FACTOR)
_LOG_FACTOR_SQUARED = math.log(PREDICTION_FACTOR) ** 2


def at_temperature(viscosity_pa_s: float, temperature_c: float) -> float:
    """η (Pa·s, known at 65 °C) at ``temperature_c``.

    >>> round(at_temperature(0.861, 85), 3)
    0.619
    """
    return viscosity_pa_s * math.exp(_log_by_temperature(temperature_c))


def _log_by_temperature(temperature_c: float) -> float:
    return TEMPERATURE_EXPONENT_K * (1.0 / (temperature_c + 273.0) - 1.0 / (REFERENCE_C + 273.0))


def thickness_of(pot: Pot, serving_c: float, spread: float = 0.0) -> Thickness:
    """How thick ``pot`` will be at ``serving_c`` °C; ``spread`` as in :func:`assess`."""
    return assess(
        pot.balance,
        wetted=pot.wetted,
        flour_given=pot.flour_given,
        yolk_set=pot.yolk_set,
        temperature_c=serving_c,
        spread=spread,
        split=pot.split,
    )


def assess(
    balance: Balance,
    *,
    wetted: bool = True,
    flour_given: float = 1.0,
    yolk_set: bool = True,
    temperature_c: float = REFERENCE_C,
    spread: float = 0.0,
    split: bool = False,
) -> Thickness:
    """How thick ``balance`` is at ``temperature_c``, and within which limits.

    ``spread`` is what vague measures add to the uncertainty, as a standard share of the
    logarithm of η; ``split`` says that it has split before. Uncertainty is a factor 1.7 either way
    combined with ± 2 % of the pot's mass, each side by itself (near the end of a cream reduction
    the thick side runs away), with what purées differ, and with ``spread``.
    """
    mass, volume = balance.mass_g, balance.volume_ml
    water, fat_ml, solids = balance.water, balance.fat / DENSITY_FAT, balance.solids
    liquid, protein = water + balance.alcohol, balance.thickening_protein
    thickening = _thickening(balance, flour_given, yolk_set)
    phi = fat_ml / volume if volume > 0.0 else 0.0
    c = 100.0 * thickening / liquid if liquid > 0.0 else math.inf
    emulsion = None
    if wetted:
        emulsion = "split" if split else "stable"
        if phi >= EMULSION_CAUTION and not split and balance.creamy:
            emulsion = emulsion_state(phi)
    why_not = _why_not(balance, mass, wetted, split, phi, c, temperature_c)
    log_eta = 0.0
    if why_not is None:
        log_eta = _log_viscosity(liquid, solids, thickening, fat_ml, protein, volume)
        if log_eta > _LOG_MOST:
            why_not = "paste"
    if why_not is not None:
        shown_c = c if math.isfinite(c) else 0.0
        return Thickness(None, None, None, None, why_not, temperature_c, phi, shown_c, emulsion)
    # The same pot with a little more water, and with a little less.
    slip = min(MASS_UNCERTAINTY * mass, 0.9 * water)
    slip_ml = slip / DENSITY_WATER
    wetter = log_eta - _log_viscosity(
        liquid + slip, solids, thickening, fat_ml, protein, volume + slip_ml
    )
    drier = log_eta - _log_viscosity(
        liquid - slip, solids, thickening, fat_ml, protein, volume - slip_ml
    )
    base = _LOG_FACTOR_SQUARED + spread * spread
    if balance.doubt > 0.0:
        log_g, f = _crowd(fat_ml, protein, volume)
        starch = math.exp(_log_starch(thickening / liquid, log_g, f) - log_g)
        # η goes with the 3.7th power of what thickens, as far as that is what makes it thick.
        purees = FLOUR_EXPONENT * balance.doubt / thickening * starch / (1.0 + starch)
        base += purees * purees
    eta = math.exp(log_eta + _log_by_temperature(temperature_c))
    low = eta * math.exp(-math.sqrt(base + wetter * wetter))
    high = eta * math.exp(math.sqrt(base + drier * drier))
    return Thickness(eta, grade_of(eta), low, high, None, temperature_c, phi, c, emulsion)


_LOG_MOST = math.log(MAX_VISCOSITY_PA_S)


def mass_at_fat_share(balance: Balance, fat_share: float) -> float:
    """Grams ``balance`` weighs once boiling has brought its fat to ``fat_share`` of the volume:
    where a reduction gets risky, told before it happens. Above its present mass when it is
    past that already.
    """
    volume = balance.fat / DENSITY_FAT / fat_share
    loss = (balance.volume_ml - volume) * DENSITY_WATER
    if balance.alcohol > 0.0 and loss > 0.0:  # alcohol leaves more room than water behind
        for _ in range(6):
            off = boil_off(balance, loss).volume_ml - volume
            loss += off * DENSITY_WATER
    return balance.mass_g - loss


EMULSION_EDGES = (EMULSION_CAUTION, EMULSION_OILY, EMULSION_SPLIT)
"""Fat shares of volume where a cream turns rich, oily, split."""
TURNED = frozenset({"oily", "split"})
"""Emulsions no cook serves, and no solve passes through."""


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
    balance: Balance,
    mass_g: float,
    wetted: bool,
    split: bool,
    phi: float,
    c: float,
    temperature_c: float,
) -> str | None:
    """Why no number can be given, by code; None where one can."""
    if mass_g <= 0.0:
        return "empty"
    if not wetted:
        if balance.flour > 0.0:
            return "roux"
        return "only-fat" if balance.fat > 0.0 else "no-liquid"
    liquid = balance.water + balance.alcohol
    aq = liquid + balance.solids + balance.thickening_protein
    if liquid <= 0.0:
        return "dry"
    if split or (phi >= MAX_FAT_VOLUME_SHARE and balance.creamy):
        return "split"
    if phi >= MAX_FAT_VOLUME_SHARE:
        return "fat-on-liquid"
    if c > MAX_FLOUR_PER_100_WATER:
        if balance.flour > 0.0:
            return "dough"
        return "mash"
    if balance.thickening_protein / aq > MAX_PROTEIN_SHARE:
        return "melted-cheese"
    if (
        balance.yolk_protein > 0.0
        and balance.thickener <= 0.0
        and balance.butter / DENSITY_FAT >= COMPANION_FAT * balance.volume_ml
    ):
        return "companion"
    if temperature_c < SETS_BELOW_C and balance.flour > 0.0:
        return "set"
    return None
