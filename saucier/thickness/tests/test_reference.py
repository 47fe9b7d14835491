"""The reference cases of model.md, within 10 % and with the exact grade."""

import unittest

from saucier.check import check
from saucier.larder import shipped_larder
from saucier.pot import EMPTY, boil_off
from saucier.sheet import Sheet
from saucier.testing import add, grams, melt, reduce_to, roux, sheet, white_sauce
from saucier.thickness import assess

COOKED_60 = (roux(60, 60), add("milk-whole", 1, "L"))
LESS_50 = reduce_to(mass=grams(1100))
WINE_CREAM = sheet(
    add("wine-white-dry", 120),
    reduce_to(mass=grams(60)),
    add("cream-35", 237),
    reduce_to(share=0.5),
)


def cream(share: float) -> Sheet:
    return sheet(add("cream-35", 1000), reduce_to(share=share))


CASES: list[tuple[str, Sheet, float, str, str | None]] = [
    ("33 + 33 in 1 L milk", white_sauce(33), 0.064, "pouring", "stable"),
    ("47 + 47", white_sauce(47), 0.238, "light-coat", "stable"),
    ("66 + 66", white_sauce(66), 0.861, "nappe", "stable"),
    ("83 + 83", white_sauce(83), 2.06, "binding", "stable"),
    ("133 + 133", white_sauce(133), 12.7, "spreading", "stable"),
    ("170 + 170", white_sauce(170), 33, "panade", "stable"),
    (
        "66 + 66 in 1 kg light stock",
        sheet(roux(66, 66), add("stock-light", 1000), reduce_to(share=0.95)),
        0.467,
        "nappe",
        "stable",
    ),
    ("cream to 0.70", cream(0.70), 0.037, "pouring", "stable"),
    ("cream to 0.60", cream(0.60), 0.304, "light-coat", "stable"),
    ("cream to 0.55", cream(0.55), 2.41, "binding", "stable"),
    ("cream to 0.50", cream(0.50), 4.8, "spreading", "caution"),
    ("60 + 60, 50 g boiled off", sheet(*COOKED_60, LESS_50), 0.577, "nappe", "stable"),
    (
        "with 120 g hard alpine cheese",
        sheet(*COOKED_60, LESS_50, melt("cheese-hard-alpine", 120)),
        0.857,
        "nappe",
        "stable",
    ),
    ("wine reduced, cream, to 0.50", WINE_CREAM, 0.210, "light-coat", None),
    ("66 + 66 at 85 °C", white_sauce(66, target={"serving_c": 85}), 0.618, "nappe", "stable"),
    ("66 + 66 at 50 °C", white_sauce(66, target={"serving_c": 50}), 1.13, "nappe", "stable"),
]


class ReferenceCases(unittest.TestCase):
    def test_every_case(self) -> None:
        for name, case, viscosity, grade, emulsion in CASES:
            with self.subTest(name):
                final = check(case).final
                self.assertAlmostEqual(final.thickness.viscosity_pa_s / viscosity, 1.0, delta=0.1)
                self.assertEqual(final.thickness.grade, grade)
                if emulsion:
                    self.assertEqual(final.emulsion, emulsion)

    def test_cream_to_047_is_oily(self) -> None:
        final = check(cream(0.47)).final
        self.assertEqual(final.emulsion, "oily")
        # By hand 0.794; the table gives it rounded.
        self.assertAlmostEqual(final.thickness.fat_volume_share, 0.80, delta=0.01)

    def test_liaison_heated_and_unheated(self) -> None:
        """The balance itself, until the liaison step exists."""
        larder = shipped_larder()
        pot = EMPTY
        for key, mass in (("butter-unsalted", 50), ("wheat-flour", 50), ("stock-light", 1000)):
            pot = pot.plus(larder[key].per_gram, mass)
        pot = boil_off(pot, 50)
        for key, mass in (("egg-yolk", 54), ("cream-35", 100)):
            pot = pot.plus(larder[key].per_gram, mass)
        for heated, viscosity in ((True, 0.297), (False, 0.134)):
            found = assess(pot, yolk_set=heated)
            self.assertAlmostEqual(found.viscosity_pa_s / viscosity, 1.0, delta=0.1)
            self.assertEqual(found.grade, "light-coat")

    def test_the_pan_moves_thickness_by_a_quarter(self) -> None:
        """16 against 28 cm, five minutes' simmer (model.md 4)."""
        found = []
        for diameter in (16, 28):
            simmered = sheet(
                roux(66, 66),
                add("milk-whole", 1, "L"),
                {"op": "simmer", "minutes": 5},
                pan={"diameter_cm": diameter, "depth_cm": 16},
            )
            found.append(check(simmered).final.thickness.viscosity_pa_s)
        self.assertGreater(found[1] / found[0], 1.15)
        self.assertLess(found[1] / found[0], 1.40)
