"""From variants to chances: how often a pot lands in each grade."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from saucier import constants as K
from saucier.check import Prepared
from saucier.pot import Pot
from saucier.steps import Correct, Reduce
from saucier.sure.doubts import Doubt
from saucier.sure.variants import Variants, stratified
from saucier.thickness import GRADES, LIQUID, log_viscosity_of, thickness_of

MANY = 120
"""Variants played: what they leave open, a percent of the chance, nobody reads."""
_NODES = 15
SPOILT = "turned"
"""Instead of a grade: boiled dry, oily or split; or of no grade at all."""


@dataclass(frozen=True, slots=True)
class Chances:
    """The chance of each grade (by its key, ``liquid`` and ``turned`` included; together 1)."""

    by_grade: dict[str, float]

    def of(self, grade: str | None) -> float:
        return self.by_grade.get(grade or "", 0.0)


def chances_of(
    prepared: Prepared,
    doubts: Sequence[Doubt],
    many: int = MANY,
    model_spread: float | None = None,
) -> Chances:
    """Chances of ``prepared`` where each of ``doubts`` is off as far as such things are.

    Each variant is played; the doubt of the model itself (``model_spread``, a standard share of the
    logarithm of η; None: the usual) is laid over each as a normal, so that it costs no
    plays. A `correct` step brings right what lies within what is held back, as far as the eye tells.
    """
    serving_c = prepared.sheet.target.serving_c
    looked = [doubt for doubt in doubts if doubt.kind == "look"]
    unseen = unseen_of(prepared)
    # What the spoon decided last is laid over each variant as the model's doubt is.
    over = looked[-1].spread if looked and unseen < 1.0 else 0.0
    doubts = [doubt for doubt in doubts if not over or doubt.key != looked[-1].key]
    variants = Variants(prepared, doubts)
    draws = stratified(len(doubts), many)
    base = log_viscosity_of(variants.play([0.0] * len(doubts)), serving_c)
    model = MODEL_SPREAD if model_spread is None else model_spread
    reach = _corrected_within(prepared, serving_c)
    tally: dict[str, float] = dict.fromkeys((LIQUID, *(g.key for g in GRADES), SPOILT), 0.0)
    for pot in variants.plays(draws):
        found = None if pot is None else log_viscosity_of(pot, serving_c)
        if found is None:
            tally[SPOILT] += 1.0
            continue
        log_eta = found[0]
        doubt = math.hypot(over, unseen * math.hypot(model, found[1]))
        if reach is not None and base is not None:
            _tally_corrected(tally, log_eta - base[0], base[0], doubt, reach)
        else:
            _tally(tally, log_eta, doubt, 1.0)
    return Chances({grade: count / len(draws) for grade, count in tally.items()})


MODEL_SPREAD = math.log(K.PREDICTION_FACTOR)
"""How far the model itself may be off, as a standard share of the logarithm of η."""


def unseen_of(prepared: Prepared) -> float:
    """The share of the doubt of model and purées that is left: all of it, less where a cook has
    looked at the spoon on the way, whatever the reasons it came out so."""
    looked = None
    for number, step in enumerate(prepared.steps):
        if isinstance(step, Reduce) and step.stop and step.stop.grade:
            looked = number
    if looked is None:
        return 1.0
    pots = list(prepared.walk())
    there, end = pots[looked].balance.mass_g, pots[-1].balance.mass_g
    after = abs(end - there) / max(there, 1e-9)
    return 0.0 if after <= K.STILL_THE_SAME else K.AFTER_THE_EYE


def _corrected_within(prepared: Prepared, serving_c: float) -> float | None:
    """How far off (logarithm of η) what is held back brings right; None where nothing is."""
    pot = Pot()
    for step, after in zip(prepared.steps, prepared.walk(), strict=True):
        if isinstance(step, Correct):
            found = thickness_of(pot, serving_c)
            if found.viscosity_pa_s and found.low_pa_s and found.high_pa_s:
                edge = found.low_pa_s if step.hold == "liquid" else found.high_pa_s
                return abs(math.log(found.viscosity_pa_s / edge))
        pot = after
    return None


_EDGES = tuple(math.log(grade.low) for grade in GRADES)


def _tally(tally: dict[str, float], log_eta: float, spread: float, weight: float) -> None:
    """Adds ``weight`` to the grades by how likely each is about ``log_eta``."""
    below = 0.0
    keys = (LIQUID, *(grade.key for grade in GRADES))
    for key, edge in zip(keys, (*_EDGES, math.inf), strict=True):
        under = 1.0 if edge == math.inf else _under(edge - log_eta, spread)
        tally[key] += weight * (under - below)
        below = under


def _under(distance: float, spread: float) -> float:
    """The share of a normal of ``spread`` that lies under ``distance``."""
    if spread <= 0.0:
        return 1.0 if distance > 0.0 else 0.0
    return 0.5 * math.erfc(-distance / spread / math.sqrt(2.0))


def _tally_corrected(
    tally: dict[str, float], off: float, base: float, spread: float, reach: float
) -> None:
    """As :func:`_tally` for a pot brought right by the spoon: what is ``off`` by more than ``reach``
    stays off by the rest, and the eye decides the end."""
    for node in NODES:
        whole = off + spread * node
        rest = math.copysign(max(0.0, abs(whole) - reach), whole)
        _tally(tally, base + rest, K.EYE_THICKNESS_SPREAD, 1.0 / len(NODES))


NODES = tuple(z for (z,) in sorted(stratified(1, _NODES)))
