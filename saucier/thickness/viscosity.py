"""Viscosity of a balance at a temperature, with its validity and its uncertainty (docs/model.md 3)."""

import math
from typing import NamedTuple

from saucier.constants import (
    COMPANION_FAT,
    DENSITY_FAT,
    DENSITY_WATER,
    EMULSION_CAUTION,
    EMULSION_OILY,
    EMULSION_SPLIT,
    FLOUR_EXPONENT,
    MASS_UNCERTAINTY,
    MAX_FAT_VOLUME_SHARE,
    MAX_FLOUR_PER_100_WATER,
    MAX_PROTEIN_SHARE,
    MAX_VISCOSITY_PA_S,
    PREDICTION_FACTOR,
    REFERENCE_C,
    SETS_BELOW_C,
)
from saucier.pot import Balance, Pot, boil_off
from saucier.thickness.formula import Paste, at_temperature, log_by_temperature, paste_of
from saucier.thickness.grades import grade_of
from saucier.words import Sentence, say

MODEL_SPREAD = math.log(PREDICTION_FACTOR)
"""How far the model itself may be off, as a standard share of the logarithm of η."""


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


def raw_viscosity_pa_s(balance: Balance, flour_given: float = 1.0, yolk_set: bool = True) -> float:
    """η at 65 °C in Pa·s by the formula alone, without looking whether it holds; infinite where
    there is no water. Arguments as :func:`paste_of`.

    >>> round(raw_viscosity_pa_s(Balance(water=870, solids=90, fat=85, thickener=50)), 2)
    0.3
    """
    paste = paste_of(balance, flour_given, yolk_set)
    return math.exp(min(700.0, paste.log_eta())) if paste.liquid > 0.0 else math.inf


def raw_viscosity_of(pot: Pot, temperature_c: float = REFERENCE_C) -> float:
    """η of ``pot`` at ``temperature_c`` in Pa·s, as :func:`raw_viscosity_pa_s`.

    >>> paste = Pot(Balance(water=870, solids=90, fat=85, thickener=50), boiled_min=5)
    >>> round(raw_viscosity_of(paste), 2), round(raw_viscosity_of(paste, 85), 2)
    (0.3, 0.21)
    """
    return at_temperature(
        raw_viscosity_pa_s(pot.balance, pot.flour_given, pot.yolk_set), temperature_c
    )


def log_excess(pot: Pot, wanted_pa_s: float, serving_c: float) -> float:
    """log(η/wanted) of ``pot`` at ``serving_c`` °C: what every search for a thickness brings to
    nothing. Positive where it is too thick, infinite where it has no water.

    >>> paste = Pot(Balance(water=870, solids=90, fat=85, thickener=50), boiled_min=5)
    >>> round(log_excess(paste, raw_viscosity_of(paste, 60), 60), 9)
    0.0
    """
    paste = paste_of(pot.balance, pot.flour_given, pot.yolk_set)
    if paste.liquid <= 0.0:
        return math.inf
    return paste.log_eta() + log_by_temperature(serving_c) - math.log(wanted_pa_s)


def thickness_of(
    pot: Pot, serving_c: float, spread: float = 0.0, model_spread: float = MODEL_SPREAD
) -> Thickness:
    """How thick ``pot`` will be at ``serving_c`` °C; ``spread`` and ``model_spread`` as in :func:`assess`.

    >>> paste = Pot(Balance(water=870, solids=90, fat=85, thickener=50), wetted=True, boiled_min=5)
    >>> found = thickness_of(paste, 60)
    >>> found.grade, round(found.viscosity_pa_s, 2)
    ('light-coat', 0.33)
    """
    return assess(
        pot.balance,
        wetted=pot.wetted,
        flour_given=pot.flour_given,
        yolk_set=pot.yolk_set,
        temperature_c=serving_c,
        spread=spread,
        model_spread=model_spread,
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
    model_spread: float = MODEL_SPREAD,
    split: bool = False,
) -> Thickness:
    """How thick ``balance`` is at ``temperature_c``, and within which limits.

    ``spread`` is what vague measures add to the uncertainty, as a standard share of the
    logarithm of η; ``model_spread`` what the model itself does (a kitchen's log narrows it); ``split``
    says that it has split before. Uncertainty is a factor 1.7 either way
    combined with ± 2 % of the pot's mass, each side by itself (near the end of a cream reduction
    the thick side runs away), with what purées differ, and with ``spread``.

    >>> assess(Balance(fat=50, thickener=50)).viscosity_pa_s is None
    True
    >>> assess(Balance(water=870, solids=90, fat=85, thickener=50)).grade
    'light-coat'
    """
    mass, paste = balance.mass_g, paste_of(balance, flour_given, yolk_set)
    phi = paste.fat_ml / paste.volume_ml if paste.volume_ml > 0.0 else 0.0
    c = 100.0 * paste.thickening / paste.liquid if paste.liquid > 0.0 else math.inf
    emulsion = None
    if wetted:
        emulsion = "split" if split else "stable"
        if phi >= EMULSION_CAUTION and not split and balance.creamy:
            emulsion = emulsion_state(phi)
    why_not = _why_not(balance, mass, wetted, split, phi, c, temperature_c)
    log_eta = 0.0
    if why_not is None:
        log_eta = paste.log_eta()
        if log_eta > _LOG_MOST:
            why_not = "paste"
    if why_not is not None:
        shown_c = c if math.isfinite(c) else 0.0
        return Thickness(None, None, None, None, why_not, temperature_c, phi, shown_c, emulsion)
    # The same pot with a little more water, and with a little less.
    slip = min(MASS_UNCERTAINTY * mass, 0.9 * balance.water)
    wetter = log_eta - paste.with_water(slip).log_eta()
    drier = log_eta - paste.with_water(-slip).log_eta()
    base = model_spread * model_spread + spread * spread
    if balance.doubt > 0.0:
        base += _body_spread(balance, paste) ** 2
    eta = math.exp(log_eta + log_by_temperature(temperature_c))
    low = eta * math.exp(-math.sqrt(base + wetter * wetter))
    high = eta * math.exp(math.sqrt(base + drier * drier))
    return Thickness(eta, grade_of(eta), low, high, None, temperature_c, phi, c, emulsion)


def _body_spread(balance: Balance, paste: Paste) -> float:
    """What purées and gels differ by, as a standard share of the logarithm of η, which goes with the
    3.7th power of what thickens, as far as that is what makes it thick."""
    return FLOUR_EXPONENT * balance.doubt / paste.thickening * paste.starch_share()


def log_viscosity_of(pot: Pot, serving_c: float) -> tuple[float, float] | None:
    """log(η) of ``pot`` at ``serving_c`` °C, η in Pa·s, and how far its purées differ, a standard
    share of that; None where it has turned or has no number. As :func:`thickness_of` and nothing else.

    >>> paste = Pot(Balance(water=870, solids=90, fat=85, thickener=50), wetted=True, boiled_min=5)
    >>> log_eta, spread = log_viscosity_of(paste, 60)
    >>> round(math.exp(log_eta), 2), spread
    (0.33, 0.0)
    """
    balance = pot.balance
    paste = paste_of(balance, pot.flour_given, pot.yolk_set)
    phi = paste.fat_ml / paste.volume_ml if paste.volume_ml > 0.0 else 0.0
    if phi >= EMULSION_CAUTION and balance.creamy and emulsion_state(phi) in TURNED:
        return None
    c = 100.0 * paste.thickening / paste.liquid if paste.liquid > 0.0 else math.inf
    if _why_not(balance, balance.mass_g, pot.wetted, pot.split, phi, c, serving_c) is not None:
        return None
    log_eta = paste.log_eta()
    if log_eta > _LOG_MOST:
        return None
    spread = _body_spread(balance, paste) if balance.doubt > 0.0 else 0.0
    return log_eta + log_by_temperature(serving_c), spread


_LOG_MOST = math.log(MAX_VISCOSITY_PA_S)


def mass_at_fat_share(balance: Balance, fat_share: float) -> float:
    """Grams ``balance`` weighs once boiling has brought its fat to ``fat_share`` of the volume:
    where a reduction gets risky, told before it happens. Above its present mass when it is
    past that already.

    >>> cream = Balance(water=590, solids=60, fat=350)
    >>> round(mass_at_fat_share(cream, 0.6)), round(cream.mass_g)
    (625, 1000)
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
    """How near a reduced cream is to turning: ``stable``, ``caution``, ``oily`` or ``split``.

    >>> [emulsion_state(share) for share in (0.5, 0.72, 0.79, 0.85)]
    ['stable', 'caution', 'oily', 'split']
    """
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
