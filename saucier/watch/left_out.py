"""A sheet with the steps that were left out as it was cooked."""

from collections.abc import Iterable

from saucier.sheet import Sheet
from saucier.steps import LeftOut


def with_left_out(sheet: Sheet, numbers: Iterable[int]) -> Sheet:
    """``sheet`` with the steps of those ``numbers`` left out; all keep their numbers."""
    gone = frozenset(numbers)
    steps = [
        LeftOut(was=step) if number in gone else step for number, step in enumerate(sheet.steps)
    ]
    return sheet.model_copy(update={"steps": tuple(steps)})
