"""A pot that held more, or less, than its sheet says from before it boiled: what that is, and what follows from it."""

import math
import unittest
from typing import Any

from saucier.check import check
from saucier.kitchen import Kitchen
from saucier.rescue import remedies
from saucier.steps import Add
from saucier.testing import add, reduce_to, roux, sheet, simmer, trial_count
from saucier.watch import Seen, StepAsDone, as_seen, case_found, following
from saucier.watch.following import Following
from tools.followed import of_sheet

PAN = {"shape": "straight", "diameter_cm": 20, "depth_cm": 10, "tare_g": 1200}
KITCHEN = Kitchen()


def by_hand(ingredient: str, grams: float, spread_pct: float) -> dict[str, Any]:
    measure = {"name": "jug", "count": 1, "spread_pct": spread_pct}
    amount = {"value": grams, "unit": "g", "measure": measure}
    return {"op": "add", "ingredient": ingredient, "amount": amount}


def scale(grams: float, rate: float, until: float, since: float = 0.0) -> list[Seen]:
    """A scale under a pot of ``grams`` that loses ``rate`` g a minute from ``since`` on."""
    return [
        Seen(at / 10.0, "scale", 1200.0 + grams - rate * max(0.0, at / 10.0 - since))
        for at in range(round(10 * until) + 1)
    ]


class LessCream(unittest.TestCase):
    """Half a litre of cream by eye, of which 350 g went in."""

    SHEET = sheet(by_hand("cream-35", 500, 40), reduce_to(share=0.6), pan=PAN)

    def followed(self, minutes: float) -> Following:
        boils = check(self.SHEET).steps[1].pot.minutes - 8.0
        seen = scale(350.0, 20.0, minutes, max(0.0, min(boils, 2.0)))
        return following(self.SHEET, KITCHEN, 1, {1: StepAsDone(seen, minutes)})

    def test_it_is_no_cream_that_has_boiled_down(self) -> None:
        watched = self.followed(1.0).told.watched
        assert watched is not None
        fresh = check(self.SHEET).steps[0].figures.viscosity_pa_s
        assert fresh is not None
        self.assertLess(watched.viscosity_pa_s.value, 1.5 * fresh)
        self.assertNotIn("oily", " ".join(note.code for note in watched.notes))
        assert watched.goal is not None
        self.assertAlmostEqual(watched.goal.mass_g, 0.6 * 350.0, delta=12.0)

    def test_made_again_it_is_made_of_what_went_in(self) -> None:
        made = as_seen(self.followed(9.0).sheet, self.followed(9.0), KITCHEN)
        [cream] = [step for step in made.steps if isinstance(step, Add)]
        self.assertAlmostEqual(cream.amount.base, 350.0, delta=15.0)
        self.assertIsNone(cream.amount.measure)  # it is known by weight now
        self.assertFalse(check(made, KITCHEN).final.pot.split)


class MoreMilk(unittest.TestCase):
    SHEET = sheet(roux(60, 60), by_hand("milk-whole", 1000, 20), simmer(8), pan=PAN)

    def followed(self, weighed: float) -> Following:
        seen = [Seen(0.1, "scale", 1200.0 + weighed, by_hand=True)]
        return following(self.SHEET, KITCHEN, 2, {2: StepAsDone(seen, 0.2)})

    def test_more_milk_is_thinner_and_less_is_thicker_at_the_weight_it_has(self) -> None:
        planned = check(self.SHEET).steps[1]
        for weighed, sign in ((planned.pot.total_g + 180.0, -1), (planned.pot.total_g - 180.0, 1)):
            watched = self.followed(weighed).told.watched
            assert watched is not None
            whole = check(
                sheet(
                    roux(60, 60),
                    add("milk-whole", 1000 + weighed - planned.pot.total_g),
                    simmer(8),
                    pan=PAN,
                )
            )
            true = whole.steps[1].figures.viscosity_pa_s
            assert true is not None
            believed = watched.viscosity_pa_s.value
            with self.subTest(weighed=weighed):
                self.assertLess(abs(math.log(believed / true)), 0.25)
                assert planned.figures.viscosity_pa_s is not None
                self.assertGreater(sign * math.log(believed / planned.figures.viscosity_pa_s), 0.2)

    def test_what_mends_it_is_reckoned_from_what_went_in(self) -> None:
        planned = check(self.SHEET).steps[1].pot.total_g
        followed = self.followed(planned + 180.0)
        case = case_found(followed, KITCHEN)
        self.assertAlmostEqual(case.pot.total_g, followed.now.total_g, delta=3.0)
        self.assertAlmostEqual(case.pot.balance.flour, 60.0, delta=2.0)
        ways = [way for way in remedies(case, "too-thin") if way.refused is None]
        self.assertTrue(ways)

    def test_one_weighing_by_hand_wins_over_what_can_have_gone_in(self) -> None:
        watched = self.followed(2400.0).told.watched
        assert watched is not None
        self.assertAlmostEqual(watched.mass_g.value, 2400.0, delta=60.0)
        self.assertGreaterEqual(watched.mass_g.high, 2400.0)


class LeftAtItsStop(unittest.TestCase):
    """Who ends a reduction says that it is where it stops."""

    SHEET = sheet(
        add("cream-35", 500), reduce_to(share=0.6), add("stock-light", 200), simmer(5), pan=PAN
    )

    def before_the_stock(self, seen: list[Seen], minutes: float) -> Following:
        done = {0: StepAsDone(), 1: StepAsDone(seen, minutes), 2: StepAsDone()}
        return following(self.SHEET, KITCHEN, 3, {**done, 3: StepAsDone(minutes=0.0)})

    def test_a_slow_pot_looked_at_early_is_believed_to_be_where_it_was_left(self) -> None:
        seen = [Seen(2.0, "boils"), Seen(6.0, "level", 15.0)]
        followed = self.before_the_stock(seen, 30.0)
        self.assertAlmostEqual(followed.checked.steps[1].pot.total_g, 300.0, delta=45.0)

    def test_a_scale_knows_better(self) -> None:
        followed = self.before_the_stock(scale(500.0, 10.0, 12.0, 2.0), 12.0)
        self.assertAlmostEqual(followed.checked.steps[1].pot.total_g, 400.0, delta=15.0)

    def test_nobody_looked_and_it_is_open_as_far_as_an_eye_is(self) -> None:
        followed = self.before_the_stock([], 10.0)
        watched = followed.told.watched
        assert watched is not None
        self.assertAlmostEqual(watched.mass_g.value, 500.0, delta=8.0)
        self.assertGreater(watched.mass_g.high - watched.mass_g.low, 100.0)


class ByEye(unittest.TestCase):
    """``make followed``: sheets with amounts by eye, cooked by other physics."""

    def test_what_is_believed_covers_what_is_true(self) -> None:
        sheets = [made for seed in range(trial_count(300, 12)) if (made := of_sheet(seed))]
        believed = [belief for made in sheets for belief in made.believed]
        covers = sum(belief.covers for belief in believed) / len(believed)
        # What is believed of one sheet hangs together: its sheets count, not its moments.
        self.assertGreaterEqual(covers, 0.9 - 3.0 * math.sqrt(0.9 * 0.1 / len(sheets)))
        for belief in believed:
            if belief.boil == 0 and belief.share == 0.0:
                width_g = 0.5 * (belief.high - belief.low)
                self.assertLessEqual(width_g, 1.02 * belief.doubt_g)


if __name__ == "__main__":
    unittest.main()
