"""Which pan every pot of a service gets: for its heaviest moment, the cook's word first, and nothing
given twice without a word."""

import unittest
from typing import Any

from saucier.check import check
from saucier.dish import read_dish
from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.service import Plan, plan_service, read_service
from saucier.sheet import Sheet
from saucier.testing import add, melt, reduce_to, roux, sheet, simmer

KITCHEN = Kitchen()
SMALL, MIDDLE, WIDE = (
    Pan("saucepan 16", "straight", 16, 9),
    Pan("saucepan 20", "straight", 20, 11),
    Pan("sauteuse 30", "sloped", 30, 9),
)
IRON = Pan("iron 30", "sloped", 30, 9, reactive=True)
TARGET = {"grade": "light-coat", "volume": {"value": 0.5, "unit": "L"}}
CREAM = sheet(
    add("wine-white-dry", 120),
    {"op": "reduce", "to": "nearly-dry"},
    add("stock-chicken", 600),
    reduce_to(share=0.25),
    add("cream-35", 600),
    reduce_to(share=0.6),
    name="cream",
    target=TARGET,
)
WHITE = sheet(
    roux(60, 60), add("milk-whole", 1000), simmer(5), name="white", target={"grade": "nappe"}
)
CHEESE = sheet(
    roux(60, 60),
    add("milk-whole", 1000),
    simmer(5),
    melt("cheese-hard-alpine", 120),
    name="cheese",
    target={"grade": "binding"},
)


def dish(name: str, ml: float) -> Any:
    return read_dish({"name": name, "sauces": [{"sauce": name, "use": "pool", "per_ml": ml}]})


def planned(there: list[Pan], sheets: dict[str, Sheet], portions: int = 10, **service: Any) -> Plan:
    lines = [{"dish": key, "portions": portions} for key in sheets]
    dishes = {key: dish(key, 60) for key in sheets}
    document = read_service({"name": "test", "lines": lines, **service})
    return plan_service(document, dishes, sheets, KITCHEN, there)


class PansOfPots(unittest.TestCase):
    def test_a_reduction_gets_the_pan_its_heaviest_moment_needs(self) -> None:
        """630 mL in the end would fit the small pan; what goes in before would not."""
        pot = planned([SMALL, MIDDLE, WIDE], {"cream": CREAM}).pots[0]
        fullest = max(state.pot.total_ml for state in pot.checked.steps)
        self.assertGreater(fullest, 1.3 * pot.made_ml)
        self.assertEqual(pot.pan.name, "sauteuse 30")
        self.assertLessEqual(fullest, pot.pan.capacity_ml)
        self.assertFalse(any("under a quarter" in str(note) for note in pot.notes))

    def test_a_sheets_own_pan_is_respected_where_it_holds_the_batch(self) -> None:
        own = {"name": "mine", "diameter_cm": 22, "depth_cm": 10}
        mine = sheet(*_steps(CREAM), name="cream", target=TARGET, pan=own)
        self.assertEqual(planned([SMALL, WIDE], {"cream": mine}).pots[0].pan.name, "mine")
        many = planned([SMALL, WIDE], {"cream": mine}, portions=40).pots[0]
        self.assertEqual(many.pan.name, "sauteuse 30")
        self.assertTrue(any("its own pan, does not hold" in str(note) for note in many.notes))

    def test_the_cook_chooses(self) -> None:
        chosen = planned(
            [SMALL, MIDDLE, WIDE], {"cream": CREAM}, pans={"own-cream~light-coat": "saucepan 20"}
        )
        pot = chosen.pots[0]
        self.assertEqual(pot.pan.name, "saucepan 20")
        self.assertEqual(check(pot.sheet, KITCHEN).final.thickness.grade, "light-coat")
        gone = planned([WIDE], {"cream": CREAM}, pans={"own-cream~light-coat": "sold"})
        self.assertEqual(gone.pots[0].pan.name, "sauteuse 30")
        self.assertTrue(any("not in the larder any more" in str(text) for text in gone.warnings))

    def test_a_mothers_pan_and_a_branchs_may_be_chosen_too(self) -> None:
        pans = [SMALL, MIDDLE, WIDE, Pan("stewpan 28", "straight", 28, 16)]
        plan = planned(
            pans,
            {"white": WHITE, "cheese": CHEESE},
            pans={
                "mother-white-milk-whole-butter-unsalted-wheat-flour": "stewpan 28",
                "cheese~binding": "saucepan 20",
            },
        )
        self.assertEqual(plan.pots[0].pan.name, "stewpan 28")
        cheese = next(b for b in plan.branches if b.sauce == "cheese")
        self.assertEqual(cheese.pan, "saucepan 20")
        self.assertEqual(cheese.sheet.pan.name, "saucepan 20")  # worked out for it, too
        self.assertEqual(cheese.final.thickness.grade, "binding")

    def test_no_pan_is_given_twice_without_a_word(self) -> None:
        other = sheet(*_steps(CREAM)[2:], name="other", target=TARGET)
        plan = planned([WIDE], {"cream": CREAM, "other": other})
        self.assertEqual({pot.pan.name for pot in plan.pots}, {"sauteuse 30"})
        told = [note for pot in plan.pots for note in pot.notes]
        self.assertTrue(any("before: it had" in str(note) for note in told))
        apart = planned(
            [WIDE, Pan("sauteuse 32", "sloped", 32, 9)], {"cream": CREAM, "other": other}
        )
        self.assertEqual(len({pot.pan.name for pot in apart.pots}), 2)

    def test_bare_metal_never_for_what_is_sour_and_told_where_it_is_chosen(self) -> None:
        self.assertEqual(planned([IRON, WIDE], {"cream": CREAM}).pots[0].pan.name, "sauteuse 30")
        taken = planned(
            [IRON, WIDE], {"cream": CREAM}, pans={"own-cream~light-coat": "iron 30"}
        ).pots[0]
        self.assertTrue(any("bare metal" in str(note) for note in taken.notes))

    def test_a_sauce_that_turns_gets_what_is_sound_and_takes_no_plan_away(self) -> None:
        broken = sheet(add("cream-35", 500), reduce_to(share=0.42), name="broken")
        plan = planned([MIDDLE, WIDE], {"broken": broken, "white": WHITE})
        self.assertEqual({pot.name for pot in plan.pots}, {"broken", "white"})
        made = next(b for b in plan.branches if b.sauce == "broken")
        self.assertIn(made.final.emulsion, ("stable", "caution"))
        self.assertTrue(any("turns oily" in str(text) for text in plan.warnings))

    def test_a_grade_that_cannot_be_had_gets_the_nearest_and_says_so(self) -> None:
        stiff = sheet(
            add("cream-35", 600),
            reduce_to(share=0.6),
            name="cream",
            target={**TARGET, "grade": "panade"},
        )
        plan = planned([WIDE], {"cream": stiff})
        self.assertEqual(plan.branches[0].final.thickness.grade, "spreading")
        self.assertIn(plan.branches[0].final.emulsion, ("stable", "caution"))
        made = plan.branches[0]
        self.assertAlmostEqual(made.made_ml / (made.need_ml + made.film_ml), 1, delta=0.02)
        self.assertTrue(any("cannot be brought to panade" in str(text) for text in plan.warnings))


class Guests(unittest.TestCase):
    """What a guest goes without is looked for wherever a step names it."""

    def final(self, case: Sheet, without: list[str]) -> Any:
        lines = [{"dish": "s", "portions": 4, "without": without}]
        document = read_service({"name": "test", "lines": lines})
        return plan_service(document, {"s": dish("s", 60)}, {"s": case}, KITCHEN, [WIDE])

    def test_nothing_held_back_lifted_or_seared_brings_it_in(self) -> None:
        held = sheet(
            roux(30, 30),
            add("stock-vegetable", 600),
            simmer(5),
            {"op": "correct", "hold": "liquid", "ingredient": "milk-whole"},
            {"op": "sear", "ingredient": "prawns-peeled", "amount": {"value": 90, "unit": "g"}},
            {"op": "return", "ingredient": "prawns-peeled"},
            {"op": "mend", "ingredient": "cream-35", "amount": {"value": 9, "unit": "g"}},
            name="held",
        )
        oiled = held.steps[0].model_copy(
            update={"fat": held.steps[0].fat.model_copy(update={"ingredient": "oil-neutral"})}
        )
        held = held.model_copy(update={"steps": (oiled, *held.steps[1:])})
        plain = self.final(held, []).branches[0].final.pot.allergens
        self.assertLessEqual({"milk", "crustaceans"}, plain)
        guest = self.final(held, ["milk", "crustaceans"]).branches[0]
        self.assertFalse({"milk", "crustaceans"} & guest.final.pot.allergens)
        self.assertEqual([step.op for step in guest.sheet.steps], ["roux", "add", "simmer"])

    def test_flour_held_back_is_flour(self) -> None:
        thin = sheet(
            add("stock-vegetable", 600),
            {"op": "dust", "ingredient": "corn-starch", "amount": {"value": 18, "unit": "g"}},
            simmer(5),
            {"op": "correct", "hold": "roux"},
            name="thin",
        )
        self.assertIn("gluten", self.final(thin, []).branches[0].final.pot.allergens)
        guest = self.final(thin, ["gluten"]).branches[0]
        self.assertNotIn("gluten", guest.final.pot.allergens)

    def test_a_sauce_corrected_at_the_end_comes_from_a_mother_too(self) -> None:
        held = sheet(
            *_steps(WHITE),
            {"op": "correct", "hold": "liquid", "ingredient": "milk-whole"},
            name="held",
            target={"grade": "nappe"},
        )
        plan = planned([SMALL, MIDDLE, WIDE], {"held": held, "cheese": CHEESE})
        branch = next(b for b in plan.branches if b.sauce == "held")
        self.assertEqual(
            (branch.pot, branch.final.thickness.grade),
            ("mother-white-milk-whole-butter-unsalted-wheat-flour", "nappe"),
        )


def _steps(case: Sheet) -> list[dict[str, Any]]:
    return [step.model_dump(mode="json", exclude_none=True) for step in case.steps]


if __name__ == "__main__":
    unittest.main()
