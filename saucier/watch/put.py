"""A sheet with what really went in."""

import copy
import re
from collections.abc import Mapping
from typing import Any, NamedTuple

from saucier.errors import BadInput
from saucier.sheet import Sheet, read_sheet
from saucier.steps import Liaison


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


def _holder(document: dict[str, Any], step: int, field: str) -> tuple[Any, Any]:
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
