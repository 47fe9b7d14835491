"""Fewer of many readings: evenly, the newest always among them."""

from collections.abc import Sequence
from typing import TypeVar

Item = TypeVar("Item")


def thinned(rows: Sequence[Item], most: int) -> list[Item]:
    """At most ``most`` (2 or more) of ``rows`` in order, evenly spread, the first and the last among them.

    >>> thinned([0, 1, 2, 3, 4, 5, 6], 3)
    [0, 3, 6]
    >>> thinned([0, 1], 3)
    [0, 1]
    """
    if len(rows) <= most:
        return list(rows)
    last = len(rows) - 1
    return [rows[round(number * last / (most - 1))] for number in range(most)]
