"""What differs between two sheets, told so that a cook can choose."""

from dataclasses import dataclass
from typing import Any

from saucier.sheet.document import Sheet
from saucier.sheet.reading import write_sheet
from saucier.steps.base import amount_field


@dataclass(frozen=True, slots=True)
class Difference:
    """One place where two sheets differ; None stands for "not there"."""

    where: str
    theirs: str | None
    yours: str | None


def differences(theirs: Sheet, yours: Sheet) -> list[Difference]:
    """Every place where ``yours`` differs from ``theirs``, in the order of the document.

    Amounts are compared whole, so that a change of unit reads as one difference.
    """
    left, right = _leaves(write_sheet(theirs)), _leaves(write_sheet(yours))
    places = list(dict.fromkeys([*left, *right]))
    return [
        Difference(place, left.get(place), right.get(place))
        for place in places
        if left.get(place) != right.get(place)
    ]


def _leaves(value: Any, path: str = "") -> dict[str, str]:
    if isinstance(value, dict) and {"value", "unit"} <= set(value):
        return {path: str(amount_field(value))}
    if isinstance(value, dict):
        found: dict[str, str] = {}
        for key, inner in value.items():
            found |= _leaves(inner, f"{path}.{key}" if path else key)
        return found
    if isinstance(value, list):
        found = {}
        for number, inner in enumerate(value):
            found |= _leaves(inner, f"{path}[{number}]")
        return found
    return {path: str(value)}
