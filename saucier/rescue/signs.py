"""The signs of a sauce gone wrong, why, what mends it, and what to do next time."""

from collections.abc import Callable
from dataclasses import dataclass

from saucier import constants as K
from saucier.errors import BadInput
from saucier.rescue import faults
from saucier.rescue.case import Case
from saucier.rescue.in_grade import in_its_grade
from saucier.rescue.remedy import Remedy
from saucier.rescue.said import as_said, told_beside
from saucier.rescue.salt import too_salty
from saucier.rescue.thickness import too_thick, too_thin
from saucier.seasoning import salt_pct
from saucier.thickness import GRADES
from saucier.words import Inside, Sentence, say

Ways = Callable[[Case], list[Remedy]]


@dataclass(frozen=True, slots=True)
class Sign:
    """What a cook sees or tastes: ``name``, ``why`` it is so, what to do ``next_time``, and the
    ``ways`` to mend it."""

    key: str
    name: Sentence
    why: Sentence
    next_time: Sentence
    ways: Inside[Ways]


def _sign(key: str, ways: Ways) -> Sign:
    return Sign(
        key,
        say(f"sign.{key}.name"),
        say(f"sign.{key}.why"),
        say(f"sign.{key}.next-time", max_c=K.CHEESE_MAX_C),
        ways,
    )


SIGNS: tuple[Sign, ...] = (
    _sign("too-thick", too_thick),
    _sign("too-thin", too_thin),
    _sign("lumps", faults.lumps),
    _sign("raw-flour", faults.raw_flour),
    _sign("caught", faults.caught),
    _sign("cheese-stringy", faults.stringy_cheese),
    _sign("yolk-grains", faults.yolk_grains),
    _sign("oily-cream", faults.oily_cream),
    _sign("soft-cream-split", faults.split_soft_cream),
    _sign("curdled", faults.curdled),
    _sign("green-dull", faults.dull_green),
    _sign("grey", faults.grey),
    _sign("too-salty", too_salty),
    _sign("too-sharp", faults.too_sharp),
    _sign("too-hot", faults.too_hot),
    _sign("too-mustardy", faults.too_mustardy),
    _sign("too-sweet", faults.too_sweet),
    _sign("flat", faults.flat),
    _sign("weeps", faults.weeps),
    _sign("emulsion-split", faults.emulsion_split),
    _sign("emulsion-tight", faults.emulsion_tight),
)
OF_THICKNESS = ("too-thick", "too-thin")
_BY_KEY = {sign.key: sign for sign in SIGNS}


def sign_named(key: str) -> Sign:
    """The sign called ``key``. Raises :class:`BadInput` (field ``sign``)."""
    if key not in _BY_KEY:
        raise BadInput.at("sign", "is-not-a-sign", key=key[:40], signs=tuple(_BY_KEY))
    return _BY_KEY[key]


def remedies(case: Case, sign_key: str) -> list[Remedy]:
    """Every way to mend ``sign_key`` in ``case``, as a cook would reach for them: what cannot be done
    last, before it what costs more or adds more than the sauce is worth, the quicker of the others
    on top; of those about as quick the one that changes the taste least, as its sign lists them (its
    own liquid first). Raises :class:`BadInput` (field ``sign``)."""
    said = as_said(case, sign_key)
    ways = sign_named(sign_key).ways(said)
    if sign_key not in OF_THICKNESS:
        ways = [in_its_grade(case, way) for way in ways]
    elif said is not case:
        ways = [told_beside(way, case) for way in ways]
    adds = [one.after.pot.total_g - case.pot.total_g for one in ways if one.after is not None]
    least_g = min((grams for grams in adds if grams > 0.0), default=0.0)
    return sorted(
        ways,
        key=lambda one: (
            one.refused is not None,
            _drastic(case, one, least_g),
            int(one.minutes / K.ABOUT_AS_QUICK_MIN),
        ),
    )


def _drastic(case: Case, one: Remedy, least_g: float) -> bool:
    """Whether it adds more than there is and far more than another way would (``least_g``), or costs
    more than the sauce and than is worth a thought."""
    if one.after is None:
        return False
    adds = one.after.pot.total_g - case.pot.total_g
    floods = adds > max(case.pot.total_g, K.REMEDY_ADDS_MOST * least_g)
    return floods or one.cost > max(case.pot.cost, K.REMEDY_COSTS_LITTLE)


def likely(case: Case) -> list[str]:
    """Signs that the numbers themselves speak for, the worst first."""
    signs = []
    final = case.now.final
    if final.emulsion in ("oily", "split"):
        signs.append("oily-cream")
    grade, wanted = final.thickness.grade, case.grade
    if grade is not None and wanted is not None and grade != wanted:
        order = ["liquid", *(g.key for g in GRADES)]
        thick = order.index(grade) > order.index(wanted)
        signs.append("too-thick" if thick else "too-thin")
    target = case.salt_target_pct
    if target is not None and salt_pct(case.pot.balance) > target + 0.02:
        signs.append("too-salty")
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
            if sign and sign not in signs:
                signs.append(sign)
    return signs
