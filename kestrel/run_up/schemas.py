"""What the API of run-ups says that the core has no type for."""

from datetime import date, datetime
from typing import Any, Literal

from ninja import Schema
from pydantic import Field

from kestrel.fields import Day
from saucier.run_up import RunUp as Document
from saucier.run_up.calls_told import CallPlan, ToOrder
from saucier.run_up.document import FIRST, LAST
from saucier.run_up.sheets import RunSheet
from saucier.run_up.timed import TimedDay


class NewRunUp(Schema):
    """Of a service, or of so many portions of a dish at a time (``serve_at``, like 19:30)."""

    service_id: int | None = None
    dish_id: int | None = None
    portions: float = Field(default=4, gt=0, le=500)
    serve_at: str = "19:00"
    day: Day | None = None
    utc_offset_min: int = Field(default=0, ge=-840, le=840)


class RunUpRow(Schema):
    """A run-up in the list."""

    id: int
    name: str
    date: date
    service_id: int | None
    updated_at: datetime


class PlannedLine(Schema):
    number: int
    name: str
    portions: float
    filled: bool
    cold: bool


class ShortOut(Schema):
    what: str
    start: float
    end: float
    by: int
    words: str


class MendOut(Schema):
    key: str
    words: str
    late: float
    harmed: float


class Planned(Schema):
    """What was planned last."""

    days: list[TimedDay]
    sheets: list[RunSheet]
    served: dict[str, float]
    remarks: list[str]
    lines: list[PlannedLine]
    lanes: dict[str, list[str]]
    to_order: list[ToOrder]
    calls: list[CallPlan]
    mends: list[MendOut]
    short: list[ShortOut]
    mended: bool


class PlanningOut(Schema):
    """What was asked for last: waiting, under way or over; ``going``: something is still to be done, it
    or what it made room for."""

    id: int
    what: str
    state: str
    progress: dict[str, Any]
    answer: dict[str, Any]
    going: bool


class RunUpOut(Schema):
    """A run-up whole. ``pots_on``: which task is which pot on the stove now. ``stale``: what it is planned of was changed since. ``now`` is this moment on its
    clock, minutes."""

    id: int
    name: str
    date: date
    service_id: int | None
    revision: int
    document: Document
    planned: Planned | None
    planning: PlanningOut | None
    stale: bool
    now: float
    pots_on: dict[str, int]


class ChangeIn(Schema):
    document: dict[str, Any]
    revision: int


class MoveIn(Schema):
    """Begin a task at a minute; ``anyway`` though it spoils something."""

    key: str
    at: float = Field(ge=FIRST, le=LAST)
    anyway: bool = False


class MarkIn(Schema):
    key: str
    what: Literal["began", "over", "undo"]
    at: float | None = Field(default=None, ge=FIRST, le=LAST)
    revision: int


class TakeMendIn(Schema):
    key: str
    revision: int


class CallIn(Schema):
    line: int
    portions: int = Field(default=1, ge=1, le=60)
    table: str = Field(default="", max_length=20)
    at: float | None = Field(default=None, ge=FIRST, le=LAST)


class GoneIn(Schema):
    gone: bool = True
