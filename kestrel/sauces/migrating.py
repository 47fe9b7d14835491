"""Sheets saved under the earlier reading of a share and the earlier law of thickness.

A share used to be one of all that was in the pot, pieces and swimming fat included; food put back
gave its full juice. :func:`same_pot` writes such a sheet so that it makes the same pot as before.
:func:`as_meant` proportions it anew where it no longer has the grade it was saved for.
"""

from typing import Any

from django.utils import timezone

from saucier.check import check, prepare
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.pot import Pot
from saucier.sheet import Sheet, read_sheet, write_sheet
from saucier.solve import goal_of, rounded_for_kitchen, solve
from saucier.steps import Reduce, advance
from saucier.steps.reduce import Stop, share_left
from saucier.thickness import TURNED
from saucier.units import Amount
from saucier.words import plain

NOTE = (
    "Proportioned anew for the model of November 2026, which tells purées, cheese and cream better"
)
NOTE_INSIDE = "Proportioned anew: the sauce inside is made in a pan of its own now"
_SAME, _YIELD = 5e-4, 0.02


def same_pot(document: dict[str, Any], kitchen: Kitchen) -> dict[str, Any]:
    """``document`` in today's words for the pot it always made; as it is where it cannot be read
    or played."""
    steps = [_raw(step) for step in document.get("steps", [])]
    try:
        sheet = read_sheet({**document, "steps": steps})
        return write_sheet(_shares_of_the_liquid(sheet, kitchen))
    except BadInput:
        return document


def _raw(step: dict[str, Any]) -> dict[str, Any]:
    """A `return` as it was: food gave the full juice of raw food."""
    if step.get("op") == "return" and "how" not in step:
        return {**step, "how": "raw"}
    return step


def _shares_of_the_liquid(sheet: Sheet, kitchen: Kitchen) -> Sheet:
    settings = prepare(sheet, kitchen).settings
    pot, steps = Pot(), list(sheet.steps)
    for number, (step, setting) in enumerate(zip(sheet.steps, settings, strict=True)):
        if isinstance(step, Reduce) and step.stop and step.stop.share and pot.wetted:
            # To the same weight of all that is in the pot, said as a share of its liquid.
            left_g = step.stop.share * pot.total_g
            weighed = step.model_copy(update={"to": Stop(mass=Amount(left_g, "g"))})
            after = advance(pot, weighed.prepare(setting))
            share = share_left(pot, after)
            if abs(share - step.stop.share) > _SAME:
                share = min(1.0, max(0.001, round(share, 4)))
                steps[number] = step.model_copy(update={"to": Stop(share=share)})
        pot = advance(pot, steps[number].prepare(setting))
    return sheet.model_copy(update={"steps": tuple(steps)})


def as_meant(sheet: Sheet, kitchen: Kitchen) -> Sheet | None:
    """``sheet`` with the grade and the yield of its target again; None where it has them, where it
    has no grade to meet, or where it cannot be brought there."""
    target = sheet.target
    if target.grade is None or not sheet.steps:
        return None
    try:
        checked = check(sheet, kitchen)
        final = checked.final
        wanted = target.volume.base if target.volume else final.pot.yield_ml
        sound = not any(state.emulsion in TURNED for state in checked.steps)
        made = final.pot.yield_g if target.volume and target.volume.unit in _WEIGHTS else None
        size = (made or final.pot.yield_ml) / wanted
        if final.thickness.grade == target.grade and sound and abs(size - 1.0) <= _YIELD:
            return None
        goal = goal_of(sheet, volume=None if target.volume else Amount(wanted, "mL"))
        solved = solve(sheet, goal, kitchen).sheet
        return rounded_for_kitchen(solved, goal, kitchen).sheet
    except BadInput:
        return None


_WEIGHTS = ("g", "kg", "oz", "lb")


_OUTCOME = (
    "grade", "reason", "viscosity_pa_s", "volume_ml", "mass_g", "salt_pct", "minutes", "allergens",
)  # fmt: skip


def further_version(sauces: Any, versions: Any, sauce: Any, kitchen: Kitchen, note: str) -> None:
    """A further version of ``sauce`` proportioned anew, with a ``note``, where its newest no longer has
    the grade it was saved for; the one before it stays. What cannot be brought there stays as it is.
    ``sauces`` and ``versions`` are the models as they stood."""
    newest = versions.objects.filter(sauce=sauce, number=sauce.version).first()
    try:
        anew = as_meant(read_sheet(newest.sheet), kitchen) if newest else None
        found = plain(check(anew, kitchen).figures) if anew else {}
    except BadInput:
        return
    if anew is None or not found:
        return
    sauces.objects.filter(pk=sauce.pk).update(version=sauce.version + 1)
    versions.objects.create(
        sauce=sauce,
        number=sauce.version + 1,
        sheet=write_sheet(anew),
        outcome={name: found[name] for name in _OUTCOME},
        note=note,
        made_at=timezone.now(),
    )
