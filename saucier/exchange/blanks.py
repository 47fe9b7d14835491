"""Amounts for what a recipe names without one: usual shares of the liquid, flour solved for the grade."""

import csv
import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from functools import lru_cache, partial
from pathlib import Path
from statistics import median
from typing import Any

from saucier.check import CheckedSheet, check
from saucier.demand import need_for
from saucier.errors import BadInput
from saucier.exchange.drafts import Draft, Made, steps_of
from saucier.exchange.lines import Between, ReadLine
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient
from saucier.roots import find_root
from saucier.sheet import Serves, read_sheet
from saucier.thickness import Grade, grade_named
from saucier.units import Amount, kitchen_round
from saucier.words import Sentence, say

_USUAL_PORTIONS = 4.0
_SHARED = ("cheese", "wine", "soft-cream", "puree")
"""Kinds whose usual amount is for all of the kind together."""
_FLOUR_G_PER_L = 70.0
"""Where the search for the flour begins."""
_SIZINGS = 3
"""Rounds in which the size comes to the yield: minutes of simmering do not grow with it."""
_MOST_TIMES = 60.0
"""How far from its usual share an amount is looked for, as a factor."""


_Edges = dict[int, tuple[float, float]]
"""Grams of lines at the thin and the thick edge of the grade."""


@dataclass(frozen=True, slots=True)
class MeantFor:
    """What the sauce is for: a ``use``, ``portions``, how thick (``grade``; None: the use's)."""

    use: str = "nap"
    portions: float = _USUAL_PORTIONS
    grade: str | None = None


@dataclass(frozen=True, slots=True)
class Filled:
    """``amounts`` by line; ``between`` the edges of those that are ours; what was taken for granted;
    the ``target`` they were reckoned for, as a sheet writes it."""

    amounts: dict[int, Amount]
    between: dict[int, Between]
    assumed: tuple[Sentence, ...]
    target: dict[str, Any] = field(default_factory=dict)


@dataclass(frozen=True, slots=True)
class _Usual:
    """Grams to a litre of base: where there is flour, and where cream is boiled down."""

    floured_g: float
    cream_g: float
    spread: float


@lru_cache(maxsize=1)
def _table() -> Mapping[str, _Usual]:
    with Path(__file__).with_name("usual.csv").open(encoding="utf-8", newline="") as file:
        return {
            row["what"]: _Usual(*(float(row[name]) for name in ("floured_g", "cream_g", "spread")))
            for row in csv.DictReader(file)
        }


def filled(made: Made, wanted: MeantFor, kitchen: Kitchen) -> Filled:
    """Amounts for every line of ``made`` that has none and is not by tongue.

    What is known sets the size; where nothing is, ``wanted`` does. Flour (with its fat) is solved
    for the grade; where flour is known and no liquid, the liquid is. Raises :class:`BadInput` for an
    unknown use or grade.
    """
    known = {
        n: one.amount
        for n, one in enumerate(made.lines)
        if one.amount is not None and one.ingredient
    }
    filling = _Filling(made, wanted, kitchen, known)
    if not filling.blank:
        return Filled(known, {}, ())
    return filling.filled()


_HAND_SPREAD = 0.3
"""A measure as vague as this (a dash, a knob) tells nothing of how much sauce is meant."""


def _by_hand(amount: Amount) -> bool:
    return amount.measure is not None and amount.measure.spread >= _HAND_SPREAD


class _Filling:
    def __init__(
        self, made: Made, wanted: MeantFor, kitchen: Kitchen, known: dict[int, Amount]
    ) -> None:
        self.made, self.kitchen, self.known = made, kitchen, known
        serves = Serves(use=wanted.use, portions=wanted.portions, margin_pct=0)
        self.need = need_for(serves, kitchen)
        self.wanted = wanted
        self.grade: Grade = grade_named(wanted.grade or self.need.use.grade)
        self.drafts = [one for draft in made.drafts for one in (draft, *draft.inside)]
        self.at = {
            p.line: (draft, name)
            for draft in reversed(self.drafts)
            for name, p in draft.portions.items()
        }
        self.blank = [n for n in self.at if n not in known]
        self.floured = any(self._row(n).role == "flour" for n in self.at)
        self.base = self._base()

    def _row(self, line: int) -> Ingredient:
        return self.kitchen.larder[self.made.lines[line].ingredient or ""]

    def _base(self) -> list[int]:
        """The liquids all else is reckoned by."""
        kinds: tuple[tuple[str, ...], ...] = (
            ("milk", "stock", "water"),
            ("cream",),
            ("soft-cream",),
            ("wine", "juice"),
        )
        if not self.floured:
            kinds = (("cream",), ("soft-cream",), ("milk", "stock", "water"), ("wine", "juice"))
        for roles in kinds:
            if found := [n for n in self.at if self._row(n).role in roles]:
                return found
        return []

    def _usual(self, line: int) -> tuple[float, float]:
        """Grams to a litre of base, and the factor either way."""
        row, draft, table = self._row(line), self.at[line][0], _table()
        how = "liaison" if draft.op == "liaison" else draft.op
        one = table.get(row.key) or table.get(f"{row.role}:{how}") or table.get(row.role)
        if one is None:
            return 30.0, 2.0
        if line in self.base:
            return 1000.0 / len(self.base), one.spread
        usual = one.floured_g if self.floured else one.cream_g
        # Two cheeses are as much as one.
        alike = sum(self._row(n).role == row.role for n in self.at) if row.role in _SHARED else 1
        return usual / alike, one.spread

    # The size.

    def _litres(self) -> float | None:
        """Litres of base by what is known; None where nothing is."""

        def by(lines: list[int]) -> list[float]:
            return [self._row(n).grams(self.known[n]) / self._usual(n)[0] for n in lines]

        known = {n for n, amount in self.known.items() if not _by_hand(amount)}
        if base := [n for n in self.base if n in known]:
            return sum(self._row(n).grams(self.known[n]) for n in base) / sum(
                self._usual(n)[0] for n in base
            )
        counted = [
            n for n in self.at if n in known and self._row(n).role not in ("spice", "herb", "acid")
        ]
        return median(by(counted)) if counted else None

    def filled(self) -> Filled:
        litres = self._litres()
        sized = litres is not None
        start = litres if litres is not None else self.need.volume_ml / 1000.0
        flour = [n for n in self.blank if self._row(n).role == "flour"]
        if flour:
            amounts, edges = self._flour_solved(flour, start, sized=sized)
        elif self.floured and self.base and not any(n in self.known for n in self.base):
            amounts, edges = self._liquid_solved(start)
        else:
            amounts, edges = self._in_size(start, sized=sized), {}
        return self._told(amounts, edges, sized=sized)

    def _flour_solved(
        self, flour: list[int], litres: float, *, sized: bool
    ) -> tuple[dict[int, Amount], _Edges]:
        """Flour, and the fat of its roux, for the grade; where nothing sets the size, for the yield."""
        for _ in range(1 if sized else _SIZINGS):
            with_flour = partial(self._at, litres)
            amounts = with_flour(self._solved(with_flour, _FLOUR_G_PER_L * litres))
            if sized or not (volume := self._volume(amounts)):
                break
            litres *= self.need.volume_ml / volume
        low_high = self._edges(with_flour, self._row(flour[0]).grams(amounts[flour[0]]))
        fats = [d.portions["fat"].line for d in self.drafts if d.op == "roux"]
        whole = [n for n in fats if n in self.blank and self._share_here(n, self.at[n][0]) == 1.0]
        return amounts, dict.fromkeys([*flour, *whole], low_high)

    def _liquid_solved(self, litres: float) -> tuple[dict[int, Amount], _Edges]:
        """The liquid for the flour there is."""
        found = self._solved(self._at, litres)
        amounts = self._at(found)
        low, high = self._edges(self._at, found)
        grams = {n: self._row(n).grams(amounts[n]) / found for n in self.base}
        return amounts, {n: (low * each, high * each) for n, each in grams.items()}

    def _in_size(self, litres: float, *, sized: bool) -> dict[int, Amount]:
        """Everything in its usual share, for what is known or for the yield."""
        amounts = self._at(litres)
        for _ in range(0 if sized else _SIZINGS):
            if not (volume := self._volume(amounts)):
                break
            litres *= self.need.volume_ml / volume
            amounts = self._at(litres)
        return amounts

    def _at(self, litres: float, flour_g: float | None = None) -> dict[int, Amount]:
        """Amounts with so many litres of base and, where flour is free, so many grams of it."""
        amounts = dict(self.known)
        for n in self.blank:
            row, (draft, name) = self._row(n), self.at[n]
            grams = self._usual(n)[0] * litres
            if row.role == "flour" and flour_g is not None:
                grams = flour_g
            elif draft.op == "roux" and name == "fat":
                beside = draft.portions["flour"].line
                known = self.known.get(beside)
                grams = (
                    self._row(beside).grams(known) if known else flour_g or _FLOUR_G_PER_L * litres
                )
                # Half the butter went elsewhere first ("with the rest of the butter and the flour").
                grams /= self._share_here(n, draft)
            amounts[n] = Amount(grams, "g")
        return amounts

    def _share_here(self, line: int, here: Draft) -> float:
        """The share of a line's whole that goes into ``here``, where it is divided."""
        others = [
            p.take
            for d in self.drafts
            if d is not here
            for p in d.portions.values()
            if p.line == line and isinstance(p.take, float)
        ]
        return max(0.2, 1.0 - sum(others)) if others else 1.0

    # Playing it.

    def _played(self, amounts: dict[int, Amount]) -> CheckedSheet | None:
        try:
            target = {"serving_c": self.need.use.serving_c}
            steps = steps_of(self.made, amounts, self.kitchen)
            return check(read_sheet({"name": "?", "steps": steps, "target": target}), self.kitchen)
        except BadInput:
            return None

    def _volume(self, amounts: dict[int, Amount]) -> float:
        played = self._played(amounts)
        return (played.figures.yield_ml or 0.0) if played else 0.0

    def _log_eta(self, amounts: dict[int, Amount]) -> float | None:
        played = self._played(amounts)
        eta = played.final.thickness.viscosity_pa_s if played else None
        return math.log(eta) if eta else None

    def _solved(
        self, at: Callable[[float], dict[int, Amount]], start: float, target: float | None = None
    ) -> float:
        """The free figure that brings the pot to the grade; its start where none near does."""
        wanted = math.log(target or self.grade.target)

        def excess(log_x: float) -> float:
            eta = self._log_eta(at(math.exp(log_x)))
            return 50.0 if eta is None else eta - wanted

        middle, reach = math.log(max(start, 1e-6)), math.log(_MOST_TIMES)
        try:
            return math.exp(find_root(excess, middle - reach, middle + reach, 1e-3))
        except (BadInput, ValueError):
            return start

    def _edges(self, at: Callable[[float], dict[int, Amount]], found: float) -> tuple[float, float]:
        """What the free figure is at the edges of the grade."""
        low = self._solved(at, found, self.grade.low)
        high = self._solved(at, found, self.grade.high)
        return min(low, high), max(low, high)

    def _told(
        self, amounts: dict[int, Amount], edges: dict[int, tuple[float, float]], *, sized: bool
    ) -> Filled:
        between = {}
        for n in self.blank:
            row, grams = self._row(n), amounts[n].value
            spread = self._usual(n)[1]
            low, high = edges.get(n, (grams / spread, grams * spread))
            amounts[n] = _as_weighed(row, grams)
            between[n] = Between(_as_weighed(row, low), _as_weighed(row, high))
        told = (
            say("assumed.ours-by-known")
            if sized
            else say(
                "assumed.ours-for",
                portions=self.need.portions,
                use=self.need.use.name.lower(),
                volume_ml=self.need.volume_ml,
            )
        )
        solved = (say("assumed.ours-grade", grade=self.grade.name),) if edges else ()
        target: dict[str, Any] = {"serving_c": self.need.use.serving_c}
        if edges:
            target["grade"] = self.grade.key
        if not sized:
            target["serves"] = {"use": self.wanted.use, "portions": self.wanted.portions}
        return Filled(amounts, between, (told, *solved), target)


def _as_weighed(row: Ingredient, grams: float) -> Amount:
    """``grams`` of ``row`` as a kitchen measures it: liquids by volume, yolks by the piece."""
    if row.role == "egg" and row.piece_g:
        return Amount(float(max(1, round(grams / row.piece_g))), "piece")
    if (
        row.wet
        and not row.piece
        and row.role in ("milk", "stock", "water", "wine", "spirit", "cream", "juice")
    ):
        return kitchen_round(Amount(max(1.0, grams / row.density), "mL"))
    if grams < 10.0:
        return Amount(max(0.1, round(grams, 1)), "g")
    return kitchen_round(Amount(grams, "g"))


def with_amounts(lines: list[ReadLine], filled: Filled) -> list[ReadLine]:
    """``lines`` with the amounts that are ours, marked so."""
    return [
        replace(
            one,
            status="ours",
            amount=filled.amounts[n],
            between=filled.between[n],
            why=say("line.ours"),
        )
        if n in filled.between
        else one
        for n, one in enumerate(lines)
    ]
