"""A pool of sauce on a plate: how wide it runs (docs/model.md 7)."""

import math
from dataclasses import dataclass

from saucier import constants as K
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class Pool:
    """A sauce lying on the plate: ``radius_mm`` wide and ``thick_mm`` high in the mean; it reached the
    rim where ``at_rim``. ``part`` is the sauce's place in the dish, such as "sauces[0]"."""

    part: str
    name: str
    use: str
    ml: float
    radius_mm: float
    thick_mm: float
    at_rim: bool
    colour: str


def pool_radius_mm(ml: float, viscosity_pa_s: float, seconds: float = K.POOL_SECONDS) -> float:
    """Radius of ``ml`` mL of sauce poured on a warm plate after ``seconds`` s, mm: a viscous gravity
    current (Huppert 1982), R = 0.894·(ρ g V³ t/(3 η))^(1/8), never thinner than 2 mm. η 0.001 to
    300 Pa·s.

    >>> round(2 * pool_radius_mm(60, 0.22)), round(2 * pool_radius_mm(60, 2.19))
    (195, 156)
    """
    volume = ml * 1e-6
    weight = K.SPOON_DENSITY_KG_M3 * K.GRAVITY_M_S2 * volume**3
    spread = 0.894 * math.pow(weight * seconds / (3.0 * viscosity_pa_s), 1.0 / 8.0)
    thinnest = math.sqrt(volume / (math.pi * K.POOL_THINNEST_MM * 1e-3))
    return 1e3 * min(spread, thinnest)


def keeps_pattern(one_pa_s: float, other_pa_s: float) -> bool:
    """Whether two sauces side by side keep a pattern: where they are nearly as thick as each other."""
    return max(one_pa_s, other_pa_s) / min(one_pa_s, other_pa_s) < K.PATTERN_KEEPS


def told_pattern(one: Pool, other: Pool, keeps: bool) -> Sentence:
    return say("pattern-keeps" if keeps else "pattern-runs", one=one.name, other=other.name)
