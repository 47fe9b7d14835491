"""`roux`: fat melted, flour stirred in and cooked to a colour."""

from dataclasses import replace
from typing import Literal, Self

from saucier import constants as K
from saucier.pot import Pot, Remark
from saucier.steps.base import (
    Knobs,
    Measured,
    Minutes,
    Move,
    Setting,
    StepBase,
    Weighed,
    Words,
    put_in,
)

RouxColour = Literal["white", "blond", "brown", "dark"]

_CUES = {
    "white": "froths, then looks like damp sand; smells of biscuit, no colour",
    "blond": "the colour of straw, smells of toasted nuts",
    "brown": "the colour of milk chocolate; keep it moving",
    "dark": "the colour of dark chocolate; it catches in a moment",
}


class Roux(StepBase):
    """Fat and flour cooked together. The darker it gets, the less it thickens."""

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
        power = K.ROUX_POWER[self.colour]
        roux_flour = replace(
            flour_row,
            per_gram=replace(flour_row.per_gram, thickener=flour_row.per_gram.thickener * power),
        )
        flourless = (
            Remark("no-flour", f"{flour_row.name} does not thicken: a roux needs flour or starch"),
        )
        remarks = () if roux_flour.per_gram.thickener else flourless
        minutes = self.minutes

        def move(pot: Pot, knobs: Knobs) -> Pot:
            flour_now = flour_g * knobs.scale * knobs.flour
            ratio = knobs.fat_to_flour
            fat_now = fat_g * knobs.scale if ratio is None else flour_now * ratio
            pot = put_in(pot, fat_row, fat_now, None)
            pot = put_in(pot, roux_flour, flour_now, None)
            return replace(
                pot,
                temperature_c=K.ROUX_C,
                minutes=pot.minutes + minutes,
                remarks=pot.remarks + remarks,
            )

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

    def words(self, setting: Setting, before: Pot, after: Pot) -> Words:
        fat = setting.ingredient(self.fat.ingredient, "fat").spoken_name
        flour = setting.ingredient(self.flour.ingredient, "flour").spoken_name
        return Words(
            f"{self.colour.capitalize()} roux",
            f"Melt the {fat}, stir in the {flour}, cook over low heat without leaving it.",
            _CUES[self.colour],
        )
