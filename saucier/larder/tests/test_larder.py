import csv
import unittest
from pathlib import Path

from saucier.errors import BadInput
from saucier.larder import ALLERGENS, ORIGINS, ingredient_from_row, shipped_larder
from saucier.larder.row import PARTS, closing_sum
from saucier.units import Amount

ROWS = list(
    csv.DictReader(Path(__file__).parents[1].joinpath("ingredients.csv").open(encoding="utf-8"))
)


class ShippedLarder(unittest.TestCase):
    def test_every_row_closes_and_says_where_it_comes_from(self) -> None:
        self.assertGreaterEqual(len(ROWS), 40)
        for row in ROWS:
            with self.subTest(row["key"]):
                parts = {part: float(row[part] or 0) for part in PARTS}
                self.assertAlmostEqual(closing_sum(parts), 100, delta=2)
                self.assertIn(row["origin"], ORIGINS)
                self.assertLessEqual(set(row["allergens"].split()), set(ALLERGENS))
                self.assertGreater(float(row["density"]), 0)

    def test_a_gram_weighs_a_gram(self) -> None:
        for row in shipped_larder().values():
            self.assertAlmostEqual(row.per_gram.mass_g, 1.0, places=9)

    def test_fixed_keys_are_there(self) -> None:
        for key in (
            "butter-unsalted",
            "wheat-flour",
            "milk-whole",
            "cheese-hard-alpine",
            "salt",
            "cream-35",
            "stock-light",
            "wine-white-dry",
            "egg-yolk",
            "stock-fish",
            "parmesan-style-hard",
        ):
            self.assertIn(key, shipped_larder())

    def test_units(self) -> None:
        larder = shipped_larder()
        self.assertAlmostEqual(larder["milk-whole"].grams(Amount(1, "L")), 1030)
        self.assertAlmostEqual(larder["egg-yolk"].grams(Amount(3, "piece")), 54)
        self.assertAlmostEqual(larder["wheat-flour"].grams(Amount(1, "cup")), 127.2)
        grated = larder["cheese-hard-alpine"]
        self.assertLess(grated.grams(Amount(1, "cup")), grated.grams(Amount(240, "mL")))
        with self.assertRaises(BadInput):
            larder["milk-whole"].grams(Amount(1, "piece"))

    def test_unknown_key_names_near_ones(self) -> None:
        with self.assertRaises(BadInput) as caught:
            shipped_larder()["milk-hole"]
        self.assertIn("milk-whole", str(caught.exception.problems[0].remedy))

    def test_bad_rows_are_refused_by_column(self) -> None:
        for change, field in (
            ({"water": "lots"}, "water"),
            ({"fat": "40"}, "composition"),
            ({"allergens": "lactose"}, "allergens"),
        ):
            with self.assertRaises(BadInput) as caught:
                ingredient_from_row({**ROWS[0], **change})
            self.assertEqual(caught.exception.problems[0].field, field)
