"""Kitchen rounding that keeps the grade: pieces first, flour again, then grams (model.md 3, 7)."""

from dataclasses import dataclass

from saucier.check import DEFAULT_KITCHEN, FLOURED, check, prepare
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet
from saucier.solve.goal import Goal
from saucier.solve.solver import solve
from saucier.steps import Reduce
from saucier.steps.reduce import Stop
from saucier.thickness import TURNED
from saucier.units import Dimension, kitchen_round

YIELD_KEPT = 0.02
"""Rounding moves the yield by no greater share."""
_FINENESS = (1.0, 0.5, 0.1, 0.01)
"""Steps tried in turn, as shares of the kitchen's: coarse ones first."""


@dataclass(frozen=True, slots=True)
class Rounded:
    """``sheet`` as it is weighed. ``fineness`` below 1 says that whole kitchen steps would have
    cost the grade, 0 that any rounding would: the amounts are then exact."""

    sheet: Sheet
    fineness: float


def rounded_for_kitchen(
    sheet: Sheet, goal: Goal, kitchen: Kitchen = DEFAULT_KITCHEN, within: float = YIELD_KEPT
) -> Rounded:
    """``sheet`` (already solved for ``goal``) rounded to what a kitchen weighs.

    The grade is checked again after rounding, that nothing has turned oily by it, and that the
    yield moved by no greater share than ``within``; where whole steps lose any of them, finer
    ones are taken. Where whole pieces (yolks) move the yield whatever is done, what moves it least.
    """
    wanted = check(sheet, kitchen).final
    least: tuple[float, Rounded] | None = None
    for fineness in _FINENESS:
        rounded = _rounded(sheet, goal, kitchen, fineness)
        states = check(rounded, kitchen).steps
        final = states[-1]
        if final.thickness.grade != wanted.thickness.grade:
            continue
        if wanted.emulsion not in TURNED and any(s.emulsion in TURNED for s in states):
            continue
        moved = abs(final.pot.yield_ml / wanted.pot.yield_ml - 1.0)
        if moved <= within:
            return Rounded(rounded, fineness)
        if least is None or moved < least[0] - 1e-9:
            least = moved, Rounded(rounded, fineness)
    return least[1] if least else Rounded(sheet, 0.0)


def _rounded(sheet: Sheet, goal: Goal, kitchen: Kitchen, fineness: float) -> Sheet:
    others = _round_steps(sheet, kitchen, fineness, roux=False)
    if goal.viscosity_pa_s is not None and any(isinstance(s, FLOURED) for s in others.steps):
        try:
            others = solve(others, Goal(goal.viscosity_pa_s), kitchen).sheet
        except BadInput:  # as rounded it cannot be had any more: finer steps are tried
            return others
    return _round_steps(others, kitchen, fineness, roux=True)


def _round_steps(sheet: Sheet, kitchen: Kitchen, fineness: float, *, roux: bool) -> Sheet:
    """Amounts of the floured steps rounded (``roux``), or those of all others; counted pieces are
    whole in either pass."""
    steps = []
    for step, setting in zip(sheet.steps, prepare(sheet, kitchen).settings, strict=True):
        for weighed in step.to_weigh(setting):
            if isinstance(step, FLOURED) == roux or weighed.amount.dimension is Dimension.COUNT:
                step = step.with_amount(weighed.field, kitchen_round(weighed.amount, fineness))
        if isinstance(step, Reduce) and isinstance(step.to, Stop):
            step = step.model_copy(update={"to": _rounded_stop(step.to, fineness)})
        steps.append(step)
    return sheet.model_copy(update={"steps": tuple(steps)})


def _rounded_stop(stop: Stop, fineness: float) -> Stop:
    """Where a reduction stops, to a whole percent or a weighable gram."""
    if stop.share is not None:
        step = 0.005 * fineness
        return Stop(share=min(1.0, max(step, round(round(stop.share / step) * step, 6))))
    if stop.mass is None and stop.volume is None:
        return stop
    name = "mass" if stop.mass is not None else "volume"
    return stop.model_copy(update={name: kitchen_round(getattr(stop, name), fineness)})
