"""Strangers at the door, and twenty cooks at once: what a cook's check costs beside the first, what the second
come to. ``make crowd``."""

import contextlib
import http.client
import json
import random
import socket
import statistics
import subprocess
import sys
import threading
import time
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass, field

from saucier.testing import CHEESE_SAUCE
from tools.live import ROOT, Session, demo_server

PORT = 8441
HAMMERING, HALF_OPEN, COOKS = 16, 120, 20
_HOST = "127.0.0.1"


@dataclass
class Crowd:
    """Threads that go on until it is over, and what was answered to them."""

    over: threading.Event = field(default_factory=threading.Event)
    told: Counter[object] = field(default_factory=Counter)
    threads: list[threading.Thread] = field(default_factory=list)

    def begin(self, work: Callable[[int], None], many: int) -> None:
        for number in range(many):
            thread = threading.Thread(target=work, args=(number,), daemon=True)
            self.threads.append(thread)
            thread.start()

    def end(self) -> None:
        self.over.set()
        for thread in self.threads:
            thread.join(20.0)


def strangers(port: int, crowd: Crowd) -> None:
    """``HAMMERING`` try passwords as fast as they are answered; ``HALF_OPEN`` lines say half of what they
    want, and are opened anew when they are cut."""

    def hammer(number: int) -> None:
        tried = 0
        while not crowd.over.is_set():
            line = http.client.HTTPConnection(_HOST, port, timeout=30)
            with contextlib.suppress(OSError, http.client.HTTPException):
                line.request("GET", "/api/accounts/me")
                answer = line.getresponse()
                answer.read()
                token = (answer.headers["Set-Cookie"] or "").partition("=")[2].partition(";")[0]
                for _ in range(50):
                    if crowd.over.is_set():
                        break
                    tried += 1
                    body = {"username": f"cook{number}-{tried}", "password": "guess" * 4}
                    line.request(
                        "POST",
                        "/api/accounts/sign-in",
                        json.dumps(body),
                        {
                            "Content-Type": "application/json",
                            "X-CSRFToken": token,
                            "Cookie": f"csrftoken={token}",
                        },
                    )
                    answer = line.getresponse()
                    answer.read()
                    crowd.told["sign-in", answer.status] += 1
            line.close()

    def half_open(number: int) -> None:
        said = (
            b"",
            b"GET /api/sauces HTTP/1.1\r\nHost: localhost\r\nX-A: ",
            b"POST /api/accounts/sign-in HTTP/1.1\r\nHost: localhost\r\n"
            b"Content-Type: application/json\r\nContent-Length: 900000\r\n\r\n{",
        )[number % 3]
        while not crowd.over.is_set():
            with contextlib.suppress(OSError), socket.create_connection((_HOST, port), 5) as line:
                line.sendall(said)
                line.settimeout(1.0)
                while not crowd.over.is_set():
                    try:
                        if not line.recv(1000):
                            break
                    except TimeoutError:
                        continue
                crowd.told["half-open line cut"] += 1

    crowd.begin(hammer, HAMMERING)
    crowd.begin(half_open, HALF_OPEN)


def check_beside_strangers(
    port: int, cook: Session, seconds: float
) -> tuple[float, dict[str, int]]:
    """The 95th percentile of a signed-in cook's check in ms, while strangers are at the door, who are a
    process of their own."""
    body = {"sheet": CHEESE_SAUCE}
    cook.call("POST", "/api/work/check", body)
    command = [sys.executable, "-m", "tools.crowd", str(port), str(seconds + 3.0)]
    with subprocess.Popen(command, cwd=ROOT, stdout=subprocess.PIPE, text=True) as outside:
        time.sleep(3.0)
        found = []
        until = time.monotonic() + seconds
        while time.monotonic() < until:
            started = time.perf_counter()
            cook.call("POST", "/api/work/check", body)
            found.append(1000 * (time.perf_counter() - started))
            time.sleep(0.05)
        told: dict[str, int] = json.loads(outside.communicate()[0])
    return statistics.quantiles(found, n=20)[-1], told


def outside(port: int, seconds: float) -> None:
    """Strangers for so long; what was answered to them is printed."""
    crowd = Crowd()
    strangers(port, crowd)
    time.sleep(seconds)
    crowd.end()
    print(json.dumps({str(what): many for what, many in crowd.told.items()}))


def cooks(address: str, session: Session, seconds: float) -> tuple[float, float, Counter[object]]:
    """``COOKS`` on lines of their own, each with something to do and a short look at it between: requests a
    second, 95th percentile in ms, answers by status."""
    crowd, took = Crowd(), list[float]()
    first = json.loads(session.call("GET", "/api/sauces"))["rows"][0]["id"]
    cookie = dict(session.cookies)

    def cook(number: int) -> None:
        dice = random.Random(number)
        mine = Session.of(address, cookie)
        edit = {"sheet": CHEESE_SAUCE}
        while not crowd.over.is_set():
            method, path, body = dice.choice(
                (
                    ("POST", "/api/work/check", edit),
                    ("POST", "/api/work/check", edit),
                    ("GET", "/api/sauces", None),
                    ("GET", f"/api/sauces/{first}", None),
                    ("GET", "/api/journal", None),
                    ("GET", "/api/stove", None),
                    ("POST", "/api/sauces", {"sheet": {**CHEESE_SAUCE, "name": f"C{number}"}}),
                )
            )
            started = time.perf_counter()
            try:
                mine.call(method, path, body)
                crowd.told["answered"] += 1
            except (RuntimeError, OSError, http.client.HTTPException) as wrong:
                crowd.told[str(wrong)[:80]] += 1
            took.append(1000 * (time.perf_counter() - started))
            time.sleep(dice.uniform(0.2, 0.8))

    began = time.monotonic()
    crowd.begin(cook, COOKS)
    time.sleep(seconds)
    crowd.end()
    lasted = time.monotonic() - began
    return len(took) / lasted, statistics.quantiles(took, n=20)[-1], crowd.told


def main() -> None:
    with demo_server(PORT) as (address, _):
        session = Session(address)
        p95, told = check_beside_strangers(PORT, session, 30.0)
        print(f"{HAMMERING} strangers, {HALF_OPEN} half-open lines: check {p95:.1f} ms (95th)")
        for who, count in sorted(told.items()):
            print(f"  {who}: {count}")
        rate, p95, answers = cooks(address, session, 60.0)
        print(f"{COOKS} cooks for a minute: {rate:.1f} requests a second, {p95:.1f} ms (95th)")
        for what, many in sorted(answers.items(), key=str):
            print(f"  {what}: {many}")


if __name__ == "__main__":
    if len(sys.argv) > 1:
        outside(int(sys.argv[1]), float(sys.argv[2]))
    else:
        main()
