"""Reading and writing the sheet: JSON in, a frozen :class:`Sheet` out, problems by field."""

from collections.abc import Mapping
from dataclasses import replace
from typing import Any, TypeVar

from pydantic import ValidationError
from pydantic_core import ErrorDetails

from saucier.document import Part, with_points
from saucier.errors import BadInput, Problem
from saucier.kitchen import Kitchen
from saucier.sheet.by_hand import with_measures
from saucier.sheet.document import Sheet
from saucier.steps import OPS
from saucier.strict import load

Piece = TypeVar("Piece", bound=Part)

MAX_BYTES = 256 * 1024
"""Larger than any sauce; keeps a mistaken upload from being worked on."""


def parse_json(text: str | bytes, max_bytes: int = MAX_BYTES) -> Any:
    """JSON as :func:`saucier.strict.load` reads it, of at most ``max_bytes``.

    Raises :class:`BadInput` (field ``sheet``).
    """
    if len(text) > max_bytes:
        raise BadInput.at(
            "sheet", "sheet-is-too-large", kb=len(text) // 1024, most_kb=max_bytes // 1024
        )
    try:
        return load(text)
    except BadInput as bad:
        raise bad.under("sheet") from None


def read_sheet(data: str | bytes | Mapping[str, Any], kitchen: Kitchen | None = None) -> Sheet:
    """The sheet in ``data`` (JSON text or what it parses to), where amounts may be in the words of
    ``kitchen`` (None: those everybody has): a pinch, two knobs, a glass.

    Raises :class:`BadInput` with every problem found, each naming its field.
    """
    if isinstance(data, str | bytes):
        data = parse_json(data)
    if not isinstance(data, Mapping):
        raise BadInput.at("sheet", "sheet-is-no-object")
    kitchen = kitchen or Kitchen()
    try:
        return Sheet.model_validate(
            with_measures(with_points(data), kitchen.measures, kitchen.larder)
        )
    except ValidationError as invalid:
        raise problems_of(invalid) from None


def read_part(kind: type[Piece], data: Mapping[str, Any], field: str) -> Piece:
    """A piece of a sheet by itself, such as what it serves; problems come back under ``field``."""
    try:
        return kind.model_validate(with_points(data))
    except ValidationError as invalid:
        bad = problems_of(invalid)
        raise bad.under(field) if field else bad from None


def write_sheet(sheet: Sheet) -> dict[str, Any]:
    """The sheet as plain data for JSON, leaving out what was never said."""
    return sheet.model_dump(mode="json", exclude_none=True)


def json_schema() -> dict[str, Any]:
    """The published JSON Schema of the sheet."""
    return schema_of(Sheet)


def schema_of(document: type[Part]) -> dict[str, Any]:
    """The JSON Schema (draft 2020-12) of an open document."""
    schema = document.model_json_schema(mode="validation")
    return {"$schema": "https://json-schema.org/draft/2020-12/schema", **schema}


def problems_of(invalid: ValidationError) -> BadInput:
    """pydantic's findings as problems of our own."""
    return BadInput(
        *(problem for error in invalid.errors(include_url=False) for problem in _problems(error))
    )


def _problems(error: ErrorDetails) -> list[Problem]:
    field = _path(error["loc"])
    cause = error.get("ctx", {}).get("error")
    if isinstance(cause, BadInput):
        return [replace(p, field=_joined(field, p.field)) for p in cause.problems]
    code, facts = _found(error)
    return [Problem(field or "sheet", code, facts)]


_SKIPPED = {*OPS, "stop", "nearly-dry", "to-salt", "share-of-it"}


def _joined(field: str, inner: str) -> str:
    if not inner or field.rpartition(".")[2] == inner:
        return field
    if inner.startswith("["):
        return f"{field}{inner}"
    return f"{field}.{inner}" if field else inner


def _path(loc: tuple[int | str, ...]) -> str:
    """``steps[1].amount.value`` from pydantic's location, without its names of alternatives."""
    path = ""
    previous: int | str = ""
    for part in loc:
        if isinstance(part, int):
            path += f"[{part}]"
        elif (
            (part in _SKIPPED and (isinstance(previous, int) or previous in ("to", "amount")))
            or (part == "amount" and previous == "amount")
            or part.startswith("function-")
        ):
            continue
        else:
            path += f".{part}" if path else str(part)
        previous = part
    return path


_WRONG = {
    "missing": "field-is-missing",
    "extra_forbidden": "field-is-unknown",
    "literal_error": "value-is-unknown",
    "enum": "value-is-unknown",
    "union_tag_invalid": "op-is-unknown",
    "union_tag_not_found": "op-is-unknown",
    "greater_than": "value-is-not-above",
    "greater_than_equal": "value-is-below",
    "less_than": "value-is-not-under",
    "less_than_equal": "value-is-over",
    "float_parsing": "value-is-no-number",
    "float_type": "value-is-no-number",
    "int_parsing": "value-is-no-number",
    "finite_number": "value-is-no-number",
    "value_error": "value-is-no-number",
    "too_long": "has-too-many-entries",
    "string_too_long": "text-is-over-long",
    "string_too_short": "text-is-missing",
    "string_type": "value-is-no-text",
    "bool_type": "value-is-no-yes-or-no",
    "bool_parsing": "value-is-no-yes-or-no",
    "model_type": "value-is-no-object",
    "model_attributes_type": "value-is-no-object",
    "tuple_type": "value-is-no-list",
}
"""pydantic's kinds of error as our codes."""


def _found(error: ErrorDetails) -> tuple[str, dict[str, object]]:
    code, ctx = _WRONG.get(error["type"]), error.get("ctx", {})
    if code is None:
        return "value-does-not-fit", {"why": error["msg"].lower()}
    limits = (ctx[name] for name in ("gt", "ge", "lt", "le", "max_length") if name in ctx)
    return code, {
        "shown": str(error.get("input"))[:40],
        "known": ctx.get("expected", "a known value"),
        "limit": next(limits, None),
        "ops": OPS,
    }
