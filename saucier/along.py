"""Along the way of a reduction: where it reaches each grade in this pan, and where it turns."""

from dataclasses import dataclass

from saucier import constants as K
from saucier.check import CheckedSheet
from saucier.pot import Balance, Pot, boil_off, cook_all
from saucier.seasoning import salt_pct
from saucier.steps import Reduce
from saucier.steps.boiling import minutes_to_boil
from saucier.steps.reduce import loss_to_grade_g, minutes_for, most_loss_g
from saucier.thickness import (
    EMULSION_EDGES,
    grade_named,
    mass_at_fat_share,
    raw_viscosity_of,
)
from saucier.words import Sentence, say

_GRADES = ("pouring", "light-coat", "nappe", "binding")
_TURNS = ("rich", "oily", "split")


@dataclass(frozen=True, slots=True)
class Mark:
    """A place on the way down: ``key`` is a grade, ``rich``, ``oily`` or ``split``, or ``strong``
    (so many times). ``mass_g`` is all that is in the pot, ``scale_g`` with the pan on the scale
    (None where its tare is not known), ``level_mm`` a dip in it, ``minutes`` from the step's
    beginning, ``share`` of the liquid, ``strength`` how many times as strong, and the salt there."""

    key: str
    name: Sentence
    mass_g: float
    scale_g: float | None
    level_mm: float
    minutes: float
    share: float
    strength: float
    salt_pct: float


@dataclass(frozen=True, slots=True)
class Along:
    """The marks of the reduction at ``step``, in the order they are passed. ``eye_low`` and
    ``eye_high`` are the shares a stop by eye ends at in practice; None where it is weighed."""

    step: int
    marks: tuple[Mark, ...]
    eye_low: float | None
    eye_high: float | None


def along(checked: CheckedSheet) -> tuple[Along, ...]:
    """What is passed on the way down, for every reduction of ``checked``."""
    return tuple(
        _along(checked, number, step)
        for number, step in enumerate(checked.sheet.steps)
        if isinstance(step, Reduce)
    )


def _along(checked: CheckedSheet, number: int, step: Reduce) -> Along:
    before = checked.steps[number - 1].pot if number else Pot()
    marks: list[Mark] = []
    if before.wetted:
        took = checked.steps[number].pot.minutes - before.minutes
        pieces, balance = cook_all(before.pieces, before.balance, took)
        pot = before._replace(pieces=pieces, balance=balance)
        for key, name, loss in _losses(pot, checked.sheet.target.serving_c):
            marks.append(_mark(checked, number, step, pot, key, name, loss))
    marks.sort(key=lambda mark: -mark.mass_g)
    if not step.eye_spread:
        return Along(number, tuple(marks), None, None)
    stop = step.stop
    share = (stop.share or stop.taste or 1.0) if stop else 1.0
    return Along(number, tuple(marks), K.EYE_LOW * share, min(1.0, K.EYE_HIGH * share))


def _losses(pot: Pot, serving_c: float) -> list[tuple[str, Sentence, float]]:
    """What is passed, with the grams boiled off by then; what lies behind or beyond is left out."""
    balance, most = pot.balance, most_loss_g(pot.balance)
    passed: list[tuple[str, Sentence, float]] = []
    whole = most if not balance.creamy else min(most, _loss_at(balance, EMULSION_EDGES[2]))
    for key in _GRADES:
        grade = grade_named(key)
        if raw_viscosity_of(pot, serving_c) < grade.target:
            loss = loss_to_grade_g(pot, key, serving_c, max(0.0, whole))
            strong = balance.liquid_g / max(1e-9, balance.liquid_g - loss)
            if 0.0 < loss < 0.9999 * whole and strong < K.GLAZE_STRENGTH:
                passed.append((key, grade.name, loss))
    if balance.creamy:
        for key, share in zip(_TURNS, EMULSION_EDGES, strict=True):
            loss = _loss_at(balance, share)
            if 0.0 < loss < most:
                passed.append((key, say(f"turn-{key}"), loss))
    # How strong is what a stock is boiled down by, with the little fat it has; a cream turns first.
    turns = any(
        key in _TURNS and loss < _down_by(balance, max(K.STRENGTHS_TOLD)) for key, _, loss in passed
    )
    if not turns:
        for times in K.STRENGTHS_TOLD:
            loss = _down_by(balance, times)
            if loss < most:
                passed.append(("strong", say("times-as-strong", times=times), loss))
    return passed


def _down_by(balance: Balance, times: float) -> float:
    """Grams boiled off until it is ``times`` as strong."""
    return balance.liquid_g * (1.0 - 1.0 / times)


def _loss_at(balance: Balance, fat_share: float) -> float:
    return balance.mass_g - mass_at_fat_share(balance, fat_share)


def _mark(
    checked: CheckedSheet,
    number: int,
    step: Reduce,
    pot: Pot,
    key: str,
    name: Sentence,
    loss: float,
) -> Mark:
    pan, stove = checked.pan, checked.settings[number].stove
    left = boil_off(pot.balance, loss)
    mass, shrinks = pot.total_g - loss, pot.balance.volume_ml - left.volume_ml
    minutes = minutes_for(pot.total_ml, shrinks, loss, step.heat, stove)
    share = left.liquid_g / max(pot.balance.liquid_g, 1e-9)
    return Mark(
        key=key,
        name=name,
        mass_g=round(mass, 1),
        scale_g=round(mass + pan.tare_g) if pan.tare_g else None,
        level_mm=round(pan.level_mm(pot.total_ml - shrinks), 1),
        minutes=round(minutes + minutes_to_boil(pot, stove), 1),
        share=round(share, 4),
        strength=round(1.0 / max(share, K.DRY_LEFT), 2),
        salt_pct=round(salt_pct(left), 3),
    )
