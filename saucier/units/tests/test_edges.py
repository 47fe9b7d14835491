"""Units and amounts at their edges: steps of the scale, commas, what is refused and how."""

import unittest

from saucier.errors import BadInput
from saucier.units.amount import Amount, MeasuredBy
from saucier.units.reading import read_amount, read_temperature_c
from saucier.units.rounding import kitchen_step
from saucier.units.table import Dimension, unit_named


class Edges(unittest.TestCase):
    def test_a_kitchen_weighs_in_steps_that_change_at_100_g_and_a_kilo(self) -> None:
        steps = [kitchen_step(Amount(grams, "g")) for grams in (99, 100, 999, 1000)]
        self.assertEqual(steps, [1.0, 5.0, 5.0, 10.0])

    def test_a_decimal_comma_is_read_and_a_thousand_is_asked_about(self) -> None:
        self.assertEqual(read_temperature_c("65,5 C"), 65.5)
        self.assertEqual(read_temperature_c("100 F"), 37.78)
        self.assertEqual(read_amount("1,5 kg"), Amount(1.5, "kg"))
        asked = self.refusal("1,500 g")
        self.assertEqual(asked.code, "can-be-read-two-ways")
        self.assertEqual(str(asked.remedy), "Write 1500 or 1.500")

    def test_what_is_no_amount_says_so_at_its_own_place(self) -> None:
        for text, code in (("", "is-no-amount"), ("5", "has-no-unit")):
            refused = self.refusal(text)
            self.assertEqual((refused.field, refused.code), ("", code))
        with self.assertRaises(BadInput) as warm:
            read_temperature_c("warm")
        self.assertEqual(str(warm.exception.problems[0].message), "“warm” is not a temperature")

    def refusal(self, text: str):
        with self.assertRaises(BadInput) as bad:
            read_amount(text)
        return bad.exception.problems[0]

    def test_units_beside_the_usual_ones_have_their_size_and_kind(self) -> None:
        deci = unit_named("dl")
        self.assertEqual((deci.name, deci.dimension, deci.size), ("dl", Dimension.VOLUME, 100.0))
        self.assertEqual(unit_named("Litres").name, "L")

    def test_a_measure_goes_along_with_its_amount(self) -> None:
        knobs = Amount(30, "g", MeasuredBy("knob", 2, 0.3)).times(1.5)
        self.assertEqual((knobs.value, knobs.measure), (45, MeasuredBy("knob", 3.0, 0.3)))
        self.assertIn("measure=MeasuredBy(name='knob'", repr(knobs))
        self.assertNotIn("measure", repr(Amount(30, "g")))


if __name__ == "__main__":
    unittest.main()
