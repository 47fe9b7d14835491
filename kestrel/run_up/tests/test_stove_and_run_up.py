"""The stove and the run-up are one: what is begun, done or abandoned at the one is so at the other at once."""

from typing import Any

from kestrel.run_up.tests.test_run_up_api import RunUpTest
from kestrel.stove.models import Batch
from kestrel.tests.acts import act, go, one


class StoveAndRunUp(RunUpTest):
    def setUp(self) -> None:
        super().setUp()
        self.whole = self.planned()

    def state(self, key: str) -> str:
        """As a page shows it that looks again now, the plan being of before."""
        return self.blocks(self.read(self.whole["id"]))[key]["state"]

    def on(self) -> dict[str, int]:
        return self.read(self.whole["id"])["pots_on"]

    def task(self, head: str) -> dict[str, Any]:
        return next(b for key, b in self.blocks(self.whole).items() if key.startswith(head))

    def beside(self) -> dict[str, Any]:
        """A task that is no pot."""
        return next(b for key, b in self.blocks(self.whole).items() if not key.startswith("pot:"))

    def aside(self, block: dict[str, Any]) -> dict[str, Any]:
        parts = [
            {"do": p["do"], "minutes": p["minutes"], "cue": p["cue"], "hands": p["hands"]}
            for p in block["parts"]
        ]
        task = f"task:{self.whole['id']}:{block['key']}"
        body = {"name": block["name"][:60], "parts": parts, "task": task}
        begun = self.client.call("POST", "/stove/asides", body)
        self.assertEqual(begun.status_code, 201, begun.content)
        return begun.body

    def test_a_pot_begun_abandoned_and_brought_back(self) -> None:
        block = self.task("pot:")
        batch = self.client.call(
            "POST", f"/stove/of-service/{self.service['id']}", {"pot": block["pot"]}
        ).body
        self.assertEqual(self.state(block["key"]), "going")
        self.assertEqual(self.on(), {block["key"]: batch["id"]})
        act(self.client, batch["id"], one("left"))
        self.assertEqual(self.state(block["key"]), "planned")
        self.assertEqual(self.on(), {})
        act(self.client, batch["id"], one("back"))
        self.assertEqual(self.state(block["key"]), "going")

    def test_a_pot_written_down_is_done(self) -> None:
        block = self.task("pot:")
        batch = self.client.call(
            "POST", f"/stove/of-service/{self.service['id']}", {"pot": block["pot"]}
        ).body
        act(self.client, batch["id"], *(go(n, n + 1) for n in range(batch["steps"])))
        self.assertEqual(self.state(block["key"]), "going")
        entry = {"batch_id": batch["id"], "weighed": "", "verdict": "again", "note": ""}
        self.assertEqual(self.client.call("POST", "/journal", entry).status_code, 201)
        self.assertEqual(self.state(block["key"]), "done")

    def test_a_task_with_its_timers_is_done_when_they_are(self) -> None:
        block = self.beside()
        batch = self.aside(block)
        self.assertEqual(self.state(block["key"]), "going")
        self.assertEqual(self.on(), {block["key"]: batch["id"]})
        self.assertEqual(self.aside(block)["id"], batch["id"])  # pressed twice it is one
        steps = [go(n, n + 1) for n in range(len(batch["cards"]) - 1)]
        act(self.client, batch["id"], *steps, one("through"))
        self.assertEqual(self.state(block["key"]), "done")
        self.assertEqual(Batch.objects.get(pk=batch["id"]).status, "done")

    def test_a_task_with_its_timers_that_is_abandoned_is_planned_again(self) -> None:
        block = self.beside()
        batch = self.aside(block)
        act(self.client, batch["id"], one("left"))
        self.assertEqual(self.state(block["key"]), "planned")
        self.assertNotEqual(self.aside(block)["id"], batch["id"])

    def test_what_is_left_of_a_task_with_timers_is_its_timers(self) -> None:
        block = self.beside()
        self.aside(block)
        self.client.call("POST", f"/run-ups/{self.whole['id']}/plan")
        self.work()  # planned anew with it going, whatever the hour
        self.assertEqual(self.state(block["key"]), "going")
        end = self.blocks(self.read(self.whole["id"]))[block["key"]]["end"]
        self.assertGreater(end, self.read(self.whole["id"])["now"] - 1.0)
