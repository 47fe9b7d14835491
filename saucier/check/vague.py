"""What is measured by hand or judged by eye in a sheet, and what that does to its thickness."""

import math
from collections.abc import Iterator
from dataclasses import replace

from saucier import constants as K
from saucier.check.prepared import Prepared
from saucier.errors import BadInput
from saucier.pot import Pot
from saucier.steps import Reduce, Setting, StepBase, Use
from saucier.steps.step import amounts_in
from saucier.thickness import raw_viscosity_of
from saucier.units import SPOONS, Amount


def vagueness(prepared: Prepared, final: Pot) -> float:
    """What measures by hand, spoon and cup, and shares by eye, add to the uncertainty, as a
    standard share of the logarithm of η.

    Each vague amount is played again at its standard spread; what that does to the thickness
    is its share. Flour in a cup differs by a tenth or more between hands, and η goes with its
    3.7th power; "by half" is 0.42 to 0.65 in practice. Nothing is played where all is weighed.
    """
    sheet, settings = prepared.sheet, prepared.settings
    vague: list[tuple[int, StepBase]] = []
    for number, step in enumerate(sheet.steps):
        vague += [(number, more) for more in _vaguely(step, settings[number])]
    if not vague or not final.wetted:
        return 0.0
    here = raw_viscosity_of(final)
    square = 0.0
    for number, more_of_it in vague:
        moves = list(prepared.moves)
        moves[number] = more_of_it.prepare(settings[number])
        try:
            pot = replace(prepared, moves=tuple(moves)).play()
        except BadInput:  # so little that a spoon more or less decides whether it boils dry
            continue
        there = raw_viscosity_of(pot)
        if 0.0 < here < math.inf and 0.0 < there < math.inf:
            square += math.log(there / here) ** 2
    return math.sqrt(square)


def _vaguely(step: StepBase, setting: Setting) -> Iterator[StepBase]:
    """``step`` with each thing that is vague in it at its standard spread, one at a time; what is vague
    in a sauce made for it too."""
    if isinstance(step, Reduce) and (spread := step.eye_spread):
        yield step.missed(1.0 + spread)
    for name, key, amount in amounts_in(step):
        if spread := _spread_of(amount, key, setting):
            yield step.with_amount(name, _amount_at(step, name).times(1.0 + spread))
    if isinstance(step, Use) and step.inside:
        for at, inner in enumerate(step.sauce.steps):
            for more in _vaguely(inner, setting):
                steps = (*step.sauce.steps[:at], more, *step.sauce.steps[at + 1 :])
                sauce = step.sauce.model_copy(update={"steps": steps})
                yield step.model_copy(update={"sauce": sauce})


def _amount_at(step: StepBase, name: str) -> Amount:
    return next(amount for field, _, amount in amounts_in(step) if field == name)


def hand_spread(amount: Amount, role: str) -> float:
    """Standard share by which ``amount`` of an ingredient of ``role`` differs between hands: flour by spoon or cup,
    cheese grated by the cup, a measure with a spread of its own; 0.0 for what is weighed or level in a jug."""
    if amount.measure:
        return amount.measure.spread
    return K.BY_THE_SPOON.get(role, 0.0) if amount.unit in SPOONS else 0.0


def _spread_of(amount: Amount, key: str, setting: Setting) -> float:
    return hand_spread(amount, setting.kitchen.larder[key].role if key else "")
