"""The server of the browser tests: as it serves a kitchen, so that the live stream is part of it."""

import socket
import time
from typing import Any

from django.db import connections
from django.test.testcases import LiveServerThread

from kestrel.asgi import application
from kestrel.serve import Server, config_of


class Counted:
    """An ASGI application; ``unanswered``: how many requests it has not begun to answer."""

    def __init__(self, app: Any) -> None:
        self.app, self.unanswered = app, 0

    async def __call__(self, scope: dict[str, Any], receive: Any, send: Any) -> None:
        if scope["type"] != "http":
            await self.app(scope, receive, send)
            return
        answered = False

        async def sent(message: dict[str, Any]) -> None:
            nonlocal answered
            if not answered:
                answered, self.unanswered = True, self.unanswered - 1
            await send(message)

        self.unanswered += 1
        try:
            await self.app(scope, receive, sent)
        finally:
            if not answered:
                self.unanswered -= 1


class ServedAsItIs(LiveServerThread):
    """In a thread of its own, on a port of its own; the tests' database is a file, which it opens itself."""

    server: Server | None = None
    app = Counted(application)

    def run(self) -> None:
        try:
            listening = socket.create_server((self.host, self.port))
            self.port = listening.getsockname()[1]
            self.server = Server(config_of(self.app))
            self.is_ready.set()  # who asks now waits until it answers
            self.server.run(sockets=[listening])
        except Exception as error:
            self.error = error
            self.is_ready.set()
        finally:
            connections.close_all()

    def wait_until_answered(self, seconds: float) -> None:
        """Until no request is without its answer. Raises :class:`TimeoutError` after so many ``seconds``."""
        until = time.monotonic() + seconds
        while self.app.unanswered:
            if time.monotonic() > until:
                raise TimeoutError(f"{self.app.unanswered} requests are not answered")
            time.sleep(0.02)

    def terminate(self) -> None:
        if self.server is not None:
            self.server.should_exit = True
        self.join()
