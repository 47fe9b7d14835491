"""A simulated pot cooked in real time, or faster: its devices send what they read, and what the app says
to that is kept beside what was true."""

import json
import math
import threading
import time
import urllib.error
import urllib.request
from dataclasses import asdict, dataclass, field
from datetime import UTC, datetime, timedelta
from typing import Any

from standins.devices import Probe, Scale
from standins.pot import PotOnRing

READS_EVERY_S = 2.0
"""Seconds of the pot between two readings."""
SENDS_EVERY_S = 1.0
"""Seconds of the clock between two messages."""


@dataclass
class Moment:
    """What was true at a minute of the pot, and what the app then said (None: nothing)."""

    minute: float
    true_g: float
    true_mm: float
    read_g: float | None
    said_g: float | None
    said_left: float | None
    said_low: float | None
    said_high: float | None


@dataclass
class Cooking:
    """``pot`` boiled until ``stop_share`` of it is left, ``speed`` times as fast as the clock, with readings
    sent to ``app`` under the tokens of a scale and a probe ("" for none)."""

    pot: PotOnRing
    app: str
    scale_token: str = ""
    probe_token: str = ""
    speed: float = 1.0
    stop_share: float = 0.6
    seed: int = 0
    moments: list[Moment] = field(default_factory=list)
    trouble: str = ""
    ended_at: float | None = None
    _over: threading.Event = field(default_factory=threading.Event)
    _thread: threading.Thread | None = None

    def start(self) -> None:
        self._thread = threading.Thread(target=self._run, daemon=True)
        self._thread.start()

    def stop(self) -> None:
        self._over.set()
        if self._thread:
            self._thread.join(5.0)

    @property
    def going(self) -> bool:
        return self._thread is not None and self._thread.is_alive()

    def _run(self) -> None:
        scale, probe = Scale(self.pot, self.seed), Probe(self.pot, self.seed)
        full, began = self.pot.grams, datetime.now(UTC)
        while not self._over.is_set():
            started = time.monotonic()
            masses: list[dict[str, Any]] = []
            heats: list[dict[str, Any]] = []
            read: float | None = None
            for _ in range(max(1, round(self.speed * SENDS_EVERY_S / READS_EVERY_S))):
                self.pot.run(min(READS_EVERY_S, self.speed * SENDS_EVERY_S) / 60.0)
                at = (began + timedelta(minutes=self.pot.minutes)).isoformat()
                read = scale.read()
                if read is not None:
                    masses.append({"mass_g": read, "at": at})
                heats.append({"temperature_c": probe.read(), "at": at})
            said = self._send(self.scale_token, masses)
            self._send(self.probe_token, heats)
            self.moments.append(
                Moment(
                    round(self.pot.minutes, 2),
                    round(self.pot.grams, 1),
                    round(self.pot.level_mm, 1),
                    read,
                    said.get("mass_g"),
                    said.get("minutes_left"),
                    said.get("minutes_low"),
                    said.get("minutes_high"),
                )
            )
            if self.ended_at is None and self.pot.grams <= self.stop_share * full:
                self.ended_at = self.pot.minutes
                break
            self._over.wait(max(0.0, SENDS_EVERY_S - (time.monotonic() - started)))

    def _send(self, token: str, readings: list[dict[str, Any]]) -> dict[str, Any]:
        """What the app answers; nothing where it does not, and then the pot boils on."""
        if not token or not readings:
            return {}
        request = urllib.request.Request(
            f"{self.app}/api/readings",
            json.dumps(readings).encode(),
            {"Authorization": f"Bearer {token}", "Content-Type": "application/json"},
        )
        try:
            with urllib.request.urlopen(request, timeout=5.0) as answer:
                self.trouble = ""
                said: dict[str, Any] = json.load(answer)
                return said
        except urllib.error.HTTPError as refused:
            self.trouble = f"{refused.code}: {refused.read(300).decode(errors='replace')}"
        except OSError as away:
            self.trouble = f"the app does not answer: {away}"
        return {}

    def told(self) -> dict[str, Any]:
        """For the page: what happened so far; what was hidden only once it is over (what never happens has no
        minute)."""
        over, truth = not self.going, asdict(self.pot.truth)
        return {
            "going": self.going,
            "trouble": self.trouble,
            "minute": round(self.pot.minutes, 1),
            "ended_at": self.ended_at,
            "moments": [asdict(one) for one in self.moments],
            "truth": {k: v if math.isfinite(v) else None for k, v in truth.items()}
            if over
            else None,
        }
