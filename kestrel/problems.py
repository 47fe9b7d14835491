"""How the API says no: 422 with the field and what would be right, 409 with both sides."""

from pathlib import Path
from typing import Any

from django.core.exceptions import RequestDataTooBig
from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI, Schema
from ninja.errors import HttpError, ValidationError

from saucier.errors import BadInput, problem
from saucier.sheet import MAX_BYTES, Sheet, write_sheet
from saucier.solve import Unreachable
from saucier.words import Sentence, add_shelf

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
    """The body of 403, 404 and 429."""

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
        body: dict[str, Any] = {
            "problems": [ProblemOut.from_orm(one).dict() for one in bad.problems]
        }
        if isinstance(bad, Unreachable) and bad.nearest is not None:
            body["nearest"] = write_sheet(bad.nearest)
        return api.create_response(request, body, status=422)

    @api.exception_handler(HttpError)
    def http_error(request: HttpRequest, error: HttpError) -> HttpResponse:
        # What our parser refuses reaches us wrapped up as a plain 400.
        if isinstance(error.__cause__, BadInput):
            return bad_input(request, error.__cause__)
        return api.create_response(request, {"message": str(error)}, status=error.status_code)

    @api.exception_handler(RequestDataTooBig)
    def too_big(request: HttpRequest, error: RequestDataTooBig) -> HttpResponse:
        bad = BadInput.at("sheet", "request-is-too-large", most_kb=MAX_BYTES // 1024)
        return bad_input(request, bad)

    @api.exception_handler(ValidationError)
    def invalid(request: HttpRequest, error: ValidationError) -> HttpResponse:
        problems = (
            problem(
                ".".join(str(part) for part in misfit["loc"][2:]) or "body",
                "request-does-not-fit",
                why=misfit["msg"],
            )
            for misfit in error.errors
        )
        return bad_input(request, BadInput(*problems))

    @api.exception_handler(Conflict)
    def conflict(request: HttpRequest, error: Conflict) -> HttpResponse:
        return api.create_response(request, error.body, status=409)
