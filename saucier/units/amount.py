"""An amount as a cook writes it: a number and a unit."""

from dataclasses import dataclass

from saucier.units.table import Dimension, Unit, unit_named


@dataclass(frozen=True, slots=True)
class Amount:
    """``value`` of ``unit``; always finite and more than zero once read from a sheet.

    >>> Amount(1.5, "cup").base
    360.0
    """

    value: float
    unit: str

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
        return Amount(self.value * factor, self.unit)

    def __str__(self) -> str:
        return f"{self.value:g} {self.unit}"
