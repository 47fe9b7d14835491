"""Amounts as cooks type them, and amounts a kitchen can measure."""

import unittest

from hypothesis import given
from hypothesis import strategies as st

from saucier.errors import BadInput
from saucier.larder import shipped_larder, shipped_measures
from saucier.units import Amount, kitchen_round, read_amount
from saucier.units.rounding import FINENESS
from saucier.units.spoons import FILLED_IN, SPOONED_WITHIN, in_parts, spooned

LARDER, MEASURES = shipped_larder(), shipped_measures()
SPELLINGS = {
    "80": 80.0,
    "80 mL": 80.0,
    "80ml": 80.0,
    "half a cup": 120.0,
    "half cup": 120.0,
    "two thirds of a cup": 160.0,
    "three quarters of a litre": 750.0,
    "a cup and a half": 360.0,
    "one and a half cups": 360.0,
    "1 1/2 cups": 360.0,
    "1½ cups": 360.0,
    "1,5 dl": 150.0,
    "⅜ cup + 1 tsp": 95.0,
    "1 cup and 2 tablespoons": 270.0,
    "a couple of tablespoons": 30.0,
    "about 350 ml": 350.0,
    "~80 ml": 80.0,
    "300 to 350 ml": 325.0,
    "2-3 tbsp": 37.5,
    "3 ladles": 360.0,
    "about half a ladle": 60.0,
    "a ladle and a half": 180.0,
    "a glass": 150.0,
}
"""What is typed for a liquid, and the mL it is."""


class AsTyped(unittest.TestCase):
    def test_a_liquid_in_every_spelling(self) -> None:
        milk = LARDER["milk-whole"]
        for text, ml in SPELLINGS.items():
            with self.subTest(text):
                amount = MEASURES.read(text, milk, "mL")
                self.assertAlmostEqual(milk.grams(amount) / milk.density, ml, places=4)

    def test_weights_in_two_units_and_in_dozens(self) -> None:
        for text, value, unit in (
            ("1 lb 4 oz", 1.25, "lb"),
            ("1 kg 200 g", 1.2, "kg"),
            ("half a dozen pieces", 6, "piece"),
            ("a dozen pieces", 12, "piece"),
            ("half", 0.5, "g"),
        ):
            with self.subTest(text):
                read = read_amount(text, "g")
                self.assertAlmostEqual(read.value, value)
                self.assertEqual(read.unit, unit)

    def test_about_and_a_range_are_doubts(self) -> None:
        for text, count, spread in (
            ("about 350 g", 350.0, 0.1),
            ("300 to 400 g", 350.0, 0.0714),
            ("350 g", None, None),
        ):
            with self.subTest(text):
                by = read_amount(text).measure
                self.assertEqual(by and (by.count, by.spread), count and (count, spread))
        ladles = MEASURES.read("about 3 ladles", LARDER["milk-whole"])
        self.assertGreater(ladles.measure.spread, 0.1)  # a ladle's own doubt is in it too

    def test_what_cannot_be_is_refused(self) -> None:
        for text in ("1 cup + 30 g", "half", "80 mL g", "lots", "", "-1 g", "3 ladles of joy"):
            with self.subTest(text), self.assertRaises(BadInput):
                read_amount(text)
        with self.assertRaises(BadInput) as tins:
            MEASURES.read("1 tin 400 m", LARDER["tomato"])
        self.assertEqual(tins.exception.problems[0].code, "is-no-unit")

    @given(st.text(max_size=40))
    def test_any_text_is_an_amount_or_bad_input(self, text: str) -> None:
        try:
            amount = MEASURES.read(text, LARDER["milk-whole"], "g")
        except BadInput:
            return
        self.assertGreater(amount.value, 0.0)

    def test_a_doubt_outlives_rounding(self) -> None:
        third = read_amount("about 350 g").times(1 / 3)
        rounded = kitchen_round(third)
        self.assertEqual((rounded.value, rounded.measure.count), (115.0, 115.0))
        self.assertEqual(rounded.measure.spread, 0.1)


class Measurable(unittest.TestCase):
    @given(st.floats(0.05, 40.0), st.sampled_from(sorted(FILLED_IN)), st.sampled_from(FINENESS))
    def test_rounded_spoons_are_filled_exactly(self, value: float, unit: str, fine: float) -> None:
        rounded = kitchen_round(Amount(value, unit), fine)
        parts = in_parts(rounded)
        self.assertAlmostEqual(
            sum(p.base for p in parts) / rounded.base, 1.0, delta=0.02, msg=f"{rounded} {parts}"
        )
        for part in parts:
            self.assertAlmostEqual(part.value / FILLED_IN[part.unit] % 1.0, 0.0, places=6)

    @given(st.floats(0.3, 30_000.0), st.sampled_from(FINENESS))
    def test_weights_are_what_a_scale_tells(self, grams: float, fineness: float) -> None:
        tenths = kitchen_round(Amount(grams, "g"), fineness).value * 10.0
        self.assertAlmostEqual(tenths, round(tenths), places=6)

    @given(st.floats(0.5, 2_000.0))
    def test_spoons_beside_a_weight_are_near_it(self, ml: float) -> None:
        filled = spooned(ml)
        if filled is not None:
            self.assertLessEqual(abs(filled.base / ml - 1.0), SPOONED_WITHIN + 1e-9)
        elif ml > 30.0:
            self.fail(f"{ml} mL has no spoons")

    @given(st.floats(3.0, 1_000.0), st.sampled_from(["wheat-flour", "butter-unsalted", "salt"]))
    def test_so_it_is_for_what_is_packed(self, grams: float, key: str) -> None:
        row = LARDER[key]
        spoons = row.in_spoons(grams)
        if spoons is not None and spoons.unit in FILLED_IN:
            self.assertLessEqual(abs(row.grams(spoons) / grams - 1.0), SPOONED_WITHIN + 1e-9)

    def test_in_one_or_in_two(self) -> None:
        for amount, written in (
            (Amount(0.9147, "cup"), ["0.875 cup", "2 tsp"]),
            (Amount(2.744, "tbsp"), ["2.75 tbsp"]),
            (Amount(0.1, "cup"), ["1.5 tbsp", "0.25 tsp"]),
            (Amount(35.28, "g"), ["35.28 g"]),
        ):
            self.assertEqual([str(part) for part in in_parts(amount)], written)


if __name__ == "__main__":
    unittest.main()
