"""What a service must be told before it is cooked: for people at risk, for guests, between sittings."""

from collections.abc import Iterator

from saucier import constants as K
from saucier.dish.tint import is_green
from saucier.guests import exclusions, raw_yolk_in
from saucier.guests.exclusion import soft_yolk
from saucier.keeping import stands_hot
from saucier.kitchen import Kitchen
from saucier.service.eaten import eaten_by, named_in
from saucier.service.planned import BranchPlan, LinePlan, Plan
from saucier.words import Sentence, say


def cautions_of(plan: Plan, kitchen: Kitchen) -> tuple[Sentence, ...]:
    """Everything the sheet on the wall warns of, guests first."""
    return tuple(
        dict.fromkeys(
            [
                *_guests(plan),
                *_contents_unsaid(plan, kitchen),
                *_yolk(plan, kitchen),
                *_alcohol(plan),
                *_cheese_of_vegetarians(plan, kitchen),
                *_between_sittings(plan, kitchen),
            ]
        )
    )


def _guests(plan: Plan) -> Iterator[Sentence]:
    guests = [line.called for line in plan.lines if line.line.without and not line.refused]
    if guests:
        yield say("caution.guests-first", guests=tuple(guests))
    for branch in plan.branches:
        others = [
            one.called for one in plan.lines if branch.key in one.branches and not one.line.without
        ]
        if branch.guests and others:
            yield say("caution.guests-share-first", name=branch.name, guests=branch.guests)


def _contents_unsaid(plan: Plan, kitchen: Kitchen) -> Iterator[Sentence]:
    """Rows on a guest's plate that do not say what is in them, where the guest goes without a food."""
    for line in plan.lines:
        if line.refused or not any(
            one.of_food for one in exclusions(line.line.without, kitchen.larder)
        ):
            continue
        names = tuple(
            kitchen.larder[key].spoken_name
            for key in sorted(eaten_by(plan, line, kitchen).keys)
            if kitchen.larder[key].holds is None
        )
        if names:
            yield say("caution.contents-unsaid", names=names, guest=line.called)


def _eating(plan: Plan, branch: BranchPlan) -> tuple[Sentence, ...]:
    return tuple(line.called for line in plan.lines if branch.key in line.branches)


def _yolk(plan: Plan, kitchen: Kitchen) -> Iterator[Sentence]:
    for branch in plan.branches:
        pot = branch.final.pot
        if raw_yolk_in(pot):
            yield say("caution.raw-yolk", name=branch.name, dishes=_eating(plan, branch))
        elif pot.balance.yolk_protein > 0.0 and pot.hottest_c < K.YOLK_COOKED_C:
            yield say(
                "caution.light-yolk",
                name=branch.name,
                to_c=pot.hottest_c,
                dishes=_eating(plan, branch),
            )
    for line in plan.lines:
        soft = {s.ingredient for s in line.dish.solids if soft_yolk(kitchen.larder[s.ingredient])}
        for key in sorted(soft):
            if not line.refused:
                yield say(
                    "caution.soft-egg", name=kitchen.larder[key].spoken_name, dish=line.called
                )


def _alcohol(plan: Plan) -> Iterator[Sentence]:
    """What is left of it in a portion: not all cooks off."""
    branches = {branch.key: branch for branch in plan.branches}
    for line in plan.lines:
        grams = 0.0
        for need, key in zip(line.needs, line.branches, strict=True):
            pot = branches[key].final.pot
            grams += pot.balance.alcohol * need.volume_ml / pot.yield_ml / line.line.portions
        if grams >= K.ALCOHOL_TOLD_G:
            yield say("caution.alcohol", dish=line.called, grams=grams)


def _cheese_of_vegetarians(plan: Plan, kitchen: Kitchen) -> Iterator[Sentence]:
    """Whether a cheese was set with rennet of calves stands on its label, not in the larder."""
    branches = {branch.key: branch for branch in plan.branches}
    for line in plan.lines:
        if "vegetarian" not in [word.strip().lower() for word in line.line.without]:
            continue
        keys = {part.ingredient for part in line.dish.toppings}
        keys |= {part.ingredient for part in line.dish.solids}
        for branch in line.branches:
            keys |= named_in(branches[branch].sheet)
        cheeses = tuple(
            kitchen.larder[key].spoken_name
            for key in sorted(keys)
            if kitchen.larder[key].role == "cheese" and "milk" in kitchen.larder[key].animals
        )
        if cheeses:
            yield say("caution.rennet", dish=line.called, names=cheeses)


def _between_sittings(plan: Plan, kitchen: Kitchen) -> Iterator[Sentence]:
    """Sauces that do not wait from the one sitting to the other, where both eat of them."""
    gap = gap_minutes(plan)
    if gap is None or gap < K.SITTING_GAP_MIN:
        return
    for branch in plan.branches:
        sittings = {line.line.sitting for line in _lines(plan, branch)}
        stands = stands_hot(branch.final.pot, green=is_green(branch.sheet, kitchen))
        if stands.suffers >= K.SUFFERS_TOO_MUCH and len(sittings) == 2 and branch.pot:
            yield say(
                "caution.made-again",
                name=branch.name,
                gap=gap,
                first_ml=sitting_ml(plan, branch, 1),
                second_ml=sitting_ml(plan, branch, 2),
            )
        elif len(sittings) == 2 and branch.pot:
            yield say("caution.covered", name=branch.name, gap=gap)


def gap_minutes(plan: Plan) -> float | None:
    """Minutes between the two sittings; None where there are not two."""
    times = [60 * int(t.split(":")[0]) + int(t.split(":")[1]) for t in plan.service.serve_at]
    return float((times[1] - times[0]) % (24 * 60)) if len(times) == 2 else None


def _lines(plan: Plan, branch: BranchPlan) -> list[LinePlan]:
    return [line for line in plan.lines if branch.key in line.branches]


def sitting_ml(plan: Plan, branch: BranchPlan, sitting: int) -> float:
    """mL of ``branch`` that ``sitting`` eats."""
    return sum(
        one.need.volume_ml for one in branch.asked if plan.lines[one.line].line.sitting == sitting
    )
