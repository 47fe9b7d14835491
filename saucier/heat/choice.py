"""Which pan a cook would reach for (docs/model.md 4)."""

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
    is coloured in it first. ``makes`` is about what there is in the end."""

    fullest: float
    goes_in: float = 0.0
    left: float = 0.0
    sears_g: float = 0.0
    makes: float = 0.0

    def times(self, factor: float) -> "Load":
        return Load._make(part * factor for part in self)


def pan_reached_for(load: Load, pans: Sequence[Pan] = BARE_PANS) -> Pan:
    """The pan of ``pans`` (at least one) a cook would reach for.

    To sear in, the smallest that takes the food in two rounds, else the widest. For a reduction the
    widest in which what goes in stands 15 mm or more and what is left 6 mm or more, else the smallest
    that holds it; otherwise the smaller of those it fills between a third and two thirds, else the one
    nearest to half full. Bare metal only where there is nothing else.

    >>> pan_reached_for(Load(1000.0)).diameter_cm
    16.0
    >>> pan_reached_for(Load(1000.0, 1000.0, 500.0)).diameter_cm
    28.0
    """
    there: Sequence[Pan] = pans
    if pans is not BARE_PANS:  # which are pots, of no bare metal, and in order
        there = [pan for pan in pans if pan.shape in POT_SHAPES] or list(pans)
        there = [pan for pan in there if not pan.reactive] or there
        there = sorted(there, key=lambda pan: pan.capacity_ml)
    holds = [pan for pan in there if load.fullest <= K.BOILED_FULL_MOST * pan.capacity_ml]
    if load.sears_g > 0.0:
        roomy = [pan for pan in holds if sears_well(load, pan)]
        if roomy:
            return roomy[0]
        return max(holds or there, key=lambda pan: pan.diameter_cm)
    if load.goes_in > 0.0:
        wide = [pan for pan in holds if stands_well(load, pan)]
        if wide:
            return max(wide, key=lambda pan: pan.diameter_cm)
        return holds[0] if holds else there[-1]
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
    return (
        pan.level_mm(load.goes_in) >= K.REDUCE_GOES_IN_MM
        and pan.level_mm(load.left) >= K.REDUCE_LEFT_MM
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
