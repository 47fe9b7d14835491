"""Jobs of a service: all that has to be done is there, takes what it takes, and in the right order."""

import unittest
from dataclasses import replace

from saucier.check import check
from saucier.errors import BadInput
from saucier.run_up import Gathered, Library, RunUp, read_run_up, read_way, run_up, write_run_up
from saucier.run_up.document import Extra, Happened, Out, minute_of
from saucier.run_up.jobs import Keeps
from saucier.run_up.pots import keeps_of
from saucier.run_up.tests.services import demo, demo_service, kitchen, means, planned
from saucier.service import OnHand, Service
from saucier.units import Amount


def gathered(
    doc: RunUp | None = None,
    name: str = "visitors-sunday",
    library: Library | None = None,
    **more: object,
) -> Gathered:
    return run_up(planned(demo_service(name)), kitchen(), means(**more), doc or RunUp(), library)


class Jobs(unittest.TestCase):
    @classmethod
    def setUpClass(cls) -> None:
        cls.sunday = gathered()
        cls.night = gathered(name="night-shift")

    def kinds(self, board: Gathered, line: int) -> set[str]:
        return {job.kind for job in board.board.jobs.values() if line in job.lines}

    def test_every_pot_of_the_production_sheet_is_a_job_with_its_batches(self) -> None:
        plan = self.sunday.plan
        for pot in plan.pots:
            keys = [f"pot:{pot.key}#{n}" for n in range(1, pot.batches + 1)]
            for key in keys:
                self.assertIn(key, self.sunday.board.jobs)
        mothers = {pot.key for pot in plan.pots if pot.mother}
        for branch in plan.branches:
            if branch.pot in mothers:
                self.assertIn(f"pot:{branch.key}#1", self.sunday.board.jobs)

    def test_a_pot_takes_its_minutes_and_the_roux_is_attended_throughout(self) -> None:
        pot = next(p for p in self.night.plan.pots if "hake" in p.key)
        job = self.night.board.jobs[f"pot:{pot.key}#1"]
        self.assertGreater(job.minutes, pot.minutes)  # handling comes on top
        self.assertEqual(job.parts[0].hands, "all")
        self.assertIn("now-and-then", {part.hands for part in job.parts})

    def test_solids_are_cut_by_weight_cooked_filled_coloured_and_carried(self) -> None:
        self.assertLessEqual(
            {"prepare", "side", "fill", "finish", "carry"}, self.kinds(self.sunday, 0)
        )
        celeriac = [j for k, j in self.sunday.board.jobs.items() if k.startswith("prep:celeriac")]
        self.assertGreater(sum(job.minutes for job in celeriac), 30.0)
        self.assertTrue(all(job.minutes <= 15.0 for job in celeriac))

    def test_fish_is_poached_in_rounds_with_touches_or_hands(self) -> None:
        poach = self.night.board.jobs["side:0:poach"]
        self.assertIn("8 fillets, 5 at a time", str(poach.amount))
        self.assertEqual(sum("round" in str(part.do) for part in poach.parts), 2)
        sear = self.night.board.jobs["side:1:sear"]
        self.assertEqual(len(sear.touches), 2)
        self.assertEqual((sear.keeps.longest, sear.keeps.suffers), (10.0, 6))

    def test_what_is_filled_cold_is_made_the_day_before_with_its_pots(self) -> None:
        jobs = self.sunday.board.jobs
        self.assertEqual(self.sunday.days, (-1, 0))
        self.assertEqual(jobs["fill:7"].day, -1)
        self.assertIn("chill:7", jobs)
        self.assertEqual(jobs["oven:7"].day, 0)
        mother = next(p for p in self.sunday.plan.pots if p.mother and "vegetable" in str(p.name))
        self.assertEqual(jobs[f"pot:{mother.key}#1"].day, -1)
        eggs = next(b for b in self.sunday.plan.branches if b.sauce == "green-veloute-for-eggs")
        today = jobs[f"pot:{eggs.key}#1"]
        self.assertEqual(today.day, 0)
        self.assertIn("warm the base", str(today.parts[0].do))

    def test_the_cook_moves_a_dish_from_one_day_to_the_other(self) -> None:
        same = gathered(RunUp(same_day=(7,)))
        self.assertEqual(same.board.jobs["fill:7"].day, 0)
        ahead = gathered(RunUp(ahead=(0,)))
        self.assertEqual(ahead.board.jobs["fill:0"].day, -1)

    def test_every_wait_ends_somewhere_and_nothing_waits_for_itself(self) -> None:
        for board in (self.sunday.board, self.night.board):
            for link in board.links:
                self.assertIn(link.before, board.jobs)
                self.assertIn(link.after, board.jobs)
                self.assertNotEqual(link.before, link.after)
            served = {one.task for one in board.servings}
            followed = {link.before for link in board.links} | set(board.heats)
            loose = set(board.jobs) - served - followed
            self.assertEqual({key.split(":")[0] for key in loose} - {"chill"}, set())

    def test_oven_and_grill_are_heated_first(self) -> None:
        self.assertIn("oven:0", self.sunday.board.heats["heat:oven:180"])
        self.assertIn("grill:5", self.sunday.board.heats["heat:grill"])

    def test_guests_pots_are_begun_before_others_that_could_have_their_pan(self) -> None:
        plan, board = self.sunday.plan, self.sunday.board
        guest = next(pot for pot in plan.pots if pot.guests and not pot.mother)
        same_pan = [p for p in plan.pots if p is not guest and p.pan.name == guest.pan.name]
        for other in same_pan:
            pairs = {(link.before, link.after) for link in board.links}
            self.assertIn((f"pot:{guest.key}#1", f"pot:{other.key}#1"), pairs)

    def test_what_is_made_for_a_guest_who_goes_without_is_told_to_be_kept_apart(self) -> None:
        for job in self.sunday.board.jobs.values():
            if job.kind in ("side", "fill", "plate", "carry"):
                guests = self.sunday.plan.lines[job.lines[0]].line.without
                said = getattr(job.note, "code", "").startswith("job.clean")
                self.assertEqual(said, bool(guests), job.key)

    def test_what_a_guests_side_is_cooked_in_is_washed_first(self) -> None:
        found = [
            (
                getattr(job.parts[0].do, "code", "") == "job.wash-first",
                self.sunday.plan.lines[job.lines[0]],
            )
            for job in self.sunday.board.jobs.values()
            if job.kind == "side" and job.baking is None
        ]
        self.assertTrue(any(line.line.without for _, line in found))
        for washed, line in found:
            self.assertEqual(washed, bool(line.line.without))

    def test_a_green_sauce_waits_for_nobody_and_says_what_can_be_made_ahead(self) -> None:
        _, sheets, _, _ = demo()

        def keeps(name: str) -> Keeps:
            made = check(sheets[name], kitchen())
            return keeps_of(made.sheet, made.final.pot, kitchen())

        green, white = keeps("green-veloute-for-eggs"), keeps("breakfast-egg-white-sauce")
        self.assertEqual(green.why.code, "stands.green")
        self.assertLess(green.longest, white.longest / 4.0)

    def test_every_pan_is_held_until_its_sauce_is_used(self) -> None:
        own = next(p for p in self.night.plan.pots if "rye-toast" in p.key)
        hold = next(h for h in self.night.board.holds if h.first == f"pot:{own.key}#1")
        self.assertIn("fill:2", hold.until)
        self.assertEqual(hold.units, {"pan:saucepan 20 1", "pan:saucepan 20 2"})

    def test_what_is_in_the_freezer_comes_out_the_day_before(self) -> None:
        service = demo_service("night-shift")
        frozen = OnHand(ingredient="stock-fish", amount=Amount(400, "mL"), place="freezer")
        found = run_up(
            planned(service.model_copy(update={"on_hand": (frozen,)})), kitchen(), means(), RunUp()
        )
        self.assertEqual(found.board.jobs["thaw:stock-fish:0d#1"].day, -1)

    def test_a_kitchen_that_never_said_what_it_has_is_told_what_is_taken_for_granted(self) -> None:
        from saucier.run_up import Means

        found = run_up(planned(demo_service("night-shift")), kitchen(), Means.of(), RunUp())
        self.assertEqual(
            [one.code for one in found.remarks if one.code.startswith("assumed")],
            ["assumed.cooks", "assumed.rings", "assumed.gear"],
        )


class Changes(unittest.TestCase):
    """What a cook changes changes the minutes and the plan's question."""

    def pot(self, board: Gathered, part: str) -> object:
        return next(j for k, j in board.board.jobs.items() if k.startswith("pot:") and part in k)

    def test_a_ring_of_its_own(self) -> None:
        usual = gathered(name="night-shift")
        key = next(p.key for p in usual.plan.pots if "fowl" in p.key)
        slow = gathered(RunUp(rings={key: "back left"}), "night-shift")
        quick = gathered(RunUp(rings={key: "front left"}), "night-shift")
        self.assertGreater(self.pot(slow, "fowl").minutes, self.pot(quick, "fowl").minutes)
        self.assertEqual(self.pot(slow, "fowl").uses[0].units, {"ring:back left"})
        with self.assertRaises(BadInput) as bad:
            gathered(RunUp(rings={key: "the moon"}), "night-shift")
        self.assertEqual(bad.exception.problems[0].field, f"rings.{key}")

    def test_a_wide_pan_goes_on_a_ring_that_takes_it(self) -> None:
        def rings(takes: float | None) -> set[str]:
            brigade = means()
            small = replace(brigade.rings[1], takes_cm=takes)
            changed = replace(brigade, rings=(small, *brigade.rings[2:]))
            found = run_up(planned(demo_service("night-shift")), kitchen(), changed, RunUp())
            return set(self.pot(found, "hake").uses[0].units)

        self.assertIn("ring:front left", rings(None))
        self.assertNotIn("ring:front left", rings(12))

    def test_a_pan_wider_than_every_ring_stands_on_the_widest(self) -> None:
        brigade = means()
        narrow = tuple(replace(ring, takes_cm=8 + n) for n, ring in enumerate(brigade.rings))
        changed = replace(brigade, rings=narrow)
        found = run_up(planned(demo_service("night-shift")), kitchen(), changed, RunUp())
        self.assertEqual(self.pot(found, "hake").uses[0].units, {"ring:back right"})

    def test_another_pan_and_another_batch(self) -> None:
        service = demo_service("night-shift")
        plan = planned(service)
        key = next(p.key for p in plan.pots if "guinea" in p.key)
        wide = planned(service.model_copy(update={"pans": {key: "stewpan 28"}}))
        one, other = (run_up(p, kitchen(), means(), RunUp()) for p in (plan, wide))
        self.assertNotEqual(self.pot(one, "guinea").minutes, self.pot(other, "guinea").minutes)
        hold = next(h for h in other.board.holds if "guinea" in h.first)
        self.assertEqual(hold.units, {"pan:stewpan 28 1", "pan:stewpan 28 2"})
        lines = tuple(
            line.model_copy(update={"portions": 5 * line.portions}) for line in service.lines
        )
        more = run_up(
            planned(service.model_copy(update={"lines": lines})), kitchen(), means(), RunUp()
        )
        self.assertGreater(self.pot(more, "hake").minutes, self.pot(one, "hake").minutes)

    def test_another_school(self) -> None:
        """Liquid worked in cold takes a cook longer than liquid poured in hot."""
        from saucier.run_up.tests import services

        dishes, sheets, pans, _ = services.demo()
        from saucier.service import plan_service

        def of(school: str) -> float:
            sheet = sheets["poached-hake-veloute"]
            method = sheet.method.model_copy(update={"liquid_in": school})
            plan = plan_service(
                demo_service("night-shift"),
                dishes,
                {**sheets, "poached-hake-veloute": sheet.model_copy(update={"method": method})},
                kitchen(),
                list(pans),
            )
            board = run_up(plan, kitchen(), means(), RunUp())
            return sum(p.minutes for p in self.pot(board, "hake").parts if p.hands == "all")

        self.assertGreater(of("cold-gradual"), of("hot-at-once"))

    def test_another_way_and_a_kitchens_own_figures(self) -> None:
        roast = gathered(RunUp(ways={"1.1": "roast"}), "night-shift")
        self.assertIn("side:1:roast", roast.board.jobs)
        self.assertIsNotNone(roast.board.jobs["side:1:roast"].baking)
        own = Library.of().way("poach").model_copy(update={"minutes": 12.0, "keeps": 3.0})
        slow = gathered(name="night-shift", library=Library.of([own]))
        self.assertEqual(slow.board.jobs["side:0:poach"].keeps.longest, 3.0)
        with self.assertRaises(BadInput):
            gathered(RunUp(ways={"1.1": "by-magic"}), "night-shift")

    def test_minutes_of_the_cooks_own(self) -> None:
        found = gathered(RunUp(minutes={"plate:0": 9.0}), "night-shift")
        self.assertAlmostEqual(found.board.jobs["plate:0"].minutes, 9.0)

    def test_a_steamer_takes_the_roots_off_the_hob(self) -> None:
        from saucier.run_up import gear_of

        kit = means()
        steamed = replace(kit, gear=(*kit.gear, gear_of("steamer")))
        found = run_up(planned(demo_service("night-shift")), kitchen(), steamed, RunUp())
        roots = found.board.jobs["side:0:steam"]
        self.assertEqual({u for use in roots.uses for u in use.units}, {"gear:Steamer"})

    def test_who_is_there_when_and_who_falls_ill(self) -> None:
        doc = read_run_up(
            {
                "cooks": [
                    {"name": "Ilse", "can": ["stove"], "comes": "09:00"},
                    {"name": "Toma", "goes": "12:30"},
                ],
                "out": [{"what": "cook:Toma", "start": 700}, {"what": "ring:back left"}],
                "extra": [{"kind": "cook", "name": "Aud", "start": 690, "end": 730}],
            }
        )
        question = gathered(doc).problem(0)
        self.assertEqual(question.cooks, ("cook:Ilse", "cook:Toma", "cook:Aud"))
        away = {(a.unit, a.start, a.end) for a in question.away}
        self.assertIn(("cook:Toma", 700.0, question.end + 600.0), away)
        self.assertIn("cook:Ilse", {unit for unit, _, end in away if end == 540.0})
        peel = next(t for t in question.tasks if t.key.startswith("prep:celeriac"))
        self.assertNotIn("cook:Ilse", peel.cooks)

    def test_somebody_who_helps_for_an_hour_is_not_there_the_day_before(self) -> None:
        doc = RunUp(extra=(Extra(kind="cook", name="Aud", start=690, end=750),))
        before = gathered(doc).problem(-1)
        away = [a for a in before.away if a.unit == "cook:Aud"]
        self.assertTrue(any(a.start <= before.begin and before.end <= a.end for a in away))

    def test_what_happened_is_in_the_question(self) -> None:
        doc = RunUp(
            marks={
                "prep:fish-white:0": Happened(began=20.0, over=27.0),
                "side:0:boil-roots": Happened(began=10.0),
            },
            pins={"plate:0": 63.0},
            now=60.0,
        )
        tasks = {task.key: task for task in gathered(doc, "night-shift").problem(0).tasks}
        self.assertTrue(tasks["prep:fish-white:0"].done)
        self.assertEqual(tasks["prep:fish-white:0"].minutes, 7.0)
        going = tasks["side:0:boil-roots"]
        self.assertTrue(going.begun and not going.done)
        self.assertGreaterEqual(going.start + going.minutes, 60.0)
        self.assertEqual(tasks["plate:0"].start, 63.0)
        self.assertEqual(gathered(doc, "night-shift").problem(0).begin, 60.0)

    def test_what_must_have_been_done_before_is_done_though_nobody_said_so(self) -> None:
        pot = next(p for p in gathered(name="night-shift").plan.pots if "hake" in p.key)
        key = f"pot:{pot.key}#1"
        doc = RunUp(marks={key: Happened(began=10.0, left=12.0)}, now=15.0)
        tasks = {task.key: task for task in gathered(doc, "night-shift").problem(0).tasks}
        self.assertTrue(tasks[f"weigh:{pot.key}"].done)
        self.assertAlmostEqual(tasks[key].minutes, 17.0)
        self.assertFalse(tasks["side:0:poach"].done)

    def test_plates_finished_when_called_end_in_a_mise_en_place(self) -> None:
        found = gathered(RunUp(to_order=(0, 1, 2)), "night-shift").board
        self.assertFalse([key for key in found.jobs if key.startswith(("plate:", "grill:"))])
        self.assertNotIn("side:0:poach", found.jobs)
        self.assertIn("side:0:boil-roots", found.jobs)
        self.assertEqual({one.task for one in found.servings}, {"mise:0", "mise:1", "mise:2"})


class Document(unittest.TestCase):
    def test_it_comes_back_as_it_was_written(self) -> None:
        doc = RunUp(
            served_over=20,
            extra=(Extra(kind="cook", name="Aud"),),
            out=(Out(what="ring:back left", start=700),),
            pins={"plate:0": 719.5},
        )
        self.assertEqual(read_run_up(write_run_up(doc)), doc)

    def test_nonsense_is_named_by_its_field(self) -> None:
        for data, field in (
            ({"cooks": [{"name": "", "can": []}]}, "cooks[0].name"),
            ({"cooks": [{"name": "A", "comes": "25:00"}]}, "cooks[0].comes"),
            ({"served_over": -1}, "served_over"),
            ({"pins": {"plate:0": "noon"}}, "pins.plate:0"),
            ({"sevred_over": 10}, "sevred_over"),
            ({"marks": {"a": {"began": 1e9}}}, "marks.a.began"),
        ):
            with self.subTest(field), self.assertRaises(BadInput) as bad:
                read_run_up(data)
            self.assertEqual(bad.exception.problems[0].field, field)

    def test_two_cooks_of_one_name_are_refused(self) -> None:
        doc = read_run_up({"cooks": [{"name": "Ilse"}, {"name": "Ilse"}]})
        with self.assertRaises(BadInput) as bad:
            gathered(doc, "night-shift")
        self.assertEqual(bad.exception.problems[0].field, "cooks[1].name")

    def test_a_clock_is_of_the_night_it_is_near(self) -> None:
        self.assertEqual(minute_of("23:30", 60.0), -30.0)
        self.assertEqual(minute_of("01:00", 1380.0), 1500.0)

    def test_a_way_says_what_is_wrong_with_it(self) -> None:
        with self.assertRaises(BadInput) as bad:
            read_way({"key": "sear", "name": "Sear", "minutes": "soon"})
        self.assertEqual(bad.exception.problems[0].field, "minutes")


class Empty(unittest.TestCase):
    def test_a_service_without_a_moment_is_timed_for_noon(self) -> None:
        service = demo_service("night-shift").model_copy(update={"serve_at": ()})
        found = run_up(planned(service), kitchen(), means(), RunUp())
        self.assertEqual(found.served[1], 720.0)
        self.assertIn("assumed.serve-at", [one.code for one in found.remarks])

    def test_a_service_of_nothing_has_no_jobs(self) -> None:
        found = run_up(planned(Service(name="empty")), kitchen(), means(), RunUp())
        self.assertEqual((found.board.jobs, found.days), ({}, ()))
