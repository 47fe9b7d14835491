from datetime import datetime
from typing import Any

from ninja import Schema

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


class EntryOut(Schema):
    """A finished batch. A mother pot is of no saved sauce; ``service`` is what it was cooked for."""

    id: int
    batch_id: int
    name: str
    sauce_id: int | None
    version: int | None
    service: str | None
    service_id: int | None
    made_at: datetime
    plan: Side
    plan_low_pa_s: float | None
    plan_high_pa_s: float | None
    actual: Side
    mass_off_pct: float | None
    verdict: str
    verdict_words: str
    note: str
    mends: list[Sentence]


class EntryPage(Schema):
    """Entries, newest first; ``older`` is the cursor of the next page, None at the end."""

    entries: list[EntryOut]
    total: int
    older: str | None
