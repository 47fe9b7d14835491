from kestrel.sauces.actions import save_again
from kestrel.tests.clients import KitchenTest
from saucier.sheet import read_sheet
from saucier.testing import CHEESE_SAUCE


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
