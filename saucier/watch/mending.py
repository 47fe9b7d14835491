"""The pot as it stands now, for what mends it."""

import math
from collections.abc import Mapping, Sequence

from saucier import constants as K
from saucier.check import check
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.rescue import Case
from saucier.sheet import Sheet, SheetPan
from saucier.solve import Goal, solve
from saucier.steps import (
    FLOURED,
    Add,
    AnyStep,
    Knobs,
    LeftOut,
    Reduce,
    Setting,
    StepBase,
    Use,
)
from saucier.steps.reduce import Stop
from saucier.thickness import grade_named, grade_of, thickness_of
from saucier.units import Amount
from saucier.watch.following import Following

_TRIES, _NEAR = 6, 0.02
"""How often a pot is made anew to be as thick as a spoon says, and how near is near enough, of log η."""


def with_mends(
    sheet: Sheet, mends: Mapping[int, Sequence[StepBase]], without: int | None = None
) -> Sheet:
    """``sheet`` with what went in to mend it after the steps it went in at, and ``without`` one of its
    own steps; what was left out of it is gone."""
    steps: list[StepBase] = []
    for number, step in enumerate(sheet.steps):
        steps += [] if number == without or isinstance(step, LeftOut) else [step]
        steps += mends.get(number, ())
    steps += mends.get(len(sheet.steps), ())
    return sheet.model_copy(update={"steps": tuple(steps)})


def as_made(found: Following) -> Sheet:
    """What was cooked, as a sheet: with what went in as it was seen to have, and what went in to mend it, in the pan it
    stood in."""
    made = with_mends(found.sheet, found.mends)
    return made.model_copy(update={"pan": SheetPan.of(found.checked.pan)})


def _stronger(step: AnyStep, by: float, setting: Setting) -> AnyStep:
    """``step`` with so many times its flour, that of a sauce inside it too, poured or made for it."""
    if isinstance(step, Use):
        inside = tuple(_stronger(inner, by, setting) for inner in step.sauce.steps)
        return step.model_copy(update={"sauce": step.sauce.model_copy(update={"steps": inside})})
    return step.turned(Knobs(flour=by), setting) if isinstance(step, FLOURED) else step


def case_found(found: Following, kitchen: Kitchen) -> Case:
    """The pot of ``found`` as a case: a sheet that makes it, its flour as strong as it was found, its water
    as much as there is. At its last step the sheet's grade is wanted; before, what was planned there. Where the spoon
    that was lifted last is of another grade than what is reckoned, the spoon is believed: who sees that there is
    something to mend is not told that there is nothing."""
    case = _case(found, found.log_strength, kitchen)
    believed = thickness_of(found.now, case.serving_c).viscosity_pa_s
    spoon = found.spoon_pa_s
    if spoon is not None and believed and grade_of(believed) != grade_of(spoon):
        believed = spoon
    return _as_thick(case, found, believed, kitchen)


def _as_thick(case: Case, found: Following, believed: float | None, kitchen: Kitchen) -> Case:
    """``case`` as thick as it is ``believed`` to be, Pa·s, by its flour, that of a sauce inside it too; as it is where
    nothing in it can be turned to that."""
    near, strength = case, found.log_strength
    for _ in range(_TRIES):
        eta = thickness_of(near.pot, case.serving_c).viscosity_pa_s
        if not (eta and believed):
            return case
        if abs(math.log(believed / eta)) < _NEAR:
            return near
        strength += math.log(believed / eta)
        near = _case(found, strength, kitchen)
    # No flour is in it: it is made as thick by what is.
    goal = Goal(believed, Amount(case.pot.yield_ml, "mL"))
    try:
        sheet = solve(case.sheet, goal, kitchen, as_found=True).sheet
    except BadInput:
        return case
    return Case(sheet, case.wanted_pa_s, kitchen)


def _case(found: Following, log_strength: float, kitchen: Kitchen) -> Case:
    """The pot of ``found`` with its flour stronger by ``log_strength`` of log η."""
    sheet, at = found.checked.sheet, min(found.told.at, len(found.checked.sheet.steps) - 1)
    boiling = found.told.watched is not None
    by = math.exp(log_strength / K.FLOUR_EXPONENT)
    steps = [
        _stronger(step, by, setting)
        for step, setting in zip(found.sheet.steps, found.checked.settings, strict=True)
    ]
    so_far = sheet.model_copy(
        update={"pan": SheetPan.of(found.checked.pan), "steps": tuple(steps[: at + 1])}
    )
    # What is boiling is told by its weight: it has not come to where its step stops.
    so_far = with_mends(so_far, found.mends, without=at if boiling else None)
    there = check(so_far, kitchen).final.pot
    more = found.now.total_g - there.total_g
    even: StepBase | None = None
    if there.wetted and more < -K.FOUND_OFF_G:
        even = Reduce(to=Stop(mass=Amount(found.now.total_g, "g")), heat="simmer")
    elif there.wetted and more > K.FOUND_OFF_G:
        even = Add(ingredient="water", amount=Amount(more, "g"))
    if even is not None:
        so_far = so_far.model_copy(update={"steps": (*so_far.steps, even)})
    last = at == len(sheet.steps) - 1
    wanted = grade_named(sheet.target.grade).target if last and sheet.target.grade else None
    if wanted is None:
        wanted = check(sheet, kitchen).steps[at].thickness.viscosity_pa_s
    return Case(so_far, wanted, kitchen)
