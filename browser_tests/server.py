"""The server of the browser tests: as it serves a kitchen, so that the live stream is part of it."""

import socket

from django.db import connections
from django.test.testcases import LiveServerThread

from kestrel.asgi import application
from kestrel.serve import Server, config_of


class ServedAsItIs(LiveServerThread):
    """In a thread of its own, on a port of its own; the tests' database is a file, which it opens itself."""

    server: Server | None = None

    def run(self) -> None:
        try:
            listening = socket.create_server((self.host, self.port))
            self.port = listening.getsockname()[1]
            self.server = Server(config_of(application))
            self.is_ready.set()  # who asks now waits until it answers
            self.server.run(sockets=[listening])
        except Exception as error:
            self.error = error
            self.is_ready.set()
        finally:
            connections.close_all()

    def terminate(self) -> None:
        if self.server is not None:
            self.server.should_exit = True
        self.join()
