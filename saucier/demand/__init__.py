"""Demand: how much sauce a use asks for, with the arithmetic on show (domain.md)."""

from saucier.demand.need import FILM_ML, Need, need_for, with_serves
from saucier.demand.uses import USES, Use, use_named

__all__ = ["FILM_ML", "USES", "Need", "Use", "need_for", "use_named", "with_serves"]
