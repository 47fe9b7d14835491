"""Steps around the pan itself: `start` a used one, `sear`, `deglaze`, `flame`, `return` food."""

import math
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field

from saucier import constants as K
from saucier.document import AmountField, Celsius, IngredientKey, Minutes
from saucier.errors import BadInput
from saucier.heat import (
    Stove,
    heat_capacity_j_per_k,
    mixed_temperature_c,
    open_surface_m2,
    pot_heat_j_per_k,
)
from saucier.larder import Ingredient
from saucier.pot import EMPTY, Balance, Piece, Pot, cook_all, rendered
from saucier.steps.put_in import put_in
from saucier.steps.step import (
    Hands,
    Knobs,
    Measured,
    Move,
    OneIngredient,
    Setting,
    StepBase,
    Weighed,
    grams_of,
    weighed_of,
)
from saucier.words import Sentence, say

_SAFE_MIDDLE_ROLES = ("meat", "fish", "seafood")
How = Literal["raw", "seared", "cooked"]


class Start(StepBase):
    """A used pan: the fat and the juices of what was seared in it, with their salt."""

    op: Literal["start"] = "start"
    fat: Measured | None = None
    juices: Measured | None = None

    def prepare(self, setting: Setting) -> Move:
        if self.fat is None and self.juices is None:
            raise BadInput.at("fat", "the-pan-is-empty")
        parts = [
            (setting.ingredient(part.ingredient), part.grams(setting, name))
            for name, part in self._parts()
        ]

        def move(pot: Pot, knobs: Knobs) -> Pot:
            for row, grams in parts:
                # Its juices lie in its fat already: nothing spits.
                pot = put_in(pot._replace(temperature_c=K.BOIL_C), row, grams * knobs.scale, None)
            return pot._replace(temperature_c=K.USED_PAN_C)

        return move

    def _parts(self) -> list[tuple[str, Measured]]:
        both = (("fat", self.fat), ("juices", self.juices))
        return [(name, part) for name, part in both if part is not None]

    def turned(self, knobs: Knobs, setting: Setting) -> Self:
        changes = {name: part.times(knobs.scale) for name, part in self._parts()}
        return self.model_copy(update=changes)

    def to_weigh(self, setting: Setting) -> list[Weighed]:
        return [part.weighed(setting, name) for name, part in self._parts()]


class Deglaze(OneIngredient):
    """A liquid into the hot pan, the bottom scraped up."""

    op: Literal["deglaze"] = "deglaze"

    def prepare(self, setting: Setting) -> Move:
        row = setting.ingredient(self.ingredient, "")
        grams = grams_of(setting, self.ingredient, self.amount)
        dry = say("not-a-liquid", name=row.name)

        def move(pot: Pot, knobs: Knobs) -> Pot:
            pot = put_in(pot, row, grams * knobs.scale, 20.0)
            return pot if row.wet and not row.piece else pot._replace(remarks=(*pot.remarks, dry))

        return move


class Flame(StepBase):
    """Spirit set alight. The flame dies with most of the alcohol still there."""

    op: Literal["flame"] = "flame"

    def prepare(self, setting: Setting) -> Move:
        nothing = say("nothing-burns")

        def move(pot: Pot, knobs: Knobs) -> Pot:
            balance = pot.balance
            # The liquid burns: neither the pieces in it nor the fat on it count.
            liquid = balance.liquid_g
            share = balance.alcohol / liquid if liquid > 0.0 else 0.0
            if share < 0.03:
                return pot._replace(remarks=(*pot.remarks, nothing))
            left = balance.with_liquids(balance.water, balance.alcohol * K.FLAMED_ALCOHOL_LEFT)
            return pot._replace(balance=left, minutes=pot.minutes + 1.0)

        return move


class Sear(OneIngredient):
    """Food coloured in a hot wide pan, in rounds, and lifted out underdone: its fat and its fond
    stay in the pan for the sauce. `return` puts it back to finish."""

    op: Literal["sear"] = "sear"
    fat: Measured | None = None
    minutes: Minutes = 4

    def prepare(self, setting: Setting) -> Move:
        row = _food(setting, self.ingredient)
        grams = grams_of(setting, self.ingredient, self.amount)
        fat_row = setting.ingredient(self.fat.ingredient, "fat") if self.fat else None
        fat_g = self.fat.grams(setting, "fat") if self.fat else 0.0
        minutes, stove = self.minutes, setting.stove
        wet = say("wet-pan")
        dry = say("no-fat", why=say("no-fat-to-sear"))

        def move(pot: Pot, knobs: Knobs) -> Pot:
            if fat_row is not None:
                pot = put_in(pot, fat_row, fat_g * knobs.scale, None)
            if fat_row is not None and 0.0 < fat_row.smokes_c < K.SMOKES_UNDER_C and not pot.wetted:
                pot = pot.saying(say("fat-smokes", name=fat_row.spoken_name, at_c=fat_row.smokes_c))
            if pot.wetted:
                pot = pot.saying(wet)
            elif pot.balance.fat <= 0.0 and not row.renders_share:
                pot = pot.saying(dry)
            raw = EMPTY.plus(row.per_gram, grams * knobs.scale)
            fond = EMPTY.plus(raw, K.SEAR_FOND_SHARE)._replace(water=0.0, alcohol=0.0)
            took = K.SEAR_FAT_TAKEN * pot.balance.loose
            fat = Balance(fat=took, butter=took, loose=took)
            content = raw.plus(fond, -1.0).plus(fat)
            steam = min(K.SEAR_STEAM_SHARE * raw.mass_g, 0.9 * content.water)
            content = content.with_liquids(content.water - steam, content.alcohol)
            piece = Piece(
                row.key,
                row.name,
                content,
                food=True,
                to_render_g=row.renders_share * raw.mass_g,
                put_g=raw.mass_g,
                salt_min=row.salt_min,
                salt_put_g=content.salt,
            )
            piece, ran_out = rendered(piece, minutes)
            return pot._replace(
                balance=pot.balance.plus(fat, -1.0).plus(fond).plus(ran_out),
                lifted=(*pot.lifted, piece),
                temperature_c=pot.temperature_c if pot.wetted else K.SEAR_C,
                allergens=pot.allergens | row.allergens,
                cost=pot.cost + row.cost(grams * knobs.scale),
                minutes=pot.minutes + minutes * _rounds(grams * knobs.scale, stove),
            )

        return move

    def turned(self, knobs: Knobs, setting: Setting) -> Self:
        fat = self.fat.times(knobs.scale) if self.fat else None
        return super().turned(knobs, setting).model_copy(update={"fat": fat})

    def to_weigh(self, setting: Setting) -> list[Weighed]:
        fat = [self.fat.weighed(setting, "fat")] if self.fat else []
        return fat + super().to_weigh(setting)

    def timer_minutes(self, before: Pot, after: Pot) -> float | None:
        return self.minutes or None

    def rounds(self, setting: Setting) -> int:
        """Rounds it takes in the pan of ``setting``, with gaps between."""
        return _rounds(grams_of(setting, self.ingredient, self.amount), setting.stove)


def _rounds(grams: float, stove: Stove) -> int:
    """Rounds it takes to sear so much with gaps between."""
    area = open_surface_m2(1.0, stove) * 1e4
    return max(1, math.ceil(grams / (K.SEAR_G_PER_CM2 * area) - 1e-9))


def _food(setting: Setting, key: str) -> Ingredient:
    row = setting.ingredient(key)
    if not row.piece:
        raise BadInput.at("ingredient", "is-no-piece-of-food", name=row.name)
    return row


class Return(StepBase):
    """Food put into the sauce to finish: it brings heat or takes it, and gives juice.

    ``how`` it comes (raw, seared or part-cooked, cooked through) decides the juice and the
    minutes where none are given. Without an ``amount`` it is what was lifted out or seared
    before, weighed and paid for then.
    """

    hands: ClassVar[Hands] = "now-and-then"
    op: Literal["return"] = "return"
    ingredient: IngredientKey
    amount: AmountField | None = None
    how: How = "seared"
    temperature_c: Celsius = 45.0
    minutes: Minutes | None = None
    juice_pct: Annotated[float, Field(ge=0, le=50)] | None = None

    @property
    def takes_minutes(self) -> float:
        return K.FINISH_MINUTES[self.how] if self.minutes is None else self.minutes

    def prepare(self, setting: Setting) -> Move:
        row, start_c, minutes = (
            _food(setting, self.ingredient),
            self.temperature_c,
            self.takes_minutes,
        )
        grams = grams_of(setting, self.ingredient, self.amount) if self.amount else 0.0
        juice = self._juice_share(row)
        lifted = self.amount is None
        nothing = say("nothing-lifted", name=row.spoken_name)

        def move(pot: Pot, knobs: Knobs) -> Pot:
            if not pot.balance.mass_g:
                raise BadInput.at("op", "no-sauce-to-return-it-to")
            if lifted:
                there = [piece for piece in pot.lifted if piece.key == row.key]
                if not there:
                    return pot.saying(nothing)
                pot = _back_in(pot, there, juice, start_c)
            else:
                pot = put_in(pot, row, grams * knobs.scale, start_c, juice_share=juice)
            pieces, balance = cook_all(pot.pieces, pot.balance, minutes)
            if row.role in _SAFE_MIDDLE_ROLES and pot.temperature_c < K.SAFE_MIDDLE_UNDER_C:
                pot = pot.saying(_safe_middle(pot.temperature_c))
            elif self.how == "raw" and minutes < (
                wants := K.COOKED_IN_SAUCE_MIN.get(row.role, 0.0)
            ):
                facts = {"minutes": minutes, "wants": wants}
                pot = pot.saying(say("raw-in-sauce", name=row.spoken_name, **facts))
            return pot._replace(pieces=pieces, balance=balance, minutes=pot.minutes + minutes)

        return move

    def _juice_share(self, row: Ingredient) -> float:
        if self.juice_pct is not None:
            return self.juice_pct / 100.0
        if self.how == "raw":
            return row.leak_share
        return min(row.leak_share, K.JUICE_SEARED if self.how == "seared" else K.JUICE_COOKED)

    def turned(self, knobs: Knobs, setting: Setting) -> Self:
        amount = self.amount.times(knobs.scale) if self.amount else None
        return self.model_copy(update={"amount": amount})

    def to_weigh(self, setting: Setting) -> list[Weighed]:
        return [weighed_of(setting, self.ingredient, self.amount)] if self.amount else []

    def timer_minutes(self, before: Pot, after: Pot) -> float | None:
        return self.takes_minutes or None


def _back_in(pot: Pot, pieces: list[Piece], juice_share: float, start_c: float) -> Pot:
    """``pieces``, lifted out before, back in the sauce at ``start_c``."""
    heat = sum(heat_capacity_j_per_k(piece.content) for piece in pieces)
    mixed = mixed_temperature_c(pot_heat_j_per_k(pot), pot.temperature_c, heat, start_c)
    back = [piece._replace(to_leak_g=juice_share * piece.mass_g, food=True) for piece in pieces]
    keys = {piece.key for piece in pieces}
    return pot._replace(
        pieces=(*pot.pieces, *back),
        lifted=tuple(piece for piece in pot.lifted if piece.key not in keys),
        temperature_c=mixed,
    )


def _safe_middle(temperature_c: float) -> Sentence:
    return say("safe-middle", temperature_c=temperature_c)
