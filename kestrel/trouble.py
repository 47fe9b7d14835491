"""When the machine fails rather than the cook: what is said then, and what is said outside the API's routes."""

import errno
import logging
import sys
from typing import Any

from django.db import OperationalError
from django.http import HttpRequest, HttpResponse, JsonResponse

from saucier.words import Sentence, say

log = logging.getLogger("kestrel.trouble")

AGAIN_S = 5
_SAID_OF = (
    ("locked", "is-busy"),
    ("full", "disk-is-full"),
    ("readonly", "cannot-be-written"),
    ("unable to open", "cannot-be-written"),
    ("disk i/o", "cannot-be-written"),
)
"""What SQLite says, and what is said of it."""


def passing_trouble(error: BaseException | None) -> Sentence | None:
    """What to say of ``error`` where it passes by itself or by the hand of whoever keeps the machine, and
    nothing was half written; None for what is a fault of this program."""
    while error is not None:
        if isinstance(error, OperationalError):
            text = str(error).lower()
            for part, code in _SAID_OF:
                if part in text:
                    return say(code)
        if isinstance(error, OSError) and error.errno in (errno.ENOSPC, errno.EDQUOT):
            return say("disk-is-full")
        error = error.__cause__ or error.__context__
    return None


def said_of(request: HttpRequest, error: BaseException | None) -> HttpResponse:
    """The answer to a request that ended in ``error``: 503 and when to try again, or 500."""
    passing = passing_trouble(error)
    if passing is None:
        return _message(500, say("went-wrong-here"))
    log.warning("%s %s: %s (%s)", request.method, request.path, passing, error)
    answer = _message(503, passing)
    answer["Retry-After"] = str(AGAIN_S)
    return answer


def _message(status: int, text: Sentence) -> HttpResponse:
    return JsonResponse({"message": str(text)}, status=status)


# -- Django's own: what no route of the API answers


def not_found(request: HttpRequest, exception: Exception) -> HttpResponse:
    return _message(404, say("is-not-here"))


def not_allowed(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    return _message(403, say("is-not-allowed"))


def not_understood(request: HttpRequest, exception: Exception | None = None) -> HttpResponse:
    return _message(400, say("is-not-understood"))


def went_wrong(request: HttpRequest) -> HttpResponse:
    return said_of(request, sys.exc_info()[1])


def csrf_failed(request: HttpRequest, reason: str = "", **_: Any) -> HttpResponse:
    return _message(403, say("page-is-from-elsewhere"))
