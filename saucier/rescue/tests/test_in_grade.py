"""Whatever a fix puts in, the sauce ends in the grade it had, or the fix is refused."""

import unittest

from saucier.kitchen import Kitchen
from saucier.rescue import SIGNS, case_at, remedies
from saucier.rescue.signs import OF_THICKNESS
from saucier.rescue.thickness import warming
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


class AsSaid(unittest.TestCase):
    """What the cook says is answered, the sum beside it where it differs."""

    def test_too_thick_too_thin_and_too_salty_are_always_answered(self) -> None:
        for start in STARTS[::3]:
            case = case_at(start, len(start.steps) - 1, KITCHEN)
            had = case.now.final.thickness.grade
            if had in (None, LIQUID) or start.target.grade is None or warming(case):
                continue  # one that is only cold is warmed first
            for sign in ("too-thick", "too-thin", "too-salty"):
                fixes = [fix for fix in remedies(case, sign) if fix.after is not None]
                with self.subTest(start=start.name, sign=sign):
                    self.assertTrue(fixes)
                    said = {note.code for fix in fixes for note in fix.notes}
                    self.assertTrue(said & {"as-you-say", "salt-as-you-say"}, said)

    def test_where_the_sum_agrees_nothing_is_said_beside_it(self) -> None:
        thick = sheet(roux(90, 90), add("milk-whole", 1, "L"), simmer(5), target={"grade": "nappe"})
        fixes = remedies(case_at(thick, 2, KITCHEN), "too-thick")
        codes = {note.code for fix in fixes for note in fix.notes}
        self.assertNotIn("as-you-say", codes)
        unsalted = sheet(roux(60, 60), add("water", 1, "L"), simmer(5))
        [refused] = remedies(case_at(unsalted, 2, KITCHEN), "too-salty")
        self.assertIn("hardly any", str(refused.refused))


if __name__ == "__main__":
    unittest.main()
