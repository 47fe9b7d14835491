"""A branch: so much of the mother, let down and added to until it is the sauce wanted."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from itertools import product

from saucier import constants as K
from saucier.check import State, check, prepare
from saucier.errors import BadInput
from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.mother.base import Base
from saucier.pot import EMPTY, Pot
from saucier.roots import find_root
from saucier.sheet import Sheet, SheetPan
from saucier.solve import rounded_amounts
from saucier.steps import Add, AnyStep, InnerSauce, Knobs, Move, Roux, Setting, Simmer, Use, advance
from saucier.steps.put_in import put_in
from saucier.steps.step import Measured
from saucier.thickness import grade_of, log_excess
from saucier.units import Amount, Dimension, kitchen_step
from saucier.units.rounding import coarsest


@dataclass(frozen=True, slots=True)
class BranchGoal:
    """What a branch is to become: the sauce of ``sheet``, ``volume_ml`` of it at
    ``viscosity_pa_s`` and ``serving_c``, weighed out ``batches`` times."""

    key: str
    sheet: Sheet
    volume_ml: float
    viscosity_pa_s: float
    serving_c: float
    batches: int = 1

    @property
    def whole_ml(self) -> float:
        """All its batches, mL."""
        return self.batches * self.volume_ml

    @property
    def grade(self) -> str:
        return grade_of(self.viscosity_pa_s)


@dataclass(frozen=True, slots=True)
class Poured:
    """How a branch is poured: ``base_g`` of the mother, ``let_down_g`` of liquid, ``bound_g`` of
    flour as beurre manié where the mother alone is too thin for it."""

    base_g: float
    let_down_g: float
    bound_g: float = 0.0

    @property
    def let_down_share(self) -> float:
        """Share of the let-down in base and let-down together."""
        return self.let_down_g / max(self.base_g + self.let_down_g, 1e-9)


@dataclass(frozen=True, slots=True)
class Branch:
    """A finished branch: its own ``sheet`` (which takes the mother in as another sauce) rounded to
    what a kitchen weighs, the state it comes to, and how it was poured: one of its batches."""

    goal: BranchGoal
    sheet: Sheet
    final: State
    poured: Poured


class Pouring:
    """One branch on one mother: any pouring of it played at once, only floats inside.

    ``base`` is the mother's, with this branch's own additions; ``pan`` where it is finished.
    """

    def __init__(
        self, goal: BranchGoal, base: Base, kitchen: Kitchen, setting: Setting, pan: Pan
    ) -> None:
        setting = setting._replace(stove=replace(setting.stove, pan=pan), serving_c=goal.serving_c)
        self.goal, self.base, self.pan, self.setting = goal, base, pan, setting
        made = check(goal.sheet, kitchen).final.pot.yield_ml
        # Additions are given for each millilitre of finished sauce, as the sheet has them; what is
        # counted (yolks) stays whole, and the rest is solved around it.
        knobs = Knobs(scale=goal.volume_ml / made)
        self.additions = tuple(
            _whole(step.turned(knobs, setting), setting) for step in base.additions
        )
        self._moves: list[Move] = [step.prepare(setting) for step in self.additions]
        self._guess: float | None = None

    def pot(self, mother: Pot, poured: Poured) -> Pot:
        """The branch after its additions. Raises :class:`BadInput` where they cannot be taken."""
        share = poured.base_g / mother.total_g
        pot = mother._replace(
            balance=EMPTY.plus(mother.balance, share), cost=mother.cost * share, remarks=()
        )
        if poured.let_down_g > 0.0:
            for row, part in self.base.liquids:
                pot = put_in(pot, row, poured.let_down_g * part, K.LET_DOWN_C)
        if poured.bound_g > 0.0:
            for step in binding(self.base, poured.bound_g):
                pot = advance(pot, step.prepare(self.setting))
        for move in self._moves:
            pot = advance(pot, move)
        return pot

    def filled(self, mother: Pot, let_down_g: float, bound_g: float = 0.0) -> Poured:
        """So much of the mother that the branch makes its volume with the rest as given."""
        density = mother.total_g / mother.total_ml
        base = self._guess or 0.8 * self.goal.volume_ml * density
        for _ in range(12):
            made = self.pot(mother, Poured(base, let_down_g, bound_g)).yield_ml
            off = self.goal.volume_ml - made
            if abs(off) < 1e-7 * self.goal.volume_ml:
                break
            # Volume grows very nearly by the mother's own density.
            base = max(1e-6, base + off * density)
        self._guess = base
        return Poured(base, let_down_g, bound_g)

    def excess(self, mother: Pot, let_down_g: float, bound_g: float = 0.0) -> float:
        """:func:`log_excess` of the branch, filled to its volume."""
        pot = self.pot(mother, self.filled(mother, let_down_g, bound_g))
        return log_excess(pot, self.goal.viscosity_pa_s, self.goal.serving_c)

    def solved(self, mother: Pot) -> Poured:
        """The pouring that meets volume and thickness: let down where the mother is thicker, bound
        with beurre manié where she is thinner, neither where she is just right."""
        self._guess = None
        off = self.excess(mother, 0.0)
        if K.RATHER_THIN <= off <= K.JUST_RIGHT:
            return self.filled(mother, 0.0)
        if off < 0.0:
            return self._bound(mother)
        most = 0.98 * self.goal.volume_ml
        low, high = 0.0, 0.05 * most
        while self.excess(mother, high) > 0.0:
            low, high = high, min(most, 3.0 * high)
            if low >= most:
                raise BadInput.at("volume", "is-nearly-all-let-down")
        let_down = find_root(lambda x: self.excess(mother, x), low, high, 1e-4 * most)
        return self.filled(mother, let_down)

    def _bound(self, mother: Pot) -> Poured:
        low, high = math.log(1e-5 * self.goal.volume_ml), math.log(0.2 * self.goal.volume_ml)
        if self.excess(mother, 0.0, math.exp(low)) >= 0.0:  # its boil alone gets it there
            return self.filled(mother, 0.0)
        if self.excess(mother, 0.0, math.exp(high)) <= 0.0:
            raise BadInput.at("grade", "cannot-be-bound-that-thick")
        log_flour = find_root(lambda x: self.excess(mother, 0.0, math.exp(x)), low, high, 1e-4)
        return self.filled(mother, 0.0, math.exp(log_flour))


def branch_sheet(pouring: Pouring, mother: Sheet, poured: Poured) -> Sheet:
    """The branch as a sheet of its own, in the pan it is finished in: the mother goes in as another
    sauce, then the let-down, beurre manié where it must be bound, and its additions."""
    goal, base = pouring.goal, pouring.base
    steps: list[AnyStep] = [
        Use(
            sauce=InnerSauce(name=mother.name, pan=mother.pan, steps=mother.steps),
            amount=Amount(poured.base_g, "g"),
            ready=True,
        )
    ]
    if poured.let_down_g > 0.0:
        for row, part in base.liquids:
            ml = poured.let_down_g * part / row.density
            steps.append(
                Add(ingredient=row.key, amount=Amount(ml, "mL"), temperature_c=K.LET_DOWN_C)
            )
    if poured.bound_g > 0.0:
        steps += binding(base, poured.bound_g)
    steps += pouring.additions
    target = goal.sheet.target.model_copy(
        update={
            "grade": goal.grade if goal.grade != "liquid" else None,
            "volume": Amount(round(goal.volume_ml / 1000.0, 6), "L"),
            "serving_c": goal.serving_c,
            "serves": None,
        }
    )
    return goal.sheet.model_copy(
        update={"steps": tuple(steps), "target": target, "pan": SheetPan.of(pouring.pan)}
    )


def _whole(step: AnyStep, setting: Setting) -> AnyStep:
    """``step`` with what it counts in whole pieces, at least one."""
    for weighed in step.to_weigh(setting):
        if weighed.amount.dimension is Dimension.COUNT:
            pieces = max(1.0, float(round(weighed.amount.value)))
            step = step.with_amount(weighed.field, Amount(pieces, weighed.amount.unit))
    return step


def binding(base: Base, flour_g: float) -> list[AnyStep]:
    """Beurre manié of ``flour_g`` flour and as much fat, and its boil."""
    return [
        Roux(
            fat=Measured(ingredient=base.fat.key, amount=Amount(flour_g, "g")),
            flour=Measured(ingredient=base.flour.key, amount=Amount(flour_g, "g")),
            colour="raw",
            minutes=0,
        ),
        Simmer(minutes=3, heat="bare-simmer"),
    ]


def rounded_branch(
    goal: BranchGoal, sheet: Sheet, kitchen: Kitchen, let_down: bool
) -> tuple[Sheet, State]:
    """``sheet`` by the coarsest kitchen rounding that keeps its grade exactly and its volume
    within a percent; as it is where none does. ``let_down`` tells that its second step is one."""
    settings = prepare(sheet, kitchen).settings

    def made_at(fineness: float) -> Iterator[tuple[Sheet, State]]:
        rounded = rounded_amounts(sheet, settings, fineness)
        for nudged in _nudged(rounded, settings, fineness, 2 if let_down else 1):
            yield nudged, check(nudged, kitchen).final

    def keeps(made: tuple[Sheet, State]) -> bool:
        return made[1].thickness.grade == goal.grade and _near(made[1], goal)

    kept = coarsest(made_at, keeps)
    return kept[0] if kept else (sheet, check(sheet, kitchen).final)


def _nudged(
    sheet: Sheet, settings: Sequence[Setting], fineness: float, first: int
) -> Iterator[Sheet]:
    """``sheet`` as it is, then with a step more or less of its ``first`` amounts: rounding each to
    its nearest may miss the volume that one step of the next meets, and whole steps weigh easier
    than finer ones."""
    for nudges in sorted(product((0, 1, -1), repeat=first), key=lambda n: sum(map(abs, n))):
        steps = list(sheet.steps)
        for at, nudge in enumerate(nudges):
            weighed = steps[at].to_weigh(settings[at])[0]
            value = weighed.amount.value + nudge * kitchen_step(weighed.amount, fineness)
            if value > 0.0:
                amount = Amount(round(value, 9), weighed.amount.unit)
                steps[at] = steps[at].with_amount(weighed.field, amount)
        yield sheet.model_copy(update={"steps": tuple(steps)})


def _near(final: State, goal: BranchGoal) -> bool:
    return -K.BRANCH_SHORT <= final.pot.yield_ml / goal.volume_ml - 1.0 <= K.BRANCH_OVER
