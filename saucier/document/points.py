"""Numbers as half the world types them: with a decimal comma."""

import re
from collections.abc import Mapping
from typing import Any

_WORDS = frozenset({"name", "note", "counted", "what", "text"})
"""Fields of words: what looks like a number there is one of their words."""
_COMMA = re.compile(r"\s*[+-]?\d+,\d+\s*")


def with_points(data: Any) -> Any:
    """``data`` with every number typed with a decimal comma, outside fields of words, as with a point.

    >>> with_points({"grams": "180,5", "name": "1,2 or 3", "rows": [{"mm": " 3,5 "}]})
    {'grams': '180.5', 'name': '1,2 or 3', 'rows': [{'mm': ' 3.5 '}]}
    """
    if isinstance(data, str):
        return data.replace(",", ".") if _COMMA.fullmatch(data) else data
    if isinstance(data, Mapping):
        return {key: one if key in _WORDS else with_points(one) for key, one in data.items()}
    if isinstance(data, list | tuple):
        return [with_points(one) for one in data]
    return data
