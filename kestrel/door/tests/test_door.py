"""The door as strangers find it: large and slow bodies, half-open lines, passwords tried in numbers."""

import asyncio
import json
import socket
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any
from unittest import TestCase, mock

import uvicorn
from django.test import SimpleTestCase

from kestrel.door import bodies, lines, tries
from kestrel.door.asgi import Receive, Scope, Send
from kestrel.door.bodies import Bodies
from kestrel.door.doorman import Doorman
from kestrel.serve import config_of
from kestrel.tests.clients import PASSWORD, JsonClient, KitchenTest


async def counting(scope: Scope, receive: Receive, send: Send) -> None:
    """Reads a body and answers with its length."""
    got, more = 0, scope["method"] == "POST"
    while more:
        event = await receive()
        got, more = got + len(event.get("body", b"")), event.get("more_body", False)
    await send({"type": "http.response.start", "status": 200, "headers": []})
    await send({"type": "http.response.body", "body": str(got).encode()})


class OfBodies(SimpleTestCase):
    def sent(
        self, *chunks: bytes, declared: int | None = None, stalls: bool = False
    ) -> tuple[int, bytes]:
        """What is answered to a body in ``chunks`` that ends, or ``stalls``."""
        events = [{"type": "http.request", "body": one, "more_body": True} for one in chunks]
        if not stalls:
            events.append({"type": "http.request", "body": b"", "more_body": False})
        answered: list[Any] = []

        async def receive() -> Any:
            if not events:
                await asyncio.sleep(30)
            return events.pop(0)

        async def send(event: Any) -> None:
            answered.append(event)

        headers = [] if declared is None else [(b"content-length", str(declared).encode())]
        scope = {"type": "http", "method": "POST", "path": "/api/x", "headers": headers}
        asyncio.run(Bodies(counting, 1000, {})(scope, receive, send))
        return answered[0]["status"], answered[1]["body"]

    def test_up_to_the_limit_and_not_beyond(self) -> None:
        self.assertEqual(self.sent(b"x" * 600, b"x" * 400), (200, b"1000"))
        for said in (
            self.sent(b"x" * 600, b"x" * 401),
            self.sent(b"x" * 2000),
            self.sent(declared=1001),
        ):
            self.assertEqual(said[0], 422)
            problem = json.loads(said[1])["problems"][0]
            self.assertEqual(problem["field"], "body")

    def test_what_stalls_is_given_up(self) -> None:
        with mock.patch.object(bodies, "SILENT_S", 0.2):
            began = time.monotonic()
            status, body = self.sent(b"x", stalls=True)
        self.assertEqual(status, 408)
        self.assertIn("slowly", json.loads(body)["message"])
        self.assertLess(time.monotonic() - began, 3.0)


@contextmanager
def served() -> Iterator[int]:
    """The port of a server that only counts."""
    listening = socket.create_server(("127.0.0.1", 0))
    server = uvicorn.Server(config_of(counting))
    thread = threading.Thread(target=server.run, kwargs={"sockets": [listening]})
    thread.start()
    try:
        yield listening.getsockname()[1]
    finally:
        server.should_exit = True
        thread.join()


class OfLines(TestCase):
    def test_half_open_lines_are_cut_and_hold_up_nobody(self) -> None:
        with mock.patch.object(lines, "HEAD_S", 4.0), served() as port:
            said = (b"", b"GET / HTTP/1.1\r\nHost: x\r\nX-A: ")
            halves = [socket.create_connection(("127.0.0.1", port)) for _ in range(40)]
            for number, half in enumerate(halves):
                half.sendall(said[number % 2])
            began = time.monotonic()
            self.assertEqual(self._asked(port), b"200")
            self.assertLess(time.monotonic() - began, 3.0)
            for half in halves:
                self.assertTrue(self._is_cut(half))

    def test_of_too_many_the_oldest_goes(self) -> None:
        with mock.patch.object(lines, "MOST_WAITING", 5), served() as port:
            halves = [socket.create_connection(("127.0.0.1", port)) for _ in range(8)]
            self.assertEqual(self._asked(port), b"200")
            self.assertTrue(self._is_cut(halves[0]))
            for half in halves[1:]:
                half.close()

    def test_a_line_that_waits_between_requests_stays(self) -> None:
        with mock.patch.object(lines, "HEAD_S", 2.0), served() as port:
            line = socket.create_connection(("127.0.0.1", port))
            for _ in range(2):
                line.sendall(b"GET / HTTP/1.1\r\nHost: x\r\n\r\n")
                time.sleep(2.5)
                self.assertIn(b"200", line.recv(1000))
            line.close()

    def _is_cut(self, line: socket.socket) -> bool:
        line.settimeout(10.0)
        with line:
            try:
                return line.recv(100) == b""
            except ConnectionResetError:
                return True

    def _asked(self, port: int) -> bytes:
        with socket.create_connection(("127.0.0.1", port), 3.0) as line:
            line.sendall(b"GET / HTTP/1.1\r\nHost: x\r\nConnection: close\r\n\r\n")
            return line.recv(1000).split()[1]


class OfTries(KitchenTest):
    def sign_in(self, client: JsonClient, name: str, password: str, place: str) -> int:
        body = {"username": name, "password": password}
        answer = client.call("POST", "/accounts/sign-in", body, REMOTE_ADDR=place)
        if answer.status_code == 429:
            self.assertIn("Wait", answer.body["message"])
            self.assertTrue(int(answer["Retry-After"]))
        return int(answer.status_code)

    def test_one_place_is_stopped_before_anything_is_hashed(self) -> None:
        client = JsonClient()
        with mock.patch("kestrel.accounts.api.authenticate", return_value=None) as looked:
            codes = [self.sign_in(client, f"name {n}", "p", "10.0.0.1") for n in range(30)]
        self.assertEqual((codes.count(422), codes.count(429)), (10, 20))
        self.assertEqual(looked.call_count, 10)
        # Another place goes on.
        self.assertEqual(self.sign_in(JsonClient(), "ada", PASSWORD, "10.0.0.2"), 200)

    def test_many_places_are_stopped_together_but_known_devices_go_on(self) -> None:
        known = JsonClient()
        self.assertEqual(self.sign_in(known, "ada", PASSWORD, "10.0.0.9"), 200)
        known.call("POST", "/accounts/sign-out")
        tries.forget_tries()
        client = JsonClient()
        with mock.patch("kestrel.accounts.api.authenticate", return_value=None) as looked:
            codes = [self.sign_in(client, "ada", "p", f"10.1.0.{n}") for n in range(120)]
        self.assertEqual(codes.count(422), 40)
        self.assertEqual(looked.call_count, 40)
        self.assertEqual(self.sign_in(JsonClient(), "ada", PASSWORD, "10.0.0.8"), 429)
        self.assertEqual(self.sign_in(known, "ada", PASSWORD, "10.0.0.9"), 200)
        # A known device is no way to guess either, nor one for other names.
        self.assertEqual(self.sign_in(known, "ben", PASSWORD, "10.0.0.9"), 429)
        codes = [self.sign_in(known, "ada", "wrong", "10.0.0.9") for _ in range(15)]
        self.assertIn(429, codes)

    def test_who_has_none_left_waits_before_the_application_is_asked(self) -> None:
        known = JsonClient()
        self.sign_in(known, "ada", PASSWORD, "10.0.0.7")
        cookie = known.cookies[tries.COOKIE].value
        self.assertFalse(tries.none_left("10.0.0.7", None))
        with mock.patch("kestrel.accounts.api.authenticate", return_value=None):
            for n in range(12):
                self.sign_in(JsonClient(), f"n{n}", "p", "10.0.0.7")
        self.assertTrue(tries.none_left("10.0.0.7", None))
        self.assertTrue(tries.none_left("10.0.0.7", f"{cookie}x"))
        self.assertFalse(tries.none_left("10.0.0.7", cookie))
        self.assertFalse(tries.none_left("10.0.0.6", None))
        asked: list[Any] = []

        def post(path: str, place: str) -> int:
            answered: list[Any] = []

            async def receive() -> Any:
                return {"type": "http.request", "body": b"{}", "more_body": False}

            async def send(event: Any) -> None:
                answered.append(event)

            async def app(scope: Scope, receive: Receive, send: Send) -> None:
                asked.append(scope["path"])
                await counting(scope, receive, send)

            scope = {"type": "http", "method": "POST", "path": path, "headers": []}
            asyncio.run(Doorman(app)({**scope, "client": (place, 1)}, receive, send))
            return int(answered[0]["status"])

        began = time.monotonic()
        self.assertEqual(post("/api/accounts/sign-in", "10.0.0.7"), 429)
        self.assertGreater(time.monotonic() - began, 0.9)
        self.assertEqual(post("/api/work/check", "10.0.0.7"), 200)
        self.assertEqual(post("/api/accounts/sign-in", "10.0.0.6"), 200)
        self.assertEqual(asked, ["/api/work/check", "/api/accounts/sign-in"])

    def test_long_names_are_refused_unread(self) -> None:
        body = {"username": "x" * 5000, "password": "y" * 5000}
        fields = self.fields(JsonClient().call("POST", "/accounts/sign-in", body))
        self.assertEqual(fields, ["username", "password"])
