"""What is still to come, solved again for what the sauce was to be, from the pot there is."""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from saucier import constants as K
from saucier.check import Prepared, State, check
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.pot import Pot
from saucier.roots import find_root
from saucier.sheet import Sheet
from saucier.steps import FLOURED, Add, Knobs, advance
from saucier.thickness import TURNED, grade_named, log_excess, spoken_grade, thickness_of
from saucier.units import Amount, kitchen_round
from saucier.words import Sentence, say

_MOST = math.log(4.0)
"""The furthest an amount is turned either way."""


@dataclass(frozen=True, slots=True)
class TurnedAmount:
    """An amount of a step to come: what it was, g, and what it is to be."""

    step: int
    field: str
    name: str
    was_g: float
    grams: float


@dataclass(frozen=True, slots=True)
class Again:
    """``as_is``: what the sauce comes to with what is still to come as it is written; ``words`` tell that.
    ``changes`` bring it to its grade, and make of it what there is then (``makes_g``); none where nothing
    that is still to come can."""

    as_is: str | None
    wanted: str
    words: Sentence
    changes: tuple[TurnedAmount, ...]
    makes_g: float


def solved_again(
    prepared: Prepared, begun: Sequence[State], kitchen: Kitchen, first: int, pot: Pot
) -> Again | None:
    """The steps of the ``prepared`` sheet from ``first`` on, turned so that ``pot``, which they begin with,
    comes to the grade that is asked for. ``begun``: the states as they were to be when it was begun. None:
    it comes out as it should, or asks for no grade."""
    sheet = prepared.sheet
    if sheet.target.grade is None:
        return None
    wanted = grade_named(sheet.target.grade)
    serving_c = sheet.target.serving_c

    def played(knobs: Callable[[int], Knobs]) -> Pot:
        now = pot
        for number in range(first, len(prepared.moves)):
            now = advance(now, prepared.moves[number], knobs(number))
        return now

    def off(found: Pot) -> float:
        return log_excess(found, wanted.target, serving_c)

    was = begun[first - 1].pot if first else Pot()
    # Only where there is liquid already can it be too much of it or too little.
    grown = pot.yield_g / was.yield_g if was.wetted and pot.wetted else 1.0
    as_written = Knobs()
    as_is = played(lambda _: as_written)
    grade = thickness_of(as_is, serving_c).grade
    as_planned = grade == wanted.key or (begun and grade == begun[-1].thickness.grade)
    if grade is None or (as_planned and abs(grown - 1.0) < K.AGAIN_SIZE):
        return None
    if grade == wanted.key:
        size = "more" if grown > 1.0 else "less"
        says = say(f"again.{size}", grade=wanted.name, pct=100.0 * abs(grown - 1.0))
    else:
        says = say("again.as-is", grade=spoken_grade(grade), wanted=wanted.name)
    nothing = Again(grade, wanted.key, says, (), as_is.yield_g)
    turns = _turned_by(sheet, first)
    if turns is None:
        return None if grade == wanted.key else nothing
    numbers, flour = turns

    def knobs_at(by_log: float) -> Callable[[int], Knobs]:
        turned = math.exp(by_log)

        def knobs(number: int) -> Knobs:
            if number not in numbers:
                return Knobs(scale=grown)
            if flour:
                return Knobs(grown, turned, sheet.method.fat_to_flour)
            return Knobs(grown * turned)

        return knobs

    try:
        low, high = off(played(knobs_at(-_MOST))), off(played(knobs_at(_MOST)))
        if math.isinf(low) or math.isinf(high) or low * high > 0.0:
            return nothing
        by_log = find_root(lambda x: off(played(knobs_at(x))), -_MOST, _MOST, 1e-4)
    except BadInput:
        return nothing
    knobs = knobs_at(by_log)
    steps = [
        step if number < first else step.turned(knobs(number), prepared.settings[number])
        for number, step in enumerate(sheet.steps)
    ]
    made = sheet.model_copy(update={"steps": tuple(steps)})
    end = thickness_of(played(knobs), serving_c)
    if end.emulsion in TURNED or end.grade != wanted.key:
        return nothing
    changes = _changes(sheet, made, kitchen, first)
    return replace(nothing, changes=changes, makes_g=played(knobs).yield_g) if changes else None


def _turned_by(sheet: Sheet, first: int) -> tuple[frozenset[int], bool] | None:
    """The steps to come whose amounts make it thicker or thinner, and whether that is flour: flour where
    some is still to come, else what is poured in."""
    ahead = [(n, step) for n, step in enumerate(sheet.steps) if n >= first]
    for kinds, flour in ((FLOURED, True), ((Add,), False)):
        found = frozenset(n for n, step in ahead if isinstance(step, kinds))
        if found:
            return found, flour
    return None


def _changes(sheet: Sheet, made: Sheet, kitchen: Kitchen, first: int) -> tuple[TurnedAmount, ...]:
    """What is weighed differently, in kitchen steps."""
    found = []
    old, new = (_weighed(one, kitchen, first) for one in (sheet, made))
    for key, (name, was) in old.items():
        if made.steps[key[0]] == sheet.steps[key[0]]:  # salt up to a target follows by itself
            continue
        grams = kitchen_round(Amount(new[key][1], "g")).value if key in new else was
        if abs(grams - was) > max(0.5, 0.01 * was):
            found.append(TurnedAmount(key[0], key[1], name, was, grams))
    return tuple(found)


def _weighed(
    sheet: Sheet, kitchen: Kitchen, first: int
) -> dict[tuple[int, str], tuple[str, float]]:
    checked = check(sheet, kitchen)
    found = {}
    before = Pot()
    for number, (step, setting, state) in enumerate(
        zip(checked.sheet.steps, checked.settings, checked.steps, strict=True)
    ):
        if number >= first:
            for one in step.weighed_after(setting, before, state.pot):
                found[number, one.field] = (one.name, one.grams)
        before = state.pot
    return found
