"""Pans: how high a volume stands in one, and how much surface it shows."""

import math
from dataclasses import dataclass
from typing import Literal

from saucier import constants as K

PanShape = Literal["straight", "sloped", "bowl", "tray", "shell", "dish"]
_UPRIGHT = ("straight", "tray", "dish")
_ROUND = ("bowl", "shell")
_ROUND_POINTS = 24
"""Points that draw a round side smoothly."""


@dataclass(frozen=True, slots=True)
class SidePoint:
    """A point of a pan's side: half its width at a height above its floor."""

    half_mm: float
    height_mm: float


@dataclass(frozen=True, slots=True)
class Pan:
    """A pan: inner ``diameter_cm`` at the rim, ``depth_cm`` inside, ``tare_g`` empty.

    A sloped pan's base is taken as three quarters of its rim; a bowl or a shell as a part of a
    sphere; a dish has straight sides; a tray is ``diameter_cm`` long and ``width_cm`` wide.
    ``reactive``: bare aluminium or iron. ``heavy``: a thick bottom that does not catch easily.
    ``count``: how many such there are.
    """

    name: str
    shape: PanShape
    diameter_cm: float
    depth_cm: float
    tare_g: float = 0.0
    width_cm: float | None = None
    reactive: bool = False
    heavy: bool = True
    count: int = 1

    @property
    def capacity_ml(self) -> float:
        return self._volume_cm3(self.depth_cm)

    def level_mm(self, volume_ml: float) -> float:
        """How high ``volume_ml`` stands, mm (above the rim when it does not fit).

        >>> Pan("24", "straight", 24, 12).level_mm(1000) > 22
        True
        """
        if volume_ml <= 0.0:
            return 0.0
        if self.shape in _UPRIGHT:
            return 10.0 * volume_ml / self._area_cm2(0.0)
        if volume_ml >= self.capacity_ml:  # over the rim: as if it stood up straight from there
            over = volume_ml - self.capacity_ml
            return 10.0 * (self.depth_cm + over / self._area_cm2(self.depth_cm))
        # Newton's method: the slope of the volume is the surface, which never vanishes here.
        filled = volume_ml / self.capacity_ml
        height = self.depth_cm * (math.sqrt(filled) if self.shape in _ROUND else filled)
        for _ in range(20):
            step = (volume_ml - self._volume_cm3(height)) / self._area_cm2(height)
            height = max(1e-6, height + step)
            if abs(step) < 1e-7:
                break
        return 10.0 * height

    def volume_ml(self, level_mm: float) -> float:
        """What stands ``level_mm`` high in it, mL; more than it holds is as much as it holds.

        >>> pan = Pan("24", "sloped", 24, 12)
        >>> round(pan.volume_ml(pan.level_mm(1500.0)))
        1500
        """
        return self._volume_cm3(min(max(0.0, level_mm) / 10.0, self.depth_cm))

    def surface_m2(self, volume_ml: float) -> float:
        """Open surface of ``volume_ml``, m²."""
        return self._area_cm2(min(self.level_mm(volume_ml) / 10.0, self.depth_cm)) / 1e4

    @property
    def outline(self) -> tuple[SidePoint, ...]:
        """Half its width at heights above its floor: two points where its side is straight."""
        points = _ROUND_POINTS if self.shape in _ROUND else 1
        heights = [self.depth_cm * n / points for n in range(points + 1)]
        return tuple(
            SidePoint(round(10.0 * self._radius_cm(height), 2), round(10.0 * height, 2))
            for height in heights
        )

    def _area_cm2(self, height_cm: float) -> float:
        if self.shape == "tray":
            return self.diameter_cm * (self.width_cm or self.diameter_cm)
        return math.pi * self._radius_cm(height_cm) ** 2

    def _radius_cm(self, height_cm: float) -> float:
        rim = self.diameter_cm / 2.0
        if self.shape in _UPRIGHT:
            return rim
        if self.shape == "sloped":
            base = K.BASE_OF_SLOPED * rim
            return base + (rim - base) * height_cm / self.depth_cm
        sphere = self._sphere_cm
        return math.sqrt(max(1e-6, 2.0 * sphere * height_cm - height_cm**2))

    @property
    def _sphere_cm(self) -> float:
        return (self.diameter_cm**2 / 4.0 + self.depth_cm**2) / (2.0 * self.depth_cm)

    def _volume_cm3(self, height_cm: float) -> float:
        if self.shape in _UPRIGHT:
            return self._area_cm2(0.0) * height_cm
        if self.shape in _ROUND:
            return math.pi * height_cm**2 * (3.0 * self._sphere_cm - height_cm) / 3.0
        bottom, top = self._radius_cm(0.0), self._radius_cm(height_cm)
        return math.pi * height_cm / 3.0 * (bottom**2 + bottom * top + top**2)


@dataclass(frozen=True, slots=True)
class SideView:
    """A pan as it is drawn from the side, to scale: its ``outline`` from the floor to the rim,
    straight between one point and the next."""

    name: str
    diameter_cm: float
    depth_cm: float
    tare_g: float = 0.0
    outline: tuple[SidePoint, ...] = ()

    @classmethod
    def of(cls, pan: Pan) -> "SideView":
        """
        >>> SideView.of(Pan("24", "sloped", 24, 8)).outline[0]
        SidePoint(half_mm=90.0, height_mm=0.0)
        """
        return cls(pan.name, pan.diameter_cm, pan.depth_cm, pan.tare_g, pan.outline)
