"""How much went in where nobody weighed it: the jug before and after, one weighing, or the level."""

import math
import re
from dataclasses import dataclass
from typing import Literal

from saucier import constants as K
from saucier.check import CheckedSheet
from saucier.errors import BadInput
from saucier.pot import Pot
from saucier.units import Dimension, is_nothing, read_amount
from saucier.watch.put import PutIn

How = Literal["jug", "scale", "level"]
_LENGTH = re.compile(r"\s*(\d+(?:[.,]\d+)?)\s*(mm|cm|)\s*", re.IGNORECASE)


def read_told(how: How, text: str, field: str) -> float:
    """What is typed of the jug (mL), the scale (g) or the level (mm), as it is written: "half a litre", "1.2 kg", "4 cm".
    Nothing is 0: the jug is empty. Raises :class:`BadInput` (``field``).

    >>> read_told("jug", "half a litre", "before"), read_told("level", "4 cm", "after")
    (500.0, 40.0)
    """
    if not text.strip() or is_nothing(text):
        return 0.0
    if how == "level":
        length = _LENGTH.fullmatch(text)
        if length is None:
            raise BadInput.at(field, "is-no-length", shown=text.strip()[:40])
        return float(length[1].replace(",", ".")) * (10.0 if length[2].lower() == "cm" else 1.0)
    unit, dimension = ("mL", Dimension.VOLUME) if how == "jug" else ("g", Dimension.WEIGHT)
    try:
        amount = read_amount(text, unit)
    except BadInput as bad:
        raise bad.all_at(field) from None
    if amount.dimension is not dimension:
        raise BadInput.at(field, f"{how}-is-told-in", shown=text.strip()[:40])
    return amount.base


@dataclass(frozen=True, slots=True)
class Poured:
    """How what went in can be told: a ``jug`` that held ``before`` and holds ``after``, mL; the ``scale``
    that reads ``after`` with the pot on it, g; the ``level`` the pot stands at ``after`` it, mm."""

    how: How
    after: float
    before: float = 0.0


def poured(
    checked: CheckedSheet, number: int, field: str, before: Pot, told: Poured, tare_g: float
) -> PutIn:
    """What went in as ``field`` of step ``number``, by what is ``told`` of it. ``before``: the pot the step
    began with; ``tare_g`` of its pan. Raises :class:`BadInput` where that cannot be told so.

    >>> from saucier.testing import add, roux, sheet
    >>> from saucier.check import check
    >>> white = check(sheet(roux(60, 60), add("milk-whole", 1, "L")))
    >>> roux_pot = white.steps[0].pot
    >>> round(poured(white, 1, "amount", roux_pot, Poured("jug", 200.0, 1000.0), 0.0).grams)
    824
    >>> round(poured(white, 1, "amount", roux_pot, Poured("scale", 1750.0), 800.0).grams)
    830
    """
    if not all(math.isfinite(one) and 0.0 <= one <= 200_000.0 for one in (told.after, told.before)):
        raise BadInput.at("after", "poured-is-out-of-reach")
    step, setting = checked.sheet.steps[number], checked.settings[number]
    weighed = {one.field: one for one in step.to_weigh(setting)}
    if field not in weighed:
        raise BadInput.at("field", "nothing-goes-in-there", field=field[:60])
    row = setting.kitchen.larder[weighed[field].ingredient]
    others = [one for key, one in weighed.items() if key != field]
    if told.how == "jug":
        if told.after > told.before:
            raise BadInput.at("after", "jug-is-fuller", before=told.before)
        grams = (told.before - told.after) * row.density
        off = K.JUG_OFF_ML * row.density
    elif told.how == "scale":
        if not tare_g:
            raise BadInput.at("after", "pan-weight-is-not-known")
        grams = told.after - tare_g - before.total_g - sum(one.grams for one in others)
        off = math.hypot(K.TARE_SPREAD_G, K.POURED_SPREAD * before.total_g)
    else:
        pan = checked.pan
        low, level, high = (
            pan.volume_ml(mm)
            for mm in (told.after - K.LEVEL_OFF_MM, told.after, told.after + K.LEVEL_OFF_MM)
        )
        larder = setting.kitchen.larder
        beside = sum(one.grams / larder[one.ingredient].density for one in others)
        planned = checked.steps[number - 1].pot if number else Pot()
        takes_ml = checked.steps[number].pot.total_ml - planned.total_ml - beside
        g_per_ml = weighed[field].grams / takes_ml if takes_ml > 0.0 else row.density
        grams = (level - before.total_ml - beside) * g_per_ml
        off = math.hypot(0.5 * (high - low), K.EYE_OFF_SHARE * level) * g_per_ml
    if grams <= 0.0:
        raise BadInput.at("after", "less-than-was-there", how=told.how)
    return PutIn(round(grams, 1), min(1.0, off / grams))
