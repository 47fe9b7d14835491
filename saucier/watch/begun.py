"""A pot that holds more, or less, than its sheet says, from before it boils: of what that is, and how it goes on from
there. It is not one that has boiled down so far: it is as thick as it was, or thinner."""

from collections.abc import Mapping, Sequence
from functools import cached_property
from typing import NamedTuple

import numpy as np

from saucier.check import CheckedSheet
from saucier.larder import Ingredient
from saucier.pot import Balance, Pot
from saucier.sheet import Sheet
from saucier.steps.step import amounts_in
from saucier.units import Amount, kitchen_round
from saucier.watch.way import Way, between, way_of

WATER, ALL_ALIKE = "water", ""
LEAST = 0.05
"""Of what was reckoned to be in the pot, the least that is reckoned with."""
_APART = 2.0
"""A way is worked out for so many spreads more, and less, than is reckoned; between them it is read off."""


class Doubt(NamedTuple):
    """``grams``, one standard spread, by which a pot is open for the ingredient ``key`` (:data:`WATER`: for what has
    boiled off; :data:`ALL_ALIKE`: for all that is in it), of which ``of_g`` were to go in."""

    key: str
    grams: float
    of_g: float = 0.0


class WentIn(NamedTuple):
    """What went in ``before`` a step, in truth, against what is written: so many times as much of an ingredient
    (``by_key``), and of all (``of_all``)."""

    before: int
    by_key: Mapping[str, float]
    of_all: float


Larder = Mapping[str, Ingredient]


def begun_with(pot: Pot, total_g: float, doubts: Sequence[Doubt], larder: Larder) -> Pot:
    """``pot`` with ``total_g`` grams in it: what it has more, or less, is of what there was ``doubts`` of, by the variance
    of each.

    >>> from saucier.larder import shipped_larder
    >>> pot = Pot(Balance(water=800, solids=90, fat=40, thickener=50, flour=50), wetted=True)
    >>> milk = Doubt("milk-whole", 60.0)
    >>> more = begun_with(pot, 1100.0, [milk], shipped_larder())
    >>> round(more.total_g), more.balance.thickener, round(more.balance.water - 800)
    (1100, 50.0, 111)
    """
    return _begun(pot, total_g, doubts, larder)[0]


def _begun(
    pot: Pot, total_g: float, doubts: Sequence[Doubt], larder: Larder
) -> tuple[Pot, dict[str, float], float]:
    """As :func:`begun_with`, with how many times as much went in of each ingredient, and of all."""
    total_g = max(total_g, LEAST * pot.total_g)
    off, variance = total_g - pot.total_g, sum(doubt.grams**2 for doubt in doubts)
    by_key: dict[str, float] = {}
    for key, grams, of_g in doubts if variance else ():
        if key == ALL_ALIKE or key not in larder:
            continue
        more = off * grams**2 / variance
        if of_g:
            more = max(more, (LEAST - 1.0) * of_g)
            by_key[key] = by_key.get(key, 1.0) + more / of_g
        pot = _with_more(pot, larder[key], more)
    if pot.total_g <= 0.0:
        return pot, by_key, 1.0
    of_all = total_g / pot.total_g
    return pot.part(of_all), by_key, of_all


_AS_WRITTEN = 0.02
"""What went in is as it is written, within so much."""


def as_it_went_in(sheet: Sheet, went_in: Sequence[WentIn]) -> Sheet:
    """``sheet`` with what went in, in truth, where that was seen: by weight or by the jug, since it is known now."""
    steps = list(sheet.steps)
    for number, step in enumerate(steps):
        for before, by_key, of_all in went_in:
            if number >= before:
                continue
            for field, key, amount in amounts_in(step):
                by = of_all * by_key.get(key, 1.0)
                if abs(by - 1.0) > _AS_WRITTEN:
                    known = kitchen_round(Amount(by * amount.value, amount.unit))
                    step = steps[number] = step.with_amount(field, known)
    return sheet.model_copy(update={"steps": tuple(steps)})


def _with_more(pot: Pot, row: Ingredient, grams: float) -> Pot:
    pieces = [piece for piece in pot.pieces if piece.key == row.key]
    if pieces:
        pieces_g = sum(piece.mass_g for piece in pieces)
        by = max(LEAST, 1.0 + grams / pieces_g) if pieces_g > 0.0 else 1.0
        return pot._replace(
            pieces=tuple(piece.share(by) if piece.key == row.key else piece for piece in pot.pieces)
        )
    added = pot.balance.plus(row.per_gram, grams)
    return pot._replace(balance=Balance(*(max(0.0, part) for part in added)))


class Ways:
    """The ways of step ``number`` of ``checked`` from the pot ``before`` it, by what that holds in truth; ``planned``: as
    it is reckoned."""

    def __init__(
        self,
        checked: CheckedSheet,
        number: int,
        before: Pot,
        planned: Way,
        doubts: Sequence[Doubt] = (),
    ) -> None:
        self._checked, self._number, self.before = checked, number, before
        self._doubts = doubts or (Doubt(ALL_ALIKE, 0.05 * planned.full_g),)
        self.planned = planned
        self._worked_out: dict[float, Way] = {}

    def begun_with(self, full_g: float) -> Pot:
        """The pot before the step, with ``full_g`` in it."""
        return self._begun(full_g)[0]

    def went_in(self, full_g: float) -> WentIn:
        """What went into a pot that began with ``full_g``."""
        _, by_key, of_all = self._begun(full_g)
        return WentIn(self._number, by_key, of_all)

    def _begun(self, full_g: float) -> tuple[Pot, dict[str, float], float]:
        larder = self._checked.settings[self._number].kitchen.larder
        return _begun(self.before, full_g, self._doubts, larder)

    def of(self, full_g: float) -> Way:
        """The way of a pot that begins with ``full_g``; each is worked out once, a gram in thousands apart."""
        reckoned = self.planned.full_g
        share = round(full_g / reckoned - 1.0, 3)
        if share == 0.0:
            return self.planned
        if share not in self._worked_out:
            self._worked_out[share] = self._way(share * reckoned)
        return self._worked_out[share]

    def _way(self, off_g: float) -> Way:
        reckoned = self.planned.full_g
        other = self._more if off_g > 0.0 else self._less
        if other is None:
            return self.planned.times(1.0 + off_g / reckoned)
        return between(self.planned, other, off_g / (other.full_g - reckoned))

    @cached_property
    def _more(self) -> Way | None:
        return self._off_by(_APART)

    @cached_property
    def _less(self) -> Way | None:
        return self._off_by(-_APART)

    def _off_by(self, spreads: float) -> Way | None:
        reckoned = self.planned.full_g
        off = spreads * float(np.sqrt(sum(doubt.grams**2 for doubt in self._doubts)))
        other_g = max(reckoned + off, 0.5 * reckoned)
        way = way_of(self._checked, self._number, self.begun_with(other_g))
        return way if way is not None and abs(way.full_g - reckoned) > 1e-6 else None
