"""The grades: bands of viscosity with the kitchen's names (docs/model.md 3)."""

import math
from bisect import bisect_right
from dataclasses import dataclass

from saucier.errors import BadInput
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class Grade:
    """A band of viscosity at serving temperature, ``low`` ≤ η < ``high`` in Pa·s, and the
    ``target`` a solve aims for: the geometric middle (panade: 30 Pa·s)."""

    key: str
    low: float
    high: float
    target: float

    def inside(self, viscosity_pa_s: float) -> float:
        """``viscosity_pa_s``, Pa·s, a little inside the edges, so that weighing out keeps the grade."""
        return min(max(viscosity_pa_s, _INSIDE * self.low), self.high / _INSIDE)

    @property
    def name(self) -> Sentence:
        return say(f"grade-{self.key}")

    @property
    def looks(self) -> Sentence:
        """What the spoon shows."""
        return say(f"grade-{self.key}-looks")

    @property
    def serves(self) -> Sentence:
        """What it is usual for."""
        return say(f"grade-{self.key}-serves")


_INSIDE = 1.1


def _band(key: str, low: float, high: float) -> Grade:
    return Grade(key, low, high, math.sqrt(low * high) if math.isfinite(high) else 30.0)


GRADES: tuple[Grade, ...] = (
    _band("pouring", 0.03, 0.12),
    _band("light-coat", 0.12, 0.4),
    _band("nappe", 0.4, 1.2),
    _band("binding", 1.2, 4.0),
    _band("spreading", 4.0, 15.0),
    _band("panade", 15.0, math.inf),
)
LIQUID = "liquid"
"""What runs thinner than the first grade: a jus, a thin soured-cream sauce. Wanted as such, it is a grade
like another; a sauce that is thinner still is left so."""
THIN = Grade(LIQUID, 0.0, 0.03, 0.017)
_BY_KEY = {grade.key: grade for grade in (THIN, *GRADES)}
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


def spoken_grade(key: str) -> Sentence:
    """A grade's name by its key; what is thinner than any grade is a liquid.

    >>> str(spoken_grade("light-coat")), str(spoken_grade("liquid"))
    ('light coat', 'liquid')
    """
    return say(f"grade-{key}")


def grade_named(name: str) -> Grade:
    """The grade for ``name``, spaces and hyphens alike. Raises :class:`BadInput`.

    >>> grade_named('nappe').low
    0.4
    """
    key = "-".join(name.strip().lower().replace("-", " ").split())
    if key not in _BY_KEY:
        raise BadInput.at("grade", "is-not-a-grade", name=name[:40], grades=tuple(_BY_KEY))
    return _BY_KEY[key]
