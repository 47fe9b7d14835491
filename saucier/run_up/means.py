"""What a kitchen has to cook with: cooks, rings, and an open list of things that can do something."""

import tomllib
from collections.abc import Iterable
from dataclasses import dataclass, field
from functools import cache
from pathlib import Path
from typing import Any, Literal, get_args

from saucier.heat import Pan, Stove
from saucier.sheet import SheetBurner
from saucier.timing import Oven

Skill = Literal["prepare", "stove", "oven", "plate", "wash"]
SKILLS: tuple[Skill, ...] = get_args(Skill)


@dataclass(frozen=True, slots=True)
class Cook:
    """A cook, what they ``can`` do, and from when to when they are there [min; None: all the time]."""

    name: str
    can: frozenset[Skill] = frozenset(SKILLS)
    start: float | None = None
    end: float | None = None


@dataclass(frozen=True, slots=True)
class Ring:
    """A ring of the hob; ``takes_cm`` is the widest pan that goes on it (None: any)."""

    name: str
    burner: SheetBurner
    takes_cm: float | None = None

    @property
    def stove(self) -> Stove:
        return Stove(burner_w=self.burner.watts, efficiency=self.burner.efficiency)


@dataclass(frozen=True, slots=True)
class Gear:
    """``count`` things of a ``kind`` and what each ``can`` do; ``shelves`` and ``area_cm2`` of each for
    what goes on or into it, ``litres`` it holds, minutes to ``heat_up``."""

    name: str
    kind: str
    count: int = 1
    can: frozenset[str] = frozenset()
    shelves: int = 1
    area_cm2: float = 0.0
    litres: float = 0.0
    heat_up: float = 0.0


@cache
def kinds() -> dict[str, dict[str, Any]]:
    """The kinds of things that ship, by key, as ``equipment.toml`` has them."""
    path = Path(__file__).parent / "equipment.toml"
    return tomllib.loads(path.read_text(encoding="utf-8"))


def gear_of(kind: str, name: str = "", count: int = 1, **more: Any) -> Gear:
    """A thing of ``kind`` as it usually is, with what is said of it in ``more``.

    >>> sorted(gear_of("torch").can), gear_of("oven", shelves=5).shelves
    (['gratinate'], 5)
    """
    usual = kinds().get(kind, {})
    told = {key: value for key, value in more.items() if value is not None}
    merged = {**{k: v for k, v in usual.items() if k != "name"}, **told}
    merged["can"] = frozenset(merged.get("can", ()))
    return Gear(name or usual.get("name", kind), kind, count, **merged)


@dataclass(frozen=True)
class Means:
    """Everything there is to cook with. What a kitchen never said is taken for granted and ``assumed``
    names it."""

    cooks: tuple[Cook, ...]
    rings: tuple[Ring, ...]
    gear: tuple[Gear, ...]
    pans: tuple[Pan, ...]
    assumed: tuple[str, ...] = field(default=())

    @classmethod
    def of(
        cls,
        cooks: Iterable[Cook] = (),
        rings: Iterable[Ring] = (),
        gear: Iterable[Gear] = (),
        pans: Iterable[Pan] = (),
    ) -> "Means":
        """
        >>> Means.of().assumed
        ('cooks', 'rings', 'gear')
        """
        there = tuple(cooks), tuple(rings), tuple(gear)
        names = ("cooks", "rings", "gear")
        return cls(
            there[0] or (Cook("Cook 1"),),
            there[1] or tuple(Ring(f"ring {n}", SheetBurner()) for n in (1, 2, 3, 4)),
            there[2] or tuple(gear_of(kind) for kind in ("oven", "grill", "sink")),
            tuple(pans),
            tuple(name for name, some in zip(names, there, strict=True) if not some),
        )

    def that_can(self, what: str) -> tuple[Gear, ...]:
        return tuple(gear for gear in self.gear if what in gear.can)

    def ovens(self) -> tuple[Oven, ...]:
        """Every oven by itself, as the planner knows it."""
        return tuple(
            Oven(name, gear.shelves)
            for gear in self.that_can("bake")
            for name in sorted(units("gear", gear.name, gear.count))
        )

    def cooks_that_can(self, skill: Skill) -> frozenset[str]:
        """Names of those who can; of everybody where nobody says so."""
        able = frozenset(unit("cook", one.name) for one in self.cooks if skill in one.can)
        return able or frozenset(unit("cook", one.name) for one in self.cooks)


def unit(pool: str, name: str) -> str:
    """What the planner calls one cook or thing."""
    return f"{pool}:{name}"


def units(pool: str, name: str, count: int) -> frozenset[str]:
    """Those of which there are ``count``, by number.

    >>> sorted(units("gear", "Oven", 2)), sorted(units("gear", "Grill", 1))
    (['gear:Oven 1', 'gear:Oven 2'], ['gear:Grill'])
    """
    if count == 1:
        return frozenset({unit(pool, name)})
    return frozenset(unit(pool, f"{name} {n}") for n in range(1, count + 1))


def named(unit_key: str) -> str:
    """A unit as the kitchen calls it."""
    return unit_key.partition(":")[2]
