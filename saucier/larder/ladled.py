"""So much of a liquid as it is ladled or spooned, in a kitchen's own ladles."""

import math

from saucier.larder.measures import Measures
from saucier.words import Sentence, say

_SPOON_ML, _SPOONED_MOST_ML = 15.0, 45.0
_QUARTERS = ("", "¼", "½", "¾")
_MOST_QUARTERS = 40


def in_ladles(ml: float, measures: Measures) -> Sentence | None:
    """``ml`` in the ladle that suits it, by quarters; None where there is none.

    >>> from saucier.larder import shipped_measures
    >>> str(in_ladles(180, shipped_measures()))
    '3 small ladles'
    """
    best: Sentence | None = None
    error = math.inf
    if ml <= 0.0:  # all of it is kept back
        return None
    for measure in measures.ladles():
        quarters = max(1, round(4.0 * ml / measure.size))
        if quarters > _MOST_QUARTERS or (quarters < 2 and best):
            continue
        off = abs(quarters * measure.size / 4.0 - ml) / ml
        # Whole ladles rather than parts, few rather than many.
        off += 0.02 * (quarters % 4 != 0) + 0.00125 * quarters
        if off < error - 1e-9:
            best = say(
                "ladles" if quarters > 4 else "one-ladle",
                count=_in_quarters(quarters),
                name=measure.name,
            )
            error = off
    return best


def ladled(ml: float, measures: Measures) -> Sentence:
    """``ml`` as it is taken from a pot: by the spoon where that is little, else by the ladle.

    >>> from saucier.larder import shipped_measures
    >>> str(ladled(19, shipped_measures())), str(ladled(120, shipped_measures()))
    ('1 ¼ tablespoons', '1 ladle')
    """
    by_ladle = in_ladles(ml, measures) if ml >= _SPOONED_MOST_ML else None
    if by_ladle is not None:
        return by_ladle
    quarters = max(1, round(4.0 * ml / _SPOON_ML))
    return say("spoonfuls" if quarters > 4 else "spoonful", count=_in_quarters(quarters))


def _in_quarters(quarters: int) -> str:
    whole, rest = divmod(quarters, 4)
    return " ".join(part for part in (str(whole) if whole else "", _QUARTERS[rest]) if part)
