"""`reduce`: boiling down to a share, a mass, a volume, or nearly dry."""

from collections.abc import Callable
from typing import Annotated, Any, Literal, Self

from pydantic import Discriminator, Field, Tag, model_validator

from saucier import constants as K
from saucier.errors import BadInput
from saucier.heat import evaporation_g_per_min
from saucier.heat.evaporation import Heat
from saucier.pot import Pot, Remark, boil_off, leak_all
from saucier.steps.base import AmountField, Knobs, Minutes, Move, Part, Setting, StepBase, Words
from saucier.steps.boiling import NOTHING_TO_BOIL, boiled, minutes_to_boil
from saucier.thickness import mass_at_fat_share
from saucier.units import Dimension


class Stop(Part):
    """Where to stop: exactly one of a ``share`` of the whole pot's mass, a ``mass``, a
    ``volume``."""

    share: Annotated[float, Field(gt=0, le=1)] | None = None
    mass: AmountField | None = None
    volume: AmountField | None = None

    @model_validator(mode="before")
    @classmethod
    def _one_of(cls, data: Any) -> Any:
        if (
            isinstance(data, dict)
            and sum(data.get(k) is not None for k in ("share", "mass", "volume")) != 1
        ):
            raise BadInput.at(
                "", "needs one place to stop", 'Give a share, a mass or a volume, or "nearly-dry"'
            )
        return data

    @model_validator(mode="after")
    def _fits(self) -> Self:
        if self.mass and self.mass.dimension is not Dimension.WEIGHT:
            raise BadInput.at(
                "mass.unit", f"{self.mass.unit} is not a weight", "Use g, kg, oz or lb"
            )
        if self.volume and self.volume.dimension is not Dimension.VOLUME:
            raise BadInput.at("volume.unit", f"{self.volume.unit} is not a volume", "Use mL or L")
        return self


def _where_it_turns(before: Pot, after: Pot) -> str:
    """How far a cream can go, where it comes anywhere near."""
    balance = after.balance
    if after.balance.fat < 0.2 * after.balance.mass_g or before.balance.fat <= 0.0:
        return ""
    rich, oily = (
        mass_at_fat_share(balance, share) + after.pieces_g
        for share in (K.EMULSION_CAUTION, K.EMULSION_OILY)
    )
    return f"; watch it below {rich:.0f} g, oily from about {oily:.0f} g"


def _liquid_g(pot: Pot) -> float:
    """Grams of liquid in the pot: without pieces, flour, and fat that swims on it."""
    balance = pot.balance
    mass = balance.mass_g
    swims = balance.fat if balance.fat > _SWIMS * mass else 0.0
    return mass - swims - K.DRY_SHARE_OF_FLOUR * balance.flour


_SAME_TIME = 0.3
_SWIMS = 0.02
"""A stock carries so much fat at most; more of it swims, or is what something was sweated in."""


def _two_rules(said: float, minutes: float, loss_g: float, pot: Pot) -> Remark:
    """Two stopping rules that contradict each other, each with where it leads."""
    gone = loss_g * said / minutes if minutes > 0.0 else 0.0
    share = max(0.0, 1.0 - gone / pot.total_g)
    then = f"{said:g} min would leave {100.0 * share:.0f} %"
    if said > minutes:
        then = f"{said:g} min would boil it much further"
    return Remark(
        "two-rules",
        f"two rules that do not meet: the stop takes {minutes:.0f} min in this pan, {then}. "
        "The stop is followed; go by the scale",
    )


class Reduce(StepBase):
    """Boil down ``to`` a stop. Shares are of the whole pot's mass at this step; nearly
    dry leaves a tenth of the liquid. ``minutes`` is what a recipe says beside it: never followed, but where
    it contradicts the stop both are told apart."""

    op: Literal["reduce"] = "reduce"
    to: Annotated[
        Annotated[Stop, Tag("stop")] | Annotated[Literal["nearly-dry"], Tag("nearly-dry")],
        Discriminator(lambda value: "nearly-dry" if isinstance(value, str) else "stop"),
    ]
    heat: Heat = "lively"
    minutes: Minutes | None = None

    def prepare(self, setting: Setting) -> Move:
        stove, heat, free = setting.stove, self.heat, setting.free_reduction
        said = self.minutes
        wanted = self._wanted_loss()

        def move(pot: Pot, knobs: Knobs) -> Pot:
            if not pot.wetted:
                return pot._replace(remarks=(*pot.remarks, NOTHING_TO_BOIL))
            mass = pot.total_g
            if free and knobs.share is not None:
                loss = mass * (1.0 - knobs.share)
            else:
                loss = wanted(pot, knobs.scale)
            rate = evaporation_g_per_min(pot.total_ml, heat, stove)
            pieces, balance = leak_all(pot.pieces, pot.balance, max(0.0, loss) / rate)
            there = balance.water + balance.alcohol
            if loss >= there:
                raise BadInput.at(
                    "to",
                    f"only {there:.0f} g of {mass:.0f} g can boil away",
                    f"The floor is {mass - there:.0f} g, a share of {(mass - there) / mass:.2f}",
                )
            if loss < -1e-6 * mass:
                raise BadInput.at(
                    "to",
                    f"there is already less than that: {mass:.0f} g",
                    "Stop lower, or add more liquid",
                )
            reduced = boil_off(balance, loss)
            shrunk_ml = pot.total_ml - balance.volume_ml + reduced.volume_ml
            rate = 0.5 * (rate + evaporation_g_per_min(shrunk_ml, heat, stove))
            minutes = max(0.0, loss) / rate
            took = minutes + minutes_to_boil(pot, stove)
            if said is not None and abs(minutes - said) > _SAME_TIME * max(minutes, said):
                pot = pot._replace(remarks=(*pot.remarks, _two_rules(said, minutes, loss, pot)))
            # A pot boiled down for a minute has spent longer near the boil coming up to it and
            # going off it, so its flour has given all it has.
            return boiled(pot, reduced, pieces, max(minutes, K.BOILED_FULL_MIN), took)

        return move

    def _wanted_loss(self) -> Callable[[Pot, float], float]:
        """Grams the whole pot is to lose, from the pot and the batch's scale."""
        if self.to == "nearly-dry":
            return lambda pot, scale: _liquid_g(pot) * (1.0 - K.NEARLY_DRY_SHARE)
        stop = self.to
        assert isinstance(stop, Stop)
        if stop.share is not None:
            share = stop.share
            return lambda pot, scale: pot.total_g * (1.0 - share)
        if stop.mass is not None:
            mass = stop.mass.base
            return lambda pot, scale: pot.total_g - mass * scale
        assert stop.volume is not None
        volume = stop.volume.base

        def to_volume(pot: Pot, scale: float) -> float:
            # Loss is nearly proportional to the fall in volume; a few secant steps settle the
            # little that alcohol bends it.
            balance = pot.balance
            fall = pot.total_ml - volume * scale
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
        if setting.free_reduction and knobs.share is not None:
            return self.model_copy(update={"to": Stop(share=knobs.share)})
        if self.to == "nearly-dry":
            return self
        assert isinstance(self.to, Stop)
        scaled = {
            name: amount.times(knobs.scale)
            for name in ("mass", "volume")
            if (amount := getattr(self.to, name)) is not None
        }
        return self.model_copy(update={"to": self.to.model_copy(update=scaled)})

    def timer_minutes(self, before: Pot, after: Pot) -> float | None:
        return after.minutes - before.minutes or None

    def words(self, setting: Setting, before: Pot, after: Pot) -> Words:
        left = after.total_g
        if self.to == "nearly-dry":
            return Words(
                "Boil down until nearly dry",
                "Boil until only a syrupy spoonful is left; the pan must not catch.",
                f"about {left:.0f} g left; large slow bubbles, the bottom shows when you tilt it",
            )
        share = left / before.total_g if before.total_g else 1.0
        return Words(
            "Boil down",
            f"Boil down to {left:.0f} g, {100 * share:.0f} % of what is there; weigh it, pan and all.",
            f"about {after.total_ml:.0f} mL left; bubbles grow larger and slower"
            + _where_it_turns(before, after),
        )
