"""Reading and writing the sheet: JSON in, a frozen :class:`Sheet` out, problems by field."""

import json
from collections.abc import Mapping
from typing import Any, NoReturn, TypeVar

from pydantic import ValidationError
from pydantic_core import ErrorDetails

from saucier.errors import BadInput, Problem
from saucier.sheet.document import Sheet
from saucier.steps import OPS
from saucier.steps.base import Part

Piece = TypeVar("Piece", bound=Part)

MAX_BYTES = 256 * 1024
"""Larger than any sauce; keeps a mistaken upload from being worked on."""


def _no_constant(name: str) -> NoReturn:
    raise BadInput.at("", f"{name} is not a number", "Give a finite number")


def parse_json(text: str | bytes, max_bytes: int = MAX_BYTES) -> Any:
    """JSON in strict reading: no NaN, no infinities, UTF-8, at most ``max_bytes``.

    Raises :class:`BadInput` (field ``sheet``).
    """
    if len(text) > max_bytes:
        raise BadInput.at(
            "sheet", f"is {len(text) // 1024} kB", f"A sheet is at most {max_bytes // 1024} kB"
        )
    try:
        return json.loads(text, parse_constant=_no_constant)
    except BadInput as bad:
        raise bad.under("sheet") from None
    except UnicodeDecodeError:
        raise BadInput.at("sheet", "is not UTF-8 text", "Save it as UTF-8") from None
    except json.JSONDecodeError as bad_json:
        raise BadInput.at(
            "sheet",
            f"is not JSON: line {bad_json.lineno}, column {bad_json.colno}: {bad_json.msg}",
            "See docs/formats for how to write one",
        ) from None
    except (RecursionError, ValueError):
        raise BadInput.at("sheet", "cannot be read as JSON", "See docs/formats") from None


def read_sheet(data: str | bytes | Mapping[str, Any]) -> Sheet:
    """The sheet in ``data`` (JSON text or what it parses to).

    Raises :class:`BadInput` with every problem found, each naming its field.
    """
    if isinstance(data, str | bytes):
        data = parse_json(data)
    if not isinstance(data, Mapping):
        raise BadInput.at(
            "sheet", "is not an object", "A sheet starts with { and has a name and steps"
        )
    try:
        return Sheet.model_validate(data)
    except ValidationError as invalid:
        raise problems_of(invalid) from None


def read_part(kind: type[Piece], data: Mapping[str, Any], field: str) -> Piece:
    """A piece of a sheet by itself, such as what it serves; problems come back under ``field``."""
    try:
        return kind.model_validate(data)
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
    """pydantic's findings as problems with kitchen words."""
    return BadInput(
        *(problem for error in invalid.errors(include_url=False) for problem in _problems(error))
    )


def _problems(error: ErrorDetails) -> list[Problem]:
    field = _path(error["loc"])
    cause = error.get("ctx", {}).get("error")
    if isinstance(cause, BadInput):
        return [Problem(_joined(field, p.field), p.message, p.remedy) for p in cause.problems]
    message, remedy = _words(error)
    return [Problem(field or "sheet", message, remedy)]


_SKIPPED = {*OPS, "stop", "nearly-dry", "to-salt"}


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


def _words(error: ErrorDetails) -> tuple[str, str]:
    kind, ctx = error["type"], error.get("ctx", {})
    shown = str(error.get("input"))[:40]
    if kind == "missing":
        return "is missing", "Add it"
    if kind == "extra_forbidden":
        return "is not a field the sheet knows", "Take it out or check the spelling"
    if kind in ("literal_error", "enum"):
        return f"“{shown}” is not known here", f"Use {ctx.get('expected', 'a known value')}"
    if kind in ("union_tag_invalid", "union_tag_not_found"):
        return "has no known op", f"Use one of {', '.join(OPS)}"
    if kind in ("greater_than", "greater_than_equal"):
        word = "more than" if kind == "greater_than" else "at least"
        return f"{shown} is too small", f"Give {word} {ctx.get('gt', ctx.get('ge')):g}"
    if kind in ("less_than", "less_than_equal"):
        word = "less than" if kind == "less_than" else "at most"
        return f"{shown} is too much", f"Give {word} {ctx.get('lt', ctx.get('le')):g}"
    if kind in ("float_parsing", "float_type", "int_parsing", "finite_number", "value_error"):
        return f"“{shown}” is not a number", "Give a number"
    if kind == "too_long":
        return "has too many entries", f"At most {ctx.get('max_length')}"
    if kind == "string_too_long":
        return "is too long", f"At most {ctx.get('max_length')} characters"
    if kind == "string_too_short":
        return "is empty", "Write something"
    expected = {
        "string_type": "text",
        "bool_type": "true or false",
        "bool_parsing": "true or false",
        "model_type": "an object",
        "model_attributes_type": "an object",
        "tuple_type": "a list",
    }.get(kind)
    if expected:
        return "is of the wrong kind", f"Give {expected}"
    return error["msg"].lower(), "See docs/formats"
