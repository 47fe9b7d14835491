"""What differs between two sheets, told so that a cook can choose."""

from dataclasses import dataclass
from typing import Any

from saucier.document import amount_field
from saucier.sheet.document import Sheet
from saucier.sheet.reading import write_sheet


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
        return {path: str(amount_field(value).said())}
    if isinstance(value, dict):
        leaves: dict[str, str] = {}
        for key, inner in value.items():
            leaves |= _leaves(inner, f"{path}.{key}" if path else key)
        return leaves
    if isinstance(value, list):
        leaves = {}
        for number, inner in enumerate(value):
            leaves |= _leaves(inner, f"{path}[{number}]")
        return leaves
    return {path: str(value)}
