"""A boiling step followed: where the pot is, where it stops, and the minutes until then, with how sure."""

import math
from collections.abc import Callable, Sequence
from copy import copy
from dataclasses import dataclass, replace

import numpy as np

from saucier import constants as K
from saucier.check import CheckedSheet
from saucier.pot import Pot
from saucier.steps import Add, AnyStep, Reduce, Simmer
from saucier.thickness import EMULSION_EDGES, GRADES, film_mm, grade_of
from saucier.units import Amount, kitchen_round
from saucier.watch.begun import LEAST, Ways, WentIn
from saucier.watch.belief import FULL, MASS, PACE, STRENGTH, TARE, Belief, Prior, Vector, boils_at
from saucier.watch.seen import Seen, SeenKind
from saucier.watch.way import Way, way_of
from saucier.words import Sentence, say

_SAYS_BOILING = ("boils", "scale")
"""Looks that say since when a pot boils."""
_PASSED = ("light-coat", "nappe", "binding")


@dataclass(frozen=True, slots=True)
class Guess:
    """A figure with the edges it lies within nine times in ten."""

    value: float
    low: float
    high: float


@dataclass(frozen=True, slots=True)
class StopsAt:
    """Where the step stops: what the pot then holds, what the scale then shows (None where neither the
    pan's weight nor a reading is known), how deep it then stands, the share left."""

    mass_g: float
    scale_g: float | None
    level_mm: float
    share: float


@dataclass(frozen=True, slots=True)
class Passing:
    """A place on the way, by ``key`` (a grade, ``rich``, ``oily``): as :class:`StopsAt`, and the minutes from
    now until there (None: it is behind)."""

    key: str
    name: Sentence
    mass_g: float
    scale_g: float | None
    level_mm: float
    minutes: Guess | None


@dataclass(frozen=True, slots=True)
class TrackPoint:
    """A point of the curve: minutes from the beginning of the step, what the pot holds then, and how deep
    it stands, with the edges of that."""

    at_min: float
    mass_g: float
    level_mm: float
    low_mm: float
    high_mm: float


@dataclass(frozen=True, slots=True)
class Past:
    """Boiled down too far, by so many ``grams``; what brings it back as a remedy is written down: for its
    ``sign``, by its ``title``, as ``steps`` of a sheet."""

    grams: float
    sign: str
    title: Sentence
    steps: tuple[AnyStep, ...]


@dataclass(frozen=True, slots=True)
class Watched:
    """A pot that boils, as it is likely to be at ``at_min``: what it holds, what the scale shows with it,
    how deep it stands, the share of its liquid left, how thick (Pa·s at serving temperature), its grade.
    ``pace``: against the model's, 1 is as it says; ``strength`` likewise of what thickens it.
    ``minutes_left`` until the ``goal`` (None where it has none, or will not get there), ``past``: that it
    is surely lighter than that; ``looked``: how often anything was seen of it."""

    at_min: float
    boils_in_min: float
    mass_g: Guess
    scale_g: float | None
    level_mm: Guess
    share_left: Guess
    viscosity_pa_s: Guess
    film_mm: float
    grade: str | None
    fat_share: float
    g_per_min: float
    pace: Guess
    strength: Guess
    goal: StopsAt | None
    minutes_left: Guess | None
    past: Past | None
    passing: tuple[Passing, ...]
    track: tuple[TrackPoint, ...]
    looked: int
    jumps: tuple[float, ...]
    notes: tuple[Sentence, ...]


def watch(
    checked: CheckedSheet,
    number: int,
    seen: Sequence[Seen],
    now_min: float,
    prior: Prior | None = None,
    before: Pot | None = None,
) -> Watched | None:
    """Step ``number`` of ``checked``, ``now_min`` minutes after it began, with all that was ``seen`` of it.
    ``before``: the pot it began with, where it is not as planned. None: nothing boils off at it."""
    watching = Watching.of(checked, number, seen, now_min, prior, before)
    return None if watching is None else watching.told()


def _past(mass: Guess, goal_g: float) -> Past | None:
    """A pot of ``mass`` that is past ``goal_g``; None within what it may be off by."""
    gone = goal_g - mass.value
    if mass.high >= goal_g or gone <= K.PAST_SHARE * goal_g:
        return None
    water = kitchen_round(Amount(gone, "g"))
    step = Add(ingredient="water", amount=water, temperature_c=K.LET_DOWN_C)
    return Past(water.value, "too-thick", say("watch.water-in"), (step,))


def _within(guess: Guess, least: float, most: float) -> Guess:
    """``guess`` with nothing below ``least`` or beyond ``most``."""
    return Guess(*(min(max(one, least), most) for one in (guess.value, guess.low, guess.high)))


class Watching:
    """A boiling step with what is believed of it."""

    @classmethod
    def of(
        cls,
        checked: CheckedSheet,
        number: int,
        seen: Sequence[Seen],
        now_min: float,
        prior: Prior | None = None,
        before: Pot | None = None,
    ) -> "Watching | None":
        """As :func:`watch`; None where nothing boils off."""
        before = before or (checked.steps[number - 1].pot if number else Pot())
        way, prior = way_of(checked, number, before), prior or Prior()
        if way is None:
            return None
        ways = Ways(checked, number, before, way, prior.doubts)
        return cls(checked, number, ways, seen, now_min, prior)

    def __init__(
        self,
        checked: CheckedSheet,
        number: int,
        ways: Ways,
        seen: Sequence[Seen],
        now_min: float,
        prior: Prior,
    ) -> None:
        self._checked, self._number, self._ways = checked, number, ways
        self._now = max(0.0, now_min)
        self._prior = replace(prior, tare_g=prior.tare_g or checked.pan.tare_g)
        self._seen = [one for one in seen if one.at_min <= self._now]
        marks = sorted({*np.linspace(0.0, self._now, 24)[:-1].tolist()})
        self.belief = Belief(ways, self._prior).follow(self._seen, self._now, marks)
        weighed = any(one.what == "scale" for one in self._seen)
        self._tare = float(self.belief.mean[TARE]) if weighed or self._prior.tare_g else None

    @property
    def _way(self) -> Way:
        """The way of the pot by what it is believed to have begun with."""
        return self.belief.way

    def _way_if(self, believed: Vector) -> Way:
        return self.belief.way_if(float(believed[FULL]))

    @property
    def begun(self) -> Pot:
        """The pot before the step, as it is seen to have been."""
        if self._prior.full_g is not None:
            return self._ways.before
        return self._ways.begun_with(self.belief.begun_g)

    @property
    def went_in(self) -> WentIn | None:
        """What went in before the step, as it is seen to have; None: that cannot be told."""
        return None if self._prior.full_g is not None else self._ways.went_in(self.belief.begun_g)

    def told(self) -> Watched:
        way, belief = self._way, self.belief
        stop = self._stop()
        goal = None if stop is None else self._goal(stop(belief.mean))
        boils_in_min, minutes_left, mass, share_left, level_mm, eta = self.figures()
        return Watched(
            at_min=self._now,
            boils_in_min=boils_in_min,
            mass_g=mass,
            scale_g=self._on_scale(belief.mass_g),
            level_mm=level_mm,
            share_left=share_left,
            viscosity_pa_s=eta,
            film_mm=film_mm(eta.value),
            grade=grade_of(eta.value),
            fat_share=way.at(belief.mass_g, way.fat_share),
            g_per_min=way.at(belief.mass_g, way.g_per_min) * belief.pace,
            pace=self._guess(lambda x: x[PACE], math.exp),
            strength=self._guess(lambda x: x[STRENGTH] / K.FLOUR_EXPONENT, math.exp),
            goal=goal,
            minutes_left=minutes_left,
            past=None if goal is None else _past(mass, goal.mass_g),
            passing=tuple(self._passing()),
            track=self._track(goal),
            looked=len([one for one in self._seen if one.what != "boils"]),
            jumps=tuple(belief.jumps),
            notes=tuple(self._notes(goal)),
        )

    @property
    def _most_g(self) -> float:
        """More than what went in cannot be in the pot, g; unless it was seen to weigh more all at once."""
        belief = self.belief
        went_in = float(belief.mean[FULL]) + K.NINE_IN_TEN * belief.spread(FULL)
        return math.inf if belief.jumps and belief.mass_g > went_in else went_in

    @property
    def tare_g(self) -> float | None:
        """What the pan weighs, as entered or as the scale has told; None while neither says so."""
        told = self.belief.spread(TARE) < 3.0 * K.TARE_SPREAD_G
        return self._tare if told else self._prior.tare_g or None

    @property
    def stops_at(self) -> float:
        """Grams in the pot where the step is to stop: there where it stops by what is seen, and else once
        its minutes are over."""
        stop = self._stop()
        if stop is not None:
            return stop(self.belief.mean)
        step = self._checked.sheet.steps[self._number]
        assert isinstance(step, Reduce | Simmer)
        minutes = step.minutes if isinstance(step, Simmer) else step.stop and step.stop.minutes
        on = self._by_itself()
        on.go_on(on.boils_at + max(0.0, (minutes or 0.0) - self._prior.boiled_min))
        return on.mass_g

    def _by_itself(self) -> Belief:
        """What is believed, to go on with: what is believed now stays."""
        return self.belief.apart()

    def on(self, minutes: float) -> "Watching":
        """So many minutes from now, nothing more having been seen; this stays as it is."""
        there = self._apart()
        there._now = self._now + minutes
        there.belief.go_on(there._now)
        return there

    def seeing(self, what: SeenKind, value: float) -> "Watching":
        """With one more look taken now; this stays as it is."""
        there = self._apart()
        look = Seen(self._now, what, value, by_hand=True)
        there._seen = [*self._seen, look]
        boiling = (self.belief.boils_at, self.belief.boil_seen)
        if what not in _SAYS_BOILING or boils_at(there._seen, self._ways.planned) == boiling:
            there.belief.take(look)
        else:  # it has boiled for longer, or less long, than was believed: all of it anew
            there.belief = Belief(self._ways, self._prior).follow(there._seen, self._now)
        return there

    def _apart(self) -> "Watching":
        there = copy(self)
        there.belief = self.belief.apart()
        return there

    def figures(self) -> tuple[float, Guess | None, Guess, Guess, Guess, Guess]:
        """Minutes until it boils, minutes left, grams, the share of its liquid left, mm, Pa·s: as :meth:`told` has
        them."""
        belief, stop, points = self.belief, self._stop(), self._points()
        full = float(belief.mean[FULL])
        least = max(full - K.NINE_IN_TEN * belief.spread(FULL), LEAST * full)
        lightest = float(belief.way_if(least).mass_g[0])

        def share_left(x: Vector) -> float:
            return self._way_if(x).share_left(float(x[MASS]), float(x[FULL]))

        def level_mm(x: Vector) -> float:
            return self._way.at(float(x[MASS]), self._way.level_mm)

        def log_eta(x: Vector) -> float:
            way = self._way_if(x)
            return way.at(float(x[MASS]), way.log_eta) + float(x[STRENGTH])

        return (
            max(0.0, belief.boils_at - self._now),
            None if stop is None else self._minutes_to(stop, points),
            _within(self._mass(), lightest, self._most_g),
            _within(self._guess(share_left, points=points), 0.0, 1.0),
            self._guess(level_mm, points=points),
            self._guess(log_eta, math.exp, points),
        )

    @property
    def mass_spread_g(self) -> float:
        """How far what is in the pot may be off, one standard spread, g: a scale that stays under it drifts besides."""
        live = [look.at_min for look in self._seen if look.what == "scale" and not look.by_hand]
        drifted = K.SCALE_DRIFTS_G_MIN * (self._now - min(live)) if live else 0.0
        return math.hypot(self.belief.spread(MASS), drifted)

    def _mass(self) -> Guess:
        mass_g, off = self.belief.mass_g, K.NINE_IN_TEN * self.mass_spread_g
        return Guess(mass_g, max(0.0, mass_g - off), mass_g + off)

    # -- where it stops

    def _stop(self) -> Callable[[Vector], float] | None:
        """Grams in the pot where the step stops, by what is believed; None: it stops by the clock."""
        step = self._checked.sheet.steps[self._number]
        if isinstance(step, Simmer):
            return None
        assert isinstance(step, Reduce)
        stop = step.stop
        planned = self._checked.steps[self._number].pot.total_g
        if stop is not None and stop.grade is not None:
            target = math.log(next(g.target for g in GRADES if g.key == stop.grade))

            def at_its_grade(x: Vector) -> float:
                way, thinner = self._way_if(x), target - float(x[STRENGTH])
                lightest = float(way.mass_g[0])
                never = lightest if thinner > way.log_eta[-1] else float(x[MASS])
                return way.mass_at(thinner, way.log_eta) or never

            return at_its_grade
        if stop is not None and (stop.mass is not None or stop.volume is not None):
            return lambda x: planned
        if stop is not None and stop.minutes is not None:
            return None
        # A share of what there was, whatever that was.
        number = self._number
        began = self._checked.steps[number - 1].pot.total_g if number else planned
        share = self._ways.planned.share_left(planned, began)

        def at_its_share(x: Vector) -> float:
            way = self._way_if(x)
            return max(float(way.mass_g[0]), way.apart_g + share * (float(x[FULL]) - way.apart_g))

        return at_its_share

    def _goal(self, mass_g: float) -> StopsAt:
        way = self._way
        return StopsAt(
            round(mass_g, 1),
            self._on_scale(mass_g),
            round(way.at(mass_g, way.level_mm), 1),
            way.share_left(mass_g, float(self.belief.mean[FULL])),
        )

    def _on_scale(self, mass_g: float) -> float | None:
        return None if self._tare is None else round(mass_g + self._tare, 1)

    # -- how sure

    def _points(self) -> list[Vector]:
        """Sigma points: what is believed, and as far off as it may be in each direction."""
        belief = self.belief
        values, vectors = np.linalg.eigh(belief.cov)
        n = len(values)
        points = [belief.mean]
        for value, vector in zip(values, vectors.T, strict=True):
            off = math.sqrt(max(0.0, float(value)) * n) * vector
            points += [belief.mean + off, belief.mean - off]
        for point in points:
            point[FULL] = max(point[FULL], LEAST * belief.mean[FULL])
            point[MASS] = max(point[MASS], float(self._way_if(point).mass_g[0]))
        return points

    def _moments(
        self, figure: Callable[[Vector], float], points: Sequence[Vector] = ()
    ) -> tuple[float, float]:
        """Figure of what is believed, and its standard spread; ``points``: the sigma points, where they are at hand."""
        first, *rest = [figure(point) for point in points or self._points()]
        return first, float(np.sqrt(np.mean((np.array(rest) - first) ** 2)))

    def _guess(
        self,
        figure: Callable[[Vector], float],
        back: Callable[[float], float] = float,
        points: Sequence[Vector] = (),
    ) -> Guess:
        value, spread = self._moments(figure, points)
        off = K.NINE_IN_TEN * spread
        return Guess(back(value), max(0.0, back(value - off)), back(value + off))

    def _minutes_to(
        self, stop: Callable[[Vector], float], points: Sequence[Vector] = ()
    ) -> Guess | None:
        """Minutes until the pot is as light as ``stop`` says. Zero, where it is."""
        way, belief = self._way, self.belief
        wait = max(0.0, belief.boils_at - self._now)

        def minutes(x: Vector) -> float:
            way = self._way_if(x)
            goal = max(float(stop(x)), float(way.mass_g[0]))
            if x[MASS] <= goal:
                return (float(x[MASS]) - goal) / way.at(goal, way.g_per_min) / math.exp(x[PACE])
            whole = way.at(float(x[MASS]), way.minutes) - way.at(goal, way.minutes)
            return float(whole / math.exp(x[PACE]))

        if belief.mass_g > float(way.mass_g[0]) and stop(belief.mean) < float(way.mass_g[0]):
            return None
        boiling, spread = self._moments(minutes, points)
        wanders = K.PACE_WANDERS * math.sqrt(max(0.0, boiling) / 3.0) * max(0.0, boiling)
        waits = 0.0 if belief.boil_seen else (K.BOIL_UP_SPREAD * wait)
        spread = math.sqrt(spread**2 + wanders**2 + waits**2 + 0.1**2)
        value = max(0.0, boiling) + wait
        if value <= 0.0:
            return Guess(0.0, 0.0, max(0.0, boiling + K.NINE_IN_TEN * spread))
        # To one side a rate cannot fall below nothing: minutes are skewed, as times are.
        by_log = math.sqrt(math.log1p(min(4.0, (spread / value) ** 2)))
        if by_log > 0.8:
            off = K.NINE_IN_TEN * spread
            return Guess(value, max(0.0, value - off), value + off)
        by = math.exp(K.NINE_IN_TEN * by_log)
        return Guess(value, value / by, value * by)

    # -- what it passes

    def _passing(self) -> list[Passing]:
        way, belief = self._way, self.belief
        found = []
        for grade in GRADES:
            if grade.key in _PASSED:
                target = math.log(grade.target)

                def at_its_grade(x: Vector, target: float = target) -> float | None:
                    way = self._way_if(x)
                    return way.mass_at(target - float(x[STRENGTH]), way.log_eta)

                mass = at_its_grade(belief.mean)
                if mass is not None and self._told(mass):
                    found.append(self._pass(grade.key, grade.name, mass, at_its_grade))
        if way.pot.balance.creamy:
            for key, share in zip(("rich", "oily"), EMULSION_EDGES, strict=False):
                at_its_edge = self._so_rich(share)
                mass = at_its_edge(belief.mean)
                if mass is not None:
                    found.append(self._pass(key, say(f"turn-{key}"), mass, at_its_edge))
        return sorted(found, key=lambda one: -one.mass_g)

    def _so_rich(self, share: float) -> Callable[[Vector], float | None]:
        """Where so large a share of it is fat."""

        def stop(x: Vector) -> float | None:
            way = self._way_if(x)
            return way.mass_at(share, way.fat_share)

        return stop

    def _told(self, mass: float) -> bool:
        """Whether a grade is worth a line: it is ahead, and not where next to nothing is left."""
        left = self._way.share_left(mass, self._way.full_g)
        return mass < self._way.full_g and left > 1.0 / K.GLAZE_STRENGTH

    def _pass(
        self, key: str, name: Sentence, mass: float, stop: Callable[[Vector], float | None]
    ) -> Passing:
        way = self._way
        behind = self.belief.mass_g <= mass
        return Passing(
            key,
            name,
            round(mass, 1),
            self._on_scale(mass),
            round(way.at(mass, way.level_mm), 1),
            None if behind else self._minutes_to(lambda x: stop(x) or mass),
        )

    # -- the curve

    def _track(self, goal: StopsAt | None) -> tuple[TrackPoint, ...]:
        """From the beginning to now as it was believed to be, and on to the goal."""
        points = [self._point(*marked) for marked in self.belief.marked]
        lightest = float(self._way.mass_g[0])
        end = goal.mass_g if goal else lightest
        on = self._by_itself()
        for _ in range(60):
            if on.mass_g <= max(end, lightest + 0.5):
                break
            on.go_on(on.at_min + max(0.25, self._now / 30.0))
            points.append(self._point(on.at_min, on.mass_g, on.spread(MASS)))
        return tuple(points)

    def _point(self, at: float, mass: float, spread: float) -> TrackPoint:
        off, way = K.NINE_IN_TEN * spread, self._way
        low, level, high = (
            way.at(max(0.0, grams), way.level_mm) for grams in (mass - off, mass, mass + off)
        )
        return TrackPoint(
            round(at, 2), round(mass, 1), round(level, 1), round(low, 1), round(high, 1)
        )

    # -- what to tell

    def _notes(self, goal: StopsAt | None) -> list[Sentence]:
        way, belief = self._way, self.belief
        notes = []
        turns_oily = self._so_rich(EMULSION_EDGES[1])
        oily = turns_oily(belief.mean) if way.pot.balance.creamy else None
        if oily is not None:
            near = self._minutes_to(lambda x: turns_oily(x) or oily)
            if belief.mass_g <= oily:
                notes.append(say("watch.oily-now"))
            elif near is not None and near.low < K.WARN_BEFORE_MIN:
                notes.append(say("watch.oily-soon", minutes=near.value))
            if goal is not None and goal.mass_g < oily:
                notes.append(say("watch.goal-is-oily"))
        weighed = any(one.what == "scale" for one in self._seen)
        if weighed and belief.jumps and self._now - belief.jumps[-1] < K.JUMP_TOLD_MIN:
            notes.append(say("watch.jumped"))
        pace = belief.pace
        if belief.spread(PACE) < 0.2 and len(self._seen) > 2:
            if pace < 1.0 / K.PACE_TOLD:
                notes.append(say("watch.slow", pct=100.0 * (1.0 - pace)))
            elif pace > K.PACE_TOLD:
                notes.append(say("watch.quick", pct=100.0 * (pace - 1.0)))
        return notes
