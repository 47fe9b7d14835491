"""What was judged and weighed is what is made again; what had no plan differs from none and teaches nothing."""

from datetime import timedelta
from typing import Any

from django.utils import timezone

from kestrel.journal.learning import lesson_of
from kestrel.journal.models import Entry
from kestrel.sauces.models import Sauce
from kestrel.stove.models import Batch
from kestrel.tests.acts import act, go, one, saw
from kestrel.tests.clients import KitchenTest
from saucier.check import check
from saucier.sheet import read_sheet
from saucier.testing import add, roux, simmer


class AsItTurnedOut(KitchenTest):
    def write(self, batch: int, **more: Any) -> dict[str, Any]:
        entry = {"batch_id": batch, "weighed": "", "verdict": "again", "note": "", **more}
        written = self.client.call("POST", "/journal", entry)
        self.assertEqual(written.status_code, 201, written.content)
        return written.body

    def newest(self, sauce: int) -> Any:
        return read_sheet(Sauce.objects.get(pk=sauce).newest.sheet)


class Again(AsItTurnedOut):
    def test_judged_nappe_and_again_just_so_it_is_nappe_on_its_target_with_its_use(self) -> None:
        steps = [roux(83, 83), add("milk-whole", 1, "L"), simmer(5)]
        target = {"grade": "binding", "serves": {"use": "nap", "count": 12}}
        sauce = self.saved(name="For leeks", steps=steps, target=target)
        batch = self.client.call("POST", "/stove", {"sauce_id": sauce.pk}).body
        act(self.client, batch["id"], *(go(n, n + 1) for n in range(3)))
        entry = self.write(batch["id"], reached_pa_s=0.69, weighed="1080 g")
        made = self.client.call("POST", f"/journal/{entry['id']}/again")
        self.assertIn(made.status_code, (200, 201), made.content)
        sheet = self.newest(sauce.pk)
        found = check(sheet).final
        self.assertEqual((sheet.target.grade, found.thickness.grade), ("nappe", "nappe"))
        self.assertAlmostEqual(found.thickness.viscosity_pa_s, 0.69, delta=0.02)
        self.assertEqual(sheet.target.serves.use, "nap")
        self.assertAlmostEqual(sheet.steps[0].flour.amount.value, 83.0)


class FreeHand(AsItTurnedOut):
    def start(self) -> int:
        made = self.client.call("POST", "/stove/free", {"name": "As it comes"}).body
        self.began = timezone.now() - timedelta(minutes=30)
        began = {"0": self.began.isoformat()}
        Batch.objects.filter(pk=made["id"]).update(started_at=self.began, began=began)
        return made["id"]

    def at(self, minute: float, done: dict[str, Any]) -> dict[str, Any]:
        return {**done, "at": (self.began + timedelta(minutes=minute)).isoformat()}

    def cream(self) -> int:
        batch = self.start()
        acts = (
            self.at(0, one("added", put=add("cream-35", 500))),
            self.at(4, one("added", put=simmer(1, "lively"))),
            self.at(8, saw(1, "gone", 0.5)),
            self.at(9, go(1, 2)),
        )
        answer = act(self.client, batch, *acts)
        self.assertTrue(all(one["taken"] for one in answer.body["acts"]), answer.body["acts"])
        return batch

    def sauce_of(self, batch: int) -> Any:
        made = self.client.call("POST", f"/stove/{batch}/sauce", {"name": "Made of it"})
        self.assertEqual(made.status_code, 201, made.content)
        return self.newest(made.body["sauce_id"])

    def test_what_was_seen_goes_into_the_sauce_that_is_made_of_it(self) -> None:
        sheet = self.sauce_of(self.cream())
        self.assertEqual(sheet.steps[1].op, "reduce")
        self.assertAlmostEqual(check(sheet).final.pot.total_g / 250.0, 1.0, delta=0.25)

    def test_what_was_weighed_goes_into_it_too(self) -> None:
        batch = self.cream()
        self.write(batch, weighed="301 g")
        self.assertAlmostEqual(check(self.sauce_of(batch)).final.pot.total_g, 301.0, delta=4.0)

    def test_what_was_judged_goes_into_it_too(self) -> None:
        batch = self.start()
        puts = (roux(60, 60), add("milk-whole", 1, "L"), simmer(5))
        acts = [self.at(3.0 * n, one("added", put=put)) for n, put in enumerate(puts)]
        act(self.client, batch, *acts, self.at(12, go(2, 3)))
        self.write(batch, reached_pa_s=1.5)
        sheet = self.sauce_of(batch)
        self.assertEqual(sheet.target.grade, "binding")
        self.assertAlmostEqual(check(sheet).final.thickness.viscosity_pa_s, 1.5, delta=0.05)

    def test_it_had_no_plan_and_teaches_nothing(self) -> None:
        batch = self.cream()
        entry = self.write(batch, weighed="301 g", reached_pa_s=2.0)
        self.assertEqual(entry["plan"], dict.fromkeys(entry["plan"]))
        self.assertIsNone(entry["mass_off_pct"])
        self.assertEqual(lesson_of(Entry.objects.get(pk=entry["id"])).told, [])
