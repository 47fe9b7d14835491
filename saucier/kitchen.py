"""The kitchen a sheet is cooked in: whose larder, on what fire."""

from dataclasses import dataclass, field

from saucier.heat import Stove
from saucier.larder import Larder, Measures, shipped_larder, shipped_measures


@dataclass(frozen=True, slots=True)
class Kitchen:
    """What the core needs to know of a kitchen. The default is the shipped larder on a gas
    ring of 2.5 kW."""

    larder: Larder = field(default_factory=shipped_larder)
    stove: Stove = field(default_factory=Stove)
    measures: Measures = field(default_factory=shipped_measures)
