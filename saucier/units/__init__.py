"""Cooks' units at the edge: reading "1 1/2 cups", spoons and ladles, °C and °F.

Inside the core everything is a bare float in g, mL or °C with the unit in its name. pint is
loaded only when text has to be read or an unusual unit turned, so that a check of an
ordinary sheet pays nothing for it.
"""

from saucier.units.amount import Amount, MeasuredBy
from saucier.units.reading import is_nothing, read_amount, read_temperature_c
from saucier.units.rounding import kitchen_round, kitchen_step
from saucier.units.table import SPOONS, UNITS, Dimension, unit_named

__all__ = [
    "SPOONS",
    "UNITS",
    "Amount",
    "Dimension",
    "MeasuredBy",
    "is_nothing",
    "kitchen_round",
    "kitchen_step",
    "read_amount",
    "read_temperature_c",
    "unit_named",
]
