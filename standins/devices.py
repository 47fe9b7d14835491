"""A scale under the pot and a probe in it, with the faults such things have."""

import random
from dataclasses import dataclass, field

from standins.pot import PotOnRing


@dataclass
class Scale:
    """What a scale under ``pot`` reads; None while it says nothing."""

    pot: PotOnRing
    seed: int = 0
    _dice: random.Random = field(init=False)
    _quiet_until: float = field(init=False, default=-1.0)

    def __post_init__(self) -> None:
        self._dice = random.Random(self.seed)

    def read(self) -> float | None:
        """Grams with the pan."""
        pot, truth, dice = self.pot, self.pot.truth, self._dice
        if pot.minutes < self._quiet_until:
            return None
        if truth.drops_out and dice.random() < 0.02:
            self._quiet_until = pot.minutes + 2.0 * truth.drops_out * dice.random() * 5.0
            return None
        grams = pot.grams + pot.tare_g + truth.tare_off_g + truth.drift_g_min * pot.minutes
        grams += dice.gauss(0.0, truth.noise_g)
        if dice.random() < truth.leans:
            grams += dice.uniform(40.0, 300.0)
        return round(grams / truth.step_g) * truth.step_g


@dataclass
class Probe:
    """What a probe in ``pot`` reads, °C."""

    pot: PotOnRing
    seed: int = 0
    _dice: random.Random = field(init=False)

    def __post_init__(self) -> None:
        self._dice = random.Random(self.seed)

    def read(self) -> float:
        celsius = self.pot.celsius + self._dice.gauss(0.0, 0.3)
        if self.pot.truth.probe_touches:
            celsius += 9.0 + self._dice.gauss(0.0, 1.5)
        return round(celsius, 1)
