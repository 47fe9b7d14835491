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
from saucier.pot import Balance, Pot
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


class _Phase(NamedTuple):
    """What the formula looks at, g and mL: the ``liquid`` (water and alcohol), ``solids`` dissolved
    in it, what thickens it, fat, swollen protein, and the room all of it takes."""

    liquid: float
    solids: float
    thickening: float
    fat_ml: float
    protein: float
    volume: float

    @property
    def flour_per_100_water(self) -> float:
        return 100.0 * self.thickening / self.liquid if self.liquid > 0.0 else math.inf

    def with_water(self, grams: float) -> "_Phase":
        """The same with ``grams`` more water."""
        return self._replace(liquid=self.liquid + grams, volume=self.volume + grams / DENSITY_WATER)

    def log_viscosity(self) -> float:
        """log η (η in Pa·s, at 65 °C). ``liquid`` must be above zero."""
        log_g, log_starch = self._crowding()
        return self._log_base() + log_g + math.log1p(math.exp(log_starch - log_g))

    def starch_share(self) -> float:
        """Share of η that comes from what thickens: how much its doubt matters."""
        log_g, log_starch = self._crowding()
        return 1.0 / (1.0 + math.exp(min(700.0, log_g - log_starch)))

    def _log_base(self) -> float:
        return _LOG_BASE + SOLIDS_EXPONENT * self.solids / (self.liquid + self.solids)

    def _crowding(self) -> tuple[float, float]:
        """log G of the crowd of droplets and swollen protein, and log of the starch in it."""
        x = (FAT_CROWDING * self.fat_ml + PROTEIN_CROWDING_ML_PER_G * self.protein) / self.volume
        f = crowded(x)
        log_g = CROWDING_EXPONENT * f / (1.0 - f)
        if self.thickening <= 1e-12 * self.liquid:
            return log_g, -math.inf
        starch = _LOG_FLOUR + FLOUR_EXPONENT * math.log(self.flour_per_100_water)
        return log_g, starch + STARCH_CROWDING * log_g + STARCH_ROOM * math.log1p(-f)


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


def _phase(balance: Balance, flour_given: float, yolk_set: bool) -> _Phase:
    yolk = YOLK_AS_FLOUR * balance.yolk_protein if yolk_set else 0.0
    return _Phase(
        balance.water + balance.alcohol,
        balance.solids,
        balance.thickener * flour_given + yolk + balance.body,
        balance.fat / DENSITY_FAT,
        balance.thickening_protein,
        balance.volume_ml,
    )


def raw_viscosity_pa_s(balance: Balance, flour_given: float = 1.0, yolk_set: bool = True) -> float:
    """η at 65 °C in Pa·s by the formula alone, without looking whether it holds.

    ``flour_given`` is the share of the flour's thickening that has come out (0 to 1),
    ``yolk_set`` whether yolk has been past 75 °C. Infinite where there is no water.
    Source: model.md 3.
    """
    phase = _phase(balance, flour_given, yolk_set)
    return math.exp(min(700.0, phase.log_viscosity())) if phase.liquid > 0.0 else math.inf


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
    phase = _phase(balance, flour_given, yolk_set)
    mass, water = balance.mass_g, balance.water
    phi = phase.fat_ml / phase.volume if phase.volume > 0.0 else 0.0
    c = phase.flour_per_100_water
    creamy = balance.creamy
    emulsion = None
    if wetted:
        emulsion = "split" if split else emulsion_state(phi) if creamy else "stable"
    reason = _why_not(balance, mass, wetted, split, phi, c, temperature_c)
    log_eta = phase.log_viscosity() if reason is None else 0.0
    if reason is None and log_eta > _LOG_MOST:
        reason = "a paste: thicker than can be told"
    if reason is not None:
        shown_c = c if math.isfinite(c) else 0.0
        return Thickness(None, None, None, None, reason, temperature_c, phi, shown_c, emulsion)
    # The same pot with a little more water, and with a little less.
    slip = min(MASS_UNCERTAINTY * mass, 0.9 * water)
    wetter = log_eta - phase.with_water(slip).log_viscosity()
    drier = log_eta - phase.with_water(-slip).log_viscosity()
    base = _LOG_FACTOR_SQUARED + spread * spread
    if balance.doubt > 0.0:
        purees = FLOUR_EXPONENT * balance.doubt / phase.thickening * phase.starch_share()
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
    return balance.mass_g - (balance.volume_ml - volume) * DENSITY_WATER


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
    """Why no number can be given, in kitchen words; None where one can."""
    if mass_g <= 0.0:
        return "nothing in the pot yet"
    if not wetted:
        if balance.flour > 0.0:
            return "a roux: no liquid in it yet"
        return "only fat: nothing to thicken yet" if balance.fat > 0.0 else "no liquid in it yet"
    liquid = balance.water + balance.alcohol
    aq = liquid + balance.solids + balance.thickening_protein
    if liquid <= 0.0:
        return "boiled dry"
    if split or (phi >= MAX_FAT_VOLUME_SHARE and balance.creamy):
        return "split: too little water left to hold the fat"
    if phi >= MAX_FAT_VOLUME_SHARE:
        return "only fat, with a little liquid under it"
    if c > MAX_FLOUR_PER_100_WATER:
        if balance.flour > 0.0:
            return "a dough: more flour than a sauce can carry"
        return "a mash: let it down before it can be called a sauce"
    if balance.thickening_protein / aq > MAX_PROTEIN_SHARE:
        return "melted cheese: too little sauce around it"
    if (
        balance.yolk_protein > 0.0
        and balance.thickener <= 0.0
        and balance.butter / DENSITY_FAT >= COMPANION_FAT * balance.volume_ml
    ):
        return "a warm yolk-and-butter emulsion: a companion, no grade of a sauce fits it"
    if temperature_c < SETS_BELOW_C and balance.flour > 0.0:
        return f"set: below {SETS_BELOW_C:.0f} °C a roux sauce stiffens beyond what can be told"
    return None
