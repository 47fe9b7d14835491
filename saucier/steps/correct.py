"""`correct`: thick (or thin) on purpose, then brought right with what was held back."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from saucier import constants as K
from saucier.document import IngredientKey
from saucier.larder import Ingredient
from saucier.pot import Pot
from saucier.roots import find_root
from saucier.steps.put_in import put_in
from saucier.steps.step import Knobs, Move, Setting, StepBase, Weighed, weighed_of
from saucier.thickness import log_excess, raw_viscosity_of, thickness_of
from saucier.units import Amount, kitchen_round
from saucier.words import say

_NOTHING = say("nothing-to-correct")


@dataclass(frozen=True, slots=True)
class HeldBack:
    """What is kept beside the pot, g: ``expected`` of it goes in where the prediction holds, and
    ``most`` where the pot comes out at the far edge of it."""

    expected_g: float
    most_g: float


class Correct(StepBase):
    """The pot is made a little off on purpose, by its own uncertainty, and what corrects it is held
    back: hot ``liquid`` (of ``ingredient``) where it is made thick, or ``flour`` kneaded with as much
    ``fat`` (``roux``) where it is made thin. At the end the spoon decides how much goes in; the sheet counts what is expected.

    Made so, the sauce can be brought right from one side whichever way the prediction was off.
    """

    op: Literal["correct"] = "correct"
    hold: Literal["liquid", "roux"] = "liquid"
    ingredient: IngredientKey = "milk-whole"
    fat: IngredientKey = "butter-unsalted"
    flour: IngredientKey = "wheat-flour"

    def names(self) -> frozenset[str]:
        return frozenset({self.ingredient} if self.hold == "liquid" else {self.fat, self.flour})

    def prepare(self, setting: Setting) -> Move:
        self.rows(setting)

        def move(pot: Pot, knobs: Knobs) -> Pot:
            held = self.held_back(setting, pot)
            if held is None:
                return pot.saying(_NOTHING)
            put = self.putting(setting)(pot, held.expected_g)
            minutes = pot.minutes + K.CORRECT_MINUTES[self.hold]
            return put._replace(minutes=minutes, boiled_min=pot.boiled_min)

        return move

    def held_back(self, setting: Setting, pot: Pot) -> HeldBack | None:
        """What to keep beside ``pot``; None where it has no grade to correct.

        Thick by its uncertainty u, the pot is at the target where it comes out at its thin edge:
        the liquid expected takes it down by u, the most by u². Roux the other way about.
        """
        thickness = thickness_of(pot, setting.serving_c)
        if thickness.viscosity_pa_s is None or not thickness.low_pa_s or not thickness.high_pa_s:
            return None
        down = self.hold == "liquid"
        edge = thickness.low_pa_s if down else thickness.high_pa_s
        sure = abs(math.log(thickness.viscosity_pa_s / edge))
        sign = -1.0 if down else 1.0
        put = self.putting(setting)
        expected = grams_to_move(pot, put, sign * sure, setting.serving_c)
        most = grams_to_move(pot, put, sign * 2.0 * sure, setting.serving_c)
        return HeldBack(expected, most)

    def rows(self, setting: Setting) -> tuple[Ingredient, ...]:
        """What is held back: the liquid, or butter and flour."""
        if self.hold == "liquid":
            return (setting.ingredient(self.ingredient, "ingredient"),)
        return (setting.ingredient(self.fat, "fat"), setting.ingredient(self.flour, "flour"))

    def putting(self, setting: Setting) -> Callable[[Pot, float], Pot]:
        """A function that gives the pot with so many grams in: of the liquid, or of flour with as much butter."""
        rows, hot = self.rows(setting), K.LET_DOWN_C if self.hold == "liquid" else None

        def put(pot: Pot, grams: float) -> Pot:
            for row in rows:
                pot = put_in(pot, row, grams, hot)
            boiled = pot.heated(K.BOIL_C, K.BOILED_FULL_MIN)
            return boiled._replace(boiled_min=max(pot.boiled_min, K.BOILED_FULL_MIN))

        return put

    def weighed_after(self, setting: Setting, before: Pot, after: Pot) -> list[Weighed]:
        held = self.held_back(setting, before)
        if held is None:
            return []
        return [
            weighed_of(setting, row.key, self.told(row, held.most_g)) for row in self.rows(setting)
        ]

    def told(self, row: Ingredient, grams: float) -> Amount:
        """``grams`` of ``row`` as it is measured out."""
        if self.hold == "liquid":
            return kitchen_round(Amount(max(1.0, grams / row.density), "mL"))
        return kitchen_round(Amount(max(1.0, grams), "g"))


def grams_to_move(
    pot: Pot, put: Callable[[Pot, float], Pot], by_log: float, serving_c: float
) -> float:
    """Grams by ``put`` that move the logarithm of η by ``by_log``; the most that is tried (three
    times the pot) where no such amount does."""
    wanted_pa_s = raw_viscosity_of(pot, serving_c) * math.exp(by_log)

    def excess(grams: float) -> float:
        return log_excess(put(pot, grams), wanted_pa_s, serving_c)

    low, high = 0.0, 0.02 * pot.total_g
    start = excess(0.0)
    if start == 0.0:
        return 0.0
    while (excess(high) > 0.0) == (start > 0.0):
        low, high = high, 2.0 * high
        if high > K.CORRECT_MOST_SHARE * pot.total_g:
            return high
    return find_root(excess, low, high, 1e-5 * pot.total_g)
