import math
import unittest

from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import brentq

from saucier.check import check
from saucier.errors import BadInput
from saucier.roots import find_root
from saucier.sheet import Sheet, read_sheet, write_sheet
from saucier.sheet.salting import with_salt_target
from saucier.solve import Have, goal_of, rounded_for_kitchen, solve
from saucier.testing import (
    CHEESE_SAUCE,
    CREAM_REDUCTION,
    GRADED,
    add,
    reduce_to,
    roux,
    roux_sheets,
    sheet,
    simmer,
    white_sauce,
)
from saucier.thickness import grade_named
from saucier.units import Amount
from saucier.units.rounding import kitchen_step


class SolveThenCheck(unittest.TestCase):
    @given(roux_sheets(), st.sampled_from(GRADED[1:]), st.floats(0.8, 30))
    def test_lands_on_grade_and_yield(self, case: Sheet, grade: str, litres: float) -> None:
        goal = goal_of(case, grade, Amount(litres, "L"))
        try:
            solved = solve(case, goal)
        except BadInput as bad:
            self.assertIn(bad.problems[0].field, ("grade", "volume"))
            return
        final = check(solved.sheet).final
        target = grade_named(grade).target
        self.assertAlmostEqual(final.thickness.viscosity_pa_s / target, 1, delta=1e-3)
        self.assertAlmostEqual(final.pot.balance.volume_ml / 1000 / litres, 1, delta=1e-3)

    @given(roux_sheets(), st.floats(1, 20))
    def test_rounding_keeps_the_grade(self, case: Sheet, litres: float) -> None:
        goal = goal_of(case, "nappe", Amount(litres, "L"))
        try:
            solved = solve(case, goal).sheet
        except BadInput:
            return
        rounded = rounded_for_kitchen(solved, goal)
        final = check(rounded.sheet).final
        self.assertEqual(final.thickness.grade, "nappe")
        self.assertAlmostEqual(final.pot.balance.volume_ml / 1000 / litres, 1, delta=0.01)
        for step in rounded.sheet.steps:
            if step.op == "add" and rounded.fineness == 1.0:
                steps_of_it = step.amount.value / kitchen_step(step.amount)
                self.assertAlmostEqual(steps_of_it, round(steps_of_it), places=6)

    def test_plain_multiplication_would_miss(self) -> None:
        """A long simmer in a wide pan: times five boils off far less of the batch."""
        case = sheet(
            roux(60, 60),
            add("milk-whole", 1, "L"),
            simmer(15, "lively"),
            pan={"diameter_cm": 28, "depth_cm": 30},
        )
        one = check(case).final.thickness
        times_five = sheet(
            roux(300, 300),
            add("milk-whole", 5, "L"),
            simmer(15, "lively"),
            pan={"diameter_cm": 28, "depth_cm": 30},
        )
        self.assertEqual(one.grade, "binding")
        self.assertEqual(check(times_five).final.thickness.grade, "nappe")
        volume = check(case).final.pot.balance.volume_ml * 5
        solved = solve(case, goal_of(case, None, Amount(volume, "mL"))).sheet
        final = check(solved).final
        self.assertAlmostEqual(final.thickness.viscosity_pa_s / one.viscosity_pa_s, 1, delta=1e-3)
        self.assertAlmostEqual(final.pot.balance.volume_ml / volume, 1, delta=1e-3)

    def test_reduction_is_free_where_there_is_no_roux(self) -> None:
        case = read_sheet(CREAM_REDUCTION)
        for grade in ("light-coat", "nappe", "binding"):
            solved = solve(case, goal_of(case, grade))
            self.assertEqual(solved.free, "reduction")
            final = check(solved.sheet).final
            self.assertEqual(final.thickness.grade, grade)
            self.assertAlmostEqual(final.pot.balance.volume_ml, 500, delta=0.5)

    def test_fat_follows_the_method(self) -> None:
        case = sheet(roux(80, 80), add("milk-whole", 1000), simmer(5), method={"fat_to_flour": 1.5})
        (step, *_) = solve(case, goal_of(case, "nappe")).sheet.steps
        self.assertAlmostEqual(step.fat.amount.base / step.flour.amount.base, 1.5)

    def test_darker_roux_is_given_more_flour(self) -> None:
        found = []
        for colour in ("white", "brown"):
            case = sheet(roux(60, 60, colour), add("milk-whole", 1000), simmer(5))
            found.append(solve(case, goal_of(case, "nappe")).sheet.steps[0].flour.amount.base)
        self.assertAlmostEqual(found[1] / found[0], 1 / 0.67, delta=0.03)

    def test_the_one_ingredient_there_is(self) -> None:
        case = read_sheet(CHEESE_SAUCE)
        for key, amount in (
            ("milk-whole", Amount(900, "mL")),
            ("butter-unsalted", Amount(50, "g")),
            ("wheat-flour", Amount(1, "cup")),
            ("cheese-hard-alpine", Amount(95, "g")),
        ):
            solved = solve(case, goal_of(case, have=Have(key, amount))).sheet
            used = [
                part.amount
                for step in solved.steps
                for part in ((step.fat, step.flour) if step.op == "roux" else (step,))
                if getattr(part, "ingredient", None) == key and isinstance(part.amount, Amount)
            ]
            from saucier.larder import shipped_larder

            row = shipped_larder()[key]
            self.assertAlmostEqual(
                sum(row.grams(a) for a in used) / row.grams(amount), 1, delta=1e-3
            )
            self.assertEqual(check(solved).final.thickness.grade, "binding")

    def test_salt_target(self) -> None:
        case = with_salt_target(white_sauce(66), 0.75)
        self.assertAlmostEqual(check(case).figures.salt_pct, 0.75, places=4)
        self.assertEqual(len(with_salt_target(case, "0.6").steps), len(case.steps))
        for bad in (-1, 99, "salty", float("nan")):
            with self.assertRaises(BadInput):
                with_salt_target(case, bad)


class Unreachable(unittest.TestCase):
    def problem(self, case: Sheet, **goal: object):
        with self.assertRaises(BadInput) as caught:
            solve(case, goal_of(case, **goal))
        return caught.exception.problems[0]

    def test_says_the_nearest(self) -> None:
        thick = sheet(add("cream-35", 1000), reduce_to(share=0.8))
        found = self.problem(thick, grade="panade")
        self.assertEqual(found.field, "grade")
        self.assertIn("nearest", str(found.remedy))
        rich = sheet(roux(5, 5), add("cream-35", 1000), reduce_to(share=0.55))
        self.assertIn("as thin as", str(self.problem(rich, grade="pouring").message))

    def test_nothing_to_thicken_by(self) -> None:
        found = self.problem(sheet(add("milk-whole", 500)), grade="nappe")
        self.assertEqual(found.field, "grade")

    def test_a_batch_that_would_boil_away(self) -> None:
        wide = sheet(roux(60, 60), add("milk-whole", 1, "L"), simmer(10), pan={"diameter_cm": 40})
        self.assertEqual(self.problem(wide, volume=Amount(10, "mL")).field, "volume")

    def test_no_steps(self) -> None:
        self.assertEqual(self.problem(sheet(), grade="nappe").field, "steps")

    def test_have_must_be_in_the_sauce(self) -> None:
        found = self.problem(white_sauce(60), have=Have("brandy", Amount(50, "g")))
        self.assertEqual(found.field, "have.ingredient")


class Roots(unittest.TestCase):
    @given(st.floats(-5, 5), st.floats(0.1, 4), st.floats(0.2, 3))
    def test_as_scipy_finds_them(self, root: float, slope: float, bend: float) -> None:
        def f(x: float) -> float:
            return slope * (x - root) + bend * (x - root) ** 3

        ours = find_root(f, -6.0, 7.0, 1e-9)
        self.assertAlmostEqual(ours, brentq(f, -6.0, 7.0, xtol=1e-9), delta=1e-7)

    def test_an_infinite_end(self) -> None:
        def f(x: float) -> float:
            return math.inf if x > 2 else x - 1

        self.assertAlmostEqual(find_root(f, 0.0, 4.0, 1e-9), 1.0, places=7)
        with self.assertRaises(ValueError):
            find_root(f, 1.5, 4.0, 1e-9)


class Sheets(unittest.TestCase):
    def test_solved_sheets_are_sheets(self) -> None:
        case = read_sheet(CHEESE_SAUCE)
        solved = solve(case, goal_of(case)).sheet
        self.assertEqual(read_sheet(write_sheet(solved)), solved)
