"""The document itself, version 1."""

from typing import Annotated, Literal, Self, get_args

from pydantic import Field, field_validator, model_validator

from saucier.document import AmountField, Celsius, Part, Percent
from saucier.errors import BadInput
from saucier.steps import AnyStep, Method, SheetBurner, SheetPan
from saucier.thickness import grade_named
from saucier.units import Dimension

Family = Literal[
    "white-sauce",
    "veloute",
    "cheese-sauce",
    "cream-veloute",
    "liaison-sauce",
    "cream-reduction",
    "cream-with-roux",
    "soft-cream",
    "panade",
    "sauce-in-sauce",
    "flavoured-butter",
]
FAMILIES: tuple[str, ...] = get_args(Family)
MAX_STEPS = 120


class Serves(Part):
    """What the sauce is for: so many ``portions`` of a ``use``, ``each`` of what it counts (grams of
    solids, slices) in a portion, at ``per_ml`` for each counted one, plus a margin. A ``count`` of
    those things may stand in place of portions."""

    use: Annotated[str, Field(min_length=1, max_length=40)]
    portions: Annotated[float, Field(gt=0, le=100_000)] | None = None
    each: Annotated[float, Field(gt=0, le=100_000)] | None = None
    count: Annotated[float, Field(gt=0, le=10_000_000)] | None = None
    per_ml: Annotated[float, Field(gt=0, le=5000)] | None = None
    margin_pct: Annotated[float, Field(ge=0, le=100)] = 5.0

    @model_validator(mode="after")
    def _counted(self) -> Self:
        if self.portions is None and self.count is None:
            raise BadInput.at("portions", "portions-are-missing")
        return self


class Target(Part):
    """What the sauce should come to: grade at ``serving_c``, yield, salt."""

    grade: str | None = None
    volume: AmountField | None = None
    salt_pct: Percent | None = None
    serving_c: Celsius = 65.0
    serves: Serves | None = None

    @field_validator("grade")
    @classmethod
    def _known(cls, value: str | None) -> str | None:
        return None if value is None else grade_named(value).key

    @field_validator("serving_c")
    @classmethod
    def _servable(cls, value: float) -> float:
        if not 0.0 <= value <= 100.0:
            raise BadInput.at("", "c-is-no-serving-temperature", value=value)
        return value

    @model_validator(mode="after")
    def _fits(self) -> Self:
        if self.volume and self.volume.dimension is Dimension.COUNT:
            raise BadInput.at("volume.unit", "pieces-are-no-yield")
        return self


class Cover(Part):
    """Who made the sheet and what they want said about it; free text, never computed with."""

    author: Annotated[str, Field(max_length=80)] | None = None
    text: Annotated[str, Field(max_length=2000)] | None = None


class Sheet(Part):
    """One sauce, as the open format has it. ``strength``: what thickens it is so many times as strong as its rows say,
    for a cook judged it so (nobody: as they say)."""

    format: Literal["kestrel-fog/sauce"] = "kestrel-fog/sauce"
    version: Literal[1] = 1
    name: Annotated[str, Field(min_length=1, max_length=120)]
    family: Family | None = None
    method: Method = Method()
    target: Target = Target()
    pan: SheetPan | None = None
    burner: SheetBurner | None = None
    lid: bool = False
    cover: Cover | None = None
    strength: Annotated[float, Field(ge=0.2, le=5.0)] | None = None
    steps: Annotated[tuple[AnyStep, ...], Field(max_length=MAX_STEPS)] = ()

    @field_validator("name")
    @classmethod
    def _named(cls, value: str) -> str:
        if not value.strip():
            raise BadInput.at("", "is-empty-give-the-sauce")
        return value.strip()
