"""What becomes of a sauce after the flame: how it waits, cools, keeps, the rules for that, the label it gets."""

from saucier.keeping.cooling import (
    Cooling,
    CoolingSeen,
    CurvePoint,
    Place,
    StageMet,
    cool,
    matter_of,
    place_named,
    places,
    seen_cooling,
)
from saucier.keeping.holding import Held, HoldingHot, cooled_c, held, held_hot
from saucier.keeping.label import LINE, Label, lines_of, use_by
from saucier.keeping.rules import USUAL, Rules, Stage, read_rules, shipped_rules
from saucier.keeping.shelf_life import Keeps, freezing, keeps
from saucier.keeping.slab import Face, Lumped, Matter, Moved, Slab

__all__ = [
    "LINE",
    "USUAL",
    "Cooling",
    "CoolingSeen",
    "CurvePoint",
    "Face",
    "Held",
    "HoldingHot",
    "Keeps",
    "Label",
    "Lumped",
    "Matter",
    "Moved",
    "Place",
    "Rules",
    "Slab",
    "Stage",
    "StageMet",
    "cool",
    "cooled_c",
    "freezing",
    "held",
    "held_hot",
    "keeps",
    "lines_of",
    "matter_of",
    "place_named",
    "places",
    "read_rules",
    "seen_cooling",
    "shipped_rules",
    "use_by",
]
