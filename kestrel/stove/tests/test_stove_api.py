from django.db import connection
from django.db.migrations.executor import MigrationExecutor
from django.test import TransactionTestCase

from kestrel.accounts.actions import open_kitchen
from kestrel.larder.models import Pan
from kestrel.sauces.actions import save_again, save_new
from kestrel.service.actions import save_dish, save_service
from kestrel.service.models import Service
from kestrel.stove.models import Batch
from kestrel.tests.clients import PASSWORD, KitchenTest
from saucier.sheet import read_sheet
from saucier.testing import CHEESE_SAUCE, CREAM_REDUCTION, add, roux, simmer, use

WHITE_STEPS = [roux(60, 60), add("milk-whole", 1, "L"), simmer(5)]


class Stove(KitchenTest):
    def start(self) -> dict:
        self.sauce = self.saved()
        return self.client.call("POST", "/stove", {"sauce_id": self.sauce.pk}).body

    def test_steps_one_at_a_time(self) -> None:
        batch = self.start()
        self.assertEqual((batch["step"], batch["steps"]), (0, 5))
        self.assertEqual(batch["plan"]["cards"][0]["timer_s"], 120)
        path = f"/stove/{batch['id']}/step"
        moved = self.client.call("POST", path, {"step": 1, "revision": batch["revision"]}).body
        self.assertEqual(moved["step"], 1)
        self.assertEqual(self.client.call("GET", "/stove").body[0]["step"], 1)
        again = self.client.call("POST", path, {"step": 2, "revision": batch["revision"]})
        self.assertEqual(again.status_code, 409)
        for step in (-1, 6):
            nonsense = self.client.call("POST", path, {"step": step, "revision": moved["revision"]})
            self.assertEqual(self.fields(nonsense), ["step"])

    def test_timer_is_kept_by_the_server(self) -> None:
        batch = self.start()
        path = f"/stove/{batch['id']}"
        body = {"seconds": 120, "revision": batch["revision"]}
        running = self.client.call("POST", f"{path}/timer", body).body
        read = self.client.call("GET", path).body
        self.assertEqual(read["timer_started_at"], running["timer_started_at"])
        self.assertEqual(read["timer_s"], 120)
        for seconds in (0, -5, 10**7):
            body = {"seconds": seconds, "revision": running["revision"]}
            self.assertEqual(
                self.fields(self.client.call("POST", f"{path}/timer", body)), ["seconds"]
            )
        stop = {"seconds": None, "revision": running["revision"]}
        self.assertIsNone(self.client.call("POST", f"{path}/timer", stop).body["timer_started_at"])

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
        self.client.call("POST", f"/stove/{batch['id']}/leave")
        self.assertEqual(self.client.call("GET", "/stove").body, [])
        back = self.client.call("POST", f"/stove/{batch['id']}/put-back").body
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
        path = f"/stove/{batch['id']}"
        body = {
            "sign": "too-thick",
            "title": "Let down with 120 mL whole milk",
            "do": ["Whisk it in."],
        }
        made = self.client.call("POST", f"{path}/mended", {**body, "revision": batch["revision"]})
        self.assertEqual(
            made.body["mends"],
            [{"step": 0, "sign": "Too thick", "title": body["title"], "do": body["do"]}],
        )
        self.assertEqual(made.body["plan"], batch["plan"])
        late = self.client.call("POST", f"{path}/mended", {**body, "revision": batch["revision"]})
        self.assertEqual(late.status_code, 409)
        for change, field in (({"sign": "sulks"}, "sign"), ({"title": " "}, "title")):
            refused = self.client.call(
                "POST", f"{path}/mended", {**body, **change, "revision": made.body["revision"]}
            )
            self.assertEqual(self.fields(refused), [field])
        self.assertEqual(
            self.other.call("POST", f"{path}/mended", {**body, "revision": 1}).status_code, 404
        )

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

    def cook(self, pot: str):
        return self.client.call("POST", self.path, {"pot": pot})

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
        for key in (branch["key"], branch["pot"]):
            self.assertEqual(self.cook(key).status_code, 201)
        rows = self.client.call("GET", self.path).body
        self.assertEqual([row["pot"] for row in rows], [branch["pot"]] * 2)

    def test_says_which_are_on_and_which_are_done(self) -> None:
        key = self.plan["pots"][0]["key"]
        first, second, third = (self.cook(key).body["id"] for _ in range(3))
        self.client.call("POST", f"/stove/{second}/leave")
        self.client.call("POST", "/journal", {"batch_id": third, "verdict": "again"})
        rows = self.client.call("GET", self.path).body
        self.assertEqual(
            [(row["id"], row["pot"], row["status"]) for row in rows],
            [(first, key, "on"), (third, key, "done")],
        )

    def test_no_such_pot_and_strangers(self) -> None:
        self.assertEqual(self.fields(self.cook("mother-9")), ["pot"])
        for method in ("GET", "POST"):
            response = self.other.call(method, self.path, {"pot": "mother-1"})
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


class KeepsItsSheet(TransactionTestCase):
    """Batches from before pots of a service take the sheet of their version along."""

    def test_migration(self) -> None:
        before, after = [("stove", "0002_mends")], [("stove", "0003_pots_of_a_service")]
        executor = MigrationExecutor(connection)
        executor.migrate(before)
        user = open_kitchen("Lower kitchen", "ada", PASSWORD)
        kitchen = user.kitchens.get()
        sauce = save_new(kitchen, user, read_sheet(CHEESE_SAUCE))
        old = executor.loader.project_state(before).apps
        version = sauce.versions.get()
        made = old.get_model("stove", "Batch").objects.create(
            kitchen_id=kitchen.pk, version_id=version.pk, plan={"name": "cheese sauce"}
        )
        executor = MigrationExecutor(connection)
        executor.migrate(after)
        now = executor.loader.project_state(after).apps.get_model("stove", "Batch")
        self.assertEqual(now.objects.get(pk=made.pk).sheet, version.sheet)

    def test_what_was_poured_from_a_mother_is_not_made_again(self) -> None:
        before, after = [("stove", "0005_made_first")], [("stove", "0006_poured_from_a_mother")]
        executor = MigrationExecutor(connection)
        executor.migrate(before)
        user = open_kitchen("Lower kitchen", "ada", PASSWORD)
        kitchen = user.kitchens.get()
        service = Service.objects.create(kitchen=kitchen, name="Day", document={"name": "Day"})
        old = executor.loader.project_state(before).apps.get_model("stove", "Batch")
        keys = {}
        for pot in ("7~nappe", "own-7~nappe"):
            steps = [{"op": "use", "sauce": {}, "amount": {"value": 3, "unit": "g"}}]
            keys[pot] = old.objects.create(
                kitchen_id=kitchen.pk,
                service_id=service.pk,
                pot=pot,
                plan={},
                sheet={"name": "poured", "steps": steps},
            ).pk
        executor = MigrationExecutor(connection)
        executor.migrate(after)
        ready = {
            pot: Batch.objects.get(pk=pk).sheet["steps"][0].get("ready") for pot, pk in keys.items()
        }
        self.assertEqual(ready, {"7~nappe": True, "own-7~nappe": None})
