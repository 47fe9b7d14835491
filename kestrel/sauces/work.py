"""A sheet worked out for the screen: the core's answers put together."""

from dataclasses import asdict
from typing import Any

from saucier.cards import cards
from saucier.check import check, thickening_by
from saucier.demand import need_for, with_serves
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.rescue import salt_remedies
from saucier.schools import SCHOOLS, switch
from saucier.sheet import Serves, Sheet, read_part
from saucier.solve import Have, goal_of, rounded_for_kitchen, solve
from saucier.steps.base import amount_field
from saucier.units import Amount, kitchen_round


def worked(sheet: Sheet, kitchen: Kitchen) -> dict[str, Any]:
    """``sheet`` with the pot after every step, the cards and the need behind its yield."""
    checked = check(sheet, kitchen)
    found = checked.as_dict()
    steps = found.pop("steps")
    serves = sheet.target.serves
    return {
        "sheet": sheet,
        "final": found,
        "steps": steps,
        "cards": [asdict(card) for card in cards(checked)],
        "pan": found.pop("pan"),
        "assumed": found.pop("assumed"),
        "need": _need(serves, found) if serves else None,
        "free": thickening_by(sheet),
        "schools": [
            {
                "key": school.key,
                "question": school.question,
                "followed": followed,
                "choices": [asdict(choice) for choice in school.choices],
            }
            for school in SCHOOLS
            if (followed := school.followed(sheet)) is not None
        ],
        "salt_remedies": salt_remedies(checked, kitchen),
    }


def _need(serves: Serves, final: dict[str, Any]) -> dict[str, Any]:
    """The need behind the yield, and what each of those served comes to."""
    return {
        **asdict(need_for(serves)),
        "each_kcal": final["kcal"] / serves.count,
        "each_cost": final["cost"] / serves.count,
    }


def solved(
    sheet: Sheet,
    kitchen: Kitchen,
    serves: dict[str, Any] | None,
    have: tuple[str, Any] | None,
    exact: bool,
) -> dict[str, Any]:
    """``sheet`` solved for its target (or for what there is), rounded unless ``exact``.

    With ``serves``, or ``target.serves``, the yield follows from it; with ``have`` the yield
    follows from the ingredient, and the target is set to what came out.
    """
    wanted = read_part(Serves, serves, "target.serves") if serves else sheet.target.serves
    if have is None and wanted is not None:
        sheet, _ = with_serves(sheet, wanted)
    if not sheet.steps:  # a new sheet: the target is set before the first step
        return worked(sheet, kitchen)
    goal = goal_of(sheet, have=_have(have) if have else None)
    try:
        found = solve(sheet, goal, kitchen).sheet
    except BadInput as bad:
        raise bad.under("target") if bad.problems[0].field in ("grade", "volume") else bad from None
    if not exact:
        found = rounded_for_kitchen(found, goal, kitchen).sheet
    if have is not None:
        found = _yield_as_it_comes(found, kitchen)
    return worked(found, kitchen)


def switched(sheet: Sheet, kitchen: Kitchen, school: str, choice: str) -> dict[str, Any]:
    """``sheet`` after a switch of school, with what changed in words."""
    found = switch(sheet, school, choice, kitchen)
    return {**worked(found.sheet, kitchen), "changes": found.changes}


def _have(have: tuple[str, Any]) -> Have:
    try:
        return Have(have[0], amount_field(have[1]))
    except BadInput as bad:
        raise bad.under("have.amount") from None


def _yield_as_it_comes(sheet: Sheet, kitchen: Kitchen) -> Sheet:
    litres = check(sheet, kitchen).final.pot.total_ml / 1000.0
    volume = kitchen_round(Amount(litres, "L"))
    target = sheet.target.model_copy(update={"volume": volume, "serves": None})
    return sheet.model_copy(update={"target": target})
