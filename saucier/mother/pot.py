"""The mother pot: as thick as its most demanding branch needs before that branch's own additions."""

import math
from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace

from saucier import constants as K
from saucier.check import CheckedSheet, check, prepare
from saucier.errors import BadInput
from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.mother.base import Base
from saucier.mother.branch import (
    Branch,
    BranchGoal,
    Poured,
    Pouring,
    branch_sheet,
    rounded_branch,
)
from saucier.pot import Pot
from saucier.roots import find_root
from saucier.sheet import Sheet, SheetPan
from saucier.solve import Goal, rounded_for_kitchen
from saucier.steps import Add, AnyStep, Knobs, Roux, Simmer, Use
from saucier.steps.step import Measured
from saucier.thickness import raw_viscosity_of
from saucier.units import Amount
from saucier.words import Sentence, say

_SETTLES, _SETTLED = 5, 2e-3
_NOMINAL_FLOUR = 60.0
_LIQUID_SHARE, _LEAST_G = 0.93, 200.0
"""g liquid to a mL of base, near enough for what boils off; and the least to reckon with."""
_THINNEST, _THICKEST = 3.0, 280.0
"""g flour to a kilo of liquid between which a base is looked for."""

PanFor = Callable[[float], tuple[Pan, int]]
"""The pan for so many mL, and in how many equal batches."""
FinishIn = Callable[[BranchGoal], Pan | None]
"""The pan a branch is finished in; None: the mother's own."""


def in_the_mother(goal: BranchGoal) -> None:
    """Finished where it was made."""


@dataclass(frozen=True, slots=True)
class Offer:
    """Another way for a branch that would be let down too far: its key, what to do instead
    (``own`` or ``thicken``) and the words for it."""

    branch: str
    do: str
    words: Sentence


@dataclass(frozen=True, slots=True)
class Mother:
    """One mother pot. ``sheet`` is one batch of ``batches``, rounded; ``made_g`` all of them,
    ``taken_g`` what the branches take, ``film_g`` what stays on pot and whisk, ``left_g`` the rest.
    ``thickest`` is the branch that set its thickness."""

    base: Base
    sheet: Sheet
    checked: CheckedSheet
    batches: int
    made_g: float
    taken_g: float
    film_g: float
    branches: tuple[Branch, ...]
    thickest: str
    offers: tuple[Offer, ...]

    @property
    def left_g(self) -> float:
        return self.made_g - self.taken_g - self.film_g


class CannotPour(BadInput):
    """A branch that cannot be made from a mother: ``key`` says which."""

    def __init__(self, key: str, bad: BadInput) -> None:
        super().__init__(*bad.under(key).problems)
        self.key = key


class _Base:
    """The base at any flour ratio and size, in one pan."""

    def __init__(self, base: Base, minutes: float, pan: Pan, kitchen: Kitchen) -> None:
        self.base, self._minutes, self._pan, self._kitchen = base, minutes, pan, kitchen
        self._prepared = prepare(self.sheet(_NOMINAL_FLOUR, 1000.0), kitchen)
        self.setting = self._prepared.settings[0]

    def sheet(self, flour_per_kg: float, liquid_g: float) -> Sheet:
        """The base as a sheet: ``flour_per_kg`` g flour to a kilo of liquid."""
        base = self.base
        flour = flour_per_kg * liquid_g / 1000.0
        roux = Roux.model_validate(
            {
                "op": "roux",
                "fat": Measured(
                    ingredient=base.fat.key, amount=Amount(flour * base.ratio, "g")
                ).model_dump(),
                "flour": Measured(
                    ingredient=base.flour.key, amount=Amount(flour, "g")
                ).model_dump(),
                "colour": base.colour,
                "minutes": base.roux_minutes,
            }
        )
        steps: list[AnyStep] = [roux]
        for row, share in base.liquids:
            ml = liquid_g * share / row.density
            steps.append(
                Add(ingredient=row.key, amount=Amount(ml, "mL"), temperature_c=base.liquid_c)
            )
        steps.append(
            Simmer.model_validate({"op": "simmer", "minutes": self._minutes, "heat": base.heat})
        )
        return Sheet(name=str(base.name), steps=tuple(steps), pan=SheetPan.of(self._pan))

    def pot(self, flour_per_kg: float, liquid_g: float) -> Pot:
        knobs = Knobs(
            scale=liquid_g / 1000.0,
            flour=flour_per_kg / _NOMINAL_FLOUR,
            fat_to_flour=self.base.ratio,
        )
        return self._prepared.play(knobs)

    def liquid_for(self, flour_per_kg: float, mass_g: float) -> float:
        """Grams of liquid that make ``mass_g`` of it, what boils off not growing with it."""
        liquid = mass_g / (1.0 + (1.0 + self.base.ratio) * flour_per_kg / 1000.0)
        for _ in range(30):
            try:
                off = mass_g - self.pot(flour_per_kg, liquid).total_g
            except BadInput:  # so little that it boils dry
                liquid *= 1.5
                continue
            if abs(off) < 1e-6 * mass_g:
                break
            liquid += off
        return liquid


@dataclass(frozen=True, slots=True)
class _Settled:
    """The mother before rounding: ``flour`` g to a kilo of liquid, ``mass_g`` of all batches."""

    made: _Base
    pourings: list[Pouring]
    flour: float
    thickest: str
    batches: int
    mass_g: float
    film_g: float


def mother_for(
    goals: list[BranchGoal],
    bases: dict[str, Base],
    pan_for: PanFor,
    kitchen: Kitchen,
    thicken: frozenset[str] = frozenset(),
    finish_in: FinishIn = in_the_mother,
) -> Mother:
    """One mother for all ``goals`` (by ``bases[goal.key]``), cooked in the pan ``pan_for`` gives.

    She is made of what the first of ``goals`` is; fat ratio and roux time are those of the largest made of the same,
    the simmer is the longest of all.
    Each branch is finished in the pan ``finish_in`` gives. Branches in ``thicken`` do not set its thickness: they are bound by beurre manié afterwards.
    Raises :class:`CannotPour` where a branch cannot be made from her.
    """
    settled = _settled(goals, bases, pan_for, kitchen, thicken, finish_in)
    mother = _rounded(settled, settled.mass_g, kitchen, thicken)
    short = settled.film_g - mother.film_g
    if short > 0.1 * settled.film_g:  # rounding took what clings to the pot: make that much more
        mother = _rounded(settled, settled.mass_g + 1.3 * short, kitchen, thicken)
    return mother


def _rounded(settled: _Settled, mass_g: float, kitchen: Kitchen, thicken: frozenset[str]) -> Mother:
    """The mother of ``mass_g`` (all batches) as a kitchen weighs, with her branches poured from her
    as she then is."""
    made, flour, batches = settled.made, settled.flour, settled.batches
    liquid = made.liquid_for(flour, mass_g / batches)
    own_thickness = Goal(raw_viscosity_of(made.pot(flour, liquid)))
    sheet = rounded_for_kitchen(made.sheet(flour, liquid), own_thickness, kitchen).sheet
    checked = check(sheet, kitchen)
    one = checked.final.pot
    branches = tuple(_branch(p, sheet, one, made, kitchen) for p in settled.pourings)
    taken = sum(branch.goal.batches * branch.poured.base_g for branch in branches)
    total = batches * one.total_g
    return Mother(
        base=made.base,
        sheet=sheet,
        checked=checked,
        batches=batches,
        made_g=total,
        taken_g=taken,
        film_g=min(settled.film_g, max(0.0, total - taken)),
        branches=branches,
        thickest=settled.thickest,
        offers=_offers(branches, settled.thickest, thicken),
    )


def _settled(
    goals: list[BranchGoal],
    bases: dict[str, Base],
    pan_for: PanFor,
    kitchen: Kitchen,
    thicken: frozenset[str],
    finish_in: FinishIn,
) -> _Settled:
    """Size and flour together: what boils off does not grow with the pot, so the size decides the
    flour, and the flour how much the branches take."""
    hers = bases[goals[0].key].identity
    alike = [goal for goal in goals if bases[goal.key].identity == hers]
    base = bases[max(alike, key=lambda goal: goal.whole_ml).key]
    minutes = max(bases[goal.key].minutes for goal in goals)
    setters = {goal.key for goal in goals if goal.key not in thicken} or {g.key for g in goals}
    size_ml = 1.03 * sum(goal.whole_ml for goal in goals)
    for _ in range(_SETTLES):
        pan, batches = pan_for(size_ml)
        made = _Base(base, minutes, pan, kitchen)
        pourings = [
            Pouring(
                goal,
                replace(base, additions=bases[goal.key].additions),
                kitchen,
                made.setting,
                finish_in(goal) or pan,
            )
            for goal in goals
        ]
        liquid = max(_LEAST_G, _LIQUID_SHARE * size_ml / batches)
        needed = {
            p.goal.key: _flour_for(p, made, liquid) for p in pourings if p.goal.key in setters
        }
        thickest = max(needed, key=needed.__getitem__)
        flour = needed[thickest]
        pot = made.pot(flour, liquid)
        density = pot.total_g / pot.total_ml
        film = kitchen.film_ml * batches * density
        mass = film + sum(p.goal.batches * _solved(p, pot).base_g for p in pourings)
        before, size_ml = size_ml, mass / density
        if abs(size_ml / before - 1.0) < _SETTLED and pan_for(size_ml) == (pan, batches):
            break
    return _Settled(
        made=made,
        pourings=pourings,
        flour=flour,
        thickest=thickest,
        batches=batches,
        mass_g=mass,
        film_g=film,
    )


def _flour_for(pouring: Pouring, made: _Base, liquid_g: float) -> float:
    """x⁰ of docs/model.md 7: the flour to a kilo of liquid at which the branch needs no let-down."""

    def excess(log_flour: float) -> float:
        return pouring.excess(made.pot(math.exp(log_flour), liquid_g), 0.0)

    low, high = math.log(_THINNEST), math.log(_THICKEST)
    try:
        if excess(low) >= 0.0:
            return _THINNEST
        if excess(high) <= 0.0:
            raise BadInput.at("", "no-base-is-thick-enough-for")
        return math.exp(find_root(excess, low, high, 1e-4))
    except BadInput as bad:
        raise CannotPour(pouring.goal.key, bad) from None


def _solved(pouring: Pouring, pot: Pot) -> Poured:
    try:
        return pouring.solved(pot)
    except BadInput as bad:
        raise CannotPour(pouring.goal.key, bad) from None


def _branch(pouring: Pouring, sheet: Sheet, pot: Pot, made: _Base, kitchen: Kitchen) -> Branch:
    """The branch on the mother as she was rounded."""
    poured = _solved(pouring, pot)
    exact = branch_sheet(pouring, sheet, poured)
    rounded, final = rounded_branch(pouring.goal, exact, kitchen, poured.let_down_g > 0.0)
    taken = rounded.steps[0]
    assert isinstance(taken, Use) and isinstance(taken.amount, Amount)
    let_down = _let_down_g(rounded, pouring.base, kitchen) if poured.let_down_g else 0.0
    return Branch(pouring.goal, rounded, final, Poured(taken.amount.base, let_down, poured.bound_g))


def _let_down_g(sheet: Sheet, base: Base, kitchen: Kitchen) -> float:
    grams = 0.0
    for step in sheet.steps[1 : 1 + len(base.liquids)]:
        if isinstance(step, Add):
            grams += kitchen.larder[step.ingredient].grams(step.amount)
    return grams


def _offers(
    branches: tuple[Branch, ...], thickest: str, thicken: frozenset[str]
) -> tuple[Offer, ...]:
    """Where a branch's let-down passes 40 %: bind the thickest by itself, or give it a pot. Whether
    that helps is for whoever asks to try (:func:`too_far`)."""
    far = too_far(branches)
    if not far or len(branches) < 2 or thickest in thicken:
        return ()
    whole = sum(branch.goal.whole_ml for branch in branches)
    top = next(branch for branch in branches if branch.goal.key == thickest)
    first = say(
        "let-down-too-far",
        names=tuple(
            say("name-and-share", name=b.goal.sheet.name, share_pct=100 * b.poured.let_down_share)
            for b in far
        ),
        most_pct=100 * K.MOST_LET_DOWN,
    )
    facts = {"first": first, "name": top.goal.sheet.name}
    ways = ["thicken"] if top.goal.whole_ml < K.SMALL_BRANCH * whole else []
    return tuple(Offer(thickest, do, say(f"offer.{do}", **facts)) for do in (*ways, "own"))


def too_far(branches: Iterable[Branch]) -> list[Branch]:
    """The branches that are let down too far."""
    return [branch for branch in branches if branch.poured.let_down_share > K.MOST_LET_DOWN]


def too_far_of(
    goals: list[BranchGoal],
    bases: dict[str, Base],
    pan_for: PanFor,
    kitchen: Kitchen,
    thicken: frozenset[str] = frozenset(),
    finish_in: FinishIn = in_the_mother,
) -> int:
    """How many branches would be let down too far by the mother :func:`mother_for` makes; she is not
    rounded for it. Raises :class:`CannotPour`."""
    settled = _settled(goals, bases, pan_for, kitchen, thicken, finish_in)
    made, flour = settled.made, settled.flour
    pot = made.pot(flour, made.liquid_for(flour, settled.mass_g / settled.batches))
    shares = (_solved(pouring, pot).let_down_share for pouring in settled.pourings)
    return sum(share > K.MOST_LET_DOWN for share in shares)
