"""The pot after a step as a cook asks of it: its figures, and what is to be said of it."""

import math
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from pydantic import GetCoreSchemaHandler
from pydantic_core import CoreSchema, core_schema

from saucier import constants as K
from saucier.heat import Pan
from saucier.pot import Balance, Pot, SetAside
from saucier.seasoning import salt_pct
from saucier.thickness import (
    MODEL_SPREAD,
    Thickness,
    film_mm,
    grade_of,
    spoken_grade,
    spoon_words,
    thickness_now,
    thickness_of,
)
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class PieceInPot:
    """Pieces of one ingredient, g of them."""

    name: str
    mass_g: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Figures:
    """The pot after a step, rounded to what the figures can bear: units in the names, shares 0 to
    1, ``_pct`` g per 100 g of the sauce. ``total_`` counts the pieces in it, ``yield_`` those that
    are no food put back to finish. ``viscosity_pa_s`` and ``grade`` are cooked out, at ``serving_c``;
    ``viscosity_now_pa_s`` and ``grade_now`` as it is, at ``temperature_c``, and ``now`` says it where it is another
    (``cooked_out``: but for its heat it is what it will be).
    A grade is None where none can be given; ``reason`` says why of the one cooked out."""

    mass_g: float
    volume_ml: float
    pieces_g: float = 0.0
    total_g: float | None = None
    total_ml: float | None = None
    pieces: tuple[PieceInPot, ...] = ()
    set_aside: tuple[SetAside, ...] = ()
    yield_g: float | None = None
    yield_ml: float | None = None
    viscosity_pa_s: float | None
    viscosity_low_pa_s: float | None
    viscosity_high_pa_s: float | None
    viscosity_now_pa_s: float | None = None
    grade: str | None
    grade_now: str | None = None
    now: Sentence | None = None
    looks_now: Sentence | None = None
    film_now_mm: float | None = None
    cooked_out: bool = True
    reason: Sentence | None
    serving_c: float
    temperature_c: float
    salt_pct: float
    fat_pct: float
    fat_volume_share: float
    acid_pct: float
    sugar_pct: float
    alcohol_pct: float
    water_pct: float
    flour_pct: float
    emulsion: str
    kcal: float
    cost: float
    minutes: float
    level_mm: float
    film_mm: float | None
    looks: Sentence
    allergens: tuple[str, ...]
    warnings: tuple[Sentence, ...]


_NO_POT = Pot()


@dataclass(frozen=True)
class State:
    """The pot after a step in its ``pan``, with everything a cook asks of it, worked out when it is
    asked: most who check a sheet look at its end alone. ``spread`` is what is vague in it,
    ``model_spread`` how far the model may be off in this kitchen, ``boils`` whether it boiled in this step, ``before`` the pot as it
    was: what was true of it then is not said again. ``judged_pa_s``: how thick a cook found it at serving temperature
    (None: nobody looked): that is its thickness, whatever is reckoned."""

    pot: Pot
    pan: Pan
    serving_c: float
    spread: float = 0.0
    model_spread: float = MODEL_SPREAD
    boils: bool = False
    before: Pot = _NO_POT
    judged_pa_s: float | None = None

    @classmethod
    def __get_pydantic_core_schema__(cls, source: Any, handler: GetCoreSchemaHandler) -> CoreSchema:
        """In JSON a state is its figures."""
        figures = handler.generate_schema(Figures)
        return core_schema.is_instance_schema(
            cls,
            serialization=core_schema.plain_serializer_function_ser_schema(
                lambda state: state.figures, return_schema=figures
            ),
        )

    @cached_property
    def thickness(self) -> Thickness:
        reckoned = thickness_of(self.pot, self.serving_c, self.spread, self.model_spread)
        judged = self.judged_pa_s
        if judged is None:
            return reckoned
        by_eye = math.exp(K.EYE_THICKNESS_SPREAD)
        return reckoned._replace(
            viscosity_pa_s=judged,
            grade=grade_of(judged),
            low_pa_s=judged / by_eye,
            high_pa_s=judged * by_eye,
            why_not=None,
        )

    @cached_property
    def thickness_now(self) -> Thickness:
        return thickness_now(self.pot, self.spread, self.model_spread)

    @cached_property
    def warnings(self) -> tuple[Sentence, ...]:
        """What its step called for, and what follows from the state itself."""
        return self.pot.remarks + _standing(
            self.pot, self.before, self.thickness, self.pan, self.boils
        )

    @property
    def emulsion(self) -> str:
        return self.thickness.emulsion or "stable"

    @cached_property
    def figures(self) -> Figures:
        pot, thickness, balance = self.pot, self.thickness, self.pot.balance
        mass, eta = balance.mass_g, thickness.viscosity_pa_s
        eta_now = self.thickness_now.viscosity_pa_s
        looks = thickness.reason if eta is None else spoon_words(eta)
        assert looks is not None

        def per_100(grams: float, digits: int = 3) -> float:
            return round(100.0 * grams / mass, digits) if mass else 0.0

        return Figures(
            mass_g=round(mass, 3),
            volume_ml=round(balance.volume_ml, 3),
            pieces_g=round(pot.pieces_g, 3),
            total_g=round(pot.total_g, 3),
            total_ml=round(pot.total_ml, 3),
            pieces=tuple(PieceInPot(piece.name, round(piece.mass_g, 1)) for piece in pot.pieces),
            set_aside=(
                *pot.set_aside,
                *(SetAside("lifted", piece.mass_g) for piece in pot.lifted),
            ),
            yield_g=round(pot.yield_g, 3),
            yield_ml=round(pot.yield_ml, 3),
            viscosity_pa_s=_significant(eta),
            viscosity_low_pa_s=_significant(thickness.low_pa_s),
            viscosity_high_pa_s=_significant(thickness.high_pa_s),
            viscosity_now_pa_s=_significant(self.thickness_now.viscosity_pa_s),
            grade=thickness.grade,
            grade_now=self.thickness_now.grade,
            now=_said_now(pot, thickness, self.thickness_now),
            looks_now=self.thickness_now.reason if eta_now is None else spoon_words(eta_now),
            film_now_mm=None if eta_now is None else _significant(film_mm(eta_now)),
            cooked_out=_cooked_out(pot),
            reason=thickness.reason,
            serving_c=thickness.temperature_c,
            temperature_c=round(pot.temperature_c, 1),
            salt_pct=round(salt_pct(balance), 4),
            fat_pct=per_100(balance.fat),
            fat_volume_share=round(thickness.fat_volume_share, 4),
            acid_pct=per_100(balance.acid),
            sugar_pct=per_100(balance.sugar),
            alcohol_pct=per_100(balance.alcohol),
            water_pct=per_100(balance.water),
            flour_pct=per_100(balance.flour),
            emulsion=self.emulsion,
            kcal=round(balance.kcal + sum(p.content.kcal for p in pot.pieces), 1),
            cost=round(pot.cost, 3),
            minutes=round(pot.minutes, 1),
            level_mm=round(self.pan.level_mm(pot.total_ml), 2),
            film_mm=None if eta is None else _significant(film_mm(eta)),
            looks=looks,
            allergens=tuple(sorted(pot.allergens)),
            warnings=self.warnings,
        )


def _cooked_out(pot: Pot) -> bool:
    """Whether its starch, if it has any, has swollen at the boil."""
    return pot.balance.thickener <= 0.0 or pot.starch_swollen >= K.SWOLLEN_SHARE


def _said_now(pot: Pot, cooked: Thickness, now: Thickness) -> Sentence | None:
    """How thick it is as it is, where that is not how thick it is cooked out and served."""
    if not pot.wetted or now.grade == cooked.grade:
        return None
    if now.grade is None:
        return now.reason if cooked.grade is not None else None
    if cooked.grade is None:
        return say("thickness-now", now=spoken_grade(now.grade), at_c=pot.temperature_c)
    facts = {"now": spoken_grade(now.grade), "then": spoken_grade(cooked.grade)}
    if not _cooked_out(pot):
        return say("thickness-once-boiled", **facts)
    return say(
        "thickness-as-served", at_c=pot.temperature_c, serving_c=cooked.temperature_c, **facts
    )


def _standing(
    pot: Pot, before: Pot, thickness: Thickness, pan: Pan, boils: bool
) -> tuple[Sentence, ...]:
    """What follows from the state itself, whatever step led there, where it does not follow from that ``before``."""
    remarks = []
    # "Stop soon" is for a cream that boils; one that stands is only rich. Split it stays.
    passing = thickness.emulsion == "caution" and not boils
    if thickness.emulsion in _RISKY and not passing and not before.split:
        remarks.append(say(f"emulsion-{thickness.emulsion}"))
    if (full := _fullness(pot, pan)) > _fullness(before, pan):
        facts = {"volume_ml": pot.total_ml, "capacity_ml": pan.capacity_ml}
        remarks.append(say("pan-overflows", **facts) if full > 1 else say("pan-full"))
    if pan.reactive and meets_metal(pot.balance) and not meets_metal(before.balance):
        remarks.append(say("reactive-pan"))
    return tuple(remarks)


def _fullness(pot: Pot, pan: Pan) -> int:
    """0: there is room; 1: over four fifths full; 2: it does not fit."""
    share = pot.total_ml / pan.capacity_ml
    return (share > K.NEARLY_FULL) + (share > 1.0)


def meets_metal(balance: Balance) -> bool:
    """Whether bare aluminium or iron would turn it grey: wine, acid, yolk."""
    return (
        balance.alcohol > 0.0
        or balance.yolk_protein > 0.0
        or balance.acid > K.REACTIVE_ACID * balance.mass_g
    )


_RISKY = frozenset({"caution", "oily", "split"})


def _significant(value: float | None) -> float | None:
    return None if value is None else float(f"{value:.5g}")
