"""What the door needs of ASGI."""

import json
from collections.abc import Awaitable, Callable, Mapping, Sequence
from http import HTTPStatus
from typing import Any

Event = Mapping[str, Any]
Scope = dict[str, Any]
Receive = Callable[[], Awaitable[Event]]
Send = Callable[[Event], Awaitable[None]]
App = Callable[[Scope, Receive, Send], Awaitable[None]]


def header(scope: Scope, name: bytes) -> bytes:
    """The header called ``name``, in small letters; empty where there is none."""
    return next((value for key, value in scope["headers"] if key == name), b"")


async def off_the_line(receive: Receive) -> None:
    """A body read and thrown away: who is still sending reads no answer."""
    while True:
        event = await receive()
        if event["type"] != "http.request" or not event.get("more_body", False):
            return


async def answer(
    send: Send,
    status: HTTPStatus,
    body: Mapping[str, Any],
    more: Sequence[tuple[bytes, bytes]] = (),
) -> None:
    """``body`` as JSON, after which the line is closed."""
    content = json.dumps(body, ensure_ascii=False).encode()
    headers = [
        (b"content-type", b"application/json; charset=utf-8"),
        (b"content-length", str(len(content)).encode()),
        (b"x-content-type-options", b"nosniff"),
        (b"connection", b"close"),
        *more,
    ]
    await send({"type": "http.response.start", "status": status, "headers": headers})
    await send({"type": "http.response.body", "body": content, "more_body": False})
