"""The answer to “how sure are you, and what would make you surer?”."""

import math
from collections.abc import Iterator
from dataclasses import dataclass

from saucier import constants as K
from saucier.check import DEFAULT_KITCHEN, Prepared, prepare
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient
from saucier.schools import switch
from saucier.sheet import Sheet, SheetPan
from saucier.steps import Correct, Reduce, thickening_by
from saucier.steps.reduce import Stop
from saucier.sure.chance import MODEL_SPREAD, Chances, chances_of, unseen_of
from saucier.sure.doubts import Doubt, doubts_of, weighing_spread, with_spread
from saucier.sure.surest import surest
from saucier.sure.variants import Variants
from saucier.thickness import grade_named, log_viscosity_of, thickness_of
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
class Mend:
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
    mends: tuple[Mend, ...]
    surest: Mend | None


def how_sure(sheet: Sheet, kitchen: Kitchen = DEFAULT_KITCHEN) -> Sure | None:
    """How sure ``sheet`` is of its grade (the one it is meant for, else the one it has); None where
    it has none. Raises :class:`BadInput` as a check does.

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
    chances = chances_of(prepared, doubts)
    return Sure(
        grade=grade,
        chance=chances.of(grade),
        by_grade=tuple(GradeChance(key, chance) for key, chance in chances.by_grade.items()),
        doubts=_shares(prepared, doubts),
        mends=_mends(prepared, doubts, grade, chances, kitchen),
        surest=_surest(sheet, grade, chances, kitchen),
    )


def _present_grade(prepared: Prepared) -> str | None:
    return thickness_of(prepared.play(), prepared.sheet.target.serving_c).grade


def _shares(prepared: Prepared, doubts: tuple[Doubt, ...]) -> tuple[DoubtShare, ...]:
    """The doubts by what each makes of the whole, the largest first: each played by itself, one
    spread either way."""
    serving_c = prepared.sheet.target.serving_c
    variants = Variants(prepared, doubts)
    squares: list[tuple[float, Sentence]] = []
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
        squares.append((_square(*ends), _told(doubt)))
    base = log_viscosity_of(variants.play(middle), serving_c)
    unseen = unseen_of(prepared)
    squares.append(((unseen * MODEL_SPREAD) ** 2, say("doubt.model")))
    if base is not None and base[1]:
        squares.append(((unseen * base[1]) ** 2, say("doubt.body")))
    whole = sum(square for square, _ in squares) or 1.0
    told = [DoubtShare(name, square / whole) for square, name in squares]
    return tuple(sorted((one for one in told if one.share >= _NOTICED), key=lambda one: -one.share))


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
    if doubt.kind in ("eye", "look", "stop"):
        return say(f"doubt.{doubt.kind}", step=step)
    return say("doubt.pan", pan=doubt.name)


def _mends(
    prepared: Prepared,
    doubts: tuple[Doubt, ...],
    grade: str,
    chances: Chances,
    kitchen: Kitchen,
) -> tuple[Mend, ...]:
    """What raises the chance, the most first."""
    mends = [
        Mend(do, chances_of(prepared, with_spread(doubts, spreads)).of(grade), sheet)
        for do, spreads, sheet in _by_spread(prepared, doubts, kitchen)
    ]
    for do, sheet in _by_the_spoon(prepared, grade, kitchen):
        try:
            there = prepare(sheet, kitchen)
            mends.append(Mend(do, chances_of(there, doubts_of(there)).of(grade), sheet))
        except BadInput:
            continue
    worth = [one for one in mends if one.chance >= chances.of(grade) + _WORTH_TELLING]
    return tuple(sorted(worth, key=lambda one: -one.chance)[:MOST_MENDS])


Spreads = dict[str, float]


def _by_spread(
    prepared: Prepared, doubts: tuple[Doubt, ...], kitchen: Kitchen
) -> Iterator[tuple[Sentence, Spreads, Sheet | None]]:
    """What makes one doubt smaller: what to do, the spreads then, the sheet with it done."""
    sheet = prepared.sheet
    pots = list(prepared.walk())
    for doubt in doubts:
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
                {doubt.key: K.STOP_BY_SCALE_SPREAD},
                None,
            )
        elif doubt.kind == "row" and 100 * doubt.spread > _LABEL_SPREAD_PCT:
            row: Ingredient = kitchen.larder[doubt.ingredient]
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


def _by_the_spoon(
    prepared: Prepared, grade: str, kitchen: Kitchen
) -> Iterator[tuple[Sentence, Sheet]]:
    """What lets the spoon decide instead of the model: something held back, or a stop by the look."""
    sheet = prepared.sheet
    if any(isinstance(step, Correct) for step in sheet.steps):
        return
    if thickening_by(sheet) == "flour" and sheet.target.grade:
        try:
            yield say("mend.hold-back"), switch(sheet, "correcting", "liquid", kitchen).sheet
        except BadInput:
            return
    last = max((n for n, step in enumerate(sheet.steps) if isinstance(step, Reduce)), default=None)
    if last is None or thickening_by(sheet) != "reduction":
        return
    step = sheet.steps[last]
    assert isinstance(step, Reduce)
    if step.stop and step.stop.grade is None:
        stopped = step.model_copy(update={"to": Stop(grade=grade)})
        yield say("mend.stop-by-look", step=last + 1, grade=grade), _with_step(sheet, last, stopped)


def _surest(sheet: Sheet, grade: str, chances: Chances, kitchen: Kitchen) -> Mend | None:
    """The amounts that land most surely, where that is worth it beside those of the sheet."""
    found = surest(sheet, grade, kitchen)
    if found is None or found.chance < chances.of(grade) + _WORTH_TELLING:
        return None
    thinner = math.log(found.viscosity_pa_s) < _log_middle(grade)
    return Mend(say("surest.thinner" if thinner else "surest.thicker"), found.chance, found.sheet)


def _log_middle(grade: str) -> float:
    return math.log(grade_named(grade).target)
