"""Which branches share a pot, which get their own and why, and in which pan each is cooked."""

import math
from collections.abc import Callable, Iterable, Sequence
from dataclasses import replace
from functools import reduce

from saucier import constants as K
from saucier.check import CheckedSheet, check, meets_metal, pots_inside
from saucier.errors import BadInput
from saucier.heat import BARE_PANS, POT_SHAPES, Load, Pan, pan_reached_for
from saucier.kitchen import Kitchen
from saucier.mother import (
    Base,
    Branch,
    BranchGoal,
    CannotPour,
    Mother,
    base_of,
    mother_for,
    same_base,
)
from saucier.service.document import Service
from saucier.service.planned import BranchPlan, FirstPot, PotPlan, Wanted
from saucier.sheet import Sheet, SheetPan, Target
from saucier.solve import Unreachable, goal_of, rounded_for_kitchen, solve
from saucier.steps import AnyStep, Reduce, Use, load_of
from saucier.thickness import grade_named, spoken_grade
from saucier.units import Amount
from saucier.words import Sentence, all_of, say

_OTHER_PAN = say("planned-in-another-pan")


class PotPlanner:
    """Pots for branches: who shares, who does not, in which pan."""

    def __init__(
        self, service: Service, kitchen: Kitchen, pans: Sequence[Pan], warnings: list[Sentence]
    ) -> None:
        self._service, self._kitchen, self._warnings = service, kitchen, warnings
        # Bare metal last: it turns wine, lemon and yolk grey.
        there = (pan for pan in pans if pan.shape in POT_SHAPES)
        self._pans = sorted(there, key=lambda pan: (pan.reactive, pan.capacity_ml))
        self._by_name = {pan.name: pan for pan in pans}
        self._taken: dict[str, object] = {}

    def cooked(self, wanted: list[Wanted]) -> tuple[tuple[BranchPlan, ...], tuple[PotPlan, ...]]:
        made = [one for one in wanted if one.need_ml > one.from_stock_ml]
        groups, alone, bases = self._grouped(made)
        branches: list[BranchPlan] = []
        pots: list[PotPlan] = []
        groups.sort(key=lambda group: -sum(one.to_make_ml for one in group))
        for number, group in enumerate(groups):
            pot, poured = self._mother(number, group, bases, alone)
            if pot is not None:
                pots.append(pot)
            branches += poured
        # The smallest first: each takes the smallest pan it fits, and leaves the large ones.
        for one, why in sorted(alone, key=lambda pair: pair[0].to_make_ml):
            pot, branch = self._own(one, why, not isinstance(bases[one.key], Sentence))
            pots.append(pot)
            branches.append(branch)
        for one in wanted:
            if one not in made:
                branches.append(self._all_there(one))
        branches = [self._placed(branch) for branch in branches]
        order = {one.key: number for number, one in enumerate(wanted)}
        branches.sort(key=lambda branch: order[branch.key])
        return tuple(branches), tuple(pots)

    def _grouped(
        self, wanted: list[Wanted]
    ) -> tuple[list[list[Wanted]], list[tuple[Wanted, Sentence]], dict[str, Base | Sentence]]:
        force = self._service.force
        bases = {one.key: base_of(one.sheet, self._kitchen) for one in wanted}
        groups: list[list[Wanted]] = []
        alone: list[tuple[Wanted, Sentence]] = []
        waiting: list[Wanted] = []
        for one in sorted(wanted, key=lambda one: -one.to_make_ml):
            base = bases[one.key]
            if isinstance(base, Sentence):
                alone.append((one, base))
            elif one.grade is None:
                alone.append((one, say("no-grade-asked")))
            elif force.get(one.sauce) == "own":
                alone.append((one, say("given-its-own")))
            elif force.get(one.sauce) == "share":
                waiting.append(one)
            else:
                self._join(one, base, groups, bases)
        for one in waiting:
            if groups:
                groups[0].append(one)
            else:
                groups.append([one])
        shared = [group for group in groups if len(group) > 1]
        for group in groups:
            if len(group) == 1:
                alone.append((group[0], self._why_alone(group[0], groups, bases)))
        return shared, alone, bases

    @staticmethod
    def _join(
        one: Wanted, base: Base, groups: list[list[Wanted]], bases: dict[str, Base | Sentence]
    ) -> None:
        for group in groups:
            there = bases[group[0].key]
            if isinstance(there, Base) and same_base(base, there) is None:
                group.append(one)
                return
        groups.append([one])

    @staticmethod
    def _why_alone(
        one: Wanted, groups: list[list[Wanted]], bases: dict[str, Base | Sentence]
    ) -> Sentence:
        base = bases[one.key]
        for group in groups:
            there = bases[group[0].key]
            if group[0] is not one and isinstance(base, Base) and isinstance(there, Base):
                differs = same_base(base, there)
                if differs:
                    return say("another-base", than=group[0].sheet.name, differs=differs)
        return say("only-one-of-its-base")

    def _mother(
        self,
        number: int,
        group: list[Wanted],
        bases: dict[str, Base | Sentence],
        alone: list[tuple[Wanted, Sentence]],
    ) -> tuple[PotPlan | None, list[BranchPlan]]:
        """A mother for ``group``; who cannot be made from her goes to ``alone``."""
        thicken = {one.key for one in group if self._service.force.get(one.sauce) == "thicken"}
        while len(group) > 1:
            goals = [_goal(one) for one in group]
            own = {one.key: base for one in group if isinstance(base := bases[one.key], Base)}
            key = f"mother-{number + 1}"
            try:
                mother = mother_for(
                    goals,
                    own,
                    self._pan_for_mother(key),
                    self._kitchen,
                    frozenset(thicken),
                    self._finish_in,
                )
                break
            except CannotPour as bad:
                out = next(one for one in group if one.key == bad.key)
                alone.append((out, say("not-from-the-mother", why=bad.problems[0].message)))
                group = [one for one in group if one is not out]
        else:
            alone += [(one, say("only-one-of-its-base")) for one in group]
            return None, []
        pot = self._pot_of(key, mother)
        names = {branch.goal.key: branch for branch in mother.branches}
        return pot, [self._branch(one, key, names[one.key], bases) for one in group]

    def _pot_of(self, key: str, mother: Mother) -> PotPlan:
        one = mother.checked.final.pot
        pan = mother.checked.pan
        shared = self._take(pan, mother.base.name)
        fullest = max(state.pot.total_ml for state in mother.checked.steps) / pan.capacity_ml
        return PotPlan(
            key=key,
            name=mother.base.name,
            mother=True,
            sheet=mother.sheet,
            checked=mother.checked,
            final=mother.checked.final,
            batches=mother.batches,
            pan=pan,
            fill_share=fullest,
            minutes=one.minutes,
            made_g=mother.made_g,
            made_ml=one.yield_ml * mother.batches,
            taken_g=mother.taken_g,
            film_g=mother.film_g,
            left_g=mother.left_g,
            thickest=mother.thickest,
            notes=(*shared, *self._notes(mother.checked, mother.batches)),
            offers=mother.offers,
        )

    def _branch(
        self, one: Wanted, pot: str, branch: Branch, bases: dict[str, Base | Sentence]
    ) -> BranchPlan:
        base, why = bases[one.key], None
        if self._service.force.get(one.sauce) == "share" and isinstance(base, Base):
            why = say("made-to-share", base=base.name)
        return BranchPlan(
            **one.told(),
            pot=pot,
            sheet=branch.sheet,
            final=branch.final,
            film_ml=one.film_ml,
            made_ml=branch.final.pot.yield_ml,
            base_g=branch.poured.base_g,
            let_down_g=branch.poured.let_down_g,
            let_down_share=branch.poured.let_down_share,
            bound_g=branch.poured.bound_g,
            why=why,
            can_share=True,
            cost=branch.final.pot.cost + one.stock_cost,
        )

    def _own(self, one: Wanted, why: Sentence, can_share: bool) -> tuple[PotPlan, BranchPlan]:
        """A pot of its own, solved for its grade and volume in a pan of the kitchen's."""
        ml, key = one.to_make_ml, f"own-{one.key}"
        pan, batches, said = self._pan_for(one, key)
        placed = one.sheet.model_copy(update={"pan": SheetPan.of(pan)})
        placed = placed.model_copy(update={"steps": self._first_in(placed.steps, key)})
        goal = goal_of(placed, one.grade, Amount(K.POT_A_LITTLE_OVER * ml / batches, "mL"))
        try:
            sheet = solve(placed, goal, self._kitchen).sheet
            sheet = rounded_for_kitchen(sheet, goal, self._kitchen, within=K.POT_WITHIN).sheet
        except BadInput as bad:
            goal = goal_of(placed.model_copy(update={"target": _open(placed)}), None, goal.volume)
            if isinstance(bad, Unreachable) and bad.nearest:
                sheet = rounded_for_kitchen(
                    bad.nearest, goal, self._kitchen, within=K.POT_WITHIN
                ).sheet
            else:
                try:
                    # As it is written, turned or not: one sauce never takes the others' plan away.
                    sheet = solve(placed, goal, self._kitchen, as_found=True).sheet
                except BadInput:
                    raise bad.under(one.sauce) from None
            grade = spoken_grade(one.grade) if one.grade else say("its-volume")
            self._warnings.append(
                say(
                    "cannot-be-brought-to",
                    name=one.sheet.name,
                    grade=grade,
                    why=bad.problems[0].message,
                )
            )
        checked = check(sheet, self._kitchen)
        final = checked.final
        shared = self._take(pan, one.sheet.name)
        fullest = max(state.pot.total_ml for state in checked.steps) / pan.capacity_ml
        made_g, made_ml = batches * final.pot.yield_g, batches * final.pot.yield_ml
        film_g = one.film_ml * final.pot.yield_g / final.pot.yield_ml
        pot = PotPlan(
            key=key,
            name=one.sheet.name,
            mother=False,
            sheet=sheet,
            checked=checked,
            final=final,
            batches=batches,
            pan=pan,
            fill_share=fullest,
            minutes=final.pot.minutes,
            made_g=made_g,
            made_ml=made_ml,
            taken_g=made_g - film_g,
            film_g=film_g,
            left_g=0.0,
            thickest=one.key,
            notes=(*said, *shared, *self._notes(checked, batches)),
            offers=(),
        )
        branch = BranchPlan(
            **one.told(),
            pot=key,
            sheet=sheet,
            final=final,
            film_ml=one.film_ml,
            made_ml=made_ml,
            base_g=made_g,
            why=why,
            can_share=can_share,
            pan=pan.name,
            cost=batches * final.pot.cost + one.stock_cost,
        )
        return pot, branch

    def _first_in(self, steps: tuple[AnyStep, ...], key: str) -> tuple[AnyStep, ...]:
        """``steps`` with the pans the cook chose for the sauces made first for them."""
        placed: list[AnyStep] = []
        for number, step in enumerate(steps):
            if isinstance(step, Use) and step.inside:
                inside = first_key(key, number)
                changes: dict[str, object] = {"steps": self._first_in(step.sauce.steps, inside)}
                if chosen := self._chosen(inside):
                    changes["pan"] = SheetPan.of(chosen)
                step = step.model_copy(update={"sauce": step.sauce.model_copy(update=changes)})
            placed.append(step)
        return tuple(placed)

    def first(
        self, branches: Iterable[BranchPlan], pots: Iterable[PotPlan]
    ) -> tuple[FirstPot, ...]:
        """The pots made for others, each before the one it is for."""
        told: list[FirstPot] = []
        own = {pot.key: pot for pot in pots if not pot.mother}
        for branch in branches:
            if not branch.pot:
                continue
            pot = own.get(branch.pot)
            key, batches = (pot.key, pot.batches) if pot else (branch.key, 1)
            checked = pot.checked if pot else check(branch.sheet, self._kitchen)
            for made in pots_inside(checked, self._kitchen):
                self._take(made.checked.pan, made.sheet.name)
                told.append(
                    FirstPot(
                        key=first_key(key, made.key),
                        of=key,
                        name=made.sheet.name,
                        pan=made.checked.pan,
                        made_g=made.made_g,
                        used_g=made.used_g,
                        minutes=made.checked.final.pot.minutes,
                        batches=batches,
                        made=made,
                    )
                )
        return tuple(told)

    def _all_there(self, one: Wanted) -> BranchPlan:
        """Nothing to make: what is on hand is enough."""
        sheet = one.used[0].sheet
        return BranchPlan(
            **one.told(),
            pot="",
            sheet=sheet,
            final=check(sheet, self._kitchen).final,
            why=say("enough-on-hand"),
            cost=one.stock_cost,
        )

    def _take(self, pan: Pan, name: Sentence | str) -> tuple[Sentence, ...]:
        """``pan`` given to the pot ``name``; what to say where another has it."""
        other = self._taken.get(pan.name)
        self._taken[pan.name] = all_of([other, name]) if other else name
        if other and self._pans:
            return (say("pan-wanted-twice", pan=pan.name, other=other),)
        return ()

    def _pan_for_mother(self, key: str) -> Callable[[float], tuple[Pan, int]]:
        def pan_for(ml: float) -> tuple[Pan, int]:
            chosen = self._chosen(key)
            if chosen is not None:
                return chosen, self._batches(ml, K.POT_HOLDS * chosen.capacity_ml)
            return self._reached_for(Load(ml))

        return pan_for

    def _pan_for(self, one: Wanted, key: str) -> tuple[Pan, int, tuple[Sentence, ...]]:
        """The pan for a sauce in a pot of its own, in how many batches, and what to say of it: the
        one the cook chose, else the sheet's own where it holds the batch, else one of the
        kitchen's for its heaviest moment. Raises :class:`BadInput` (field ``pans``)."""
        checked = check(one.sheet, self._kitchen)
        # What goes in before a reduction is what the pan has to hold.
        load = load_of(one.sheet, self._kitchen).times(one.to_make_ml / checked.final.pot.yield_ml)
        chosen = self._chosen(key)
        if chosen is not None:
            return chosen, self._batches(load.fullest, K.POT_HOLDS * chosen.capacity_ml), ()
        own = one.sheet.pan.as_pan() if one.sheet.pan else None
        said: tuple[Sentence, ...] = ()
        if own is not None and load.fullest <= K.POT_HOLDS * own.capacity_ml:
            return own, self._batches(load.fullest, own.capacity_ml), ()
        sour = any(meets_metal(state.pot.balance) for state in checked.steps)
        pan, batches = self._reached_for(load, sour=sour)
        if own is not None:
            said = (say("own-pan-too-small", own=own.name, pan=pan.name),)
        return pan, batches, said

    def _chosen(self, key: str) -> Pan | None:
        """The pan the cook chose for ``key``; one the kitchen no longer has is said and passed over."""
        name = self._service.pans.get(key)
        if name is None:
            return None
        if name not in self._by_name:
            self._warnings.append(say("pan-gone", pan=name))
        return self._by_name.get(name)

    def _batches(self, ml: float, holds_ml: float) -> int:
        return max(1, math.ceil(ml / min(holds_ml, self._kitchen.whisk_ml) - 1e-9))

    def _reached_for(self, load: Load, *, sour: bool = False) -> tuple[Pan, int]:
        """The pan for ``load``, and in how many equal batches: as few as the largest pan, filled to
        two thirds, and the whisk allow; of the pans that hold one the one a cook would reach for,
        free ones first, bare metal never for what is ``sour``. Raises :class:`BadInput` (field
        ``pans``)."""
        if not self._pans:
            batches = self._batches(load.fullest, K.POT_FULLEST * BARE_PANS[-1].capacity_ml)
            return pan_reached_for(load.times(1.0 / batches)), batches
        pans = [pan for pan in self._pans if not (sour and pan.reactive)] or self._pans
        largest = max(pans, key=lambda pan: (not pan.reactive, pan.capacity_ml))
        batches = self._batches(load.fullest, K.POT_FULLEST * largest.capacity_ml)
        if batches > K.MOST_BATCHES:
            raise BadInput.at(
                "pans",
                "pans-are-too-small",
                litres=load.fullest / 1000,
                batches=batches,
                pan=largest.name,
            )
        each = load.times(1.0 / batches)
        fits = [p for p in pans if each.fullest <= K.POT_FULLEST * p.capacity_ml] or [largest]
        free = [pan for pan in fits if pan.name not in self._taken] or fits
        if each.goes_in > 0.0:
            return pan_reached_for(each, free), batches
        return free[0], batches

    def _finish_in(self, goal: BranchGoal) -> Pan | None:
        """The pan a branch of a mother is finished in: the one the cook chose, or the smallest free
        one that its fullest moment leaves a fifth of."""
        chosen = self._chosen(goal.key)
        if chosen is not None:
            return chosen
        made = check(goal.sheet, self._kitchen).final.pot.yield_ml
        fullest = load_of(goal.sheet, self._kitchen).fullest * goal.volume_ml / made
        need = max(goal.volume_ml, fullest) / K.FINISHED_FULL
        free = (pan for pan in self._pans if pan.name not in self._taken)
        return next((pan for pan in free if need <= pan.capacity_ml), None)

    def _placed(self, branch: BranchPlan) -> BranchPlan:
        """A mother's branch in its pan: the one it was planned in, where no pot before it took that
        pan, else the next free one; made in another than planned, it is weighed out anew for it."""
        if branch.pan or not branch.pot:
            return branch
        planned = branch.sheet.pan.as_pan() if branch.sheet.pan else None
        chosen = self._service.pans.get(branch.key) in self._by_name
        pan = planned if chosen or (planned and planned.name not in self._taken) else None
        if pan is None or pan.name not in self._by_name:
            fits = (p for p in self._pans if branch.made_ml <= K.FINISHED_FULL * p.capacity_ml)
            pan = next((p for p in fits if p.name not in self._taken), None)
        if pan is None:
            return branch
        said = _and_also([branch.why, *self._take(pan, branch.name)])
        placed = replace(branch, pan=pan.name, why=said)
        return placed if pan == planned else self._moved(placed, pan)

    def _moved(self, branch: BranchPlan, pan: Pan) -> BranchPlan:
        """``branch`` finished in ``pan``, where that keeps what it was made for; as it was planned,
        with a word, where what boils off there would cost it its grade."""
        sheet = branch.sheet.model_copy(update={"pan": SheetPan.of(pan)})
        final = check(sheet, self._kitchen).final
        if final.thickness.grade == branch.final.thickness.grade:
            made = final.pot.yield_ml
            if abs(made / branch.made_ml - 1.0) <= K.POT_WITHIN:
                return replace(branch, sheet=sheet, final=final, made_ml=made)
        return replace(branch, why=_and_also([branch.why, _OTHER_PAN]))

    def _notes(self, checked: CheckedSheet, batches: int) -> tuple[Sentence, ...]:
        notes = []
        pan, ml = checked.pan, checked.final.pot.total_ml
        fullest = max(state.pot.total_ml for state in checked.steps) / pan.capacity_ml
        if not self._pans:
            notes.append(say("no-pans-known"))
        if batches > 1:
            notes.append(say("in-batches", batches=batches))
        if batches * ml > self._kitchen.whisk_ml:
            most = self._kitchen.whisk_ml / 1000.0
            notes.append(say("whisk-limits", litres=most))
        if fullest > 1.0:
            notes.append(say("pot-too-small"))
        elif fullest > K.POT_FULLEST + 0.05:
            notes.append(say("pot-over-full"))
        elif fullest < K.POT_EMPTIEST and not _boils_down(checked):
            notes.append(say("pot-under-full"))
        if any(w.code == "reactive-pan" for state in checked.steps for w in state.warnings):
            notes.append(say("pot-of-bare-metal"))
        return tuple(notes)


def _and_also(said: Iterable[Sentence | None]) -> Sentence | None:
    """What is said of a branch, one thing after the other; None where nothing is."""
    told = [one for one in said if one]
    return reduce(lambda a, b: say("and-also", first=a, then=b), told) if told else None


def first_key(pot: str, inside: int | str) -> str:
    """The key of a sauce made first for ``pot``, by the step it is for."""
    return f"{pot}/{inside}" if "/" not in pot else f"{pot}.{inside}"


def _boils_down(checked: CheckedSheet) -> bool:
    """Whether something is boiled down in it: such a pan is wide on purpose."""
    return any(isinstance(step, Reduce) for step in checked.sheet.steps)


def _open(sheet: Sheet) -> Target:
    return sheet.target.model_copy(update={"grade": None})


def _goal(one: Wanted) -> BranchGoal:
    assert one.grade is not None
    target = grade_named(one.grade).target
    return BranchGoal(one.key, one.sheet, one.to_make_ml, target, one.sheet.target.serving_c)
