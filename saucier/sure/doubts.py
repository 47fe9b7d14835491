"""What is not known of a pot for sure: each measure, each ingredient, the pan, the eye."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace

from saucier import constants as K
from saucier.check import Prepared
from saucier.check.vague import hand_spread
from saucier.larder import Ingredient
from saucier.pot import EMPTY, Balance
from saucier.steps import (
    AnyStep,
    Dust,
    Hold,
    Pouring,
    PreparedSteps,
    Reduce,
    Roux,
    Setting,
    Simmer,
    Use,
)
from saucier.steps.roux import powered
from saucier.steps.step import Weighed
from saucier.units import Amount, Dimension

FLOUR, FAT, ALL, EYE, BOIL, ADDED = "flour", "fat", "all", "eye", "boil", "added"
"""What a doubt moves: the flour or the fat of a roux, all a step measures, where the eye stops, what
boils off in a minute; or something that is in the pot beside what was meant (``added``)."""


@dataclass(frozen=True, slots=True)
class Move:
    """How one doubt acts at one step: ``path`` is the step, and those inside it; ``moves`` what it
    multiplies; ``by`` the balance that comes in for each full share it is off (``added`` alone)."""

    path: tuple[int, ...]
    moves: str
    by: Balance = EMPTY


@dataclass(frozen=True, slots=True)
class Doubt:
    """One thing that may be off by ``spread``, a standard share. ``kind``: ``measure`` (of an amount,
    ``by_hand`` where it is no weight), ``row`` (an ingredient differs from its row), ``eye`` (a stop
    judged by level), ``look`` (by the spoon), ``stop`` (by the scale), ``clock`` (minutes), ``pan`` (what boils off). ``step`` and ``field`` say where, ``ingredient`` of what."""

    key: str
    kind: str
    spread: float
    at: tuple[Move, ...]
    step: int | None = None
    field: str = ""
    ingredient: str = ""
    name: str = ""
    by_hand: bool = False


def doubts_of(prepared: Prepared) -> tuple[Doubt, ...]:
    """Everything that may be off in ``prepared``, but the model itself."""
    found = [*_measures(prepared, ()), *_rows(prepared)]
    boils = tuple(_boils(prepared, ()))
    if boils:
        found.append(Doubt("pan", "pan", _pan_spread(prepared), boils, name=prepared.pan.name))
    return tuple(doubt for doubt in found if doubt.spread > 0.0)


def _pan_spread(prepared: Prepared) -> float:
    """How far what boils off in a minute may be off: little where it has been learned of that pan at every
    heat it is to boil at."""
    if prepared.sheet.pan is None:
        return K.BOIL_SPREAD_ASSUMED
    paces = [
        setting.stove.pace(step.heat)
        for step, setting in zip(prepared.steps, prepared.settings, strict=True)
        if isinstance(step, Simmer | Reduce)
    ]
    known = [pace.spread for pace in paces if pace is not None]
    if known and len(known) == len(paces):
        return math.hypot(max(known), K.PACE_OF_THE_DAY)
    return K.BOIL_SPREAD_NAMED


def _measures(prepared: PreparedSteps, path: tuple[int, ...]) -> Iterator[Doubt]:
    """What is measured and where the eye stops, in the sauces inside too."""
    for number, (step, setting, move) in enumerate(
        zip(prepared.steps, prepared.settings, prepared.moves, strict=True)
    ):
        here = (*path, number)
        key = ".".join(map(str, here))
        step_at = here[0]
        if isinstance(move, Pouring):
            if step.inside:
                yield from _measures(move.inside, here)
            continue
        weighed = step.to_weigh(setting)
        for one in weighed:
            spread, by_hand = spread_of(one)
            yield Doubt(
                f"{key}.{one.field}",
                "measure",
                spread,
                (_measured(step, one, len(weighed), here, setting),),
                step=step_at,
                field=one.field,
                ingredient=one.ingredient,
                name=one.name,
                by_hand=by_hand,
            )
        if minutes := _by_the_clock(step):
            off = math.hypot(K.CLOCK_OFF_MIN / minutes, K.CLOCK_OFF_SHARE)
            yield Doubt(f"{key}.clock", "clock", min(0.5, off), (Move(here, BOIL),), step=step_at)
        if isinstance(step, Reduce) and (stopped := _stopped(step)):
            kind, spread, moves = stopped
            yield Doubt(f"{key}.to", kind, spread, (Move(here, moves),), step=step_at, field="to")


def _by_the_clock(step: object) -> float | None:
    """Minutes that decide what a step boils off; None where something else does."""
    if isinstance(step, Simmer) or (isinstance(step, Hold) and not step.covered):
        return step.minutes
    if isinstance(step, Reduce) and step.stop is not None:
        return step.stop.minutes
    return None


def _stopped(step: Reduce) -> tuple[str, float, str] | None:
    """How a reduction misses its stop: the kind of doubt, its spread, what it moves."""
    stop = step.stop
    if stop is None:
        return "stop", K.EYE_SPREAD, EYE  # nearly dry
    if stop.grade is not None:
        return "look", K.EYE_THICKNESS_SPREAD, EYE
    if step.eye_spread:
        return "eye", step.eye_spread, EYE
    if stop.share is not None:
        return "stop", K.MASS_UNCERTAINTY, EYE
    if stop.mass is not None or stop.volume is not None:
        return "stop", K.STOP_BY_SCALE_SPREAD, ALL
    return None  # by the clock: that is what boils off in a minute


def _measured(
    step: object, one: Weighed, beside: int, here: tuple[int, ...], setting: Setting
) -> Move:
    """How a wrong measure of ``one`` acts."""
    part = one.field.partition(".")[0]
    if isinstance(step, Roux):
        return Move(here, FLOUR if part == "flour" else FAT)
    if isinstance(step, Dust) or beside == 1:
        return Move(here, ALL)
    row = setting.ingredient(one.ingredient)
    return Move(here, ADDED, EMPTY.plus(row.per_gram, one.grams))


def spread_of(one: Weighed) -> tuple[float, bool]:
    """Standard share by which hands differ over ``one``, and whether it is measured by hand, spoon
    or piece rather than weighed."""
    amount = one.amount
    if by_hand := hand_spread(amount, one.role):
        return by_hand, True
    if amount.dimension is Dimension.COUNT:
        return K.PIECE_SPREAD / math.sqrt(max(1.0, amount.value)), True
    if amount.dimension is Dimension.VOLUME:
        return K.JUG_SPREAD, False
    return weighing_spread(one.grams), False


def weighing_spread(grams: float) -> float:
    """Standard share by which a scale is off over ``grams``.

    >>> round(weighing_spread(10), 3), round(weighing_spread(1000), 4)
    (0.05, 0.003)
    """
    return min(0.5, math.hypot(K.SCALE_OFF_G / max(grams, 1e-9), K.SCALE_OFF_SHARE))


def _rows(prepared: Prepared) -> Iterator[Doubt]:
    """How far each ingredient may differ from its row, wherever it goes in."""
    moves: dict[str, list[Move]] = {}
    rows: dict[str, Ingredient] = {}
    for number, (step, setting) in enumerate(zip(prepared.steps, prepared.settings, strict=True)):
        for key, grams in _taken(step, setting):
            row = setting.ingredient(key)
            learned = row.key in setting.kitchen.strengths
            if row.piece or not row.spread_pct or learned:  # what was learned holds its doubt
                continue
            if isinstance(step, Roux | Dust) and row.per_gram.thickener:
                row = powered(row, step.colour)
            by = EMPTY.plus(_differs(row), grams)
            moves.setdefault(row.key, []).append(Move((number,), ADDED, by))
            rows[row.key] = row
    for key, at in moves.items():
        spread = rows[key].spread_pct / 100.0
        yield Doubt(f"row.{key}", "row", spread, tuple(at), ingredient=key, name=rows[key].name)


def _taken(step: AnyStep, setting: Setting) -> list[tuple[str, float]]:
    """Keys and grams of what ``step`` brings into the pot, that of a sauce made for it by the share poured in."""
    if isinstance(step, Use):
        poured = 1.0 if isinstance(step.amount, Amount) else step.amount.share
        return [(key, poured * grams) for key, grams in step.gathered(setting)]
    return step.gathered(setting)


def _differs(row: Ingredient) -> Balance:
    """What a gram of ``row`` has more of where it is all of a share richer than it says: its flour
    thickens more; of all else the dry parts are more and the water less."""
    part = row.per_gram
    if part.thickener:
        return Balance(thickener=part.thickener)
    dry = part._replace(water=0.0)
    return dry._replace(water=-dry.mass_g, body=0.0, gel=0.0, doubt=0.0)


def _boils(prepared: PreparedSteps, path: tuple[int, ...]) -> Iterator[Move]:
    """Where minutes at a boil decide what boils off."""
    for number, (step, move) in enumerate(zip(prepared.steps, prepared.moves, strict=True)):
        here = (*path, number)
        if isinstance(move, Pouring):
            if step.inside:
                yield from _boils(move.inside, here)
        elif _by_the_clock(step):
            yield Move(here, BOIL)


def with_spread(doubts: tuple[Doubt, ...], spreads: dict[str, float]) -> tuple[Doubt, ...]:
    """``doubts`` with other spreads for those of the keys of ``spreads``."""
    return tuple(
        replace(one, spread=spreads[one.key]) if one.key in spreads else one for one in doubts
    )
