"""`simmer`: minutes at the boil, with what they boil off."""

from typing import Literal

from saucier import constants as K
from saucier.errors import BadInput
from saucier.heat import boil_up_minutes, evaporation_g_per_min
from saucier.heat.evaporation import Heat
from saucier.pot import Balance, Pot, Remark, boil_off
from saucier.steps.base import Knobs, Minutes, Move, Setting, StepBase, Words


class Simmer(StepBase):
    """``minutes`` at ``heat``; ``lid`` overrides the sheet's. The minutes do not grow with the
    batch, so what boils off does not either."""

    op: Literal["simmer"] = "simmer"
    minutes: Minutes
    heat: Heat = "simmer"
    lid: bool | None = None

    def prepare(self, setting: Setting) -> Move:
        stove, minutes, heat, lid = setting.stove, self.minutes, self.heat, self.lid

        def move(pot: Pot, knobs: Knobs) -> Pot:
            if not pot.wetted:
                return at_the_boil(pot, pot.balance, 0.0, minutes, _NOTHING)
            loss = evaporation_g_per_min(pot.balance.volume_ml, heat, stove, lid) * minutes
            there = pot.balance.water + pot.balance.alcohol
            if loss >= there:
                raise BadInput.at(
                    "minutes",
                    f"{minutes:g} min would boil away all {there:.0f} g of liquid",
                    f"Stay under {minutes * there / loss:.0f} min, put the lid on or take a narrower pan",
                )
            boil_up = boil_up_minutes(pot.balance, pot.temperature_c, stove)
            return at_the_boil(pot, boil_off(pot.balance, loss), minutes, minutes + boil_up)

        return move

    def timer_minutes(self, before: Pot, after: Pot) -> float | None:
        return self.minutes or None

    def words(self, setting: Setting, before: Pot, after: Pot) -> Words:
        lost = before.balance.mass_g - after.balance.mass_g
        how = {
            "bare-simmer": "the odd bubble",
            "simmer": "small bubbles all over",
            "lively": "lively bubbles",
            "rolling": "a rolling boil",
        }[self.heat]
        return Words(
            "Simmer",
            f"Bring to the boil, then {self.minutes:g} min at {how}; stir over the bottom.",
            f"no taste of raw flour; about {lost:.0f} g boiled off"
            if before.balance.flour
            else f"about {lost:.0f} g boiled off",
        )


_NOTHING = (Remark("nothing-to-boil", "nothing to simmer yet: liquid goes in first"),)


def at_the_boil(
    pot: Pot,
    balance: Balance,
    boiled_min: float,
    minutes: float,
    remarks: tuple[Remark, ...] = (),
) -> Pot:
    """``pot`` holding ``balance`` after ``boiled_min`` minutes at the boil, ``minutes`` of the
    cook's time in all."""
    return Pot(
        balance,
        K.BOIL_C if boiled_min else pot.temperature_c,
        pot.boiled_min + boiled_min,
        pot.wetted,
        K.BOIL_C if boiled_min and balance.yolk_protein else pot.hottest_c,
        pot.allergens,
        pot.cost,
        pot.minutes + minutes,
        pot.remarks + remarks,
    )
