"""The sauce sheet: the open format everything else speaks (docs/formats)."""

from saucier.sheet.by_hand import ingredient_of, with_measures
from saucier.sheet.differences import Difference, differences
from saucier.sheet.document import Cover, Serves, Sheet, Target
from saucier.sheet.reading import (
    MAX_BYTES,
    json_schema,
    parse_json,
    read_part,
    read_sheet,
    write_sheet,
)
from saucier.steps import SheetBurner, SheetPan

__all__ = [
    "MAX_BYTES",
    "Cover",
    "Difference",
    "Serves",
    "Sheet",
    "SheetBurner",
    "SheetPan",
    "Target",
    "differences",
    "ingredient_of",
    "json_schema",
    "parse_json",
    "read_part",
    "read_sheet",
    "with_measures",
    "write_sheet",
]
