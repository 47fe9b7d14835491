"""Heat that stays in the pot and heat that leaves it: how long it takes to the boil (docs/model.md 4)."""

import math

from saucier import constants as K
from saucier.heat.choice import Load, pan_reached_for
from saucier.heat.evaporation import Stove

_NODES = (
    (0.0694318442, 0.1739274226),
    (0.3300094782, 0.3260725774),
    (0.6699905218, 0.3260725774),
    (0.9305681558, 0.1739274226),
)
"""Four points of Gauss's quadrature on 0 to 1, and their weights."""


def vapour_pressure_kpa(temperature_c: float) -> float:
    """Of water (Antoine's equation, handbook constants), kPa.

    >>> round(vapour_pressure_kpa(20), 2), round(vapour_pressure_kpa(100), 1)
    (2.33, 101.3)
    """
    return K.KPA_PER_MMHG * math.pow(10.0, 8.07131 - 1730.63 / (233.426 + temperature_c))


def heat_lost_w(temperature_c: float, volume_ml: float, stove: Stove) -> float:
    """W that leave ``volume_ml`` at ``temperature_c`` below the boil, by its open surface and its walls.

    >>> from saucier.heat import Pan
    >>> stove = Stove(Pan("stockpot 40", "straight", 40, 45))
    >>> round(heat_lost_w(100, 50_000, stove))
    953
    """
    surface, wall = _areas_m2(volume_ml, stove)
    return _lost_w(temperature_c, surface, wall)


def boil_up_minutes(
    heat_j_per_k: float,
    temperature_c: float,
    stove: Stove,
    volume_ml: float,
    to_c: float = K.BOIL_C,
) -> float:
    """Minutes to bring ``volume_ml`` that hold ``heat_j_per_k`` from ``temperature_c`` to ``to_c``, by the
    burner's net power less what leaves its surface and its walls; at most :data:`K.NEVER_BOILS_MIN`, which
    is what is told where the ring never gets it there.

    >>> from saucier.heat import Pan
    >>> pot = Pan("stockpot 40", "straight", 40, 45)
    >>> round(boil_up_minutes(4180 * 10, 20, Stove(pot), 10_000))
    61
    >>> round(boil_up_minutes(4180 * 50, 20, Stove(pot), 50_000) / 60, 1)
    7.6
    >>> boil_up_minutes(4180 * 50, 20, Stove(pot, burner_w=2000), 50_000) == K.NEVER_BOILS_MIN
    True
    """
    if to_c <= temperature_c:
        return 0.0
    surface, wall = _areas_m2(volume_ml, stove)
    net_w = stove.net_w
    if net_w - _lost_w(to_c, surface, wall) < K.LEAST_NET_SHARE * net_w:
        return K.NEVER_BOILS_MIN
    # Nearly all the time may pass in the last degrees: they are looked at more closely.
    middle = to_c - K.LAST_DEGREES_SHARE * (to_c - temperature_c)
    seconds = 0.0
    for low, high in ((temperature_c, middle), (middle, to_c)):
        seconds += (high - low) * sum(
            weight / (net_w - _lost_w(low + at * (high - low), surface, wall))
            for at, weight in _NODES
        )
    return min(K.NEVER_BOILS_MIN, heat_j_per_k * seconds / 60.0)


def warmed_c(
    heat_j_per_k: float, temperature_c: float, minutes: float, stove: Stove, volume_ml: float
) -> float:
    """°C of ``volume_ml`` that hold ``heat_j_per_k`` after ``minutes`` more on the fire; the boil at most.

    >>> round(warmed_c(4180, 20, 3, Stove(), 1000))
    68
    """
    if temperature_c >= K.BOIL_C or heat_j_per_k <= 0.0:
        return temperature_c
    surface, wall = _areas_m2(volume_ml, stove)
    seconds = 60.0 * minutes / 4.0
    for _ in range(4):
        net_w = stove.net_w - _lost_w(temperature_c, surface, wall)
        temperature_c = min(K.BOIL_C, temperature_c + net_w * seconds / heat_j_per_k)
    return temperature_c


def _areas_m2(volume_ml: float, stove: Stove) -> tuple[float, float]:
    """Open surface (a tenth of it under a lid) and wetted wall, m²."""
    pan = stove.pan or pan_reached_for(Load(volume_ml))
    surface = pan.surface_m2(volume_ml)
    wall = 2.0 * math.sqrt(math.pi * surface) * pan.level_mm(volume_ml) / 1000.0
    return surface * (K.LID_FACTOR if stove.lid else 1.0), wall


def _lost_w(temperature_c: float, surface_m2: float, wall_m2: float) -> float:
    air = K.AIR_VAPOUR_KPA
    drives = max(0.0, vapour_pressure_kpa(temperature_c) - air) / (K.BOIL_VAPOUR_KPA - air)
    steam_w = K.STEAM_KG_M2_H / 3.6 * K.LATENT_HEAT_J_PER_G * drives * surface_m2
    return steam_w + K.WALL_W_M2_K * wall_m2 * max(0.0, temperature_c - K.KITCHEN_C)
