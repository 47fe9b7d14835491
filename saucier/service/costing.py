"""What each line costs and brings to the plate, and what is spared by planning."""

import math
from collections.abc import Iterable, Mapping
from dataclasses import replace

from saucier.check import check
from saucier.dish import at_the_table
from saucier.heat import pot_heat_j_per_k
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient
from saucier.service.planned import BranchPlan, LinePlan, PotPlan, Wanted
from saucier.thickness import spoken_grade, thickness_of
from saucier.words import say


def costed(one: LinePlan, branches: Mapping[str, BranchPlan], kitchen: Kitchen) -> LinePlan:
    """The line with its cost, its allergens and how thick its sauces are on the plate."""
    larder, dish, portions = kitchen.larder, one.dish, one.line.portions
    cost, allergens = 0.0, frozenset[str]()
    for solid in dish.solids:
        row = larder[solid.ingredient]
        cost += row.cost(portions * usable_g(solid.grams, solid.state, row))
        allergens |= row.allergens
    for key, grams in toppings_g(one).items():
        cost += larder[key].cost(grams)
        allergens |= larder[key].allergens
    sauces = [branches[key] for key in one.branches]
    pots = [branch.final.pot for branch in sauces]
    masses = [
        need.volume_ml / portions * pot.yield_g / pot.yield_ml
        for need, pot in zip(one.needs, pots, strict=True)
    ]
    poured = [
        (mass / pot.yield_g * pot_heat_j_per_k(pot), branch.sheet.target.serving_c)
        for mass, pot, branch in zip(masses, pots, sauces, strict=True)
    ]
    table = at_the_table(dish, [need.use.key for need in one.needs], poured, kitchen)
    told = []
    for need, branch, pot in zip(one.needs, sauces, pots, strict=True):
        total = branch.made_ml + branch.from_stock_ml
        cost += branch.cost * need.volume_ml / max(total, 1e-9)
        allergens |= pot.allergens
        there = thickness_of(table.as_eaten(pot, sum(masses)), table.at_c)
        grade = spoken_grade(there.grade) if there.grade else there.reason
        told.append(say("on-plate", name=branch.name, grade=grade, at_c=table.at_c))
    return replace(
        one,
        on_plate=tuple(told),
        allergens=tuple(sorted(allergens)),
        cost=cost,
        cost_each=cost / portions,
    )


def toppings_g(one: LinePlan) -> dict[str, float]:
    """Grams of each topping for the whole line."""
    if one.layout:
        return {key: grams * one.layout.vessels for key, grams in one.layout.toppings.items()}
    found: dict[str, float] = {}
    for topping in one.dish.toppings:  # crumbs all around and crumbs on top are both crumbs
        grams = (topping.grams or 0.0) * one.line.portions
        found[topping.ingredient] = found.get(topping.ingredient, 0.0) + grams
    return found


def usable_g(grams: float, state: str, row: Ingredient) -> float:
    """Grams of it, trimmed and raw, for ``grams`` as they go into the dish: what cooking leaves."""
    return grams if state == "dry" else grams / row.drained_share


def left_over_ml(branches: Iterable[BranchPlan], pots: Iterable[PotPlan]) -> float:
    """What is made beyond the needs and what clings, mL."""
    over = (b.made_ml + b.from_stock_ml - b.need_ml - b.film_ml for b in branches)
    # What a margin misses is not taken off what another pot leaves.
    return sum(max(0.0, ml) for ml in over) + sum(
        pot.left_g * pot.made_ml / pot.made_g for pot in pots if pot.mother
    )


def left_by_recipe(wanted: Iterable[Wanted], kitchen: Kitchen) -> float:
    """mL left over were every dish's sauce made apart, by halves of its own recipe: what is done
    where nobody reckons."""
    left = 0.0
    for one in wanted:
        half = 0.5 * check(one.sheet, kitchen).final.pot.yield_ml
        for asked in one.asked:
            left += math.ceil(asked.need.volume_ml / half) * half - asked.need.volume_ml
    return left
