"""The true pots of a simulated evening: nothing comes from nowhere, and heat and shares do what they do."""

import copy
import random
import unittest
from datetime import UTC, datetime, timedelta
from typing import Any

import simpy

from standins.evening.app import App
from standins.evening.cooking import Cooked, Kitchen, PutAway
from standins.evening.dishes import DISHES, SAUCES, drawn
from standins.evening.foods import FOODS, grams_of
from standins.evening.judge import judge
from standins.evening.pots import Pot, Tray, grade_of
from standins.evening.records import false_lines
from standins.evening.run import Evening, Plate
from standins.evening.truth import Hidden


def _white(hidden: Hidden, flour_g: float) -> Pot:
    pot = Pot("saucepan 20", 20.0, 1240.0, hidden, "left")
    pot.put_in("butter-unsalted", flour_g)
    pot.put_in("wheat-flour", flour_g)
    pot.put_in("milk-whole", 1030.0, 5.0)
    return pot


class Pots(unittest.TestCase):
    def setUp(self) -> None:
        self.hidden = Hidden.drawn(5)

    def test_more_flour_is_thicker_and_heat_is_thinner(self) -> None:
        etas = [_white(self.hidden, grams).eta(65.0) for grams in (40.0, 60.0, 80.0)]
        self.assertEqual(etas, sorted(etas))
        pot = _white(self.hidden, 66.0)
        self.assertGreater(pot.eta(50.0), pot.eta(85.0))

    def test_usual_flour_makes_the_grade_that_is_usual(self) -> None:
        self.hidden.flour["wheat-flour"] = 1.0
        self.assertEqual(grade_of(_white(self.hidden, 66.0).eta(65.0)), "nappe")
        self.assertEqual(grade_of(_white(self.hidden, 84.0).eta(65.0)), "binding")

    def test_what_is_taken_and_poured_on_is_all_there_was(self) -> None:
        pot = _white(self.hidden, 60.0)
        pot.put_in("cheese-hard-alpine", 100.0)
        grams, salt, eta = pot.grams, pot.salt, pot.eta(65.0)
        taken = pot.take(400.0)
        self.assertAlmostEqual(taken.grams, 400.0, delta=0.01)
        self.assertAlmostEqual(taken.eta(65.0), eta, delta=0.02 * eta)
        self.assertEqual(taken.brings(), {"milk", "gluten"})
        taken.pour_in(pot.take(1e6))
        self.assertAlmostEqual(taken.grams, grams, delta=0.01)
        self.assertAlmostEqual(taken.salt, salt, delta=1e-6)
        self.assertLess(pot.grams, 0.01)

    def test_boiling_takes_water_and_off_the_ring_takes_heat(self) -> None:
        pot = _white(self.hidden, 60.0)
        self.assertGreater(pot.heat_to(99.0), 1.0)
        hot = pot.grams
        pot.heat(5.0, "lively")
        self.assertLess(pot.grams, hot - 30.0)
        pot.heat(10.0, "off")
        self.assertLess(pot.celsius, 97.0)
        self.assertGreater(pot.hottest_c, 98.0)

    def test_a_tray_comes_to_the_air_of_its_place(self) -> None:
        pot = _white(self.hidden, 60.0)
        pot.heat_to(90.0)
        tray = Tray(pot, "blast", self.hidden, 0.0)
        celsius = [tray.to(minute) for minute in (10.0, 60.0, 600.0)]
        self.assertEqual(celsius, sorted(celsius, reverse=True))
        self.assertAlmostEqual(celsius[-1], -2.0, delta=0.5)


class Records(unittest.TestCase):
    """A judge who lets everything pass is none: each false line is seen, and of true ones nothing is said."""

    BEGAN = datetime(2026, 5, 8, 14, 0, tzinfo=UTC)

    def setUp(self) -> None:
        hidden = Hidden.drawn(5)
        pot = _white(hidden, 60.0)
        pot._warm_to(90.0)
        self.tray = Tray(pot, "ice-stirred", hidden, 17.0)
        for minute in range(20, 200, 5):
            self.tray.to(float(minute))
        cold = self.tray.passed(10.0)
        assert cold is not None
        self.took = cold - (self.tray.passed(63.0) or 0.0)
        self.answers: dict[str, Any] = {
            "/journal": {"entries": [self.entry()]},
            "/keeping/records?first=2026-05-08&last=2026-05-09": self.lines(cold),
            "/keeping/1": {"name": "White", "left_g": pot.grams, "allergens": ["gluten", "milk"]},
            "/run-ups/1": {"planned": {"days": [{"blocks": [{"name": "White", "state": "done"}]}]}},
        }

    def at(self, minute: float) -> str:
        return (self.BEGAN + timedelta(minutes=minute)).isoformat()

    def entry(self) -> dict[str, Any]:
        actual = {"mass_g": 1101.0, "viscosity_pa_s": 0.5, "minutes": 16.0}
        made = {"batch_id": 1, "name": "White", "made_at": self.at(16.0)}
        return {**made, "actual": actual, "mends": ["Too thick: let down"]}

    def lines(self, cold: float) -> list[dict[str, Any]]:
        def line(minute: float, what: str, value: str = "", rule: str = "", met: str = "") -> Any:
            at = {"at": self.at(minute), "code": "B1", "name": "White"}
            return {**at, "what": what, "value": value, "rule": rule, "met": met}

        put = f"{self.tray.pot.grams:.0f} g"
        cooled = (f"within {self.took + 60:.0f} min", "met")
        return [
            line(0.0, "began"),
            line(16.0, "done"),
            line(17.0, "put away in 1 of tray", put),
            line(cold + 5.0, "down to 10 °C by readings", "", *cooled),
            line(1000.0, "warmed through, read in the middle", "72.0 °C", "70 °C at least", "met"),
        ]

    def false(self, answers: dict[str, Any]) -> list[str]:
        def send(method: str, path: str, body: Any, token: str) -> tuple[int, Any]:
            return 200, answers[path]

        app = App(send, lambda moment: None, lambda: None, self.BEGAN, minute=1200.0)
        kitchen = Kitchen(simpy.Environment(), app, self.tray.hidden, {})
        kitchen.run_up = {"id": 1}
        middles = [(1000.0, 71.5)]
        said = {"said_g": 1101.0, "said_pa_s": 0.5, "mended": 1, "middles": middles}
        kitchen.cooked = [Cooked(1, "White", "", 2.0, 0.0, 16.0, **said)]
        kitchen.put_away = [PutAway(1, 1, 17.0, self.tray.pot.grams, 2.0, self.tray)]
        return list(false_lines(kitchen))

    def test_true_lines_pass(self) -> None:
        self.assertEqual(self.false(self.answers), [])

    def test_each_false_line_is_seen(self) -> None:
        record = "/keeping/records?first=2026-05-08&last=2026-05-09"
        too_long = f"within {self.took / 2:.0f} min"
        for path, words, change in (
            (
                "/journal",
                "g were weighed",
                lambda answer: answer["entries"][0]["actual"].update(mass_g=990.0),
            ),
            (
                "/journal",
                "were judged",
                lambda answer: answer["entries"][0]["actual"].update(viscosity_pa_s=2),
            ),
            (
                "/journal",
                " min",
                lambda answer: answer["entries"][0]["actual"].update(minutes=20.0),
            ),
            ("/journal", "mended", lambda answer: answer["entries"][0].update(mends=[])),
            (
                "/journal",
                "made at",
                lambda answer: answer["entries"][0].update(made_at=self.at(30.0)),
            ),
            ("/journal", "nothing of White", lambda answer: answer["entries"].clear()),
            ("/journal", "twice", lambda answer: answer["entries"].append(answer["entries"][0])),
            (record, "began", lambda answer: answer[0].update(at=self.at(5.0))),
            (record, "no line says so", lambda answer: answer.pop(1)),
            (record, "put away", lambda answer: answer[2].update(value="1500 g")),
            (record, "it took", lambda answer: answer[3].update(rule=too_long)),
            (record, "it took", lambda answer: answer[3].update(met="missed")),
            (record, "it was 71.5", lambda answer: answer[4].update(value="80.0 °C")),
            (record, "it was 71.5", lambda answer: answer[4].update(rule="75 °C at least")),
            (record, "nobody read", lambda answer: answer[4].update(at=self.at(900.0))),
            (
                record,
                "nobody did",
                lambda answer: answer.append({**answer[0], "what": "thrown away: old"}),
            ),
            ("/keeping/1", "are left", lambda answer: answer.update(left_g=500.0)),
            ("/keeping/1", "silent about milk", lambda answer: answer.update(allergens=["gluten"])),
            (
                "/run-ups/1",
                "White is going",
                lambda answer: answer["planned"]["days"][0]["blocks"][0].update(state="going"),
            ),
        ):
            with self.subTest(path=path, words=words):
                answers = copy.deepcopy(self.answers)
                change(answers[path])
                false = self.false(answers)
                self.assertEqual(len(false), 1, false)
                self.assertIn(words, false[0])


class Judge(unittest.TestCase):
    def test_it_sees_what_was_given_and_what_was_lost(self) -> None:
        acts = [
            {"key": key, "at": "", "kind": kind}
            for key, kind in (("a", "saw"), ("b", "put"), ("c", "go"))
        ]
        became = [{"key": act["key"], "taken": act["key"] != "c", "why": "late"} for act in acts]

        def send(method: str, path: str, body: Any, token: str) -> tuple[int, Any]:
            if method == "POST":
                return 200, {"acts": became, "batch": {}}
            if path == "/stove/1":
                return 200, {"acts": [{"key": "a"}]}
            return (500, "broken") if path == "/journal" else (200, [])

        app = App(send, lambda moment: None, lambda: None, Records.BEGAN)
        app.do(1, *acts)
        hidden = Hidden.drawn(5)
        kitchen = Kitchen(simpy.Environment(), app, hidden, {})
        evening = Evening(hidden, app, kitchen, [], "milk")
        eaten = {"eta": 0.5, "grams": 60.0}
        brings = frozenset({"milk", "gluten"})
        for line, wanted, without in (
            ("Leeks", "nappe", ()),
            ("Leeks, without milk", "binding", ("milk",)),
        ):
            evening.plates.append(
                Plate(line, 1, "White", wanted, **eaten, brings=brings, without=without)
            )
        verdict = judge(evening)
        self.assertEqual(verdict.given, ("Leeks, without milk: milk was given, with White",))
        self.assertEqual(verdict.lost, ("batch 1: put is not told any more",))
        self.assertEqual(len(verdict.grades_missed), 1)
        self.assertEqual([words[:3] for words in verdict.broken], ["500"])
        self.assertEqual(len(verdict.worst), 3)


class Drawn(unittest.TestCase):
    def test_an_evening_is_the_same_for_a_seed_and_its_three_sauces_differ(self) -> None:
        self.assertEqual(Hidden.drawn(3), Hidden.drawn(3))
        for seed in range(20):
            dishes = drawn(random.Random(seed))
            self.assertEqual(len({DISHES[key][1] for key in dishes}), 3)

    def test_all_that_is_cooked_is_known_by_its_food(self) -> None:
        for sauce in SAUCES.values():
            for step in sauce["steps"]:
                for part in (step, step.get("fat"), step.get("flour")):
                    if part and "ingredient" in part:
                        self.assertIn(part["ingredient"], FOODS)
                        if "unit" in part["amount"]:
                            self.assertGreater(grams_of(part["ingredient"], part["amount"]), 0.0)
        for _, _, _, solids, _ in DISHES.values():
            self.assertLessEqual({solid["ingredient"] for solid in solids}, set(FOODS))
