"""What is believed of a pot on the fire: how much is in it, how fast it boils off, how strong it is.

An extended Kalman filter over six figures. The model says how they go on by themselves; everything
that is seen, a scale as well as a look at the level, pulls them by as much as it can be trusted.
"""

import math
from collections.abc import Iterable
from copy import copy
from dataclasses import dataclass
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from saucier import constants as K
from saucier.watch.begun import Doubt, Ways
from saucier.watch.seen import Seen
from saucier.watch.way import Way

Vector = NDArray[np.float64]
MASS, PACE, STRENGTH, TARE, FULL, EYE = range(6)
_FIGURES = 6
_STEP_MIN = 0.5
_ITERATIONS = 8
_SAME, _STEP_OF_FULL = 0.001, 1.02
_AGREE, _SUDDEN = 3, 0.5
"""So many readings that are off by the same are believed; where it was not off all at once by half of that, it was no
jump."""


@dataclass(frozen=True)
class Prior:
    """What is known before the step begins: ``mass_spread_g``, by how many grams the pot weighs
    more or less than is reckoned (None: as pots do that nobody weighed), and the ``doubts`` that come of it; log of the pace and of the strength, with spreads; ``tare_g`` of the
    pan, as entered or as a scale has told (0: neither). Of a step that goes on after something went in to
    mend it: what it held when the step began, ``full_g`` (None: as now), and for how long it has boiled
    already, ``boiled_min``."""

    mass_spread_g: float | None = None
    doubts: tuple[Doubt, ...] = ()
    pace: float = 0.0
    pace_spread: float = K.PACE_SPREAD
    strength: float = 0.0
    strength_spread: float = K.STRENGTH_SPREAD
    tare_g: float = 0.0
    full_g: float | None = None
    boiled_min: float = 0.0


class _Missed(NamedTuple):
    """A reading that was not believed: when, and by how many grams it was off what was expected then."""

    at_min: float
    grams: float


class _Jump(NamedTuple):
    """The weight was another all at once: when, by how many grams, and what was believed before: the covariances, what
    the pot held when the step began, and what share of it had not gone out."""

    at_min: float
    grams: float
    cov: Vector
    full_g: float
    stayed: float


class Belief:
    """Means and covariances of: grams in the pot, log of its pace against the model's, log η against the
    model's, grams the scale shows too much (the pan), grams in it when the step began, log by which the
    eye sees every level too high.

    ``jumps`` are the minutes where what is seen could not be believed with what was before: something
    went in or out, the pan weighs another than was entered, something lies on the scale, or the fire was turned.
    Which of them it was shows later, if at all: until then the spread covers each.
    """

    def __init__(self, ways: Ways, prior: Prior) -> None:
        self._ways, self.prior = ways, prior
        self.way = way = ways.planned
        now, full = way.full_g, way.full_g if prior.full_g is None else prior.full_g
        tare_spread = K.TARE_SPREAD_G if prior.tare_g else K.TARE_UNKNOWN_G
        self.mean: Vector = np.array([now, prior.pace, prior.strength, prior.tare_g, full, 0.0])
        spread_g = prior.mass_spread_g
        mass_var = (K.POURED_SPREAD * now if spread_g is None else spread_g) ** 2
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
        self._off: list[_Missed] = []
        self._weighed = False
        self._near_g = 0.0
        self._last_jump: _Jump | None = None
        self._came_up = False
        self._stayed = 1.0
        self._way_of_g = full

    def way_if(self, full_g: float) -> Way:
        """The way of the pot if it held ``full_g`` when the step began. A pot that was mended went on from what it held
        then: what it began with says nothing of its way."""
        if self.prior.full_g is not None or abs(full_g / self._way_of_g - 1.0) < _SAME:
            return self.way
        way = self._ways.of(full_g / self._stayed)
        return way if self._stayed == 1.0 else way.times(self._stayed)

    @property
    def begun_g(self) -> float:
        """What the pot held when the step began, what went out since among it, g."""
        return float(self.mean[FULL]) / self._stayed

    def _goes_its_way(self) -> None:
        """The way goes along with what the pot is believed to have begun with."""
        full = float(self.mean[FULL])
        self.way, self._way_of_g = self.way_if(full), full

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
        self.boils_at, self.boil_seen = boils_at(looked, self.way)
        at = 0
        for mark in (*marks, until_min):
            while at < len(looked) and looked[at].at_min <= mark:
                self.go_on(looked[at].at_min)
                self.take(looked[at])
                at += 1
            self.go_on(mark)
            self.marked.append((mark, self.mass_g, self.spread(MASS)))
        if self._off:
            # The last reading was far off and is not believed yet: it may be so all the same.
            self._unsettled(K.JUMP_PENDING * self._off[-1].grams)
        return self

    def apart(self) -> "Belief":
        """The same, to go on with: whatever becomes of that, this stays as it is."""
        other = copy(self)
        other.mean, other.cov = self.mean.copy(), self.cov.copy()
        other.jumps, other.marked, other._off = [*self.jumps], [*self.marked], [*self._off]
        return other

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
        spread = math.hypot(spread, self._foam(one, missed))
        variance = float(towards @ self.cov @ towards) + spread * spread
        if one.what == "scale":
            self._weigh(one, missed, spread, far=missed * missed > K.OUTLIER**2 * variance)
            return
        if one.what != "spoon" and missed * missed > K.LOOK_DISAGREES**2 * variance:
            self._opened(one)
        self._pull(one, value, spread)

    def _foam(self, one: Seen, missed: float) -> float:
        """What foam adds to the spread of a look at the level: it lifts what is seen, and never lowers it."""
        if one.at_min < self.boils_at:
            return 0.0
        if one.what == "level" and missed > 0.0:
            return K.FOAM_LIFTS * one.value
        if one.what == "gone" and missed < 0.0:
            return K.FOAM_LIFTS * (1.0 - one.value)
        return 0.0

    # -- by its weight

    def _weigh(self, one: Seen, missed: float, spread: float, *, far: bool) -> None:
        """A reading of the scale, ``missed`` by so much; ``far``: by more than can be by itself. One weighing by hand
        is final; of a scale that sends, three agree over twenty seconds before they are believed."""
        if not far:
            self._off, self._near_g = [], missed
            self._weighed = self._weighed or bool(self.prior.tare_g)
            self._pull(one, one.value, spread)
            return
        self._off.append(_Missed(one.at_min, missed))
        if one.by_hand or self._agreed(spread):
            self._jump(one, missed, spread)

    def _agreed(self, spread: float) -> bool:
        """Whether the last readings are off by the same: by what each adds to what was expected then, not by what it
        reads, since the pot boils on between them."""
        for count in range(_AGREE, len(self._off) + 1):
            last = self._off[-count:]
            span = last[-1].at_min - last[0].at_min
            if span >= K.JUMP_AGREES_MIN:
                break
        else:
            return False
        off = [one.grams for one in last]
        paces = self.spread(PACE) * self._rate() * span
        return max(off) - min(off) < 4.0 * spread + 2.0 * paces

    def _jump(self, one: Seen, missed: float, spread: float) -> None:
        """The weight is another all at once, by ``missed`` grams. Before the first reading that agreed it is more likely
        the pan's entered weight that is off; later, what is in the pot."""
        self.jumps.append(one.at_min)
        first = self._off[0].grams if self._off else missed
        sudden = one.by_hand or abs(first - self._near_g) > _SUDDEN * abs(missed)
        self._off = []
        last, mass, full, stayed = (
            self._last_jump,
            self.mass_g,
            float(self.mean[FULL]),
            self._stayed,
        )
        snapshot = self.cov.copy()
        pan_is_off = not self._weighed and bool(self.prior.tare_g) and not one.by_hand
        goes_back = (
            last is not None
            and one.at_min - last.at_min < K.JUMP_GOES_BACK_MIN
            and abs(missed + last.grams) < 0.3 * abs(last.grams) + 3.0 * spread
        )
        self.cov = self.cov.copy()
        in_pot, on_scale = (0.25, 1.0) if pan_is_off else (1.0, 0.25)
        if one.by_hand:  # somebody looked, and nothing leans on it
            in_pot, on_scale = 1.0, 0.0
        self.cov[MASS, MASS] += (in_pot * missed) ** 2
        self.cov[TARE, TARE] += (on_scale * missed) ** 2
        if pan_is_off:  # what is in the pot is then what there was from the beginning
            self.cov[FULL, FULL] += (in_pot * missed) ** 2
            self.cov[MASS, FULL] += (in_pot * missed) ** 2
            self.cov[FULL, MASS] = self.cov[MASS, FULL]
        else:
            self.cov[PACE, PACE] += K.JUMP_OPENS_PACE**2
        self._pull(one, one.value, spread)
        self._weighed = True
        if goes_back and last is not None:
            self._taken_back(last)
            return
        if not sudden:
            return  # it drifted there: it boils otherwise than thought, and nothing went in or out
        if not pan_is_off and missed < 0.0:
            self._parted(mass)
        if not one.by_hand:
            self._unsettled(K.JUMP_UNSETTLED * missed)
        self._last_jump = _Jump(one.at_min, missed, snapshot, full, stayed)

    def _parted(self, mass_before: float) -> None:
        """What went out of the pot is of the sauce as it was: where it stops goes along. (What goes in is rather a thin
        liquid that boils off again.)"""
        by = max(0.05, self.mass_g / max(1.0, mass_before))
        self.way = self.way.times(by)
        self._stayed *= by
        self.mean = self.mean.copy()
        self.mean[FULL] *= by
        self._way_of_g *= by

    def _unsettled(self, grams: float) -> None:
        """It may as well be that so much more, or less, of it is the pan's or lies on the scale: together they are
        known, and each is not."""
        whole = float(self.mean[FULL]) / max(1.0, self.mass_g)
        towards = np.zeros(_FIGURES)
        towards[MASS], towards[FULL], towards[TARE] = grams, grams * whole, -grams
        self.cov = self.cov + np.outer(towards, towards)

    def _taken_back(self, last: "_Jump") -> None:
        """What jumped went back: something lay on the scale for a while, and nothing of the pot is another."""
        self.mean = self.mean.copy()
        if self._stayed != last.stayed:
            self.way = self.way.times(last.stayed / self._stayed)
            self._way_of_g *= last.stayed / self._stayed
        self._stayed, self.mean[FULL] = last.stayed, last.full_g
        self._goes_its_way()
        opened = self.cov[PACE, PACE]
        self.cov = last.cov.copy()
        self.cov[PACE, PACE] = max(self.cov[PACE, PACE], opened)
        self._last_jump = None

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
        self._goes_its_way()
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
            full = float(self.mean[FULL])
            way, more = self.way_if(full), self.way_if(_STEP_OF_FULL * full)
            eta = way.at(self.mass_g, way.log_eta)
            towards[MASS], towards[STRENGTH] = way.slope(self.mass_g, way.log_eta), 1.0
            towards[FULL] = (
                (more.at(self.mass_g, more.log_eta) - eta) / (_STEP_OF_FULL - 1.0) / full
            )
            return eta + float(self.mean[STRENGTH]), towards, one.spread
        return None, towards, 1.0

    def _opened(self, one: Seen) -> None:
        """A look that nothing explains: the step was begun late, something went in or out, or the fire was turned."""
        self.jumps.append(one.at_min)
        self._off = []
        self.cov = self.cov.copy()
        self.cov[MASS, MASS] += (0.1 * max(100.0, self.mass_g)) ** 2 + 200.0**2
        self.cov[PACE, PACE] += 0.4**2


def boils_at(seen: list[Seen], way: Way) -> tuple[float, bool]:
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
