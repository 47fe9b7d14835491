"""Kinds of fields that many bodies share."""

from datetime import date
from typing import Annotated, TypeVar

from pydantic import AfterValidator, AwareDatetime, Field

FIRST_YEAR, LAST_YEAR = 2000, 2199
"""Years a kitchen has: beyond them, days and hours can no longer be added."""

_When = TypeVar("_When", bound=date)


def _of_a_kitchen(when: _When) -> _When:
    if not FIRST_YEAR <= when.year <= LAST_YEAR:
        raise ValueError(f"Give a year from {FIRST_YEAR} to {LAST_YEAR}")
    return when


Day = Annotated[date, AfterValidator(_of_a_kitchen)]
Moment = AwareDatetime
"""By the clock of a device, which may be years off: what was done is never refused for that."""
Key = Annotated[str, Field(min_length=8, max_length=40, pattern=r"^[A-Za-z0-9_-]+$")]
"""What the sender calls an act, so that it is done once however often it is sent."""
