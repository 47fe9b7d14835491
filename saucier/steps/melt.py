"""`melt`: cheese stirred into the hot sauce, off the heat or over low heat."""

from typing import Literal

from saucier import constants as K
from saucier.pot import Pot, Remark
from saucier.steps.add import DEFAULT_C, Add
from saucier.steps.base import Knobs, Move, Setting, Words, grams_of, put_in

_MINUTES = 2.0
_MUCH_CHEESE = 0.45


class Melt(Add):
    """Cheese, finely shredded, melted in handful by handful."""

    op: Literal["melt"] = "melt"  # type: ignore[assignment]
    heat: Literal["off", "low"] = "off"

    def prepare(self, setting: Setting) -> Move:
        row = setting.ingredient(self.ingredient)
        grams = grams_of(setting, self.ingredient, self.amount)
        temperature = DEFAULT_C if self.temperature_c is None else self.temperature_c
        cheese, low = row.role == "cheese", self.heat == "low"
        ceiling = K.BOIL_C if low else K.CHEESE_MAX_C
        # A hard grating cheese in cream bears the boil; a moister one, or any in milk, strings.
        bears = row.per_gram.water <= K.CHEESE_BEARS_WATER

        def move(pot: Pot, knobs: Knobs) -> Pot:
            dose = grams * knobs.scale
            remarks: tuple[Remark, ...] = ()
            if not cheese:
                remarks = (Remark("not-cheese", f"{row.name} is not a cheese: add it instead"),)
            elif not pot.wetted:
                remarks = (Remark("no-sauce", "no sauce to melt it into yet"),)
            else:
                remarks = _risks(pot, dose, low)
            hot = pot if pot.temperature_c <= ceiling else pot._replace(temperature_c=ceiling)
            mixed = put_in(hot, row, dose, temperature, _MINUTES, remarks)
            if not (cheese and pot.wetted):
                return mixed
            if not (bears and pot.cream_fat_share >= K.CHEESE_CREAM_FAT):
                mixed = mixed._replace(delicate=mixed.delicate | {"cheese"})
            if low:
                return mixed._replace(temperature_c=K.CHEESE_MAX_C)
            if mixed.temperature_c >= K.CHEESE_MELTS_C:
                return mixed
            cool = (
                f"the pot falls to {mixed.temperature_c:.0f} °C: warm it gently to melt the cheese"
            )
            return mixed._replace(remarks=(*mixed.remarks, Remark("too-cool", cool)))

        return move

    def words(self, setting: Setting, before: Pot, after: Pot) -> Words:
        row = setting.ingredient(self.ingredient)
        brings = after.balance.salt - before.balance.salt
        where = "over low heat" if self.heat == "low" else "off the heat"
        do = (
            "Keep it over the lowest heat, never at the boil."
            if self.heat == "low"
            else f"Pull the pot off and let it fall under {K.CHEESE_MAX_C:.0f} °C."
        )
        return Words(
            f"{row.name.partition(',')[0]} {where}",
            f"{do} Stir the finely shredded cheese in by handfuls.",
            f"melted and glossy before the next handful, no strings; it brings {brings:.1f} g salt",
        )


def _risks(pot: Pot, dose_g: float, low_heat: bool) -> tuple[Remark, ...]:
    """What may go wrong with so much cheese in such a pot."""
    found = []
    if not pot.starch_holds and pot.cream_fat_share < K.CHEESE_CREAM_FAT:
        found.append(
            Remark(
                "no-starch",
                "too little flour, and too little of a cream's own fat, to hold the cheese: "
                "it may turn stringy or greasy",
            )
        )
    if low_heat and pot.temperature_c > K.CHEESE_MAX_C:
        found.append(
            Remark(
                "hot-cheese",
                f"over {K.CHEESE_MAX_C:.0f} °C cheese goes stringy: lowest heat, or off",
            )
        )
    if dose_g > _MUCH_CHEESE * pot.balance.mass_g:
        found.append(
            Remark("much-cheese", "a great deal of cheese for this sauce: it may turn greasy")
        )
    return tuple(found)
