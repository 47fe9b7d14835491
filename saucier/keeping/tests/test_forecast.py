"""How a cooling goes on: the forecast follows what is read, however far off the sum was."""

import random
import unittest

from saucier.keeping.facts import cooling_facts
from saucier.keeping.forecast import Expected, Forecast, forecast
from saucier.keeping.rules import shipped_rules
from saucier.keeping.tests.trays import tray
from saucier.testing import trial_count

RULES = shipped_rules()["one-step-10"]
QUICK = Expected(from_c=80.0, from_spread_c=3.0, fall_min=30.0, pace_spread=0.45)


def ahead(
    readings: list[tuple[float, float]], now: float, expected: Expected | None = QUICK
) -> Forecast:
    facts = cooling_facts(RULES, readings, 0.0, now)
    found = forecast(RULES, facts, readings, 0.0, now, expected)
    assert found is not None
    return found


class Following(unittest.TestCase):
    def test_slower_than_the_sum_is_warned_of_while_something_can_be_done(self) -> None:
        found = ahead([(20, 76), (35, 70), (50, 64)], 50.0)
        self.assertEqual(found.stages[0].outlook, "late")
        assert found.words is not None
        self.assertEqual(found.words.code, "cooling.will-miss")
        self.assertGreater(found.words.facts["left_min"], 60.0)

    def test_one_as_expected_is_in_time(self) -> None:
        found = ahead([(10, 66), (25, 42), (40, 27), (50, 20)], 50.0)
        self.assertEqual(found.stages[0].outlook, "in-time")
        self.assertIsNone(found.words)
        self.assertTrue(found.fits)

    def test_a_sum_that_was_far_off_is_left_behind(self) -> None:
        slow = [(30.0, 71.0), (60.0, 64.0), (90.0, 57.0), (120.0, 51.5)]
        found = ahead(slow, 120.0)
        self.assertTrue(found.low_c <= 51.5 <= found.high_c)
        self.assertFalse(found.fits)
        self.assertLess(found.stages[0].chance, 0.05)

    def test_a_tray_moved_to_the_blast_chiller_is_seen_to_come_down(self) -> None:
        table = [(10.0, 70.0), (20.0, 66.0), (30.0, 62.0), (40.0, 58.5)]
        before = ahead(table, 40.0)
        moved = [*table, (50.0, 44.0), (55.0, 36.0), (60.0, 29.0), (65.0, 23.0)]
        after = ahead(moved, 65.0)
        self.assertLess(before.stages[0].chance, 0.3)
        self.assertGreater(after.stages[0].chance, 0.9)
        self.assertAlmostEqual(after.at_c, 23.0, delta=2.5)

    def test_one_slip_of_the_probe_changes_little(self) -> None:
        good = [(10.0, 66.0), (20.0, 49.0), (30.0, 36.0), (40.0, 27.0), (50.0, 20.0)]
        slipped = [*good[:3], (35.0, 60.0), *good[3:]]
        plain, beside = ahead(good, 50.0), ahead(slipped, 50.0)
        self.assertAlmostEqual(plain.at_c, beside.at_c, delta=1.0)
        self.assertGreater(beside.stages[0].chance, 0.85)

    def test_the_newest_reading_is_never_left_out(self) -> None:
        many = [(0.5 * n, 80.0 - 0.05 * n) for n in range(400)]
        found = ahead([*many, (200.5, 12.0), (201.0, 12.0)], 201.0)
        self.assertLess(found.at_c, 20.0)

    def test_the_same_readings_give_the_same_forecast(self) -> None:
        read = [(10.0, 66.0), (30.0, 36.0)]
        self.assertEqual(ahead(read, 30.0), ahead(read, 30.0))

    def test_nothing_read_and_nothing_expected_says_nothing(self) -> None:
        facts = cooling_facts(RULES, [], 0.0, 10.0)
        self.assertIsNone(forecast(RULES, facts, [], 0.0, 10.0))


class SimulatedTrays(unittest.TestCase):
    """Hidden truth (trays.py): all two thousand by make trials."""

    COUNT = trial_count(2000, 24)

    def test_said_in_time_is_in_time_and_nine_in_ten_cover_nine_in_ten(self) -> None:
        dice = random.Random(11)
        in_time = broken = cover = told = late = truly_late = 0
        for number in range(self.COUNT):
            one = tray(dice, 0.05 if number % 2 else 0.0)
            for now in (60.0, 90.0, 120.0):
                read = [reading for reading in one.readings if reading[0] <= now]
                facts = cooling_facts(RULES, read, 0.0, now)
                if not read or not facts.is_open:
                    continue
                put_away = min(now, one.put_away_min)
                found = forecast(RULES, facts, read, 0.0, now, None, put_away)
                assert found is not None
                there = one.crossing(10.0)
                due = facts.stages[0].due_min
                assert due is not None
                missed = there is None or there > due
                told += 1
                cover += found.low_c <= one.truth_c[int(now)] <= found.high_c
                truly_late += missed
                late += missed and found.stages[0].outlook == "late"
                in_time += found.stages[0].outlook == "in-time"
                broken += missed and found.stages[0].outlook == "in-time"
        self.assertGreater(told, self.COUNT)
        self.assertGreater(cover / told, 0.87)
        self.assertLess(broken / truly_late, 0.04)
        self.assertGreater(late / truly_late, 0.9)
        if self.COUNT >= 2000:
            print(
                f"cover {cover / told:.3f}, in time though missed {broken / truly_late:.4f} of {truly_late}, "
                f"late told {late / truly_late:.3f}, in time {in_time} of {told - truly_late} that were"
            )


if __name__ == "__main__":
    unittest.main()
