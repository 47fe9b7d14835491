"""Thickness: viscosity from the balance, the grade a cook calls it, and how sure that is."""

from saucier.thickness.grades import GRADES, Grade, grade_named, grade_of
from saucier.thickness.spoon import film_mm, spoon_words
from saucier.thickness.viscosity import (
    EMULSION_EDGES,
    Thickness,
    assess,
    mass_at_fat_share,
    raw_viscosity_pa_s,
)

__all__ = [
    "EMULSION_EDGES",
    "GRADES",
    "Grade",
    "Thickness",
    "assess",
    "film_mm",
    "grade_named",
    "grade_of",
    "mass_at_fat_share",
    "raw_viscosity_pa_s",
    "spoon_words",
]
