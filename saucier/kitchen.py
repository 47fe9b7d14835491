"""The kitchen a sheet is cooked in: whose larder, on what fire."""

from collections.abc import Mapping
from dataclasses import dataclass, field

from saucier import constants as K
from saucier.heat import Pan, Stove
from saucier.larder import Larder, Measures, shipped_larder, shipped_measures


@dataclass(frozen=True, slots=True)
class Kitchen:
    """What the core needs to know of a kitchen. The default is the shipped larder on a gas
    ring of 2.5 kW. ``per_ml`` holds the mL this kitchen gives for each unit of a use, by the use's
    key, where that is not the usual; ``pans`` the pots it has (none: the bare core's); ``film_ml`` what clings to each of its pots,
    ``whisk_ml`` the most that is whisked in one."""

    larder: Larder = field(default_factory=shipped_larder)
    stove: Stove = field(default_factory=Stove)
    measures: Measures = field(default_factory=shipped_measures)
    per_ml: Mapping[str, float] = field(default_factory=dict)
    film_ml: float = K.FILM_ML
    whisk_ml: float = K.WHISK_ML
    pans: tuple[Pan, ...] = ()
