"""Whatever a fix puts in, the sauce ends in the grade it had, or the fix is refused."""

import unittest

from saucier.kitchen import Kitchen
from saucier.rescue import SIGNS, case_at, remedies
from saucier.rescue.signs import OF_THICKNESS
from saucier.starts import STARTS
from saucier.testing import add, grams, roux, sheet, simmer, trial_count
from saucier.thickness import LIQUID

KITCHEN = Kitchen()


class InItsGrade(unittest.TestCase):
    def test_every_fix_of_every_start(self) -> None:
        tried = 0
        for start in STARTS[:: 30 // trial_count(30, 5)]:
            case = case_at(start, len(start.steps) - 1, KITCHEN)
            had = case.now.final.thickness.grade
            for sign in SIGNS:
                if sign.key in OF_THICKNESS or had in (None, LIQUID):
                    continue
                for fix in remedies(case, sign.key):
                    if fix.after is None:
                        continue
                    tried += 1
                    with self.subTest(start=start.name, sign=sign.key, fix=fix.way):
                        self.assertEqual(fix.after.thickness.grade, had)
        self.assertGreater(tried, 80)

    def test_doses_go_by_the_sauce_not_by_what_sits_in_it(self) -> None:
        prawns = {"op": "return", "ingredient": "prawns-peeled", "amount": grams(800)}
        base = (roux(30, 30), add("milk-whole", 500), simmer(5))
        for sign in ("flat", "too-sweet", "soft-cream-split", "green-dull"):
            doses = []
            for steps in (base, (*base, {**prawns, "how": "cooked", "juice_pct": 0})):
                case = case_at(sheet(*steps), len(steps) - 1, KITCHEN)
                fix = next(f for f in remedies(case, sign) if f.steps and f.way != "salt-up")
                doses.append(KITCHEN.larder[fix.steps[0].ingredient].grams(fix.steps[0].amount))
            with self.subTest(sign):
                self.assertAlmostEqual(doses[0], doses[1], delta=0.1 * doses[0])

    def test_a_fix_that_binds_again_says_so(self) -> None:
        case = case_at(sheet(roux(60, 60), add("milk-whole", 1, "L"), simmer(5)), 2, KITCHEN)
        thinned = next(f for f in remedies(case, "too-hot") if f.way == "calm-milk-whole")
        self.assertIn("then-bound", [sentence.code for sentence in thinned.do])
        self.assertIn("roux", [step.op for step in thinned.steps])


if __name__ == "__main__":
    unittest.main()
