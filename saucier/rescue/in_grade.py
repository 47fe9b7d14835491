"""What mends a taste or a fault leaves the sauce in its grade: what thins it is bound again, what binds it is let down."""

import math
from collections.abc import Callable
from dataclasses import replace

from saucier.check import State
from saucier.rescue.case import Case
from saucier.rescue.remedy import Remedy, applied, refused, remedy_of
from saucier.rescue.thickness import let_down, thick_sauce_in, thicken
from saucier.thickness import LIQUID, grade_named, spoken_grade
from saucier.words import Sentence, say


def in_its_grade(case: Case, remedy: Remedy) -> Remedy:
    """``remedy`` with what brings the sauce back to the grade it has in ``case``; refused where it would end in no
    sauce. As it is where the grade stays, and where the sauce has none to keep."""
    if remedy.after is None or not remedy.steps:
        return remedy
    had, has = case.now.final.thickness, remedy.after.thickness
    if had.grade in (None, LIQUID) or had.viscosity_pa_s is None or has.grade == had.grade:
        return remedy
    wanted = grade_named(had.grade).inside(had.viscosity_pa_s)
    changed = replace(case, sheet=applied(case.sheet, remedy), wanted_pa_s=wanted)
    thinner = has.grade is not None and (has.viscosity_pa_s or 0.0) < wanted
    for back in _ways_back(changed, thinner):
        if back.after is None or _risk(back.after) > _risk(remedy.after):
            continue  # what was brought back from turning oily stays so
        if back.after.thickness.grade == had.grade:
            return _both(case, remedy, back, thinner)
    if has.grade in (None, LIQUID):
        why = say("ends-thin-or-broken", what=has.reason or spoken_grade(LIQUID))
        return refused(remedy.way, remedy.title, why)
    return remedy


def dosed(
    case: Case,
    made_with: Callable[[float], Remedy],
    figure: Callable[[State], float],
    goal: float,
    grams: float,
) -> Remedy:
    """The remedy ``made_with`` so many grams, back in its grade, that brings ``figure`` down to ``goal``; ``grams`` is
    what would without bringing it back."""
    before = figure(case.now.final)
    nearest, missed_by = in_its_grade(case, made_with(grams)), math.inf
    remedy = nearest
    for _ in range(_DOSES):
        if remedy.after is None:
            break
        reached = figure(remedy.after)
        if abs(reached - goal) < missed_by:
            nearest, missed_by = remedy, abs(reached - goal)
        if missed_by <= _NEAR * goal or reached >= before:
            break
        grams *= (before - goal) / (before - reached)
        remedy = in_its_grade(case, made_with(grams))
    return nearest


_DOSES, _NEAR = 8, 0.003
"""How often a dose is tried again, and how near its goal is near enough: what goes in is rounded."""


def _risk(state: State) -> int:
    return ("stable", "caution", "oily", "split").index(state.emulsion)


def _ways_back(changed: Case, thinner: bool) -> list[Remedy]:
    if not thinner:
        return [let_down(changed, changed.liquid)]
    return [thicken(changed, "beurre-manie"), thick_sauce_in(changed)]


def _both(case: Case, remedy: Remedy, back: Remedy, thinner: bool) -> Remedy:
    """``remedy``, then ``back``, as one."""
    then = say("then-bound" if thinner else "then-let-down", what=back.title)
    done: tuple[Sentence, ...] = (*remedy.do, then, *back.do)
    return remedy_of(
        case,
        remedy.way,
        remedy.title,
        done,
        (*remedy.steps, *back.steps),
        loses_g=remedy.loses_g,
        minutes=remedy.minutes + back.minutes,
    )
