"""Dishes and services: kept, copied, pinned, worked out, exported."""

import csv
import datetime
import io
import json

import vobject
from django.core.management import call_command
from django.db import connection
from django.test import TestCase
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from kestrel.accounts.models import User
from kestrel.sauces.actions import delete, save_again
from kestrel.service.actions import checked_dish
from kestrel.service.models import Dish, Service
from kestrel.service.work import dish_seen
from kestrel.tests.clients import JsonClient, KitchenTest
from saucier.sheet import read_sheet
from saucier.testing import CHEESE_SAUCE


class ServiceTest(KitchenTest):
    def setUp(self) -> None:
        super().setUp()
        self.sauce = self.saved()
        made = self.client.call("POST", "/dishes", {"document": self.dish_document()})
        self.assertEqual(made.status_code, 201, made.body)
        self.dish = made.body

    def dish_document(self, **change: object) -> dict:
        return {
            "name": "Leeks under cheese",
            "sauces": [{"sauce": str(self.sauce.pk), "use": "nap"}],
            "solids": [{"ingredient": "leek", "grams": 150}],
            **change,
        }

    def document(self, portions: float = 12, **change: object) -> dict:
        line = {"dish": str(self.dish["id"]), "portions": portions}
        return {"name": "Lunch", "date": "2026-11-27", "lines": [line], **change}

    def new(self, **change: object):
        return self.client.call("POST", "/services", {"document": self.document(**change)})


class Kept(ServiceTest):
    def test_save_list_change_delete_restore(self) -> None:
        made = self.new().body
        self.assertEqual(made["pinned"], {str(self.sauce.pk): 1})
        row = self.client.call("GET", "/services").body["rows"][0]
        self.assertEqual((row["portions"], row["dishes"], row["date"]), (12, 1, "2026-11-27"))
        path = f"/services/{made['id']}"
        body = {"document": self.document(portions=20), "revision": 1}
        self.assertEqual(self.client.call("PUT", path, body).body["revision"], 2)
        body["document"] = self.document(portions=21)
        late = self.client.call("PUT", path, body)
        self.assertEqual(late.status_code, 409)
        self.assertEqual(late.body["document"]["lines"][0]["portions"], 20)
        self.assertEqual(self.client.call("DELETE", path).status_code, 204)
        self.assertEqual(self.client.call("GET", "/services").body["rows"], [])
        self.client.call("POST", f"{path}/restore")
        self.assertEqual(len(self.client.call("GET", "/services").body["rows"]), 1)

    def test_a_dish_is_read_as_it_would_be_kept_and_nothing_is_stored(self) -> None:
        typed = {"document": self.dish_document(name="Leeks", margin_pct="7.5"), "revision": 0}
        read = self.client.call("POST", "/dishes/read", typed)
        self.assertEqual((read.status_code, read.body["dish"]["margin_pct"]), (200, 7.5))
        self.assertGreater(read.body["seen"]["mouthful"]["salt_g"], 0)
        self.assertEqual(Dish.objects.get().name, "Leeks under cheese")
        kept = self.client.call("GET", f"/dishes/{self.dish['id']}").body
        self.assertEqual((kept["name"], kept["revision"]), ("Leeks under cheese", 1))
        foreign = self.dish_document(sauces=[{"sauce": "999", "use": "nap"}])
        refused = self.client.call("POST", "/dishes/read", {"document": foreign})
        self.assertEqual(refused.status_code, 422)
        self.assertEqual(refused.body["problems"][0]["field"], "sauces[0].sauce")

    def test_a_key_that_is_no_number_is_refused_by_its_field(self) -> None:
        for key in ("²", "9" * 30, "٣", "-1", "0", "leeks", " "):
            dish = self.dish_document(sauces=[{"sauce": key, "use": "nap"}])
            line = {"name": "Lunch", "lines": [{"dish": key, "portions": 3}]}
            for path, body, field in (
                ("/dishes/read", dish, "sauces[0].sauce"),
                ("/dishes", dish, "sauces[0].sauce"),
                ("/services", line, "lines[0].dish"),
            ):
                with self.subTest(path, key=key):
                    refused = self.client.call("POST", path, {"document": body})
                    self.assertEqual(refused.status_code, 422)
                    self.assertEqual(refused.body["problems"][0]["field"], field)
            # Unsaved it is worked out all the same, and the line is told.
            worked = self.client.call("POST", "/services/work", {"document": line})
            self.assertEqual(worked.body["plan"]["amiss"][0]["field"], "lines[0].dish")

    def test_a_service_keeps_a_dish_that_is_off_the_list(self) -> None:
        made = self.new().body
        self.client.call("DELETE", f"/dishes/{self.dish['id']}")
        body = {"document": self.document(portions=21), "revision": 1}
        saved = self.client.call("PUT", f"/services/{made['id']}", body)
        self.assertEqual(saved.status_code, 200)

    def test_a_dish_with_many_sauces_asks_for_them_once(self) -> None:
        sauces = [{"sauce": str(self.saved().pk), "use": "nap"} for _ in range(5)]
        for many in (sauces[:1], sauces):
            with self.assertNumQueries(1):
                dish = checked_dish(self.kitchen, self.dish_document(sauces=many))
            with CaptureQueriesContext(connection) as asked:
                dish_seen(self.kitchen, dish)
            self.assertEqual(sum("sauceversion" in one["sql"] for one in asked), 1)

    def test_dishes_too(self) -> None:
        path = f"/dishes/{self.dish['id']}"
        body = {"document": self.dish_document(name="Leeks"), "revision": 1}
        self.assertEqual(self.client.call("PUT", path, body).body["name"], "Leeks")
        late = {**body, "document": self.dish_document(name="Leeks, late")}
        self.assertEqual(self.client.call("PUT", path, late).status_code, 409)
        self.client.call("DELETE", path)
        self.assertEqual(self.client.call("GET", "/dishes").body, [])
        self.client.call("POST", f"{path}/restore")
        self.assertEqual(len(self.client.call("GET", "/dishes").body), 1)

    def test_strangers_see_and_use_nothing(self) -> None:
        made = self.new().body
        for method, path in (
            ("GET", f"/services/{made['id']}"),
            ("DELETE", f"/services/{made['id']}"),
            ("DELETE", f"/dishes/{self.dish['id']}"),
        ):
            self.assertEqual(self.other.call(method, path).status_code, 404)
        self.assertEqual(self.other.call("GET", "/dishes").body, [])
        refused = self.other.call("POST", "/services/work", {"document": self.document()})
        self.assertEqual(refused.body["plan"]["amiss"][0]["field"], "lines[0].dish")
        self.assertNotIn("Leeks", str(refused.body))
        theirs = self.other.call("POST", "/dishes", {"document": self.dish_document()})
        self.assertIn("sauces[0].sauce", self.fields(theirs))

    def test_copy_to_a_day_and_a_week_on(self) -> None:
        made = self.new().body
        path = f"/services/{made['id']}/copy"
        self.assertEqual(
            self.client.call("POST", path, {"day": "2027-01-05"}).body["date"], "2027-01-05"
        )
        week = datetime.date.fromisoformat(self.client.call("POST", path, {}).body["date"])
        self.assertEqual(week.weekday(), datetime.date(2026, 11, 27).weekday())
        self.assertEqual(Service.objects.count(), 3)

    def test_dated_services_as_a_calendar(self) -> None:
        self.new(name="Night shift, 2 a.m.", date="2026-12-03")
        self.new(name="Some day", date=None)
        answer = self.client.get("/api/services/calendar.ics")
        self.assertEqual(answer["Content-Type"], "text/calendar")
        # Another library than the one that wrote it.
        events = list(vobject.readOne(answer.content.decode()).vevent_list)
        self.assertEqual([one.dtstart.value.isoformat() for one in events], ["2026-12-03"])
        self.assertEqual(events[0].summary.value, "Night shift, 2 a.m., 12 portions")
        self.assertEqual(events[0].description.value, "12 × Leeks under cheese")
        other = self.other.get("/api/services/calendar.ics").content
        self.assertEqual(other.count(b"BEGIN:VEVENT"), 0)

    def test_a_weekly_service_carries_itself_on(self) -> None:
        today = timezone.localdate()
        past = today - datetime.timedelta(days=10)
        stock = {"ingredient": "stock-light", "amount": {"value": 1, "unit": "L"}}
        made = self.new(date=past.isoformat(), repeats="weekly", on_hand=[stock]).body
        save_again(self.sauce, self.user, read_sheet({**CHEESE_SAUCE, "name": "Milder"}), 1)
        self.client.call("GET", "/services")
        self.assertEqual(Service.objects.count(), 1)  # looking writes nothing
        done = [self.client.call("POST", "/services/carry-on").body for _ in range(2)]
        self.assertEqual(done, [1, 0])
        rows = self.client.call("GET", "/services").body["rows"]
        self.assertEqual([row["repeats"] for row in rows], ["weekly", "never"])
        following = Service.objects.get(pk=rows[0]["id"])
        self.assertEqual(following.date, past + datetime.timedelta(days=14))
        self.assertEqual(following.pinned, {str(self.sauce.pk): 2})
        self.assertEqual(following.document["on_hand"], [])
        served = self.client.call("GET", f"/services/{made['id']}").body
        self.assertEqual(served["pinned"], {str(self.sauce.pk): 1})
        self.assertEqual(len(served["document"]["on_hand"]), 1)

    def test_nothing_is_carried_on_before_its_day_is_over(self) -> None:
        today = timezone.localdate().isoformat()
        self.new(date=today, repeats="weekly")
        deleted = self.new(date="2026-01-04", repeats="weekly").body
        self.client.call("DELETE", f"/services/{deleted['id']}")
        self.new(date=None, repeats="weekly")
        self.assertEqual(self.client.call("POST", "/services/carry-on").body, 0)
        self.assertEqual(len(self.client.call("GET", "/services").body["rows"]), 2)

    def test_nonsense_names_the_field(self) -> None:
        line = {"dish": str(self.dish["id"]), "portions": 4}
        for change, field in (
            ({"lines": [{**line, "portions": 0}]}, "lines[0].portions"),
            ({"lines": [{**line, "portions": "many"}]}, "lines[0].portions"),
            ({"date": "soon"}, "date"),
            ({"name": ""}, "name"),
        ):
            with self.subTest(field):
                self.assertIn(field, self.fields(self.new(**change)))
        bad = self.dish_document(sauces=[{"sauce": str(self.sauce.pk), "use": "cap"}])
        self.assertIn("vessel", self.fields(self.client.call("POST", "/dishes", {"document": bad})))


class Pinned(ServiceTest):
    def work(self, made: dict):
        body = {"document": made["document"], "pinned": made["pinned"]}
        return self.client.call("POST", "/services/work", body).body

    def test_a_sauce_changed_meanwhile_keeps_its_version_and_says_so(self) -> None:
        made = self.new().body
        before = self.work(made)
        changed = {
            **CHEESE_SAUCE,
            "name": "Milder",
            "target": {**CHEESE_SAUCE["target"], "grade": "nappe"},
        }
        save_again(self.sauce, self.user, read_sheet(changed), 1)
        after = self.work(made)
        self.assertEqual(before["plan"]["branches"], after["plan"]["branches"])
        self.assertEqual(
            after["changed"],
            [
                {
                    "sauce_id": self.sauce.pk,
                    "name": "Milder",
                    "pinned": 1,
                    "newest": 2,
                    "deleted": False,
                }
            ],
        )
        body = {"sauce_id": self.sauce.pk, "revision": 1}
        renewed = self.client.call("POST", f"/services/{made['id']}/renew", body).body
        self.assertEqual(renewed["pinned"], {str(self.sauce.pk): 2})
        self.assertEqual(self.work(renewed)["plan"]["branches"][0]["grade"], "nappe")

    def test_a_sauce_deleted_meanwhile_is_still_made(self) -> None:
        made = self.new().body
        delete(self.sauce)
        found = self.work(made)
        self.assertTrue(found["changed"][0]["deleted"])
        self.assertEqual(found["plan"]["branches"][0]["grade"], "binding")
        body = {"sauce_id": self.sauce.pk, "revision": 1}
        refused = self.client.call("POST", f"/services/{made['id']}/renew", body)
        self.assertIn("sauce_id", self.fields(refused))


class Worked(ServiceTest):
    def ask(self, what: str, **body: object):
        return self.client.call("POST", f"/services/{what}", {"document": self.document(), **body})

    def test_plan_production_and_flow_both_ways(self) -> None:
        found = self.ask("work").body
        plan = found["plan"]
        self.assertEqual(plan["lines"][0]["needs"][0]["volume_ml"], 12 * 55 * 1.05)
        self.assertTrue(found["production"]["buy"])
        key = plan["branches"][0]["key"]
        more = self.ask("flow", node=key, ml=2 * plan["branches"][0]["made_ml"]).body["plan"]
        self.assertEqual(more["service"]["lines"][0]["portions"], 25)
        self.assertAlmostEqual(
            more["branches"][0]["made_ml"], 2 * plan["branches"][0]["made_ml"], delta=60
        )
        scaled = self.ask("scale", covers=60).body["plan"]
        self.assertEqual(scaled["service"]["lines"][0]["portions"], 60)
        for what, body, field in (
            ("flow", {"node": "moon", "ml": 500}, "node"),
            ("flow", {"node": key, "ml": 1}, "ml"),
            ("scale", {"covers": 0}, "covers"),
            ("short", {"ingredient": "moon", "have": "1 L"}, "ingredient"),
            ("short", {"ingredient": "milk-whole", "have": "one"}, "have"),
        ):
            self.assertIn(field, self.fields(self.ask(what, **body)))

    def test_short_of_milk(self) -> None:
        found = self.ask("short", ingredient="milk-whole", have="300 mL").body
        self.assertFalse(found["enough"])
        self.assertLess(found["lines"][0]["all_alike"], 12)
        self.assertTrue(self.ask("short", ingredient="milk-whole", have="3 L").body["enough"])

    def test_files_out(self) -> None:
        made = self.new().body
        text = self.client.get(f"/api/services/{made['id']}/production.csv").content.decode()
        rows = list(csv.DictReader(io.StringIO(text)))
        self.assertLessEqual(
            {"buy", "pot", "weigh", "serve", "dish"}, {row["part"] for row in rows}
        )
        whole = json.loads(self.client.get(f"/api/services/{made['id']}/whole.json").content)
        self.assertEqual(whole["service"]["name"], "Lunch")
        self.assertEqual(list(whole["sauces"]), [str(self.sauce.pk)])
        self.assertEqual(whole["plan"]["branches"][0]["grade"], "binding")


class DemoServices(TestCase):
    def test_both_are_there_and_come_out(self) -> None:
        call_command("load_demo", verbosity=0)
        client = JsonClient()
        user = User.objects.get(username="refectory")
        client.force_login(user, backend="django.contrib.auth.backends.ModelBackend")
        rows = {row["name"]: row for row in client.call("GET", "/services").body["rows"]}
        self.assertEqual(rows["Visitors' Sunday"]["portions"], 123)
        for row in rows.values():
            made = client.call("GET", f"/services/{row['id']}").body
            body = {"document": made["document"], "pinned": made["pinned"]}
            found = client.call("POST", "/services/work", body).body
            self.assertEqual(found["plan"]["warnings"], [])
            self.assertEqual(found["changed"], [])
        self.assertGreaterEqual(Dish.objects.count(), 12)
