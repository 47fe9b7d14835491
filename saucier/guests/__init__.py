"""Guests: what "without" means, a dish without it, and what may stand in where a sauce stands on it."""

from saucier.guests.exclusion import (
    DIETS,
    ROLES_GONE_WITHOUT,
    Exclusion,
    brings,
    exclusions,
    raw_yolk_in,
    spoken_exclusion,
)
from saucier.guests.instead import Instead, instead_of
from saucier.guests.variant import StandsOn, Variant, without

__all__ = [
    "DIETS",
    "ROLES_GONE_WITHOUT",
    "Exclusion",
    "Instead",
    "StandsOn",
    "Variant",
    "brings",
    "exclusions",
    "instead_of",
    "raw_yolk_in",
    "spoken_exclusion",
    "without",
]
