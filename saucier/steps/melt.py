"""`melt`: cheese stirred into the hot sauce, off the heat or over low heat."""

from typing import Literal

from saucier import constants as K
from saucier.pot import Pot
from saucier.steps.add import Add
from saucier.steps.put_in import put_in
from saucier.steps.step import Knobs, Move, Setting, grams_of
from saucier.words import Sentence, say


class Melt(Add):
    """Cheese, finely shredded, melted in handful by handful."""

    op: Literal["melt"] = "melt"  # type: ignore[assignment]
    heat: Literal["off", "low"] = "off"

    def prepare(self, setting: Setting) -> Move:
        row = setting.ingredient(self.ingredient)
        grams = grams_of(setting, self.ingredient, self.amount)
        temperature = K.KITCHEN_C if self.temperature_c is None else self.temperature_c
        cheese, low = row.role == "cheese", self.heat == "low"
        ceiling = K.BOIL_C if low else K.CHEESE_MAX_C
        # A hard grating cheese in cream bears the boil; a moister one, or any in milk, strings.
        bears = row.per_gram.water <= K.CHEESE_BEARS_WATER

        def move(pot: Pot, knobs: Knobs) -> Pot:
            dose = grams * knobs.scale
            remarks: tuple[Sentence, ...] = ()
            if not cheese:
                remarks = (say("not-cheese", name=row.name),)
            elif not pot.wetted:
                remarks = (say("no-sauce", to=say("no-sauce-to-melt")),)
            else:
                remarks = _risks(pot, dose, low)
            hot = pot if pot.temperature_c <= ceiling else pot._replace(temperature_c=ceiling)
            mixed = put_in(hot, row, dose, temperature, K.MELT_MINUTES, remarks)
            if not (cheese and pot.wetted):
                return mixed
            if not (bears and pot.cream_fat_share >= K.CHEESE_CREAM_FAT):
                mixed = mixed._replace(delicate=mixed.delicate | {"cheese"})
            if low:
                return mixed._replace(temperature_c=K.CHEESE_MAX_C)
            if mixed.temperature_c >= K.CHEESE_MELTS_C:
                return mixed
            return mixed.saying(say("too-cool", temperature_c=mixed.temperature_c))

        return move


def _risks(pot: Pot, dose_g: float, low_heat: bool) -> tuple[Sentence, ...]:
    """What may go wrong with so much cheese in such a pot."""
    risks = []
    if not pot.starch_holds and pot.cream_fat_share < K.CHEESE_CREAM_FAT:
        risks.append(say("no-starch"))
    if low_heat and pot.temperature_c > K.CHEESE_MAX_C:
        risks.append(say("hot-cheese", max_c=K.CHEESE_MAX_C))
    if dose_g > K.MUCH_CHEESE * pot.balance.mass_g:
        risks.append(say("much-cheese"))
    return tuple(risks)
