"""How the API says no: 422 with the field and what would be right, 409 with both sides."""

from typing import Any

from django.core.exceptions import RequestDataTooBig
from django.http import HttpRequest, HttpResponse
from ninja import NinjaAPI, Schema
from ninja.errors import HttpError, ValidationError

from saucier.errors import BadInput
from saucier.sheet import MAX_BYTES, Sheet, write_sheet
from saucier.solve import Unreachable


class ProblemOut(Schema):
    field: str
    message: str
    remedy: str


class Problems(Schema):
    """The body of every 422. ``nearest`` is the sheet that comes nearest, where what was asked for
    cannot be had and something near it can."""

    problems: list[ProblemOut]
    nearest: Sheet | None = None


class Message(Schema):
    """The body of 403, 404 and 429."""

    message: str


class Conflict(Exception):
    """Somebody else was first. ``body`` is what the second one is told, with status 409."""

    def __init__(self, body: dict[str, Any]) -> None:
        super().__init__("conflict")
        self.body = body


def install(api: NinjaAPI) -> None:
    """Teach ``api`` to answer with the shapes above."""

    @api.exception_handler(BadInput)
    def bad_input(request: HttpRequest, bad: BadInput) -> HttpResponse:
        problems = [
            {"field": p.field, "message": p.message, "remedy": p.remedy} for p in bad.problems
        ]
        body: dict[str, Any] = {"problems": problems}
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
        remedy = f"A sheet is at most {MAX_BYTES // 1024} kB"
        return bad_input(request, BadInput.at("sheet", "is far too large", remedy))

    @api.exception_handler(ValidationError)
    def invalid(request: HttpRequest, error: ValidationError) -> HttpResponse:
        problems = [
            {
                "field": ".".join(str(part) for part in found["loc"][2:]) or "body",
                "message": found["msg"],
                "remedy": "Send what the API describes at /api/docs",
            }
            for found in error.errors
        ]
        return api.create_response(request, {"problems": problems}, status=422)

    @api.exception_handler(Conflict)
    def conflict(request: HttpRequest, error: Conflict) -> HttpResponse:
        return api.create_response(request, error.body, status=409)
