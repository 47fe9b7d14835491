"""A pool of sauce on a plate: how wide it runs (docs/model.md 7)."""

import math
from dataclasses import dataclass

from saucier import constants as K
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class Pool:
    """A sauce lying on the plate: ``radius_mm`` wide and ``thick_mm`` high in the mean; it reached the
    rim where ``at_rim``. ``power``: so many times as wide takes that power of it as much sauce. ``part`` is the sauce's place in the dish, such as "sauces[0]"."""

    part: str
    name: str
    use: str
    ml: float
    radius_mm: float
    thick_mm: float
    at_rim: bool
    power: float
    colour: str


def pool_radius_mm(ml: float, viscosity_pa_s: float, seconds: float = K.POOL_SECONDS) -> float:
    """Radius of ``ml`` mL of sauce poured on a warm plate after ``seconds`` s, mm: a viscous gravity
    current (Huppert 1982), R = 0.894·(ρ g V³ t/(3 η))^(1/8), never thinner than 2 mm. η 0.001 to
    300 Pa·s.

    >>> round(2 * pool_radius_mm(60, 0.22)), round(2 * pool_radius_mm(60, 2.19))
    (195, 156)
    """
    return min(_spread_mm(ml, viscosity_pa_s, seconds), _thinnest_mm(ml))


def pool_power(ml: float, viscosity_pa_s: float) -> float:
    """The power of its radius that a pool's volume goes by: 8/3 while it runs, 2 where it lies as thin
    as it goes.

    >>> round(pool_power(60, 2.19), 2), pool_power(60, 0.05)
    (2.67, 2.0)
    """
    runs = _spread_mm(ml, viscosity_pa_s, K.POOL_SECONDS) < _thinnest_mm(ml)
    return 8.0 / 3.0 if runs else 2.0


def _spread_mm(ml: float, viscosity_pa_s: float, seconds: float) -> float:
    weight = K.SPOON_DENSITY_KG_M3 * K.GRAVITY_M_S2 * math.pow(ml * 1e-6, 3.0)
    return 894.0 * math.pow(weight * seconds / (3.0 * viscosity_pa_s), 1.0 / 8.0)


def _thinnest_mm(ml: float) -> float:
    return math.sqrt(1e3 * ml / (math.pi * K.POOL_THINNEST_MM))


def keeps_pattern(one_pa_s: float, other_pa_s: float) -> bool:
    """Whether two sauces side by side keep a pattern: where they are nearly as thick as each other."""
    return max(one_pa_s, other_pa_s) / min(one_pa_s, other_pa_s) < K.PATTERN_KEEPS


def told_pattern(one: Pool, other: Pool, keeps: bool) -> Sentence:
    return say("pattern-keeps" if keeps else "pattern-runs", one=one.name, other=other.name)
