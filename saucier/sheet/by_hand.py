"""Amounts typed in a kitchen's own measures, settled to weights before a sheet is read."""

from collections.abc import Mapping
from typing import Any

from saucier.document import written_amount
from saucier.errors import BadInput
from saucier.larder import Larder, Measures
from saucier.steps import STEPS
from saucier.units import UNITS

_UNSAID = {
    op: step.model_fields["ingredient"].default
    for op, step in STEPS.items()
    if "ingredient" in step.model_fields
}
"""What a step is about where it does not say: salt, for a seasoning."""


def ingredient_of(holder: Mapping[str, Any]) -> str:
    """The key of the ingredient that a step of a document, or a part of it, has its amount of; empty: of none."""
    key = holder.get("ingredient", _UNSAID.get(str(holder.get("op"))))
    return key if isinstance(key, str) else ""


def with_measures(document: Any, measures: Measures, larder: Larder) -> Any:
    """``document`` (a sheet as parsed JSON) with amounts such as "2 knobs" turned into grams or
    millilitres that say how they were measured, so that the sheet stands by itself.

    Amounts in the sheet's own units, and what cannot be read, are left for the reader.
    """
    if isinstance(document, list):
        return [with_measures(part, measures, larder) for part in document]
    if not isinstance(document, Mapping):
        return document
    weighed = {name: with_measures(part, measures, larder) for name, part in document.items()}
    key = ingredient_of(weighed)
    amount = weighed.get("amount")
    if key in larder and (typed := _typed(amount)):
        try:
            text, unit = typed
            weighed["amount"] = written_amount(measures.read(text, larder[key], unit))
        except BadInput:
            pass  # the reader of the sheet tells it by its field
    return weighed


def _typed(amount: Any) -> tuple[str, str | None] | None:
    """What was typed for an amount, and the unit of a bare number; None for one that is settled already."""
    if isinstance(amount, str):
        return amount, None
    if not isinstance(amount, Mapping):
        return None
    value, unit = amount.get("value"), amount.get("unit")
    if not isinstance(unit, str) or (isinstance(value, int | float) and unit in UNITS):
        return None
    return (str(value), unit) if isinstance(value, str | int | float) else None
