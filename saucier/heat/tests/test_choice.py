"""Which pan a cook reaches for, what boils off in it, what it takes to warm it."""

import unittest

from saucier import constants as K
from saucier.heat import (
    Load,
    Pan,
    Stove,
    boil_up_minutes,
    fills_well,
    heat_lost_w,
    pan_reached_for,
    stands_well,
    warmed_c,
)
from saucier.heat.choice import sears_well
from saucier.heat.evaporation import evaporation_g_per_min, open_surface_m2
from saucier.heat.mixing import heat_capacity_j_per_k, mixed_temperature_c
from saucier.pot import Balance

SMALL, MIDDLE, WIDE = (
    Pan(f"{cm}", "straight", cm, deep) for cm, deep in ((16, 8), (20, 12), (28, 14))
)
BOWL = Pan("bowl", "bowl", 22, 10)
BARE = Pan("bare", "straight", 18, 10, reactive=True)


class Reached(unittest.TestCase):
    def test_for_a_batch_the_smallest_it_fills_well(self) -> None:
        self.assertEqual(pan_reached_for(Load(1000), [WIDE, MIDDLE, SMALL]).name, "16")
        self.assertEqual(pan_reached_for(Load(2000), [WIDE, MIDDLE, SMALL]).name, "20")

    def test_where_none_is_filled_well_the_one_nearest_to_half_full(self) -> None:
        # 150 mL: a tenth of the small one, less of the others; 9 L: over the rim of every one.
        self.assertEqual(pan_reached_for(Load(150), [WIDE, SMALL, MIDDLE]).name, "16")
        self.assertEqual(pan_reached_for(Load(9000), [SMALL, WIDE, MIDDLE]).name, "28")
        # 0.75 and 0.28 of two: a quarter over half is nearer than a good fifth under it is not.
        self.assertEqual(
            pan_reached_for(Load(1220), [SMALL, Pan("34", "straight", 24, 9.5)]).name, "34"
        )

    def test_no_bowl_and_no_bare_metal_where_there_is_another(self) -> None:
        self.assertEqual(pan_reached_for(Load(1000), [BOWL, BARE, WIDE]).name, "28")
        self.assertEqual(pan_reached_for(Load(1000), [BOWL, BARE]).name, "bare")
        self.assertEqual(pan_reached_for(Load(1000), [BOWL]).name, "bowl")

    def test_to_boil_down_the_widest_it_stands_in(self) -> None:
        down = Load(1000, goes_in=1000, left=500)
        self.assertEqual(pan_reached_for(down, [SMALL, WIDE, MIDDLE]).name, "28")
        # Two centilitres left stand nowhere: the smallest that holds what goes in.
        self.assertEqual(pan_reached_for(Load(900, 900, 20), [WIDE, MIDDLE, SMALL]).name, "16")
        # Nothing holds it: the largest.
        self.assertEqual(pan_reached_for(Load(30_000, 30_000, 9000), [SMALL, WIDE]).name, "28")

    def test_to_sear_the_smallest_that_takes_the_food_in_two_rounds(self) -> None:
        self.assertEqual(pan_reached_for(Load(500, sears_g=150), [WIDE, SMALL, MIDDLE]).name, "16")
        self.assertEqual(pan_reached_for(Load(500, sears_g=9000), [SMALL, WIDE, MIDDLE]).name, "28")
        # A small pan that would not hold what comes after is left alone, and so is one too small for all.
        self.assertEqual(pan_reached_for(Load(2500, sears_g=50), [SMALL, MIDDLE, WIDE]).name, "20")
        self.assertEqual(pan_reached_for(Load(20_000, sears_g=50), [SMALL, WIDE]).name, "28")


class Edges(unittest.TestCase):
    def test_a_reduction_stands_from_15_mm_down_to_6(self) -> None:
        area = 1e4 * MIDDLE.surface_m2(1.0)
        high, low = K.REDUCE_GOES_IN_MM * area / 10, K.REDUCE_LEFT_MM * area / 10
        self.assertEqual((K.REDUCE_GOES_IN_MM, K.REDUCE_LEFT_MM), (5.0, 2.5))
        self.assertTrue(stands_well(Load(high, high * 1.0001, low * 1.0001), MIDDLE))
        self.assertFalse(stands_well(Load(high, high * 0.999, low * 1.0001), MIDDLE))
        self.assertFalse(stands_well(Load(high, high * 1.0001, low * 0.999), MIDDLE))

    def test_two_rounds_of_food_and_no_more(self) -> None:
        most = 2 * K.SEAR_G_PER_CM2 * 1e4 * MIDDLE.surface_m2(1.0)
        self.assertTrue(sears_well(Load(0, sears_g=most), MIDDLE))
        self.assertFalse(sears_well(Load(0, sears_g=1.001 * most), MIDDLE))

    def test_well_filled_is_between_a_third_and_two_thirds(self) -> None:
        for share, well in ((0.32, False), (0.34, True), (0.66, True), (0.68, False)):
            self.assertIs(fills_well(Load(share * MIDDLE.capacity_ml), MIDDLE), well, share)


class Heat(unittest.TestCase):
    def test_boiling_off_goes_by_surface_until_the_ring_is_spent(self) -> None:
        stove = Stove(MIDDLE)
        simmer = evaporation_g_per_min(1000, "simmer", stove)
        by_surface = K.EVAPORATION_KG_M2_H["simmer"] * MIDDLE.surface_m2(1000) * 1000 / 60
        self.assertAlmostEqual(simmer, by_surface, delta=1e-9)
        weak = Stove(MIDDLE, burner_w=400)
        by_power = weak.net_w / K.LATENT_HEAT_J_PER_G * 60
        self.assertAlmostEqual(evaporation_g_per_min(1000, "rolling", weak), by_power, delta=1e-9)

    def test_a_lid_holds_it_back_also_where_the_step_says_otherwise(self) -> None:
        open_, shut = Stove(MIDDLE), Stove(MIDDLE, lid=True)
        free = evaporation_g_per_min(1000, "simmer", open_)
        held = K.LID_FACTOR * free
        self.assertAlmostEqual(evaporation_g_per_min(1000, "simmer", shut), held)
        self.assertAlmostEqual(evaporation_g_per_min(1000, "simmer", open_, lid=True), held)
        self.assertAlmostEqual(evaporation_g_per_min(1000, "simmer", shut, lid=False), free)

    def test_without_a_pan_one_is_reached_for(self) -> None:
        reached = pan_reached_for(Load(1000))
        self.assertEqual(open_surface_m2(1000, Stove()), reached.surface_m2(1000))

    def test_what_is_hotter_already_takes_no_time(self) -> None:
        stove = Stove(MIDDLE, burner_w=2000)
        self.assertEqual(boil_up_minutes(4180, 101, stove, 1000), 0.0)
        self.assertEqual(warmed_c(4180, 101, 5, stove, 1000), 101)

    def test_it_takes_the_ring_s_power_less_what_leaves_the_pot(self) -> None:
        """By a hundred small steps, each by what it loses there."""
        for litres, to_c in ((0.5, 65), (1, 100), (3, 100)):
            stove, heat, at, seconds = Stove(MIDDLE, burner_w=2000), 4180 * litres, 25.0, 0.0
            while at < to_c:
                at += 0.05
                seconds += 0.05 * heat / (stove.net_w - heat_lost_w(at, 1000 * litres, stove))
            found = boil_up_minutes(heat, 25, stove, 1000 * litres, to_c)
            with self.subTest(litres=litres):
                self.assertAlmostEqual(found, seconds / 60, delta=0.01 * found)
                back = warmed_c(heat, 25, 0.9 * found, stove, 1000 * litres)
                self.assertAlmostEqual(back, 25 + 0.9 * (to_c - 25), delta=2.5)

    def test_a_lid_and_a_colder_pot_lose_less(self) -> None:
        open_, shut = Stove(MIDDLE), Stove(MIDDLE, lid=True)
        self.assertLess(heat_lost_w(90, 1000, shut), 0.5 * heat_lost_w(90, 1000, open_))
        self.assertLess(heat_lost_w(50, 1000, open_), 0.2 * heat_lost_w(95, 1000, open_))
        self.assertLess(heat_lost_w(10, 1000, open_), 0.1)

    def test_heat_held_is_that_of_its_parts(self) -> None:
        water, fat, dry = (
            heat_capacity_j_per_k(Balance(**{part: 100.0})) for part in ("water", "fat", "solids")
        )
        self.assertEqual((round(water), round(fat), round(dry)), (418, 200, 160))
        alcohol = heat_capacity_j_per_k(Balance(alcohol=100.0))
        self.assertEqual(round(alcohol), 244)
        both = heat_capacity_j_per_k(Balance(water=100, fat=100, solids=100, alcohol=100))
        self.assertAlmostEqual(both, water + fat + dry + alcohol, delta=1e-6)

    def test_two_things_meet_between_by_what_they_hold(self) -> None:
        self.assertAlmostEqual(mixed_temperature_c(300, 80, 100, 20), 65.0)
        self.assertAlmostEqual(mixed_temperature_c(0.2, 80, 0.2, 20), 50.0)
        # Nothing in an empty pot: as warm as what comes.
        self.assertEqual(mixed_temperature_c(0, 40, 0, 20), 20)


if __name__ == "__main__":
    unittest.main()
