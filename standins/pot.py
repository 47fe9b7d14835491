"""A pot on a ring as it is in truth, by physics of another form than the app reckons with: heat in and
out, vapour by its pressure below the boil and by power at it, a skin that holds it back."""

import math
import random
from dataclasses import dataclass, field

LATENT = 2257.0
SPECIFIC = {"water": 4.19, "fat": 2.1, "dry": 1.6, "alcohol": 2.4}
SETTING = {"bare-simmer": 0.16, "simmer": 0.30, "lively": 0.5, "rolling": 1.0}


@dataclass
class Truth:
    """What the app cannot read. Factors are against what is printed on the thing."""

    ring: float = 1.0
    """Heat that reaches the pot, against the ring's rating."""
    flour: float = 1.0
    """Strength of the flour."""
    pan: float = 1.0
    """True width of the pan against the one entered."""
    poured: float = 1.0
    """What was poured, against what was to be."""
    lid_min: float = 0.0
    """A lid forgotten on it for so many minutes."""
    turn_at_min: float = math.inf
    turned: float = 1.0
    """The fire turned by somebody after so many minutes, to so many times what it was."""
    noise_g: float = 2.0
    drift_g_min: float = 0.0
    tare_off_g: float = 0.0
    step_g: float = 1.0
    """The scale: its noise, its drift, how far its pan's weight is off, what it counts in."""
    drops_out: float = 0.0
    """Share of the minutes in which the scale says nothing."""
    leans: float = 0.0
    """Share of the readings in which a spoon leans on it."""
    probe_touches: bool = False
    """The probe lies on the floor of the pan."""

    @classmethod
    def drawn(cls, seed: int) -> "Truth":
        """One kitchen's evening, by chance."""
        dice = random.Random(seed)
        truth = cls(
            ring=math.exp(dice.gauss(-0.1, 0.28)),
            flour=math.exp(dice.gauss(0.0, 0.10)),
            pan=math.exp(dice.gauss(0.0, 0.03)),
            poured=math.exp(dice.gauss(0.0, 0.025)),
            noise_g=dice.uniform(1.0, 4.0),
            drift_g_min=dice.gauss(0.0, 0.4),
            tare_off_g=dice.gauss(0.0, 6.0),
            step_g=dice.choice((1.0, 1.0, 2.0, 5.0)),
            drops_out=dice.choice((0.0, 0.0, 0.1, 0.3)),
            leans=dice.choice((0.0, 0.0, 0.02)),
            probe_touches=dice.random() < 0.2,
        )
        if dice.random() < 0.12:
            truth.lid_min = dice.uniform(0.5, 3.0)
        if dice.random() < 0.25:
            truth.turn_at_min = dice.uniform(1.0, 12.0)
            truth.turned = dice.choice((0.6, 0.75, 1.3))
        return truth


@dataclass
class Stuff:
    """What is in the pot, g; ``starch`` as flour, ``bits`` pieces that stay out of the sauce."""

    water: float
    fat: float = 0.0
    dry: float = 0.0
    alcohol: float = 0.0
    starch: float = 0.0
    bits: float = 0.0

    @property
    def grams(self) -> float:
        return self.water + self.fat + self.dry + self.alcohol + 0.87 * self.starch + self.bits

    def plus(self, other: "Stuff") -> "Stuff":
        """Both together."""
        return Stuff(
            self.water + other.water,
            self.fat + other.fat,
            self.dry + other.dry,
            self.alcohol + other.alcohol,
            self.starch + other.starch,
            self.bits + other.bits,
        )

    def times(self, share: float) -> "Stuff":
        """So much of it, all alike."""
        parts = (self.water, self.fat, self.dry, self.alcohol, self.starch, self.bits)
        return Stuff(*(share * part for part in parts))

    @property
    def ml(self) -> float:
        solid = (self.dry + 0.87 * self.starch) / 1.45
        return self.water / 0.985 + self.fat / 0.90 + self.alcohol / 0.79 + solid + self.bits / 1.03


@dataclass
class PotOnRing:
    """A pot of ``stuff`` in a straight (or ``sloped``) pan of ``width_cm``, on a ring of ``watts``, turned
    to ``heat``. ``run`` moves it on."""

    stuff: Stuff
    width_cm: float = 20.0
    watts: float = 2500.0
    efficiency: float = 0.45
    tare_g: float = 1200.0
    heat: str = "rolling"
    sloped: bool = False
    celsius: float = 20.0
    truth: Truth = field(default_factory=Truth)
    minutes: float = 0.0
    boiling_since: float | None = None

    def __post_init__(self) -> None:
        by = self.truth.poured
        s = self.stuff
        self.stuff = Stuff(s.water * by, s.fat * by, s.dry * by, s.alcohol * by, s.starch, s.bits)

    @property
    def grams(self) -> float:
        return self.stuff.grams

    @property
    def level_mm(self) -> float:
        """How deep it stands, mm."""
        width = self.width_cm * self.truth.pan
        if not self.sloped:
            return 10.0 * self.stuff.ml / (math.pi * width**2 / 4.0)
        height = 0.0  # a cone cut off: three quarters of the rim at the floor, the rim at 8 cm
        for _ in range(60):
            at = width * (0.75 + 0.25 * height / 8.0)
            base = width * 0.75
            volume = math.pi * height / 12.0 * (base**2 + base * at + at**2)
            height += 0.5 * (self.stuff.ml - volume) / (math.pi * at**2 / 4.0)
        return 10.0 * height

    @property
    def surface_m2(self) -> float:
        width = self.width_cm * self.truth.pan
        if self.sloped:
            width *= 0.75 + 0.25 * min(8.0, self.level_mm / 10.0) / 8.0
        return math.pi * (width / 100.0) ** 2 / 4.0

    @property
    def eta(self) -> float:
        """Pa·s at 65 °C. Fat by a crowding law with a wall, starch by a cube from where it begins to bind:
        another form than the app's, about as thick."""
        s = self.stuff
        liquid = max(1.0, s.water + s.alcohol)
        phi = min(0.855, s.fat / 0.90 / max(1.0, s.ml))
        crowd = math.pow(1.0 - phi / 0.86, -3.6)
        sugar = math.exp(4.0 * s.dry / (liquid + s.dry))
        c = 100.0 * s.starch * self.truth.flour / liquid
        starch = 0.5 * (max(0.0, c - 1.0) / 6.0) ** 3 * math.pow(1.0 - phi / 0.86, -1.2)
        return 0.0009 * sugar * crowd + starch

    def run(self, minutes: float) -> None:
        """On by so many minutes, second by second."""
        for _ in range(round(minutes * 60.0)):
            self._on(1.0)

    def _on(self, seconds: float) -> None:
        s, truth = self.stuff, self.truth
        turned = truth.turned if self.minutes >= truth.turn_at_min else 1.0
        lid = 0.07 if self.minutes < truth.lid_min else 1.0
        # Full on until it boils, then turned down.
        setting = 1.0 if self.boiling_since is None else SETTING[self.heat]
        power = self.watts * self.efficiency * truth.ring * turned * setting
        side = self.surface_m2 + math.pi * self.width_cm / 100.0 * self.level_mm / 1000.0
        power -= 9.0 * side * (self.celsius - 22.0)
        boils_at = 100.2 + 3.0 * s.dry / max(1.0, s.water)
        if s.alcohol > 0.0:
            boils_at -= 60.0 * s.alcohol / max(1.0, s.water + s.alcohol)
        capacity = (
            s.water * SPECIFIC["water"]
            + s.fat * SPECIFIC["fat"]
            + (s.dry + s.starch + s.bits) * SPECIFIC["dry"]
            + s.alcohol * SPECIFIC["alcohol"]
            + 0.25 * self.tare_g
        )
        skin = 1.0 / (1.0 + 0.4 * math.sqrt(min(20.0, self.eta) / 3.0))
        pressure = math.exp(18.3 - 3816.0 / (self.celsius + 227.0))  # mmHg
        below = 0.0032 * self.surface_m2 * max(0.0, pressure - 9.0) * skin * lid
        if self.celsius < boils_at - 0.05:
            gone = below * seconds
            self.celsius += (power * seconds - LATENT * gone) / capacity
            self.celsius = min(self.celsius, boils_at)
        else:
            if self.boiling_since is None:
                self.boiling_since = self.minutes
            # A cook turns down what would boil over: so much leaves a square metre at the most.
            flux = 26.0 * (0.6 + 0.4 * SETTING[self.heat])  # g/s·m²
            gone = min(max(0.0, power) / LATENT, flux * self.surface_m2) * skin * lid * seconds
            gone = max(gone, below * seconds)
        gone = min(gone, max(0.0, s.water + s.alcohol - 1.0))  # it never boils quite dry
        spirit = min(s.alcohol, gone * min(0.9, 9.0 * s.alcohol / max(1.0, s.water + s.alcohol)))
        s.alcohol -= spirit
        s.water -= gone - spirit
        self.minutes += seconds / 60.0
