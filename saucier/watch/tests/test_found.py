"""What a cook judged and weighed in the end wins over the sum, and changes nothing of what is in it."""

import unittest

from saucier.check import check
from saucier.keeping import keeps
from saucier.testing import add, grams, roux, sheet, simmer
from saucier.watch import as_judged

YOLK = {"ingredient": "egg-yolk", "amount": {"value": 3, "unit": "piece"}}
LIAISON = {
    "op": "liaison",
    "yolk": YOLK,
    "cream": {"ingredient": "cream-35", "amount": grams(100)},
    "heat_to_c": 81,
}


class Judged(unittest.TestCase):
    def test_the_spoon_and_the_scale_win(self) -> None:
        state = check(sheet(roux(60, 60), add("milk-whole", 1, "L"), simmer(5))).final
        judged = as_judged(state, 2.0, 900.0)
        self.assertEqual(state.thickness.grade, "nappe")
        self.assertEqual(judged.thickness.grade, "binding")
        self.assertEqual(judged.figures.viscosity_pa_s, 2.0)
        self.assertAlmostEqual(judged.pot.total_g, 900.0)
        self.assertAlmostEqual(judged.figures.salt_pct, state.figures.salt_pct, delta=1e-3)
        self.assertIs(as_judged(state, None, None).pot, state.pot)

    def test_how_long_it_keeps_does_not_hang_on_the_eye(self) -> None:
        """A liaison with hardly any flour, judged thick, is for its service all the same."""
        state = check(sheet(roux(8, 8), add("stock-light", 1, "L"), simmer(3), LIAISON)).final
        self.assertEqual(keeps(state.pot).days, 0)
        self.assertEqual(keeps(as_judged(state, 3.0, None).pot).days, 0)


if __name__ == "__main__":
    unittest.main()
