"""A run-up planned: its picture, its sheets, its mends, its calls."""

import csv
import io
import itertools
import os
import subprocess
import sys
import unittest
from dataclasses import replace
from datetime import date

import vobject

from saucier.heat import Pan
from saucier.keeping import cooled_c, held
from saucier.pot import Balance, Pot
from saucier.run_up import Library, RunUp, run_up
from saucier.run_up.calls import Calls
from saucier.run_up.document import Called, Happened
from saucier.run_up.mending import mends, short_of, wants_mending
from saucier.run_up.sheets import run_csv, run_ics, run_sheets
from saucier.run_up.tests.services import demo_service, kitchen, means, planned, random_service
from saucier.run_up.timed import timed
from saucier.testing import trial_count, trial_of
from saucier.timing import by_rule, measured
from saucier.timing.solver import Effort, plan
from saucier.timing.tests.checker import wrong_with

QUICK = Effort(seconds=0.5, wall=5.0)
ROUGH = Effort(seconds=0.1, wall=5.0)


class NightShift(unittest.TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.gathered = run_up(
            planned(demo_service("night-shift")), kitchen(), means(), RunUp(served_over=10)
        )
        cls.question = cls.gathered.problem(0)
        cls.schedule = plan(cls.question, QUICK)
        cls.day = timed(cls.gathered, 0, cls.question, cls.schedule)
        cls.sheets = run_sheets([cls.day])

    def test_it_is_in_time_and_keeps_to_everything(self) -> None:
        self.assertEqual(wrong_with(self.question, self.schedule), [])
        self.assertTrue(self.day.ok, self.day.verdict)
        self.assertEqual(self.day.late, {})

    def test_every_job_is_in_the_picture_with_its_cook_and_things(self) -> None:
        blocks = {block.key: block for block in self.day.blocks}
        self.assertEqual(set(blocks), set(self.gathered.board.jobs) | set(self.schedule.washed))
        for block in self.day.blocks:
            for part in block.parts:
                self.assertEqual(
                    part.hands == "none" or part.minutes <= 0, part.cook == "", block.key
                )
        sear = blocks["side:1:sear"]
        self.assertEqual({thing.pool for thing in sear.things}, {"ring", "gear"})

    def test_waits_are_told_with_their_limits(self) -> None:
        for block in self.day.blocks:
            for wait in block.waits:
                self.assertGreaterEqual(wait.minutes, 0.0)
        sauce = next(b for b in self.day.blocks if b.key.startswith("pot:") and "hake" in b.key)
        self.assertEqual(sauce.waits[0].until, "plate:0")
        self.assertIsNotNone(sauce.waits[0].longest)

    def test_sheets_tell_every_attended_thing_once_and_in_order(self) -> None:
        told = {(line.job, line.at) for sheet in self.sheets for line in sheet.lines}
        for block in self.day.blocks:
            if any(part.hands == "all" for part in block.parts):
                self.assertTrue(any(job == block.key for job, _ in told), block.key)
        for sheet in self.sheets:
            self.assertEqual([x.at for x in sheet.lines], sorted(x.at for x in sheet.lines))

    def test_csv_has_a_row_a_line(self) -> None:
        rows = list(csv.DictReader(io.StringIO(run_csv(self.sheets))))
        self.assertEqual(len(rows), sum(len(sheet.lines) for sheet in self.sheets))
        self.assertIn("Plate: Poached hake", {row["what"] for row in rows})

    def test_no_cell_is_a_formula(self) -> None:
        line = replace(self.sheets[0].lines[0], where="=1+1")
        text = run_csv([replace(self.sheets[0], cook="@home", lines=(line,))])
        row = next(iter(csv.DictReader(io.StringIO(text))))
        self.assertEqual((row["cook"], row["where"]), ("'@home", "'=1+1"))

    def test_the_calendar_is_read_by_another_library(self) -> None:
        text = run_ics(self.sheets, date(2026, 12, 3), "Night shift", "run-up-1").decode()
        calendar = vobject.readOne(text)
        events = calendar.contents["vevent"]
        self.assertEqual(len(events), sum(len(sheet.lines) for sheet in self.sheets))
        self.assertEqual(len({event.uid.value for event in events}), len(events))
        for event in events:
            self.assertLess(event.dtstart.value, event.dtend.value)
            self.assertEqual(event.valarm.action.value, "DISPLAY")
        first = min(event.dtstart.value for event in events)
        self.assertIn(first.date(), (date(2026, 12, 2), date(2026, 12, 3)))
        self.assertTrue(vobject.icalendar.VCalendar2_0.validate(calendar, raiseException=True))


class Behind(unittest.TestCase):
    """However late it has become, there is a plan: a cook behind by hours needs it most."""

    def test_a_pot_begun_hours_after_it_was_to_be_served(self) -> None:
        asked = planned(demo_service("night-shift"))
        pots = [k for k in run_up(asked, kitchen(), means(), RunUp()).board.jobs if "pot:" in k]
        late = ((1500.0, None), (4000.0, 20.0))
        for pot, (began, over) in trial_of(itertools.product(pots, late), 4):
            happened = Happened(began=began, over=over and began + over)
            now = None if over else began + 10.0
            doc = RunUp(served_over=0, marks={pot: happened}, now=now)
            question = run_up(asked, kitchen(), means(), doc).problem(0)
            schedule = plan(question, ROUGH)
            self.assertEqual(wrong_with(question, schedule), [], (pot, began, over))
            self.assertEqual(schedule.starts[pot], began)

    def test_a_pin_whose_time_has_passed_is_none(self) -> None:
        asked = planned(demo_service("night-shift"))
        doc = RunUp(served_over=0)
        key = next(iter(run_up(asked, kitchen(), means(), doc).board.jobs))
        late = doc.model_copy(update={"pins": {key: -100.0}, "now": -50.0})
        question = run_up(asked, kitchen(), means(), late).problem(0)
        task = next(task for task in question.tasks if task.key == key)
        self.assertIsNone(task.start)


class TheSameAgain(unittest.TestCase):
    def test_a_plan_is_the_same_in_every_process(self) -> None:
        """Sets of names have another order in each: it must not reach the solver."""
        script = (
            "from saucier.run_up.tests.services import demo_service, kitchen, means, planned\n"
            "from saucier.run_up import RunUp, run_up\n"
            "from saucier.timing.solver import Effort, plan\n"
            "gathered = run_up(planned(demo_service('night-shift')), kitchen(), means(), RunUp())\n"
            "found = plan(gathered.problem(0), Effort(seconds=0.2, wall=60.0))\n"
            "print(sorted(found.starts.items()), sorted(found.hands.items()))\n"
        )
        told = {
            subprocess.run(
                [sys.executable, "-c", script],
                env={**os.environ, "PYTHONHASHSEED": seed},
                capture_output=True,
                check=True,
                text=True,
            ).stdout
            for seed in ("1", "2", "3")
        }
        self.assertEqual(len(told), 1)


class Mending(unittest.TestCase):
    def builder(self, times: float):
        """One cook at two rings, and so many times the night shift's portions."""
        service = demo_service("night-shift")
        more = tuple(
            line.model_copy(update={"portions": times * line.portions}) for line in service.lines
        )
        asked = planned(service.model_copy(update={"lines": more}))
        return lambda doc: run_up(asked, kitchen(), means(cooks=1, rings=2), doc)

    def test_of_twice_and_a_quarter_hands_are_short_too(self) -> None:
        question = self.builder(2.25)(RunUp(served_over=0)).problem(0)
        short = {one.what for one in short_of(question, plan(question, QUICK))}
        self.assertLessEqual({"hands", "rings"}, short)

    def test_one_cook_is_honestly_not_enough_and_one_tap_mends_it(self) -> None:
        build = self.builder(1.5)
        gathered = build(RunUp(served_over=0))
        question = gathered.problem(0)
        schedule = plan(question, QUICK)
        self.assertEqual(wrong_with(question, schedule), [])
        self.assertTrue(wants_mending(schedule))
        # A second cook would save five minutes of seventeen; a third ring saves them all.
        self.assertEqual([one.what for one in short_of(question, schedule)], ["rings"])
        tries = iter(range(4))  # the first few candidates are enough here
        offered = mends(gathered, schedule, build, lambda n, of: next(tries, None) is not None)
        self.assertTrue(offered)
        for mend in offered:
            again = build(mend.after)
            found = plan(again.problem(0), QUICK)
            self.assertEqual(found.value("late"), 0.0, mend.key)
            self.assertLess(found.value("harmed"), schedule.value("harmed"), mend.key)

    def test_a_plan_that_comes_out_wants_no_mending(self) -> None:
        gathered = run_up(
            planned(demo_service("night-shift")), kitchen(), means(3), RunUp(served_over=15)
        )
        self.assertFalse(wants_mending(plan(gathered.problem(0), QUICK)))


class ToOrder(unittest.TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.plan = planned(demo_service("night-shift"))
        doc = RunUp(to_order=(0, 1, 2))
        cls.calls = Calls(cls.plan, kitchen(), means(), doc, Library.of())

    def test_a_call_takes_its_time_and_a_table_goes_out_together(self) -> None:
        asked = [
            Called(line=0, portions=2, table="4", at=60.0),
            Called(line=1, portions=1, table="4", at=60.0),
        ]
        hake, fowl = self.calls.planned(asked)
        self.assertGreaterEqual(hake.begin, 60.0)
        self.assertLess(abs(hake.out - fowl.out), 5.5)
        self.assertGreater(hake.begin, fowl.begin)  # the quicker plate starts later

    def test_more_calls_than_rings_wait_for_each_other(self) -> None:
        several = [Called(line=0, table=str(n), at=60.0) for n in range(6)]
        told = self.calls.planned(several)
        self.assertGreater(max(call.waits_min for call in told), 3.0)
        self.assertEqual(min(call.waits_min for call in told), 0.0)

    def test_what_stands_ready_is_told_and_what_the_sixth_waits_for(self) -> None:
        line = next(one for one in self.plan.lines if one.number == 0)
        told = self.calls.to_order(line)
        ready = " | ".join(str(text) for text in told.ready)
        self.assertIn("cooked when called", ready)
        self.assertIn("63 °C", ready)
        self.assertEqual(told.at_once[-1].calls, 6)
        self.assertIsNotNone(told.at_once[-1].waits_for)
        self.assertGreater(told.at_once[-1].minutes, told.alone_min)

    def test_a_call_before_midnight_is_timed_like_any_other(self) -> None:
        late, early = (self.calls.planned([Called(line=2, at=at)])[0] for at in (60.0, -843.0))
        self.assertAlmostEqual(late.out - 60.0, early.out + 843.0)

    def test_a_call_that_went_out_is_not_planned(self) -> None:
        gone = [Called(line=0, at=60.0, gone=True), Called(line=2, at=61.0)]
        self.assertEqual([call.number for call in self.calls.planned(gone)], [1])


class Holding(unittest.TestCase):
    def pot(self, grams: float) -> Pot:
        flour = 0.06 * grams
        return Pot(
            Balance(water=0.82 * grams, fat=0.08 * grams, thickener=flour, flour=flour),
            temperature_c=95.0,
            boiled_min=5.0,
            wetted=True,
        )

    def test_a_large_pot_keeps_its_heat_and_a_small_one_does_not(self) -> None:
        large, small = Pan("28", "straight", 28, 16), Pan("16", "straight", 16, 9)
        self.assertGreater(
            cooled_c(self.pot(5000), large, 30), cooled_c(self.pot(300), small, 30) + 15
        )
        self.assertEqual(cooled_c(self.pot(300), small, 0), 95.0)

    def test_it_thickens_as_it_cools_and_liquid_brings_it_back(self) -> None:
        found = held(self.pot(600), Pan("16", "straight", 16, 9), 90, 65.0, 63.0)
        self.assertTrue(found.below_rule)
        self.assertGreater(found.let_down_ml, 0.0)
        self.assertIn("63 °C", str(found.words))


class RandomServices(unittest.TestCase):
    """A few here; ``make trial SERVICES=300`` for many."""

    def test_no_plan_breaks_anything_and_none_is_worse_than_the_rule(self) -> None:
        for seed in range(trial_count(6, 2)):
            asked, brigade, over = random_service(seed)
            question = run_up(asked, kitchen(), brigade, RunUp(served_over=over)).problem(0)
            found = plan(question, QUICK)
            with self.subTest(seed=seed, tasks=len(question.tasks)):
                self.assertEqual(wrong_with(question, found), [])
                ruled = by_rule(question)
                if not ruled.unplaced:
                    rule = tuple(measured(question, ruled.starts).values())
                    self.assertLessEqual(tuple(one.value for one in found.reached), rule)
