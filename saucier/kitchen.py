"""The kitchen a sheet is cooked in: whose larder, on what fire."""

import math
from collections.abc import Mapping
from dataclasses import dataclass, field, replace

from saucier import constants as K
from saucier.heat import Paces, Pan, Stove
from saucier.larder import Larder, Measures, shipped_larder, shipped_measures


@dataclass(frozen=True, slots=True)
class Strength:
    """How much stronger a flour thickens in this kitchen than its row says, as it has been learned: the
    logarithm ``log`` with one standard ``spread``; ``scatter`` is by how much log η of one batch differs
    from the next, whatever the flour."""

    log: float
    spread: float
    scatter: float

    @property
    def model_spread(self) -> float:
        """What is left open of log η of a sauce thickened with it, one standard spread."""
        return math.hypot(K.FLOUR_EXPONENT * self.spread, self.scatter)


@dataclass(frozen=True, slots=True)
class Kitchen:
    """What the core needs to know of a kitchen. The default is the shipped larder on a gas
    ring of 2.5 kW. ``per_ml`` holds the mL this kitchen gives for each unit of a use, by the use's
    key, where that is not the usual; ``pans`` the pots it has (none: the bare core's); ``film_ml`` what clings to each of its pots,
    ``whisk_ml`` the most that is whisked in one; ``strengths`` what it has learned of its flours, by their
    keys: how strong they are stands in the larder already. ``hot_c``: hot holding by the rules in force."""

    larder: Larder = field(default_factory=shipped_larder)
    stove: Stove = field(default_factory=Stove)
    measures: Measures = field(default_factory=shipped_measures)
    per_ml: Mapping[str, float] = field(default_factory=dict)
    film_ml: float = K.FILM_ML
    whisk_ml: float = K.WHISK_ML
    pans: tuple[Pan, ...] = ()
    strengths: Mapping[str, Strength] = field(default_factory=dict)
    hot_c: float = K.HOT_HOLDING_C

    def knowing(self, strengths: Mapping[str, Strength], paces: Paces) -> "Kitchen":
        """This kitchen with what it has learned: flours as strong as they are here, pans as quick."""
        known = {key: one for key, one in strengths.items() if key in self.larder}
        rows = (
            self.larder[key].thickening_by(math.exp(strength.log))
            for key, strength in known.items()
        )
        return replace(
            self,
            larder=self.larder.with_rows(rows) if known else self.larder,
            stove=replace(self.stove, paces=paces) if paces else self.stove,
            strengths=known,
        )
