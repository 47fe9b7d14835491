"""`melt`: cheese stirred into the hot sauce, off the heat or over low heat."""

from dataclasses import replace
from typing import Literal, Self

from saucier import constants as K
from saucier.document import Celsius
from saucier.larder import Ingredient
from saucier.pot import Pot
from saucier.steps.put_in import put_in
from saucier.steps.step import Knobs, Move, OneIngredient, Setting, grams_of
from saucier.words import Sentence, say


class Melt(OneIngredient):
    """Cheese, finely shredded, melted in handful by handful. Where neither flour nor a reduction thickens the sauce, a
    solve turns its amount."""

    op: Literal["melt"] = "melt"
    temperature_c: Celsius | None = None
    heat: Literal["off", "low"] = "off"

    def prepare(self, setting: Setting) -> Move:
        row = setting.ingredient(self.ingredient)
        grams, free = grams_of(setting, self.ingredient, self.amount), setting.free
        temperature = K.KITCHEN_C if self.temperature_c is None else self.temperature_c
        cheese, low = row.role == "cheese", self.heat == "low"
        ceiling = K.BOIL_C if low else min(K.CHEESE_MAX_C, row.strings_c)
        # A hard grating cheese in cream bears the boil; a moister one, or any in milk, strings; some bear it anywhere.
        always = row.strings_c >= K.BOIL_C
        in_cream = row.per_gram.water <= K.CHEESE_BEARS_WATER
        melts = row.melts_c > 0.0
        if cheese and not melts:
            row = _as_grains(row)

        def move(pot: Pot, knobs: Knobs) -> Pot:
            dose = grams * knobs.scale * (knobs.flour if free else 1.0)
            remarks: tuple[Sentence, ...] = ()
            if not cheese:
                remarks = (say("not-cheese", name=row.name),)
            elif not pot.wetted:
                remarks = (say("no-sauce", to=say("no-sauce-to-melt")),)
            elif not melts:
                remarks = (say("does-not-melt", name=row.spoken_name),)
            else:
                remarks = _risks(pot, dose, row, low)
            hot = pot if pot.temperature_c <= ceiling else pot._replace(temperature_c=ceiling)
            mixed = put_in(hot, row, dose, temperature, K.MELT_MINUTES, remarks)
            if not (cheese and pot.wetted and melts):
                return mixed
            if not (always or (in_cream and pot.cream_fat_share >= K.CHEESE_CREAM_FAT)):
                mixed = mixed._replace(delicate=mixed.delicate | {"cheese"})
            if low:
                return mixed._replace(temperature_c=min(K.CHEESE_MAX_C, row.strings_c))
            if mixed.temperature_c >= row.melts_c:
                return mixed
            return mixed.saying(
                say("too-cool", temperature_c=mixed.temperature_c, melts_c=row.melts_c)
            )

        return move

    def turned(self, knobs: Knobs, setting: Setting) -> Self:
        times = knobs.scale * (knobs.flour if setting.free else 1.0)
        return self.model_copy(update={"amount": self.amount.times(times)})


def _as_grains(row: Ingredient) -> Ingredient:
    """A cheese that never melts: it softens and stays grains, and thickens nothing."""
    part = row.per_gram
    grains = part._replace(
        thickening_protein=0.0,
        insoluble=part.insoluble + part.thickening_protein,
        body=0.0,
        gel=0.0,
        doubt=0.0,
        cultured=0.0,
    )
    return replace(row, per_gram=grains)


def _risks(pot: Pot, dose_g: float, row: Ingredient, low_heat: bool) -> tuple[Sentence, ...]:
    """What may go wrong with so much cheese in such a pot."""
    risks = []
    if not pot.starch_holds and pot.cream_fat_share < K.CHEESE_CREAM_FAT:
        risks.append(say("no-starch"))
    if low_heat and pot.temperature_c > row.strings_c:
        risks.append(say("hot-cheese", max_c=row.strings_c))
    if dose_g > K.MUCH_CHEESE * pot.balance.mass_g:
        risks.append(say("much-cheese"))
    return tuple(risks)
