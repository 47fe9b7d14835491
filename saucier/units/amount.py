"""An amount as a cook writes it: a number and a unit."""

from dataclasses import dataclass

from saucier.units.table import Dimension, Unit, unit_named
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class MeasuredBy:
    """How an amount is measured where no scale is: ``count`` of a kitchen measure called
    ``name``, which differs between hands by the standard share ``spread``."""

    name: str
    count: float
    spread: float


@dataclass(frozen=True, slots=True)
class Amount:
    """``value`` of ``unit``; always finite and more than zero once read from a sheet.
    ``measure`` says how it is measured by hand, None where it is weighed or poured.

    >>> Amount(1.5, "cup").base
    360.0
    """

    value: float
    unit: str
    measure: MeasuredBy | None = None

    @property
    def definition(self) -> Unit:
        return unit_named(self.unit)

    @property
    def dimension(self) -> Dimension:
        return self.definition.dimension

    @property
    def base(self) -> float:
        """The amount in its dimension's base: grams, millilitres or pieces."""
        return self.value * self.definition.size

    def times(self, factor: float) -> "Amount":
        by = self.measure
        if by is not None:
            by = MeasuredBy(by.name, by.count * factor, by.spread)
        return Amount(self.value * factor, self.unit, by)

    def said(self) -> Sentence:
        """As the kitchen that reads it writes figures; ``str()`` is how a file writes it.

        >>> from saucier.words import Ways, going_by
        >>> with going_by(Ways(comma=True)):
        ...     str(Amount(2.5, "g").said()), str(Amount(0.5, "tbsp").said())
        ('2,5 g', '0,5 tbsp')
        """
        if self.measure:
            return say("figure.in-unit", value=self.measure.count, unit=self.measure.name)
        if self.unit in ("g", "kg", "mL", "L"):  # what other measures can stand beside
            return say(f"figure.in-{self.unit}", value=self.value)
        return say("figure.in-unit", value=self.value, unit=self.unit)

    def __str__(self) -> str:
        if self.measure:
            return f"{self.measure.count:g} {self.measure.name}"
        return f"{self.value:g} {self.unit}"

    def __repr__(self) -> str:
        by = f", measure={self.measure!r}" if self.measure else ""
        return f"Amount(value={self.value!r}, unit={self.unit!r}{by})"
