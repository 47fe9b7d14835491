"""The way of a pot that boils down in its pan: from its weight, all else."""

from dataclasses import dataclass, replace

import numpy as np
from numpy.typing import NDArray

from saucier import constants as K
from saucier.check import CheckedSheet
from saucier.heat import evaporation_g_per_min
from saucier.heat.evaporation import Heat
from saucier.pot import Pot, boil_off, cook_all
from saucier.steps import Reduce, Simmer
from saucier.steps.boiling import in_its_own_juice, minutes_to_boil
from saucier.steps.reduce import most_loss_g
from saucier.thickness import raw_viscosity_of

Grid = NDArray[np.float64]
_POINTS = 96
_LEAST_RATE, _LEAST_LEFT = 1e-6, 0.02
_HEATED = np.linspace(0.0, 1.0, 21)
"""Shares of the way up to the boil."""


@dataclass(frozen=True)
class Way:
    """Figures along the way down, lightest first (so that they can be read off by weight): all that is
    in the pot ``mass_g``, its ``level_mm``, the log of η [Pa·s] at serving
    temperature, its ``fat_share``, what boils off ``g_per_min``, and the ``minutes`` of boiling from
    there down to the driest. ``apart_g``, pieces and fat that swims, does not count in a share.
    ``boil_up_min``: until it boils; by then ``steams_g`` have gone for each minute it took, at
    ``_HEATED`` of the way."""

    pot: Pot
    mass_g: Grid
    level_mm: Grid
    log_eta: Grid
    fat_share: Grid
    g_per_min: Grid
    minutes: Grid
    boil_up_min: float
    steams_g: Grid
    apart_g: float

    @property
    def full_g(self) -> float:
        return float(self.mass_g[-1])

    def at(self, mass_g: float, figure: Grid) -> float:
        """``figure`` of the pot once it weighs ``mass_g``; at the ends it goes on straight."""
        mass = self.mass_g
        if mass_g > mass[-1]:
            return float(figure[-1] + _slope(mass, figure, -1) * (mass_g - mass[-1]))
        return float(np.interp(mass_g, mass, figure))

    def slope(self, mass_g: float, figure: Grid) -> float:
        """How ``figure`` moves with every gram."""
        n = int(np.clip(np.searchsorted(self.mass_g, mass_g), 1, len(self.mass_g) - 1))
        return _slope(self.mass_g, figure, n)

    def mass_at(self, value: float, figure: Grid) -> float | None:
        """Where the way down reaches ``value`` of a figure that only rises or only falls; None where
        it does not."""
        rising = figure[-1] > figure[0]
        along = figure if rising else figure[::-1]
        if not along[0] <= value <= along[-1]:
            return None
        return float(np.interp(value, along, self.mass_g if rising else self.mass_g[::-1]))

    def steamed_g(self, minutes: Grid | float, boils_at: float) -> Grid:
        """Grams gone as steam ``minutes`` after it went on, of a pot that boils at ``boils_at``."""
        if boils_at <= 0.0:
            return np.zeros_like(np.asarray(minutes, dtype=np.float64))
        share = np.clip(np.asarray(minutes, dtype=np.float64) / boils_at, 0.0, 1.0)
        return boils_at * np.interp(share, _HEATED, self.steams_g)

    def times(self, by: float) -> "Way":
        """The way of ``by`` times as much of the same: where it is as thick it weighs so much less, or more; how deep it
        stands and what boils off go by what is there."""
        mass = by * self.mass_g
        beyond = np.maximum(0.0, mass - self.full_g)

        def along(figure: Grid) -> Grid:
            """As :meth:`at`, of every weight at once."""
            straight_on = _slope(self.mass_g, figure, -1) * beyond
            return np.asarray(np.interp(mass, self.mass_g, figure) + straight_on)

        level = along(self.level_mm)
        rate = np.maximum(_LEAST_RATE, along(self.g_per_min))
        return replace(
            self,
            mass_g=mass,
            level_mm=np.maximum.accumulate(level),
            g_per_min=rate,
            minutes=_minutes_down(mass, rate),
            apart_g=by * self.apart_g,
        )

    def share_left(self, mass_g: float, full_g: float) -> float:
        """The share of the liquid left, of a pot that began at ``full_g``."""
        return max(0.0, mass_g - self.apart_g) / max(1e-9, full_g - self.apart_g)


def between(way: Way, other: Way, share: float) -> Way:
    """The way of a pot that lies so far between two which began with more and less of something; beyond the ``other`` it
    goes on straight, until next to nothing is left."""
    least = _LEAST_LEFT * way.mass_g

    def so_far(figure: Grid, of_other: Grid) -> Grid:
        return figure + share * (of_other - figure)

    mass = np.maximum.accumulate(np.maximum(least, so_far(way.mass_g, other.mass_g)))
    mass = mass + 1e-9 * np.arange(len(mass))
    rate = np.maximum(_LEAST_RATE, so_far(way.g_per_min, other.g_per_min))
    return replace(
        way,
        mass_g=mass,
        level_mm=np.maximum.accumulate(np.maximum(0.0, so_far(way.level_mm, other.level_mm))),
        log_eta=np.minimum.accumulate(so_far(way.log_eta, other.log_eta)),
        fat_share=np.clip(so_far(way.fat_share, other.fat_share), 0.0, 1.0),
        g_per_min=rate,
        minutes=_minutes_down(mass, rate),
        boil_up_min=max(0.0, way.boil_up_min + share * (other.boil_up_min - way.boil_up_min)),
        apart_g=max(0.0, way.apart_g + share * (other.apart_g - way.apart_g)),
    )


def _minutes_down(mass: Grid, rate: Grid) -> Grid:
    """Minutes of boiling from each mass down to the driest, at ``rate`` g a minute."""
    per_step = np.diff(mass) * 0.5 * (1.0 / rate[1:] + 1.0 / rate[:-1])
    return np.concatenate([[0.0], np.cumsum(per_step)])


def _slope(mass: Grid, figure: Grid, n: int) -> float:
    return float((figure[n] - figure[n - 1]) / (mass[n] - mass[n - 1]))


def _steams(pot: Pot, surface_m2: float) -> Grid:
    """Grams steamed off on the way up to the boil, for each minute that takes: as much as at a bare
    simmer where it is about to boil, less below by the pressure of its vapour (Magnus)."""
    celsius = pot.temperature_c + (K.BOIL_C - pot.temperature_c) * _HEATED
    pressure = np.exp(17.62 * celsius / (243.12 + celsius) - 17.62 * 100.0 / 343.12)
    rate = K.EVAPORATION_KG_M2_H["bare-simmer"] * surface_m2 * 1000.0 / 60.0 * pressure
    return np.concatenate([[0.0], np.cumsum(0.5 * (rate[1:] + rate[:-1]) * np.diff(_HEATED))])


def way_of(checked: CheckedSheet, number: int, before: Pot | None = None) -> Way | None:
    """The way of step ``number`` (None: it does not boil anything off), from ``before`` (None: as it was
    planned)."""
    step, setting = checked.sheet.steps[number], checked.settings[number]
    if not isinstance(step, Reduce | Simmer):
        return None
    heat: Heat = step.heat
    lid = step.lid if isinstance(step, Simmer) else None
    planned = checked.steps[number - 1].pot if number else Pot()
    pot = in_its_own_juice(before or planned, 1.0)
    took = max(0.0, checked.steps[number].pot.minutes - planned.minutes)
    if not pot.wetted:
        return None
    stove = setting.stove
    if stove.pan is None:
        stove = replace(stove, pan=checked.pan)
    up = minutes_to_boil(pot, stove)
    if pot.pieces:
        pieces, balance = cook_all(pot.pieces, pot.balance, took)
        pot = pot._replace(pieces=pieces, balance=balance)
    most = most_loss_g(pot.balance)
    if most <= 0.0:
        return None
    serving_c, pan = checked.sheet.target.serving_c, checked.pan
    boiling = pot.at_the_boil()
    rows = []
    for loss in np.linspace(most, 0.0, _POINTS):
        left = boiling._replace(balance=boil_off(boiling.balance, float(loss)))
        ml = left.total_ml
        rate = evaporation_g_per_min(max(1.0, ml), heat, stove, lid)
        eta = raw_viscosity_of(left, serving_c)
        rows.append((left.total_g, pan.level_mm(ml), np.log(max(1e-9, eta)), left.fat_share, rate))
    table = np.array(rows, dtype=np.float64).T
    mass, rate = table[0], table[4]
    minutes = _minutes_down(mass, rate)
    # What a cook does not look at when the eye says "half": pieces, and fat that swims.
    apart = pot.pieces_g + pot.balance.swimming_fat_g
    return Way(
        pot,
        mass,
        table[1],
        np.minimum.accumulate(table[2]),  # boiling down only ever thickens
        table[3],
        rate,
        minutes,
        up,
        _steams(pot, pan.surface_m2(pot.total_ml)),
        apart,
    )
