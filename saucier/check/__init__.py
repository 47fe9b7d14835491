"""Checking a sheet: played step by step, in a pan, with what is vague in it."""

from saucier.check.checked import CheckedSheet, FinalFigures, check
from saucier.check.pan import load_of, pan_of
from saucier.check.prepared import (
    DEFAULT_KITCHEN,
    FLOURED,
    Prepared,
    free_reduction,
    prepare,
    thickening_by,
)
from saucier.check.state import Figures, State, meets_metal

__all__ = [
    "DEFAULT_KITCHEN",
    "FLOURED",
    "CheckedSheet",
    "Figures",
    "FinalFigures",
    "Prepared",
    "State",
    "check",
    "free_reduction",
    "load_of",
    "meets_metal",
    "pan_of",
    "prepare",
    "thickening_by",
]
