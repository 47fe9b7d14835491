"""What is believed of a pot on the fire: how much is in it, how fast it boils off, how strong it is.

An extended Kalman filter over six figures. The model says how they go on by themselves; everything
that is seen, a scale as well as a look at the level, pulls them by as much as it can be trusted.
"""

import math
from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from saucier import constants as K
from saucier.watch.seen import Seen
from saucier.watch.way import Way

Vector = NDArray[np.float64]
MASS, PACE, STRENGTH, TARE, FULL, EYE = range(6)
_FIGURES = 6
_STEP_MIN = 0.5
_ITERATIONS = 8


@dataclass(frozen=True)
class Prior:
    """What is known before the step begins: ``mass_spread``, the standard share by which the pot weighs
    more or less than is reckoned; log of the pace and of the strength, with spreads; ``tare_g`` of the
    pan, as entered or as a scale has told (0: neither). Of a step that goes on after something went in to
    mend it: what it held when the step began, ``full_g`` (None: as now), and for how long it has boiled
    already, ``boiled_min``."""

    mass_spread: float = K.POURED_SPREAD
    pace: float = 0.0
    pace_spread: float = K.PACE_SPREAD
    strength: float = 0.0
    strength_spread: float = K.STRENGTH_SPREAD
    tare_g: float = 0.0
    full_g: float | None = None
    boiled_min: float = 0.0


class Belief:
    """Means and covariances of: grams in the pot, log of its pace against the model's, log η against the
    model's, grams the scale shows too much (the pan), grams in it when the step began, log by which the
    eye sees every level too high.

    ``jumps`` are the minutes where what is seen could not be believed with what was before: something
    went in or out, or the fire was turned.
    """

    def __init__(self, way: Way, prior: Prior) -> None:
        self.way, self.prior = way, prior
        now, full = way.full_g, way.full_g if prior.full_g is None else prior.full_g
        tare_spread = K.TARE_SPREAD_G if prior.tare_g else K.TARE_UNKNOWN_G
        self.mean: Vector = np.array([now, prior.pace, prior.strength, prior.tare_g, full, 0.0])
        mass_var = (prior.mass_spread * now) ** 2
        self.cov: Vector = np.diag(
            [
                mass_var,
                prior.pace_spread**2,
                prior.strength_spread**2,
                tare_spread**2,
                mass_var,
                K.EYE_OFF_SHARE**2,
            ]
        )
        if prior.full_g is None:
            self.cov[MASS, FULL] = self.cov[FULL, MASS] = mass_var
        self.at_min = 0.0
        self.boils_at = way.boil_up_min
        self.boil_seen = False
        self.jumps: list[float] = []
        self.marked: list[tuple[float, float, float]] = []
        self._off: list[Seen] = []
        self._came_up = False

    @property
    def mass_g(self) -> float:
        return float(self.mean[MASS])

    @property
    def pace(self) -> float:
        """How fast it boils off against what the model says: 1 is as it says."""
        return math.exp(float(self.mean[PACE]))

    def spread(self, figure: int) -> float:
        return math.sqrt(max(0.0, float(self.cov[figure, figure])))

    def follow(
        self, seen: Iterable[Seen], until_min: float, marks: Iterable[float] = ()
    ) -> "Belief":
        """All that was ``seen`` taken in, in order, and what goes on until ``until_min``. At every minute
        of ``marks`` (rising) what was believed then is kept as ``marked``: minute, grams, their spread."""
        looked = sorted(
            (one for one in seen if one.at_min <= until_min), key=lambda one: one.at_min
        )
        self.boils_at, self.boil_seen = _boils_at(looked, self.way)
        at = 0
        for mark in (*marks, until_min):
            while at < len(looked) and looked[at].at_min <= mark:
                self.go_on(looked[at].at_min)
                self.take(looked[at])
                at += 1
            self.go_on(mark)
            self.marked.append((mark, self.mass_g, self.spread(MASS)))
        return self

    # -- by itself

    def go_on(self, until_min: float) -> None:
        """The model alone, up to then."""
        while self.at_min < until_min - 1e-9:
            to = min(until_min, self.at_min + _STEP_MIN)
            self._step(self.at_min, to)
            self.at_min = to

    def _step(self, start: float, end: float) -> None:
        minutes = max(0.0, end - max(start, self.boils_at))
        gone = self.way.steamed_g(np.array([start, end]), self.boils_at)
        steam = float(gone[1] - gone[0])
        if steam > 0.0:
            self.mean = self.mean.copy()
            self.mean[MASS] -= steam
            self.cov[MASS, MASS] += (0.5 * steam) ** 2
        if minutes and not self._came_up:
            # Minutes that it may have boiled longer, or shorter, than thought.
            self._came_up = True
            if not self.boil_seen:
                off = (K.BOIL_UP_SPREAD * self.boils_at + 0.2) * self._rate()
                self.cov[MASS, MASS] += off * off
        if not minutes:
            return
        rate = self._rate()
        lightest = float(self.way.mass_g[0])
        move = np.eye(_FIGURES)
        if self.mass_g - rate * minutes > lightest:
            bend = self.way.slope(self.mass_g, self.way.g_per_min) * self.pace
            move[MASS, MASS] = max(0.0, 1.0 - bend * minutes)
            move[MASS, PACE] = -rate * minutes
        self.mean = self.mean.copy()
        self.mean[MASS] = max(lightest, self.mass_g - rate * minutes)
        self.cov = move @ self.cov @ move.T
        self.cov[PACE, PACE] += K.PACE_WANDERS**2 * minutes
        self.cov[MASS, MASS] += 0.5 * minutes

    def _rate(self) -> float:
        return self.way.at(self.mass_g, self.way.g_per_min) * self.pace

    # -- by what is seen

    def take(self, one: Seen) -> None:
        """``one`` believed as far as it can be."""
        expected, towards, spread = self._looks(one)
        if expected is None:
            return
        value = math.log(one.value) if one.what == "spoon" else one.value
        missed = value - expected
        variance = float(towards @ self.cov @ towards) + spread * spread
        if one.what == "scale" and missed * missed > K.OUTLIER**2 * variance:
            self._off.append(one)
            if not self._believed(missed):
                return
            self._jumped(one)
        elif one.what == "scale":
            self._off = []
        elif one.what != "spoon" and missed * missed > K.LOOK_DISAGREES**2 * variance:
            self._jumped(one)
        self._pull(one, value, spread)

    def _pull(self, one: Seen, value: float, spread: float) -> None:
        """The look taken in; a few times over, since what is expected bends (a cream near its end)."""
        began = self.mean
        for _ in range(_ITERATIONS):
            expected, towards, _ = self._looks(one)
            variance = float(towards @ self.cov @ towards) + spread * spread
            gain = self.cov @ towards / variance
            assert expected is not None
            missed = value - expected - float(towards @ (began - self.mean))
            pulled = began + gain * missed
            pulled[MASS] = max(float(self.way.mass_g[0]), float(pulled[MASS]))
            still = bool(np.abs(pulled - self.mean).max() < 0.1)
            self.mean = pulled
            if still:
                break
        keep = np.eye(_FIGURES) - np.outer(gain, towards)
        self.cov = keep @ self.cov @ keep.T + np.outer(gain, gain) * spread * spread

    def _looks(self, one: Seen) -> tuple[float | None, Vector, float]:
        """What would be seen, how that moves with each figure, and how far a look is off."""
        way, towards = self.way, np.zeros(_FIGURES)
        if one.what == "scale":
            towards[MASS] = towards[TARE] = 1.0
            return float(self.mean[MASS] + self.mean[TARE]), towards, one.spread
        if one.what == "level":
            by = math.exp(float(self.mean[EYE]))
            level = way.at(self.mass_g, way.level_mm) * by
            towards[MASS], towards[EYE] = way.slope(self.mass_g, way.level_mm) * by, level
            return level, towards, one.spread
        if one.what == "gone":
            full = float(self.mean[FULL])
            whole = max(1.0, full - way.apart_g)
            share = way.share_left(self.mass_g, full)
            towards[MASS], towards[FULL] = -1.0 / whole, share / whole
            return 1.0 - share, towards, one.spread
        if one.what == "spoon":
            towards[MASS] = way.slope(self.mass_g, way.log_eta)
            towards[STRENGTH] = 1.0
            return (
                way.at(self.mass_g, way.log_eta) + float(self.mean[STRENGTH]),
                towards,
                one.spread,
            )
        return None, towards, 1.0

    def _believed(self, missed: float) -> bool:
        """Whether readings that are off by themselves agree with each other."""
        last = self._off[-3:]
        if len(last) < 3:
            return False
        values = [one.value for one in last]
        return max(values) - min(values) < max(20.0, 0.25 * abs(missed))

    def _jumped(self, one: Seen) -> None:
        """Something went in or out, or the fire was turned: both are open again."""
        self.jumps.append(one.at_min)
        self._off = []
        self.cov = self.cov.copy()
        self.cov[MASS, MASS] += (0.1 * max(100.0, self.mass_g)) ** 2 + 200.0**2
        self.cov[PACE, PACE] += 0.4**2


def _boils_at(seen: list[Seen], way: Way) -> tuple[float, bool]:
    """Minutes until it boils, and whether that was seen: said by the cook, or by the scale, which falls
    slowly until then and quickly from then on."""
    for one in seen:
        if one.what == "boils":
            return max(0.0, one.at_min), True
    up = way.boil_up_min
    latest = 3.0 * up + 2.0
    early = [one for one in seen if one.what == "scale" and one.at_min <= latest + 3.0]
    if up < 0.3 or len(early) < 6:
        return up, False
    at = np.array([one.at_min for one in early])
    value = np.array([one.value for one in early])
    spread, rate = early[0].spread, float(way.g_per_min[-1])
    best, found = math.inf, up
    for start in np.linspace(0.3 * up, latest, 49):
        level = value + way.steamed_g(at, float(start))
        boiled = rate * np.maximum(0.0, at - start)
        off = math.log(start / up) / K.BOIL_UP_SPREAD
        cost = 0.5 * off * off
        if boiled[-1] > 2.0 * spread:
            design = np.stack([np.ones_like(at), -boiled], axis=1)
            (full, pace), *_ = np.linalg.lstsq(design, level, rcond=None)
            cost += 0.5 * (math.log(max(0.02, float(pace))) / K.PACE_SPREAD) ** 2
            missed = np.abs(design @ np.array([full, pace]) - level)
        else:
            missed = np.abs(level - boiled - np.median(level - boiled))
        # By absolute misses, so that a spoon leaning on the scale counts for little.
        cost += float(np.minimum(missed, 5.0 * spread).sum()) / spread
        if cost < best:
            best, found = cost, float(start)
    return found, found < float(at[-1]) - 0.5
