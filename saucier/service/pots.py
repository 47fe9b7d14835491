"""Which branches share a pot, which get their own and why, and in which pan each is cooked."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import replace

from saucier import constants as K
from saucier.check import CheckedSheet, check, keys_inside, meets_metal, pots_inside
from saucier.errors import BadInput
from saucier.heat import Load, Pan
from saucier.kitchen import Kitchen
from saucier.mother import (
    Base,
    Branch,
    BranchGoal,
    CannotPour,
    Mother,
    Offer,
    base_of,
    mother_for,
    same_base,
    too_far,
    too_far_of,
)
from saucier.service.document import Service
from saucier.service.eaten import named_in
from saucier.service.planned import BranchPlan, FirstPot, PotPlan, Wanted, short_key
from saucier.service.shelf import Shelf
from saucier.sheet import Sheet, SheetPan, Target
from saucier.solve import (
    Goal,
    Unreachable,
    goal_of,
    rounded_for_kitchen,
    solve,
    stops_as_written,
)
from saucier.steps import AnyStep, Reduce, Use, load_of
from saucier.thickness import grade_named, spoken_grade
from saucier.units import Amount
from saucier.words import Sentence, say

_OTHER_PAN = say("planned-in-another-pan")
_FITTINGS = 3
_LARGE_FAMILY = 8
_TOLD_ML = 0.5
"""What may be missing of a margin without a word."""


class PotPlanner:
    """Pots for branches: who shares, who does not, in which pan."""

    def __init__(
        self, service: Service, kitchen: Kitchen, pans: Sequence[Pan], warnings: list[Sentence]
    ) -> None:
        self._service, self._kitchen, self._warnings = service, kitchen, warnings
        self._shelf = Shelf(service, kitchen, pans, warnings)
        self.failed: dict[str, BadInput] = {}
        """By the key of a sauce, why it cannot be made at all."""

    def cooked(self, wanted: list[Wanted]) -> tuple[tuple[BranchPlan, ...], tuple[PotPlan, ...]]:
        made = [one for one in wanted if not one.enough_there]
        groups, alone, bases = self._grouped(made)
        branches: list[BranchPlan] = []
        pots: list[PotPlan] = []
        # Guests' pots first: clean things are there then. Then what is large.
        groups.sort(key=lambda group: (not _any_guest(group), -sum(o.to_make_ml for o in group)))
        # A guest's own pot comes before any mother: no pan was anything else's yet.
        self._each_alone([pair for pair in alone if pair[0].guest], bases, pots, branches)
        alone = [pair for pair in alone if not pair[0].guest]
        keys = self._mothers_keys(groups, bases)
        for key, group in zip(keys, groups, strict=True):
            pot, poured = self._mother(key, group, bases, alone)
            if pot is not None:
                pots.append(pot)
            branches += poured
        self._each_alone(alone, bases, pots, branches)
        for one in wanted:
            if one not in made and one.key not in self.failed:
                branches.append(self._all_there(one))
        guest = {one.key for one in wanted if one.guest}
        names = {pot.key: pot.name for pot in pots}
        branches.sort(key=lambda branch: branch.key not in guest)
        branches = [self._placed(branch, names.get(branch.pot)) for branch in branches]
        order = {one.key: number for number, one in enumerate(wanted)}
        branches.sort(key=lambda branch: order[branch.key])
        return tuple(branches), tuple(pots)

    def _each_alone(
        self,
        alone: list[tuple[Wanted, Sentence]],
        bases: dict[str, Base | Sentence],
        pots: list[PotPlan],
        branches: list[BranchPlan],
    ) -> None:
        """A pot of its own for each, guests first, then the smallest: each takes the smallest pan it
        fits, and leaves the large ones."""
        for one, why in sorted(alone, key=lambda pair: (not pair[0].guest, pair[0].to_make_ml)):
            try:
                pot, branch = self._own(one, why, not isinstance(bases[one.key], Sentence))
            except BadInput as bad:
                self.failed[one.key] = bad
                continue
            pots.append(pot)
            branches.append(branch)

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
            barred: Sentence | None = None
            for group in groups:
                barred = self._barred([*group, one], one, bases)
                if barred is None:
                    group.append(one)
                    break
            else:
                groups.append([one])
                if barred:
                    alone.append((one, say("not-shared", why=barred)))
                    groups.pop()
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

    def _barred(
        self, group: list[Wanted], one: Wanted, bases: dict[str, Base | Sentence]
    ) -> Sentence | None:
        """Why ``one`` may not pour from the mother of ``group`` (``one`` among it): what she would
        bring that its guests go without, or an allergen it has not of its own."""
        base = bases[self._gives_base(group).key]
        if not isinstance(base, Base):
            return None
        larder = self._kitchen.larder
        held = [row for row in base.rows if any(e.hits(row) for e in one.excluded)]
        if held:
            names = tuple(row.spoken_name for row in held)
            return say("mother-brings-excluded", names=names)
        own = frozenset().union(*(larder[key].allergens for key in named_in(one.sheet)))
        if more := base.allergens - own:
            return say("mother-brings", names=tuple(sorted(more)))
        return None

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

    def _mothers_keys(
        self, groups: Sequence[list[Wanted]], bases: dict[str, Base | Sentence]
    ) -> list[str]:
        """A key for each group's mother that says what she is made of: not how much of her, nor which one comes
        first. Two of the same are told apart by the first of their sauces."""
        keys = [self._mothers_key(group, bases) for group in groups]
        return [
            key if keys.count(key) == 1 else f"{key}-of-{self._gives_base(group).sauce}"
            for key, group in zip(keys, groups, strict=True)
        ]

    def _mothers_key(self, group: list[Wanted], bases: dict[str, Base | Sentence]) -> str:
        base = bases[self._gives_base(group).key]
        return f"mother-{base.identity}" if isinstance(base, Base) else "mother"

    def _gives_base(self, group: list[Wanted]) -> Wanted:
        """Whose base the mother of ``group`` has: one that shares of itself, not one that is made to, whatever
        the portions."""
        by_force = {key for key, force in self._service.force.items() if force == "share"}
        own = [one for one in group if one.sauce not in by_force] or group
        return min(own, key=lambda one: (len(one.sauce), one.sauce, one.key))

    def _mother(
        self,
        key: str,
        group: list[Wanted],
        bases: dict[str, Base | Sentence],
        alone: list[tuple[Wanted, Sentence]],
    ) -> tuple[PotPlan | None, list[BranchPlan]]:
        """A mother for ``group``; who cannot be made from her goes to ``alone``."""
        thicken = {one.key for one in group if self._service.force.get(one.sauce) == "thicken"}
        while len(group) > 1:
            if barred := [(one, why) for one in group if (why := self._barred(group, one, bases))]:
                alone += [(one, say("not-from-the-mother", why=why)) for one, why in barred]
                group = [one for one in group if all(one is not out for out, _ in barred)]
                continue
            gives = self._gives_base(group)
            group = [gives, *(one for one in group if one is not gives)]
            if not _is_of(key, made_of := self._mothers_key(group, bases)):
                key = f"{made_of}-of-{gives.sauce}"  # who gave her base is out of it
            finish = {one.key: self._finished(one) for one in group}
            goals = [_goal(one, finish[one.key][1]) for one in group]
            own = {one.key: base for one in group if isinstance(base := bases[one.key], Base)}
            try:
                mother = self._made(goals, own, key, frozenset(thicken), finish)
                break
            except CannotPour as bad:
                out = next(one for one in group if one.key == bad.key)
                alone.append((out, say("not-from-the-mother", why=bad.problems[0].message)))
                group = [one for one in group if one is not out]
            except BadInput as bad:  # no pan for so much of it: each by itself
                why = say("not-from-the-mother", why=bad.problems[0].message)
                alone += [(one, why) for one in group]
                return None, []
        else:
            alone += [(one, say("only-one-of-its-base")) for one in group]
            return None, []
        offers = self._that_help(mother, goals, own, key, thicken, finish)
        pot = self._pot_of(key, mother, offers)
        names = {branch.goal.key: branch for branch in mother.branches}
        return pot, [self._branch(one, key, names[one.key], bases) for one in group]

    def _made(
        self,
        goals: list[BranchGoal],
        bases: dict[str, Base],
        key: str,
        thicken: frozenset[str],
        finish: dict[str, tuple[Pan | None, int]],
    ) -> Mother:
        return mother_for(
            goals,
            bases,
            self._pan_for_mother(key),
            self._kitchen,
            thicken,
            lambda goal: finish[goal.key][0],
        )

    def _that_help(
        self,
        mother: Mother,
        goals: list[BranchGoal],
        bases: dict[str, Base],
        key: str,
        thicken: set[str],
        finish: dict[str, tuple[Pan | None, int]],
    ) -> tuple[Offer, ...]:
        """Of what is offered where a branch is let down too far, what was tried and helps; of a large
        family the first that does, for whoever waits."""
        helps: list[Offer] = []
        far = len(too_far(mother.branches))
        for offer in mother.offers:
            if helps and len(goals) > _LARGE_FAMILY:
                break
            own = offer.do == "own"
            rest = [goal for goal in goals if not own or goal.key != offer.branch]
            bound = frozenset(thicken if own else thicken | {offer.branch})
            try:
                if len(rest) < 2 or far > too_far_of(
                    rest,
                    bases,
                    self._pan_for_mother(key),
                    self._kitchen,
                    bound,
                    lambda goal: finish[goal.key][0],
                ):
                    helps.append(offer)
            except BadInput:
                continue
        return tuple(helps)

    def _finished(self, one: Wanted) -> tuple[Pan | None, int]:
        """The pan a branch is finished in, and in how many parts it is weighed out."""
        made = check(one.sheet, self._kitchen).final.pot
        fullest = load_of(one.sheet, self._kitchen).fullest * one.to_make_ml / made.yield_ml
        need = max(one.to_make_ml, fullest)
        return self._shelf.finished_in(one.key, need, sour=meets_metal(made.balance))

    def _pot_of(self, key: str, mother: Mother, offers: tuple[Offer, ...]) -> PotPlan:
        one = mother.checked.final.pot
        pan = mother.checked.pan
        given = self._shelf.take(pan, mother.base.name, mother.batches)
        fullest = _fullest_ml(mother.checked) / pan.capacity_ml
        return PotPlan(
            key=key,
            name=mother.base.name,
            mother=True,
            sheet=mother.sheet,
            checked=mother.checked,
            final=mother.checked.final,
            batches=mother.batches,
            pan=pan,
            in_pan=given.called,
            fill_share=fullest,
            minutes=one.minutes,
            made_g=mother.made_g,
            made_ml=one.yield_ml * mother.batches,
            taken_g=mother.taken_g,
            film_g=mother.film_g,
            left_g=mother.left_g,
            thickest=mother.thickest,
            notes=(*given.notes, *self._notes(mother.checked, mother.batches, given.at_once)),
            offers=offers,
        )

    def _branch(
        self, one: Wanted, pot: str, branch: Branch, bases: dict[str, Base | Sentence]
    ) -> BranchPlan:
        base, why, times = bases[one.key], None, branch.goal.batches
        if self._service.force.get(one.sauce) == "share" and isinstance(base, Base):
            why = say("made-to-share", base=base.name)
        return BranchPlan(
            **one.told(),
            pot=pot,
            sheet=branch.sheet,
            final=branch.final,
            film_ml=one.film_ml,
            made_ml=times * branch.final.pot.yield_ml,
            base_g=times * branch.poured.base_g,
            let_down_g=times * branch.poured.let_down_g,
            let_down_share=branch.poured.let_down_share,
            bound_g=times * branch.poured.bound_g,
            why=why,
            can_share=True,
            batches=times,
            cost=times * branch.final.pot.cost + one.stock_cost,
        )

    def _own(self, one: Wanted, why: Sentence, can_share: bool) -> tuple[PotPlan, BranchPlan]:
        """A pot of its own, solved for its grade and volume in a pan of the kitchen's."""
        key = f"own-{one.key}"
        pan, batches, said, checked = self._fitted(one, key)
        sheet, final = checked.sheet, checked.final
        given = self._shelf.take(pan, one.sheet.name, batches)
        fullest = _fullest_ml(checked) / pan.capacity_ml
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
            in_pan=given.called,
            fill_share=fullest,
            minutes=final.pot.minutes,
            made_g=made_g,
            made_ml=made_ml,
            taken_g=made_g - film_g,
            film_g=film_g,
            left_g=0.0,
            thickest=one.key,
            notes=(*said, *given.notes, *self._notes(checked, batches, given.at_once)),
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
            batches=batches,
            pan=pan.name,
            in_pan=given.called,
            cost=batches * final.pot.cost + one.stock_cost,
        )
        return pot, branch

    def _fitted(self, one: Wanted, key: str) -> tuple[Pan, int, tuple[Sentence, ...], CheckedSheet]:
        """A pan and batches for a sauce in a pot of its own, and the sauce solved in it: what it is
        at its fullest is known only then, and where that is too much it is fitted anew. Raises
        :class:`BadInput`."""
        checked = check(one.sheet, self._kitchen)
        # What goes in before a reduction is what the pan has to hold.
        load = load_of(one.sheet, self._kitchen).times(one.to_make_ml / checked.final.pot.yield_ml)
        sour = any(meets_metal(state.pot.balance) for state in checked.steps)
        written = stops_as_written(one.sheet, self._kitchen)
        for _ in range(_FITTINGS):
            pan, batches, said = self._pan_for(one, key, load, sour)
            placed = written.model_copy(update={"pan": SheetPan.of(pan)})
            placed = placed.model_copy(update={"steps": self._first_in(placed.steps, key)})
            sheet = self._cooked_alone(placed, one, one.to_make_ml / batches)
            fitted = check(sheet, self._kitchen)
            fullest = batches * _fullest_ml(fitted)
            if fullest <= 1.02 * load.fullest or fullest <= 1.02 * batches * K.POT_FULLEST * (
                pan.capacity_ml
            ):
                break
            load = load.times(fullest / load.fullest)
        return pan, batches, said, fitted

    def _cooked_alone(self, placed: Sheet, one: Wanted, ml: float) -> Sheet:
        """``placed`` solved for ``ml`` of it in its grade, weighable; so little that it would boil dry
        is made as much larger as it takes, and that is said. Raises :class:`BadInput`."""
        written = check(placed, self._kitchen).final.pot.yield_ml
        size = ml
        while True:
            try:
                sheet = self._solved(placed, one, size)
                break
            except BadInput:
                if size >= written:
                    raise
                size = min(2.0 * size, max(written, 1.001 * size))
        if size > ml:
            self._warnings.append(
                say("so-little-boils-dry", name=one.sheet.name, made_ml=size, need_ml=ml)
            )
        return sheet

    def _solved(self, placed: Sheet, one: Wanted, ml: float) -> Sheet:
        """``ml`` of ``placed`` in its grade; the nearest where that cannot be had, and so it is said;
        as it is written, turned or not, where nothing else can. Raises :class:`BadInput`."""
        goal = goal_of(placed, one.grade, Amount(K.POT_A_LITTLE_OVER * ml, "mL"))
        try:
            return self._weighable(solve(placed, goal, self._kitchen).sheet, goal)
        except BadInput as bad:
            missed = bad
        as_is = goal_of(placed.model_copy(update={"target": _open(placed)}), None, goal.volume)
        if isinstance(missed, Unreachable) and missed.nearest:
            sheet = self._weighable(missed.nearest, as_is)
        else:  # one sauce never takes the others' plan away
            sheet = self._weighable(solve(placed, as_is, self._kitchen, as_found=True).sheet, as_is)
        grade = spoken_grade(one.grade) if one.grade else say("its-volume")
        why = missed.problems[0].message
        self._warnings.append(
            say("cannot-be-brought-to", name=one.sheet.name, grade=grade, why=why)
        )
        return sheet

    def _weighable(self, sheet: Sheet, goal: Goal) -> Sheet:
        return rounded_for_kitchen(sheet, goal, self._kitchen, within=K.POT_WITHIN).sheet

    def _first_in(self, steps: tuple[AnyStep, ...], key: str) -> tuple[AnyStep, ...]:
        """``steps`` with the pans the cook chose for the sauces made first for them."""
        placed: list[AnyStep] = []
        keys = keys_inside(steps)
        for number, step in enumerate(steps):
            if isinstance(step, Use) and step.inside:
                inside = first_key(key, keys[number])
                changes: dict[str, object] = {"steps": self._first_in(step.sauce.steps, inside)}
                chosen = self._shelf.chosen(inside) or self._shelf.chosen(f"{key}/{number}")
                if chosen:
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
            key, batches = (pot.key, pot.batches) if pot else (branch.key, branch.batches)
            checked = pot.checked if pot else check(branch.sheet, self._kitchen)
            for made in pots_inside(checked, self._kitchen):
                given = self._shelf.take(made.checked.pan, made.sheet.name)
                told.append(
                    FirstPot(
                        key=first_key(key, made.key),
                        of=key,
                        name=made.sheet.name,
                        pan=made.checked.pan,
                        in_pan=given.called,
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
        missing_ml = one.need_ml - one.from_stock_ml
        why = say("enough-but-for-the-margin", ml=missing_ml)
        return BranchPlan(
            **one.told(),
            pot="",
            sheet=sheet,
            final=check(sheet, self._kitchen).final,
            why=say("enough-on-hand") if missing_ml < _TOLD_ML else why,
            cost=one.stock_cost,
        )

    def _pan_for_mother(self, key: str) -> Callable[[float], tuple[Pan, int]]:
        def pan_for(ml: float) -> tuple[Pan, int]:
            chosen = self._shelf.chosen(key)
            if chosen is not None:
                return chosen, self._shelf.batches(ml, K.POT_HOLDS * chosen.capacity_ml)
            return self._shelf.reached_for(Load(ml))

        return pan_for

    def _pan_for(
        self, one: Wanted, key: str, load: Load, sour: bool
    ) -> tuple[Pan, int, tuple[Sentence, ...]]:
        """The pan for a sauce in a pot of its own, in how many batches, and what to say of it: the
        one the cook chose, else the sheet's own where it holds the batch, else one of the
        kitchen's for its heaviest moment."""
        shelf = self._shelf
        chosen = shelf.chosen(key)
        if chosen is not None:
            return chosen, shelf.batches(load.fullest, K.POT_HOLDS * chosen.capacity_ml), ()
        own = one.sheet.pan.as_pan() if one.sheet.pan else None
        if own and one.variant and load.fullest < K.POT_EMPTIEST * own.capacity_ml:
            own = None  # two portions for a guest are not made in the pan of the whole sauce
        if own is not None and load.fullest <= K.POT_HOLDS * own.capacity_ml:
            return own, shelf.batches(load.fullest, own.capacity_ml), ()
        pan, batches = shelf.reached_for(load, sour=sour)
        if own is None:
            return pan, batches, ()
        return pan, batches, (say("own-pan-too-small", own=own.name, pan=pan.name),)

    def _placed(self, branch: BranchPlan, mother: object) -> BranchPlan:
        """A mother's branch in its pan: the one it was planned in, where no pot before it took that
        pan, else the next free one; made in another than planned, it is weighed out anew for it."""
        if branch.pan or not branch.pot:
            return branch
        shelf = self._shelf
        planned = branch.sheet.pan.as_pan() if branch.sheet.pan else None
        chosen = shelf.chosen(branch.key)
        pan = planned if chosen or (planned and shelf.is_free(planned)) else None
        if pan is None or not shelf.knows(pan):
            sour = meets_metal(branch.final.pot.balance)
            pan = shelf.free_for(branch.made_ml / branch.batches, sour=sour)
        if pan is None:  # none is free: the one it was planned in, after whoever has it
            pan = planned
        if pan is None or not shelf.knows(pan):
            return branch
        given = shelf.take(pan, branch.name, branch.batches, mother)
        placed = replace(branch, pan=pan.name, in_pan=given.called, notes=given.notes)
        same = planned is not None and pan.name == planned.name
        return placed if same else self._moved(placed, pan)

    def _moved(self, branch: BranchPlan, pan: Pan) -> BranchPlan:
        """``branch`` finished in ``pan``, where that keeps what it was made for; as it was planned,
        with a word, where what boils off there would cost it its grade."""
        sheet = branch.sheet.model_copy(update={"pan": SheetPan.of(pan)})
        final = check(sheet, self._kitchen).final
        if final.thickness.grade == branch.final.thickness.grade:
            made = branch.batches * final.pot.yield_ml
            if abs(made / branch.made_ml - 1.0) <= K.POT_WITHIN:
                return replace(branch, sheet=sheet, final=final, made_ml=made)
        return replace(branch, notes=(*branch.notes, _OTHER_PAN))

    def _notes(self, checked: CheckedSheet, batches: int, at_once: int) -> tuple[Sentence, ...]:
        notes = []
        pan, ml = checked.pan, checked.final.pot.total_ml
        fullest = _fullest_ml(checked) / pan.capacity_ml
        if not self._shelf.pans:
            notes.append(say("no-pans-known"))
        if batches > K.MOST_BATCHES:
            notes.append(say("in-far-too-many-batches", batches=batches, pan=pan.name))
        elif batches > 1:
            code = "in-batches-at-once" if at_once > 1 else "in-batches"
            notes.append(say(code, batches=batches, pans=at_once))
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


def _is_of(key: str, made_of: str) -> bool:
    """Whether the mother of this ``key`` is one ``made_of`` that."""
    return key == made_of or key.startswith(f"{made_of}-of-")


def first_key(pot: str, inside: str) -> str:
    """The key of the sauce ``inside`` (:class:`PotInside`), made first for ``pot``."""
    return short_key(f"{pot}/{inside}")


def _fullest_ml(checked: CheckedSheet) -> float:
    """The most that is in its pot at any moment, mL."""
    return max(state.pot.total_ml for state in checked.steps)


def _any_guest(group: list[Wanted]) -> bool:
    return any(one.guest for one in group)


def _boils_down(checked: CheckedSheet) -> bool:
    """Whether something is boiled down in it: such a pan is wide on purpose."""
    return any(isinstance(step, Reduce) for step in checked.sheet.steps)


def _open(sheet: Sheet) -> Target:
    return sheet.target.model_copy(update={"grade": None})


def _goal(one: Wanted, batches: int) -> BranchGoal:
    assert one.grade is not None
    target = grade_named(one.grade).target
    return BranchGoal(
        key=one.key,
        sheet=one.sheet,
        volume_ml=one.to_make_ml / batches,
        viscosity_pa_s=target,
        serving_c=one.sheet.target.serving_c,
        batches=batches,
    )
