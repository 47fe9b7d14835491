"""Bodies of requests: how large, how slow, before anything reads or stores them."""

import asyncio
import re
import time
from collections.abc import Mapping
from contextlib import suppress
from http import HTTPStatus
from importlib import import_module
from typing import Any

from asgiref.sync import sync_to_async
from django.conf import settings
from django.contrib.auth import SESSION_KEY
from django.http.cookie import parse_cookie

from kestrel.door.answers import refusal
from kestrel.door.asgi import App, Event, Receive, Scope, Send, answer, header, off_the_line
from saucier.errors import BadInput, problem
from saucier.words import say

SILENT_S = 8.0
"""A body that says nothing for so long is given up."""
SLOWEST_BYTES_PER_S = 8 * 1024
"""A body may take SILENT_S, and beyond that so long as it comes at this pace."""
_LINGER_BYTES = 4 * 1024 * 1024
"""So much of a body that is refused is still taken off the line, so that the answer is read."""


class _GivenUp(Exception):
    """The body is not waited for any longer: answer ``status`` with ``body``."""

    def __init__(self, status: HTTPStatus, body: Mapping[str, Any]) -> None:
        super().__init__(status)
        self.status = status
        self.body = body


class Bodies:
    """Around an ASGI ``app``: requests whose bodies are too large, or come too slowly, end here.

    ``larger`` gives paths, as regular expressions, where somebody signed in may send more than ``most``
    bytes.
    """

    def __init__(self, app: App, most: int, larger: Mapping[str, int]) -> None:
        self._app = app
        self._most = most
        self._larger = [(re.compile(path), bytes_) for path, bytes_ in larger.items()]

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http" or scope["method"] in ("GET", "HEAD"):
            await self._app(scope, receive, send)
            return
        began = False

        async def sent(event: Event) -> None:
            nonlocal began
            began = began or event["type"] == "http.response.start"
            await send(event)

        try:
            most = await self._most_of(scope)
            if _declared(scope) > most:
                await _off_the_line(receive)
                raise _too_large(most)
            await self._app(scope, _bounded(receive, most), sent)
        except _GivenUp as given_up:
            if not began:
                await answer(send, given_up.status, given_up.body)

    async def _most_of(self, scope: Scope) -> int:
        for path, most in self._larger:
            if path.fullmatch(scope["path"]) and await sync_to_async(_signed_in)(scope):
                return most
        return self._most


def _bounded(receive: Receive, most: int) -> Receive:
    """``receive`` of a body of at most ``most`` bytes that keeps coming."""
    began, got, over = time.monotonic(), 0, False

    async def bounded() -> Event:
        nonlocal got, over
        if over:  # what comes after a body is the end of the line, whenever that is
            return await receive()
        left = began + SILENT_S + got / SLOWEST_BYTES_PER_S - time.monotonic()
        try:
            event = await asyncio.wait_for(receive(), max(0.0, min(SILENT_S, left)))
        except TimeoutError:
            raise _GivenUp(
                HTTPStatus.REQUEST_TIMEOUT, {"message": str(say("came-too-slowly"))}
            ) from None
        if event["type"] == "http.request":
            got += len(event.get("body", b""))
            over = not event.get("more_body", False)
            if got > most:
                raise _too_large(most)
        return event

    return bounded


def _too_large(most: int) -> _GivenUp:
    one = problem("body", "request-is-too-large", most_kb=most // 1024)
    return _GivenUp(HTTPStatus.UNPROCESSABLE_ENTITY, refusal(BadInput(one)))


async def _off_the_line(receive: Receive) -> None:
    """As :func:`off_the_line`, as long as it keeps coming."""
    with suppress(_GivenUp):
        await off_the_line(_bounded(receive, _LINGER_BYTES))


def _declared(scope: Scope) -> int:
    text = header(scope, b"content-length")
    return int(text) if text.isdigit() else 0


def _signed_in(scope: Scope) -> bool:
    """Whether the session of the request belongs to somebody."""
    cookies = parse_cookie(header(scope, b"cookie").decode("latin-1"))
    key = cookies.get(settings.SESSION_COOKIE_NAME)
    store = import_module(settings.SESSION_ENGINE).SessionStore
    return key is not None and store(key).get(SESSION_KEY) is not None
