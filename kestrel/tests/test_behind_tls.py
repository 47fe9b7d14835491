"""Behind a proxy that ends TLS: signing in, CSRF and redirects, by one of the test's own."""

import asyncio
import http.client
import json
import os
import socket
import ssl
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager, suppress
from pathlib import Path
from typing import Any
from unittest import TestCase

import trustme

from kestrel.tests.databases import write_empty_database

ROOT = Path(__file__).resolve().parent.parent.parent
NAME = "sauces.example"
PASSWORD = "quiet-ridge-42"


def free_port() -> int:
    with socket.socket() as one:
        one.bind(("127.0.0.1", 0))
        return int(one.getsockname()[1])


def environment(database: Path, **env: str) -> dict[str, str]:
    return {
        **os.environ,
        "DJANGO_SETTINGS_MODULE": "kestrel.settings",
        "KESTREL_DB": str(database),
        "KESTREL_SECRET": "only for this test, and long enough to be one " * 2,
        **env,
    }


@contextmanager
def kitchen(**env: str) -> Iterator[int]:
    """The port of a kitchen served as it is served to cooks, with nobody in it yet."""
    port = free_port()
    with tempfile.TemporaryDirectory() as folder:
        file = Path(folder) / "k.sqlite3"
        write_empty_database(file)
        process = subprocess.Popen(
            [sys.executable, "-m", "kestrel.serve", "--port", str(port)],
            cwd=ROOT,
            env=environment(file, **env),
            stdout=subprocess.DEVNULL,
            stderr=subprocess.DEVNULL,
        )
        try:
            for _ in range(150):
                with suppress(OSError), socket.create_connection(("127.0.0.1", port), 1):
                    break
                time.sleep(0.1)
            yield port
        finally:
            process.terminate()
            process.wait()


@contextmanager
def tls_in_front(behind: int, authority: trustme.CA) -> Iterator[int]:
    """The port of a proxy that speaks TLS outside, and plainly to ``behind``; it says who asks and how."""
    context = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
    authority.issue_cert(NAME).configure_cert(context)
    loop, ready = asyncio.new_event_loop(), threading.Event()
    port = free_port()

    async def carry(reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        there, back = await asyncio.open_connection("127.0.0.1", behind)
        head = await reader.readuntil(b"\r\n\r\n")
        back.write(head[:-2] + b"X-Forwarded-Proto: https\r\nX-Forwarded-For: 203.0.113.7\r\n\r\n")

        async def on(source: asyncio.StreamReader, sink: asyncio.StreamWriter) -> None:
            with suppress(OSError):
                while data := await source.read(65536):
                    sink.write(data)
                    await sink.drain()
            sink.close()

        await asyncio.gather(on(reader, back), on(there, writer))

    async def run() -> None:
        await asyncio.start_server(carry, "127.0.0.1", port, ssl=context)
        ready.set()

    def forever() -> None:
        loop.run_until_complete(run())
        loop.run_forever()

    thread = threading.Thread(target=forever, daemon=True)
    thread.start()
    ready.wait(5.0)
    try:
        yield port
    finally:
        loop.call_soon_threadsafe(loop.stop)
        thread.join(5.0)


class Browser:
    """Cookies and the CSRF token, as a browser has them; a new line for each request."""

    def __init__(self, port: int, trusts: ssl.SSLContext | None) -> None:
        self.port, self.trusts = port, trusts
        self.cookies: dict[str, str] = {}
        self.said: dict[str, str] = {}

    def ask(self, method: str, path: str, body: Any = None, **headers: str) -> tuple[int, Any]:
        if self.trusts is None:
            line = http.client.HTTPConnection("127.0.0.1", self.port, timeout=10)
        else:
            plain = socket.create_connection(("127.0.0.1", self.port), 10)
            line = http.client.HTTPConnection(NAME)
            line.sock = self.trusts.wrap_socket(plain, server_hostname=NAME)
        whole = {
            "Cookie": "; ".join(f"{name}={value}" for name, value in self.cookies.items()),
            "X-CSRFToken": self.cookies.get("csrftoken", ""),
            "Content-Type": "application/json",
            "Connection": "close",
            **headers,
        }
        line.request(method, path, None if body is None else json.dumps(body), whole)
        answer = line.getresponse()
        text = answer.read()
        self.said = {name.lower(): value for name, value in answer.getheaders()}
        for name, value in answer.getheaders():
            if name.lower() == "set-cookie":
                key, _, rest = value.partition("=")
                self.cookies[key] = rest.partition(";")[0]
                self.said[f"cookie {key}"] = value
        line.close()
        with suppress(ValueError):
            return answer.status, json.loads(text)
        return answer.status, text


class BehindTls(TestCase):
    def test_signing_in_csrf_and_redirects(self) -> None:
        authority = trustme.CA()
        trusts = ssl.create_default_context()
        authority.configure_trust(trusts)
        env = {"KESTREL_HTTPS": "1", "KESTREL_ORIGINS": f"https://{NAME}"}
        with kitchen(**env) as behind, tls_in_front(behind, authority) as port:
            browser = Browser(port, trusts)
            origin = {"Origin": f"https://{NAME}", "Referer": f"https://{NAME}/"}
            self.assertEqual(browser.ask("GET", "/api/accounts/me")[0], 200)
            self.assertIn("Secure", browser.said["cookie csrftoken"])
            self.assertIn("max-age=", browser.said["strict-transport-security"])
            first = {"kitchen": "K", "username": "ada", "password": PASSWORD}
            status, who = browser.ask("POST", "/api/accounts/first", first, **origin)
            self.assertEqual((status, who["username"]), (200, "ada"))
            self.assertIn("Secure", browser.said["cookie sessionid"])
            browser.ask("POST", "/api/accounts/sign-out", {}, **origin)
            entered = browser.ask(
                "POST", "/api/accounts/sign-in", {"username": "ada", "password": PASSWORD}, **origin
            )
            self.assertEqual(entered[0], 200)
            self.assertEqual(browser.ask("GET", "/api/sauces")[0], 200)
            # A page from elsewhere is refused, whatever it sends along.
            foreign = {"Origin": "https://elsewhere.example"}
            self.assertEqual(browser.ask("POST", "/api/accounts/sign-out", {}, **foreign)[0], 403)
            # Straight and unencrypted: sent to where it is encrypted, by the name that was asked for.
            plain = Browser(behind, None)
            status, _ = plain.ask("GET", "/sauces", Host=NAME)
            self.assertEqual((status, plain.said["location"]), (301, f"https://{NAME}/sauces"))
            self.assertEqual(plain.ask("GET", "/", Host="elsewhere.example")[0], 400)

    def test_without_it_nobody_is_believed_to_be_a_proxy(self) -> None:
        with kitchen(KESTREL_HTTPS="") as port:
            browser = Browser(port, None)
            said = {"X-Forwarded-Proto": "https", "X-Forwarded-For": "203.0.113.7"}
            self.assertEqual(browser.ask("GET", "/api/accounts/me", **said)[0], 200)
            self.assertNotIn("Secure", browser.said["cookie csrftoken"])
            self.assertNotIn("strict-transport-security", browser.said)
            # A place that tries too often is the line's, not the one it names.
            body = {"username": "ada", "password": "wrong"}
            codes = [
                browser.ask(
                    "POST",
                    "/api/accounts/sign-in",
                    body,
                    **{"X-Forwarded-For": f"203.0.113.{number}"},
                )[0]
                for number in range(12)
            ]
            self.assertEqual(codes.count(429), 2 + codes[:10].count(429))
            self.assertEqual(codes[-1], 429)

    def test_the_deployment_check_says_nothing(self) -> None:
        env = {
            **os.environ,
            "DJANGO_SETTINGS_MODULE": "kestrel.settings",
            "KESTREL_HTTPS": "1",
            "KESTREL_ORIGINS": f" https://{NAME} ",
        }
        said = subprocess.run(
            [sys.executable, "manage.py", "check", "--deploy", "--fail-level", "INFO"],
            cwd=ROOT,
            env=env,
            capture_output=True,
            text=True,
            check=False,
        )
        self.assertEqual(said.returncode, 0, said.stderr)
        self.assertIn("no issues", said.stdout + said.stderr)
