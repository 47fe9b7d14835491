"""The answer to “how sure are you, and what would make you surer?”."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace

from saucier import constants as K
from saucier.check import DEFAULT_KITCHEN, Prepared, model_spread_of, prepare
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient
from saucier.schools import switch
from saucier.sheet import Sheet, SheetPan
from saucier.steps import Correct, Reduce, thickening_by
from saucier.steps.reduce import Stop
from saucier.sure.chance import (
    Chances,
    Played,
    chances_in,
    chances_of,
    played,
    unseen_of,
)
from saucier.sure.doubts import Doubt, doubts_of, weighing_spread, with_spread
from saucier.sure.surest import surest
from saucier.sure.variants import Variants
from saucier.thickness import LIQUID, grade_named, log_viscosity_of, spoken_grade, thickness_of
from saucier.units import Amount, kitchen_round
from saucier.words import Sentence, say

MOST_MENDS = 5
_WORTH_TELLING = 0.015
_NOTICED = 0.02
"""A doubt under this share of all is not told."""


@dataclass(frozen=True, slots=True)
class GradeChance:
    """The chance that it lands in ``grade`` (``liquid`` and ``turned`` included)."""

    grade: str
    chance: float


@dataclass(frozen=True, slots=True)
class DoubtShare:
    """What one thing makes of the whole doubt."""

    name: Sentence
    share: float


@dataclass(frozen=True, slots=True)
class SurerBy:
    """What a cook can ``do`` about the doubt, and the ``chance`` then; ``sheet`` is the sauce with it
    done, where that is a matter of the sheet."""

    do: Sentence
    chance: float
    sheet: Sheet | None = None


@dataclass(frozen=True, slots=True)
class Sure:
    """How surely the pot lands in ``grade``: the ``chance``, that of every grade, what makes most of
    the doubt, what mends it, and the amounts that land most surely where those are others
    (``surest``)."""

    grade: str
    chance: float
    by_grade: tuple[GradeChance, ...]
    doubts: tuple[DoubtShare, ...]
    mends: tuple[SurerBy, ...]
    surest: SurerBy | None


def how_sure(
    sheet: Sheet, kitchen: Kitchen = DEFAULT_KITCHEN, *, mends: bool = True
) -> Sure | None:
    """How sure ``sheet`` is of its grade (the one it is meant for, else the one it has); None where
    it has none. Without ``mends`` the chances and the doubts alone, which takes a third of the time.
    Raises :class:`BadInput` as a check does.

    >>> from saucier.testing import add, roux, sheet, simmer
    >>> found = how_sure(sheet(roux(66, 66), add("milk-whole", 1, "L"), simmer(5)))
    >>> found.grade, 0.6 < found.chance < 0.8
    ('nappe', True)
    """
    if not sheet.steps:
        return None
    prepared = prepare(sheet, kitchen)
    doubts = doubts_of(prepared)
    grade = sheet.target.grade or _present_grade(prepared)
    if grade is None:
        return None
    variants = played(prepared, doubts)
    chances = chances_in(variants)
    squares = _squares(prepared, doubts)
    whole = sum(squares.values()) or 1.0
    large = {key: square / whole for key, square in squares.items() if square >= _NOTICED * whole}
    named = {doubt.key: _told(doubt) for doubt in doubts} | _UNSEEN
    told = sorted(large, key=large.__getitem__, reverse=True)
    noticed = tuple(doubt for doubt in doubts if doubt.key in large)
    asked = _Asked(prepared, doubts, noticed, grade, kitchen)
    return Sure(
        grade=grade,
        chance=chances.of(grade),
        by_grade=tuple(GradeChance(key, chance) for key, chance in chances.by_grade.items()),
        doubts=tuple(DoubtShare(named[key], large[key]) for key in told),
        mends=_mends(asked, variants, chances) if mends else (),
        # Where the spoon decides there is nothing to aim beside.
        surest=_surest(sheet, grade, chances, kitchen)
        if mends and variants.unseen == 1.0
        else None,
    )


_MODEL, _BODY = "model", "body"
_UNSEEN = {key: say(f"doubt.{key}") for key in (_MODEL, _BODY)}


@dataclass(frozen=True, slots=True)
class _Asked:
    """What is asked about: a sheet prepared, what is doubtful of it and what of that is ``noticed``,
    the grade it is to land in."""

    prepared: Prepared
    doubts: tuple[Doubt, ...]
    noticed: tuple[Doubt, ...]
    grade: str
    kitchen: Kitchen


def _present_grade(prepared: Prepared) -> str | None:
    return thickness_of(prepared.play(), prepared.sheet.target.serving_c).grade


def _squares(prepared: Prepared, doubts: tuple[Doubt, ...]) -> dict[str, float]:
    """What each doubt adds to the square of the whole, by its key: each played by itself, one spread
    either way."""
    serving_c = prepared.sheet.target.serving_c
    variants = Variants(prepared, doubts)
    squares: dict[str, float] = {}
    middle = [0.0] * len(doubts)
    for number, doubt in enumerate(doubts):
        ends = []
        for z in (-1.0, 1.0):
            draw = [*middle[:number], z, *middle[number + 1 :]]
            try:
                found = log_viscosity_of(variants.play(draw), serving_c)
            except BadInput:
                found = None
            ends.append(found[0] if found else None)
        squares[doubt.key] = _square(*ends)
    base = log_viscosity_of(variants.play(middle), serving_c)
    unseen = unseen_of(prepared)
    squares[_MODEL] = (unseen * model_spread_of(prepared)) ** 2
    squares[_BODY] = (unseen * base[1]) ** 2 if base is not None else 0.0
    return squares


_CLIFF = 1.0
"""A variant that turns is as far off as a grade and a half."""


def _square(low: float | None, high: float | None) -> float:
    if low is None or high is None:
        return _CLIFF
    return (0.5 * (high - low)) ** 2


def _told(doubt: Doubt) -> Sentence:
    step = (doubt.step or 0) + 1
    if doubt.kind == "measure":
        code = "doubt.measured-by-hand" if doubt.by_hand else "doubt.weighed"
        return say(code, name=doubt.name.lower(), step=step)
    if doubt.kind == "row":
        return say("doubt.row", name=doubt.name.lower(), spread_pct=100 * doubt.spread)
    if doubt.kind in ("eye", "look", "stop", "clock"):
        return say(f"doubt.{doubt.kind}", step=step)
    return say("doubt.pan", pan=doubt.name)


def _mends(asked: _Asked, variants: Played, chances: Chances) -> tuple[SurerBy, ...]:
    """What raises the chance, the most first."""
    grade = asked.grade
    mends = [
        SurerBy(
            do,
            chances_of(asked.prepared, with_spread(asked.doubts, spreads)).of(grade),
            sheet,
        )
        for do, spreads, sheet in _by_spread(asked)
    ]
    mends += [*_by_holding_back(asked, variants), *_by_the_look(asked)]
    worth = [one for one in mends if one.chance >= chances.of(grade) + _WORTH_TELLING]
    return tuple(sorted(worth, key=lambda one: -one.chance)[:MOST_MENDS])


Spreads = dict[str, float]


def _by_spread(asked: _Asked) -> Iterator[tuple[Sentence, Spreads, Sheet | None]]:
    """What makes one doubt smaller: what to do, the spreads then, the sheet with it done."""
    prepared, sheet = asked.prepared, asked.prepared.sheet
    pots = list(prepared.walk())
    for doubt in asked.noticed:
        if doubt.kind == "measure" and doubt.by_hand and doubt.step is not None:
            grams = _grams(prepared, doubt)
            if grams is not None:
                yield (
                    say("mend.weigh", name=doubt.name.lower(), grams=grams),
                    {doubt.key: weighing_spread(grams)},
                    _weighed(sheet, doubt, grams),
                )
        elif (
            doubt.kind in ("eye", "stop") and doubt.step is not None and len(doubt.at[0].path) == 1
        ):
            left = pots[doubt.step].total_g
            spread = {doubt.key: K.STOP_BY_SCALE_SPREAD}
            step = sheet.steps[doubt.step]
            if isinstance(step, Reduce) and not (
                step.stop and (step.stop.mass or step.stop.volume)
            ):
                stop = {"to": Stop(mass=kitchen_round(Amount(left, "g")))}
                stopped = _with_step(sheet, doubt.step, step.model_copy(update=stop))
                yield say("mend.stop", step=doubt.step + 1, left_g=left), spread, stopped
        elif doubt.kind == "pan":
            if sheet.pan is None:
                named = sheet.model_copy(update={"pan": SheetPan.of(prepared.pan)})
                yield say("mend.name-pan"), {doubt.key: K.BOIL_SPREAD_NAMED}, named
            last = max(move.path[0] for move in doubt.at)
            there = pots[last].total_g
            yield (
                say("mend.weigh-pot", step=last + 1, there_g=there),
                {doubt.key: K.STOP_BY_SCALE_SPREAD}
                | {other.key: 0.0 for other in asked.doubts if other.kind == "clock"},
                None,
            )
        elif doubt.kind == "row" and 100 * doubt.spread > _LABEL_SPREAD_PCT:
            row: Ingredient = asked.kitchen.larder[doubt.ingredient]
            if row.per_gram.thickener:  # how strong a flour is stands on no packet
                continue
            yield (
                say("mend.packet", name=row.spoken_name),
                {doubt.key: _LABEL_SPREAD_PCT / 100.0},
                None,
            )


_LABEL_SPREAD_PCT = 3.0
"""How far what a packet says is off from what is in it."""


def _grams(prepared: Prepared, doubt: Doubt) -> float | None:
    """Grams of what ``doubt`` measures, where it stands in the sheet itself."""
    if len(doubt.at[0].path) > 1:
        return None
    at = doubt.at[0].path[0]
    for one in prepared.steps[at].to_weigh(prepared.settings[at]):
        if one.field == doubt.field:
            return kitchen_round(Amount(one.grams, "g")).value
    return None


def _weighed(sheet: Sheet, doubt: Doubt, grams: float) -> Sheet:
    at = doubt.at[0].path[0]
    return _with_step(sheet, at, sheet.steps[at].with_amount(doubt.field, Amount(grams, "g")))


def _with_step(sheet: Sheet, at: int, step: object) -> Sheet:
    steps = tuple(step if number == at else one for number, one in enumerate(sheet.steps))
    return sheet.model_copy(update={"steps": steps})


def _by_holding_back(asked: _Asked, variants: Played) -> Iterator[SurerBy]:
    """Something held back, and the spoon in the end: the variants are those played already."""
    prepared, sheet = asked.prepared, asked.prepared.sheet
    held = any(isinstance(step, Correct) for step in sheet.steps)
    if held or thickening_by(sheet) != "flour" or not sheet.target.grade:
        return
    found = thickness_of(prepared.play(), sheet.target.serving_c)
    if not found.viscosity_pa_s or not found.low_pa_s:
        return
    reach = math.log(found.viscosity_pa_s / found.low_pa_s)
    chance = chances_in(replace(variants, reach=reach)).of(asked.grade)
    try:
        made = switch(sheet, "correcting", "liquid", asked.kitchen).sheet
    except BadInput:
        return
    yield SurerBy(say("mend.hold-back"), chance, made)


def _by_the_look(asked: _Asked) -> Iterator[SurerBy]:
    """The last reduction stopped by the spoon instead of at a share."""
    sheet, grade = asked.prepared.sheet, asked.grade
    last = max((n for n, step in enumerate(sheet.steps) if isinstance(step, Reduce)), default=None)
    if last is None or thickening_by(sheet) != "reduction" or grade == LIQUID:
        return
    step = sheet.steps[last]
    assert isinstance(step, Reduce)
    if not step.stop or step.stop.grade is not None:
        return
    stopped = _with_step(sheet, last, step.model_copy(update={"to": Stop(grade=grade)}))
    try:
        there = prepare(stopped, asked.kitchen)
        chance = chances_of(there, doubts_of(there)).of(grade)
    except BadInput:
        return
    yield SurerBy(
        say("mend.stop-by-look", step=last + 1, grade=spoken_grade(grade)), chance, stopped
    )


def _surest(sheet: Sheet, grade: str, chances: Chances, kitchen: Kitchen) -> SurerBy | None:
    """The amounts that land most surely, where that is worth it beside those of the sheet."""
    found = None if grade == LIQUID else surest(sheet, grade, kitchen)
    if found is None or found.chance < chances.of(grade) + _WORTH_TELLING:
        return None
    thinner = math.log(found.viscosity_pa_s) < _log_middle(grade)
    return SurerBy(
        say("surest.thinner" if thinner else "surest.thicker"), found.chance, found.sheet
    )


def _log_middle(grade: str) -> float:
    return math.log(grade_named(grade).target)
