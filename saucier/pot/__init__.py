"""The pot: what is in it by mass, and how that changes when things go in or boil away."""

from saucier.pot.balance import EMPTY, Balance
from saucier.pot.evaporation import alcohol_left, boil_off
from saucier.pot.pieces import Piece, cook_all, rendered
from saucier.pot.pot import Pot, SetAside

__all__ = [
    "EMPTY",
    "Balance",
    "Piece",
    "Pot",
    "SetAside",
    "alcohol_left",
    "boil_off",
    "cook_all",
    "rendered",
]
