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
from saucier.words import Sentence, say

Ways = Callable[[Case], list[Remedy]]


@dataclass(frozen=True, slots=True)
class Sign:
    """What a cook sees or tastes, and the ``ways`` to mend it."""

    key: str
    ways: Ways

    @property
    def name(self) -> Sentence:
        return say(f"sign.{self.key}.name")

    @property
    def why(self) -> Sentence:
        """Why it is so."""
        return say(f"sign.{self.key}.why")

    @property
    def next_time(self) -> Sentence:
        """What to do next time."""
        return say(f"sign.{self.key}.next-time", max_c=K.CHEESE_MAX_C)


SIGNS: tuple[Sign, ...] = (
    Sign("too-thick", too_thick),
    Sign("too-thin", too_thin),
    Sign("lumps", amiss.lumps),
    Sign("raw-flour", amiss.raw_flour),
    Sign("caught", amiss.caught),
    Sign("cheese-stringy", amiss.stringy_cheese),
    Sign("yolk-grains", amiss.yolk_grains),
    Sign("oily-cream", amiss.oily_cream),
    Sign("soft-cream-split", amiss.split_soft_cream),
    Sign("curdled", amiss.curdled),
    Sign("green-dull", amiss.dull_green),
    Sign("grey", amiss.grey),
    Sign("too-salty", too_salty),
    Sign("too-sharp", amiss.too_sharp),
    Sign("flat", amiss.flat),
    Sign("weeps", amiss.weeps),
    Sign("emulsion-split", amiss.emulsion_split),
    Sign("emulsion-tight", amiss.emulsion_tight),
)
_BY_KEY = {sign.key: sign for sign in SIGNS}


def sign_named(key: str) -> Sign:
    """The sign called ``key``. Raises :class:`BadInput` (field ``sign``)."""
    if key not in _BY_KEY:
        raise BadInput.at("sign", "is-not-a-sign", key=key[:40], signs=tuple(_BY_KEY))
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
