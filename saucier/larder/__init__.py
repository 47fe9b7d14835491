"""The larder: what ingredients are made of, as a kitchen's own editable copy."""

from saucier.larder.ingredient import (
    ALLERGENS,
    ANIMALS,
    BODY_ORIGINS,
    ORIGINS,
    PLANT,
    ROLES,
    UNSAID,
    Ingredient,
    spoken_body_origin,
    spoken_origin,
    spoken_role,
)
from saucier.larder.label import FromLabel, row_from_label
from saucier.larder.larder import Larder, plain_name, shipped_larder, singular
from saucier.larder.measures import Measure, Measures, measure_from_row, shipped_measures
from saucier.larder.row import ingredient_from_row, row_of

__all__ = [
    "ALLERGENS",
    "ANIMALS",
    "BODY_ORIGINS",
    "ORIGINS",
    "PLANT",
    "ROLES",
    "UNSAID",
    "FromLabel",
    "Ingredient",
    "Larder",
    "Measure",
    "Measures",
    "ingredient_from_row",
    "measure_from_row",
    "plain_name",
    "row_from_label",
    "row_of",
    "shipped_larder",
    "shipped_measures",
    "singular",
    "spoken_body_origin",
    "spoken_origin",
    "spoken_role",
]
