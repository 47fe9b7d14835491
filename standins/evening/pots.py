"""Pots and trays as they are in truth: what is in them by its weight, and what heat and air make of it."""

import math
from dataclasses import dataclass, field
from itertools import pairwise

from standins.evening.foods import FOODS
from standins.evening.truth import Hidden
from standins.pot import PotOnRing, Stuff
from standins.pot import Truth as PotTruth

GRADES = (
    ("pouring", 0.03),
    ("light-coat", 0.12),
    ("nappe", 0.4),
    ("binding", 1.2),
    ("spreading", 4.0),
    ("panade", 15.0),
)
"""The grades of the trade and where each begins, Pa·s at its serving temperature."""
_PER_C = 0.0175
"""Share by which a sauce is thinner for each degree."""
_OFF_THE_BOIL_C = 99.5
_CURD = 2.4
"""How much cheese thickens: of log η for its share of the sauce."""


def grade_of(eta: float) -> str:
    """
    >>> grade_of(0.5), grade_of(0.01)
    ('nappe', 'liquid')
    """
    return next((name for name, low in reversed(GRADES) if eta >= low), "liquid")


@dataclass
class Pot:
    """A pan with what is in it, ``parts`` by what they were put in as, g; on a ``ring`` or on none."""

    name: str
    width_cm: float
    tare_g: float
    hidden: Hidden
    ring: str = ""
    parts: dict[str, float] = field(default_factory=dict)
    curd: float = 0.0
    """Cheese that is melted in it, g."""
    salt: float = 0.0
    boiled_min: float = 0.0
    hottest_c: float = 20.0
    yolk_set: float = 0.0
    """Yolk that is bound, g."""
    body: PotOnRing = field(init=False)

    def __post_init__(self) -> None:
        truth = PotTruth()
        self.body = PotOnRing(Stuff(0.0), width_cm=self.width_cm, tare_g=self.tare_g, truth=truth)

    @property
    def grams(self) -> float:
        return self.body.grams

    @property
    def celsius(self) -> float:
        return self.body.celsius

    @property
    def reads_g(self) -> float:
        """What a scale that reads right shows with the pan on it."""
        return self.grams + self.tare_g

    def put_in(self, key: str, grams: float, celsius: float = 20.0) -> None:
        """``grams`` of a food. Raises KeyError for one that is not known here."""
        food, before = FOODS[key], self.grams
        saltier = self.hidden.salt if food.salt < 0.1 else 1.0
        added = Stuff(
            food.water * grams,
            food.fat * grams,
            (food.dry + food.salt) * grams,
            food.alcohol * grams,
            food.starch * self.hidden.flour.get(key, 1.0) * grams,
        )
        self.body.stuff = self.body.stuff.plus(added)
        if food.curd:
            self.curd += grams
        if key == "egg-yolk":
            self.yolk_set += grams
        self.salt += food.salt * saltier * grams
        self.parts[key] = self.parts.get(key, 0.0) + grams
        self._warm_to((before * self.celsius + grams * celsius) / max(1.0, before + grams))

    def pour_in(self, other: "Pot") -> None:
        """All of ``other``, which is what was taken from a pot."""
        before, grams = self.grams, other.grams
        celsius = (before * self.celsius + grams * other.celsius) / max(1.0, before + grams)
        self.body.stuff = self.body.stuff.plus(other.body.stuff)
        for key, value in other.parts.items():
            self.parts[key] = self.parts.get(key, 0.0) + value
        self.curd, self.salt = self.curd + other.curd, self.salt + other.salt
        self.yolk_set += other.yolk_set
        self.hottest_c = max(self.hottest_c, other.hottest_c)
        self.boiled_min = max(self.boiled_min, other.boiled_min)
        self._warm_to(celsius)

    def take(self, grams: float) -> "Pot":
        """So much out of it, or all there is, as a pot of its own."""
        share = min(1.0, grams / max(1e-9, self.grams))
        taken = Pot(self.name, self.width_cm, 0.0, self.hidden)
        taken.body.stuff = self.body.stuff.times(share)
        taken.parts = {key: share * value for key, value in self.parts.items()}
        taken.curd, taken.salt, taken.yolk_set = (
            share * value for value in (self.curd, self.salt, self.yolk_set)
        )
        taken.hottest_c, taken.boiled_min = self.hottest_c, self.boiled_min
        taken._warm_to(self.celsius)
        self.body.stuff = self.body.stuff.times(1.0 - share)
        self.parts = {key: (1.0 - share) * value for key, value in self.parts.items()}
        self.curd, self.salt, self.yolk_set = (
            (1.0 - share) * value for value in (self.curd, self.salt, self.yolk_set)
        )
        return taken

    def heat(self, minutes: float, how: str) -> None:
        """On its ring for so many minutes, turned to ``how`` ("off": beside it)."""
        body = self.body
        body.watts = 0.0 if how == "off" else 2500.0
        body.truth.ring = self.hidden.rings.get(self.ring, 1.0)
        body.heat = how if how != "off" else "bare-simmer"
        if how == "off":  # what boils would go on boiling
            body.celsius, body.boiling_since = min(body.celsius, _OFF_THE_BOIL_C), None
        boiled = body.boiling_since
        body.run(minutes)
        if body.boiling_since is not None and how != "off":
            since = body.boiling_since if boiled is None else body.minutes - minutes
            self.boiled_min += body.minutes - since
        self.hottest_c = max(self.hottest_c, self.celsius)

    def heat_to(self, celsius: float, most_min: float = 40.0) -> float:
        """Brought to ``celsius`` on its ring; the minutes it took."""
        took = 0.0
        while self.celsius < celsius and took < most_min:
            self.heat(0.25, "lively")
            took += 0.25
        return took

    def eta(self, celsius: float) -> float:
        """Pa·s at ``celsius``, with its starch cooked out."""
        share = self.curd / max(1.0, self.grams)
        yolk = self.yolk_set / max(1.0, self.grams)
        by_heat = math.exp(_PER_C * (65.0 - celsius))
        return self.body.eta * math.exp(_CURD * share + 9.0 * yolk) * by_heat

    def brings(self) -> frozenset[str]:
        """What a guest may have to go without, of all that is in it."""
        brought = (FOODS[key].brings for key, grams in self.parts.items() if grams > 0.01)
        return frozenset[str]().union(*brought)

    def _warm_to(self, celsius: float) -> None:
        self.body.celsius = celsius
        if celsius < 95.0:
            self.body.boiling_since = None


@dataclass
class Tray:
    """What was put away: it loses its heat to the air of its place."""

    pot: Pot
    place: str
    hidden: Hidden
    at_min: float
    was: list[tuple[float, float]] = field(default_factory=list)
    """Its middle as it was: minute and °C, from when it was put away."""

    def __post_init__(self) -> None:
        self.was.append((self.at_min, self.pot.celsius))

    def to(self, minute: float) -> float:
        """Its middle at ``minute``, °C."""
        per_min, air = self.hidden.loses[self.place], self.hidden.air_c[self.place]
        celsius = air + (self.pot.celsius - air) * math.exp(-per_min * (minute - self.at_min))
        self.pot._warm_to(celsius)
        self.at_min = minute
        self.was.append((minute, celsius))
        return celsius

    def passed(self, celsius: float) -> float | None:
        """The minute at which its middle came down to ``celsius``; None where it has not yet."""
        for (before, warm), (after, cold) in pairwise(self.was):
            if cold <= celsius < warm:
                return before + (after - before) * (warm - celsius) / (warm - cold)
        return None
