"""Cooling: the slab against its series, the rules, what passes, and a probe that shows it in time."""

import math
import random
import unittest

from saucier.check import check
from saucier.errors import BadInput
from saucier.heat import Pan
from saucier.keeping import (
    Face,
    Matter,
    Slab,
    cool,
    matter_of,
    place_named,
    places,
    read_rules,
    shipped_rules,
)
from saucier.testing import add, reduce_to, roux, sheet, simmer

SAUCE = Matter(0.55, 1060.0, 3700.0)
TRAY = Pan("tray", "tray", 50.0, 6.5, 900.0, width_cm=30.0)
WHITE = check(sheet(roux(60, 60), add("milk-whole", 3, "L"), simmer(5))).final.pot


def series_c(depth_m: float, h: float, from_c: float, at_c: float, seconds: float) -> float:
    """The middle of a slab cooled alike from both faces: the sum of its eigenfunctions (any text on
    conduction of heat), with the roots of x tan x = Bi."""
    half, alpha = depth_m / 2.0, SAUCE.k / (SAUCE.rho * SAUCE.cp)
    biot = h * half / SAUCE.k
    total = 0.0
    for n in range(60):
        low, high = n * math.pi + 1e-12, n * math.pi + math.pi / 2.0 - 1e-12
        for _ in range(200):
            middle = 0.5 * (low + high)
            low, high = (middle, high) if middle * math.tan(middle) < biot else (low, middle)
        root = 0.5 * (low + high)
        weight = 4.0 * math.sin(root) / (2.0 * root + math.sin(2.0 * root))
        total += weight * math.exp(-(root**2) * alpha * seconds / half**2)
    return at_c + (from_c - at_c) * total


class TheSlab(unittest.TestCase):
    def test_it_agrees_with_the_series_within_a_hundredth(self) -> None:
        for depth_mm in (10.0, 25.0, 50.0, 100.0):
            for h in (8.0, 18.0, 50.0, 300.0):
                slab = Slab(depth_mm, 80.0, Face(h, 3.0), Face(h, 3.0), SAUCE)
                for minutes in (10.0, 40.0, 120.0, 300.0):
                    there = series_c(depth_mm / 1000.0, h, 80.0, 3.0, 60.0 * minutes)
                    with self.subTest(depth_mm=depth_mm, h=h, minutes=minutes):
                        self.assertAlmostEqual(slab.hottest_c(minutes), there, delta=0.01 * 77.0)

    def test_the_reference_case(self) -> None:
        slab = Slab(50.0, 63.0, Face(18.0, 3.0), Face(18.0, 3.0), SAUCE)
        took = slab.minutes_to(21.0) - slab.minutes_to(57.0)
        self.assertAlmostEqual(took, 129.0, delta=4.0)

    def test_its_hottest_point_moves_away_from_the_ice(self) -> None:
        slab = Slab(40.0, 80.0, Face(8.0, 20.0), Face(300.0, 0.5), SAUCE)
        profile = slab.profile_c(20.0)
        self.assertLess(profile[-1], 20.0)
        self.assertGreater(profile.argmax(), -1)
        self.assertLess(profile.argmax(), len(profile) / 2)

    def test_what_is_heated_goes_by_its_coldest_point(self) -> None:
        slab = Slab(40.0, 4.0, Face(25.0, 180.0), Face(25.0, 180.0), SAUCE)
        at = slab.minutes_to(74.0)
        self.assertAlmostEqual(slab.coldest_c(at), 74.0, delta=0.1)
        self.assertGreater(slab.hottest_c(at), 80.0)

    def test_colder_air_stronger_wind_and_less_depth_cool_quicker(self) -> None:
        base = Slab(30.0, 80.0, Face(18.0, 3.0), Face(18.0, 3.0), SAUCE).minutes_to(10.0)
        for quicker in (
            Slab(25.0, 80.0, Face(18.0, 3.0), Face(18.0, 3.0), SAUCE),
            Slab(30.0, 80.0, Face(40.0, 3.0), Face(18.0, 3.0), SAUCE),
            Slab(30.0, 80.0, Face(18.0, -5.0), Face(18.0, 3.0), SAUCE),
            Slab(30.0, 70.0, Face(18.0, 3.0), Face(18.0, 3.0), SAUCE),
        ):
            self.assertLess(quicker.minutes_to(10.0), base)
        self.assertIsNone(
            Slab(30.0, 80.0, Face(9.0, 22.0), Face(9.0, 22.0), SAUCE).minutes_to(10.0)
        )

    def test_no_depth_is_told_by_its_field(self) -> None:
        for depth in (0.0, -5.0, 900.0, math.nan):
            with self.assertRaises(BadInput) as caught:
                Slab(depth, 80.0, Face(8.0, 3.0), Face(8.0, 3.0), SAUCE)
            self.assertEqual(caught.exception.problems[0].field, "depth_mm")


class TheRules(unittest.TestCase):
    def test_in_a_still_fridge_only_some_25_mm_pass_and_ice_does_better(self) -> None:
        rules = shipped_rules()["two-steps-57"]
        fridge, ice = (
            cool(WHITE, rules, place_named(key), TRAY, 1, from_c=80.0)
            for key in ("fridge", "ice-bath")
        )
        self.assertTrue(20.0 <= fridge.deepest_mm <= 28.0, fridge.deepest_mm)
        self.assertGreater(ice.deepest_mm, fridge.deepest_mm)
        self.assertTrue(cool(WHITE, rules, place_named("ice-stirred"), TRAY, 1, from_c=80.0).ok)

    def test_what_is_offered_passes_and_a_little_more_does_not(self) -> None:
        dice = random.Random(7)
        for _ in range(40):
            rules = dice.choice(list(shipped_rules().values()))
            place = dice.choice([one for one in places().values() if not one.stirred])
            start = dice.uniform(60.0, 95.0)
            found = cool(WHITE, rules, place, TRAY, dice.randint(1, 4), from_c=start)
            if found.trays is None or found.trays > 100:
                continue
            again = cool(WHITE, rules, place, TRAY, found.trays, from_c=start)
            with self.subTest(rules=rules.key, place=place.key, start=start):
                self.assertTrue(again.ok)
                if found.ok:
                    self.assertGreaterEqual(found.deepest_mm + 1.0, found.depth_mm)
                else:
                    self.assertGreater(
                        found.trays * TRAY.volume_ml(found.deepest_mm + 1.0), 0.95 * WHITE.total_ml
                    )

    def test_the_clock_begins_where_the_rule_begins(self) -> None:
        rules = shipped_rules()["one-step-10"]
        hot, cool_already = (
            cool(WHITE, rules, place_named("cold-room"), TRAY, 2, from_c=start)
            for start in (95.0, 50.0)
        )
        self.assertGreater(hot.clock_from_min, 3.0)
        self.assertEqual(cool_already.clock_from_min, 0.0)

    def test_a_rich_cream_leads_heat_worse(self) -> None:
        rich = check(sheet(add("cream-35", 3000), reduce_to(share=0.6))).final.pot
        self.assertLess(matter_of(rich).k, matter_of(WHITE).k)

    def test_minutes_on_the_bench_count(self) -> None:
        """What is under where the rule begins has used up some of its time already."""
        rules = shipped_rules()["one-step-10"]
        fresh, stood, hot = (
            cool(WHITE, rules, place_named("cold-room"), TRAY, 1, from_c=from_c, bench_min=bench)
            for from_c, bench in ((55.0, 0.0), (55.0, 40.0), (80.0, 40.0))
        )
        self.assertAlmostEqual(stood.stages[0].took_min - fresh.stages[0].took_min, 40.0, delta=0.2)
        self.assertEqual(stood.clock_from_min, -40.0)
        self.assertGreater(fresh.deepest_mm, stood.deepest_mm)
        self.assertGreater(hot.clock_from_min, 0.0)

    def test_own_rules_have_to_make_sense(self) -> None:
        own = {"name": "ours", "from_c": 60, "hot_c": 60, "reheat_c": 75}
        for stages, field in (
            ([], "stages"),
            ([{"to_c": 70, "minutes": 90}], "stages"),
            ([{"to_c": 20, "minutes": 90}, {"to_c": 8, "minutes": 60}], "stages"),
            ([{"to_c": 20, "minutes": -3}], "stages[0].minutes"),
        ):
            with self.subTest(stages=stages), self.assertRaises(BadInput) as caught:
                read_rules({**own, "stages": stages})
            self.assertEqual(caught.exception.problems[0].field, field)

    def test_what_does_not_fit_says_how_many_would(self) -> None:
        small = Pan("small", "tray", 10.0, 3.0, width_cm=10.0)
        with self.assertRaises(BadInput) as caught:
            cool(WHITE, shipped_rules()["one-step-8"], place_named("blast"), small)
        self.assertEqual(caught.exception.problems[0].field, "trays")
