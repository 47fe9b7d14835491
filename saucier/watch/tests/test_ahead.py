"""What is told beforehand is what would be told then: by the minute, and after one more look of any kind."""

import unittest

from saucier.check import check
from saucier.testing import CREAM_REDUCTION, add, reduce_to, sheet, trial_of
from saucier.watch import Seen, ahead, watch
from saucier.watch.watching import Watching

CREAM = sheet(*CREAM_REDUCTION["steps"])
WINE = sheet(add("wine-white-dry", 200), add("cream-35", 500), reduce_to(share=0.5))


class Beforehand(unittest.TestCase):
    def cases(self):
        for made in (CREAM, WINE):
            checked = check(made)
            number = next(n for n, step in enumerate(made.steps) if step.op == "reduce")
            for now, seen in (
                (0.3, []),
                (2.0, []),
                (4.0, [Seen(3.0, "gone", 0.25)]),
                (5.0, [Seen(1.5, "boils"), Seen(4.0, "level", 18.0)]),
            ):
                yield checked, number, now, seen

    def test_by_the_minute_it_is_what_would_be_told_then(self) -> None:
        for checked, number, now, seen in self.cases():
            told = ahead(Watching.of(checked, number, seen, now))
            for moment in told.by_itself:
                then = watch(checked, number, seen, now + moment.in_min)
                self.assertAlmostEqual(moment.mass_g.value / then.mass_g.value, 1.0, delta=0.01)
                left = then.minutes_left
                self.assertAlmostEqual(moment.minutes_left.value, left.value, delta=0.3)

    def test_after_a_look_it_is_what_would_be_told_of_it(self) -> None:
        looked = set()
        for checked, number, now, seen in trial_of(self.cases(), 2):
            told = ahead(Watching.of(checked, number, seen, now))
            for look in told.looks:
                looked.add(look.what)
                for moment in look.moments:
                    at = now + moment.in_min
                    also = Seen(at, look.what, look.value, by_hand=True)
                    then = watch(checked, number, [*seen, also], at)
                    with self.subTest(what=look.what, value=look.value, at=at):
                        here, there = moment.minutes_left, then.minutes_left
                        self.assertEqual(here is None, there is None)
                        if here and there:
                            self.assertAlmostEqual(here.value, there.value, delta=0.5)
        self.assertLessEqual({"boils", "gone", "level", "spoon"}, looked)

    def test_it_leaves_what_is_believed_as_it_is(self) -> None:
        watching = Watching.of(check(CREAM), 1, [Seen(2.0, "gone", 0.25)], 3.0)
        before = watching.told()
        ahead(watching)
        self.assertEqual(watching.told(), before)
