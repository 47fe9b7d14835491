"""What records come to: shrunk while they are few, near the truth when they are many, whatever is wrong
with some of them."""

import math
import random
import unittest

from saucier.learn import Observed, estimate

PRIOR = 0.35


def records(true: float, many: int, seed: int, spread: float = 0.15) -> list[Observed]:
    dice = random.Random(seed)
    return [Observed(true + dice.gauss(0.0, spread), spread) for _ in range(many)]


class Estimates(unittest.TestCase):
    def test_nothing_is_the_usual(self) -> None:
        found = estimate([], PRIOR)
        self.assertEqual((found.log, found.spread, found.n, found.odd), (0.0, PRIOR, 0, ()))
        self.assertEqual(found.factor, 1.0)

    def test_few_records_stay_near_the_usual(self) -> None:
        one = estimate([Observed(0.5, 0.3)], PRIOR)
        self.assertGreater(one.log, 0.1)
        self.assertLess(one.log, 0.4)
        self.assertLess(one.spread, PRIOR)

    def test_it_converges_and_grows_surer(self) -> None:
        for true in (-0.4, 0.0, 0.5):
            spreads = []
            for many in (2, 6, 15, 40):
                found = estimate(records(true, many, 7), PRIOR)
                spreads.append(found.spread)
                self.assertLess(abs(found.log - true), 3.0 * found.spread, (true, many))
            self.assertEqual(spreads, sorted(spreads, reverse=True))

    def test_it_covers_as_often_as_it_says(self) -> None:
        held, dice = 0, random.Random(3)
        for seed in range(200):
            true = dice.gauss(0.0, PRIOR)
            low, high = estimate(records(true, dice.choice((3, 8, 20)), seed), PRIOR).within()
            held += low <= math.exp(true) <= high
        self.assertGreater(held, 170)  # told: nine times in ten

    def test_what_does_not_fit_counts_little_and_is_told(self) -> None:
        seen = records(0.2, 15, 11, 0.1)
        clean = estimate(seen, PRIOR)
        for at in (4, 9):
            seen[at] = Observed(1.8, 0.1)
        found = estimate(seen, PRIOR)
        self.assertEqual(set(found.odd), {4, 9})
        self.assertLess(abs(found.log - clean.log), 0.06)

    def test_another_flour_from_one_day_on(self) -> None:
        seen = [*records(0.3, 14, 1, 0.1), *records(-0.3, 8, 2, 0.1)]
        found = estimate(seen, PRIOR)
        self.assertIsNotNone(found.changed_at)
        self.assertIn(found.changed_at, range(12, 17))
        self.assertLess(abs(found.log + 0.3), 0.1)
        self.assertIsNone(estimate(records(0.3, 22, 1, 0.1), PRIOR).changed_at)

    def test_a_slow_drift_is_followed(self) -> None:
        dice = random.Random(5)
        seen = [Observed(0.03 * n + dice.gauss(0.0, 0.1), 0.1, n) for n in range(30)]
        found = estimate(seen, PRIOR)
        self.assertLess(abs(found.log - 0.87), 2.0 * found.spread)
        self.assertGreater(found.log, 0.7)
        # It drifts on, used or not; but never further from the usual than kitchens do.
        later = [estimate(seen, PRIOR, 29 + days) for days in (0, 10, 100, 3000)]
        self.assertEqual([one.spread for one in later], sorted(one.spread for one in later))
        self.assertGreater(later[2].spread, 1.5 * later[0].spread)
        self.assertLess(later[3].spread, 1.05 * PRIOR)
        self.assertLess(later[3].log, 0.2)

    def test_drift_and_records_of_something_else_are_covered(self) -> None:
        """A thing that wanders, of which a quarter of the records is of another."""
        held, dice = 0, random.Random(8)
        for _ in range(200):
            true, seen = dice.gauss(0.0, PRIOR), []
            for day in range(0, 60, 4):
                other = dice.gauss(0.0, PRIOR) if dice.random() < 0.25 else true
                seen.append(Observed(dice.gauss(other, 0.12), 0.12, day))
                true += 4 * 0.006
            low, high = estimate(seen, PRIOR, 60).within()
            held += low <= math.exp(true) <= high
        self.assertGreater(held, 165)

    def test_only_the_newest_count(self) -> None:
        old = records(0.8, 60, 1, 0.05)
        new = records(0.0, 40, 2, 0.05)
        found = estimate([*old, *new], PRIOR)
        self.assertEqual(found.n, 100)
        self.assertLess(abs(found.log), 0.05)
        self.assertTrue(all(at >= 60 for at in found.odd))

    def test_records_that_scatter_wider_than_they_should_leave_more_open(self) -> None:
        dice = random.Random(2)
        calm = [Observed(dice.gauss(0.0, 0.1), 0.1) for _ in range(20)]
        wild = [Observed(dice.gauss(0.0, 0.25), 0.1) for _ in range(20)]
        one, other = estimate(calm, PRIOR), estimate(wild, PRIOR)
        self.assertGreater(other.scale, one.scale)
        self.assertGreater(other.spread, 1.3 * one.spread)
