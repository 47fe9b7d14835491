"""The pan a cook would reach for, stops as cooks say them, and what is held back."""

import math
import re
import unittest

from hypothesis import given
from hypothesis import strategies as st

from saucier.along import along
from saucier.cards import cards
from saucier.check import check
from saucier.correction import correction
from saucier.errors import BadInput
from saucier.heat import BARE_PANS, Load, Pan, pan_reached_for
from saucier.kitchen import Kitchen
from saucier.schools import switch
from saucier.sheet import read_sheet
from saucier.solve import Goal, Unreachable, goal_of, rounded_for_kitchen, solve
from saucier.testing import (
    CHEESE_SAUCE,
    CREAM_REDUCTION,
    add,
    grams,
    melt,
    reduce_to,
    roux,
    sheet,
    simmer,
)
from saucier.thickness import grade_named
from saucier.units import Amount

KITCHEN = Kitchen()
OWN = (
    Pan("small", "straight", 16, 9),
    Pan("iron", "sloped", 30, 6, reactive=True),
    Pan("wide", "sloped", 28, 9),
    Pan("tray", "tray", 50, 6, width_cm=30),
)


def diameter(goes_in: float, left: float) -> float:
    return pan_reached_for(Load(goes_in, goes_in, left)).diameter_cm


class ReachedFor(unittest.TestCase):
    def test_wide_for_a_reduction(self) -> None:
        """By hand: 1000 mL stands 12.4 mm in 32 cm; 190 mL of it 2.4 mm there and 3.1 in 28."""
        self.assertEqual(diameter(1000, 460), 32)
        self.assertEqual(diameter(1000, 190), 28)
        self.assertEqual(diameter(250, 125), 24)  # 5.5 and 2.8 mm; in 28 cm 4.1
        self.assertEqual(diameter(90, 30), 16)  # in none of them 5 mm: the smallest
        dry = pan_reached_for(Load(1000, 1000, 100, nearly_dry=True))
        self.assertEqual(dry.diameter_cm, 32)  # what is left need not stand
        self.assertEqual(diameter(5000, 2500), 32)

    def test_between_a_third_and_two_thirds_for_the_rest(self) -> None:
        for ml, cm in ((700, 16), (1200, 16), (1300, 20), (3000, 24), (9600, 32), (40_000, 32)):
            self.assertEqual(pan_reached_for(Load(ml)).diameter_cm, cm, ml)

    @given(st.floats(20, 60_000), st.floats(0.05, 1.0))
    def test_the_fullest_moment_fits_where_any_pan_holds_it(self, ml: float, share: float) -> None:
        for load in (Load(ml), Load(ml, ml, share * ml)):
            pan = pan_reached_for(load)
            if ml <= 0.9 * BARE_PANS[-1].capacity_ml:
                self.assertLessEqual(ml, pan.capacity_ml)

    def test_to_sear_in_two_rounds_at_most(self) -> None:
        """600 g at 0.8 g/cm²: 750 cm², two rounds in 22 cm; 24 is the first that has it."""
        food = {"op": "sear", "ingredient": "poultry-breast", "amount": grams(600)}
        fat = {"ingredient": "oil-neutral", "amount": grams(15)}
        steps = ({**food, "fat": fat}, add("stock-veal", 200), reduce_to(share=0.5))
        self.assertEqual(check(sheet(*steps)).pan.diameter_cm, 24)
        self.assertEqual(pan_reached_for(Load(300, sears_g=5000)).diameter_cm, 32)

    def test_of_the_kitchens_own_never_bare_metal_or_a_tray(self) -> None:
        kitchen = Kitchen(pans=OWN)
        cream = check(sheet(add("cream-35", 1000), reduce_to(share=0.6)), kitchen)
        self.assertEqual(cream.pan.name, "wide")
        self.assertIn("wide", str(cream.assumed[0]))
        named = check(
            sheet(add("cream-35", 1000), pan={"diameter_cm": 20, "name": "mine"}), kitchen
        )
        self.assertEqual((named.pan.name, named.assumed), ("mine", ()))

    def test_a_quarter_litre_of_cream_is_there_in_four_to_eight_minutes(self) -> None:
        for stop in ({"share": 0.5}, {"grade": "light-coat"}):
            minutes = check(sheet(add("cream-35", 250), reduce_to(**stop))).final.pot.minutes
            self.assertTrue(4.0 <= minutes <= 8.0, minutes)

    def test_a_solve_ends_in_the_pan_its_batch_is_checked_in(self) -> None:
        for document in (CHEESE_SAUCE, CREAM_REDUCTION):
            for litres in (0.08, 0.3, 1, 4, 11, 60):
                case = read_sheet(document)
                solved = solve(case, goal_of(case, volume=Amount(litres, "L"))).sheet
                final = check(solved).final
                self.assertEqual(final.thickness.grade, case.target.grade)
                self.assertAlmostEqual(final.pot.yield_ml / 1000 / litres, 1, delta=0.005)

    def test_rounding_keeps_the_yield_of_a_small_batch(self) -> None:
        case = read_sheet(CREAM_REDUCTION)
        for ml in (40, 60, 82, 120):
            goal = goal_of(case, volume=Amount(ml, "mL"))
            rounded = rounded_for_kitchen(solve(case, goal).sheet, goal).sheet
            self.assertAlmostEqual(check(rounded).final.pot.yield_ml / ml, 1, delta=0.025)


class Stops(unittest.TestCase):
    def test_a_grade_stays_when_something_before_it_changes(self) -> None:
        for first in (add("wine-white-dry", 100), add("stock-veal", 400), add("onion-puree", 40)):
            for key in ("pouring", "light-coat", "nappe", "binding"):
                case = sheet(first, add("cream-35", 400), reduce_to(grade=key))
                eta = check(case).final.thickness.viscosity_pa_s
                self.assertAlmostEqual(eta / grade_named(key).target, 1, delta=1e-3)

    def test_a_grade_that_is_there_or_never_comes_is_told(self) -> None:
        thick = check(
            sheet(roux(60, 60), add("milk-whole", 800), simmer(3), reduce_to(grade="pouring"))
        )
        self.assertIn("thick-enough", [w.code for w in thick.final.warnings])
        never = check(sheet(add("cream-35", 400), reduce_to(grade="panade"))).final
        self.assertIn("grade-out-of-reach", [w.code for w in never.warnings])
        self.assertIn(never.emulsion, ("stable", "caution"))
        wine = check(sheet(add("wine-white-dry", 400), reduce_to(grade="spreading"))).final
        self.assertIn("grade-out-of-reach", [w.code for w in wine.warnings])

    def test_a_solve_moves_the_grade_it_stops_at(self) -> None:
        case = sheet(add("stock-light", 200), add("cream-35", 400), reduce_to(grade="light-coat"))
        solved = solve(case, goal_of(case, "nappe", Amount(1, "L")))
        self.assertEqual(solved.sheet.steps[-1].to.grade, "nappe")
        self.assertEqual(solved.free, "reduction")
        self.assertEqual(check(solved.sheet).final.thickness.grade, "nappe")
        # Cheese after it thickens: then a share has to do it.
        cheesy = sheet(
            *[s.model_dump(mode="json") for s in case.steps], melt("parmesan-style-hard", 90)
        )
        found = solve(cheesy, goal_of(cheesy, "light-coat")).sheet
        self.assertIsNotNone(found.steps[2].to.share)
        self.assertEqual(check(found).final.thickness.grade, "light-coat")

    def test_minutes_boil_off_what_the_pan_and_the_ring_give(self) -> None:
        """28 cm at a lively boil: 22 kg/m²h on 616 cm², 22.6 g a minute."""
        case = sheet(
            add("water", 2000),
            {"op": "reduce", "to": {"minutes": 10}, "heat": "lively"},
            pan={"diameter_cm": 28, "depth_cm": 16},
        )
        self.assertAlmostEqual(2000 - check(case).final.pot.total_g, 226, delta=1)
        # Two batches in it go to the same share, in twice the minutes; pinned they lose no more.
        twice = check(solve(case, Goal(None, Amount(3.6, "L"))).sheet).steps
        self.assertAlmostEqual(twice[0].pot.total_g - twice[1].pot.total_g, 452, delta=2)
        steps = (case.steps[0], case.steps[1].model_copy(update={"pinned": True}))
        pinned = case.model_copy(update={"steps": steps})
        same = check(solve(pinned, Goal(None, Amount(3.6, "L"))).sheet).steps
        self.assertAlmostEqual(same[0].pot.total_g - same[1].pot.total_g, 226, delta=1)

    def test_to_taste_plans_half(self) -> None:
        found = check(sheet(add("stock-light", 400), {"op": "reduce", "to": "to-taste"})).final.pot
        self.assertAlmostEqual(found.balance.mass_g, 200)

    def test_by_half_is_vague_a_weight_is_not(self) -> None:
        def width(**stop: object) -> float:
            found = check(sheet(add("cream-35", 500), reduce_to(**stop))).final.thickness
            return math.log(found.high_pa_s / found.low_pa_s)

        self.assertGreater(width(share=0.5), 1.8 * width(mass=grams(250)))
        self.assertGreater(width(share=0.5), 1.8 * width(share=0.52))
        found = along(check(sheet(add("cream-35", 500), reduce_to(share=0.5))))[0]
        self.assertEqual((found.eye_low, found.eye_high), (0.42, 0.65))

    def test_marks_on_the_way_are_where_the_check_itself_gets(self) -> None:
        case = sheet(
            add("wine-white-dry", 120), add("cream-35", 500), reduce_to(share=0.5),
            pan={"diameter_cm": 24, "tare_g": 900},
        )  # fmt: skip
        marks = along(check(case))[0].marks
        self.assertEqual([m.mass_g for m in marks], sorted((m.mass_g for m in marks), reverse=True))
        for mark in marks:
            stopped = sheet(
                *[s.model_dump(mode="json") for s in case.steps[:2]],
                reduce_to(mass=grams(mark.mass_g)),
                pan={"diameter_cm": 24, "tare_g": 900},
            )
            state = check(stopped).final
            self.assertEqual(mark.scale_g, round(mark.mass_g + 900))
            self.assertAlmostEqual(
                state.pan.level_mm(state.pot.total_ml), mark.level_mm, delta=0.06
            )
            self.assertAlmostEqual(state.pot.minutes, mark.minutes, delta=0.1)
            if mark.key in ("rich", "oily", "split"):
                edge = {"rich": 0.70, "oily": 0.77, "split": 0.82}[mark.key]
                self.assertAlmostEqual(state.thickness.fat_volume_share, edge, delta=2e-3)
            else:
                target = grade_named(mark.key).target
                self.assertAlmostEqual(state.thickness.viscosity_pa_s / target, 1, delta=0.01)

    def test_a_stock_is_told_by_how_strong_it_is_with_the_little_fat_it_has(self) -> None:
        names = ["1.5 times as strong", "2 times as strong", "3 times as strong"]
        for first in ("stock-chicken", "stock-fish", "wine-white-dry", "milk-whole"):
            passed = along(check(sheet(add(first, 600), reduce_to(share=0.4))))[0].marks
            strengths = [mark for mark in passed if mark.key == "strong"]
            self.assertEqual([str(mark.name) for mark in strengths], names, first)
            self.assertAlmostEqual(strengths[1].share, 0.5, 3)
        cream = along(check(sheet(add("cream-35", 600), reduce_to(share=0.6))))[0].marks
        self.assertFalse([mark for mark in cream if mark.key == "strong"])

    def test_only_what_has_fat_for_it_splits(self) -> None:
        for first, splits in (("stock-chicken", False), ("milk-whole", False), ("cream-35", True)):
            with self.subTest(first):
                gone = check(sheet(add(first, 600), reduce_to(share=0.01)))
                said = " ".join(str(remark) for remark in gone.steps[1].pot.remarks)
                self.assertEqual(gone.steps[1].pot.split, splits)
                self.assertIn("splits" if splits else "boils dry", said)
                stuck = check(sheet(add(first, 600), reduce_to(grade="panade")))
                said = " ".join(str(remark) for remark in stuck.steps[1].pot.remarks)
                self.assertIn("oily" if splits else "boils dry", said)
                # What is let down again is a stock as before: it is not split for good.
                again = check(sheet(add(first, 600), reduce_to(share=0.01), add("water", 300)))
                self.assertEqual(again.steps[2].pot.split, splits)

    def test_the_card_and_the_marks_tell_one_weight_for_where_it_turns(self) -> None:
        for tare in (0.0, 1180.0):
            pan = {"name": "sauteuse", "diameter_cm": 24, "depth_cm": 8, "tare_g": tare}
            case = sheet(add("cream-35", 500), reduce_to(share=0.65), pan=pan)
            checked = check(case)
            marks = {mark.key: mark for mark in along(checked)[0].marks}
            cue = str(cards(checked)[1].cue)
            told = [float(weight) for weight in re.findall(r"(\d+) g", cue)]
            for key, weight in zip(("rich", "oily"), told, strict=True):
                self.assertAlmostEqual(weight, marks[key].scale_g or marks[key].mass_g, delta=1.0)
            self.assertEqual("with the pan" in cue, tare > 0)

    def test_butter_mounted_into_a_cream_thickens_it(self) -> None:
        base = (add("cream-35", 300), reduce_to(share=0.7))
        etas = [
            check(sheet(*base, {"op": "mount", "amount": grams(g)})).final.thickness.viscosity_pa_s
            for g in (5, 20, 40)
        ]
        self.assertEqual(etas, sorted(etas))


class OutOfReach(unittest.TestCase):
    def test_the_nearest_comes_in_amounts(self) -> None:
        case = read_sheet(CREAM_REDUCTION)
        with self.assertRaises(Unreachable) as caught:
            solve(case, goal_of(case, "panade"))
        far = caught.exception
        self.assertIn("g cream 35 %", str(far.problems[0].remedy))
        self.assertIn("boiled down to", str(far.problems[0].remedy))
        final = check(far.nearest).final
        self.assertEqual(far.nearest.target.grade, final.thickness.grade)
        self.assertAlmostEqual(final.pot.yield_ml, 500, delta=5)

    def test_where_a_step_before_turns_oily_it_says_where_to_stop(self) -> None:
        case = sheet(
            add("cream-35", 500),
            reduce_to(share=0.46),
            roux(10, 10),
            add("milk-whole", 200),
            simmer(3),
        )
        with self.assertRaises(Unreachable) as caught:
            solve(case, goal_of(case, "nappe"))
        self.assertIn("step 2", str(caught.exception.problems[0].message))
        nearest = check(caught.exception.nearest)
        self.assertEqual(nearest.final.thickness.grade, "nappe")
        self.assertNotIn("oily", {state.emulsion for state in nearest.steps})

    def test_no_warning_is_traded_for_a_grade(self) -> None:
        """So little flour that yolk would grain at the heat it is warmed to: refused, not solved."""
        liaison = {
            "op": "liaison",
            "yolk": {"ingredient": "egg-yolk", "amount": grams(54)},
            "cream": {"ingredient": "cream-35", "amount": grams(100)},
            "heat_to_c": 88,
        }
        case = sheet(roux(60, 60), add("stock-light", 1000), simmer(5), liaison)
        with self.assertRaises(Unreachable) as caught:
            solve(case, goal_of(case, "pouring"))
        self.assertIn("grains yolk", str(caught.exception.problems[0].message))
        codes = {w.code for state in check(caught.exception.nearest).steps for w in state.warnings}
        self.assertNotIn("yolk-grains", codes)


class HeldBack(unittest.TestCase):
    def held(self, hold: str):
        switched = switch(read_sheet(CHEESE_SAUCE), "correcting", hold, KITCHEN).sheet
        return switched, next(n for n, s in enumerate(switched.steps) if s.op == "correct")

    def test_the_pot_is_off_by_its_own_uncertainty(self) -> None:
        for hold, way in (("liquid", 1), ("roux", -1)):
            case, at = self.held(hold)
            checked = check(case)
            before, after = (checked.steps[n].thickness for n in (at - 1, at))
            moved = math.log(before.viscosity_pa_s / after.viscosity_pa_s)
            edge = before.low_pa_s if way > 0 else before.high_pa_s
            self.assertAlmostEqual(moved, math.log(before.viscosity_pa_s / edge), delta=1e-3)
            # At the edge of its uncertainty it needs nothing, or all that was held back.
            self.assertEqual(checked.final.thickness.grade, "binding")
            self.assertAlmostEqual(checked.final.pot.yield_ml / 2000, 1, delta=0.02)

    def test_the_spoon_decides_how_much(self) -> None:
        case, at = self.held("liquid")
        checked = check(case)
        planned = checked.steps[at - 1].thickness.viscosity_pa_s
        held = case.steps[at].held_back(checked.settings[at], checked.steps[at - 1].pot)
        self.assertGreater(held.most_g, 1.9 * held.expected_g)  # for the far edge
        as_planned = correction(case, at, planned, KITCHEN)
        self.assertAlmostEqual(
            as_planned.amount.base * 1.03, held.expected_g, delta=0.05 * held.expected_g
        )
        thicker = correction(case, at, 1.6 * planned, KITCHEN)
        self.assertGreater(thicker.amount.base, 1.5 * as_planned.amount.base)
        self.assertTrue(any("more than planned" in str(text) for text in thicker.notes))
        self.assertIsNone(correction(case, at, grade_named("binding").target, KITCHEN).amount)
        far = correction(case, at, 4 * planned, KITCHEN)
        self.assertTrue(any("more than was held back" in str(text) for text in far.notes))
        spoons = correction(case, at, None, KITCHEN).spoons
        self.assertEqual(len(spoons), 5)
        self.assertAlmostEqual(spoons[2].viscosity_pa_s, planned)

    def test_it_goes_in_before_what_must_not_boil(self) -> None:
        """A liaison, butter mounted and a soft finish come after it, and its target counts them."""
        body = [roux(50, 50), add("stock-light", 1, "L"), simmer(8)]
        yolks = {"op": "liaison", "yolk": {"ingredient": "egg-yolk", "amount": "3 pieces"}}
        yolks |= {"cream": {"ingredient": "cream-35", "amount": "100 g"}, "heat_to_c": 80}
        mounted = {"op": "mount", "ingredient": "butter-unsalted", "amount": "40 g"}
        salted = {"op": "season", "ingredient": "salt", "amount": "5 g"}
        target = {"grade": "nappe", "volume": "1.2 L"}
        for after in ([yolks], [mounted], [yolks, mounted, salted]):
            for hold in ("liquid", "roux"):
                with self.subTest(hold=hold, after=[step["op"] for step in after]):
                    document = {"name": "bound", "steps": [*body, *after], "target": target}
                    case = switch(read_sheet(document), "correcting", hold, KITCHEN).sheet
                    at = next(n for n, step in enumerate(case.steps) if step.op == "correct")
                    self.assertEqual(at, 3)
                    checked = check(case)
                    self.assertEqual(checked.final.thickness.grade, "nappe")
                    made = checked.steps[at - 1].thickness.viscosity_pa_s
                    held = case.steps[at].held_back(checked.settings[at], checked.steps[2].pot)
                    found = correction(case, at, made, KITCHEN)
                    self.assertAlmostEqual(found.grams / held.expected_g, 1.0, delta=0.25)

    def test_nonsense(self) -> None:
        case, at = self.held("liquid")
        for where, seen, field in ((0, 2.0, "at"), (99, 2.0, "at"), (at, 1e9, "seen_pa_s")):
            with self.assertRaises(BadInput) as caught:
                correction(case, where, seen, KITCHEN)
            self.assertEqual(caught.exception.problems[0].field, field)


if __name__ == "__main__":
    unittest.main()
