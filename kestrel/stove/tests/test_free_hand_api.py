"""Cooked free hand: what goes in is logged as it does, and the app follows."""

from datetime import timedelta
from typing import Any

from django.utils import timezone

from kestrel.stove.models import Act, Batch
from kestrel.tests.acts import act, go, one, saw
from kestrel.tests.clients import KitchenTest
from saucier.testing import add, melt, roux, simmer


class FreeHand(KitchenTest):
    def start(self, name: str = "As it comes", minutes_ago: float = 30.0) -> dict[str, Any]:
        answer = self.client.call("POST", "/stove/free", {"name": name})
        self.assertEqual(answer.status_code, 201, answer.content)
        began = timezone.now() - timedelta(minutes=minutes_ago)
        Batch.objects.update(started_at=began, began={"0": began.isoformat()})
        self.began = began
        return answer.body

    def at(self, minute: float, act: dict[str, Any]) -> dict[str, Any]:
        return {**act, "at": (self.began + timedelta(minutes=minute)).isoformat()}

    def added(self, minute: float, put: dict[str, Any]) -> dict[str, Any]:
        return self.at(minute, one("added", put=put))

    def does(self, batch: dict[str, Any], *acts: dict[str, Any]) -> dict[str, Any]:
        answer = act(self.client, batch["id"], *acts)
        self.assertEqual(answer.status_code, 200, answer.content)
        return answer.body["batch"]

    def white(self, batch: dict[str, Any], simmered: float = 10.0) -> dict[str, Any]:
        return self.does(
            batch,
            self.added(0, roux(60, 60)),
            self.added(3, add("milk-whole", 1, "L")),
            self.added(9, simmer(1)),
            self.added(9 + simmered, {"op": "season", "amount": {"value": 6, "unit": "g"}}),
        )

    def test_an_empty_pot_is_there_and_waits_for_something(self) -> None:
        batch = self.start()
        self.assertEqual((batch["kind"], batch["steps"], batch["cards"]), ("free", 0, []))
        line = self.client.call("GET", "/stove").body[0]
        self.assertEqual(line["title"], "Nothing in it yet")
        self.assertEqual(
            self.fields(self.client.call("POST", "/stove/free", {"name": " "})), ["name"]
        )
        bad = self.client.call("POST", "/stove/free", {"name": "x", "pan": "no pan"})
        self.assertEqual(self.fields(bad), ["pan"])

    def test_what_goes_in_is_followed_and_boils_as_long_as_the_clock_says(self) -> None:
        ten, twenty = (self.white(self.start(), minutes) for minutes in (10.0, 20.0))
        self.assertEqual(ten["steps"], 4)
        self.assertEqual(ten["cards"][0]["title"], "White roux")
        self.assertAlmostEqual(ten["sheet"]["steps"][2]["minutes"], 10.0, delta=0.1)
        masses = [one["followed"]["states"][3]["mass_g"] for one in (ten, twenty)]
        self.assertGreater(masses[0] - masses[1], 30.0)
        self.assertGreater(
            twenty["followed"]["states"][3]["viscosity_pa_s"],
            ten["followed"]["states"][3]["viscosity_pa_s"],
        )

    def test_an_amount_is_read_as_this_kitchen_measures(self) -> None:
        batch = self.start()
        for words, grams, spread in (
            ("2 cups", 494.0, 0.0),
            ("0,25 L", 257.0, 0.0),
            ("1 glass", 154.5, 0.01),
        ):
            found = self.does(batch, self.added(1, {**add("milk-whole", 1), "amount": words}))
            [milk] = found["cards"][-1]["weighed"]
            with self.subTest(words):
                self.assertAlmostEqual(milk["grams"], grams, delta=5.0)
                self.assertEqual(
                    (milk["amount"]["measure"] or {}).get("spread", 0.0) > 0.0, spread > 0.0
                )

    def test_a_step_that_cannot_be_says_which_field_and_nothing_is_lost(self) -> None:
        batch = self.start()
        self.does(batch, self.added(0, roux(60, 60)))
        for put, field in (
            (
                {"op": "add", "ingredient": "soul", "amount": {"value": 5, "unit": "g"}},
                "ingredient",
            ),
            ({"op": "add", "ingredient": "milk-whole", "amount": "many"}, "amount"),
            ({"op": "dance"}, ""),
            ({}, ""),
        ):
            with self.subTest(put=put):
                bad = act(self.client, batch["id"], one("added", put=put))
                self.assertEqual(self.fields(bad), [f"acts[0].put.{field}".rstrip(".")])
        self.assertEqual(self.client.call("GET", f"/stove/{batch['id']}").body["steps"], 1)

    def test_the_last_step_is_taken_back_with_what_was_said_of_it(self) -> None:
        batch = self.start()
        before = self.does(batch, self.added(0, roux(60, 60)))
        self.does(batch, self.added(3, add("milk-whole", 1, "L")))
        first, milk = (a.key for a in Act.objects.filter(kind="added"))
        self.does(batch, one("put", step=1, field="amount", grams=700.0), saw(1, "spoon", 0.3))
        early = act(self.client, batch["id"], one("undone", of=first)).body
        self.assertIn("take that back first", early["acts"][0]["why"])
        back = self.does(batch, one("undone", of=milk))
        self.assertEqual((back["step"], back["steps"]), (0, 1))
        self.assertEqual(back["followed"]["states"], before["followed"]["states"])
        # What goes in there next is not weighed as what was taken back.
        again = self.does(batch, self.added(4, add("cream-35", 300)))
        self.assertEqual(again["cards"][1]["weighed"][0]["grams"], 300.0)
        self.assertFalse(
            act(self.client, batch["id"], one("undone", of=milk)).body["acts"][0]["taken"]
        )

    def test_looks_are_believed_as_in_any_pot(self) -> None:
        batch = self.start()
        boiling = self.does(
            batch,
            self.added(0, add("cream-35", 500)),
            self.added(4, simmer(1, "lively")),
            self.at(9, saw(1, "gone", 0.3)),
        )
        watched = boiling["followed"]["watched"]
        self.assertEqual(watched["boils_in_min"], 0.0)
        self.assertEqual(watched["looked"], 1)
        self.assertIsNone(watched["goal"])
        self.assertAlmostEqual(
            boiling["followed"]["states"][1]["mass_g"], watched["mass_g"]["value"], delta=1.0
        )

    def test_it_is_weighed_and_put_down_as_a_sauce(self) -> None:
        batch = self.start("Cap for the rye toasts")
        self.does(batch, self.added(0, roux(40, 40)), self.added(2, add("milk-whole", 500)))
        self.does(batch, self.added(6, simmer(1)), self.added(11, melt("cheese-hard-alpine", 60)))
        through = self.does(batch, go(3, 4))
        self.assertAlmostEqual(
            through["plan"]["final"]["mass_g"], through["followed"]["states"][3]["mass_g"], places=2
        )
        self.assertEqual(through["waits"]["minutes"] < 1.0, True)
        made = self.client.call("POST", f"/stove/{batch['id']}/sauce", {"name": "Rye cap"})
        self.assertEqual(made.status_code, 201, made.content)
        sauce = self.client.call("GET", f"/sauces/{made.body['sauce_id']}").body
        self.assertEqual(sauce["sheet"]["name"], "Rye cap")
        self.assertEqual(
            [s["op"] for s in sauce["sheet"]["steps"]], ["roux", "add", "simmer", "melt"]
        )
        self.assertAlmostEqual(sauce["sheet"]["steps"][2]["minutes"], 5.0, delta=0.1)
        self.assertEqual(
            self.other.call("POST", f"/stove/{batch['id']}/sauce", {"name": "x"}).status_code, 404
        )
        entry = self.client.call(
            "POST",
            "/journal",
            {"batch_id": batch["id"], "weighed": "560 g", "verdict": "again"},
        )
        self.assertEqual(entry.status_code, 201, entry.content)

    def test_a_sauce_by_its_sheet_takes_no_steps(self) -> None:
        batch = self.client.call("POST", "/stove", {"sauce_id": self.saved().pk}).body
        bad = act(self.client, batch["id"], one("added", put=simmer(3)))
        self.assertEqual(self.fields(bad), ["acts[0].kind"])
        empty = self.start()
        self.assertEqual(
            self.fields(self.client.call("POST", f"/stove/{empty['id']}/sauce", {"name": "x"})),
            ["steps"],
        )
        self.assertEqual(
            self.fields(self.client.call("POST", f"/stove/{empty['id']}/fix", {})), ["batch"]
        )
