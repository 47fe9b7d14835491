"""What becomes of a sauce after the flame: how it waits, cools, keeps, the rules for that, the label it gets."""

from saucier.keeping.cooling import (
    Cooling,
    CurvePoint,
    Place,
    StageMet,
    cool,
    matter_of,
    place_named,
    places,
)
from saucier.keeping.facts import CoolingFacts, CoolingReading, StageFact, Verdict, cooling_facts
from saucier.keeping.forecast import (
    Expected,
    Forecast,
    StageForecast,
    expected_of,
    forecast,
    put_away_at,
)
from saucier.keeping.holding import Held, HoldingHot, ProbeRead, cooled_c, held, held_hot
from saucier.keeping.label import LINE, ColdBy, Label, lines_of, use_by
from saucier.keeping.rules import USUAL, Rules, Stage, read_rules, shipped_rules
from saucier.keeping.shelf_life import Keeps, freezing, keeps, made_for_its_service
from saucier.keeping.slab import Face, Lumped, Matter, Moved, Slab
from saucier.keeping.standing import Standing, stands_hot

__all__ = [
    "LINE",
    "USUAL",
    "ColdBy",
    "Cooling",
    "CoolingFacts",
    "CoolingReading",
    "CurvePoint",
    "Expected",
    "Face",
    "Forecast",
    "Held",
    "HoldingHot",
    "Keeps",
    "Label",
    "Lumped",
    "Matter",
    "Moved",
    "Place",
    "ProbeRead",
    "Rules",
    "Slab",
    "Stage",
    "StageFact",
    "StageForecast",
    "StageMet",
    "Standing",
    "Verdict",
    "cool",
    "cooled_c",
    "cooling_facts",
    "expected_of",
    "forecast",
    "freezing",
    "held",
    "held_hot",
    "keeps",
    "lines_of",
    "made_for_its_service",
    "matter_of",
    "place_named",
    "places",
    "put_away_at",
    "read_rules",
    "shipped_rules",
    "stands_hot",
    "use_by",
]
