from datetime import date, datetime
from typing import Annotated, Any

from ninja import Schema
from pydantic import Field

from kestrel.fields import Day, Key
from kestrel.keeping.events import AnyEvent
from saucier.keeping import Cooling, CoolingSeen, Rules
from saucier.words import Sentence


class CoolIn(Schema):
    """What is to be cooled: ``grams`` of a batch (None: all), in ``trays`` of a ``tray`` of the larder's,
    ``from_c`` warm (None: as it is), under film."""

    batch_id: int
    grams: float | None = None
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


class EventOut(Schema):
    """Something that happened; ``void``: it was corrected since, and counts no more."""

    key: str
    kind: str
    at: datetime
    data: dict[str, Any]
    by: str
    void: bool


class KeptLine(Schema):
    """Something that is kept: what is left, how old it is, until when; ``state``: cooling, kept, today (to be
    used up today), over, frozen, gone. ``words``: what is to be done about it now;
    ``missed``: by the probe a rule is missed, or will be, and nothing was done about it yet."""

    id: int
    batch_id: int
    sauce_id: int | None
    code: str
    name: str
    grams: float
    left_g: float
    grade: str
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


class ReadPoint(Schema):
    at_min: float
    celsius: float


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
    """With its cooling as it was reckoned, as a probe has it, what was read, and all that happened; how it
    comes ``back`` (None: nothing is left, or it cannot be reckoned), and what freezing does to it."""

    back: BackOut | None
    freezing: Sentence | None
    cooling: Cooling
    seen: CoolingSeen | None
    read: list[ReadPoint]
    now_min: float
    rules: Rules
    events: list[EventOut]


class EventsIn(Schema):
    events: Annotated[list[AnyEvent], Field(min_length=1, max_length=100)]


class RulesIn(Schema):
    """A shipped rule set by its ``key`` alone, or one of the kitchen's own, whole."""

    rules: dict[str, Any]


class RulesOut(Schema):
    chosen: Rules
    shipped: list[Rules]


class RecordLine(Schema):
    """A line of the record: what happened to which batch, and whether a rule was met."""

    at: datetime
    code: str
    name: str
    what: Sentence
    value: str
    rule: str
    met: str
    by: str
    corrected: str
