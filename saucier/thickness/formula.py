"""The viscosity formula: from what a sauce is made of to η (docs/model.md, Thickness)."""

import math
from typing import NamedTuple

from saucier.constants import (
    CROWDED_FROM,
    CROWDED_MOST,
    CROWDED_OVER,
    CROWDING_EXPONENT,
    DENSITY_FAT,
    DENSITY_WATER,
    FAT_CROWDING,
    FLOUR_EXPONENT,
    FLOUR_FACTOR,
    KELVIN,
    PROTEIN_CROWDING_ML_PER_G,
    REFERENCE_C,
    SOLIDS_EXPONENT,
    STARCH_CROWDING,
    STARCH_ROOM,
    TEMPERATURE_EXPONENT_K,
    VISCOSITY_BASE,
    YOLK_AS_FLOUR,
)
from saucier.pot import Balance

_LOG_BASE = math.log(VISCOSITY_BASE)
_LOG_FLOUR = math.log(FLOUR_FACTOR)


def crowded(x: float) -> float:
    """The share of room f [-] that a crowd x [-] of droplets and swollen protein takes up: x itself
    up to 0.60, above it less and less more, as droplets deform.

    >>> crowded(0.5), round(crowded(0.8), 3)
    (0.5, 0.721)
    """
    if x <= CROWDED_FROM:
        return x
    return CROWDED_MOST - (CROWDED_MOST - CROWDED_FROM) * math.exp(
        -(x - CROWDED_FROM) / CROWDED_OVER
    )


class Paste(NamedTuple):
    """What the formula goes by: grams of ``liquid`` (water and alcohol), of ``solids`` dissolved in
    it, of what is ``thickening`` it as wheat flour in a white roux would, of swollen ``protein``;
    mL of fat and of the whole."""

    liquid: float
    solids: float
    thickening: float
    protein: float
    fat_ml: float
    volume_ml: float

    def with_water(self, grams: float) -> "Paste":
        """The same with ``grams`` more water (less where it is negative)."""
        return Paste(
            self.liquid + grams,
            self.solids,
            self.thickening,
            self.protein,
            self.fat_ml,
            self.volume_ml + grams / DENSITY_WATER,
        )

    def log_eta(self) -> float:
        """log η, η in Pa·s at 65 °C; ``liquid`` must be above zero.

        η = 0.00047·exp(5·s)·(G + S·G^0.72·(1 − f)^0.28), s the share of solids in the liquid phase.
        """
        liquid, solids, thickening, _, _, _ = self
        log_g, f = self._crowd()
        base = _LOG_BASE + SOLIDS_EXPONENT * solids / (liquid + solids) + log_g
        if thickening <= 1e-12 * liquid:
            return base
        return base + math.log1p(math.exp(self._log_starch(log_g, f) - log_g))

    def starch_share(self) -> float:
        """How much of η is the starch's, 0 to 1: what a doubt about the thickener weighs."""
        if self.thickening <= 1e-12 * self.liquid:
            return 0.0
        log_g, f = self._crowd()
        starch = math.exp(self._log_starch(log_g, f) - log_g)
        return starch / (1.0 + starch)

    def _crowd(self) -> tuple[float, float]:
        """log G of the crowd of droplets and swollen protein, and the share f of room it takes."""
        f = (FAT_CROWDING * self.fat_ml + PROTEIN_CROWDING_ML_PER_G * self.protein) / self.volume_ml
        if f > CROWDED_FROM:
            f = crowded(f)
        return CROWDING_EXPONENT * f / (1.0 - f), f

    def _log_starch(self, log_g: float, f: float) -> float:
        """log of the starch S·G^0.72·(1 − f)^0.28 in a crowd f."""
        starch = _LOG_FLOUR + FLOUR_EXPONENT * math.log(100.0 * self.thickening / self.liquid)
        return starch + STARCH_CROWDING * log_g + STARCH_ROOM * math.log1p(-f)


def paste_of(
    balance: Balance,
    flour_given: float = 1.0,
    yolk_set: bool = True,
    boil_liquid_g: float = 0.0,
) -> Paste:
    """What the formula goes by in ``balance``. ``flour_given`` is the share of the flour's thickening
    that has come out (0 to 1), ``yolk_set`` whether yolk has been past 75 °C, ``boil_liquid_g`` the most water
    and alcohol it was boiled in (0: it was not), grams.

    >>> paste = paste_of(Balance(water=870, solids=90, fat=35, thickener=60))
    >>> paste.thickening, round(paste.fat_ml, 1)
    (60.0, 38.9)
    """
    yolk = YOLK_AS_FLOUR * balance.yolk_protein if yolk_set else 0.0
    liquid, body = balance.water + balance.alcohol, balance.body
    if balance.cultured and boil_liquid_g > liquid:
        body -= balance.cultured * (1.0 - liquid / boil_liquid_g)
    return Paste(
        liquid,
        balance.solids,
        balance.thickener * flour_given + yolk + body,
        balance.thickening_protein,
        balance.fat / DENSITY_FAT,
        balance.volume_ml,
    )


def at_temperature(viscosity_pa_s: float, temperature_c: float) -> float:
    """η [Pa·s], known at 65 °C, at ``temperature_c`` [°C]; 0 to 100 °C.

    >>> round(at_temperature(0.861, 85), 3)
    0.619
    """
    return viscosity_pa_s * math.exp(log_by_temperature(temperature_c))


def log_by_temperature(temperature_c: float) -> float:
    """log(η(T)/η(65 °C)).

    >>> round(log_by_temperature(65), 3), round(log_by_temperature(85), 3)
    (0.0, -0.331)
    """
    return TEMPERATURE_EXPONENT_K * (1.0 / (temperature_c + KELVIN) - 1.0 / (REFERENCE_C + KELVIN))
