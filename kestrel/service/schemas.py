from datetime import date, datetime
from typing import Any

from ninja import Schema

from kestrel.sauces.schemas import AmountOut, WeighedOut
from saucier.dish import Dish as DishDocument
from saucier.service import Service as ServiceDocument


class DishIn(Schema):
    """A dish as it stands in the browser; ``revision`` is the one it was made from."""

    document: dict[str, Any]
    revision: int = 0


class DishOut(Schema):
    id: int
    name: str
    revision: int
    document: DishDocument


class ServiceIn(Schema):
    document: dict[str, Any]
    revision: int = 0


class ServiceLine(Schema):
    """A service in the list."""

    id: int
    name: str
    date: date | None
    portions: float
    dishes: int
    repeats: str
    updated_at: datetime


class ServiceOut(Schema):
    id: int
    name: str
    date: date | None
    revision: int
    document: ServiceDocument
    pinned: dict[str, int]


class KeptTaken(Schema):
    """Another window saved it meanwhile: theirs."""

    message: str
    document: dict[str, Any]
    revision: int


class CopyIn(Schema):
    """``day`` None: a week on."""

    day: date | None = None


class RenewIn(Schema):
    sauce_id: int
    revision: int


class WorkIn(Schema):
    """A service to work out; ``pinned`` as the saved one has it."""

    document: dict[str, Any]
    pinned: dict[str, int] = {}


class FlowIn(WorkIn):
    """A pot or sauce (``node``) is to make ``ml``."""

    node: str
    ml: float


class ScaleIn(WorkIn):
    covers: float


class ShortIn(WorkIn):
    ingredient: str
    have: Any


class UseNamed(Schema):
    key: str
    name: str


class SauceNeedOut(Schema):
    """What a dish asks of a sauce, with the arithmetic."""

    sauce: str
    use: UseNamed
    volume_ml: float
    kept_back_ml: float
    grade: str | None
    lines: list[str]


class LayoutOut(Schema):
    vessels: int
    name: str
    solids_g: float
    sauce_ml: float
    each_g: float
    fill_mm: float
    fill_share: float
    toppings: dict[str, float]
    layers: list[str]
    warning: str | None


class RoundsOut(Schema):
    what: str
    pieces: int
    a_round: int
    rounds: int
    minutes: float
    line: str


class LinePlanOut(Schema):
    dish: str
    name: str
    called: str
    portions: float
    sitting: int
    without: list[str]
    needs: list[SauceNeedOut]
    branches: list[str]
    left_out: list[str]
    layout: LayoutOut | None
    rounds: list[RoundsOut]
    on_plate: list[str]
    allergens: list[str]
    cost: float
    cost_each: float
    finish: str


class AskedOut(Schema):
    line: int
    dish: str
    ml: float


class BranchOut(Schema):
    """One finished sauce of the service."""

    key: str
    sauce: str
    name: str
    pot: str
    grade: str | None
    viscosity_pa_s: float | None
    viscosity_low_pa_s: float | None
    viscosity_high_pa_s: float | None
    salt_pct: float
    mass_g: float
    asked: list[AskedOut]
    need_ml: float
    film_ml: float
    made_ml: float
    base_g: float
    let_down_g: float
    let_down_share: float
    bound_g: float
    why: str
    can_share: bool
    from_stock_ml: float
    pan: str
    cost: float
    allergens: list[str]


class OfferOut(Schema):
    """Another way for a branch: ``sauce`` may be given ``do`` (own, thicken)."""

    branch: str
    sauce: str
    do: str
    words: str


class PotOut(Schema):
    key: str
    name: str
    mother: bool
    batches: int
    pan: str
    fill_share: float
    minutes: float
    made_g: float
    made_ml: float
    taken_g: float
    film_g: float
    left_g: float
    thickest: str
    grade: str | None
    viscosity_pa_s: float | None
    notes: list[str]
    offers: list[OfferOut]


class UsedOut(Schema):
    sauce: str
    name: str
    taken_ml: float
    ready_ml: float
    let_down: str


class ReadyRouxOut(Schema):
    pot: str
    colour: str
    grams: float


class BuyOut(Schema):
    ingredient: str
    name: str
    role: str
    used_g: float
    bought_g: float
    on_hand_g: float
    packs: int
    pack_g: float
    cost: float
    spoons: AmountOut | None
    volume_ml: float | None


class WeighOutOut(Schema):
    key: str
    name: str
    of: str
    grade: str | None
    feeds: list[str]
    batches: int
    weighed: list[WeighedOut]
    steps: list[str]
    makes_ml: float
    makes_g: float
    minutes: float
    cost: float


class ServeOutOut(Schema):
    line: int
    dish: str
    sauce: str
    each: str
    each_ml: float
    each_g: float
    ladles: str
    kept_back_ml: float


class StretchOut(Schema):
    dish: str
    frm: str
    to: str
    saves: float


class MatrixRow(Schema):
    dish: str
    marks: list[bool]


class ProductionOut(Schema):
    buy: list[BuyOut]
    weigh: list[WeighOutOut]
    serve: list[ServeOutOut]
    prepare: list[str]
    allergens: list[str]
    matrix: list[MatrixRow]
    stretch: list[StretchOut]
    cost: float


class ChangedOut(Schema):
    """A sauce changed or deleted since the service was planned with its ``pinned`` version."""

    sauce_id: int
    name: str
    pinned: int
    newest: int
    deleted: bool


class PlanOut(Schema):
    """A service worked out: pots, branches, lines, and the production sheet."""

    document: ServiceDocument
    lines: list[LinePlanOut]
    branches: list[BranchOut]
    pots: list[PotOut]
    used: list[UsedOut]
    roux: list[ReadyRouxOut]
    warnings: list[str]
    needs_ml: float
    left_ml: float
    by_recipe_ml: float
    changed: list[ChangedOut]
    production: ProductionOut


class LeftToServeOut(Schema):
    line: int
    dish: str
    asked: float
    uses_g: float
    all_alike: float
    alone: float | None


class ShortOut(Schema):
    ingredient: str
    name: str
    need_g: float
    have_g: float
    enough: bool
    lines: list[LeftToServeOut]
