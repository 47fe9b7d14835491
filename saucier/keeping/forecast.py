"""How a cooling goes on, from its readings: a forecast that follows them however far off the sum was.

A cloud of possible trays (particles), each with its own pace, surroundings and lag, is weighed by every reading.
No fact: a record never says what stands here (docs/model.md 18). The cloud is drawn with a fixed seed, so the same
readings always give the same forecast.
"""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
from numpy.typing import NDArray

from saucier import constants as K
from saucier.keeping.facts import CoolingFacts, CoolingReading, StageFact
from saucier.keeping.rules import Rules
from saucier.thinning import thinned
from saucier.words import Sentence, say

Vector = NDArray[np.float64]
Outlook = Literal["in-time", "unsure", "late"]
_PARTICLES = 1500
_FAR_OFF_SHARE, _FAR_OFF_SPREAD = 0.2, 1.2
"""So many sums in a hundred are of something else than what cools, and then so far off (logarithm)."""
_STEP_MIN = 4.0
"""The longest step between two looks at the cloud, minutes."""
_LONGEST_MIN = 24.0 * 60.0
_NEWEST, _OLDER = 30, 60
"""Readings of one cooling that are weighed: the newest all, so many of the older ones, evenly."""


_FALL_MIN = 45.0


@dataclass(frozen=True, slots=True)
class Expected:
    """What is expected before anything is read: it begins at ``from_c`` ± ``from_spread_c``, falls by the factor e
    towards ``around_c`` in ``fall_min`` minutes; ``pace_spread`` of the logarithm of that. The defaults are of a tray
    nobody described."""

    from_c: float = 85.0
    from_spread_c: float = 10.0
    around_c: float = 3.0
    around_spread_c: float = 3.0
    fall_min: float = _FALL_MIN
    pace_spread: float = 0.9


@dataclass(frozen=True, slots=True)
class StageForecast:
    """When it is likely to be down to ``to_c`` (minutes on the clock of the readings; None: not within a day):
    the middle, and nine in ten between ``low_min`` and ``high_min``. ``chance`` that a reading in time will show
    the stage met, and the ``outlook`` by it."""

    to_c: float
    at_min: float | None
    low_min: float | None
    high_min: float | None
    chance: float
    outlook: Outlook


@dataclass(frozen=True, slots=True)
class ForecastPoint:
    """The middle at ``at_min``: likely ``middle_c``, nine in ten from ``low_c`` to ``high_c``."""

    at_min: float
    middle_c: float
    low_c: float
    high_c: float


@dataclass(frozen=True, slots=True)
class Forecast:
    """A forecast as of ``now_min``: the middle is about ``at_c`` (nine in ten: ``low_c`` to ``high_c``), each open
    stage, and whether the sum ``fits`` what was read; ``moved``: the readings say that something about it changed.
    ``curve`` is the way the middle is likely to go. ``words`` where something is to be
    done."""

    now_min: float
    at_c: float
    low_c: float
    high_c: float
    stages: tuple[StageForecast, ...]
    fits: bool
    moved: bool
    curve: tuple[ForecastPoint, ...]
    words: Sentence | None


@dataclass(slots=True)
class _Cloud:
    """Possible trays: the ``middle`` and what the heat leaves through, the ``outer`` part [°C]; the logarithm of
    their ``pace`` against what was expected, what is ``around`` them [°C], and the logarithm of their ``lag``, the
    share of a fall by e that the middle comes behind."""

    middle: Vector
    outer: Vector
    pace: Vector
    around: Vector
    lag: Vector

    def pick(self, which: NDArray[np.intp]) -> "_Cloud":
        return _Cloud(
            self.middle[which],
            self.outer[which],
            self.pace[which],
            self.around[which],
            self.lag[which],
        )

    def copy(self) -> "_Cloud":
        return self.pick(np.arange(len(self.middle)))


class _Filter:
    """Weighs a cloud by readings, in order."""

    def __init__(self, expected: Expected, begin_min: float) -> None:
        self.expected = expected
        self.dice = np.random.default_rng(20261201)
        self.at_min = begin_min
        self.moved = False
        start = expected.from_c + expected.from_spread_c * self.dice.standard_normal(_PARTICLES)
        start = np.minimum(start, 100.0)
        self.cloud = _Cloud(
            middle=start.copy(),
            outer=start.copy(),
            pace=self._paces(_PARTICLES),
            around=expected.around_c
            + expected.around_spread_c * self.dice.standard_normal(_PARTICLES),
            lag=math.log(K.COOLING_LAG) + 0.5 * self.dice.standard_normal(_PARTICLES),
        )
        self._put_away: tuple[float, Vector, Vector] | None = None
        self._before_miss: tuple[float, _Cloud, CoolingReading, float] | None = None

    def _paces(self, count: int) -> Vector:
        """Logarithms of how quick trays may be against what is expected; a sum that was far off is among them."""
        far_off = self.dice.random(count) < _FAR_OFF_SHARE
        spread = np.where(far_off, _FAR_OFF_SPREAD, self.expected.pace_spread)
        return np.asarray(spread * self.dice.standard_normal(count))

    def on_the_bench(self, until_min: float) -> None:
        """Until it is put away it stands in the kitchen; then it is where it is expected to be."""
        count = len(self.cloud.pace)
        there = self.cloud.around.copy(), self.cloud.pace.copy()
        self.cloud.around = K.KITCHEN_C + 3.0 * self.dice.standard_normal(count)
        self.cloud.pace = -0.3 + 0.5 * self.dice.standard_normal(count)
        self._put_away = (until_min, *there)

    def forward(self, to_min: float, changes: bool = True) -> None:
        """The cloud at ``to_min``."""
        if self._put_away is not None and to_min >= self._put_away[0]:
            put_away_min, around, pace = self._put_away
            self._put_away = None
            self.forward(put_away_min, changes)
            self.cloud.around, self.cloud.pace = around, pace
        while self.at_min < to_min - 1e-9:
            minutes = min(_STEP_MIN, to_min - self.at_min)
            cloud = self.cloud
            cloud.pace += (
                K.COOLING_PACE_WANDERS
                * math.sqrt(minutes)
                * self.dice.standard_normal(len(cloud.pace))
            )
            if changes:
                chance = 1.0 - math.exp(-K.COOLING_CHANGES_PER_MIN * minutes)
                self._change(self.dice.random(len(cloud.pace)) < chance)
            _fall(cloud, self.expected.fall_min, minutes)
            self.at_min += minutes

    def _change(self, which: NDArray[np.bool_]) -> None:
        """Trays put elsewhere: into ice, a blast chiller, the fridge, or out on the table."""
        count = int(which.sum())
        if not count:
            return
        cloud = self.cloud
        places = self.dice.choice(len(_ELSEWHERE), count, p=[share for share, *_ in _ELSEWHERE])
        middles = np.array([around for _, around, _, _ in _ELSEWHERE])[places]
        spreads = np.array([spread for _, _, spread, _ in _ELSEWHERE])[places]
        quicker = np.array([pace for *_, pace in _ELSEWHERE])[places]
        cloud.around[which] = middles + spreads * self.dice.standard_normal(count)
        cloud.pace[which] = (
            cloud.pace[which] * 0.3 + quicker + 0.6 * self.dice.standard_normal(count)
        )

    def take(self, reading: CoolingReading) -> None:
        """Weigh the cloud by ``reading``."""
        started, before = self.at_min, self.cloud.copy()
        self.forward(reading.at_min)
        off = self._off(reading)
        miss = self._before_miss
        if miss is not None and abs(off) > K.PROBE_MISS_SPREADS and off * miss[3] > 0.0:
            # Two misses on one side are no two slips of a probe: something about it changed.
            self._changed_since(miss, reading)
            self._before_miss = None
            return
        self._before_miss = None
        if abs(off) > K.PROBE_MISS_SPREADS:
            self._before_miss = (started, before, reading, off)
        self._weigh(reading)

    def _off(self, reading: CoolingReading) -> float:
        """How far ``reading`` is from where it was expected, in spreads."""
        middle = float(np.median(self.cloud.middle))
        low, high = np.percentile(self.cloud.middle, (16, 84))
        spread = math.hypot(K.PROBE_OFF_C, 0.5 * float(high - low))
        return (reading.celsius - middle) / spread

    def _changed_since(
        self, miss: tuple[float, _Cloud, CoolingReading, float], reading: CoolingReading
    ) -> None:
        self.moved = True
        self.at_min, self.cloud = miss[0], miss[1]
        gap = max(0.0, miss[2].at_min - self.at_min)
        parts = 4
        for _ in range(parts):
            chosen = self.dice.random(len(self.cloud.pace)) < 0.35
            self._change(chosen)
            self.forward(self.at_min + gap / parts, changes=False)
        # It may stand where it stood, and the sum have been far off from the first.
        still = self.dice.random(len(self.cloud.pace)) < 0.3
        self.cloud.pace[still] = self._paces(int(still.sum()))
        # Where even that does not reach, the readings decide by themselves.
        stray = self.dice.random(len(self.cloud.pace)) < 0.25
        count = int(stray.sum())
        self.cloud.middle[stray] = miss[2].celsius + 1.5 * self.dice.standard_normal(count)
        self.cloud.outer[stray] = self.cloud.middle[stray] - 2.0 * self.dice.random(count)
        self._weigh(miss[2], trusted=True)
        self.forward(reading.at_min)
        self._weigh(reading, trusted=True)

    def _weigh(self, reading: CoolingReading, trusted: bool = False) -> None:
        gap = reading.celsius - self.cloud.middle
        good = np.exp(-0.5 * (gap / K.PROBE_OFF_C) ** 2) / K.PROBE_OFF_C
        wild_c = 2.0 * K.PROBE_OFF_C if trusted else K.PROBE_WILD_C
        wild = np.exp(-0.5 * np.minimum((gap / wild_c) ** 2, 200.0)) / wild_c
        weights = (1.0 - K.PROBE_WILD_SHARE) * good + K.PROBE_WILD_SHARE * wild + 1e-12
        total = float(weights.sum())
        positions = (self.dice.random() + np.arange(_PARTICLES)) / _PARTICLES
        which = np.minimum(np.searchsorted(np.cumsum(weights / total), positions), _PARTICLES - 1)
        self.cloud = self.cloud.pick(which)
        # Copies of one tray are told apart again, by little.
        cloud = self.cloud
        for values, spread in ((cloud.pace, 0.02), (cloud.lag, 0.03), (cloud.around, 0.15)):
            values += spread * self.dice.standard_normal(_PARTICLES)
        cloud.middle += 0.1 * self.dice.standard_normal(_PARTICLES)


_ELSEWHERE: tuple[tuple[float, float, float, float], ...] = (
    (0.30, 3.0, 2.0, 0.0),
    (0.35, -1.0, 2.0, 1.2),
    (0.35, 21.0, 3.0, -0.2),
)
"""Where a tray may be put: share, what is around it there and its spread [°C], how much quicker (logarithm)."""


def _fall(cloud: _Cloud, fall_min: float, minutes: float) -> None:
    """``cloud`` after ``minutes``: its outer part nears what is around it, its middle the outer part. Solved
    exactly for constant surroundings."""
    rate = np.exp(np.clip(cloud.pace, -3.5, 3.5)) / fall_min
    follow = rate / np.exp(np.clip(cloud.lag, -4.0, -0.2))
    slow, quick = np.exp(-rate * minutes), np.exp(-follow * minutes)
    outer, middle = cloud.outer - cloud.around, cloud.middle - cloud.around
    share = follow / (follow - rate)
    cloud.middle = cloud.around + middle * quick + outer * share * (slow - quick)
    cloud.outer = cloud.around + outer * slow


def forecast(
    rules: Rules,
    facts: CoolingFacts,
    readings: Sequence[tuple[float, float]],
    begin_min: float,
    now_min: float,
    expected: Expected | None = None,
    put_away_min: float | None = None,
) -> Forecast | None:
    """How a cooling that began at ``begin_min`` goes on, ``facts`` of it given. None where nothing was read and
    nothing is ``expected``.

    ``readings`` as :func:`~saucier.keeping.facts.cooling_facts` has them. The chance of a stage is that of the
    middle being at its limit by when a reading is due. Until ``put_away_min`` (None: from the first) it stood in
    the kitchen.
    """
    read = _thinned(CoolingReading(*one) for one in sorted(readings) if one[0] >= begin_min)
    if not read and expected is None:
        return None
    if expected is None:
        first = read[0]
        expected, begin_min = Expected(from_c=first.celsius, from_spread_c=1.5), first.at_min
    cloud = _Filter(expected, begin_min)
    if put_away_min is not None and put_away_min > begin_min:
        cloud.on_the_bench(put_away_min)
    for reading in read:
        cloud.take(reading)
    cloud.forward(max(now_min, cloud.at_min))
    fits = abs(float(np.median(cloud.cloud.pace))) <= K.COOLING_PACE_EDGE
    middle = cloud.cloud.middle
    low_c, at_c, high_c = np.percentile(middle, (5, 50, 95))
    stages, curve = _ahead(cloud, rules, facts, now_min)
    return Forecast(
        now_min=round(now_min, 1),
        at_c=round(float(at_c), 1),
        low_c=round(float(low_c), 1),
        high_c=round(float(high_c), 1),
        stages=stages,
        fits=fits,
        moved=cloud.moved,
        curve=curve,
        words=_words(stages, facts, fits),
    )


def _thinned(readings: Iterable[CoolingReading]) -> list[CoolingReading]:
    """At most so many, the newest always among them."""
    read = list(readings)
    return [*thinned(read[:-_NEWEST], _OLDER), *read[-_NEWEST:]]


def _ahead(
    state: _Filter, rules: Rules, facts: CoolingFacts, now_min: float
) -> tuple[tuple[StageForecast, ...], tuple[ForecastPoint, ...]]:
    """Each open stage, and the way the middle is likely to go."""
    open_stages = [stage for stage in facts.stages if stage.verdict == "open"]
    coldest = min((stage.to_c for stage in open_stages), default=rules.stages[-1].to_c)
    passed: dict[float, Vector] = {stage.to_c: np.full(_PARTICLES, np.inf) for stage in open_stages}
    until = max((stage.due_min or now_min for stage in open_stages), default=now_min)
    points = [_point(state)]
    step = max(_STEP_MIN, (until - now_min) / 60.0)
    while state.at_min < now_min + _LONGEST_MIN:
        for to_c, when in passed.items():
            when[(state.cloud.middle <= to_c) & np.isinf(when)] = state.at_min
        done = float(np.mean(state.cloud.middle <= coldest)) > 0.96
        if state.at_min >= until and (done or state.at_min >= until + 6 * 60.0):
            break
        state.forward(state.at_min + step)
        points.append(_point(state))
    stages = tuple(_stage(stage, passed[stage.to_c]) for stage in open_stages)
    return stages, tuple(points)


def _point(state: _Filter) -> ForecastPoint:
    low, middle, high = np.percentile(state.cloud.middle, (5, 50, 95))
    return ForecastPoint(
        round(state.at_min, 1),
        round(float(middle), 1),
        round(float(low), 1),
        round(float(high), 1),
    )


def _stage(stage: StageFact, when: Vector) -> StageForecast:
    due = stage.due_min if stage.due_min is not None else -math.inf
    chance = float(np.mean(when <= due))
    outlook: Outlook = (
        "in-time" if chance >= K.IN_TIME_FROM else "late" if chance < K.LATE_BELOW else "unsure"
    )
    low, middle, high = np.percentile(when, (5, 50, 95), method="nearest")
    return StageForecast(
        stage.to_c, _minute(middle), _minute(low), _minute(high), round(chance, 3), outlook
    )


def _minute(at_min: float) -> float | None:
    return round(float(at_min), 1) if math.isfinite(at_min) else None


def _words(stages: Sequence[StageForecast], facts: CoolingFacts, fits: bool) -> Sentence | None:
    late = next((stage for stage in stages if stage.outlook == "late"), None)
    if late is not None:
        fact = next(one for one in facts.stages if one.to_c == late.to_c)
        left = fact.shown_by.facts["left_min"]
        return say("cooling.will-miss", to_c=late.to_c, left_min=left)
    return None if fits else say("cooling.does-not-fit")


def expected_of(curve: Sequence[tuple[float, float]], around_c: float) -> Expected:
    """What a sum's ``curve`` ((minute, °C) of the hottest point) makes one expect, ``around_c`` beyond."""
    minutes = np.array([at for at, _ in curve])
    over = np.array([celsius for _, celsius in curve]) - around_c
    falls = over[0] > 0.0 and len(over) > 1
    lower = np.nonzero(over <= max(over[0], 1.0) / math.e)[0] if falls else np.array([], dtype=int)
    if len(lower):
        fall_min = float(minutes[lower[0]])
    elif falls and over[-1] < over[0]:
        fall_min = float(minutes[-1] / max(1e-3, math.log(over[0] / max(over[-1], 0.5))))
    else:
        fall_min = _FALL_MIN
    fall_min = min(2000.0, max(2.0, fall_min)) / (1.0 + K.COOLING_LAG)
    return Expected(
        from_c=float(curve[0][1]),
        from_spread_c=5.0,
        around_c=around_c,
        fall_min=fall_min,
        pace_spread=K.COOLING_PACE_SPREAD,
    )


def put_away_at(expected: Expected, celsius: float, spread_c: float) -> Expected:
    """``expected`` of a lot that was ``celsius`` ± ``spread_c`` when it was put away."""
    return replace(expected, from_c=celsius, from_spread_c=spread_c)
