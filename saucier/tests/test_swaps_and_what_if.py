"""Swaps and levers: the grade is kept or told, and everything else that moves is."""

import unittest

from saucier.check import check, larder_of
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.sheet import read_sheet
from saucier.starts import STARTS
from saucier.steps.step import amounts_in
from saucier.swaps import swaps_for
from saucier.testing import (
    CHEESE_SAUCE,
    CREAM_REDUCTION,
    add,
    grams,
    reduce_to,
    roux,
    sheet,
    simmer,
    trial_of,
)
from saucier.what_if import levers, pulled, thickness_curve

KITCHEN = Kitchen()


class Swaps(unittest.TestCase):
    def test_no_more_of_a_herb_than_a_cook_would_take(self) -> None:
        """Kin alone stands in, by its strength: spring onion for chives, never grams of cloves."""
        base = (roux(60, 60), add("milk-whole", 1, "L"), simmer(5))
        for key in ("chives", "thyme-leaves", "nutmeg", "paprika-sweet", "garlic", "basil"):
            case = sheet(*base, {"op": "finish", "ingredient": key, "amount": grams(8)})
            offered = {s.ingredient: s for s in swaps_for(case, key, KITCHEN) if s.sheet}
            with self.subTest(key):
                self.assertTrue(offered)
                for swap in offered.values():
                    row = KITCHEN.larder[swap.ingredient]
                    much = larder_of(swap.sheet)[row.key] * row.strength
                    self.assertLess(much, 1.4 * 8 * KITCHEN.larder[key].strength, row.key)
                    self.assertTrue(set(row.kin) & set(KITCHEN.larder[key].kin))
        chives = sheet(*base, {"op": "finish", "ingredient": "chives", "amount": grams(8)})
        offered = {s.ingredient for s in swaps_for(chives, "chives", KITCHEN)}
        self.assertIn("spring-onion", offered)
        self.assertFalse(offered & {"clove", "bay-leaf", "rosemary", "cayenne"})

    def test_a_stock_may_give_way_to_milk(self) -> None:
        case = sheet(roux(60, 60), add("stock-light", 1, "L"), simmer(5))
        roles = {KITCHEN.larder[s.ingredient].role for s in swaps_for(case, "stock-light", KITCHEN)}
        self.assertEqual(roles, {"stock", "milk"})

    def test_every_ingredient_of_every_start_keeps_grade_yield_and_salt(self) -> None:
        taken = 0
        starts = trial_of(STARTS[::2], 4)
        for start in starts:
            before = check(start).final
            keys = {key for step in start.steps for _, key, _ in amounts_in(step) if key}
            for key in sorted(keys):
                for swap in swaps_for(start, key, KITCHEN)[:3]:
                    if swap.sheet is None:
                        self.assertTrue(swap.refused)
                        continue
                    taken += 1
                    after = check(swap.sheet).final
                    with self.subTest(start=start.name, missing=key, swap=swap.ingredient):
                        self.assertEqual(after.thickness.grade, before.thickness.grade)
                        self.assertEqual(after.pot.split, before.pot.split)
                        ratio = after.pot.yield_ml / before.pot.yield_ml
                        self.assertAlmostEqual(ratio, 1, delta=0.06)
                        self.assertNotIn(
                            key, {k for step in swap.sheet.steps for _, k, _ in amounts_in(step)}
                        )
        self.assertGreater(taken, 8 * len(starts))

    def test_a_garnish_is_swapped_whatever_its_sauce_is(self) -> None:
        """In one that has no grade, cannot be solved, or is about to turn oily."""
        chives = {"op": "finish", "ingredient": "chives", "amount": grams(6)}
        for steps in (
            (add("butter-unsalted", 200),),
            (add("stock-light", 300),),
            (add("cream-35", 500), reduce_to(share=0.46)),
            (add("cream-35", 500), reduce_to(share=0.40)),
            (roux(100, 100), add("milk-whole", 300), simmer(3)),
        ):
            case = sheet(*steps, chives)
            swap = next(
                s for s in swaps_for(case, "chives", KITCHEN) if s.ingredient == "spring-onion"
            )
            with self.subTest(steps=[step["op"] for step in steps]):
                self.assertIsNotNone(swap.sheet, str(swap.refused))
                assert swap.sheet is not None
                was, now = check(case).final, check(swap.sheet).final
                self.assertEqual(now.thickness.grade, was.thickness.grade)

    def test_a_sauce_without_a_target_stays_as_thick_as_it_is(self) -> None:
        case = sheet(roux(60, 60), add("milk-whole", 1, "L"), simmer(5))
        self.assertIsNone(case.target.grade)
        for key in ("milk-whole", "wheat-flour"):
            for swap in swaps_for(case, key, KITCHEN):
                if swap.sheet is not None:
                    with self.subTest(key=key, swap=swap.ingredient):
                        self.assertEqual(check(swap.sheet).final.thickness.grade, "nappe")

    def test_what_ends_in_no_sauce_is_refused(self) -> None:
        yolk = {"ingredient": "egg-yolk", "amount": {"value": 3, "unit": "piece"}}
        cream = {"ingredient": "cream-35", "amount": grams(100)}
        liaison = {"op": "liaison", "yolk": yolk, "cream": cream, "heat_to_c": 80}
        case = sheet(add("stock-light", 200), liaison)
        self.assertEqual(check(case).final.thickness.grade, "pouring")
        white = next(s for s in swaps_for(case, "egg-yolk", KITCHEN) if s.ingredient == "egg-white")
        self.assertIsNone(white.sheet)

    def test_a_powder_in_place_of_what_sweats_is_stirred_in(self) -> None:
        sweat = {"op": "sweat", "ingredient": "garlic", "amount": grams(8)}
        case = sheet(add("butter-unsalted", 30), sweat, add("cream-35", 300), reduce_to(share=0.7))
        powder = next(
            s for s in swaps_for(case, "garlic", KITCHEN) if s.ingredient == "garlic-powder"
        )
        assert powder.sheet is not None
        self.assertEqual(powder.sheet.steps[1].op, "add")

    def test_allergens_gained_and_lost_are_told(self) -> None:
        start = next(s for s in STARTS if s.name == "Velouté")
        found = {swap.ingredient: swap for swap in swaps_for(start, "stock-light", KITCHEN)}
        self.assertEqual(found["stock-fish"].gains, ("fish",))
        self.assertEqual(found["milk-whole"].loses, ("celery",))

    def test_what_splits_at_the_boil_says_so(self) -> None:
        found = {
            s.ingredient: s for s in swaps_for(read_sheet(CREAM_REDUCTION), "cream-35", KITCHEN)
        }
        self.assertTrue(any("may simmer" in str(t) for t in found["creme-fraiche-30"].changes))
        self.assertTrue(any("splits" in str(t) for t in found["soured-cream-20"].changes))
        self.assertIsNone(found["yogurt-plain"].sheet)
        self.assertIn("gives pouring", str(found["yogurt-plain"].refused))

    def test_what_is_held_back_is_swapped_too(self) -> None:
        held = {"op": "correct", "hold": "liquid", "ingredient": "milk-whole"}
        steps = [*CHEESE_SAUCE["steps"][:-1], held]
        swaps = swaps_for(read_sheet({**CHEESE_SAUCE, "steps": steps}), "milk-whole", KITCHEN)
        taken = next(s for s in swaps if s.sheet is not None)
        self.assertNotIn("milk-whole", {key for step in taken.sheet.steps for key in step.names()})

    def test_salted_butter_needs_less_salt(self) -> None:
        case = read_sheet(CHEESE_SAUCE)
        salted = next(
            s
            for s in swaps_for(case, "butter-unsalted", KITCHEN)
            if s.ingredient == "butter-salted"
        )
        self.assertAlmostEqual(check(salted.sheet).figures.salt_pct, 0.9, delta=0.005)

    def test_what_is_not_in_it(self) -> None:
        for key in ("brandy", "unobtainium"):
            with self.assertRaises(BadInput) as caught:
                swaps_for(read_sheet(CHEESE_SAUCE), key, KITCHEN)
            self.assertEqual(caught.exception.problems[0].field, "ingredient")


class WhatIf(unittest.TestCase):
    def test_every_lever_of_every_start_moves_something(self) -> None:
        for start in STARTS:
            before = check(start).figures
            for lever in levers(start, KITCHEN):
                value = lever.low + 0.75 * (lever.high - lever.low)
                if value == lever.value:
                    value = lever.high
                after = check(pulled(start, {lever.key: value}, KITCHEN)).figures
                with self.subTest(start=start.name, lever=lever.key):
                    self.assertNotEqual(before, after)

    def test_a_spoonful_that_boils_dry_at_once_has_a_lever_too(self) -> None:
        for cream, minutes in ((12, 0.5), (20, 1), (25, 1.5), (40, 1)):
            little = sheet(add("cream-35", cream), simmer(minutes, "lively"))
            lever = next(one for one in levers(little, KITCHEN) if one.key == "simmer")
            self.assertTrue(minutes <= lever.high < 4, (cream, lever.high))
            check(pulled(little, {"simmer": lever.high}, KITCHEN))

    def test_at_rest_nothing_moves(self) -> None:
        case = read_sheet(CHEESE_SAUCE)
        rest = {lever.key: lever.value for lever in levers(case, KITCHEN)}
        self.assertEqual(check(pulled(case, rest, KITCHEN)).figures, check(case).figures)

    def test_flour_thickens_and_serving_hotter_thins(self) -> None:
        case = read_sheet(CHEESE_SAUCE)
        eta = [
            check(pulled(case, {"flour": f}, KITCHEN)).final.thickness.viscosity_pa_s
            for f in (80, 100, 120)
        ]
        self.assertEqual(eta, sorted(eta))
        self.assertAlmostEqual(eta[2] / eta[1], 1.2**3.7, delta=0.25)
        hot = check(pulled(case, {"serving": 85}, KITCHEN)).final.thickness.viscosity_pa_s
        self.assertLess(hot, eta[1])

    def test_reduction_lever_stays_off_the_floor(self) -> None:
        case = sheet(add("cream-35", 500), reduce_to(share=0.6))
        lever = next(one for one in levers(case, KITCHEN) if one.key == "reduction")
        self.assertEqual(lever.value, 60)
        check(pulled(case, {"reduction": lever.low}, KITCHEN))

    def test_the_fridge_end_is_marked_as_set(self) -> None:
        curve = thickness_curve(check(read_sheet(CHEESE_SAUCE)))
        cold = [point for point in curve if point.temperature_c < 40]
        self.assertTrue(all(point.set and point.viscosity_pa_s is None for point in cold))
        warm = [point.viscosity_pa_s for point in curve if point.temperature_c >= 40]
        self.assertEqual(warm, sorted(warm, reverse=True))

    def test_out_of_reach_names_the_lever(self) -> None:
        case = read_sheet(CHEESE_SAUCE)
        for pulls, field in (({"flour": 900}, "pulls.flour"), ({"mood": 1}, "pulls.mood")):
            with self.assertRaises(BadInput) as caught:
                pulled(case, pulls, KITCHEN)
            self.assertEqual(caught.exception.problems[0].field, field)


if __name__ == "__main__":
    unittest.main()
