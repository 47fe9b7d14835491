"""Kitchen measures: read, carried in the sheet, and felt in the ribbon's soft edge."""

import unittest

from saucier.check import check
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.larder import Measures, measure_from_row, shipped_larder, shipped_measures
from saucier.sheet import read_sheet, with_measures, write_sheet
from saucier.solve import Goal, rounded_for_kitchen, solve
from saucier.testing import CHEESE_SAUCE, add, roux, sheet, simmer
from saucier.thickness import grade_named
from saucier.units import Amount, kitchen_round

LARDER, MEASURES = shipped_larder(), shipped_measures()


def read(document: dict, measures: Measures = MEASURES):
    return read_sheet(with_measures(document, measures, LARDER))


def milk_in(amount: object) -> dict:
    step = {"op": "add", "ingredient": "milk-whole", "amount": amount}
    return {"name": "test", "steps": [roux(66, 66), step, simmer(3)]}


class Reading(unittest.TestCase):
    def test_the_most_particular_measure_counts(self) -> None:
        for text, key, grams in (
            ("2 knobs", "butter-unsalted", 30),
            ("1 stick", "butter-unsalted", 113),
            ("1 stick", "celery", 60),
            ("1 tin", "tomato", 400),
            ("2 glasses", "wine-white-dry", 297),
            ("1 scooped cup", "wheat-flour", 152.64),
            ("1 spooned cup", "wheat-flour", 127.2),
            ("½ big ladle", "milk-whole", 128.75),
        ):
            with self.subTest(text=text, of=key):
                amount = MEASURES.read(text, LARDER[key])
                self.assertAlmostEqual(LARDER[key].grams(amount), grams, places=2)
        for text in ("1 knob", "3 furlongs"):
            with self.subTest(text), self.assertRaises(BadInput):
                MEASURES.read(text, LARDER["milk-whole"])

    def test_the_sheet_stands_by_itself(self) -> None:
        found = read(milk_in("5 ladles"))
        written = write_sheet(found)["steps"][1]["amount"]
        self.assertEqual(
            written,
            {
                "value": 600.0,
                "unit": "mL",
                "measure": {"name": "ladle", "count": 5.0, "spread_pct": 8.0},
            },
        )
        self.assertEqual(read_sheet(write_sheet(found)), found)

    def test_a_kitchens_own_tablespoon_of_twenty(self) -> None:
        own = MEASURES.with_rows(
            [
                measure_from_row(
                    {
                        "name": "tbsp",
                        "size": "20",
                        "unit": "mL",
                        "packing": "1",
                        "spread_pct": "5",
                        "kind": "spoon",
                    }
                )
            ]
        )
        self.assertEqual(read(milk_in("2 tbsp"), own).steps[1].amount.base, 40)
        self.assertEqual(read(milk_in("2 tbsp")).steps[1].amount.base, 30)
        # What is settled stays as it was measured.
        settled = milk_in({"value": 2, "unit": "tbsp"})
        self.assertEqual(read(settled, own).steps[1].amount.base, 30)

    def test_what_is_no_measure_is_refused_by_field(self) -> None:
        with self.assertRaises(BadInput) as caught:
            read(milk_in("3 furlongs"))
        self.assertIn("steps[1].amount", caught.exception.problems[0].field)

    def test_a_measure_that_is_none(self) -> None:
        for by in (
            "knob",
            {"name": "knob"},
            {"name": "", "count": 1, "spread_pct": 1},
            {"name": "k", "count": -1, "spread_pct": 1},
        ):
            with self.assertRaises(BadInput) as caught:
                read(milk_in({"value": 1, "unit": "L", "measure": by}))
            self.assertIn("measure", caught.exception.problems[0].field)

    def test_bad_rows_by_column(self) -> None:
        good = {
            "name": "dipper",
            "size": "90",
            "unit": "mL",
            "packing": "1",
            "spread_pct": "8",
            "kind": "ladle",
        }
        self.assertEqual(measure_from_row(good).size, 90)
        for change, field in (
            ({"size": "none"}, "size"),
            ({"unit": "cup"}, "unit"),
            ({"kind": "bucket"}, "kind"),
            ({"name": "3"}, "name"),
            ({"spread_pct": "300"}, "spread_pct"),
            ({"packing": "0"}, "packing"),
        ):
            with self.assertRaises(BadInput) as caught:
                measure_from_row({**good, **change})
            self.assertEqual(caught.exception.problems[0].field, field)


class SoftEdge(unittest.TestCase):
    def edge(self, flour: object) -> float:
        step = roux(66, 66)
        step["flour"]["amount"] = flour
        found = check(
            read({"name": "t", "steps": [step, *milk_in("1 L")["steps"][1:]]})
        ).final.thickness
        return found.high_pa_s / found.low_pa_s

    def test_vague_measures_widen_it(self) -> None:
        weighed, spooned = self.edge("66 g"), self.edge("0.5 spooned cup")
        heaped = self.edge("4 heaped tablespoons")
        self.assertLess(weighed * 1.05, spooned)
        self.assertLess(spooned * 1.1, heaped)

    def test_a_vague_liquid_counts_as_well(self) -> None:
        def edge(amount: str) -> float:
            found = check(read(milk_in(amount))).final.thickness
            return found.high_pa_s / found.low_pa_s

        self.assertGreater(edge("7 glasses"), 1.2 * edge("1.05 L"))

    def test_a_fifth_more_flour_about_doubles_the_viscosity(self) -> None:
        def eta(flour: str) -> float:
            step = roux(66, 66)
            step["flour"]["amount"] = flour
            document = {"name": "t", "steps": [step, *milk_in("1 L")["steps"][1:]]}
            return check(read(document)).final.thickness.viscosity_pa_s

        self.assertAlmostEqual(eta("1/2 scooped cup") / eta("1/2 spooned cup"), 2, delta=0.15)


class Rounding(unittest.TestCase):
    def test_by_hand_in_quarters(self) -> None:
        knobs = MEASURES.read("2.4 knobs", LARDER["butter-unsalted"])
        self.assertEqual(kitchen_round(knobs).measure.count, 2.5)
        self.assertEqual(kitchen_round(Amount(83.4, "g")).measure, None)

    def test_scaling_carries_the_measure_and_keeps_the_grade(self) -> None:
        steps = [dict(step) for step in CHEESE_SAUCE["steps"]]
        steps[1] = {**steps[1], "amount": "8 ladles"}
        case = read({**CHEESE_SAUCE, "steps": steps})
        goal = Goal(grade_named("binding").target, Amount(3, "L"))
        found = rounded_for_kitchen(solve(case, goal, Kitchen()).sheet, goal).sheet
        milk = found.steps[1].amount
        self.assertAlmostEqual(4 * milk.measure.count, round(4 * milk.measure.count), places=6)
        self.assertEqual(check(found).final.thickness.grade, "binding")


class TwoRules(unittest.TestCase):
    def test_only_where_they_do_not_meet(self) -> None:
        def said(minutes: float) -> bool:
            case = sheet(
                {"op": "add", "ingredient": "cream-35", "amount": "500 g"},
                {"op": "reduce", "to": {"share": 0.6}, "minutes": minutes, "heat": "lively"},
                pan={"diameter_cm": 24},
            )
            return any("which is followed" in str(text) for text in check(case).figures.warnings)

        self.assertTrue(said(2))
        self.assertTrue(said(90))
        self.assertFalse(said(12))


if __name__ == "__main__":
    unittest.main()


class Words(unittest.TestCase):
    """The words of a kitchen are read by the core itself, with how far hands differ."""

    def test_a_sheet_may_be_written_in_them(self) -> None:
        for amount, key, in_grams, spread in (
            ("2 knobs", "butter-unsalted", 30, 0.35),
            ({"value": 1, "unit": "glass"}, "wine-white-dry", 148.5, 0.2),
            ({"value": 1, "unit": "stick"}, "butter-unsalted", 113, 0.02),
            ("a splash", "anise-spirit", 14.4, 0.5),
            ("3 rashers", "bacon-streaky", 66, 0.25),
            ("2 cloves", "garlic", 10, 0.3),
            ("1 tub", "cream-35", 250, 0.1),
        ):
            step = {"op": "add", "ingredient": key, "amount": amount}
            with self.subTest(amount):
                read = sheet(step).steps[0].amount
                self.assertAlmostEqual(shipped_larder()[key].grams(read), in_grams, places=6)
                self.assertAlmostEqual(read.measure.spread, spread)

    def test_a_pinch_of_salt_need_not_name_it(self) -> None:
        read = sheet({"op": "season", "amount": "2 pinches"}).steps[0]
        self.assertAlmostEqual(read.amount.base, 0.8)
        self.assertEqual(read.amount.measure.count, 2)

    def test_they_widen_what_is_said_of_the_sauce(self) -> None:
        def edge(flour: str) -> float:
            roux = {
                "op": "roux",
                "fat": {"ingredient": "butter-unsalted", "amount": "60 g"},
                "flour": {"ingredient": "wheat-flour", "amount": flour},
            }
            found = check(sheet(roux, add("milk-whole", 1, "L"), simmer(5))).final.thickness
            return found.high_pa_s / found.viscosity_pa_s

        self.assertGreater(edge("5 heaped tablespoons"), 1.2 * edge("63.6 g"))
