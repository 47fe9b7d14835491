"""Keeping: `cool`, `hold` and `reheat`."""

from typing import Annotated, ClassVar, Literal

from pydantic import BeforeValidator, Field

from saucier import constants as K
from saucier.document import Minutes, no_bool
from saucier.errors import BadInput
from saucier.heat import boil_up_minutes, open_surface_m2, pot_heat_j_per_k
from saucier.pot import Pot, boil_off, cook_all
from saucier.steps.step import Hands, Knobs, Move, Setting, StepBase
from saucier.words import say

Kept = Annotated[float, BeforeValidator(no_bool), Field(ge=0, le=100)]


class Cool(StepBase):
    """Cooled to ``to_c``. How fast it may be is a rule of the kitchen's."""

    hands: ClassVar[Hands] = "none"
    fire: ClassVar[bool] = False
    op: Literal["cool"] = "cool"
    to_c: Kept = 5.0
    minutes: Minutes = 0

    def prepare(self, setting: Setting) -> Move:
        to_c, minutes = self.to_c, self.minutes

        def move(pot: Pot, knobs: Knobs) -> Pot:
            if to_c > pot.temperature_c + 0.5:
                raise BadInput.at("to_c", "it-is-only-c-warm", temperature_c=pot.temperature_c)
            chilled = pot.chilled or to_c <= K.CHILLED_BELOW_C
            remarks = (*pot.remarks, say("keeping", what=say("keeping-clock")))
            return pot._replace(
                temperature_c=to_c,
                minutes=pot.minutes + minutes,
                chilled=chilled,
                remarks=remarks,
            )

        return move


class Hold(StepBase):
    """Held hot for ``minutes``, under film unless ``covered`` is false."""

    hands: ClassVar[Hands] = "now-and-then"
    op: Literal["hold"] = "hold"
    minutes: Minutes
    temperature_c: Kept = 65.0
    covered: bool = True

    def prepare(self, setting: Setting) -> Move:
        minutes, at, covered, stove = self.minutes, self.temperature_c, self.covered, setting.stove

        def move(pot: Pot, knobs: Knobs) -> Pot:
            pieces, balance = cook_all(pot.pieces, pot.balance, minutes)
            if not covered and pot.wetted:
                per_min = K.HOLD_KG_M2_H * open_surface_m2(pot.total_ml, stove) * 1000.0 / 60.0
                loss, there = per_min * minutes * knobs.boil, balance.water + balance.alcohol
                if loss >= there:
                    raise BadInput.at(
                        "minutes",
                        "uncovered-that-long-it-dries-out",
                    )
                balance = boil_off(balance, loss)
            remarks = (*pot.remarks, say("keeping", what=say("keeping-at", at_c=at)))
            return pot._replace(
                pieces=pieces,
                balance=balance,
                temperature_c=at,
                minutes=pot.minutes + minutes,
                remarks=remarks,
            )

        return move

    def timer_minutes(self, before: Pot, after: Pot) -> float | None:
        return self.minutes or None


class Reheat(StepBase):
    """Warmed again to ``to_c``. A roux sauce comes back from the fridge thicker."""

    hands: ClassVar[Hands] = "now-and-then"
    op: Literal["reheat"] = "reheat"
    to_c: Kept = 85.0

    def prepare(self, setting: Setting) -> Move:
        to_c, stove = self.to_c, setting.stove

        def move(pot: Pot, knobs: Knobs) -> Pot:
            balance = pot.balance
            if pot.chilled:
                balance = balance._replace(thickener=balance.thickener * K.CHILLED_GAIN)
            minutes = boil_up_minutes(
                pot_heat_j_per_k(pot), pot.temperature_c, stove, pot.total_ml, to_c
            )
            return pot._replace(
                balance=balance,
                temperature_c=max(to_c, pot.temperature_c),
                hottest_c=max(pot.hottest_c, to_c) if balance.yolk_protein else pot.hottest_c,
                minutes=pot.minutes + minutes,
                chilled=False,
                remarks=(*pot.remarks, say("keeping", what=say("keeping-middle"))),
            )

        return move
