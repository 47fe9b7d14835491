"""What has to be done, in what order, with whom and with what: the planner's question, in minutes.

Minutes are counted from midnight of the day of the service and may be negative; the planner reckons
in half minutes (a touch at the stove takes about that).
"""

import math
from dataclasses import dataclass
from typing import Literal

TICKS = 2
"""Of the planner's clock in a minute."""

Hands = Literal["all", "now-and-then", "none"]


@dataclass(frozen=True, slots=True)
class Stretch:
    """``minutes`` of a task in one go that want a cook's ``hands``."""

    minutes: float
    hands: Hands


@dataclass(frozen=True, slots=True)
class Use:
    """One of ``units`` is held from ``start`` to ``end`` [min from the task's start; None: its end]."""

    units: frozenset[str]
    start: float = 0.0
    end: float | None = None


@dataclass(frozen=True, slots=True)
class Baking:
    """``shelves`` of one oven at ``at_c`` [°C], give or take ``give_c``, for the whole task."""

    at_c: float
    give_c: float = 10.0
    shelves: int = 1


@dataclass(frozen=True, slots=True)
class Task:
    """Stretches that follow each other without a gap: a roux, its liquid, its simmer are one task.

    ``cooks`` can do it (their names); ``touches`` are minutes from its start when a hand is wanted
    for some twenty seconds (turn, shake, lift a lid): whoever stands at a roux can do it beside.
    ``start`` is when it is to begin, where that is settled: pinned by a cook, or ``begun``, which is a
    fact whatever else was going on. ``done`` takes it out of everybody's way. Before ``earliest`` it
    cannot begin."""

    key: str
    stretches: tuple[Stretch, ...]
    cooks: frozenset[str] = frozenset()
    uses: tuple[Use, ...] = ()
    baking: Baking | None = None
    touches: tuple[float, ...] = ()
    start: float | None = None
    begun: bool = False
    done: bool = False
    earliest: float | None = None

    @property
    def minutes(self) -> float:
        return sum(part.minutes for part in self.stretches)

    def pieces(self, hands: Hands) -> list[tuple[float, float]]:
        """Where it wants such hands: offset and length [min], neighbours as one."""
        found: list[tuple[float, float]] = []
        at = 0.0
        for part in self.stretches:
            if part.hands == hands and part.minutes > 0.0:
                if found and abs(sum(found[-1]) - at) < 1e-9:
                    found[-1] = (found[-1][0], found[-1][1] + part.minutes)
                else:
                    found.append((at, part.minutes))
            at += part.minutes
        return found


@dataclass(frozen=True, slots=True)
class Link:
    """``after`` begins ``at_least`` minutes past the end of ``before`` (a negative number: that long
    before it); what waits longer than ``longest`` is harmed (None: never), and every minute of waiting
    ``suffers`` so much. Not ``counted``: only the order matters."""

    before: str
    after: str
    at_least: float = 0.0
    longest: float | None = None
    suffers: int = 0
    counted: bool = True


@dataclass(frozen=True, slots=True)
class Heat:
    """``before`` (an oven that heats up) is over when the first of ``those`` begins, and no sooner than
    it has to be."""

    before: str
    those: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Serving:
    """``task`` is over by ``at``; what stands ready longer than ``longest`` is harmed."""

    task: str
    at: float
    group: str = ""
    longest: float | None = None
    suffers: int = 0


@dataclass(frozen=True, slots=True)
class Hold:
    """One of ``units`` (a pan) is taken from the start of ``first`` until all of ``until`` are over, and
    for good unless ``wash`` (a task's key, done only where the pan is wanted again) follows."""

    units: frozenset[str]
    first: str
    until: tuple[str, ...]
    wash: str | None = None


@dataclass(frozen=True, slots=True)
class Away:
    """A cook or a thing that is not there from ``start`` to ``end`` [min]."""

    unit: str
    start: float
    end: float


@dataclass(frozen=True, slots=True)
class Oven:
    """An oven: how many ``shelves``, and how fast it heats and cools [°C/min]."""

    name: str
    shelves: int
    heats: float = 12.0
    cools: float = 4.0

    def change_minutes(self, from_c: float, to_c: float) -> float:
        """Minutes to go from one temperature to the other."""
        change = to_c - from_c
        return change / self.heats if change > 0.0 else -change / self.cools


@dataclass(frozen=True, slots=True)
class Problem:
    """Everything the planner goes by. ``cooks`` and ``units`` are names; every ``wash`` is among
    ``washes``. Nothing begins before ``begin`` or ends after ``end`` [min]."""

    tasks: tuple[Task, ...]
    links: tuple[Link, ...]
    servings: tuple[Serving, ...]
    cooks: tuple[str, ...]
    ovens: tuple[Oven, ...] = ()
    heats: tuple[Heat, ...] = ()
    holds: tuple[Hold, ...] = ()
    washes: tuple[Task, ...] = ()
    away: tuple[Away, ...] = ()
    begin: float = 0.0
    end: float = 24 * 60.0
    pots_a_cook: int = 3


def apart(one: Baking, other: Baking) -> bool:
    """Whether two things cannot be in one oven at a time.

    >>> apart(Baking(180, 10), Baking(195, 10)), apart(Baking(180, 10), Baking(220, 10))
    (False, True)
    """
    return abs(one.at_c - other.at_c) > one.give_c + other.give_c


def ticks(minutes: float) -> int:
    """The planner's clock at ``minutes``, to the nearest.

    >>> ticks(2.4), ticks(-1)
    (5, -2)
    """
    return round(minutes * TICKS)


def lasting(minutes: float) -> int:
    """Ticks that ``minutes`` take, never too few.

    >>> lasting(2.1), lasting(0)
    (5, 0)
    """
    return math.ceil(minutes * TICKS - 1e-6)
