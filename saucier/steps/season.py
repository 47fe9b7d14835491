"""`season`: salt to a target, or a measured seasoning."""

from typing import Annotated, Literal, Self

from pydantic import Discriminator, Tag

from saucier.errors import BadInput
from saucier.pot import Pot, Remark
from saucier.seasoning import salt_needed_g, salt_pct
from saucier.steps.base import (
    AmountField,
    IngredientKey,
    Knobs,
    Move,
    Part,
    Percent,
    Setting,
    StepBase,
    Weighed,
    Words,
    grams_of,
    put_in,
    weighed_of,
)
from saucier.units import Amount

_WHOLE_G = 20.0
"""From here on salt is weighed in whole grams: a tenth is under half a percent of it."""


class ToSalt(Part):
    """Enough salt to bring the pot to ``to_salt_pct`` g per 100 g."""

    to_salt_pct: Percent


def _kind(value: object) -> str:
    found = (
        value.get("to_salt_pct") if isinstance(value, dict) else getattr(value, "to_salt_pct", None)
    )
    return "to-salt" if found is not None else "amount"


class Season(StepBase):
    """A measured ``amount`` of a seasoning, or salt up to a target."""

    op: Literal["season"] = "season"
    ingredient: IngredientKey = "salt"
    amount: Annotated[
        Annotated[AmountField, Tag("amount")] | Annotated[ToSalt, Tag("to-salt")],
        Discriminator(_kind),
    ]

    def prepare(self, setting: Setting) -> Move:
        row = setting.ingredient(self.ingredient)
        if not isinstance(self.amount, ToSalt):
            grams = grams_of(setting, self.ingredient, self.amount)

            def add(pot: Pot, knobs: Knobs) -> Pot:
                return put_in(pot, row, grams * knobs.scale, None)

            return add

        target, purity = self.amount.to_salt_pct, row.per_gram.salt
        if purity <= target / 100.0 or purity < 0.5:
            raise BadInput.at(
                "ingredient", f"{row.name} is not a salt", "Use a salt, or give a measured amount"
            )

        def to_target(pot: Pot, knobs: Knobs) -> Pot:
            needed = salt_needed_g(pot.balance, target, purity)
            if needed >= 0.0:
                return put_in(pot, row, needed, None)
            over = pot.balance.salt - target / 100.0 * pot.balance.mass_g
            remark = f"{over:.1f} g salt over {target:g} %: add none"
            if target:
                remark += f"; {100.0 * over / target:.0f} g unsalted liquid or cream evens it out"
            return pot._replace(remarks=(*pot.remarks, Remark("too-salty", remark)))

        return to_target

    def turned(self, knobs: Knobs, setting: Setting) -> Self:
        if isinstance(self.amount, ToSalt):
            return self
        return self.model_copy(update={"amount": self.amount.times(knobs.scale)})

    def to_weigh(self, setting: Setting) -> list[Weighed]:
        if isinstance(self.amount, ToSalt):
            return []
        return [weighed_of(setting, self.ingredient, self.amount)]

    def weighed_after(self, setting: Setting, before: Pot, after: Pot) -> list[Weighed]:
        grams = after.balance.mass_g - before.balance.mass_g
        grams = round(grams) if grams >= _WHOLE_G else round(grams, 1)
        if not isinstance(self.amount, ToSalt) or grams <= 0.0:
            return self.to_weigh(setting)
        return [weighed_of(setting, self.ingredient, Amount(grams, "g"))]

    def words(self, setting: Setting, before: Pot, after: Pot) -> Words:
        row = setting.ingredient(self.ingredient)
        if not isinstance(self.amount, ToSalt):
            return Words(
                f"Season with {row.spoken_name}", "Stir it in, taste.", "there, but not in front"
            )
        do = (
            "Stir most of it in, taste, stop when it is right."
            if self.weighed_after(setting, before, after)
            else "Taste: it has salt enough already."
        )
        return Words("Salt", do, f"{salt_pct(after.balance):.2f} g salt in 100 g")
