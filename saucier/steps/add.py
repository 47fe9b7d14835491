"""`add`: an ingredient goes into the pot."""

from typing import Literal

from saucier import constants as K
from saucier.document import Celsius
from saucier.pot import Pot
from saucier.steps.boiling import whisked_on_the_fire
from saucier.steps.put_in import put_in
from saucier.steps.step import Knobs, Move, OneIngredient, Setting, grams_of
from saucier.words import say

LiquidIn = Literal["cold-gradual", "warm-stream", "hot-at-once", "cold-roux-into-boiling"]


class Add(OneIngredient):
    """So much of an ingredient, at ``temperature_c`` (a kitchen's 20 °C where none is given); brined food may be ``rinsed`` or
    blanched first."""

    op: Literal["add"] = "add"
    temperature_c: Celsius | None = None
    rinsed: bool = False

    def prepare(self, setting: Setting) -> Move:
        grams = grams_of(setting, self.ingredient, self.amount)
        row = setting.ingredient(self.ingredient)
        temperature = K.KITCHEN_C if self.temperature_c is None else self.temperature_c

        working = K.LIQUID_IN_MINUTES[setting.liquid_in]
        yolk = row.per_gram.yolk_protein > 0.0
        stove, rinsed = setting.stove, self.rinsed

        def move(pot: Pot, knobs: Knobs) -> Pot:
            into_roux = row.wet and not pot.wetted and pot.balance.flour > 0.0
            minutes = working if into_roux else 0.0
            filled = put_in(pot, row, grams * knobs.scale, temperature, minutes, rinsed=rinsed)
            if into_roux:
                filled = whisked_on_the_fire(filled, minutes, stove)
            return _with_loose_yolk(pot, filled) if yolk else filled

        return move


_LOOSE_YOLK = say("yolk-loose")


def _with_loose_yolk(before: Pot, after: Pot) -> Pot:
    """Yolk that went in outside a liaison: into something hot it grains, and without starch it
    must not boil."""
    if before.wetted and before.temperature_c >= K.TEMPER_MAX_C:
        after = after.saying(_LOOSE_YOLK)
    if after.flour_g_per_l < K.LIAISON_FLOUR_G_PER_L:
        after = after._replace(delicate=after.delicate | {"liaison"})
    return after
