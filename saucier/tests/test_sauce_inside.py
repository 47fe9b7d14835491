"""A sauce inside a sauce is a pot of its own: made for it, weighed, solved, swapped and told."""

import unittest
from dataclasses import replace
from typing import Any

from saucier.cards import cards_inside
from saucier.check import check, larder_of, pots_inside, prepare
from saucier.dish import read_dish
from saucier.errors import BadInput
from saucier.exchange import to_json_ld, to_markdown
from saucier.guests import exclusions, without
from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet, read_sheet, write_sheet
from saucier.solve import goal_of, rounded_for_kitchen, solve
from saucier.solve.goal import Goal, Have
from saucier.steps import Knobs, Pouring, ShareOfIt, Use, thickening_by
from saucier.swaps import swaps_for
from saucier.testing import add, grams, melt, reduce_to, roux, sheet, simmer, use
from saucier.units import Amount

WHITE = [roux(60, 60), add("milk-whole", 1, "L"), simmer(5)]
ONIONS = [add("onion-puree", 500)]
KITCHEN = Kitchen()


def onions_with(amount: Any, **rest: Any) -> Sheet:
    return sheet(*ONIONS, use(WHITE, amount), target={"grade": "binding", "volume": "1 L"}, **rest)


class HowMuch(unittest.TestCase):
    def test_an_amount_is_made_and_all_of_it_goes_in(self) -> None:
        made = pots_inside(check(onions_with(grams(300))), KITCHEN)[0]
        self.assertAlmostEqual(made.made_g, 300, places=4)
        self.assertAlmostEqual(made.used_g, 300, places=6)
        # A small pan boils off its part: more goes in than comes out, and less than twice.
        taken = larder_of(onions_with(grams(300)))
        self.assertAlmostEqual(taken["onion-puree"], 500)
        into = taken["milk-whole"] + taken["butter-unsalted"] + taken["wheat-flour"]
        self.assertTrue(300 < into < 360, into)

    def test_a_volume_is_made_too(self) -> None:
        made = pots_inside(check(onions_with({"value": 250, "unit": "mL"})), KITCHEN)[0]
        self.assertAlmostEqual(made.checked.final.pot.total_ml, 250, places=3)

    def test_a_share_is_of_what_is_written(self) -> None:
        made = pots_inside(check(onions_with({"share": 0.4})), KITCHEN)[0]
        self.assertAlmostEqual(made.used_g, 0.4 * made.made_g, places=6)
        self.assertAlmostEqual(made.left_g, 0.6 * made.made_g, places=6)
        self.assertAlmostEqual(larder_of(onions_with({"share": 0.4}))["milk-whole"], 1030)

    def test_all_half_and_percent_are_read(self) -> None:
        for said, share in (("all", 1.0), ("half", 0.5), ("40 %", 0.4), ("a third", 1 / 3)):
            step = onions_with(said).steps[1]
            assert isinstance(step, Use)
            self.assertEqual(step.amount, {"share": share} and type(step.amount)(share=share))
        inside = {"name": "inside", "steps": WHITE}
        for step, share in (({}, 1.0), ({"share": 0.25}, 0.25)):
            read = sheet(*ONIONS, {"op": "use", "sauce": inside, **step}).steps[1]
            assert isinstance(read, Use) and isinstance(read.amount, ShareOfIt)
            self.assertEqual(read.amount.share, share)
        again = read_sheet(write_sheet(onions_with("all")))
        self.assertEqual(again, onions_with("all"))

    def test_what_is_wrong_is_named(self) -> None:
        for amount, field in (
            ({"share": 1.2}, "steps[1].amount.share"),
            ({"share": 0}, "steps[1].amount.share"),
            ("lots", "steps[1].amount"),
            ({"value": 2, "unit": "piece"}, "steps[1].amount.unit"),
        ):
            with self.subTest(amount), self.assertRaises(BadInput) as caught:
                check(onions_with(amount))
            self.assertEqual(caught.exception.problems[0].field, field)

    def test_so_little_that_it_boils_dry_is_told_where(self) -> None:
        with self.assertRaises(BadInput) as caught:
            check(onions_with(grams(2)))
        self.assertEqual(caught.exception.problems[0].field, "steps[1].sauce.steps[2].minutes")
        self.assertTrue(caught.exception.problems[0].remedy)

    def test_two_shares_of_one_sauce_come_from_one_pot(self) -> None:
        both = sheet(
            use(WHITE, {"share": 0.5}), add("onion-puree", 200), use(WHITE, {"share": 0.3})
        )
        pots = pots_inside(check(both), KITCHEN)
        self.assertEqual(len(pots), 1)
        self.assertAlmostEqual(pots[0].used_g, 0.8 * pots[0].made_g, places=6)

    def test_no_more_than_all_of_it(self) -> None:
        with self.assertRaises(BadInput) as caught:
            check(sheet(use(WHITE, {"share": 0.7}), use(WHITE, {"share": 0.4})))
        self.assertEqual(caught.exception.problems[0].field, "steps[1].amount")
        self.assertIn("110 %", str(caught.exception.problems[0].message))

    def test_what_stands_ready_is_not_made(self) -> None:
        ready = sheet(*ONIONS, use(WHITE, grams(300), ready=True))
        self.assertEqual(pots_inside(check(ready), KITCHEN), ())
        self.assertEqual(larder_of(ready), {"onion-puree": 500.0})
        made = check(onions_with(grams(300)))
        self.assertLess(check(ready).final.pot.minutes, made.final.pot.minutes)


class Through(unittest.TestCase):
    def test_it_stands_in_a_pan_of_its_own(self) -> None:
        pans = (Pan("little", "straight", 14, 8), Pan("large", "straight", 28, 16))
        kitchen = replace(KITCHEN, pans=pans)
        outer = sheet(add("onion-puree", 4000), use(WHITE, grams(400)))
        self.assertEqual([p.name for p in prepare(outer, kitchen).pans], ["large", "little"])
        named = use(WHITE, grams(400))
        named["sauce"]["pan"] = {"name": "its own", "diameter_cm": 18}
        pots = pots_inside(check(sheet(*ONIONS, named), kitchen), kitchen)
        self.assertEqual(pots[0].checked.pan.name, "its own")

    def test_method_ring_and_lid_of_the_inner_sauce_count(self) -> None:
        open_, lidded = use(WHITE, {"share": 1}), use(WHITE, {"share": 1})
        lidded["sauce"]["lid"] = True
        self.assertLess(
            check(sheet(open_)).final.pot.total_g, check(sheet(lidded)).final.pot.total_g
        )

    def test_grams_cost_salt_and_allergens_close_over_every_level(self) -> None:
        """What is taken from the larder comes out again, but for what boils off on the way."""
        inner = [use(WHITE, grams(200)), add("stock-fish", 300), simmer(3)]
        outer = sheet(add("cream-35", 100), use(inner, grams(350)), simmer(2))
        pots = pots_inside(check(outer), KITCHEN)
        self.assertEqual(
            [(p.key, p.of) for p in pots], [("inside/inside", "inside"), ("inside", "")]
        )
        final = check(outer).final.pot
        taken = larder_of(outer)
        larder = KITCHEN.larder
        self.assertAlmostEqual(
            final.cost, sum(larder[k].cost(g) for k, g in taken.items()), places=6
        )
        self.assertAlmostEqual(
            final.balance.salt, sum(larder[k].per_gram.salt * g for k, g in taken.items()), places=6
        )
        boiled_off = sum(taken.values()) - final.total_g
        self.assertTrue(0 < boiled_off < 0.4 * sum(taken.values()))
        self.assertEqual(final.allergens, {"fish", "celery", "milk", "gluten"})

    def test_warnings_of_its_making_come_through(self) -> None:
        boiled = [
            add("stock-light", 300),
            {**add("soured-cream-20", 100), "op": "finish"},
            simmer(5),
        ]
        outer = check(sheet(add("onion-puree", 300), use(boiled, grams(200))))
        self.assertIn("soft-cream-boiled", [w.code for w in outer.steps[1].warnings])

    def test_what_cannot_stand_the_boil_is_remembered(self) -> None:
        raw = [add("stock-light", 300), {**add("soured-cream-20", 100), "op": "finish"}]
        for ready in (False, True):
            poured = use(raw, grams(200), ready=ready)
            codes = [w.code for w in check(sheet(*ONIONS, poured, simmer(2))).steps[2].warnings]
            self.assertIn("soft-cream-boiled", codes)
        still = check(sheet(*ONIONS, use(raw, grams(200)))).steps
        self.assertNotIn("soft-cream-boiled", [w.code for step in still for w in step.warnings])

    def test_a_split_one_stays_split(self) -> None:
        """Cream boiled to the last: a hot liquid around it does not bring it together again."""
        broken = [add("cream-35", 500), reduce_to(share=0.42)]
        alone = check(sheet(*broken)).final
        self.assertEqual(alone.emulsion, "split")
        self.assertEqual(check(sheet(*ONIONS, use(broken, {"share": 1}))).final.emulsion, "split")

    def test_the_pan_of_one_two_deep_is_for_what_is_made(self) -> None:
        """As written it stands in the little pan: in a batch twenty times as large the
        innermost stands in the large one."""
        pans = (Pan("little", "straight", 14, 8), Pan("large", "straight", 28, 16))
        kitchen = replace(KITCHEN, pans=pans)
        middle = [add("onion-puree", 100), use(WHITE, grams(200))]

        def innermost(amount: float) -> str:
            pots = pots_inside(check(sheet(*ONIONS, use(middle, grams(amount))), kitchen), kitchen)
            return next(pot.checked.pan.name for pot in pots if pot.of)

        self.assertEqual((innermost(300), innermost(6000)), ("little", "large"))
        deep = sheet(*ONIONS, use(middle, grams(6000)))
        outer = next(m for m in prepare(deep, kitchen).moves if isinstance(m, Pouring))
        within = next(m for m in outer.inside.moves if isinstance(m, Pouring))
        self.assertEqual(within.inside.pan.name, "large")

    def test_what_is_vague_inside_widens_the_edge(self) -> None:
        def edge(flour: str) -> float:
            by_hand = [{**roux(60, 60)}, *WHITE[1:]]
            by_hand[0]["flour"] = {"ingredient": "wheat-flour", "amount": flour}
            found = check(sheet(*ONIONS, use(by_hand, {"share": 0.8}))).final.thickness
            assert found.high_pa_s and found.viscosity_pa_s
            return found.high_pa_s / found.viscosity_pa_s

        self.assertGreater(edge("5 heaped tablespoons"), 1.05 * edge("60 g"))

    def test_its_cards_and_both_exports_tell_it(self) -> None:
        outer = onions_with(grams(300))
        told = cards_inside(check(outer), KITCHEN)[0]
        self.assertEqual(len(told.cards), 3)
        self.assertTrue(told.pan)
        self.assertIn("## First, in its own pan", to_markdown(outer, KITCHEN))
        recipe = to_json_ld(outer, KITCHEN)
        self.assertTrue(any("whole milk" in line for line in recipe["recipeIngredient"]))
        self.assertEqual(recipe["recipeInstructions"][0]["@type"], "HowToSection")


class Solving(unittest.TestCase):
    def test_the_flour_inside_is_turned(self) -> None:
        outer = onions_with(grams(500), method={"fat_to_flour": 1.0})
        self.assertEqual(thickening_by(outer), "flour")
        for grade in ("nappe", "spreading"):
            solved = solve(outer, goal_of(outer, grade)).sheet
            final = check(solved).final
            self.assertEqual(final.thickness.grade, grade)
            self.assertAlmostEqual(final.pot.yield_ml, 1000, delta=1)

    def test_rounding_reaches_in_and_keeps_the_grade(self) -> None:
        outer = onions_with(grams(500))
        goal = goal_of(outer)
        rounded = rounded_for_kitchen(solve(outer, goal).sheet, goal).sheet
        step = rounded.steps[1]
        assert isinstance(step, Use)
        amounts = [step.sauce.steps[0].flour.amount, step.sauce.steps[1].amount]  # type: ignore[union-attr]
        for amount in amounts:
            self.assertAlmostEqual(amount.base, round(amount.base), places=6)
        self.assertEqual(check(rounded).final.thickness.grade, "binding")

    def test_its_own_flour_comes_first(self) -> None:
        own = sheet(roux(40, 40), add("milk-whole", 500), use(WHITE, grams(300)), simmer(3))
        solved = solve(own, goal_of(own, "spreading", Amount(1, "L"))).sheet
        before, after = own.steps[2], solved.steps[2]
        assert isinstance(before, Use) and isinstance(after, Use)
        flour = [
            s.sauce.steps[0].flour.amount.base / s.sauce.steps[1].amount.base
            for s in (before, after)
        ]  # type: ignore[union-attr]
        self.assertAlmostEqual(*flour, places=6)
        self.assertEqual(check(solved).final.thickness.grade, "spreading")

    def test_the_reduction_inside_is_turned_where_nothing_else_can_be(self) -> None:
        cream = [add("cream-35", 500), reduce_to(share=0.8)]
        outer = sheet(
            add("spinach-puree", 60), use(cream, {"share": 1}), melt("parmesan-style-hard", 20)
        )
        self.assertEqual(thickening_by(outer), "reduction")
        solved = solve(outer, goal_of(outer, "nappe")).sheet
        self.assertEqual(check(solved).final.thickness.grade, "nappe")

    def test_never_through_a_turned_pot_inside(self) -> None:
        cream = [add("cream-35", 500), reduce_to(share=0.8)]
        outer = sheet(use(cream, {"share": 1}), add("milk-whole", 300))
        with self.assertRaises(BadInput):
            solve(outer, goal_of(outer, "binding"))

    def test_what_there_is_counts_inside(self) -> None:
        outer = onions_with(grams(500))
        have = Have("milk-whole", Amount(700, "mL"))
        solved = solve(outer, Goal(have=have)).sheet
        self.assertAlmostEqual(larder_of(solved)["milk-whole"], 721, delta=0.5)

    def test_a_batch_a_hundred_times_as_large(self) -> None:
        outer = onions_with({"share": 0.5})
        large = solve(outer, goal_of(outer, volume=Amount(100, "L"))).sheet
        final = check(large).final.pot
        self.assertAlmostEqual(final.yield_ml, 100_000, delta=100)
        made = pots_inside(check(large), KITCHEN)[0]
        self.assertAlmostEqual(made.used_g, 0.5 * made.made_g, places=3)

    def test_what_is_turned_inside_may_ask_for_another_pan(self) -> None:
        """Its reduction, turned, leaves more in it than its scale tells: the pan it is solved in is
        named, where asking for the other again and again would never end."""
        pans = (Pan("a", "straight", 15.84, 8.71), Pan("b", "straight", 26.71, 12.67))
        kitchen = replace(KITCHEN, pans=(*pans, Pan("c", "straight", 40, 30)))
        inside = use([add("cream-35", 500), reduce_to(share=0.7)], grams(193.42))
        outer = sheet(add("onion-puree", 299.53), inside, simmer(3))
        for litres in (2.0, 3.99, 4.5):
            goal = goal_of(outer, "binding", Amount(litres, "L"))
            solved = solve(outer, goal, kitchen).sheet
            final = check(solved, kitchen).final
            self.assertEqual(final.thickness.grade, "binding")
            self.assertAlmostEqual(final.pot.total_ml / 1000, litres, delta=0.002)

    def test_whether_so_little_boils_dry_does_not_hang_on_what_was_asked_before(self) -> None:
        def scale(asked: tuple[float, ...]) -> float | str:
            prepared = prepare(onions_with(grams(30)), KITCHEN)
            move = next(m for m in prepared.moves if isinstance(m, Pouring))
            found: float | str = "nothing"
            for times in asked:
                try:
                    found = round(move.knobs_inside(Knobs(scale=times)).scale, 9)
                except BadInput as bad:
                    found = bad.problems[0].code
            return found

        for last in (0.05, 0.2, 1.0, 40.0):
            cold = scale((last,))
            for before in (0.05, 0.5, 3.0, 80.0):
                self.assertEqual(scale((before, last)), cold, (before, last))
        self.assertEqual(scale((0.05,)), "min-would-boil-away-all-g")

    def test_far_more_of_it_than_is_written(self) -> None:
        """In the pan for twenty kilos the fifth of a litre as written would boil dry: it is not
        made in that."""
        little = [roux(12, 12), add("milk-whole", 200), simmer(10)]
        kitchen = replace(KITCHEN, pans=(Pan("kettle", "straight", 60, 40),))
        made = pots_inside(check(sheet(use(little, grams(20000))), kitchen), kitchen)[0]
        self.assertAlmostEqual(made.made_g, 20000, places=4)

    def test_swapping_reaches_in(self) -> None:
        outer = onions_with(grams(500))
        swap = next(
            s for s in swaps_for(outer, "milk-whole", KITCHEN) if s.ingredient == "milk-semi"
        )
        assert swap.sheet is not None
        self.assertNotIn("milk-whole", larder_of(swap.sheet))
        self.assertEqual(check(swap.sheet).final.thickness.grade, "binding")


class Guests(unittest.TestCase):
    def test_what_a_guest_goes_without_is_looked_for_inside(self) -> None:
        """Left out of the sauce made first where it can be; refused where that stands on it."""
        spiced = [*WHITE, {"op": "season", "ingredient": "nutmeg", "amount": grams(1)}]
        case = sheet(*ONIONS, use(spiced, {"share": 1.0}), name="filling")
        dish = read_dish({"name": "Buns", "sauces": [{"sauce": "s", "use": "filling"}]})
        nutmeg = exclusions(("nutmeg",), KITCHEN.larder)
        made = without(dish, {"s": case}, nutmeg, KITCHEN)
        plain, told = made.sheets, made.told
        self.assertNotIn("nutmeg", larder_of(plain["s"]))
        self.assertIn("milk-whole", larder_of(plain["s"]))
        self.assertIn("inside without nutmeg", str(told[0]))
        for word in ("gluten", "fat"):
            with self.assertRaises(BadInput) as caught:
                without(dish, {"s": case}, exclusions((word,), KITCHEN.larder), KITCHEN)
            self.assertEqual(caught.exception.problems[0].field, "without")
