"""Reading amounts and temperatures as they are typed: "1 1/2 cups", "½ l", "250 ml", "80"."""

import math
import re
import unicodedata

from saucier.errors import BadInput
from saucier.units.amount import Amount
from saucier.units.table import BASE_UNIT, UNITS, registry, unit_named
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


def read_amount(text: str, unit: str | None = None) -> Amount:
    """The amount in ``text``; a bare number is taken in ``unit``.

    >>> read_amount("1 1/2 cups")
    Amount(value=1.5, unit='cup')
    >>> read_amount("½ l")
    Amount(value=0.5, unit='L')
    >>> read_amount("80", "g")
    Amount(value=80.0, unit='g')

    Raises :class:`BadInput` for what is no amount, is not above zero, or is absurd.
    """
    value, written = split_amount(text)
    if not written and unit is None:
        raise BadInput.at("", "has-no-unit", shown=text.strip()[:40])
    return checked_amount(value, written or unit or "")


def split_amount(text: str) -> tuple[float, str]:
    """The number in front of ``text`` and the words of its unit, whatever they are.

    >>> split_amount("1 ½ scooped cups")
    (1.5, 'scooped cups')

    Raises :class:`BadInput` where there is no number, or one that can be read two ways.
    """
    shown = text.strip()[:40]
    match = _NUMBER.match(_spelled_out(text[:80]))
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


_IN_WORDS = (
    (re.compile(r"^\s*half an? ", re.IGNORECASE), "1/2 "),
    (re.compile(r"^\s*(?:an?|one) ", re.IGNORECASE), "1 "),
)


def _spelled_out(text: str) -> str:
    """Fraction signs as plain fractions: "1½" becomes "1 1/2"; "a knob" is one."""
    for words, number in _IN_WORDS:
        text = words.sub(number, text)
    return "".join(
        f" {unicodedata.normalize('NFKC', sign)} "
        if unicodedata.decomposition(sign).startswith("<fraction>")
        else sign
        for sign in text
    ).replace("⁄", "/")


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
