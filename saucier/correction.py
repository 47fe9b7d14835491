"""At the end of a sauce with something held back: the spoon is picked, so much goes in."""

import math
from dataclasses import dataclass

from saucier import constants as K
from saucier.check import CheckedSheet, check
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.pot import Pot
from saucier.sheet import Sheet
from saucier.steps import Correct
from saucier.steps.correct import grams_to_move
from saucier.thickness import GRADES, film_mm, grade_named, grade_of, spoken_grade, spoon_words
from saucier.units import Amount, kitchen_round
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class SpoonSeen:
    """A spoon to pick: a pot of ``viscosity_pa_s``, its film, how far up its grade it stands, and
    what a cook would say of it."""

    viscosity_pa_s: float
    film_mm: float
    name: Sentence
    looks: Sentence


@dataclass(frozen=True, slots=True)
class Correction:
    """``spoons`` to pick from, thin to thick about what is expected. ``amount`` of what was held
    back goes in, ``grams`` of it (None: nothing; it is as it should be, or on the wrong side of it). The sauce then
    makes ``makes_ml``. ``notes`` tell the cook, overshoots of the yield, of the pan and of what was
    held back included."""

    spoons: tuple[SpoonSeen, ...]
    amount: Amount | None
    makes_ml: float
    notes: tuple[Sentence, ...]
    grams: float = 0.0


def spoons_about(viscosity_pa_s: float) -> tuple[SpoonSeen, ...]:
    """Five spoons about what is expected, each half a grade from the next.

    >>> [str(spoon.name) for spoon in spoons_about(0.9)]
    ['thick light coat', 'thin nappe', 'thick nappe', 'thin binding', 'binding']
    """
    steps = (K.PREDICTION_FACTOR**n for n in (-2, -1, 0, 1, 2))
    return tuple(_spoon(viscosity_pa_s * step) for step in steps)


def _spoon(eta: float) -> SpoonSeen:
    grade = next((g for g in reversed(GRADES) if eta >= g.low), None)
    name, where = spoken_grade(grade_of(eta)), ""
    if grade is not None and math.isfinite(grade.high):
        up = math.log(eta / grade.low) / math.log(grade.high / grade.low)
        where = (
            "thin" if up < K.THIN_OF_A_GRADE else "thick" if up > 1.0 - K.THIN_OF_A_GRADE else ""
        )
    elif grade is not None and eta > K.STIFF_TIMES * grade.low:
        where = "thick"
    return SpoonSeen(
        eta, film_mm(eta), say(f"spoon-{where}", grade=name) if where else name, spoon_words(eta)
    )


def correction(sheet: Sheet, at: int, seen_pa_s: float | None, kitchen: Kitchen) -> Correction:
    """What goes in at step ``at``, a `correct`, of a pot seen to be ``seen_pa_s`` thick (Pa·s at
    serving temperature; None: not looked at yet). Raises :class:`BadInput` (field ``at`` or
    ``seen_pa_s``)."""
    return correction_of(check(sheet, kitchen), at, seen_pa_s)


def correction_of(checked: CheckedSheet, at: int, seen_pa_s: float | None) -> Correction:
    """As :func:`correction`, of a sauce with the states it was found in."""
    sheet = checked.sheet
    if not 0 <= at < len(sheet.steps) or not isinstance(step := sheet.steps[at], Correct):
        raise BadInput.at("at", "nothing-is-corrected-there")
    if seen_pa_s is not None and not 1e-3 <= seen_pa_s <= 300.0:
        raise BadInput.at("seen_pa_s", "is-no-sauce")
    setting, states = checked.settings[at], checked.steps
    before, after = (states[at - 1].pot if at else Pot()), states[at].pot
    held, predicted = step.held_back(setting, before), states[at].thickness.viscosity_pa_s
    if held is None or predicted is None:
        raise BadInput.at("at", "has-no-grade-to-correct")
    made = states[at - 1].thickness.viscosity_pa_s
    assert made is not None
    spoons = spoons_about(made)
    if seen_pa_s is None:
        return Correction(spoons, None, after.yield_ml, ())
    # The pot as it was found: what thickens it is off by what the spoon says.
    off = (seen_pa_s / made) ** (1.0 / K.FLOUR_EXPONENT)
    balance = before.balance
    as_found = before._replace(
        balance=balance._replace(
            thickener=balance.thickener * off, body=balance.body * off, gel=balance.gel * off
        )
    )
    # What comes after it (a liaison, cheese) thickens or thins it too: here it has to be as much nearer to its target.
    wanted, ends = predicted, checked.final.thickness.viscosity_pa_s
    if sheet.target.grade and ends:
        wanted *= grade_named(sheet.target.grade).target / ends
    by_log = math.log(wanted / seen_pa_s)
    right_way = (by_log < 0.0) == (step.hold == "liquid")
    if abs(by_log) < K.NEAR_ENOUGH or not right_way:
        wrong_way = "too-thin-already" if step.hold == "liquid" else "too-thick-already"
        note = say("right-already" if abs(by_log) < K.NEAR_ENOUGH else wrong_way)
        return Correction(spoons, None, before.yield_ml, (note,))
    put = step.putting(setting)
    grams = grams_to_move(as_found, put, by_log, setting.serving_c)
    row = step.rows(setting)[-1]
    liquid = step.hold == "liquid"
    amount = kitchen_round(Amount(grams / row.density, "mL") if liquid else Amount(grams, "g"))
    makes = put(before, grams).yield_ml
    notes = [
        say("let-down-by", amount=amount, liquid=row.spoken_name)
        if liquid
        else say(
            "bind-with",
            amount=amount,
            flour=row.spoken_name,
            fat=step.rows(setting)[0].spoken_name,
        )
    ]
    if grams > 1.02 * held.most_g:
        notes.append(say("more-than-held-back", held=step.told(row, held.most_g)))
    target = sheet.target.volume
    planned = target.base if target and target.dimension.name == "VOLUME" else after.yield_ml
    if makes > (1.0 + K.OVER_YIELD) * planned:
        notes.append(say("makes-more", makes_ml=makes, over_ml=makes - planned))
    capacity = checked.pan.capacity_ml
    if put(before, grams).total_ml > K.CORRECTED_FULL * capacity:
        notes.append(say("pan-holds", holds_ml=capacity))
    return Correction(spoons, amount, makes, tuple(notes), round(grams, 1))
