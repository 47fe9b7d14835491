"""An amount in an open document: value and unit, or text such as "1 1/2 cups"."""

from typing import Annotated, Any

from pydantic import PlainSerializer, PlainValidator, WithJsonSchema

from saucier.errors import BadInput
from saucier.units import UNITS, Amount, MeasuredBy, read_amount
from saucier.units.reading import checked_amount


def amount_field(value: Any) -> Amount:
    """An amount from a document: text, or value and unit, where the value may be text too.
    Raises :class:`BadInput`."""
    if isinstance(value, Amount):
        return value
    if isinstance(value, str):
        return read_amount(value)
    if isinstance(value, dict):
        odd = sorted(set(value) - {"value", "unit", "measure"})
        if odd:
            raise BadInput.at(str(odd[0])[:40], "is-not-part-of-an-amount")
        number, unit = value.get("value"), value.get("unit")
        by = None if value.get("measure") is None else _measured_by(value["measure"])
        if not isinstance(unit, str):
            raise BadInput.at("unit", "unit-is-missing", units=tuple(UNITS))
        if isinstance(number, str):
            try:
                return read_amount(number, unit)
            except BadInput as bad:
                raise (
                    BadInput(*bad.problems) if bad.problems[0].field else bad.under("value")
                ) from None
        if isinstance(number, bool) or not isinstance(number, int | float):
            raise BadInput.at("value", "is-not-a-number-give-a")
        try:
            amount = checked_amount(float(number), unit)
            return Amount(amount.value, amount.unit, by) if by else amount
        except OverflowError:
            raise BadInput.at("value", "is-far-too-large") from None
    raise BadInput.at("", "is-not-an-amount")


def _measured_by(value: Any) -> MeasuredBy:
    """How an amount is measured by hand. Raises :class:`BadInput` under ``measure``."""
    if not isinstance(value, dict) or set(value) != {"name", "count", "spread_pct"}:
        raise BadInput.at("measure", "is-not-a-measure")
    name, count, spread = value["name"], value["count"], value["spread_pct"]
    numbers = all(
        isinstance(one, int | float) and not isinstance(one, bool) for one in (count, spread)
    )
    if not (isinstance(name, str) and 1 <= len(name) <= 40 and numbers):
        raise BadInput.at("measure", "is-not-a-measure")
    if not (0 < count <= 100_000 and 0 <= spread <= 100):
        raise BadInput.at("measure", "is-out-of-reach-a-count")
    return MeasuredBy(name, float(count), spread / 100.0)


def written_amount(amount: Amount) -> dict[str, Any]:
    """``amount`` as the sheet writes it."""
    written: dict[str, Any] = {"value": amount.value, "unit": amount.unit}
    if by := amount.measure:
        written["measure"] = {
            "name": by.name,
            "count": by.count,
            "spread_pct": round(100.0 * by.spread, 6),
        }
    return written


AmountField = Annotated[
    Amount,
    PlainValidator(amount_field),
    PlainSerializer(written_amount),
    WithJsonSchema(
        {
            "title": "Amount",
            "type": "object",
            "required": ["value", "unit"],
            "additionalProperties": False,
            "properties": {
                "value": {"type": "number", "exclusiveMinimum": 0},
                "unit": {"enum": list(UNITS)},
                "measure": {
                    "title": "Measured by hand",
                    "type": "object",
                    "required": ["name", "count", "spread_pct"],
                    "additionalProperties": False,
                    "properties": {
                        "name": {"type": "string", "minLength": 1, "maxLength": 40},
                        "count": {"type": "number", "exclusiveMinimum": 0},
                        "spread_pct": {"type": "number", "minimum": 0, "maximum": 100},
                    },
                },
            },
        }
    ),
]
"""An amount in the sheet; text such as "1 1/2 cups" is read too."""
