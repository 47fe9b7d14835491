"""How a kitchen writes figures: its degrees, its measures, its decimals. What is computed does not change."""

import re
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, replace
from functools import cache
from string import Formatter
from typing import Any


@dataclass(frozen=True, slots=True)
class Ways:
    """``fahrenheit`` for degrees, ``us`` measures first with metric behind them, a decimal ``comma``,
    the ``tablespoon_ml`` that spoons are told in."""

    fahrenheit: bool = False
    us: bool = False
    comma: bool = False
    tablespoon_ml: float = 15.0


USUAL = Ways()
_ways: ContextVar[Ways] = ContextVar("ways", default=USUAL)


def go_by(ways: Ways) -> None:
    """From here on sentences are said in ``ways``, in this context."""
    _ways.set(ways)


def gone_by() -> Ways:
    """The ways in force in this context."""
    return _ways.get()


@contextmanager
def going_by(ways: Ways) -> Iterator[None]:
    """Sentences said within are said in ``ways``."""
    token = _ways.set(ways)
    try:
        yield
    finally:
        _ways.reset(token)


def filled_in(template: str, facts: Mapping[str, object]) -> str:
    """``template`` with its ``facts``, as the kitchen writes them.

    >>> with going_by(Ways(fahrenheit=True)):
    ...     filled_in("Keep it at {hot_c:.0f} °C", {"hot_c": 60.0})
    'Keep it at 140 °F'
    >>> with going_by(Ways(us=True)):
    ...     filled_in("makes {made_ml:.0f} mL", {"made_ml": 840.0})
    'makes 3 ½ cups (840 mL)'
    """
    ways = _ways.get()
    if ways == USUAL:
        return template.format(**facts)
    return "".join(_piece(piece, facts, ways) for piece in _pieces(template))


@dataclass(frozen=True, slots=True)
class _Piece:
    """Words (``text``), or a fact by ``name`` and ``spec`` with the ``unit`` that stands behind it.
    ``of_range``: one end of a range; the first end has the unit of the second, unsaid (``quiet``)."""

    text: str
    name: str = ""
    spec: str = ""
    unit: str = ""
    of_range: bool = False
    quiet: bool = False


_UNIT = re.compile(r"^ ?(°C|mL|kg|g|L)\b(?!/)(?! in 100)")
_BETWEEN = (" to ", " → ", "→", "–", "-")
"""What stands between the two ends of a range."""
_LITERAL_POINT = re.compile(r"(?<=\d)\.(?=\d)")
_LITERAL_C = re.compile(r"(\d+(?:\.\d+)?)(?:( to | and | or | → |[–→-])(\d+(?:\.\d+)?))? °C")


@cache
def _pieces(template: str) -> tuple[_Piece, ...]:
    """The template taken apart once."""
    found: list[_Piece] = []
    for text, name, spec, _ in Formatter().parse(template):
        if found and found[-1].name and text and (unit := _UNIT.match(text)):
            last = found[-1]
            found[-1] = _Piece("", last.name, last.spec, unit[1])
            text = text[unit.end() :]
        if text:
            found.append(_Piece(text))
        if name is not None:
            found.append(_Piece("", name, spec or ""))
    for at, (low, between, high) in enumerate(zip(found, found[1:], found[2:], strict=False)):
        if low.name and not low.unit and between.text in _BETWEEN and high.unit:
            found[at] = replace(low, unit=high.unit, of_range=True, quiet=True)
            found[at + 2] = replace(high, of_range=True)
    return tuple(found)


def degrees_in(text: str) -> str:
    """``text`` of ours with its degrees as the kitchen writes them.

    >>> with going_by(Ways(fahrenheit=True)):
    ...     degrees_in("63 to 10 °C in 2 h")
    '145 to 50 °F in 2 h'
    """
    return _LITERAL_C.sub(_literal, text) if _ways.get().fahrenheit else text


def _literal(at: re.Match[str]) -> str:
    low, between, high = (at[n] or "" for n in (1, 2, 3))
    ends = f"{_fahrenheit(float(low)):.0f}{between}"
    return f"{ends}{_fahrenheit(float(high)):.0f} °F" if high else f"{ends} °F"


def _piece(piece: _Piece, facts: Mapping[str, object], ways: Ways) -> str:
    if not piece.name:
        words = degrees_in(piece.text)
        return _LITERAL_POINT.sub(",", words) if ways.comma else words
    fact: Any = facts[piece.name]
    number = isinstance(fact, int | float) and not isinstance(fact, bool)
    said = format(fact, piece.spec)
    if not number:
        return f"{said} {piece.unit}" if piece.unit and not piece.quiet else said
    if piece.unit == "°C" and ways.fahrenheit:
        spec = piece.spec if piece.spec.endswith("f") else ".0f"
        warm = _decimal(format(_fahrenheit(fact), spec), ways)
        return warm if piece.quiet else f"{warm} °F"
    unit = "" if piece.quiet else piece.unit
    metric = f"{_decimal(said, ways)} {unit}" if unit else _decimal(said, ways)
    if (
        ways.us
        and not piece.of_range  # half of it in other measures would be read wrongly
        and piece.unit in _IN_BASE
        and (us := us_measure(fact * _IN_BASE[piece.unit], piece.unit))
    ):
        return f"{_decimal(us, ways)} ({metric})"
    return metric


def _fahrenheit(celsius: float) -> float:
    return celsius * 9.0 / 5.0 + 32.0


def _decimal(said: str, ways: Ways) -> str:
    return said.replace(".", ",") if ways.comma else said


_IN_BASE = {"g": 1.0, "kg": 1000.0, "mL": 1.0, "L": 1000.0}
_QUARTERS = ("", "¼", "½", "¾")
_CUP_ML, _FL_OZ_ML, _OZ_G, _LB_G = 240.0, 29.5735, 28.3495, 453.592


def us_measure(base: float, unit: str) -> str:
    """Grams (``unit`` g or kg) or millilitres (mL or L) in US measures; empty where they would be finer
    than those are.

    >>> us_measure(840.0, "mL"), us_measure(100.0, "mL"), us_measure(66.0, "g"), us_measure(4.0, "g")
    ('3 ½ cups', '3 fl oz', '2.3 oz', '')
    """
    if unit in ("g", "kg"):
        if base < 14.0:
            return ""
        return f"{base / _OZ_G:.1f} oz" if base < _LB_G else f"{base / _LB_G:.2f} lb"
    if base < 30.0:
        return ""
    quarters = round(4.0 * base / _CUP_ML)
    if base < 0.9 * _CUP_ML or abs(quarters * _CUP_ML / 4.0 / base - 1.0) > 0.03:
        return f"{base / _FL_OZ_ML:.0f} fl oz" if base < 946.0 else f"{base / 946.353:.2f} qt"
    whole, part = divmod(quarters, 4)
    words = " ".join(word for word in (str(whole) if whole else "", _QUARTERS[part]) if word)
    return f"{words} {'cup' if quarters <= 4 else 'cups'}"
