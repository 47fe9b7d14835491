"""Bracketed root finding for scale and flour (or the last reduction)."""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import NoReturn

from saucier.check import DEFAULT_KITCHEN, FLOURED, Prepared, prepare, thickening_by, thickness_of
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.pot import Pot
from saucier.sheet import Sheet
from saucier.solve.goal import Goal
from saucier.solve.roots import find_root
from saucier.steps import AS_WRITTEN, Dust, Knobs, Roux
from saucier.thickness import Thickness, grade_of, raw_viscosity_pa_s
from saucier.thickness.viscosity import at_temperature
from saucier.units import Dimension

_GRADE_XTOL = 1e-6
_SIZE_RTOL = 1e-6
_SIZE_MISSED = 1e-3
_LARGEST_SCALE = 1e5


@dataclass(frozen=True, slots=True)
class Solved:
    """``sheet`` re-proportioned and scaled; ``free`` says what was turned for the grade
    (``flour``, ``reduction`` or ``nothing``), ``knobs`` by how much."""

    sheet: Sheet
    free: str
    knobs: Knobs


def solve(sheet: Sheet, goal: Goal, kitchen: Kitchen = DEFAULT_KITCHEN) -> Solved:
    """``sheet`` with amounts that meet ``goal``.

    Flour is free for the grade, its fat following ``method.fat_to_flour`` (or the roux as
    written); without a roux the last reduction is. All other amounts scale together while
    minutes do not, so the two are solved together. With no grade asked for the sauce keeps
    the thickness it has.

    Raises :class:`BadInput`: field ``grade`` or ``volume``, with the nearest that can be
    reached.
    """
    if not sheet.steps:
        raise BadInput.at("steps", "there are none to solve for", "Give the sauce its steps")
    prepared = prepare(sheet, kitchen)
    free = thickening_by(sheet)
    ratio = sheet.method.fat_to_flour if free == "flour" else None
    base = Knobs(fat_to_flour=ratio)
    viscosity = goal.viscosity_pa_s
    if viscosity is None:
        viscosity = _present_viscosity(prepared)
        if viscosity is None or free == "nothing":
            free, base = "nothing", AS_WRITTEN
    elif free == "nothing":
        raise BadInput.at(
            "grade",
            "this sauce has neither a roux nor a reduction to thicken it by",
            "Add a roux or a reduction, or leave the grade open",
        )
    search = _Search(prepared, base, free, viscosity)
    knobs = search.sized(_measure_for(goal, sheet, kitchen, prepared))
    turned = sheet.model_copy(
        update={
            "steps": tuple(
                step.turned(knobs, setting)
                for step, setting in zip(sheet.steps, prepared.settings, strict=True)
            )
        }
    )
    return Solved(turned, free, knobs)


def _present_viscosity(prepared: Prepared) -> float | None:
    pot = prepared.play()
    return thickness_of(pot, prepared.sheet.target.serving_c).viscosity_pa_s


Measure = tuple[Callable[[Pot, Knobs], float], float, str]
"""What measures the size of a batch, what it should come to, and the field that asked."""


def _measure_for(goal: Goal, sheet: Sheet, kitchen: Kitchen, prepared: Prepared) -> Measure | None:
    if goal.have is not None:
        return _measure_of_have(goal, kitchen, prepared)
    if goal.volume is None:
        return None
    if goal.volume.dimension is Dimension.WEIGHT:
        return lambda pot, knobs: pot.total_g, goal.volume.base, "volume"
    return lambda pot, knobs: pot.total_ml, goal.volume.base, "volume"


def _measure_of_have(goal: Goal, kitchen: Kitchen, prepared: Prepared) -> Measure:
    assert goal.have is not None
    key = goal.have.ingredient
    row = kitchen.larder[key]
    plain = flour = fat = 0.0
    roux_flour = 0.0
    for step, setting in zip(prepared.sheet.steps, prepared.settings, strict=True):
        for weighed in step.to_weigh(setting):
            turned = isinstance(step, Dust) or weighed.field.startswith("flour")
            if isinstance(step, Roux) and turned:
                roux_flour += weighed.grams
            if weighed.ingredient != key:
                continue
            if not isinstance(step, FLOURED):
                plain += weighed.grams
            elif turned:
                flour += weighed.grams
            else:
                fat += weighed.grams
    if not plain and not flour and not fat:
        raise BadInput.at(
            "have.ingredient",
            f"{row.name} is not weighed into this sauce",
            "Pick one of its ingredients",
        )
    try:
        wanted = row.grams(goal.have.amount)
    except BadInput as bad:
        raise bad.under("have.amount") from None

    def used(pot: Pot, knobs: Knobs) -> float:
        flour_now = knobs.scale * knobs.flour
        if knobs.fat_to_flour is None:
            fat_now = fat * knobs.scale
        else:
            fat_now = roux_flour * flour_now * knobs.fat_to_flour if fat else 0.0
        return plain * knobs.scale + flour * flour_now + fat_now

    return used, wanted, "have.amount"


class _Search:
    """One solve: for any scale the free variable that meets the grade, then the scale that
    meets the size."""

    def __init__(self, prepared: Prepared, base: Knobs, free: str, viscosity: float | None) -> None:
        self._prepared, self._base, self._free = prepared, base, free
        self._log_target = math.log(viscosity) if viscosity else 0.0
        self._guess: float | None = None
        self._played: dict[Knobs, Pot] = {}

    def sized(self, measure: Measure | None) -> Knobs:
        """The knobs that meet grade and size. Raises :class:`BadInput` where none do."""
        return self._graded(self._scale_for(measure) if measure else 1.0)

    def _scale_for(self, measure: Measure) -> float:
        """The scale at which the batch, solved for its grade, has the size wanted."""
        amount, wanted, field = measure

        def excess(log_scale: float) -> float:
            try:
                knobs = self._graded(math.exp(log_scale))
                return math.log(max(amount(self._play(knobs), knobs), 1e-12) / wanted)
            except BadInput:
                return -math.inf  # so small that its simmering boils it too far

        # Start where plain multiplication would land; what a pan boils off does not scale,
        # so the true scale lies a little off it.
        start = amount(self._play(self._base), self._base)
        guess = math.log(wanted / max(start, 1e-12))
        if guess > math.log(_LARGEST_SCALE):
            raise BadInput.at(
                field, "is out of all proportion to the sheet", "Give a smaller yield"
            )
        if not math.isfinite(excess(guess)):
            # Simmering weighs little on a large batch: what fails there fails at any size.
            self._graded(max(1.0, 100.0 * math.exp(guess)))
        low, high = self._bracket(excess, guess, field)
        found = low if low == high else find_root(excess, low, high, _SIZE_RTOL)
        if abs(excess(found)) > _SIZE_MISSED:
            least = wanted * math.exp(excess(high))
            raise BadInput.at(
                field,
                "so small a batch would boil away",
                f"The least this sheet makes is about {least:.0f} g or mL; "
                "simmer shorter or take a narrower pan",
            )
        return math.exp(found)

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
        raise BadInput.at(field, "cannot be reached by this sheet", "Give another yield")

    def _graded(self, scale: float) -> Knobs:
        """The knobs at ``scale`` with the free variable solved for the grade."""
        base = replace(self._base, scale=scale)
        if self._free == "nothing":
            return base
        if self._free == "flour":
            return self._by_flour(base)
        return self._by_reduction(base)

    def _excess(self, knobs: Knobs) -> float:
        """log(η / target): positive when too thick, infinite where there is no water."""
        pot = self._play(knobs)
        if not pot.wetted:
            raise BadInput.at(
                "grade", "nothing liquid goes into this sauce", "Add milk, stock or cream"
            )
        eta = raw_viscosity_pa_s(pot.balance, pot.flour_given, pot.yolk_set)
        if not math.isfinite(eta):
            return math.inf
        return (
            math.log(at_temperature(eta, self._prepared.sheet.target.serving_c)) - self._log_target
        )

    def _by_flour(self, base: Knobs) -> Knobs:
        """Flour that meets the grade; its logarithm is what is searched."""
        return self._by(lambda log_flour: replace(base, flour=math.exp(log_flour)), 0.0, -12.0)

    def _by_reduction(self, base: Knobs) -> Knobs:
        """The share left that meets the grade; minus its logarithm is what is searched."""
        return self._by(lambda log_loss: replace(base, share=math.exp(-log_loss)), 0.7, 0.0)

    def _by(self, knobs_at: Callable[[float], Knobs], start: float, least: float) -> Knobs:
        """The knobs where the excess is nil, searched along one variable in which the sauce
        only thickens, from ``start`` and never below ``least``."""

        def excess(x: float) -> float:
            try:
                return self._excess(knobs_at(x))
            except BadInput as bad:
                if not bad.problems[0].field.endswith(".to"):
                    raise
                return math.inf  # boiled past the floor: thicker than anything

        if self._guess is None and excess(least) > 0.0:
            self._unreachable(knobs_at(least), "as thin as it can be made it is")
        if self._guess is None:
            bracket = self._around(excess, start, 0.05, least)
        else:
            bracket = self._around(excess, self._guess, 0.002, least)
        self._guess = find_root(excess, *bracket, _GRADE_XTOL)
        knobs = knobs_at(self._guess)
        if not self._holds(knobs):
            nearest = self._most_that_holds(knobs)
            self._unreachable(nearest, "the furthest it can be taken gives")
        return knobs

    @staticmethod
    def _around(
        excess: Callable[[float], float], start: float, width: float, least: float
    ) -> tuple[float, float]:
        """A bracket of the root about ``start``, widened by doubling."""
        at, here = start, excess(start)
        for _ in range(40):
            onward = max(least, at - math.copysign(width, here))
            there = excess(onward)
            if (there > 0.0) != (here > 0.0):
                return (onward, at) if onward < at else (at, onward)
            if onward == least:
                break
            at, here, width = onward, there, width * 3.0
        raise BadInput.at("grade", "cannot be reached by this sauce", "Ask for another grade")

    def _most_that_holds(self, beyond: Knobs) -> Knobs:
        """The knobs furthest towards ``beyond`` at which the formula still gives a number."""
        flour = self._free == "flour"
        low, high = (1e-6, beyond.flour) if flour else (1.0, beyond.share or 0.0)
        for _ in range(50):
            middle = 0.5 * (low + high)
            trial = replace(beyond, flour=middle) if flour else replace(beyond, share=middle)
            low, high = (middle, high) if self._holds(trial) else (low, middle)
        return replace(beyond, flour=low) if flour else replace(beyond, share=low)

    def _play(self, knobs: Knobs) -> Pot:
        pot = self._played.get(knobs)
        if pot is None:
            pot = self._played[knobs] = self._prepared.play(knobs)
        return pot

    def _state(self, knobs: Knobs) -> Thickness:
        return thickness_of(self._play(knobs), self._prepared.sheet.target.serving_c)

    def _holds(self, knobs: Knobs) -> bool:
        """Whether the formula gives a number there."""
        try:
            return self._state(knobs).viscosity_pa_s is not None
        except BadInput:
            return False

    def _unreachable(self, nearest: Knobs, because: str) -> NoReturn:
        """Say that the grade cannot be had, and the nearest one that can."""
        state = self._state(nearest)
        if state.viscosity_pa_s is None:
            raise BadInput.at(
                "grade", f"cannot be reached: {state.reason}", "Ask for another grade"
            )
        name = grade_of(state.viscosity_pa_s)
        raise BadInput.at(
            "grade",
            f"cannot be reached: {because} {name}",
            f"The nearest this sauce can be is {name} at {state.viscosity_pa_s:.2g} Pa·s",
        )
