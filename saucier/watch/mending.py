"""The pot as it stands now, for what mends it."""

import math
from collections.abc import Mapping, Sequence

from saucier import constants as K
from saucier.check import check
from saucier.kitchen import Kitchen
from saucier.rescue import Case
from saucier.sheet import Sheet, SheetPan
from saucier.steps import FLOURED, Add, Knobs, LeftOut, Reduce, StepBase
from saucier.steps.reduce import Stop
from saucier.thickness import grade_named
from saucier.units import Amount
from saucier.watch.following import Following


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


def case_found(found: Following, kitchen: Kitchen) -> Case:
    """The pot of ``found`` as a case: a sheet that makes it, its flour as strong as it was found, its water
    as much as there is. At its last step the sheet's grade is wanted; before, what was planned there."""
    sheet, at = found.checked.sheet, min(found.told.at, len(found.checked.sheet.steps) - 1)
    boiling = found.told.watched is not None
    by = math.exp(found.log_strength / K.FLOUR_EXPONENT)
    steps: list[StepBase] = [
        step.turned(Knobs(flour=by), setting) if isinstance(step, FLOURED) else step
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
