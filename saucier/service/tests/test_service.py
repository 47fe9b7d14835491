"""Services: every need met, every branch in its grade, pots that add up, in good time."""

import json
import random
import unittest
from dataclasses import replace
from pathlib import Path
from typing import Any

from jsonschema import Draft202012Validator

from saucier.check import check
from saucier.dish import Dish, read_dish
from saucier.errors import BadInput
from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.larder.ladled import in_ladles
from saucier.mother import base_of, same_base
from saucier.service import (
    Plan,
    Service,
    plan_service,
    production_of,
    read_service,
    short_of,
    write_service,
)
from saucier.service.tests.random_services import random_service
from saucier.sheet import SheetPan, read_part, read_sheet
from saucier.sheet.reading import schema_of
from saucier.testing import add, melt, roux, sheet, simmer
from saucier.units import Amount
from saucier.words import plain

KITCHEN = Kitchen()
DEMO = Path(__file__).parents[3] / "demo"


def _load(folder: str) -> dict[str, Any]:
    return {
        path.stem: json.loads(path.read_text()) for path in sorted((DEMO / folder).glob("*.json"))
    }


SHEETS = {key: read_sheet(data) for key, data in _load("sauces").items()}
DISHES = {key: read_dish(data) for key, data in _load("dishes").items()}
SERVICES = {key: read_service(data) for key, data in _load("services").items()}
PANS = [
    replace(
        read_part(SheetPan, {k: v for k, v in pan.items() if k != "count"}, "").as_pan(),
        count=pan.get("count", 1),
    )
    for pan in json.loads((DEMO / "kitchen.json").read_text())["pans"]
]
BIG = [*PANS, Pan("stockpot 36", "straight", 36, 34)]


def planned(service: Any, pans: list[Pan] = BIG, **change: Any) -> Plan:
    if isinstance(service, dict):
        service = read_service({"name": "test", **service})
    return plan_service(
        service,
        change.get("dishes", DISHES),
        change.get("sheets", SHEETS),
        change.get("kitchen", KITCHEN),
        pans,
    )


class RandomServices(unittest.TestCase):
    def test_every_branch_hits_mass_and_grade_and_pots_add_up(self) -> None:
        dice = random.Random(7)
        branches = mothers = 0
        for _ in range(40):
            service, dishes, sheets = random_service(dice, dice.randint(4, 16))
            plan = planned(service, dishes=dishes, sheets=sheets)
            for branch in plan.branches:
                branches += 1
                wanted = branch.need_ml + branch.film_ml
                self.assertAlmostEqual(branch.made_ml / wanted, 1.0, delta=0.01, msg=branch.name)
                self.assertEqual(branch.final.thickness.grade, branch.grade, branch.name)
                self.assertGreaterEqual(branch.made_ml, branch.need_ml)
                # The sheet given out makes what the plan says.
                again = check(branch.sheet, KITCHEN).final
                self.assertEqual(again.thickness.grade, branch.grade)
            for pot in plan.pots:
                if pot.mother:
                    mothers += 1
                    poured = sum(b.base_g for b in plan.branches if b.pot == pot.key)
                    self.assertAlmostEqual(pot.taken_g, poured, delta=1e-6)
                    # What clings to each pot is made as well.
                    density = pot.made_g / pot.made_ml
                    clings = 30 * pot.batches * density
                    self.assertAlmostEqual(pot.film_g, clings, delta=0.25 * clings)
                self.assertAlmostEqual(
                    pot.made_g, pot.taken_g + pot.film_g + pot.left_g, delta=1e-6
                )
                self.assertGreaterEqual(pot.left_g, -1e-6)
                self.assertLess(pot.left_g, 0.02 * pot.made_g + 15)
            asked = sum(need.volume_ml for line in plan.lines for need in line.needs)
            self.assertAlmostEqual(asked, sum(b.need_ml for b in plan.branches), delta=1e-6)
        self.assertGreater(mothers, 20)
        print(f"\n40 random services: {branches} branches, {mothers} mother pots")


class Bases(unittest.TestCase):
    def test_a_shared_name_and_another_liquid_do_not_match(self) -> None:
        one = sheet(roux(60, 60), add("milk-whole", 1, "L"), simmer(5), name="Velouté")
        other = sheet(roux(60, 60), add("stock-light", 1, "L"), simmer(5), name="Velouté")
        self.assertIn("whole milk", str(same_base(base_of(one, KITCHEN), base_of(other, KITCHEN))))

    def test_other_names_and_the_same_composition_match(self) -> None:
        one = sheet(roux(60, 60), add("milk-whole", 1, "L"), simmer(5), name="White sauce")
        other = sheet(roux(70, 70), add("milk-whole", 500, "mL"), simmer(9), name="Cheese sauce")
        self.assertIsNone(same_base(base_of(one, KITCHEN), base_of(other, KITCHEN)))

    def test_a_row_of_another_name_and_the_same_figures_matches(self) -> None:
        from saucier.larder import ingredient_from_row, row_of

        ridge = ingredient_from_row(
            {**row_of(KITCHEN.larder["milk-whole"]), "key": "milk-ridge", "name": "Ridge milk"}
        )
        kitchen = Kitchen(KITCHEN.larder.with_rows([ridge]))
        bases = [
            base_of(
                sheet(roux(60, 60), {**add("milk-whole", 1, "L"), "ingredient": key}), Kitchen()
            )
            if key == "milk-whole"
            else base_of(
                read_sheet({"name": "x", "steps": [roux(60, 60), {**add(key, 1, "L")}]}), kitchen
            )
            for key in ("milk-whole", "milk-ridge")
        ]
        self.assertIsNone(same_base(*bases))

    def test_colour_and_allergens_part_them(self) -> None:
        white = base_of(sheet(roux(60, 60), add("stock-light", 1, "L")), KITCHEN)
        blond = base_of(sheet(roux(60, 60, "blond"), add("stock-light", 1, "L")), KITCHEN)
        self.assertIn("roux", str(same_base(white, blond)))
        fish = base_of(sheet(roux(60, 60), add("stock-fish", 1, "L")), KITCHEN)
        self.assertIsNotNone(same_base(white, fish))

    def test_what_has_none_says_why(self) -> None:
        for steps, word in (
            ([add("cream-35", 300)], "roux"),
            ([roux(50, 50), add("wine-white-dry", 200)], "milk, stock or water"),
            ([roux(50, 50, "raw")], "roux"),
        ):
            self.assertIn(word, str(base_of(sheet(*steps), KITCHEN)))


class Formats(unittest.TestCase):
    def test_a_second_validator_agrees_on_every_shipped_document(self) -> None:
        for folder, kind, documents in (
            ("dishes", Dish, _load("dishes")),
            ("services", Service, _load("services")),
        ):
            validator = Draft202012Validator(schema_of(kind))
            published = DEMO.parent / "docs" / "formats" / f"{kind.__name__.lower()}.schema.json"
            self.assertEqual(json.loads(published.read_text()), schema_of(kind))
            self.assertGreaterEqual(len(documents), 2, folder)
            for document in documents.values():
                validator.validate(document)
            self.assertFalse(validator.is_valid({"name": "x", "colour": "blue"}))

    def test_a_service_reads_back(self) -> None:
        for service in SERVICES.values():
            self.assertEqual(read_service(write_service(service)), service)


class Demo(unittest.TestCase):
    def test_two_services_of_the_scenario(self) -> None:
        small, large = planned(SERVICES["night-shift"]), planned(SERVICES["visitors-sunday"])
        self.assertEqual(sum(line.line.portions for line in small.lines), 28)
        self.assertEqual(len({b.sauce for b in large.branches}), 6)
        self.assertEqual(len([pot for pot in large.pots if pot.mother]), 2)
        self.assertEqual(len({line.line.dish for line in large.lines}), 9)
        self.assertEqual(sum(line.line.portions for line in large.lines), 123)
        self.assertFalse(large.warnings)
        # Less is left over than where each dish makes its own round-number recipe.
        self.assertLess(large.left_ml, 0.05 * large.by_recipe_ml)

    def test_the_most_demanding_branch_is_let_down_least(self) -> None:
        plan = planned(SERVICES["visitors-sunday"])
        for pot in (pot for pot in plan.pots if pot.mother):
            shares = {b.key: b.let_down_share for b in plan.branches if b.pot == pot.key}
            self.assertAlmostEqual(shares[pot.thickest], 0.0, delta=0.01)
            self.assertGreater(max(shares.values()), 0.1)

    def test_what_counts_is_before_the_additions(self) -> None:
        """Cheese thickens its branch, so the base under it is no thicker than the plain one's."""
        plain = sheet(
            roux(90, 90), add("milk-whole", 1, "L"), simmer(5), target={"grade": "binding"}
        )
        cheesy = sheet(
            roux(60, 60), add("milk-whole", 1, "L"), simmer(5), melt("cheese-hard-alpine", 200),
            target={"grade": "binding"},
        )  # fmt: skip
        dishes = {
            key: read_dish({"name": key, "sauces": [{"sauce": key, "use": "over"}]})
            for key in ("plain", "cheesy")
        }
        lines = [{"dish": key, "portions": 10} for key in dishes]
        plan = planned({"lines": lines}, dishes=dishes, sheets={"plain": plain, "cheesy": cheesy})
        self.assertEqual(plan.pots[0].thickest.partition("~")[0], "plain")


class Forced(unittest.TestCase):
    def test_own_share_and_thicken(self) -> None:
        sunday = SERVICES["visitors-sunday"]
        free = planned(sunday)
        toast = "rye-toast-caraway-cheese-cap"
        own = planned(sunday.model_copy(update={"force": {toast: "own"}}))
        branch = next(b for b in own.branches if b.sauce == toast)
        self.assertTrue(branch.pot.startswith("own"))
        self.assertIn("you gave it its own", str(branch.why))
        bound = planned(sunday.model_copy(update={"force": {toast: "thicken"}}))
        branch = next(b for b in bound.branches if b.sauce == toast)
        self.assertGreater(branch.bound_g, 1)
        self.assertEqual(branch.final.thickness.grade, "spreading")
        mothers = [next(p for p in plan.pots if p.mother) for plan in (free, bound)]
        eta = [pot.checked.final.thickness.viscosity_pa_s for pot in mothers]
        self.assertLess(eta[1], eta[0])
        shared = planned(sunday.model_copy(update={"force": {"green-veloute-for-eggs": "share"}}))
        green = next(b for b in shared.branches if b.sauce == "green-veloute-for-eggs")
        self.assertEqual(green.pot, "mother-white-milk-whole-butter-unsalted-wheat-flour")
        self.assertIn("you let it share", str(green.why))

    def test_too_much_let_down_is_offered_another_way(self) -> None:
        lines = [
            {"dish": "squash-croquettes", "portions": 10},
            {"dish": "celeriac-gratin", "portions": 32},
            {"dish": "leeks-white-sauce", "portions": 30},
        ]
        plan = planned({"lines": lines})
        mother = next(pot for pot in plan.pots if pot.mother)
        self.assertEqual([offer.do for offer in mother.offers], ["thicken", "own"])
        self.assertIn("40 %", str(mother.offers[0].words))
        taken = planned({"lines": lines, "force": {"squash-croquette-panade": "thicken"}})
        panade = next(b for b in taken.branches if b.sauce == "squash-croquette-panade")
        self.assertEqual(panade.final.thickness.grade, "panade")
        self.assertFalse(next(pot for pot in taken.pots if pot.mother).offers)


class Pots(unittest.TestCase):
    LINES = [{"dish": "celeriac-gratin", "portions": 48}, {"dish": "rye-toasts", "portions": 30}]

    def test_filled_two_thirds_at_most_in_as_many_batches(self) -> None:
        plan = planned({"lines": self.LINES}, [Pan("20", "straight", 20, 11)])
        mother = plan.pots[0]
        self.assertGreater(mother.batches, 3)
        self.assertLess(mother.made_ml / mother.batches / mother.pan.capacity_ml, 2 / 3 + 0.02)
        one = planned({"lines": self.LINES}, BIG).pots[0]
        self.assertEqual(one.batches, 1)

    def test_too_small_for_anything(self) -> None:
        plan = planned({"lines": self.LINES}, [Pan("cup", "straight", 9, 6)])
        self.assertFalse(any(line.refused for line in plan.lines))
        self.assertTrue(any("borrow a larger one" in str(n) for n in plan.pots[0].notes))

    def test_no_pans_known(self) -> None:
        plan = planned({"lines": self.LINES}, [])
        self.assertTrue(any("no pans are known" in str(note) for note in plan.pots[0].notes))

    def test_no_more_in_one_pot_than_is_whisked_smooth(self) -> None:
        lines = [{"dish": "leeks-white-sauce", "portions": 120}]
        [whole] = planned({"lines": lines}).pots
        self.assertEqual(whole.batches, 1)
        for pans in (BIG, []):
            [split] = planned({"lines": lines}, pans, kitchen=replace(KITCHEN, whisk_ml=3000)).pots
            self.assertEqual(split.batches, 3)
            self.assertLess(split.made_ml / split.batches, 3000)
            self.assertIn("at most 3 L is whisked smooth in one pot", plain(split.notes))


class InTheGradeItIsWantedIn(unittest.TestCase):
    def test_what_is_cooked_aims_at_the_grade_of_its_branch(self) -> None:
        """The stove corrects, mends and weighs anew by the grade its sheet aims at, which the saved sauce may not."""
        aimed = set()
        for dish in ("leeks-white-sauce", "celeriac-gratin"):
            lines = [{"dish": dish, "portions": 12}]
            for force in ({}, {"celeriac-gratin-white-sauce": "own"}):
                for branch in planned({"lines": lines, "force": force}).branches:
                    self.assertEqual(branch.sheet.target.grade, branch.grade)
                    self.assertEqual(
                        check(branch.sheet, KITCHEN).final.thickness.grade, branch.grade
                    )
                    aimed.add(branch.grade)
        self.assertGreater(len(aimed), 1)


class OnHandFirst(unittest.TestCase):
    LINES = [{"dish": "leeks-white-sauce", "portions": 40}]

    def on_hand(self, **entry: Any) -> Plan:
        usual = {"sauce": "celeriac-gratin-white-sauce", "amount": "1 L", "age_days": 1}
        return planned({"lines": self.LINES, "on_hand": [{**usual, **entry}]})

    def test_used_first_with_its_let_down(self) -> None:
        plain, plan = planned({"lines": self.LINES}), self.on_hand()
        self.assertEqual(len(plan.used), 1)
        used = plan.used[0]
        self.assertIn("Let down", str(used.let_down))
        self.assertGreater(used.ready_ml, 1000)
        back = check(used.sheet, KITCHEN).final
        self.assertEqual(back.thickness.grade, "nappe")
        less = plain.branches[0].made_ml - plan.branches[0].made_ml
        self.assertAlmostEqual(less, used.ready_ml, delta=0.02 * used.ready_ml)

    def test_what_was_judged_thinner_than_it_is_wanted_is_not_served_as_if(self) -> None:
        for eta, used in ((0.2, 0), (0.7, 1), (2.0, 1)):
            with self.subTest(eta):
                plan = self.on_hand(viscosity_pa_s=eta)
                self.assertEqual(len(plan.used), used)
                for tub in plan.used:
                    self.assertEqual(check(tub.sheet, KITCHEN).final.thickness.grade, "nappe")
        said = "".join(map(str, self.on_hand(viscosity_pa_s=0.2).warnings))
        self.assertIn("it comes back light coat, and nappe is wanted", said)

    def test_no_pot_is_cooked_for_a_part_of_the_margin(self) -> None:
        need = planned({"lines": self.LINES}).branches[0].need_ml  # with 5 % of margin in it
        of_a_litre = self.on_hand().used[0].ready_ml
        for share, pots in ((0.97, 0), (0.955, 0), (0.94, 1)):
            with self.subTest(share):
                plan = self.on_hand(amount=f"{share * need / of_a_litre:.4f} L")
                self.assertEqual(len(plan.pots), pots)
                self.assertEqual("of the margin are missing" in str(plan.branches[0].why), not pots)
                self.assertEqual(plan.branches[0].made_ml > 0.0, bool(pots))

    def test_enough_of_it_needs_no_pot(self) -> None:
        plan = self.on_hand(amount="5 L")
        self.assertEqual(plan.pots, ())
        self.assertIn("enough is on hand", str(plan.branches[0].why))

    def test_too_old_or_not_for_keeping(self) -> None:
        self.assertIn("9 days old", str(self.on_hand(age_days=9).warnings[0]))
        self.assertFalse(self.on_hand(age_days=9, place="freezer").warnings)

    def test_as_long_as_its_label_says(self) -> None:
        """A cheese sauce keeps and is used; what its yolk lets keep until tomorrow is not the day after."""
        cheese = {"sauce": "chicory-pancake-cheese-sauce", "amount": "5 L", "age_days": 1}
        lines = [{"dish": "chicory-pancakes", "portions": 8}]
        self.assertEqual(len(planned({"lines": lines, "on_hand": [cheese]}).used), 1)
        liaison = {"sauce": "beetroot-gratin-mustard-liaison", "amount": "5 L"}
        lines = [{"dish": "small-beetroot-gratins", "portions": 8}]
        for age, used in ((1, True), (2, False)):
            tub = {**liaison, "age_days": age}
            plan = planned({"lines": lines, "on_hand": [tub]})
            with self.subTest(age):
                said = "".join(map(str, plan.warnings))
                self.assertEqual("2 days old, over the 1" in said, not used, said)

    def test_what_one_grade_took_is_gone_for_the_next(self) -> None:
        lines = [*self.LINES, {"dish": "celeriac-gratin", "portions": 8}]
        stock = {"sauce": "celeriac-gratin-white-sauce", "amount": "3 L", "age_days": 1}
        plan = planned({"lines": lines, "on_hand": [stock]})
        self.assertEqual(len(plan.used), 2)  # in two grades, out of one tub
        self.assertLessEqual(sum(one.taken_ml for one in plan.used), 3000.001)
        self.assertAlmostEqual(sum(one.taken_ml for one in plan.used), 3000, delta=1)

    def test_a_guests_variant_never_comes_out_of_the_tub(self) -> None:
        """Made with cheese, it is not what the guest without cheese may have."""
        line = {"dish": "chicory-pancakes", "portions": 4, "without": ["cheese"]}
        stock = {"sauce": "chicory-pancake-cheese-sauce", "amount": "5 L", "age_days": 1}
        plan = planned({"lines": [line], "on_hand": [stock]})
        self.assertEqual(plan.used, ())
        self.assertEqual(plan.branches[0].from_stock_ml, 0.0)
        self.assertGreater(plan.branches[0].made_ml, 0.0)
        self.assertIn("no dish takes that sauce", str(plan.warnings[0]))

    def test_what_nobody_takes_is_told(self) -> None:
        self.assertIn("no dish takes", str(self.on_hand(sauce="poached-hake-veloute").warnings[0]))

    def test_ingredients_on_hand_are_not_bought(self) -> None:
        plan = planned(
            {"lines": self.LINES, "on_hand": [{"ingredient": "milk-whole", "amount": "1 L"}]}
        )
        milk = next(b for b in production_of(plan, KITCHEN).buy if b.ingredient == "milk-whole")
        self.assertAlmostEqual(milk.on_hand_g, 1030)
        self.assertAlmostEqual(milk.used_g - milk.bought_g, 1030, delta=6)

    def test_an_ingredient_past_its_days_is_bought_all_the_same(self) -> None:
        entry = {"ingredient": "stock-vegetable", "amount": "1 L", "age_days": 5}
        document = {"lines": [{"dish": "eggs-green-veloute", "portions": 20}], "on_hand": [entry]}
        plan = planned(document)
        self.assertIn("Vegetable stock on hand is not used: 5 days", " ".join(plain(plan.warnings)))
        self.assertFalse(plan.there)
        entry["place"] = "freezer"
        self.assertEqual(planned(document).there, {"stock-vegetable": 1000.0})
        entry |= {"ingredient": "wheat-flour", "place": "fridge"}  # its label tells
        self.assertIn("wheat-flour", planned(document).there)

    def test_ready_roux_stands_for_its_butter_and_flour(self) -> None:
        def bought(plan: Plan) -> dict[str, float]:
            return {row.ingredient: row.bought_g for row in production_of(plan, KITCHEN).buy}

        lines = [{"dish": "leeks-white-sauce", "portions": 60}]
        plain = planned({"lines": lines})
        roux = {"roux": "white", "amount": "100 g", "age_days": 6}
        plan = planned({"lines": lines, "on_hand": [roux]})
        [taken] = plan.roux
        self.assertEqual((taken.pot, taken.grams), (plan.pots[0].key, 100.0))
        for key in ("butter-unsalted", "wheat-flour"):
            self.assertAlmostEqual(bought(plain)[key] - bought(plan)[key], 50.0, delta=5.0)
        prepare = production_of(plan, KITCHEN).prepare
        self.assertTrue(any("100 g ready white roux" in str(line) for line in prepare))
        self.assertEqual(plan.pots[0].sheet, plain.pots[0].sheet)

    def test_never_more_ready_roux_than_a_pot_has_roux(self) -> None:
        lines = [{"dish": "leeks-white-sauce", "portions": 60}]
        plan = planned({"lines": lines, "on_hand": [{"roux": "white", "amount": "5 kg"}]})
        butter = next(
            row for row in production_of(plan, KITCHEN).buy if row.ingredient == "butter-unsalted"
        )
        self.assertEqual(butter.bought_g, 0.0)
        self.assertLess(plan.roux[0].grams, 1000.0)

    def test_ready_roux_nobody_can_use_is_told(self) -> None:
        for entry, why in (
            ({"roux": "brown", "amount": "1 kg"}, "no pot takes one of butter and flour"),
            ({"roux": "white", "amount": "1 kg", "age_days": 30}, "30 days old, over the 14"),
        ):
            with self.subTest(why):
                plan = planned({"lines": self.LINES, "on_hand": [entry]})
                self.assertEqual(plan.roux, ())
                self.assertIn(why, " ".join(plain(plan.warnings)))


class ProductionSheet(unittest.TestCase):
    PLAN = planned(SERVICES["visitors-sunday"])
    SHEET = production_of(PLAN, KITCHEN)

    def test_shopping_covers_every_pot_and_plate(self) -> None:
        milk = next(b for b in self.SHEET.buy if b.ingredient == "milk-whole")
        weighed = sum(
            w.grams * one.batches
            for one in self.SHEET.weigh
            for w in one.weighed
            if w.ingredient == "milk-whole"
        )
        self.assertAlmostEqual(milk.used_g, weighed)
        self.assertEqual(milk.packs, -(-milk.bought_g // 1000))
        beetroot = next(b for b in self.SHEET.buy if b.ingredient == "beetroot")
        self.assertAlmostEqual(beetroot.used_g, 12 * 120)
        self.assertAlmostEqual(beetroot.bought_g, 12 * 120 / 0.94 / 0.82, delta=6)
        self.assertGreater(sum(b.cost for b in self.SHEET.buy), 0.9 * self.SHEET.cost)

    def test_allergens_follow_to_each_dish(self) -> None:
        rows = {
            str(row.dish): {
                a for a, there in zip(self.SHEET.allergens, row.marks, strict=True) if there
            }
            for row in self.SHEET.matrix
        }
        self.assertIn("egg", rows["Eggs in green velouté"])
        self.assertIn("celery", rows["Celeriac gratin"])
        self.assertNotIn("egg", rows["Rye toasts with a caraway cap"])
        for line, row in zip(self.PLAN.lines, self.SHEET.matrix, strict=True):
            self.assertEqual(sum(row.marks), len(line.allergens))

    def test_ladles_fit_within_an_eighth(self) -> None:
        for one in self.SHEET.serve:
            self.assertEqual(one.ladles is not None, one.each_ml > 0.0)
        self.assertEqual(str(in_ladles(120, KITCHEN.measures)), "1 ladle")
        self.assertEqual(str(in_ladles(180, KITCHEN.measures)), "3 small ladles")

    def test_a_cheaper_solid_saves(self) -> None:
        self.assertTrue(all(one.saves > 0 for one in self.SHEET.stretch))

    def test_every_step_is_told(self) -> None:
        self.assertTrue(all(one.steps and one.makes_ml > 0 for one in self.SHEET.weigh))
        self.assertTrue(any("Grate" in str(text) for text in self.SHEET.prepare))
        self.assertEqual(len({one.key for one in self.SHEET.weigh}), len(self.SHEET.weigh))


class ShortOf(unittest.TestCase):
    PLAN = planned(SERVICES["visitors-sunday"])

    def test_all_alike_uses_no_more_than_there_is(self) -> None:
        found = short_of(self.PLAN, "milk-whole", Amount(6, "L"), KITCHEN, planned)
        self.assertFalse(found.enough)
        used = sum(one.uses_g * one.all_alike / one.asked for one in found.lines)
        self.assertLessEqual(used, found.have_g)
        smaller = [
            {"dish": line.line.dish, "portions": one.all_alike, "without": list(line.line.without)}
            for line, one in zip(self.PLAN.lines, found.lines, strict=True)
            if one.all_alike
        ]
        again = short_of(
            planned({"lines": smaller}), "milk-whole", Amount(6, "L"), KITCHEN, planned
        )
        self.assertTrue(again.enough, again.need_g)
        self.assertGreater(again.need_g, 0.85 * again.have_g)

    def test_whoever_gives_way_alone_frees_enough(self) -> None:
        found = short_of(self.PLAN, "milk-whole", Amount(9, "L"), KITCHEN, planned)
        alone = [one for one in found.lines if one.alone is not None]
        self.assertTrue(alone)
        for one in alone:
            freed = one.uses_g * (1 - one.alone / one.asked)
            self.assertGreaterEqual(freed, found.need_g - found.have_g - 1e-6)

    def test_enough_and_nonsense(self) -> None:
        self.assertTrue(short_of(self.PLAN, "milk-whole", Amount(30, "L"), KITCHEN, planned).enough)
        for key, amount, field in (
            ("moonlight", Amount(1, "L"), "ingredient"),
            ("milk-whole", Amount(2, "piece"), "have.unit"),
        ):
            with self.assertRaises(BadInput) as caught:
                short_of(self.PLAN, key, amount, KITCHEN, planned)
            self.assertEqual(caught.exception.problems[0].field, field)


class BadInputs(unittest.TestCase):
    def test_every_problem_names_its_field(self) -> None:
        line = {"dish": "celeriac-gratin", "portions": 4}
        for change, field in (
            ({"lines": [{**line, "portions": 0}]}, "lines[0].portions"),
            ({"lines": [line], "date": "tomorrow"}, "date"),
            ({"lines": [line], "serve_at": ["25:00"]}, "serve_at[0]"),
            ({"lines": [line], "on_hand": [{"amount": "1 L"}]}, "on_hand[0]"),
            (
                {"lines": [line], "on_hand": [{"sauce": "x", "amount": "3 pieces"}]},
                "on_hand[0].amount.unit",
            ),
            (
                {"lines": [line], "on_hand": [{"roux": "white", "amount": "1 L"}]},
                "on_hand[0].amount.unit",
            ),
            ({"lines": [line], "force": {"x": "sulk"}}, "force.x"),
            ({"name": " "}, "name"),
        ):
            with self.subTest(field), self.assertRaises(BadInput) as caught:
                planned(change)
            self.assertEqual(caught.exception.problems[0].field, field)

    def test_one_bad_entry_names_its_field_and_the_rest_is_planned(self) -> None:
        line = {"dish": "celeriac-gratin", "portions": 4}
        for change, field in (
            ({"lines": [line, {**line, "dish": "air"}]}, "lines[1].dish"),
            ({"lines": [line, {**line, "without": ["joy"]}]}, "lines[1].without[0]"),
            ({"lines": [line, {**line, "without": ["gluten"]}]}, "lines[1].without"),
            (
                {"lines": [line, {**line, "swaps": {"milk-whole": "moonlight"}}]},
                "lines[1].swaps.milk-whole",
            ),
            (
                {"lines": [line], "on_hand": [{"ingredient": "milk-whole", "amount": "3 pieces"}]},
                "on_hand[0].amount.unit",
            ),
            (
                {"lines": [line], "on_hand": [{"ingredient": "moonlight", "amount": "1 L"}]},
                "on_hand[0].ingredient",
            ),
        ):
            with self.subTest(field):
                plan = planned(change)
                self.assertEqual([one.field for one in plan.amiss], [field])
                self.assertEqual(
                    [row.refused for row in plan.lines], [False, True][: len(plan.lines)]
                )
                self.assertTrue(plan.branches and production_of(plan, KITCHEN).buy)

    def test_a_sauce_that_is_gone(self) -> None:
        lines = [{"dish": "celeriac-gratin", "portions": 4}, {"dish": "rye-toasts", "portions": 4}]
        rest = {key: one for key, one in SHEETS.items() if key != "celeriac-gratin-white-sauce"}
        plan = planned({"lines": lines}, sheets=rest)
        self.assertEqual([one.field for one in plan.amiss], ["lines[0].dish"])
        self.assertEqual(len(plan.branches), 1)

    def test_an_empty_service_is_no_trouble(self) -> None:
        plan = planned({"lines": []})
        self.assertEqual((plan.pots, plan.branches), ((), ()))
        self.assertEqual(production_of(plan, KITCHEN).buy, ())


class Variants(unittest.TestCase):
    def test_without_cheese_from_the_same_dish(self) -> None:
        plan = planned(
            {"lines": [{"dish": "cauliflower-cheese", "portions": 4, "without": ["cheese"]}]}
        )
        line = plan.lines[0]
        self.assertTrue(any("hard alpine cheese" in str(text) for text in line.left_out))
        self.assertEqual(plan.branches[0].final.thickness.grade, "binding")
        self.assertNotIn("melt", [step.op for step in plan.branches[0].sheet.steps])

    def test_without_an_allergen_it_is_not_in_the_dish(self) -> None:
        plan = planned(
            {"lines": [{"dish": "leeks-white-sauce", "portions": 4, "without": ["celery"]}]}
        )
        self.assertNotIn("celery", plan.lines[0].allergens)
        eggless = planned(
            {"lines": [{"dish": "eggs-green-veloute", "portions": 4, "without": ["egg"]}]}
        )
        self.assertNotIn("egg", eggless.lines[0].allergens)
        self.assertLess(
            eggless.lines[0].cost_each,
            planned({"lines": [{"dish": "eggs-green-veloute", "portions": 4}]}).lines[0].cost_each,
        )


if __name__ == "__main__":
    unittest.main()
