"""Twenty screens that listen while a scale sends what it reads: how soon they hear of it, and what a
cook's check costs beside them."""

import http.client
import json
import statistics
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from datetime import UTC, datetime
from typing import Protocol

SCREENS = 20
SECONDS = 20.0
_HOST = "127.0.0.1"


class Session(Protocol):
    """A signed-in connection."""

    cookies: dict[str, str]

    def call(self, method: str, path: str, body: object = None) -> bytes: ...


@dataclass
class Screen(threading.Thread):
    """One that listens: when it heard of each reading, by its value."""

    port: int
    cookie: str
    heard: dict[float, float] = field(default_factory=dict)
    trouble: str = ""
    daemon = True

    def __post_init__(self) -> None:
        super().__init__(daemon=True)
        self.ready = threading.Event()

    def __hash__(self) -> int:
        return id(self)

    def run(self) -> None:
        line = http.client.HTTPConnection(_HOST, self.port, timeout=60)
        line.request("GET", "/api/live", headers={"Cookie": self.cookie})
        answer = line.getresponse()
        if answer.status != 200:
            self.trouble = f"status {answer.status}"
            self.ready.set()
            return
        event = ""
        for raw in answer:
            text = raw.decode().rstrip("\n")
            if text.startswith("event: "):
                event = text[7:]
                self.ready.set()
            elif text.startswith("data: ") and event == "reading":
                self.heard[json.loads(text[6:])["value"]] = time.monotonic()


@dataclass(frozen=True)
class Told:
    """Milliseconds: how late screens heard (median, worst), the check beside none and beside all."""

    screens: int
    heard_ms: float
    heard_worst_ms: float
    missed: int
    check_alone_ms: float
    check_beside_ms: float


def beside_screens(
    port: int, session: Session, batch: int, check: Callable[[], object], p95: Callable[..., float]
) -> Told:
    """A reading a second to ``batch`` while ``check`` is asked over and over."""
    alone = p95(check, 80)
    made = json.loads(
        session.call("POST", "/api/devices", {"name": "Bench scale", "kind": "scale"})
    )
    session.call("PUT", f"/api/devices/{made['id']}", {"batch_id": batch})
    cookie = "; ".join(f"{name}={value}" for name, value in session.cookies.items())
    screens = [Screen(port, cookie) for _ in range(SCREENS)]
    for screen in screens:
        screen.start()
    for screen in screens:
        screen.ready.wait(30.0)
    sent: dict[float, float] = {}
    over = threading.Event()

    def scale() -> None:
        line = http.client.HTTPConnection(_HOST, port, timeout=60)
        grams = 1700.0
        while not over.is_set():
            grams -= 0.5
            body = json.dumps({"mass_g": grams, "at": datetime.now(UTC).isoformat()})
            headers = {
                "Authorization": f"Bearer {made['token']}",
                "Content-Type": "application/json",
            }
            sent[grams] = time.monotonic()
            line.request("POST", "/api/readings", body, headers)
            line.getresponse().read()
            over.wait(1.0)

    sending = threading.Thread(target=scale, daemon=True)
    sending.start()
    until = time.monotonic() + SECONDS
    beside = p95(check, 150)
    while time.monotonic() < until:
        time.sleep(0.1)
    over.set()
    sending.join()
    time.sleep(1.0)
    late = [
        1000.0 * (screen.heard[value] - at)
        for screen in screens
        for value, at in sent.items()
        if value in screen.heard
    ]
    return Told(
        sum(not screen.trouble for screen in screens),
        statistics.median(late) if late else float("inf"),
        max(late, default=float("inf")),
        len(sent) * SCREENS - len(late),
        alone,
        beside,
    )
