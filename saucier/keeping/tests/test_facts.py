"""What readings of a cooling prove, and only that."""

import random
import unittest

from saucier.errors import BadInput
from saucier.keeping.case import judged, read_case
from saucier.keeping.facts import CoolingFacts, cooling_facts
from saucier.keeping.rules import shipped_rules
from saucier.keeping.tests.trays import Tray, tray
from saucier.testing import trial_count

ONE_STEP = shipped_rules()["one-step-10"]
TWO_STEPS = shipped_rules()["two-steps-57"]


def facts(
    *readings: tuple[float, float], off_fire: float | None = 0.0, now: float = 240.0
) -> CoolingFacts:
    return cooling_facts(ONE_STEP, readings, off_fire, now)


class TheReferenceCases(unittest.TestCase):
    """63 to 10 °C in 120 min; end of cooking at 0, now at 240 (docs/model.md 6)."""

    def test_each_is_recorded_as_it_should_be(self) -> None:
        for readings, off_fire, verdict, at_least, at_most in (
            (((30, 62), (60, 60), (120, 55), (180, 48), (235, 44)), 0.0, "missed", 205, None),
            (((1, 82),), 0.0, "not-shown", None, None),
            (((5, 66), (12, 61), (100, 9.5), (115, 8), (200, 14)), 0.0, "met", 0, 95),
            (((60, 58), (150, 9)), None, "not-shown", 0, None),
            (((5, 66), (130, 12)), 0.0, "missed", 0, None),
            (((5, 66), (12, 61), (100, 9.5), (115, 8)), 0.0, "met", 0, 95),
            (((5, 64), (10, 60), (118, 14), (128, 9)), 0.0, "not-shown", 108, 123),
        ):
            with self.subTest(readings=readings):
                (stage,) = facts(*readings, off_fire=off_fire).stages
                self.assertEqual(
                    (stage.verdict, stage.at_least_min, stage.at_most_min),
                    (verdict, at_least, at_most),
                )

    def test_the_record_says_how_it_was_missed(self) -> None:
        proved = facts((30, 62), (60, 60), (235, 44)).stages[0]
        late = facts((5, 66), (130, 12)).stages[0]
        self.assertEqual((proved.proved, proved.shown_by.code), (True, "cooled.missed"))
        self.assertEqual((late.proved, late.shown_by.code), (False, "cooled.not-in-time"))

    def test_warmed_again_stands_beside_and_undoes_nothing(self) -> None:
        stage = facts((5, 66), (12, 61), (100, 9.5), (115, 8), (200, 14)).stages[0]
        self.assertEqual([one.at_min for one in stage.warmed_again], [200])
        self.assertEqual(
            facts((5, 66), (12, 61), (100, 9.5), (200, 11.5)).stages[0].warmed_again, ()
        )


class WhatIsNoProof(unittest.TestCase):
    def test_put_away_is_no_start_and_minutes_on_the_bench_count(self) -> None:
        self.assertEqual(facts((40, 55), (130, 9)).stages[0].verdict, "not-shown")
        self.assertEqual(facts((40, 55), (115, 9)).stages[0].verdict, "met")
        unknown = facts((40, 55), (115, 9), off_fire=None).stages[0]
        self.assertEqual(unknown.shown_by.code, "cooled.no-start")

    def test_readings_while_it_cooked_count_for_nothing(self) -> None:
        cooked = facts((-30, 20), (-10, 8), (5, 66), (12, 61), (100, 9.5)).stages[0]
        self.assertEqual((cooked.verdict, cooked.at_most_min), ("met", 95))

    def test_one_cold_reading_below_warm_ones_shows_nothing(self) -> None:
        slipped = facts((5, 66), (12, 61), (50, 8), (60, 30), (130, 14)).stages[0]
        self.assertEqual(slipped.verdict, "missed")
        in_time = facts((5, 66), (12, 61), (50, 8), (60, 30), (118, 9)).stages[0]
        self.assertEqual((in_time.verdict, in_time.at_most_min), ("met", 113))

    def test_it_is_open_as_long_as_a_reading_can_show_it(self) -> None:
        for now, verdict in ((60.0, "open"), (125.0, "open"), (126.0, "not-shown")):
            stage = facts((5, 66), (12, 61), now=now).stages[0]
            self.assertEqual(stage.verdict, verdict)
            self.assertEqual(stage.due_min, 125.0 if verdict == "open" else None)
        self.assertEqual(facts(now=100.0).stages[0].verdict, "open")
        self.assertEqual(facts(off_fire=None, now=1.0).stages[0].verdict, "not-shown")

    def test_nothing_read_is_never_a_verdict(self) -> None:
        for off_fire in (None, 0.0):
            for now in (0.0, 100.0, 1e4):
                self.assertNotIn(
                    facts(off_fire=off_fire, now=now).stages[0].verdict, ("met", "missed")
                )


class SeveralStagesAndCoolings(unittest.TestCase):
    def test_each_stage_stands_alone_and_all_count_from_the_first(self) -> None:
        read = [(5, 60), (10, 55), (120, 25), (130, 20), (300, 5)]
        first, second = cooling_facts(TWO_STEPS, read, 0.0, 400.0).stages
        self.assertEqual((first.verdict, first.at_most_min), ("not-shown", 125))
        self.assertEqual((second.verdict, second.at_most_min), ("met", 295))

    def test_heated_again_is_a_cooling_of_its_own_and_the_worst_of_them_counts(self) -> None:
        good = [(5.0, 66.0), (12.0, 61.0), (100.0, 9.5)]
        again = facts(*good, (200, 75), (215, 60), (400, 12), now=400.0)
        self.assertEqual([one[0].verdict for one in again.coolings], ["met", "missed"])
        self.assertEqual(again.stages[0].verdict, "missed")
        both = facts(*good, (200, 75), (215, 60), (290, 9), now=400.0)
        self.assertEqual(both.stages[0].verdict, "met")
        self.assertEqual(both.stages[0].at_most_min, 90)
        bad_first = facts((5, 66), (12, 61), (150, 30), (200, 75), (215, 60), (290, 9), now=400.0)
        self.assertEqual(bad_first.stages[0].verdict, "missed")


class TheCase(unittest.TestCase):
    CASE = {
        "rule": "one-step-10",
        "off_fire_min": 0,
        "readings": [[5, 66], [12, 61]],
        "now_min": 60,
    }

    def test_it_is_judged_and_told(self) -> None:
        found = judged(read_case(self.CASE))
        self.assertEqual(found.facts.stages[0].verdict, "open")
        self.assertIsNotNone(found.forecast)
        own = {**self.CASE, "rule": {"from_c": 63, "to_c": 10, "minutes": 120}}
        self.assertEqual(judged(read_case(own)).facts, found.facts)

    def test_nonsense_names_its_field(self) -> None:
        for change, field in (
            ({"rule": "nobody"}, "rule"),
            ({"rule": 5}, "rule"),
            ({"rule": None}, "rule"),
            ({"rule": {"from_c": 10, "to_c": 63, "minutes": 9}}, "rule.to_c"),
            ({"rule": {"from_c": 63, "to_c": 10, "minutes": 0}}, "rule.minutes"),
            ({"rule": {"from_c": 63}}, "rule.to_c"),
            ({"readings": [[61, 40]]}, "readings[0][0]"),
            ({"readings": [[1, 620]]}, "readings[0][1]"),
            ({"readings": [[1]]}, "readings[0][1]"),
            ({"off_fire_min": 90}, "off_fire_min"),
            ({"off_fire_min": 5, "put_away_min": 1}, "put_away_min"),
            ({"now_min": "soon"}, "now_min"),
            ({"other": 1}, "other"),
        ):
            with self.subTest(change=change), self.assertRaises(BadInput) as caught:
                read_case({**self.CASE, **change})
            self.assertEqual(caught.exception.problems[0].field, field)


class TwoThousandTrays(unittest.TestCase):
    """Hidden truth, readings at random times (saucier/keeping/tests/trays.py); all of them by make trials."""

    COUNT = trial_count(2000, 50)

    def drawn(self, seed: int, wrong: float) -> list[tuple[Tray, CoolingFacts]]:
        dice = random.Random(seed)
        trays = [tray(dice, wrong) for _ in range(self.COUNT)]
        return [(one, cooling_facts(ONE_STEP, one.readings, 0.0, one.now_min)) for one in trays]

    def test_within_the_probes_error_nothing_false_is_proved(self) -> None:
        met = missed = 0
        for one, found in self.drawn(1, 0.0):
            (stage,) = found.stages
            if stage.verdict == "met":
                met += 1
                # To within the probe's ± 1 °C at either end of the rule.
                took = one.truly_in(ONE_STEP.from_c - 1.0, 11.0)
                self.assertTrue(took is not None and took <= 120.0)
            if stage.verdict == "missed" and stage.proved:
                missed += 1
                began, there = one.crossing(ONE_STEP.from_c + 1.0), one.stays_below(9.0)
                self.assertTrue(began is not None and (there is None or there - began > 120.0))
        self.assertGreater(met, 0.05 * self.COUNT)
        self.assertGreater(missed, 0.05 * self.COUNT)

    def test_a_wrong_reading_in_twenty_makes_few_false_ones(self) -> None:
        truly_missed = false = 0
        for one, found in self.drawn(2, 0.05):
            took = one.truly_in(ONE_STEP.from_c - 1.0, 11.0)
            if took is None or took > 120.0:
                truly_missed += 1
                false += found.stages[0].verdict == "met"
        self.assertGreater(truly_missed, 0.3 * self.COUNT)
        self.assertLess(false, max(1.0, 0.005 * truly_missed))


if __name__ == "__main__":
    unittest.main()
