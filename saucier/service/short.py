"""Short of something: what can still be served."""

import math
from collections.abc import Callable
from dataclasses import dataclass

from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.service.costing import toppings_g, usable_g
from saucier.service.document import Service
from saucier.service.planned import Plan
from saucier.service.production import pasta_water, weighed_out
from saucier.units import Amount

_TRIES = 5


@dataclass(frozen=True, slots=True)
class LeftToServe:
    """Portions of a line that can be served: when all lines shrink alike, and when this one alone
    gives way (None: it uses none, or cannot free enough by itself)."""

    line: int
    dish: str
    asked: float
    uses_g: float
    all_alike: float
    alone: float | None


@dataclass(frozen=True, slots=True)
class Short:
    """``need_g`` of ``ingredient`` against ``have_g``: enough, or what can still be served."""

    ingredient: str
    name: str
    need_g: float
    have_g: float
    enough: bool
    lines: tuple[LeftToServe, ...]


Replan = Callable[[Service], Plan]
"""Works a service out again with other portions."""


def short_of(plan: Plan, ingredient: str, have: Amount, kitchen: Kitchen, replan: Replan) -> Short:
    """What of ``plan`` can be served with only ``have`` of ``ingredient``. A pot's share falls to its
    lines by the volume they take. All alike is worked out again until it fits, as caps, films and
    what clings do not shrink with the portions; a line alone is an estimate.

    Raises :class:`BadInput` (``ingredient``, ``have``).
    """
    row = kitchen.larder[ingredient]
    try:
        have_g = row.grams(have)
    except BadInput as bad:
        raise bad.under("have") from None
    per_line = _uses(plan, ingredient, kitchen)
    need = sum(per_line)
    missing = max(0.0, need - have_g)
    alike = _all_alike(plan, per_line, have_g, ingredient, kitchen, replan)
    lines = []
    for number, line in enumerate(plan.lines):
        uses, asked_for = per_line[number], line.line.portions
        alone: float | None = None
        if uses >= missing > 0.0:
            alone = float(math.floor(asked_for * (1.0 - missing / uses) + 1e-9))
        lines.append(
            LeftToServe(
                line=number,
                dish=line.dish.name,
                asked=asked_for,
                uses_g=uses,
                all_alike=alike[number],
                alone=alone,
            )
        )
    return Short(
        ingredient=ingredient,
        name=row.name,
        need_g=need,
        have_g=have_g,
        enough=have_g >= need,
        lines=tuple(lines),
    )


def _all_alike(
    plan: Plan,
    per_line: list[float],
    have_g: float,
    ingredient: str,
    kitchen: Kitchen,
    replan: Replan,
) -> list[float]:
    """Portions of every line when those that use it shrink by one share."""
    asked = [line.line.portions for line in plan.lines]
    need, share = sum(per_line), 1.0
    portions = list(asked)
    for _ in range(_TRIES):
        if need <= have_g:
            break
        share *= 0.999 * have_g / need
        portions = [
            float(math.floor(n * share + 1e-9)) if uses > 0.0 else n
            for n, uses in zip(asked, per_line, strict=True)
        ]
        rows = tuple(
            line.line.model_copy(update={"portions": n})
            for line, n in zip(plan.lines, portions, strict=True)
            if n > 0.0
        )
        again = replan(plan.service.model_copy(update={"lines": rows}))
        need = sum(_uses(again, ingredient, kitchen))
    return portions


def _uses(plan: Plan, ingredient: str, kitchen: Kitchen) -> list[float]:
    """Grams of ``ingredient``, as bought, that each line uses: what is weighed for its pots (salt up to
    a target too), what lets down a tub, what goes in and over beside."""
    row = kitchen.larder[ingredient]
    per_line = [0.0] * len(plan.lines)
    weighed: dict[str, float] = {}
    for one in weighed_out(plan, kitchen):
        grams = sum(w.grams for w in one.weighed if w.ingredient == ingredient)
        weighed[one.key] = one.batches * row.bought_g(grams)
    for first in plan.first:
        weighed[first.of] = weighed.get(first.of, 0.0) + weighed[first.key]
    mothers = {pot.key: pot for pot in plan.pots if pot.mother}
    for branch in plan.branches:
        pot = mothers.get(branch.pot)
        if pot is not None:
            share = branch.base_g / max(pot.taken_g, 1e-9)
            grams = weighed[branch.key] + share * weighed[pot.key]
        else:
            grams = weighed.get(branch.pot, 0.0)
        for asked in branch.asked:
            per_line[asked.line] += grams * asked.need.volume_ml / max(branch.need_ml, 1e-9)
    for used in plan.used:
        takers = [b for b in plan.branches if b.sauce == used.sauce and b.from_stock_ml]
        for branch in takers if used.liquid == ingredient else ():
            whole = sum(b.from_stock_ml for b in takers)
            grams = used.liquid_g * branch.from_stock_ml / whole
            for asked in branch.asked:
                per_line[asked.line] += grams * asked.need.volume_ml / branch.need_ml
    for number, line in enumerate(plan.lines):
        if line.refused:
            continue
        for solid in line.dish.solids:
            if solid.ingredient == ingredient:
                grams = solid.grams * line.line.portions
                per_line[number] += row.bought_g(usable_g(grams, solid.state, row))
        per_line[number] += row.bought_g(toppings_g(line).get(ingredient, 0.0))
        if ingredient == "salt":
            per_line[number] += pasta_water(line, kitchen)[2]
    return per_line
