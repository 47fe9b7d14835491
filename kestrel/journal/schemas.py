from datetime import datetime
from typing import Annotated, Any, Literal

from ninja import Schema
from pydantic import Field

from kestrel.fields import Key
from kestrel.journal.again import ComparedLine
from kestrel.journal.learning import Taught
from saucier.words import Sentence


class EntryIn(Schema):
    """What came out. ``weighed`` as typed: "2310 g", or empty when nothing was weighed."""

    batch_id: int
    weighed: str = ""
    with_pan: bool = False
    reached_pa_s: Any = None
    verdict: str = ""
    note: str = ""


class Side(Schema):
    """One side of plan and actual."""

    mass_g: float | None
    viscosity_pa_s: float | None
    grade: str | None
    minutes: float | None


class CorrectionIn(Schema):
    """What is to stand instead, as a whole, and ``why``; ``key`` as of an act."""

    key: Key
    weighed: Annotated[str, Field(max_length=40)] = ""
    with_pan: bool = False
    reached_pa_s: float | None = None
    verdict: Annotated[str, Field(max_length=20)] = ""
    note: str = ""
    why: Annotated[str, Field(max_length=1000)] = ""


class EntryWas(Schema):
    """What stood before a correction."""

    mass_g: float | None
    grade: str | None
    verdict_words: str
    note: str


class EntryCorrected(Schema):
    at: datetime
    by: str
    why: str
    was: EntryWas


class EntryOut(Schema):
    """A finished batch. A mother pot is of no saved sauce; ``service`` is what it was cooked for, ``cook`` who
    cooked it; ``by`` who wrote it down, by the name of then, and ``session`` whose session it was where that is
    somebody else's; ``photos`` are those of it."""

    id: int
    batch_id: int
    name: str
    sauce_id: int | None
    version: int | None
    service: str | None
    service_id: int | None
    cook: str
    by: str
    session: str
    photos: list[int]
    made_at: datetime
    plan: Side
    plan_low_pa_s: float | None
    plan_high_pa_s: float | None
    actual: Side
    mass_off_pct: float | None
    verdict: str
    verdict_words: str
    note: str
    corrections: list[EntryCorrected]
    mends: list[Sentence]


class EntryPage(Schema):
    """Entries, newest first; ``total`` of those that are wanted; ``older`` is the cursor of the next page,
    None at the end."""

    entries: list[EntryOut]
    total: int
    older: str | None


class JournalChoice(Schema):
    key: str
    name: str


class Choices(Schema):
    """What the journal can be looked through by."""

    sauces: list[JournalChoice]
    dishes: list[JournalChoice]
    cooks: list[str]
    verdicts: list[JournalChoice]


class BatchesBeside(Schema):
    """Two batches set beside each other."""

    one: EntryOut
    other: EntryOut
    lines: list[ComparedLine]


class AgainOut(Schema):
    """The sauce that was made of a batch, and its version."""

    sauce_id: int
    version: int


class SaidOut(Schema):
    words: Sentence
    notes: list[str]


class SauceSaid(Schema):
    """A sauce's batches put together: how many, their verdicts, how far their weights and thicknesses came
    out (the middle of those that were measured), and what the notes say again and again, with them."""

    batches: int
    verdicts: dict[str, int]
    mass_off_pct: float | None
    thickness_factor: float | None
    said: list[SaidOut]


class ServedIn(Schema):
    """What became of a batch, as typed: ``portions`` that went out, what was ``thrown`` away ("200 g") and the
    ``reason``, the ``emptied`` pot on the scale. ``key`` as of an act."""

    key: Key
    portions: Annotated[str, Field(max_length=40)] = ""
    thrown: Annotated[str, Field(max_length=40)] = ""
    reason: Annotated[str, Field(max_length=120)] = ""
    emptied: Annotated[str, Field(max_length=40)] = ""


class ServedOut(Schema):
    """As it was said last; ``made_g`` is what there was of it, ``kept_g`` what was put away."""

    portions: float | None
    thrown_g: float | None
    reason: str
    film_g: float | None
    made_g: float
    kept_g: float
    said: bool


class ThingIn(Schema):
    """Something that is learned: its ``kind``, of what, at which heat."""

    kind: Literal["pace", "strength", "film", "served", "work"]
    of: Annotated[str, Field(max_length=60)] = ""
    at: Annotated[str, Field(max_length=20)] = ""


class UndoIn(ThingIn):
    """``all_of_it``: back to the usual; otherwise to what was gone by before."""

    all_of_it: bool = False


class LearningOut(Schema):
    """What the batches teach; ``to_read`` entries were not looked at yet."""

    things: list[Taught]
    to_read: int
