"""Steps around the pan itself: `start` a used one, `deglaze`, `flame`, `return` food to it."""

from dataclasses import replace
from typing import Annotated, Literal, Self

from pydantic import Field

from saucier import constants as K
from saucier.errors import BadInput
from saucier.larder import Ingredient
from saucier.pot import Pot, Remark, leak_all
from saucier.steps.base import (
    Celsius,
    Knobs,
    Measured,
    Minutes,
    Move,
    OneIngredient,
    Setting,
    StepBase,
    Weighed,
    Words,
    grams_of,
    put_in,
)

_USED_PAN_C = 120.0
_SAFE_MIDDLE_ROLES = ("meat", "fish", "seafood")


class Start(StepBase):
    """A used pan: the fat and the juices of what was seared in it, with their salt."""

    op: Literal["start"] = "start"
    fat: Measured | None = None
    juices: Measured | None = None

    def prepare(self, setting: Setting) -> Move:
        if self.fat is None and self.juices is None:
            raise BadInput.at("fat", "the pan is empty", "Give the fat or the juices left in it")
        parts = [
            (setting.ingredient(part.ingredient), part.grams(setting, name))
            for name, part in self._parts()
        ]

        def move(pot: Pot, knobs: Knobs) -> Pot:
            for row, grams in parts:
                pot = put_in(pot, row, grams * knobs.scale, None)
            return pot._replace(temperature_c=_USED_PAN_C)

        return move

    def _parts(self) -> list[tuple[str, Measured]]:
        both = (("fat", self.fat), ("juices", self.juices))
        return [(name, part) for name, part in both if part is not None]

    def turned(self, knobs: Knobs, setting: Setting) -> Self:
        changes = {name: part.times(knobs.scale) for name, part in self._parts()}
        return self.model_copy(update=changes)

    def to_weigh(self, setting: Setting) -> list[Weighed]:
        return [part.weighed(setting, name) for name, part in self._parts()]

    def words(self, setting: Setting, before: Pot, after: Pot) -> Words:
        return Words(
            "The used pan",
            "Keep the pan the food was seared in. Pour off fat beyond the amount given.",
            "brown on the bottom, nothing black",
        )


class Deglaze(OneIngredient):
    """A liquid into the hot pan, the bottom scraped up."""

    op: Literal["deglaze"] = "deglaze"

    def prepare(self, setting: Setting) -> Move:
        row = setting.ingredient(self.ingredient, "")
        grams = grams_of(setting, self.ingredient, self.amount)
        dry = Remark("not-a-liquid", f"{row.name} cannot loosen the bottom: take a liquid")

        def move(pot: Pot, knobs: Knobs) -> Pot:
            pot = put_in(pot, row, grams * knobs.scale, 20.0)
            return pot if row.wet and not row.piece else pot._replace(remarks=(*pot.remarks, dry))

        return move

    def words(self, setting: Setting, before: Pot, after: Pot) -> Words:
        row = setting.ingredient(self.ingredient)
        alcohol = row.per_gram.alcohol > 0.02
        do = "Pour it in and scrape the bottom loose."
        if alcohol:
            do = f"Measure it into a cup, pull the pan off the flame to pour. {do}"
        return Words(f"Deglaze with {row.spoken_name}", do, "the bottom comes clean")


class Flame(StepBase):
    """Spirit set alight. The flame dies with most of the alcohol still there."""

    op: Literal["flame"] = "flame"

    def prepare(self, setting: Setting) -> Move:
        nothing = Remark("nothing-burns", "too little alcohol in it to burn")

        def move(pot: Pot, knobs: Knobs) -> Pot:
            balance = pot.balance
            share = balance.alcohol / pot.total_g if pot.total_g else 0.0
            if share < 0.03:
                return pot._replace(remarks=(*pot.remarks, nothing))
            left = balance.with_liquids(balance.water, balance.alcohol * K.FLAMED_ALCOHOL_LEFT)
            remark = Remark(
                "flamed", f"about {left.alcohol:.0f} g alcohol stays in it all the same"
            )
            return pot._replace(
                balance=left, minutes=pot.minutes + 1.0, remarks=(*pot.remarks, remark)
            )

        return move

    def words(self, setting: Setting, before: Pot, after: Pot) -> Words:
        left = after.balance.alcohol
        return Words(
            "Flame",
            "Extractor off, lid within reach. Tilt the pan and light it at arm's length.",
            f"the flame dies by itself; about {left:.0f} g alcohol is left all the same",
        )


class Return(OneIngredient):
    """Seared or part-cooked food put back to finish: it brings heat or takes it, and gives
    juice."""

    op: Literal["return"] = "return"
    temperature_c: Celsius = 45.0
    minutes: Minutes = 4
    juice_pct: Annotated[float, Field(ge=0, le=50)] | None = None

    def prepare(self, setting: Setting) -> Move:
        row = self._row(setting)
        grams = grams_of(setting, self.ingredient, self.amount)
        start_c, minutes = self.temperature_c, self.minutes

        def move(pot: Pot, knobs: Knobs) -> Pot:
            if not pot.balance.mass_g:
                raise BadInput.at("op", "no sauce to return it to", "Put this step after the sauce")
            pot = put_in(pot, row, grams * knobs.scale, start_c)
            pieces, balance = leak_all(pot.pieces, pot.balance, minutes)
            remarks = pot.remarks
            if row.role in _SAFE_MIDDLE_ROLES:
                remarks += (
                    Remark(
                        "safe-middle",
                        f"the sauce falls to {pot.temperature_c:.0f} °C when it goes in: warm it through "
                        "and probe the middle against your kitchen's own rule",
                    ),
                )
            return pot._replace(
                pieces=pieces,
                balance=balance,
                remarks=remarks,
                minutes=pot.minutes + minutes,
            )

        return move

    def _row(self, setting: Setting) -> Ingredient:
        row = setting.ingredient(self.ingredient)
        if not row.piece:
            raise BadInput.at(
                "ingredient",
                f"{row.name} is no piece of food",
                "Add it, or pick meat, fish or greens",
            )
        if self.juice_pct is None:
            return row
        return replace(row, leak_share=self.juice_pct / 100.0)

    def timer_minutes(self, before: Pot, after: Pot) -> float | None:
        return self.minutes or None

    def words(self, setting: Setting, before: Pot, after: Pot) -> Words:
        row = setting.ingredient(self.ingredient)
        juice = after.balance.mass_g - before.balance.mass_g
        return Words(
            f"{row.name.partition(',')[0]} back in",
            "Lay it in, keep the sauce just under the boil, turn it once.",
            f"hot in the middle, still tender; about {max(0.0, juice):.0f} g juice joins the sauce",
        )
