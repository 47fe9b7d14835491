from datetime import date, datetime
from typing import Any

from ninja import Schema

from kestrel.fields import Day
from saucier.dish import Dish, DishSeen
from saucier.service import Service


class DishIn(Schema):
    """A dish as it stands in the browser; ``revision`` is the one it was made from."""

    document: dict[str, Any]
    revision: int = 0


class DishOut(Schema):
    id: int
    name: str
    revision: int
    document: Dish


class DishRead(Schema):
    """A dish as it would be kept, and as it is seen."""

    dish: Dish
    seen: DishSeen


class DishStartOut(Schema):
    """A kind of dish to start from, with sauces of this kitchen in it."""

    key: str
    name: str
    why: str
    document: dict[str, Any]


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


class ServicePage(Schema):
    """Some of a kitchen's services, and how many there are of them in all."""

    rows: list[ServiceLine]
    total: int


class DishName(Schema):
    """A dish to choose."""

    id: int
    name: str


class ServiceOut(Schema):
    id: int
    name: str
    date: date | None
    revision: int
    document: Service
    pinned: dict[str, int]


class KeptTaken(Schema):
    """Another window saved it meanwhile: theirs."""

    message: str
    document: dict[str, Any]
    revision: int


class FileIn(Schema):
    """The text of a service's file."""

    text: str


class CopyIn(Schema):
    """``day`` None: a week on."""

    day: Day | None = None


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
