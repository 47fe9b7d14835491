from datetime import datetime
from typing import Any

from ninja import Schema

from saucier.along import Along
from saucier.correction import SpoonSeen
from saucier.sheet import Sheet


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
    outcome: Outcome


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


class CheckIn(SheetIn):
    """``resalt``: bring the step that salts to a target to the sheet's own target first."""

    resalt: bool = False


class SaveIn(SheetIn):
    base_version: int


class RenameIn(Schema):
    name: str
    base_version: int


class DifferenceOut(Schema):
    where: str
    theirs: str | None
    yours: str | None


class ConflictOut(Schema):
    """Another version was saved meanwhile: theirs, and where yours differs."""

    message: str
    version: int
    made_by: str | None
    made_at: datetime
    sheet: Sheet
    differences: list[DifferenceOut]


class MeasuredOut(Schema):
    """How an amount is measured by hand; ``spread`` is the standard share hands differ by."""

    name: str
    count: float
    spread: float


class AmountOut(Schema):
    value: float
    unit: str
    measure: MeasuredOut | None = None


class WeighedOut(Schema):
    ingredient: str
    name: str
    role: str
    field: str
    amount: AmountOut
    grams: float
    spoons: AmountOut | None


class CardOut(Schema):
    """A step told to the cook."""

    title: str
    do: str
    cue: str
    lines: list[str] = []
    weighed: list[WeighedOut]
    remarks: list[str] = []
    timer_s: int | None
    scale_g: float | None


class PieceOut(Schema):
    name: str
    mass_g: float


class SetAsideOut(Schema):
    purpose: str
    mass_g: float


class StateOut(Schema):
    """The pot after a step; units in the names, shares 0 to 1, ``_pct`` g per 100 g."""

    mass_g: float
    volume_ml: float
    pieces_g: float = 0
    total_g: float | None = None
    total_ml: float | None = None
    yield_g: float | None = None
    yield_ml: float | None = None
    pieces: list[PieceOut] = []
    set_aside: list[SetAsideOut] = []
    viscosity_pa_s: float | None
    viscosity_low_pa_s: float | None
    viscosity_high_pa_s: float | None
    grade: str | None
    reason: str | None
    looks: str
    film_mm: float | None
    serving_c: float
    temperature_c: float
    salt_pct: float
    fat_pct: float
    fat_volume_share: float
    acid_pct: float
    sugar_pct: float
    alcohol_pct: float
    water_pct: float
    flour_pct: float
    emulsion: str
    kcal: float
    cost: float
    minutes: float
    level_mm: float
    allergens: list[str]
    warnings: list[str]


class PanShown(Schema):
    name: str
    shape: str
    diameter_cm: float
    depth_cm: float
    tare_g: float
    width_cm: float | None = None


class FinalOut(StateOut):
    salt_to_add_g: float | None = None
    salt_over_g: float | None = None
    salt_liquid_g: float | None = None


class NeedOut(Schema):
    """What is to be made, how that comes about, and energy and cost for each one served."""

    volume_ml: float
    lines: list[str]
    each_kcal: float
    each_cost: float


class ChoiceOut(Schema):
    key: str
    name: str
    why: str


class SchoolOut(Schema):
    """A question cooks answer differently, and what this sheet follows."""

    key: str
    question: str
    followed: str
    choices: list[ChoiceOut]


class CorrectIn(SheetIn):
    """``at``: the step that holds something back; ``seen_pa_s``: the spoon that was picked (None:
    none yet)."""

    at: int
    seen_pa_s: float | None = None


class CorrectionOut(Schema):
    """How much of what was held back goes in; None: nothing."""

    spoons: list[SpoonSeen]
    amount: AmountOut | None
    makes_ml: float
    say: list[str]


class SwitchIn(Schema):
    sheet: dict[str, Any]
    school: str
    choice: str


class Worked(Schema):
    """A sheet with all its consequences."""

    sheet: Sheet
    final: FinalOut
    steps: list[StateOut]
    cards: list[CardOut]
    along: list[Along]
    pan: PanShown
    assumed: list[str]
    need: NeedOut | None
    free: str
    schools: list[SchoolOut]
    salt_remedies: list[str]
    changes: list[str] = []


class HaveIn(Schema):
    ingredient: str
    amount: Any


class SolveIn(SheetIn):
    """What to solve for: the sheet's own target, with ``serves`` in place of what it serves, or
    ``have``, the one ingredient there is. ``exact`` leaves amounts as they come out instead of
    rounding them."""

    serves: dict[str, Any] | None = None
    have: HaveIn | None = None
    exact: bool = False


class LeverOut(Schema):
    key: str
    name: str
    unit: str
    value: float
    low: float
    high: float
    step: float


class AlongOut(Schema):
    """The pot after a step, for a plot along the steps."""

    title: str
    mass_g: float
    viscosity_pa_s: float | None
    minutes: float


class AtTemperatureOut(Schema):
    temperature_c: float
    viscosity_pa_s: float | None
    set: bool


class WhatIfIn(SheetIn):
    """``pulls``: levers by key, in their own units."""

    pulls: dict[str, float] = {}


class WhatIfOut(Schema):
    sheet: Sheet
    levers: list[LeverOut]
    final: FinalOut
    along: list[AlongOut]
    curve: list[AtTemperatureOut]


class SwapIn(SheetIn):
    ingredient: str


class SwapOut(Schema):
    """What may stand in: the sheet solved again, what it moves; or why it does not go."""

    ingredient: str
    name: str
    same_role: bool
    sheet: Sheet | None
    changes: list[str]
    gains: list[str]
    loses: list[str]
    refused: str | None


class SignOut(Schema):
    key: str
    name: str
    why: str
    next_time: str


class KindOut(Schema):
    key: str
    name: str


class SignsOut(Schema):
    signs: list[SignOut]
    kinds: list[KindOut]


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


class RemedyOut(Schema):
    """A remedy with its price; ``steps`` are the same as steps of a sheet."""

    way: str
    title: str
    do: list[str]
    minutes: float
    cost: float
    loses_g: float
    refused: str | None
    notes: list[str]
    steps: list[dict[str, Any]]
    after: StateOut | None


class FixOut(Schema):
    sheet: Sheet
    now: FinalOut
    wanted_grade: str | None
    wanted_pa_s: float | None
    likely: list[str]
    sign: str | None
    remedies: list[RemedyOut]


class SettledIn(Schema):
    """How a line was settled; ``ingredient`` None leaves it out."""

    line: int
    ingredient: str | None = None
    amount: Any = None


class ReadIn(Schema):
    text: str
    settled: list[SettledIn] = []


class LineOut(Schema):
    """An ingredient line: ``read``, to ``settle``, or ``unread``."""

    text: str
    status: str
    ingredient: str | None
    amount: AmountOut | None
    why: str
    to_taste: bool
    guesses: list[str]


class ReadingOut(Schema):
    name: str
    makes: str
    lines: list[LineOut]
    open_lines: int
    sheet: Sheet | None
    final: FinalOut | None
    assumed: list[str]
    unused: list[str]
    beside: list[str]


class WriteIn(SheetIn):
    form: str


class FileOut(Schema):
    text: str
    ending: str
    kind: str


class RowsIn(Schema):
    """Larder rows as they would be."""

    rows: list[dict[str, str]]


class MovedOut(Schema):
    sauce_id: int
    name: str
    words: list[str]
