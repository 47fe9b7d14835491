"""The planner on questions small enough to answer by hand, and its checker on plans that are wrong."""

import unittest
from dataclasses import replace
from unittest.mock import patch

from ortools.sat.python.cp_model import OPTIMAL, LinearExpr

from saucier.testing import trial_count
from saucier.timing import (
    STAGES,
    TICKS,
    Away,
    Baking,
    Heat,
    Hold,
    Link,
    Oven,
    Problem,
    Schedule,
    Serving,
    Stretch,
    Task,
    Use,
    by_rule,
    measured,
)
from saucier.timing.alike import alike
from saucier.timing.lanes import BOUNDS, solver_for, together
from saucier.timing.model import Model
from saucier.timing.narrow import narrowed
from saucier.timing.solver import Effort, Impossible, plan
from saucier.timing.tests.checker import wrong_with
from saucier.timing.tests.random_problems import problem

QUICK = Effort(seconds=0.6, wall=6.0)
ANN, BO = "cook:Ann", "cook:Bo"
RING = frozenset({"ring:1", "ring:2"})


def hands(key: str, minutes: float, **more: object) -> Task:
    return Task(key, (Stretch(minutes, "all"),), **{"cooks": frozenset({ANN}), **more})


def asked(*tasks: Task, **more: object) -> Problem:
    """A question for Ann, everything served at 100."""
    served = tuple(Serving(task.key, 100.0, "1") for task in tasks)
    fields = {"links": (), "servings": served, "cooks": (ANN,), "begin": 0.0, "end": 300.0, **more}
    return Problem(tasks, **fields)


class Planner(unittest.TestCase):
    def planned(self, question: Problem) -> Schedule:
        found = plan(question, QUICK)
        self.assertEqual(wrong_with(question, found), [])
        return found

    def test_one_pair_of_hands_does_one_thing_at_a_time(self) -> None:
        found = self.planned(asked(hands("roux", 10), hands("other roux", 10)))
        self.assertEqual(sorted(found.starts.values()), [80.0, 90.0])
        self.assertTrue(found.proved)

    def test_a_touch_goes_beside_a_roux(self) -> None:
        sear = Task("sear", (Stretch(8, "none"),), frozenset({ANN}), touches=(4.0,))
        found = self.planned(asked(hands("roux", 10), sear))
        self.assertEqual(found.starts, {"roux": 90.0, "sear": 92.0})
        self.assertEqual(found.touched["sear"], (ANN,))

    def test_two_touches_are_not_made_at_once(self) -> None:
        pans = [
            Task(f"pan {n}", (Stretch(8, "none"),), frozenset({ANN}), touches=(4.0,))
            for n in (1, 2)
        ]
        found = self.planned(asked(*pans))
        self.assertEqual(sorted(found.starts.values()), [91.5, 92.0])

    def test_what_suffers_waits_least(self) -> None:
        """Both sides end in the plate; the fish is the later, whichever has the longer name."""
        fish, roots, plate = hands("fish", 5), hands("roots", 5), hands("plate", 2)
        question = asked(
            fish,
            roots,
            plate,
            links=(
                Link("fish", "plate", longest=6, suffers=9),
                Link("roots", "plate", longest=60, suffers=1),
            ),
            servings=(Serving("plate", 100.0, "1"),),
        )
        found = self.planned(question)
        self.assertEqual(found.starts, {"roots": 88.0, "fish": 93.0, "plate": 98.0})

    def test_late_by_no_more_than_it_must_be(self) -> None:
        question = replace(asked(hands("a", 60), hands("b", 60)), begin=20.0)
        found = self.planned(question)
        self.assertEqual(found.late["1"], 40.0)
        self.assertEqual(found.value("late"), 40.0)

    def test_away_is_away(self) -> None:
        found = self.planned(asked(hands("a", 10), away=(Away(ANN, 85.0, 100.0),)))
        self.assertEqual(found.starts["a"], 75.0)

    def test_skills_are_kept_to_and_every_task_is_named(self) -> None:
        both = frozenset({ANN, BO})
        tasks = (hands("roux", 10), hands("chop", 10, cooks=both), hands("grate", 10, cooks=both))
        found = self.planned(replace(asked(*tasks), cooks=(ANN, BO)))
        self.assertEqual(found.hands["roux"], (ANN,))
        self.assertEqual(min(found.starts.values()), 80.0)

    def test_an_oven_changes_its_temperature_in_time(self) -> None:
        hot = Task("hot", (Stretch(10, "none"),), baking=Baking(220))
        mild = Task("mild", (Stretch(10, "none"),), baking=Baking(160))
        question = asked(hot, mild, ovens=(Oven("oven", 3, heats=12, cools=4),))
        found = self.planned(question)
        # Mild first: heating by sixty degrees takes five minutes, cooling fifteen.
        self.assertEqual(found.starts, {"hot": 90.0, "mild": 75.0})

    def test_shelves_are_counted(self) -> None:
        trays = [
            Task(f"tray {n}", (Stretch(10, "none"),), baking=Baking(180, shelves=2)) for n in (1, 2)
        ]
        found = self.planned(asked(*trays, ovens=(Oven("oven", 3),)))
        self.assertEqual(sorted(found.starts.values()), [80.0, 90.0])

    def test_a_pan_is_washed_before_it_is_used_again(self) -> None:
        pots = [Task(f"pot {n}", (Stretch(10, "none"),)) for n in (1, 2)]
        washes = tuple(hands(f"wash {n}", 2) for n in (1, 2))
        holds = tuple(
            Hold(frozenset({"pan:1"}), f"pot {n}", (f"pot {n}",), f"wash {n}") for n in (1, 2)
        )
        found = self.planned(asked(*pots, holds=holds, washes=washes))
        self.assertEqual(sorted(found.starts[f"pot {n}"] for n in (1, 2)), [78.0, 90.0])
        self.assertEqual(len(found.washed), 1)

    def test_as_many_pots_as_a_cook_can_look_after(self) -> None:
        pots = [Task(f"pot {n}", (Stretch(10, "now-and-then"),)) for n in range(4)]
        found = self.planned(asked(*pots))
        self.assertEqual(sorted(found.starts.values()), [80.0, 90.0, 90.0, 90.0])

    def test_the_grill_is_hot_when_it_is_wanted_and_no_sooner(self) -> None:
        warm = Task("heat", (Stretch(6, "none"),))
        question = replace(
            asked(hands("gratin", 3), warm), servings=(Serving("gratin", 100.0, "1"),)
        )
        found = self.planned(replace(question, heats=(Heat("heat", ("gratin",)),)))
        self.assertEqual(found.starts, {"gratin": 97.0, "heat": 91.0})

    def test_what_is_begun_stays_and_what_is_over_is_in_nobodys_way(self) -> None:
        begun = hands("begun", 10, start=60.0, begun=True)
        over = hands("over", 30, start=50.0, begun=True, done=True)
        found = self.planned(asked(begun, over, hands("next", 30)))
        self.assertEqual(found.starts, {"begun": 60.0, "over": 50.0, "next": 70.0})

    def test_facts_that_contradict_each_other_make_no_plan_impossible(self) -> None:
        both = [hands(key, 10, start=60.0, begun=True) for key in ("a", "b")]
        found = self.planned(asked(*both, hands("c", 10)))
        self.assertEqual(found.starts["c"], 90.0)

    def test_two_pots_in_one_pan_are_a_fact_once_they_are_on(self) -> None:
        pots = [Task(f"pot {n}", (Stretch(10, "none"),), start=50.0, begun=True) for n in (1, 2)]
        holds = tuple(Hold(frozenset({"pan:1"}), pot.key, (pot.key,)) for pot in pots)
        found = plan(asked(*pots, hands("plate", 5), holds=holds), QUICK)
        self.assertEqual(found.starts["plate"], 95.0)

    def test_pins_that_exclude_each_other_have_no_plan(self) -> None:
        with self.assertRaises(Impossible):
            plan(asked(hands("a", 10, start=60.0), hands("b", 10, start=65.0)), QUICK)

    def test_a_pot_stays_on_the_ring_it_was_put_on(self) -> None:
        """Small pots go on either ring, the large one on one of them: however many are on at a time, a
        small one that is on the large ring is in the way."""
        large, small = frozenset({"ring:1"}), RING
        question = replace(
            asked(
                Task("small 1", (Stretch(10, "none"),), uses=(Use(small),), start=90.0),
                Task("small 2", (Stretch(20, "none"),), uses=(Use(small),)),
                Task("large", (Stretch(9, "none"),), uses=(Use(large),)),
            ),
            links=(Link("small 2", "large"),),
        )
        found = self.planned(question)
        self.assertTrue(found.named)
        self.assertEqual(found.units["large"], ("ring:1",))
        self.assertEqual(found.units["small 1"], ("ring:2",))

    def test_what_is_proved_is_proved_whole_or_with_the_waits_before_as_they_are(self) -> None:
        found = plan(problem(1, 3, cooks=3), Effort(seconds=6.0, wall=20.0))
        for one in found.reached[:3]:
            self.assertTrue(one.proved, one)
        for one in found.reached[3:]:
            self.assertTrue(one.proved or one.kept, one)
            self.assertGreaterEqual(one.value, one.bound)
        self.assertTrue(found.proved)

    def test_the_narrow_question_leaves_out_what_decides_nothing(self) -> None:
        whole = problem(1, 3, cooks=3)
        narrow = narrowed(whole)
        gone = {task.key for task in whole.tasks} - {task.key for task in narrow.tasks}
        self.assertTrue(gone)
        self.assertTrue(all("prep" in key for key in gone), gone)
        pinned = replace(
            whole,
            tasks=tuple(replace(t, start=400.0) if t.key in gone else t for t in whole.tasks),
        )
        self.assertEqual(len(narrowed(pinned).tasks), len(whole.tasks))  # what is settled stays

    def test_no_plan_of_the_whole_is_under_the_least_of_the_narrow_question(self) -> None:
        effort = Effort(seconds=3.0, wall=20.0)
        proved = 0
        for seed in range(5):
            whole = problem(seed, 2, cooks=2)
            least = plan(narrowed(whole), effort).reached
            found = plan(whole, effort).reached
            for stage, (one, other) in enumerate(zip(least[:3], found[:3], strict=True)):
                if not (one.proved and other.proved):
                    break
                proved += stage == 2
                self.assertLessEqual(one.value, other.value + 1e-6, (seed, one.stage))
                if one.value < other.value:
                    break  # what comes after has other waits before it
        self.assertGreaterEqual(proved, 3)

    def test_what_has_no_room_beside_what_suffers_is_planned_all_the_same(self) -> None:
        """The chopping can begin at no other time than the plate that must not wait: one of them gives."""
        chop = hands("chop", 10, earliest=85.0)
        fish, plate = hands("fish", 5), hands("plate", 5)
        question = asked(
            chop,
            fish,
            plate,
            links=(Link("chop", "plate"), Link("fish", "plate", longest=1.0, suffers=5)),
            servings=(Serving("plate", 100.0, "1"),),
        )
        found = self.planned(question)
        self.assertEqual((found.value("late"), found.starts["plate"]), (0.0, 95.0))
        self.assertEqual(found.value("harmed"), 5.0 * 9.0)
        self.assertTrue(found.proved)

    def test_what_is_alike_goes_in_its_own_order(self) -> None:
        whole = problem(1, 3, cooks=3)
        twice = [replace(whole.tasks[0], key=f"again {n}") for n in range(3)]
        links = [Link(one.key, "0 pot") for one in twice]
        question = replace(whole, tasks=(*whole.tasks, *twice), links=(*whole.links, *links))
        self.assertIn(["0 prep 0", *(one.key for one in twice)], alike(question))
        starts = self.planned(question).starts
        self.assertEqual(sorted(starts[one.key] for one in twice), [starts[t.key] for t in twice])
        begun = replace(twice[2], start=600.0, begun=True)
        other = replace(question, tasks=(*whole.tasks, *twice[:2], begun))
        self.assertNotIn("again 2", [key for keys in alike(other) for key in keys])
        self.planned(other)

    def test_what_was_proved_is_proved_once_cooks_are_named(self) -> None:
        """Skills that cross: the plan is moved to be named, and told as proved only where it is."""
        for seed in range(3):
            question = problem(seed, 3, cooks=3, skilled=True)
            found = plan(question, Effort(seconds=4.0, wall=20.0))
            self.assertTrue(found.named)
            for number, one in enumerate(found.reached):
                if one.kept:
                    self.assertEqual(self.least_with_waits(question, found, number), one.value)

    def least_with_waits(self, question: Problem, found: Schedule, number: int) -> float:
        """The least of a stage with every wait of those before no longer than in ``found``, by the solver."""
        model = Model(question)
        there = Model(question, near=found.starts, bare=True)
        there.cp.minimize(LinearExpr.sum(list(there.measures.of.values())))
        known = solver_for(0.2, 5.0)
        known.solve(there.cp)
        for stage in STAGES[:number]:
            pairs = zip(model.measures.parts[stage], there.measures.parts[stage], strict=True)
            for part, was in pairs:
                model.cp.add(part <= known.value(was))
        model.cp.minimize(model.measures.of[STAGES[number]])
        solver = solver_for(20.0, 20.0)
        self.assertEqual(solver.solve(model.cp), OPTIMAL)
        return solver.objective_value / TICKS

    def test_whether_it_comes_out_is_known_without_the_rest(self) -> None:
        question = problem(2, 5, cooks=2)
        found = plan(question, QUICK, until="harmed")
        self.assertEqual([one.stage for one in found.reached], ["late", "harmed"])
        self.assertEqual(wrong_with(question, found), [])

    def test_careful_it_plans_too(self) -> None:
        question = problem(2, 5, cooks=2)
        with patch("saucier.timing.solver.together", wraps=together) as solved:
            found = plan(question, replace(QUICK, careful=True))
        jobs = [job for call in solved.call_args_list for job in call.args[0]]
        self.assertTrue(jobs and all(job.kind is BOUNDS for job in jobs))
        self.assertEqual(wrong_with(question, found), [])
        self.assertFalse(any(one.kept for one in found.reached))

    def test_the_same_question_has_the_same_answer(self) -> None:
        question = problem(5, 4)
        one, two = plan(question, QUICK), plan(question, QUICK)
        self.assertFalse(one.stopped)
        self.assertEqual((one.starts, one.hands, one.units), (two.starts, two.hands, two.units))

    def test_it_says_of_its_plan_what_the_plan_comes_to(self) -> None:
        question = problem(2, 4)
        found = plan(question, QUICK)
        told = {one.stage: one.value for one in found.reached}
        self.assertEqual(told, measured(question, found.starts))
        for one in found.reached:
            self.assertLessEqual(one.bound, one.value + 1e-6, one.stage)

    def test_random_services_of_every_size_keep_to_everything(self) -> None:
        for seed in range(trial_count(4, 2)):
            for skilled in (False, True):
                question = problem(seed, 2 + seed, cooks=2 + seed % 2, skilled=skilled)
                with self.subTest(seed=seed, skilled=skilled):
                    self.assertEqual(wrong_with(question, plan(question, QUICK)), [])

    def test_it_never_does_worse_than_the_rule(self) -> None:
        for seed in range(trial_count(4, 2)):
            question = problem(seed, 3)
            ruled = by_rule(question)
            if ruled.unplaced:
                continue
            rule = tuple(measured(question, ruled.starts).values())
            ours = tuple(one.value for one in plan(question, QUICK).reached)
            self.assertLessEqual(ours, rule)


class Checker(unittest.TestCase):
    """The checker sees what is wrong, whoever made the plan."""

    def setUp(self) -> None:
        self.question = problem(1, 3)
        self.good = plan(self.question, QUICK)
        self.assertEqual(wrong_with(self.question, self.good), [])

    def test_a_task_moved_an_hour_is_seen(self) -> None:
        for key in ("0 pot", "1 plate", "2 sear"):
            if key in self.good.starts:
                moved = {**self.good.starts, key: self.good.starts[key] + 60.0}
                self.assertTrue(wrong_with(self.question, replace(self.good, starts=moved)), key)

    def test_one_cook_in_two_places_is_seen(self) -> None:
        question = replace(asked(hands("a", 10), hands("b", 10)))
        found = plan(question, QUICK)
        moved = replace(found, starts={"a": 85.0, "b": 90.0})
        self.assertIn("at once", " ".join(wrong_with(question, moved)))

    def test_a_cook_who_cannot_do_it_is_seen(self) -> None:
        question = replace(asked(hands("a", 10)), cooks=(ANN, BO))
        found = replace(plan(question, QUICK), hands={"a": (BO,)})
        self.assertIn("cannot do", " ".join(wrong_with(question, found)))
