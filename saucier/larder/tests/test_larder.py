import csv
import math
import unittest
from pathlib import Path

from saucier.check import check
from saucier.errors import BadInput
from saucier.exchange.names import ingredient_named
from saucier.larder import ALLERGENS, ORIGINS, ingredient_from_row, shipped_larder
from saucier.larder.row import PARTS, closing_sum
from saucier.testing import add, grams, sheet, simmer
from saucier.units import Amount

ROWS = list(
    csv.DictReader(Path(__file__).parents[1].joinpath("ingredients.csv").open(encoding="utf-8"))
)


class ShippedLarder(unittest.TestCase):
    def test_every_row_closes_and_says_where_it_comes_from(self) -> None:
        self.assertGreaterEqual(len(ROWS), 250)
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

    def test_a_cook_rarely_has_to_invent_one(self) -> None:
        """Shop names and kitchen names, each found for sure."""
        for said, key in (
            ("parmesan", "parmesan-style-hard"),
            ("cheddar", "cheese-firm-mature"),
            ("gruyère", "cheese-hard-alpine"),
            ("feta", "cheese-brined"),
            ("pecorino", "cheese-sheep-hard"),
            ("ricotta", "cheese-whey-fresh"),
            ("quark", "cheese-curd"),
            ("basil", "basil"),
            ("rosemary", "rosemary"),
            ("paprika", "paprika-sweet"),
            ("cayenne pepper", "cayenne"),
            ("saffron threads", "saffron"),
            ("mustard powder", "mustard-powder"),
            ("garlic powder", "garlic-powder"),
            ("pancetta", "bacon-streaky"),
            ("smoked salmon", "salmon-smoked"),
            ("lobster", "lobster"),
            ("crab meat", "crab-white"),
            ("brown crab meat", "crab-brown"),
            ("coral", "lobster-coral"),
            ("veal", "veal"),
            ("salmon fillet", "salmon"),
            ("orange juice", "orange-juice"),
            ("green peppercorns", "peppercorns-brined"),
            ("pastis", "anise-spirit"),
            ("half glaze", "stock-reduced"),
            ("herb butter", "butter-herb"),
            ("pasta water", "water-pasta"),
            ("stock cube", "stock-powder"),
            ("parsnips", "parsnip"),
            ("swiss chard", "chard"),
        ):
            with self.subTest(said):
                self.assertEqual(ingredient_named(said, shipped_larder())[:2], (key, True))

    def test_an_alias_means_one_thing(self) -> None:
        names = [row["name"].lower() for row in ROWS]
        aliases = [one.strip() for row in ROWS for one in row["aliases"].split(";") if one.strip()]
        self.assertEqual(len(aliases), len(set(aliases)))
        self.assertEqual(len(names), len(set(names)))

    def test_rashers_give_their_fat_to_the_pan(self) -> None:
        """Swept in a dry pan they need no other fat, and what runs out swims."""
        case = sheet(
            {"op": "sweat", "ingredient": "bacon-streaky", "amount": "4 rashers", "minutes": 8},
            {"op": "dust", "amount": grams(15)},
            add("milk-whole", 400, "mL"),
            simmer(5),
        )
        states = check(case).steps
        self.assertAlmostEqual(
            states[0].pot.balance.fat, 88 * 0.20 * (1 - math.exp(-8 / 6)), places=3
        )
        self.assertAlmostEqual(states[0].pot.balance.fat, states[0].pot.balance.loose)
        self.assertNotIn("no-fat", [w.code for w in states[0].warnings])
        self.assertTrue(0.75 * 88 < states[0].pot.total_g < 88, "nothing is lost but steam")
        self.assertAlmostEqual(states[2].pot.total_g, states[0].pot.total_g + 15 + 412, places=6)
        self.assertGreater(states[-1].pot.balance.fat, states[0].pot.balance.fat + 14)

    def test_nobody_measures_a_kilo_by_the_cup(self) -> None:
        larder = shipped_larder()
        self.assertIsNone(larder["butter-unsalted"].in_spoons(1000))
        self.assertIsNone(larder["wheat-flour"].in_spoons(1000))
        self.assertEqual(str(larder["wheat-flour"].in_spoons(127.2)), "1 cup")
        self.assertIsNotNone(larder["milk-whole"].in_spoons(700))

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

    def test_a_shop_name_for_a_key_is_answered_with_the_row_it_is(self) -> None:
        for said, key in (
            ("parmesan", "parmesan-style-hard"),
            ("Cheddar", "cheese-firm-mature"),
            ("double_cream", "cream-48"),
            ("smoked-salmon", "salmon-smoked"),
        ):
            with self.assertRaises(BadInput) as caught:
                shipped_larder()[said]
            self.assertIn(f"Did you mean {key}?", str(caught.exception.problems[0].remedy))

    def test_bad_rows_are_refused_by_column(self) -> None:
        for change, field in (
            ({"water": "lots"}, "water"),
            ({"fat": "40"}, "composition"),
            ({"allergens": "lactose"}, "allergens"),
        ):
            with self.assertRaises(BadInput) as caught:
                ingredient_from_row({**ROWS[0], **change})
            self.assertEqual(caught.exception.problems[0].field, field)


class Cups(unittest.TestCase):
    def test_a_cup_of_pieces_holds_air(self) -> None:
        """Cut food lies loose in a cup; grains and what is soft or whole fill it."""
        fills = {"barley-pearl", "rice", "lentils", "polenta", "tofu", "pancake", "egg-whole"}
        for row in shipped_larder().values():
            cut = row.piece and row.role in ("solid", "vegetable", "aromatic")
            if cut and row.key not in fills:
                with self.subTest(row.key):
                    self.assertLessEqual(row.grams(Amount(1, "cup")), 180.5)

    def test_nobody_spoons_a_yolk(self) -> None:
        yolk = shipped_larder()["egg-yolk"]
        self.assertIsNone(yolk.in_spoons(4.0))
        self.assertEqual(str(yolk.in_spoons(36.0)), str(Amount(2, "piece")))
