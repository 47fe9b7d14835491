"""`reduce`: boiling down to a share, a weight, a volume, a grade, for some minutes, or nearly dry."""

import math
from collections.abc import Callable
from typing import Annotated, Any, ClassVar, Literal, Self

from pydantic import Discriminator, Field, Tag, field_validator, model_validator

from saucier import constants as K
from saucier.document import AmountField, Minutes, Part
from saucier.errors import BadInput
from saucier.heat import Stove, evaporation_g_per_min
from saucier.heat.evaporation import Heat
from saucier.pot import Balance, Pot, boil_off, cook_all
from saucier.roots import find_root
from saucier.steps.boiling import (
    NOTHING_TO_BOIL,
    boiled,
    in_its_own_juice,
    long_to_boil,
    minutes_to_boil,
)
from saucier.steps.step import Hands, Knobs, Move, Setting, StepBase
from saucier.thickness import (
    grade_named,
    grade_of,
    log_excess,
    mass_at_fat_share,
    raw_viscosity_of,
    spoken_grade,
)
from saucier.units import Dimension
from saucier.words import Sentence, say

Loss = Callable[[Pot, Knobs], float]
"""Grams a pot is to lose, its juice out, at a setting of the knobs."""
_STOPS = ("share", "mass", "volume", "grade", "minutes", "taste")


class Stop(Part):
    """Where to stop: exactly one of a ``share`` of the sauce (without the pieces in it and the fat
    that swims on it), a ``mass`` or a ``volume`` of all that is in the pot, a ``grade`` at serving
    temperature, ``minutes`` at its heat in its pan, or ``taste``: tasted along the way, planned to
    that share."""

    share: Annotated[float, Field(gt=0, le=1)] | None = None
    mass: AmountField | None = None
    volume: AmountField | None = None
    grade: str | None = None
    minutes: Minutes | None = None
    taste: Annotated[float, Field(gt=0, le=1)] | None = None

    @model_validator(mode="before")
    @classmethod
    def _one_of(cls, data: Any) -> Any:
        if isinstance(data, dict) and sum(data.get(k) is not None for k in _STOPS) != 1:
            raise BadInput.at(
                "",
                "needs-one-place-to-stop",
            )
        return data

    @field_validator("grade")
    @classmethod
    def _known(cls, value: str | None) -> str | None:
        return None if value is None else grade_named(value).key

    @model_validator(mode="after")
    def _fits(self) -> Self:
        if self.mass and self.mass.dimension is not Dimension.WEIGHT:
            raise BadInput.at("mass.unit", "is-not-a-weight", unit=self.mass.unit)
        if self.volume and self.volume.dimension is not Dimension.VOLUME:
            raise BadInput.at("volume.unit", "is-not-a-volume", unit=self.volume.unit)
        return self


_BY_EYE = (1 / 2, 1 / 3, 2 / 3, 1 / 4, 3 / 4)
_SPOKEN = {1 / 2: "half", 1 / 3: "third", 2 / 3: "two-thirds", 1 / 4: "quarter"}


def most_loss_g(balance: Balance) -> float:
    """The most that can boil away, g: all but 3 % of the water."""
    return _driest_loss(balance)[0]


def share_left(before: Pot, after: Pot) -> float:
    """The share of its liquid that boiling took ``before`` to in ``after``, the juice of its pieces
    counted."""
    left = after.balance.liquid_g
    return left / max(left + before.total_g - after.total_g, 1e-9)


def _driest_loss(balance: Balance) -> tuple[float, Balance]:
    driest = balance.with_liquids(
        K.DRY_LEFT * balance.water, balance.alcohol * math.pow(K.DRY_LEFT, K.ALCOHOL_EXPONENT)
    )
    return balance.mass_g - driest.mass_g, driest


def loss_to_grade_g(
    pot: Pot, grade: str, serving_c: float, most_g: float, eye: float = 1.0
) -> float:
    """Grams to boil off until ``pot`` has the middle of ``grade`` at ``serving_c``: 0 where it
    is as thick already, ``most_g`` where it never gets there; ``eye`` times that where the eye is off."""
    wanted = grade_named(grade).target * eye
    boiling = pot.at_the_boil()

    def excess(loss: float) -> float:
        boiled_down = boil_off(boiling.balance, loss)
        return log_excess(boiling._replace(balance=boiled_down), wanted, serving_c)

    if excess(0.0) >= 0.0:
        return 0.0
    if most_g <= 0.0 or excess(most_g) <= 0.0:
        return most_g
    return find_root(excess, 0.0, most_g, 1e-5 * pot.balance.mass_g)


def turns_before_dry(balance: Balance, fat_share: float) -> bool:
    """Whether boiling takes the fat of a cream to ``fat_share`` before it is dry. The little fat of
    a stock or of milk never gets there: those boil dry, and do not split."""
    turned = mass_at_fat_share(balance, fat_share)
    return balance.creamy and balance.mass_g - turned < most_loss_g(balance)


def loss_before_oily_g(balance: Balance) -> float:
    """The most that can boil away before a cream turns oily, g."""
    most = most_loss_g(balance)
    if not balance.creamy:
        return most
    oily = mass_at_fat_share(balance, K.SHORT_OF_TURNING * K.EMULSION_OILY)
    return min(most, max(0.0, balance.mass_g - oily))


def minutes_for(pot_ml: float, shrinks_ml: float, loss_g: float, heat: Heat, stove: Stove) -> float:
    """Minutes to boil ``loss_g`` off ``pot_ml``, which shrinks by ``shrinks_ml``: by the mean of the
    rates at both ends."""
    first = evaporation_g_per_min(pot_ml, heat, stove)
    last = evaporation_g_per_min(max(1.0, pot_ml - shrinks_ml), heat, stove)
    return loss_g / (0.5 * (first + last))


class Reduce(StepBase):
    """Boil down ``to`` a stop. A share is of the sauce at this step, the juice of its pieces
    included, without the pieces and the fat that swims; nearly dry leaves a tenth of that.
    ``minutes`` is what a recipe says beside it: never followed, but where it contradicts the stop
    both are told apart. A stop by minutes is scaled by the share they leave, unless it is ``pinned``. A ``fixed`` stop is one a solve leaves alone. A stop that cannot be reached is a state: boiled as dry as it goes."""

    hands: ClassVar[Hands] = "now-and-then"
    op: Literal["reduce"] = "reduce"
    to: Annotated[
        Annotated[Stop, Tag("stop")] | Annotated[Literal["nearly-dry"], Tag("nearly-dry")],
        Discriminator(lambda value: "nearly-dry" if isinstance(value, str) else "stop"),
    ]
    heat: Heat = "rolling"
    minutes: Minutes | None = None
    pinned: bool = False
    fixed: bool = False

    @model_validator(mode="before")
    @classmethod
    def _to_taste(cls, data: Any) -> Any:
        if isinstance(data, dict) and data.get("to") == "to-taste":
            return {**data, "to": {"taste": K.TASTED_SHARE}}
        return data

    @property
    def stop(self) -> Stop | None:
        """The stop; None: nearly dry."""
        return self.to if isinstance(self.to, Stop) else None

    @property
    def eye_spread(self) -> float:
        """Standard share by which the stop misses where the eye or the tongue decides it."""
        stop = self.stop
        if stop is None:
            return 0.0
        if stop.taste is not None:
            return K.EYE_SPREAD
        if stop.share is None:
            return 0.0
        said = any(abs(stop.share - share) < K.AS_SAID for share in _BY_EYE)
        return K.EYE_SPREAD if said else 0.0

    def missed(self, factor: float) -> Self:
        """This stopped at ``factor`` times its share."""
        stop = self.stop
        assert stop is not None
        name = "taste" if stop.taste is not None else "share"
        share = min(1.0, factor * (getattr(stop, name) or 1.0))
        return self.model_copy(update={"to": Stop.model_validate({name: share})})

    def prepare(self, setting: Setting) -> Move:
        stove, heat, free = setting.stove, self.heat, setting.free
        said = self.minutes
        wanted = self._wanted_loss(setting)
        grade = self.stop.grade if self.stop else None
        covered = (say("lid-on-a-reduction"),) if stove.lid else ()

        def move(pot: Pot, knobs: Knobs) -> Pot:
            pot = in_its_own_juice(pot, K.JUICE_MIN)
            if not pot.wetted:
                return pot.saying(NOTHING_TO_BOIL)
            pot = pot.saying(*covered) if covered else pot
            turned = free and knobs.share is not None
            loss_of = _to_share(knobs.share) if turned and knobs.share is not None else wanted
            full_ml, came_up = pot.total_ml, minutes_to_boil(pot, stove)
            if came_up > K.LONG_TO_BOIL_MIN:
                pot = pot.saying(*long_to_boil(pot, stove, came_up))
            if pot.pieces:  # their juice comes while it boils, and is boiled down with the rest
                guess = max(0.0, loss_of(pot, knobs))
                minutes = guess / evaporation_g_per_min(full_ml, heat, stove)
                pieces, balance = cook_all(pot.pieces, pot.balance, minutes)
                pot = pot._replace(pieces=pieces, balance=balance)
            balance = pot.balance
            loss = loss_of(pot, knobs)
            most, driest = _driest_loss(balance)
            if loss < 0.0:
                if loss < -1e-6 * pot.total_g:
                    pot = pot.saying(_already_less(pot))
                loss = 0.0
            if loss > most:
                pot = pot.saying(_out_of_reach(balance))
                if turns_before_dry(balance, K.EMULSION_SPLIT):
                    pot = pot._replace(split=True)
                loss, reduced = most, driest
            else:
                about = loss / evaporation_g_per_min(full_ml, heat, stove)
                reduced = pot.boiled_down(balance, loss, about)
            if grade is not None and not turned:
                pot = _said_of_grade(pot, reduced, grade, setting.serving_c, loss)
            shrinks = balance.volume_ml - reduced.volume_ml
            minutes = minutes_for(full_ml, shrinks, loss, heat, stove)
            if said is not None and abs(minutes - said) > K.SAME_TIME * max(minutes, said):
                pot = pot.saying(_two_rules(said, minutes, loss, pot))
            # A pot boiled down for a minute has spent longer near the boil coming up to it and
            # going off it, so its flour has given all it has.
            cooked = max(minutes, K.BOILED_FULL_MIN)
            creamy = pot.reduced or (loss > 0.0 and reduced.creamy)
            pot = pot._replace(reduced=creamy)
            return boiled(pot, reduced, pot.pieces, cooked, minutes + came_up)

        return move

    def _wanted_loss(self, setting: Setting) -> Loss:
        """What the stop asks to lose."""
        stop = self.stop
        if stop is None:
            return _to_share(K.NEARLY_DRY_SHARE)
        if stop.share is not None or stop.taste is not None:
            return _to_share(stop.share or stop.taste or 1.0)
        if stop.mass is not None:
            mass = stop.mass.base
            return lambda pot, knobs: pot.total_g - mass * knobs.scale
        if stop.grade is not None:
            grade, serving_c = stop.grade, setting.serving_c
            return lambda pot, knobs: loss_to_grade_g(
                pot, grade, serving_c, loss_before_oily_g(pot.balance), knobs.eye
            )
        if stop.minutes is not None:
            minutes, heat, stove = stop.minutes, self.heat, setting.stove
            return lambda pot, knobs: _boiled_off_g(pot, minutes, heat, stove) * knobs.boil
        assert stop.volume is not None
        volume = stop.volume.base

        def to_volume(pot: Pot, knobs: Knobs) -> float:
            # Loss is nearly proportional to the fall in volume; a few secant steps settle the
            # little that alcohol bends it.
            balance = pot.balance
            fall = pot.total_ml - volume * knobs.scale
            loss = fall * K.DENSITY_WATER
            there = balance.water + balance.alcohol
            for _ in range(4):
                if not 0.0 < loss < there:
                    return loss
                fell = balance.volume_ml - boil_off(balance, loss).volume_ml
                loss *= fall / fell
            return loss

        return to_volume

    def turned(self, knobs: Knobs, setting: Setting) -> Self:
        if setting.free and knobs.share is not None:
            return self.model_copy(update={"to": Stop(share=knobs.share)})
        stop = self.stop
        if stop is None:
            return self
        scaled = {
            name: amount.times(knobs.scale)
            for name in ("mass", "volume")
            if (amount := getattr(stop, name)) is not None
        }
        return self.model_copy(update={"to": stop.model_copy(update=scaled)})

    def timer_minutes(self, before: Pot, after: Pot) -> float | None:
        return after.minutes - before.minutes or None


def spoken_share(share: float) -> str | None:
    """The share recipes speak of: ``half``, ``third``, ``two-thirds``, ``quarter``; None: none."""
    return next((said for one, said in _SPOKEN.items() if abs(share - one) < K.AS_SAID), None)


def _to_share(share: float) -> Loss:
    return lambda pot, knobs: pot.balance.liquid_g * (1.0 - min(1.0, share * knobs.eye))


def _boiled_off_g(pot: Pot, minutes: float, heat: Heat, stove: Stove) -> float:
    """Grams that ``minutes`` at ``heat`` boil off: the rate falls as the pot shrinks."""
    first = evaporation_g_per_min(pot.total_ml, heat, stove)
    loss = first * minutes
    left_ml = max(1.0, pot.total_ml - loss / K.DENSITY_WATER)
    return 0.5 * (first + evaporation_g_per_min(left_ml, heat, stove)) * minutes


def _already_less(pot: Pot) -> Sentence:
    return say("already-less", total_g=pot.total_g)


def _out_of_reach(balance: Balance) -> Sentence:
    """A stop below what there is to boil away, with the share it would have stood."""
    whole = balance.liquid_g
    if turns_before_dry(balance, K.EMULSION_SPLIT):
        stands = mass_at_fat_share(balance, K.EMULSION_SPLIT) - balance.swimming_fat_g
        return say(
            "stop-out-of-reach",
            what=say("splits-before-its-stop", stands_pct=100 * stands / whole, stands_g=stands),
        )
    driest = whole - most_loss_g(balance)
    return say(
        "stop-out-of-reach",
        what=say("dries-before-its-stop", loses_g=whole - driest, whole_g=whole),
    )


def _said_of_grade(pot: Pot, reduced: Balance, grade: str, serving_c: float, loss: float) -> Pot:
    """What to say of a reduction to a ``grade`` that is there already, or never gets there."""
    wanted = grade_named(grade)
    eta = raw_viscosity_of(pot.at_the_boil()._replace(balance=reduced.boiled()), serving_c)
    if loss <= 0.0 and eta > wanted.target * 1.001:
        return pot.saying(say("thick-enough", grade=wanted.name))
    if grade_of(eta) == grade:
        return pot
    there = spoken_grade(grade_of(eta))
    oily = turns_before_dry(pot.balance, K.EMULSION_OILY)
    why = say("turns-oily-first" if oily else "boils-dry-first")
    return pot.saying(
        say(
            "grade-out-of-reach",
            grade=wanted.name,
            why=why,
            mass_g=reduced.mass_g + pot.pieces_g,
            there=there,
        )
    )


def _two_rules(said: float, minutes: float, loss_g: float, pot: Pot) -> Sentence:
    """Two stopping rules that contradict each other, each with where it leads."""
    gone = loss_g * said / minutes if minutes > 0.0 else 0.0
    share = max(0.0, 1.0 - gone / max(pot.balance.liquid_g, 1e-9))
    then = say("minutes-would-leave", minutes=said, share_pct=100.0 * share)
    if said > minutes:
        then = say("minutes-would-boil-it-further", minutes=said)
    return say("two-rules", said=said, minutes=minutes, then=then)
