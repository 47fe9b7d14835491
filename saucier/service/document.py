"""The service, as an open document: its lines, what is forced, what is on hand."""

import re
from collections.abc import Mapping
from datetime import date
from typing import Annotated, Any, Literal, Self

from pydantic import Field, ValidationError, field_validator, model_validator

from saucier.constants import CHILLED_DAYS
from saucier.dish import Vessel
from saucier.document import AmountField, IngredientKey, Part, with_points
from saucier.errors import BadInput, Problem
from saucier.sheet.reading import problems_of
from saucier.units import Dimension

Key = Annotated[str, Field(min_length=1, max_length=60)]
MAX_LINES = 200


class Line(Part):
    """So many portions of a dish (a key of the dishes given beside), at a ``sitting``, for guests who
    go ``without`` an allergen, a kind of ingredient, one ingredient, or as a diet says (vegetarian,
    vegan, alcohol, pork, raw yolk); ``swaps`` puts other ingredients in the place of those named. A
    ``vessel`` of its own, where this line is not filled as the dish says. ``id`` tells it from every other line there
    ever was of its service, wherever it stands: tasks, calls and marks go by it."""

    id: Annotated[int, Field(ge=0, le=2**31)] | None = None
    dish: Key
    portions: Annotated[float, Field(gt=0, le=20_000)]
    sitting: Literal[1, 2] = 1
    without: Annotated[tuple[Annotated[str, Field(max_length=80)], ...], Field(max_length=8)] = ()
    swaps: Annotated[dict[IngredientKey, IngredientKey], Field(max_length=24)] = Field(
        default_factory=dict
    )
    vessel: Vessel | None = None


class OnHand(Part):
    """What is in the fridge or the freezer already: a made ``sauce``, ready ``roux`` of a colour
    (butter and wheat flour, as much of each), or an ``ingredient`` (stock, fresh pasta), ``age_days``
    old. A sauce that was judged is ``viscosity_pa_s`` thick at serving temperature (None: as reckoned)."""

    sauce: Key | None = None
    roux: Literal["white", "blond", "brown", "dark"] | None = None
    ingredient: IngredientKey | None = None
    amount: AmountField
    age_days: Annotated[float, Field(ge=0, le=365)] = 0.0
    place: Literal["fridge", "freezer"] = "fridge"
    viscosity_pa_s: Annotated[float, Field(gt=0, le=300)] | None = None

    @model_validator(mode="after")
    def _one(self) -> Self:
        if sum(one is not None for one in (self.sauce, self.roux, self.ingredient)) != 1:
            raise BadInput.at("", "needs-one-of-sauce-roux-and")
        if self.sauce and self.amount.dimension is Dimension.COUNT:
            raise BadInput.at("amount.unit", "a-sauce-is-not-counted")
        if self.roux and self.amount.dimension is not Dimension.WEIGHT:
            raise BadInput.at("amount.unit", "a-ready-roux-is-weighed")
        return self


class Service(Part):
    """One service. ``force`` says for a sauce that it gets its ``own`` pot, must ``share`` a mother
    though its base differs, or is bound by itself (``thicken``) on her; ``pans`` names the pan the cook
    chose, by the key of a pot or a branch."""

    format: Literal["kestrel-fog/service"] = "kestrel-fog/service"
    version: Literal[1] = 1
    name: Annotated[str, Field(min_length=1, max_length=120)]
    date: Annotated[str, Field(max_length=10)] | None = None
    serve_at: Annotated[tuple[Annotated[str, Field(max_length=5)], ...], Field(max_length=2)] = ()
    lines: Annotated[tuple[Line, ...], Field(max_length=MAX_LINES)] = ()
    force: dict[Key, Literal["own", "share", "thicken"]] = Field(default_factory=dict)
    pans: dict[Annotated[str, Field(max_length=240)], Annotated[str, Field(max_length=60)]] = Field(
        default_factory=dict
    )
    on_hand: Annotated[tuple[OnHand, ...], Field(max_length=60)] = ()
    keep_days: Annotated[float, Field(ge=0, le=14)] = float(CHILLED_DAYS)
    repeats: Literal["never", "weekly"] = "never"

    @field_validator("lines")
    @classmethod
    def _identified(cls, lines: tuple[Line, ...]) -> tuple[Line, ...]:
        """Lines of before December 2026 have no id: theirs is where they stand. One that was copied with its line
        is a new one."""
        taken = {line.id for line in lines if line.id is not None}
        seen: set[int] = set()
        made = []
        for number, line in enumerate(lines):
            own = line.id
            if own is None or own in seen:
                own = number if number not in taken | seen else max(taken | seen) + 1
                line = line.model_copy(update={"id": own})
            seen.add(own)
            made.append(line)
        return tuple(made)

    @field_validator("name")
    @classmethod
    def _named(cls, value: str) -> str:
        if not value.strip():
            raise BadInput.at("", "is-empty-give-the")
        return value.strip()

    @field_validator("date")
    @classmethod
    def _a_day(cls, value: str | None) -> str | None:
        if value is None:
            return None
        try:
            return date.fromisoformat(value).isoformat()
        except ValueError:
            raise BadInput.at("", "is-no-date", value=value) from None

    @field_validator("serve_at")
    @classmethod
    def _times(cls, value: tuple[str, ...]) -> tuple[str, ...]:
        for number, text in enumerate(value):
            if not re.fullmatch(r"([01]?\d|2[0-3]):[0-5]\d", text):
                raise BadInput.at(f"[{number}]", "is-no-time", text=text)
        return value


def read_service(data: Mapping[str, Any]) -> Service:
    """The service in ``data``. Raises :class:`BadInput` with every problem, by field."""
    if not isinstance(data, Mapping):
        raise BadInput.at("service", "is-not-an-object-a-service")
    try:
        return Service.model_validate(with_points(data))
    except ValidationError as invalid:
        raise problems_of(invalid) from None


_SINGLE = re.compile(r"(lines|on_hand)\[(\d+)\]")
_STANDS_FOR: dict[str, dict[str, Any]] = {
    "lines": {"dish": "-", "portions": 1},
    "on_hand": {"ingredient": "water", "amount": {"value": 1, "unit": "g"}},
}
"""What stands where an entry cannot be read, so that those after it keep their numbers."""


def read_what_can_be(data: Mapping[str, Any]) -> tuple[Service, tuple[Problem, ...]]:
    """The service in ``data`` and what is wrong with single entries (lines, things on hand), in whose
    place something stands that is served to nobody. Raises :class:`BadInput` where more than single
    entries is wrong."""
    try:
        return read_service(data), ()
    except BadInput as bad:
        found = [_SINGLE.match(problem.field) for problem in bad.problems]
        if not all(found):
            raise
        read = dict(data)
        for at in found:
            assert at is not None
            rows = list(read[at[1]])
            number = int(at[2])
            own = rows[number].get("id") if isinstance(rows[number], Mapping) else None
            known = {"id": own} if isinstance(own, int) and at[1] == "lines" else {}
            rows[number] = {**_STANDS_FOR[at[1]], **known}
            read[at[1]] = rows
        return read_service(read), bad.problems


def write_service(service: Service) -> dict[str, Any]:
    """The service as plain data for JSON, leaving out what was never said."""
    return service.model_dump(mode="json", exclude_none=True)
