from datetime import date, datetime
from typing import Annotated, Any

from ninja import Schema
from pydantic import Field

from kestrel.fields import Day, Key, Moment
from kestrel.keeping.events import AnyEvent
from kestrel.stove.acts import Typed
from kestrel.stove.schemas import DeviceOut
from saucier.keeping import Cooling, Forecast, Rules, Verdict
from saucier.words import Sentence


class CoolIn(Schema):
    """What is to be cooled: ``grams`` of a batch, a number or as it is typed ("2.3 kg"; None or nothing: all), weighed
    ``with_pan`` or without, in ``trays`` of a ``tray`` of the larder's, ``from_c`` warm (None: as it is), under film."""

    batch_id: int
    grams: float | Typed | None = None
    with_pan: bool = False
    tray: str
    trays: int = 1
    from_c: float | None = None
    covered: bool = True


class PutAwayIn(CoolIn):
    """And where it goes, and when it is wanted. ``key`` as of an act."""

    key: Key
    place: str
    for_when: Day | None = None
    utc_offset_min: int = Field(default=0, ge=-840, le=840)


class PlaceOut(Schema):
    key: str
    name: str


class PossibleOut(Schema):
    """What could be put away: a batch that is through, with what there is of it."""

    batch_id: int
    name: str
    grams: float
    temperature_c: float
    keeps: Sentence
    use_by: date


class Where(Schema):
    """Places, trays and the rules in force, for putting away."""

    places: list[PlaceOut]
    trays: list[str]
    rules: Rules
    possible: list[PossibleOut]


class BatchBegun(Schema):
    """The pot on the stove that came of it."""

    batch_id: int


class WarmForServiceIn(Schema):
    """``task`` of the run-up that warms what is kept; ``use_unshown``: whether what nothing shows to have cooled in time
    is drawn on (None: not asked yet)."""

    task: str = Field(max_length=120)
    use_unshown: bool | None = None


class EventOut(Schema):
    """Something that happened; ``void``: it was corrected since, and counts no more. ``set_aside``: drawn for a service,
    and not taken out before it is warmed."""

    key: str
    kind: str
    at: datetime
    data: dict[str, Any]
    by: str
    void: bool
    set_aside: bool


class KeptLine(Schema):
    """Something that is kept: what is left, how old it is, until when; ``state``: cooling, kept, today (to be
    used up today), over, frozen, gone. ``use_by``: the earliest of its trays. ``words``: what is to be done about it
    now; ``missed``: a rule is missed or cannot be shown, or is likely to be, and nothing was done about it yet;
    ``unshown``: nothing shows that it cooled in time, and who draws on it is asked."""

    id: int
    key: str
    batch_id: int
    sauce_id: int | None
    code: str
    name: str
    grams: float
    left_g: float
    grade: str
    viscosity_pa_s: float | None
    allergens: list[str]
    brings: list[str]
    lacks: list[str]
    age_days: int
    place: str
    tray: str
    trays: int
    put_at: datetime
    use_by: date
    keeps: str
    for_when: date | None
    state: str
    words: Sentence | None
    missed: bool
    unshown: bool


class ReadPoint(Schema):
    """A temperature that was measured: ``key`` names it where it is corrected; ``tray`` None: of the pot
    (``shared``), or nobody said of which. By a ``device``, else by hand; ``void``: corrected since."""

    key: str
    at_min: float
    celsius: float
    tray: int | None
    shared: bool
    device: str
    simulated: bool
    void: bool


class StageOut(Schema):
    """What readings prove of a stage of the rules (docs/model.md 6): ``verdict`` is met, missed, open or not-shown;
    ``due_min``: until when a reading can show it."""

    to_c: float
    limit_min: float
    verdict: Verdict
    at_least_min: float | None
    at_most_min: float | None
    due_min: float | None
    words: Sentence
    warmed_again: bool


class TrayOut(Schema):
    """A tray of it: its stages by readings, how it goes on, until when it keeps by that; ``failed``: not cooled in
    time, or nothing can show it any more; ``gone``: thrown away."""

    number: int
    stages: list[StageOut]
    forecast: Forecast | None
    use_by: date
    failed: bool
    gone: bool


class BackOut(Schema):
    """How what is left comes back: mL of a hot liquid to its grade, minutes on the ring, the grade it would
    have without; and what the rules want of its middle."""

    ml: float
    liquid: str
    minutes: float
    cold_grade: str | None
    reheat_c: float
    reheat_minutes: float


class KeptOut(KeptLine):
    """With its cooling as it was reckoned, each tray of it (``lots``) as readings have it, what was read, and all
    that happened; how it comes ``back`` (None: nothing is left, or it cannot be reckoned), and what freezing does to
    it. ``off_fire_min``: the end of its cooking, minutes from when it was put away; ``devices``: probes there are."""

    back: BackOut | None
    freezing: Sentence | None
    cooling: Cooling
    off_fire_min: float | None
    lots: list[TrayOut]
    read: list[ReadPoint]
    devices: list[DeviceOut]
    now_min: float
    rules: Rules
    events: list[EventOut]


class EventsIn(Schema):
    """``sent_at``: what the sender's clock shows (None: as ours)."""

    events: Annotated[list[AnyEvent], Field(min_length=1, max_length=100)]
    sent_at: Moment | None = None


class RulesIn(Schema):
    """A shipped rule set by its ``key`` alone, or one of the kitchen's own, whole."""

    rules: dict[str, Any]


class RulesOut(Schema):
    chosen: Rules
    shipped: list[Rules]


class RecordLine(Schema):
    """A line of the record: what happened to which batch, and whether a rule was met. ``written_at``: when it was
    written down, where that is not just then; ``by`` by the name of then, ``session`` whose session it was where
    that is somebody else's; ``source``: where a reading came from."""

    at: datetime
    written_at: datetime | None
    code: str
    name: str
    what: Sentence
    value: str
    rule: str
    met: str
    by: str
    session: str
    source: str
    corrected: str
