"""The server of the browser tests: as it serves a kitchen, so that the live stream is part of it."""

import socket

from django.contrib.staticfiles.handlers import ASGIStaticFilesHandler
from django.core.asgi import get_asgi_application
from django.db import connections
from django.test.testcases import LiveServerThread

from kestrel.door.door import behind_the_door
from kestrel.serve import Server, config_of


class ServedAsItIs(LiveServerThread):
    """In a thread of its own, on a port of its own; the tests' database is a file, which it opens itself."""

    server: Server | None = None

    def run(self) -> None:
        try:
            listening = socket.create_server((self.host, self.port))
            self.port = listening.getsockname()[1]
            app = behind_the_door(ASGIStaticFilesHandler(get_asgi_application()))
            self.server = Server(config_of(app))
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
