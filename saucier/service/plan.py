"""From lines to needs, from needs to branches, from branches to pots."""

from collections.abc import Mapping, Sequence

from saucier.dish import Dish, finish_of, in_rounds, layout_of, needs_of, without
from saucier.errors import BadInput
from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.service.costing import costed, left_by_recipe, left_over_ml
from saucier.service.document import Service
from saucier.service.on_hand import ingredients_there, roux_first, used_first
from saucier.service.planned import Asked, LinePlan, Plan, Wanted, called, going_without
from saucier.service.pots import PotPlanner
from saucier.sheet import Sheet
from saucier.steps import Reserve
from saucier.words import Sentence, say


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
    there, warnings = ingredients_there(service, kitchen)
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
    roux, said = roux_first(service, ((p.key, p.batches, p.sheet) for p in pots), kitchen)
    warnings += said
    by_key = {branch.key: branch for branch in branches}
    lines = tuple(costed(one, by_key, kitchen) for one in planned)
    for number, line in enumerate(lines):
        if line.layout and line.layout.warning:
            warnings.append(
                say("in-line", line=number + 1, dish=line.dish.name, what=line.layout.warning)
            )
    used = tuple(one for want in wanted.values() for one in want.used)
    return Plan(
        service=service,
        lines=lines,
        branches=branches,
        pots=pots,
        first=planner.first(branches, pots),
        used=used,
        roux=tuple(roux),
        there=there,
        warnings=tuple(dict.fromkeys(warnings)),
        needs_ml=sum(branch.need_ml for branch in branches),
        left_ml=left_over_ml(branches, pots),
        by_recipe_ml=left_by_recipe(wanted.values(), kitchen),
    )


def _taken_by_none(service: Service, wanted: Mapping[str, Wanted]) -> list[Sentence]:
    used = {one.sauce for one in wanted.values() if not one.variant}
    return [
        say("no-dish-takes-it", entry=number + 1)
        for number, one in enumerate(service.on_hand)
        if one.sauce and one.sauce not in used
    ]


def _gather(
    service: Service, dishes: Mapping[str, Dish], sheets: Mapping[str, Sheet], kitchen: Kitchen
) -> tuple[list[LinePlan], dict[str, Wanted]]:
    planned: list[LinePlan] = []
    wanted: dict[str, Wanted] = {}
    for number, line in enumerate(service.lines):
        at = f"lines[{number}]"
        if line.dish not in dishes:
            raise BadInput.at(f"{at}.dish", "is-not-among-the-dishes")
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
                name = str(going_without(sheet.name, line.without)) if changed else sheet.name
                sheet = sheet.model_copy(update={"steps": plain, "name": name[:120]})
                wanted[key] = Wanted(
                    key=key,
                    sauce=need.sauce,
                    sheet=sheet,
                    grade=grade,
                    film_ml=kitchen.film_ml,
                    variant=changed,
                )
            wanted[key].asked.append(Asked(number, dish.name, key, need))
            keys.append(key)
        rounds = tuple(in_rounds(one, line.portions) for one in dish.rounds)
        finish = finish_of(dish, layout)
        planned.append(
            LinePlan(
                number=number,
                line=line,
                dish=dish,
                name=dish.name,
                called=called(dish.name, line),
                needs=tuple(needs),
                branches=tuple(keys),
                left_out=left_out,
                layout=layout,
                rounds=rounds,
                finish=finish,
            )
        )
    return planned, wanted


def _sheet(key: str, sheets: Mapping[str, Sheet], at: str) -> Sheet:
    if key not in sheets:
        raise BadInput.at(f"{at}.dish", "uses-a-sauce-not-there", key=key)
    return sheets[key]
