"""The run-up of one service, as an open document: who is there, what is settled, what is changed."""

import re
from collections.abc import Mapping
from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError, field_validator

from saucier.document import Minutes, Part
from saucier.errors import BadInput
from saucier.run_up.means import Skill
from saucier.sheet.reading import problems_of

Key = Annotated[str, Field(min_length=1, max_length=300)]
Name = Annotated[str, Field(min_length=1, max_length=60)]
Clock = Annotated[str, Field(max_length=5)]
FIRST, LAST = -2880.0, 4320.0
"""Two days before the service's day to the end of two after it, minutes from its midnight: nothing of it
happens outside."""
Moment = Annotated[float, Field(ge=FIRST, le=LAST)]
"""Minutes from midnight of the service's day."""

_CLOCK = re.compile(r"([01]?\d|2[0-3]):[0-5]\d")


class There(Part):
    """A cook of this service, what they ``can`` do (nothing said: everything), when each ``comes`` and
    ``goes``, like 09:30."""

    name: Name
    can: Annotated[tuple[Skill, ...], Field(max_length=5)] = ()
    comes: Clock | None = None
    goes: Clock | None = None

    @field_validator("comes", "goes")
    @classmethod
    def _a_time(cls, value: str | None) -> str | None:
        if value is not None and not _CLOCK.fullmatch(value):
            raise BadInput.at("", "is-no-time", text=value)
        return value


class Out(Part):
    """A cook fallen ill, a ring that broke, an oven lent: ``what`` as the plan calls it, and when."""

    what: Key
    start: Moment | None = None
    end: Moment | None = None


class Extra(Part):
    """Something there for this service only: a ``cook`` or a ``ring`` more, from ``start`` to
    ``end``."""

    kind: Literal["cook", "ring"]
    name: Name
    start: Moment | None = None
    end: Moment | None = None


class Happened(Part):
    """What happened: when a task began and when it was over; of one that goes on, the minutes that are
    ``left`` of it from ``now`` on, where the stove tells. Of work at the board that is over, the ``usual``
    minutes of it."""

    began: Moment
    over: Moment | None = None
    left: Minutes | None = None
    usual: Minutes | None = None


class Called(Part):
    """A call for plates that are finished when called: so many of a line, for a ``table``, ``at`` a
    moment."""

    line: Annotated[int, Field(ge=0, le=2**31)]
    portions: Annotated[int, Field(ge=1, le=60)] = 1
    table: Annotated[str, Field(max_length=20)] = ""
    at: Moment
    gone: bool = False


class RunUp(Part):
    """The run-up. Tasks are named by their keys, lines by their ids in the service. ``late_by`` puts
    a sitting off by minutes, ``served_over`` are the minutes within which its dishes go out; ``ahead`` are lines made the day before beside those that are filled
    cold, ``same_day`` such as are not; ``to_order`` are finished when called. ``ways`` cook a solid otherwise (by line and its number in the dish, as in ``0.1``), ``rings``
    give a pot its ring, ``minutes`` a task its time, ``pins`` its beginning; ``marks`` are what
    happened. ``now`` is when it was last planned on the way; before it nothing begins."""

    format: Literal["kestrel-fog/run-up"] = "kestrel-fog/run-up"
    version: Literal[1] = 1
    cooks: Annotated[tuple[There, ...], Field(max_length=20)] = ()
    extra: Annotated[tuple[Extra, ...], Field(max_length=20)] = ()
    out: Annotated[tuple[Out, ...], Field(max_length=40)] = ()
    late_by: Annotated[
        dict[Literal["1", "2"], Annotated[float, Field(ge=-240, le=240)]], Field()
    ] = Field(default_factory=dict)
    served_over: Annotated[float, Field(ge=0, le=120)] = 10.0
    ahead: Annotated[tuple[int, ...], Field(max_length=200)] = ()
    same_day: Annotated[tuple[int, ...], Field(max_length=200)] = ()
    to_order: Annotated[tuple[int, ...], Field(max_length=200)] = ()
    ways: Annotated[dict[Key, Name], Field(max_length=400)] = Field(default_factory=dict)
    rings: Annotated[dict[Key, Name], Field(max_length=200)] = Field(default_factory=dict)
    minutes: Annotated[dict[Key, Minutes], Field(max_length=400)] = Field(default_factory=dict)
    pins: Annotated[dict[Key, Moment], Field(max_length=400)] = Field(default_factory=dict)
    marks: Annotated[dict[Key, Happened], Field(max_length=800)] = Field(default_factory=dict)
    calls: Annotated[tuple[Called, ...], Field(max_length=400)] = ()
    now: Moment | None = None


def read_run_up(data: Mapping[str, Any]) -> RunUp:
    """The run-up in ``data``. Raises :class:`BadInput` with every problem, by field."""
    if not isinstance(data, Mapping):
        raise BadInput.at("run_up", "is-not-an-object-a-run-up")
    try:
        return RunUp.model_validate(data)
    except ValidationError as invalid:
        raise problems_of(invalid) from None


def write_run_up(run_up: RunUp) -> dict[str, Any]:
    """The run-up as plain data for JSON."""
    return run_up.model_dump(mode="json", exclude_none=True)


def minute_of(clock: str, near: float) -> float:
    """The minute of ``clock`` (like 23:30) that is nearest to the minute ``near``.

    >>> minute_of("23:30", 60.0), minute_of("11:00", 720.0)
    (-30.0, 660.0)
    """
    hours, minutes = clock.split(":")
    at = 60.0 * int(hours) + int(minutes)
    return min((at - 1440.0, at, at + 1440.0), key=lambda one: abs(one - near))
