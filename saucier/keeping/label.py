"""A label of what is put away: an open document, and its lines as plain text (docs/formats/label.md)."""

import textwrap
from datetime import date, datetime, timedelta
from typing import Annotated, Literal

from pydantic import Field

from saucier.document import Part
from saucier.keeping.shelf_life import Keeps
from saucier.words import Sentence, say

LINE = 32
"""Letters in a line of a small label printer."""


class ColdBy(Part):
    """It has to be at ``to_c`` by ``at``, or the use-by day does not hold."""

    to_c: Annotated[float, Field(ge=-5, le=100)]
    at: datetime


class Label(Part):
    """``code`` is short enough to be typed, ``opens`` the address its picture code leads to. ``use_by`` is
    a day by the usual cautions, left out where none was reckoned; it holds only ``if_cold`` by then: empty where readings have shown it, or it does not hang on it.
    ``keeps`` says why."""

    format: Literal["kestrel-fog/label"] = "kestrel-fog/label"
    version: Literal[1] = 1
    name: Annotated[str, Field(min_length=1, max_length=160)]
    code: Annotated[str, Field(min_length=1, max_length=20)]
    opens: Annotated[str, Field(max_length=300)] = ""
    kitchen: Annotated[str, Field(max_length=80)] = ""
    made_at: datetime
    made_by: Annotated[str, Field(max_length=150)] = ""
    mass_g: Annotated[float, Field(gt=0, le=1_000_000)] | None = None
    grade: Annotated[str, Field(max_length=30)] = ""
    allergens: tuple[str, ...] = ()
    use_by: date | None = None
    if_cold: tuple[ColdBy, ...] = ()
    keeps: Annotated[str, Field(max_length=300)] = ""


def use_by(made_at: datetime, keeps: Keeps) -> date:
    """The last day it is used, counted from the day it was made.

    >>> from saucier.words import say
    >>> use_by(datetime(2026, 3, 30, 15, 0), Keeps(2, say("keeps.for-its-service")))
    datetime.date(2026, 4, 1)
    """
    return made_at.date() + timedelta(days=keeps.days)


def lines_of(label: Label) -> tuple[str, ...]:
    """``label`` in lines of at most :data:`LINE` letters.

    >>> for line in lines_of(Label(name="Caraway cap", code="B7", made_at=datetime(2026, 3, 30, 15, 5),
    ...     made_by="Tove", mass_g=1240, allergens=("milk", "wheat"), use_by=date(2026, 4, 1))):
    ...     print(line)
    Caraway cap
    USE BY Wed 1 Apr
    made Mon 30 Mar 15:05, Tove
    1240 g
    CONTAINS milk, wheat
    B7
    """
    told: list[Sentence | str] = [label.name]
    if label.use_by is not None:
        told.append(say("label.use-by", day=_day(label.use_by)))
        told += [
            say("label.if-cold", to_c=one.to_c, time=f"{one.at:%H:%M}") for one in label.if_cold
        ]
    by = "label.made-by" if label.made_by else "label.made"
    told.append(say(by, day=_day(label.made_at), time=f"{label.made_at:%H:%M}", by=label.made_by))
    if label.mass_g is not None:
        told.append(say("label.amount", grams=label.mass_g))
    if label.allergens:
        told.append(say("label.contains", allergens=", ".join(label.allergens)))
    else:
        told.append(say("label.contains-none"))
    told.append(label.code)
    return tuple(line for one in told for line in textwrap.wrap(str(one), LINE) or [""])


def _day(day: date) -> str:
    return f"{day:%a} {day.day} {day:%b}"
