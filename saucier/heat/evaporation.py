"""What leaves an open pot at the boil (docs/model.md 4)."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field
from types import MappingProxyType
from typing import Literal, NamedTuple

from saucier import constants as K
from saucier.heat.choice import Load, pan_reached_for
from saucier.heat.pan import Pan

Heat = Literal["bare-simmer", "simmer", "lively", "rolling"]


class Pace(NamedTuple):
    """How much quicker a pan boils off at a heat than is usual, as a kitchen has learned it: the logarithm
    ``log``, and how sure that is, one standard ``spread``."""

    log: float
    spread: float


Paces = Mapping[tuple[str, Heat], Pace]
"""By the name of a pan and the heat."""


@dataclass(frozen=True, slots=True)
class Stove:
    """Where the pot stands: its ``pan`` (None: one is assumed to fit), ``lid`` on or off, the
    burner's rated ``burner_w`` and its ``efficiency`` (share of it that reaches the pot). ``paces`` are
    those this kitchen has learned."""

    pan: Pan | None = None
    lid: bool = False
    burner_w: float = 2500.0
    efficiency: float = K.BURNER_EFFICIENCY["gas"]
    paces: Paces = field(default_factory=lambda: MappingProxyType({}))

    @property
    def net_w(self) -> float:
        return self.burner_w * self.efficiency

    def pace(self, heat: Heat) -> Pace | None:
        """What has been learned of its pan at ``heat``; None: nothing."""
        return self.paces.get((self.pan.name, heat)) if self.pan and self.paces else None


def open_surface_m2(volume_ml: float, stove: Stove) -> float:
    """Open surface of ``volume_ml`` in the stove's pan, or in one a cook would reach for, m².

    >>> from saucier.heat import Pan
    >>> round(open_surface_m2(1000, Stove(Pan('saucepan 20', 'straight', 20, 12))), 4)
    0.0314
    """
    return (stove.pan or pan_reached_for(Load(volume_ml))).surface_m2(volume_ml)


def evaporation_g_per_min(
    volume_ml: float, heat: Heat, stove: Stove, lid: bool | None = None
) -> float:
    """Grams of vapour a minute from ``volume_ml`` in the stove's pan at ``heat``.

    Never more than the burner's net power can boil off; by as much more or less as has been learned of
    the pan. ``lid`` overrides the stove's.

    >>> from saucier.heat import Pan
    >>> stove = Stove(Pan('saucepan 20', 'straight', 20, 12))
    >>> [round(evaporation_g_per_min(1000, heat, stove), 1) for heat in ('simmer', 'rolling')]
    [7.3, 29.9]
    """
    covered = stove.lid if lid is None else lid
    by_surface = K.EVAPORATION_KG_M2_H[heat] * open_surface_m2(volume_ml, stove) * 1000.0 / 60.0
    by_power = stove.net_w / K.LATENT_HEAT_J_PER_G * 60.0
    learned = stove.pace(heat)
    usual = min(by_surface, by_power) * (K.LID_FACTOR if covered else 1.0)
    return usual * math.exp(learned.log) if learned else usual
