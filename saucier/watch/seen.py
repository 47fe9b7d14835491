"""What is seen of a pot on the fire, each with how far such a look is off."""

import math
from dataclasses import dataclass
from typing import Literal

from saucier import constants as K
from saucier.errors import BadInput

SeenKind = Literal["scale", "level", "gone", "spoon", "boils"]
_LIMITS: dict[str, tuple[float, float]] = {
    "scale": (-1000.0, 200_000.0),
    "level": (0.0, 1000.0),
    "gone": (0.0, 0.99),
    "spoon": (1e-3, 300.0),
    "boils": (0.0, 1.0),
}


@dataclass(frozen=True, slots=True)
class Seen:
    """Something seen ``at_min`` minutes after the step began.

    ``value``: what the ``scale`` reads, g, with the pan where its weight is known; the ``level`` above
    the floor of the pan, mm; the share of the liquid that is ``gone``, 0 to 1; the ``spoon`` it looks
    like, Pa·s at serving temperature; ``boils``: nothing (1). ``by_hand``: somebody weighed it and said so; a scale
    that sends by itself may be leaned on."""

    at_min: float
    what: SeenKind
    value: float = 1.0
    by_hand: bool = False

    def __post_init__(self) -> None:
        low, high = _LIMITS[self.what]
        if not (math.isfinite(self.value) and low <= self.value <= high):
            raise BadInput.at("value", f"seen-{self.what}-is-off", low=low, high=high)
        if not math.isfinite(self.at_min):
            raise BadInput.at("at", "is-no-moment")

    @property
    def spread(self) -> float:
        """How far such a look is off, one standard spread, in its own unit (a spoon: of log η)."""
        if self.what == "scale":
            return math.hypot(K.LIVE_SCALE_OFF_G, K.SCALE_OFF_SHARE * 0.5 * self.value)
        if self.what == "level":
            return math.hypot(K.LEVEL_OFF_MM, K.LEVEL_OFF_SHARE * self.value)
        if self.what == "gone":
            return K.EYE_SPREAD * max(0.15, 1.0 - self.value)
        return K.EYE_THICKNESS_SPREAD
