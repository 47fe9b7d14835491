"""Kitchen rounding that keeps the grade: pieces first, flour again, then grams (docs/model.md 3 and docs/model.md 7)."""

from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass

from saucier import constants as K
from saucier.check import DEFAULT_KITCHEN, check, prepare
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient
from saucier.sheet import Sheet
from saucier.solve.goal import Goal
from saucier.solve.solver import solve
from saucier.steps import FLOURED, AnyStep, Reduce, Setting, Use, Weighed, thickening_by
from saucier.steps.reduce import Stop
from saucier.thickness import TURNED
from saucier.units import Amount, Dimension, kitchen_round
from saucier.units.rounding import FINENESS, coarsest
from saucier.units.spoons import FILLED_IN

YIELD_KEPT = 0.02
"""Rounding moves the yield by no greater share."""


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
    least: list[tuple[float, Rounded]] = []

    def made_at(fineness: float) -> Iterator[Rounded]:
        yield Rounded(_rounded(sheet, goal, kitchen, fineness), fineness)

    def keeps(rounded: Rounded) -> bool:
        states = check(rounded.sheet, kitchen).steps
        final = states[-1]
        if final.thickness.grade != wanted.thickness.grade:
            return False
        if wanted.emulsion not in TURNED and any(s.emulsion in TURNED for s in states):
            return False
        moved = abs(final.pot.yield_ml / wanted.pot.yield_ml - 1.0)
        least.append((moved, rounded))
        return moved <= within

    if kept := coarsest(made_at, keeps):
        return kept[0]
    return min(least, key=lambda pair: round(pair[0], 9))[1] if least else Rounded(sheet, 0.0)


def _rounded(sheet: Sheet, goal: Goal, kitchen: Kitchen, fineness: float) -> Sheet:
    others = _in_two_passes(sheet, kitchen, fineness, roux=False)
    if goal.viscosity_pa_s is not None and thickening_by(others) == "flour":
        try:
            others = solve(others, Goal(goal.viscosity_pa_s), kitchen).sheet
        except BadInput:  # as rounded it cannot be had any more: finer steps are tried
            return others
    return _in_two_passes(others, kitchen, fineness, roux=True)


def _in_two_passes(sheet: Sheet, kitchen: Kitchen, fineness: float, *, roux: bool) -> Sheet:
    """Amounts of the floured steps rounded (``roux``), or those of all others; counted pieces are
    whole in either pass."""
    return rounded_amounts(
        sheet,
        prepare(sheet, kitchen).settings,
        fineness,
        lambda step, weighed: (
            isinstance(step, FLOURED) == roux or weighed.amount.dimension is Dimension.COUNT
        ),
        insides=roux,  # the solve between the passes turns them once more
    )


def rounded_amounts(
    sheet: Sheet,
    settings: Sequence[Setting],
    fineness: float,
    which: Callable[[AnyStep, Weighed], bool] = lambda step, weighed: True,
    *,
    insides: bool = True,
) -> Sheet:
    """``sheet`` with ``which`` amounts as a kitchen weighs them, and its stops with them; all those
    of the sauces made for it where ``insides``."""
    rounded = _rounded_steps(sheet.steps, settings, fineness, which, insides=insides)
    return sheet.model_copy(update={"steps": rounded})


def _rounded_steps(
    steps: Sequence[AnyStep],
    settings: Sequence[Setting],
    fineness: float,
    which: Callable[[AnyStep, Weighed], bool],
    *,
    insides: bool,
) -> tuple[AnyStep, ...]:
    rounded: list[AnyStep] = []
    for step, setting in zip(steps, settings, strict=True):
        for weighed in step.to_weigh(setting):
            if weighed.field and which(step, weighed):
                rounded_amount = kitchen_round(weighed.amount, fineness)
                if weighed.ingredient:  # of another sauce there is no row
                    row = setting.ingredient(weighed.ingredient)
                    rounded_amount = measured_out(weighed.amount, row, weighed.grams, fineness)
                step = step.with_amount(weighed.field, rounded_amount)
        if isinstance(step, Reduce) and isinstance(step.to, Stop):
            step = step.model_copy(update={"to": _rounded_stop(step.to, fineness)})
        if isinstance(step, Use) and step.inside and insides:
            inside = step.pouring(setting).inside.settings
            made = _rounded_steps(
                step.sauce.steps, inside, fineness, lambda step, weighed: True, insides=True
            )
            sauce = step.sauce.model_copy(update={"steps": made})
            step = step.model_copy(update={"sauce": sauce})
        rounded.append(step)
    return tuple(rounded)


def measured_out(amount: Amount, row: Ingredient, grams: float, fineness: float = 1.0) -> Amount:
    """``amount`` of ``row`` (``grams`` of it) as it is counted, measured or weighed out: yolks whole, other pieces in
    quarters, all else in a kitchen's steps; in grams or millilitres, or finer ones, where that would move what is
    sour, salt or hot by more than 10 %, anything else by more than 15 %, and of more pieces than anybody counts.

    >>> from saucier.larder import shipped_larder
    >>> lemon, yolk = shipped_larder()["lemon-juice"], shipped_larder()["egg-yolk"]
    >>> print(measured_out(Amount(0.8, "piece"), lemon, 32.0), measured_out(Amount(0.6, "piece"), lemon, 24.0))
    0.75 piece 23 mL
    >>> print(measured_out(Amount(2.25, "piece"), yolk, 40.5), measured_out(Amount(1.4, "piece"), yolk, 25.2))
    2 piece 25 g
    """
    most = K.ROUNDS_SHARP_BY if _sharp(row) else K.ROUNDS_BY
    if amount.dimension is Dimension.COUNT:
        step = 1.0 if row.role == "egg" else K.PIECES_IN
        count = max(1.0, round(amount.value / step)) * step
        if amount.value <= K.COUNTED_MOST and abs(count / amount.value - 1.0) <= most:
            return Amount(count, amount.unit)
        flows = not row.piece and row.wet
        amount = Amount(grams / row.density, "mL") if flows else Amount(grams, "g")
    finer = [share for share in FINENESS if share <= fineness] or [fineness]
    weighed = Amount(grams, "g")
    for tried in (amount, weighed) if amount.unit in FILLED_IN else (amount,):
        for share in finer:
            rounded = kitchen_round(tried, share)
            if abs(rounded.value / tried.value - 1.0) <= most:
                return rounded
    return Amount(float(f"{amount.value:.2g}"), amount.unit, amount.measure)


def _sharp(row: Ingredient) -> bool:
    """Whether it is sour, salt or hot enough that a tenth of it is tasted."""
    return (
        row.role in ("acid", "salt", "spice", "seasoning")
        or row.per_gram.acid > K.SHARP_SHARE
        or row.per_gram.salt > K.SHARP_SHARE
    )


def _rounded_stop(stop: Stop, fineness: float) -> Stop:
    """Where a reduction stops, to a whole percent or a weighable gram."""
    if stop.share is not None:
        step = 0.005 * fineness
        return Stop(share=min(1.0, max(step, round(round(stop.share / step) * step, 6))))
    if stop.mass is None and stop.volume is None:
        return stop
    name = "mass" if stop.mass is not None else "volume"
    return stop.model_copy(update={name: kitchen_round(getattr(stop, name), fineness)})
