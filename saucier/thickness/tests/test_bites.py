"""Small slips that once went unseen: each is held by a figure worked by hand."""

import math
import unittest

from saucier.check import check
from saucier.constants import DENSITY_FAT
from saucier.heat import Pan
from saucier.larder import shipped_larder
from saucier.pot import EMPTY, Balance
from saucier.steps.enrich import tempering
from saucier.testing import add, grams, reduce_to, roux, sheet, simmer
from saucier.thickness import assess, raw_viscosity_pa_s


class Figures(unittest.TestCase):
    def test_yolk_and_butter_are_an_emulsion_from_two_fifths_of_the_volume(self) -> None:
        bare = Balance(water=95, yolk_protein=5)
        for share, reason in ((0.39, None), (0.41, "companion")):
            butter = DENSITY_FAT * bare.volume_ml * share / (1 - share)
            self.assertEqual(
                assess(bare._replace(fat=butter, butter=butter)).why_not, reason, share
            )

    def test_a_trace_of_flour_sets_in_the_cold(self) -> None:
        balance = Balance(water=900, flour=0.5, thickener=0.5)
        self.assertEqual(assess(balance, temperature_c=20).why_not, "set")
        self.assertIsNone(assess(balance, temperature_c=60).why_not)

    def test_alcohol_is_part_of_the_water_phase(self) -> None:
        """8 g flour in 100 g water and 20 g alcohol: c = 100·8/120; no fat, no solids."""
        found = raw_viscosity_pa_s(Balance(water=100, alcohol=20, flour=8, thickener=8))
        self.assertAlmostEqual(found, 0.00047 * (1 + 0.52 * (800 / 120) ** 3.7), places=9)

    def test_the_thick_side_runs_away_near_the_end_of_a_cream(self) -> None:
        for share, factor in ((0.5, 1.005), (0.6, 1.002)):
            state = check(sheet(add("cream-35", 1000), reduce_to(mass=grams(1000 * share)))).final
            found = state.thickness
            up = found.high_pa_s / found.viscosity_pa_s
            down = found.viscosity_pa_s / found.low_pa_s
            self.assertGreater(up / down, factor)

    def test_a_bowl_is_a_part_of_a_sphere(self) -> None:
        """A half sphere of 10 cm: 2/3·π·r³; filled 5 cm deep π·h²·(3r − h)/3 and a rim of √75 cm."""
        bowl = Pan("bowl", "bowl", 20, 10)
        self.assertAlmostEqual(bowl.capacity_ml, 2 / 3 * math.pi * 1000, places=6)
        filled = math.pi * 25 * 25 / 3
        self.assertAlmostEqual(bowl.level_mm(filled), 50, places=4)
        self.assertAlmostEqual(bowl.surface_m2(filled), math.pi * 75 / 1e4, places=6)

    def test_a_liaison_may_simmer_from_forty_grams_a_litre(self) -> None:
        def codes(flour: float) -> set[str]:
            liaison = {
                "op": "liaison",
                "yolk": {"ingredient": "egg-yolk", "amount": grams(36)},
                "cream": {"ingredient": "cream-35", "amount": grams(60)},
                "heat_to_c": 80,
            }
            steps = (roux(flour, flour), add("water", 1000), liaison)
            return {w.code for state in check(sheet(*steps)).steps for w in state.warnings}

        self.assertIn("liaison-bare", codes(30))
        self.assertNotIn("liaison-bare", codes(43))

    def test_flour_that_comes_later_has_not_boiled(self) -> None:
        base = (roux(20, 20), add("milk-whole", 500), simmer(10))
        self.assertGreater(check(sheet(*base)).final.pot.boiled_min, 9)
        later = check(sheet(*base, roux(10, 10, "raw"))).final
        self.assertEqual(later.pot.boiled_min, 0.0)
        self.assertIn("not-boiled", [w.code for w in later.warnings])

    def test_no_ladle_takes_yolk_over_65_before_it_is_diluted(self) -> None:
        larder = shipped_larder()
        mixture = EMPTY.plus(larder["egg-yolk"].per_gram, 54).plus(larder["cream-35"].per_gram, 100)
        sauce = EMPTY.plus(larder["stock-light"].per_gram, 1000)
        warm = tempering(mixture, sauce, 96.0, 58.0)
        self.assertAlmostEqual(warm[0].temperature_c, 65.0, places=6)
        self.assertLessEqual(max(ladle.temperature_c for ladle in warm), 65.0 + 1e-6)
        cold = tempering(mixture, sauce, 96.0, 5.0)
        self.assertAlmostEqual(cold[0].temperature_c, 20.0, places=6)


if __name__ == "__main__":
    unittest.main()
