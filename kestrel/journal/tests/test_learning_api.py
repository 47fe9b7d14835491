"""What batches teach, over the API: told, gone by when a cook says so, taken back; and what became of them."""

import json
import time
from datetime import datetime, timedelta
from typing import Any

from django.db import IntegrityError, connection, transaction
from django.test import tag
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from kestrel.accounts.models import Kitchen
from kestrel.journal.models import Entry, Lesson, Served
from kestrel.larder.actions import core_kitchen, set_habit
from kestrel.larder.means import library_of
from kestrel.larder.models import Learnt
from kestrel.run_up.models import RunUp
from kestrel.sauces.models import Sauce, SauceVersion
from kestrel.service.actions import save_dish, save_service
from kestrel.stove.actions import start
from kestrel.stove.models import Batch
from kestrel.tests.clients import KitchenTest
from kestrel.tests.entries import cooked, saucepan
from saucier.check import check
from saucier.run_up import read_run_up, write_run_up
from saucier.run_up.library import shipped_prepares
from saucier.sheet import read_sheet

PACE = {"kind": "pace", "of": "saucepan 20", "at": "simmer"}
FLOUR = {"kind": "strength", "of": "wheat-flour", "at": ""}


class JournalTest(KitchenTest):
    def setUp(self) -> None:
        super().setUp()
        saucepan(self.kitchen)
        self.sauce = self.saved()

    def cooked(self, sauce: Sauce | None = None, **told: Any) -> Entry:
        return cooked(self.kitchen, self.user, sauce or self.sauce, **told)

    def learning(self) -> dict[str, dict[str, Any]]:
        body = self.client.call("GET", "/journal/learning").body
        return {f"{one['kind']} {one['of']} {one['at']}".strip(): one for one in body["things"]}


class Learning(JournalTest):
    def test_told_gone_by_and_taken_back(self) -> None:
        for days in range(6, 0, -1):
            self.cooked(off_g=-40.0, days=days)
        told = self.learning()["pace saucepan 20 simmer"]
        self.assertTrue(told["ready"])
        self.assertGreater(told["factor"], 1.2)
        self.assertEqual((told["records"], len(told["seen"]), told["gone_by"]), (6, 6, None))
        self.assertAlmostEqual(told["usual"] * told["factor"], told["value"])
        self.assertIn("boils off", told["words"])
        before = check(read_sheet(self.sauce.newest.sheet), core_kitchen(self.kitchen))
        body = self.client.call("POST", "/journal/learning", PACE).body
        self.assertTrue(body["things"])
        after = check(read_sheet(self.sauce.newest.sheet), core_kitchen(self.kitchen))
        self.assertLess(after.final.pot.total_g, before.final.pot.total_g - 20.0)
        told = self.learning()["pace saucepan 20 simmer"]
        self.assertFalse(told["ready"])  # nothing new since
        self.assertAlmostEqual(told["gone_by"], told["factor"])
        # Nothing that was written down changes, and what is seen is told against the usual still.
        self.assertEqual(Lesson.objects.count(), 6)
        self.cooked(off_g=-40.0)
        again = self.learning()["pace saucepan 20 simmer"]
        self.assertGreater(again["factor"], told["factor"] - 0.05)
        self.client.call("POST", "/journal/learning/undo", PACE)
        undone = check(read_sheet(self.sauce.newest.sheet), core_kitchen(self.kitchen))
        self.assertEqual(undone.final.pot.total_g, before.final.pot.total_g)
        self.assertEqual(Learnt.objects.count(), 1)  # it stays written down that it was gone by
        self.assertEqual(
            self.fields(self.client.call("POST", "/journal/learning/undo", PACE)), ["of"]
        )

    def test_a_stronger_flour_draws_the_edges_in_and_moves_the_amounts(self) -> None:
        for days in range(8, 0, -1):
            self.cooked(thicker=1.6, days=days)
        told = self.learning()["strength wheat-flour"]
        self.assertGreater(told["factor"], 1.05)
        self.assertLess(told["edge"], told["edge_usual"])
        given = {"sheet": self.sauce.newest.sheet}

        def asked(what: str) -> Any:
            return self.client.call("POST", f"/work/{what}", given).body

        def width(worked: Any) -> float:
            final = worked["final"]
            return float(final["viscosity_high_pa_s"] / final["viscosity_low_pa_s"])

        def flour_g(worked: Any) -> float:
            return float(worked["sheet"]["steps"][0]["flour"]["amount"]["value"])

        before, solved_before = asked("check"), asked("solve")
        self.client.call("POST", "/journal/learning", FLOUR)
        after, solved_after = asked("check"), asked("solve")
        thick = [one["final"]["viscosity_pa_s"] for one in (before, after)]
        self.assertGreater(thick[1], 1.2 * thick[0])
        self.assertLess(width(after), width(before))
        self.assertLess(flour_g(solved_after), flour_g(solved_before))
        self.assertGreater(asked("sure")["chance"], 0.6)

    def test_undo_goes_back_to_what_was_gone_by_before(self) -> None:
        for days in range(9, 5, -1):
            self.cooked(thicker=1.5, days=days)
        self.client.call("POST", "/journal/learning", FLOUR)
        first = self.learning()["strength wheat-flour"]["gone_by"]
        for days in range(5, 0, -1):
            self.cooked(thicker=2.2, days=days)
        self.client.call("POST", "/journal/learning", FLOUR)
        second = self.learning()["strength wheat-flour"]["gone_by"]
        self.assertGreater(second, first)
        self.client.call("POST", "/journal/learning/undo", FLOUR)
        self.assertEqual(self.learning()["strength wheat-flour"]["gone_by"], first)
        self.client.call("POST", "/journal/learning", FLOUR)
        self.client.call("POST", "/journal/learning/undo", {**FLOUR, "all_of_it": True})
        self.assertIsNone(self.learning()["strength wheat-flour"]["gone_by"])

    def test_too_few_are_told_and_refused(self) -> None:
        self.assertEqual(self.fields(self.client.call("POST", "/journal/learning", PACE)), ["of"])
        self.cooked(off_g=-30.0)
        told = self.learning()["pace saucepan 20 simmer"]
        self.assertFalse(told["ready"])
        self.assertIn("2 more", told["why_not"])
        self.assertEqual(self.fields(self.client.call("POST", "/journal/learning", PACE)), ["of"])
        self.assertEqual(Learnt.objects.count(), 0)

    def test_it_is_each_kitchens_own(self) -> None:
        for days in range(4, 0, -1):
            self.cooked(thicker=1.7, days=days)
        self.assertEqual(self.other.call("GET", "/journal/learning").body["things"], [])
        self.client.call("POST", "/journal/learning", FLOUR)
        theirs = Kitchen.objects.get(name="Upper kitchen")
        self.assertEqual(core_kitchen(theirs).strengths, {})
        self.assertIn("wheat-flour", core_kitchen(self.kitchen).strengths)
        self.assertEqual(core_kitchen(self.kitchen, usual=True).strengths, {})

    def test_entries_of_before_are_caught_up_with(self) -> None:
        for days in range(4, 0, -1):
            self.cooked(thicker=1.3, days=days)
        Lesson.objects.all().delete()
        body = self.client.call("GET", "/journal/learning").body
        self.assertEqual((len(body["things"]) > 0, body["to_read"]), (True, 0))

    def test_writing_down_teaches_at_once(self) -> None:
        batch = start(self.kitchen, self.user, self.sauce.newest)
        body = {
            "batch_id": batch.pk,
            "weighed": "1100",
            "reached_pa_s": 1.5,
            "verdict": "again",
        }
        self.assertEqual(self.client.call("POST", "/journal", body).status_code, 201)
        self.assertEqual([one["kind"] for one in Lesson.objects.get().told], ["strength"])


class Afterwards(JournalTest):
    def say(self, entry: Entry, key: str = "served-key-1", **more: Any) -> Any:
        path = f"/journal/of-batch/{entry.batch_id}/served"
        typed = {name: str(value) for name, value in more.items()}
        return self.client.call("POST", path, {"key": key, **typed})

    def test_said_once_the_last_word_counts_and_none_is_rewritten(self) -> None:
        entry = self.cooked()
        first = self.say(entry, portions=10, thrown=50, reason="too much made")
        self.assertEqual(first.status_code, 201)
        self.say(entry, portions=99)  # the same key again
        self.say(entry, key="served-key-2", portions=12, thrown=0)
        path = f"/journal/of-batch/{entry.batch_id}/served"
        last = self.client.call("GET", path).body
        self.assertEqual((last["portions"], last["thrown_g"], last["said"]), (12, 0, True))
        self.assertEqual(Served.objects.count(), 2)
        for sql in ("UPDATE journal_served SET portions = 1", "DELETE FROM journal_served"):
            with (
                self.assertRaises(IntegrityError),
                transaction.atomic(),
                connection.cursor() as cursor,
            ):
                cursor.execute(sql)
        self.assertEqual(self.other.call("GET", path).status_code, 404)

    def test_nonsense_names_the_field(self) -> None:
        entry = self.cooked()
        for more, field in (
            ({}, "portions"),
            ({"portions": -1}, "portions"),
            ({"portions": 1e9}, "portions"),
            ({"portions": "lots"}, "portions"),
            ({"thrown": "2 L"}, "thrown"),
            ({"thrown": 1e6, "reason": "x"}, "thrown"),
            ({"thrown": 20}, "reason"),
            ({"emptied": 10}, "emptied"),
        ):
            self.assertIn(field, self.fields(self.say(entry, **more)), more)
        self.assertEqual(Served.objects.count(), 0)

    def test_the_emptied_pot_teaches_what_clings(self) -> None:
        for days in range(4, 0, -1):
            entry = self.cooked(days=days)
            self.say(entry, key=f"served-key-{days}", emptied="1.27 kg")
        told = self.learning()["film"]
        self.assertGreater(told["value"], told["usual"])
        film = {"kind": "film", "of": "", "at": ""}
        before = core_kitchen(self.kitchen).film_ml
        self.client.call("POST", "/journal/learning", film)
        self.assertGreater(core_kitchen(self.kitchen).film_ml, before)
        # What a cook sets in the larder by hand comes first, and nothing is proposed beside it.
        set_habit(self.kitchen, "film", 22.0)
        self.assertEqual(core_kitchen(self.kitchen).film_ml, 22.0)
        self.assertNotIn("film", self.learning())

    def test_what_each_portion_really_took(self) -> None:
        sauce = self.saved(
            target={
                "grade": "binding",
                "volume": {"value": 1, "unit": "L"},
                "serves": {"use": "nap", "count": 18},
            }
        )
        for days in range(4, 0, -1):
            entry = self.cooked(sauce, days=days)
            self.say(entry, key=f"served-key-{days}", portions=12, thrown=0)
        told = self.learning()["served nap"]
        self.assertGreater(told["factor"], 1.1)
        self.client.call("POST", "/journal/learning", {"kind": "served", "of": "nap", "at": ""})
        self.assertGreater(core_kitchen(self.kitchen).per_ml["nap"], 60.0)

    def test_weeks(self) -> None:
        for days in (2, 1):
            entry = self.cooked(days=days)
            made = entry.weighed_g or 0.0
            self.say(
                entry,
                key=f"served-key-{days}",
                portions=10,
                thrown=0.3 * made,
                reason="too much made",
            )
        today = timezone.localdate()
        path = f"/journal/weeks?first={today - timedelta(days=20)}&last={today}"
        body = self.client.call("GET", path).body
        lines = [line for week in body["weeks"] for line in week["lines"]]
        for week in body["weeks"]:
            self.assertAlmostEqual(week["thrown_pct"], 30.0, places=1)
        self.assertEqual(sum(line["batches"] for line in lines), 2)
        thrown, made = (sum(line[key] for line in lines) for key in ("thrown_g", "made_g"))
        self.assertAlmostEqual(thrown / made, 0.3, places=2)
        self.assertGreater(sum(line["cost"] for line in lines), 0.0)
        self.assertEqual(lines[0]["reasons"], ["too much made"])
        self.assertIn("portions fewer", body["instead"][0]["words"])
        self.cooked()
        body = self.client.call("GET", path).body
        lines = [line for week in body["weeks"] for line in week["lines"]]
        self.assertEqual(sum(line["unsaid"] for line in lines), 1)
        self.assertAlmostEqual(body["weeks"][-1]["thrown_pct"], 30.0, places=1)  # of what was said
        far = f"/journal/weeks?first=2020-01-01&last={today}"
        self.assertEqual(self.fields(self.client.call("GET", far)), ["last"])


class AtTheBoard(JournalTest):
    def test_the_cooks_own_minutes(self) -> None:
        today = timezone.localdate()
        for n in range(4):
            marks = {
                "prep:potato:0": {"began": 600.0, "over": 621.0, "usual": 14.0},
                "prep:leek:0": {"began": 600.0, "over": 600.2, "usual": 9.0},  # pressed at once
                "prep:gone-thing:0": {"began": 600.0, "over": 621.0, "usual": 14.0},
                "pot:x#1": {"began": 600.0, "over": 640.0},
            }
            RunUp.objects.create(
                kitchen=self.kitchen,
                name=f"Lunch {n}",
                date=today - timedelta(days=n),
                document=write_run_up(read_run_up({"marks": marks})),
            )
        told = self.learning()
        self.assertEqual([key for key in told if key.startswith("work")], ["work peel-and-cut"])
        one = told["work peel-and-cut"]
        self.assertTrue(one["ready"])
        self.assertTrue(1.2 < one["factor"] < 1.5)
        self.assertIn("longer here than usual", one["words"])
        peel = shipped_prepares()["peel-and-cut"]
        before = library_of(self.kitchen).minutes(peel, 2000)
        thing = {"kind": "work", "of": "peel-and-cut", "at": ""}
        self.client.call("POST", "/journal/learning", thing)
        self.assertGreater(library_of(self.kitchen).minutes(peel, 2000), 1.2 * before)
        self.client.call("POST", "/journal/learning/undo", thing)
        self.assertEqual(library_of(self.kitchen).minutes(peel, 2000), before)


class Looking(JournalTest):
    def total(self, **asked: Any) -> int:
        query = "&".join(f"{key}={value}" for key, value in asked.items())
        return int(self.client.call("GET", f"/journal?{query}").body["total"])

    def test_by_sauce_dish_cook_day_verdict_and_words(self) -> None:
        other = self.saved(name="Leek sauce")
        self.cooked(days=9, note="too salty", verdict="nearly")
        self.cooked(other, days=2)
        mine = self.cooked(other, verdict="not-so")
        Batch.objects.filter(pk=mine.batch_id).update(cook="Ilse")
        dish = save_dish(
            self.kitchen,
            {"name": "Leeks", "sauces": [{"sauce": str(other.pk), "use": "nap"}]},
        )
        lines = [{"dish": str(dish.pk), "portions": 4}]
        service = save_service(self.kitchen, {"name": "Lunch", "lines": lines})
        Batch.objects.filter(pk=mine.batch_id).update(service=service)
        self.assertEqual(self.total(), 3)
        self.assertEqual(self.total(sauce=other.pk), 2)
        self.assertEqual(self.total(sauce=other.pk, verdict="not-so"), 1)
        self.assertEqual(self.total(dish=dish.pk), 1)
        self.assertEqual(self.total(dish=99999), 0)
        self.assertEqual(self.total(cook="Ilse"), 1)
        self.assertEqual(self.total(cook="ada"), 2)
        self.assertEqual(self.total(text="salt"), 1)
        self.assertEqual(self.total(text="LEEK"), 2)
        since = timezone.localdate() - timedelta(days=5)
        self.assertEqual(self.total(first=since), 2)
        self.assertEqual(self.total(last=since), 1)
        self.assertEqual(self.fields(self.client.call("GET", "/journal?verdict=x")), ["verdict"])
        late = f"/journal?first={since}&last={since - timedelta(days=1)}"
        self.assertEqual(self.fields(self.client.call("GET", late)), ["last"])
        choices = self.client.call("GET", "/journal/choices").body
        self.assertEqual(choices["cooks"], ["Ilse", "ada"])
        self.assertEqual(
            {one["name"] for one in choices["sauces"]}, {"Leek sauce", self.sauce.name}
        )
        self.assertEqual(self.other.call("GET", "/journal").body["total"], 0)

    def test_two_beside_each_other(self) -> None:
        one, other = self.cooked(days=1), self.cooked(off_g=-100.0, note="wider pan")
        body = self.client.call("GET", f"/journal/beside?one={one.pk}&other={other.pk}").body
        lines = {line["what"]: line for line in body["lines"]}
        self.assertTrue(lines["came to"]["differs"])
        self.assertFalse(lines["Wheat flour"]["differs"] if "Wheat flour" in lines else False)
        self.assertEqual(lines["next time"]["other"], "wider pan")
        self.assertTrue(any("minutes at" in what for what in lines))
        same = f"/journal/beside?one={one.pk}&other={one.pk}"
        self.assertEqual(self.fields(self.client.call("GET", same)), ["other"])
        stranger = self.other.call("GET", f"/journal/beside?one={one.pk}&other={other.pk}")
        self.assertEqual(stranger.status_code, 404)

    def test_again_as_it_turned_out(self) -> None:
        entry = self.cooked(thicker=0.4)
        made = self.client.call("POST", f"/journal/{entry.pk}/again")
        self.assertEqual(made.status_code, 201)
        self.assertEqual(made.body, {"sauce_id": self.sauce.pk, "version": 2})
        sheet = SauceVersion.objects.get(sauce=self.sauce, number=2).sheet
        self.assertEqual(sheet["target"]["grade"], "nappe")
        self.assertEqual(sheet["pan"]["name"], "saucepan 20")
        self.assertEqual(self.other.call("POST", f"/journal/{entry.pk}/again").status_code, 404)

    def test_what_notes_say_again(self) -> None:
        for days, note in enumerate(("too salty", "Too salty again", "fine"), 1):
            self.cooked(days=days, note=note, thicker=1.5)
        body = self.client.call("GET", f"/journal/of-sauce/{self.sauce.pk}").body
        self.assertEqual(body["batches"], 3)
        self.assertEqual(body["verdicts"]["again"], 3)
        self.assertAlmostEqual(body["thickness_factor"], 1.5, places=3)
        self.assertEqual(len(body["said"]), 1)
        self.assertEqual(len(body["said"][0]["notes"]), 2)


class ManyEntries(JournalTest):
    def test_a_page_asks_the_database_as_often_however_much_is_on_it(self) -> None:
        self.client.call("GET", "/journal")  # its session is known from here on
        for path in ("/journal", f"/journal/of-sauce/{self.sauce.pk}"):
            asked = []
            for _ in range(2):
                for days in range(3):
                    self.cooked(days=days)
                with CaptureQueriesContext(connection) as queries:
                    self.client.call("GET", path)
                asked.append(len(queries))
            self.assertEqual(asked[0], asked[1], path)

    @tag("measured")
    def test_ten_thousand_are_listed_and_looked_through_in_time(self) -> None:
        entry = self.cooked(note="too salty")
        batch, now = entry.batch, timezone.now()
        sauces = [self.saved(name=f"Sauce {n}").newest for n in range(20)]
        batches = [
            Batch(
                kitchen=self.kitchen,
                version=sauces[n % 20],
                sheet=batch.sheet,
                plan=batch.plan,
                began=batch.began,
                status="done",
                started_by=self.user,
                ended_at=now - timedelta(hours=n),
            )
            for n in range(10_000)
        ]
        Batch.objects.bulk_create(batches, batch_size=500)
        Entry.objects.bulk_create(
            [
                Entry(
                    kitchen=self.kitchen,
                    batch=one,
                    made_at=now - timedelta(hours=n),
                    weighed_g=1000,
                    verdict=("again", "nearly", "not-so")[n % 3],
                    note="a bit thin" if n % 7 else "needs lemon",
                )
                for n, one in enumerate(batches)
            ],
            batch_size=500,
        )
        took: dict[str, float] = {}
        for asked in (
            "",
            f"sauce={sauces[3].sauce_id}",
            "verdict=nearly",
            "text=lemon",
            "cook=ada",
            f"first={(now - timedelta(days=30)).date()}&verdict=again",
            f"older={(now - timedelta(hours=9000)).isoformat().replace('+', '%2B')}_1",
        ):
            began = time.perf_counter()
            body = self.client.call("GET", f"/journal?{asked}").body
            took[asked or "all"] = time.perf_counter() - began
            self.assertTrue(body["entries"], asked)
        began = time.perf_counter()
        self.client.call("GET", "/journal/choices")
        took["choices"] = time.perf_counter() - began
        print("journal of 10,000:", {key: f"{1000 * value:.0f} ms" for key, value in took.items()})
        # 300 ms is the figure to hold (`make bench`); a slow machine is given three times that.
        self.assertLess(max(took.values()), 0.9, json.dumps(took))
        self.assertIsInstance(datetime.now(), datetime)
