"""A reading as a scale or a probe sends it: a small JSON document, version 1 (docs/formats)."""

from collections.abc import Mapping, Sequence
from datetime import datetime
from typing import Annotated, Any, Literal, Self

from pydantic import Field, model_validator

from saucier import constants as K
from saucier.document import Part
from saucier.errors import BadInput
from saucier.sheet import read_part


class Reading(Part):
    """``mass_g``, what a scale shows with all that stands on it, or ``temperature_c`` of a probe: one of
    the two. ``at``: when it was read, with its offset from UTC; left out: just now."""

    format: Literal["kestrel-fog/reading"] = "kestrel-fog/reading"
    version: Literal[1] = 1
    mass_g: Annotated[float, Field(ge=-10_000, le=200_000)] | None = None
    temperature_c: Annotated[float, Field(ge=-60, le=400)] | None = None
    at: datetime | None = None

    @model_validator(mode="after")
    def _one_of(self) -> Self:
        if (self.mass_g is None) == (self.temperature_c is None):
            raise BadInput.at("mass_g", "reading-is-one-thing")
        if self.at is not None and self.at.tzinfo is None:
            raise BadInput.at("at", "reading-has-no-offset")
        return self

    @property
    def value(self) -> float:
        """The figure read, in its own unit."""
        value = self.mass_g if self.mass_g is not None else self.temperature_c
        assert value is not None
        return value

    @property
    def kind(self) -> Literal["scale", "probe"]:
        return "scale" if self.mass_g is not None else "probe"


MOST = 200
"""Readings taken at once."""


def read_readings(data: Any) -> list[Reading]:
    """One reading, or several in order. Raises :class:`BadInput` by field (``[n].field`` of several)."""
    if isinstance(data, Mapping):
        return [_one(data, "")]
    if not isinstance(data, list) or not 1 <= len(data) <= MOST:
        raise BadInput.at("", "no-readings", most=MOST)
    return [_one(one, f"[{number}]") for number, one in enumerate(data)]


def _one(data: Any, field: str) -> Reading:
    if not isinstance(data, Mapping):
        raise BadInput.at(field, "is-no-reading")
    return read_part(Reading, data, field)


def boils_since(probe: Sequence[tuple[float, float]]) -> float | None:
    """The minute from which a probe's readings (minute, °C) say that it boils: near a hundred, and rising
    no more. A probe that lies on the floor of the pan reads too much, and stops rising all the same.

    >>> boils_since([(0.0, 80.0), (1.0, 92.0), (2.0, 100.1), (2.5, 100.2), (3.0, 100.2)])
    2.0
    >>> boils_since([(0.0, 80.0), (1.0, 92.0)]) is None
    True
    """
    for number, (minute, celsius) in enumerate(probe):
        if celsius < K.PROBE_BOILS_C:
            continue
        after = [later for at, later in probe[number:] if at <= minute + K.PROBE_STILL_MIN]
        reached = probe[-1][0] - minute >= K.PROBE_STILL_MIN
        if reached and len(after) >= 2 and max(after) - celsius < K.PROBE_STILL_C:
            return minute
    return None
