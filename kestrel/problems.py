"""How the API says no: 422 with the field and what would be right, 409 with both sides."""

from collections.abc import Sequence
from datetime import timedelta
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.exceptions import RequestDataTooBig
from django.http import Http404, HttpRequest, HttpResponse
from ninja import NinjaAPI, Schema
from ninja.errors import AuthenticationError, HttpError, ValidationError
from ninja.openapi.schema import REF_TEMPLATE, OpenAPISchema
from ninja.schema import NinjaGenerateJsonSchema

from kestrel.door.answers import NotYours, refusal, too_many
from kestrel.door.tries import LOOKS_AT_PASSWORDS, WAIT_S, TooManyTries
from kestrel.trouble import passing_trouble, said_of
from saucier.errors import BadInput, problem
from saucier.sheet import Sheet, write_sheet
from saucier.solve import Unreachable
from saucier.words import Sentence, add_shelf, say

add_shelf(Path(__file__).parent / "words")


class ProblemOut(Schema):
    """A problem of the core with its words."""

    field: str
    code: str
    message: Sentence
    remedy: Sentence


class Problems(Schema):
    """The body of every 422. ``nearest`` is the sheet that comes nearest, where what was asked for
    cannot be had and something near it can."""

    problems: list[ProblemOut]
    nearest: Sheet | None = None


class Message(Schema):
    """The body of every refusal that no field is to blame for."""

    message: str


class Conflict(Exception):
    """Somebody else was first: the second one gets status 409 with the ``message`` and what is there
    now (``theirs``)."""

    def __init__(self, message: Sentence, **theirs: Any) -> None:
        super().__init__(message.code)
        self.body = {"message": str(message), **theirs}


def install(api: NinjaAPI) -> None:
    """Teach ``api`` to answer with the shapes above."""

    @api.exception_handler(BadInput)
    def bad_input(request: HttpRequest, bad: BadInput) -> HttpResponse:
        body = refusal(bad)
        if isinstance(bad, Unreachable) and bad.nearest is not None:
            body["nearest"] = write_sheet(bad.nearest)
        return api.create_response(request, body, status=422)

    @api.exception_handler(HttpError)
    def http_error(request: HttpRequest, error: HttpError) -> HttpResponse:
        # What our parser refuses reaches us wrapped up as a plain 400.
        if isinstance(error.__cause__, BadInput):
            return bad_input(request, error.__cause__)
        text = say("page-is-from-elsewhere") if error.status_code == 403 else str(error)
        return api.create_response(request, {"message": str(text)}, status=error.status_code)

    @api.exception_handler(AuthenticationError)
    def signed_out(request: HttpRequest, error: AuthenticationError) -> HttpResponse:
        return api.create_response(request, {"message": str(say("sign-in-first"))}, status=401)

    @api.exception_handler(TooManyTries)
    def too_many_tries(request: HttpRequest, error: TooManyTries) -> HttpResponse:
        return too_many(say("too-many-tries"), timedelta(seconds=WAIT_S))

    @api.exception_handler(NotYours)
    def not_yours(request: HttpRequest, error: NotYours) -> HttpResponse:
        return api.create_response(request, {"message": str(error.text)}, status=403)

    @api.exception_handler(Http404)
    def not_here(request: HttpRequest, error: Http404) -> HttpResponse:
        return api.create_response(request, {"message": str(say("is-not-here"))}, status=404)

    @api.exception_handler(OverflowError)
    def beyond(request: HttpRequest, error: OverflowError) -> HttpResponse:
        """A number in an address that no row can have."""
        if "SQLite INTEGER" not in str(error):
            raise error
        return not_here(request, Http404())

    @api.exception_handler(Exception)
    def trouble(request: HttpRequest, error: Exception) -> HttpResponse:
        if passing_trouble(error) is None:
            raise error  # a fault of ours: Django writes it down
        return said_of(request, error)

    @api.exception_handler(RequestDataTooBig)
    def too_big(request: HttpRequest, error: RequestDataTooBig) -> HttpResponse:
        most = settings.DATA_UPLOAD_MAX_MEMORY_SIZE // 1024
        bad = BadInput.at("body", "request-is-too-large", most_kb=most)
        return bad_input(request, bad)

    @api.exception_handler(ValidationError)
    def invalid(request: HttpRequest, error: ValidationError) -> HttpResponse:
        problems = (
            problem(
                _field_of(misfit["loc"]),
                "request-does-not-fit",
                why=misfit["msg"],
            )
            for misfit in error.errors
        )
        return bad_input(request, BadInput(*problems))

    @api.exception_handler(Conflict)
    def conflict(request: HttpRequest, error: Conflict) -> HttpResponse:
        return api.create_response(request, error.body, status=409)


def _field_of(loc: Sequence[str | int]) -> str:
    """Where in a request something does not fit: a body's own name says nothing to who sent it."""
    where, *rest = loc
    return ".".join(str(part) for part in (rest[1:] if where == "body" else rest)) or str(where)


_EVERYWHERE = {
    400: ("NotUnderstood", "The body or the host is not understood."),
    401: ("SignedOut", "Nobody is signed in, or the token is not known."),
    403: ("FromElsewhere", "The page that asks is not from here, or too old."),
    404: ("NotHere", "There is nothing of the kind in this kitchen."),
    408: ("TooSlow", "The body came too slowly."),
    409: ("SentBefore", "Sent again under a key that was something else's, or its token was told."),
    422: (
        "Refused",
        "What was sent cannot be: each problem names its field and what would be right.",
    ),
    429: ("TooMany", "Too many tries."),
    503: ("TryAgain", "The kitchen's file is busy, or its disk full. Nothing was changed."),
}


def told_everywhere(schema: OpenAPISchema) -> OpenAPISchema:
    """``schema`` with what every route may also answer, where it does not tell that itself.

    Told here once and not by each route: the shape of a refusal holds a whole sheet, and working it out for
    a hundred routes took half of the time."""
    schemas = schema["components"].setdefault("schemas", {})
    for shape in (Problems, Message):
        made = shape.model_json_schema(
            ref_template=REF_TEMPLATE,
            schema_generator=NinjaGenerateJsonSchema,
            mode="serialization",
        )
        schemas |= {**made.pop("$defs", {}), shape.__name__: made}
    of_all = schema["components"].setdefault("responses", {})
    for name, text in _EVERYWHERE.values():
        body = "Problems" if name == "Refused" else "Message"
        content = {"application/json": {"schema": {"$ref": f"#/components/schemas/{body}"}}}
        of_all[name] = {"description": text, "content": content}
    for path, methods in schema["paths"].items():
        for method, route in methods.items():
            wanted = {401, 422, 503} if route.get("security") else {422, 503}
            if 201 in {int(known) for known in route["responses"]}:
                wanted.add(409)
            if "{" in path:
                wanted.add(404)
            if method != "get":
                wanted |= {400, 403, 408}
            if path.endswith(LOOKS_AT_PASSWORDS):
                wanted.add(429)
            for status in sorted(wanted - {int(known) for known in route["responses"]}):
                name = _EVERYWHERE[status][0]
                route["responses"][status] = {"$ref": f"#/components/responses/{name}"}
    return schema
