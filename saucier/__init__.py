"""The computation of Kestrel Fog: what a pot of sauce is, in numbers.

Knows no Django, no HTTP and no screen. SI inside (g, mL, °C, s, Pa·s, W);
cooks' units only at the edge, in :mod:`saucier.units`.
"""

from saucier.check import CheckedSheet, check
from saucier.errors import BadInput, Problem
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet, read_sheet

__all__ = ["BadInput", "CheckedSheet", "Kitchen", "Problem", "Sheet", "check", "read_sheet"]
