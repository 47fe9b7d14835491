"""The grades: bands of viscosity with the kitchen's names (model.md 3, domain.md)."""

import math
from bisect import bisect_right
from dataclasses import dataclass

from saucier.errors import BadInput


@dataclass(frozen=True, slots=True)
class Grade:
    """A band of viscosity at serving temperature, ``low`` ≤ η < ``high`` in Pa·s, and the
    ``target`` a solve aims for: the geometric middle (panade: 30 Pa·s)."""

    key: str
    name: str
    low: float
    high: float
    target: float
    looks: str
    serves: str


def _band(key: str, name: str, low: float, high: float, looks: str, serves: str) -> Grade:
    target = math.sqrt(low * high) if math.isfinite(high) else 30.0
    return Grade(key, name, low, high, target, looks, serves)


GRADES: tuple[Grade, ...] = (
    _band("pouring", "pouring", 0.03, 0.12, "runs like single cream", "soups, a thin drizzle"),
    _band(
        "light-coat",
        "light coat",
        0.12,
        0.4,
        "films the spoon; a drawn line closes slowly",
        "round the plate, tossing with pasta",
    ),
    _band(
        "nappe",
        "nappe",
        0.4,
        1.2,
        "coats the spoon; a drawn line stays",
        "napping fish, poultry, eggs",
    ),
    _band(
        "binding",
        "binding",
        1.2,
        4.0,
        "falls in a ribbon and holds pieces together",
        "gratins, baked pasta, fillings",
    ),
    _band(
        "spreading",
        "spreading",
        4.0,
        15.0,
        "mounds; spreads with a palette knife",
        "toast caps, top of a layered bake",
    ),
    _band(
        "panade", "panade", 15.0, math.inf, "pulls away from the pan", "croquettes, soufflé base"
    ),
)
_BY_KEY = {grade.key: grade for grade in GRADES}
LIQUID = "liquid"
"""Name for what runs thinner than the first grade."""
_LOWS = [grade.low for grade in GRADES]
_UP_TO = [LIQUID, *(grade.key for grade in GRADES)]


def grade_of(viscosity_pa_s: float) -> str:
    """The grade's key for a viscosity in Pa·s; ``liquid`` below the first band.

    >>> grade_of(0.861)
    'nappe'
    >>> grade_of(0.02)
    'liquid'
    """
    return _UP_TO[bisect_right(_LOWS, viscosity_pa_s)]


def spoken_grade(key: str) -> str:
    """A grade's name by its key; what is thinner than any grade is a liquid.

    >>> spoken_grade("light-coat"), spoken_grade("liquid")
    ('light coat', 'liquid')
    """
    return _BY_KEY[key].name if key in _BY_KEY else key


def grade_named(name: str) -> Grade:
    """The grade for ``name``, spaces and hyphens alike. Raises :class:`BadInput`."""
    key = "-".join(name.strip().lower().replace("-", " ").split())
    if key not in _BY_KEY:
        raise BadInput.at(
            "grade", f"“{name[:40]}” is not a grade", f"Use one of {', '.join(_BY_KEY)}"
        )
    return _BY_KEY[key]
