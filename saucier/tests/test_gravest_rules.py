"""The rules whose slip does the most harm: each dies here by the smallest change of it."""

import itertools
import math
import unittest
from dataclasses import replace

from saucier import constants as K
from saucier.check import check
from saucier.dish import read_dish
from saucier.heat import Pan, Stove, evaporation_g_per_min
from saucier.keeping import held, held_hot, keeps
from saucier.kitchen import Kitchen
from saucier.larder import shipped_larder
from saucier.pot import EMPTY
from saucier.run_up.timed import _past
from saucier.service import Plan, plan_service, read_service
from saucier.steps.enrich import tempering
from saucier.testing import add, grams, melt, reduce_to, roux, sheet, simmer
from saucier.watch import Seen, watch

KITCHEN = Kitchen()
PANS = [Pan("middle", "straight", 22, 12), Pan("large", "straight", 28, 16)]
PAN = {"shape": "straight", "diameter_cm": 20, "depth_cm": 10, "tare_g": 1200}


def liaison(to_c: float | None) -> dict[str, object]:
    return {
        "op": "liaison",
        "yolk": {"ingredient": "egg-yolk", "amount": grams(54)},
        "cream": {"ingredient": "cream-35", "amount": grams(100)},
        "heat_to_c": to_c,
    }


def planned(lines: list[dict[str, object]], **service: object) -> Plan:
    """Two sauces of one base: a plain one, and one with mustard and egg yolk."""
    base = (roux(60, 60), add("milk-whole", 1, "L"), simmer(5))
    sheets = {
        "plain": sheet(*base, name="Plain", target={"grade": "nappe"}),
        "sharp": sheet(
            *base, melt("cheese-semi-hard", 60), name="Sharp", target={"grade": "binding"}
        ),
        "oily": sheet(
            {**roux(60, 60), "fat": {"ingredient": "oil-neutral", "amount": grams(60)}},
            add("milk-whole", 1, "L"),
            simmer(5),
            name="Oily",
            target={"grade": "nappe"},
        ),
    }
    dishes = {
        key: read_dish({"name": key, "sauces": [{"sauce": key, "use": "nap"}]}) for key in sheets
    }
    document = {"name": "x", "lines": lines, **service}
    return plan_service(read_service(document), dishes, sheets, KITCHEN, PANS)


class Guests(unittest.TestCase):
    def test_a_lines_allergens_are_those_of_its_pots_too(self) -> None:
        plan = planned([{"dish": "plain", "portions": 8}, {"dish": "sharp", "portions": 20}])
        self.assertEqual([line.allergens for line in plan.lines], [("gluten", "milk")] * 2)

    def test_no_mother_brings_what_is_excluded(self) -> None:
        lines = [
            {"dish": "plain", "portions": 30},
            {"dish": "sharp", "portions": 30},
            {"dish": "oily", "portions": 6, "without": ["butter"]},
        ]
        plan = planned(lines, force={"oily": "share"})
        guest = next(branch for branch in plan.branches if branch.sauce == "oily")
        mothers = {pot.key for pot in plan.pots if pot.mother}
        self.assertNotIn(guest.pot, mothers)
        self.assertEqual(len(mothers), 1)
        self.assertFalse(plan.lines[2].refused)

    def test_the_oldest_of_what_stands_made_is_used_first(self) -> None:
        hand = [{"sauce": "plain", "amount": "300 mL", "age_days": age} for age in (0, 2, 1)]
        plan = planned([{"dish": "plain", "portions": 3}], on_hand=hand)
        self.assertEqual([used.age_days for used in plan.used][:1], [2])


class Keeping(unittest.TestCase):
    def final(self, *steps: dict[str, object]):  # type: ignore[no-untyped-def]
        return check(sheet(*steps)).final.pot

    def test_yolk_keeps_only_with_flour_and_heated_through(self) -> None:
        flour = (roux(60, 60), add("milk-whole", 1, "L"), simmer(5))
        cool = {"op": "cool", "to_c": 40}
        bare = (add("cream-35", 500), reduce_to(share=0.8))
        for steps, days in (
            ((*flour, liaison(84)), 1),
            ((*flour, cool, liaison(60)), 0),
            ((*flour, cool, liaison(None)), 0),
            ((*flour, cool, liaison(84)), 1),
            ((*flour, {**liaison(84), "probed_c": 68}), 0),
            ((*bare, liaison(84)), 0),
        ):
            with self.subTest(steps=steps[-1], flour=steps[0]["op"]):
                self.assertEqual(keeps(self.final(*steps)).days, days)

    def test_what_a_probe_read_wins_over_what_the_sheet_says(self) -> None:
        pot = self.final(roux(60, 60), add("milk-whole", 1, "L"), simmer(5), liaison(84))
        self.assertEqual([keeps(pot, 2, read).days for read in (None, 68.0, 82.0)], [1, 0, 1])
        self.assertIn("68", str(keeps(pot, 2, 68.0).words))

    def test_hot_holding_goes_by_the_rules_in_force(self) -> None:
        pot = self.final(roux(60, 60), add("milk-whole", 1, "L"), simmer(5))
        pan = Pan("p", "straight", 20, 12)
        self.assertEqual(
            [held_hot(pot, pan, 62, True, rule).ok for rule in (60, 63)], [True, False]
        )
        at_c = held(pot, pan, 20, 65, 63).temperature_c
        below = [held(pot, pan, 20, 65, rule).below_rule for rule in (at_c - 1, at_c + 1)]
        self.assertEqual(below, [False, True])


class Heat(unittest.TestCase):
    def test_a_lid_leaves_a_tenth(self) -> None:
        stove = Stove(Pan("p", "straight", 20, 12))
        for heat in ("bare-simmer", "simmer", "lively"):
            open_, lid = (evaporation_g_per_min(1000, heat, stove, lid) for lid in (False, True))
            self.assertAlmostEqual(lid / open_, 0.1, places=9)

    def test_tempering_stays_under_its_cap_until_it_is_diluted_one_to_one(self) -> None:
        larder = shipped_larder()
        mixture = EMPTY.plus(larder["egg-yolk"].per_gram, 60).plus(larder["cream-35"].per_gram, 60)
        sauce = EMPTY.plus(larder["milk-whole"].per_gram, 1000)
        for mixture_c, sauce_c in itertools.product((5.0, 30.0, 52.0, 58.0), (75.0, 90.0, 100.0)):
            at, poured = mixture_c, 0.0
            for ladle in tempering(mixture, sauce, sauce_c, mixture_c):
                poured += ladle.sauce_g
                if poured < mixture.mass_g - 1e-6:
                    self.assertLessEqual(ladle.temperature_c, K.TEMPER_MAX_C + 1e-6)
                self.assertLessEqual(ladle.temperature_c - at, K.TEMPER_RISE_C + 1e-6)
                at = ladle.temperature_c
        self.assertEqual((K.TEMPER_MAX_C, K.TEMPER_RISE_C), (65.0, 15.0))

    def test_cheese_off_the_heat_goes_into_a_sauce_that_has_cooled_and_over_it_into_a_hot_one(
        self,
    ) -> None:
        white = (roux(60, 60), add("milk-whole", 1, "L"), simmer(5))
        off, low = (
            check(sheet(*white, {**melt("cheese-semi-hard", 5), "heat": heat})).steps[-1]
            for heat in ("off", "low")
        )
        self.assertLessEqual(off.pot.temperature_c, K.CHEESE_MAX_C)
        self.assertNotIn("hot-cheese", [one.code for one in off.warnings])
        self.assertIn("hot-cheese", [one.code for one in low.warnings])
        # As much as takes heat tells which ceiling it was poured under.
        much = {**melt("cheese-semi-hard", 300), "heat": "off"}
        cooled = check(sheet(*white, much)).steps[-1].pot.temperature_c
        self.assertLess(cooled, K.CHEESE_MAX_C - 5.0)

    def test_flour_that_comes_in_later_has_not_boiled(self) -> None:
        thin = (roux(30, 30), add("milk-whole", 1, "L"), simmer(10))
        late = {"op": "add", "ingredient": "corn-starch", "amount": grams(20)}
        before, after = (check(sheet(*steps)).final.pot for steps in (thin, (*thin, late)))
        self.assertGreater(before.boiled_min, 5.0)
        self.assertEqual(after.boiled_min, 0.0)
        again = check(sheet(*thin, late, simmer(3))).final.pot
        self.assertAlmostEqual(again.boiled_min, 3.0, delta=0.5)


class Mothers(unittest.TestCase):
    def test_she_simmers_as_long_as_the_longest_of_hers(self) -> None:
        sheets, dishes = {}, {}
        for key, minutes, grade in (("short", 3, "nappe"), ("long", 20, "binding")):
            base = (roux(60, 60), add("milk-whole", 1, "L"), simmer(minutes))
            sheets[key] = sheet(*base, name=key, target={"grade": grade})
            dishes[key] = read_dish({"name": key, "sauces": [{"sauce": key, "use": "nap"}]})
        lines = [{"dish": key, "portions": 20} for key in sheets]
        plan = plan_service(
            read_service({"name": "x", "lines": lines}), dishes, sheets, KITCHEN, PANS
        )
        [mother] = [pot for pot in plan.pots if pot.mother]
        [simmered] = [step.minutes for step in mother.sheet.steps if step.op == "simmer"]
        self.assertEqual(simmered, 20)


class Waiting(unittest.TestCase):
    def test_harm_is_told_from_the_minute_past_its_limit(self) -> None:
        for longest in (5.0, 20.0, 60.0):
            self.assertFalse(_past(longest, longest))
            self.assertTrue(_past(longest + 1.0, longest))
        self.assertFalse(_past(1e6, None))


class Watching(unittest.TestCase):
    def test_one_outlier_on_the_scale_is_not_believed(self) -> None:
        cream = check(sheet(add("cream-35", 500), reduce_to(share=0.6), pan=PAN))
        calm = [
            Seen(at, "scale", 1700.0 - 20.0 * max(0.0, at - 2.0))
            for at in (n / 4.0 for n in range(24))
        ]
        leaned = [*calm, Seen(6.05, "scale", calm[-1].value + 400.0)]
        plain, off = (watch(cream, 1, seen, 6.1) for seen in (calm, leaned))
        assert plain is not None and off is not None
        self.assertLess(abs(plain.mass_g.value - off.mass_g.value), 15.0)
        low, high = off.mass_g.low, off.mass_g.high
        self.assertTrue(math.isfinite(low) and low < plain.mass_g.value < high)

    def test_three_that_agree_are(self) -> None:
        cream = check(sheet(add("cream-35", 500), reduce_to(share=0.6), pan=PAN))
        calm = [Seen(n / 4.0, "scale", 1700.0 - 20.0 * max(0.0, n / 4.0 - 2.0)) for n in range(24)]
        more = [Seen(6.0 + n / 4.0, "scale", calm[-1].value + 300.0 - 5.0 * n) for n in range(1, 6)]
        plain, off = (watch(cream, 1, seen, 7.5) for seen in (calm, [*calm, *more]))
        assert plain is not None and off is not None
        self.assertGreater(off.mass_g.value - plain.mass_g.value, 150.0)


class WholeKitchen(unittest.TestCase):
    def test_the_run_ups_waits_go_by_the_kitchens_own_hot_rule(self) -> None:
        from saucier.run_up import Means, RunUp, run_up

        plan = planned([{"dish": "plain", "portions": 8}])
        for hot_c in (57.0, 63.0):
            gathered = run_up(plan, replace(KITCHEN, hot_c=hot_c), Means.of(), RunUp())
            self.assertEqual(gathered.hot_c, hot_c)


if __name__ == "__main__":
    unittest.main()
