"""Cooling a sauce: how its middle falls, whether that is quick enough by the rules in force, and what would be."""

import math
import tomllib
from collections.abc import Sequence
from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Annotated

import numpy as np
from pydantic import Field

from saucier import constants as K
from saucier.document import Part
from saucier.errors import BadInput
from saucier.heat import Pan, heat_capacity_j_per_k, pot_heat_j_per_k
from saucier.keeping.rules import Rules
from saucier.keeping.slab import Face, Lumped, Matter, Moved, Slab
from saucier.pot import Pot
from saucier.words import Sentence, degrees_in, say

Body = Slab | Moved | Lumped
_HERE = Path(__file__).parent
_POINTS = 60
DEEPEST_MM = 200.0


class Place(Part):
    """Somewhere to cool; ``places.toml`` says what each figure is."""

    key: str
    name: str
    top: Annotated[float, Field(ge=0.1, le=2000)] = 8.0
    bottom: Annotated[float, Field(ge=0.1, le=2000)] = 8.0
    top_c: float = 4.0
    bottom_c: float = 4.0
    stirred: bool = False
    then: str = ""

    @property
    def told(self) -> "Place":
        """With its name in the kitchen's degrees."""
        return self.model_copy(update={"name": degrees_in(self.name)})


@cache
def places() -> dict[str, Place]:
    """Where to cool, quickest first."""
    table = tomllib.loads((_HERE / "places.toml").read_text(encoding="utf-8"))
    return {key: Place.model_validate({**row, "key": key}) for key, row in table.items()}


def place_named(key: str) -> Place:
    """Raises :class:`BadInput` (field ``place``)."""
    found = places().get(key)
    if found is None:
        raise BadInput.at("place", "is-no-place-to-cool", key=key[:40])
    return found


@dataclass(frozen=True, slots=True)
class StageMet:
    """One limit of the rules: down to ``to_c`` within ``limit_min``; ``took_min`` until there (None:
    never), both counted from when it passes where the rule begins."""

    to_c: float
    limit_min: float
    took_min: float | None
    met: bool


@dataclass(frozen=True, slots=True)
class CurvePoint:
    at_min: float
    hottest_c: float


@dataclass(frozen=True, slots=True)
class Cooling:
    """A sauce cooling at a place: the ``curve`` of its hottest point, each stage of the rules, whether it is
    ``ok``. ``deepest_mm``: what depth would pass there (None: none does; a stirred pot has none), and so
    ``trays`` of the one given. ``words`` say it, ``cautions`` what the sum leaves out."""

    place: str
    depth_mm: float | None
    curve: tuple[CurvePoint, ...]
    clock_from_min: float
    stages: tuple[StageMet, ...]
    ok: bool
    deepest_mm: float | None
    trays: int | None
    words: Sentence
    cautions: tuple[Sentence, ...]


def matter_of(pot: Pot) -> Matter:
    """What a sauce is for heat: a cream that was boiled down leads it worse, by its fat (docs/model.md 6)."""
    mass = max(pot.balance.mass_g, 1e-9)
    rich = min(1.0, pot.balance.fat / mass / K.RICH_FAT_SHARE)
    k = K.SAUCE_W_M_K - (K.SAUCE_W_M_K - K.RICH_W_M_K) * rich
    cp = 1000.0 * heat_capacity_j_per_k(pot.balance) / mass
    return Matter(k, 1000.0 * mass / max(pot.balance.volume_ml, 1e-9), cp)


def cool(
    pot: Pot,
    rules: Rules,
    place: Place,
    tray: Pan,
    trays: int = 1,
    from_c: float | None = None,
    covered: bool = False,
    bench_min: float = 0.0,
) -> Cooling:
    """``pot`` shared out over ``trays`` of ``tray`` (or, stirred in ice, in it as a pot), ``from_c`` warm
    (None: as it is), under the ``rules`` in force. ``bench_min``: how long it is off the fire already; where it is
    below where the rule begins by now, those minutes count. Raises :class:`BadInput` by field."""
    warm = pot.temperature_c if from_c is None else from_c
    start = min(100.0, warm)
    if not -5.0 <= warm <= 130.0:
        raise BadInput.at("from_c", "is-no-warmth", low=-5, most=130)
    if not 1 <= trays <= 100:
        raise BadInput.at("trays", "is-no-number-of-trays", most=100)
    ml = pot.total_ml / trays
    if ml > tray.capacity_ml:
        raise BadInput.at("trays", "does-not-fit", tray=tray.name, holds_ml=tray.capacity_ml)
    depth = tray.level_mm(ml)
    body = _body(pot, place, tray, trays, start, depth, covered)
    gone_min = bench_min if start <= rules.from_c else 0.0
    stages, begins = _stages(body, rules, start, gone_min)
    ok = all(stage.met for stage in stages)
    deepest = None
    if not place.stirred:
        deepest = _deepest(pot, rules, place, start, covered, gone_min)
    needed = _trays_for(pot, tray, deepest)
    last = max((stage.took_min or 2.0 * stage.limit_min for stage in stages), default=60.0)
    minutes = np.linspace(0.0, 1.15 * (begins + last), _POINTS).tolist()
    curve = tuple(
        CurvePoint(round(at, 1), round(c, 1))
        for at, c in zip(minutes, body.curve(minutes), strict=True)
    )
    cautions = [say("cooling.estimate"), say("rules.local-first")]
    if not place.stirred:
        cautions.insert(0, say("cooling.slab-is-safe"))
    return Cooling(
        place=place.key,
        depth_mm=None if place.stirred else round(depth, 1),
        curve=curve,
        clock_from_min=round(begins - gone_min, 1),
        stages=stages,
        ok=ok,
        deepest_mm=None if deepest is None else round(deepest, 0),
        trays=needed,
        words=_told(stages, ok, place, deepest, needed, tray),
        cautions=tuple(cautions),
    )


def _body(
    pot: Pot, place: Place, tray: Pan, trays: int, start: float, depth: float, covered: bool
) -> Body:
    if place.stirred:
        ml = pot.total_ml / trays
        wall = math.pi * tray.diameter_cm / 100.0 * tray.level_mm(ml) / 1000.0
        wet = tray.surface_m2(ml) + wall
        # Through the sauce's own film within, the metal, and the water without.
        w_per_k = wet / (1.0 / place.bottom + 1.0 / K.STIRRED_FILM_W_M2_K)
        return Lumped(start, place.bottom_c, w_per_k, pot_heat_j_per_k(pot) / trays)
    return _slab(pot, place, start, depth, covered)


def _slab(pot: Pot, place: Place, start: float, depth: float, covered: bool) -> Slab | Moved:
    depth = min(500.0, max(1.0, depth))
    slab = Slab(depth, start, *_faces(place, covered), matter_of(pot))
    if not place.then:
        return slab
    return Moved(slab, K.MOVED_AT_C, *_faces(place_named(place.then), covered))


def _faces(place: Place, covered: bool) -> tuple[Face, Face]:
    top = place.top * (K.COVERED_SHARE if covered else 1.0)
    return Face(top, place.top_c), Face(place.bottom, place.bottom_c)


def _stages(
    body: Body, rules: Rules, start: float, gone_min: float
) -> tuple[tuple[StageMet, ...], float]:
    """Each limit as it is met, and from which minute the clock of the rules runs; ``gone_min`` of it are over."""
    begins = body.minutes_to(rules.from_c) if start > rules.from_c else 0.0
    if begins is None:
        return tuple(StageMet(s.to_c, s.minutes, None, False) for s in rules.stages), 0.0
    met = []
    for stage in rules.stages:
        there = body.minutes_to(stage.to_c) if start > stage.to_c else 0.0
        took = None if there is None else max(0.0, there - begins) + gone_min
        met.append(
            StageMet(
                stage.to_c,
                stage.minutes,
                None if took is None else round(took, 1),
                took is not None and took <= stage.minutes,
            )
        )
    return tuple(met), begins


def _deepest(
    pot: Pot, rules: Rules, place: Place, start: float, covered: bool, gone_min: float
) -> float | None:
    """The deepest layer that passes there, mm."""

    def passes(depth: float) -> bool:
        stages, _ = _stages(_slab(pot, place, start, depth, covered), rules, start, gone_min)
        return all(stage.met for stage in stages)

    low, high = 3.0, DEEPEST_MM
    if not passes(low):
        return None
    if passes(high):
        return high
    while high - low > 0.25:
        middle = 0.5 * (low + high)
        low, high = (middle, high) if passes(middle) else (low, middle)
    return low


def _trays_for(pot: Pot, tray: Pan, deepest: float | None) -> int | None:
    """How many of ``tray`` hold the sauce no deeper than that."""
    if deepest is None:
        return None
    holds = min(tray.volume_ml(deepest), tray.capacity_ml)
    return max(1, math.ceil(pot.total_ml / max(holds, 1.0) - 1e-6))


def _told(
    stages: Sequence[StageMet],
    ok: bool,
    place: Place,
    deepest: float | None,
    trays: int | None,
    tray: Pan,
) -> Sentence:
    last = stages[-1]
    if ok and last.took_min is not None:
        return say("cooling.passes", to_c=last.to_c, minutes=last.took_min)
    missed = next(stage for stage in stages if not stage.met)
    never = missed.took_min is None
    failed = say(
        "cooling.never" if never else "cooling.too-slow",
        to_c=missed.to_c,
        limit_min=missed.limit_min,
        minutes=missed.took_min or 0.0,
    )
    if place.stirred:
        return say("cooling.smaller-pots", failed=failed)
    if deepest is None or trays is None:
        return say("cooling.elsewhere", failed=failed)
    return say("cooling.shallower", failed=failed, depth_mm=deepest, trays=trays, tray=tray.name)
