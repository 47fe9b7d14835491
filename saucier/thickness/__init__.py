"""Thickness: viscosity from the balance, the grade a cook calls it, and how sure that is."""

from saucier.thickness.formula import at_temperature
from saucier.thickness.grades import (
    GRADES,
    LIQUID,
    THIN,
    Grade,
    grade_named,
    grade_of,
    spoken_grade,
)
from saucier.thickness.spoon import film_mm, spoon_words
from saucier.thickness.viscosity import (
    EMULSION_EDGES,
    MODEL_SPREAD,
    TURNED,
    Thickness,
    assess,
    log_excess,
    log_viscosity_of,
    mass_at_fat_share,
    raw_viscosity_of,
    raw_viscosity_pa_s,
    thickness_now,
    thickness_of,
)

__all__ = [
    "EMULSION_EDGES",
    "GRADES",
    "LIQUID",
    "MODEL_SPREAD",
    "THIN",
    "TURNED",
    "Grade",
    "Thickness",
    "assess",
    "at_temperature",
    "film_mm",
    "grade_named",
    "grade_of",
    "log_excess",
    "log_viscosity_of",
    "mass_at_fat_share",
    "raw_viscosity_of",
    "raw_viscosity_pa_s",
    "spoken_grade",
    "spoon_words",
    "thickness_now",
    "thickness_of",
]
