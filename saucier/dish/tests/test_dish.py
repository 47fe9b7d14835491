"""Dishes: what each use asks for, by hand; vessels in their real geometry; rounds."""

import math
import unittest
from typing import Any

from saucier.demand import USES
from saucier.dish import (
    finish_of,
    in_rounds,
    layout_of,
    needs_of,
    on_plate_c,
    read_dish,
    through_minutes,
    vessels_for,
    write_dish,
)
from saucier.dish.document import Rounds
from saucier.errors import BadInput
from saucier.larder import shipped_larder

LARDER = shipped_larder()
TRAY = {
    "name": "tray",
    "shape": "tray",
    "diameter_cm": 50,
    "width_cm": 30,
    "depth_cm": 6,
    "portions": 16,
}


def dish(use: str, **change: Any) -> Any:
    used = {"sauce": "s", "use": use, **change.pop("used", {})}
    usual = {
        "name": "dish",
        "sauces": [used],
        "solids": [{"ingredient": "leek", "grams": 200}],
        "vessel": TRAY,
        "margin_pct": 0,
    }
    return read_dish({**usual, **change})


class Needs(unittest.TestCase):
    def test_each_use_by_hand(self) -> None:
        pasta = {"solids": [{"ingredient": "pasta-dry", "grams": 90, "state": "dry"}]}
        for use, change, portions, ml in (
            ("nap", {}, 10, 550),
            ("pool", {}, 10, 680),
            ("over", {}, 10, 1000),
            ("enrobe", {}, 10, 10 * 200 * 0.75),
            ("enrobe", {"used": {"per_ml": 0.5}}, 10, 1000),
            ("cap", {}, 16, 1500 * 0.4),
            ("cap", {}, 17, 2 * 1500 * 0.4),
            ("film", {}, 16, 1500 * 0.15),
            ("layers", {"used": {"layers": 3}}, 16, 3 * 1500 * 0.35),
            ("layer-top", {}, 16, 1500 * 0.7),
            ("toss", pasta, 10, 10 * 0.9 * 110),
            ("pasta-hob", pasta, 10, 10 * 0.9 * 200),
            ("pasta-baked", pasta, 10, 10 * 0.9 * 270),
            ("toast", {"used": {"each": 2}}, 10, 1000),
            ("inside", {}, 10, 300),
            ("filling", {"used": {"each": 3}}, 10, 3 * 380),
            ("croquettes", {"used": {"each": 80}}, 10, 10 * 0.8 * 75),
        ):
            with self.subTest(use=use, portions=portions):
                need = needs_of(dish(use, **change), portions)[0]
                self.assertAlmostEqual(need.volume_ml, ml, places=6)
                self.assertIn(f"= {ml:.0f} mL", str(need.lines[0]))

    def test_every_use_can_be_asked_for(self) -> None:
        for use in USES:
            self.assertGreater(needs_of(dish(use), 5)[0].volume_ml, 0)

    def test_margin_and_what_is_kept_back_are_on_show(self) -> None:
        need = needs_of(dish("nap", margin_pct=10, used={"kept_back_pct": 20}), 10)[0]
        self.assertAlmostEqual(need.volume_ml, 605)
        self.assertAlmostEqual(need.kept_back_ml, 121)
        self.assertEqual(len(need.lines), 3)


class Vessels(unittest.TestCase):
    def test_depth_counts_the_room_solids_take(self) -> None:
        whole = dish("enrobe")
        needs = needs_of(whole, 16)
        found = layout_of(whole, 16, needs, LARDER)
        solids_ml = 16 * 200 / LARDER["leek"].density
        self.assertAlmostEqual(found.fill_mm, (solids_ml + needs[0].volume_ml) / 150, delta=0.01)
        self.assertAlmostEqual(found.each_g, 3200 + 1.03 * needs[0].volume_ml, delta=0.1)
        self.assertEqual(found.vessels, vessels_for(whole, 16))

    def test_a_shell_is_a_bowl_and_overflows_as_one(self) -> None:
        shell = {"name": "shell", "shape": "shell", "diameter_cm": 12, "depth_cm": 3, "portions": 1}
        small = dish("cap", vessel=shell, solids=[{"ingredient": "scallops", "grams": 60}])
        found = layout_of(small, 8, needs_of(small, 8), LARDER)
        self.assertEqual(found.vessels, 8)
        self.assertLess(found.fill_share, 1)
        over = dish("enrobe", vessel=shell)
        self.assertIn("do not fit", str(layout_of(over, 8, needs_of(over, 8), LARDER).warning))

    def test_toppings_by_area_and_by_portion(self) -> None:
        toppings = [
            {"ingredient": "cheese-hard-alpine", "g_per_cm2": 0.12},
            {"ingredient": "breadcrumbs", "grams": 5},
        ]
        found = layout_of(dish("cap", toppings=toppings), 32, [], LARDER)
        self.assertAlmostEqual(found.toppings["cheese-hard-alpine"], 180)
        self.assertAlmostEqual(found.toppings["breadcrumbs"], 80)

    def test_dry_grain_has_drunk_by_then(self) -> None:
        barley = dish(
            "enrobe", solids=[{"ingredient": "barley-pearl", "grams": 60, "state": "dry"}]
        )
        self.assertAlmostEqual(layout_of(barley, 16, [], LARDER).solids_g, 16 * 60 * 2.9)


class InRoundsTest(unittest.TestCase):
    def test_gaps_are_left_and_the_fat_recovers(self) -> None:
        fry = Rounds(
            what="croquettes",
            each=3,
            piece_cm2=14,
            room_cm2=380,
            fill_pct=55,
            minutes=4,
            between_minutes=2,
        )
        found = in_rounds(fry, 20)
        self.assertEqual(found.a_round, math.floor(380 * 0.55 / 14))
        self.assertEqual(found.rounds, math.ceil(60 / found.a_round))
        self.assertEqual(found.minutes, found.rounds * 4 + (found.rounds - 1) * 2)
        self.assertEqual(in_rounds(fry.model_copy(update={"room_cm2": 1}), 1).a_round, 1)


class OnThePlate(unittest.TestCase):
    def test_mixed_by_hand(self) -> None:
        """55 g sauce (3.6 J/gK) at 65, 150 g leek at 70, a plate of 400 g (0.9) at 40."""
        leek = LARDER["leek"].heat_j_per_gk
        served = dish(
            "nap", solids=[{"ingredient": "leek", "grams": 150}], plate_c=40, plate_g=400, food_c=70
        )
        found = on_plate_c(served, 55 * 3.6, 65.0, LARDER)
        heat = (55 * 3.6, 150 * leek, 400 * 0.9)
        by_hand = (heat[0] * 65 + heat[1] * 70 + heat[2] * 40) / sum(heat)
        self.assertAlmostEqual(found, by_hand, places=9)

    def test_a_cold_plate_takes_it_and_a_warm_one_does_not(self) -> None:
        cold, warm = (on_plate_c(dish("nap", plate_c=c), 55 * 3.6, 65.0, LARDER) for c in (15, 65))
        self.assertLess(cold, warm - 10)
        self.assertAlmostEqual(warm, 65, delta=0.1)
        bare = dish("nap", plate_g=0, solids=[])
        self.assertEqual(on_plate_c(bare, 200.0, 62.0, LARDER), 62.0)


class Finish(unittest.TestCase):
    def finish(self, **change: Any) -> str:
        one = dish("cap", **change)
        said = finish_of(one, layout_of(one, 16, needs_of(one, 16), LARDER))
        return str(said) if said else ""

    def test_the_oven_takes_as_long_as_kitchens_say(self) -> None:
        for depth_mm, low, high in ((25, 24, 26), (40, 40, 50), (50, 57, 63)):
            self.assertTrue(low <= through_minutes(depth_mm) <= high, depth_mm)

    def test_its_temperature_and_kind_are_part_of_its_minutes(self) -> None:
        minutes = [through_minutes(40, to_c) for to_c in (140, 160, 180, 200, 220)]
        self.assertEqual(minutes, sorted(minutes, reverse=True))
        self.assertAlmostEqual(through_minutes(40, 160, "fan"), through_minutes(40, 180))
        hotter = self.finish(filled="cold", finish="oven", oven_c=200, oven="fan")
        self.assertIn("in the fan oven at 200 °C", hotter)
        self.assertIn("in the oven at 200 °C; out at once", self.finish(finish="oven", oven_c=200))
        self.assertIn("moderate fan oven (160 °C)", self.finish(filled="cold", oven="fan"))
        with self.assertRaises(BadInput) as caught:
            dish("cap", oven_c=20)
        self.assertEqual(caught.exception.problems[0].field, "oven_c")

    def test_from_the_fridge_by_its_depth_colour_last(self) -> None:
        flat = self.finish(filled="cold", finish="grill", finish_minutes=3)
        deep = self.finish(
            filled="cold",
            finish="oven",
            finish_minutes=35,
            solids=[{"ingredient": "leek", "grams": 350}],
        )
        self.assertRegex(
            flat, r"about 30 min .* 2\d mm deep, .*colour last: under a hot grill, 3 min;"
        )
        self.assertRegex(deep, r"about [45]\d min \(your dish says 35\)")
        self.assertIn("check the middle", deep)

    def test_from_the_pot(self) -> None:
        grill = self.finish(finish="grill", finish_minutes=2)
        self.assertEqual(grill, "under a hot grill, 2 min; out at once")
        self.assertEqual(self.finish(finish="lid"), "under a lid")
        self.assertEqual(self.finish(), "")
        plated = dish("nap", vessel=None, filled="cold", finish="torch")
        self.assertIn("hot through first, then torch", str(finish_of(plated, None)))


class Documents(unittest.TestCase):
    def test_round_trip(self) -> None:
        whole = dish("cap", toppings=[{"ingredient": "breadcrumbs", "g_per_cm2": 0.06}])
        self.assertEqual(read_dish(write_dish(whole)), whole)

    def test_every_problem_names_its_field(self) -> None:
        for change, field in (
            ({"name": ""}, "name"),
            ({"vessel": None}, "vessel"),
            ({"sauces": [{"sauce": "s", "use": "wave"}]}, "sauces[0].use"),
            ({"sauces": [{"sauce": "s", "use": "nap", "grade": "wobbly"}]}, "sauces[0].grade"),
            ({"solids": [{"ingredient": "leek", "grams": 0}]}, "solids[0].grams"),
            ({"solids": [], "sauces": [{"sauce": "s", "use": "enrobe"}]}, "sauces[0].each"),
            ({"toppings": [{"ingredient": "breadcrumbs"}]}, "toppings[0]"),
            ({"vessel": {**TRAY, "depth_cm": -1}}, "vessel.depth_cm"),
            ({"colour": "blue"}, "colour"),
        ):
            with self.subTest(field), self.assertRaises(BadInput) as caught:
                dish("cap", **change)
            self.assertEqual(caught.exception.problems[0].field, field)
        with self.assertRaises(BadInput) as caught:
            odd = dish("cap", solids=[{"ingredient": "moon", "grams": 3}])
            layout_of(odd, 4, [], LARDER)
        self.assertEqual(caught.exception.problems[0].field, "solids[0].ingredient")


if __name__ == "__main__":
    unittest.main()
