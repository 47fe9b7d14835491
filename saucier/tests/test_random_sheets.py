"""Many random sheets: nothing but a named bad input is ever raised, and no solve leads through an
oily or split pot."""

import collections
import random
import unittest

from saucier.cards import cards
from saucier.check import check
from saucier.errors import BadInput
from saucier.solve import Goal, Unreachable, rounded_for_kitchen, solve
from saucier.testing import trial_count
from saucier.tests.random_sheets import a_sauce, any_sheet
from saucier.thickness import GRADES, TURNED
from saucier.units import Amount
from saucier.words import plain

PLAYED, SOLVED = trial_count(5000, 500), trial_count(1000, 80)


class Played(unittest.TestCase):
    def test_nothing_but_a_named_bad_input_is_raised(self) -> None:
        dice = random.Random(20261125)
        played = 0
        for _ in range(PLAYED):
            case = any_sheet(dice)
            try:
                checked = check(case)
            except BadInput as bad:
                for problem in bad.problems:
                    self.assertRegex(problem.field, r"^steps\[\d+\]")
                    self.assertTrue(problem.message and problem.remedy)
                continue
            played += 1
            told = cards(checked)
            self.assertEqual(len(told), len(checked.steps))
            self.assertTrue(all(str(c.title) and str(c.do) and str(c.cue) for c in told))
            self.assertTrue(plain(checked.figures))
            for state in checked.steps:
                thickness = state.thickness
                self.assertNotEqual(thickness.viscosity_pa_s is None, thickness.reason is None)
                if thickness.viscosity_pa_s is not None:
                    self.assertLess(thickness.viscosity_pa_s, 1e4)
                    self.assertLessEqual(thickness.low_pa_s, thickness.viscosity_pa_s)
                    self.assertGreaterEqual(thickness.high_pa_s, thickness.viscosity_pa_s)
                held = state.pot.balance
                parts = (held.water, held.fat, held.flour, held.alcohol, held.salt, held.loose)
                self.assertGreaterEqual(min(*parts, held.body, held.gel, held.doubt), -1e-6)
                if state.pot.split:
                    self.assertIsNone(thickness.grade)
        self.assertGreater(played, PLAYED / 2)

    def test_what_has_split_stays_split_until_it_is_mended(self) -> None:
        dice, split = random.Random(7), 0
        for _ in range(800):
            try:
                checked = check(a_sauce(dice))
            except BadInput:
                continue
            was = False
            for state in checked.steps:
                self.assertFalse(was and not state.pot.split)
                was = state.pot.split
            split += was
        self.assertGreater(split, 20)


class Solved(unittest.TestCase):
    def test_no_solve_leads_through_an_oily_or_split_pot(self) -> None:
        """Grade, yield and rounding hold for each as well; what is refused says how far it goes."""
        dice, said = random.Random(20261125), collections.Counter[str]()
        while said["solved"] < SOLVED:
            case, grade = a_sauce(dice), dice.choice(GRADES) if dice.random() < 0.8 else None
            volume = Amount(dice.uniform(80, 4000), "mL")
            goal = Goal(grade.target if grade else None, volume)
            try:
                solved = solve(case, goal).sheet
            except Unreachable as far:
                said["refused, with the nearest" if far.nearest else "refused"] += 1
                if far.nearest:
                    states = check(far.nearest).steps
                    self.assertFalse({s.emulsion for s in states} & TURNED)
                continue
            except BadInput as bad:
                if bad.problems[0].field.startswith("steps"):
                    # As it is written it cannot be played, nor any larger.
                    self.assertRaises(BadInput, check, case)
                    continue
                said["refused"] += 1
                self.assertIn(bad.problems[0].field, ("grade", "volume"))
                continue
            said["solved"] += 1
            exact = check(solved)
            rounded = check(rounded_for_kitchen(solved, goal).sheet)
            for checked in (exact, rounded):
                self.assertFalse({state.emulsion for state in checked.steps} & TURNED)
                if grade:
                    self.assertEqual(checked.final.thickness.grade, grade.key)
            self.assertAlmostEqual(exact.final.pot.yield_ml / volume.base, 1, delta=0.005)
            self.assertAlmostEqual(rounded.final.pot.yield_ml / volume.base, 1, delta=0.025)
        print(f"\n{dict(said)}")
        self.assertGreater(said["refused, with the nearest"], 2 * said["refused"])
