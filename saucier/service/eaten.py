"""What a line is given to eat, every gram of it: what goes into its sauces, the mothers they are poured
from, what stood made, its solids and what goes over them."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from saucier.guests import Exclusion, raw_yolk_in
from saucier.guests.exclusion import soft_yolk
from saucier.kitchen import Kitchen
from saucier.pot import Pot
from saucier.service.planned import BranchPlan, LinePlan, Plan
from saucier.sheet import Sheet


@dataclass(frozen=True, slots=True)
class Eaten:
    """``keys`` of the larder that reach the plate, ``by_itself`` those beside the sauces; the ``pots``
    its sauces end as."""

    keys: frozenset[str]
    by_itself: frozenset[str]
    pots: tuple[Pot, ...]

    def held(self, excluded: Iterable[Exclusion], kitchen: Kitchen) -> tuple[str, ...]:
        """Names of what is ``excluded`` and in it all the same."""
        larder = kitchen.larder
        found: dict[str, None] = {}
        for one in excluded:
            hits = {key for key in self.keys if one.hits(larder[key])}
            if one.of_raw_yolk:
                hits |= {key for key in self.by_itself if soft_yolk(larder[key])}
                if any(raw_yolk_in(pot) for pot in self.pots):
                    hits.add("egg-yolk")
            found |= {larder[key].spoken_name: None for key in sorted(hits)}
        return tuple(found)


def eaten_by(plan: Plan, line: LinePlan, kitchen: Kitchen) -> Eaten:
    """Everything that reaches the plate of ``line``."""
    mothers = {pot.key: pot for pot in plan.pots if pot.mother}
    by_key = {branch.key: branch for branch in plan.branches}
    branches = [by_key[key] for key in line.branches]
    sauces = frozenset(key for branch in branches for key in _of_branch(branch, plan))
    sauces |= {
        key
        for branch in branches
        if branch.pot in mothers
        for key in named_in(mothers[branch.pot].sheet)
    }
    beside = frozenset(solid.ingredient for solid in line.dish.solids)
    over = frozenset(one.ingredient for one in line.dish.toppings if one.place == "top")
    coats = frozenset(one.ingredient for one in line.dish.toppings if one.place == "coating")
    return Eaten(
        sauces | beside | over | coats,
        beside | over,
        tuple(branch.final.pot for branch in branches),
    )


def _of_branch(branch: BranchPlan, plan: Plan) -> Iterator[str]:
    if branch.pot:
        yield from named_in(branch.sheet)
    if branch.from_stock_ml:
        for used in plan.used:
            if used.sauce == branch.sauce:
                yield from named_in(used.sheet)


def named_in(sheet: Sheet) -> frozenset[str]:
    """Keys of all that ``sheet`` names, sauces made for it included, however deep."""
    return frozenset(key for step in sheet.steps for key in step.names() if key)
