"""How sure it is: the chance that a pot lands in its grade, what makes the doubt, what mends it."""

from saucier.sure.chance import Chances, chances_of
from saucier.sure.doubts import Doubt, doubts_of
from saucier.sure.panel import DoubtShare, GradeChance, Sure, SurerBy, how_sure
from saucier.sure.surest import Surest, surest
from saucier.sure.variants import Variants

__all__ = [
    "Chances",
    "Doubt",
    "DoubtShare",
    "GradeChance",
    "Sure",
    "SurerBy",
    "Surest",
    "Variants",
    "chances_of",
    "doubts_of",
    "how_sure",
    "surest",
]
