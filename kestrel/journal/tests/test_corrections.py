"""A finished batch stays finished; what was written of it is corrected visibly, beside what stood before."""

from datetime import timedelta
from typing import Any

from django.db import DatabaseError, connection, transaction
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from kestrel.journal.models import Correction, Entry, Lesson
from kestrel.journal.weeks import weeks
from kestrel.stove.models import Batch
from kestrel.tests.acts import act, go, one
from kestrel.tests.clients import KitchenTest
from kestrel.tests.entries import cooked, saucepan


class Corrections(KitchenTest):
    def setUp(self) -> None:
        super().setUp()
        saucepan(self.kitchen)
        self.entry = cooked(self.kitchen, self.user, self.saved(), verdict="again", note="fine")

    def correct(self, key: str = "a-correction", client: Any = None, **said: Any) -> Any:
        body = {"key": key, "weighed": "", "verdict": "nearly", "note": "too thin", **said}
        path = f"/journal/{self.entry.pk}/corrections"
        return (client or self.client).call("POST", path, {"why": "the scale was off", **body})

    def test_it_stands_beside_what_stood_before(self) -> None:
        before = self.entry.weighed_g
        made = self.correct(weighed="1234 g")
        self.assertEqual(made.status_code, 201, made.content)
        told = made.body
        self.assertEqual(
            (told["actual"]["mass_g"], told["verdict"], told["note"]),
            (1234.0, "nearly", "too thin"),
        )
        [was] = told["corrections"]
        self.assertEqual((was["by"], was["why"]), ("ada", "the scale was off"))
        self.assertEqual((was["was"]["mass_g"], was["was"]["note"]), (before, "fine"))
        again = self.correct("another-one", weighed="1300 g", verdict="again").body
        self.assertEqual([one["was"]["mass_g"] for one in again["corrections"]], [before, 1234.0])
        row = Entry.objects.get()
        self.assertEqual((row.weighed_g, row.verdict), (before, "again"))

    def test_sent_twice_it_is_written_once(self) -> None:
        for _ in range(2):
            self.assertEqual(self.correct(weighed="1234 g").status_code, 201)
        self.assertEqual(Correction.objects.count(), 1)

    def test_what_is_looked_for_is_what_stands(self) -> None:
        def found(**query: str) -> int:
            return int(self.client.get("/api/journal", query).json()["total"])

        self.assertEqual((found(verdict="again"), found(text="fine")), (1, 1))
        self.correct()
        self.assertEqual((found(verdict="again"), found(text="fine")), (0, 0))
        self.assertEqual((found(verdict="nearly"), found(text="thin")), (1, 1))
        self.correct("back-again", verdict="again", note="fine")
        self.assertEqual((found(verdict="again"), found(verdict="nearly")), (1, 0))

    def test_what_it_teaches_is_reckoned_again(self) -> None:
        before = Lesson.objects.get().told
        self.correct(weighed=f"{(self.entry.weighed_g or 0) * 0.93:.0f} g")
        self.assertNotEqual(Lesson.objects.get().told, before)
        self.correct("not-weighed", weighed="")
        kinds = {line["kind"] for line in Lesson.objects.get().told}
        self.assertNotIn("pace", kinds)

    def test_weeks_ask_for_them_once(self) -> None:
        today = timezone.localdate()
        days = (self.kitchen, today - timedelta(days=30), today, 0)
        with CaptureQueriesContext(connection) as of_one:
            weeks(*days)
        for number in range(4):
            cooked(self.kitchen, self.user, self.saved(name=f"S{number}"), verdict="again")
        self.correct(weighed="1234 g")
        with CaptureQueriesContext(connection) as of_five:
            found = weeks(*days)
        self.assertEqual(len(of_five), len(of_one))
        self.assertIn(1234.0, [line.made_g for week in found.weeks for line in week.lines])

    def test_nonsense_names_its_field_and_strangers_see_nothing(self) -> None:
        for said, field in (
            ({"weighed": "much"}, "weighed"),
            ({"verdict": "good"}, "verdict"),
            ({"why": "  "}, "why"),
            ({"why": "x" * 400}, "why"),
            ({"reached_pa_s": -1}, "reached_pa_s"),
            ({"key": "short"}, "key"),
        ):
            self.assertEqual(self.fields(self.correct(**said)), [field], said)
        self.assertEqual(self.correct(client=self.other).status_code, 404)
        self.assertFalse(Correction.objects.exists())

    def test_the_database_refuses_to_rewrite_it(self) -> None:
        self.correct()
        for change in (
            lambda: Correction.objects.update(note="other"),
            lambda: Correction.objects.all()._raw_delete("default"),
        ):
            with self.assertRaises(DatabaseError), transaction.atomic():
                change()

    def test_a_finished_batch_stays_finished(self) -> None:
        batch = self.entry.batch
        last = len(batch.plan["cards"])
        for done in (
            go(last, 0),
            one("back"),
            one("left"),
            one("mended", sign="too-thin", title="t", steps=[], act=0),
        ):
            act(self.client, batch.pk, done)
            batch.refresh_from_db()
            self.assertEqual((batch.status, batch.step), (Batch.Status.DONE, last), done["kind"])

    def test_a_batch_that_was_taken_off_is_put_back_before_it_is_written_down(self) -> None:
        sauce = self.saved(name="Another")
        batch = self.client.call("POST", "/stove", {"sauce_id": sauce.pk}).body
        act(self.client, batch["id"], one("left"))
        body = {"batch_id": batch["id"], "verdict": "again"}
        self.assertEqual(self.fields(self.client.call("POST", "/journal", body)), ["batch"])
        act(self.client, batch["id"], one("back"))
        self.assertEqual(self.client.call("POST", "/journal", body).status_code, 201)
