"""What a kitchen's own records say of one thing: a prior on the logarithm, and what fits it.

What is looked for is how it is *now*. It may have been changed once (another flour, another ring), and it
drifts a little day by day whether it is used or not; a record may be of something else altogether (a pan
that was not the one named, a weight with the pan in it). All of that is followed on a fine grid of what it
may be: forwards for what it is now, backwards for which records fit no other and where it was changed.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from itertools import pairwise

import numpy as np
from numpy.typing import NDArray

from saucier import constants as K
from saucier.kitchen import Strength

_SCALES = ((0.7, 0.25), (1.0, 0.45), (1.5, 0.3))
"""How much wider records scatter than they should, and how likely that is beforehand."""
_DRIFTS = ((0.0, 0.25), (0.07, 0.35), (0.2, 0.4))
"""By what share of the spread between kitchens a thing wanders in a day."""
_STRAY = ((0.04, 0.6), (0.2, 0.4))
"""How many of a kitchen's records are of something else, and how likely so many are."""
_STRAY_SPREAD = 1.5
"""How widely those lie, of the spread between kitchens."""

Vector = NDArray[np.float64]
_GRID: Vector = np.linspace(-5.0, 5.0, 201)
"""What it may be, of the spread between kitchens."""
_PRIOR: Vector = np.exp(-0.5 * _GRID**2) / np.exp(-0.5 * _GRID**2).sum()


@dataclass(frozen=True, slots=True)
class Observed:
    """One record: the logarithm of how much more it was than is usual, with one standard ``spread``, and
    the ``day`` it is of (counted from any)."""

    log: float
    spread: float
    day: int = 0


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


def estimate(
    records: Sequence[Observed], prior_spread: float, today: int | None = None
) -> Estimate:
    """What ``records`` (oldest first; the newest :data:`~saucier.constants.LEARNED_FROM` count) say of
    ``today`` (usual: the day of the last), shrunk towards 0 with ``prior_spread``.

    >>> few = estimate([Observed(0.3, 0.2)], 0.3)
    >>> many = estimate([Observed(0.3, 0.2)] * 20, 0.3)
    >>> 0.15 < few.log < 0.25 < many.log < 0.3, few.spread > 2 * many.spread
    (True, True)
    >>> later = estimate([Observed(0.3, 0.2)] * 20, 0.3, today=90)
    >>> later.spread > 2 * many.spread
    True
    """
    newest = records[-K.LEARNED_FROM :]
    if not newest:
        return Estimate(0.0, prior_spread, 0)
    first, many = len(records) - len(newest), len(newest)
    days = [one.day for one in newest]
    days.append(days[-1] if today is None else today)
    apart = [max(0, after - before) for before, after in pairwise(days)]
    change = K.CHANGED_CHANCE / max(1, many - 1)
    fits, strays = _fits(newest, prior_spread)
    told = fits + strays

    # Of every case (drift, scale, share of strays): forwards, what it may be before each record.
    now = np.broadcast_to(_PRIOR, told.shape[1:]).copy()
    ahead, log_fit = [], np.zeros(told.shape[1:-1])
    for n in range(many):
        ahead.append(now)
        now = now * told[n]
        share = now.sum(axis=-1, keepdims=True)
        log_fit += np.log(share[..., 0])
        now = _wandered(now / share, apart[n])
        if n < many - 1:
            now = (1.0 - change) * now + change * _PRIOR
    chance = np.exp(log_fit - log_fit.max()) * _CHANCES
    chance /= chance.sum()
    density = np.einsum("dse,dseg->g", chance, now)
    middle = float(density @ _GRID)
    spread = math.sqrt(float(density @ (_GRID - middle) ** 2))

    # Backwards, what those after it say: whether each record strays, whether it was changed just before.
    stray, changed = np.zeros(many), np.zeros(many)
    later = np.ones_like(now)
    for n in reversed(range(many)):
        here = ahead[n] * later
        both = (here * told[n]).sum(axis=-1)
        stray[n] = (chance * (here * strays[n]).sum(axis=-1) / both).sum()
        later = later * told[n]
        if n:
            anew = (later * _PRIOR).sum(axis=-1)
            changed[n] = (chance * change * anew / (ahead[n] * later).sum(axis=-1)).sum()
            later = (1.0 - change) * _wandered(later, apart[n - 1], back=True) + (
                change * anew[..., None]
            )
            later /= later.max(axis=-1, keepdims=True)
    at = int(changed.argmax())
    scales = chance.sum(axis=(0, 2)) @ np.array([scale for scale, _ in _SCALES])
    return Estimate(
        middle * prior_spread,
        spread * prior_spread,
        len(records),
        float(scales),
        tuple(first + int(n) for n in np.flatnonzero(stray > K.ODD_ABOVE)),
        first + at if changed.sum() > 0.5 else None,
    )


def learned_strength(of_flour: Estimate) -> Strength:
    """What a kitchen knows of a flour by ``of_flour``: batches that scatter wider than usual leave more
    open."""
    return Strength(of_flour.log, of_flour.spread, K.BATCH_SCATTER * of_flour.scale)


_CHANCES: Vector = np.einsum(
    "d,s,e->dse", *(np.array([chance for _, chance in of]) for of in (_DRIFTS, _SCALES, _STRAY))
)


def _fits(records: Sequence[Observed], prior_spread: float) -> tuple[Vector, Vector]:
    """How likely each record is, for every case and every point of the grid (record, 1, scale, strays,
    grid): as one of this thing, and as one of something else."""
    logs, spreads = np.array([(one.log, one.spread) for one in records]).T / prior_spread
    y, spread = (each[:, None, None, None, None] for each in (logs, spreads))
    scale = np.array([scale for scale, _ in _SCALES])[:, None, None]
    share = np.array([share for share, _ in _STRAY])[:, None]
    of_it = (1.0 - share) * _normal(y - _GRID, scale * spread)
    of_else = share * _normal(y, np.hypot(_STRAY_SPREAD, spread))
    shape = (len(records), len(_DRIFTS), len(_SCALES), len(_STRAY), len(_GRID))
    return np.broadcast_to(of_it, shape), np.broadcast_to(of_else, shape)


def _normal(off: Vector, spread: Vector) -> Vector:
    density: Vector = np.exp(-0.5 * (off / spread) ** 2) / spread
    return density


def _wandered(density: Vector, days: int, back: bool = False) -> Vector:
    """``density`` by drift, so many days on (``back``: what is said then, as said of today)."""
    if not days:
        return density
    out = np.empty_like(density)
    for n, (drift, _) in enumerate(_DRIFTS):
        steps = _steps(drift, days)
        out[n] = density[n] @ (steps.T if back else steps)
    return out


@lru_cache(maxsize=512)
def _steps(drift: float, days: int) -> Vector:
    """From which point of the grid to which in so many ``days``: it wanders, and is drawn back to the
    usual so that it strays from it no further than kitchens do."""
    kept = math.exp(-0.5 * drift**2 * days)
    if kept == 1.0:
        return np.eye(len(_GRID))
    spread = math.sqrt(1.0 - kept**2)
    steps: Vector = np.exp(-0.5 * ((_GRID[None, :] - kept * _GRID[:, None]) / spread) ** 2)
    steps /= steps.sum(axis=1, keepdims=True)
    return steps
