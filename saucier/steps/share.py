"""Shares: `use` a share of another sauce, `reserve` a share of this one."""

from typing import TYPE_CHECKING, Annotated, Literal, Self

from pydantic import ConfigDict, Field

from saucier import constants as K
from saucier.document import AmountField, Celsius, Part
from saucier.errors import BadInput
from saucier.heat import heat_capacity_j_per_k, mixed_temperature_c, pot_heat_j_per_k
from saucier.pot import EMPTY, Pot, SetAside
from saucier.steps.step import Knobs, Move, Setting, StepBase, Weighed, advance
from saucier.units import Dimension

if TYPE_CHECKING:
    from saucier.steps import AnyStep

MAX_DEPTH = 3
"""How deep a sauce may stand inside a sauce."""


class InnerSauce(Part):
    """Another sheet, as much of it as is cooked: its name and its steps."""

    model_config = ConfigDict(frozen=True, extra="ignore", allow_inf_nan=False)

    name: Annotated[str, Field(min_length=1, max_length=120)]
    steps: Annotated[tuple["AnyStep", ...], Field(min_length=1, max_length=60)]


class Use(StepBase):
    """So much of another sauce stirred in: the open format carries its sheet along."""

    op: Literal["use"] = "use"
    sauce: InnerSauce
    amount: AmountField
    temperature_c: Celsius | None = None

    def names(self) -> frozenset[str]:
        return frozenset().union(*(step.names() for step in self.sauce.steps))

    def prepare(self, setting: Setting) -> Move:
        if setting.depth >= MAX_DEPTH:
            raise BadInput.at("sauce", "stands-too-many-sauces-deep", most=MAX_DEPTH)
        inner = self._made(setting)
        balance = inner.balance
        grams = self._grams(inner)
        share, at = grams / inner.total_g, self.temperature_c
        working = K.LIQUID_IN_MINUTES[setting.liquid_in]
        temperature = inner.temperature_c if at is None else at

        def move(pot: Pot, knobs: Knobs) -> Pot:
            times = share * knobs.scale
            pieces = tuple(piece.share(times) for piece in inner.pieces)
            added = EMPTY.plus(balance, times)
            mixed = mixed_temperature_c(
                pot_heat_j_per_k(pot), pot.temperature_c, heat_capacity_j_per_k(added), temperature
            )
            return pot._replace(
                balance=pot.balance.plus(added),
                pieces=(*pot.pieces, *pieces),
                temperature_c=mixed,
                boiled_min=inner.boiled_min if not pot.balance.thickener else pot.boiled_min,
                wetted=pot.wetted or inner.wetted,
                hottest_c=max(pot.hottest_c, inner.hottest_c)
                if added.yolk_protein
                else pot.hottest_c,
                allergens=pot.allergens | inner.allergens,
                cost=pot.cost + inner.cost * times,
                # The other sauce has to be made as well, before or beside this one.
                minutes=pot.minutes
                + inner.minutes
                + (working if pot.balance.flour and not pot.wetted else 0.0),
                delicate=pot.delicate | inner.delicate,
                lifted=(*pot.lifted, *(piece.share(times) for piece in inner.lifted)),
                sour_min=max(pot.sour_min, inner.sour_min),
                split=pot.split or inner.split,
            )

        return move

    def _made(self, setting: Setting) -> Pot:
        """The other sauce, made as written."""
        pot = Pot()
        inside = setting._replace(depth=setting.depth + 1, free_reduction=False)
        for number, step in enumerate(self.sauce.steps):
            try:
                pot = advance(pot, step.prepare(inside))
            except BadInput as bad:
                raise bad.under(f"sauce.steps[{number}]") from None
        if pot.total_g <= 0.0:
            raise BadInput.at("sauce.steps", "steps-make-nothing")
        return pot

    def _grams(self, inner: Pot) -> float:
        if self.amount.dimension is Dimension.WEIGHT:
            return self.amount.base
        if self.amount.dimension is Dimension.VOLUME:
            return self.amount.base * inner.total_g / inner.total_ml
        raise BadInput.at("amount.unit", "a-sauce-is-not-counted-in")

    def turned(self, knobs: Knobs, setting: Setting) -> Self:
        return self.model_copy(update={"amount": self.amount.times(knobs.scale)})

    def to_weigh(self, setting: Setting) -> list[Weighed]:
        grams = self._grams(self._made(setting))
        return [
            Weighed(
                ingredient="",
                name=self.sauce.name,
                role="sauce",
                amount=self.amount,
                grams=grams,
                spoons=None,
                field="amount",
            )
        ]


class Reserve(StepBase):
    """A share set aside: for the top, for correcting, as garnish."""

    op: Literal["reserve"] = "reserve"
    share: Annotated[float, Field(gt=0, lt=1)]
    purpose: Literal["top", "correcting", "garnish", "pass"] = "top"

    def prepare(self, setting: Setting) -> Move:
        share, purpose = self.share, self.purpose

        def move(pot: Pot, knobs: Knobs) -> Pot:
            if not pot.total_g:
                raise BadInput.at("share", "nothing-in-the-pot-to-set")
            left = 1.0 - share
            return pot._replace(
                balance=EMPTY.plus(pot.balance, left),
                pieces=tuple(piece.share(left) for piece in pot.pieces),
                set_aside=(*pot.set_aside, SetAside(purpose, share * pot.total_g)),
            )

        return move
