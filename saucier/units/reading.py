"""Reading amounts and temperatures as they are typed: "1 1/2 cups", "half a cup", "about 350 g", "80"."""

import math
import re
from collections.abc import Callable
from dataclasses import replace

from saucier.errors import BadInput
from saucier.units.amount import Amount, MeasuredBy
from saucier.units.spelled import in_figures, without_about
from saucier.units.table import BASE_UNIT, SPOONS, UNITS, registry, unit_named
from saucier.words import gone_by

LARGEST_BASE = 1_000_000.0
"""A tonne, a thousand litres, a million pieces: more than any kitchen this is for."""

_NUMBER = re.compile(
    r"""^\s*(?:
      (?P<whole>\d+(?:[.,]\d+)?)(?:[\s-]+(?:and\s+)?(?P<num>\d+)/(?P<den>\d+))?(?![\d/.,])
      | (?P<num1>\d+)/(?P<den1>\d+)
    )\s*(?P<unit>[^\d/].*)?$""",
    re.VERBOSE | re.IGNORECASE,
)


ABOUT_SPREAD = 0.10
"""What is "about" so much is off by this standard share. An estimate."""
_RANGE = re.compile(
    r"^\s*(?P<low>\d+(?:[.,]\d+)?)\s*(?:-|–|to|or)\s*(?P<high>\d+(?:[.,]\d+)?)(?![\d/.,])(?P<unit>.*)$"
)
_PLUS = re.compile(r"\s*(?:\+|&|\bplus\b|\band\b)\s*", re.IGNORECASE)
_THEN = re.compile(r"(?<=[a-z.])\s+(?=\d)", re.IGNORECASE)
"""Between the parts of "1 lb 4 oz": of units alone, for "1 tin 400 g" is one amount."""
_NOTHING = re.compile(r"\s*(?:0+(?:[.,]0*)?\s*[a-z]*|nothing|none)\s*", re.IGNORECASE)
_MOST_PARTS = 3
Measured = Callable[[float, str], Amount | None]
"""An amount of so many of a kitchen's own measures by their name; None where it has none of that name."""


def is_nothing(text: str) -> bool:
    """Whether ``text`` says that it is none at all.

    >>> [is_nothing(text) for text in ("0 mL", "nothing", "0.9", "")]
    [True, True, False, False]
    """
    return _NOTHING.fullmatch(text) is not None


def read_amount(text: str, unit: str | None = None, measured: Measured | None = None) -> Amount:
    """The amount in ``text``; a bare number is taken in ``unit``. ``measured`` reads a kitchen's own measures, which
    go before the units.

    >>> read_amount("1 1/2 cups")
    Amount(value=1.5, unit='cup')
    >>> read_amount("two thirds of a cup").base
    160.0
    >>> read_amount("80", "g")
    Amount(value=80.0, unit='g')
    >>> read_amount("about 350 g")
    Amount(value=350.0, unit='g', measure=MeasuredBy(name='g', count=350.0, spread=0.1))
    >>> read_amount("1 cup + 1 tbsp").base
    255.0

    Raises :class:`BadInput` for what is no amount, is not above zero, or is absurd.
    """
    bare, about = without_about(text[:80])
    spread = ABOUT_SPREAD if about else 0.0
    if between := _RANGE.match(bare):
        low, high = (float(between[end].replace(",", ".")) for end in ("low", "high"))
        if 0.0 < low < high:
            bare = f"{0.5 * (low + high):g}{between['unit']}"
            spread = math.hypot(spread, 0.5 * (high - low) / (low + high))
    try:
        amount = _one_amount(bare, unit, measured)
    except BadInput:
        in_parts = _in_parts(bare, measured)
        if in_parts is None:
            raise
        amount = in_parts
    return _spread_wider(amount, spread) if spread else amount


def _in_parts(text: str, measured: Measured | None) -> Amount | None:
    """The amount in "1 cup + 1 tbsp" or "1 lb 4 oz"; None where it has no parts."""
    for between, reader in ((_PLUS, measured), (_THEN, None)):
        parts = [part for part in between.split(text) if part.strip()]
        if 1 < len(parts) <= _MOST_PARTS and all(_has_unit(part) for part in parts):
            return _sum([_one_amount(part, None, reader) for part in parts], text)
    return None


def _one_amount(text: str, unit: str | None, measured: Measured | None) -> Amount:
    value, written = split_amount(in_figures(text, alone=True))
    name = written.removeprefix("of ") or unit
    if name is None:
        raise BadInput.at("", "has-no-unit", shown=text.strip()[:40])
    if measured and value > 0.0 and (by_hand := measured(value, name)):
        return by_hand
    return checked_amount(value, name)


def _has_unit(part: str) -> bool:
    try:
        return bool(split_amount(in_figures(part, alone=True))[1])
    except BadInput:
        return False


def _sum(parts: list[Amount], text: str) -> Amount:
    """Amounts of one kind together, in the unit of the first. Raises :class:`BadInput` where they are of two."""
    first = parts[0]
    if len({(part.dimension, part.unit in SPOONS) for part in parts}) > 1:
        raise BadInput.at("", "parts-do-not-add", shown=text.strip()[:40])
    base = sum(part.base for part in parts)
    whole = Amount(round(base / first.definition.size, 9), first.unit)
    off = math.sqrt(sum((part.base * part.measure.spread) ** 2 for part in parts if part.measure))
    return _spread_wider(whole, off / base) if off else whole


def _spread_wider(amount: Amount, spread: float) -> Amount:
    """``amount``, off by a standard share of ``spread`` besides what its measure is."""
    by = amount.measure or MeasuredBy(amount.unit, amount.value, 0.0)
    return replace(amount, measure=replace(by, spread=round(math.hypot(by.spread, spread), 4)))


def split_amount(text: str) -> tuple[float, str]:
    """The number in front of ``text`` and the words of its unit, whatever they are.

    >>> split_amount("1 ½ scooped cups")
    (1.5, 'scooped cups')

    Raises :class:`BadInput` where there is no number, or one that can be read two ways.
    """
    shown = text.strip()[:40]
    match = _NUMBER.match(in_figures(text[:80]))
    if not match:
        if shown.startswith(("-", "−")):
            raise BadInput.at("", "is-written-below-zero", shown=shown)
        raise BadInput.at("", "is-no-amount", shown=shown)
    whole = match["whole"] or "0"
    # In a kitchen that writes decimals with a comma there is one way to read it.
    if re.fullmatch(r"[1-9]\d{0,2},\d{3}", whole) and not gone_by().comma:
        raise BadInput.at(
            "",
            "can-be-read-two-ways",
            shown=shown,
            either=whole.replace(",", ""),
            other=whole.replace(",", "."),
        )
    value = float(whole.replace(",", "."))
    over, under = match["num"] or match["num1"], match["den"] or match["den1"]
    if under is not None:
        if int(under) == 0:
            raise BadInput.at("", "divides-by-zero", shown=shown)
        value += int(over) / int(under)
    return value, (match["unit"] or "").strip()


def checked_amount(value: float, unit: str) -> Amount:
    """``value`` of ``unit`` with the unit in its usual spelling, refused when not finite, not
    above zero or absurdly large. Raises :class:`BadInput`.

    >>> checked_amount(2, 'cups')
    Amount(value=2, unit='cup')
    """
    if not math.isfinite(value):
        raise BadInput.at("value", "is-no-number")
    if value <= 0:
        raise BadInput.at("value", "is-not-more-than-zero", value=value)
    definition = unit_named(unit)
    if value * definition.size > LARGEST_BASE:
        raise BadInput.at(
            "value",
            "is-more-than-any-pot-holds",
            value=value,
            unit=definition.name,
        )
    if definition.name not in UNITS:  # a decilitre: known, but the sheet writes it as mL
        return Amount(value * definition.size, BASE_UNIT[definition.dimension])
    return Amount(value, definition.name)


def read_temperature_c(text: str) -> float:
    """A temperature in °C from "65", "65 °C" or "150 F".

    >>> read_temperature_c("150 F")
    65.56

    Raises :class:`BadInput` when it is not a temperature.
    """
    match = re.match(r"^\s*([-−]?\d+(?:[.,]\d+)?)\s*°?\s*([CFcf])?\s*$", text)
    if not match:
        raise BadInput.at("", "is-not-a-temperature", shown=text.strip()[:40])
    value = float(match[1].replace(",", ".").replace("−", "-"))
    if (match[2] or "C").upper() == "C":
        return value
    quantity = registry().Quantity(value, "degF").to("degC")
    return round(float(quantity.magnitude), 2)
