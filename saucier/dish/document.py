"""The dish, as an open document: one for each dish, beside the sauce sheets it names."""

from collections.abc import Mapping
from dataclasses import replace
from typing import Annotated, Any, Literal, Self, get_args

from pydantic import Field, ValidationError, field_validator, model_validator

from saucier.demand import use_named
from saucier.document import Celsius, IngredientKey, Minutes, Part, with_points
from saucier.errors import BadInput
from saucier.heat import Pan
from saucier.heat.pan import PanShape
from saucier.roots import find_root
from saucier.sheet.reading import problems_of
from saucier.thickness import grade_named
from saucier.words import Sentence, say

Percentage = Annotated[float, Field(ge=0, le=100)]


DishKind = Literal[
    "gratin", "bake", "shells", "filled", "toast", "plate", "pasta", "croquettes", "pie"
]
KINDS: tuple[str, ...] = get_args(DishKind)


class Solid(Part):
    """What the sauce goes over or into: ``grams`` for each portion as it goes into the dish, cooked
    and drained; weighed dry where ``state`` says so (pasta, grain). Or counted, as cooks do:
    ``pieces`` a portion of ``piece_g`` each, called ``counted`` (slice, fillet, bag). ``way`` is how it is cooked, where that is not
    the usual way of the kitchen's library."""

    ingredient: IngredientKey
    grams: Annotated[float, Field(gt=0, le=5000)]
    state: Literal["drained", "dry"] = "drained"
    pieces: Annotated[float, Field(gt=0, le=500)] | None = None
    piece_g: Annotated[float, Field(gt=0, le=5000)] | None = None
    counted: Annotated[str, Field(max_length=30)] | None = None
    way: Annotated[str, Field(max_length=60)] | None = None

    @model_validator(mode="before")
    @classmethod
    def _by_the_piece(cls, data: Any) -> Any:
        """Grams of what is counted follow its pieces."""
        if isinstance(data, dict) and data.get("pieces") and data.get("piece_g"):
            try:
                each = [float(data[name]) for name in ("pieces", "piece_g")]
            except (TypeError, ValueError):
                return data  # the fields themselves say what is wrong
            return {**data, "grams": each[0] * each[1]}
        return data


class DishSauce(Part):
    """A sauce used one way. ``sauce`` names a sheet given beside the dish. ``each`` is how many of
    the use's units a portion has (slices, pieces, g of solids …; None: from the solids, or one),
    ``salt_pct`` where this dish wants it salted otherwise than its sheet says, ``per_ml`` mL for each of them, ``kept_back_pct`` of it for the top or the pass."""

    sauce: Annotated[str, Field(min_length=1, max_length=60)]
    use: str
    each: Annotated[float, Field(gt=0, le=20_000)] | None = None
    salt_pct: Annotated[float, Field(ge=0, le=5)] | None = None
    per_ml: Annotated[float, Field(gt=0, le=5000)] | None = None
    layers: Annotated[int, Field(ge=1, le=20)] = 1
    kept_back_pct: Percentage = 0.0
    grade: str | None = None

    @field_validator("use")
    @classmethod
    def _known_use(cls, value: str) -> str:
        return use_named(value).key

    @field_validator("grade")
    @classmethod
    def _known_grade(cls, value: str | None) -> str | None:
        return None if value is None else grade_named(value).key


class Vessel(Part):
    """What it is baked or served in, inner measures; ``portions`` in one of it. An odd shell is
    measured by the water it ``holds_g``: its depth follows."""

    name: Annotated[str, Field(min_length=1, max_length=60)] = "dish"
    shape: PanShape = "dish"
    diameter_cm: Annotated[float, Field(ge=3, le=120)]
    width_cm: Annotated[float, Field(ge=3, le=120)] | None = None
    depth_cm: Annotated[float, Field(ge=0.5, le=60)]
    holds_g: Annotated[float, Field(gt=0, le=50_000)] | None = None
    portions: Annotated[float, Field(gt=0, le=500)] = 1.0

    @model_validator(mode="before")
    @classmethod
    def _by_its_water(cls, data: Any) -> Any:
        """The depth of what is measured by the water it holds; so much that no such depth holds it is
        told by the depth."""
        if not isinstance(data, dict) or not data.get("holds_g"):
            return data
        try:
            holds, across = (float(data[name]) for name in ("holds_g", "diameter_cm"))
            if not (0.0 < holds < 5e4 and 3.0 <= across <= 120.0):
                return data
            shape = data.get("shape", "dish")
            wide = data.get("width_cm")
            like = Pan("", shape, across, 1.0, width_cm=float(wide) if wide else None)

            def excess(depth_cm: float) -> float:
                return replace(like, depth_cm=depth_cm).capacity_ml - holds

            depth = find_root(excess, 0.05, 200.0, 1e-4)
        except (KeyError, TypeError, ValueError):
            return data  # the fields themselves say what is wrong
        return {**data, "depth_cm": round(depth, 2)}

    def as_pan(self) -> Pan:
        return Pan(
            name=self.name,
            shape=self.shape,
            diameter_cm=self.diameter_cm,
            depth_cm=self.depth_cm,
            tare_g=0.0,
            width_cm=self.width_cm,
        )

    @property
    def area_cm2(self) -> float:
        """Its surface when filled, cm²."""
        pan = self.as_pan()
        return 1e4 * pan.surface_m2(0.999 * pan.capacity_ml)


class Topping(Part):
    """Cheese, crumbs, butter over the top, by area: g for each cm² of the vessel; or ``grams`` for
    each portion where there is no vessel. A ``coating`` (flour, egg, crumbs) is all around the pieces
    and cooked with them."""

    ingredient: IngredientKey
    place: Literal["top", "coating"] = "top"
    g_per_cm2: Annotated[float, Field(gt=0, le=2)] | None = None
    grams: Annotated[float, Field(gt=0, le=500)] | None = None

    @model_validator(mode="after")
    def _one(self) -> Self:
        if (self.g_per_cm2 is None) == (self.grams is None):
            raise BadInput.at("", "needs-one-of-g-per-cm2")
        return self


class Rounds(Part):
    """Something done in rounds because it must not crowd: ``each`` pieces a portion of
    ``piece_cm2``, in a pan, basket or tray of ``room_cm2`` of which ``fill_pct`` may be covered;
    ``minutes`` a round and ``between_minutes`` for the fat or the pan to recover. ``ingredient`` is the
    solid it is about (None: the filled or finished pieces), ``way`` how it is done."""

    what: Annotated[str, Field(min_length=1, max_length=60)]
    each: Annotated[float, Field(gt=0, le=100)] = 1.0
    piece_cm2: Annotated[float, Field(gt=0, le=2000)]
    room_cm2: Annotated[float, Field(gt=0, le=20_000)]
    fill_pct: Annotated[float, Field(gt=0, le=100)] = 60.0
    minutes: Minutes = 3.0
    between_minutes: Minutes = 1.0
    way: Annotated[str, Field(max_length=60)] | None = None
    ingredient: IngredientKey | None = None


class Dish(Part):
    """One dish, of a ``kind`` (None: told from its uses). ``pasta_water_salt_pct`` is g of salt in
    100 g of the water pasta and grain are cooked in; ``plate_cm`` how wide its plate is. ``oven_c`` is what its oven stands at (None: a moderate one), ``oven`` its kind.
    ``plate_c`` is the plate's temperature, ``plate_g`` its weight, ``food_c`` what the
    solids are served at; ``finish`` what colours it, ``filled``
    whether it is finished hot from the pot or cold from the fridge."""

    format: Literal["kestrel-fog/dish"] = "kestrel-fog/dish"
    version: Literal[1] = 1
    name: Annotated[str, Field(min_length=1, max_length=120)]
    kind: DishKind | None = None
    sauces: Annotated[tuple[DishSauce, ...], Field(max_length=12)] = ()
    solids: Annotated[tuple[Solid, ...], Field(max_length=24)] = ()
    vessel: Vessel | None = None
    toppings: Annotated[tuple[Topping, ...], Field(max_length=8)] = ()
    rounds: Annotated[tuple[Rounds, ...], Field(max_length=8)] = ()
    finish: Literal["none", "grill", "oven", "torch", "lid"] = "none"
    filled: Literal["hot", "cold"] = "hot"
    finish_minutes: Minutes = 0.0
    oven: Literal["still", "fan"] = "still"
    oven_c: Annotated[float, Field(ge=100, le=300)] | None = None
    pasta_water_salt_pct: Annotated[float, Field(ge=0, le=5)] = 1.0
    plate_cm: Annotated[float, Field(ge=8, le=60)] = 27.0
    plate_c: Celsius = 60.0
    plate_g: Annotated[float, Field(ge=0, le=5000)] = 400.0
    food_c: Celsius = 65.0
    margin_pct: Percentage = 5.0
    note: Annotated[str, Field(max_length=500)] | None = None

    @field_validator("name")
    @classmethod
    def _named(cls, value: str) -> str:
        if not value.strip():
            raise BadInput.at("", "is-empty")
        return value.strip()

    @model_validator(mode="after")
    def _fits(self) -> Self:
        for number, used in enumerate(self.sauces):
            if use_named(used.use).basis == "vessel-cm2" and self.vessel is None:
                raise BadInput.at(
                    "vessel",
                    "is-missing-goes-by-its-surface",
                    name=use_named(used.use).name,
                )
            if use_named(used.use).basis == "solids-g" and not (self.solids or used.each):
                raise BadInput.at(
                    f"sauces[{number}].each",
                    "is-missing-there-are-no-solids",
                )
        for number, topping in enumerate(self.toppings):
            if topping.g_per_cm2 is not None and self.vessel is None:
                raise BadInput.at(
                    f"toppings[{number}].g_per_cm2",
                    "has-no-vessel-to-go-by",
                )
        return self

    @property
    def solids_g(self) -> float:
        """Grams of solids a portion, as they go into the dish."""
        return sum(solid.grams for solid in self.solids)


def read_dish(data: Mapping[str, Any]) -> Dish:
    """The dish in ``data``. Raises :class:`BadInput` with every problem, by field.

    >>> read_dish({'name': 'Leeks', 'solids': [{'ingredient': 'leek', 'grams': 150}]}).solids_g
    150.0
    """
    if not isinstance(data, Mapping):
        raise BadInput.at("dish", "is-not-an-object")
    try:
        return Dish.model_validate(with_points(data))
    except ValidationError as invalid:
        raise problems_of(invalid) from None


def write_dish(dish: Dish) -> dict[str, Any]:
    """The dish as plain data for JSON, leaving out what was never said."""
    return dish.model_dump(mode="json", exclude_none=True)


def kind_of(dish: Dish) -> str:
    """What kind of dish it is: as it says, else by how its sauces are used and what it is in."""
    if dish.kind:
        return dish.kind
    uses = {used.use for used in dish.sauces}
    for kind, telling in _TELLING.items():
        if uses & telling:
            return kind
    if dish.vessel is None:
        return "plate"
    return "shells" if dish.vessel.shape == "shell" else "gratin"


_TELLING = {
    "croquettes": {"croquettes"},
    "toast": {"toast", "inside"},
    "bake": {"layers", "film", "layer-top"},
    "filled": {"filling"},
    "pasta": {"toss", "pasta-hob", "pasta-baked"},
}
"""Uses that tell a kind of dish, the most telling first."""


def spoken_kind(kind: str) -> Sentence:
    return say(f"dish-kind.{kind}")
