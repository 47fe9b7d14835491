from typing import Any

from ninja import Schema
from pydantic import Field

from kestrel.problems import ProblemOut
from saucier.run_up import Way
from saucier.words import Sentence


class IngredientOut(Schema):
    """A row of the larder; parts per 100 g."""

    key: str
    name: str
    role: str
    water: float
    fat: float
    salt: float
    flour: float
    protein: float
    alcohol: float
    density: float
    piece_g: float
    piece: bool
    gives_salt: bool
    allergens: list[str]
    price_per_kg: float
    origin: Sentence
    spread_pct: float
    body: float
    body_origin: Sentence
    usable_pct: float
    drained_pct: float
    pack_g: float
    aliases: list[str]
    own: bool


class RowOut(Schema):
    """A row of the larder as text, to edit: ``shipped`` as it came (None: the kitchen's own),
    ``revision`` to send back with a change (0: untouched)."""

    row: dict[str, str]
    shipped: dict[str, str] | None
    revision: int


class LabelIn(Schema):
    """What is printed on a packet, g per 100 g (``alcohol_vol``: percent by volume), as typed."""

    name: str
    role: str
    fat: str = ""
    carbohydrate: str = ""
    sugars: str = ""
    protein: str = ""
    salt: str = ""
    fibre: str = ""
    alcohol_vol: str = ""


class RowIn(Schema):
    row: dict[str, str]
    revision: int = 0


class RowTaken(Schema):
    """Somebody else changed the row meanwhile: theirs."""

    message: str
    row: dict[str, str]
    revision: int


class CsvIn(Schema):
    """A larder as CSV; ``keep`` false only reports."""

    text: str
    keep: bool = False


class RowReport(Schema):
    line: int
    key: str
    status: str
    changed: list[str]
    problems: list[ProblemOut]


class CsvReport(Schema):
    """What became of every row; ``kept`` how many were stored."""

    rows: list[RowReport]
    kept: int


class MeasureOut(Schema):
    """A kitchen measure; ``id`` where it is the kitchen's own."""

    id: int | None
    name: str
    of: str
    size: float
    unit: str
    packing: float
    spread_pct: float
    kind: str
    words: str


class HabitIn(Schema):
    """``what``: a use's key, or ``film``; ``value`` in mL, None for the usual."""

    what: str
    value: Any = None


class MeasureIn(Schema):
    name: Any = ""
    of: Any = ""
    size: Any = ""
    unit: Any = "mL"
    packing: Any = 1
    spread_pct: Any = 10
    kind: Any = "hand"
    words: Any = ""


class PanOut(Schema):
    id: int
    name: str
    shape: str
    diameter_cm: float
    depth_cm: float
    tare_g: float
    width_cm: float | None
    reactive: bool
    heavy: bool
    count: int
    capacity_ml: float
    for_pots: bool


class PanIn(Schema):
    name: str = ""
    shape: Any = "straight"
    diameter_cm: Any
    depth_cm: Any = None
    tare_g: Any = 0
    width_cm: Any = None
    reactive: bool = False
    heavy: bool = True
    count: Any = 1


class BurnerOut(Schema):
    id: int
    name: str
    kind: str
    watts: float
    takes_cm: float | None


class BurnerIn(Schema):
    name: str = ""
    kind: Any = "gas"
    watts: Any
    takes_cm: Any = None


class GearOut(Schema):
    id: int
    name: str
    kind: str
    count: int
    can: list[str] | None
    shelves: int | None
    area_cm2: float | None
    litres: float | None


class GearIn(Schema):
    """A thing of the kitchen; where it is of no usual kind it says what it ``can`` do."""

    kind: str = ""
    name: str = ""
    count: Any = 1
    can: list[str] | None = None
    shelves: Any = None
    area_cm2: Any = None
    litres: Any = None


class GearKind(Schema):
    """A kind of thing that ships: what it is called and can do."""

    key: str
    name: str
    can: list[str]


class CookOut(Schema):
    id: int
    name: str
    can: list[str]


class CookIn(Schema):
    name: str = ""
    can: list[str] = []


class WayIn(Schema):
    row: dict[str, Any]


class NewWayIn(Schema):
    name: str = ""
    does: list[str] = []


class MeansOut(Schema):
    """What there is to cook with, and the ways of the library; ``own_ways`` are the keys of those with the
    kitchen's own figures, and whether there are shipped ones to go back to."""

    gear: list[GearOut]
    kinds: list[GearKind]
    cooks: list[CookOut]
    skills: list[str]
    ways: list[Way]
    own_ways: dict[str, bool]


class GradeOut(Schema):
    """A grade of thickness: its band and target in Pa·s; ``high_pa_s`` None: open above."""

    key: str
    name: Sentence
    low_pa_s: float
    high_pa_s: float | None
    target_pa_s: float
    film_mm: float
    looks: Sentence
    serves: Sentence


class UsualPan(Schema):
    """A pan most kitchens have; ``ticked`` to begin with."""

    key: str
    name: str
    ticked: bool


class UsualHob(Schema):
    """A hob with its rings."""

    key: str
    name: str


class UsualGear(Schema):
    kind: str
    name: str
    ticked: bool


class UsualOut(Schema):
    """What a fresh kitchen is offered to say it has."""

    pans: list[UsualPan]
    hobs: list[UsualHob]
    gear: list[UsualGear]


class BeginIn(Schema):
    """What a fresh kitchen has, by the keys of the usual set; all empty: it says so later."""

    pans: list[str] = Field([], max_length=40)
    hob: str | None = None
    gear: list[str] = Field([], max_length=40)


class UseOut(Schema):
    key: str
    name: str
    counted_in: str
    start_portions: float
    each: float
    per_ml: float
    low_ml: float
    high_ml: float
    grade: str
    salt_pct: float
    serving_c: float
    why: str
    basis: str
    usual_ml: float
    own: bool


class GuestWord(Schema):
    """Something a guest may go without: its ``key``, what it is called, of which ``group``."""

    key: str
    name: Sentence
    group: str


class Catalogue(Schema):
    """What the interface offers to choose from."""

    ingredients: list[IngredientOut]
    pans: list[PanOut]
    burners: list[BurnerOut]
    grades: list[GradeOut]
    uses: list[UseOut]
    film_ml: float
    usual_film_ml: float
    whisk_ml: float
    usual_whisk_ml: float
    units: list[str]
    measures: list[MeasureOut]
    roles: dict[str, Sentence]
    allergens: list[str]
    animals: list[str]
    guests: list[GuestWord]
    dish_kinds: dict[str, Sentence]
    ways: dict[str, str]
    origins: dict[str, Sentence]
    body_origins: dict[str, Sentence]
    emulsion_edges: list[float]
