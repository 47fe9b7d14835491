from typing import Any

from ninja import Schema


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
    allergens: list[str]
    price_per_kg: float
    origin: str
    spread_pct: float


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
    capacity_ml: float


class PanIn(Schema):
    name: str = ""
    shape: Any = "straight"
    diameter_cm: Any
    depth_cm: Any = None
    tare_g: Any = 0
    width_cm: Any = None
    reactive: bool = False
    heavy: bool = True


class BurnerOut(Schema):
    id: int
    name: str
    kind: str
    watts: float


class BurnerIn(Schema):
    name: str = ""
    kind: Any = "gas"
    watts: Any


class GradeOut(Schema):
    """A grade of thickness: its band and target in Pa·s; ``high_pa_s`` None: open above."""

    key: str
    name: str
    low_pa_s: float
    high_pa_s: float | None
    target_pa_s: float
    film_mm: float
    looks: str
    serves: str


class UseOut(Schema):
    key: str
    name: str
    counted_in: str
    start_count: float
    per_ml: float
    low_ml: float
    high_ml: float
    grade: str
    salt_pct: float
    serving_c: float
    why: str


class Catalogue(Schema):
    """What the interface offers to choose from."""

    ingredients: list[IngredientOut]
    pans: list[PanOut]
    burners: list[BurnerOut]
    grades: list[GradeOut]
    uses: list[UseOut]
    units: list[str]
    emulsion_edges: list[float]
