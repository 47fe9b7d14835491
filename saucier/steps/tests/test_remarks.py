"""What is said of a pot, and what is not: each remark where a cook would make it."""

import unittest

from saucier.steps.tests.test_steps import codes, made, step
from saucier.testing import add, grams, melt, reduce_to, roux, simmer

HARD, MILD = "parmesan-style-hard", "cheese-semi-hard"
WHITE = (roux(60, 60), add("milk-whole", 1000), simmer(5))
CREAM = (add("cream-35", 300), simmer(2))


def said(*steps: dict, **rest: object) -> set[str]:
    """Codes of every remark, those that follow from the state included."""
    checked = made(*steps, **rest)
    return codes(checked) | {w.code for state in checked.steps for w in state.warnings}


def texts(*steps: dict) -> str:
    return " ".join(map(str, made(*steps).figures.warnings))


class Once(unittest.TestCase):
    """Each speaks where something can be done, and is silent where there is nothing to say."""

    def test_stop_soon_is_said_of_a_cream_that_boils_not_of_one_that_stands(self) -> None:
        stands = {"op": "season", "ingredient": "salt", "amount": {"value": 2, "unit": "g"}}
        boiled = made(add("cream-35", 1000), reduce_to(share=0.5), stands).steps
        found = [[w.code for w in state.warnings] for state in boiled]
        self.assertIn("emulsion-caution", found[1])
        self.assertNotIn("emulsion-caution", found[2])

    def test_yolk_outside_a_liaison_is_told_raw_until_it_is_cooked(self) -> None:
        yolk = {"op": "finish", "ingredient": "egg-yolk", "amount": {"value": 36, "unit": "g"}}
        cool = {"op": "cool", "to_c": 60}
        base = (roux(60, 60), add("milk-whole", 1, "L"), simmer(5), cool, yolk)
        self.assertIn("yolk-raw", said(*base))
        self.assertNotIn("yolk-raw", said(*base, {"op": "reheat", "to_c": 85}))
        self.assertNotIn("yolk-raw", said(*base[:3]))

    def test_a_lid_on_a_reduction(self) -> None:
        cream = (add("cream-35", 500), reduce_to(share=0.6))
        self.assertIn("lid-on-a-reduction", said(*cream, lid=True))
        self.assertNotIn("lid-on-a-reduction", said(*cream))

    def test_fats_that_smoke_before_a_pan_sears(self) -> None:
        food = {"ingredient": "poultry-breast", "amount": {"value": 300, "unit": "g"}}
        for fat, told in (
            *(("butter-unsalted", True), ("oil-olive", True)),
            *(("butter-clarified", False), ("oil-neutral", False)),
        ):
            sear = {
                "op": "sear",
                **food,
                "fat": {"ingredient": fat, "amount": {"value": 20, "unit": "g"}},
            }
            with self.subTest(fat):
                self.assertEqual("fat-smokes" in said(sear, add("cream-35", 200)), told)

    def test_a_dry_roux(self) -> None:
        milk = add("milk-whole", 2, "L")
        self.assertIn("lean-roux", said(roux(50, 120), milk, simmer(5)))
        for even in (roux(120, 120), roux(90, 120), roux(50, 120, "raw")):
            self.assertNotIn("lean-roux", said(even, milk, simmer(5)))

    def test_food_that_comes_in_is_told_where_it_cools_the_pot_or_is_raw(self) -> None:
        def back(key: str, grams: float, how: str) -> dict:
            amount = {"value": grams, "unit": "g"}
            return {"op": "return", "ingredient": key, "amount": amount, "how": how, "minutes": 5}

        cream = (add("cream-35", 1000), simmer(2))
        self.assertIn("safe-middle", said(*cream, back("poultry-breast", 900, "seared")))
        self.assertNotIn("safe-middle", said(*cream, back("poultry-breast", 60, "seared")))
        self.assertIn("raw-in-sauce", said(*cream, back("poultry-breast", 60, "raw")))

    def test_a_root_starch_boiled_on(self) -> None:
        stock = (add("stock-light", 1, "L"), simmer(1))
        self.assertIn("root-starch-thins", said(*stock, add("arrowroot", 30), simmer(8)))
        self.assertNotIn("root-starch-thins", said(*stock, add("arrowroot", 30), simmer(1)))
        self.assertNotIn("root-starch-thins", said(*stock, add("corn-starch", 30), simmer(8)))


class Boiling(unittest.TestCase):
    def test_a_boil_is_asked_of_flour_alone_and_by_how_it_was_cooked(self) -> None:
        """A minute after a roux of two; three for flour that met no fat first; one for a starch, none for a root's."""
        milk, stock = add("milk-whole", 500), add("stock-light", 500)
        self.assertIn("short-boil", said(roux(30, 30), milk, simmer(0.5)))
        self.assertNotIn("short-boil", said(roux(30, 30), milk, simmer(1)))
        kneaded = (milk, simmer(1), roux(30, 30, "raw"))
        self.assertIn("short-boil", said(*kneaded, simmer(2)))
        self.assertNotIn("short-boil", said(*kneaded, simmer(3)))
        self.assertNotIn("short-boil", said(stock, simmer(1), add("corn-starch", 20), simmer(1)))
        self.assertNotIn("not-boiled", said(stock, simmer(1), add("arrowroot", 20)))

    def test_raw_flour_is_told_once_where_it_can_still_be_boiled(self) -> None:
        yolk = {"ingredient": "egg-yolk", "amount": {"value": 36, "unit": "g"}}
        cream = {"ingredient": "cream-35", "amount": {"value": 100, "unit": "g"}}
        thin = {
            "op": "finish",
            "ingredient": "soured-cream-20",
            "amount": {"value": 80, "unit": "g"},
        }
        liaison = {"op": "liaison", "yolk": yolk, "cream": cream}
        checked = made(roux(8, 8, "raw"), add("stock-light", 500), simmer(1), thin, liaison)
        where = [
            number
            for number, state in enumerate(checked.steps)
            if any(one.code == "short-boil" for one in state.warnings)
        ]
        self.assertEqual(len(where), 1)
        self.assertLessEqual(where[0], 3)  # yolk without much flour must not boil any more
        self.assertEqual([w.code for w in checked.figures.warnings].count("short-boil"), 1)

    def test_a_boil_is_not_asked_of_purees(self) -> None:
        self.assertNotIn("short-boil", said(add("milk-whole", 500), simmer(1)))
        self.assertNotIn(
            "short-boil", said(add("stock-light", 500), add("onion-puree", 9), simmer(1))
        )

    def test_flour_boiled_long_in_acid_gives_less(self) -> None:
        sour = (roux(40, 40), add("wine-white-dry", 500), simmer(20, "bare-simmer"))
        found = made(*sour).final.pot
        self.assertAlmostEqual(found.flour_given, 0.85, delta=0.001)
        longer = made(*sour, simmer(60, "bare-simmer"), pan={"diameter_cm": 16}).final.pot
        self.assertAlmostEqual(longer.flour_given, 0.80, delta=0.001)
        self.assertEqual(made(*WHITE, simmer(20, "bare-simmer")).final.pot.flour_given, 1.0)

    def test_gels_let_go_at_the_boil_and_creme_fraiche_half(self) -> None:
        for key, left in (
            ("soured-cream-20", 0.0),
            ("yogurt-plain", 0.0),
            ("creme-fraiche-30", 0.5),
        ):
            stirred = made(add("stock-light", 100), step("finish", key, 200)).final.pot.balance
            boiled = made(add("stock-light", 100), add(key, 200), simmer(1)).final.pot.balance
            self.assertGreater(stirred.body, 0.0)
            self.assertAlmostEqual(boiled.body, left * stirred.body)

    def test_what_was_whisked_in_falls_out_of_a_roux_sauce_not_of_a_cream(self) -> None:
        butter = step("mount", amount_g=40)
        self.assertIn("mounted-boiled", said(*WHITE, butter, simmer(2)))
        self.assertNotIn("mounted-boiled", said(*CREAM, butter, simmer(2)))
        self.assertIn(
            "soft-cream-boiled", said(*CREAM, step("finish", "soured-cream-20", 90), simmer(1))
        )

    def test_tomatoes_boil_in_their_own_juice(self) -> None:
        pan = (add("oil-olive", 20), step("sweat", "onion", 60))
        self.assertNotIn(
            "nothing-to-boil", said(*pan, add("tomato", 400), simmer(10, "bare-simmer"))
        )
        self.assertIn("nothing-to-boil", said(*pan, simmer(10)))
        self.assertIn("nothing-to-boil", said(*pan, add("bacon-smoked", 100), simmer(10)))


class Cheese(unittest.TestCase):
    def test_held_by_starch_or_by_a_creams_own_fat(self) -> None:
        thin = (add("stock-light", 300), simmer(2))
        self.assertIn("no-starch", said(*thin, melt(HARD, 60)))
        self.assertNotIn("no-starch", said(*WHITE, melt(HARD, 60)))
        self.assertNotIn("no-starch", said(*CREAM, melt(HARD, 60)))
        self.assertIn("stringy", texts(*thin, melt(HARD, 60)))
        # Gone from the whole once a roux is in.
        self.assertNotIn("stringy", texts(*thin, melt(HARD, 60), roux(15, 15), simmer(3)))

    def test_boiled_after_melting_by_kind_and_fat(self) -> None:
        self.assertNotIn("cheese-boiled", said(*CREAM, melt(HARD, 40), simmer(2)))
        self.assertIn("cheese-boiled", said(*CREAM, melt(MILD, 40), simmer(2)))
        self.assertIn("cheese-boiled", said(*WHITE, melt(MILD, 80), simmer(2)))
        self.assertIn("cheese-boiled", said(*WHITE, melt(HARD, 80), simmer(2)))
        # The odd bubble, with starch to hold it, it bears.
        self.assertNotIn("cheese-boiled", said(*WHITE, melt(MILD, 80), simmer(2, "bare-simmer")))


class Yolk(unittest.TestCase):
    def test_outside_a_liaison(self) -> None:
        self.assertIn("yolk-loose", said(*CREAM, add("egg-yolk", 36)))
        cold = (add("cream-35", 300), {**add("egg-yolk", 36), "temperature_c": 5})
        self.assertNotIn("yolk-loose", said(*cold))
        self.assertIn("liaison-boiled", said(*cold, simmer(1)))
        self.assertNotIn("liaison-boiled", said(*WHITE, add("egg-yolk", 36), simmer(1)))

    def test_a_warm_emulsion_gets_no_roux_grade(self) -> None:
        yolks = (add("egg-yolk", 54), add("lemon-juice", 15), add("water", 20))
        whisked = made(*yolks, step("mount", amount_g=250)).final.thickness
        self.assertIsNone(whisked.grade)
        self.assertIn("companion", str(whisked.reason))
        bound = made(roux(20, 20), add("stock-light", 300), simmer(3), add("egg-yolk", 36)).final
        self.assertIsNotNone(bound.thickness.grade)


class Metal(unittest.TestCase):
    def test_told_wherever_acid_or_yolk_meets_it(self) -> None:
        bare = {"pan": {"diameter_cm": 24, "reactive": True}}
        for case in (
            (add("wine-white-dry", 200),),
            (*CREAM, add("lemon-juice", 20)),
            (*CREAM, add("egg-yolk", 20)),
            (add("cream-35", 3900), add("egg-yolk", 20)),  # an overfull pan too
        ):
            self.assertIn("reactive-pan", said(*case, **bare))
        self.assertNotIn("reactive-pan", said(*WHITE, **bare))

    def test_never_reached_for_where_there_is_another(self) -> None:
        self.assertFalse(made(add("wine-white-dry", 200), reduce_to(share=0.5)).pan.reactive)


class Fat(unittest.TestCase):
    def test_wet_onto_hot_fat(self) -> None:
        used = step("start", fat={"ingredient": "oil-neutral", "amount": grams(30)})
        self.assertIn("spits", said(used, step("deglaze", "wine-white-dry", 100)))
        self.assertNotIn("spits", said(add("oil-neutral", 30), add("wine-white-dry", 100)))
        self.assertNotIn("spits", said(*WHITE))

    def test_a_share_leaves_swimming_fat_and_pieces_out(self) -> None:
        """Half of the liquid, whatever swims on it or sits in it."""
        plain = (add("stock-light", 400), reduce_to(share=0.5))
        alone = made(*plain).final.pot.balance
        with_fat = made(add("oil-neutral", 40), *plain).final.pot.balance
        self.assertAlmostEqual(alone.liquid_g, 200)
        self.assertAlmostEqual(with_fat.liquid_g, 200)
        self.assertAlmostEqual(with_fat.mass_g, 240)
        # Twice the flour is held: only what is more swims.
        held = made(roux(60, 20), *plain).final.pot.balance
        self.assertAlmostEqual(held.swimming_fat_g, 0.82 * 60 - 2 * 20, places=6)
        # Whisked in, nothing swims.
        blended = made(add("oil-neutral", 40), add("onion", 50), step("blend")).final.pot.balance
        self.assertEqual(blended.swimming_fat_g, 0.0)

    def test_nearly_dry_counts_the_juice(self) -> None:
        found = made(
            add("wine-white-dry", 300),
            add("mushroom-button", 200),
            {"op": "reduce", "to": "nearly-dry"},
        )
        pot = found.final.pot
        juice = 200 - pot.pieces_g
        self.assertGreater(juice, 60)
        self.assertAlmostEqual(pot.balance.mass_g, 0.1 * (297 * 300 / 297 + juice), delta=0.5)


class Flaming(unittest.TestCase):
    def test_counts_the_liquid_not_the_pieces(self) -> None:
        pan = (add("butter-unsalted", 60), step("sweat", "onion", 900, minutes=3))
        lit = (*pan, step("deglaze", "brandy", 60), step("flame"))
        self.assertIn("flamed", said(*lit))
        self.assertNotIn("nothing-burns", said(*lit))


class Seasoning(unittest.TestCase):
    def test_mustard_into_a_roux_is_not_the_liquid(self) -> None:
        base = (roux(40, 40), step("season", "mustard-smooth", 20))
        found = made(*base).final
        self.assertFalse(found.pot.wetted)
        self.assertIn("roux", str(found.thickness.reason))
        with_milk = made(*base, add("milk-whole", 500)).final.pot.minutes
        self.assertAlmostEqual(
            with_milk, made(roux(40, 40), add("milk-whole", 500)).final.pot.minutes
        )

    def test_salt_before_a_reduction_only_where_the_end_overshoots(self) -> None:
        def salted(first_g: float) -> set[str]:
            target = {"salt_pct": 0.8}
            salt = step("season", "salt", first_g)
            return said(add("cream-35", 500), salt, reduce_to(share=0.6), target=target)

        self.assertIn("salted-too-soon", salted(4))
        self.assertNotIn("salted-too-soon", salted(1.5))


class Food(unittest.TestCase):
    """Seared, lifted out, put back: paid for and weighed once."""

    def test_how_it_comes_decides_juice_and_minutes(self) -> None:
        found = {}
        for how in ("raw", "seared", "cooked"):
            pots = [
                s.pot for s in made(*CREAM, step("return", "prawns-peeled", 200, how=how)).steps
            ]
            found[how] = pots[-1].balance.mass_g - pots[-2].balance.mass_g, pots[-1].minutes
        self.assertAlmostEqual(found["raw"][0], 200 * 0.17 * 0.95, delta=1)
        self.assertAlmostEqual(found["seared"][0], 200 * 0.03 * 0.86, delta=0.5)
        self.assertLess(found["cooked"][0], found["seared"][0])
        self.assertEqual(sorted(found, key=lambda how: -found[how][1]), ["raw", "seared", "cooked"])

    def test_its_weight_is_no_part_of_the_yield(self) -> None:
        pot = made(
            *CREAM, step("sweat", "shallot", 30), step("return", "prawns-peeled", 200)
        ).final.pot
        self.assertAlmostEqual(pot.total_g - pot.yield_g, 200 - 200 * 0.03 * 0.865, delta=1)
        self.assertGreater(pot.yield_g, pot.balance.mass_g + 20)  # the shallot counts

    def test_lifted_out_and_put_back_costs_and_weighs_once(self) -> None:
        poached = (add("stock-fish", 800), add("fish-white", 400), simmer(6))
        out = made(*poached, step("lift", "fish-white"), reduce_to(share=0.4), add("cream-35", 200))
        back = made(
            *poached,
            step("lift", "fish-white"),
            reduce_to(share=0.4),
            add("cream-35", 200),
            step("return", "fish-white", how="cooked"),
        )
        self.assertAlmostEqual(back.final.pot.cost, out.final.pot.cost)
        fish = out.final.pot.lifted[0].mass_g
        self.assertAlmostEqual(back.final.pot.total_g, out.final.pot.total_g + fish, places=6)
        self.assertEqual(back.final.pot.lifted, ())
        weighed = [
            w.ingredient
            for s, setting in zip(back.sheet.steps, back.settings, strict=True)
            for w in s.to_weigh(setting)
        ]
        self.assertEqual(weighed.count("fish-white"), 1)
        self.assertIn("fish", back.final.pot.allergens)
        self.assertIn("nothing-lifted", said(*CREAM, step("return", "fish-white")))

    def test_straining_names_what_it_takes_and_keeps_the_food(self) -> None:
        from saucier.cards import cards

        steps = (
            add("stock-shellfish", 600),
            add("onion", 80),
            step("infuse", "bay-leaf", 1),
            add("prawns-peeled", 200),
            simmer(4),
            step("strain"),
        )
        checked = made(*steps, step("return", "prawns-peeled", how="cooked"))
        words = cards(checked)[5]
        self.assertIn("onion, bay leaf", str(words.title))
        self.assertIn("Keep the prawns", str(words.do))
        self.assertAlmostEqual(checked.final.pot.cost, made(*steps).final.pot.cost)
        self.assertEqual([p.key for p in checked.final.pot.pieces], ["prawns-peeled"])

    def test_searing_leaves_fat_and_fond(self) -> None:
        sear = step(
            "sear",
            "poultry-breast",
            600,
            fat={"ingredient": "oil-neutral", "amount": grams(20)},
            minutes=4,
        )
        wide, narrow = ({"pan": {"diameter_cm": d}} for d in (28, 16))
        pot = made(sear, **wide).final.pot
        self.assertAlmostEqual(pot.balance.fat, 0.85 * 20 + 0.01 * 600 * 0.02, delta=0.1)
        self.assertGreater(pot.balance.salt, 0.0)  # the fond's own
        self.assertAlmostEqual(pot.lifted[0].mass_g, 600 - 60 + 3 - 1.6, delta=1.0)
        self.assertGreater(made(sear, **narrow).final.pot.minutes, pot.minutes)  # more rounds
        sauce = made(
            sear,
            step("deglaze", "wine-white-dry", 100),
            add("cream-35", 300),
            simmer(3),
            step("return", "poultry-breast"),
            **wide,
        ).final.pot
        self.assertAlmostEqual(
            sauce.cost, made(sear, **wide).final.pot.cost + 0.65 + 1.56, delta=0.01
        )
        self.assertIn("wet-pan", said(*CREAM, sear))

    def test_blending_by_kind_and_by_share(self) -> None:
        base = (add("stock-light", 500), add("mushroom-button", 200), add("leek", 100))
        pot = made(*base, step("blend", "mushroom-button", keep_share=0.25)).final.pot
        self.assertEqual(
            {p.key: round(p.mass_g) for p in pot.pieces}, {"mushroom-button": 50, "leek": 100}
        )


class Split(unittest.TestCase):
    BROKEN = (add("cream-35", 500), reduce_to(share=0.42))

    def test_water_let_in_does_not_mend_it(self) -> None:
        wetter = made(*self.BROKEN, add("water", 200)).final
        self.assertEqual((wetter.emulsion, wetter.thickness.grade), ("split", None))
        self.assertLess(wetter.thickness.fat_volume_share, 0.6)

    def test_a_spoon_with_the_sauce_whisked_in_by_drops_does(self) -> None:
        mended = made(*self.BROKEN, step("mend", "water", 60)).final
        self.assertNotEqual(mended.emulsion, "split")
        self.assertIsNotNone(mended.thickness.grade)
        self.assertIn("splits-again", said(*self.BROKEN, step("mend", "water", 2)))
        self.assertIn("nothing-split", said(*CREAM, step("mend", "water", 30)))

    def test_butter_with_wine_under_it_is_no_cream(self) -> None:
        pan = (add("butter-unsalted", 60), step("sweat", "shallot", 40), add("wine-white-dry", 60))
        dry = made(*pan, {"op": "reduce", "to": "nearly-dry"}).final
        self.assertEqual(dry.emulsion, "stable")
        self.assertIsNotNone(
            made(
                *pan, {"op": "reduce", "to": "nearly-dry"}, add("cream-35", 300)
            ).final.thickness.grade
        )


if __name__ == "__main__":
    unittest.main()
