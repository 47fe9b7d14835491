"""Heat through a slab, as in a tray of sauce or a filled dish: one-dimensional conduction between two faces."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

from saucier.errors import BadInput
from saucier.roots import find_root

Vector = NDArray[np.float64]
_CELLS = 48
_LONGEST_MIN = 10_000.0


@dataclass(frozen=True, slots=True)
class Matter:
    """What the slab is of: ``k`` W/m·K, ``rho`` kg/m³, ``cp`` J/kg·K."""

    k: float
    rho: float
    cp: float


@dataclass(frozen=True, slots=True)
class Face:
    """A face of the slab: its surface coefficient ``h`` W/m²·K, and ``at_c`` beyond it."""

    h: float
    at_c: float


@dataclass(frozen=True)
class Slab:
    """A slab ``depth_mm`` deep, all of it ``from_c`` warm (or each cell as warm as ``cells_c`` says), between
    its ``top`` and its ``bottom``.

    Cells of finite volume, and the equations between them solved exactly in time (their eigenvectors), so
    that no step in time is taken. Range: 1 to 500 mm; surface coefficients above 0.1.

    >>> tray = Slab(50.0, 63.0, Face(18.0, 3.0), Face(18.0, 3.0), Matter(0.55, 1060.0, 3700.0))
    >>> round(tray.minutes_to(21.0) - tray.minutes_to(57.0))
    129
    """

    depth_mm: float
    from_c: float
    top: Face
    bottom: Face
    matter: Matter
    cells_c: tuple[float, ...] = ()

    def __post_init__(self) -> None:
        if not 1.0 <= self.depth_mm <= 500.0:
            raise BadInput.at("depth_mm", "is-no-depth", low=1, most=500)

    @cached_property
    def _solved(self) -> tuple[Vector, Vector, Vector, Vector]:
        """Rates [1/s], eigenvectors, what it comes to in the end [°C], and what of that is left at first."""
        dx = self.depth_mm / 1000.0 / _CELLS
        inner = self.matter.k / dx
        ends = [1.0 / (1.0 / face.h + 0.5 * dx / self.matter.k) for face in (self.top, self.bottom)]
        between = np.full(_CELLS - 1, inner)
        pull = np.zeros(_CELLS)
        pull[:-1] += between
        pull[1:] += between
        pull[0] += ends[0]
        pull[-1] += ends[1]
        matrix = np.diag(pull) - np.diag(between, 1) - np.diag(between, -1)
        beyond = np.zeros(_CELLS)
        beyond[0], beyond[-1] = ends[0] * self.top.at_c, ends[1] * self.bottom.at_c
        rates, vectors = np.linalg.eigh(matrix / (self.matter.rho * self.matter.cp * dx))
        final = np.linalg.solve(matrix, beyond)
        start = np.array(self.cells_c) if self.cells_c else np.full(_CELLS, self.from_c)
        left: Vector = vectors.T @ (start - final)
        return (
            np.asarray(rates, dtype=np.float64),
            np.asarray(vectors, dtype=np.float64),
            np.asarray(final, dtype=np.float64),
            left,
        )

    def profile_c(self, minutes: float) -> Vector:
        """°C of the cells from the top down, after ``minutes``."""
        rates, vectors, final, left = self._solved
        return np.asarray(final + vectors @ (np.exp(-rates * 60.0 * minutes) * left))

    def hottest_c(self, minutes: float) -> float:
        """°C of the hottest point."""
        return float(self.profile_c(minutes).max())

    def coldest_c(self, minutes: float) -> float:
        """°C of the coldest point: what counts where it is heated."""
        return float(self.profile_c(minutes).min())

    def minutes_to(self, celsius: float) -> float | None:
        """Minutes until its hottest point (heated: its coldest) is at ``celsius``; None: never."""
        cools = self.from_c > max(self.top.at_c, self.bottom.at_c)
        point = self.hottest_c if cools else self.coldest_c

        def off(minutes: float) -> float:
            return (point(minutes) - celsius) * (1.0 if cools else -1.0)

        return _first(off)

    def curve(self, minutes: Sequence[float]) -> list[float]:
        """°C of the hottest point (heated: the coldest) at each of ``minutes``."""
        cools = self.from_c > max(self.top.at_c, self.bottom.at_c)
        point = self.hottest_c if cools else self.coldest_c
        return [point(at) for at in minutes]


@dataclass(frozen=True)
class Moved:
    """A slab that is put elsewhere once it has cooled to ``at_c``: another ``top`` and ``bottom`` from there.

    >>> ice = Slab(30.0, 80.0, Face(8.0, 20.0), Face(300.0, 0.5), Matter(0.55, 1060.0, 3700.0))
    >>> ice.minutes_to(5.0) is None
    True
    >>> round(Moved(ice, 20.0, Face(8.0, 3.0), Face(8.0, 3.0)).minutes_to(5.0))
    294
    """

    first: Slab
    at_c: float
    top: Face
    bottom: Face

    @cached_property
    def moved_at(self) -> float:
        """The minute at which it is moved; it stays where it is where it never gets so cool."""
        at = self.first.minutes_to(self.at_c)
        return float("inf") if at is None else at

    @cached_property
    def _then(self) -> Slab:
        cells = tuple(self.first.profile_c(self.moved_at).tolist())
        return Slab(self.first.depth_mm, self.at_c, self.top, self.bottom, self.first.matter, cells)

    def hottest_c(self, minutes: float) -> float:
        if minutes <= self.moved_at:
            return self.first.hottest_c(minutes)
        return self._then.hottest_c(minutes - self.moved_at)

    def minutes_to(self, celsius: float) -> float | None:
        return _first(lambda minutes: self.hottest_c(minutes) - celsius)

    def curve(self, minutes: Sequence[float]) -> list[float]:
        return [self.hottest_c(at) for at in minutes]


@dataclass(frozen=True, slots=True)
class Lumped:
    """A pot that is stirred: all of it is as warm as its middle. ``w_per_k`` leave it for each degree above
    ``at_c``; it holds ``j_per_k``.

    >>> pot = Lumped(63.0, 2.0, 30.0, 8000.0)
    >>> round(pot.minutes_to(21.0), 1)
    5.2
    """

    from_c: float
    at_c: float
    w_per_k: float
    j_per_k: float

    def hottest_c(self, minutes: float) -> float:
        fall = float(np.exp(-60.0 * minutes * self.w_per_k / self.j_per_k))
        return self.at_c + (self.from_c - self.at_c) * fall

    def minutes_to(self, celsius: float) -> float | None:
        return _first(lambda minutes: self.hottest_c(minutes) - celsius)

    def curve(self, minutes: Sequence[float]) -> list[float]:
        return [self.hottest_c(at) for at in minutes]


def _first(off: Callable[[float], float]) -> float | None:
    """The minute at which what falls comes to nothing; None: it never does."""
    if off(0.0) <= 0.0:
        return 0.0
    late = 1.0
    while off(late) > 0.0:
        late *= 2.0
        if late > _LONGEST_MIN:
            return None
    return find_root(off, late / 2.0 if late > 1.0 else 0.0, late, 1e-3)
