"""`melt`: cheese stirred into the hot sauce, off the heat."""

from dataclasses import replace
from typing import Literal

from saucier.pot import Pot, Remark
from saucier.steps.add import DEFAULT_C, Add
from saucier.steps.base import Knobs, Move, Setting, Words, grams_of, put_in

_MELTS_FROM_C = 60.0
_MINUTES = 2.0


class Melt(Add):
    """Cheese, finely shredded, melted in handful by handful."""

    op: Literal["melt"] = "melt"  # type: ignore[assignment]

    def prepare(self, setting: Setting) -> Move:
        grams = grams_of(setting, self.ingredient, self.amount)
        row = setting.ingredient(self.ingredient)
        temperature = DEFAULT_C if self.temperature_c is None else self.temperature_c
        cheese = row.role == "cheese"

        def move(pot: Pot, knobs: Knobs) -> Pot:
            remarks = pot.remarks
            if not cheese:
                remarks += (Remark("not-cheese", f"{row.name} is not a cheese: add it instead"),)
            elif not pot.wetted:
                remarks += (Remark("no-sauce", "no sauce to melt it into yet"),)
            elif not pot.balance.thickener:
                remarks += (
                    Remark(
                        "no-starch", "no flour to hold the cheese: it may turn stringy or greasy"
                    ),
                )
            mixed = put_in(pot, row, grams * knobs.scale, temperature)
            if cheese and pot.wetted and mixed.temperature_c < _MELTS_FROM_C:
                remarks += (
                    Remark(
                        "too-cool",
                        f"the pot falls to {mixed.temperature_c:.0f} °C: warm it gently to melt the cheese",
                    ),
                )
            return replace(mixed, minutes=mixed.minutes + _MINUTES, remarks=remarks)

        return move

    def words(self, setting: Setting, before: Pot, after: Pot) -> Words:
        row = setting.ingredient(self.ingredient)
        return Words(
            f"{row.name} off the heat",
            "Pull the pot off the heat. Stir the finely shredded cheese in by handfuls.",
            "melted and glossy before the next handful; no strings",
        )
