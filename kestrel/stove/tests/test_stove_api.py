from datetime import datetime, timedelta
from typing import Any

from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.test import TransactionTestCase
from django.utils import timezone

from kestrel.accounts.actions import open_kitchen
from kestrel.larder.models import Pan
from kestrel.sauces.actions import save_again, save_new
from kestrel.sauces.models import Sauce
from kestrel.service.actions import save_dish, save_service
from kestrel.service.models import Service
from kestrel.stove.models import Act, Batch
from kestrel.tests.acts import act, go, one, saw, timer
from kestrel.tests.clients import PASSWORD, KitchenTest
from kestrel.tests.flushing import Migrates
from saucier.sheet import read_sheet
from saucier.testing import CHEESE_SAUCE, CREAM_REDUCTION, add, roux, simmer, use

WHITE_STEPS = [roux(60, 60), add("milk-whole", 1, "L"), simmer(5)]


class Stove(KitchenTest):
    def start(self) -> dict:
        self.sauce = self.saved()
        return self.client.call("POST", "/stove", {"sauce_id": self.sauce.pk}).body

    def act(self, batch: dict, *acts: dict, client=None) -> Any:
        return act(client or self.client, batch["id"], *acts)

    def test_steps_one_at_a_time(self) -> None:
        batch = self.start()
        self.assertEqual((batch["step"], batch["steps"]), (0, 5))
        self.assertEqual(batch["cards"][0]["timer_s"], 120)
        moved = self.act(batch, go(0, 1)).body
        self.assertEqual(moved["acts"][0]["taken"], True)
        self.assertEqual(moved["batch"]["step"], 1)
        self.assertEqual(self.client.call("GET", "/stove").body[0]["step"], 1)
        for step in (-1, 6):
            nonsense = self.act(batch, go(1, step))
            self.assertEqual(self.fields(nonsense), ["acts[0].to_step"])
        for step in (-1471, -1, 10**12, 10**30):
            for more in (
                {"kind": "put", "field": "amount", "grams": 10},
                {"kind": "corrected", "grams": 1},
                {"kind": "noted", "text": "odd"},
            ):
                nonsense = self.act(batch, {**go(0, 1), **more, "step": step})
                self.assertLess(nonsense.status_code, 500, (step, more))

    def test_two_windows_do_not_move_on_twice(self) -> None:
        batch = self.start()
        self.act(batch, go(0, 1))
        late = self.act(batch, go(0, 1)).body
        self.assertFalse(late["acts"][0]["taken"])
        self.assertIn("moved on meanwhile", late["acts"][0]["why"])
        self.assertEqual(late["batch"]["step"], 1)
        self.assertEqual(Act.objects.filter(taken=False).count(), 1)  # written down all the same

    def test_an_act_sent_twice_happens_once(self) -> None:
        batch = self.start()
        first = {**saw(0, "level", 40.0), "key": "a-level-of-mine"}
        for _ in range(3):
            told = self.act(batch, first).body
            self.assertEqual([a["key"] for a in told["batch"]["acts"]], ["a-level-of-mine"])
            self.assertTrue(told["acts"][0]["taken"])

    def test_acts_of_an_hour_without_a_network_come_in_order(self) -> None:
        batch = self.start()
        Batch.objects.update(started_at=timezone.now() - timedelta(hours=2))
        at = timezone.now() - timedelta(minutes=50)
        acts = [
            {**one, "at": (at + timedelta(minutes=5 * n)).isoformat()}
            for n, one in enumerate((go(0, 1), go(1, 2), saw(2, "boils"), go(2, 3)))
        ]
        told = self.act(batch, *acts).body
        self.assertTrue(all(one["taken"] for one in told["acts"]))
        self.assertEqual(told["batch"]["step"], 3)
        began = {k: datetime.fromisoformat(v) for k, v in told["batch"]["began"].items()}
        self.assertAlmostEqual((began["3"] - began["2"]).total_seconds(), 600, delta=1)

    def test_a_clock_years_off_loses_no_act(self) -> None:
        batch = self.start()
        for year, key in (("1970", "a"), ("2400", "b"), ("9999", "c"), ("0001", "d")):
            at = f"{year}-06-01T12:00:00Z"
            for sent_at in (at, timezone.now().isoformat()):
                key += "k"
                done = {"key": key * 8, "at": at, "kind": "noted", "text": "seen"}
                body = {"acts": [done], "sent_at": sent_at}
                answer = self.client.call("POST", f"/stove/{batch['id']}/acts", body)
                self.assertEqual(answer.status_code, 200, answer.content)
                self.assertTrue(answer.body["acts"][0]["taken"])
        self.assertEqual(Act.objects.count(), 8)
        for act_ in Act.objects.all():
            self.assertLessEqual(act_.at, timezone.now())
            self.assertGreaterEqual(act_.at, act_.batch.started_at)

    def test_a_clock_that_is_off_is_put_right(self) -> None:
        batch = self.start()
        off = timedelta(hours=3)
        now = timezone.now() + off
        body = {"acts": [{**go(0, 1), "at": now.isoformat()}], "sent_at": now.isoformat()}
        told = self.client.call("POST", f"/stove/{batch['id']}/acts", body).body
        began = datetime.fromisoformat(told["batch"]["began"]["1"])
        self.assertLess(abs((began - timezone.now()).total_seconds()), 5)

    def test_timers_are_kept_by_the_server(self) -> None:
        batch = self.start()
        own, other = timer(120), timer(600, "pasta water")
        self.act(batch, own, other)
        read = self.client.call("GET", f"/stove/{batch['id']}").body
        told = [(one["name"], one["seconds"]) for one in read["timers"]]
        self.assertEqual(told, [("step", 120), ("pasta water", 600)])
        for seconds in (0, -5, 10**7):
            self.assertEqual(self.fields(self.act(batch, timer(seconds))), ["acts[0].seconds"])
        moved = self.act(batch, go(0, 1)).body["batch"]  # the step's own ends with it
        self.assertEqual([one["name"] for one in moved["timers"]], ["pasta water"])
        off = self.act(batch, one("timer-off", name="pasta water")).body["batch"]
        self.assertEqual(off["timers"], [])

    def test_back_and_on_again_keeps_when_a_step_began(self) -> None:
        batch = self.start()
        self.act(batch, go(0, 1))
        began = self.act(batch, go(1, 2)).body["batch"]["began"]
        back = self.act(batch, go(2, 1)).body["batch"]["began"]
        self.assertEqual(back["1"], began["1"])
        self.assertNotIn("2", back)

    def test_what_really_went_in_replaces_what_was_planned(self) -> None:
        batch = self.start()
        before = batch["followed"]["states"][-1]
        more = self.act(batch, one("put", step=0, field="flour.amount", grams=100.0)).body["batch"]
        after = more["followed"]["states"][-1]
        self.assertGreater(after["viscosity_pa_s"], 1.5 * before["viscosity_pa_s"])
        self.assertEqual(more["plan"], batch["plan"])  # the plan stays what it was
        self.assertEqual(more["cards"][0]["weighed"][1]["grams"], 100.0)
        key = more["acts"][0]["key"]
        undone = self.act(batch, one("undone", of=key)).body["batch"]
        self.assertEqual(undone["followed"]["states"][-1], before)
        nowhere = self.act(batch, one("put", step=0, field="soul.amount", grams=1.0))
        self.assertEqual(self.fields(nowhere), ["acts[0].field"])
        nonsense = self.act(batch, one("put", step=0, field="flour.amount", grams=-4.0))
        self.assertEqual(self.fields(nonsense), ["acts[0].grams"])

    def test_what_is_still_to_come_is_solved_again_and_taken(self) -> None:
        batch = self.start()
        put = one("put", step=0, field="flour.amount", grams=120.0)
        told = self.act(batch, put).body["batch"]["followed"]["again"]
        self.assertNotEqual(told["as_is"], told["wanted"])
        changes = [{key: c[key] for key in ("step", "field", "grams")} for c in told["changes"]]
        after = self.act(batch, one("turned", changes=changes)).body["batch"]
        self.assertEqual(after["followed"]["states"][-1]["grade"], told["wanted"])
        self.assertIsNone(after["followed"]["again"])
        self.assertEqual(after["cards"][1]["weighed"][0]["grams"], changes[0]["grams"])
        wrong = [{"step": 0, "field": "soul", "grams": 3.0}]
        refused = self.act(batch, one("turned", changes=wrong))
        self.assertEqual(self.fields(refused), ["acts[0].changes[0].field"])

    def test_what_is_left_out_is_nowhere_in_it_until_it_is_taken_back(self) -> None:
        batch = self.start()
        cheese = one("skipped", step=3)
        told = self.act(batch, go(0, 3), cheese, go(3, 5)).body["batch"]
        card = told["cards"][3]
        self.assertEqual((card["left_out"], card["weighed"]), (True, []))
        self.assertEqual(card["title"], "Left out: Hard alpine cheese off the heat")
        planned, there = (one["states"][-1] for one in (batch["plan"], told["followed"]))
        self.assertLess(there["fat_pct"], planned["fat_pct"])
        # Salt goes up to its target all the same: what the cheese does not bring.
        self.assertAlmostEqual(there["salt_pct"], 0.9, delta=0.01)
        self.assertGreater(
            told["cards"][4]["weighed"][0]["grams"], batch["cards"][4]["weighed"][0]["grams"]
        )
        made = self.client.call("POST", f"/stove/{batch['id']}/sauce", {"name": "plain"}).body
        sheet = Sauce.objects.get(pk=made["sauce_id"]).versions.get().sheet
        ops = [step["op"] for step in sheet["steps"]]
        self.assertEqual(ops, ["roux", "add", "simmer", "season"])
        back = self.act(batch, one("undone", of=cheese["key"])).body["batch"]
        self.assertFalse(back["cards"][3]["left_out"])
        self.assertAlmostEqual(
            back["followed"]["states"][-1]["fat_pct"], planned["fat_pct"], delta=0.1
        )

    def test_a_label_tells_no_allergen_of_what_was_left_out(self) -> None:
        steps = [roux(60, 60), add("milk-whole", 1, "L"), simmer(5), add("celery", 50)]
        sauce = self.saved(name="White", steps=steps, target={"grade": "nappe"})
        batch = self.client.call("POST", "/stove", {"sauce_id": sauce.pk}).body
        self.act(batch, go(0, 4))

        def allergens() -> list[str]:
            made = self.client.call("POST", f"/stove/{batch['id']}/labels", {"copies": 1})
            return made.body["document"]["allergens"]

        self.assertIn("celery", allergens())
        self.act(batch, one("skipped", step=3))
        self.assertEqual(allergens(), ["gluten", "milk"])

    def test_what_cannot_be_played_without_a_step_says_so_and_goes_on(self) -> None:
        steps = [roux(60, 60), add("milk-whole", 1, "L"), add("wine-white-dry", 100), simmer(60)]
        sauce = self.saved(name="White", steps=steps, target={"grade": "nappe"})
        batch = self.client.call("POST", "/stove", {"sauce_id": sauce.pk}).body
        told = self.act(batch, go(0, 1), one("skipped", step=1), go(1, 2)).body["batch"]
        self.assertIsNone(told["followed"])
        self.assertIn("boil away", told["followed_why"])
        self.assertEqual([card["left_out"] for card in told["cards"]], [False, True, False, False])
        self.assertTrue(self.act(batch, go(2, 3)).body["acts"][0]["taken"])

    def test_only_a_step_of_a_sheet_is_left_out(self) -> None:
        batch = self.start()
        for step in (-1, 5, 10**12):
            self.assertEqual(
                self.fields(self.act(batch, one("skipped", step=step))), ["acts[0].step"]
            )
        free = self.client.call("POST", "/stove/free", {"name": "cap", "pan": ""}).body
        self.assertEqual(self.fields(self.act(free, one("skipped", step=0))), ["acts[0].kind"])

    def test_what_cannot_be_seen_is_refused_by_field(self) -> None:
        batch = self.start()
        for what, value in (("level", -4.0), ("gone", 1.0), ("spoon", 1e9), ("scale", 1e9)):
            self.assertEqual(self.fields(self.act(batch, saw(0, what, value))), ["acts[0].value"])
        self.assertEqual(self.fields(self.act(batch, saw(3, "level", 4.0))), ["acts[0].step"])

    def test_keeps_its_version_and_plan(self) -> None:
        batch = self.start()
        sheet = read_sheet({**CHEESE_SAUCE, "name": "changed since"})
        save_again(self.sauce, self.user, sheet, 1)
        read = self.client.call("GET", f"/stove/{batch['id']}").body
        self.assertEqual((read["version"], read["name"]), (1, "cheese sauce"))
        self.assertEqual(read["plan"], batch["plan"])

    def test_what_a_reduction_passes_on_the_way_down_is_at_the_stove(self) -> None:
        sauce = self.saved(**CREAM_REDUCTION)
        batch = self.client.call("POST", "/stove", {"sauce_id": sauce.pk}).body
        downs = batch["plan"]["along"]
        at = [n for n, step in enumerate(batch["sheet"]["steps"]) if step["op"] == "reduce"]
        self.assertEqual([down["step"] for down in downs], at)
        masses = [mark["mass_g"] for mark in downs[-1]["marks"]]
        self.assertGreater(len(masses), 2)
        self.assertEqual(masses, sorted(masses, reverse=True))
        # A batch begun before the marks were kept is cooked on without them.
        kept = Batch.objects.get(pk=batch["id"])
        del kept.plan["along"]
        kept.save()
        read = self.client.call("GET", f"/stove/{batch['id']}").body
        self.assertEqual(read["plan"]["along"], [])

    def test_leave_and_put_back(self) -> None:
        batch = self.start()
        self.act(batch, one("left"))
        self.assertEqual(self.client.call("GET", "/stove").body, [])
        late = self.act(batch, go(0, 1), one("noted", text="caught a little")).body
        self.assertEqual([a["taken"] for a in late["acts"]], [False, True])
        back = self.act(batch, one("back")).body["batch"]
        self.assertEqual(back["status"], "on")

    def test_nothing_to_cook_and_strangers(self) -> None:
        empty = self.saved(steps=[])
        response = self.client.call("POST", "/stove", {"sauce_id": empty.pk})
        self.assertEqual(self.fields(response), ["steps"])
        batch = self.start()
        self.assertEqual(self.other.call("GET", f"/stove/{batch['id']}").status_code, 404)
        start = self.other.call("POST", "/stove", {"sauce_id": self.sauce.pk})
        self.assertEqual(start.status_code, 404)

    def test_a_remedy_is_written_down_beside_the_plan(self) -> None:
        batch = self.start()
        mend = {
            "sign": "too-thick",
            "title": "Let down with 120 mL whole milk",
            "do": ["Whisk it in."],
        }
        made = self.act(batch, one("mended", **mend)).body["batch"]
        self.assertEqual(made["mends"], [{"step": 0, **mend, "sign": "Too thick"}])
        self.assertEqual(made["plan"], batch["plan"])
        for change, field in (({"sign": "sulks"}, "sign"), ({"title": " "}, "title")):
            refused = self.act(batch, one("mended", **{**mend, **change}))
            self.assertEqual(self.fields(refused), [f"acts[0].{field}"])
        strangers = self.act(batch, one("mended", **mend), client=self.other)
        self.assertEqual(strangers.status_code, 404)

    def test_the_sheet_it_is_made_from_comes_along_to_be_mended(self) -> None:
        batch = self.start()
        body = {"sheet": batch["sheet"], "at": 2, "seen": {"viscosity_pa_s": 8.0}}
        found = self.client.call("POST", "/work/fix", body).body
        self.assertEqual(found["likely"], ["too-thick"])
        self.assertEqual(found["remedies"][0]["after"]["grade"], found["wanted_grade"])


class PotsOfAService(KitchenTest):
    """The pots of a planned service on the stove: mothers, and what is poured from them."""

    def setUp(self) -> None:
        super().setUp()
        cheese = self.saved()
        white = self.saved(
            name="white", family=None, method={}, target={"grade": "nappe"}, steps=WHITE_STEPS
        )
        lines = []
        for sauce in (cheese, white):
            dish = save_dish(
                self.kitchen,
                {"name": sauce.name, "sauces": [{"sauce": str(sauce.pk), "use": "nap"}]},
            )
            lines.append({"dish": str(dish.pk), "portions": 20})
        self.cheese = cheese
        self.service = save_service(self.kitchen, {"name": "Lunch", "lines": lines})
        body = {"document": self.service.document, "pinned": self.service.pinned}
        self.plan = self.client.call("POST", "/services/work", body).body["plan"]
        self.path = f"/stove/of-service/{self.service.pk}"

    def cook(self, pot: str, **more: object):
        return self.client.call("POST", self.path, {"pot": pot, **more})

    def test_a_mother_is_of_no_saved_sauce(self) -> None:
        [pot] = self.plan["pots"]
        self.assertTrue(pot["mother"])
        batch = self.cook(pot["key"]).body
        self.assertEqual((batch["sauce_id"], batch["version"]), (None, None))
        self.assertEqual((batch["service_id"], batch["name"]), (self.service.pk, pot["name"]))
        self.assertAlmostEqual(batch["plan"]["final"]["mass_g"], pot["made_g"] / pot["batches"], 3)
        self.assertEqual(batch["plan"]["pan"]["name"], pot["pan"]["name"])
        self.client.call("POST", "/journal", {"batch_id": batch["id"], "verdict": "again"})
        [entry] = self.client.call("GET", "/journal").body["entries"]
        self.assertEqual((entry["service"], entry["sauce_id"]), ("Lunch", None))

    def test_a_branch_is_of_its_sauce_in_the_version_planned(self) -> None:
        sheet = read_sheet({**CHEESE_SAUCE, "name": "changed since"})
        save_again(self.cheese, self.user, sheet, 1)
        branch = next(b for b in self.plan["branches"] if b["sauce"] == str(self.cheese.pk))
        batch = self.cook(branch["key"]).body
        self.assertEqual((batch["sauce_id"], batch["version"]), (self.cheese.pk, 1))
        self.assertEqual(batch["sheet"]["steps"][0]["op"], "use")
        self.assertAlmostEqual(batch["plan"]["final"]["volume_ml"], branch["made_ml"], 3)

    def test_a_sauce_in_its_own_pot_goes_by_the_pot_wherever_it_was_pressed(self) -> None:
        self.service.document["force"] = {str(self.cheese.pk): "own"}
        self.service.save()
        body = {"document": self.service.document, "pinned": self.service.pinned}
        found = self.client.call("POST", "/services/work", body).body
        branch = next(b for b in found["plan"]["branches"] if b["sauce"] == str(self.cheese.pk))
        weighed = [one["key"] for one in found["production"]["weigh"]]
        self.assertIn(branch["pot"], weighed)
        made = self.cook(branch["key"]).body
        begun = self.cook(branch["pot"])
        self.assertEqual((begun.status_code, begun.body["batch"]), (409, made["id"]))
        rows = self.client.call("GET", self.path).body
        self.assertEqual([row["pot"] for row in rows], [branch["pot"]])

    def test_says_which_are_on_and_which_are_done(self) -> None:
        key = self.plan["pots"][0]["key"]
        self.assertEqual(self.plan["pots"][0]["batches"], 1)
        second = self.cook(key).body["id"]
        begun = self.cook(key)
        self.assertEqual(
            (begun.status_code, begun.body["batch"], begun.body["on"]), (409, second, True)
        )
        act(self.client, second, one("left"))
        first = self.cook(key).body["id"]  # what was taken off does not count
        third = self.cook(key, one_more=True).body["id"]
        self.client.call("POST", "/journal", {"batch_id": third, "verdict": "again"})
        rows = self.client.call("GET", self.path).body
        self.assertEqual(
            [(row["id"], row["pot"], row["status"]) for row in rows],
            [(first, key, "on"), (third, key, "done")],
        )
        act(self.client, first, one("left"))
        cooked = self.cook(key)
        self.assertEqual((cooked.status_code, cooked.body["on"]), (409, False))
        self.assertIn("as often as it is planned", cooked.body["message"])

    def test_no_such_pot_and_strangers(self) -> None:
        self.assertEqual(self.fields(self.cook("mother-9")), ["pot"])
        for method in ("GET", "POST"):
            response = self.other.call(
                method, self.path, {"pot": "mother-white-milk-whole-butter-unsalted-wheat-flour"}
            )
            self.assertEqual(response.status_code, 404)


class SaucesInside(KitchenTest):
    """A sauce made for another is a pot of its own on the stove and on the production sheet."""

    def setUp(self) -> None:
        super().setUp()
        steps = [add("onion-puree", 500), use(WHITE_STEPS, {"value": 500, "unit": "g"})]
        target = {"grade": "binding", "volume": "1 L"}
        self.sauce = self.saved(name="onions", family=None, method={}, steps=steps, target=target)

    def test_it_comes_on_beside_and_first(self) -> None:
        batch = self.client.call("POST", "/stove", {"sauce_id": self.sauce.pk}).body
        [first] = batch["beside"]
        self.assertEqual((first["name"], first["status"], first["into"]), ("inside", "on", False))
        inside = self.client.call("GET", f"/stove/{first['id']}").body
        self.assertEqual(inside["plan"]["cards"][0]["title"], "White roux")
        self.assertEqual(inside["beside"][0]["name"], "onions")
        self.assertTrue(inside["beside"][0]["into"])
        self.assertAlmostEqual(inside["plan"]["final"]["total_g"], 500, delta=5)
        self.assertEqual(len(self.client.call("GET", "/stove").body), 2)

    def test_a_service_buys_weighs_and_cooks_it(self) -> None:
        document = {"name": "toasts", "sauces": [{"sauce": str(self.sauce.pk), "use": "nap"}]}
        dish = save_dish(self.kitchen, document)
        lines = [{"dish": str(dish.pk), "portions": 40}]
        service = save_service(self.kitchen, {"name": "Lunch", "lines": lines})
        body = {"document": service.document, "pinned": service.pinned}
        worked = self.client.call("POST", "/services/work", body).body
        [first] = worked["plan"]["first"]
        [pot] = worked["plan"]["pots"]
        self.assertEqual((first["of"], first["name"]), (pot["key"], "inside"))
        weigh = {one["key"]: one for one in worked["production"]["weigh"]}
        self.assertEqual(list(weigh), [first["key"], pot["key"]])
        milk = sum(
            w["grams"] for w in weigh[first["key"]]["weighed"] if w["ingredient"] == "milk-whole"
        )
        buy = {row["ingredient"]: row["used_g"] for row in worked["production"]["buy"]}
        self.assertGreater(milk, 500)
        self.assertAlmostEqual(buy["milk-whole"], milk, places=6)
        self.assertIn(first["name"], " ".join(worked["production"]["prepare"]))

        path = f"/stove/of-service/{service.pk}"
        self.client.call("POST", path, {"pot": first["key"]})
        own = self.client.call("POST", path, {"pot": pot["key"]}).body
        self.assertEqual(own["beside"], [], "it is on already")
        self.assertEqual(
            [row["pot"] for row in self.client.call("GET", path).body], [first["key"], pot["key"]]
        )

        kept = {**service.document, "pans": {first["key"]: "Sauteuse 24"}}
        Pan.objects.create(
            kitchen=self.kitchen, name="Sauteuse 24", shape="sloped", diameter_cm=24, depth_cm=8
        )
        again = self.client.call("POST", "/services/work", {**body, "document": kept}).body
        self.assertEqual(again["plan"]["first"][0]["pan"]["name"], "Sauteuse 24")
        self.assertEqual(again["plan"]["branches"][0]["final"]["grade"], "binding")


class KeepsItsSheet(Migrates, TransactionTestCase):
    """Batches as they were kept before, migrated on from one form to the next."""

    def test_what_was_on_the_stove_stays_what_it_was(self) -> None:
        before = self.to("0002_mends")
        user = open_kitchen("Lower kitchen", "ada", PASSWORD)
        kitchen = user.kitchens.get()
        version = save_new(kitchen, user, read_sheet(CHEESE_SAUCE)).versions.get()
        plain = before.objects.create(
            kitchen_id=kitchen.pk, version_id=version.pk, plan={"name": "cheese sauce"}
        )
        with self.subTest("the sheet of its version"):
            now = self.to("0003_pots_of_a_service")
            self.assertEqual(now.objects.get(pk=plain.pk).sheet, version.sheet)

        before = self.to("0005_made_first")
        service = Service.objects.create(kitchen=kitchen, name="Day", document={"name": "Day"})
        steps = [{"op": "use", "sauce": {}, "amount": {"value": 3, "unit": "g"}}]
        poured, own = (
            before.objects.create(
                kitchen_id=kitchen.pk,
                service_id=service.pk,
                pot=pot,
                plan={},
                sheet={"name": "poured", "steps": steps},
            )
            for pot in ("7~nappe", "own-7~nappe")
        )
        with self.subTest("what was poured from a mother is not made again"):
            now = self.to("0006_poured_from_a_mother")
            for batch, ready in ((poured, True), (own, None)):
                kept = now.objects.get(pk=batch.pk).sheet["steps"][0].get("ready")
                self.assertEqual(kept, ready)

        at = timezone.now()
        timed = now.objects.create(
            kitchen_id=kitchen.pk,
            service_id=service.pk,
            plan={},
            sheet={},
            step=2,
            timer_started_at=at,
            timer_s=90,
        )
        with self.subTest("a timer that runs goes on"):
            batch = self.to("0007_acts_and_readings").objects.get(pk=timed.pk)
            timer = {"name": "step", "started_at": at.isoformat(), "seconds": 90}
            self.assertEqual(batch.timers, [timer])
            self.assertEqual(set(batch.began), {"0", "2"})

    def to(self, name: str) -> Any:
        """The model of a batch once the database is as migration ``name`` left it."""
        target = [("stove", name)]
        executor = MigrationExecutor(connection)
        executor.migrate(target)
        return executor.loader.project_state(target).apps.get_model("stove", "Batch")
