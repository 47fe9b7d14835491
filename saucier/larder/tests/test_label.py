"""A row from a packet's label does what the shipped row of the same thing does."""

import unittest

from saucier.check import check
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.larder import ROLES, ingredient_from_row, row_from_label, shipped_larder
from saucier.sheet import read_sheet
from saucier.testing import CHEESE_SAUCE, add, reduce_to, roux, sheet

LARDER = shipped_larder()
# What such packets usually print: fat, carbohydrate, sugars, protein, salt.
PACKETS = {
    "milk-whole": ("milk", "3.6", "4.7", "4.7", "3.4", "0.1"),
    "cream-35": ("cream", "35", "3.1", "3.1", "2.2", "0.1"),
    "cheese-hard-alpine": ("cheese", "32.5", "0", "0", "29", "1.3"),
    "parmesan-style-hard": ("cheese", "29", "0", "0", "33", "1.6"),
    "butter-unsalted": ("fat", "82", "0.7", "0.7", "0.7", "0.03"),
    "wheat-flour": ("flour", "1", "72", "0.4", "10", "0"),
    "soured-cream-20": ("soft-cream", "20", "3.4", "3.4", "3", "0.1"),
    "ham-cooked": ("meat", "4", "1", "0.5", "19", "2.4"),
}


def row_of_packet(key: str, **more: str):
    role, *figures = PACKETS[key]
    printed = dict(zip(("fat", "carbohydrate", "sugars", "protein", "salt"), figures, strict=True))
    return row_from_label("From a packet", role, {**printed, **more})


class FromAPacket(unittest.TestCase):
    def test_water_and_casein_come_out_near_the_shipped_row(self) -> None:
        for key in PACKETS:
            ours, made = LARDER[key].per_gram, ingredient_from_row(row_of_packet(key).row).per_gram
            with self.subTest(key):
                for part in ("water", "fat", "thickening_protein", "solids", "salt", "flour"):
                    self.assertAlmostEqual(
                        getattr(made, part), getattr(ours, part), delta=0.045, msg=part
                    )
                self.assertAlmostEqual(made.mass_g, 1.0, places=9)

    def test_sauces_made_of_them_keep_their_grade(self) -> None:
        white = sheet(roux(66, 66), add("milk-whole", 1, "L"), reduce_to(share=0.95))
        cream = sheet(add("cream-35", 500), reduce_to(share=0.58))
        for case in (white, cream, read_sheet(CHEESE_SAUCE)):
            rows = []
            for key in PACKETS:
                row = {**row_of_packet(key).row, "key": key}
                rows.append(ingredient_from_row(row))
            kitchen = Kitchen(larder=LARDER.with_rows(rows))
            ours, theirs = check(case).final.thickness, check(case, kitchen).final.thickness
            assert ours.viscosity_pa_s and theirs.viscosity_pa_s
            self.assertEqual(theirs.grade, ours.grade)
            self.assertTrue(0.75 < theirs.viscosity_pa_s / ours.viscosity_pa_s < 1.33)

    def test_every_role_closes(self) -> None:
        for role in ROLES:
            printed = {
                "fat": "2,5 g",
                "carbohydrate": "6",
                "sugars": "3",
                "protein": "<0.5",
                "salt": "0.2",
            }
            made = row_from_label("Thing", role, printed)
            row = ingredient_from_row(made.row)
            self.assertEqual((row.role, row.origin), (role, "label"))
            self.assertTrue(made.assumed)

    def test_alcohol_is_told_by_volume(self) -> None:
        printed = {
            "fat": "0",
            "carbohydrate": "0.3",
            "sugars": "0.3",
            "protein": "0",
            "salt": "0",
            "alcohol_vol": "12",
        }
        wine = ingredient_from_row(row_from_label("Ridge white", "wine", printed).row)
        self.assertAlmostEqual(wine.per_gram.alcohol, 0.096, delta=0.002)
        self.assertIn("sulphites", wine.allergens)

    def test_starch_thickens_in_a_flour_alone(self) -> None:
        printed = {"fat": "0", "carbohydrate": "87", "sugars": "0", "protein": "0.3", "salt": "0"}
        starch = ingredient_from_row(row_from_label("Starch", "flour", printed).row)
        self.assertEqual(starch.power, 2.0)
        soup = row_from_label("Soup", "stock", {**printed, "carbohydrate": "6"})
        self.assertEqual(ingredient_from_row(soup.row).per_gram.thickener, 0.0)
        self.assertTrue(any("starch" in str(one) for one in soup.assumed))

    def test_keys_are_its_name_and_never_taken(self) -> None:
        printed = {"fat": "1", "carbohydrate": "1", "sugars": "1", "protein": "1", "salt": "1"}
        self.assertEqual(
            row_from_label("Crème du col!", "cream", printed).row["key"], "creme-du-col"
        )
        again = row_from_label("Wheat flour", "flour", printed, LARDER)
        self.assertEqual(again.row["key"], "wheat-flour-2")

    def test_what_is_wrong_is_named(self) -> None:
        fine = {"fat": "1", "carbohydrate": "5", "sugars": "3", "protein": "1", "salt": "1"}
        for change, field in (
            ({"fat": ""}, "fat"),
            ({"protein": "some"}, "protein"),
            ({"salt": "-1"}, "salt"),
            ({"fat": "1e9"}, "fat"),
            ({"sugars": "8"}, "sugars"),
            ({"fat": "60", "protein": "60"}, "fat"),
        ):
            with self.subTest(change), self.assertRaises(BadInput) as caught:
                row_from_label("Thing", "milk", {**fine, **change})
            self.assertEqual([p.field for p in caught.exception.problems], [field])
        for name, role, field in (("", "milk", "name"), ("Thing", "sauce", "role")):
            with self.assertRaises(BadInput) as caught:
                row_from_label(name, role, fine)
            self.assertEqual(caught.exception.problems[0].field, field)
