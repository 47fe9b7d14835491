from datetime import datetime
from typing import Any

from ninja import Schema
from pydantic import Field

from kestrel.stove.acts import ActOut
from kestrel.stove.plans import BatchPlan
from saucier.cards import Card
from saucier.correction import SpoonSeen
from saucier.keeping import Held, Label
from saucier.sheet import Sheet
from saucier.steps import Hands
from saucier.watch import Ahead, PotFollowed, Probed
from saucier.words import Sentence


class Timer(Schema):
    """A timer that runs: ``step`` is the step's own."""

    name: str
    started_at: datetime
    seconds: int


class BatchLine(Schema):
    """A pot that is on now, for the hob strip. ``now`` is the server's clock, which timers are told
    against; ``hands``: what the step wants of a cook; ``pan``: what it is in, on which ``ring``, and whose
    it is (``cook``); ``clash``: another pot will want hands in the same minute; ``waits``: it is finished,
    and how it stands there; ``put_away``: all of it is, and only what came of it has still to be written down;
    ``shares_pan``: another pot stands in its pan, as far as anybody said."""

    id: int
    name: str
    kind: str
    ring: str
    cook: str
    step: int
    steps: int
    title: Sentence
    cue: Sentence
    hands: str
    pan: str
    timers: list[Timer]
    now: datetime
    clash: Sentence | None = None
    waits: Held | None = None
    put_away: bool = False
    shares_pan: Sentence | None = None


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
    name: str
    status: str


class ActTold(Schema):
    """Something that was done and counts."""

    key: str
    kind: str
    step: int
    at: datetime
    data: dict[str, Any]
    by: str


class PhotoOut(Schema):
    """A photograph; its picture is at ``/api/photos/{id}``."""

    id: int
    step: int
    at: datetime
    by: str
    width: int
    height: int


class ReadAt(Schema):
    """What a device read ``at_min`` minutes after the batch began: g or °C."""

    at_min: float
    value: float


class ReadingsOf(Schema):
    """All that was read of a batch, thinned."""

    scale: list[ReadAt]
    probe: list[ReadAt]


class LabelsWanted(Schema):
    """``mass_g``: what is put away, where it was weighed; the clock of who asks is ``utc_offset_min`` ahead
    of UTC."""

    copies: int = 1
    mass_g: float | None = None
    utc_offset_min: int = Field(default=0, ge=-840, le=840)


class LabelOut(Schema):
    """A label, its lines, and when it was printed; its picture is at ``/api/labels/{id}.svg``."""

    id: int
    copies: int
    document: Label
    text: str
    made_at: datetime
    printed_at: datetime | None


class LabelToPrint(LabelOut):
    """A label for a printer, with its picture."""

    svg: str


class ReadBefore(Schema):
    """What a device read last where it was before, and of what."""

    value: float
    at: datetime
    of: str


class DeviceOut(Schema):
    """A scale, a probe or a printer: what it stands under (``batch_id``; of what was put away of it, ``tray`` of
    ``kept_key``), what it read last, and where it was before (``read_before``), who entered it, and since when it is let in no more (``stopped_at``)."""

    id: int
    name: str
    kind: str
    simulated: bool
    batch_id: int | None
    kept_key: str
    tray: int | None
    value: float | None
    read_at: datetime | None
    read_before: ReadBefore | None = None
    made_by_name: str
    stopped_at: datetime | None


class BatchOut(BatchLine):
    """A batch. ``sauce_id`` and ``version`` are None for a mother pot, ``service_id`` for what is
    cooked by itself. ``cards`` are those of the sheet with what really went in; ``followed`` is the
    pot as it is likely to be, None where that cannot be played (``followed_why``). ``spoons`` to
    pick from about where it is; ``poured_g``: in since the step began, by the scale under it; ``probed``:
    what the probe in it tells of the step. ``asks``: what is to be shown before the step is left (its middle by a probe);
    ``reads_middle``: it warms to a figure in the middle."""

    asks: Sentence | None
    reads_middle: bool
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
    probed: Probed | None
    photos: list[PhotoOut]
    labels: list[LabelOut]


class AheadOut(Schema):
    """What will be believed of a batch from ``at`` on, by the pot's clock, at its ``step`` and ``revision`` (None: nothing
    boils off at it)."""

    at: datetime
    step: int
    revision: int
    ahead: Ahead | None


class ActsOut(Schema):
    """What became of each act, and the batch as it is now."""

    acts: list[ActOut]
    batch: BatchOut


class StartIn(Schema):
    sauce_id: int
    version: int | None = None


class StartFreeIn(Schema):
    """A pot cooked free hand, in a ``pan`` of the larder's (empty: the one that fits)."""

    name: str
    pan: str = ""


class PartIn(Schema):
    """A part of a job of a run-up."""

    do: str = Field(min_length=1, max_length=200)
    minutes: float
    cue: str = Field(default="", max_length=300)
    hands: Hands = "now-and-then"


class StartAsideIn(Schema):
    """What is no sauce: fish, pasta, an oven. By a ``way`` of the library, for ``minutes`` (None: its
    usual), or in ``parts``; ``ingredient`` where its middle counts. ``task``: of which run-up it is which task
    (``task:RUN-UP:KEY``)."""

    name: str
    way: str = ""
    minutes: float | None = None
    parts: list[PartIn] = []
    ingredient: str = ""
    task: str = Field(default="", max_length=200)


class FixHereIn(Schema):
    """``sign``: what is wrong, None for what the numbers speak for."""

    sign: str | None = None


class CorrectIn(Schema):
    """How thick the pot is seen to be, Pa·s at serving temperature; None: not looked at yet."""

    seen_pa_s: float | None = None


class MakeSauceIn(Schema):
    """The name of the sauce that is made of it."""

    name: str = Field(min_length=1, max_length=120)


class SauceMade(Schema):
    sauce_id: int


class RingOfHob(Schema):
    """A ring, and the widest pan it takes, cm."""

    name: str
    takes_cm: float | None


class WayAside(Schema):
    key: str
    name: str
    on: str
    minutes: float
    does: list[str]


class Hob(Schema):
    """The kitchen's rings, pans and cooks, and the ways to cook what is no sauce."""

    rings: list[RingOfHob]
    pans: list[str]
    cooks: list[str]
    ways: list[WayAside]


class StartPotIn(Schema):
    """A pot or a branch of a service, by its key in the plan; ``one_more`` than planned. ``use_unshown``: whether
    what nothing shows to have cooled in time is drawn on (None: not asked yet)."""

    pot: str
    one_more: bool = False
    use_unshown: bool | None = None


class PotBegun(Schema):
    """Nothing was begun: as many of a pot as planned are (the newest ``batch``, and whether it is ``on`` still); or
    it ``asks`` first of what is kept and not shown to have cooled in time."""

    message: str
    batch: int | None = None
    on: bool = False
    asks: list[int] = []


class DeviceIn(Schema):
    """A new device: ``kind`` is ``scale``, ``probe`` or ``printer``."""

    name: str
    kind: str
    simulated: bool = False


class DeviceMade(DeviceOut):
    """A new device with its ``token``, which is told this once."""

    token: str


class PutUnderIn(Schema):
    """The batch it stands under; None: none. A probe in a ``tray`` of what was put away: its key."""

    batch_id: int | None
    kept_key: str | None = Field(default=None, max_length=40)
    tray: int | None = Field(default=None, ge=1, le=100)


class RenamedIn(Schema):
    name: str


class ReadingTaken(Schema):
    """What a device is told: the pot it is at, and what is believed of it, where it boils down."""

    taken: int
    batch: str | None
    mass_g: float | None
    minutes_left: float | None
    minutes_low: float | None
    minutes_high: float | None
