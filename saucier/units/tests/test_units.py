import math
import unittest

from hypothesis import given
from hypothesis import strategies as st

from saucier.errors import BadInput
from saucier.units import UNITS, Amount, kitchen_round, read_amount, read_temperature_c
from saucier.units.rounding import kitchen_step
from saucier.units.table import registry


class Reading(unittest.TestCase):
    def test_what_cooks_write(self) -> None:
        for text, value, unit in (
            ("1 1/2 cups", 1.5, "cup"),
            ("250 ml", 250, "mL"),
            ("2 tbsp", 2, "tbsp"),
            ("½ l", 0.5, "L"),
            ("1½ L", 1.5, "L"),
            ("0,5 kg", 0.5, "kg"),
            ("3 fl oz", 3, "fl oz"),
            ("2 lbs.", 2, "lb"),
            ("3dl", 300, "mL"),
            ("3 pieces", 3, "piece"),
            ("1 and 1/4 cup", 1.25, "cup"),
        ):
            with self.subTest(text):
                self.assertEqual(read_amount(text), Amount(value, unit))
        self.assertEqual(read_amount("80", "g"), Amount(80, "g"))

    def test_what_cannot_be_read_says_so(self) -> None:
        for text in (
            "",
            "abc",
            "-3 g",
            "0 g",
            "1,000 g",
            "1/0 g",
            "1e5 g",
            "NaN g",
            "inf g",
            "5 yards",
            "5",
            "5 g g",
            "9" * 30 + " g",
            "1.2.3 g",
        ):
            with self.subTest(text), self.assertRaises(BadInput) as caught:
                read_amount(text)
            self.assertTrue(caught.exception.problems[0].remedy)

    @given(st.text(max_size=30))
    def test_nothing_but_bad_input(self, text: str) -> None:
        try:
            amount = read_amount(text)
        except BadInput:
            return
        self.assertTrue(math.isfinite(amount.value) and amount.value > 0)
        self.assertIn(amount.unit, UNITS)

    @given(st.floats(0.001, 900), st.sampled_from(sorted(UNITS)))
    def test_round_trip(self, value: float, unit: str) -> None:
        amount = read_amount(f"{value:.6f} {unit}")
        self.assertAlmostEqual(amount.value, value, places=5)
        back = amount.times(1.0 / amount.definition.size)
        self.assertAlmostEqual(back.base, amount.value, places=9)

    def test_sizes_are_pints(self) -> None:
        for unit in UNITS.values():
            quantity = registry().Quantity(1, unit.name.replace(" ", "_")).to_root_units()
            self.assertAlmostEqual(float(quantity.magnitude), unit.size, places=9)

    def test_temperatures(self) -> None:
        self.assertEqual(read_temperature_c("65 °C"), 65)
        self.assertEqual(read_temperature_c("65"), 65)
        self.assertAlmostEqual(read_temperature_c("212 F"), 100, places=2)
        with self.assertRaises(BadInput):
            read_temperature_c("warm")


class Rounding(unittest.TestCase):
    def test_kitchen_steps(self) -> None:
        for amount, rounded in (
            (Amount(83.4, "g"), 83),
            (Amount(463, "g"), 465),
            (Amount(1734, "g"), 1730),
            (Amount(1.734, "kg"), 1.73),
            (Amount(2.6, "piece"), 3),
            (Amount(0.2, "piece"), 1),
            (Amount(1.13, "tbsp"), 1.25),
        ):
            self.assertEqual(kitchen_round(amount).value, rounded)

    @given(st.floats(0.5, 5000), st.sampled_from(["g", "mL", "kg", "tbsp", "oz"]))
    def test_within_half_a_step(self, value: float, unit: str) -> None:
        amount = Amount(value, unit)
        rounded = kitchen_round(amount)
        self.assertGreater(rounded.value, 0)
        if value >= kitchen_step(amount):
            self.assertLessEqual(
                abs(rounded.value - value), 0.5 * kitchen_step(amount) + 1e-9 * value
            )
