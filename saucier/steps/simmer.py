"""`simmer`: minutes at the boil, with what they boil off."""

import math
from typing import ClassVar, Literal

from saucier import constants as K
from saucier.document import Minutes
from saucier.errors import BadInput
from saucier.heat import evaporation_g_per_min
from saucier.heat.evaporation import Heat
from saucier.pot import Pot, cook_all
from saucier.steps.boiling import (
    NOTHING_TO_BOIL,
    boiled,
    in_its_own_juice,
    long_to_boil,
    minutes_to_boil,
)
from saucier.steps.step import Hands, Knobs, Move, Setting, StepBase
from saucier.words import say

_CATCHES = say("thin-bottom")


class Simmer(StepBase):
    """``minutes`` at ``heat``; ``lid`` overrides the sheet's. The minutes do not grow with the
    batch, so what boils off does not either; a simmer without starch is scaled by the share it leaves,
    unless its minutes are ``pinned``."""

    hands: ClassVar[Hands] = "now-and-then"
    op: Literal["simmer"] = "simmer"
    minutes: Minutes
    heat: Heat = "simmer"
    lid: bool | None = None
    pinned: bool = False

    def prepare(self, setting: Setting) -> Move:
        stove, minutes, heat, lid = setting.stove, self.minutes, self.heat, self.lid
        thin_bottom = stove.pan is not None and not stove.pan.heavy

        def move(pot: Pot, knobs: Knobs) -> Pot:
            pot = in_its_own_juice(pot, minutes)
            if not pot.wetted:
                return pot._replace(
                    minutes=pot.minutes + minutes, remarks=(*pot.remarks, NOTHING_TO_BOIL)
                )
            pieces, balance = cook_all(pot.pieces, pot.balance, minutes)
            loss = evaporation_g_per_min(pot.total_ml, heat, stove, lid) * minutes * knobs.boil
            there = balance.water + balance.alcohol
            if loss >= there:
                raise BadInput.at(
                    "minutes",
                    "min-would-boil-away-all-g",
                    minutes=minutes,
                    there=there,
                    floor=math.floor(minutes * there / loss),
                )
            came_up = minutes_to_boil(pot, stove)
            took = minutes + came_up
            if came_up > K.LONG_TO_BOIL_MIN:
                pot = pot.saying(*long_to_boil(pot, stove, came_up))
            if thin_bottom and balance.thickener:
                pot = pot._replace(remarks=(*pot.remarks, _CATCHES))
            gone = pot.boiled_down(balance, loss, minutes)
            return boiled(pot, gone, pieces, minutes, took, gentle=heat == "bare-simmer")

        return move

    def timer_minutes(self, before: Pot, after: Pot) -> float | None:
        return self.minutes or None
