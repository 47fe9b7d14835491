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
    key = weighed.get("ingredient", _UNSAID.get(str(weighed.get("op"))))
    amount = weighed.get("amount")
    if isinstance(key, str) and key in larder and (text := _typed(amount)):
        try:
            settled = measures.read(text, larder[key])
        except BadInput:
            settled = None
        if settled is not None and settled.value > 0.0:
            weighed["amount"] = written_amount(settled)
    return weighed


def _typed(amount: Any) -> str | None:
    """What was typed for an amount; None for one that is settled already."""
    if isinstance(amount, str):
        return amount
    if not isinstance(amount, Mapping):
        return None
    value, unit = amount.get("value"), amount.get("unit")
    if not isinstance(unit, str) or (isinstance(value, int | float) and unit in UNITS):
        return None
    return f"{value} {unit}" if isinstance(value, str | int | float) else None
