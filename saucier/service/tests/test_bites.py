"""Small slips in a service that once went unseen."""

import unittest
from types import SimpleNamespace

from saucier.check import check
from saucier.dish import read_dish
from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.mother import BranchGoal
from saucier.mother.branch import _near
from saucier.service import Plan, plan_service, production_of, read_service
from saucier.testing import add, roux, sheet, simmer

KITCHEN = Kitchen()
PANS = [Pan("pot 24", "straight", 24, 13), Pan("pot 20", "straight", 20, 11)]
ONION = sheet(
    add("butter-unsalted", 40),
    {"op": "sweat", "ingredient": "onion", "amount": {"value": 200, "unit": "g"}},
    add("milk-whole", 500),
    name="onion",
)


def planned(sheets: dict, toppings: list | None = None) -> Plan:
    dishes = {
        key: read_dish(
            {
                "name": key,
                "sauces": [{"sauce": key, "use": "pool", "per_ml": 60}],
                "solids": [{"ingredient": "leek", "grams": 100}],
                "toppings": toppings or [],
            }
        )
        for key in sheets
    }
    lines = [{"dish": key, "portions": 10} for key in sheets]
    service = read_service({"name": "test", "lines": lines})
    return plan_service(service, dishes, sheets, KITCHEN, PANS)


class Service(unittest.TestCase):
    def test_a_toppings_allergens_and_cost_reach_the_dish(self) -> None:
        plain = planned({"onion": ONION}).lines[0]
        nutty = planned({"onion": ONION}, [{"ingredient": "walnuts", "grams": 8}]).lines[0]
        self.assertEqual(set(nutty.allergens) - set(plain.allergens), {"nuts"})
        self.assertAlmostEqual(nutty.cost - plain.cost, 10 * 0.008 * 15)

    def test_two_toppings_of_one_thing_are_both_bought(self) -> None:
        coat = {"ingredient": "walnuts", "grams": 5, "place": "coating"}
        once = planned({"onion": ONION}, [{"ingredient": "walnuts", "grams": 8}]).lines[0]
        both = planned({"onion": ONION}, [{"ingredient": "walnuts", "grams": 8}, coat]).lines[0]
        self.assertAlmostEqual(both.cost - once.cost, 10 * 0.005 * 15)

    def test_what_pasta_drinks_is_told_where_the_guest_meets_it(self) -> None:
        white = sheet(roux(24, 24), add("milk-whole", 500), simmer(5), name="w")
        dishes = {
            name: read_dish(
                {
                    "name": name,
                    "sauces": [{"sauce": "w", "use": "pasta-baked"}],
                    "solids": [{"ingredient": food, "grams": 100, "state": "dry"}],
                    "plate_c": 65,
                }
            )
            for name, food in (("pasta", "pasta-dry"), ("grain", "barley-pearl"))
        }
        lines = [{"dish": name, "portions": 10} for name in dishes]
        service = read_service({"name": "test", "lines": lines})
        plan = plan_service(service, dishes, {"w": white}, KITCHEN, PANS)
        pasta, grain = (str(line.on_plate[0]) for line in plan.lines)
        self.assertNotEqual(pasta.split(" at ")[0], grain.split(" at ")[0])

    def test_trim_of_sauce_and_topping_is_bought_and_paid_for(self) -> None:
        plan = planned({"onion": ONION}, [{"ingredient": "parsley", "grams": 7}])
        production = production_of(plan, KITCHEN)
        bought = {row.ingredient: row for row in production.buy}
        onion = bought["onion"]
        self.assertAlmostEqual(onion.bought_g, onion.used_g / 0.88, delta=5)
        self.assertAlmostEqual(bought["parsley"].bought_g, 70 / 0.70, delta=0.5)
        # What the lines cost is what is bought, but for what clings and is left.
        self.assertAlmostEqual(
            sum(row.cost for row in production.buy), plan.lines[0].cost, delta=0.15
        )
        pot = check(sheet(add("onion", 880))).final.pot
        self.assertAlmostEqual(pot.cost, 1.6)

    def test_the_mother_simmers_as_long_as_her_longest_branch(self) -> None:
        quick, slow = (
            sheet(
                roux(60, 60),
                add("milk-whole", 1000),
                simmer(minutes),
                name=f"{minutes} min",
                target={"grade": grade},
            )
            for minutes, grade in ((4, "nappe"), (22, "binding"))
        )
        mother = planned({"quick": quick, "slow": slow}).pots[0]
        self.assertTrue(mother.mother)
        self.assertEqual(mother.sheet.steps[-1].minutes, 22)

    def test_a_branch_is_rather_over_than_short(self) -> None:
        goal = BranchGoal("x", ONION, 1000.0, 0.7, 65.0)
        for ml, near in ((994, False), (997, True), (1007, True), (1009, False)):
            final = SimpleNamespace(pot=SimpleNamespace(yield_ml=ml))
            self.assertIs(_near(final, goal), near, ml)


if __name__ == "__main__":
    unittest.main()
