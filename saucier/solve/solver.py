"""Bracketed root finding for scale and flour (or the last reduction)."""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from functools import cached_property

from saucier import constants as K
from saucier.check import DEFAULT_KITCHEN, Prepared, check, prepare
from saucier.errors import BadInput, Problem
from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.pot import Pot
from saucier.roots import find_root
from saucier.sheet import Sheet, SheetPan
from saucier.solve.goal import Goal
from saucier.solve.have import used_of
from saucier.solve.stops import stops_as_written
from saucier.steps import (
    AS_WRITTEN,
    AnyStep,
    Knobs,
    Pouring,
    Reduce,
    Use,
    free_ratio,
    free_reduction,
    thickening_by,
)
from saucier.steps.reduce import Stop
from saucier.steps.step import Move
from saucier.thickness import (
    EMULSION_EDGES,
    GRADES,
    LIQUID,
    THIN,
    TURNED,
    Thickness,
    grade_named,
    grade_of,
    log_excess,
    mass_at_fat_share,
    spoken_grade,
    thickness_of,
)
from saucier.units import Dimension
from saucier.words import Sentence, say

_GRADE_XTOL = 1e-6
_SIZE_RTOL = 1e-6
_SIZE_MISSED = 1e-3
_DOUBLED = 10
_LARGEST_SCALE = 1e5
SPOILS = frozenset(
    {"yolk-grains", "liaison-boiled", "soft-cream-boiled", "curdles", "no-starch", "much-cheese"}
)
"""Remarks no grade is worth."""
_BY_AMOUNT = ("flour", "cheese")
"""What is turned by how much of it goes in."""
_SHORT_OF_IT = 0.004
_SHORT_OF_OILY = 0.02
_MOST_TURNED = 8.0
"""The furthest the free variable is turned, as a logarithm: 3000 times the flour, or a 3000th left."""


@dataclass(frozen=True, slots=True)
class Solved:
    """``sheet`` re-proportioned and scaled; ``free`` says what was turned for the grade
    (``flour``, ``reduction``, ``cheese`` or ``nothing``), ``knobs`` by how much."""

    sheet: Sheet
    free: str
    knobs: Knobs


class Unreachable(BadInput):
    """No solution. ``nearest`` is the sheet that comes nearest, to be taken instead; None where
    there is none."""

    def __init__(self, *problems: Problem, nearest: Sheet | None = None) -> None:
        super().__init__(*problems)
        self.nearest = nearest

    def under(self, prefix: str) -> "Unreachable":
        return Unreachable(*super().under(prefix).problems, nearest=self.nearest)


class _Missed(Exception):
    """A grade that cannot be had at some scale: the knobs nearest to it, looked for only where somebody
    asks (a search for a size misses many grades on its way), and why."""

    def __init__(self, nearest: Callable[[], Knobs], because: Sentence) -> None:
        super().__init__(because)
        self._nearest, self.because = nearest, because

    @cached_property
    def knobs(self) -> Knobs:
        return self._nearest()


def solve(
    sheet: Sheet, goal: Goal, kitchen: Kitchen = DEFAULT_KITCHEN, *, as_found: bool = False
) -> Solved:
    """``sheet`` with amounts that meet ``goal``.

    Flour is free for the grade, its fat following ``method.fat_to_flour`` (or the roux as
    written); without a roux the last reduction is, without that the cheese melted in. All other amounts scale together while
    minutes do not, so the two are solved together. With no grade asked for the flour keeps the
    sauce as thick as it is, and a reduction stops where it says. Where no pan is named the one a
    cook would reach for at that size is taken. No solution passes through an oily or split pot,
    unless it is a pot ``as_found``.

    Raises :class:`BadInput` (:class:`Unreachable` where something near can be had): field
    ``grade`` or ``volume``, with the nearest that can be reached.

    >>> from saucier.testing import add, roux, sheet, simmer
    >>> from saucier.solve import goal_of
    >>> white = sheet(roux(60, 60), add('milk-whole', 1, 'L'), simmer(5))
    >>> thick = solve(white, goal_of(white, 'binding')).sheet
    >>> thick.steps[0].flour.amount.value > white.steps[0].flour.amount.value
    True
    """
    if not sheet.steps:
        raise BadInput.at("steps", "there-are-none-to-solve-for")
    if not as_found and (kept := _by_its_grade(sheet, goal, kitchen)):
        return kept
    if not as_found and (goal.volume or goal.have):
        written = stops_as_written(sheet, kitchen)
        if written is not sheet:
            scaled = _solved(written, goal, kitchen, as_found)
            if abs(scaled.knobs.scale - 1.0) > K.SAME_SIZE:
                return scaled
    solved = _solved(sheet, goal, kitchen, as_found)
    if solved.free == "cheese" and check(solved.sheet, kitchen).final.thickness.grade is None:
        # So much cheese that it is no sauce any more: that it is near the edge shows only once it is sized.
        raise BadInput.at("grade", "cannot-be-reached-by-this-sheet")
    return solved


def _solved(sheet: Sheet, goal: Goal, kitchen: Kitchen, as_found: bool) -> Solved:
    tried: list[tuple[Pan, ...]] = []
    prepared = prepare(sheet, kitchen)
    while True:
        solving = _Solving(prepared, goal, kitchen, as_found)
        likely = prepare(sheet, kitchen, times=solving.likely_scale)
        if likely.pans != prepared.pans and likely.pans not in tried:
            tried.append(prepared.pans)
            prepared = likely
            continue
        solved = solving.solved()
        actual = prepare(solved.sheet, kitchen)
        if actual.pans == prepared.pans:
            return solved
        tried.append(prepared.pans)
        following = prepare(sheet, kitchen, actual.pan, solved.knobs.scale)
        if actual.pans in tried or following.pans in tried:
            # Each of two pans leads to the other, or what was turned inside asks for another pan
            # than its scale alone does: those it was solved in are named.
            steps = _in_pans(solved.sheet.steps, prepared.moves)
            named = {"pan": SheetPan.of(prepared.pan), "steps": steps}
            return replace(solved, sheet=solved.sheet.model_copy(update=named))
        prepared = following


def _in_pans(steps: tuple[AnyStep, ...], moves: tuple[Move, ...]) -> tuple[AnyStep, ...]:
    """``steps`` with the pans named in which the sauces made for them were prepared."""
    named: list[AnyStep] = []
    for step, move in zip(steps, moves, strict=True):
        if isinstance(step, Use) and isinstance(move, Pouring) and step.inside:
            inside = _in_pans(step.sauce.steps, move.inside.moves)
            pan = {"pan": SheetPan.of(move.inside.pan), "steps": inside}
            step = step.model_copy(update={"sauce": step.sauce.model_copy(update=pan)})
        named.append(step)
    return tuple(named)


def _by_its_grade(sheet: Sheet, goal: Goal, kitchen: Kitchen) -> Solved | None:
    """A sauce whose last reduction stops at a grade, solved by that stop alone where it can be: it
    stays that grade when something before it changes."""
    at = free_reduction(sheet)
    step = sheet.steps[at] if at is not None else None
    if not isinstance(step, Reduce) or not step.stop or not step.stop.grade:
        return None
    wanted = next((g for g in GRADES if goal.viscosity_pa_s == g.target), None)
    if wanted is None:
        if goal.viscosity_pa_s is not None:
            return None
        wanted = grade_named(step.stop.grade)
    stopped = step.model_copy(update={"to": Stop(grade=wanted.key)})
    steps = tuple(stopped if number == at else one for number, one in enumerate(sheet.steps))
    stays = sheet.model_copy(update={"steps": steps})
    try:
        sized = solve(stays, replace(goal, viscosity_pa_s=None), kitchen, as_found=True)
    except BadInput:
        return None
    pots = list(prepare(sized.sheet, kitchen).walk())
    final = thickness_of(pots[-1], sheet.target.serving_c)
    asked = goal.viscosity_pa_s is not None
    if (asked and final.grade != wanted.key) or any(_turned(pot) for pot in pots):
        return None
    return replace(sized, free="reduction")


def _turned(pot: Pot) -> bool:
    """Whether a pot is oily or split."""
    return thickness_of(pot, 65.0).emulsion in TURNED


class _Solving:
    """One sheet solved in one pan."""

    def __init__(
        self,
        prepared: Prepared,
        goal: Goal,
        kitchen: Kitchen,
        as_found: bool,
        *,
        nested: bool = False,
    ) -> None:
        self._prepared, self._sheet = prepared, prepared.sheet
        self._goal, self._kitchen, self._as_found = goal, kitchen, as_found
        self._nested = nested
        self._free = thickening_by(self._sheet)
        self._ratio = free_ratio(self._sheet)
        self._measure = _measure_for(goal, prepared)

    @property
    def likely_scale(self) -> float:
        """About the scale that will come out: by plain multiplication."""
        if self._measure is None:
            return 1.0
        amount, wanted, _ = self._measure
        made = _as_written(amount, self._prepared.play, Knobs(fat_to_flour=self._ratio))
        return wanted / max(made, 1e-12)

    def solved(self) -> Solved:
        free, base = self._free, Knobs(fat_to_flour=self._ratio)
        viscosity = self._goal.viscosity_pa_s
        if (thin := self._wanted_thin()) is not None:
            viscosity, free, base = thin, "nothing", AS_WRITTEN
        elif viscosity is None:
            viscosity = _present_viscosity(self._prepared)
            # No grade asked for: the flour keeps it as thick as it is, a reduction stops where it says.
            if viscosity is None or free not in _BY_AMOUNT or self._as_found:
                free, base = "nothing", AS_WRITTEN
        elif free == "nothing":
            raise BadInput.at(
                "grade",
                "this-sauce-has-neither-a-roux",
            )
        search = _Search(self._prepared, base, free, viscosity, self._as_found)
        try:
            knobs = search.sized(self._measure)
        except _Missed as missed:
            if within := self._within_its_grade(missed, search, free):
                return within
            raise self._unreachable(missed, search) from None
        return Solved(self._turned_by(knobs), free, knobs)

    def _wanted_thin(self) -> float | None:
        """How thick a sauce is that is to be a liquid and is one: how thin, its sheet says."""
        if self._goal.viscosity_pa_s != THIN.target:  # a figure asked for is that figure
            return None
        there = _present_viscosity(self._prepared)
        return there if there is not None and grade_of(there) == LIQUID else None

    def _turned_by(self, knobs: Knobs) -> Sheet:
        steps = zip(self._sheet.steps, self._prepared.settings, strict=True)
        turned = tuple(step.turned(knobs, setting) for step, setting in steps)
        return self._sheet.model_copy(update={"steps": turned})

    def _within_its_grade(self, missed: _Missed, search: "_Search", free: str) -> Solved | None:
        """The furthest it can be taken, where that is in the grade asked for though not its middle."""
        wanted, there = self._goal.viscosity_pa_s, search.state(missed.knobs).viscosity_pa_s
        if wanted is None or there is None or grade_of(there) != grade_of(wanted):
            return None
        nearest = self._nearest(missed.knobs, there)
        return Solved(nearest, free, missed.knobs) if nearest else None

    def _unreachable(self, missed: _Missed, search: "_Search") -> BadInput:
        """That it cannot be had, and the nearest that can, in amounts."""
        at = search.first_turned(missed.knobs)
        state = search.state(missed.knobs)
        if at is not None:
            return self._turned_before(at, missed.knobs)
        if state.viscosity_pa_s is None:
            return BadInput.at("grade", "has-no-grade", why=state.reason)
        nearest = self._nearest(missed.knobs, state.viscosity_pa_s)
        facts = {
            "why": missed.because,
            "grade": spoken_grade(grade_of(state.viscosity_pa_s)),
            "viscosity_pa_s": state.viscosity_pa_s,
        }
        if nearest is None:
            return Unreachable(Problem("grade", "grade-out-of-reach-here", facts))
        facts["amounts"] = self._in_amounts(nearest)
        return Unreachable(Problem("grade", "grade-out-of-reach-but-near", facts), nearest=nearest)

    def _turned_before(self, at: int, knobs: Knobs) -> BadInput:
        """That step ``at`` turns oily whatever is solved for, and where it should stop."""
        step = self._sheet.steps[at]
        field = "volume" if self._goal.viscosity_pa_s is None else "grade"
        pots = [Pot(), *self._prepared.walk(knobs)]
        share = _last_sound_share(pots[at], pots[at + 1])
        if not isinstance(step, Reduce) or share is None:
            return BadInput.at(field, "turns-oily-on-the-way", step=at + 1)
        stopped = step.model_copy(update={"to": Stop(share=share)})
        steps = tuple(stopped if n == at else one for n, one in enumerate(self._sheet.steps))
        nearest = None
        if not self._nested:
            sooner = self._sheet.model_copy(update={"steps": steps})
            try:
                again = prepare(sooner, self._kitchen, self._prepared.pan)
                nearest = _Solving(again, self._goal, self._kitchen, False, nested=True).solved()
            except BadInput:
                pass
        facts = {"step": at + 1, "share_pct": 100 * share}
        return Unreachable(
            Problem(field, "turns-oily-at-its-stop", facts),
            nearest=nearest.sheet if nearest else None,
        )

    def _nearest(self, knobs: Knobs, viscosity: float) -> Sheet | None:
        """The nearest that can be had, brought to its size."""
        turned = self._turned_by(knobs)
        goal = replace(self._goal, viscosity_pa_s=None)
        try:
            pan = self._prepared.pan
            as_turned = prepare(turned, self._kitchen, pan)
            again = _Solving(as_turned, goal, self._kitchen, True).solved().sheet
            sound = not any(map(_turned, prepare(again, self._kitchen, pan).walk()))
        except BadInput:
            return None
        # What it can be is what it is for now: the next solve need not fail again.
        grade = grade_of(viscosity)
        target = again.target.model_copy(update={"grade": None if grade == LIQUID else grade})
        return again.model_copy(update={"target": target}) if sound else None

    def _in_amounts(self, sheet: Sheet) -> tuple[Sentence, ...]:
        """The most of what goes into ``sheet``, and where its last reduction stops."""
        prepared = prepare(sheet, self._kitchen, self._prepared.pan)
        weighed = [
            one
            for step, setting in zip(sheet.steps, prepared.settings, strict=True)
            for one in step.to_weigh(setting)
        ]
        most = sorted(weighed, key=lambda one: -one.grams)[:3]
        told = [say("so-many-grams", grams=one.grams, name=one.name.lower()) for one in most]
        at = free_reduction(sheet)
        if at is not None:
            left_g = list(prepared.walk())[at].total_g
            told.append(say("boiled-down-to-grams", left_g=left_g))
        return tuple(told)


def _last_sound_share(before: Pot, after: Pot) -> float | None:
    """The share of its liquid at which boiling ``before`` down should have stopped, short of oily;
    None where it was oily from the beginning."""
    liquid = before.balance.liquid_g
    oily = mass_at_fat_share(after.balance, EMULSION_EDGES[1]) - after.balance.swimming_fat_g
    share = math.ceil(100.0 * (1.0 + _SHORT_OF_OILY) * oily / max(liquid, 1e-9)) / 100.0
    return share if share < 1.0 else None


def _present_viscosity(prepared: Prepared) -> float | None:
    pot = prepared.play()
    return thickness_of(pot, prepared.sheet.target.serving_c).viscosity_pa_s


def _as_written(
    amount: Callable[[Pot, Knobs], float], play: Callable[[Knobs], Pot], base: Knobs
) -> float:
    """The size of the batch as it is written; where so little would boil dry in the pan of a larger
    one, reckoned from twice as much, four times … Raises what playing it raises."""
    refused: BadInput | None = None
    for doubled in range(_DOUBLED):
        scale = 2.0**doubled
        knobs = base._replace(scale=base.scale * scale)
        try:
            return amount(play(knobs), knobs) / scale
        except BadInput as bad:
            refused = refused or bad
    assert refused is not None
    raise refused


Measure = tuple[Callable[[Pot, Knobs], float], float, str]
"""What measures the size of a batch, what it should come to, and the field that asked."""


def _measure_for(goal: Goal, prepared: Prepared) -> Measure | None:
    if goal.have is not None:
        used, there = used_of(goal.have, prepared)
        return lambda pot, knobs: used(knobs), there, "have.amount"
    if goal.volume is None:
        return None
    if goal.volume.dimension is Dimension.WEIGHT:
        return lambda pot, knobs: pot.yield_g, goal.volume.base, "volume"
    return lambda pot, knobs: pot.yield_ml, goal.volume.base, "volume"


class _Search:
    """One solve: for any scale the free variable that meets the grade, then the scale that
    meets the size."""

    def __init__(
        self,
        prepared: Prepared,
        base: Knobs,
        free: str,
        viscosity: float | None,
        as_found: bool,
    ) -> None:
        self._prepared, self._base, self._free = prepared, base, free
        self._wanted_pa_s = viscosity or 1.0
        self._as_found = as_found
        self._told: set[str] | None = None
        self._guess: float | None = None
        self._played: dict[Knobs, Pot] = {}

    def sized(self, measure: Measure | None) -> Knobs:
        """The knobs that meet grade and size. Raises :class:`BadInput` or :class:`_Missed` where
        none do, or where they lead through an oily pot."""
        knobs = self._graded(self._scale_for(measure) if measure else 1.0)
        if self.first_turned(knobs) is not None:
            raise _Missed(lambda: knobs, say("missed-turns-oily"))
        if spoiled := self._spoiled(knobs):
            raise _Missed(lambda: self._most_that_holds(knobs), say("missed-spoiled", why=spoiled))
        return knobs

    def first_turned(self, knobs: Knobs) -> int | None:
        """The first step after which the pot is oily or split; None where none is."""
        if self._as_found:
            return None
        inside = {
            number: move
            for number, move in enumerate(self._prepared.moves)
            if isinstance(move, Pouring)
        }
        for number, pot in enumerate(self._prepared.walk(knobs)):
            if _turned(pot) or (number in inside and any(map(_turned, inside[number].pots(knobs)))):
                return number
        return None

    def _spoiled(self, knobs: Knobs) -> Sentence | None:
        """What would spoil the sauce at ``knobs`` and does not as it is written: a
        solve never trades a warning for a grade. None where nothing does."""
        if self._as_found or self._free == "nothing":
            return None
        if self._told is None:
            try:
                as_written = list(self._prepared.walk(AS_WRITTEN))
            except BadInput:  # so little of it boils dry in this pan
                as_written = []
            self._told = {remark.code for pot in as_written for remark in pot.remarks}
        for pot in self._prepared.walk(knobs):
            for remark in pot.remarks:
                if remark.code in SPOILS - self._told:
                    return remark
        return None

    def _scale_for(self, measure: Measure) -> float:
        """The scale at which the batch, solved for its grade, has the size wanted."""
        amount, wanted, field = measure

        known: dict[float, float] = {}

        def excess(log_scale: float) -> float:
            # Where a grade is just in reach it hangs on where its search began: asked twice, a size
            # answers the same, or a bracket would be none.
            if log_scale not in known:
                try:
                    knobs = self._graded(math.exp(log_scale))
                    made = max(amount(self._play(knobs), knobs), 1e-12)
                    known[log_scale] = math.log(made / wanted)
                except (BadInput, _Missed):
                    known[log_scale] = -math.inf  # so small that its simmering boils it too far
            return known[log_scale]

        # Start where plain multiplication would land; what a pan boils off does not scale,
        # so the true scale lies a little off it.
        start = _as_written(amount, self._play, self._base)
        if start <= 0.0 or wanted <= 0.0:
            raise BadInput.at(field, "nothing-is-left-in-the-pot")
        guess = math.log(wanted / start)
        if guess > math.log(_LARGEST_SCALE):
            raise BadInput.at(field, "is-out-of-all-proportion-to")
        missed: _Missed | None = None
        if not math.isfinite(excess(guess)):
            # Simmering weighs little on a large batch: what fails there fails at any size.
            self._graded(max(1.0, 100.0 * math.exp(guess)))
            try:
                self._graded(math.exp(guess))
            except _Missed as short:
                missed = short
            except BadInput:
                pass
        low, high = self._bracket(excess, guess, field)
        log_scale = low if low == high else find_root(excess, low, high, _SIZE_RTOL)
        if abs(excess(log_scale)) > _SIZE_MISSED:
            if missed is not None:  # at this size it is the grade that cannot be had
                raise missed
            least = wanted * math.exp(excess(high))
            raise BadInput.at(
                field,
                "so-small-a-batch-would-boil",
                least=least,
            )
        return math.exp(log_scale)

    @staticmethod
    def _bracket(excess: Callable[[float], float], guess: float, field: str) -> tuple[float, float]:
        """Scales (logarithms) on either side of the size wanted. Size is nearly proportional
        to scale, so a step of the excess and a little more lands beyond the root."""
        at, here, reach = guess, excess(guess), 0.02
        for _ in range(60):
            if here == 0.0:
                return at, at
            step = here * (1.0 + reach) if math.isfinite(here) else -0.3
            onward = at - step - math.copysign(1e-9, here)
            there = excess(onward)
            if (there > 0.0) != (here > 0.0):
                return (onward, at) if onward < at else (at, onward)
            at, here, reach = onward, there, reach * 2.0
        raise BadInput.at(field, "cannot-be-reached-by-this-sheet")

    def _graded(self, scale: float) -> Knobs:
        """The knobs at ``scale`` with the free variable solved for the grade."""
        base = self._base._replace(scale=scale)
        if self._free == "nothing":
            return base
        if self._free in _BY_AMOUNT:
            return self._by_flour(base)
        return self._by_reduction(base)

    def _excess(self, knobs: Knobs) -> float:
        """:func:`log_excess` of the sauce at ``knobs``."""
        pot = self._play(knobs)
        if not pot.wetted:
            raise BadInput.at("grade", "nothing-liquid-goes-into-this-sauce")
        return log_excess(pot, self._wanted_pa_s, self._prepared.sheet.target.serving_c)

    def _by_flour(self, base: Knobs) -> Knobs:
        """Flour that meets the grade; its logarithm is what is searched."""
        return self._by(lambda log_flour: base._replace(flour=math.exp(log_flour)), 0.0, -12.0)

    def _by_reduction(self, base: Knobs) -> Knobs:
        """The share left that meets the grade; minus its logarithm is what is searched."""
        return self._by(lambda log_loss: base._replace(share=math.exp(-log_loss)), 0.7, 0.0)

    def _by(self, knobs_at: Callable[[float], Knobs], start: float, least: float) -> Knobs:
        """The knobs where the excess is nil, searched along one variable in which the sauce
        only thickens, from ``start`` and never below ``least``. Raises :class:`_Missed`."""

        def excess(x: float) -> float:
            return self._excess(knobs_at(x))

        if self._guess is None and excess(least) > 0.0:
            raise _Missed(lambda: knobs_at(least), say("missed-as-thin-as-it-goes"))
        where = (start, 0.05) if self._guess is None else (self._guess, 0.002)
        bracket = self._around(excess, *where, least)
        if bracket is None:
            most = knobs_at(_MOST_TURNED)
            raise _Missed(lambda: self._most_that_holds(most), say("missed-as-far-as-it-goes"))
        self._guess = find_root(excess, *bracket, _GRADE_XTOL)
        knobs = knobs_at(self._guess)
        if not self._holds(knobs):
            raise _Missed(lambda: self._most_that_holds(knobs), say("missed-as-far-as-it-goes"))
        return knobs

    @staticmethod
    def _around(
        excess: Callable[[float], float], start: float, width: float, least: float
    ) -> tuple[float, float] | None:
        """A bracket of the root about ``start``, widened by doubling; None where there is none."""
        at, here = start, excess(start)
        for _ in range(40):
            onward = min(_MOST_TURNED, max(least, at - math.copysign(width, here)))
            there = excess(onward)
            if (there > 0.0) != (here > 0.0):
                return (onward, at) if onward < at else (at, onward)
            if onward in (least, _MOST_TURNED):
                return None
            at, here, width = onward, there, width * 3.0
        return None

    def _most_that_holds(self, beyond: Knobs) -> Knobs:
        """The knobs furthest towards ``beyond`` at which the formula still gives a number, and no
        pot on the way has turned."""
        flour = self._free in _BY_AMOUNT
        low, high = (1e-6, beyond.flour) if flour else (1.0, beyond.share or 0.0)
        if flour and self._sound(beyond._replace(flour=1.0)):
            low = 1.0  # as it is written; what is asked for may be less flour as well as more
        for _ in range(50):
            middle = 0.5 * (low + high)
            trial = beyond._replace(flour=middle) if flour else beyond._replace(share=middle)
            low, high = (middle, high) if self._sound(trial) else (low, middle)
        # A little short of the very edge, so that it still holds once it is sized and weighed.
        short = -_SHORT_OF_IT if flour and high > low else _SHORT_OF_IT
        back = (1.0 + short) * low if flour else min(1.0, (1.0 + short) * low)
        return beyond._replace(flour=back) if flour else beyond._replace(share=back)

    def _play(self, knobs: Knobs) -> Pot:
        pot = self._played.get(knobs)
        if pot is None:
            pot = self._played[knobs] = self._prepared.play(knobs)
        return pot

    def state(self, knobs: Knobs) -> Thickness:
        return thickness_of(self._play(knobs), self._prepared.sheet.target.serving_c)

    def _holds(self, knobs: Knobs) -> bool:
        """Whether the formula gives a number there, for a sauce that has not turned."""
        try:
            state = self.state(knobs)
        except BadInput:
            return False
        turned = state.emulsion in TURNED and not self._as_found
        return state.viscosity_pa_s is not None and not turned

    def _sound(self, knobs: Knobs) -> bool:
        if not self._holds(knobs) or self.first_turned(knobs) is not None:
            return False
        return self._spoiled(knobs) is None
