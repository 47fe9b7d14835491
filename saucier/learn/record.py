"""What one finished batch says of the kitchen it was cooked in.

A batch that was weighed at its end, with the minutes its steps took, tells how fast its pan boils off at
that heat; one whose spoon was picked tells how strong its flour is. Both are told against the usual figures,
never against what was learned before.
"""

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from typing import Literal

from saucier import constants as K
from saucier.check import DEFAULT_KITCHEN, Prepared, prepare, thickeners_of
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.learn.estimate import Observed
from saucier.pot import Pot
from saucier.sheet import Sheet
from saucier.steps import AnyStep, Reduce, Simmer
from saucier.steps.boiling import minutes_to_boil
from saucier.steps.reduce import Stop
from saucier.steps.step import Knobs
from saucier.thickness import log_viscosity_of
from saucier.watch import as_found

Kind = Literal["pace", "strength"]
MOST_OF_IT = 0.8
"""A batch speaks of one heat, or of one flour, where that makes so much of it."""
_LEAST_LOST = 0.015
"""Share of a pot that has to boil off for its weight to tell how fast."""
_LEAST_STEEP = 1.0
"""log η has to go at least so steeply with the flour for a spoon to tell how strong it is."""
_SLOWER, _QUICKER = 0.3, 3.0
"""Minutes kept so far off those planned were the button's, not the pot's."""
_PRESSED_MIN = 0.4
"""By how much a cook presses on too early or too late, standard minutes."""
_FACTORS = (0.2, 5.0)
"""A pan that boils off more slowly, or quicker, than so: something else is wrong."""


@dataclass(frozen=True, slots=True)
class Finished:
    """A batch at its end: its ``sheet`` as it was cooked, the ``minutes`` each step took (those that are
    known, with the time to come to the boil), grams it was weighed at and the spoon that was picked, Pa·s
    at the sheet's serving temperature (None: neither)."""

    sheet: Sheet
    minutes: Mapping[int, float] = field(default_factory=dict)
    weighed_g: float | None = None
    reached_pa_s: float | None = None


@dataclass(frozen=True, slots=True)
class Learned:
    """What is told of one thing: of a pan at a heat (``pace``: ``of`` is the pan's name, ``at`` the heat), of
    a flour (``strength``: ``of`` is its key)."""

    kind: Kind
    of: str
    at: str
    seen: Observed


def observed(batch: Finished, kitchen: Kitchen = DEFAULT_KITCHEN) -> tuple[Learned, ...]:
    """What ``batch`` says, against the usual figures of ``kitchen``; nothing where it was neither weighed nor
    looked at, or cannot be played any more."""
    try:
        return tuple(_told(batch, kitchen))
    except BadInput:
        return ()


def _told(batch: Finished, kitchen: Kitchen) -> Iterator[Learned]:
    # Against the rows alone: what was judged of it before is what is learned, not what it is learned by.
    prepared = prepare(batch.sheet.model_copy(update={"strength": None}), kitchen)
    timed, heats = _timed(prepared, batch.minutes, kitchen)
    if batch.weighed_g is not None and timed is not None:
        pace = _pace(timed, batch.weighed_g, heats)
        if pace is not None:
            yield pace
    if batch.reached_pa_s is not None:
        strength = _strength(timed or prepared, batch.weighed_g, batch.reached_pa_s)
        if strength is not None:
            yield strength


def _timed(
    prepared: Prepared, minutes: Mapping[int, float], kitchen: Kitchen
) -> tuple[Prepared | None, dict[str, float]]:
    """As ``prepared``, by the minutes its boiling steps took, and those minutes by heat; None where those of
    one are not known, or cannot have been its own."""
    boiled = boiled_minutes(prepared, minutes)
    heats: dict[str, float] = {}
    for number, took in boiled.items():
        if took is None:
            return None, {}
        step = prepared.steps[number]
        assert isinstance(step, Simmer | Reduce)
        heats[step.heat] = heats.get(step.heat, 0.0) + took
    if not heats:
        return None, {}
    steps = tuple(
        _by_the_clock(step, took) if (took := boiled.get(number)) else step
        for number, step in enumerate(prepared.sheet.steps)
    )
    sheet = prepared.sheet.model_copy(update={"steps": steps})
    return prepare(sheet, kitchen, prepared.pan), heats


def boiled_minutes(prepared: Prepared, minutes: Mapping[int, float]) -> dict[int, float | None]:
    """Of each step that boils something off how long it boiled, by ``minutes`` it took with coming to the
    boil; None where that is not known, or cannot have been its own."""
    found: dict[int, float | None] = {}
    before = Pot()
    for number, (step, pot) in enumerate(zip(prepared.steps, prepared.walk(), strict=True)):
        if isinstance(step, Simmer | Reduce) and before.wetted:
            took, planned = minutes.get(number), pot.minutes - before.minutes
            found[number] = None
            if took is not None and _SLOWER * planned <= took <= _QUICKER * planned:
                stove = prepared.settings[number].stove
                found[number] = max(0.3, took - minutes_to_boil(before, stove))
        before = pot
    return found


def _by_the_clock(step: AnyStep, minutes: float) -> AnyStep:
    if isinstance(step, Reduce):
        return step.model_copy(update={"to": Stop(minutes=minutes)})
    return step.model_copy(update={"minutes": minutes})


def _pace(timed: Prepared, weighed_g: float, heats: Mapping[str, float]) -> Learned | None:
    """By how much more boiled off than is usual, from the weight at the end."""
    heat, most = max(heats.items(), key=lambda pair: pair[1])
    minutes = sum(heats.values())
    if most < MOST_OF_IT * minutes:
        return None

    def left_g(boil: float) -> float:
        return timed.play(Knobs(boil=boil)).total_g

    usual = left_g(1.0)
    lost = (usual - left_g(1.05)) / 0.05
    if lost < _LEAST_LOST * usual:
        return None
    low, high = _FACTORS
    factor = 1.0
    for _ in range(12):  # the rate falls a little as the pot shrinks: a few steps find it
        try:
            there = left_g(factor)
        except BadInput:
            return None
        step = (there - weighed_g) / lost
        factor = factor + step
        if not low <= factor <= high:
            return None
        if abs(step) < 1e-4:
            break
    off_g = math.hypot(K.JUG_SPREAD * weighed_g, K.SCALE_OFF_G + K.SCALE_OFF_SHARE * weighed_g)
    off = off_g / (lost * factor)
    spread = math.hypot(off, K.PACE_OF_THE_DAY, _PRESSED_MIN / minutes)
    return Learned("pace", timed.pan.name, heat, Observed(math.log(factor), spread))


def _strength(prepared: Prepared, weighed_g: float | None, reached_pa_s: float) -> Learned | None:
    """How much stronger its flour is than its row says, from the spoon at the end."""
    thickeners = thickeners_of(prepared)
    if not thickeners:
        return None
    key, most = max(thickeners.items(), key=lambda pair: pair[1])
    if most < MOST_OF_IT * sum(thickeners.values()):
        return None
    pot = prepared.play()
    if weighed_g is not None:
        pot = as_found(pot, weighed_g)
    serving_c = prepared.sheet.target.serving_c
    here = log_viscosity_of(pot, serving_c)
    more = log_viscosity_of(_stronger(pot, 1.02), serving_c)
    known = K.SCALE_OFF_SHARE if weighed_g is not None else K.MASS_UNCERTAINTY
    drier = log_viscosity_of(as_found(pot, pot.total_g * (1.0 - known)), serving_c)
    if here is None or more is None or drier is None:
        return None
    steep = (more[0] - here[0]) / math.log(1.02)
    if steep < _LEAST_STEEP:
        return None
    off = math.log(reached_pa_s) - here[0]
    doubt = math.hypot(K.BATCH_SCATTER, K.EYE_THICKNESS_SPREAD, here[1], drier[0] - here[0])
    return Learned("strength", key, "", Observed(off / steep, doubt / steep))


def _stronger(pot: Pot, by: float) -> Pot:
    thickener = pot.balance.thickener * by
    return pot._replace(balance=pot.balance._replace(thickener=thickener))
