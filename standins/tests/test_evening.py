"""The true pots of a simulated evening: nothing comes from nowhere, and heat and shares do what they do."""

import random
import unittest

from standins.evening.dishes import DISHES, SAUCES, drawn
from standins.evening.foods import FOODS, grams_of
from standins.evening.pots import Pot, Tray, grade_of
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
