"""`roux`: fat melted, flour stirred in and cooked to a colour."""

from dataclasses import replace
from typing import Literal, Self

from saucier import constants as K
from saucier.document import Minutes
from saucier.larder import Ingredient
from saucier.pot import Pot
from saucier.steps.put_in import put_in
from saucier.steps.step import Knobs, Measured, Move, Setting, StepBase, Weighed
from saucier.words import say

RouxColour = Literal["raw", "white", "blond", "brown", "dark"]


def powered(flour: Ingredient, colour: RouxColour) -> Ingredient:
    """``flour`` with the thickening power a roux of ``colour`` leaves it."""
    if K.ROUX_POWER[colour] == 1.0:
        return flour
    thickener = flour.per_gram.thickener * K.ROUX_POWER[colour]
    return replace(flour, per_gram=flour.per_gram._replace(thickener=thickener))


class Roux(StepBase):
    """Fat and flour cooked together; the darker, the less it thickens. Raw, kneaded cold, it is
    beurre manié. Into a pot that holds liquid it goes ready-made."""

    op: Literal["roux"] = "roux"
    fat: Measured
    flour: Measured
    colour: RouxColour = "white"
    minutes: Minutes = 2

    def prepare(self, setting: Setting) -> Move:
        fat_g, flour_g = self.fat.grams(setting, "fat"), self.flour.grams(setting, "flour")
        fat_row, flour_row = (
            setting.ingredient(self.fat.ingredient),
            setting.ingredient(self.flour.ingredient),
        )
        roux_flour = powered(flour_row, self.colour)
        flourless = (say("no-flour", name=flour_row.name),)
        remarks = () if roux_flour.per_gram.thickener else flourless
        lean = self.colour != "raw" and fat_g < K.LEAN_ROUX * flour_g
        minutes = self.minutes

        def move(pot: Pot, knobs: Knobs) -> Pot:
            flour_now = flour_g * knobs.scale * knobs.flour
            ratio = knobs.fat_to_flour
            fat_now = fat_g * knobs.scale if ratio is None else flour_now * ratio
            pot = put_in(pot, fat_row, fat_now, None)
            if lean and ratio is None:
                pot = pot.saying(say("lean-roux", fat_g=fat_now, flour_g=flour_now))
            if pot.wetted:  # ready-made roux or beurre manié goes into a liquid and takes its heat
                took = minutes + K.READY_ROUX_MINUTES
                return put_in(pot, roux_flour, flour_now, None, took, remarks)
            pot = put_in(pot, roux_flour, flour_now, None, minutes, remarks)
            cooked = self.colour != "raw" and minutes >= K.ROUX_COOKED_MIN
            wants = K.ROUX_RAW_MIN if cooked else pot.flour_boil_min
            return pot._replace(temperature_c=K.ROUX_C, flour_boil_min=wants)

        return move

    def turned(self, knobs: Knobs, setting: Setting) -> Self:
        flour = self.flour.times(knobs.scale * knobs.flour)
        if knobs.fat_to_flour is None:
            fat = self.fat.times(knobs.scale)
        else:
            grams = flour.weighed(setting, "flour").grams * knobs.fat_to_flour
            row = setting.ingredient(self.fat.ingredient, "fat")
            fat = self.fat.model_copy(update={"amount": row.amount_of(grams, self.fat.amount)})
        return self.model_copy(update={"fat": fat, "flour": flour})

    def to_weigh(self, setting: Setting) -> list[Weighed]:
        return [self.fat.weighed(setting, "fat"), self.flour.weighed(setting, "flour")]

    def timer_minutes(self, before: Pot, after: Pot) -> float | None:
        return self.minutes or None
