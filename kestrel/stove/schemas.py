from datetime import datetime

from ninja import Schema

from kestrel.stove.actions import BatchPlan
from saucier.sheet import Sheet
from saucier.words import Sentence


class BatchLine(Schema):
    """A pot that is on now, for the hob strip. ``now`` is the server's clock, which the timer
    is told against."""

    id: int
    name: str
    step: int
    steps: int
    title: Sentence
    cue: Sentence
    timer_started_at: datetime | None
    timer_s: int
    now: datetime


class MendTaken(Schema):
    """A remedy taken on the way: at which step, for which sign, and its words."""

    step: int
    sign: str
    title: str
    do: list[str] = []


class Beside(Schema):
    """A pot that belongs to another: made first for it, or the one it is made for (``into``)."""

    id: int
    name: str
    status: str
    into: bool


class PotOfService(Schema):
    """A batch of a pot of a service; ``status`` is ``on`` or ``done``."""

    id: int
    pot: str
    status: str


class BatchOut(BatchLine):
    """A batch. ``sauce_id`` and ``version`` are None for a mother pot, ``service_id`` for what is
    cooked by itself."""

    sauce_id: int | None
    version: int | None
    service_id: int | None
    status: str
    revision: int
    started_at: datetime
    plan: BatchPlan
    sheet: Sheet
    mends: list[MendTaken]
    beside: list[Beside]


class MendIn(Schema):
    sign: str
    title: str
    do: list[str] = []
    revision: int


class StartIn(Schema):
    sauce_id: int
    version: int | None = None


class StartPotIn(Schema):
    """A pot or a branch of a service, by its key in the plan."""

    pot: str


class GoIn(Schema):
    step: int
    revision: int


class TimerIn(Schema):
    seconds: int | None
    revision: int
