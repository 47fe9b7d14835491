"""The built application with the demo kitchen, served from a scratch database."""

import http.client
import json
import os
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

ROOT = Path(__file__).resolve().parent.parent
USERNAME, PASSWORD = "refectory", "fog-over-the-ridge"


@contextmanager
def demo_server(port: int) -> Iterator[tuple[str, dict[str, str]]]:
    """The address of a demo server on ``port``, and the environment its commands run in."""
    with tempfile.TemporaryDirectory() as folder:
        env = {**os.environ, "KESTREL_DB": str(Path(folder) / "demo.sqlite3")}
        for command in (["migrate", "--verbosity", "0"], ["load_demo"]):
            subprocess.run(
                [sys.executable, "manage.py", *command],
                cwd=ROOT,
                env=env,
                check=True,
                stdout=subprocess.DEVNULL,
            )
        process = subprocess.Popen(
            [sys.executable, "-m", "kestrel.serve", "--port", str(port)],
            cwd=ROOT,
            env=env,
            stdout=subprocess.DEVNULL,
        )
        address = f"http://127.0.0.1:{port}"
        try:
            _wait_for(address)
            yield address, env
        finally:
            process.terminate()
            process.wait()


def _wait_for(address: str) -> None:
    for _ in range(100):
        try:
            with urllib.request.urlopen(f"{address}/api/accounts/me", timeout=1):
                return
        except OSError:
            time.sleep(0.1)
    raise RuntimeError(f"no server at {address}")


class Session:
    """A signed-in connection that keeps alive, as a browser's does."""

    def __init__(self, address: str) -> None:
        self.connection = http.client.HTTPConnection(address.removeprefix("http://"))
        self.cookies: dict[str, str] = {}
        self.call("GET", "/api/accounts/me")
        self.call("POST", "/api/accounts/sign-in", {"username": USERNAME, "password": PASSWORD})

    @classmethod
    def of(cls, address: str, cookies: dict[str, str]) -> "Session":
        """Another line of a browser that is signed in already."""
        made = cls.__new__(cls)
        made.connection = http.client.HTTPConnection(address.removeprefix("http://"))
        made.cookies = dict(cookies)
        return made

    def headers(self) -> dict[str, str]:
        return {
            "Content-Type": "application/json",
            "X-CSRFToken": self.cookies.get("csrftoken", ""),
            "Cookie": "; ".join(f"{k}={v}" for k, v in self.cookies.items()),
        }

    def call(self, method: str, path: str, body: object = None) -> bytes:
        text = None if body is None else json.dumps(body)
        self.connection.request(method, path, text, self.headers())
        response = self.connection.getresponse()
        data = response.read()
        for value in response.headers.get_all("Set-Cookie") or []:
            name, _, rest = value.partition("=")
            self.cookies[name] = rest.partition(";")[0]
        if response.status >= 400:
            raise RuntimeError(f"{method} {path}: {response.status} {data[:200]!r}")
        return data
