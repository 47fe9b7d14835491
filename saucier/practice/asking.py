"""Questions made of a kitchen's own sauces and pans: the same engine that reckons them knows the answers."""

import math
from collections.abc import Callable, Sequence
from random import Random
from typing import NamedTuple

import numpy as np

from saucier import constants as K
from saucier.check import CheckedSheet, check, prepare
from saucier.errors import BadInput
from saucier.heat import BARE_PANS, POT_SHAPES, SideView
from saucier.kitchen import Kitchen
from saucier.pot import Pot, Starch
from saucier.practice.question import (
    Answer,
    Fallen,
    Kind,
    Offered,
    PotShown,
    Question,
    SpoonShown,
)
from saucier.rescue import SIGNS, Case, remedies
from saucier.sheet import Sheet
from saucier.solve import goal_of, solve
from saucier.starts import STARTS
from saucier.steps import FLOURED, Liaison, Reduce
from saucier.steps.step import Knobs
from saucier.thickness import (
    GRADES,
    LIQUID,
    film_mm,
    grade_named,
    grade_of,
    log_viscosity_of,
    spoken_grade,
    spoon_words,
    thickness_now,
    thickness_of,
)
from saucier.units import Amount, kitchen_round
from saucier.watch.way import way_of
from saucier.words import Sentence, say


class Asked(NamedTuple):
    """A question with its answer."""

    question: Question
    answer: Answer


NEAR_AN_EDGE = 0.12
"""Spoons so near to the edge of a grade (share of its width) are not asked about: nobody could tell."""
FALLS_S = 14.0
"""Seconds on the screen until a falling pot comes to where it should be stopped, about."""
_MOMENTS = 70


def asked(kind: Kind, sheets: Sequence[Sheet], kitchen: Kitchen, dice: Random) -> Asked:
    """A question of ``kind`` about one of ``sheets`` (where none will do, about one of the starts) in
    ``kitchen``."""
    own = list(sheets)
    dice.shuffle(own)
    make = _MAKERS[kind]
    for sheet in (*own, *_starts()):
        try:
            made = make(sheet, kitchen, dice)
        except BadInput:
            continue
        if made is not None:
            return made
    raise BadInput.at("kind", "nothing-to-ask-of-it")


def _starts() -> list[Sheet]:
    return [start for start in STARTS if start.steps]


# -- the spoon


def _spoon(sheet: Sheet, kitchen: Kitchen, dice: Random) -> Asked | None:
    if not any(isinstance(step, FLOURED) for step in sheet.steps):
        return None
    prepared = prepare(sheet, kitchen)
    for _ in range(12):
        flour = math.exp(dice.uniform(-0.55, 0.5))
        found = log_viscosity_of(prepared.play(Knobs(flour=flour)), sheet.target.serving_c)
        eta = math.exp(found[0]) if found else 0.0
        grade = _clear_grade(eta)
        if grade is None:
            continue
        why = say("practice.spoon-why", grade=spoken_grade(grade), looks=spoon_words(eta), eta=eta)
        ask = say("practice.spoon-ask", name=sheet.name)
        spoon = SpoonShown(eta, film_mm(eta))
        return Asked(
            Question("spoon", ask, _EVERY_GRADE, spoon=spoon),
            Answer((grade,), why, _beside(grade)),
        )
    return None


_EVERY_GRADE = tuple(Offered(grade.key, spoken_grade(grade.key)) for grade in GRADES)


def _clear_grade(eta: float) -> str | None:
    """The grade of ``eta``, Pa·s, where nobody could take it for the next; None where one could, or it is a liquid."""
    grade = grade_of(eta) if eta else None
    if grade is None or grade == LIQUID:
        return None
    band = grade_named(grade)
    high = band.high if math.isfinite(band.high) else 4.0 * band.low
    place = math.log(eta / band.low) / math.log(high / band.low)
    return grade if NEAR_AN_EDGE <= place <= 1.0 - NEAR_AN_EDGE else None


def _beside(grade: str) -> tuple[tuple[str, float], ...]:
    """The grades next to ``grade``, which earn a part."""
    keys = [one.key for one in GRADES]
    at = keys.index(grade)
    return tuple((keys[n], 0.4) for n in (at - 1, at + 1) if 0 <= n < len(keys))


# -- once it boils


def _boils(sheet: Sheet, kitchen: Kitchen, dice: Random) -> Asked | None:
    """A sauce on its way to the boil, as its spoon looks there: how thick is it once it has boiled?"""
    prepared = prepare(sheet, kitchen)
    for _ in range(12):
        knobs = Knobs(flour=math.exp(dice.uniform(-0.4, 0.4)))
        raw = [
            pot for pot in prepared.walk(knobs) if pot.wetted and pot.starch and not pot.boiled_min
        ]
        if not raw:
            return None
        pot = _on_its_way(raw[-1], dice.uniform(*_ON_THE_WAY_C))
        now, boiled = thickness_now(pot), thickness_of(pot, sheet.target.serving_c)
        eta = now.viscosity_pa_s
        grade = _clear_grade(boiled.viscosity_pa_s or 0.0)
        if eta is None or grade is None or now.grade == grade:
            continue
        why = say(
            "practice.boils-why",
            at_c=pot.temperature_c,
            swollen_pct=100.0 * pot.starch_swollen,
            grade=spoken_grade(grade),
        )
        per_l = 1000.0 * pot.balance.thickener / pot.balance.volume_ml
        ask = say("practice.boils-ask", name=sheet.name, at_c=pot.temperature_c, per_l=per_l)
        spoon = SpoonShown(eta, film_mm(eta))
        return Asked(
            Question("boils", ask, _EVERY_GRADE, spoon=spoon),
            Answer((grade,), why, _beside(grade)),
        )
    return None


_ON_THE_WAY_C = (50.0, 78.0)
"""Where little of its starch has swollen, °C: nearer to the boil a pot shows already what it will be."""


def _on_its_way(pot: Pot, at_c: float) -> Pot:
    """``pot``, not boiled yet, as it is at ``at_c`` on its way there."""
    starch = tuple(Starch(part.share, at_c, 0.0, part.thins) for part in pot.starch)
    return pot._replace(temperature_c=at_c, starch=starch)


# -- the level


def _level(sheet: Sheet, kitchen: Kitchen, dice: Random) -> Asked | None:
    pans = [pan for pan in (kitchen.pans or BARE_PANS) if pan.shape in POT_SHAPES] or BARE_PANS
    pan = dice.choice(pans)
    density = 1.02
    full_ml = pan.capacity_ml * dice.uniform(0.45, 0.65)
    full_ml = kitchen_round(Amount(full_ml, "mL")).value
    share = dice.choice((0.35, 0.42, 0.5, 0.58, 0.67, 0.75, 0.85))
    before, now = pan.level_mm(full_ml), pan.level_mm(share * full_ml)
    left = share * full_ml * density

    def shown(grams: float) -> float:
        return kitchen_round(Amount(grams, "g")).value

    by_level = now / before * full_ml * density
    wrong = [by * left for by in (0.75, 1.3, 0.55, 1.7, 0.4) if by * left < full_ml * density]
    if abs(by_level / left - 1.0) > 0.06:  # of a sloped pan: what a straight one would hold
        wrong[0] = by_level
    grams = sorted({shown(one) for one in (left, *wrong[:3])})
    choices = tuple(Offered(f"{one:g}", say("practice.so-many-g", grams=one)) for one in grams)
    right = f"{shown(left):g}"
    sloped = pan.shape == "sloped"
    why = say(
        "practice.level-why-sloped" if sloped else "practice.level-why",
        grams=shown(left),
        share_pct=100.0 * share,
        level_pct=100.0 * now / before,
    )
    ask = say("practice.level-ask", ml=full_ml, before=before, now=now, pan=pan.name)
    return Asked(
        Question("level", ask, choices, pot=PotShown(SideView.of(pan), now, before)),
        Answer((right,), why),
    )


# -- the flour


def _flour(sheet: Sheet, kitchen: Kitchen, dice: Random) -> Asked | None:
    roux = next((n for n, step in enumerate(sheet.steps) if isinstance(step, FLOURED)), None)
    if roux is None:
        return None
    grade = dice.choice([one.key for one in GRADES[1:5]])
    litres = dice.choice((1.0, 1.5, 2.0, 3.0))
    changes = {"grade": grade, "volume": Amount(litres, "L"), "serves": None}
    target = sheet.target.model_copy(update=changes)
    wanted = sheet.model_copy(update={"target": target})
    solved = solve(wanted, goal_of(wanted), kitchen).sheet
    checked = check(solved, kitchen)
    step, setting = solved.steps[roux], checked.settings[roux]
    grams = sum(
        one.grams
        for one in step.to_weigh(setting)
        if setting.kitchen.larder[one.ingredient].per_gram.thickener
    )
    if grams < 20.0:
        return None

    def shown(value: float) -> float:
        return 5.0 * round(value / 5.0)

    values = sorted({shown(grams * by) for by in (0.62, 1.0, 1.35, 1.8)})
    if shown(grams) not in values or len(values) < 4:
        return None
    thicker = GRADES[min(len(GRADES) - 1, [g.key for g in GRADES].index(grade) + 1)]
    why = say(
        "practice.flour-why",
        grams=shown(grams),
        per_l=grams / litres,
        grade=spoken_grade(grade),
        thicker=spoken_grade(thicker.key),
    )
    ask = say("practice.flour-ask", name=sheet.name, litres=litres, grade=spoken_grade(grade))
    choices = tuple(Offered(f"{one:g}", say("practice.so-many-g", grams=one)) for one in values)
    return Asked(Question("flour", ask, choices), Answer((f"{shown(grams):g}",), why))


# -- when to stop


def _stop(sheet: Sheet, kitchen: Kitchen, dice: Random) -> Asked | None:
    at = next(
        (
            n
            for n, step in enumerate(sheet.steps)
            if isinstance(step, Reduce) and step.stop and (step.stop.share or step.stop.grade)
        ),
        None,
    )
    if at is None or at == 0:
        return None
    checked = check(sheet, kitchen)
    way = way_of(checked, at)
    step = sheet.steps[at]
    assert isinstance(step, Reduce)
    assert step.stop is not None
    if way is None:
        return None
    wanted = checked.steps[at].pot.total_g
    least = max(float(way.mass_g[0]), 0.72 * wanted)
    if not least < 0.95 * wanted or not wanted < 0.93 * way.full_g:
        return None
    minutes = [way.at(grams, way.minutes) for grams in (way.full_g, wanted, least)]
    pace = FALLS_S / max(0.2, minutes[0] - minutes[1])
    moments, masses = [], []
    for left in np.linspace(minutes[0], minutes[2], _MOMENTS):
        grams = float(np.interp(left, way.minutes, way.mass_g))
        eta = math.exp(way.at(grams, way.log_eta))
        moments.append(
            Fallen(
                round((minutes[0] - float(left)) * pace, 3),
                round(way.at(grams, way.level_mm), 2),
                float(f"{eta:.3g}"),
                film_mm(eta),
            )
        )
        masses.append(round(grams, 1))
    grade = step.stop.grade
    to = (
        say("practice.to-grade", grade=spoken_grade(grade))
        if grade
        else say("practice.to-share", share_pct=100.0 * (step.stop.share or 0.5))
    )
    minute_g = way.at(wanted, way.g_per_min)
    why = say(
        "practice.stop-why", grams=wanted, level=way.at(wanted, way.level_mm), minute=minute_g
    )
    ask = say("practice.stop-ask", name=sheet.name, to=to, pan=checked.pan.name)
    return Asked(
        Question("stop", ask, pan=SideView.of(checked.pan), falls=tuple(moments)),
        Answer((), why, wanted_g=wanted, grams=tuple(masses)),
    )


# -- the order of things


def _order(sheet: Sheet, kitchen: Kitchen, dice: Random) -> Asked | None:
    if not any(isinstance(step, Liaison) for step in sheet.steps):
        return None
    checked = check(sheet, kitchen)
    binds = _flour_g_per_l(checked) >= K.LIAISON_FLOUR_G_PER_L
    last = "simmer" if binds else "warm"
    keys = ["cold", "off", "ladle", "back", last]
    words = {key: say(f"practice.liaison-{key}", max_c=K.LIAISON_BARE_MAX_C) for key in keys}
    shuffled = keys[:]
    while shuffled == keys:
        dice.shuffle(shuffled)
    why = say(f"practice.liaison-why-{last}", max_c=K.LIAISON_BARE_MAX_C)
    choices = tuple(Offered(key, words[key]) for key in shuffled)
    ask = say("practice.order-ask", name=sheet.name)
    # Whether the pot or the bowl comes first is all the same.
    before = (("cold", "ladle"), ("off", "ladle"), ("ladle", "back"), ("back", last))
    return Asked(
        Question("order", ask, choices, order=True), Answer(tuple(keys), why, before=before)
    )


def _flour_g_per_l(checked: CheckedSheet) -> float:
    balance = checked.final.pot.balance
    return 1000.0 * balance.thickener / max(1.0, balance.volume_ml)


# -- what mends it


def _remedy(sheet: Sheet, kitchen: Kitchen, dice: Random) -> Asked | None:
    checked = check(sheet, kitchen)
    eta = checked.final.thickness.viscosity_pa_s
    if eta is None:
        return None
    case = Case(sheet, eta, kitchen)
    signs = list(SIGNS)
    dice.shuffle(signs)
    for sign in signs:
        ways = [one for one in remedies(case, sign.key) if one.refused is None]
        if not ways:
            continue
        right = ways[0]
        mends = {one.title.code for one in ways}
        others: dict[str, Sentence] = {}
        for other in dice.sample(signs, len(signs)):
            for one in remedies(case, other.key)[:2]:
                if one.refused is None and one.title.code not in (*mends, *others):
                    others[one.title.code] = one.title
            if len(others) >= 3:
                break
        if len(others) < 3:
            continue
        picked = [(right.title.code, right.title), *list(others.items())[:3]]
        dice.shuffle(picked)
        why = say("practice.remedy-why", why=sign.why, next_time=sign.next_time)
        return Asked(
            Question(
                "remedy",
                say("practice.remedy-ask", name=sheet.name, sign=sign.name),
                tuple(Offered(key, title) for key, title in picked),
            ),
            Answer((right.title.code,), why),
        )
    return None


_MAKERS: dict[Kind, Callable[[Sheet, Kitchen, Random], Asked | None]] = {
    "spoon": _spoon,
    "boils": _boils,
    "level": _level,
    "flour": _flour,
    "stop": _stop,
    "order": _order,
    "remedy": _remedy,
}


def next_kind(scores: dict[str, list[float]], dice: Random) -> Kind:
    """What to ask next: what was missed of late more often, what was never asked before all.

    >>> from random import Random
    >>> sure = {kind: [1.0] * 5 for kind in _MAKERS}
    >>> drawn = [next_kind({**sure, "flour": [0.0, 0.2]}, Random(n)) for n in range(200)]
    >>> 80 < drawn.count("flour") < 160
    True
    """
    weights = []
    for kind in _MAKERS:
        of_late = scores.get(kind, [])[-LATE:]
        missed = 1.0 - sum(of_late) / len(of_late) if of_late else 1.5
        weights.append(0.15 + missed)
    return dice.choices(list(_MAKERS), weights)[0]


LATE = 6
"""The newest answers of a kind that count."""
