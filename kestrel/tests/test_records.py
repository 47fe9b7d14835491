"""Records: no table of them can be rewritten, in whatever way; an inspector reads what was written and by whom."""

import time
from datetime import timedelta
from typing import Any
from unittest import mock

from django.db import DatabaseError, connection, models, transaction
from django.test import TestCase
from django.utils import timezone

from kestrel.accounts.models import User
from kestrel.accounts.signing import SignedRow
from kestrel.append_only import AppendOnly, records, trigger_names
from kestrel.journal.models import Correction, Entry, Served
from kestrel.keeping.models import Event, Kept
from kestrel.keeping.tests.test_keeping_api import Keeping
from kestrel.stove.models import Act, Batch, Device, Milestone, Reading
from kestrel.tests.acts import act, one
from kestrel.tests.clients import JsonClient

PRINTED = {Milestone, Act, Reading, Kept, Event, Entry, Correction, Served}
"""Everything that an inspector's record or the journal prints."""


class Triggers(TestCase):
    def test_what_is_printed_is_a_record_and_every_record_has_its_triggers(self) -> None:
        self.assertEqual(set(records()), PRINTED)
        with connection.cursor() as cursor:
            cursor.execute("SELECT name FROM sqlite_master WHERE type = 'trigger'")
            there = {row[0] for row in cursor.fetchall()}
        self.assertEqual(there, {name for model in records() for name in trigger_names(model)})

    def test_every_record_but_a_devices_is_signed(self) -> None:
        for model in records():
            self.assertEqual(issubclass(model, SignedRow), model is not Reading, model)
            for pointer in model.POINTERS:
                self.assertTrue(model._meta.get_field(pointer).null, (model, pointer))


class NoTableIsRewritten(Keeping):
    def setUp(self) -> None:
        super().setUp()
        batch = self.cooked()
        act(self.client, batch["id"], one("noted", text="as it was"))
        entry = self.client.call(
            "POST", "/journal", {"batch_id": batch["id"], "verdict": "again"}
        ).body
        self.client.call(
            "POST",
            f"/journal/{entry['id']}/corrections",
            {"key": "correct-it", "weighed": "3 kg", "verdict": "nearly", "why": "misread"},
        )
        self.client.call(
            "POST",
            f"/journal/of-batch/{batch['id']}/served",
            {"key": "served-it-1", "portions": "9"},
        )
        kept = self.put(batch).body
        self.happens(kept, "temperature", celsius=60.0)
        device = Device.objects.create(
            kitchen=self.kitchen, name="blue", kind="probe", digest="x", made_by=self.user
        )
        Reading.objects.create(
            batch_id=batch["id"], device=device, kind="probe", at=timezone.now(), value=60.0
        )

    def dies(self, what: Any, change: Any) -> None:
        with self.subTest(what), self.assertRaises(DatabaseError), transaction.atomic():
            change()

    def test_update_delete_replace_bulk_and_cascade(self) -> None:
        for model in records():
            rows = model._default_manager.all()
            row = rows.first()
            assert row is not None, model
            table, name = model._meta.db_table, model.__name__
            written = {
                field.column: getattr(row, field.attname) for field in model._meta.concrete_fields
            }
            for field in model._meta.concrete_fields:
                if field.name in row.POINTERS:
                    continue
                self.dies(
                    (name, "update", field.name),
                    lambda f=field, r=rows: r.update(**{f.attname: _other(f, r)}),
                )
            self.dies((name, "delete"), lambda r=row: r.delete())
            self.dies((name, "bulk delete"), lambda r=rows: r.delete())
            self.dies((name, "raw delete"), lambda t=table: _sql(f'DELETE FROM "{t}"'))
            columns = ", ".join(f'"{column}"' for column in written)
            self.dies(
                (name, "replace"),
                lambda t=table, c=columns: _sql(
                    f'INSERT OR REPLACE INTO "{t}" ({c}) SELECT {c} FROM "{t}" LIMIT 1'
                ),
            )
            self.dies(
                (name, "replace by update"),
                lambda t=table: _sql(f'UPDATE OR REPLACE "{t}" SET id = id + 1000'),
            )
            fresh = model(
                **{f.attname: getattr(row, f.attname) for f in model._meta.concrete_fields}
            )
            self.dies(
                (name, "bulk upsert"),
                lambda m=model, f=fresh: m._default_manager.bulk_create(
                    [f], update_conflicts=True, unique_fields=["id"], update_fields=[_plain(m)]
                ),
            )
            for pointer in row.POINTERS:  # who did it may go; what was done stays
                rows.update(**{pointer: None})

    def test_nothing_they_hang_on_is_deleted_with_them(self) -> None:
        for what, change in (
            ("batch", lambda: Batch.objects.all().delete()),
            ("kitchen", lambda: self.kitchen.delete()),
            ("raw batch", lambda: _sql("DELETE FROM stove_batch")),
        ):
            rows = {model: model._default_manager.count() for model in records()}
            try:
                with transaction.atomic():
                    change()
                    connection.check_constraints()
            except (DatabaseError, models.ProtectedError):
                pass
            else:
                self.fail(f"{what} was deleted")
            self.assertEqual({m: m._default_manager.count() for m in records()}, rows)

    def test_who_did_it_may_go_and_their_name_stays(self) -> None:
        person = User.objects.create_user("gone", password="quiet-ridge-42", first_name="Gone")
        note = one("noted", text="by somebody")
        self.do_as(person, note)
        Act.objects.filter(by=person).update(by=None)
        person.delete()
        self.assertEqual(Act.objects.get(key=note["key"]).by_name, "Gone")

    def do_as(self, person: User, note: dict[str, Any]) -> None:
        self.kitchen.members.add(person)
        act(self.signed_in(person), Batch.objects.get().pk, note)


def _sql(text: str) -> None:
    with connection.cursor() as cursor:
        cursor.execute(text)


def _plain(model: type[AppendOnly]) -> str:
    return next(
        field.name
        for field in model._meta.concrete_fields
        if not field.primary_key and field.name not in model.POINTERS
    )


def _other(field: Any, rows: Any) -> Any:
    """Another value than any there is."""
    kinds = {
        models.BooleanField: lambda: not getattr(rows.first(), field.attname),
        models.DateTimeField: lambda: timezone.now() + timedelta(days=900),
        models.DateField: lambda: timezone.localdate() + timedelta(days=900),
        models.JSONField: lambda: {"rewritten": True},
        models.CharField: lambda: "zz",
        models.TextField: lambda: "zz",
    }
    for kind, value in kinds.items():
        if isinstance(field, kind):
            return value()
    return 987_654


class TheRecordSays(Keeping):
    def lines(self, client: Any = None, **more: Any) -> Any:
        today = timezone.localdate()
        asked = {"first": today - timedelta(days=5), "last": today, **more}
        query = "&".join(f"{key}={value}" for key, value in asked.items())
        return (client or self.client).call("GET", f"/keeping/records?{query}").body

    def cooling(
        self, *read: tuple[float, float], minutes_ago: float = 300, **more: Any
    ) -> dict[str, Any]:
        """Put away so long ago at the end of cooking, and read (minute after, °C) by hand then and there."""
        with self.ago(minutes=minutes_ago):
            kept = self.put(self.cooked(), **more).body
        for minute, celsius in read:
            with self.ago(minutes=minutes_ago - minute):
                self.happens(
                    kept,
                    "temperature",
                    celsius=celsius,
                    **({"tray": 1} if more.get("trays") else {}),
                )
        return kept

    def stages(self) -> list[tuple[str, str, str]]:
        return [
            (x["met"], x["value"], x["source"]) for x in self.lines() if "by readings" in x["what"]
        ]

    def test_62_to_44_degrees_in_four_hours_is_missed_whatever_the_sum_says(self) -> None:
        self.cooling((30, 62), (60, 60), (120, 55), (180, 48), (235, 44))
        [(met, value, source)] = self.stages()
        self.assertIn("missed", met)
        self.assertIn("62.0 °C at", value)
        self.assertIn("44.0 °C at", value)
        self.assertEqual(source, "typed by hand")

    def test_nothing_read_is_not_shown_and_no_reckoned_figure_stands_there(self) -> None:
        self.cooling((1, 82))
        [(met, value, _)] = self.stages()
        self.assertIn("not shown", met)
        self.assertNotIn("10.0", value)

    def test_met_by_readings_with_those_it_rests_on(self) -> None:
        self.cooling((5, 66), (12, 61), (100, 9.5), (115, 8), (200, 14))
        [(met, value, _)] = self.stages()
        self.assertIn("95 min at most: met", met)
        for reading in ("66.0", "61.0", "9.5"):
            self.assertIn(reading, value)
        self.assertIn("warmed again", " ".join(x["what"] for x in self.lines()))

    def test_each_tray_by_its_own_readings(self) -> None:
        kept = self.cooling((5, 66), (12, 61), (100, 9.5), trays=2)
        lots = self.client.call("GET", f"/keeping/{kept['id']}").body["lots"]
        self.assertEqual([lot["stages"][0]["verdict"] for lot in lots], ["met", "not-shown"])
        self.assertEqual([lot["failed"] for lot in lots], [False, True])
        whats = [x["what"] for x in self.lines() if "by readings" in x["what"]]
        self.assertTrue(any("tray 1 of 2" in what for what in whats))

    def test_a_reading_nobody_said_the_tray_of_proves_nothing_of_any(self) -> None:
        with self.ago(minutes=300):
            kept = self.put(self.cooked(), trays=2).body
        for minute, celsius in ((5, 66), (12, 61), (100, 9)):
            with self.ago(minutes=300 - minute):
                self.happens(kept, "temperature", celsius=celsius)
        lots = self.client.call("GET", f"/keeping/{kept['id']}").body["lots"]
        self.assertEqual([lot["stages"][0]["verdict"] for lot in lots], ["not-shown"] * 2)

    def test_a_wrong_reading_is_corrected_by_a_later_line_and_both_are_printed(self) -> None:
        kept = self.cooling((5, 66), (12, 61), (100, 90))
        key = next(
            e["key"]
            for e in self.client.call("GET", f"/keeping/{kept['id']}").body["events"]
            if e["data"].get("celsius") == 90
        )
        told = self.happens(kept, "corrected", of=key, why="it was 9.0", celsius=9.0).body
        self.assertEqual(told["lots"][0]["stages"][0]["verdict"], "met")
        [(met, value, _)] = self.stages()
        self.assertIn("met", met)
        self.assertIn("9.0 °C", value)
        self.assertIn("first written 90.0", value)
        [line] = [x for x in self.lines() if x["value"] == "90.0 °C"]
        self.assertEqual(line["corrected"], "it was 9.0 (ada)")
        self.assertEqual(
            self.fields(self.happens(kept, "corrected", of=key, why="twice")), ["events[0].of"]
        )

    def test_it_is_judged_by_the_rules_of_then(self) -> None:
        self.client.call("PUT", "/keeping/rules", {"rules": {"key": "two-steps-57"}})
        self.cooling((5, 60), (12, 55), (100, 20), (300, 4), minutes_ago=400)
        self.client.call("PUT", "/keeping/rules", {"rules": {"key": "one-step-8"}})
        self.assertEqual([met.rsplit(": ")[-1] for met, _, _ in self.stages()], ["met", "met"])

    def test_a_missed_one_keeps_no_longer_and_what_was_done_does_not_change_that(self) -> None:
        kept = self.cooling((5, 66), (12, 61), (125, 30), (200, 20))
        told = self.happens(kept, "action", words="into ice").body
        self.assertTrue(told["unshown"])
        self.assertEqual(told["use_by"], told["put_at"][:10])
        [line] = [x for x in self.client.call("GET", "/keeping").body if x["id"] == kept["id"]]
        self.assertTrue(line["unshown"])

    def test_who_draws_on_it_is_asked(self) -> None:
        kept = self.cooling((5, 66), (12, 61), (125, 30), (200, 20))
        self.assertEqual(
            self.fields(self.happens(kept, "drawn", grams=100.0)), ["events[0].although"]
        )
        self.assertEqual(Event.objects.filter(kind="drawn").count(), 0)
        taken = self.happens(kept, "drawn", grams=100.0, although=True)
        self.assertEqual(taken.status_code, 200, taken.content)
        drawn = next(x for x in self.lines() if x["what"].startswith("taken out"))
        self.assertIn("although nothing shows", drawn["what"])

    def test_a_service_asks_before_it_draws_and_begins_nothing_meanwhile(self) -> None:
        from kestrel.service.actions import save_dish, save_service
        from kestrel.service.work import worked

        kept = self.cooling((5, 66), (12, 61), (125, 30), (200, 20))
        sauce = Kept.objects.get().batch.version.sauce
        other = self.saved(name="Beside it")
        uses = [{"sauce": str(sauce.pk), "use": "nap"}, {"sauce": str(other.pk), "use": "nap"}]
        dish = save_dish(self.kitchen, {"name": "Leeks", "sauces": uses})
        hand = {"sauce": str(sauce.pk), "amount": {"value": 400, "unit": "mL"}, "age_days": 0}
        document = {
            "name": "Lunch",
            "lines": [{"dish": str(dish.pk), "portions": 10}],
            "on_hand": [hand],
        }
        service = save_service(self.kitchen, document)
        pot = worked(self.kitchen, service.document, service.pinned).plan.pots[0].key
        path, batches = f"/stove/of-service/{service.pk}", Batch.objects.count()
        asked = self.client.call("POST", path, {"pot": pot})
        self.assertEqual((asked.status_code, asked.body["asks"]), (409, [kept["id"]]))
        self.assertEqual(
            (Batch.objects.count(), Event.objects.filter(kind="drawn").count()), (batches, 0)
        )
        self.assertEqual(
            self.client.call("POST", path, {"pot": pot, "use_unshown": False}).status_code, 201
        )
        self.assertEqual(Event.objects.filter(kind="drawn").count(), 0)
        self.client.call("POST", path, {"pot": pot, "use_unshown": True, "one_more": True})
        self.assertTrue(Event.objects.get(kind="drawn").data["although"])

    def test_when_it_was_written_stands_beside_when_it_is_said_to_have_been(self) -> None:
        with self.ago(minutes=200):
            kept = self.put(self.cooked()).body
        at = (timezone.now() - timedelta(minutes=150)).isoformat()
        self.happens(kept, "temperature", celsius=40.0, at=at)
        self.happens(kept, "temperature", celsius=20.0)
        late, now = [x for x in self.lines() if x["what"] == "temperature"]
        self.assertIsNotNone(late["written_at"])
        self.assertIsNone(now["written_at"])

    def test_nothing_is_dated_in_the_future_and_a_clock_that_is_off_is_told(self) -> None:
        kept = self.put(self.cooked()).body
        ahead = timezone.now() + timedelta(hours=3)
        body = {
            "events": [{**one("temperature"), "celsius": 70.0, "at": ahead.isoformat()}],
            "sent_at": ahead.isoformat(),
        }
        self.client.call("POST", f"/keeping/{kept['id']}/events", body)
        event = Event.objects.get()
        self.assertLessEqual(event.at, timezone.now())
        [line] = [x for x in self.lines() if x["what"] == "temperature"]
        self.assertIn("180 min off", line["source"])
        self.happens(
            kept, "temperature", celsius=69.0, at=(timezone.now() + timedelta(days=4)).isoformat()
        )
        self.assertLessEqual(Event.objects.order_by("pk").last().at, timezone.now())

    def test_a_simulated_device_is_told_as_such(self) -> None:
        with self.ago(minutes=300):
            kept = self.put(self.cooked()).body
            put_at = timezone.now()
        for minute, celsius in ((5, 66.0), (12, 61.0), (100, 9.0)):
            Reading.objects.create(
                batch=Batch.objects.get(),
                kind="probe",
                at=put_at + timedelta(minutes=minute),
                value=celsius,
                device_name="bench probe",
                simulated=True,
                kept_key=kept["key"],
                tray=1,
            )
        [(met, _, source)] = self.stages()
        self.assertIn("met", met)
        self.assertIn("SIMULATED", source)
        csv = self.client.get(
            f"/api/keeping/records.csv?first={timezone.localdate()}&last={timezone.localdate()}"
        )
        self.assertIn("source", csv.content.decode().splitlines()[0])

    def test_a_key_of_another_thing_is_refused(self) -> None:
        batch = self.cooked()
        first, second = (self.put(batch, grams=500.0).body for _ in range(2))
        event = {**one("temperature"), "celsius": 60.0}
        for kept, status in ((first, 200), (first, 200), (second, 422)):
            sent = self.client.call("POST", f"/keeping/{kept['id']}/events", {"events": [event]})
            self.assertEqual(sent.status_code, status)
        other = self.cooked()
        again = {**self.given(other), "key": first["key"]}
        self.assertEqual(self.fields(self.client.call("POST", "/keeping", again)), ["key"])

    def test_what_is_refused_is_rolled_back_whole(self) -> None:
        kept = self.put(self.cooked(), grams=1000.0).body
        good, bad = {**one("drawn"), "grams": 100.0}, {**one("drawn"), "grams": 5000.0}
        sent = self.client.call("POST", f"/keeping/{kept['id']}/events", {"events": [good, bad]})
        self.assertEqual(self.fields(sent), ["events[1].grams"])
        self.assertEqual(Event.objects.count(), 0)

    def test_both_lines_stay_of_what_was_abandoned_and_brought_back(self) -> None:
        sauce = self.saved()
        pot = self.client.call("POST", "/stove", {"sauce_id": sauce.pk}).body["id"]
        act(self.client, pot, one("left"))
        act(self.client, pot, one("back"))
        self.assertEqual([x["what"] for x in self.lines()], ["began", "abandoned", "brought back"])

    def test_the_one_who_was_chosen_signs_on_a_shared_tablet(self) -> None:
        path = self.client.call("POST", "/people/invites", {}).body["path"]
        from kestrel.accounts.people import join

        tove = join(path.rsplit("/", 1)[1], "tove", "Tove", "quiet-ridge-42")
        self.client.call("PUT", "/people/here/shared", {"shared": True})
        self.client.call("PUT", "/people/here/cooking", {"id": tove.pk})
        batch = self.cooked()
        entry = self.client.call(
            "POST", "/journal", {"batch_id": batch["id"], "verdict": "again", "note": "good"}
        ).body
        self.assertEqual((entry["by"], entry["session"]), ("Tove", "ada"))
        done = next(x for x in self.lines() if x["what"] == "done")
        self.assertEqual((done["by"], done["session"]), ("Tove", "ada"))

    def test_a_label_says_if_it_is_cold_by_then_until_readings_have_shown_it(self) -> None:
        batch = self.cooked()
        label = self.client.call("POST", f"/stove/{batch['id']}/labels", {"copies": 1}).body
        self.assertIn("IF AT 10 °C BY", label["text"])
        kept = self.cooling((5, 66), (12, 61))
        asked = {"copies": 1}
        missed = self.client.call("POST", f"/keeping/{kept['id']}/labels", asked).body
        self.assertEqual(missed[0]["document"]["use_by"], kept["put_at"][:10])
        with self.ago(minutes=200):
            self.happens(kept, "temperature", celsius=9.0)
        met = self.client.call("POST", f"/keeping/{kept['id']}/labels", asked).body
        self.assertNotIn("IF AT", met[0]["text"])
        self.assertGreater(met[0]["document"]["use_by"], kept["put_at"][:10])

    def test_a_device_stops_when_who_made_it_is_let_go(self) -> None:
        from kestrel.accounts.people import join, leave

        path = self.client.call("POST", "/people/invites", {}).body["path"]
        tove = join(path.rsplit("/", 1)[1], "tove", "Tove", "quiet-ridge-42")
        made = self.signed_in(tove).call("POST", "/devices", {"name": "hers", "kind": "probe"}).body
        self.assertEqual(made["made_by_name"], "Tove")

        def sends(token: str) -> int:
            return (
                self.client_class()
                .post(
                    "/api/readings",
                    '{"temperature_c": 60}',
                    content_type="application/json",
                    headers={"Authorization": f"Bearer {token}"},
                )
                .status_code
            )

        self.assertEqual(sends(made["token"]), 200)
        leave(self.kitchen, tove.pk)
        self.assertEqual(sends(made["token"]), 401)
        [told] = self.client.call("GET", "/devices").body
        self.assertIsNotNone(told["stopped_at"])
        token = self.client.call("POST", f"/devices/{made['id']}/token").body["token"]
        self.assertEqual(sends(token), 200)

    def test_a_probe_is_of_one_tray_and_of_a_lot_there_is(self) -> None:
        with self.ago(minutes=60):
            kept = self.put(self.cooked(), trays=2).body
        made = self.client.call("POST", "/devices", {"name": "blue", "kind": "probe"}).body
        path, here = (
            f"/devices/{made['id']}",
            {"batch_id": kept["batch_id"], "kept_key": kept["key"]},
        )
        for bad in ({"kept_key": "nobodys-lot"}, {"tray": 3}, {"batch_id": None}):
            self.assertEqual(
                self.fields(self.client.call("PUT", path, {**here, **bad})), ["kept_key"]
            )
        self.assertEqual(self.client.call("PUT", path, {**here, "tray": 2}).status_code, 200)
        self.client_class().post(
            "/api/readings",
            '{"temperature_c": 41}',
            content_type="application/json",
            headers={"Authorization": f"Bearer {made['token']}"},
        )
        told = self.client.call("GET", f"/keeping/{kept['id']}").body
        self.assertEqual([(one["tray"], one["celsius"]) for one in told["read"]], [(2, 41.0)])
        self.client.call("PUT", path, {**here, "tray": 1})
        self.assertIsNone(self.client.call("GET", "/devices").body[0]["value"])

    def test_hours_of_a_probe_are_read_quickly(self) -> None:
        with self.ago(minutes=600):
            kept = self.put(self.cooked()).body
            put_at = timezone.now()
        batch = Batch.objects.get()
        Reading.objects.bulk_create(
            Reading(
                batch=batch,
                kind="probe",
                at=put_at + timedelta(seconds=5 * n),
                value=4.0 + 76.0 * 0.9985**n,
                kept_key=kept["key"],
                tray=1,
            )
            for n in range(7000)
        )
        path, spent = f"/keeping/{kept['id']}", []
        for _ in range(2):
            began = time.process_time()
            [stage] = self.client.call("GET", path).body["lots"][0]["stages"]
            spent.append(time.process_time() - began)
        # Every five seconds: proved within a fraction of a minute.
        self.assertLess(stage["at_most_min"] - stage["at_least_min"], 0.5)
        self.assertEqual(stage["verdict"], "missed" if stage["at_least_min"] > 120 else "met")
        self.assertLess(spent[0], 3.0)
        self.assertLess(spent[1], 1.0)

    def test_two_people_never_share_a_shown_name(self) -> None:
        from kestrel.accounts.people import join

        def invite() -> str:
            return self.client.call("POST", "/people/invites", {}).body["path"].rsplit("/", 1)[1]

        join(invite(), "tove", "Tove", "quiet-ridge-42")
        body = {
            "token": invite(),
            "username": "other",
            "called": " tove ",
            "password": "quiet-ridge-42",
        }
        self.assertEqual(self.fields(JsonClient().call("POST", "/people/join", body)), ["called"])
        self.assertEqual(
            self.fields(self.client.call("PUT", "/people/me/called", {"called": "TOVE"})),
            ["called"],
        )


class Held(Keeping):
    def test_a_pot_that_stands_cools_on_from_its_last_reading_however_old(self) -> None:
        batch = self.cooked()
        row = Batch.objects.get(pk=batch["id"])
        Reading.objects.create(batch=row, kind="probe", at=timezone.now(), value=61.0)
        later = timezone.now() + timedelta(minutes=12)
        with mock.patch("django.utils.timezone.now", lambda: later):
            line = next(x for x in self.client.call("GET", "/stove").body if x["id"] == row.pk)
        self.assertLess(line["waits"]["temperature_c"], 61.0)
        self.assertAlmostEqual(line["waits"]["probed_minutes_ago"], 12.0, delta=0.5)
        self.assertIn("12 min ago", line["waits"]["words"])
        self.assertTrue(line["waits"]["below_rule"])

    def test_a_liaison_probed_at_68_is_for_its_service(self) -> None:
        yolk = {
            "op": "liaison",
            "yolk": {"ingredient": "egg-yolk", "amount": "54 g"},
            "cream": {"ingredient": "cream-35", "amount": "100 g"},
        }
        for celsius, days in ((68.0, 0), (82.0, 1)):
            batch = self.cooked(yolk)
            row = Batch.objects.get(pk=batch["id"])
            Reading.objects.create(batch=row, kind="probe", at=timezone.now(), value=celsius)
            kept = self.put(batch, grams=500.0).body
            made = timezone.localdate(Kept.objects.get(pk=kept["id"]).off_fire_at)
            self.assertEqual(kept["use_by"], str(made + timedelta(days=days)), celsius)

    def test_put_away_as_it_was_read_not_as_the_sheet_has_it(self) -> None:
        batch = self.cooked()
        row = Batch.objects.get(pk=batch["id"])
        Reading.objects.create(batch=row, kind="probe", at=timezone.now(), value=64.0)
        cooling = self.put(batch).body["cooling"]
        self.assertAlmostEqual(cooling["curve"][0]["hottest_c"], 64.0, delta=1.0)
