"""Figures as a kitchen writes them: the same facts, other signs."""

import re
import unittest
from collections.abc import Iterator

from saucier.cards import cards
from saucier.check import check
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.larder import shipped_larder
from saucier.rescue import SIGNS, Case, remedies
from saucier.starts import STARTS
from saucier.units import Amount, read_amount
from saucier.words import Ways, degrees_in, going_by, plain, say, sentences
from saucier.words.ways import filled_in

EVERY = Ways(fahrenheit=True, us=True, comma=True)
_FACT = re.compile(r"\{(\w+)(?::[^}]*)?\}")
OTHER_WAYS = re.compile(r"°C|(?<![\d.])\d+\.\d+(?![\d.])")
"""A degree in Celsius or a decimal point, where the kitchen has neither."""


def texts(result: object) -> Iterator[str]:
    """Every text in ``result``, plain data."""
    if isinstance(result, str):
        yield result
    elif isinstance(result, dict):
        for value in result.values():
            yield from texts(value)
    elif isinstance(result, list):
        for value in result:
            yield from texts(value)


class Figures(unittest.TestCase):
    def test_degrees(self) -> None:
        told = say("soft-cream", max_c=80.0)
        self.assertIn("80 °C", str(told))
        with going_by(Ways(fahrenheit=True)):
            self.assertIn("176 °F", str(told))
            self.assertNotIn("°C", str(told))
        self.assertIn("80 °C", str(told))  # and no longer

    def test_a_comma_in_figures_and_nowhere_else(self) -> None:
        with going_by(Ways(comma=True)):
            told = str(say("assumed.salt", salt_pct=0.8))
        self.assertEqual(told, "salt to taste: 0,8 g in 100 g")

    def test_us_measures_come_first_and_metric_stays(self) -> None:
        with going_by(Ways(us=True)):
            told = str(say("need-film", ml=240.0))
        self.assertTrue(told.endswith("= 1 cup (240 mL)"), told)

    def test_both_ends_of_a_range_are_written_alike(self) -> None:
        with going_by(Ways(fahrenheit=True, us=True)):
            self.assertIn("122 to 140 °F", str(say("sign.emulsion-split.next-time")))
            self.assertIn(
                "122 to 572 °F",
                filled_in("{low:.0f} to {most:.0f} °C, still or fan", {"low": 50.0, "most": 300.0}),
            )
            self.assertIn(
                "140 → 158 °F", str(say("moves-temperature_c", was=60.0, now=70.0, place="it"))
            )
            self.assertEqual(
                degrees_in("57 to 21 °C in 2 h, 5 °C in 6 h"), "135 to 70 °F in 2 h, 41 °F in 6 h"
            )
            plates = str(say("ready.plates", count=6, dish="Rye toasts", to_c=60.0))
        self.assertEqual(plates, "Warm 6 plates for Rye toasts to 140 °F")

    def test_no_range_is_half_in_other_measures(self) -> None:
        with going_by(Ways(us=True)):
            told = filled_in(
                "Give {low:g} to {most:g} mL of {all:.0f} mL", {"low": 60, "most": 240, "all": 480}
            )
        self.assertEqual(told, "Give 60 to 240 mL of 2 cups (480 mL)")

    def test_every_sentence_can_be_said_every_way(self) -> None:
        for code, words in sentences().items():
            facts = dict.fromkeys(_FACT.findall(words), 61.25)
            with self.subTest(code):
                try:
                    usual = str(say(code, **facts))
                except ValueError:
                    continue  # its facts are words
                with going_by(EVERY):
                    other = str(say(code, **facts))
                # Ratios and figures keep their places: nothing is lost, no degree is left in Celsius.
                self.assertNotIn("°C", other)
                self.assertEqual("°" in usual, "°" in other)

    def test_what_is_computed_does_not_change(self) -> None:
        for start in STARTS[:12]:
            usual = check(start, Kitchen())
            with going_by(EVERY):
                other = check(start, Kitchen())
                told = [str(card.do) for card in cards(other)]
            self.assertEqual(usual.final.pot, other.final.pot)
            self.assertFalse(any("°C" in one for one in told))

    def test_amounts_in_sentences_are_written_like_other_figures(self) -> None:
        """“Stir in 2.5 g sugar”: an amount within a sentence is a figure too."""
        with going_by(EVERY):
            self.assertIn("2,5 g", str(say("sugar.title", amount=Amount(2.5, "g"))))
            self.assertIn("0,5 tbsp", str(say("sugar.title", amount=Amount(0.5, "tbsp"))))
            self.assertIn("1 cup (0,24 L)", str(say("sugar.title", amount=Amount(0.24, "L"))))
            kitchen = Kitchen()
            for start in STARTS[::9]:
                checked = check(start, kitchen)
                eta = checked.final.thickness.viscosity_pa_s
                shown: list[object] = [cards(checked)]
                if eta is not None:
                    shown += [remedies(Case(start, eta, kitchen), sign.key) for sign in SIGNS]
                for text in texts(plain(shown)):
                    self.assertNotRegex(text, OTHER_WAYS)

    def test_what_is_written_with_a_comma_is_read_with_one(self) -> None:
        with self.assertRaises(BadInput):
            read_amount("1,375 L")  # a thousand and more, or one and a bit?
        with going_by(Ways(comma=True)):
            self.assertEqual(read_amount("1,375 L"), Amount(1.375, "L"))

    def test_spoons_of_twenty(self) -> None:
        flour = shipped_larder()["wheat-flour"]
        self.assertEqual(str(flour.in_spoons(16.0)), "2 tbsp")
        with going_by(Ways(tablespoon_ml=20.0)):
            spoons = flour.in_spoons(16.0)
        assert spoons and spoons.measure
        self.assertEqual((spoons.measure.name, spoons.measure.count), ("tbsp", 1.5))
        self.assertEqual(spoons.value, 30.0)


if __name__ == "__main__":
    unittest.main()
