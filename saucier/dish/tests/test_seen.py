"""The dish, seen: its cross-section adds up, its pools run as the model says, its salt is counted."""

import math
import random
import unittest
from typing import Any

from saucier.check import check
from saucier.dish import Dish, dish_starts, kind_of, read_dish, seen
from saucier.dish.pool import keeps_pattern, pool_power, pool_radius_mm
from saucier.dish.tint import colour_of, colour_of_sauce
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.larder import shipped_larder
from saucier.service import plan_service, read_service
from saucier.testing import add, roux, sheet, simmer, with_nonsense

KITCHEN = Kitchen()
LARDER = shipped_larder()
WHITE = sheet(
    *(roux(66, 66), add("milk-whole", 1, "L"), simmer(5)),
    {"op": "season", "ingredient": "salt", "amount": {"to_salt_pct": 0.9}},
    name="white",
    target={"grade": "nappe"},
)
GREEN = sheet(
    *(roux(40, 40), add("milk-whole", 800), simmer(5), add("spinach-puree", 120)), name="green"
)
SHEETS = {"white": WHITE, "green": GREEN}
TRAY = {
    "name": "tray",
    "shape": "tray",
    "diameter_cm": 40,
    "width_cm": 25,
    "depth_cm": 6,
    "portions": 10,
}


def dish(**parts: Any) -> Dish:
    return read_dish({"name": "d", **parts})


def look(**parts: Any) -> Any:
    return seen(dish(**parts), SHEETS, KITCHEN)


def used(use: str, sauce: str = "white", **more: Any) -> dict[str, Any]:
    return {"sauce": sauce, "use": use, **more}


class Section(unittest.TestCase):
    BAKE = {
        "sauces": [used("film"), used("layers", layers=2), used("layer-top")],
        "solids": [{"ingredient": "leek", "grams": 150}],
        "vessel": TRAY,
        "toppings": [{"ingredient": "breadcrumbs", "g_per_cm2": 0.06}],
        "margin_pct": 0,
    }

    def test_bands_lie_on_one_another_up_to_the_fill_line(self) -> None:
        bake = look(**self.BAKE)
        self.assertEqual(bake.picture, "section")
        for below, above in zip(bake.bands, bake.bands[1:], strict=False):
            self.assertEqual(below.high_mm, above.low_mm)
        filled = [band for band in bake.bands if band.kind != "topping"]
        self.assertAlmostEqual(filled[-1].high_mm, bake.fill_mm, delta=0.01)
        kinds = [band.kind for band in bake.bands]
        self.assertEqual(kinds, ["sauce", "solids", "sauce", "solids", "sauce", "sauce", "topping"])

    def test_a_layer_is_as_thick_as_it_is_spread(self) -> None:
        film, *_ = look(**self.BAKE).bands
        self.assertAlmostEqual(film.high_mm, 1.5, delta=0.01)  # 0.15 mL for each cm²
        top = look(**self.BAKE).bands[-2]
        self.assertAlmostEqual(top.high_mm - top.low_mm, 7.0, delta=0.01)

    def test_what_binds_is_one_band_with_what_it_binds(self) -> None:
        parts = {**self.BAKE, "sauces": [used("enrobe"), used("cap")]}
        self.assertEqual([b.kind for b in look(**parts).bands], ["mixed", "sauce", "topping"])

    def test_a_shell_is_as_deep_as_the_water_it_holds_says(self) -> None:
        shell = {"name": "shell", "shape": "shell", "diameter_cm": 12, "depth_cm": 2}
        held = read_dish({"name": "d", "vessel": {**shell, "holds_g": "150,0"}}).vessel
        self.assertAlmostEqual(held.as_pan().capacity_ml, 150, delta=1)
        again = read_dish({"name": "d", "vessel": held.model_dump()}).vessel
        self.assertEqual(again, held)
        with self.assertRaises(BadInput) as caught:
            read_dish({"name": "d", "vessel": {**shell, "holds_g": "much"}})
        self.assertEqual(caught.exception.problems[0].field, "vessel.holds_g")


class Counted(unittest.TestCase):
    def test_pieces_weigh_what_their_pieces_weigh(self) -> None:
        slices = {"ingredient": "ham-cooked", "grams": 1, "pieces": 3, "piece_g": "12,5"}
        [solid] = dish(solids=[slices]).solids
        self.assertEqual(solid.grams, 37.5)
        for wrong, field in (
            ({**slices, "pieces": "some"}, "solids[0].pieces"),
            ({**slices, "piece_g": -3}, "solids[0]"),
        ):
            with self.assertRaises(BadInput) as caught:
                dish(solids=[wrong])
            self.assertTrue(caught.exception.problems[0].field.startswith(field))

    def test_only_pasta_counts_for_pasta(self) -> None:
        pasta = {"ingredient": "pasta-dry", "grams": 100, "state": "dry"}
        barley = {"ingredient": "barley-pearl", "grams": 100, "state": "dry"}
        both = look(sauces=[used("toss")], solids=[pasta, barley], margin_pct=0)
        self.assertAlmostEqual(both.sauces[0].portion_ml, 110)
        boiled = {"ingredient": "pasta-dry", "grams": 215}
        self.assertAlmostEqual(
            look(sauces=[used("toss")], solids=[boiled], margin_pct=0).sauces[0].portion_ml, 110
        )
        # It drinks whatever the use is called, and grain does not.
        under = {"vessel": TRAY, "finish": "oven"}
        self.assertGreater(look(sauces=[used("layers")], solids=[pasta], **under).drinks_g, 20)
        self.assertEqual(look(sauces=[used("layers")], solids=[barley], **under).drinks_g, 0)


class Pools(unittest.TestCase):
    def test_a_pool_by_hand(self) -> None:
        radius = 0.894 * (1020 * 9.81 * (60e-6) ** 3 * 10 / (3 * 2.19)) ** 0.125
        self.assertAlmostEqual(pool_radius_mm(60, 2.19), 1000 * radius, delta=2)
        # Never thinner than 2 mm, however thin it runs.
        thin = pool_radius_mm(60, 0.003)
        self.assertAlmostEqual(60e3 / (math.pi * thin**2), 2.0, delta=0.01)

    def test_so_much_wider_takes_so_much_more(self) -> None:
        for eta in (0.05, 2.19):
            wider = pool_radius_mm(60 * 1.1 ** pool_power(60, eta), eta) / pool_radius_mm(60, eta)
            self.assertAlmostEqual(wider, 1.1, delta=1e-6)

    def test_over_a_rim_never(self) -> None:
        small = look(sauces=[used("pool", per_ml=200)], plate_cm=16)
        [pool] = small.pools
        self.assertTrue(pool.at_rim)
        self.assertLessEqual(2 * pool.radius_mm, 160)
        self.assertTrue(any("to the rim" in str(one) for one in small.remarks))

    def test_two_keep_a_pattern_where_they_are_nearly_as_thick(self) -> None:
        self.assertTrue(keeps_pattern(0.4, 0.55))
        self.assertFalse(keeps_pattern(0.4, 0.7))
        both = look(sauces=[used("pool"), used("cordon", "green")])
        self.assertTrue(any("pattern" in str(one) for one in both.remarks))


class Salt(unittest.TestCase):
    def test_the_whole_mouthful_by_hand(self) -> None:
        parts = {
            "sauces": [used("nap", per_ml=50)],
            "solids": [
                {"ingredient": "ham-cooked", "grams": 60},
                {"ingredient": "pasta-dry", "grams": 80, "state": "dry"},
            ],
            "toppings": [{"ingredient": "salt-flake", "grams": 0.5}],
            "margin_pct": 0,
            "pasta_water_salt_pct": 1.2,
        }
        found = look(**parts).mouthful
        pot = check(WHITE).final.pot
        sauce = 50 * pot.yield_g / pot.yield_ml
        ham, pasta = LARDER["ham-cooked"], LARDER["pasta-dry"]
        drunk = 80 * (pasta.drained_share - 1)
        salt = {
            "ham": 60 * ham.per_gram.salt,
            "pasta": 80 * pasta.per_gram.salt + drunk * 0.012,
            "sauce": sauce * 0.009,
            "flakes": 0.5 * LARDER["salt-flake"].per_gram.salt,
        }
        self.assertAlmostEqual(found.salt_g, sum(salt.values()), delta=0.01)
        self.assertAlmostEqual(
            found.mass_g, 60 + 80 * pasta.drained_share + sauce + 0.5, delta=0.01
        )
        self.assertEqual(found.brings[0].name, "cooked ham")
        # Salted to what is suited, the mouthful comes to its target.
        again = look(**{**parts, "sauces": [used("nap", per_ml=50, salt_pct=found.suited_pct)]})
        if found.over_g == 0:
            self.assertAlmostEqual(again.mouthful.salt_pct, found.target_pct, delta=0.02)
        self.assertLess(again.mouthful.salt_pct, found.salt_pct)

    def test_bland_food_is_no_reason_for_a_salty_sauce(self) -> None:
        found = look(sauces=[used("nap")], solids=[{"ingredient": "potato", "grams": 300}])
        self.assertIsNone(found.mouthful.suited_pct)

    def test_a_dishs_own_salt_reaches_its_pot_and_no_other(self) -> None:
        dishes = {
            "own": dish(sauces=[used("nap", salt_pct=0.4)]),
            "usual": dish(sauces=[used("nap")]),
        }
        lines = [{"dish": "own", "portions": 10}, {"dish": "usual", "portions": 10}]
        service = read_service({"name": "x", "lines": lines})
        plan = plan_service(service, dishes, SHEETS, KITCHEN, [])
        salts = [100 * b.final.pot.balance.salt / b.final.pot.balance.mass_g for b in plan.branches]
        self.assertAlmostEqual(salts[0], 0.4, delta=0.03)
        self.assertAlmostEqual(salts[1], 0.9, delta=0.03)


class Shown(unittest.TestCase):
    def test_colour_follows_what_is_in_it(self) -> None:
        def parts(text: str) -> tuple[int, ...]:
            return tuple(int(text[at : at + 2], 16) for at in (1, 3, 5))

        white, green = (
            parts(colour_of_sauce(WHITE, KITCHEN)),
            parts(colour_of_sauce(GREEN, KITCHEN)),
        )
        self.assertGreater(min(white), 220)
        self.assertGreater(green[1], green[0])
        brown = sheet(roux(66, 66, "brown"), add("stock-veal", 1, "L"), simmer(5))
        self.assertLess(max(parts(colour_of_sauce(brown, KITCHEN))), 230)
        for row in LARDER.values():
            self.assertRegex(colour_of(row), r"^#[0-9a-f]{6}$")
        self.assertNotEqual(colour_of(LARDER["barley-pearl"]), colour_of(LARDER["peas"]))

    def test_a_cap_and_a_croquette_by_hand(self) -> None:
        bread = {"ingredient": "bread-rye", "grams": 1, "pieces": 2, "piece_g": 45}
        toast = look(sauces=[used("toast", each=2)], solids=[bread], margin_pct=0).slice
        self.assertEqual((toast.pieces, toast.cap_mm), (2, 5.0))  # 50 mL on each 100 cm²
        squash = [{"ingredient": "squash", "grams": 80}]
        fried = look(sauces=[used("croquettes")], solids=squash, margin_pct=0).croquette
        self.assertEqual(fried.count, 3)
        ball = 4 / 3 * math.pi * (fried.across_mm / 20) ** 3
        self.assertAlmostEqual(1.05 * ball, fried.each_g, delta=0.01)

    def test_a_warm_pasta_bake_is_thicker_than_its_sauce_was(self) -> None:
        pasta = [{"ingredient": "pasta-dry", "grams": 100, "state": "dry"}]
        tossed = look(sauces=[used("pasta-hob")], solids=pasta)
        baked = look(sauces=[used("pasta-baked", grade="nappe")], solids=pasta, vessel=TRAY)
        self.assertGreater(baked.drinks_g, tossed.drinks_g)
        self.assertIn("binding", str(baked.sauces[0].on_plate))

    def test_every_problem_names_its_field(self) -> None:
        boiled = sheet(add("milk-whole", 60), simmer(90), name="gone")
        for sheets in ({}, {"white": boiled}):
            with self.assertRaises(BadInput) as caught:
                seen(dish(sauces=[used("nap")]), sheets, KITCHEN)
            self.assertEqual(caught.exception.problems[0].field, "sauces[0].sauce")
        with self.assertRaises(BadInput):
            look(solids=[{"ingredient": "moonlight", "grams": 3}])

    def test_nonsense_in_any_field_is_refused_by_its_field_or_read(self) -> None:
        dice = random.Random(9)
        refused = 0
        for start in dish_starts():
            document = {**start.with_sauces([("white", "")]), "plate_cm": 27, "oven_c": 180}
            for _ in range(60):
                try:
                    seen(read_dish(with_nonsense(document, dice)), SHEETS, KITCHEN)
                except BadInput as bad:
                    refused += 1
                    self.assertTrue(all(p.field and p.message and p.remedy for p in bad.problems))
        self.assertGreater(refused, 300)

    def test_a_dish_of_nothing_is_seen(self) -> None:
        bare = look()
        self.assertEqual((bare.portion_g, bare.mouthful.salt_pct, bare.pools), (0.0, 0.0, ()))


class Starts(unittest.TestCase):
    def test_every_kind_can_be_started_with_any_sauces_or_none(self) -> None:
        self.assertGreaterEqual(len(dish_starts()), 12)
        kinds = set()
        for start in dish_starts():
            for sauces in ([("white", "white-sauce"), ("green", "veloute")], [("green", "")], []):
                made = read_dish(start.with_sauces(sauces))
                found = seen(made, SHEETS, KITCHEN)
                self.assertTrue(found.food or found.bands)
                self.assertFalse([r for r in found.remarks if "do not fit" in str(r)], start.key)
                kinds.add(kind_of(made))
        self.assertEqual(len(kinds), 9)
        filled = dish_starts()[0].with_sauces([("a", "veloute"), ("b", "white-sauce")])
        self.assertEqual(filled["sauces"][0]["sauce"], "b")

    def test_kinds_are_told_by_their_uses(self) -> None:
        for use, kind in (("toast", "toast"), ("croquettes", "croquettes"), ("toss", "pasta")):
            solids = [{"ingredient": "pasta-dry", "grams": 90}]
            self.assertEqual(kind_of(dish(sauces=[used(use)], solids=solids)), kind)
        self.assertEqual(kind_of(dish(vessel=TRAY)), "gratin")


if __name__ == "__main__":
    unittest.main()


class AsEaten(unittest.TestCase):
    def test_pasta_drinks_of_each_sauce_by_its_weight(self) -> None:
        """A spoon of sauce under a bake is no dough because pasta drank as much of it as of all the rest."""
        sauces = [{"sauce": "white", "use": use} for use in ("film", "layers", "layer-top")]
        solids = [{"ingredient": "pasta-dry", "grams": 90, "state": "dry"}]
        shown = seen(dish(sauces=sauces, solids=solids, vessel=TRAY), SHEETS, KITCHEN)
        self.assertGreater(shown.drinks_g, 10.0)
        on_plate = {str(sauce.on_plate) for sauce in shown.sauces}
        self.assertEqual(len(on_plate), 1)
        self.assertNotIn("dough", "".join(on_plate))

    def test_the_starts_are_warned_of_nothing_the_app_itself_proposed(self) -> None:
        for start in dish_starts():
            document = start.with_sauces([("white", "white-sauce")])
            shown = seen(read_dish(document), SHEETS, KITCHEN)
            codes = [remark.code for remark in shown.remarks]
            with self.subTest(start.name):
                self.assertFalse({"vessel-to-the-rim", "vessel-overflows"} & set(codes))
                if start.document.get("kind") in ("pasta", None):
                    self.assertNotIn("pool-at-the-rim", codes)
                self.assertLessEqual(codes.count("planned-in-another-grade"), 1)
