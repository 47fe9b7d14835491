"""From lines to needs, from needs to branches, from branches to pots."""

from collections.abc import Mapping, Sequence
from dataclasses import replace

from saucier.dish import Dish
from saucier.errors import Problem
from saucier.guests import exclusions
from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.service.amiss import Amiss, amiss, cannot_be_made
from saucier.service.costing import costed, left_by_recipe, left_over_ml
from saucier.service.document import Service
from saucier.service.eaten import eaten_by
from saucier.service.gather import gather
from saucier.service.on_hand import ingredients_there, roux_first, used_first
from saucier.service.planned import BranchPlan, LinePlan, Plan, PotPlan, Wanted
from saucier.service.pots import PotPlanner
from saucier.sheet import Sheet
from saucier.words import Sentence, say


def plan_service(
    service: Service,
    dishes: Mapping[str, Dish],
    sheets: Mapping[str, Sheet],
    kitchen: Kitchen,
    pans: Sequence[Pan],
    unread: Sequence[Problem] = (),
) -> Plan:
    """``service`` worked out: every need met by a branch, every branch by a pot. ``unread`` is what
    was wrong with entries that could not be read (:func:`read_what_can_be`).

    ``dishes`` and ``sheets`` hold what the lines and dishes name. A line that cannot be served is
    ``refused``, an entry on hand that cannot be read is left out, and ``Plan.amiss`` says why, by
    field; the rest is planned all the same.
    """
    gathered = gather(service, dishes, sheets, kitchen, unread)
    wanted, wrong = gathered.wanted, list(gathered.amiss)
    there, warnings, not_there = ingredients_there(service, kitchen)
    wrong += not_there
    warnings += _taken_by_none(service, wanted)
    left = [1.0] * len(service.on_hand)
    for one in wanted.values():
        if not one.variant:
            one.used, said = used_first(
                service, left, one.sauce, one.sheet, one.grade, one.need_ml, kitchen
            )
            warnings += said
    planner = PotPlanner(service, kitchen, pans, warnings)
    branches, pots = planner.cooked(list(wanted.values()))
    lines = gathered.lines
    for key, bad in planner.failed.items():
        for number in dict.fromkeys(asked.line for asked in wanted[key].asked):
            wrong += amiss(cannot_be_made(wanted[key].sheet.name, bad), f"lines[{number}]")
            lines[number] = _cut(lines[number], key)
    branches = tuple(_with_guests(branch, lines) for branch in branches)
    pots = _guests_first(pots, branches)
    roux, said = roux_first(service, ((p.key, p.batches, p.sheet) for p in pots), kitchen)
    warnings += said
    by_key = {branch.key: branch for branch in branches}
    lines = [one if one.refused else costed(one, by_key, kitchen) for one in lines]
    plan = Plan(
        service=service,
        lines=tuple(lines),
        branches=branches,
        pots=pots,
        first=planner.first(branches, pots),
        used=tuple(one for want in wanted.values() for one in want.used),
        roux=tuple(roux),
        there=there,
        warnings=(),
        needs_ml=sum(branch.need_ml for branch in branches),
        left_ml=left_over_ml(branches, pots),
        by_recipe_ml=left_by_recipe(
            (one for one in wanted.values() if one.key not in planner.failed), kitchen
        ),
    )
    plan, brought = _kept_from_guests(plan, kitchen)
    for line in plan.lines:
        if line.layout and line.layout.warning:
            warnings.append(
                say("in-line", line=line.number + 1, dish=line.dish.name, what=line.layout.warning)
            )
    return replace(
        plan, warnings=tuple(dict.fromkeys(warnings)), amiss=tuple(_sorted([*wrong, *brought]))
    )


def _sorted(wrong: list[Amiss]) -> list[Amiss]:
    return sorted(dict.fromkeys(wrong), key=lambda one: one.field)


def _cut(line: LinePlan, key: str) -> LinePlan:
    """``line`` without the sauce that cannot be made for it."""
    kept = [
        (need, branch)
        for need, branch in zip(line.needs, line.branches, strict=True)
        if branch != key
    ]
    return replace(
        line,
        needs=tuple(need for need, _ in kept),
        branches=tuple(branch for _, branch in kept),
        refused=not kept,
    )


def _with_guests(branch: BranchPlan, lines: Sequence[LinePlan]) -> BranchPlan:
    asking = dict.fromkeys(asked.line for asked in branch.asked)
    return replace(branch, guests=tuple(lines[n].called for n in asking if lines[n].line.without))


def _guests_first(pots: Sequence[PotPlan], branches: Sequence[BranchPlan]) -> tuple[PotPlan, ...]:
    """``pots`` with whom of the guests they are made for, those first."""
    told = [
        replace(
            pot,
            guests=tuple(
                dict.fromkeys(guest for b in branches if b.pot == pot.key for guest in b.guests)
            ),
        )
        for pot in pots
    ]
    return tuple(sorted(told, key=lambda pot: not pot.guests))


def _kept_from_guests(plan: Plan, kitchen: Kitchen) -> tuple[Plan, list[Amiss]]:
    """The plan once more, every gram of every guest's dish looked through: whoever would be given what
    was excluded is served nothing. It never should come to that."""
    wrong: list[Amiss] = []
    lines = list(plan.lines)
    for number, line in enumerate(plan.lines):
        if not line.line.without or line.refused:
            continue
        eaten = eaten_by(plan, line, kitchen)
        held = eaten.held(exclusions(line.line.without, kitchen.larder), kitchen)
        if held:
            wrong.append(
                Amiss(
                    f"lines[{number}].without",
                    "would-come-back",
                    say("would-come-back", names=held),
                    say("would-come-back:remedy", names=held),
                )
            )
            lines[number] = replace(line, refused=True)
    return replace(plan, lines=tuple(lines)), wrong


def _taken_by_none(service: Service, wanted: Mapping[str, Wanted]) -> list[Sentence]:
    used = {one.sauce for one in wanted.values() if not one.variant}
    return [
        say("no-dish-takes-it", entry=number + 1)
        for number, one in enumerate(service.on_hand)
        if one.sauce and one.sauce not in used
    ]
