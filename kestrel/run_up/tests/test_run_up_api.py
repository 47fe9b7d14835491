"""Run-ups over the API: planned beside the server, changed, followed, called, taken out."""

import csv
import io
import json
from datetime import datetime, time, timedelta
from unittest import mock

import vobject
from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.test import TransactionTestCase
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from kestrel.accounts.actions import open_kitchen
from kestrel.larder.means import add_burner, add_cook, add_gear
from kestrel.run_up import actions
from kestrel.run_up.models import Planning, RunUp
from kestrel.run_up.planner import Worker
from kestrel.run_up.work import minute_at
from kestrel.stove.models import Batch
from kestrel.tests.clients import PASSWORD, KitchenTest
from kestrel.tests.flushing import Flushes
from saucier.run_up import RunUp as Document
from saucier.run_up import read_run_up, write_run_up
from saucier.timing.solver import Effort

DAY = timezone.localdate().isoformat()
QUICK = Effort(seconds=0.2, wall=3.0)


class RunUpTest(KitchenTest):
    def setUp(self) -> None:
        super().setUp()
        sauce = self.saved()
        for name, watts in (("left", 2500), ("right", 3500)):
            add_burner(self.kitchen, name=name, kind="gas", watts=watts)
        for name in ("Ilse", "Toma"):
            add_cook(self.kitchen, name, [])
        dish = {
            "name": "Leeks under cheese",
            "sauces": [{"sauce": str(sauce.pk), "use": "nap"}],
            "solids": [
                {"ingredient": "leek", "grams": 150},
                {"ingredient": "fish-white", "grams": 120},
            ],
        }
        self.dish = self.client.call("POST", "/dishes", {"document": dish}).body
        lines = [{"dish": str(self.dish["id"]), "portions": 8}]
        document = {"name": "Lunch", "date": DAY, "serve_at": ["12:00"], "lines": lines}
        self.service = self.client.call("POST", "/services", {"document": document}).body

    def new(self) -> dict:
        made = self.client.call("POST", "/run-ups", {"service_id": self.service["id"]})
        self.assertEqual(made.status_code, 201, made.body)
        return made.body

    def work(self) -> None:
        worker = Worker(QUICK, watched=False)
        while worker.once():
            pass

    def planned(self) -> dict:
        made = self.new()
        self.work()
        return self.read(made["id"])

    def read(self, number: int) -> dict:
        found = self.client.call("GET", f"/run-ups/{number}")
        self.assertEqual(found.status_code, 200, found.body)
        return found.body

    def blocks(self, whole: dict) -> dict[str, dict]:
        return {b["key"]: b for day in whole["planned"]["days"] for b in day["blocks"]}

    def change(self, whole: dict, **more: object):
        body = {"document": {**whole["document"], **more}, "revision": whole["revision"]}
        return self.client.call("PUT", f"/run-ups/{whole['id']}", body)


class Planned(RunUpTest):
    def test_a_service_has_one_run_up_planned_by_the_process_beside(self) -> None:
        made = self.new()
        self.assertIsNone(made["planned"])
        self.assertEqual(made["planning"]["state"], "waiting")
        self.assertEqual(self.new()["id"], made["id"])
        self.work()
        whole = self.read(made["id"])
        self.assertEqual(whole["planning"]["state"], "done")
        self.assertFalse(whole["stale"])
        self.assertTrue(whole["planned"]["days"][0]["ok"])
        self.assertEqual(whole["planned"]["served"]["1"], 720.0)
        self.assertLessEqual({"Ilse", "Toma"}, set(whole["planned"]["lanes"]["cooks"]))
        self.assertTrue(any(k.startswith("pot:") for k in self.blocks(whole)))
        self.assertEqual(len(self.client.call("GET", "/run-ups").body), 1)

    def test_what_it_was_planned_of_changes_and_it_is_stale(self) -> None:
        whole = self.planned()
        add_cook(self.kitchen, "Aud", [])
        self.assertTrue(self.read(whole["id"])["stale"])
        self.client.call("POST", f"/run-ups/{whole['id']}/plan")
        self.work()
        self.assertFalse(self.read(whole["id"])["stale"])
        solids = [{"ingredient": "potato", "grams": 200}]
        body = {"document": {**self.dish["document"], "solids": solids}, "revision": 1}
        self.client.call("PUT", f"/dishes/{self.dish['id']}", body)
        self.assertTrue(self.read(whole["id"])["stale"])  # a dish of it is another

    def test_it_is_planned_in_the_kitchens_own_ways(self) -> None:
        self.kitchen.temperature, self.kitchen.measures = "F", "us"
        self.kitchen.save()
        whole = self.planned()
        self.assertFalse(whole["stale"])  # in other words it would be stale for ever
        self.assertNotIn("°C", json.dumps(whole, ensure_ascii=False))
        self.kitchen.temperature = "C"
        self.kitchen.save()
        self.assertTrue(self.read(whole["id"])["stale"])

    def test_one_dish_tonight_without_a_service(self) -> None:
        body = {"dish_id": self.dish["id"], "portions": 3, "serve_at": "19:30", "day": DAY}
        made = self.client.call("POST", "/run-ups", body).body
        self.assertIsNone(made["service_id"])
        self.work()
        whole = self.read(made["id"])
        self.assertEqual(whole["planned"]["served"]["1"], 1170.0)
        self.assertEqual(len(self.client.call("GET", "/services").body["rows"]), 1)
        gone = self.client.call("DELETE", f"/run-ups/{made['id']}")
        self.assertEqual(gone.status_code, 204)
        self.assertEqual(self.client.call("GET", "/run-ups").body, [])
        self.client.call("POST", f"/run-ups/{made['id']}/restore")
        self.assertEqual(len(self.client.call("GET", "/run-ups").body), 1)

    def test_nothing_is_planned_of_nothing(self) -> None:
        self.assertEqual(self.fields(self.client.call("POST", "/run-ups", {})), ["service_id"])
        bad = self.client.call("POST", "/run-ups", {"dish_id": 99999})
        self.assertEqual(self.fields(bad), ["dish_id"])
        body = {"dish_id": self.dish["id"], "portions": 3, "serve_at": "half seven"}
        self.assertEqual(self.fields(self.client.call("POST", "/run-ups", body)), ["serve_at[0]"])
        empty = self.client.call("POST", "/services", {"document": {"name": "Empty"}}).body
        bad = self.client.call("POST", "/run-ups", {"service_id": empty["id"]})
        self.assertEqual(self.fields(bad), ["lines"])

    def test_it_is_nobody_elses(self) -> None:
        whole = self.planned()
        for method, path in (("GET", ""), ("POST", "/plan"), ("GET", "/planning"), ("DELETE", "")):
            answer = self.other.call(method, f"/run-ups/{whole['id']}{path}")
            self.assertEqual(answer.status_code, 404, path)
        bad = self.other.call("POST", "/run-ups", {"service_id": self.service["id"]})
        self.assertEqual(self.fields(bad), ["service_id"])
        csv_out = self.other.get(f"/api/run-ups/{whole['id']}/run-sheets.csv")
        self.assertEqual(csv_out.status_code, 404)

    def test_a_lost_process_loses_no_planning(self) -> None:
        made = self.new()
        taken = actions.claim()
        self.assertEqual(taken.run_up_id, made["id"])
        self.assertIsNone(actions.claim())  # somebody is at it
        late = timezone.now() - timedelta(minutes=1)
        Planning.objects.filter(pk=taken.pk).update(beat_at=late)
        self.work()
        self.assertEqual(self.read(made["id"])["planning"]["state"], "done")

    def test_what_ends_a_process_again_and_again_is_given_up(self) -> None:
        made = self.new()
        late = timezone.now() - timedelta(minutes=1)
        for _ in range(actions.MOST_LOST + 1):
            self.assertIsNotNone(actions.claim())
            Planning.objects.update(beat_at=late)
        self.assertIsNone(actions.claim())
        planning = self.read(made["id"])["planning"]
        self.assertEqual((planning["state"], planning["going"]), ("failed", False))
        self.assertIn("4 times", planning["answer"]["words"])

    def test_cancelled_it_keeps_the_best_there_is(self) -> None:
        made = self.new()
        self.client.call("POST", f"/run-ups/{made['id']}/cancel")
        self.work()
        whole = self.read(made["id"])
        self.assertIsNotNone(whole["planned"])

    def test_another_asking_takes_the_place_of_the_one_before(self) -> None:
        made = self.new()
        self.client.call("POST", f"/run-ups/{made['id']}/plan")
        first, second = Planning.objects.order_by("pk")
        self.assertTrue(first.cancel)
        self.assertFalse(second.cancel)
        self.assertEqual(actions.claim(), second)

    def test_an_act_is_never_dropped_and_what_makes_room_for_it_is_planned_after(self) -> None:
        whole = self.planned()
        row = RunUp.objects.get()
        plan = actions.ask(row, Planning.What.PLAN)
        self.assertEqual(actions.claim(), plan)  # it is being planned
        fish, leek = (
            next(k for k in self.blocks(whole) if k.startswith(part))
            for part in ("prep:fish", "prep:leek")
        )
        path = f"/run-ups/{whole['id']}/move"
        for key in (fish, leek):
            at = self.blocks(whole)[key]["start"] - 10
            moving = self.client.call("POST", path, {"key": key, "at": at}).body
            self.assertTrue(moving["planning"]["going"])
        plan.refresh_from_db()
        self.assertTrue(plan.cancel and plan.again)
        Planning.objects.filter(pk=plan.pk).update(state="waiting", cancel=False, again=False)
        self.work()
        after = self.read(whole["id"])
        self.assertEqual(set(after["document"]["pins"]), {fish, leek})
        self.assertFalse(after["planning"]["going"])
        ended = Planning.objects.order_by("ended_at").values_list("what", flat=True)
        self.assertEqual(list(ended)[-3:], ["move", "move", "plan"])
        self.assertFalse(after["stale"])

    def test_looking_for_something_to_plan_takes_no_lock(self) -> None:
        with CaptureQueriesContext(connection) as asked:
            self.assertIsNone(actions.claim())
        self.assertEqual(len(asked), 1)
        self.assertTrue(asked[0]["sql"].startswith("SELECT"))


class Changed(RunUpTest):
    def test_two_windows_do_not_overwrite_each_other(self) -> None:
        whole = self.planned()
        self.assertEqual(self.change(whole, served_over=20).status_code, 200)
        late = self.change(whole, served_over=5)
        self.assertEqual(late.status_code, 409)
        self.assertEqual(late.body["document"]["served_over"], 20)

    def test_nonsense_is_refused_by_its_field_and_nothing_is_lost(self) -> None:
        whole = self.planned()
        for change, field in (
            ({"served_over": -3}, "served_over"),
            ({"cooks": [{"name": "Ilse"}, {"name": "Ilse"}]}, "cooks[1].name"),
            ({"ways": {"0.0": "by-magic"}}, "way"),
            ({"rings": {"own-1": "the moon"}}, None),
        ):
            answer = self.change(whole, **change)
            if field:
                self.assertIn(field, self.fields(answer))
        self.assertEqual(self.read(whole["id"])["document"]["served_over"], 10)

    def test_a_move_that_spoils_something_is_refused_with_the_reason(self) -> None:
        whole = self.planned()
        fish = self.blocks(whole)["side:0:poach"]
        path = f"/run-ups/{whole['id']}/move"
        body = {"key": fish["key"], "at": fish["start"] - 60}
        self.client.call("POST", path, body)
        self.work()
        after = self.read(whole["id"])
        answer = after["planning"]["answer"]
        self.assertIn("where 16 is the most", answer["refused"])
        self.assertEqual(after["document"].get("pins"), {})
        self.client.call("POST", path, {**body, "anyway": True})
        self.work()
        after = self.read(whole["id"])
        self.assertEqual(after["document"]["pins"], {fish["key"]: fish["start"] - 60})
        self.assertEqual(self.blocks(after)[fish["key"]]["start"], fish["start"] - 60)
        self.assertTrue(self.blocks(after)[fish["key"]]["pinned"])

    def test_a_move_that_harms_nothing_is_kept(self) -> None:
        whole = self.planned()
        key = next(k for k in self.blocks(whole) if k.startswith("prep:leek"))
        at = self.blocks(whole)[key]["start"] - 20
        self.client.call("POST", f"/run-ups/{whole['id']}/move", {"key": key, "at": at})
        self.work()
        after = self.read(whole["id"])
        self.assertEqual(after["planning"]["answer"], {"moved": key, "at": at})
        self.assertEqual(after["document"]["pins"], {key: at})

    def test_pins_that_leave_no_way_are_let_go_and_told(self) -> None:
        whole = self.planned()
        blocks = self.blocks(whole)
        plate = next(b for b in blocks.values() if b["key"].startswith("plate:"))
        first = min(blocks.values(), key=lambda block: block["start"])
        pins = {plate["key"]: first["start"] - 200, first["key"]: first["start"]}
        self.change(whole, pins=pins)
        self.work()
        after = self.read(whole["id"])
        self.assertEqual(after["planning"]["state"], "done", after["planning"])
        self.assertTrue(any("pinned (2)" in str(told) for told in after["planned"]["remarks"]))
        self.assertEqual(set(self.blocks(after)), set(blocks))
        self.assertEqual(after["document"]["pins"], pins)  # the cook's own word stays

    def test_nobody_there_says_so_with_a_way_on(self) -> None:
        whole = self.planned()
        self.change(whole, out=[{"what": "cook:Toma"}, {"what": "cook:Ilse"}])
        self.work()
        told = self.read(whole["id"])["planning"]
        self.assertEqual(told["state"], "failed")
        self.assertIn("stay longer", str(told["answer"]))

    def test_a_task_it_does_not_have_is_refused(self) -> None:
        whole = self.planned()
        move = self.client.call("POST", f"/run-ups/{whole['id']}/move", {"key": "x", "at": 1})
        self.assertEqual(self.fields(move), ["key"])
        body = {"key": "x", "what": "began", "revision": whole["revision"]}
        self.assertEqual(
            self.fields(self.client.call("POST", f"/run-ups/{whole['id']}/mark", body)), ["key"]
        )

    def test_a_cook_falls_ill_and_the_rest_is_planned_without_them(self) -> None:
        whole = self.planned()
        self.change(whole, out=[{"what": "cook:Toma"}])
        self.work()
        after = self.read(whole["id"])
        cooks = {cook for block in self.blocks(after).values() for cook in block["cooks"]}
        self.assertEqual(cooks, {"Ilse"})


class Followed(RunUpTest):
    def test_what_is_begun_and_done_stays_and_the_rest_moves(self) -> None:
        whole = self.planned()
        first = min(self.blocks(whole).values(), key=lambda block: block["start"])
        path = f"/run-ups/{whole['id']}/mark"
        body = {"key": first["key"], "what": "began", "at": first["start"] - 30}
        marked = self.client.call("POST", path, {**body, "revision": whole["revision"]}).body
        self.assertEqual(marked["document"]["now"], first["start"] - 30)
        self.work()
        going = self.read(whole["id"])
        self.assertEqual(self.blocks(going)[first["key"]]["state"], "going")
        self.assertEqual(self.blocks(going)[first["key"]]["start"], first["start"] - 30)
        over = {"key": first["key"], "what": "over", "at": first["start"] - 25}
        self.client.call("POST", path, {**over, "revision": going["revision"]})
        self.work()
        done = self.read(whole["id"])
        self.assertEqual(self.blocks(done)[first["key"]]["state"], "done")
        self.assertEqual(self.blocks(done)[first["key"]]["end"], first["start"] - 25)
        undo = {"key": first["key"], "what": "undo", "revision": done["revision"]}
        self.client.call("POST", path, undo)
        self.work()
        self.assertEqual(self.blocks(self.read(whole["id"]))[first["key"]]["state"], "planned")

    def test_work_at_the_board_that_is_over_tells_its_usual_minutes(self) -> None:
        whole = self.planned()
        key = next(key for key in self.blocks(whole) if key.startswith("prep:"))
        block = self.blocks(whole)[key]
        usual = block["end"] - block["start"]
        path, revision = f"/run-ups/{whole['id']}/mark", whole["revision"]
        for what, at in (("began", block["start"]), ("over", block["start"] + 2.0 * usual)):
            body = {"key": key, "what": what, "at": at, "revision": revision}
            whole = self.client.call("POST", path, body).body
            revision = whole["revision"]
        self.assertAlmostEqual(whole["document"]["marks"][key]["usual"], usual, delta=0.6)

    def test_a_run_up_of_another_week_says_so_and_loses_nothing(self) -> None:
        whole = self.planned()
        first = min(self.blocks(whole).values(), key=lambda block: block["start"])
        body = {"key": first["key"], "what": "began", "at": first["start"], "revision": 1}
        path = f"/run-ups/{whole['id']}/mark"
        began = self.client.call("POST", path, {**body, "revision": whole["revision"]}).body
        pot = next(b for b in self.blocks(whole).values() if b["key"].startswith("pot:"))
        of_service = f"/stove/of-service/{self.service['id']}"
        for days in (30, -30):  # the day it is of comes to lie far behind, and far ahead
            RunUp.objects.update(date=timezone.localdate() - timedelta(days=days))
            now = {"key": first["key"], "what": "began", "revision": began["revision"]}
            self.assertEqual(self.fields(self.client.call("POST", path, now)), ["key"])
            more = {"pot": pot["pot"], "one_more": True}
            batch = self.client.call("POST", of_service, more).body
            begun = RunUp.objects.get().date
            at = timezone.make_aware(datetime.combine(begun, time(11)))
            Batch.objects.filter(pk=batch["id"]).update(started_at=at)  # a pot nobody ended
            self.assertEqual(
                self.read(whole["id"])["document"]["marks"], began["document"]["marks"]
            )
            Batch.objects.filter(pk=batch["id"]).update(
                status=Batch.Status.DONE, ended_at=at + timedelta(days=9)
            )
            self.work()
            self.read(whole["id"])
        undo = {"key": first["key"], "what": "undo", "revision": began["revision"]}
        self.assertEqual(
            self.client.call("POST", path, undo).body["document"]["marks"].get(first["key"]), None
        )

    @mock.patch(
        "kestrel.run_up.planner.wants_mending", lambda _: False
    )  # it is late: that is not what is tried
    def test_it_follows_the_stove(self) -> None:
        whole = self.planned()
        pot = next(b for b in self.blocks(whole).values() if b["key"].startswith("pot:"))
        batch = self.client.call(
            "POST", f"/stove/of-service/{self.service['id']}", {"pot": pot["pot"]}
        ).body
        self.assertTrue(self.read(whole["id"])["stale"])
        row = RunUp.objects.get()
        at = timezone.now() - timedelta(minutes=10)
        Batch.objects.filter(pk=batch["id"]).update(started_at=at)
        row.date = at.date()
        row.save()
        self.client.call("POST", f"/run-ups/{whole['id']}/plan")
        self.work()
        block = self.blocks(self.read(whole["id"]))[pot["key"]]
        began = minute_at(row, at)
        self.assertEqual((block["state"], block["start"]), ("going", began))
        Batch.objects.filter(pk=batch["id"]).update(step=3)
        self.assertTrue(self.read(whole["id"])["stale"])  # a step further moves the plan
        self.client.call("POST", f"/run-ups/{whole['id']}/plan")
        self.work()
        further = self.blocks(self.read(whole["id"]))[pot["key"]]
        self.assertLess(further["end"], block["end"])
        over = at + timedelta(minutes=21)
        Batch.objects.filter(pk=batch["id"]).update(status=Batch.Status.DONE, ended_at=over)
        self.client.call("POST", f"/run-ups/{whole['id']}/plan")
        self.work()
        block = self.blocks(self.read(whole["id"]))[pot["key"]]
        self.assertEqual((block["state"], block["end"]), ("done", began + 21.0))

    def test_calls_are_timed_and_go_out(self) -> None:
        whole = self.planned()
        path = f"/run-ups/{whole['id']}/calls"
        early = self.client.call("POST", path, {"line": 0})
        self.assertEqual(self.fields(early), ["line"])
        self.change(whole, to_order=[0])
        self.work()
        self.assertEqual(self.read(whole["id"])["planned"]["to_order"][0]["line"], 0)
        for table in ("4", "5"):
            self.client.call("POST", path, {"line": 0, "portions": 2, "table": table, "at": 725})
        self.work()
        after = self.read(whole["id"])
        calls = after["planned"]["calls"]
        self.assertEqual([call["table"] for call in calls], ["4", "5"])
        self.assertGreaterEqual(min(call["begin"] for call in calls), 725)
        self.assertFalse(after["stale"])
        self.client.call("POST", f"{path}/0", {"gone": True})
        self.work()
        left = self.read(whole["id"])["planned"]["calls"]
        self.assertEqual([call["table"] for call in left], ["5"])
        self.assertEqual(self.fields(self.client.call("POST", f"{path}/9", {})), ["number"])

    def test_a_mend_is_taken_by_its_key(self) -> None:
        whole = self.planned()
        row = RunUp.objects.get()
        row.planned = {
            **row.planned,
            "mends": [
                {
                    "key": "over-20",
                    "words": "w",
                    "late": 0,
                    "harmed": 0,
                    "change": {"served_over": 30},
                }
            ],
        }
        row.save()
        path = f"/run-ups/{whole['id']}/mend"
        bad = self.client.call("POST", path, {"key": "gone", "revision": whole["revision"]})
        self.assertEqual(self.fields(bad), ["key"])
        self.client.call("POST", path, {"key": "over-20", "revision": whole["revision"]})
        self.assertEqual(self.read(whole["id"])["document"]["served_over"], 30)

    def test_a_mend_changes_nothing_else_that_was_said_meanwhile(self) -> None:
        whole = self.planned()
        row = RunUp.objects.get()
        mend = {"key": "ring", "words": "w", "late": 0, "harmed": 0, "change": {"served_over": 30}}
        row.planned, row.document = (
            {**row.planned, "mends": [mend]},
            {**row.document, "pins": {"plate:0": 700.0}},
        )
        row.save()
        body = {"key": "ring", "revision": whole["revision"]}
        said = self.client.call("POST", f"/run-ups/{whole['id']}/mend", body).body["document"]
        self.assertEqual((said["served_over"], said["pins"]), (30, {"plate:0": 700.0}))


class TakenOut(RunUpTest):
    def test_csv_and_calendar(self) -> None:
        whole = self.planned()
        text = self.client.get(f"/api/run-ups/{whole['id']}/run-sheets.csv").content.decode()
        rows = list(csv.DictReader(io.StringIO(text)))
        self.assertEqual({row["cook"] for row in rows}, {"Ilse", "Toma"})
        answer = self.client.get(f"/api/run-ups/{whole['id']}/run-sheets.ics")
        self.assertEqual(answer["Content-Type"], "text/calendar")
        events = vobject.readOne(answer.content.decode()).contents["vevent"]
        self.assertEqual(len(events), len(rows))
        self.assertEqual({event.dtstart.value.date().isoformat() for event in events}, {DAY})


class Means(KitchenTest):
    def test_cooks_things_and_ways_are_kept(self) -> None:
        self.client.call("POST", "/larder/cooks", {"name": "Ilse", "can": ["stove", "plate"]})
        made = self.client.call("POST", "/larder/gear", {"kind": "oven", "shelves": "5"})
        self.assertEqual((made.status_code, made.body["name"]), (201, "Oven"))
        self.client.call(
            "POST", "/larder/gear", {"kind": "smoker", "name": "Smoker", "can": ["smoke"]}
        )
        way = next(w for w in self.means()["ways"] if w["key"] == "sear")
        self.client.call("PUT", "/larder/ways", {"row": {**way, "minutes": "11"}})
        told = self.means()
        self.assertEqual([cook["can"] for cook in told["cooks"]], [["plate", "stove"]])
        self.assertEqual(told["own_ways"], {"sear": True})
        self.assertEqual(next(w for w in told["ways"] if w["key"] == "sear")["minutes"], 11)
        self.client.call("DELETE", "/larder/ways/sear")
        self.assertEqual(self.means()["own_ways"], {})
        self.assertEqual(self.other.call("GET", "/larder/means").body["cooks"], [])

    def test_a_way_nobody_ships_has_a_key_of_its_own(self) -> None:
        def made(name: str, *does: str) -> dict:
            return self.client.call("POST", "/larder/ways", {"name": name, "does": does}).body

        first, second, third = made("Poach in oil", "hake"), made(" Poach in oil"), made("油")
        keys = [one["key"] for one in (first, second, third)]
        self.assertEqual(keys, ["own-poach-in-oil", "own-poach-in-oil-2", "own-way"])
        self.assertEqual((first["minutes"], first["does"]), (10, ["hake"]))
        self.assertEqual(self.means()["own_ways"], dict.fromkeys(keys, False))
        for name in ("", "x" * 61):
            answer = self.client.call("POST", "/larder/ways", {"name": name})
            self.assertEqual(self.fields(answer), ["name"])

    def means(self) -> dict:
        return self.client.call("GET", "/larder/means").body

    def test_nonsense_is_named_by_its_field(self) -> None:
        add_gear(self.kitchen, "oven", "")
        for path, body, field in (
            ("cooks", {"name": " "}, "name"),
            ("cooks", {"name": "Ilse", "can": ["sing"]}, "can"),
            ("gear", {"kind": "dragon", "name": "Dragon"}, "kind"),
            ("gear", {"kind": "oven", "count": "many"}, "count"),
            ("gear", {"kind": "oven", "shelves": "900"}, "shelves"),
        ):
            answer = self.client.call("POST", f"/larder/{path}", body)
            self.assertEqual(self.fields(answer), [field], body)
        self.client.call("POST", "/larder/cooks", {"name": "Ilse"})
        self.assertEqual(
            self.fields(self.client.call("POST", "/larder/cooks", {"name": "Ilse"})), ["name"]
        )
        bad = self.client.call(
            "PUT", "/larder/ways", {"row": {"key": "x", "name": "X", "minutes": -1}}
        )
        self.assertEqual(self.fields(bad), ["minutes"])


class Migrating(Flushes, TransactionTestCase):
    """Run-ups of the version before."""

    def tearDown(self) -> None:
        executor = MigrationExecutor(connection)
        executor.migrate(executor.loader.graph.leaf_nodes())

    def test_they_are_read_and_planned_anew(self) -> None:
        executor = MigrationExecutor(connection)
        before = [("run_up", "0001_initial")]
        executor.migrate(before)
        old = executor.loader.project_state(before).apps.get_model("run_up", "RunUp")
        user = open_kitchen("Lower kitchen", "ada", PASSWORD)
        document = {**write_run_up(Document(to_order=(0,))), "open_for": 90.0}
        made = old.objects.create(
            kitchen_id=user.kitchens.get().pk,
            name="Night",
            date=DAY,
            document=document,
            planned={"days": [], "mends": [{"key": "later", "after": document}]},
        )
        executor = MigrationExecutor(connection)
        executor.migrate(executor.loader.graph.leaf_nodes())
        now = RunUp.objects.get(pk=made.pk)
        self.assertEqual(read_run_up(now.document).to_order, (0,))
        self.assertIsNone(now.planned)
