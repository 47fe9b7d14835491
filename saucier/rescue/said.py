"""What a cook says of a sauce wins over the sum: too thick, though it reckons right, is too thick."""

import math
from dataclasses import replace

from saucier.errors import BadInput
from saucier.rescue.case import Case
from saucier.rescue.remedy import Remedy
from saucier.rescue.thickness import warming
from saucier.solve import Goal, solve
from saucier.thickness import THIN, grade_named, spoken_grade
from saucier.units import Amount
from saucier.words import say

_BEYOND = 1.3
"""So far beyond the edge of its grade a sauce is taken to be that somebody calls too thick or too thin, as a factor."""


def as_said(case: Case, sign_key: str) -> Case:
    """``case`` as the cook finds it by ``sign_key``, where the sum has it otherwise; itself where the two agree, where it
    is only cold, and where nothing in it can be turned to it."""
    reckoned = case.now.final.thickness.viscosity_pa_s
    if case.wanted_pa_s is None or reckoned is None or case.grade is None or warming(case):
        return case
    band = THIN if case.grade == THIN.key else grade_named(case.grade)
    if sign_key == "too-thick" and reckoned < band.high:
        said_pa_s = _BEYOND * (band.high if math.isfinite(band.high) else reckoned)
    elif sign_key == "too-thin" and reckoned >= band.low > 0.0:
        said_pa_s = band.low / _BEYOND
    else:
        return case
    goal = Goal(said_pa_s, Amount(case.pot.yield_ml, "mL"))
    try:
        sheet = solve(case.sheet, goal, case.kitchen, as_found=True).sheet
    except BadInput:
        return case
    return replace(case, sheet=sheet)


def told_beside(remedy: Remedy, case: Case) -> Remedy:
    """``remedy`` with the sum beside what the cook said."""
    if remedy.after is None:
        return remedy
    had = case.now.final.thickness
    grade = spoken_grade(had.grade) if had.grade else had.reason
    return replace(remedy, notes=(say("as-you-say", grade=grade), *remedy.notes))
