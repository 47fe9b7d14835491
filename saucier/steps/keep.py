"""Keeping: `cool`, `hold` and `reheat`."""

from typing import Annotated, Literal

from pydantic import BeforeValidator, Field

from saucier import constants as K
from saucier.errors import BadInput
from saucier.heat import boil_up_minutes, open_surface_m2
from saucier.pot import Pot, Remark, boil_off, cook_all
from saucier.steps.base import (
    Knobs,
    Minutes,
    Move,
    Setting,
    StepBase,
    Words,
    no_bool,
    pot_heat_j_per_k,
)

_RULES = "cooling, holding and reheating follow your kitchen's own plan and local law"
Kept = Annotated[float, BeforeValidator(no_bool), Field(ge=0, le=100)]


class Cool(StepBase):
    """Cooled to ``to_c``. How fast it may be is a rule of the kitchen's."""

    op: Literal["cool"] = "cool"
    to_c: Kept = 5.0
    minutes: Minutes = 0

    def prepare(self, setting: Setting) -> Move:
        to_c, minutes = self.to_c, self.minutes

        def move(pot: Pot, knobs: Knobs) -> Pot:
            if to_c > pot.temperature_c + 0.5:
                raise BadInput.at(
                    "to_c", f"it is only {pot.temperature_c:.0f} °C warm", "Cool to less, or reheat"
                )
            chilled = pot.chilled or to_c <= K.CHILLED_BELOW_C
            remarks = (*pot.remarks, Remark("keeping", f"mind the clock: {_RULES}"))
            return pot._replace(
                temperature_c=to_c,
                minutes=pot.minutes + minutes,
                chilled=chilled,
                remarks=remarks,
            )

        return move

    def words(self, setting: Setting, before: Pot, after: Pot) -> Words:
        sets = (
            " It sets as it cools."
            if before.balance.thickener and self.to_c < K.SETS_BELOW_C
            else ""
        )
        return Words(
            "Cool",
            f"Shallow tray or ice bath, film or buttered paper on the surface, down to {self.to_c:g} °C.{sets}",
            f"{self.to_c:g} °C at the thickest place",
        )


class Hold(StepBase):
    """Held hot for ``minutes``, under film unless ``covered`` is false."""

    op: Literal["hold"] = "hold"
    minutes: Minutes
    temperature_c: Kept = 65.0
    covered: bool = True

    def prepare(self, setting: Setting) -> Move:
        minutes, at, covered, stove = self.minutes, self.temperature_c, self.covered, setting.stove

        def move(pot: Pot, knobs: Knobs) -> Pot:
            pieces, balance = cook_all(pot.pieces, pot.balance, minutes)
            if not covered and pot.wetted:
                per_min = K.HOLD_KG_M2_H * open_surface_m2(pot.total_ml, stove) * 1000.0 / 60.0
                loss, there = per_min * minutes, balance.water + balance.alcohol
                if loss >= there:
                    raise BadInput.at(
                        "minutes",
                        "uncovered that long it dries out",
                        "Cover it, or hold it shorter",
                    )
                balance = boil_off(balance, loss)
            remarks = (*pot.remarks, Remark("keeping", f"{at:.0f} °C: {_RULES}"))
            return pot._replace(
                pieces=pieces,
                balance=balance,
                temperature_c=at,
                minutes=pot.minutes + minutes,
                remarks=remarks,
            )

        return move

    def timer_minutes(self, before: Pot, after: Pot) -> float | None:
        return self.minutes or None

    def words(self, setting: Setting, before: Pot, after: Pot) -> Words:
        lost = before.total_g - after.total_g
        how = "under film" if self.covered else "uncovered"
        cue = "no skin" if self.covered else f"a skin forms; about {lost:.0f} g dries away"
        return Words(
            "Hold", f"Keep at {self.temperature_c:.0f} °C {how}, {self.minutes:g} min.", cue
        )


class Reheat(StepBase):
    """Warmed again to ``to_c``. A roux sauce comes back from the fridge thicker."""

    op: Literal["reheat"] = "reheat"
    to_c: Kept = 85.0

    def prepare(self, setting: Setting) -> Move:
        to_c, stove = self.to_c, setting.stove

        def move(pot: Pot, knobs: Knobs) -> Pot:
            balance = pot.balance
            if pot.chilled:
                balance = balance._replace(thickener=balance.thickener * K.CHILLED_GAIN)
            minutes = boil_up_minutes(pot_heat_j_per_k(pot), pot.temperature_c, stove, to_c)
            return pot._replace(
                balance=balance,
                temperature_c=max(to_c, pot.temperature_c),
                hottest_c=max(pot.hottest_c, to_c) if balance.yolk_protein else pot.hottest_c,
                minutes=pot.minutes + minutes,
                chilled=False,
                remarks=(*pot.remarks, Remark("keeping", f"hot in the middle: {_RULES}")),
            )

        return move

    def words(self, setting: Setting, before: Pot, after: Pot) -> Words:
        return Words(
            "Reheat",
            f"Gently, whisking, to {self.to_c:g} °C in the middle; let it down only once it is hot.",
            "loose and smooth again; a roux sauce is thicker than before",
        )
