"""The signs of a sauce gone wrong, why, what mends it, and what to do next time (domain.md)."""

from collections.abc import Callable
from dataclasses import dataclass

from saucier import constants as K
from saucier.errors import BadInput
from saucier.rescue import amiss
from saucier.rescue.case import Case
from saucier.rescue.remedy import Remedy
from saucier.rescue.salt import too_salty
from saucier.rescue.thickness import too_thick, too_thin
from saucier.seasoning import salt_pct
from saucier.thickness import GRADES

Ways = Callable[[Case], list[Remedy]]


@dataclass(frozen=True, slots=True)
class Sign:
    """What a cook sees or tastes: ``name``, ``why`` it is so, the ``ways`` to mend it, and what
    to do ``next_time``."""

    key: str
    name: str
    why: str
    next_time: str
    ways: Ways


SIGNS: tuple[Sign, ...] = (
    Sign(
        "too-thick",
        "Too thick",
        "It drank, cooled, or boiled down too far.",
        "Hold a tenth of the liquid back hot, and judge at serving temperature.",
        too_thick,
    ),
    Sign(
        "too-thin",
        "Too thin",
        "Short of flour, not boiled long enough, or food gave its water.",
        "Weigh the flour; fry or drain wet food first; keep a little beurre manié ready.",
        too_thin,
    ),
    Sign(
        "lumps",
        "Lumps",
        "Roux and liquid both hot, poured fast, or not whisked.",
        "One of the two cold; small additions, each worked smooth.",
        amiss.lumps,
    ),
    Sign(
        "raw-flour",
        "Tastes of raw flour",
        "The roux, or the simmer after it, was too short.",
        "Cook the roux until it smells of biscuit, then simmer five minutes.",
        amiss.raw_flour,
    ),
    Sign(
        "caught",
        "Caught on the bottom",
        "Too much heat, a thin pan, or not stirred.",
        "Heavy-bottomed pan, lower heat, stir into the corners.",
        amiss.caught,
    ),
    Sign(
        "cheese-stringy",
        "Cheese stringy or greasy",
        "It went in too hot, there was too much of it, or no starch to hold it.",
        f"Under {K.CHEESE_MAX_C:.0f} °C, off the heat, finely shredded, by handfuls.",
        amiss.stringy_cheese,
    ),
    Sign(
        "yolk-grains",
        "Grains of yolk",
        "The yolk went in too hot, or boiled without starch.",
        "Temper with ladles, stay under 82 °C without flour.",
        amiss.yolk_grains,
    ),
    Sign(
        "oily-cream",
        "Cream gone oily",
        "Too much water boiled away for the fat that is in it.",
        "Stop by weight, not by eye; wine, stock or juices in it buy room.",
        amiss.oily_cream,
    ),
    Sign(
        "soft-cream-split",
        "Soured cream or yogurt split",
        "It boiled; under about 30 % fat it cannot, without starch.",
        "Stir it in last, off the heat; or take crème fraîche of 30 %.",
        amiss.split_soft_cream,
    ),
    Sign(
        "curdled",
        "Milk or thin cream curdled",
        "Wine or lemon met it before starch or fat did.",
        "Boil the acid down first, thicken first, or take a richer cream.",
        amiss.curdled,
    ),
    Sign(
        "green-dull",
        "Green gone dull",
        "Acid, a lid, or long holding.",
        "Purée in at the last moment, no lid, lemon on the plate.",
        amiss.dull_green,
    ),
    Sign(
        "grey",
        "Gone grey",
        "Wine, lemon or yolk in bare aluminium or iron.",
        "Stainless or enamel.",
        amiss.grey,
    ),
    Sign(
        "too-salty",
        "Too salty",
        "Salty cheese, stock or cured things, or boiled down after salting.",
        "Salt last, after cheese and reductions.",
        too_salty,
    ),
    Sign(
        "too-sharp",
        "Too sharp",
        "Wine or lemon not boiled down far enough.",
        "Boil wine nearly dry before anything else goes in.",
        amiss.too_sharp,
    ),
    Sign(
        "flat",
        "Tastes flat",
        "Only fat and flour, short of salt or of something sharp.",
        "Salt to target first, then lemon by drops.",
        amiss.flat,
    ),
    Sign(
        "weeps",
        "Weeps after freezing",
        "Flour starch lets its water go in the freezer.",
        "Part of the flour as waxy rice flour, if it is to be frozen.",
        amiss.weeps,
    ),
    Sign(
        "emulsion-split",
        "Warm yolk-and-butter sauce split",
        "Over 65 °C, or butter faster than the yolk could take it.",
        "Keep it at 50 to 60 °C; it is for this service only.",
        amiss.emulsion_split,
    ),
    Sign(
        "emulsion-tight",
        "Warm yolk-and-butter sauce tight and cold",
        "It fell under 45 °C.",
        "A warm place, and hot water by drops before it sets.",
        amiss.emulsion_tight,
    ),
)
_BY_KEY = {sign.key: sign for sign in SIGNS}


def sign_named(key: str) -> Sign:
    """The sign called ``key``. Raises :class:`BadInput` (field ``sign``)."""
    if key not in _BY_KEY:
        raise BadInput.at("sign", f"“{key[:40]}” is not a sign", f"Use one of {', '.join(_BY_KEY)}")
    return _BY_KEY[key]


def remedies(case: Case, sign_key: str) -> list[Remedy]:
    """Every way to mend ``sign_key`` in ``case``: those that can be done first, the quickest of
    them on top; of two as quick the one that changes the taste least, as its sign lists them.
    Raises :class:`BadInput` (field ``sign``)."""
    found = sign_named(sign_key).ways(case)
    return sorted(found, key=lambda one: (one.refused is not None, round(one.minutes)))


def likely(case: Case) -> list[str]:
    """Signs that the numbers themselves speak for, the worst first."""
    found = []
    final = case.now.final
    if final.emulsion in ("oily", "split"):
        found.append("oily-cream")
    grade, wanted = final.thickness.grade, case.grade
    if grade is not None and wanted is not None and grade != wanted:
        order = ["liquid", *(g.key for g in GRADES)]
        thick = order.index(grade) > order.index(wanted)
        found.append("too-thick" if thick else "too-thin")
    target = case.salt_target_pct
    if target is not None and salt_pct(case.pot.balance) > target + 0.02:
        found.append("too-salty")
    by_remark = {
        "hot-cheese": "cheese-stringy",
        "no-starch": "cheese-stringy",
        "yolk-grains": "yolk-grains",
        "curdles": "curdled",
        "soft-cream-boiled": "soft-cream-split",
        "reactive-pan": "grey",
    }
    for state in case.now.steps:
        for remark in state.warnings:
            sign = by_remark.get(remark.code)
            if sign and sign not in found:
                found.append(sign)
    return found
