from datetime import datetime
from typing import Any

from ninja import Schema
from pydantic import Field

from saucier.rescue import Kind, Sign
from saucier.sheet import Difference, Sheet


class Outcome(Schema):
    """What a saved version came to when it was saved."""

    grade: str | None
    reason: str | None
    viscosity_pa_s: float | None
    volume_ml: float
    mass_g: float
    salt_pct: float
    minutes: float
    allergens: list[str]


class SauceLine(Schema):
    """A sauce in the list."""

    id: int
    name: str
    family: str
    version: int
    updated_at: datetime
    cooked_at: datetime | None
    favourite: bool
    tags: list[str]
    outcome: Outcome


class SaucePage(Schema):
    """Some of a kitchen's sauces, and how many there are of them in all."""

    rows: list[SauceLine]
    total: int


class SauceName(Schema):
    """A sauce to choose."""

    id: int
    name: str
    family: str


class MarksIn(Schema):
    """How a sauce is found again: as a favourite, by words of the kitchen's own."""

    favourite: bool
    tags: list[str] = Field(max_length=12)


class SauceOut(SauceLine):
    sheet: Sheet


class VersionOut(Schema):
    number: int
    made_at: datetime
    made_by: str | None
    note: str
    outcome: Outcome
    sheet: Sheet


class SheetIn(Schema):
    """A sheet as it stands in the browser; the core reads it and names what is wrong."""

    sheet: dict[str, Any]


class SureIn(SheetIn):
    """``mends`` asks what would make it surer, too."""

    mends: bool = False


class CheckIn(SheetIn):
    """``resalt``: bring the step that salts to a target to the sheet's own target first."""

    resalt: bool = False


class SaveIn(SheetIn):
    base_version: int


class RenameIn(Schema):
    name: str
    base_version: int


class ConflictOut(Schema):
    """Another version was saved meanwhile: theirs, and where yours differs."""

    message: str
    version: int
    made_by: str | None
    made_at: datetime
    sheet: Sheet
    differences: list[Difference]


class SwitchIn(SheetIn):
    school: str
    choice: str


class HaveIn(Schema):
    ingredient: str
    amount: Any


class WrittenIn(Schema):
    """The pan and the ring a sheet stood on before; null: none was named."""

    pan: Any = None
    burner: Any = None


class SolveIn(SheetIn):
    """What to solve for: the sheet's own target, with ``serves`` in place of what it serves, or
    ``have``, the one ingredient there is. ``exact`` leaves amounts as they come out instead of
    rounding them. ``written_in``: where it was put into another pan, the one its stops by minutes were written for:
    they keep the share those minutes reached there."""

    written_in: WrittenIn | None = None
    serves: dict[str, Any] | None = None
    have: HaveIn | None = None
    exact: bool = False


class WhatIfIn(SheetIn):
    """``pulls``: levers by key, in their own units."""

    pulls: dict[str, float] = {}


class SwapIn(SheetIn):
    ingredient: str


class Signs(Schema):
    """What can be wrong with a sauce, and the kinds an unknown pot may be."""

    signs: list[Sign]
    kinds: list[Kind]


class SeenIn(Schema):
    """What a cook can say of a pot."""

    amount: Any = None
    viscosity_pa_s: float | None = None
    kind: str = "white-sauce"
    temperature_c: float = 65.0
    wanted: str = "nappe"
    serving_c: float = 65.0
    salt_pct: float | None = None


class FixIn(Schema):
    """A ``sheet`` after its step ``at`` (None: the last), as ``seen``; or, with no sheet, a pot
    seen for the first time. ``sign`` None: what the numbers speak for."""

    sheet: dict[str, Any] | None = None
    at: int | None = None
    seen: SeenIn | None = None
    sign: str | None = None


class SettledIn(Schema):
    """How a line was settled; ``ingredient`` None leaves it out."""

    line: int
    ingredient: str | None = None
    amount: Any = None


class MeantForIn(Schema):
    """What a recipe's sauce is for: amounts it does not give are reckoned for that."""

    use: str
    portions: float = Field(gt=0, le=100_000)
    grade: str | None = None


class ReadIn(Schema):
    text: str
    settled: list[SettledIn] = []
    wanted: MeantForIn | None = None


class WriteIn(SheetIn):
    form: str


class RowsIn(Schema):
    """Larder rows as they would be."""

    rows: list[dict[str, str]]
