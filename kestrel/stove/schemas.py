from datetime import datetime

from ninja import Schema

from kestrel.sauces.schemas import CardOut, FinalOut, PanShown, StateOut
from saucier.sheet import Sheet


class Plan(Schema):
    """What was predicted when the batch was started."""

    name: str
    target_grade: str | None
    final: FinalOut
    states: list[StateOut]
    cards: list[CardOut]
    pan: PanShown


class BatchLine(Schema):
    """A pot that is on now, for the hob strip. ``now`` is the server's clock, which the timer
    is told against."""

    id: int
    name: str
    step: int
    steps: int
    title: str
    cue: str
    timer_started_at: datetime | None
    timer_s: int
    now: datetime


class Mend(Schema):
    """A remedy taken on the way: at which step, for which sign, and its words."""

    step: int
    sign: str
    title: str
    do: list[str] = []


class BatchOut(BatchLine):
    sauce_id: int
    version: int
    status: str
    revision: int
    started_at: datetime
    plan: Plan
    sheet: Sheet
    mends: list[Mend]


class MendIn(Schema):
    sign: str
    title: str
    do: list[str] = []
    revision: int


class StartIn(Schema):
    sauce_id: int
    version: int | None = None


class GoIn(Schema):
    step: int
    revision: int


class TimerIn(Schema):
    seconds: int | None
    revision: int
