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
    FRIDGE_C,
    LEAST_LIQUID,
    MASS_UNCERTAINTY,
    MAX_FAT_VOLUME_SHARE,
    MAX_FLOUR_PER_100_WATER,
    MAX_PROTEIN_SHARE,
    MAX_VISCOSITY_PA_S,
    PREDICTION_FACTOR,
    REFERENCE_C,
    SETS_BELOW_C,
    SETS_ONCE_SWOLLEN,
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
        if self.why_not != "set":
            return say(f"why-not-{self.why_not}")
        times = math.exp(log_by_temperature(FRIDGE_C))
        return say(
            "why-not-set",
            times=times,
            low=times / PREDICTION_FACTOR,
            high=times * PREDICTION_FACTOR,
        )


REASONS = frozenset(
    [
        "empty",
        "roux",
        "only-fat",
        "no-liquid",
        "dry",
        "split",
        "fat-on-liquid",
        "fat-with-juice",
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
    paste = _cooked_out(pot)
    eta = math.exp(min(700.0, paste.log_eta())) if paste.liquid > 0.0 else math.inf
    return at_temperature(eta, temperature_c)


def _cooked_out(pot: Pot) -> Paste:
    return paste_of(pot.balance, pot.flour_given, pot.yolk_set, pot.boil_liquid_g)


def log_excess(pot: Pot, wanted_pa_s: float, serving_c: float) -> float:
    """log(η/wanted) of ``pot`` at ``serving_c`` °C: what every search for a thickness brings to
    nothing. Positive where it is too thick, infinite where it has no water.

    >>> paste = Pot(Balance(water=870, solids=90, fat=85, thickener=50), boiled_min=5)
    >>> round(log_excess(paste, raw_viscosity_of(paste, 60), 60), 9)
    0.0
    """
    paste = _cooked_out(pot)
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
        boil_liquid_g=pot.boil_liquid_g,
        sets=pot.balance.flour > 0.0 or pot.reduced,
    )


def thickness_now(
    pot: Pot,
    spread: float = 0.0,
    model_spread: float = MODEL_SPREAD,
    temperature_c: float | None = None,
) -> Thickness:
    """How thick ``pot`` is as it is: at its own temperature (or at ``temperature_c``), with so much of its starch as
    the heat it has had has swollen; ``spread`` and ``model_spread`` as in :func:`assess`.

    >>> from saucier.pot import Starch
    >>> cold = Pot(Balance(water=870, solids=90, fat=85, thickener=50, flour=50), 20.0, wetted=True)
    >>> cold = cold._replace(starch=(Starch(1.0, 20.0),))
    >>> thickness_now(cold).grade, thickness_of(cold, 65).grade
    ('liquid', 'light-coat')
    """
    return assess(
        pot.balance,
        wetted=pot.wetted,
        flour_given=pot.flour_given_now,
        yolk_set=pot.yolk_set,
        temperature_c=pot.temperature_c if temperature_c is None else temperature_c,
        spread=spread,
        model_spread=model_spread,
        split=pot.split,
        boil_liquid_g=pot.boil_liquid_g,
        sets=pot.reduced or (pot.balance.flour > 0.0 and pot.starch_swollen >= SETS_ONCE_SWOLLEN),
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
    boil_liquid_g: float = 0.0,
    sets: bool | None = None,
) -> Thickness:
    """How thick ``balance`` is at ``temperature_c``, and within which limits.

    ``spread`` is what vague measures add to the uncertainty, as a standard share of the
    logarithm of η; ``model_spread`` what the model itself does (a kitchen's log narrows it); ``split``
    says that it has split before, ``sets`` that it sets as it cools (None: with flour in it). Uncertainty is a factor 1.7 either way
    combined with ± 2 % of the pot's mass, each side by itself (near the end of a cream reduction
    the thick side runs away), with what purées differ, and with ``spread``.

    >>> assess(Balance(fat=50, thickener=50)).viscosity_pa_s is None
    True
    >>> assess(Balance(water=870, solids=90, fat=85, thickener=50)).grade
    'light-coat'
    """
    mass = balance.mass_g
    paste = paste_of(balance, flour_given, yolk_set, boil_liquid_g)
    phi = paste.fat_ml / paste.volume_ml if paste.volume_ml > 0.0 else 0.0
    c = 100.0 * paste.thickening / paste.liquid if paste.liquid > 0.0 else math.inf
    emulsion = None
    if wetted:
        emulsion = "split" if split else "stable"
        if phi >= EMULSION_CAUTION and not split and balance.creamy:
            emulsion = emulsion_state(phi)
    cold = temperature_c < SETS_BELOW_C and (balance.flour > 0.0 if sets is None else sets)
    why_not = _why_not(balance, mass, yolk_set, wetted, split, phi, c, cold)
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
    share = paste.starch_share()
    return FLOUR_EXPONENT * balance.doubt / paste.thickening * share if share else 0.0


def log_viscosity_of(pot: Pot, serving_c: float) -> tuple[float, float] | None:
    """log(η) of ``pot`` at ``serving_c`` °C, η in Pa·s, and how far its purées differ, a standard
    share of that; None where it has turned or has no number. As :func:`thickness_of` and nothing else.

    >>> paste = Pot(Balance(water=870, solids=90, fat=85, thickener=50), wetted=True, boiled_min=5)
    >>> log_eta, spread = log_viscosity_of(paste, 60)
    >>> round(math.exp(log_eta), 2), spread
    (0.33, 0.0)
    """
    balance, paste = pot.balance, _cooked_out(pot)
    phi = paste.fat_ml / paste.volume_ml if paste.volume_ml > 0.0 else 0.0
    if phi >= EMULSION_CAUTION and balance.creamy and emulsion_state(phi) in TURNED:
        return None
    c = 100.0 * paste.thickening / paste.liquid if paste.liquid > 0.0 else math.inf
    cold = serving_c < SETS_BELOW_C and (balance.flour > 0.0 or pot.reduced)
    why_not = _why_not(balance, balance.mass_g, pot.yolk_set, pot.wetted, pot.split, phi, c, cold)
    if why_not is not None:
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


def _bound(balance: Balance, yolk_set: bool) -> bool:
    """Whether something holds its fat and its little liquid together: flour or starch, heated yolk, a cream's own
    emulsion, or butter mounted into liquid that was there."""
    return balance.thickener > 0.0 or balance.creamy or (yolk_set and balance.yolk_protein > 0.0)


def _why_not(
    balance: Balance,
    mass_g: float,
    yolk_set: bool,
    wetted: bool,
    split: bool,
    phi: float,
    c: float,
    cold: bool,
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
    if liquid < LEAST_LIQUID * mass_g and balance.fat > liquid and not _bound(balance, yolk_set):
        return "fat-with-juice"
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
    if cold:
        return "set"
    return None
