"""Screens that listen: what happens in a kitchen reaches them as it happens.

One process serves, so that a table in its memory is enough; a screen that was away asks anew.
"""

import asyncio
import json
import threading
from collections.abc import AsyncIterator
from typing import Any

from asgiref.sync import sync_to_async
from django.http import HttpRequest, JsonResponse, StreamingHttpResponse
from django.http.response import HttpResponseBase
from django.views.decorators.http import require_safe

from saucier.words import say

ALIVE_S = 15.0
"""A quiet line is spoken on so often, so that nobody between takes it for dead."""
LASTS_S = 600.0
"""Then the screen comes again by itself, and shows once more that it may."""
WAITING = 200
"""Events kept for a screen that is slow; then it is told to look at everything."""

_lock = threading.Lock()
_listening: dict[int, set["_Screen"]] = {}


class _Screen:
    def __init__(self, user: int) -> None:
        self.user = user
        self._loop = asyncio.get_running_loop()
        self._events: asyncio.Queue[str | None] = asyncio.Queue()

    def hear(self, event: str | None) -> None:
        """From any thread; None: it is over."""
        self._loop.call_soon_threadsafe(self._put, event)

    def _put(self, event: str | None) -> None:
        if self._events.qsize() >= WAITING:
            while not self._events.empty():
                self._events.get_nowait()
            event = _event("look", {})
        self._events.put_nowait(event)

    async def events(self) -> AsyncIterator[str]:
        loop = asyncio.get_running_loop()
        until = loop.time() + LASTS_S
        yield _event("hello", {})
        while loop.time() < until:
            try:
                event = await asyncio.wait_for(self._events.get(), ALIVE_S)
            except TimeoutError:
                yield ": still here\n\n"
                continue
            if event is None:
                return
            yield event


def tell(kitchen: int, what: str, about: dict[str, Any]) -> None:
    """Every screen of ``kitchen`` hears of it, at once."""
    with _lock:
        screens = list(_listening.get(kitchen, ()))
    if screens:
        event = _event(what, about)
        for screen in screens:
            screen.hear(event)


def hang_up(user: int | None = None) -> None:
    """Every stream ends: the server is about to. Or those of one ``user``, who is signed out; a screen that
    may listen still comes again by itself."""
    with _lock:
        screens = [screen for several in _listening.values() for screen in several]
    for screen in screens:
        if user is None or screen.user == user:
            screen.hear(None)


def listening(kitchen: int) -> int:
    """How many screens listen."""
    with _lock:
        return len(_listening.get(kitchen, ()))


@require_safe
async def live(request: HttpRequest) -> HttpResponseBase:
    """The stream of a kitchen, as server-sent events: ``batch`` (one changed), ``reading``, ``watched``."""
    who = await sync_to_async(_who)(request)
    if who is None:
        return JsonResponse({"message": str(say("sign-in-first"))}, status=401)
    response = StreamingHttpResponse(_stream(*who), content_type="text/event-stream")
    response["Content-Encoding"] = "identity"  # a word at a time, not when a block is full
    response["Cache-Control"] = "no-store"
    response["X-Accel-Buffering"] = "no"
    return response


def _who(request: HttpRequest) -> tuple[int, int] | None:
    """The kitchen, and whose session it is."""
    user = request.user
    if not user.is_authenticated:
        return None
    kitchen = user.kitchens.order_by("pk").first()
    return None if kitchen is None else (kitchen.pk, user.pk)


async def _stream(kitchen: int, user: int) -> AsyncIterator[str]:
    screen = _Screen(user)
    with _lock:
        _listening.setdefault(kitchen, set()).add(screen)
    try:
        async for event in screen.events():
            yield event
    finally:
        with _lock:
            _listening[kitchen].discard(screen)


def _event(what: str, about: dict[str, Any]) -> str:
    return f"event: {what}\ndata: {json.dumps(about)}\n\n"
