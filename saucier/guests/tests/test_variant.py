"""What "without" means, what is left out, what a sauce stands on and what stands in."""

import unittest
from dataclasses import replace
from typing import Any

from saucier.check import check, larder_of
from saucier.dish import Dish, read_dish
from saucier.errors import BadInput
from saucier.guests import StandsOn, exclusions, instead_of, raw_yolk_in, without
from saucier.kitchen import Kitchen
from saucier.larder import UNSAID, ingredient_from_row, row_of, shipped_larder
from saucier.sheet import Sheet
from saucier.testing import add, grams, melt, reduce_to, roux, sheet, simmer
from saucier.words import plain

KITCHEN = Kitchen()
LARDER = shipped_larder()
WHITE = sheet(roux(60, 60), add("milk-whole", 1, "L"), simmer(5), name="white")
CHEESE = sheet(
    *(roux(60, 60), add("milk-whole", 1, "L"), simmer(5), melt("cheese-semi-hard", 90)),
    name="cheese",
)


def liaison(to_c: float | None, flour_g: float = 50) -> Sheet:
    yolk = {"ingredient": "egg-yolk", "amount": grams(54)}
    cream = {"ingredient": "cream-35", "amount": grams(100)}
    step = {"op": "liaison", "yolk": yolk, "cream": cream, "heat_to_c": to_c}
    base = [roux(flour_g, flour_g), add("stock-light", 1, "L"), simmer(5)]
    if to_c is None or to_c < 75:  # straight off the boil the pot's own heat would cook it
        base.append({"op": "cool", "to_c": 55})
    return sheet(*base, step, name="liaison")


def dish(**parts: Any) -> Dish:
    return read_dish({"name": "d", "sauces": [{"sauce": "s", "use": "nap"}], **parts})


def variant(case: Sheet, *words: str, swaps: dict[str, str] | None = None, **parts: Any) -> Any:
    excluded = exclusions(words, LARDER)
    return without(dish(**parts), {"s": case}, excluded, KITCHEN, swaps)


def offered(case: Sheet, *words: str, **parts: Any) -> tuple[Any, ...]:
    excluded = exclusions(words, LARDER)
    try:
        without(dish(**parts), {"s": case}, excluded, KITCHEN)
    except StandsOn as bad:
        return instead_of(dish(**parts), {"s": case}, bad, excluded, KITCHEN, {})
    return ()


class Words(unittest.TestCase):
    def test_each_means_what_a_cook_means(self) -> None:
        for word, hit, spared in (
            ("pork", ["fat-pork", "stock-ham", "bacon-smoked", "pan-juices"], ["veal", "fat-duck"]),
            ("no pork", ["ham-dry"], ["beef-lean"]),
            ("vegetarian", ["stock-chicken", "anchovy", "fat-duck", "prawns-peeled"], ["honey"]),
            ("vegan", ["honey", "butter-unsalted", "egg-yolk", "pancake"], ["oil-olive", "tofu"]),
            (
                "meat",
                ["stock-light", "fat-poultry", "stock-powder"],
                ["stock-fish", "stock-mushroom"],
            ),
            ("alcohol", ["wine-white-dry", "brandy", "beer-pale"], ["vinegar-white-wine"]),
            ("milk", ["butter-garlic", "pancake", "cream-35"], ["milk-coconut", "milk-oat"]),
            ("dairy", ["cheese-hard-alpine"], ["milk-rice"]),
            ("gluten-free", ["wheat-flour", "soy-sauce", "beer-pale"], ["rice-flour"]),
            ("shellfish", ["mussels-shelled", "lobster-coral", "stock-shellfish"], ["salmon"]),
            ("Smooth mustard", ["mustard-smooth"], ["mustard-grain"]),
            ("cheese", ["cheese-blue"], ["butter-unsalted"]),
        ):
            [one] = exclusions([word], LARDER)
            for key in hit:
                self.assertTrue(one.hits(LARDER[key]), (word, key))
            for key in spared:
                self.assertFalse(one.hits(LARDER[key]), (word, key))

    def test_what_nobody_knows_is_told_with_what_can_be_said(self) -> None:
        with self.assertRaises(BadInput) as caught:
            exclusions(["milk", "moonlight"], LARDER)
        [problem] = caught.exception.problems
        self.assertEqual(problem.field, "without[1]")
        self.assertIn("vegetarian", str(problem.remedy))

    def test_a_row_that_does_not_say_is_trusted_by_nobody_who_asks(self) -> None:
        unsaid = ingredient_from_row({**row_of(LARDER["stock-vegetable"]), "animals": ""})
        self.assertEqual(unsaid.animals, {UNSAID})
        for word in ("vegan", "vegetarian", "pork", "meat"):
            self.assertTrue(exclusions([word], LARDER)[0].hits(unsaid))
        self.assertFalse(exclusions(["milk"], LARDER)[0].hits(unsaid))

    def test_a_cheese_is_of_milk_until_it_says_plant(self) -> None:
        for key, word in (("cheese-blue", "milk"), ("egg-yolk", "egg"), ("salmon", "fish")):
            bare = {**row_of(LARDER[key]), "allergens": "", "animals": ""}
            [one] = exclusions([word], LARDER)
            self.assertTrue(one.hits(ingredient_from_row(bare)), key)
            self.assertFalse(one.hits(ingredient_from_row({**bare, "animals": "plant"})), key)

    def test_every_shipped_row_says_what_it_is_of(self) -> None:
        self.assertFalse([row.key for row in LARDER.values() if UNSAID in row.animals])
        for row in LARDER.values():
            self.assertEqual(ingredient_from_row(row_of(row)).animals, row.animals, row.key)

    def test_a_column_that_contradicts_itself_is_refused(self) -> None:
        for animals in ("plant pork", "unicorn"):
            with self.assertRaises(BadInput) as caught:
                ingredient_from_row({**row_of(LARDER["potato"]), "animals": animals})
            self.assertEqual(caught.exception.problems[0].field, "animals")


class LeftOut(unittest.TestCase):
    def test_what_is_only_added_goes_and_is_told(self) -> None:
        made = variant(CHEESE, "cheese", solids=[{"ingredient": "leek", "grams": 90}])
        self.assertEqual(larder_of(made.sheets["s"]).keys(), larder_of(WHITE).keys())
        self.assertEqual(plain(made.told), ["cheese without mild semi-hard cheese"])

    def test_a_liaison_without_yolk_is_its_cream(self) -> None:
        steps = variant(liaison(80), "egg").sheets["s"].steps
        self.assertEqual([step.op for step in steps][-1], "finish")
        self.assertEqual(steps[-1].ingredient, "cream-35")

    def test_egg_around_what_is_fried_is_not_soft(self) -> None:
        coat = [{"ingredient": "egg-whole", "grams": 8, "place": "coating"}]
        top = [{"ingredient": "egg-whole", "grams": 8}]
        self.assertEqual(len(variant(WHITE, "raw yolk", toppings=coat).dish.toppings), 1)
        self.assertEqual(len(variant(WHITE, "raw yolk", toppings=top).dish.toppings), 0)
        self.assertEqual(len(variant(WHITE, "egg", toppings=coat).dish.toppings), 0)


class TheFoodItself(unittest.TestCase):
    """A dish is its food: a guest who goes without it is not served the sauce alone."""

    CELERIAC = (("celeriac", 120),)

    def of(self, *solids: tuple[str, float], **parts: Any) -> dict[str, Any]:
        return {"solids": [{"ingredient": key, "grams": g} for key, g in solids], **parts}

    def test_without_any_of_it_the_dish_is_refused_and_what_may_stand_in_is_offered(self) -> None:
        for solids, word, stands_in in (
            ([("celeriac", 120)], "celery", True),
            ([("fish-white", 140)], "fish", False),
            ([("celeriac", 120), ("celery", 40)], "celery", True),
        ):
            with self.subTest(solids=solids):
                with self.assertRaises(StandsOn) as caught:
                    variant(WHITE, word, **self.of(*solids))
                self.assertEqual(set(caught.exception.keys), {key for key, _ in solids})
                self.assertTrue(all(p.field == "without" for p in caught.exception.problems))
                ways = offered(WHITE, word, **self.of(*solids))
                self.assertEqual(bool(ways), stands_in)
                for way in ways:
                    made = variant(WHITE, word, swaps=dict(way.swaps), **self.of(*solids))
                    self.assertEqual(len(made.dish.solids), len(solids))

    def test_with_some_of_it_left_the_rest_is_served(self) -> None:
        made = variant(WHITE, "celery", **self.of(("celeriac", 120), ("potato", 80)))
        self.assertEqual([solid.ingredient for solid in made.dish.solids], ["potato"])

    def test_a_sauce_measured_by_its_pasta_is_not_served_without_pasta(self) -> None:
        by_pasta = {"sauces": [{"sauce": "s", "use": "pasta-hob"}]}
        told = {"sauces": [{"sauce": "s", "use": "pasta-hob", "each": 80}]}
        food = (("pasta-dry", 100.0), ("ham-cooked", 30.0))
        milk = sheet(add("cream-35", 300), reduce_to(share=0.7), name="reduced cream")
        with self.assertRaises(StandsOn):
            variant(milk, "gluten", **self.of(*food, **by_pasta))
        self.assertEqual(len(variant(milk, "gluten", **self.of(*food, **told)).dish.solids), 1)

    def test_a_dish_of_sauce_alone_is_served_as_it_is(self) -> None:
        self.assertEqual(variant(WHITE, "celery").dish, dish())


class RawYolk(unittest.TestCase):
    def test_it_is_cooked_through_where_flour_holds_it(self) -> None:
        for to_c in (None, 60, 72):
            made = variant(liaison(to_c), "raw yolk")
            self.assertFalse(raw_yolk_in(check(made.sheets["s"]).final.pot))
            self.assertIn("egg-yolk", larder_of(made.sheets["s"]))
            self.assertIn("cooked through, to 80 °C", str(made.told[-1]))

    def test_a_cooked_one_stays_as_it_is(self) -> None:
        self.assertEqual(variant(liaison(85), "raw yolk").sheets["s"], liaison(85))

    def test_yolk_stirred_in_cold_is_left_out(self) -> None:
        case = sheet(
            *(roux(30, 30), add("milk-whole", 500), simmer(5), {"op": "cool", "to_c": 50}),
            {"op": "finish", "ingredient": "egg-yolk", "amount": grams(36)},
            name="cold",
        )
        made = variant(case, "raw yolk")
        self.assertNotIn("egg-yolk", larder_of(made.sheets["s"]))
        self.assertIn("without yolk", str(made.told[-1]))


class StandingOnIt(unittest.TestCase):
    def refused(self, case: Sheet, *words: str) -> StandsOn:
        with self.assertRaises(StandsOn) as caught:
            variant(case, *words)
        return caught.exception

    def test_the_fat_the_flour_and_the_liquid(self) -> None:
        self.assertEqual(self.refused(WHITE, "milk").keys, ("milk-whole", "butter-unsalted"))
        self.assertEqual(self.refused(WHITE, "gluten").keys, ("wheat-flour",))
        words = str(self.refused(WHITE, "milk").problems[1].message)
        self.assertIn("nothing of white is left", words)

    def test_wine_is_only_a_main_liquid_where_it_is_the_only_one(self) -> None:
        cream = sheet(add("wine-white-dry", 300), reduce_to(share=0.5), add("cream-35", 200))
        self.assertNotIn("wine-white-dry", larder_of(variant(cream, "alcohol").sheets["s"]))
        wine = sheet(add("wine-white-dry", 300), reduce_to(share=0.5), name="wine")
        self.assertEqual(self.refused(wine, "alcohol").keys, ("wine-white-dry",))

    def test_an_emulsion_without_its_yolk_is_no_sauce_of_another_name(self) -> None:
        """Nor is what the other parts leave of it a sauce because butter is whisked in."""
        wine = (add("wine-white-dry", 60), reduce_to(share=0.5))
        warm = {"op": "reheat", "to_c": 78}
        mounted = {"op": "mount", "amount": grams(250)}
        for butter in (add("butter-clarified", 250), mounted):
            case = sheet(*wine, add("egg-yolk", 54), butter, warm, name="warm butter")
            bad = self.refused(case, "egg")
            self.assertEqual(bad.keys, ("egg-yolk",))
            self.assertIn("is made by egg yolk", str(bad.problems[0].message))
            self.assertTrue(str(bad.problems[0].remedy))
        bound = variant(liaison(80), "egg").sheets["s"]  # flour holds that one
        self.assertIsNotNone(check(bound).final.thickness.grade)

    def test_what_is_offered_works_and_brings_nothing_excluded(self) -> None:
        for case in (WHITE, CHEESE, liaison(80)):
            for word in ("milk", "vegan", "gluten"):
                offers = offered(case, word)
                self.assertTrue(offers, (case.name, word))
                for offer in offers:
                    made = variant(case, word, swaps=dict(offer.swaps))
                    [one] = exclusions([word], LARDER)
                    held = [k for k in larder_of(made.sheets["s"]) if one.hits(LARDER[k])]
                    self.assertEqual(held, [])

    def test_an_allergen_that_comes_in_is_named(self) -> None:
        rows = [
            r for r in LARDER.values() if r.role != "milk" or r.key in ("milk-whole", "milk-almond")
        ]
        few = replace(
            KITCHEN,
            larder=type(LARDER)(r for r in rows if r.role not in ("stock", "cream", "water")),
        )
        excluded = exclusions(["milk"], few.larder)
        case = {"s": WHITE}
        with self.assertRaises(StandsOn) as caught:
            without(dish(), case, excluded, few)
        [offer, *_] = instead_of(dish(), case, caught.exception, excluded, few, {})
        self.assertEqual(offer.swaps["milk-whole"], "milk-almond")
        self.assertEqual(offer.gains, ("nuts",))
        self.assertIn("it brings nuts", str(offer.words))

    def test_where_nothing_takes_its_place_nothing_is_offered(self) -> None:
        bare = replace(
            KITCHEN,
            larder=type(LARDER)(
                LARDER[k] for k in ("butter-unsalted", "wheat-flour", "milk-whole")
            ),
        )
        excluded = exclusions(["milk"], bare.larder)
        with self.assertRaises(StandsOn) as caught:
            without(dish(), {"s": WHITE}, excluded, bare)
        self.assertEqual(instead_of(dish(), {"s": WHITE}, caught.exception, excluded, bare, {}), ())

    def test_a_swap_that_brings_it_itself_is_refused(self) -> None:
        with self.assertRaises(BadInput) as caught:
            variant(WHITE, "milk", swaps={"milk-whole": "milk-semi"})
        self.assertEqual(caught.exception.problems[0].field, "swaps.milk-whole")


if __name__ == "__main__":
    unittest.main()
