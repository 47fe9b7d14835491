"""A sheet worked out for the screen: the core's answers put together."""

from collections.abc import Iterable
from dataclasses import asdict
from typing import Any

from saucier.along import along
from saucier.cards import cards
from saucier.check import check, thickening_by
from saucier.consequences import told
from saucier.demand import need_for, with_serves
from saucier.errors import BadInput
from saucier.exchange import Settled, read_recipe
from saucier.kitchen import Kitchen
from saucier.rescue import Case, applied, likely, remedies, salt_remedies
from saucier.schools import SCHOOLS, switch
from saucier.sheet import Serves, Sheet, read_part, read_sheet, with_measures, write_sheet
from saucier.solve import Goal, Have, Unreachable, goal_of, rounded_for_kitchen, solve
from saucier.steps.base import amount_field
from saucier.units import Amount, kitchen_round
from saucier.what_if import levers, pulled, thickness_curve


def worked(sheet: Sheet, kitchen: Kitchen) -> dict[str, Any]:
    """``sheet`` with the pot after every step, the cards and the need behind its yield."""
    checked = check(sheet, kitchen)
    found = checked.figures
    steps = found.pop("steps")
    serves = sheet.target.serves
    return {
        "sheet": sheet,
        "final": found,
        "steps": steps,
        "cards": [asdict(card) for card in cards(checked)],
        "along": along(checked),
        "pan": found.pop("pan"),
        "assumed": found.pop("assumed"),
        "need": _need(serves, found, kitchen) if serves else None,
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


def _need(serves: Serves, final: dict[str, Any], kitchen: Kitchen) -> dict[str, Any]:
    """The need behind the yield, and what each of those served comes to."""
    return {
        **asdict(need_for(serves, kitchen)),
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
        sheet, _ = with_serves(sheet, wanted, kitchen)
    if not sheet.steps:  # a new sheet: the target is set before the first step
        return worked(sheet, kitchen)
    goal = goal_of(sheet, have=_have(have) if have else None)
    try:
        found = solve(sheet, goal, kitchen).sheet
    except BadInput as bad:
        if isinstance(bad, Unreachable) and bad.nearest and not exact:
            bad.nearest = rounded_for_kitchen(bad.nearest, Goal(), kitchen).sheet
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
    litres = check(sheet, kitchen).final.pot.yield_ml / 1000.0
    volume = kitchen_round(Amount(litres, "L"))
    target = sheet.target.model_copy(update={"volume": volume, "serves": None})
    return sheet.model_copy(update={"target": target})


def read_typed(sheet: dict[str, Any], kitchen: Kitchen) -> Sheet:
    """A sheet as it stands in the browser, where amounts may be typed in the kitchen's own
    measures. Raises :class:`BadInput` by field."""
    return read_sheet(with_measures(sheet, kitchen.measures, kitchen.larder))


def whatever_if(sheet: Sheet, kitchen: Kitchen, pulls: dict[str, float]) -> dict[str, Any]:
    """``sheet`` with levers pulled: the state, the pot along the steps, thickness against
    temperature."""
    turned = pulled(sheet, pulls, kitchen)
    checked = check(turned, kitchen)
    found = checked.figures
    return {
        "sheet": turned,
        "levers": levers(sheet, kitchen),
        "final": found,
        "along": [
            {
                "title": card.title,
                "mass_g": state["total_g"],
                "viscosity_pa_s": state["viscosity_pa_s"],
                "minutes": state["minutes"],
            }
            for card, state in zip(cards(checked), found["steps"], strict=True)
        ],
        "curve": thickness_curve(checked),
    }


def mended(case: Case, sign: str | None) -> dict[str, Any]:
    """What is likely wrong with ``case``, and the remedies of ``sign`` (None: of what the
    numbers speak for, or none)."""
    speaking = likely(case)
    chosen = sign or (speaking[0] if speaking else None)
    found = remedies(case, chosen) if chosen else []
    state = case.now.figures
    state.pop("steps")
    return {
        "sheet": case.sheet,
        "now": state,
        "wanted_grade": case.grade,
        "wanted_pa_s": case.wanted_pa_s,
        "likely": speaking,
        "sign": chosen,
        "remedies": [
            {
                **{name: getattr(one, name) for name in _REMEDY},
                "steps": write_sheet(applied(case.sheet, one))["steps"][len(case.sheet.steps) :],
                "after": one.after.figures if one.after else None,
            }
            for one in found
        ],
    }


_REMEDY = ("way", "title", "do", "minutes", "cost", "loses_g", "refused", "notes")


def read_from(text: str, kitchen: Kitchen, settled: dict[int, Settled]) -> dict[str, Any]:
    """A recipe read, with the sheet made of it worked out where there is one."""
    reading = read_recipe(text, kitchen, settled)
    return {
        "name": reading.name,
        "makes": reading.makes,
        "lines": reading.lines,
        "open_lines": reading.open_lines,
        "sheet": reading.sheet,
        "final": check(reading.sheet, kitchen).figures if reading.sheet else None,
        "assumed": reading.assumed,
        "unused": reading.unused,
        "beside": reading.beside,
    }


def moved_by(
    before: Kitchen, after: Kitchen, sheets: Iterable[tuple[int, dict[str, Any]]]
) -> list[dict[str, Any]]:
    """Which of the ``sheets`` (by sauce) a change of the larder moves, and by how much."""
    found = []
    for sauce_id, data in sheets:
        sheet = read_sheet(data)
        try:
            words = told(check(sheet, before), check(sheet, after))
        except BadInput as bad:
            words = (f"it can no longer be made: {bad.problems[0].message}",)
        if words:
            found.append({"sauce_id": sauce_id, "name": sheet.name, "words": words})
    return found
