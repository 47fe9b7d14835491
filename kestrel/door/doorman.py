"""Before the application: who has tried too often is kept waiting, which costs a stranger time and us none."""

import asyncio
from http import HTTPStatus

from django.http.cookie import parse_cookie

from kestrel.door import tries
from kestrel.door.asgi import App, Receive, Scope, Send, answer, header, off_the_line
from saucier.words import say

HOLDS_S = 1.0


class Doorman:
    """Around an ASGI ``app``: tries from a place that has none left are answered here, a second late."""

    def __init__(self, app: App) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if not _is_try(scope) or not tries.none_left(_place(scope), _cookie(scope)):
            await self._app(scope, receive, send)
            return
        await off_the_line(receive)
        await asyncio.sleep(HOLDS_S)
        more = [(b"retry-after", str(tries.WAIT_S).encode())]
        body = {"message": str(say("too-many-tries"))}
        await answer(send, HTTPStatus.TOO_MANY_REQUESTS, body, more)


def _is_try(scope: Scope) -> bool:
    if scope["type"] != "http" or scope["method"] not in ("POST", "PUT"):
        return False
    return str(scope["path"]).endswith(tries.LOOKS_AT_PASSWORDS)


def _place(scope: Scope) -> str:
    client = scope.get("client")
    return str(client[0]) if client else "nowhere"


def _cookie(scope: Scope) -> str | None:
    return parse_cookie(header(scope, b"cookie").decode("latin-1")).get(tries.COOKIE)
