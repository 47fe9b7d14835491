from datetime import datetime
from typing import Any

from ninja import Schema

from kestrel.stove.actions import BatchPlan
from kestrel.stove.acts import ActOut
from saucier.cards import Card
from saucier.correction import SpoonSeen
from saucier.sheet import Sheet
from saucier.watch import PotFollowed
from saucier.words import Sentence


class Timer(Schema):
    """A timer that runs: ``step`` is the step's own."""

    name: str
    started_at: datetime
    seconds: int


class BatchLine(Schema):
    """A pot that is on now, for the hob strip. ``now`` is the server's clock, which timers are told
    against; ``hands``: what the step wants of a cook; ``pan``: what it is in; ``clash``: another pot will
    want hands in the same minute."""

    id: int
    name: str
    step: int
    steps: int
    title: Sentence
    cue: Sentence
    hands: str
    pan: str
    timers: list[Timer]
    now: datetime
    clash: Sentence | None = None


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


class ActTold(Schema):
    """Something that was done and counts."""

    key: str
    kind: str
    step: int
    at: datetime
    data: dict[str, Any]
    by: str


class DeviceOut(Schema):
    """A scale or a probe: what it stands under (``batch_id``), and what it read last."""

    id: int
    name: str
    kind: str
    simulated: bool
    batch_id: int | None
    value: float | None
    read_at: datetime | None


class BatchOut(BatchLine):
    """A batch. ``sauce_id`` and ``version`` are None for a mother pot, ``service_id`` for what is
    cooked by itself. ``cards`` are those of the sheet with what really went in; ``followed`` is the
    pot as it is likely to be, None where that cannot be played (``followed_why``). ``spoons`` to
    pick from about where it is; ``poured_g``: in since the step began, by the scale under it."""

    sauce_id: int | None
    version: int | None
    service_id: int | None
    status: str
    revision: int
    started_at: datetime
    began: dict[str, datetime]
    plan: BatchPlan
    sheet: Sheet
    mends: list[MendTaken]
    beside: list[Beside]
    cards: list[Card]
    followed: PotFollowed | None
    followed_why: str
    spoons: list[SpoonSeen]
    acts: list[ActTold]
    devices: list[DeviceOut]
    poured_g: float | None


class ActsOut(Schema):
    """What became of each act, and the batch as it is now."""

    acts: list[ActOut]
    batch: BatchOut


class StartIn(Schema):
    sauce_id: int
    version: int | None = None


class StartPotIn(Schema):
    """A pot or a branch of a service, by its key in the plan."""

    pot: str


class DeviceIn(Schema):
    """A new device: ``kind`` is ``scale`` or ``probe``."""

    name: str
    kind: str
    simulated: bool = False


class DeviceMade(DeviceOut):
    """A new device with its ``token``, which is told this once."""

    token: str


class PutUnderIn(Schema):
    """The batch it stands under; None: none."""

    batch_id: int | None


class ReadingTaken(Schema):
    """What a device is told: the pot it is at, and what is believed of it, where it boils down."""

    taken: int
    batch: str | None
    mass_g: float | None
    minutes_left: float | None
    minutes_low: float | None
    minutes_high: float | None
