"""Five hundred services of whatever kind: no exception, no plan taken away, what is planned adds up."""

import collections
import json
import random
import unittest
from concurrent.futures import ProcessPoolExecutor
from dataclasses import replace
from multiprocessing import get_context
from typing import Any

from saucier.dish import Dish, read_dish
from saucier.errors import BadInput
from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.service import (
    Plan,
    flowed,
    plan_service,
    production_of,
    read_service,
    read_what_can_be,
    scaled,
    short_of,
    write_service,
)
from saucier.service.tests.random_guests import WORDS
from saucier.service.tests.test_service import DISHES, SHEETS
from saucier.sheet import Sheet
from saucier.testing import add, grams, roux, sheet, simmer, trial_count, with_nonsense
from saucier.tests.random_sheets import a_sauce
from saucier.units import Amount
from saucier.words import plain

SERVICES, SHARES = trial_count(500, 40), trial_count(4, 2)
KITCHENS = [Kitchen(), replace(Kitchen(), whisk_ml=2500.0), replace(Kitchen(), film_ml=0.0)]
SHELVES = [
    [],
    [Pan("cup", "straight", 9, 6)],
    [Pan("saucepan 16", "straight", 16, 9), Pan("stewpan 28", "straight", 28, 16, count=2)],
    [Pan("iron 26", "sloped", 26, 5, reactive=True), Pan("bowl 26", "bowl", 26, 12)],
    [Pan("kettle 50", "straight", 50, 45), Pan("sauteuse 24", "sloped", 24, 8)],
]
JUS = sheet(
    add("stock-veal", 800),
    {"op": "reduce", "to": {"share": 0.5}},
    name="jus",
    target={"grade": "liquid"},
)
SOURED = sheet(
    add("stock-light", 200), add("soured-cream-20", 60), name="soured", target={"grade": "liquid"}
)
MILK_GONE = sheet(roux(20, 20), add("milk-whole", 60), simmer(60), name="gone")
ODD = {"jus": JUS, "soured": SOURED, "gone": MILK_GONE}
VESSELS = [
    {"name": "thimble", "shape": "dish", "diameter_cm": 3, "depth_cm": 0.5},
    {"name": "tray", "shape": "tray", "diameter_cm": 50, "width_cm": 30, "depth_cm": 6},
    {"name": "shell", "shape": "shell", "diameter_cm": 11, "depth_cm": 2.5},
]


def any_service(dice: random.Random) -> tuple[Any, dict[str, Dish], dict[str, Sheet]]:
    sheets = {**SHEETS, **ODD, **{f"r{n}": a_sauce(dice) for n in range(2)}}
    dishes = dict(DISHES)
    dishes["bare"] = read_dish({"name": "no sauce", "solids": [{"ingredient": "leek", "grams": 9}]})
    dishes["nothing"] = read_dish({"name": "nothing at all"})
    for number in range(3):
        vessel = dice.choice([None, *VESSELS])
        uses = ["nap", "pool", "toast", "filling", *(["cap", "layers", "film"] if vessel else [])]
        dishes[f"d{number}"] = read_dish(
            {
                "name": f"odd {number}",
                "vessel": vessel and {**vessel, "portions": dice.choice([0.5, 1, 12])},
                "sauces": [
                    {
                        "sauce": dice.choice(list(sheets)),
                        "use": dice.choice(uses),
                        "kept_back_pct": k,
                    }
                    for k in dice.sample([0, 30, 100], k=dice.choice([1, 2]))
                ],
                "solids": [{"ingredient": dice.choice(["leek", "pasta-dry"]), "grams": 120}],
            }
        )
    lines: list[dict[str, Any]] = []
    for _ in range(dice.randint(1, 5)):
        line: dict[str, Any] = {
            "dish": dice.choice([*dishes, "air"]),
            "portions": dice.choice([1, 1, 2, 9, 60, 2000, 0.5]),
            "sitting": dice.choice([1, 2]),
        }
        if dice.random() < 0.3:
            line["without"] = dice.sample([*WORDS, "joy"], k=dice.choice([1, 2]))
        if dice.random() < 0.15:
            line["vessel"] = dice.choice(VESSELS)
        if dice.random() < 0.1:
            line["swaps"] = {"milk-whole": dice.choice(["milk-soya", "moonlight", "water"])}
        lines.append(line)
    hand = [
        {"sauce": dice.choice(list(sheets)), "amount": "3 L", "age_days": dice.choice([0, 1, 9])},
        {"ingredient": dice.choice(["milk-whole", "moonlight"]), "amount": "2 L"},
        {"ingredient": "milk-whole", "amount": "3 pieces"},
        {"roux": "blond", "amount": "80 g", "place": "freezer", "age_days": 200},
    ]
    document = {
        "name": "any",
        "serve_at": dice.choice([[], ["12:00"], ["12:00", "15:00"], ["23:30", "01:00"]]),
        "lines": lines,
        "on_hand": dice.sample(hand, k=dice.choice([0, 0, 1, 3])),
        "force": {
            key: dice.choice(["own", "share", "thicken"]) for key in dice.sample([*sheets], 3)
        },
        "pans": {
            "mother-white-milk-whole-butter-unsalted-wheat-flour": dice.choice(
                ["stewpan 28", "gone"]
            )
        }
        if dice.random() < 0.3
        else {},
    }
    return read_service(document), dishes, sheets


class _Looked(unittest.TestCase):
    def __init__(self, seed: int) -> None:
        super().__init__("looked_at")
        self.dice, self.said = random.Random(seed), collections.Counter[str]()

    def looked_at(self) -> collections.Counter[str]:
        for number in range(SERVICES // SHARES):
            service, dishes, sheets = any_service(self.dice)
            kitchen, pans = self.dice.choice(KITCHENS), self.dice.choice(SHELVES)
            plan = plan_service(service, dishes, sheets, kitchen, pans)
            self._adds_up(plan)
            production = production_of(plan, kitchen)
            json.dumps(plain(plan)), json.dumps(plain(production))
            self.assertEqual(read_service(write_service(service)), service)
            if number % 4 == 0:
                self._edited(plan, dishes, sheets, kitchen, pans)
        return self.said

    def _adds_up(self, plan: Plan) -> None:
        self.assertEqual(len(plan.lines), len(plan.service.lines))
        wrong = {a.field.split(".")[0] for a in plan.amiss}
        for line in plan.lines:
            self.said["refused" if line.refused else "planned"] += 1
            if line.refused:  # never without a word beside it
                self.assertIn(f"lines[{line.number}]", wrong)
        for branch in plan.branches:
            self.said["branches"] += 1

            if branch.pot:
                there = branch.made_ml + branch.from_stock_ml
                self.assertGreaterEqual(there, 0.97 * branch.need_ml, branch.name)
        asked = sum(need.volume_ml for line in plan.lines for need in line.needs)
        self.assertAlmostEqual(
            asked, sum(b.need_ml for b in plan.branches), delta=1e-6 * asked + 1e-6
        )

    def _edited(self, plan: Plan, dishes: Any, sheets: Any, kitchen: Kitchen, pans: Any) -> None:
        """What a cook does next: more covers, a larger pot, short of something."""

        def again(service: Any) -> Plan:
            return plan_service(service, dishes, sheets, kitchen, pans)

        self._adds_up(again(scaled(plan.service, 17)))
        if plan.branches and plan.branches[0].pot:
            try:
                self._adds_up(again(flowed(plan, plan.branches[0].key, 3000.0)))
            except BadInput as bad:
                self.assertIn(bad.problems[0].field, ("ml", "node"))
        short = short_of(plan, "salt", Amount(5, "g"), kitchen, again)
        self.assertEqual(len(short.lines), len(plan.lines))


def _look(seed: int) -> collections.Counter[str]:
    return _Looked(seed).looked_at()


class AnyService(unittest.TestCase):
    def test_no_exception_and_no_plan_taken_away(self) -> None:
        said = collections.Counter[str]()
        with ProcessPoolExecutor(mp_context=get_context("spawn")) as pool:
            for one in pool.map(_look, range(SHARES)):
                said += one
        print(f"\n{SERVICES} services: {dict(said)}")
        self.assertGreater(said["planned"], said["refused"])


class Nonsense(unittest.TestCase):
    def test_in_any_field_is_refused_left_out_or_read(self) -> None:
        """What is wrong with one entry leaves the others planned; what is wrong with the whole is told."""
        dice, said = random.Random(5), collections.Counter[str]()
        for number in range(120):
            service, dishes, sheets = any_service(dice)
            document = {
                **write_service(service),
                "lines": [
                    {"dish": "celeriac-gratin", "portions": 4, "without": ["cheese"]},
                    *[{"dish": "rye-toasts", "portions": 6, "sitting": 2, "swaps": {}}],
                ],
                "on_hand": [{"ingredient": "milk-whole", "amount": {"value": 1, "unit": "L"}}],
            }
            try:
                read, unread = read_what_can_be(with_nonsense(document, dice))
            except BadInput as bad:
                said["refused"] += 1
                self.assertTrue(all(problem.field for problem in bad.problems), number)
                continue
            plan = plan_service(read, dishes, sheets, Kitchen(), [], unread)
            production_of(plan, Kitchen())
            said["planned, with something left out" if unread else "planned"] += 1
            for problem in unread:
                self.assertIn(problem.field, {one.field for one in plan.amiss})
            if unread:
                self.assertTrue(any(not line.refused for line in plan.lines))
        self.assertGreater(said["planned, with something left out"], 20)


class Thin(unittest.TestCase):
    def test_liquid_is_a_grade_where_it_is_wanted(self) -> None:
        dish = {"name": "plate", "sauces": [{"sauce": "jus", "use": "cordon"}]}
        lines = [{"dish": "d", "portions": 12}]
        plan = plan_service(
            read_service({"name": "x", "lines": lines}), {"d": read_dish(dish)}, ODD, Kitchen(), []
        )
        [branch] = plan.branches
        self.assertEqual(branch.final.thickness.grade, "liquid")
        self.assertAlmostEqual(branch.made_ml / (branch.need_ml + branch.film_ml), 1, delta=0.02)
        self.assertFalse(any("cannot be brought" in str(w) for w in plan.warnings))
        self.assertIn("usually asks for light coat", str(plan.lines[0].remarks[0]))


class OwnGrade(unittest.TestCase):
    """A sauce is planned as its sheet says; where its use asks for another grade that is told."""

    def planned(self, target: dict[str, Any]) -> Plan:
        white = sheet(roux(40, 40), add("milk-whole", 1, "L"), simmer(5), name="w", target=target)
        dish = read_dish({"name": "d", "sauces": [{"sauce": "s", "use": "nap"}]})
        service = read_service({"name": "x", "lines": [{"dish": "d", "portions": 12}]})
        return plan_service(service, {"d": dish}, {"s": white}, Kitchen(), [])

    def test_without_a_target_it_is_made_as_it_is_written(self) -> None:
        plan = self.planned({})
        [branch] = plan.branches
        flour = next(s for s in branch.sheet.steps if s.op == "roux").flour.amount.base
        milk = next(s for s in branch.sheet.steps if s.op == "add").amount.base
        self.assertAlmostEqual(flour / milk, 0.04, delta=0.002)
        self.assertIn("no grade of its own", str(plan.lines[0].remarks[0]))

    def test_with_another_than_its_use_asks_for_it_keeps_its_own(self) -> None:
        plan = self.planned({"grade": "binding"})
        self.assertEqual(plan.branches[0].final.thickness.grade, "binding")
        self.assertIn("planned binding, as it is written", str(plan.lines[0].remarks[0]))
        self.assertEqual(self.planned({"grade": "nappe"}).lines[0].remarks, ())


class Salt(unittest.TestCase):
    def test_short_of_salt_up_to_a_target(self) -> None:
        salted = sheet(
            roux(60, 60),
            add("milk-whole", 1, "L"),
            simmer(5),
            {"op": "season", "ingredient": "salt", "amount": {"to_salt_pct": 0.9}},
            name="w",
        )
        dish = read_dish({"name": "d", "sauces": [{"sauce": "s", "use": "nap"}]})
        service = read_service({"name": "x", "lines": [{"dish": "d", "portions": 40}]})

        def again(document: Any) -> Plan:
            return plan_service(document, {"d": dish}, {"s": salted}, Kitchen(), [])

        plan = again(service)
        short = short_of(plan, "salt", Amount(10, "g"), Kitchen(), again)
        bought = next(b for b in production_of(plan, Kitchen()).buy if b.ingredient == "salt")
        self.assertAlmostEqual(short.need_g, bought.used_g, delta=0.01)
        self.assertFalse(short.enough)
        self.assertLess(short.lines[0].all_alike, 40)
        self.assertAlmostEqual(grams(short.need_g)["value"], 0.0081 * 40 * 57, delta=4)


if __name__ == "__main__":
    unittest.main()
