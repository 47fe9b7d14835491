from datetime import datetime
from typing import Any

from ninja import Schema

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


class AmountOut(Schema):
    value: float
    unit: str


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


class PanAdviceOut(Schema):
    """A pan of the kitchen's for this sheet."""

    name: str
    fits: bool
    minutes: float | None
    fullest_share: float
    boiled_off_g: float | None
    minutes_doubled: float | None
    verdict: str


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
