"""Recipes in a hundred styles beside their right answers, and in other layouts alike; amounts where they give none; what is beside
the sauce stays out of it."""

import contextlib
import json
import math
import re
import time
import tomllib
import unittest
from collections.abc import Callable
from typing import ClassVar

from saucier.check import check
from saucier.errors import BadInput
from saucier.exchange import MeantFor, Reading, Settled, read_recipe
from saucier.exchange.layout import Layout, layout_of
from saucier.exchange.tests.score import Score, cases, scored, spoken
from saucier.kitchen import Kitchen
from saucier.sheet import write_sheet
from saucier.testing import trial_count, trial_of
from saucier.thickness import GRADES
from saucier.units import Amount

KITCHEN = Kitchen()
TOLD = "Cheese sauce\nbutter\nflour\nmilk\nmature cheese\nsalt\nMethod\nMelt the butter, stir in the flour, add the milk, simmer 5 minutes, off the heat stir in the cheese."


def steps(reading: Reading) -> list[str]:
    assert reading.sheet is not None
    return spoken(write_sheet(reading.sheet)["steps"])


def grams(reading: Reading, key: str) -> float:
    line = next(one for one in reading.lines if one.ingredient == key)
    assert line.amount is not None
    return KITCHEN.larder[key].grams(line.amount)


class Styles(unittest.TestCase):
    def test_no_line_is_silently_wrong(self) -> None:
        total = Score()
        for held, many in ((False, 10), (True, 40)):
            for path in trial_of(cases(held=held), many):
                total.plus(scored(path, KITCHEN))
        self.assertEqual(total.wrong, [])
        self.assertGreaterEqual(total.right, 0.97 * total.lines, total.asked)
        self.assertGreaterEqual(total.in_place, 0.97 * total.steps, total.differ)

    def test_a_third_give_no_amounts(self) -> None:
        told = [
            path.stem
            for held in (False, True)
            for path in cases(held=held)
            if " blank" in path.read_text(encoding="utf-8")
        ]
        self.assertGreaterEqual(len(told), 10)


class Layouts(unittest.TestCase):
    """The same recipe written out in another layout is the same recipe."""

    WRITTEN: ClassVar[dict[str, Callable[[str], str]]] = {
        "a star in front": "* {}".format,
        "a box to tick": "- [ ] {}".format,
        "bold amounts": lambda line: re.sub(r"^(\S+)", r"**\1**", line),
        "capitals": str.upper,
        "held together": lambda line: line.replace(" ", "\N{NO-BREAK SPACE}"),
        "a comma behind": lambda line: f"{line.rstrip('.')},",
        "a stop behind": lambda line: f"{line.rstrip('.')}.",
        "units close up": lambda line: re.sub(r"(\d) (g|ml|kg|l|dl|cl)\b", r"\1\2", line),
    }

    def test_read_alike(self) -> None:
        for path in [*cases(held=False), *cases(held=True)][:: trial_count(9, 27)]:
            text = tomllib.loads(path.read_text(encoding="utf-8"))["text"]
            layout = layout_of(text, KITCHEN)
            if not layout.given or read_recipe(text, KITCHEN).open_lines:
                continue
            plain = self._read(layout, lambda line: line)
            for name, written in self.WRITTEN.items():
                with self.subTest(path.stem, layout=name):
                    self.assertEqual(self._read(layout, written), plain)

    def _read(self, layout: Layout, written: Callable[[str], str]) -> tuple[list[str], list[str]]:
        lines, section = [layout.name], ""
        if layout.makes:
            lines.append(f"Serves: {layout.makes}")
        for line in layout.given:
            if line.section != section and line.section:
                lines.append(f"{line.section}:")
            section = line.section
            lines.append(written(re.sub(r"^\W+(?=\w)", "", line.text)))
        if layout.told:
            lines += ["Method", *layout.told]
        found = read_recipe("\n".join(lines), KITCHEN)
        told = [f"{one.ingredient} {one.status} {one.amount}" for one in found.lines]
        return sorted(told), spoken(write_sheet(found.sheet)["steps"]) if found.sheet else []

    def test_no_line_is_lost(self) -> None:
        """What nobody knows is asked of wherever it stands in the list, however it is written."""
        for path in [*cases(held=False), *cases(held=True)][:: trial_count(11, 33)]:
            text = tomllib.loads(path.read_text(encoding="utf-8"))["text"]
            layout = layout_of(text, KITCHEN)
            if len(layout.given) < 2:
                continue
            for line in ("2 tbsp zibble", "Zibble 30 g", "2 tbsp. smooth green zibble."):
                for head in (["Method"], []):
                    for at in (1, len(layout.given)):
                        lines = [re.sub(r"^\W+(?=\w)", "", one.text) for one in layout.given]
                        lines.insert(at, line)
                        told = "\n".join([layout.name, *lines, *head, *layout.told])
                        with self.subTest(path.stem, line=line, head=head, at=at):
                            found = read_recipe(told, KITCHEN).lines
                            asked = [one for one in found if one.status in ("settle", "unread")]
                            self.assertTrue(any("zibble" in one.text.lower() for one in asked))

    def test_a_section_named_first_leaves_others_alone(self) -> None:
        found = read_recipe(
            "For the white sauce:\n1 l milk\n60 g butter\n60 g flour\n\nFor the ragout:\n800 g tomatoes\n1 onion\n\n"
            "Melt the butter, stir in the flour. Add the milk and simmer for 5 minutes.",
            KITCHEN,
        )
        self.assertEqual(found.name, "White sauce")
        self.assertEqual(
            steps(found), ["roux butter-unsalted+wheat-flour 2", "add milk-whole", "simmer 5"]
        )

    def test_a_table_and_a_piece_of_a_page(self) -> None:
        rows = "| Item | Qty | Unit |\n|---|---|---|\n| Butter | 50 | g |\n| Flour | 50 | g |\n| Milk | 1 | l |\n\n"
        page = "<h2>White sauce</h2><ul><li>50g butter<li>50&nbsp;g flour</li><li>1 l milk</li></ul><ol>"
        method = (
            "Melt the butter, stir in the flour, cook 2 minutes. Add the milk. Simmer 5 minutes."
        )
        for text in (f"White sauce\n{rows}Method\n{method}", f"{page}<li>{method}</li></ol>"):
            with self.subTest(text[:20]):
                found = read_recipe(text, KITCHEN)
                self.assertEqual((found.name, found.open_lines, found.ours), ("White sauce", 0, 0))
                self.assertEqual(
                    steps(found),
                    ["roux butter-unsalted+wheat-flour 2", "add milk-whole", "simmer 5"],
                )

    def test_a_field_that_says_nothing_is_no_line(self) -> None:
        given = ["50 g butter", "<p>🍝</p>", "50 g flour", "1 l milk"]
        page = {"@type": "Recipe", "name": "X", "recipeIngredient": given}
        self.assertEqual(len(read_recipe(json.dumps(page), KITCHEN).lines), 3)

    def test_an_amount_nobody_could_read_is_asked(self) -> None:
        for text, asked in (
            ("Take 90 of butter and 90 of flour, cook, then a litre of milk, simmer 5 min.", 2),
            ("Melt 50 g butter with 50 g flour, add 1 l milk and 200 ml of broad bean water.", 1),
            ("White sauce\nbutter 7 %\nflour 7 %\n1 l milk\nMethod\nMake a roux, add the milk.", 2),
            ("White sauce\n50 g butter\n50 g flour\n120 shallots\n1 l milk", 1),
        ):
            with self.subTest(text):
                found = read_recipe(text, KITCHEN)
                self.assertEqual(found.open_lines, asked, found.lines)
                self.assertEqual(found.ours, 0)


class Blanks(unittest.TestCase):
    def test_for_so_many_portions_so_thick(self) -> None:
        for grade in GRADES[:5]:
            for portions in (2.0, 12.0, 80.0):
                with self.subTest(grade.key, portions=portions):
                    found = read_recipe(TOLD, KITCHEN, wanted=MeantFor("nap", portions, grade.key))
                    assert found.sheet
                    told = check(found.sheet, KITCHEN).figures
                    self.assertEqual(told.grade, grade.key)
                    wanted_ml = portions * 55 + KITCHEN.film_ml
                    self.assertAlmostEqual(told.yield_ml / wanted_ml, 1, delta=0.06)
                    self.assertEqual(found.ours, 4)

    def test_what_is_known_stays_and_the_rest_follows_it(self) -> None:
        at = {"butter": 0, "flour": 1, "milk": 2, "cheese": 3}
        litre = read_recipe(TOLD, KITCHEN, {at["milk"]: Settled("milk-whole", Amount(1, "L"))})
        two = read_recipe(TOLD, KITCHEN, {at["milk"]: Settled("milk-whole", Amount(2, "L"))})
        self.assertEqual(grams(litre, "milk-whole"), 1030)
        for key in ("wheat-flour", "butter-unsalted", "cheese-firm-mature"):
            self.assertAlmostEqual(grams(two, key) / grams(litre, key), 2, delta=0.15)
        by_flour = read_recipe(
            TOLD,
            KITCHEN,
            {at["flour"]: Settled("wheat-flour", Amount(100, "g"))},
            MeantFor("nap", 4, "binding"),
        )
        self.assertEqual(grams(by_flour, "wheat-flour"), 100)
        self.assertEqual(check(by_flour.sheet, KITCHEN).figures.grade, "binding")
        self.assertEqual(grams(by_flour, "butter-unsalted"), 100)

    def test_edges_are_where_the_grade_ends(self) -> None:
        found = read_recipe(TOLD, KITCHEN, wanted=MeantFor("nap", 40, "nappe"))
        flour = next(one for one in found.lines if one.ingredient == "wheat-flour")
        assert flour.between and flour.amount
        least, most = flour.between.least.value, flour.between.most.value
        self.assertLess(least, flour.amount.value)
        self.assertLess(flour.amount.value, most)
        # Half a grade each way is some 16 % of flour (η goes with its 3.7th power).
        self.assertAlmostEqual(math.log(most / least), math.log(3) / 3.7, delta=0.06)

    def test_divided_between_two_places(self) -> None:
        found = read_recipe(
            "Sauce\nCook 200 g mushrooms in half the butter for 5 minutes. With the rest of the butter and"
            " the flour make a white roux. Pour on 1 litre of chicken stock and simmer 20 minutes.",
            KITCHEN,
        )
        told = steps(found)
        self.assertEqual([one.split()[0] for one in told[:3]], ["add", "sweat", "roux"])
        self.assertEqual(check(found.sheet, KITCHEN).figures.grade, "nappe")

    def test_nonsense_names_the_field(self) -> None:
        for meant, field in (
            (MeantFor("dunk"), "wanted.use"),
            (MeantFor("nap", 4, "gloop"), "wanted.grade"),
        ):
            with self.assertRaises(BadInput) as caught:
                read_recipe(TOLD, KITCHEN, wanted=meant)
            self.assertEqual(caught.exception.problems[0].field, field)

    def test_what_it_is_for_by_its_name_and_its_yield(self) -> None:
        for head, use, portions in (
            ("Pasta bake sauce, for eight", "pasta-baked", 8),
            ("Caraway cap for toast\nServes 6", "toast", 6),
            ("Cream\nMakes 600 ml", "nap", 4),
            ("Cream (4 portions)", "nap", 4),
        ):
            wanted = read_recipe(f"{head}\nbutter\nflour\nmilk", KITCHEN).wanted
            self.assertEqual((wanted.use, wanted.portions), (use, portions), head)


class Nonsense(unittest.TestCase):
    def test_whatever_is_pasted_is_answered_soon(self) -> None:
        for text in (
            "x\n" + "a, " * 60_000,
            "Sauce. " + "Melt the butter, stir in 50 g flour; " * 4_000,
            "and then " * 15_000,
            "50 g butter\n" * 10_000,
            "when it is hot, " * 9_000,
            "(" * 50_000,
            "salt, pepper, " * 9_000,
        ):
            with self.subTest(text[:30]):
                # Time of its own: what else the machine does is not its fault.
                began = time.process_time()
                with contextlib.suppress(BadInput):
                    read_recipe(text, KITCHEN)
                self.assertLess(time.process_time() - began, 12)

    def test_what_is_too_long_is_cut_and_said(self) -> None:
        found = read_recipe("Sauce. " + "Stir in 10 g butter and 20 g flour. " * 400, KITCHEN)
        self.assertIn("letters of the method", " ".join(map(str, found.assumed)))
        short = read_recipe("Sauce. Stir in 10 g butter and 20 g flour.", KITCHEN)
        self.assertNotIn("letters of the method", " ".join(map(str, short.assumed)))


class OtherPots(unittest.TestCase):
    def test_what_is_cooked_beside_it_stays_out(self) -> None:
        for told in (
            "Boil the pasta for 9 minutes.",
            "Cook the cauliflower in salted water for 12 minutes and drain it.",
            "Bake for 25 minutes until golden.",
            "Meanwhile grill the toast for 3 minutes.",
            "Chill for 90 minutes.",
        ):
            with self.subTest(told):
                found = read_recipe(
                    "Sauce\n40 g butter\n40 g flour\n500 ml milk\n200 g pasta\n1 cauliflower\nMethod\n"
                    f"Melt the butter, stir in the flour, cook 2 minutes. Whisk in the milk, simmer 5 minutes. {told}",
                    KITCHEN,
                )
                self.assertEqual(
                    steps(found),
                    ["roux butter-unsalted+wheat-flour 2", "add milk-whole", "simmer 5"],
                )

    def test_milk_steeped_in_its_own_pan(self) -> None:
        found = read_recipe(
            "Bread sauce base\n500 ml milk\n1 bay leaf\n40 g butter\n40 g flour\nMethod\nHeat the milk with the"
            " bay leaf, take it off the heat and infuse for 20 minutes. Melt the butter, add the flour, cook"
            " 1 minute. Strain in the milk and simmer 4 minutes.",
            KITCHEN,
        )
        assert found.sheet
        self.assertEqual([one.op for one in found.sheet.steps], ["roux", "use", "simmer"])
        inner = found.sheet.steps[1].sauce.steps
        self.assertEqual([one.op for one in inner], ["add", "infuse", "strain"])
        self.assertEqual(inner[1].minutes, 20)

    def test_two_lots_of_one_thing(self) -> None:
        found = read_recipe(
            "Sauce\n40 g butter\n40 g flour\n500 ml stock\n25 g cold butter\nMethod\nMelt the butter, add the flour,"
            " cook 2 minutes, add the stock, simmer 10 minutes. Off the heat whisk in the cold butter.",
            KITCHEN,
        )
        self.assertEqual(
            steps(found),
            [
                "roux butter-unsalted+wheat-flour 2",
                "add stock-light",
                "simmer 10",
                "mount butter-unsalted",
            ],
        )
        assert found.sheet
        self.assertEqual(found.sheet.steps[0].fat.amount.value, 40)
        self.assertEqual(found.sheet.steps[3].amount.value, 25)


if __name__ == "__main__":
    unittest.main()
