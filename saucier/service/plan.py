"""From lines to needs, from needs to branches, from branches to pots."""

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from saucier.check import CheckedSheet, State, check, thickness_of
from saucier.dish import (
    Dish,
    InRounds,
    Layout,
    SauceNeed,
    in_rounds,
    layout_of,
    needs_of,
    on_plate_c,
    without,
)
from saucier.errors import BadInput
from saucier.heat import Pan, pan_for
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient
from saucier.mother import Base, Branch, BranchGoal, Mother, Offer, base_of, mother_for, same_base
from saucier.service.document import Line, Service
from saucier.service.on_hand import Used, used_first
from saucier.sheet import Sheet, SheetPan, Target
from saucier.solve import goal_of, rounded_for_kitchen, solve
from saucier.steps import Reserve
from saucier.steps.base import pot_heat_j_per_k
from saucier.thickness import grade_named
from saucier.units import Amount

FULLEST, EMPTIEST = 2 / 3, 1 / 4
"""A pot is at most two thirds full and at least a quarter (model.md 7)."""
MOST_BATCHES = 12
_WITHIN = 0.008
"""A rounded pot may miss its volume by so much, under the one percent promised."""
_POTS = ("straight", "sloped")


@dataclass(frozen=True, slots=True)
class Asked:
    """One need of one line: ``line`` is its number, ``branch`` the branch that meets it."""

    line: int
    dish: str
    branch: str
    need: SauceNeed


@dataclass(frozen=True, slots=True)
class BranchPlan:
    """One finished sauce: what it is asked for, what is ``made_ml``, from which pot, and why it has
    one of its own where it does. ``sheet`` cooks it (a mother's branch takes her in), ``final`` is
    what it comes to. ``from_stock_ml`` was there already, and counts in its ``cost``."""

    key: str
    sauce: str
    name: str
    grade: str | None
    asked: tuple[Asked, ...]
    need_ml: float
    from_stock_ml: float
    pot: str
    sheet: Sheet
    final: State
    cost: float
    film_ml: float = 0.0
    made_ml: float = 0.0
    base_g: float = 0.0
    let_down_g: float = 0.0
    let_down_share: float = 0.0
    bound_g: float = 0.0
    why: str = ""
    can_share: bool = False
    pan: str = ""


@dataclass(frozen=True, slots=True)
class Pot:
    """One pot, a mother or a sauce of its own: one of ``batches`` as ``sheet`` in ``pan``, filled to
    ``fill_share``, ``minutes`` each. ``made_g`` of all batches, ``taken_g`` by the branches, ``film_g``
    and ``left_g`` what is not."""

    key: str
    name: str
    mother: bool
    sheet: Sheet
    checked: CheckedSheet
    batches: int
    pan: Pan
    fill_share: float
    minutes: float
    made_g: float
    made_ml: float
    taken_g: float
    film_g: float
    left_g: float
    thickest: str
    notes: tuple[str, ...]
    offers: tuple[Offer, ...]


@dataclass(frozen=True, slots=True)
class LinePlan:
    """One line: its dish (after what it goes ``without``), needs, vessels, rounds, what it costs
    and brings. ``on_plate`` tells the grade of each sauce at the plate's temperature."""

    line: Line
    dish: Dish
    needs: tuple[SauceNeed, ...]
    branches: tuple[str, ...]
    left_out: tuple[str, ...]
    layout: Layout | None
    rounds: tuple[InRounds, ...]
    on_plate: tuple[str, ...] = ()
    allergens: frozenset[str] = frozenset()
    cost: float = 0.0

    @property
    def cost_each(self) -> float:
        return self.cost / self.line.portions


@dataclass(frozen=True, slots=True)
class Plan:
    """The whole service. ``used`` is stock used first; ``warnings`` what to mind; ``by_recipe_ml``
    what would be left over had each dish made its sauces apart, by halves of their recipes."""

    service: Service
    lines: tuple[LinePlan, ...]
    branches: tuple[BranchPlan, ...]
    pots: tuple[Pot, ...]
    used: tuple[Used, ...]
    warnings: tuple[str, ...]
    by_recipe_ml: float

    @property
    def left_ml(self) -> float:
        """What is made beyond the needs and what clings, mL."""
        return sum(
            b.made_ml + b.from_stock_ml - b.need_ml - b.film_ml for b in self.branches
        ) + sum(pot.left_g * pot.made_ml / pot.made_g for pot in self.pots if pot.mother)


@dataclass
class _Wanted:
    """A branch being gathered."""

    key: str
    sauce: str
    sheet: Sheet
    grade: str | None
    film_ml: float
    asked: list[Asked] = field(default_factory=list)
    used: list[Used] = field(default_factory=list)

    @property
    def need_ml(self) -> float:
        return sum(one.need.volume_ml for one in self.asked)

    @property
    def from_stock_ml(self) -> float:
        return sum(one.ready_ml for one in self.used)

    @property
    def stock_cost(self) -> float:
        return sum(one.cost for one in self.used)

    @property
    def to_make_ml(self) -> float:
        return max(0.0, self.need_ml - self.from_stock_ml) + self.film_ml

    def told(self) -> dict[str, Any]:
        """What a branch says of itself, however it is made."""
        return {
            "key": self.key,
            "sauce": self.sauce,
            "name": self.sheet.name,
            "grade": self.grade,
            "asked": tuple(self.asked),
            "need_ml": self.need_ml,
            "from_stock_ml": self.from_stock_ml,
        }


def plan_service(
    service: Service,
    dishes: Mapping[str, Dish],
    sheets: Mapping[str, Sheet],
    kitchen: Kitchen,
    pans: Sequence[Pan],
) -> Plan:
    """``service`` worked out: every need met by a branch, every branch by a pot.

    ``dishes`` and ``sheets`` hold what the lines and dishes name. Raises :class:`BadInput`
    under ``lines[i]`` for what cannot be served, ``pans`` where no pan is large enough.
    """
    planned, wanted = _gather(service, dishes, sheets, kitchen)
    warnings = _on_hand_checked(service, wanted, kitchen)
    for one in wanted.values():
        one.used, said = used_first(service, one.sauce, one.sheet, one.grade, one.need_ml, kitchen)
        warnings += said
    branches, pots = _Stove(service, kitchen, pans, warnings).cooked(list(wanted.values()))
    by_key = {branch.key: branch for branch in branches}
    lines = tuple(_costed(one, by_key, kitchen) for one in planned)
    for number, line in enumerate(lines):
        if line.layout and line.layout.warning:
            warnings.append(f"line {number + 1}, {line.dish.name}: {line.layout.warning}")
    used = tuple(one for want in wanted.values() for one in want.used)
    return Plan(
        service,
        lines,
        branches,
        pots,
        used,
        tuple(dict.fromkeys(warnings)),
        _left_by_recipe(wanted.values(), kitchen),
    )


def _on_hand_checked(
    service: Service, wanted: Mapping[str, _Wanted], kitchen: Kitchen
) -> list[str]:
    """What is on hand for nothing today, in words. Raises :class:`BadInput` under ``on_hand[i]``
    for an ingredient nobody knows or an amount that does not fit it."""
    used = {one.sauce for one in wanted.values()}
    said = []
    for number, one in enumerate(service.on_hand):
        try:
            if one.ingredient:
                kitchen.larder[one.ingredient].grams(one.amount)
        except BadInput as bad:
            field = "" if bad.problems[0].field == "ingredient" else ".amount"
            raise bad.under(f"on_hand[{number}]{field}") from None
        if one.sauce and one.sauce not in used:
            said.append(f"on hand, entry {number + 1}: no dish takes that sauce today")
    return said


def _gather(
    service: Service, dishes: Mapping[str, Dish], sheets: Mapping[str, Sheet], kitchen: Kitchen
) -> tuple[list[LinePlan], dict[str, _Wanted]]:
    planned: list[LinePlan] = []
    wanted: dict[str, _Wanted] = {}
    for number, line in enumerate(service.lines):
        at = f"lines[{number}]"
        if line.dish not in dishes:
            raise BadInput.at(f"{at}.dish", "is not among the dishes", "Pick one of them")
        whole = dishes[line.dish]
        own = {used.sauce: _sheet(used.sauce, sheets, at) for used in whole.sauces}
        try:
            dish, own, left_out = without(whole, own, line.without, kitchen)
            needs = needs_of(dish, line.portions, kitchen)
            layout = layout_of(dish, line.portions, needs, kitchen.larder)
        except BadInput as bad:
            raise bad.under(at) from None
        keys = []
        for need in needs:
            sheet = own[need.sauce]
            grade = need.grade or sheet.target.grade
            changed = sheet.steps != sheets[need.sauce].steps
            key = "~".join(
                [need.sauce, grade or "as-is", *(sorted(line.without) if changed else ())]
            )
            if key not in wanted:
                plain = tuple(step for step in sheet.steps if not isinstance(step, Reserve))
                name = sheet.name + (f", without {' or '.join(line.without)}" if changed else "")
                sheet = sheet.model_copy(update={"steps": plain, "name": name[:120]})
                wanted[key] = _Wanted(key, need.sauce, sheet, grade, kitchen.film_ml)
            wanted[key].asked.append(Asked(number, dish.name, key, need))
            keys.append(key)
        rounds = tuple(in_rounds(one, line.portions) for one in dish.rounds)
        planned.append(LinePlan(line, dish, tuple(needs), tuple(keys), left_out, layout, rounds))
    return planned, wanted


def _sheet(key: str, sheets: Mapping[str, Sheet], at: str) -> Sheet:
    if key not in sheets:
        raise BadInput.at(
            f"{at}.dish", f"uses the sauce “{key}”, which is not there", "Pick a sauce"
        )
    return sheets[key]


class _Stove:
    """Pots for branches: who shares, who does not, in which pan."""

    def __init__(
        self, service: Service, kitchen: Kitchen, pans: Sequence[Pan], warnings: list[str]
    ) -> None:
        self._service, self._kitchen, self._warnings = service, kitchen, warnings
        # Bare metal last: it turns wine, lemon and yolk grey.
        there = (pan for pan in pans if pan.shape in _POTS)
        self._pans = sorted(there, key=lambda pan: (pan.reactive, pan.capacity_ml))
        self._taken: set[str] = set()

    def cooked(self, wanted: list[_Wanted]) -> tuple[tuple[BranchPlan, ...], tuple[Pot, ...]]:
        made = [one for one in wanted if one.need_ml > one.from_stock_ml]
        groups, alone, bases = self._grouped(made)
        branches: list[BranchPlan] = []
        pots: list[Pot] = []
        groups.sort(key=lambda group: -sum(one.to_make_ml for one in group))
        for number, group in enumerate(groups):
            pot, found = self._mother(number, group, bases, alone)
            if pot is not None:
                pots.append(pot)
            branches += found
        # The smallest first: each takes the smallest pan it fits, and leaves the large ones.
        for one, why in sorted(alone, key=lambda pair: pair[0].to_make_ml):
            pot, branch = self._own(one, why, not isinstance(bases[one.key], str))
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
        self, wanted: list[_Wanted]
    ) -> tuple[list[list[_Wanted]], list[tuple[_Wanted, str]], dict[str, Base | str]]:
        force = self._service.force
        bases = {one.key: base_of(one.sheet, self._kitchen) for one in wanted}
        groups: list[list[_Wanted]] = []
        alone: list[tuple[_Wanted, str]] = []
        waiting: list[_Wanted] = []
        for one in sorted(wanted, key=lambda one: -one.to_make_ml):
            base = bases[one.key]
            if isinstance(base, str):
                alone.append((one, base))
            elif one.grade is None:
                alone.append((one, "no grade is asked of it"))
            elif force.get(one.sauce) == "own":
                alone.append((one, "you gave it its own"))
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
        one: _Wanted, base: Base, groups: list[list[_Wanted]], bases: dict[str, Base | str]
    ) -> None:
        for group in groups:
            there = bases[group[0].key]
            if isinstance(there, Base) and same_base(base, there) is None:
                group.append(one)
                return
        groups.append([one])

    @staticmethod
    def _why_alone(one: _Wanted, groups: list[list[_Wanted]], bases: dict[str, Base | str]) -> str:
        base = bases[one.key]
        for group in groups:
            there = bases[group[0].key]
            if group[0] is not one and isinstance(base, Base) and isinstance(there, Base):
                differs = same_base(base, there)
                if differs:
                    return f"another base than {group[0].sheet.name}: {differs}"
        return "nothing else today has its base"

    def _mother(
        self,
        number: int,
        group: list[_Wanted],
        bases: dict[str, Base | str],
        alone: list[tuple[_Wanted, str]],
    ) -> tuple[Pot | None, list[BranchPlan]]:
        """A mother for ``group``; who cannot be made from her goes to ``alone``."""
        thicken = {one.key for one in group if self._service.force.get(one.sauce) == "thicken"}
        while len(group) > 1:
            goals = [_goal(one) for one in group]
            own = {one.key: base for one in group if isinstance(base := bases[one.key], Base)}
            try:
                mother = mother_for(goals, own, self._pan_for, self._kitchen, frozenset(thicken))
                break
            except BadInput as bad:
                problem = bad.problems[0]
                out = next((one for one in group if problem.field.startswith(one.key)), None)
                if out is None:
                    raise
                alone.append((out, f"not from the mother: {problem.message}"))
                group = [one for one in group if one is not out]
        else:
            alone += [(one, "nothing else today has its base") for one in group]
            return None, []
        key = f"mother-{number + 1}"
        pot = self._pot_of(key, mother)
        names = {branch.goal.key: branch for branch in mother.branches}
        return pot, [self._branch(one, key, names[one.key], bases) for one in group]

    def _pot_of(self, key: str, mother: Mother) -> Pot:
        one = mother.checked.final.pot
        pan = mother.checked.pan
        self._taken.add(pan.name)
        fullest = max(state.pot.total_ml for state in mother.checked.steps) / pan.capacity_ml
        return Pot(
            key=key,
            name=mother.base.name,
            mother=True,
            sheet=mother.sheet,
            checked=mother.checked,
            batches=mother.batches,
            pan=pan,
            fill_share=fullest,
            minutes=one.minutes,
            made_g=mother.made_g,
            made_ml=one.total_ml * mother.batches,
            taken_g=mother.taken_g,
            film_g=mother.film_g,
            left_g=mother.left_g,
            thickest=mother.thickest,
            notes=self._notes(pan, fullest, mother.batches),
            offers=mother.offers,
        )

    def _branch(
        self, one: _Wanted, pot: str, branch: Branch, bases: dict[str, Base | str]
    ) -> BranchPlan:
        base, why = bases[one.key], ""
        if self._service.force.get(one.sauce) == "share" and isinstance(base, Base):
            why = f"you let it share, though its own base is {base.name.lower()}"
        return BranchPlan(
            **one.told(),
            pot=pot,
            sheet=branch.sheet,
            final=branch.final,
            film_ml=one.film_ml,
            made_ml=branch.final.pot.total_ml,
            base_g=branch.poured.base_g,
            let_down_g=branch.poured.let_down_g,
            let_down_share=branch.poured.let_down_share,
            bound_g=branch.poured.bound_g,
            why=why,
            can_share=True,
            cost=branch.final.pot.cost + one.stock_cost,
        )

    def _own(self, one: _Wanted, why: str, can_share: bool) -> tuple[Pot, BranchPlan]:
        """A pot of its own, solved for its grade and volume in a pan of the kitchen's."""
        ml = one.to_make_ml
        pan, batches = self._pan_for(ml)
        placed = one.sheet.model_copy(update={"pan": SheetPan.of(pan)})
        goal = goal_of(placed, one.grade, Amount(ml / batches, "mL"))
        try:
            sheet = solve(placed, goal, self._kitchen).sheet
            sheet = rounded_for_kitchen(sheet, goal, self._kitchen, within=_WITHIN).sheet
        except BadInput as bad:
            goal = goal_of(placed.model_copy(update={"target": _open(placed)}), None, goal.volume)
            try:
                sheet = solve(placed, goal, self._kitchen).sheet
            except BadInput:
                raise bad.under(one.sauce) from None
            self._warnings.append(
                f"{one.sheet.name} cannot be brought to {one.grade}: {bad.problems[0].message}"
            )
        checked = check(sheet, self._kitchen)
        final = checked.final
        self._taken.add(pan.name)
        fullest = max(state.pot.total_ml for state in checked.steps) / pan.capacity_ml
        key = f"own-{one.key}"
        made_g, made_ml = batches * final.pot.total_g, batches * final.pot.total_ml
        film_g = one.film_ml * final.pot.total_g / final.pot.total_ml
        pot = Pot(
            key=key,
            name=one.sheet.name,
            mother=False,
            sheet=sheet,
            checked=checked,
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
            notes=self._notes(pan, fullest, batches),
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

    def _all_there(self, one: _Wanted) -> BranchPlan:
        """Nothing to make: what is on hand is enough."""
        sheet = one.used[0].sheet
        return BranchPlan(
            **one.told(),
            pot="",
            sheet=sheet,
            final=check(sheet, self._kitchen).final,
            why="made ahead: enough is on hand",
            cost=one.stock_cost,
        )

    def _pan_for(self, ml: float) -> tuple[Pan, int]:
        """The smallest free pan that ``ml`` fills to two thirds at most, or the largest pan in so
        many equal batches. Raises :class:`BadInput` (field ``pans``)."""
        if not self._pans:
            return pan_for(ml / FULLEST), 1
        free = [pan for pan in self._pans if pan.name not in self._taken]
        for pool in (free, self._pans):
            for pan in pool:
                if ml <= FULLEST * pan.capacity_ml:
                    return pan, 1
        largest = max(self._pans, key=lambda pan: (not pan.reactive, pan.capacity_ml))
        batches = math.ceil(ml / (FULLEST * largest.capacity_ml))
        if batches > MOST_BATCHES:
            raise BadInput.at(
                "pans",
                f"are too small: {ml / 1000:.1f} L would take {batches} rounds in {largest.name}",
                "Add a larger pan in the Larder, or serve fewer",
            )
        return largest, batches

    def _placed(self, branch: BranchPlan) -> BranchPlan:
        """A mother's branch with the smallest free pan it leaves a fifth of to be finished in."""
        if branch.pan or not branch.pot:
            return branch
        for pan in self._pans:
            if pan.name not in self._taken and branch.made_ml <= 0.8 * pan.capacity_ml:
                self._taken.add(pan.name)
                return replace(branch, pan=pan.name)
        return branch

    def _notes(self, pan: Pan, fullest: float, batches: int) -> tuple[str, ...]:
        notes = []
        if not self._pans:
            notes.append("no pans are known: one that fits was assumed")
        if batches > 1:
            notes.append(f"{batches} batches, one after the other or in as many such pans")
        if fullest > FULLEST + 0.05:
            notes.append("over two thirds full at its fullest: mind the boil")
        elif fullest < EMPTIEST:
            notes.append("under a quarter full: it boils off fast and catches")
        return tuple(notes)


def _open(sheet: Sheet) -> Target:
    return sheet.target.model_copy(update={"grade": None})


def _goal(one: _Wanted) -> BranchGoal:
    assert one.grade is not None
    target = grade_named(one.grade).target
    return BranchGoal(one.key, one.sheet, one.to_make_ml, target, one.sheet.target.serving_c)


def _costed(one: LinePlan, branches: Mapping[str, BranchPlan], kitchen: Kitchen) -> LinePlan:
    """The line with its cost, its allergens and how thick its sauces are on the plate."""
    larder, dish, portions = kitchen.larder, one.dish, one.line.portions
    cost, allergens = 0.0, frozenset[str]()
    for solid in dish.solids:
        row = larder[solid.ingredient]
        cost += portions * bought_g(solid.grams, solid.state, row) / 1000.0 * row.price_per_kg
        allergens |= row.allergens
    for key, grams in toppings_g(one).items():
        cost += grams / 1000.0 * larder[key].price_per_kg
        allergens |= larder[key].allergens
    told = []
    for need, key in zip(one.needs, one.branches, strict=True):
        branch = branches[key]
        total = branch.made_ml + branch.from_stock_ml
        cost += branch.cost * need.volume_ml / max(total, 1e-9)
        allergens |= branch.final.pot.allergens
        sauce = branch.final.pot
        each = need.volume_ml / portions / sauce.total_ml * pot_heat_j_per_k(sauce)
        at = on_plate_c(dish, each, branch.sheet.target.serving_c, larder)
        there = thickness_of(sauce, at)
        told.append(f"{branch.name}: {there.grade or there.reason} at {at:.0f} °C")
    return replace(one, on_plate=tuple(told), allergens=allergens, cost=cost)


def toppings_g(one: LinePlan) -> dict[str, float]:
    """Grams of each topping for the whole line."""
    if one.layout:
        return {key: grams * one.layout.vessels for key, grams in one.layout.toppings.items()}
    return {
        topping.ingredient: (topping.grams or 0.0) * one.line.portions
        for topping in one.dish.toppings
    }


def bought_g(grams: float, state: str, row: Ingredient) -> float:
    """Grams to buy for ``grams`` as they go into the dish: what cooking and trimming leave."""
    raw = grams if state == "dry" else grams / row.drained_share
    return raw / row.usable_share


def _left_by_recipe(wanted: Iterable[_Wanted], kitchen: Kitchen) -> float:
    """mL left over were every dish's sauce made apart, by halves of its own recipe: what is done
    where nobody reckons."""
    left = 0.0
    for one in wanted:
        half = 0.5 * check(one.sheet, kitchen).final.pot.total_ml
        for asked in one.asked:
            left += math.ceil(asked.need.volume_ml / half) * half - asked.need.volume_ml
    return left
