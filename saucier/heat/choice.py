"""Which pan a cook would reach for (docs/model.md 4)."""

import math
from collections.abc import Sequence
from typing import NamedTuple

from saucier import constants as K
from saucier.heat.pan import Pan

POT_SHAPES = ("straight", "sloped")
"""What a sauce is cooked in; bowls, trays and dishes are for other work."""

BARE_PANS: tuple[Pan, ...] = tuple(
    Pan(f"assumed {diameter:g} cm", "straight", diameter, depth)
    for diameter, depth in K.ASSUMED_PANS_CM
)
"""The pans of a kitchen nobody has described."""


class Load(NamedTuple):
    """What a batch asks of its pan, mL: how much there is at the ``fullest``, and for its largest
    reduction how much ``goes_in`` and is ``left`` (0: nothing is boiled down). ``sears_g`` of food
    is coloured in it first. ``makes`` is about what there is in the end. ``widest_m2``: its boils by minutes would come
    near to dry in a wider one, m². ``nearly_dry``: its largest reduction goes on until nearly nothing is left."""

    fullest: float
    goes_in: float = 0.0
    left: float = 0.0
    sears_g: float = 0.0
    makes: float = 0.0
    widest_m2: float = math.inf
    nearly_dry: bool = False

    def times(self, factor: float) -> "Load":
        return self._replace(
            fullest=factor * self.fullest,
            goes_in=factor * self.goes_in,
            left=factor * self.left,
            sears_g=factor * self.sears_g,
            makes=factor * self.makes,
            widest_m2=factor * self.widest_m2,
        )


def pan_reached_for(load: Load, pans: Sequence[Pan] = BARE_PANS) -> Pan:
    """The pan of ``pans`` (at least one) a cook would reach for.

    Of those no more than three quarters full at the fullest (none: the largest) and, where food is seared
    first, that take it in two rounds (none: the widest): for a reduction the widest in which what goes in
    stands 5 mm or more and what is left 2.5 mm or more (none: the smallest); otherwise the smallest it fills
    between a third and two thirds (none: the one nearest to half full). Bare metal only where there is
    nothing else.

    >>> pan_reached_for(Load(1000.0)).diameter_cm
    16.0
    >>> pan_reached_for(Load(1000.0, 1000.0, 500.0)).diameter_cm
    32.0
    >>> pan_reached_for(Load(250.0, 250.0, 125.0)).diameter_cm
    24.0
    """
    there: Sequence[Pan] = pans
    if pans is not BARE_PANS:  # which are pots, of no bare metal, and in order
        there = [pan for pan in pans if pan.shape in POT_SHAPES] or list(pans)
        there = [pan for pan in there if not pan.reactive] or there
        there = sorted(there, key=lambda pan: pan.capacity_ml)
    there = [pan for pan in there if load.fullest <= K.BOILED_FULL_MOST * pan.capacity_ml] or there[
        -1:
    ]
    if load.sears_g > 0.0:
        roomy = [pan for pan in there if sears_well(load, pan)]
        there = roomy or [max(there, key=lambda pan: pan.diameter_cm)]
    if load.goes_in > 0.0:
        wide = [
            pan
            for pan in there
            if stands_well(load, pan) and pan.surface_m2(load.goes_in) <= load.widest_m2
        ]
        return max(wide, key=lambda pan: pan.diameter_cm) if wide else there[0]
    well = [pan for pan in there if fills_well(load, pan)]
    if well:
        return well[0]
    return min(there, key=lambda pan: abs(load.fullest / pan.capacity_ml - 0.5))


def stands_well(load: Load, pan: Pan) -> bool:
    """Whether a reduction stands high enough in ``pan`` from beginning to end.

    >>> from saucier.heat import Pan
    >>> pan = Pan('saucepan 20', 'straight', 20, 12)
    >>> stands_well(Load(1500, goes_in=1500, left=750), pan)
    True
    >>> stands_well(Load(90, goes_in=90, left=30), pan)
    False
    """
    return pan.level_mm(load.goes_in) >= K.REDUCE_GOES_IN_MM and (
        load.nearly_dry or pan.level_mm(load.left) >= K.REDUCE_LEFT_MM
    )


def sears_well(load: Load, pan: Pan) -> bool:
    """Whether ``pan`` takes the food to be seared in two rounds, with gaps.

    >>> from saucier.heat import Pan
    >>> pan = Pan('sauteuse 24', 'sloped', 24, 8)
    >>> sears_well(Load(0, sears_g=300), pan), sears_well(Load(0, sears_g=3000), pan)
    (True, False)
    """
    return load.sears_g <= K.SEAR_ROUNDS * K.SEAR_G_PER_CM2 * 1e4 * pan.surface_m2(1.0)


def fills_well(load: Load, pan: Pan) -> bool:
    """Whether ``pan`` is between a third and two thirds full at the fullest.

    >>> from saucier.heat import Pan
    >>> pan = Pan('saucepan 20', 'straight', 20, 12)
    >>> fills_well(Load(2000), pan), fills_well(Load(300), pan)
    (True, False)
    """
    return K.FILLED_LEAST <= load.fullest / pan.capacity_ml <= K.FILLED_MOST
