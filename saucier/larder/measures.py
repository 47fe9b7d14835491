"""Kitchen measures: knobs, glasses, scooped cups, ladles. What each holds, and how vaguely."""

import csv
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path

from saucier.errors import BadInput, Problem, problem
from saucier.larder.ingredient import ROLES, Ingredient
from saucier.units import Amount, MeasuredBy, read_amount
from saucier.words import say

KINDS = ("hand", "spoon", "ladle", "pack")


@dataclass(frozen=True, slots=True)
class Measure:
    """One ``name`` holds ``size`` of ``unit`` (g or mL), packed ``packing`` times as tightly as
    spooned. ``of`` is the ingredient or role it is for, empty for anything. ``spread`` is the
    standard share by which hands differ. ``kind`` is one of :data:`KINDS`.
    """

    name: str
    of: str
    size: float
    unit: str
    packing: float
    spread: float
    kind: str
    words: str = ""

    def amount(self, count: float, row: Ingredient) -> Amount:
        """``count`` of these of ``row``: a volume for what pours, else a weight.

        >>> from saucier.larder import shipped_larder
        >>> scoop = Measure("scooped cup", "flour", 240, "mL", 1.2, 0.1, "spoon")
        >>> round(scoop.amount(1, shipped_larder()["wheat-flour"]).value, 2)
        152.64
        """
        by = MeasuredBy(self.name, count, self.spread)
        value = count * self.size
        if self.unit == "mL" and (not row.wet or row.piece or self.packing != 1.0):
            return Amount(round(value * row.cup_density * self.packing, 6), "g", by)
        return Amount(value, self.unit, by)


class Measures:
    """A kitchen's measures. The most particular one that fits an ingredient is taken: its own,
    then its role's, then anything's; of two alike the later, so that a kitchen's own count."""

    def __init__(self, rows: Iterable[Measure]) -> None:
        self._rows: dict[tuple[str, str], Measure] = {(row.name, row.of): row for row in rows}
        self.names = frozenset(row.name for row in self._rows.values())

    def __iter__(self) -> Iterator[Measure]:
        return iter(self._rows.values())

    def named(self, name: str, row: Ingredient) -> Measure | None:
        """The measure called ``name`` (one or many of it) for ``row``; None where there is none.

        >>> from saucier.larder import shipped_larder
        >>> shipped_measures().named("Knobs", shipped_larder()["butter-unsalted"]).size
        15.0
        """
        return self._named(name, (row.key, row.role, ""))

    def _named(self, name: str, of: Sequence[str]) -> Measure | None:
        written = " ".join(name.lower().split())
        for spelling in (written, written.removesuffix("s"), written.removesuffix("es")):
            for whose in of if spelling in self.names else ():
                if found := self._rows.get((spelling, whose)):
                    return found
        return None

    def read(self, text: str, row: Ingredient, unit: str | None = None) -> Amount:
        """The amount in "2 knobs", "about half a scooped cup" or "350 g" of ``row``; a bare number is of ``unit``.

        >>> from saucier.larder import shipped_larder
        >>> shipped_measures().read("3 ladles", shipped_larder()["milk-whole"]).value
        360.0

        Raises :class:`BadInput` as :func:`~saucier.units.read_amount` does.
        """

        def by_hand(count: float, name: str) -> Amount | None:
            measure = self.named(name, row)
            return measure.amount(count, row) if measure else None

        return read_amount(text, unit, by_hand)

    def read_of_sauce(self, text: str, unit: str | None = None) -> Amount:
        """The amount of a finished sauce in ``text``: of this kitchen's measures, what ladles and pours. Raises
        :class:`BadInput` as :func:`~saucier.units.read_amount` does.

        >>> shipped_measures().read_of_sauce("3 ladles").value
        360.0
        """

        def by_hand(count: float, name: str) -> Amount | None:
            found = self._named(name, ("",))
            if found is None or found.unit != "mL":
                return None
            return Amount(count * found.size, "mL", MeasuredBy(found.name, count, found.spread))

        return read_amount(text, unit, by_hand)

    def ladles(self) -> list[Measure]:
        """What this kitchen ladles with, smallest first."""
        return sorted(
            (row for row in self if row.kind == "ladle" and row.unit == "mL"),
            key=lambda row: row.size,
        )

    def with_rows(self, rows: Iterable[Measure]) -> "Measures":
        return Measures([*self._rows.values(), *rows])


def measure_from_row(row: dict[str, str]) -> Measure:
    """A measure from a row of text as in ``measures.csv``. Raises :class:`BadInput` by column."""
    problems: list[Problem] = []

    def number(column: str, low: float, high: float, given_in: str) -> float:
        try:
            value = float((row.get(column) or "").strip().replace(",", "."))
        except ValueError:
            value = -1.0
        if not low <= value <= high:
            shown = (row.get(column) or "")[:20]
            problems.append(
                problem(
                    column,
                    "cannot-be-used",
                    shown=shown,
                    low=low,
                    high=high,
                    given_in=say(f"given-in.{given_in}"),
                )
            )
        return value

    name = " ".join((row.get("name") or "").lower().split())
    if not 2 <= len(name) <= 40 or any(sign.isdigit() for sign in name):
        problems.append(problem("name", "is-no-name", name=name[:40]))
    size = number("size", 0.001, 20_000, "g-or-ml")
    packing = number("packing", 0.2, 5, "times-as-tightly")
    spread = number("spread_pct", 0, 100, "percent")
    unit, kind = row.get("unit") or "", row.get("kind") or ""
    if unit not in ("g", "mL"):
        problems.append(problem("unit", "is-not-g-or-ml", unit=unit[:20]))
    if kind not in KINDS:
        problems.append(
            problem("kind", "is-no-kind-of-measure", kind=kind[:20], kinds=tuple(KINDS))
        )
    if problems:
        raise BadInput(*problems)
    of = (row.get("of") or "").strip()
    return Measure(
        name=name,
        of=of,
        size=size,
        unit=unit,
        packing=packing,
        spread=spread / 100.0,
        kind=kind,
        words=row.get("words") or "",
    )


def measure_fits(measure: Measure, larder: Iterable[str]) -> None:
    """Raises :class:`BadInput` (field ``of``) where it is for nothing in the larder."""
    if measure.of and measure.of not in ROLES and measure.of not in set(larder):
        raise BadInput.at(
            "of",
            "measures-nothing-known",
            of=measure.of[:40],
        )


@lru_cache(maxsize=1)
def shipped_measures() -> Measures:
    """The measures that come with Kestrel Fog."""
    with Path(__file__).with_name("measures.csv").open(encoding="utf-8", newline="") as file:
        return Measures([measure_from_row(row) for row in csv.DictReader(file)])
