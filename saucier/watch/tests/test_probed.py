"""A probe at a step: what it says of tempering, of cheese, of a middle."""

import unittest

from saucier.check import check
from saucier.testing import add, melt, roux, sheet, simmer
from saucier.watch import probed

LIAISON = {
    "op": "liaison",
    "yolk": {"ingredient": "egg-yolk", "amount": {"value": 3, "unit": "piece"}},
    "cream": {"ingredient": "cream-35", "amount": {"value": 100, "unit": "g"}},
    "heat_to_c": 80,
}


class Tempering(unittest.TestCase):
    BOUND = check(sheet(roux(50, 50), add("stock-light", 1000), simmer(5), LIAISON))
    BARE = check(sheet(add("stock-light", 1000), simmer(5), LIAISON))

    def told(self, checked, at_c: float):
        number = len(checked.sheet.steps) - 1
        return probed(checked, number, checked.steps[number - 1].pot, at_c)

    def test_every_ladle_comes_once_and_in_order(self) -> None:
        step = self.BOUND.sheet.steps[-1]
        ladles = step.ladles(self.BOUND.settings[-1], self.BOUND.steps[-2].pot)
        numbers = []
        for at_c in range(5, int(ladles[-1].temperature_c) - 3):
            found = self.told(self.BOUND, float(at_c))
            self.assertEqual(found.words.code, "probe.ladle")
            self.assertLessEqual(found.to_c, 65.0)
            numbers.append(found.words.facts["number"])
        self.assertEqual(sorted(set(numbers)), list(range(1, len(ladles) + 1)))
        self.assertEqual(numbers, sorted(numbers))

    def test_then_all_in_and_on_to_where_yolk_sets(self) -> None:
        last = self.BOUND.sheet.steps[-1].ladles(self.BOUND.settings[-1], self.BOUND.steps[-2].pot)[
            -1
        ]
        codes = [
            self.told(self.BOUND, at_c).words.code
            for at_c in (last.temperature_c, 72.0, 80.0, 95.0)
        ]
        self.assertEqual(
            codes,
            ["probe.all-in-and-warm", "probe.yolk-warming", "probe.yolk-there", "probe.yolk-there"],
        )

    def test_without_flour_it_must_not_go_on(self) -> None:
        self.assertEqual(self.told(self.BARE, 84.0).how, "above")
        self.assertEqual(self.told(self.BARE, 81.0).how, "there")


class Others(unittest.TestCase):
    def test_cheese_waits_until_it_is_cool_enough(self) -> None:
        checked = check(sheet(add("milk-whole", 500), melt("cheese-hard-alpine", 60)))
        pot = checked.steps[0].pot
        self.assertEqual(probed(checked, 1, pot, 92.0).how, "above")
        self.assertEqual(probed(checked, 1, pot, 78.0).how, "there")

    def test_the_middle_goes_by_what_it_is(self) -> None:
        back = {
            "op": "return",
            "ingredient": "guinea-fowl",
            "amount": {"value": 300, "unit": "g"},
        }
        checked = check(sheet(add("cream-35", 500), back))
        pot = checked.steps[0].pot
        self.assertEqual(probed(checked, 1, pot, 70.0).how, "below")
        self.assertEqual(probed(checked, 1, pot, 74.0).how, "there")
        self.assertIn("own rule", str(probed(checked, 1, pot, 74.0).words))

    def test_a_finished_sauce_is_held_and_a_roux_asks_for_nothing(self) -> None:
        checked = check(sheet(roux(50, 50), add("milk-whole", 1000), simmer(5)))
        self.assertIsNone(probed(checked, 0, checked.steps[0].pot, 120.0))
        self.assertEqual(probed(checked, 3, checked.final.pot, 60.0).how, "below")
