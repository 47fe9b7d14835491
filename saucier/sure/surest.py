"""Amounts that land most surely, where that is not dead centre: beside a cliff it is not."""

import math
from dataclasses import dataclass

from saucier.check import DEFAULT_KITCHEN, prepare
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet
from saucier.solve import Goal, solve
from saucier.steps import thickening_by
from saucier.sure.chance import chances_of
from saucier.sure.doubts import doubts_of
from saucier.thickness import grade_named

_TRIED = (-0.4, -0.25, -0.12, 0.12, 0.25, 0.4)
"""Logarithms of η about the middle of the grade that are tried: its edges lie at ± 0.6."""
_MANY = 50
_WORTH_IT = 0.01


@dataclass(frozen=True, slots=True)
class Surest:
    """``sheet`` aimed at ``viscosity_pa_s`` instead of the middle of its grade, and the ``chance``
    that it lands."""

    sheet: Sheet
    viscosity_pa_s: float
    chance: float


def surest(sheet: Sheet, grade: str, kitchen: Kitchen = DEFAULT_KITCHEN) -> Surest | None:
    """``sheet`` solved for the thickness within ``grade`` at which it lands most surely, its yield
    kept; None where the middle is as good, or nothing in it can be turned.

    A roux sauce is as likely off to either side, and the middle is best. At the end of a cream the
    thick side runs away, and a little thinner lands more often.
    """
    band = grade_named(grade)
    # A roux sauce has no cliff, and the middle is as good; but a grade open to one side has.
    if thickening_by(sheet) == "nothing" or (
        thickening_by(sheet) == "flour" and math.isfinite(band.high)
    ):
        return None
    middle = _landing(sheet, grade, 0.0, kitchen)
    if middle is None:
        return None
    tried = [found for off in _TRIED if (found := _landing(sheet, grade, off, kitchen))]
    best = max([middle, *tried], key=lambda one: one.chance)
    if best.chance < middle.chance + _WORTH_IT or not math.isfinite(band.target):
        return None
    return best


def _landing(sheet: Sheet, grade: str, off: float, kitchen: Kitchen) -> Surest | None:
    """``sheet`` solved for ``off`` (logarithm of η) beside the middle, and how surely it lands."""
    aim = grade_named(grade).target * math.exp(off)
    goal = Goal(aim, None if sheet.target.volume is None else sheet.target.volume)
    try:
        solved = solve(sheet, goal, kitchen).sheet
        prepared = prepare(solved, kitchen)
        chance = chances_of(prepared, doubts_of(prepared), many=_MANY).of(grade)
    except BadInput:
        return None
    return Surest(solved, aim, chance)
