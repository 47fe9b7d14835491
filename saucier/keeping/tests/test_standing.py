"""How a sauce stands hot and keeps is one thing wherever it is asked."""

import unittest

from saucier.check import check
from saucier.heat import Pan
from saucier.keeping import held_hot, keeps, stands_hot
from saucier.pot import Pot
from saucier.testing import add, grams, melt, reduce_to, roux, sheet, simmer

PAN = Pan("24", "straight", 24, 12)


def made(*steps: dict) -> Pot:
    return check(sheet(*steps)).final.pot


def mount(amount_g: float) -> dict:
    return {"op": "mount", "ingredient": "butter-unsalted", "amount": grams(amount_g)}


FLOUR = (roux(60, 60), add("milk-whole", 1000), simmer(5))
CREAM = (add("cream-35", 500), reduce_to(share=0.6))


class OneAnswer(unittest.TestCase):
    def test_the_same_butter_keeps_as_long_in_a_flour_sauce_as_in_a_cream(self) -> None:
        self.assertEqual(keeps(made(*FLOUR, mount(40))).days, 2)
        self.assertEqual(keeps(made(*CREAM, mount(40))).days, 2)
        self.assertEqual(keeps(made(*FLOUR, mount(40))).words.code, "keeps.chilled-with-butter")

    def test_butter_that_only_its_liquid_holds_is_for_the_service(self) -> None:
        bare = made(add("wine-white-dry", 200), reduce_to(share=0.4), mount(150))
        self.assertEqual((keeps(bare).days, stands_hot(bare).minutes), (0, 10.0))
        much = made(*FLOUR, mount(150))  # more than its flour holds
        self.assertEqual(keeps(much).days, 0)

    def test_soft_cream_is_for_the_service_unless_flour_holds_it(self) -> None:
        soured = {"op": "finish", "ingredient": "soured-cream-20", "amount": grams(80)}
        self.assertEqual(keeps(made(add("stock-light", 300), soured)).days, 0)
        self.assertEqual(keeps(made(*FLOUR, soured)).days, 2)

    def test_kept_hot_ends_where_the_plan_of_a_service_lets_it_wait(self) -> None:
        for steps, minutes in (
            (FLOUR, 90.0),
            (CREAM, 60.0),
            ((*FLOUR, melt("cheese-semi-hard", 100)), 60.0),
            ((add("cream-35", 500), reduce_to(share=0.5)), 20.0),
        ):
            pot = made(*steps)
            with self.subTest(minutes):
                self.assertEqual(stands_hot(pot).minutes, minutes)
                self.assertEqual(held_hot(pot, PAN, 65, True, 63).after[-1].minutes, minutes)
        green = held_hot(made(*FLOUR), PAN, 65, True, 63, green=True)
        self.assertEqual([after.minutes for after in green.after], [15.0])
        self.assertIn("green", str(green.stands))


if __name__ == "__main__":
    unittest.main()
