"""What will be believed of a pot from now on, worked out beforehand: a device without a network looks it up.

By the minute where nothing more is seen of it, and after one more look of each kind at any of those minutes. Two looks
deep it does not go: after one the device counts on by the clock.
"""

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from saucier.correction import spoons_about
from saucier.watch.seen import SeenKind
from saucier.watch.watching import Guess, Watched, Watching

AT_MIN = (0.0, 1.0, 2.0, 4.0, 7.0, 11.0, 16.0, 22.0, 30.0)
"""Minutes from now that are worked out: between them is looked up in between."""
_MORE_MIN = 6.0
"""So long after it may be there at the latest nothing more is worked out."""
_GONE = (0.25, 0.5, 0.75)
_LEVELS = 8
"""Levels, and readings of a scale, that are worked out between where it starts and where it ends."""


@dataclass(frozen=True, slots=True)
class Moment:
    """The pot ``in_min`` minutes from now, as :class:`~saucier.watch.watching.Watched` has it."""

    in_min: float
    boils_in_min: float
    minutes_left: Guess | None
    mass_g: Guess
    share_left: Guess
    level_mm: Guess
    viscosity_pa_s: Guess


@dataclass(frozen=True, slots=True)
class LookAhead:
    """The pot where ``what`` is seen to be ``value`` at each of the minutes."""

    what: SeenKind
    value: float
    moments: tuple[Moment, ...]


@dataclass(frozen=True, slots=True)
class Ahead:
    """What will be believed: where nothing more is seen (``by_itself``), and after one of the ``looks``."""

    by_itself: tuple[Moment, ...]
    looks: tuple[LookAhead, ...]


def ahead(watching: Watching) -> Ahead:
    """What will be believed of the pot that is ``watching``.

    >>> from saucier.check import check
    >>> from saucier.watch.seen import Seen
    >>> from saucier.testing import add, reduce_to, sheet
    >>> cream = check(sheet(add("cream-35", 500), reduce_to(share=0.5)))
    >>> told = ahead(Watching.of(cream, 1, [Seen(3.0, "gone", 0.25)], 4.0))
    >>> first, later = told.by_itself[0], told.by_itself[2]
    >>> round(first.minutes_left.value - later.minutes_left.value, 1)
    2.0
    >>> sorted({look.what for look in told.looks})
    ['gone', 'level', 'spoon']
    """
    told = watching.told()
    then = list(_then(watching, told))
    looks = [
        LookAhead(
            what, value, tuple(_seen_then(one, minutes, what, value) for minutes, one in then)
        )
        for what, value in _looks(told)
    ]
    return Ahead(tuple(_moment(one, minutes) for minutes, one in then), tuple(looks))


def _then(watching: Watching, told: Watched) -> Iterator[tuple[float, Watching]]:
    """``watching`` at each of the minutes, nothing more having been seen of it."""
    left = told.minutes_left
    last = AT_MIN[-1] if left is None else left.high + _MORE_MIN
    for minutes in AT_MIN:
        yield minutes, watching.on(minutes)
        if minutes >= last:
            return


def _looks(told: Watched) -> Iterator[tuple[SeenKind, float]]:
    if told.boils_in_min > 0.0:
        yield "boils", 1.0
    for share in _GONE:
        yield "gone", share
    lowest = 0.6 * (told.goal.level_mm if told.goal else 0.0)
    for level in np.linspace(max(1.0, lowest), 1.15 * told.level_mm.high, _LEVELS):
        yield "level", round(float(level), 1)
    if told.scale_g is not None:
        tare = told.scale_g - told.mass_g.value
        lightest = 0.7 * (told.goal.mass_g if told.goal else told.mass_g.low)
        for grams in np.linspace(lightest, 1.1 * told.mass_g.high, _LEVELS):
            yield "scale", round(float(grams) + tare, 1)
    for spoon in spoons_about(min(30.0, max(0.06, told.viscosity_pa_s.value))):
        yield "spoon", spoon.viscosity_pa_s


def _seen_then(watching: Watching, in_min: float, what: SeenKind, value: float) -> Moment:
    return _moment(watching.seeing(what, value), in_min)


def _moment(watching: Watching, in_min: float) -> Moment:
    boils_in_min, minutes_left, *rest = watching.figures()
    left = None if minutes_left is None else _short(minutes_left)
    return Moment(in_min, round(boils_in_min, 2), left, *(_short(one) for one in rest))


def _short(guess: Guess) -> Guess:
    """``guess`` in four digits: more is not known, and it is sent to a device by the hundred."""
    return Guess(*(float(f"{one:.4g}") for one in (guess.value, guess.low, guess.high)))
