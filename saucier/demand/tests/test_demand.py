import unittest

from saucier.cards import cards
from saucier.check import check
from saucier.demand import USES, need_for, with_serves
from saucier.errors import BadInput
from saucier.sheet import Serves, read_sheet
from saucier.testing import CHEESE_SAUCE, CREAM_REDUCTION
from saucier.thickness import grade_named


class Need(unittest.TestCase):
    def test_arithmetic_on_show_adds_up(self) -> None:
        need = need_for(Serves(use="nap", count=14, margin_pct=10))
        self.assertAlmostEqual(need.volume_ml, 14 * 55 * 1.1 + 30)
        self.assertIn("14 portions · 55 mL = 770 mL", [str(line) for line in need.lines])

    def test_uses_are_whole(self) -> None:
        for use in USES.values():
            self.assertLessEqual(use.low_ml, use.per_ml)
            self.assertGreaterEqual(use.high_ml, use.per_ml)
            self.assertEqual(grade_named(use.grade).key, use.grade)

    def test_a_new_use_brings_its_grade_a_new_count_does_not(self) -> None:
        case = read_sheet(CHEESE_SAUCE)
        toast, _ = with_serves(case, Serves(use="toast", count=20))
        self.assertEqual(toast.target.grade, "spreading")
        self.assertAlmostEqual(toast.target.volume.base, 1080)
        self.assertEqual(toast.steps[-1].amount.to_salt_pct, toast.target.salt_pct)
        hob, _ = with_serves(case, Serves(use="nap", count=20))
        self.assertEqual(hob.steps[-1].amount.to_salt_pct, 0.8)
        kept = toast.model_copy(
            update={"target": toast.target.model_copy(update={"grade": "nappe"})}
        )
        more, _ = with_serves(kept, Serves(use="toast", count=40))
        self.assertEqual(more.target.grade, "nappe")

    def test_unknown_use(self) -> None:
        with self.assertRaises(BadInput) as caught:
            with_serves(read_sheet(CHEESE_SAUCE), Serves(use="napp", count=1))
        self.assertEqual(caught.exception.problems[0].field, "target.serves.use")


class Cards(unittest.TestCase):
    def test_each_step_has_words_amounts_and_timer(self) -> None:
        found = cards(check(read_sheet(CHEESE_SAUCE)))
        self.assertEqual(len(found), 5)
        self.assertTrue(all(card.title and card.do and card.cue for card in found))
        self.assertEqual([w.grams for w in found[0].weighed], [80, 80])
        self.assertEqual(found[0].timer_s, 120)
        self.assertIsNone(found[1].timer_s)
        self.assertIn("small splashes", str(found[1].do))

    def test_scale_target_counts_the_tare(self) -> None:
        with_pan = read_sheet({**CREAM_REDUCTION, "pan": {"diameter_cm": 24, "tare_g": 1200}})
        checked = check(with_pan)
        card = cards(checked)[-1]
        self.assertAlmostEqual(card.scale_g, 1200 + checked.final.pot.balance.mass_g)
        self.assertGreater(card.timer_s, 60)
