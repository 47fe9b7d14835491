"""A pot, a line and a task are themselves, whatever is changed about the service after they were begun."""

import random
import unittest
from typing import Any

from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.mother import Base, base_of
from saucier.run_up import Means, RunUp, run_up
from saucier.service import Plan, first_key, plan_service, read_service, write_service
from saucier.service.planned import short_key
from saucier.service.tests.random_guests import guest_service
from saucier.testing import add, grams, roux, sheet, simmer, trial_count, use

KITCHEN = Kitchen()
PANS = [
    Pan("small", "straight", 16, 9),
    Pan("middle", "straight", 20, 11),
    Pan("large", "straight", 28, 16),
]


def what_it_is(plan: Plan, key: str) -> Any:
    """What is in the pot, or the branch, under ``key``; read off its sheet, not off the key."""
    for pot in plan.pots:
        if pot.key == key and pot.mother:
            base = base_of(pot.sheet, KITCHEN)
            assert isinstance(base, Base)
            return ("mother", base.colour, base.fat.key, base.flour.key, base.liquids[0][0].key)
    for branch in plan.branches:
        if branch.pot and key in (branch.key, branch.pot):
            return ("sauce", branch.sauce, branch.grade)
    return None


def begun(plan: Plan) -> dict[str, Any]:
    """Everything that can be on the stove, by its key."""
    keys = [pot.key for pot in plan.pots] + [branch.key for branch in plan.branches if branch.pot]
    return {key: what_it_is(plan, key) for key in keys}


def edited(document: dict[str, Any], dice: random.Random) -> dict[str, Any]:
    """Portions changed, lines put in another order, taken off, and new ones added."""
    lines = [dict(line) for line in document["lines"]]
    for line in lines:
        if dice.random() < 0.7:
            line["portions"] = dice.choice([1, 3, 8, 25, 90, 300])
    dice.shuffle(lines)
    if len(lines) > 1 and dice.random() < 0.3:
        lines.pop(dice.randrange(len(lines)))
    if dice.random() < 0.4:
        new = {
            **dice.choice(lines),
            "portions": dice.choice([2, 40]),
            "id": 5000 + dice.randrange(10**6),
        }
        lines.insert(dice.randrange(len(lines) + 1), new)
    return {**document, "lines": lines}


class ManyServices(unittest.TestCase):
    """300 by make trials."""

    COUNT = trial_count(300, 12)

    def test_no_batch_comes_under_another_pot_and_no_task_to_another_line(self) -> None:
        dice = random.Random(30)
        compared = tasks = 0
        for number in range(self.COUNT):
            service, dishes, sheets = guest_service(dice)
            document = write_service(service)
            plan = plan_service(service, dishes, sheets, KITCHEN, PANS)
            pots, jobs = begun(plan), self.jobs(plan)
            for _ in range(3):
                document = edited(document, dice)
                later = plan_service(read_service(document), dishes, sheets, KITCHEN, PANS)
                for key, is_now in begun(later).items():
                    if key in pots:
                        compared += 1
                        self.assertEqual(is_now, pots[key], f"service {number}: {key}")
                for key, is_now in self.jobs(later).items():
                    if key in jobs:
                        tasks += 1
                        self.assertEqual(is_now, jobs[key], f"service {number}: {key}")
        self.assertGreater(compared, 2 * self.COUNT)
        self.assertGreater(tasks, 4 * self.COUNT)

    @staticmethod
    def jobs(plan: Plan) -> dict[str, Any]:
        """What the tasks of single lines are for: the dish, and who goes without what."""
        if not any(not line.refused for line in plan.lines):
            return {}
        lines = {line.id: line for line in plan.lines}
        board = run_up(plan, KITCHEN, Means.of(), RunUp()).board
        return {
            key: (lines[job.lines[0]].line.dish, lines[job.lines[0]].line.without)
            for key, job in board.jobs.items()
            if len(job.lines) == 1 and key.split(":")[0] not in ("pot", "weigh", "prep", "warm")
        }


class TwoMothers(unittest.TestCase):
    """A white and a fish mother, whichever is the larger."""

    def plan(self, milk: float, fish: float) -> Plan:
        from saucier.dish import read_dish

        def sauce(liquid: str, grade: str) -> Any:
            steps = (roux(60, 60), add(liquid, 1, "L"), simmer(5))
            return sheet(*steps, name=f"{liquid} {grade}", target={"grade": grade})

        sheets = {
            f"{liquid}-{grade}": sauce(liquid, grade)
            for liquid in ("milk-whole", "stock-fish")
            for grade in ("nappe", "binding")
        }
        dishes = {
            key: read_dish({"name": key, "sauces": [{"sauce": key, "use": "nap"}]})
            for key in sheets
        }
        lines = [
            {"dish": key, "portions": milk if key.startswith("milk") else fish} for key in sheets
        ]
        service = read_service({"name": "two", "lines": lines})
        return plan_service(service, dishes, sheets, KITCHEN, PANS)

    def test_they_keep_their_keys_as_portions_change(self) -> None:
        for milk, fish in ((40, 10), (10, 40), (200, 1)):
            plan = self.plan(milk, fish)
            found = {pot.key: what_it_is(plan, pot.key) for pot in plan.pots if pot.mother}
            with self.subTest(milk=milk, fish=fish):
                self.assertEqual(
                    {key: one[-1] for key, one in found.items()},
                    {
                        "mother-white-milk-whole-butter-unsalted-wheat-flour": "milk-whole",
                        "mother-white-stock-fish-butter-unsalted-wheat-flour": "stock-fish",
                    },
                )


class MadeFirst(unittest.TestCase):
    """A filling of two sauces made for it, one of them with a third in it."""

    WHITE = use([roux(50, 50), add("milk-whole", 1, "L")], grams(300), name="White")
    ONION = use([add("onion", 400, "g"), add("cream-35", 1, "dL")], grams(150), name="Onion")

    def keys(self, *steps: dict[str, Any], pans: dict[str, str] | None = None) -> dict[str, Any]:
        from saucier.dish import read_dish

        dishes = {"buns": read_dish({"name": "buns", "sauces": [{"sauce": "5", "use": "over"}]})}
        service = read_service(
            {"name": "x", "lines": [{"dish": "buns", "portions": 9}], "pans": pans or {}}
        )
        plan = plan_service(service, dishes, {"5": sheet(*steps, name="filling")}, KITCHEN, PANS)
        self.assertEqual(plan.amiss, ())
        return {first.key: (first.name, first.pan.name) for first in plan.first}

    def test_their_keys_stay_as_steps_come_and_go_before_them(self) -> None:
        few = self.keys(self.WHITE, self.ONION)
        more = self.keys(
            add("milk-whole", 1, "dL"), self.ONION, add("salt", 2, "g"), self.WHITE, simmer(2)
        )
        self.assertEqual(list(few), ["own-5~as-is/white", "own-5~as-is/onion"])
        self.assertEqual(set(more), set(few))
        for key, (name, _) in more.items():
            self.assertEqual(name, few[key][0])

    def test_one_deeper_is_itself_too_and_two_of_a_name_are_told_apart(self) -> None:
        other = use([add("onion", 1, "kg")], grams(80), name="Onion")
        white = {**self.WHITE, "sauce": {**self.WHITE["sauce"]}}
        white["sauce"]["steps"] = [*white["sauce"]["steps"], self.ONION]
        self.assertEqual(
            set(self.keys(self.ONION, white, other)),
            {
                "own-5~as-is/onion",
                "own-5~as-is/white",
                "own-5~as-is/white/onion",
                "own-5~as-is/onion-2",
            },
        )

    def test_the_pan_chosen_by_either_key_is_its_pan(self) -> None:
        for key in ("own-5~as-is/onion", "own-5~as-is/1"):
            with self.subTest(key):
                found = self.keys(self.WHITE, self.ONION, pans={key: "large"})
                self.assertEqual(found["own-5~as-is/onion"][1], "large")
                self.assertNotEqual(found["own-5~as-is/white"][1], "large")

    def test_no_key_is_longer_than_a_row_holds_and_none_is_another_s(self) -> None:
        self.assertEqual(short_key("k" * 199 + "x"), "k" * 199 + "x")
        cut = [first_key("k" * 199, name) for name in ("one", "two")]
        self.assertEqual([len(key) for key in cut], [200, 200])
        self.assertNotEqual(*cut)


class Lines(unittest.TestCase):
    def test_each_keeps_its_id_and_a_copy_is_a_new_one(self) -> None:
        old = read_service(
            {"name": "x", "lines": [{"dish": "a", "portions": 1}, {"dish": "b", "portions": 2}]}
        )
        self.assertEqual([line.id for line in old.lines], [0, 1])
        written = write_service(old)["lines"]
        turned = read_service({"name": "x", "lines": [written[1], written[1], written[0]]})
        self.assertEqual([line.id for line in turned.lines][0::2], [1, 0])
        self.assertNotIn(turned.lines[1].id, (0, 1))


if __name__ == "__main__":
    unittest.main()
