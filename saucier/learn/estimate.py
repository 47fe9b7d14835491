"""What a kitchen's own records say of one thing: a normal prior on the logarithm, and what fits it.

Records of one thing in the order they were made. What is looked for is how it is *now*: it may have been
changed at one of them (another flour, another ring) and drifts a little; a record that fits none of its
neighbours (a pan that was not the one named, a weight with the pan in it) counts little.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from saucier import constants as K
from saucier.kitchen import Strength

_SCALES = ((0.7, 0.25), (1.0, 0.45), (1.5, 0.3))
"""How much wider records scatter than they should, and how likely that is beforehand."""
_DRIFTS = ((0.0, 0.2), (0.08, 0.35), (0.2, 0.45))
"""By what share of the spread between kitchens a thing wanders from one record to the next."""
_TAILS = 4.0
"""Degrees of freedom of Student's t, by which what lies far out is weighed."""
_NEIGHBOURS = 3
_EVERY_ONE = 16
_LEAST_TO_COMPARE = 4

Vector = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Observed:
    """One record: the logarithm of how much more it was than is usual, with one standard ``spread``."""

    log: float
    spread: float


@dataclass(frozen=True, slots=True)
class Estimate:
    """What ``n`` records come to: ``log`` with one standard ``spread``; ``scale``, how much wider records
    scatter than they should; ``odd``, those that fit no other, by their number; ``changed_at``, the first
    since something was changed (None: nothing was)."""

    log: float
    spread: float
    n: int
    scale: float = 1.0
    odd: tuple[int, ...] = ()
    changed_at: int | None = None

    @property
    def factor(self) -> float:
        return math.exp(self.log)

    def within(self, widths: float = K.NINE_IN_TEN) -> tuple[float, float]:
        """The edges of the factor, so many spreads either way (usual: nine times in ten).

        >>> low, high = Estimate(0.0, 0.1, 5).within()
        >>> round(low, 2), round(high, 2)
        (0.85, 1.18)
        """
        return (
            math.exp(self.log - widths * self.spread),
            math.exp(self.log + widths * self.spread),
        )


def estimate(records: Sequence[Observed], prior_spread: float) -> Estimate:
    """What ``records`` (oldest first; the newest :data:`~saucier.constants.LEARNED_FROM` count) say, shrunk
    towards 0 with ``prior_spread``.

    >>> few = estimate([Observed(0.3, 0.2)], 0.3)
    >>> many = estimate([Observed(0.3, 0.2)] * 20, 0.3)
    >>> 0.15 < few.log < 0.25 < many.log < 0.3, few.spread > 2 * many.spread
    (True, True)
    """
    count = len(records)
    newest = records[-K.LEARNED_FROM :]
    if not newest:
        return Estimate(0.0, prior_spread, 0)
    first, many = count - len(newest), len(newest)
    y = np.array([one.log for one in newest])
    spread = np.array([one.spread for one in newest])
    weight = _fits(y, spread)
    # Of many records every second will do for the one from which it may be otherwise.
    since_which = range(0, many, 1 if many <= _EVERY_ONE else 2)
    change = K.CHANGED_CHANCE / max(1, len(since_which) - 1)
    changes = {at: change if at else 1.0 - K.CHANGED_CHANCE for at in since_which}
    # Of every scale, every drift and every record from which it may be otherwise: how well that fits, and
    # what it is now.
    cases = []
    for scale, scale_chance in _SCALES:
        for drift, drift_chance in _DRIFTS:
            noise = (scale * spread) ** 2 / weight
            walk = (drift * prior_spread) ** 2
            for at, change_chance in changes.items():
                log, variance, fit = _segment(y[at:], noise[at:], walk, prior_spread)
                was = _segment(y[:at], noise[:at], walk, prior_spread)[2] if at else 0.0
                told = fit + was + math.log(scale_chance * drift_chance * change_chance)
                cases.append((log, variance, told, scale, at))
    logs, variances, fits, scales, since = np.array(cases, dtype=np.float64).T
    chance = np.exp(fits - fits.max())
    chance /= chance.sum()
    middle = float(chance @ logs)
    whole = float(chance @ (variances + (logs - middle) ** 2))
    by_change = np.bincount(since.astype(int), chance, many)
    at = int(by_change.argmax())
    odd = tuple(first + int(n) for n in np.flatnonzero(weight < K.ODD_BELOW))
    return Estimate(
        middle,
        math.sqrt(whole),
        count,
        float(chance @ scales),
        odd,
        first + at if at and by_change[0] < 0.5 else None,
    )


def learned_strength(of_flour: Estimate) -> Strength:
    """What a kitchen knows of a flour by ``of_flour``: batches that scatter wider than usual leave more
    open."""
    return Strength(of_flour.log, of_flour.spread, K.BATCH_SCATTER * of_flour.scale)


def _fits(y: Vector, spread: Vector) -> Vector:
    """How far each record is believed: less where it lies far from the middle of those beside it."""
    if len(y) < _LEAST_TO_COMPARE:
        return np.ones_like(y)
    far = np.empty_like(y)
    for n in range(len(y)):
        # As many before as after, or the nearest there are: a change leaves both sides something to fit.
        before = y[max(0, n - _NEIGHBOURS) : n]
        after = y[n + 1 : n + 1 + _NEIGHBOURS]
        sides = [np.median(side) for side in (before, after) if len(side) >= 2]
        sides.append(np.median(np.concatenate([before, after])))
        far[n] = min(abs(y[n] - side) for side in sides)
    return np.asarray((_TAILS + 1.0) / (_TAILS + (far / spread) ** 2)).clip(max=1.0)


def _segment(
    y: Vector, noise: Vector, walk: float, prior_spread: float
) -> tuple[float, float, float]:
    """Records of one stretch, the last of them now: what it is now, its variance, and the log of the
    chance of them all. It wanders by ``walk`` (a variance) from one record to the next."""
    age = np.arange(len(y))[::-1].astype(float)
    inverse = np.linalg.inv(np.diag(noise) + walk * np.minimum.outer(age, age))
    ones = inverse.sum(axis=0)
    precision = float(ones.sum()) + 1.0 / prior_spread**2
    pull = float(ones @ y)
    _, log_det = np.linalg.slogdet(inverse)
    fit = float(y @ inverse @ y) - pull * pull / precision
    told = 0.5 * (log_det - fit - math.log(precision * prior_spread**2))
    return pull / precision, 1.0 / precision, float(told)
