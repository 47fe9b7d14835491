"""What one batch says: the pan's pace and the flour's strength that it was cooked with come back."""

import math
import unittest
from itertools import pairwise

from saucier.check import check, prepare
from saucier.heat import Pace
from saucier.kitchen import Kitchen, Strength
from saucier.learn import Finished, as_it_went, observed, said_again
from saucier.sheet import Sheet, read_sheet, write_sheet
from saucier.steps.step import Knobs
from saucier.sure import how_sure
from saucier.testing import add, melt, reduce_to, roux, simmer
from saucier.thickness import log_viscosity_of
from saucier.watch import StepAsDone, follow

PAN = {"name": "saucepan 20", "shape": "straight", "diameter_cm": 20, "depth_cm": 12}
USUAL = Kitchen()


def sauce(*steps: object, **more: object) -> Sheet:
    return read_sheet({"name": "sauce", "steps": list(steps), "pan": PAN, **more})


def finished(sheet: Sheet, pace: float = 0.0, strength: float = 0.0) -> Finished:
    """``sheet`` cooked where its pan boils off, and its flour thickens, by so much more (logarithms)."""
    kitchen = USUAL.knowing({"wheat-flour": Strength(strength, 0.0, 0.0)}, {})
    prepared = prepare(sheet, kitchen)
    pots = list(prepared.walk(Knobs(boil=math.exp(pace))))
    usual = check(sheet, USUAL).steps
    minutes = {n: b.pot.minutes - a.pot.minutes for n, (a, b) in enumerate(pairwise(usual), 1)}
    seen = log_viscosity_of(pots[-1], sheet.target.serving_c)
    return Finished(sheet, minutes, pots[-1].total_g, math.exp(seen[0]) if seen else None)


WHITE = sauce(roux(66, 66), add("milk-whole", 1, "L"), simmer(20))


class Records(unittest.TestCase):
    def told(self, batch: Finished) -> dict[str, float]:
        return {f"{one.kind} {one.of} {one.at}".strip(): one.seen.log for one in observed(batch)}

    def test_pace_and_strength_come_back(self) -> None:
        for pace, strength in ((0.0, 0.0), (0.4, 0.0), (-0.5, 0.1), (0.3, -0.15)):
            told = self.told(finished(WHITE, pace, strength))
            self.assertAlmostEqual(told["pace saucepan 20 simmer"], pace, delta=0.02)
            self.assertAlmostEqual(told["strength wheat-flour"], strength, delta=0.02)

    def test_with_cheese_in_it_and_at_another_serving_temperature(self) -> None:
        cheese = sauce(
            roux(60, 60),
            add("milk-whole", 1, "L"),
            simmer(15, "lively"),
            melt("cheese-hard-alpine", 120),
            target={"serving_c": 55},
        )
        told = self.told(finished(cheese, 0.25, 0.08))
        self.assertAlmostEqual(told["pace saucepan 20 lively"], 0.25, delta=0.03)
        self.assertAlmostEqual(told["strength wheat-flour"], 0.08, delta=0.02)

    def test_a_reduction_tells_by_its_minutes(self) -> None:
        cream = sauce(add("cream-35", 500), reduce_to(share=0.7))
        batch = finished(cream)
        slow = Finished(cream, {1: 1.6 * batch.minutes[1]}, batch.weighed_g)
        told = self.told(slow)
        self.assertLess(told["pace saucepan 20 rolling"], -0.3)
        self.assertNotIn("strength wheat-flour", self.told(batch))

    def test_what_says_nothing(self) -> None:
        batch = finished(WHITE)
        self.assertEqual(self.told(Finished(WHITE, batch.minutes)), {})
        unknown = self.told(Finished(WHITE, {}, batch.weighed_g, batch.reached_pa_s))
        self.assertEqual(list(unknown), ["strength wheat-flour"])
        # A step pressed on at once, or forgotten over night, was not as long as the clock says.
        for minutes in (0.2, 900.0):
            pressed = Finished(WHITE, {2: minutes}, batch.weighed_g)
            self.assertEqual(self.told(pressed), {})
        # Weighed with its pan: nothing boils off less than nothing.
        self.assertEqual(self.told(Finished(WHITE, batch.minutes, batch.weighed_g + 1200.0)), {})
        self.assertEqual(self.told(finished(sauce(add("stock-light", 500)))), {})
        two = sauce(
            roux(66, 33),
            {
                "op": "roux",
                "fat": {"ingredient": "butter-unsalted", "amount": {"value": 20, "unit": "g"}},
                "flour": {"ingredient": "corn-starch", "amount": {"value": 20, "unit": "g"}},
            },
            add("milk-whole", 1, "L"),
            simmer(10),
        )
        self.assertNotIn("strength wheat-flour", self.told(finished(two)))

    def test_a_sheet_that_cannot_be_played_says_nothing(self) -> None:
        lost = WHITE.model_copy(
            update={
                "steps": (
                    *WHITE.steps,
                    WHITE.steps[1].model_copy(update={"ingredient": "no-such-thing"}),
                )
            }
        )
        self.assertEqual(observed(Finished(lost, {}, 900.0, 0.5)), ())


class Known(unittest.TestCase):
    """What a kitchen has learned moves its figures, and draws in their edges."""

    def test_a_stronger_flour_takes_less_of_it(self) -> None:
        strong = USUAL.knowing({"wheat-flour": Strength(0.08, 0.03, 0.2)}, {})
        usual, here = (check(WHITE, kitchen).final.thickness for kitchen in (USUAL, strong))
        self.assertGreater(here.viscosity_pa_s, 1.25 * usual.viscosity_pa_s)
        self.assertLess(here.edges, usual.edges)
        corn = sauce(add("milk-whole", 1, "L"), simmer(5))
        self.assertEqual(check(corn, strong).final.thickness, check(corn, USUAL).final.thickness)

    def test_a_quick_pan_leaves_less(self) -> None:
        quick = USUAL.knowing({}, {("saucepan 20", "simmer"): Pace(0.4, 0.08)})
        usual, here = (check(WHITE, kitchen).final.pot.total_g for kitchen in (USUAL, quick))
        lost = 1170.0 - usual
        self.assertAlmostEqual((1170.0 - here) / lost, math.exp(0.4), delta=0.12)
        lively = sauce(roux(66, 66), add("milk-whole", 1, "L"), simmer(20, "lively"))
        self.assertEqual(
            check(lively, quick).final.pot.total_g, check(lively, USUAL).final.pot.total_g
        )

    def test_it_is_surer(self) -> None:
        known = USUAL.knowing(
            {"wheat-flour": Strength(0.0, 0.03, 0.2)}, {("saucepan 20", "simmer"): Pace(0.0, 0.05)}
        )
        usual, here = how_sure(WHITE, USUAL, mends=False), how_sure(WHITE, known, mends=False)
        assert usual and here
        self.assertGreater(here.chance, usual.chance + 0.08)

    def test_nothing_is_gone_by_silently(self) -> None:
        self.assertEqual(check(WHITE, USUAL).assumed, ())
        known = USUAL.knowing(
            {"wheat-flour": Strength(-0.06, 0.02, 0.2)}, {("saucepan 20", "simmer"): Pace(0.2, 0.1)}
        )
        self.assertEqual(
            [str(one) for one in check(WHITE, known).assumed],
            [
                "wheat flour thickens 6 % less than its row, by your own batches",
                "saucepan 20 boils off 22 % more than usual at a simmer, by your own batches",
            ],
        )

    def test_a_pot_that_is_watched_is_known_better(self) -> None:
        cream = sauce(add("cream-35", 500), reduce_to(share=0.6))
        known = USUAL.knowing({}, {("saucepan 20", "rolling"): Pace(0.0, 0.05)})
        wide = []
        for kitchen in (USUAL, known):
            watched = follow(cream, kitchen, 1, {1: StepAsDone(minutes=2.0)}).watched
            assert watched is not None
            assert watched.minutes_left is not None
            wide.append(watched.minutes_left.high / watched.minutes_left.low)
        self.assertLess(wide[1], 0.8 * wide[0])
        strong = USUAL.knowing({"wheat-flour": Strength(0.0, 0.02, 0.15)}, {})
        edges = []
        for kitchen in (USUAL, strong):
            state = follow(WHITE, kitchen, 2, {2: StepAsDone(minutes=4.0)}).states[-1]
            edges.append(state.viscosity_high_pa_s / state.viscosity_low_pa_s)
        self.assertLess(edges[1], 0.7 * edges[0])

    def test_a_flour_the_larder_has_no_more_is_nothing(self) -> None:
        self.assertEqual(USUAL.knowing({"gone": Strength(0.1, 0.1, 0.1)}, {}).strengths, {})


class Again(unittest.TestCase):
    def test_as_it_went(self) -> None:
        batch = finished(WHITE)
        longer = Finished(WHITE, {2: batch.minutes[2] + 6.0}, batch.weighed_g, 1.5)
        made = as_it_went(longer, "binding")
        self.assertAlmostEqual(made.steps[2].minutes, 26.0, delta=0.2)
        self.assertEqual(made.target.grade, "binding")
        self.assertEqual(made.pan.name, "saucepan 20")
        self.assertEqual(read_sheet(write_sheet(made)), made)

    def test_made_again_it_is_as_thick_as_it_was_judged_and_keeps_its_use(self) -> None:
        """The spoon wins over the sum, by what thickens it alone: amounts, salt and fat stay what went in."""
        served = {"grade": "nappe", "serves": {"use": "nap", "count": 12}}
        cheese = [
            roux(60, 60),
            add("milk-whole", 1, "L"),
            simmer(15),
            melt("cheese-hard-alpine", 120),
        ]
        puree = [add("stock-light", 300), add("onion", 300), {"op": "blend", "ingredient": "onion"}]
        for steps in ([*WHITE.steps], cheese, [*puree, roux(20, 20), simmer(5)]):
            case = sauce(*steps, target=served)
            batch = finished(case)
            for judged in (0.22, 0.69, 1.6):
                with self.subTest(judged=judged, steps=len(steps)):
                    went = Finished(case, batch.minutes, batch.weighed_g, judged)
                    made = as_it_went(went, None)
                    final, was = check(made).final, check(as_it_went(batch, None)).final
                    self.assertAlmostEqual(final.thickness.viscosity_pa_s / judged, 1.0, delta=0.02)
                    self.assertEqual(made.target.serves, case.target.serves)
                    for name in ("fat", "salt", "flour", "water"):
                        ours, theirs = (getattr(one.pot.balance, name) for one in (final, was))
                        self.assertAlmostEqual(ours, theirs, places=6)
                    self.assertEqual(read_sheet(write_sheet(made)), made)

    def test_what_was_judged_before_is_not_what_is_learned_by(self) -> None:
        weak = finished(WHITE, strength=-0.15)
        again = as_it_went(weak, None)
        self.assertLess(again.strength, 0.9)
        once = next(one.seen.log for one in observed(weak) if one.kind == "strength")
        twice = Finished(again, weak.minutes, weak.weighed_g, weak.reached_pa_s)
        self.assertAlmostEqual(
            next(one.seen.log for one in observed(twice) if one.kind == "strength"),
            once,
            delta=0.03,
        )

    def test_a_reduction_stops_at_the_weight_it_came_to(self) -> None:
        cream = sauce(add("cream-35", 500), reduce_to(share=0.7), melt("parmesan-style-hard", 40))
        batch = finished(cream)
        made = as_it_went(Finished(cream, batch.minutes, batch.weighed_g - 60.0), None)
        self.assertAlmostEqual(check(made).final.pot.total_g, batch.weighed_g - 60.0, delta=3.0)


class Notes(unittest.TestCase):
    def test_what_is_said_again(self) -> None:
        notes = [
            "Too salty, and a bit lumpy",
            "lumps again; sieved",
            "",
            "good",
            "too salty for the hake",
            "no lumps this time",
            "less salt",
        ]
        told = {one.theme: (one.times, one.of, one.notes) for one in said_again(notes)}
        self.assertEqual(told, {"too-salty": (3, 6, (0, 4, 6)), "lumps": (2, 6, (0, 1))})
        self.assertEqual(str(said_again(notes)[0].words), "too salty, in 3 of 6 notes")
        self.assertEqual(said_again(["salty"]), ())
