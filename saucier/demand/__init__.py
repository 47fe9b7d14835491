"""Demand: how much sauce a use asks for, with the arithmetic on show."""

from saucier.demand.need import Enough, Need, enough_for, need_for, with_serves
from saucier.demand.uses import PASTA_BASIS, USES, SauceUse, use_named

__all__ = [
    "PASTA_BASIS",
    "USES",
    "Enough",
    "Need",
    "SauceUse",
    "enough_for",
    "need_for",
    "use_named",
    "with_serves",
]
