"""Simulated trays with hidden truth for the trials of cooling: physics of its own, no code shared with the core."""

import math
import random
from dataclasses import dataclass

_CELLS = 16
_PLACES = {
    "ice": (120.0, 0.5),
    "blast": (40.0, -2.0),
    "fan": (18.0, 3.0),
    "fridge": (9.0, 4.0),
    "table": (9.0, 22.0),
}


@dataclass(frozen=True)
class Tray:
    """A tray as it truly cooled, minute by minute from the end of cooking, and what was read of it."""

    truth_c: list[float]
    readings: list[tuple[float, float]]
    wrong: frozenset[int]
    now_min: float
    put_away_min: float
    place: str
    moved: bool

    def crossing(self, celsius: float) -> float | None:
        """The minute at which it truly first fell below ``celsius``."""
        for at in range(1, len(self.truth_c)):
            before, after = self.truth_c[at - 1], self.truth_c[at]
            if before >= celsius > after:
                return at - 1 + (before - celsius) / (before - after)
        return None

    def stays_below(self, celsius: float) -> float | None:
        """The minute from which it was truly below ``celsius`` until now; one put into the warm is not."""
        until = int(self.now_min) + 1
        warm = [at for at in range(until) if self.truth_c[at] >= celsius]
        return None if not warm or warm[-1] == until - 1 else warm[-1] + 1.0

    def truly_in(self, from_c: float, to_c: float) -> float | None:
        """Minutes it truly took from ``from_c`` down to ``to_c``; None: it never got there."""
        began, there = self.crossing(from_c), self.crossing(to_c)
        return None if began is None or there is None else there - began


def tray(dice: random.Random, wrong_share: float = 0.0, hours: float = 5.0) -> Tray:
    """A tray at random: depth, place, a move in a third of them, readings at random times within ± 1 °C, of which
    ``wrong_share`` are wrong by 3 to 30 °C."""
    depth = dice.uniform(0.012, 0.07)
    start = dice.uniform(72.0, 96.0)
    bench = dice.uniform(0.0, 35.0)
    place = dice.choice(list(_PLACES))
    move_at = dice.uniform(20.0, 150.0) if dice.random() < 0.33 else math.inf
    then = dice.choice(list(_PLACES))
    minutes = int(60 * hours)
    truth = _cooled(dice, depth, start, bench, place, move_at, then, minutes)
    now = dice.uniform(0.3, 1.0) * minutes
    count = dice.randint(0, 14)
    times = sorted(dice.uniform(1.0, now) for _ in range(count))
    readings, wrong = [], set()
    for number, at in enumerate(times):
        true_c = truth[int(at)] + (truth[int(at) + 1] - truth[int(at)]) * (at - int(at))
        off = max(-1.0, min(1.0, dice.gauss(0.0, 0.5)))
        if dice.random() < wrong_share:
            off = dice.choice((-1, 1)) * dice.uniform(3.0, 30.0)
            wrong.add(number)
        readings.append((at, true_c + off))
    return Tray(truth, readings, frozenset(wrong), now, bench, place, move_at < now)


def _cooled(
    dice: random.Random,
    depth: float,
    start: float,
    bench: float,
    place: str,
    move_at: float,
    then: str,
    minutes: int,
) -> list[float]:
    """The hottest cell of a slab, by explicit steps of a few seconds."""
    k, heat = (
        0.55 * math.exp(dice.gauss(0.0, 0.15)),
        1060.0 * 3700.0 * math.exp(dice.gauss(0.0, 0.1)),
    )
    factor = math.exp(dice.gauss(0.0, 0.35))
    cell = depth / _CELLS
    step = min(20.0, 0.4 * heat * cell * cell / k)
    cells = [start] * _CELLS
    truth = [start]
    now, next_minute = 0.0, 60.0
    while len(truth) <= minutes + 1:
        at_min = now / 60.0
        h, around = (10.0, 23.0) if at_min < bench else _PLACES[then if at_min > move_at else place]
        h *= factor if at_min >= bench else 1.0
        out = 1.0 / (1.0 / h + 0.5 * cell / k)
        flow = [out * (around - cells[0])]
        flow += [k / cell * (cells[n] - cells[n + 1]) for n in range(_CELLS - 1)]
        flow.append(out * (cells[-1] - around))
        cells = [c + step * (flow[n] - flow[n + 1]) / (heat * cell) for n, c in enumerate(cells)]
        if not math.isfinite(cells[0]):
            raise ArithmeticError("the simulated tray took too long a step")
        now += step
        while now >= next_minute and len(truth) <= minutes + 1:
            truth.append(max(cells))
            next_minute += 60.0
    return truth
