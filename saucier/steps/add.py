"""`add`: an ingredient goes into the pot."""

from typing import Literal

from saucier import constants as K
from saucier.larder import Ingredient
from saucier.pot import Pot, Remark
from saucier.steps.base import (
    Celsius,
    Knobs,
    Move,
    OneIngredient,
    Setting,
    Words,
    grams_of,
    put_in,
)

LiquidIn = Literal["cold-gradual", "warm-stream", "hot-at-once", "cold-roux-into-boiling"]

DEFAULT_C = 20.0
_INTO_ROUX = {
    "cold-gradual": "Add it cold in small splashes, working each one smooth before the next.",
    "warm-stream": "Off the heat, pour it in warm in a thin stream, whisking.",
    "hot-at-once": "Let the roux go quiet, pour it in hot all at once, whisk hard.",
    "cold-roux-into-boiling": "Drop the cold roux in pieces into the boiling liquid, whisking.",
}


def _title(row: Ingredient) -> str:
    return row.name.partition(",")[0]


class Add(OneIngredient):
    """So much of an ingredient, at ``temperature_c`` (a kitchen's 20 °C where none is given)."""

    op: Literal["add"] = "add"
    temperature_c: Celsius | None = None

    def prepare(self, setting: Setting) -> Move:
        grams = grams_of(setting, self.ingredient, self.amount)
        row = setting.ingredient(self.ingredient)
        temperature = DEFAULT_C if self.temperature_c is None else self.temperature_c

        working = K.LIQUID_IN_MINUTES[setting.liquid_in]
        yolk = row.per_gram.yolk_protein > 0.0

        def move(pot: Pot, knobs: Knobs) -> Pot:
            into_roux = row.wet and not pot.wetted and pot.balance.flour > 0.0
            minutes = working if into_roux else 0.0
            filled = put_in(pot, row, grams * knobs.scale, temperature, minutes)
            return _with_loose_yolk(pot, filled) if yolk else filled

        return move

    def words(self, setting: Setting, before: Pot, after: Pot) -> Words:
        row = setting.ingredient(self.ingredient)
        if before.balance.flour and not before.wetted:
            return Words(
                f"{_title(row)} in",
                _INTO_ROUX[setting.liquid_in],
                "smooth and glossy, no lumps before more goes in",
            )
        if not before.balance.mass_g:
            return Words(
                f"{_title(row)} in the pan", "Pour it into the pan.", "nothing left in the jug"
            )
        return Words(f"{_title(row)} in", "Stir it in.", "one colour, no streaks")


_LOOSE_YOLK = Remark(
    "yolk-loose",
    "yolk straight into something hot grains: whisk it with cream and temper it, as a liaison",
)


def _with_loose_yolk(before: Pot, after: Pot) -> Pot:
    """Yolk that went in outside a liaison: into something hot it grains, and without starch it
    must not boil."""
    if before.wetted and before.temperature_c >= K.TEMPER_MAX_C:
        after = after.saying(_LOOSE_YOLK)
    if after.flour_g_per_l < K.LIAISON_FLOUR_G_PER_L:
        after = after._replace(delicate=after.delicate | {"liaison"})
    return after
