"""An act that is sent twice happens once: the second time it gets the first answer.

A request that makes something may carry ``Kestrel-Act``, a key the sender makes up. What was answered is kept
in the transaction that made it, so that neither is there without the other.
"""

import hashlib
from collections.abc import Callable
from datetime import timedelta
from typing import Any

from django.db import transaction
from django.http import HttpRequest, HttpResponse, JsonResponse
from django.utils import timezone
from pydantic import TypeAdapter, ValidationError

from kestrel.accounts.models import Answered
from kestrel.door.answers import refusal
from kestrel.fields import Key
from saucier.errors import BadInput
from saucier.words import say

HEADER = "Kestrel-Act"
KEPT = timedelta(days=7)
TOLD_ONCE = "Kestrel-Told-Once"
"""Set on an answer that holds a token: it is kept nowhere, and sent again it is only told that it was."""
_KEY: TypeAdapter[str] = TypeAdapter(Key)

Run = Callable[..., HttpResponse]


def once(run: Run) -> Run:
    """``run`` of a route, once for each key, where the route makes something (it answers 201)."""
    makes = 201 in getattr(run, "__self__").response_models  # noqa: B009  bound to its route

    def ran(request: HttpRequest, *args: Any, **kwargs: Any) -> HttpResponse:
        key = request.headers.get(HEADER)
        if key is None or not makes or not request.user.is_authenticated:
            answer = run(request, *args, **kwargs)
            answer.headers.pop(TOLD_ONCE, None)
            return answer
        try:
            _KEY.validate_python(key)
        except ValidationError:
            return JsonResponse(refusal(BadInput.at(HEADER, "is-no-key")), status=422)
        with transaction.atomic():
            row = Answered(user=request.user, key=key, of=_mark(request))
            there = Answered.objects.filter(user=row.user, key=key).first()
            if there is not None:
                return _again(there, row)
            answer = run(request, *args, **kwargs)
            told_once = answer.headers.pop(TOLD_ONCE, None)
            if answer.status_code >= 300:
                transaction.set_rollback(True)  # refused: mended, it may come under the same key
                return answer
            row.status = answer.status_code
            row.body = b"" if told_once else answer.content
            row.save()
            Answered.objects.filter(at__lt=timezone.now() - KEPT).delete()
        return answer

    return ran


def _again(there: Answered, row: Answered) -> HttpResponse:
    if there.of != row.of:
        return JsonResponse({"message": str(say("key-is-of-another-act"))}, status=409)
    if not there.body:
        return JsonResponse({"message": str(say("was-told-once"))}, status=409)
    return HttpResponse(
        bytes(there.body), status=there.status, content_type="application/json; charset=utf-8"
    )


def _mark(request: HttpRequest) -> str:
    """What is asked, told apart from anything else under the same key. A form is named by its length."""
    form = request.content_type == "multipart/form-data"
    body = request.headers.get("Content-Length", "").encode() if form else request.body
    what = f"{request.method} {request.get_full_path()}\n".encode() + body
    return hashlib.sha256(what).hexdigest()
