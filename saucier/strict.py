"""JSON in strict reading: what is not plain data of a sane size is refused before anything looks at it."""

import json
import math
import re
from typing import Any, NoReturn

from saucier.errors import BadInput

MOST_NESTED = 60
"""Brackets within brackets: the deepest sheet, three sauces inside each other, has a third of it."""
_MOST_DIGITS = 18
"""Whole numbers of more digits fit neither a database nor any kitchen."""
_NO_CHARACTER = re.compile("[\\x00\\ud800-\\udfff]")
_ESCAPED = re.compile(r"\\u(?:0000|[dD][89a-fA-F])")
_BRACKETS = re.compile(r'"(?:[^"\\]|\\.)*"|[\[{]|[\]}]', re.DOTALL)


def load(text: str | bytes) -> Any:
    """What the JSON ``text`` (bytes: UTF-8) holds.

    Raises :class:`BadInput` (no field) for what is no JSON or not UTF-8, NaN and infinities, numbers beyond
    any, halves of characters, and brackets more than :data:`MOST_NESTED` deep.

    >>> load('{"grams": 60}')
    {'grams': 60}
    """
    try:
        plain = text.decode("utf-8-sig") if isinstance(text, bytes) else text
    except UnicodeDecodeError:
        raise BadInput.at("", "is-not-utf-8") from None
    if plain.count("[") + plain.count("{") > MOST_NESTED and _depth(plain) > MOST_NESTED:
        raise BadInput.at("", "is-nested-too-deeply", most=MOST_NESTED)
    try:
        data = json.loads(
            plain, parse_constant=_no_constant, parse_float=_float, parse_int=_whole_number
        )
    except json.JSONDecodeError as bad_json:
        raise BadInput.at(
            "",
            "is-not-json",
            line=bad_json.lineno,
            column=bad_json.colno,
            why=bad_json.msg,
        ) from None
    if _NO_CHARACTER.search(plain) or (_ESCAPED.search(plain) and not _is_text(data)):
        raise BadInput.at("", "holds-no-character")
    return data


def _depth(text: str) -> int:
    """How deep the brackets of ``text`` go, strings aside."""
    depth = deepest = 0
    for found in _BRACKETS.finditer(text):
        mark = found[0]
        if mark in "[{":
            depth += 1
            deepest = max(deepest, depth)
        elif mark in "]}":
            depth -= 1
    return deepest


def _is_text(data: Any) -> bool:
    """Whether every word in ``data`` is made of whole characters."""
    if isinstance(data, str):
        return _NO_CHARACTER.search(data) is None
    if isinstance(data, dict):
        return all(_is_text(key) and _is_text(value) for key, value in data.items())
    return not isinstance(data, list) or all(_is_text(one) for one in data)


def _no_constant(name: str) -> NoReturn:
    raise BadInput.at("", "is-not-finite", name=name)


def _float(digits: str) -> float:
    number = float(digits)
    if math.isinf(number):
        raise BadInput.at("", "is-beyond-numbers", digits=digits[:20])
    return number


def _whole_number(digits: str) -> int:
    if len(digits.lstrip("-")) > _MOST_DIGITS:
        raise BadInput.at("", "is-beyond-numbers", digits=digits[:20])
    return int(digits)
