"""Enriching: `liaison` of yolk and cream, `mount` with butter, `finish` off the heat, `blend`, `mend`."""

from dataclasses import dataclass, replace
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field

from saucier import constants as K
from saucier.document import Celsius, IngredientKey
from saucier.heat import (
    boil_up_minutes,
    heat_capacity_j_per_k,
    mixed_temperature_c,
    pot_heat_j_per_k,
)
from saucier.larder import Ingredient
from saucier.pot import EMPTY, Balance, Piece, Pot
from saucier.steps.put_in import put_in, splits_when_boiled
from saucier.steps.step import (
    Knobs,
    Measured,
    Move,
    OneIngredient,
    Setting,
    StepBase,
    Weighed,
    grams_of,
)
from saucier.words import say


@dataclass(frozen=True, slots=True)
class Ladle:
    """One ladle of hot sauce into the yolk mixture: ``sauce_g``, the same in mL, and where it leaves it, °C."""

    sauce_g: float
    temperature_c: float
    sauce_ml: float


def tempering(
    mixture: Balance, sauce: Balance, sauce_c: float, mixture_c: float = K.FRIDGE_C
) -> list[Ladle]:
    """Ladles of ``sauce`` at ``sauce_c`` into the yolk ``mixture`` at ``mixture_c``.

    Each raises it at most 15 °C and keeps it under 65 °C, until it is diluted one to one and
    the rest can take it. Both balances in g. Source: docs/model.md 4.
    """
    ladles: list[Ladle] = []
    mixture_g, per_gram = mixture.mass_g, EMPTY.plus(sauce, 1.0 / max(sauce.mass_g, 1e-9))
    heat, poured, at = heat_capacity_j_per_k(mixture), 0.0, mixture_c
    sauce_heat = heat_capacity_j_per_k(per_gram)
    while poured < mixture_g and len(ladles) < 40:
        target = min(at + K.TEMPER_RISE_C, K.TEMPER_MAX_C)
        if sauce_c <= target:  # the sauce itself is cool enough for the rest in one go
            grams = mixture_g - poured
        else:
            grams = heat * (target - at) / (sauce_heat * (sauce_c - target))
            grams = min(grams, mixture_g - poured)
        if grams < 1e-6 * mixture_g:
            break
        at = mixed_temperature_c(heat, at, sauce_heat * grams, sauce_c)
        heat += sauce_heat * grams
        poured += grams
        ladles.append(Ladle(grams, at, grams * sauce.volume_ml / max(sauce.mass_g, 1e-9)))
    return ladles


_BARE = say("liaison-bare", max_c=K.LIAISON_BARE_MAX_C)
_MOUNTED = say("mounted")
_MOUNTED_BARE = say("mounted-bare")
_SOFT = say("soft-cream", max_c=K.SOFT_CREAM_MAX_C)


class Liaison(StepBase):
    """Yolk in cream, tempered into the sauce and warmed to ``heat_to_c`` (null: not heated). ``probed_c``: how hot
    it really became, by a probe; that counts, whatever was meant or reckoned."""

    op: Literal["liaison"] = "liaison"
    yolk: Measured
    cream: Measured
    heat_to_c: Celsius | None = 80.0
    probed_c: Celsius | None = None

    def prepare(self, setting: Setting) -> Move:
        rows = [whisked_in(setting.ingredient(p.ingredient)) for p in (self.yolk, self.cream)]
        yolk_g, cream_g = self.yolk.grams(setting, "yolk"), self.cream.grams(setting, "cream")
        heat_to, probed, stove = self.heat_to_c, self.probed_c, setting.stove
        no_yolk = rows[0].per_gram.yolk_protein <= 0.0

        def move(pot: Pot, knobs: Knobs) -> Pot:
            remarks = pot.remarks
            if no_yolk:
                remarks += (say("no-yolk", name=rows[0].name),)
            if not pot.wetted:
                remarks += (say("no-sauce", to=say("no-sauce-to-bind")),)
            starch = pot.flour_g_per_l >= K.LIAISON_FLOUR_G_PER_L
            for row, grams in zip(rows, (yolk_g, cream_g), strict=True):
                pot = put_in(pot, row, grams * knobs.scale, K.FRIDGE_C)
            # Tempered yolk has only been as hot as the mixture; what counts is where it goes.
            reached = pot.temperature_c
            minutes = 3.0
            if heat_to is not None and heat_to > reached:
                minutes += boil_up_minutes(
                    pot_heat_j_per_k(pot), reached, stove, pot.total_ml, heat_to
                )
                reached = heat_to
            if probed is not None:
                reached = probed
            if not starch and reached > K.LIAISON_BARE_MAX_C:
                remarks += (
                    say(
                        "yolk-grains",
                        reached_c=reached,
                        flour_g_per_l=K.LIAISON_FLOUR_G_PER_L,
                        max_c=K.LIAISON_BARE_MAX_C,
                    ),
                )
            if reached < K.YOLK_SETS_C:
                remarks += (say("yolk-raw", reached_c=reached),)
            if not starch:
                remarks += (_BARE,)
            return pot._replace(
                temperature_c=reached,
                hottest_c=reached,
                minutes=pot.minutes + minutes,
                remarks=remarks,
                delicate=pot.delicate if starch else pot.delicate | {"liaison"},
            )

        return move

    def ladles(self, setting: Setting, before: Pot) -> list[Ladle]:
        """The tempering, from the pot before the step."""
        mixture = EMPTY
        for part in (self.yolk, self.cream):
            mixture = mixture.plus(
                setting.ingredient(part.ingredient).per_gram, part.grams(setting)
            )
        if not before.wetted or before.balance.mass_g <= 0.0:
            return []
        return tempering(mixture, before.balance, before.temperature_c)

    def turned(self, knobs: Knobs, setting: Setting) -> Self:
        return self.model_copy(
            update={"yolk": self.yolk.times(knobs.scale), "cream": self.cream.times(knobs.scale)}
        )

    def to_weigh(self, setting: Setting) -> list[Weighed]:
        return [self.yolk.weighed(setting, "yolk"), self.cream.weighed(setting, "cream")]


class Mount(OneIngredient):
    """Cold butter whisked in, off the heat, at the very end."""

    fire: ClassVar[bool] = False
    op: Literal["mount"] = "mount"
    ingredient: IngredientKey = "butter-unsalted"

    def prepare(self, setting: Setting) -> Move:
        row = setting.ingredient(self.ingredient)
        bound, grams = whisked_in(row), grams_of(setting, self.ingredient, self.amount)

        def move(pot: Pot, knobs: Knobs) -> Pot:
            remarks = pot.remarks
            there = pot.balance.water + pot.balance.alcohol
            holds = there >= K.MOUNTS_INTO * grams * knobs.scale
            # Butter boiled into cream is a usual finish: its fat finds room among the cream's own.
            into_cream = pot.cream_fat_share >= K.BUTTER_BOILS_IN
            if not pot.wetted:
                remarks += (say("no-sauce", to=say("no-sauce-to-mount")),)
            delicate = pot.delicate
            if row.role != "fat":
                remarks += (say("not-butter", name=row.name),)
            elif not into_cream:
                # Flour holds its share of fat; what neither it nor a cream holds is a warm emulsion.
                butter = pot.balance.butter + grams * knobs.scale * row.per_gram.fat
                held = pot.starch_holds and butter <= K.FLOUR_HOLDS_FAT * pot.balance.flour
                remarks += (_MOUNTED if held else _MOUNTED_BARE,)
                delicate = delicate | {"mounted" if held else "mounted-bare"}
            cooled = min(pot.temperature_c, K.MOUNT_MAX_C)
            mounted = put_in(
                pot._replace(temperature_c=cooled),
                bound if holds else row,
                grams * knobs.scale,
                K.FRIDGE_C,
            )
            return mounted._replace(
                minutes=pot.minutes + 2.0,
                delicate=delicate,
                remarks=remarks,
            )

        return move


class Finish(OneIngredient):
    """Something stirred in last, off the heat: soured cream, herbs, a purée, a reduction; brined food may be ``rinsed`` first."""

    fire: ClassVar[bool] = False
    op: Literal["finish"] = "finish"
    temperature_c: Celsius = K.FRIDGE_C
    rinsed: bool = False

    def prepare(self, setting: Setting) -> Move:
        row = setting.ingredient(self.ingredient)
        grams = grams_of(setting, self.ingredient, self.amount)
        at, soft, rinsed = self.temperature_c, splits_when_boiled(row), self.rinsed

        def move(pot: Pot, knobs: Knobs) -> Pot:
            cooled = pot._replace(temperature_c=min(pot.temperature_c, K.SOFT_CREAM_MAX_C))
            finished = put_in(cooled, row, grams * knobs.scale, at, rinsed=rinsed)
            if soft and not pot.balance.thickener:
                finished = finished.saying(_SOFT)
            return finished._replace(minutes=pot.minutes + 1.0)

        return move


class Blend(StepBase):
    """Pieces blended into the sauce: all of them or those of one ``ingredient``; ``keep_share`` of
    them kept whole as garnish. It whisks in whatever fat swam."""

    fire: ClassVar[bool] = False
    op: Literal["blend"] = "blend"
    ingredient: IngredientKey | None = None
    keep_share: Annotated[float, Field(ge=0, lt=1)] = 0.0

    def prepare(self, setting: Setting) -> Move:
        keep, key = self.keep_share, self.ingredient
        if key is not None:
            setting.ingredient(key)
        nothing = say("nothing-to-blend")

        def move(pot: Pot, knobs: Knobs) -> Pot:
            balance = pot.balance
            left: list[Piece] = []
            for piece in pot.pieces:
                if key not in (None, piece.key):
                    left.append(piece)
                    continue
                balance = balance.plus(piece.content, 1.0 - keep)
                if keep:
                    left.append(piece.share(keep))
            if balance is pot.balance:
                return pot.saying(nothing)
            return pot._replace(
                balance=balance.whisked(),
                pieces=tuple(left),
                wetted=True,
                minutes=pot.minutes + 2.0,
            )

        return move


class Mend(OneIngredient):
    """A sauce that split, brought together again: a spoon of fresh cream or water in a clean pan,
    the split sauce whisked in by drops, then in a thread."""

    op: Literal["mend"] = "mend"
    ingredient: IngredientKey = "cream-35"

    def prepare(self, setting: Setting) -> Move:
        row = setting.ingredient(self.ingredient)
        grams = grams_of(setting, self.ingredient, self.amount)
        needless = say("nothing-split")
        vain = say("splits-again")

        def move(pot: Pot, knobs: Knobs) -> Pot:
            was = pot.split
            pot = put_in(pot, row, grams * knobs.scale, K.FRIDGE_C, K.MEND_MINUTES)
            pot = pot._replace(balance=pot.balance.whisked(), split=False)
            if not was:
                return pot.saying(needless)
            return pot.saying(vain) if pot.fat_share >= K.EMULSION_SPLIT else pot

        return move


def whisked_in(row: Ingredient) -> Ingredient:
    """``row`` as it is when it is whisked in: none of its fat swims."""
    return replace(row, per_gram=row.per_gram.whisked())
