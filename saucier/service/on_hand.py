"""Made-ahead sauce used first, where its age and nature allow, with what it wants to be let down."""

from dataclasses import dataclass

from saucier.check import check, thickness_of
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.rescue import applied, case_of
from saucier.rescue.thickness import let_down
from saucier.service.document import OnHand, Service
from saucier.sheet import Sheet
from saucier.solve import goal_of, solve
from saucier.steps import Cool, Reheat
from saucier.units import Amount, Dimension

_FREEZER_DAYS = 90.0
_WARM_C = 85.0
_THICKER = 1.05


@dataclass(frozen=True, slots=True)
class Used:
    """Made-ahead sauce used first: ``taken_ml`` of it, ``let_down`` in words, ``ready_ml`` after;
    ``sheet`` is how it comes back, ``cost`` what it has cost."""

    sauce: str
    name: str
    taken_ml: float
    ready_ml: float
    let_down: str
    sheet: Sheet
    cost: float


def used_first(
    service: Service,
    sauce: str,
    sheet: Sheet,
    grade: str | None,
    need_ml: float,
    kitchen: Kitchen,
) -> tuple[list[Used], list[str]]:
    """What is on hand of ``sauce`` for ``need_ml``, oldest first, and what was refused, in words."""
    found: list[Used] = []
    said: list[str] = []
    there = [one for one in service.on_hand if one.sauce == sauce]
    for one in sorted(there, key=lambda one: -one.age_days):
        why = _refused(one, service, sheet, kitchen)
        if why:
            said.append(f"{sheet.name} on hand is not used: {why}")
            continue
        if need_ml <= 0.0:
            break
        try:
            used = _brought_back(one, sauce, sheet, grade, need_ml, kitchen)
        except BadInput as bad:
            said.append(f"{sheet.name} on hand is not used: {bad.problems[0].message}")
            continue
        found.append(used)
        need_ml -= used.ready_ml
    return found, said


def _refused(one: OnHand, service: Service, sheet: Sheet, kitchen: Kitchen) -> str | None:
    most = service.keep_days if one.place == "fridge" else _FREEZER_DAYS
    if one.age_days > most:
        return f"{one.age_days:g} days old, over the {most:g} your kitchen keeps it"
    delicate = check(sheet, kitchen).final.pot.delicate
    if delicate:
        return "it was made for its service and does not keep"
    return None


def _brought_back(
    one: OnHand, sauce: str, sheet: Sheet, grade: str | None, need_ml: float, kitchen: Kitchen
) -> Used:
    """It cooled, warmed again (thicker by what chilling adds), let down to its grade."""
    ml = one.amount.base
    if one.amount.dimension is Dimension.WEIGHT:
        pot = check(sheet, kitchen).final.pot
        ml = one.amount.base * pot.total_ml / pot.total_g
    goal = goal_of(sheet, grade, Amount(ml, "mL"))
    made = solve(sheet, goal, kitchen).sheet
    back = made.model_copy(
        update={
            "steps": (*made.steps, Cool(to_c=5), Reheat(to_c=_WARM_C)),
            "target": made.target.model_copy(update={"grade": grade}),
        }
    )
    # It comes back near the thick edge of its grade: bring it to the middle, as it was made.
    case = case_of(back, kitchen)
    words, whole = "none: it has its grade", back
    eta = thickness_of(case.pot, case.serving_c).viscosity_pa_s
    if case.wanted_pa_s and eta and eta > _THICKER * case.wanted_pa_s:
        remedy = let_down(case, case.liquid)
        if remedy.refused is None:
            words, whole = remedy.title, applied(back, remedy)
    final = check(whole, kitchen).final.pot
    ready = final.total_ml
    share = min(1.0, need_ml / ready)
    return Used(sauce, sheet.name, ml * share, ready * share, words, whole, final.cost * share)
