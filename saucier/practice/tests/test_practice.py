"""Questions of every kind, of sauces of every family: the right answer is among them, and earns all."""

import unittest
from pathlib import Path
from random import Random

from saucier.errors import BadInput
from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.practice import KINDS, Asked, Kind, asked, marked, next_kind
from saucier.sheet import read_sheet
from saucier.thickness import grade_named

DEMO = Path(__file__).parents[3] / "demo" / "sauces"
SHEETS = [read_sheet(path.read_bytes()) for path in sorted(DEMO.glob("*.json"))]
KITCHEN = Kitchen(
    pans=(
        Pan("saucepan 20", "straight", 20, 11, 1240),
        Pan("sauteuse 24", "sloped", 24, 8, 1180),
        Pan("stewpan 28", "straight", 28, 16, 2650),
    )
)


def of(kind: Kind, seed: int) -> Asked:
    return asked(kind, SHEETS, KITCHEN, Random(seed))


class Practice(unittest.TestCase):
    def test_the_right_answer_is_offered_and_earns_all(self) -> None:
        for kind in KINDS:
            for seed in range(12):
                question, answer = of(kind, seed)
                self.assertEqual(question.kind, kind)
                self.assertTrue(str(question.ask) and str(answer.why))
                if question.falls:
                    continue
                keys = [choice.key for choice in question.choices]
                self.assertEqual(len(set(keys)), len(keys))
                self.assertGreaterEqual(len(keys), 3, (kind, seed))
                self.assertLessEqual(set(answer.right), set(keys))
                self.assertEqual(marked(question, answer, answer.right).score, 1.0)
                words = [str(choice.words) for choice in question.choices]
                self.assertEqual(len(set(words)), len(words), (kind, seed))

    def test_a_wrong_answer_earns_nothing_and_one_beside_it_a_part(self) -> None:
        question, answer = of("spoon", 4)
        scores = {
            choice.key: marked(question, answer, (choice.key,)).score for choice in question.choices
        }
        self.assertEqual(scores[answer.right[0]], 1.0)
        self.assertEqual(sum(score == 0.4 for score in scores.values()), len(answer.close))
        self.assertIn(0.0, scores.values())
        question, answer = of("flour", 4)
        wrong = next(c.key for c in question.choices if c.key != answer.right[0])
        self.assertEqual(marked(question, answer, (wrong,)).score, 0.0)

    def test_a_pot_on_its_way_to_the_boil_looks_thinner_than_it_becomes(self) -> None:
        for seed in range(8):
            question, answer = of("boils", seed)
            assert question.spoon is not None
            self.assertLess(question.spoon.viscosity_pa_s, grade_named(answer.right[0]).low)

    def test_the_order_is_marked_by_what_must_come_before_what(self) -> None:
        question, answer = of("order", 1)
        self.assertNotEqual(tuple(c.key for c in question.choices), answer.right)
        first, second, third, *rest = answer.right
        # Bowl or pot first: both are right.
        self.assertEqual(marked(question, answer, (second, first, third, *rest)).score, 1.0)
        almost = marked(question, answer, (first, third, second, *rest)).score
        self.assertTrue(0.0 < almost < 1.0)
        self.assertEqual(marked(question, answer, tuple(reversed(answer.right))).score, 0.0)

    def test_a_pot_stopped_in_time(self) -> None:
        for seed in range(10):
            question, answer = of("stop", seed)
            levels = [moment.level_mm for moment in question.falls]
            self.assertEqual(levels, sorted(levels, reverse=True))
            times = [moment.at_s for moment in question.falls]
            self.assertEqual(times, sorted(times))
            best = max(times, key=lambda at: marked(question, answer, (str(at),)).score)
            self.assertGreater(marked(question, answer, (str(best),)).score, 0.85)
            early, late = (marked(question, answer, (str(at),)) for at in (times[0], times[-1]))
            self.assertGreater(early.off_pct or 0.0, 3.0)
            self.assertLess(late.off_pct or 0.0, -3.0)
            self.assertLess(max(early.score, late.score), 0.9)
            self.assertAlmostEqual(best, 14.0, delta=1.0)

    def test_a_sloped_pan_holds_less_than_its_level_says(self) -> None:
        for seed in range(40):
            question, answer = of("level", seed)
            assert question.pot is not None
            if question.pot.pan.name == "sauteuse 24":
                self.assertIn("narrower below", str(answer.why))
                return
        self.fail("no sloped pan was asked about")

    def test_nonsense_is_refused(self) -> None:
        for kind in KINDS:
            question, answer = of(kind, 2)
            for given in ((), ("no such thing",), ("nan",), ("1", "1")):
                with self.assertRaises(BadInput) as bad:
                    marked(question, answer, given)
                self.assertEqual(bad.exception.problems[0].field, "given")

    def test_the_same_dice_ask_the_same(self) -> None:
        for kind in KINDS:
            self.assertEqual(of(kind, 9), of(kind, 9))

    def test_an_empty_kitchen_is_asked_about_the_starts(self) -> None:
        for kind in KINDS:
            self.assertEqual(asked(kind, [], Kitchen(), Random(1)).question.kind, kind)

    def test_what_was_missed_comes_again(self) -> None:
        good = {kind: [1.0] * 6 for kind in KINDS}
        bad = {**good, "stop": [1.0, 1.0, 0.0, 0.0, 0.1, 0.0]}
        drawn = [next_kind(bad, Random(seed)) for seed in range(300)]
        self.assertGreater(drawn.count("stop"), 110)
        fresh = {kind: [1.0] * 6 for kind in KINDS if kind != "order"}
        drawn = [next_kind(fresh, Random(seed)) for seed in range(300)]
        self.assertGreater(drawn.count("order"), 130)
