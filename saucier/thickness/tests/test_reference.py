"""The reference cases of docs/model.md 11, within 10 % and with the exact grade."""

import unittest
from typing import Any

from saucier.check import check
from saucier.sheet import Sheet
from saucier.testing import add, grams, melt, reduce_to, roux, sheet, white_sauce

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


def milk_and(flour_g: float, *after: dict[str, Any], milk_ml: float = 1000) -> Sheet:
    """A roux of ``flour_g`` each in milk, 5 % of the pot boiled off, then ``after``."""
    base = roux(flour_g, flour_g), add("milk-whole", milk_ml, "mL"), reduce_to(share=0.95)
    return sheet(*base, *after)


def cream_and(*steps: dict[str, Any]) -> Sheet:
    return sheet(add("cream-35", 250), *steps)


LIAISON = {
    "op": "liaison",
    "yolk": {"ingredient": "egg-yolk", "amount": grams(54)},
    "cream": {"ingredient": "cream-35", "amount": grams(100)},
}


def with_liaison(heat_to_c: float | None) -> Sheet:
    base = roux(50, 50), add("stock-light", 1000), reduce_to(mass=grams(1050))
    # Unheated means into a pot that has cooled: at the boil the pot itself would heat it.
    cooled = () if heat_to_c else ({"op": "cool", "to_c": 60},)
    return sheet(*base, *cooled, {**LIAISON, "heat_to_c": heat_to_c})


CASES: list[tuple[str, Sheet, float, str, str | None]] = [
    ("33 + 33 in 1 L milk", white_sauce(33), 0.066, "pouring", "stable"),
    ("47 + 47", white_sauce(47), 0.246, "light-coat", "stable"),
    ("66 + 66", white_sauce(66), 0.872, "nappe", "stable"),
    ("83 + 83", white_sauce(83), 2.06, "binding", "stable"),
    ("133 + 133", white_sauce(133), 12.1, "spreading", "stable"),
    ("170 + 170", white_sauce(170), 30.7, "panade", "stable"),
    (
        "66 + 66 in 1 kg light stock",
        sheet(roux(66, 66), add("stock-light", 1000), reduce_to(share=0.95)),
        0.441,
        "nappe",
        "stable",
    ),
    ("cream to 0.70", cream(0.70), 0.037, "pouring", "stable"),
    ("cream to 0.65", cream(0.65), 0.084, "pouring", "stable"),
    ("cream to 0.60", cream(0.60), 0.222, "light-coat", "stable"),
    ("cream to 0.58", cream(0.58), 0.341, "light-coat", "stable"),
    ("cream to 0.55", cream(0.55), 0.687, "nappe", "stable"),
    ("cream to 0.50", cream(0.50), 2.67, "binding", "caution"),
    ("cream to 0.47", cream(0.47), 7.3, "spreading", "oily"),
    ("60 + 60, 50 g boiled off", sheet(*COOKED_60, LESS_50), 0.588, "nappe", "stable"),
    (
        "with 120 g hard alpine cheese",
        sheet(*COOKED_60, LESS_50, melt("cheese-hard-alpine", 120)),
        0.713,
        "nappe",
        "stable",
    ),
    (
        "with 300 g of it",
        sheet(*COOKED_60, LESS_50, melt("cheese-hard-alpine", 300)),
        1.18,
        "nappe",
        "stable",
    ),
    (
        "cream to 212 g, 50 g hard grating cheese",
        cream_and(reduce_to(mass=grams(212)), melt("parmesan-style-hard", 50)),
        0.307,
        "light-coat",
        "stable",
    ),
    (
        "cream, 80 g of it, unreduced",
        cream_and(melt("parmesan-style-hard", 80)),
        0.34,
        "light-coat",
        "stable",
    ),
    (
        "cream, ready roux 8 + 8, to 250 g",
        cream_and(roux(8, 8), reduce_to(mass=grams(250))),
        1.14,
        "nappe",
        "stable",
    ),
    (
        "the same with 40 g hard grating cheese",
        cream_and(roux(8, 8), reduce_to(mass=grams(250)), melt("parmesan-style-hard", 40)),
        4.2,
        "spreading",
        "stable",
    ),
    (
        "33 + 33 in 500 mL milk, 500 g onion purée",
        milk_and(33, add("onion-puree", 500), milk_ml=500),
        2.2,
        "binding",
        "stable",
    ),
    (
        "14 + 14 in 300 mL milk, 60 g spinach purée",
        milk_and(14, add("spinach-puree", 60), milk_ml=300),
        0.40,
        "nappe",
        "stable",
    ),
    (
        "50 g light stock, 100 g soured cream",
        sheet(add("stock-light", 50), {**add("soured-cream-20", 100), "op": "finish"}),
        0.089,
        "pouring",
        "stable",
    ),
    ("wine reduced, cream, to 0.50", WINE_CREAM, 0.182, "light-coat", None),
    (
        "begun with 10 g oil and 25 g shallot: the share is of the liquid",
        sheet(
            add("oil-neutral", 10),
            add("shallot", 25),
            add("wine-white-dry", 120),
            reduce_to(mass=grams(95)),
            add("cream-35", 237),
            reduce_to(share=0.5),
        ),
        0.26,
        "light-coat",
        None,
    ),
    ("50 + 50 in stock, yolk and cream heated", with_liaison(80), 0.275, "light-coat", "stable"),
    ("the same unheated", with_liaison(None), 0.124, "light-coat", "stable"),
    ("66 + 66 at 85 °C", white_sauce(66, target={"serving_c": 85}), 0.626, "nappe", "stable"),
    ("66 + 66 at 50 °C", white_sauce(66, target={"serving_c": 50}), 1.15, "nappe", "stable"),
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

    def test_fat_shares_of_the_table(self) -> None:
        for share, phi in ((0.55, 0.68), (0.50, 0.75), (0.47, 0.79)):
            found = check(cream(share)).final.thickness.fat_volume_share
            self.assertAlmostEqual(found, phi, delta=0.006)

    def test_purees_of_their_own_read_from_light_coat_to_panade(self) -> None:
        for key, grade in (("tomato", "light-coat"), ("onion", "binding"), ("celeriac", "panade")):
            pulp = check(sheet(add("water", 0.01), add(key, 200), {"op": "blend"})).final
            self.assertEqual(pulp.thickness.grade, grade, key)
        mash = check(sheet(add("tomato-paste", 100), add("water", 1))).final.thickness
        self.assertIsNone(mash.grade)
        self.assertIn("mash", str(mash.reason))

    def test_the_pan_moves_thickness_by_a_quarter(self) -> None:
        """16 against 28 cm, five minutes' simmer (docs/model.md 4)."""
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
