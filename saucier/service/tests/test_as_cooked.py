"""Pots as they are cooked: counted pans, branches weighed out several times, tubs, trimmings, cautions."""

import unittest
from dataclasses import replace
from typing import Any

from saucier.check import check
from saucier.dish import read_dish
from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.service import Plan, plan_service, production_of, read_service
from saucier.sheet import Sheet, write_sheet
from saucier.testing import add, grams, melt, roux, sheet, simmer
from saucier.units import Amount, kitchen_round
from saucier.words import plain

KITCHEN = Kitchen()
SAUCEPAN = Pan("saucepan", "straight", 18, 10)
STEWPAN = Pan("stewpan", "straight", 28, 16)
WHITE = sheet(
    *(roux(60, 60), add("milk-whole", 1, "L"), simmer(5)),
    {"op": "season", "ingredient": "nutmeg", "amount": grams(0.4)},
    name="white",
    target={"grade": "nappe"},
)
CHEESE = sheet(
    *(roux(60, 60), add("milk-whole", 1, "L"), simmer(5), melt("cheese-semi-hard", 90)),
    name="cheese",
    target={"grade": "binding"},
)
YOLKY = sheet(
    *(roux(60, 60), add("milk-whole", 1, "L"), simmer(5)),
    {
        "op": "liaison",
        "yolk": {"ingredient": "egg-yolk", "amount": {"value": 3, "unit": "piece"}},
        "cream": {"ingredient": "cream-35", "amount": grams(90)},
    },
    name="yolky",
    target={"grade": "binding"},
)
SHEETS = {"white": WHITE, "cheese": CHEESE, "yolky": YOLKY}


def planned(
    *lines: dict[str, Any],
    pans: tuple[Pan, ...] = (SAUCEPAN, STEWPAN),
    sheets: dict[str, Sheet] = SHEETS,
    kitchen: Kitchen = KITCHEN,
    dishes: dict[str, Any] | None = None,
    **service: Any,
) -> Plan:
    own = {
        key: read_dish({"name": key, "sauces": [{"sauce": key, "use": "nap"}]}) for key in sheets
    }
    own |= {key: read_dish({"name": key, **one}) for key, one in (dishes or {}).items()}
    document = read_service({"name": "test", "lines": lines, **service})
    return plan_service(document, own, sheets, kitchen, pans)


def line(dish: str, portions: float, **more: Any) -> dict[str, Any]:
    return {"dish": dish, "portions": portions, **more}


class CountedPans(unittest.TestCase):
    def test_two_of_a_kind_are_two(self) -> None:
        lines = (line("white", 20), line("cheese", 20))
        force = {"white": "own", "cheese": "own"}
        one = planned(*lines, pans=(STEWPAN,), force=force)
        washed = [note for pot in one.pots for note in plain(pot.notes) if "wash" in note]
        self.assertEqual(washed, ["wash stewpan before: it had white in it"])
        two = planned(*lines, pans=(replace(STEWPAN, count=2),), force=force)
        self.assertFalse([n for pot in two.pots for n in plain(pot.notes) if "wash" in n])
        self.assertEqual([str(pot.in_pan) for pot in two.pots], ["stewpan no. 1", "stewpan no. 2"])

    def test_two_rows_of_one_name_are_two_as_well(self) -> None:
        force = {"white": "own", "cheese": "own"}
        plan = planned(line("white", 9), line("cheese", 9), pans=(STEWPAN, STEWPAN), force=force)
        self.assertEqual(len({str(pot.in_pan) for pot in plan.pots}), 2)

    def test_batches_go_into_as_many_as_there_are(self) -> None:
        [pot] = planned(line("white", 200), pans=(replace(STEWPAN, count=3),)).pots
        self.assertEqual(pot.batches, 2)
        self.assertEqual(str(pot.in_pan), "stewpan no. 1, 2")
        self.assertIn("2 batches, 2 at once in as many pans", plain(pot.notes))

    def test_a_guests_own_pot_takes_a_pan_nothing_was_in(self) -> None:
        guest = line("white", 2, without=["gluten"], swaps={"wheat-flour": "rice-flour"})
        plan = planned(line("white", 30), line("cheese", 30), guest, pans=(STEWPAN,))
        self.assertTrue(plan.pots[0].guests)
        self.assertFalse([n for n in plain(plan.pots[0].notes) if "wash" in n])
        self.assertTrue([n for n in plain(plan.pots[1].notes) if "wash" in n])
        weigh = production_of(plan, KITCHEN).weigh
        self.assertEqual([bool(one.guests) for one in weigh][:2], [True, False])


class Branches(unittest.TestCase):
    def test_more_than_a_pan_or_a_whisk_takes_is_weighed_out_several_times(self) -> None:
        whisk = replace(KITCHEN, whisk_ml=3000.0)
        plan = planned(line("white", 150), line("cheese", 20), kitchen=whisk)
        white = next(b for b in plan.branches if b.sauce == "white")
        self.assertGreaterEqual(white.batches, 3)
        each = check(white.sheet, whisk).final.pot.yield_ml
        self.assertLess(each, 3000.0)
        self.assertAlmostEqual(white.batches * each, white.made_ml, delta=1)
        self.assertAlmostEqual(white.made_ml, white.need_ml + white.film_ml, delta=90)
        mother = next(pot for pot in plan.pots if pot.mother)
        self.assertAlmostEqual(mother.taken_g, sum(b.base_g for b in plan.branches), delta=1e-6)
        one = next(w for w in production_of(plan, whisk).weigh if w.key == white.key)
        self.assertEqual(one.in_all[0].value, white.batches * one.weighed[0].amount.value)

    def test_yolks_stay_whole(self) -> None:
        for portions in (3, 11, 40):
            plan = planned(line("white", 60), line("yolky", portions))
            yolky = next(b for b in plan.branches if b.sauce == "yolky")
            [liaison] = [step for step in yolky.sheet.steps if step.op == "liaison"]
            self.assertEqual(liaison.yolk.amount.value % 1, 0.0, portions)
            self.assertEqual(yolky.final.thickness.grade, "binding")

    def test_spice_is_weighed_in_tenths_or_pinched(self) -> None:
        self.assertEqual(kitchen_round(Amount(0.34, "g")).value, 0.3)
        self.assertEqual(kitchen_round(Amount(0.02, "g")).value, 0.1)
        self.assertEqual(kitchen_round(Amount(3.4, "g")).value, 3.0)
        weigh = production_of(planned(line("white", 12)), KITCHEN).weigh[0]
        nutmeg = next(one for one in weigh.weighed if one.ingredient == "nutmeg")
        self.assertLess(nutmeg.grams, 0.5)
        self.assertIn("pinch", str(nutmeg.spoons))

    def test_what_is_offered_against_much_let_down_helps(self) -> None:
        sheets = {
            "thin": WHITE.model_copy(
                update={
                    "name": "thin",
                    "target": WHITE.target.model_copy(update={"grade": "pouring"}),
                }
            ),
            "thick": CHEESE.model_copy(
                update={
                    "name": "thick",
                    "target": CHEESE.target.model_copy(update={"grade": "panade"}),
                }
            ),
            "white": WHITE,
        }
        lines = (line("thin", 60), line("thick", 10), line("white", 30))
        plan = planned(*lines, sheets=sheets)
        offers = [offer for pot in plan.pots for offer in pot.offers]
        self.assertTrue(offers)
        far = [b.key for b in plan.branches if b.let_down_share > 0.4]
        for offer in offers:
            again = planned(*lines, sheets=sheets, force={"thick": offer.do})
            less = [b.key for b in again.branches if b.let_down_share > 0.4]
            self.assertLess(len(less), len(far), offer.do)

    def test_a_share_forced_over_an_allergen_is_refused(self) -> None:
        stock = sheet(
            roux(60, 60), add("stock-light", 1, "L"), simmer(5), name="s", target={"grade": "nappe"}
        )
        sheets = {"white": WHITE, "cheese": CHEESE, "stock": stock}
        lines = (line("white", 20), line("cheese", 20), line("stock", 60))
        plan = planned(*lines, sheets=sheets, force={"white": "share", "cheese": "share"})
        for one in plan.lines[:2]:
            self.assertNotIn("celery", one.allergens)
        white = next(b for b in plan.branches if b.sauce == "white")
        self.assertTrue(white.pot)


class OnHand(unittest.TestCase):
    def test_a_tub_is_let_down_only_as_far_as_it_is_used(self) -> None:
        tub = {"sauce": "white", "amount": "4 L", "age_days": 1}
        some = planned(line("white", 10), on_hand=[tub])
        more = planned(line("white", 40), on_hand=[tub])
        [few], [many] = some.used, more.used
        self.assertGreater(few.liquid_g, 0.0)
        self.assertAlmostEqual(
            many.liquid_g / few.liquid_g, many.ready_ml / few.ready_ml, delta=0.02
        )
        [milk] = [b for b in production_of(some, KITCHEN).buy if b.ingredient == "milk-whole"]
        self.assertAlmostEqual(milk.used_g, few.liquid_g, delta=0.5)
        self.assertEqual(some.pots, ())

    def test_no_two_variants_share_a_pot_however_long_they_are_told(self) -> None:
        words = ["milk", "stock-shellfish", "parmesan-style-hard", "cheese-white-rind"]
        words += ["oil-sesame", "cheese-plant-melting", "mushroom-dried"]
        swaps = {"milk-whole": "milk-oat", "butter-unsalted": "spread-plant"}
        turned = {"milk-whole": "milk-soya", "butter-unsalted": "spread-plant"}
        guests = [
            line("white", 2, without=[*words, last], swaps=one)
            for last in ("anchovy", "walnuts")
            for one in (swaps, turned)
        ]
        plan = planned(*guests)
        self.assertEqual(len({row.branches for row in plan.lines}), 4)
        self.assertTrue(all(len(branch.key) <= 200 for branch in plan.branches))
        for row in plan.lines:
            sheet = next(b for b in plan.branches if b.key == row.branches[0]).sheet
            milk = row.line.swaps["milk-whole"]
            self.assertIn(milk, {key for step in sheet.steps for key in step.names()})

    def test_a_guests_portion_never_comes_out_of_a_tub(self) -> None:
        tub = {"sauce": "white", "amount": "4 L", "age_days": 1}
        plan = planned(line("white", 10), line("white", 2, without=["egg"]), on_hand=[tub])
        guest = next(b for b in plan.branches if b.guests)
        self.assertEqual(guest.from_stock_ml, 0.0)
        self.assertGreater(guest.made_ml, 0.0)
        # Two pots stand there then, and only one of them is the guest's.
        self.assertEqual(guest.name, f"{plan.used[0].name}, without egg")
        self.assertTrue(guest.as_written)


class GuestsPots(unittest.TestCase):
    """Of two pots on the stove a cook takes the right one by its name."""

    RICE = {"without": ["gluten"], "swaps": {"wheat-flour": "rice-flour"}}

    def made(self, sauce: Sheet) -> Plan:
        dishes = {"d": {"sauces": [{"sauce": "s", "use": "nap"}]}}
        return planned(line("d", 20), line("d", 2, **self.RICE), dishes=dishes, sheets={"s": sauce})

    def test_a_sauce_made_first_for_a_guest_says_so(self) -> None:
        inside = write_sheet(WHITE)
        of = {"name": "filling", "steps": inside["steps"]}
        outer = sheet(
            {"op": "use", "sauce": of},
            melt("cheese-semi-hard", 90),
            name="o",
            target={"grade": "binding"},
        )
        plan = self.made(outer)
        self.assertEqual({one.name for one in plan.first}, {"filling", "filling, without gluten"})
        guest = next(b for b in plan.branches if b.guests)
        self.assertEqual(guest.sheet.steps[0].sauce.name, "filling, without gluten")

    def test_a_long_name_keeps_what_tells_it_apart(self) -> None:
        plan = self.made(WHITE.model_copy(update={"name": "x" * 120}))
        names = {branch.name for branch in plan.branches}
        self.assertEqual(len(names), 2)
        self.assertTrue(all(len(name) <= 120 for name in names))
        self.assertTrue(any(name.endswith("without gluten") for name in names))


class TheSheet(unittest.TestCase):
    def test_what_is_kept_back_is_not_given_out_twice(self) -> None:
        dishes = {"d": {"sauces": [{"sauce": "white", "use": "nap", "kept_back_pct": 25}]}}
        plan = planned(line("d", 10), dishes=dishes)
        [one] = production_of(plan, KITCHEN).serve
        self.assertAlmostEqual(one.each_ml, 0.75 * 55)
        whole = plan.lines[0].needs[0].volume_ml
        self.assertAlmostEqual(one.each_ml * 10 * 1.05 + one.kept_back_ml, whole)

    def test_trimmings_make_stock_for_this_service_first(self) -> None:
        veg = sheet(
            roux(60, 60),
            add("stock-vegetable", 1, "L"),
            simmer(5),
            name="v",
            target={"grade": "nappe"},
        )
        leeks = {
            "sauces": [{"sauce": "veg", "use": "nap"}],
            "solids": [{"ingredient": "leek", "grams": 150}],
        }
        plan = planned(line("d", 40), sheets={"veg": veg}, dishes={"d": leeks})
        production = production_of(plan, KITCHEN)
        [trimmed] = production.trimmings
        bought = {row.ingredient: row for row in production.buy}
        # Raw less usable, both raw: what cooking loses is no trimming.
        leek = KITCHEN.larder["leek"]
        raw = 150 * 40 / leek.drained_share / leek.usable_share
        self.assertAlmostEqual(trimmed.grams, raw * (1 - leek.usable_share), delta=1)
        self.assertAlmostEqual(bought["leek"].bought_g, raw, delta=10)
        self.assertGreater(trimmed.here_ml, 0.0)
        self.assertLessEqual(trimmed.here_ml, trimmed.stock_ml)
        self.assertIn("for this service", str(trimmed.words))

    def test_cautions_name_yolk_alcohol_guests_and_what_does_not_wait(self) -> None:
        raw = sheet(
            *(roux(40, 40), add("milk-whole", 600), simmer(5), {"op": "cool", "to_c": 55}),
            {"op": "finish", "ingredient": "egg-yolk", "amount": grams(36)},
            add("brandy", 40),
            {"op": "mount", "amount": grams(60)},
            name="raw",
            target={"grade": "nappe"},
        )
        plan = planned(
            line("raw", 10),
            line("raw", 10, sitting=2),
            line("raw", 1, without=["vegetarian"]),
            sheets={"raw": raw},
            serve_at=["12:00", "15:00"],
        )
        told = " ".join(plain(production_of(plan, KITCHEN).cautions))
        for words in (
            "Guests first",
            "the yolk in it is not cooked",
            "of alcohol is left in a portion",
            "does not wait 180 min",
        ):
            self.assertIn(words, told)

    def test_pasta_has_its_water_its_salt_and_its_wait(self) -> None:
        pasta = {
            "sauces": [{"sauce": "cheese", "use": "pasta-hob"}],
            "solids": [{"ingredient": "pasta-dry", "grams": 90, "state": "dry"}],
            "pasta_water_salt_pct": 1.2,
        }
        production = production_of(planned(line("d", 10), dishes={"d": pasta}), KITCHEN)
        [told] = [text for text in plain(production.prepare) if text.startswith("Pasta for")]
        for words in ("900 g dry in 9.0 L water with 108 g salt", "early", "waits 3 min"):
            self.assertIn(words, told)
        [salt] = [row for row in production.buy if row.ingredient == "salt"]
        self.assertAlmostEqual(salt.used_g, 108, delta=1)

    def test_vegetarians_cheese_is_asked_about(self) -> None:
        plan = planned(line("cheese", 4, without=["vegetarian"]))
        told = " ".join(plain(production_of(plan, KITCHEN).cautions))
        self.assertIn("calf rennet", told)


if __name__ == "__main__":
    unittest.main()
