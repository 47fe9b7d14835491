"""Checking a sheet: played step by step, in a pan, with what is vague in it."""

from saucier.check.checked import CheckedSheet, FinalFigures, check
from saucier.check.earned import model_spread_of, thickeners_of
from saucier.check.inside import PotInside, keys_inside, pots_inside
from saucier.check.prepared import DEFAULT_KITCHEN, Prepared, larder_of, prepare
from saucier.check.state import Figures, State, meets_metal
from saucier.check.vague import hand_spread

__all__ = [
    "DEFAULT_KITCHEN",
    "CheckedSheet",
    "Figures",
    "FinalFigures",
    "PotInside",
    "Prepared",
    "State",
    "check",
    "hand_spread",
    "keys_inside",
    "larder_of",
    "meets_metal",
    "model_spread_of",
    "pots_inside",
    "prepare",
    "thickeners_of",
]
