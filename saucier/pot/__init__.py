"""The pot: what is in it by mass, and how that changes when things go in or boil away."""

from saucier.pot.balance import EMPTY, Balance
from saucier.pot.evaporation import (
    Spirit,
    Spirits,
    alcohol_left,
    boil_off,
    simmered,
    spirits_mixed,
)
from saucier.pot.pieces import Piece, cook_all, rendered
from saucier.pot.pot import Pot, SetAside
from saucier.pot.swelling import Starch, Starches, starches_mixed, swollen

__all__ = [
    "EMPTY",
    "Balance",
    "Piece",
    "Pot",
    "SetAside",
    "Spirit",
    "Spirits",
    "Starch",
    "Starches",
    "alcohol_left",
    "boil_off",
    "cook_all",
    "rendered",
    "simmered",
    "spirits_mixed",
    "starches_mixed",
    "swollen",
]
