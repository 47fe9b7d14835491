"""At the end of a sauce with something held back: the spoon is picked, so much goes in."""

import math
from dataclasses import dataclass

from saucier import constants as K
from saucier.check import check
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.pot import Pot
from saucier.sheet import Sheet
from saucier.steps import Correct
from saucier.steps.correct import grams_to_move
from saucier.thickness import GRADES, film_mm, grade_named, spoon_words
from saucier.units import Amount, kitchen_round

_OVER_YIELD = 0.05
_FULL = 0.9


@dataclass(frozen=True, slots=True)
class SpoonSeen:
    """A spoon to pick: a pot of ``viscosity_pa_s``, its film, how far up its grade it stands, and
    what a cook would say of it."""

    viscosity_pa_s: float
    film_mm: float
    name: str
    looks: str


@dataclass(frozen=True, slots=True)
class Correction:
    """``spoons`` to pick from, thin to thick about what is expected. ``amount`` of what was held
    back goes in (None: nothing; it is as it should be, or on the wrong side of it). The sauce then
    makes ``makes_ml``. ``say`` tells the cook, overshoots of the yield, of the pan and of what was
    held back included."""

    spoons: tuple[SpoonSeen, ...]
    amount: Amount | None
    makes_ml: float
    say: tuple[str, ...]


def spoons_about(viscosity_pa_s: float) -> tuple[SpoonSeen, ...]:
    """Five spoons about what is expected, each half a grade from the next."""
    steps = (K.PREDICTION_FACTOR**n for n in (-2, -1, 0, 1, 2))
    return tuple(_spoon(viscosity_pa_s * step) for step in steps)


def _spoon(eta: float) -> SpoonSeen:
    grade = next((g for g in reversed(GRADES) if eta >= g.low), None)
    if grade is None:
        return SpoonSeen(eta, film_mm(eta), "liquid", spoon_words(eta))
    up = math.log(eta / grade.low) / math.log(grade.high / grade.low) if grade.high < 1e9 else 0.5
    where = "thin " if up < _THIRD else "thick " if up > 1.0 - _THIRD else ""
    return SpoonSeen(eta, film_mm(eta), f"{where}{grade.name}", spoon_words(eta))


_THIRD = 1.0 / 3.0


def correction(sheet: Sheet, at: int, seen_pa_s: float | None, kitchen: Kitchen) -> Correction:
    """What goes in at step ``at``, a `correct`, of a pot seen to be ``seen_pa_s`` thick (Pa·s at
    serving temperature; None: not looked at yet). Raises :class:`BadInput` (field ``at`` or
    ``seen_pa_s``)."""
    if not 0 <= at < len(sheet.steps) or not isinstance(step := sheet.steps[at], Correct):
        raise BadInput.at("at", "nothing is corrected there", "Give the step that holds back")
    if seen_pa_s is not None and not 1e-3 <= seen_pa_s <= 300.0:
        raise BadInput.at("seen_pa_s", "is no sauce", "Pick the spoon that looks like it")
    checked = check(sheet, kitchen)
    setting, states = checked.settings[at], checked.steps
    before, after = (states[at - 1].pot if at else Pot()), states[at].pot
    held, predicted = step.held_back(setting, before), states[at].thickness.viscosity_pa_s
    if held is None or predicted is None:
        raise BadInput.at("at", "has no grade to correct", "Put the step after the sauce")
    made = states[at - 1].thickness.viscosity_pa_s
    assert made is not None
    spoons = spoons_about(made)
    if seen_pa_s is None:
        return Correction(spoons, None, after.yield_ml, ())
    # The pot as it was found: what thickens it is off by what the spoon says.
    off = (seen_pa_s / made) ** (1.0 / K.FLOUR_EXPONENT)
    balance = before.balance
    found = before._replace(
        balance=balance._replace(
            thickener=balance.thickener * off, body=balance.body * off, gel=balance.gel * off
        )
    )
    wanted = grade_named(sheet.target.grade).target if sheet.target.grade else predicted
    by_log = math.log(wanted / seen_pa_s)
    right_way = (by_log < 0.0) == (step.hold == "liquid")
    if abs(by_log) < _NEAR or not right_way:
        words = (
            "It is as it should be: nothing goes in."
            if abs(by_log) < _NEAR
            else "It is thinner already than it should be: see Fix it."
            if step.hold == "liquid"
            else "It is thicker already than it should be: see Fix it."
        )
        return Correction(spoons, None, before.yield_ml, (words,))
    put = step.putting(setting)
    grams = grams_to_move(found, put, by_log, setting.serving_c)
    row = step.rows(setting)[-1]
    liquid = step.hold == "liquid"
    amount = kitchen_round(Amount(grams / row.density, "mL") if liquid else Amount(grams, "g"))
    makes = put(before, grams).yield_ml
    say = [
        f"Whisk in {amount} hot {row.spoken_name}, a little at a time."
        if liquid
        else f"Knead {amount} {row.spoken_name} into as much soft "
        f"{step.rows(setting)[0].spoken_name}, whisk it in, boil three minutes."
    ]
    if grams > 1.02 * held.most_g:
        say.append(f"That is more than was held back ({step.told(row, held.most_g)}).")
    target = sheet.target.volume
    planned = target.base if target and target.dimension.name == "VOLUME" else after.yield_ml
    if makes > (1.0 + _OVER_YIELD) * planned:
        say.append(f"It then makes {makes:.0f} mL, {makes - planned:.0f} mL more than planned.")
    capacity = checked.pan.capacity_ml
    if put(before, grams).total_ml > _FULL * capacity:
        say.append(f"The pan holds {capacity:.0f} mL: take some out first.")
    return Correction(spoons, amount, makes, tuple(say))


_NEAR = 0.12
"""So near its thickness (in log η) nothing is done about it."""
