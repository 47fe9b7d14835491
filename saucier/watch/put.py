"""A sheet with what really went in."""

import copy
import re
from collections.abc import Mapping
from typing import Any, NamedTuple

from saucier.check import hand_spread
from saucier.document.amount import amount_field
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet, ingredient_of, read_sheet
from saucier.steps import Liaison
from saucier.units import Dimension, is_nothing, read_amount


class PutIn(NamedTuple):
    """``grams`` that went in; ``spread``: the standard share by which that is off (0: weighed)."""

    grams: float
    spread: float = 0.0


Puts = Mapping[tuple[int, str], PutIn]
"""What went in, by step and by the path of the amount in that step."""
MOST_G = 200_000.0


def as_put(document: Mapping[str, Any], puts: Puts) -> Sheet:
    """The sheet of ``document`` with ``puts`` for what it says there. Raises :class:`BadInput` (field
    ``grams`` or ``field``)."""
    made = copy.deepcopy(dict(document))
    for (step, field), (grams, spread) in puts.items():
        if not 0.0 <= grams <= MOST_G:
            raise BadInput.at("grams", "put-is-out-of-reach", most=MOST_G / 1000.0)
        holder, last = _holder(made, step, field)
        holder[last] = {"value": max(grams, 1e-6), "unit": "g"}
        if spread > 0.0:
            by_hand = {"name": "g", "count": max(grams, 1e-6), "spread_pct": 100.0 * spread}
            holder[last]["measure"] = by_hand
    return read_sheet(made)


_TIMES, _MORE_G = 4.0, 50.0
_PART, _FROM_G = 0.05, 20.0
_WHOLE_FROM_G = 20.0


def put_as_typed(
    document: Mapping[str, Any], step: int, field: str, text: str, unit: str, kitchen: Kitchen
) -> PutIn:
    """What went in as ``field`` of ``step`` of a sheet, as a cook types it: "80 mL", "half a cup", "3 ladles", "about
    350 g"; a bare number is of ``unit``, "0" and "nothing" are none of it.

    >>> from saucier.check import DEFAULT_KITCHEN
    >>> from saucier.testing import CHEESE_SAUCE
    >>> put_as_typed(CHEESE_SAUCE, 1, "amount", "3 ladles", "mL", DEFAULT_KITCHEN)
    PutIn(grams=371.0, spread=0.08)

    Raises :class:`BadInput` (field ``amount``, or ``field`` where nothing goes in there).
    """
    holder, _ = _holder(document, step, field)
    if is_nothing(text):
        return PutIn(0.0)
    key = ingredient_of(holder)
    try:
        if key in kitchen.larder:
            row = kitchen.larder[key]
            amount = kitchen.measures.read(text, row, unit or None)
            return PutIn(_as_weighed(row.grams(amount)), hand_spread(amount, row.role))
        amount = read_amount(text, unit or None)
        if amount.dimension is Dimension.COUNT:
            raise BadInput.at("unit", "another-sauce-in-pieces")
    except BadInput as bad:
        raise bad.under("amount") from None
    return PutIn(
        round(amount.base, 1), hand_spread(amount, "")
    )  # of another sauce a mL is about a gram


def _as_weighed(grams: float) -> float:
    """Grams as a scale would have them: nobody means a tenth of what was measured otherwise."""
    return round(grams, 1 if grams < _WHOLE_FROM_G else 0)


def check_put(
    document: Mapping[str, Any],
    step: int,
    field: str,
    grams: float,
    kitchen: Kitchen,
    most_g: float,
) -> None:
    """Asks back where so much can hardly have gone in: several times what the sheet says, next to nothing of it, or
    more than the pan holds (``most_g``, g). Raises :class:`BadInput` (field ``amount``, code ``put-is-meant``)."""
    holder, last = _holder(document, step, field)
    key = ingredient_of(holder)
    planned_g = 0.0
    try:
        if key in kitchen.larder:
            planned_g = kitchen.larder[key].grams(amount_field(holder[last]))
    except BadInput:
        pass  # a share, or all there is
    if grams > most_g:
        raise BadInput.at("amount", "put-beyond-pan-is-meant", grams=grams, most_g=most_g)
    if not planned_g or grams == 0.0:
        return
    if grams > _TIMES * planned_g + _MORE_G or (planned_g > _FROM_G and grams < _PART * planned_g):
        raise BadInput.at("amount", "put-is-meant", grams=grams, planned_g=planned_g)


def heated_as_read(sheet: Sheet, hottest_c: Mapping[int, float]) -> Sheet:
    """``sheet`` with each liaison warmed as far as a probe read it, by the number of its step: what was read wins
    over what was meant."""
    steps = tuple(
        step.model_copy(update={"probed_c": hottest_c[number]})
        if isinstance(step, Liaison) and number in hottest_c
        else step
        for number, step in enumerate(sheet.steps)
    )
    return sheet if steps == sheet.steps else sheet.model_copy(update={"steps": steps})


def _holder(document: Mapping[str, Any], step: int, field: str) -> tuple[Any, Any]:
    """What holds the amount at ``field`` of ``step``, and its key there."""
    try:
        at: Any = document["steps"][step]
        parts: list[Any] = [int(p) if p.isdigit() else p for p in re.findall(r"\w[\w-]*", field)]
        for part in parts[:-1]:
            at = at[part]
        there = at[parts[-1]]
    except (KeyError, IndexError, TypeError):
        there = None
    if not isinstance(there, dict) and not isinstance(there, str):
        raise BadInput.at("field", "nothing-goes-in-there", field=field)
    return at, parts[-1]
