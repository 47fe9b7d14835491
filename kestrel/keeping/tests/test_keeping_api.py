"""Keeping: cooled in time or not, what is left, and a record nobody rewrites."""

import json
from datetime import date, timedelta
from typing import Any
from unittest import mock

from django.db import DatabaseError, connection, transaction
from django.test.utils import CaptureQueriesContext
from django.utils import timezone

from kestrel.append_only import records, trigger_names
from kestrel.keeping.models import Event, Kept
from kestrel.larder.models import Pan
from kestrel.sauces.actions import save_again
from kestrel.sauces.models import Sauce
from kestrel.service.actions import save_dish, save_service
from kestrel.service.work import worked
from kestrel.stove.models import Act, Batch, Reading
from kestrel.tests.acts import act, go, one
from kestrel.tests.clients import KitchenTest
from kestrel.tests.flushing import rewriting
from saucier.sheet import read_sheet
from saucier.testing import add, roux, simmer


class Keeping(KitchenTest):
    def setUp(self) -> None:
        super().setUp()
        Pan.objects.create(
            kitchen=self.kitchen,
            name="tray 50 by 30",
            shape="tray",
            diameter_cm=50,
            width_cm=30,
            depth_cm=6.5,
        )
        self.count = 0

    def cooked(self, *more: dict[str, Any]) -> dict[str, Any]:
        steps = [roux(200, 200), add("milk-whole", 3, "L"), simmer(5), *more]
        sauce = self.saved(name="White for the bake", steps=steps, target={"grade": "nappe"})
        batch = self.client.call("POST", "/stove", {"sauce_id": sauce.pk}).body
        act(self.client, batch["id"], *(go(n, n + 1) for n in range(len(steps))))
        return batch

    def given(self, batch: dict[str, Any], **more: Any) -> dict[str, Any]:
        self.count += 1
        asked = {"batch_id": batch["id"], "tray": "tray 50 by 30", "trays": 1}
        return {**asked, "key": f"put-away-{self.count}", "place": "blast", **more}

    def put(self, batch: dict[str, Any], **more: Any) -> Any:
        return self.client.call("POST", "/keeping", self.given(batch, **more))

    def happens(self, kept: dict[str, Any], kind: str, **more: Any) -> Any:
        body = {"events": [{**one(kind), **more}]}
        return self.client.call("POST", f"/keeping/{kept['id']}/events", body)

    def ago(self, **time: float) -> Any:
        """All within happens so long ago."""
        then = timezone.now() - timedelta(**time)
        return mock.patch("django.utils.timezone.now", lambda: then)


class PuttingAway(Keeping):
    def test_every_place_is_told_with_its_verdict(self) -> None:
        batch = self.cooked()
        where = self.client.call("GET", "/keeping/where").body
        self.assertEqual([one["batch_id"] for one in where["possible"]], [batch["id"]])
        asked = {k: v for k, v in self.given(batch).items() if k not in ("key", "place")}
        found = self.client.call("POST", "/keeping/cooling", asked).body
        self.assertEqual([one["place"] for one in found], [one["key"] for one in where["places"]])
        told = {one["place"]: one for one in found}
        self.assertTrue(told["ice-stirred"]["ok"])
        self.assertFalse(told["table"]["ok"])
        self.assertIn("ice first", told["table"]["words"])
        self.assertGreater(told["fridge"]["trays"], 1)
        self.assertTrue(any("local rules" in one for one in told["blast"]["cautions"]))

    def test_what_is_put_away_has_its_day_and_is_there_once(self) -> None:
        batch = self.cooked()
        given = self.given(batch, grams=2000.0)
        kept = [self.client.call("POST", "/keeping", given).body for _ in range(2)]
        self.assertEqual(kept[0]["id"], kept[1]["id"])
        self.assertEqual(kept[0]["grams"], 2000.0)
        self.assertEqual(kept[0]["allergens"], ["gluten", "milk"])
        self.assertEqual(kept[0]["state"], "cooling")
        days = (date.fromisoformat(kept[0]["use_by"]) - timezone.localdate()).days
        self.assertEqual(days, kept[0]["rules"]["chilled_days"])
        by_code = self.client.call("GET", f"/keeping/code/{kept[0]['code'].lower()}").body
        self.assertEqual(by_code["id"], kept[0]["id"])
        for code in ("B99999", "x", "B" + "9" * 40, "B٣"):
            self.assertEqual(self.client.call("GET", f"/keeping/code/{code}").status_code, 404)

    def test_the_rules_chosen_are_those_in_force_and_old_ones_stay(self) -> None:
        batch = self.cooked()
        before = self.put(batch, grams=500.0).body
        chosen = self.client.call("PUT", "/keeping/rules", {"rules": {"key": "two-steps-57"}})
        self.assertEqual(chosen.body["chosen"]["key"], "two-steps-57")
        after = self.put(batch, grams=500.0).body
        self.assertEqual(
            (before["rules"]["key"], after["rules"]["key"]), ("one-step-10", "two-steps-57")
        )
        again = self.client.call("GET", f"/keeping/{before['id']}").body
        self.assertEqual(again["rules"]["key"], "one-step-10")
        own = {"name": "ours", "from_c": 60, "hot_c": 65, "reheat_c": 75, "stages": []}
        bad = self.client.call("PUT", "/keeping/rules", {"rules": own})
        self.assertEqual(self.fields(bad), ["stages"])
        bad = self.client.call("PUT", "/keeping/rules", {"rules": {"key": "nobody"}})
        self.assertEqual(self.fields(bad), ["key"])

    def test_nonsense_names_its_field(self) -> None:
        batch = self.cooked()
        for more, field in (
            ({"grams": -5.0}, "grams"),
            ({"grams": 99_999.0}, "grams"),
            ({"tray": "no tray"}, "tray"),
            ({"trays": 0}, "trays"),
            ({"trays": 1000}, "trays"),
            ({"place": "the moon"}, "place"),
            ({"from_c": 900.0}, "from_c"),
        ):
            with self.subTest(**more):
                self.assertEqual(self.fields(self.put(batch, **more)), [field])
        half = self.client.call("POST", "/stove", {"sauce_id": self.saved().pk}).body
        self.assertEqual(self.fields(self.put(half)), ["batch"])
        self.assertEqual(self.other.call("POST", "/keeping", self.given(batch)).status_code, 404)
        self.assertEqual(Kept.objects.count(), 0)


class WhatBecomesOfIt(Keeping):
    def test_what_is_drawn_and_thrown_leaves_the_rest(self) -> None:
        kept = self.put(self.cooked(), grams=2000.0).body
        drawn = self.happens(kept, "drawn", grams=700.0, purpose="the bake").body
        self.assertEqual(drawn["left_g"], 1300.0)
        much = self.happens(kept, "drawn", grams=1400.0)
        self.assertEqual(self.fields(much), ["events[0].grams"])
        thrown = self.happens(kept, "thrown", reason="stood too long").body
        self.assertEqual((thrown["left_g"], thrown["state"]), (0.0, "gone"))
        self.assertEqual(self.client.call("GET", "/keeping").body, [])
        self.assertEqual(len(self.client.call("GET", "/keeping?gone=true").body), 1)
        nothing = self.happens(kept, "drawn", grams=5.0)
        self.assertEqual(self.fields(nothing), ["events[0].grams"])

    def test_a_mistake_is_corrected_where_everybody_sees_it(self) -> None:
        kept = self.put(self.cooked(), grams=2000.0).body
        drawn = self.happens(kept, "drawn", grams=1500.0).body
        key = drawn["events"][0]["key"]
        right = self.happens(kept, "corrected", of=key, why="it was 150 g").body
        self.assertEqual(right["left_g"], 2000.0)
        self.assertEqual([e["void"] for e in right["events"]], [True, False])
        for of in (key, "no-such-event", right["events"][1]["key"]):
            again = self.happens(kept, "corrected", of=of, why="twice")
            self.assertEqual(self.fields(again), ["events[0].of"])
        self.assertEqual(Event.objects.count(), 2)

    def test_an_event_sent_twice_happens_once(self) -> None:
        kept = self.put(self.cooked(), grams=2000.0).body
        body = {"events": [one("drawn", grams=100.0)]}
        for _ in range(3):
            left = self.client.call("POST", f"/keeping/{kept['id']}/events", body).body["left_g"]
            self.assertEqual(left, 1900.0)

    def test_a_slow_one_is_told_in_time_and_what_was_done_is_written_down(self) -> None:
        with self.ago(minutes=60):
            kept = self.put(self.cooked(), place="cold-room", trays=1, from_c=80.0).body
        began = timezone.now() - timedelta(minutes=60)
        for minute, celsius in ((20, 76.0), (40, 70.0)):
            at = (began + timedelta(minutes=minute)).isoformat()
            self.happens(kept, "temperature", celsius=celsius, at=at)
        told = self.happens(kept, "temperature", celsius=64.0).body
        stage = told["lots"][0]["forecast"]["stages"][0]
        self.assertEqual(stage["outlook"], "late")
        self.assertIn("it will not be down to 10 °C", told["words"])
        done = self.happens(kept, "action", words="into ice").body
        self.assertIsNone(done["words"])

    def test_a_probe_hangs_in_it_when_it_is_done(self) -> None:
        batch = self.cooked()
        self.client.call("POST", "/journal", {"batch_id": batch["id"], "verdict": "again"})
        kept = self.put(batch, from_c=80.0).body
        made = self.client.call("POST", "/devices", {"name": "blue", "kind": "probe"}).body
        under = self.client.call("PUT", f"/devices/{made['id']}", {"batch_id": batch["id"]})
        self.assertEqual(under.status_code, 200, under.content)
        sent = self.client_class().post(
            "/api/readings",
            json.dumps({"temperature_c": 62.0}),
            content_type="application/json",
            headers={"Authorization": f"Bearer {made['token']}"},
        )
        self.assertEqual(sent.status_code, 200, sent.content)
        read = self.client.call("GET", f"/keeping/{kept['id']}").body["read"]
        self.assertEqual(
            [(one["celsius"], one["device"]) for one in read], [(80.0, ""), (62.0, "blue")]
        )

    def test_how_it_comes_back_is_told_for_what_is_left(self) -> None:
        kept = self.put(self.cooked()).body
        whole = kept["back"]
        self.assertGreater(whole["ml"], 50.0)
        self.assertEqual(whole["reheat_c"], kept["rules"]["reheat_c"])
        self.assertIn("weeps", kept["freezing"])
        half = self.happens(kept, "drawn", grams=kept["grams"] / 2.0).body["back"]
        self.assertAlmostEqual(half["ml"], whole["ml"] / 2.0, delta=1.0)
        self.assertIsNone(self.happens(kept, "thrown", reason="old").body["back"])

    def test_as_it_was_judged_and_weighed_it_is_labelled_kept_and_let_down(self) -> None:
        """The spoon and the scale win over the sum: planned nappe, judged light coat."""
        batch = self.cooked()
        reckoned = self.put(batch, grams=500.0).body
        entry = {"batch_id": batch["id"], "weighed": "2500 g", "with_pan": False, "note": ""}
        said = self.client.call(
            "POST", "/journal", {**entry, "reached_pa_s": 0.25, "verdict": "nearly"}
        )
        self.assertEqual(said.status_code, 201, said.content)
        [possible] = self.client.call("GET", "/keeping/where").body["possible"]
        self.assertEqual(possible["grams"], 2000.0)
        kept = self.put(batch).body
        self.assertEqual((reckoned["grade"], kept["grade"]), ("nappe", "light-coat"))
        self.assertAlmostEqual(kept["grams"], 2000.0, delta=1.0)
        label = self.client.call("POST", f"/stove/{batch['id']}/labels", {"copies": 1}).body
        self.assertEqual(label["document"]["grade"], "light-coat")
        # Judged light coat it comes back to that, not let down twice from what was reckoned.
        self.assertLess(kept["back"]["ml"], 0.2 * kept["grams"])

    def test_a_pot_that_was_put_away_leaves_the_hob(self) -> None:
        batch = self.cooked()
        self.put(batch, grams=500.0)
        [line] = self.client.call("GET", "/stove").body
        self.assertEqual((line["put_away"], line["waits"] is None), (False, False))
        self.put(batch)
        [line] = self.client.call("GET", "/stove").body
        self.assertEqual((line["put_away"], line["ring"], line["waits"]), (True, "", None))
        written = {"batch_id": batch["id"], "weighed": "", "verdict": "again", "note": ""}
        self.assertEqual(self.client.call("POST", "/journal", written).status_code, 201)
        self.assertEqual(self.client.call("GET", "/stove").body, [])

    def test_what_was_mended_with_something_else_is_not_that_sauce_any_more(self) -> None:
        for ingredient, name in (("celery", "celery"), ("stock-light", "light stock")):
            batch = self.cooked()
            plain = self.put(batch, grams=500.0).body
            self.assertEqual(plain["brings"], [])
            more = {"op": "add", "ingredient": ingredient, "amount": {"value": 50, "unit": "g"}}
            taken = one("mended", sign="flat", title=name, do=[], steps=[more])
            act(self.client, batch["id"], taken)
            mended = self.put(batch, grams=500.0).body
            with self.subTest(ingredient):  # stock has no allergen, and is not for who eats no meat
                self.assertEqual(len(mended["brings"]), 1)
                self.assertIn(name.split()[-1], mended["brings"][0])

    def test_nor_is_one_of_a_version_that_had_something_else_in_it(self) -> None:
        celery = {"op": "add", "ingredient": "celery", "amount": {"value": 50, "unit": "g"}}
        kept = self.put(self.cooked(celery)).body
        self.assertEqual(kept["brings"], [])
        sauce = Sauce.objects.get()
        sheet = read_sheet(
            {**sauce.versions.get().sheet, "steps": sauce.versions.get().sheet["steps"][:3]}
        )
        save_again(sauce, self.user, sheet, 1)
        again = self.client.call("GET", f"/keeping/{kept['id']}").body
        self.assertEqual(again["brings"], ["celery"])

    def test_the_list_asks_the_database_as_often_however_much_is_kept(self) -> None:
        batch = self.cooked()
        asked = []
        for _ in range(2):
            for _ in range(3):
                self.put(batch, grams=200.0)
            with CaptureQueriesContext(connection) as queries:
                self.client.call("GET", "/keeping")
            asked.append(len([q for q in queries if "stove_reading" not in q["sql"]]))
        self.assertEqual(asked[0], asked[1])

    def test_past_its_day_it_says_so_but_not_in_the_freezer(self) -> None:
        with self.ago(days=4):
            kept = self.put(self.cooked()).body
        line = self.client.call("GET", "/keeping").body[0]
        self.assertEqual(line["state"], "over")
        self.assertIn("throw it away", line["words"])
        self.assertEqual(self.happens(kept, "frozen").body["state"], "frozen")
        self.assertEqual(self.happens(kept, "thawed").body["state"], "over")


class WhatIsLeft(Keeping):
    def test_no_more_is_put_away_than_there_was(self) -> None:
        batch = self.cooked()
        whole = self.client.call("GET", "/keeping/where").body["possible"][0]["grams"]
        self.put(batch, grams=2000.0)
        left = self.client.call("GET", "/keeping/where").body["possible"][0]["grams"]
        self.assertAlmostEqual(left, whole - 2000.0, delta=1.0)
        self.assertEqual(self.fields(self.put(batch, grams=left + 50.0)), ["grams"])
        self.assertAlmostEqual(self.put(batch).body["grams"], left, delta=1.0)
        self.assertEqual(self.client.call("GET", "/keeping/where").body["possible"], [])
        self.assertEqual(self.fields(self.put(batch)), ["batch"])
        asked = {k: v for k, v in self.given(batch).items() if k not in ("key", "place")}
        self.assertEqual(
            self.fields(self.client.call("POST", "/keeping/cooling", asked)), ["batch"]
        )


class HeldHot(Keeping):
    def test_under_film_it_stays_and_open_it_thickens(self) -> None:
        batch = self.cooked()

        def held(**more: Any) -> Any:
            asked = {"batch_id": batch["id"], "at_c": 65, "covered": True, **more}
            query = "&".join(f"{k}={v}" for k, v in asked.items())
            return self.client.call("GET", f"/keeping/holding?{query}")

        film, bare = held().body, held(covered=False).body
        self.assertTrue(film["ok"])
        self.assertEqual([one["lost_g"] for one in film["after"]], [0.0, 0.0, 0.0])
        lost = [one["lost_g"] for one in bare["after"]]
        self.assertEqual(lost, sorted(lost))
        last = bare["after"][-1]
        self.assertGreater(last["let_down_ml"], 0.6 * last["lost_g"])
        self.assertLess(last["let_down_ml"], 1.4 * last["lost_g"])
        self.assertFalse(held(at_c=55).body["ok"])
        self.assertEqual(self.fields(held(at_c=20)), ["at_c"])
        self.assertEqual(held(batch_id=99999).status_code, 404)


class HeatedAgain(Keeping):
    def heated(self, **more: Any) -> Any:
        asked = {"depth_mm": 40, "oven_c": 180, "fan": False, "covered": False, **more}
        query = "&".join(f"{k}={v}" for k, v in asked.items())
        return self.client.call("GET", f"/keeping/heating?{query}")

    def test_a_filled_dish_by_the_rules_in_force(self) -> None:
        def minutes(**more: Any) -> float:
            return float(self.heated(**more).body["minutes"])

        plain = minutes()
        self.assertTrue(40.0 < plain < 50.0)
        self.assertGreater(minutes(oven_c=150), plain)
        self.assertGreater(minutes(depth_mm=60), 1.3 * plain)
        self.assertGreater(minutes(covered=True), plain)
        self.assertLess(minutes(fan=True), plain)
        own = {"name": "ours", "from_c": 63, "stages": [{"to_c": 8, "minutes": 90}], "hot_c": 63}
        strict = {**own, "reheat_c": 82, "reheat_minutes": 30}
        self.client.call("PUT", "/keeping/rules", {"rules": strict})
        told = self.heated().body
        self.assertGreater(told["minutes"], plain)
        self.assertFalse(told["ok"])
        self.assertIn("shallower", told["words"])
        for more, field in (({"depth_mm": 4}, "depth_mm"), ({"oven_c": 900}, "oven_c")):
            self.assertEqual(self.fields(self.heated(**more)), [field])


class DrawnByAService(Keeping):
    """What a service takes of what stands made is drawn off once its first pot goes on."""

    def served(self, sauce: Any, ml: float) -> Any:
        other = self.saved(name="Cheese sauce beside it")
        uses = [{"sauce": str(sauce.pk), "use": "nap"}, {"sauce": str(other.pk), "use": "nap"}]
        dish = save_dish(self.kitchen, {"name": "Leeks", "sauces": uses})
        on_hand = {"sauce": str(sauce.pk), "amount": {"value": ml, "unit": "mL"}, "age_days": 1}
        return save_service(
            self.kitchen,
            {
                "name": "Lunch",
                "lines": [{"dish": str(dish.pk), "portions": 10}],
                "on_hand": [on_hand],
            },
        )

    def begin(self, service: Any) -> None:
        plan = worked(self.kitchen, service.document, service.pinned).plan
        pot = plan.pots[0].key
        body = {"pot": pot, "one_more": True}
        made = self.client.call("POST", f"/stove/of-service/{service.pk}", body)
        self.assertEqual(made.status_code, 201, made.content)

    def test_oldest_first_once_and_taken_back(self) -> None:
        batch = self.cooked()
        sauce = Batch.objects.get(pk=batch["id"]).version.sauce
        first, second = (self.put(batch, grams=grams).body["id"] for grams in (200.0, 2000.0))
        service = self.served(sauce, 400.0)
        self.begin(service)
        events = list(Event.objects.order_by("pk"))
        self.assertEqual([one.kept_id for one in events], [first, second])
        self.assertEqual(events[0].data["grams"], 200.0)
        self.assertEqual(events[1].data["purpose"], "Lunch")
        drawn = sum(one.data["grams"] for one in events)
        self.assertTrue(380.0 < drawn < 460.0, drawn)
        self.begin(service)  # another pot of it takes nothing more
        self.assertEqual(Event.objects.count(), 2)
        day = timezone.localdate()
        lines = self.client.call("GET", f"/keeping/records?first={day}&last={day}").body
        words = [line["what"] for line in lines if "Lunch" in line["what"]]
        # Nobody has opened the fridge yet: the record does not say that it was taken out.
        self.assertEqual(words, ["set aside for Lunch"] * 2)
        told = self.client.call("GET", f"/keeping/{second}").body
        self.assertTrue(told["events"][0]["set_aside"])
        path = f"/keeping/{second}/events"
        wrong = one("corrected", of=told["events"][0]["key"], why="it was fresh")
        self.client.call("POST", path, {"events": [wrong]})
        self.assertEqual(self.client.call("GET", f"/keeping/{second}").body["left_g"], 2000.0)

    def test_never_what_is_past_its_day_or_has_something_else_in_it(self) -> None:
        batch = self.cooked()
        sauce = Batch.objects.get(pk=batch["id"]).version.sauce
        past, mended = (self.put(batch, grams=900.0).body["id"] for _ in range(2))
        row = Kept.objects.get(pk=mended)
        ham = {"op": "add", "ingredient": "ham-cooked", "amount": {"value": 50, "unit": "g"}}
        row.sheet = {**row.sheet, "steps": [*row.sheet["steps"], ham]}
        with rewriting(Kept):
            Kept.objects.filter(pk=past).update(use_by=timezone.localdate() - timedelta(days=1))
            row.save()
        self.begin(self.served(sauce, 400.0))
        self.assertEqual(Event.objects.count(), 0)

    def test_nor_what_lacks_what_was_left_out(self) -> None:
        batch = self.cooked({"op": "season", "ingredient": "nutmeg", "amount": "1 g"})
        act(self.client, batch["id"], one("skipped", step=3))
        kept = self.put(batch, grams=900.0).body
        self.assertEqual((kept["brings"], kept["lacks"]), ([], ["nutmeg"]))
        self.begin(self.served(Batch.objects.get(pk=batch["id"]).version.sauce, 400.0))
        self.assertEqual(Event.objects.count(), 0)

    def test_what_nobody_can_tell_any_more_is_not_drawn_and_nothing_is_refused(self) -> None:
        batch = self.cooked()
        self.put(batch, grams=900.0)
        row = Kept.objects.get()
        lost = {"op": "add", "ingredient": "gone-from-here", "amount": {"value": 5, "unit": "g"}}
        row.sheet = {**row.sheet, "steps": [*row.sheet["steps"], lost]}
        with rewriting(Kept):
            row.save()
        line = self.client.call("GET", "/keeping").body[0]
        self.assertIn("does not know", line["brings"][0])
        self.begin(self.served(Batch.objects.get(pk=batch["id"]).version.sauce, 400.0))
        self.assertEqual(Event.objects.count(), 0)

    def test_nothing_on_hand_draws_nothing(self) -> None:
        batch = self.cooked()
        self.put(batch, grams=900.0)
        service = self.served(Batch.objects.get(pk=batch["id"]).version.sauce, 400.0)
        service.document = {**service.document, "on_hand": []}
        service.save()
        self.begin(service)
        self.assertEqual(Event.objects.count(), 0)


class TheRecord(Keeping):
    def lines(self, **more: Any) -> Any:
        today = timezone.now().date()
        asked = {"first": today - timedelta(days=1), "last": today, **more}
        query = "&".join(f"{k}={v}" for k, v in asked.items())
        return self.client.call("GET", f"/keeping/records?{query}")

    def test_it_is_complete_in_order_and_says_what_was_corrected(self) -> None:
        kept = self.put(self.cooked(), from_c=80.0).body
        self.happens(kept, "temperature", celsius=70.0)
        key = self.happens(kept, "drawn", grams=300.0).body["events"][-1]["key"]
        self.happens(kept, "corrected", of=key, why="30 g")
        self.happens(kept, "thrown", grams=100.0, reason="=HYPERLINK(1)")
        lines = self.lines().body
        self.assertEqual([x["at"] for x in lines], sorted(x["at"] for x in lines))
        whats = [x["what"] for x in lines]
        for words in (
            "began",
            "put away in 1 of tray 50 by 30",
            "temperature",
            "thrown away: =HYPERLINK(1)",
        ):
            self.assertIn(words, whats)
        self.assertEqual([x["corrected"] for x in lines if x["value"] == "300 g"], ["30 g (ada)"])
        today = timezone.now().date()
        csv = self.client.get(f"/api/keeping/records.csv?first={today}&last={today}")
        self.assertIn("text/csv", csv["Content-Type"])
        self.assertEqual(len(csv.content.decode().splitlines()), len(lines) + 1)
        self.assertEqual(
            self.other.call("GET", f"/keeping/records?first={today}&last={today}").body, []
        )

    def test_a_cell_a_spreadsheet_would_reckon_with_is_guarded(self) -> None:
        sauce = self.saved(name="=1+1", steps=[add("milk-whole", 500)], target={}, family=None)
        self.client.call("POST", "/stove", {"sauce_id": sauce.pk})
        today = timezone.now().date()
        csv = self.client.get(f"/api/keeping/records.csv?first={today}&last={today}")
        self.assertIn(",'=1+1,", csv.content.decode())

    def test_days_that_make_no_record_name_their_field(self) -> None:
        today = timezone.now().date()
        for more, fields in (
            ({"last": today - timedelta(days=9)}, ["last"]),
            ({"first": "1999-01-01", "last": "1999-01-02"}, ["first", "last"]),
            ({"first": "0001-01-01", "last": "0001-01-02"}, ["first", "last"]),
            ({"offset": 99999}, ["offset"]),
        ):
            with self.subTest(**more):
                self.assertEqual(self.fields(self.lines(**more)), fields)

    def test_the_database_itself_refuses_to_rewrite_it(self) -> None:
        batch = self.cooked()
        kept = self.put(batch).body
        self.happens(kept, "drawn", grams=300.0)
        Reading.objects.create(
            batch=Batch.objects.get(), kind="probe", at=timezone.now(), value=60.0
        )
        self.client.call("POST", "/journal", {"batch_id": batch["id"], "verdict": "again"})
        with connection.cursor() as cursor:
            cursor.execute("SELECT name FROM sqlite_master WHERE type = 'trigger'")
            names = {row[0] for row in cursor.fetchall()}
        self.assertEqual(names, {name for model in records() for name in trigger_names(model)})
        for change in (
            lambda: Event.objects.update(data={"grams": 1.0}),
            lambda: Event.objects.all().delete(),
            lambda: Act.objects.update(why="otherwise"),
            lambda: Act.objects.first().delete(),
            lambda: Reading.objects.update(value=4.0),
            lambda: Reading.objects.all().delete(),
            lambda: Batch.objects.get().entry.__class__.objects.update(verdict="not-so"),
            lambda: Batch.objects.get().entry.delete(),
        ):
            with self.assertRaises(DatabaseError), transaction.atomic():
                change()
        # Who did it may go; what was done stays.
        Act.objects.update(by=None)
        Reading.objects.update(device=None)
