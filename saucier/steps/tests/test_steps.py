import math
import re
import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from saucier.cards import cards
from saucier.check import CheckedSheet, check
from saucier.errors import BadInput
from saucier.larder import shipped_larder
from saucier.pot import EMPTY
from saucier.solve import goal_of, solve
from saucier.steps.enrich import tempering
from saucier.testing import add, grams, reduce_to, roux, sheet, simmer, white_sauce


def made(*steps: dict[str, Any], **rest: Any) -> CheckedSheet:
    return check(sheet(*steps, **rest))


def step(op: str, ingredient: str | None = None, amount_g: float | None = None, **rest: Any):
    found: dict[str, Any] = {"op": op, **rest}
    if ingredient:
        found["ingredient"] = ingredient
    if amount_g is not None:
        found["amount"] = grams(amount_g)
    return found


def liaison(yolk_g: float, cream_g: float, **rest: Any) -> dict[str, Any]:
    return step(
        "liaison",
        yolk={"ingredient": "egg-yolk", "amount": grams(yolk_g)},
        cream={"ingredient": "cream-35", "amount": grams(cream_g)},
        **rest,
    )


def codes(checked: CheckedSheet) -> set[str]:
    return {remark.code for state in checked.steps for remark in state.pot.remarks}


STOCK_SAUCE = (roux(50, 50), add("stock-light", 1000), reduce_to(mass=grams(1050)))


class Pieces(unittest.TestCase):
    """Pieces are kept apart from the sauce until they leak or are blended in."""

    def test_a_mushrooms_water_is_not_liquid_until_it_leaks(self) -> None:
        base = (roux(60, 60), add("milk-whole", 1000), simmer(5))
        pan = {"diameter_cm": 24}  # named: three hundred grams more would call for another
        without = made(*base, pan=pan).final
        cold = made(*base, add("mushroom-button", 300), pan=pan).final
        self.assertAlmostEqual(cold.pot.balance.water, without.pot.balance.water)
        self.assertAlmostEqual(cold.pot.pieces_g, 300)
        self.assertEqual(cold.thickness.grade, without.thickness.grade)
        cooked = made(
            *base, add("mushroom-button", 300), step("simmer", minutes=10, lid=True), pan=pan
        ).final
        self.assertGreater(cooked.pot.balance.water, without.pot.balance.water + 80)
        self.assertLess(cooked.thickness.viscosity_pa_s, 0.7 * without.thickness.viscosity_pa_s)

    def test_they_give_back_what_the_kitchen_knows(self) -> None:
        for key, share in (
            ("spinach", 0.35),
            ("mushroom-button", 0.40),
            ("scallops", 0.18),
        ):
            pot = made(add("stock-light", 500), add(key, 200), step("simmer", minutes=30, lid=True))
            self.assertAlmostEqual(200 - pot.final.pot.pieces_g, 200 * share, delta=1)

    def test_a_tomato_falls_apart_into_the_sauce(self) -> None:
        """Half of it is sauce in ten minutes, two thirds in the end, its juice counted; it matters
        not into how many steps the minutes are cut."""

        def left(*minutes: float) -> float:
            cooked = (step("simmer", minutes=m, lid=True) for m in minutes)
            return made(add("stock-light", 500), add("tomato", 200), *cooked).final.pot.pieces_g

        self.assertAlmostEqual(200 - left(10), 200 * 0.7 * (1 - math.exp(-10 / 8)), delta=0.5)
        self.assertAlmostEqual(left(10) / 200, 0.5, delta=0.01)
        self.assertAlmostEqual(200 - left(60), 200 * 0.7, delta=0.5)
        self.assertAlmostEqual(left(10), left(1, 2, 3, 4), delta=0.01)
        self.assertAlmostEqual(200 - left(1), 200 * 0.3 * (1 - math.exp(-0.5)), delta=0.01)

    @given(st.floats(10, 400), st.floats(0, 30))
    def test_nothing_is_lost_between_sauce_and_pieces(self, mass: float, minutes: float) -> None:
        before = made(add("stock-light", 600), add("spinach", mass)).final.pot
        after = made(
            add("stock-light", 600),
            add("spinach", mass),
            step("infuse", "parsley", 1, minutes=minutes),
        ).final.pot
        self.assertAlmostEqual(after.total_g, before.total_g + 1, places=6)
        self.assertGreaterEqual(after.balance.mass_g, before.balance.mass_g - 1e-9)

    def test_blend_brings_them_in_and_keeps_a_share(self) -> None:
        steps = (add("stock-light", 500), add("watercress", 200))
        whole = made(*steps, step("blend")).final.pot
        self.assertEqual(whole.pieces, ())
        self.assertAlmostEqual(whole.balance.mass_g, 700, places=6)
        kept = made(*steps, step("blend", keep_share=0.25)).final.pot
        self.assertAlmostEqual(kept.pieces_g, 50, places=6)
        self.assertAlmostEqual(kept.total_g, 700, places=6)

    def test_strain_leaves_them_and_what_they_hold(self) -> None:
        steps = (add("milk-whole", 1000), step("infuse", "onion", 100, minutes=15))
        before = made(*steps).final.pot
        after = made(*steps, step("strain", holds_back=0.25)).final.pot
        self.assertEqual(after.pieces, ())
        self.assertAlmostEqual(
            before.balance.mass_g - after.balance.mass_g, 0.25 * before.pieces_g, places=6
        )
        with self.assertRaises(BadInput):
            made(
                add("milk-whole", 50),
                step("infuse", "onion", 400, minutes=1),
                step("strain", holds_back=2),
            )

    def test_returned_food_brings_its_temperature_and_its_juice(self) -> None:
        base = (roux(30, 30), add("stock-chicken", 500), simmer(5))
        cold = made(*base, step("return", "poultry-breast", 500, temperature_c=5, minutes=4)).final
        warm = made(*base, step("return", "poultry-breast", 500, temperature_c=55, minutes=4)).final
        self.assertLess(cold.pot.temperature_c + 15, warm.pot.temperature_c)
        juice = made(*base, step("return", "poultry-breast", 500, minutes=60, juice_pct=10)).final
        self.assertAlmostEqual(500 - juice.pot.pieces_g, 50, delta=1)
        with self.assertRaises(BadInput):
            made(*base, step("return", "milk-whole", 100))


class Aromatics(unittest.TestCase):
    def test_sweating_steams_water_off(self) -> None:
        pot = made(add("butter-unsalted", 40), step("sweat", "onion", 200, minutes=10)).final.pot
        self.assertAlmostEqual(pot.pieces_g, 160, delta=0.5)
        self.assertAlmostEqual(pot.balance.mass_g, 40, places=6)

    def test_dusted_flour_is_solved_for(self) -> None:
        case = sheet(
            add("butter-unsalted", 60),
            step("sweat", "onion", 100, minutes=5),
            step("dust", "wheat-flour", 50),
            add("milk-whole", 1000),
            simmer(5),
        )
        solved = solve(case, goal_of(case, "binding"))
        self.assertEqual(solved.free, "flour")
        self.assertEqual(check(solved.sheet).final.thickness.grade, "binding")

    def test_beurre_manie_goes_into_the_simmering_pot(self) -> None:
        thin = made(add("cream-35", 300), add("stock-light", 300), simmer(3)).final
        bound = made(
            add("cream-35", 300), add("stock-light", 300), simmer(3), roux(20, 20, "raw"), simmer(4)
        ).final
        self.assertGreater(bound.thickness.viscosity_pa_s, 5 * thin.thickness.viscosity_pa_s)


class ThePanItself(unittest.TestCase):
    def test_a_used_pan_brings_fat_and_salt(self) -> None:
        start = step(
            "start",
            fat={"ingredient": "fat-poultry", "amount": grams(30)},
            juices={"ingredient": "pan-juices", "amount": grams(50)},
        )
        pot = made(start, step("deglaze", "stock-chicken", 300)).final.pot
        self.assertAlmostEqual(pot.balance.salt, 0.35 + 1.2, delta=0.02)
        self.assertGreater(pot.balance.fat, 29)
        with self.assertRaises(BadInput):
            made(step("start"))

    def test_flaming_leaves_most_of_the_alcohol(self) -> None:
        before = made(step("deglaze", "brandy", 60)).final.pot.balance.alcohol
        after = made(step("deglaze", "brandy", 60), step("flame")).final.pot.balance.alcohol
        self.assertAlmostEqual(after / before, 0.75)
        self.assertIn("nothing-burns", codes(made(add("stock-light", 500), step("flame"))))


class Enriching(unittest.TestCase):
    def test_reference_liaison_heated_and_not(self) -> None:
        for heat, viscosity in ((80, 0.297), (None, 0.134)):
            # Not heated: the stock has cooled before the cold yolk goes in.
            cooled = () if heat else (step("cool", to_c=60),)
            final = made(*STOCK_SAUCE, *cooled, liaison(54, 100, heat_to_c=heat)).final
            self.assertAlmostEqual(final.thickness.viscosity_pa_s / viscosity, 1, delta=0.1)
            self.assertEqual(final.thickness.grade, "light-coat")

    def test_yolk_in_a_quarter_litre_thickens_like_half_a_tablespoon_of_flour(self) -> None:
        """One yolk in 250 mL against 4 g of flour (half a level tablespoon), within a third."""
        base = (roux(10, 10), add("stock-light", 250))
        plain = (*base, simmer(3))
        target = made(*plain, liaison(18, 1)).final.thickness.viscosity_pa_s
        flour = next(
            extra
            for extra in [x / 10 for x in range(100)]
            if made(roux(10, 10 + extra), base[1], simmer(3)).final.thickness.viscosity_pa_s
            >= target
        )
        self.assertAlmostEqual(flour, 4, delta=1.4)

    @given(st.floats(18, 200), st.floats(20, 400), st.floats(300, 4000), st.floats(60, 98))
    def test_no_ladle_is_too_hot(self, yolk: float, cream: float, sauce: float, at: float) -> None:
        larder = shipped_larder()
        mixture = EMPTY.plus(larder["egg-yolk"].per_gram, yolk).plus(
            larder["cream-35"].per_gram, cream
        )
        hot = EMPTY.plus(larder["stock-light"].per_gram, sauce)
        last, poured = 5.0, 0.0
        for ladle in tempering(mixture, hot, at):
            self.assertLessEqual(ladle.temperature_c, last + 15.0 + 1e-6)
            self.assertLessEqual(ladle.temperature_c, 65.0 + 1e-6)
            last, poured = ladle.temperature_c, poured + ladle.sauce_g
        if at > 66:
            self.assertLessEqual(poured, mixture.mass_g + 1e-6)
        self.assertGreater(poured, 0)

    def test_with_and_without_starch(self) -> None:
        bare = made(add("stock-fish", 500), simmer(2), liaison(54, 60, heat_to_c=90))
        self.assertLessEqual({"yolk-grains", "liaison-bare"}, codes(bare))
        bound = made(roux(25, 25), add("stock-fish", 500), simmer(3), liaison(54, 60, heat_to_c=90))
        self.assertEqual(codes(bound), set())
        again = made(add("stock-fish", 500), simmer(2), liaison(54, 60, heat_to_c=78), simmer(2))
        self.assertIn("liaison-boiled", codes(again))

    def test_a_hot_pot_is_not_cooler_for_being_told_so(self) -> None:
        """Starchless stock at the boil is past 82 °C with a little liaison, whatever is asked."""
        hot = made(add("stock-fish", 900), simmer(2), liaison(18, 20, heat_to_c=78))
        self.assertGreater(hot.final.pot.temperature_c, 82)
        self.assertIn("yolk-grains", codes(hot))
        let_fall = made(
            add("stock-fish", 900), simmer(2), step("cool", to_c=75), liaison(18, 20, heat_to_c=78)
        )
        self.assertNotIn("yolk-grains", codes(let_fall))

    def test_order_of_soft_cream_and_butter(self) -> None:
        soft = (add("stock-veal", 300), simmer(2), step("finish", "soured-cream-20", 150))
        self.assertNotIn("soft-cream-boiled", codes(made(*soft)))
        self.assertIn("soft-cream-boiled", codes(made(*soft, simmer(2))))
        rich = (add("stock-veal", 300), simmer(2), step("finish", "creme-fraiche-30", 150))
        self.assertNotIn("soft-cream-boiled", codes(made(*rich, simmer(2))))
        mounted = (*STOCK_SAUCE, step("mount", "butter-unsalted", 40))
        self.assertLessEqual(made(*mounted).final.pot.temperature_c, 80)
        self.assertIn("mounted-boiled", codes(made(*mounted, simmer(2))))

    def test_milk_curdles_in_acid_before_starch(self) -> None:
        sour = (add("wine-white-dry", 200), reduce_to(share=0.5))
        self.assertIn("curdles", codes(made(*sour, add("milk-whole", 300))))
        self.assertNotIn("curdles", codes(made(*sour, add("cream-35", 300))))
        self.assertNotIn("curdles", codes(made(roux(30, 30), *sour, add("milk-whole", 300))))

    def test_cheese_asks_for_starch_and_no_boil(self) -> None:
        bare = (add("milk-whole", 400), simmer(1))
        cheese = {"op": "melt", "ingredient": "cheese-hard-alpine", "amount": grams(60)}
        self.assertIn("no-starch", codes(made(*bare, cheese)))
        self.assertIn(
            "much-cheese", codes(made(roux(20, 20), *bare, {**cheese, "amount": grams(300)}))
        )
        low = made(roux(20, 20), add("milk-whole", 300), simmer(2), {**cheese, "heat": "low"})
        self.assertIn("hot-cheese", codes(low))


class BeforeItHappens(unittest.TestCase):
    def test_where_a_cream_turns_is_told_on_the_way(self) -> None:
        """The weights told at 0.6 are those at which the check itself turns."""
        words = cards(made(add("cream-35", 1000), reduce_to(share=0.6)))[-1].cue
        words = str(words)
        rich, oily = (float(n) for n in re.findall(r"(\d+) g", words)[-2:])
        for mass, above, below in ((rich, "stable", "caution"), (oily, "caution", "oily")):
            for offset, state in ((4, above), (-4, below)):
                stop = reduce_to(mass=grams(mass + offset))
                self.assertEqual(made(add("cream-35", 1000), stop).final.emulsion, state)


class Shares(unittest.TestCase):
    WHITE = {"name": "White", "steps": [roux(60, 60), add("milk-whole", 1000), simmer(5)]}

    def test_use_takes_a_share_with_all_that_is_in_it(self) -> None:
        whole = made(*self.WHITE["steps"]).final.pot
        used = made(step("use", sauce=self.WHITE, amount={"share": 0.5})).final.pot
        self.assertAlmostEqual(used.balance.flour, whole.balance.flour / 2, places=6)
        self.assertAlmostEqual(used.cost, whole.cost / 2, places=6)
        self.assertEqual(used.allergens, whole.allergens)
        self.assertAlmostEqual(used.boiled_min, whole.boiled_min)

    def test_not_endlessly_deep(self) -> None:
        inner: dict[str, Any] = self.WHITE
        for _ in range(4):
            inner = {"name": "outer", "steps": [step("use", sauce=inner, amount=grams(100))]}
        with self.assertRaises(BadInput) as caught:
            made(step("use", sauce=inner, amount=grams(10)))
        self.assertIn("sauce", caught.exception.problems[0].field)

    def test_reserve_keeps_the_sauce_and_takes_the_share(self) -> None:
        pot = made(*STOCK_SAUCE, step("reserve", share=0.2, purpose="top")).final
        self.assertAlmostEqual(pot.pot.total_g, 1050 * 0.8, places=5)
        self.assertAlmostEqual(pot.pot.set_aside[0].mass_g, 210, places=5)
        self.assertAlmostEqual(
            pot.thickness.viscosity_pa_s,
            made(*STOCK_SAUCE).final.thickness.viscosity_pa_s,
            places=9,
        )

    def test_salt_and_cost_follow_every_split(self) -> None:
        steps = (*STOCK_SAUCE, {"op": "season", "amount": {"to_salt_pct": 0.8}})
        kept = made(*steps, step("reserve", share=0.3)).figures
        self.assertAlmostEqual(kept.salt_pct, 0.8, places=4)


class Keeping(unittest.TestCase):
    def test_an_uncovered_hold_dries_and_film_does_not(self) -> None:
        pan = {"diameter_cm": 20}
        for covered in (True, False):
            held = made(*STOCK_SAUCE, step("hold", minutes=60, covered=covered), pan=pan).steps
            lost = held[-2].pot.total_g - held[-1].pot.total_g
            self.assertAlmostEqual(lost, 0 if covered else 2.5 * 3.14159 * 0.01 * 1000, delta=0.5)

    def test_a_roux_sauce_comes_back_thicker(self) -> None:
        fresh = check(white_sauce(60)).final.thickness.viscosity_pa_s
        base = (roux(60, 60), add("milk-whole", 1, "L"), reduce_to(share=0.95))
        back = made(*base, step("cool", to_c=4), step("reheat", to_c=80)).final.thickness
        self.assertAlmostEqual(back.viscosity_pa_s / fresh, 1.08**3.7, delta=0.03)
        only_warm = made(*base, step("cool", to_c=60), step("reheat", to_c=80)).final.thickness
        self.assertAlmostEqual(only_warm.viscosity_pa_s, fresh, places=9)

    def test_rules_are_deferred_to(self) -> None:
        self.assertIn("keeping", codes(made(*STOCK_SAUCE, step("cool", to_c=4))))
        with self.assertRaises(BadInput):
            made(add("milk-whole", 500, "g"), step("cool", to_c=90))
