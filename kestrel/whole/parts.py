"""What belongs to a kitchen, table by table: which columns, what they point at, and how each row is looked
over before it is taken in. Both ways, writing and reading, go by these."""

import io
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Annotated, Any, Literal

from django.db import models
from PIL import Image
from pydantic import BaseModel, Field, TypeAdapter, ValidationError

from kestrel.journal.models import Correction, Entry, Lesson, Served
from kestrel.keeping.events import Recorded
from kestrel.keeping.models import Event, Kept
from kestrel.larder.actions import whole_row
from kestrel.larder.models import (
    Burner,
    Cook,
    Gear,
    Habits,
    Learnt,
    OwnIngredient,
    OwnMeasure,
    OwnWay,
    Pan,
)
from kestrel.practice.models import Round
from kestrel.run_up.models import RunUp
from kestrel.sauces.models import Sauce, SauceVersion
from kestrel.service.models import Dish, Service
from kestrel.stove.acts import AnyAct
from kestrel.stove.models import Act, Batch, Label, Milestone, Photo
from kestrel.stove.photos import LONGEST_SIDE
from kestrel.stove.plans import BatchPlan
from saucier.dish import read_dish
from saucier.errors import BadInput
from saucier.keeping import Cooling, read_rules
from saucier.keeping import Label as CoreLabel
from saucier.larder import ingredient_from_row, measure_from_row
from saucier.practice import Answer, Question
from saucier.run_up import read_run_up, read_way
from saucier.service import read_service
from saucier.sheet import read_sheet
from saucier.sheet.reading import problems_of

Row = dict[str, Any]


@dataclass(frozen=True, slots=True)
class Table:
    """A table: its ``model``, the columns that are written, what columns point ``at`` by the name of another
    table, which are ``people``, which documents name sauces or dishes (``names``), which came ``later`` (a
    file from before has none of them: they stay as a new row has them), what a column ``was`` called before, and
    how a row is looked over (``sane``; raises :class:`BadInput`)."""

    model: type[models.Model]
    columns: tuple[str, ...]
    at: Mapping[str, str] = field(default_factory=dict)
    people: tuple[str, ...] = ()
    names: tuple[str, ...] = ()
    later: tuple[str, ...] = ()
    was: Mapping[str, str] = field(default_factory=dict)
    sane: Callable[[Row], None] = lambda row: None


SIGNED = ("by_name", "session_name", "written_at")
"""Columns of a signature: files of before December 2026 have none of them."""

# -- looking rows over


class _Timer(BaseModel):
    name: Annotated[str, Field(max_length=60)]
    seconds: Annotated[int, Field(ge=0, le=86_400)]
    started_at: str


class _Mend(BaseModel):
    sign: Annotated[str, Field(max_length=300)]
    title: Annotated[str, Field(max_length=300)]
    step: int


class _Told(BaseModel):
    kind: Literal["pace", "strength", "film", "served", "work"]
    of: Annotated[str, Field(max_length=60)]
    at: Annotated[str, Field(max_length=20)]
    log: Annotated[float, Field(ge=-3, le=3)]
    spread: Annotated[float, Field(gt=0, le=3)]


_plan = TypeAdapter(BatchPlan)
_cooling = TypeAdapter(Cooling)
_act: TypeAdapter[Any] = TypeAdapter(AnyAct)
_event: TypeAdapter[Any] = TypeAdapter(Recorded)
_began = TypeAdapter(dict[Annotated[str, Field(pattern=r"^\d{1,3}$")], str])
_timers = TypeAdapter(list[_Timer])
_mends = TypeAdapter(list[_Mend])
_told = TypeAdapter(list[_Told])
_judged = TypeAdapter(Annotated[float, Field(gt=0, lt=1e4)] | None)
_weighed = TypeAdapter(Annotated[float, Field(gt=0, le=200_000)] | None)
_outcome = TypeAdapter(dict[str, Any])
_question = TypeAdapter(Question)
_answer = TypeAdapter(Answer)


def _fits(adapter: TypeAdapter[Any], value: Any, column: str) -> Any:
    try:
        return adapter.validate_python(value)
    except ValidationError as invalid:
        raise problems_of(invalid).under(column) from None


def _version(row: Row) -> None:
    _read(read_sheet, row, "sheet")
    outcome = _fits(_outcome, row["outcome"], "outcome")
    wanted = ("grade", "viscosity_pa_s", "volume_ml", "mass_g", "salt_pct", "minutes", "allergens")
    if missing := [key for key in wanted if key not in outcome]:
        raise BadInput.at(f"outcome.{missing[0]}", "part-is-missing")


def _batch(row: Row) -> None:
    if row["sheet"].get("steps"):
        _read(read_sheet, row, "sheet")
    plan = _fits(_plan, row["plan"], "plan")
    if row["kind"] == "sauce" and len(plan.states) != len(plan.cards):
        raise BadInput.at("plan.states", "part-is-missing")
    _fits(_began, row["began"], "began")
    _fits(_timers, row["timers"], "timers")
    _fits(_mends, row["mends"], "mends")
    _fits(_judged, row.get("judged_pa_s"), "judged_pa_s")
    _fits(_weighed, row.get("weighed_g"), "weighed_g")


def _read(read: Callable[[Any], Any], row: Row, column: str) -> None:
    try:
        read(row[column])
    except BadInput as bad:
        raise bad.under(column) from None


def _act_row(row: Row) -> None:
    told = {"key": row["key"], "at": row["at"], "kind": row["kind"], "step": row["step"]}
    _fits(_act, {**told, **_object(row, "data")}, "data")


def _event_row(row: Row) -> None:
    told = {"key": row["key"], "at": row["at"], "kind": row["kind"]}
    _fits(_event, {**told, **_object(row, "data")}, "data")
    if row["kind"] == "thrown" and not isinstance(row["data"].get("grams"), int | float):
        raise BadInput.at("data.grams", "part-is-missing")


def _object(row: Row, column: str) -> dict[str, Any]:
    if not isinstance(row[column], dict):
        raise BadInput.at(column, "part-is-missing")
    found: dict[str, Any] = row[column]
    return found


def _kept(row: Row) -> None:
    _read(read_sheet, row, "sheet")
    _read(read_rules, row, "rules")
    _fits(_cooling, row["cooling"], "cooling")


def _habits(row: Row) -> None:
    if row["rules"] is not None:
        _read(read_rules, row, "rules")


def _label(row: Row) -> None:
    _fits(TypeAdapter(CoreLabel), row["document"], "document")


def _run_up(row: Row) -> None:
    _read(read_run_up, row, "document")
    if row["meal"] is not None:
        _read(read_service, row, "meal")


def _round(row: Row) -> None:
    _fits(_question, row["question"], "question")
    _fits(_answer, row["answer"], "answer")


def picture(jpeg: bytes) -> tuple[int, int]:
    """Width and height of a photograph as the app keeps them. Raises :class:`BadInput` (field ``file``)."""
    try:
        with Image.open(io.BytesIO(jpeg), formats=("JPEG",)) as found:
            size: tuple[int, int] = found.size
            if max(size) > LONGEST_SIDE:
                raise BadInput.at("file", "photo-has-too-many-pixels")
            found.load()
            return size
    except BadInput:
        raise
    except Exception:
        raise BadInput.at("file", "is-no-photo") from None


# -- the tables, in the order they are taken in

LARDER: dict[str, Table] = {
    "pans": Table(
        Pan,
        (
            "name",
            "shape",
            "diameter_cm",
            "depth_cm",
            "width_cm",
            "tare_g",
            "reactive",
            "heavy",
            "count",
        ),
        sane=lambda row: _finite(row, "diameter_cm", "depth_cm"),
    ),
    "burners": Table(Burner, ("name", "kind", "watts", "takes_cm")),
    "gear": Table(Gear, ("name", "kind", "count", "can", "shelves", "area_cm2", "litres")),
    "cooks": Table(Cook, ("name", "can")),
    "ingredients": Table(
        OwnIngredient,
        ("key", "row", "retired", "revision", "updated_at"),
        sane=lambda row: _read(lambda given: ingredient_from_row(whole_row(given)), row, "row"),
    ),
    "measures": Table(
        OwnMeasure,
        ("name", "of", "row"),
        sane=lambda row: _read(measure_from_row, row, "row"),
    ),
    "ways": Table(OwnWay, ("key", "row"), sane=lambda row: _read(read_way, row, "row")),
    "habits": Table(Habits, ("per_ml", "film_ml", "whisk_ml", "rules"), sane=_habits),
    "learned": Table(
        Learnt,
        (
            "kind",
            "of",
            "at",
            "log",
            "spread",
            "scale",
            "records",
            "taken_at",
            "taken_by",
            "dropped_at",
        ),
        people=("taken_by",),
        sane=lambda row: _finite(row, "spread", "scale"),
    ),
}


def _finite(row: Row, *columns: str) -> None:
    for column in columns:
        value = row[column]
        if isinstance(value, bool) or not isinstance(value, int | float) or not 0 < value < 1e6:
            raise BadInput.at(column, "part-is-missing")


TABLES: dict[str, Table] = {
    **LARDER,
    "sauces": Table(
        Sauce,
        (
            "name",
            "family",
            "version",
            "favourite",
            "tags",
            "cooked_at",
            "created_at",
            "updated_at",
            "deleted_at",
        ),
        later=("favourite", "tags", "cooked_at"),
    ),
    "versions": Table(
        SauceVersion,
        ("sauce", "number", "sheet", "outcome", "note", "made_by", "made_at"),
        at={"sauce": "sauces"},
        people=("made_by",),
        sane=_version,
    ),
    "dishes": Table(
        Dish,
        ("name", "document", "revision", "created_at", "updated_at", "deleted_at"),
        names=("document",),
        sane=lambda row: _read(read_dish, row, "document"),
    ),
    "services": Table(
        Service,
        (
            "name",
            "document",
            "date",
            "pinned",
            "revision",
            "created_at",
            "updated_at",
            "deleted_at",
        ),
        names=("document", "pinned"),
        sane=lambda row: _read(read_service, row, "document"),
    ),
    "run-ups": Table(
        RunUp,
        (
            "name",
            "document",
            "service",
            "meal",
            "date",
            "utc_offset_min",
            "revision",
            "created_at",
            "updated_at",
            "deleted_at",
        ),
        at={"service": "services"},
        names=("document", "meal"),
        sane=_run_up,
    ),
    "batches": Table(
        Batch,
        (
            "version",
            "service",
            "made_for",
            "pot",
            "number",
            "sheet",
            "plan",
            "mends",
            "kind",
            "ring",
            "cook",
            "status",
            "step",
            "began",
            "timers",
            "revision",
            "started_by",
            "started_at",
            "ended_at",
            "judged_pa_s",
            "weighed_g",
            "put_away_at",
            "drawn_key",
        ),
        at={"version": "versions", "service": "services", "made_for": "batches"},
        people=("started_by",),
        names=("pot",),
        later=("number", "judged_pa_s", "weighed_g", "put_away_at", "drawn_key"),
        sane=_batch,
    ),
    "acts": Table(
        Act,
        ("batch", "key", "kind", "step", "data", "at", "by", "taken", "why", *SIGNED),
        at={"batch": "batches"},
        people=("by",),
        later=SIGNED,
        was={"written_at": "come_at"},
        sane=_act_row,
    ),
    "milestones": Table(
        Milestone,
        ("batch", "kind", "name", "at", "by", *SIGNED),
        at={"batch": "batches"},
        people=("by",),
        later=SIGNED,
    ),
    "photos": Table(
        Photo,
        ("batch", "key", "step", "at", "by", "width", "height"),
        at={"batch": "batches"},
        people=("by",),
    ),
    "labels": Table(
        Label,
        ("batch", "document", "copies", "made_at", "made_by", "printed_at"),
        at={"batch": "batches"},
        people=("made_by",),
        sane=_label,
    ),
    "entries": Table(
        Entry,
        ("batch", "made_at", "weighed_g", "reached_pa_s", "verdict", "note", "by", *SIGNED),
        at={"batch": "batches"},
        people=("by",),
        later=("by", *SIGNED),
    ),
    "corrections": Table(
        Correction,
        (
            *("entry", "key", "weighed_g", "reached_pa_s", "verdict", "note", "why", "at", "by"),
            *SIGNED,
        ),
        at={"entry": "entries"},
        people=("by",),
        later=SIGNED,
    ),
    "lessons": Table(
        Lesson,
        ("entry", "told"),
        at={"entry": "entries"},
        sane=lambda row: _fits(_told, row["told"], "told"),
    ),
    "served": Table(
        Served,
        (
            *("batch", "key", "portions", "thrown_g", "reason", "film_g", "told", "at", "by"),
            *SIGNED,
        ),
        at={"batch": "batches"},
        people=("by",),
        later=SIGNED,
        sane=lambda row: _fits(_told, row["told"], "told"),
    ),
    "practice": Table(
        Round,
        ("user", "kind", "question", "answer", "given", "score", "asked_at", "answered_at"),
        people=("user",),
        sane=_round,
    ),
    "kept": Table(
        Kept,
        (
            "batch",
            "key",
            "name",
            "grams",
            "grade",
            "viscosity_pa_s",
            "allergens",
            "sheet",
            "place",
            "tray",
            "trays",
            "cooling",
            "rules",
            "use_by",
            "keeps",
            "for_when",
            "put_at",
            "put_by",
            "off_fire_at",
            "put_c",
            *SIGNED,
        ),
        at={"batch": "batches"},
        people=("put_by",),
        later=("off_fire_at", "put_c", *SIGNED),
        sane=_kept,
    ),
    "events": Table(
        Event,
        ("kept", "key", "kind", "data", "at", "by", *SIGNED),
        at={"kept": "kept"},
        people=("by",),
        later=SIGNED,
        was={"written_at": "come_at"},
        sane=_event_row,
    ),
}
