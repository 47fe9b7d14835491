"""`season`: salt to a target, or a measured seasoning."""

from typing import Annotated, ClassVar, Literal, Self

from pydantic import Discriminator, Tag

from saucier import constants as K
from saucier.document import AmountField, IngredientKey, Part, Percent
from saucier.errors import BadInput
from saucier.pot import Pot
from saucier.seasoning import salt_needed_g
from saucier.steps.put_in import put_in
from saucier.steps.step import Knobs, Move, Setting, StepBase, Weighed, grams_of, weighed_of
from saucier.units import Amount
from saucier.words import say


class ToSalt(Part):
    """Enough salt to bring the pot to ``to_salt_pct`` g per 100 g."""

    to_salt_pct: Percent


def _kind(value: object) -> str:
    target = (
        value.get("to_salt_pct") if isinstance(value, dict) else getattr(value, "to_salt_pct", None)
    )
    return "to-salt" if target is not None else "amount"


class Season(StepBase):
    """A measured ``amount`` of a seasoning, or salt up to a target."""

    fire: ClassVar[bool] = False
    op: Literal["season"] = "season"
    ingredient: IngredientKey = "salt"
    amount: Annotated[
        Annotated[AmountField, Tag("amount")] | Annotated[ToSalt, Tag("to-salt")],
        Discriminator(_kind),
    ]

    @property
    def to_target(self) -> bool:
        """Whether it is salt up to a target."""
        return isinstance(self.amount, ToSalt)

    def prepare(self, setting: Setting) -> Move:
        row = setting.ingredient(self.ingredient)
        if not isinstance(self.amount, ToSalt):
            grams = grams_of(setting, self.ingredient, self.amount)

            def add(pot: Pot, knobs: Knobs) -> Pot:
                return put_in(pot, row, grams * knobs.scale, None)

            return add

        target, purity = self.amount.to_salt_pct, row.per_gram.salt
        if purity <= target / 100.0 or purity < 0.5:
            raise BadInput.at("ingredient", "is-not-a-salt", name=row.name)

        def salted(pot: Pot, knobs: Knobs) -> Pot:
            needed = salt_needed_g(pot.balance, target, purity)
            if needed >= 0.0:
                return put_in(pot, row, needed, None)
            over = pot.balance.salt - target / 100.0 * pot.balance.mass_g
            if not target:
                return pot.saying(say("too-salty-for-none", over_g=over))
            liquid = 100.0 * over / target
            return pot.saying(say("too-salty", over_g=over, target_pct=target, liquid_g=liquid))

        return salted

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
        grams = round(grams) if grams >= K.SALT_WHOLE_G else round(grams, 1)
        if not isinstance(self.amount, ToSalt) or grams <= 0.0:
            return self.to_weigh(setting)
        return [weighed_of(setting, self.ingredient, Amount(grams, "g"))]
