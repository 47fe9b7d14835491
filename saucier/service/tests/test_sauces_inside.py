"""Sauces made first in a service: bought to the gram, weighed, in pans of their own."""

import random
import unittest

from saucier.check import larder_of
from saucier.dish import read_dish
from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.service import Plan, plan_service, production_of, read_service, short_of
from saucier.starts import STARTS
from saucier.units import Amount

KITCHEN = Kitchen()
PANS = [Pan(f"pot {d}", "straight", d, 0.6 * d) for d in (16, 20, 24, 28, 32)]
NAMES = (
    "Onion purée bound with white sauce",
    "Soft fennel in velouté",
    "Infused white sauce",
    "White sauce",
    "Velouté",
)
SHEETS = {str(n): next(s for s in STARTS if s.name == name) for n, name in enumerate(NAMES)}
DISHES = {
    key: read_dish({"name": sheet.name, "sauces": [{"sauce": key, "use": "over"}]})
    for key, sheet in SHEETS.items()
}


def planned(portions: dict[str, float], **rest: object) -> Plan:
    lines = [{"dish": key, "portions": n} for key, n in portions.items()]
    service = read_service({"name": "day", "lines": lines, **rest})
    return plan_service(service, DISHES, SHEETS, KITCHEN, PANS)


class Bought(unittest.TestCase):
    def test_what_is_bought_is_what_goes_into_every_pot(self) -> None:
        dice = random.Random(3)
        for _ in range(12):
            plan = planned({key: float(dice.randint(2, 60)) for key in SHEETS})
            production = production_of(plan, KITCHEN)
            goes_in: dict[str, float] = {}
            mothers = {pot.key for pot in plan.pots if pot.mother}
            sheets = [(pot.sheet, pot.batches) for pot in plan.pots]
            sheets += [(b.sheet, 1) for b in plan.branches if b.pot in mothers]
            for sheet, batches in sheets:
                for key, grams in larder_of(sheet, KITCHEN).items():
                    goes_in[key] = goes_in.get(key, 0.0) + grams * batches
            bought = {row.ingredient: row.used_g for row in production.buy}
            for key, grams in goes_in.items():
                self.assertAlmostEqual(bought[key], grams, delta=0.02 * grams + 0.5, msg=key)

    def test_each_has_its_pot_its_weights_and_its_place_in_the_order(self) -> None:
        plan = planned({"0": 20, "1": 20, "2": 20})
        self.assertEqual(len(plan.first), 3)
        production = production_of(plan, KITCHEN)
        keys = [one.key for one in production.weigh]
        for first in plan.first:
            self.assertLess(keys.index(first.key), keys.index(first.of))
            self.assertIn(first.name, " ".join(map(str, production.prepare)))
            self.assertEqual(plan.to_cook(first.key)[2], first.made.sheet)
            self.assertLessEqual(first.used_g, first.made_g * 1.01)

    def test_short_of_what_goes_in_there(self) -> None:
        def again(service: object) -> Plan:
            return plan_service(service, DISHES, SHEETS, KITCHEN, PANS)  # type: ignore[arg-type]

        plan = planned({"0": 40})
        need = short_of(plan, "milk-whole", Amount(99, "L"), KITCHEN, again).need_g
        self.assertGreater(need, 500)
        short = short_of(plan, "milk-whole", Amount(0.5 * need, "g"), KITCHEN, again)
        self.assertTrue(15 <= short.lines[0].all_alike <= 21)

    def test_a_hundred_litres_in_batches(self) -> None:
        plan = planned({"0": 900})
        [first], [pot] = plan.first, plan.pots
        self.assertGreater(pot.batches, 1)
        self.assertEqual(first.batches, pot.batches)
        self.assertLess(first.made_g, 1000 * 12)
