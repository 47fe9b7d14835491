"""The simulated pot boils as a pot does, and its devices fail as devices do."""

import json
import tempfile
import threading
import unittest
import urllib.error
import urllib.request
from http.server import BaseHTTPRequestHandler, HTTPServer
from pathlib import Path
from typing import Any

from standins.__main__ import Bench, Refused, cooking_of
from standins.cooking import Cooking
from standins.devices import Probe, Scale
from standins.pot import PotOnRing, Stuff, Truth
from standins.printer import Printer

FORM = {
    "cream": 400,
    "stock": 0,
    "wine": 0,
    "milk": 0,
    "flour": 0,
    "seed": 3,
    "speed": 60,
    "width_cm": 20,
    "tare_g": 1200,
    "watts": 2500,
    "stop_share": 0.6,
    "heat": "rolling",
}


def cream(**truth: Any) -> PotOnRing:
    return PotOnRing(Stuff(water=293, fat=175, dry=32), truth=Truth(**truth))


class Pots(unittest.TestCase):
    def test_it_comes_to_the_boil_then_loses_water_only(self) -> None:
        pot = cream()
        pot.run(1.0)
        self.assertIsNone(pot.boiling_since)
        self.assertLess(500 - pot.grams, 3.0)
        pot.run(9.0)
        self.assertGreater(pot.boiling_since, 1.0)
        self.assertAlmostEqual(pot.stuff.fat, 175)
        self.assertLess(pot.grams, 350)
        self.assertLess(pot.celsius, 104)

    def test_no_more_leaves_than_the_ring_gives(self) -> None:
        pot = cream()
        pot.run(5.0)
        before = pot.grams
        pot.run(1.0)
        self.assertLessEqual(before - pot.grams, 2500 * 0.45 * 60 / 2257 + 0.1)

    def test_what_is_hidden_shows(self) -> None:
        def left(**truth: Any) -> float:
            pot = cream(**truth)
            pot.run(8.0)
            return pot.grams

        self.assertGreater(left(ring=0.6), left())
        self.assertGreater(left(lid_min=6.0), left())
        self.assertGreater(left(turn_at_min=3.0, turned=0.5), left())

    def test_it_thickens_and_more_with_strong_flour(self) -> None:
        milk = Stuff(water=830, fat=80, dry=90, starch=55)
        weak, strong = (PotOnRing(Stuff(**vars(milk)), truth=Truth(flour=f)) for f in (0.9, 1.1))
        self.assertLess(weak.eta, strong.eta)
        before = weak.eta
        weak.run(15.0)
        self.assertGreater(weak.eta, before)

    def test_it_never_boils_quite_dry(self) -> None:
        pot = cream()
        pot.run(120.0)
        self.assertGreater(pot.stuff.water, 0.0)


class Faults(unittest.TestCase):
    def test_a_scale_counts_in_steps_and_drops_out(self) -> None:
        pot = cream(step_g=5.0, drops_out=0.3)
        scale = Scale(pot, 1)
        read = []
        for _ in range(300):
            pot.run(2.0 / 60.0)
            read.append(scale.read())
        self.assertIn(None, read)
        self.assertTrue(all(value % 5 == 0 for value in read if value is not None))

    def test_a_probe_on_the_floor_reads_too_much(self) -> None:
        self.assertGreater(Probe(cream(probe_touches=True), 1).read(), Probe(cream(), 1).read() + 3)


class App(BaseHTTPRequestHandler):
    """Something that takes readings."""

    taken: list[tuple[str, list[Any]]] = []

    def do_POST(self) -> None:
        body = json.loads(self.rfile.read(int(self.headers["Content-Length"])))
        App.taken.append((self.headers["Authorization"], body))
        said = json.dumps({"mass_g": 1.0, "minutes_left": 2.0}).encode()
        self.send_response(200)
        self.send_header("Content-Length", str(len(said)))
        self.end_headers()
        self.wfile.write(said)

    def log_message(self, *args: Any) -> None:
        """Quiet."""


class Sending(unittest.TestCase):
    def test_readings_go_out_under_the_token_and_the_truth_is_told_in_the_end(self) -> None:
        app = HTTPServer(("127.0.0.1", 0), App)
        threading.Thread(target=app.serve_forever, daemon=True).start()
        App.taken.clear()
        address = f"http://127.0.0.1:{app.server_port}"
        cooking = Cooking(cream(), address, scale_token="t-1", speed=60.0, stop_share=0.97)
        cooking.start()
        assert cooking._thread is not None
        cooking._thread.join(20.0)
        app.shutdown()
        app.server_close()
        told = cooking.told()
        self.assertEqual({token for token, _ in App.taken}, {"Bearer t-1"})
        self.assertEqual(set(App.taken[0][1][0]), {"mass_g", "at"})
        self.assertEqual(told["moments"][0]["said_left"], 2.0)
        self.assertIsNotNone(told["truth"])
        self.assertGreater(told["ended_at"], 1.0)

    def test_an_app_that_is_away_does_not_stop_the_pot(self) -> None:
        cooking = Cooking(cream(), "http://127.0.0.1:9", scale_token="t", speed=60.0)
        cooking.start()
        threading.Event().wait(1.5)
        cooking.stop()
        self.assertIn("does not answer", cooking.trouble)
        self.assertGreater(cooking.pot.minutes, 0.5)


class OnItsPage(unittest.TestCase):
    def test_nonsense_is_refused_by_field(self) -> None:
        for change, words in (
            ({"cream": "much"}, "cream"),
            ({"cream": 0}, "cream"),
            ({"speed": 0}, "speed"),
            ({"heat": "hell"}, "heat"),
            ({"truth": {"soul": 1}}, "truth.soul"),
            ({"seed": None}, "seed"),
        ):
            with self.assertRaises(Refused) as caught:
                cooking_of({**FORM, **change}, "http://127.0.0.1:9")
            self.assertTrue(str(caught.exception).startswith(words), caught.exception)

    def test_the_page_its_state_and_a_pot(self) -> None:
        bench = Bench(("127.0.0.1", 0), "http://127.0.0.1:9")
        threading.Thread(target=bench.serve_forever, daemon=True).start()
        address = f"http://127.0.0.1:{bench.server_port}"

        def ask(path: str, body: Any = None) -> bytes:
            data = None if body is None else json.dumps(body).encode()
            with urllib.request.urlopen(urllib.request.Request(address + path, data)) as answer:
                return answer.read()

        self.assertIn(b"simulated pot", ask("/"))
        self.assertEqual(json.loads(ask("/state"))["moments"], [])
        with self.assertRaises(urllib.error.HTTPError) as caught:
            ask("/start", {**FORM, "speed": 500})
        self.assertEqual(caught.exception.code, 422)
        ask("/start", FORM)
        threading.Event().wait(1.3)
        state = json.loads(ask("/state"))
        self.assertTrue(state["going"])
        self.assertIsNone(state["truth"])  # not before it is through
        ask("/stop", {})
        # As a browser reads it: nothing endless is JSON.
        last = json.loads(ask("/state"), parse_constant=lambda name: self.fail(name))
        self.assertIn("ring", last["truth"])
        bench.shutdown()
        bench.server_close()


class Labels(BaseHTTPRequestHandler):
    """Something that has two labels."""

    left: list[int] = []

    def do_GET(self) -> None:
        if not Labels.left:
            self.send_response(204)
            self.end_headers()
            return
        label = {"id": Labels.left[0], "copies": 1, "text": "Cap", "svg": "<svg/>"}
        self._say(200, label)

    def do_POST(self) -> None:
        Labels.left.remove(int(self.path.split("/")[3]))
        self._say(200, {})

    def _say(self, status: int, body: dict[str, Any]) -> None:
        data = json.dumps(body).encode()
        self.send_response(status)
        self.send_header("Content-Length", str(len(data)))
        self.end_headers()
        self.wfile.write(data)

    def log_message(self, *args: Any) -> None:
        """Quiet."""


class Printing(unittest.TestCase):
    def test_each_label_comes_out_once_and_again_where_that_could_not_be_said(self) -> None:
        app = HTTPServer(("127.0.0.1", 0), Labels)
        threading.Thread(target=app.serve_forever, daemon=True).start()
        Labels.left = [4, 5]
        with tempfile.TemporaryDirectory() as folder:
            printer = Printer(f"http://127.0.0.1:{app.server_port}", "t", Path(folder), jams=1)
            came = [printer.print_next() for _ in range(4)]
            self.assertEqual(came, [True, True, True, False])
            self.assertEqual([one["id"] for one in printer.out], [4, 4, 5])
            self.assertEqual((Path(folder) / "label-5.txt").read_text(), "Cap\n")
            self.assertEqual((Path(folder) / "label-5.svg").read_text(), "<svg/>")
        app.shutdown()
        app.server_close()

    def test_an_app_that_is_away_is_told_and_asked_again(self) -> None:
        printer = Printer("http://127.0.0.1:9", "t", Path("nowhere"))
        self.assertFalse(printer.print_next())
        self.assertIn("does not answer", printer.trouble)
