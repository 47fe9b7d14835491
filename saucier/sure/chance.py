"""From variants to chances: how often a pot lands in each grade."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from saucier import constants as K
from saucier.check import Prepared, model_spread_of
from saucier.pot import Pot
from saucier.steps import Correct, Move, Reduce, StepBase
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


@dataclass(frozen=True, slots=True)
class Played:
    """Variants played: for each (None: it turned, or boiled dry) how far the logarithm of η is off
    what is meant, and what its purées differ by; ``base`` is what is meant (None: no number), ``over``
    what the spoon misses where it decided last, ``model`` the model's own doubt of it and ``unseen`` the
    share of that which is left,
    ``served`` what a plate hotter or cooler than planned does,
    ``reach`` how far off is brought right (None: nothing is held back)."""

    off: tuple[tuple[float, float] | None, ...]
    base: float | None
    over: float
    unseen: float
    reach: float | None
    model: float
    served: float


def played(prepared: Prepared, doubts: Sequence[Doubt], many: int = MANY) -> Played:
    """``many`` variants of ``prepared`` where each of ``doubts`` is off as far as such things are."""
    serving_c = prepared.sheet.target.serving_c
    looked = [doubt for doubt in doubts if doubt.kind == "look"]
    unseen = unseen_of(prepared)
    # What the spoon decided last is laid over each variant as the model's doubt is.
    over = looked[-1].spread if looked and unseen < 1.0 else 0.0
    doubts = [doubt for doubt in doubts if not over or doubt.key != looked[-1].key]
    # What is held back goes in at the end by as much as the pot is off: it is no part of a variant.
    plain = replace(prepared, moves=tuple(map(_but_correct, prepared.steps, prepared.moves)))
    variants = Variants(plain, doubts)
    middle = log_viscosity_of(variants.play([0.0] * len(doubts)), serving_c)
    meant = log_viscosity_of(prepared.play(), serving_c)
    found = []
    for pot in variants.plays(stratified(len(doubts), many)):
        there = None if pot is None or middle is None else log_viscosity_of(pot, serving_c)
        found.append((there[0] - middle[0], there[1]) if there and middle else None)
    return Played(
        off=tuple(found),
        base=meant[0] if meant else None,
        over=over,
        unseen=unseen,
        reach=_corrected_within(prepared, serving_c),
        model=model_spread_of(prepared),
        served=K.SERVED_OFF_C * K.TEMPERATURE_EXPONENT_K / (serving_c + K.KELVIN) ** 2,
    )


def _but_correct(step: StepBase, move: Move) -> Move:
    return (lambda pot, knobs: pot) if isinstance(step, Correct) else move


def chances_in(played: Played, model_spread: float | None = None) -> Chances:
    """Chances by variants ``played``: the doubt of the model itself (``model_spread``, a standard share
    of the logarithm of η; None: this kitchen's) is laid over each as a normal, so that it costs no plays.
    A `correct` step brings right what lies within what is held back, as far as the eye tells."""
    model = played.model if model_spread is None else model_spread
    tally: dict[str, float] = dict.fromkeys((LIQUID, *(g.key for g in GRADES), SPOILT), 0.0)
    for one in played.off:
        if one is None or played.base is None:
            tally[SPOILT] += 1.0
            continue
        off, body = one
        doubt = math.hypot(played.over, played.served, played.unseen * math.hypot(model, body))
        if played.reach is not None:
            _tally_corrected(tally, off, played.base, doubt, played.reach)
        else:
            _tally(tally, played.base + off, doubt, 1.0)
    return Chances({grade: count / len(played.off) for grade, count in tally.items()})


def chances_of(
    prepared: Prepared,
    doubts: Sequence[Doubt],
    many: int = MANY,
    model_spread: float | None = None,
) -> Chances:
    """Chances of ``prepared``, as :func:`played` and :func:`chances_in`."""
    return chances_in(played(prepared, doubts, many), model_spread)


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
