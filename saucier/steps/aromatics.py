"""Aromatics: `sweat` in fat, `dust` with flour, `infuse` in a liquid, `strain` out."""

from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field

from saucier import constants as K
from saucier.document import IngredientKey, Minutes
from saucier.errors import BadInput
from saucier.heat import boil_up_minutes, pot_heat_j_per_k
from saucier.larder import Ingredient
from saucier.pot import EMPTY, Pot, cook_all, rendered
from saucier.steps.put_in import put_in
from saucier.steps.roux import RouxColour, powered
from saucier.steps.step import Hands, Knobs, Move, OneIngredient, Setting, StepBase, grams_of
from saucier.words import Sentence, say


class Sweat(OneIngredient):
    """Pieces softened in the fat of the pan without colour. They steam away some of their
    water; their juice stays theirs until liquid comes."""

    hands: ClassVar[Hands] = "now-and-then"
    op: Literal["sweat"] = "sweat"
    minutes: Minutes = 8
    rinsed: bool = False

    def prepare(self, setting: Setting) -> Move:
        row = setting.ingredient(self.ingredient)
        if not row.piece:
            raise BadInput.at("ingredient", "ingredient-does-not-sweat", name=row.name)
        grams = grams_of(setting, self.ingredient, self.amount)
        lost = min(K.SWEAT_LOSS_MOST, K.SWEAT_LOSS_PER_MIN * self.minutes)
        minutes, rinsed = self.minutes, self.rinsed
        dry = say("no-fat", why=say("no-fat-to-sweat"))

        def move(pot: Pot, knobs: Knobs) -> Pot:
            fat_there = pot.balance.fat or pot.wetted or row.renders_share
            remarks = pot.remarks if fat_there else (*pot.remarks, dry)
            pot = put_in(pot, row, grams * knobs.scale, None, rinsed=rinsed)
            piece, fat = rendered(pot.pieces[-1], minutes)
            steam = min(lost * piece.mass_g, 0.9 * piece.content.water)
            content = piece.content.with_liquids(piece.content.water - steam, piece.content.alcohol)
            to_leak = max(0.0, piece.to_leak_g - steam)
            sweated = piece._replace(content=content, to_leak_g=to_leak)
            return pot._replace(
                balance=pot.balance.plus(fat) if fat.fat else pot.balance,
                pieces=(*pot.pieces[:-1], sweated),
                temperature_c=K.BOIL_C,
                minutes=pot.minutes + minutes,
                remarks=remarks,
            )

        return move

    def timer_minutes(self, before: Pot, after: Pot) -> float | None:
        return self.minutes or None


class Dust(OneIngredient):
    """Flour over the aromatics in their own fat, instead of a roux made apart."""

    op: Literal["dust"] = "dust"
    ingredient: IngredientKey = "wheat-flour"
    colour: RouxColour = "white"
    minutes: Minutes = 2

    def prepare(self, setting: Setting) -> Move:
        row = powered(setting.ingredient(self.ingredient), self.colour)
        grams = grams_of(setting, self.ingredient, self.amount)
        minutes = self.minutes

        def move(pot: Pot, knobs: Knobs) -> Pot:
            flour = grams * knobs.scale * knobs.flour
            lumps = _lumps(pot, flour)
            # Cooked in the fat of the pan, flour loses its raw taste as in a roux.
            cooked = not (lumps or _floats(pot, flour)) and minutes >= K.ROUX_COOKED_MIN
            pot = put_in(pot, row, flour, None, minutes, lumps)
            return pot._replace(flour_boil_min=K.ROUX_RAW_MIN) if cooked else pot

        return move

    def turned(self, knobs: Knobs, setting: Setting) -> Self:
        return self.model_copy(update={"amount": self.amount.times(knobs.scale * knobs.flour)})

    def timer_minutes(self, before: Pot, after: Pot) -> float | None:
        return self.minutes or None


def _floats(pot: Pot, flour_g: float) -> bool:
    """Whether ``flour_g`` over ``pot`` falls into liquid rather than being stirred into the fat with a little juice."""
    return pot.wetted and pot.balance.water > K.DUSTED_INTO_WATER * flour_g


def _lumps(pot: Pot, flour_g: float) -> tuple[Sentence, ...]:
    """Why ``flour_g`` dusted over ``pot`` lumps: too little fat to coat it, or hot liquid that swells it at once. Into
    cold liquid it is whisked smooth."""
    if _floats(pot, flour_g):
        return (say("flour-into-hot"),) if pot.temperature_c >= K.SWELLS_FROM_C else ()
    if pot.balance.fat < K.LEAN_ROUX * flour_g:
        return (say("lean-dust", fat_g=pot.balance.fat, flour_g=flour_g),)
    return ()


class Infuse(OneIngredient):
    """Aromatics steeped under a lid; they stay in as pieces until strained out."""

    hands: ClassVar[Hands] = "none"
    fire: ClassVar[bool] = False
    op: Literal["infuse"] = "infuse"
    minutes: Minutes = 15

    def prepare(self, setting: Setting) -> Move:
        row = setting.ingredient(self.ingredient)
        grams = grams_of(setting, self.ingredient, self.amount)
        minutes, stove = self.minutes, setting.stove
        dry = say("nothing-to-infuse")

        def move(pot: Pot, knobs: Knobs) -> Pot:
            if not pot.wetted:
                return pot._replace(remarks=(*pot.remarks, dry))
            warm = boil_up_minutes(
                pot_heat_j_per_k(pot), pot.temperature_c, stove, pot.total_ml, K.STEEP_C
            )
            pot = put_in(pot, row, grams * knobs.scale, None)
            pieces, balance = cook_all(pot.pieces, pot.balance, minutes)
            return pot._replace(
                pieces=pieces,
                balance=balance,
                temperature_c=max(pot.temperature_c, K.STEEP_C),
                minutes=pot.minutes + minutes + warm,
            )

        return move

    def timer_minutes(self, before: Pot, after: Pot) -> float | None:
        return self.minutes or None


KEPT_ROLES = ("meat", "fish", "seafood", "solid")
"""Food nobody throws away with the aromatics: strained out of its liquor, it is kept."""


class Strain(StepBase):
    """Pieces out; what clings to them stays out, by their kind, or ``holds_back`` grams of sauce for each gram of
    their own. Fish, shellfish and meat poached in it are kept, to be put back."""

    op: Literal["strain"] = "strain"
    holds_back: Annotated[float, Field(ge=0, le=2)] | None = None

    def prepare(self, setting: Setting) -> Move:
        holds, larder = self.holds_back, setting.kitchen.larder
        nothing = say("nothing-to-strain")

        def move(pot: Pot, knobs: Knobs) -> Pot:
            mass = pot.balance.mass_g
            if not pot.pieces or not mass:
                return pot.saying(nothing)
            if holds is None:
                clings = sum(
                    _clings(larder[piece.key]) * (piece.put_g or piece.mass_g)
                    for piece in pot.pieces
                )
            else:
                clings = holds * pot.pieces_g
            kept = max(0.0, 1.0 - clings / mass)
            if kept <= 0.0:
                raise BadInput.at(
                    "holds_back",
                    "the-pieces-would-hold-all-g",
                    mass=mass,
                )
            food = tuple(
                p._replace(food=True) for p in pot.pieces if larder[p.key].role in KEPT_ROLES
            )
            return pot._replace(
                pieces=(),
                lifted=(*pot.lifted, *food),
                balance=EMPTY.plus(pot.balance, kept),
                minutes=pot.minutes + 1.0,
            )

        return move


def _clings(row: Ingredient) -> float:
    """Liquor that stays on strained food, g for each gram of it that went in."""
    if row.role in ("meat", "fish", "seafood"):
        return K.STRAINED_HOLDS["food"]
    if row.role in ("aromatic", "herb", "spice"):
        return K.STRAINED_HOLDS["minced"]
    return K.STRAINED_HOLDS["leaves" if row.leak_share >= K.LEAVES_LEAK else "pieces"]


class Lift(StepBase):
    """Pieces of ``ingredient`` (none named: all of them) lifted out and kept, to be put back with
    `return`. They were paid for and weighed when they went in."""

    op: Literal["lift"] = "lift"
    ingredient: IngredientKey | None = None

    def prepare(self, setting: Setting) -> Move:
        key = self.ingredient
        if key is not None:
            setting.ingredient(key)
        nothing = say("nothing-to-lift")

        def move(pot: Pot, knobs: Knobs) -> Pot:
            out = tuple(p._replace(food=True) for p in pot.pieces if key in (None, p.key))
            if not out:
                return pot.saying(nothing)
            return pot._replace(
                pieces=tuple(p for p in pot.pieces if key not in (None, p.key)),
                lifted=(*pot.lifted, *out),
                minutes=pot.minutes + 1.0,
            )

        return move
