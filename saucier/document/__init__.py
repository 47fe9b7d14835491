"""What all open documents share: sheets of sauces, dishes and services are made of these."""

from saucier.document.amount import AmountField, amount_field, written_amount
from saucier.document.part import Celsius, IngredientKey, Minutes, Part, Percent, no_bool
from saucier.document.points import with_points

__all__ = [
    "AmountField",
    "Celsius",
    "IngredientKey",
    "Minutes",
    "Part",
    "Percent",
    "amount_field",
    "no_bool",
    "with_points",
    "written_amount",
]
