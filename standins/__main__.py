"""``python -m standins [--app http://127.0.0.1:8000] [--port 8010]``: a bench for simulated pots, with its
own small page. It sends readings as any scale or probe would, and shows in the end what was true beside
what the app believed. A simulated label printer is beside it."""

import argparse
import json
from dataclasses import fields
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from pathlib import Path
from typing import Any

from standins.cooking import Cooking
from standins.pot import SETTING, PotOnRing, Stuff, Truth
from standins.printer import Printer

PAGE = Path(__file__).parent / "bench.html"
LABELS = Path(__file__).parent.parent / "var" / "labels"
SPEEDS = (1.0, 10.0, 60.0)
# g for each gram: water, fat, dry, alcohol, flour
LIQUIDS = {
    "cream": (0.586, 0.35, 0.064, 0.0, 0.0),
    "stock": (0.973, 0.0, 0.027, 0.0, 0.0),
    "wine": (0.874, 0.0, 0.028, 0.096, 0.0),
    "milk": (0.876, 0.036, 0.088, 0.0, 0.0),
    "flour": (0.12, 0.01, 0.0, 0.0, 1.0),
}


class Refused(Exception):
    """What was given, and what would be right."""


def _number(given: dict[str, Any], name: str, low: float, high: float) -> float:
    try:
        value = float(given[name])
    except (KeyError, TypeError, ValueError):
        raise Refused(f"{name}: give a number from {low:g} to {high:g}") from None
    if not low <= value <= high:
        raise Refused(f"{name}: {value:g} is out of reach, give {low:g} to {high:g}")
    return value


def cooking_of(given: dict[str, Any], app: str) -> Cooking:
    """A pot as the page describes it. Raises :class:`Refused` with the field."""
    grams = {name: _number(given, name, 0.0, 20_000.0) for name in LIQUIDS}
    if sum(grams.values()) < 20.0:
        raise Refused("cream: put at least 20 g of something into the pot")
    parts = [sum(grams[name] * LIQUIDS[name][n] for name in LIQUIDS) for n in range(5)]
    seed = int(_number(given, "seed", 0, 1e9))
    truth = Truth.drawn(seed)
    for name, value in given.get("truth", {}).items():
        if name not in {one.name for one in fields(Truth)}:
            raise Refused(f"truth.{name}: is nothing of a pot")
        if value not in ("", None):
            setattr(truth, name, _number({name: value}, name, -1e6, 1e6))
    speed, heat = _number(given, "speed", 1.0, 60.0), str(given.get("heat", "rolling"))
    if heat not in SETTING:
        raise Refused(f"heat: give one of {', '.join(SETTING)}")
    water, fat, dry, alcohol, starch = parts
    pot = PotOnRing(
        Stuff(water, fat, dry, alcohol, starch),
        width_cm=_number(given, "width_cm", 5.0, 80.0),
        watts=_number(given, "watts", 100.0, 20_000.0),
        tare_g=_number(given, "tare_g", 0.0, 20_000.0),
        heat=heat,
        truth=truth,
    )
    return Cooking(
        pot,
        app,
        str(given.get("scale_token", "")).strip(),
        str(given.get("probe_token", "")).strip(),
        speed,
        _number(given, "stop_share", 0.05, 1.0),
        seed,
    )


class Bench(ThreadingHTTPServer):
    """The page, the pot that is on, and the label printer."""

    daemon_threads = True

    def __init__(self, address: tuple[str, int], app: str) -> None:
        super().__init__(address, Handler)
        self.app = app
        self.cooking: Cooking | None = None
        self.printer: Printer | None = None


class Handler(BaseHTTPRequestHandler):
    server: Bench

    def do_GET(self) -> None:
        if self.path == "/":
            self._answer(200, PAGE.read_bytes(), "text/html; charset=utf-8")
        elif self.path == "/state":
            cooking = self.server.cooking
            printer = self.server.printer
            told = cooking.told() if cooking else {"going": False, "moments": []}
            labels = printer.out if printer else []
            self._json(
                200, {**told, "labels": labels, "printer": printer.trouble if printer else ""}
            )
        else:
            self._json(404, {"message": "there is only the page"})

    def do_POST(self) -> None:
        bench = self.server
        if self.path == "/stop":
            if bench.cooking:
                bench.cooking.stop()
            self._json(200, {})
            return
        try:
            length = int(self.headers.get("Content-Length") or 0)
            given = json.loads(self.rfile.read(min(length, 100_000)) or b"{}")
            if not isinstance(given, dict):
                raise Refused("body: give an object")
            if self.path == "/printer":
                self._printer(str(given.get("token", "")).strip())
                return
            cooking = cooking_of(given, bench.app)
        except (ValueError, Refused) as bad:
            self._json(422, {"message": str(bad)})
            return
        if bench.cooking:
            bench.cooking.stop()
        bench.cooking = cooking
        cooking.start()
        self._json(200, {})

    def _printer(self, token: str) -> None:
        if not token:
            raise Refused("token: give the token of a label printer")
        if self.server.printer:
            self.server.printer.stop()
        self.server.printer = Printer(self.server.app, token, LABELS)
        self.server.printer.start()
        self._json(200, {})

    def log_message(self, *args: Any) -> None:
        """Quiet: the page tells what happens."""

    def _json(self, status: int, body: dict[str, Any]) -> None:
        self._answer(status, json.dumps(body, allow_nan=False).encode(), "application/json")

    def _answer(self, status: int, body: bytes, kind: str) -> None:
        self.send_response(status)
        self.send_header("Content-Type", kind)
        self.send_header("Content-Length", str(len(body)))
        self.send_header("Cache-Control", "no-store")
        self.end_headers()
        self.wfile.write(body)


def main() -> None:
    parser = argparse.ArgumentParser(prog="standins")
    parser.add_argument("--app", default="http://127.0.0.1:8000")
    parser.add_argument("--port", type=int, default=8010)
    options = parser.parse_args()
    bench = Bench(("127.0.0.1", options.port), options.app)
    print(f"The bench is at http://127.0.0.1:{options.port}/  (Ctrl-C stops it)", flush=True)
    try:
        bench.serve_forever()
    except KeyboardInterrupt:
        pass


if __name__ == "__main__":
    main()
