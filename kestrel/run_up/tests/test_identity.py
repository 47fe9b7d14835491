"""What was begun follows its pot, whatever is changed of its service; keys of before are put in place of today's."""

import random
from datetime import timedelta
from typing import Any
from unittest import mock

from django.apps import apps
from django.utils import timezone

from kestrel.run_up.models import RunUp
from kestrel.run_up.renaming import rename_old_keys
from kestrel.run_up.work import at_the_stove, document_of, ready
from kestrel.service.actions import change_service, save_dish, save_service
from kestrel.service.models import Service
from kestrel.service.work import worked
from kestrel.stove.models import Batch
from kestrel.tests.acts import act, go, one, timer
from kestrel.tests.clients import KitchenTest
from saucier.service import Plan
from saucier.testing import add, grams, roux, simmer, use

WHITE = "mother-white-milk-whole-butter-unsalted-wheat-flour"
FISH = "mother-white-stock-fish-butter-unsalted-wheat-flour"


class ATub(KitchenTest):
    """One guest without soy eats of a sauce that has none: fresh, once a tub of it is put on hand."""

    def setUp(self) -> None:
        super().setUp()
        steps = [roux(60, 60), add("milk-whole", 1, "L"), simmer(5)]
        self.sauce = self.saved(name="White", steps=steps, target={"grade": "nappe"})
        uses = [{"sauce": str(self.sauce.pk), "use": "nap"}]
        self.dish = save_dish(self.kitchen, {"name": "Leeks", "sauces": uses})
        self.plain, self.fresh = (f"own-{self.sauce.pk}~nappe{mark}" for mark in ("", "~soya"))

    def service(self, *portions: int) -> Service:
        guest = {"dish": str(self.dish.pk), "portions": 6, "without": ["soy"]}
        others = [{"dish": str(self.dish.pk), "portions": n} for n in portions]
        return save_service(self.kitchen, {"name": "Lunch", "lines": [guest, *others]})

    def with_tub(self, service: Service, ml: float | None) -> Service:
        tub = {"sauce": str(self.sauce.pk), "amount": {"value": ml, "unit": "mL"}, "age_days": 1}
        document = {**service.document, "on_hand": [] if ml is None else [tub]}
        return change_service(service, document, service.revision)

    def begin(self, service: Service, pot: str) -> Batch:
        path = f"/stove/of-service/{service.pk}"
        answer = self.client.call("POST", path, {"pot": pot})
        self.assertEqual(answer.status_code, 201, answer.content)
        return Batch.objects.get(pk=answer.body["id"])

    def pots(self, service: Service) -> set[str]:
        return {one.key for one in worked(self.kitchen, service.document, service.pinned).plan.pots}

    def test_what_was_begun_for_the_guest_alone_stays_theirs_and_comes_back(self) -> None:
        service = self.service()
        batch = self.begin(service, self.plain)
        self.client.call("POST", "/run-ups", {"service_id": service.pk})
        row = RunUp.objects.get()
        marks = {f"pot:{self.plain}#1": {"began": 600.0}, "wash:pot:else#1": {"ended": 1.0}}
        RunUp.objects.filter(pk=row.pk).update(document={**row.document, "marks": marks})
        for ml, pot in ((300.0, self.fresh), (None, self.plain)):
            service = self.with_tub(service, ml)
            batch.refresh_from_db()
            row.refresh_from_db()
            self.assertEqual(self.pots(service), {pot})
            self.assertEqual(batch.pot, pot)
            self.assertEqual(set(row.document["marks"]), {f"pot:{pot}#1", "wash:pot:else#1"})
            again = self.client.call("POST", f"/stove/of-service/{service.pk}", {"pot": pot})
            self.assertEqual(again.status_code, 409)  # it is on already

    def test_what_others_eat_of_too_is_never_handed_to_the_guest_s_pot(self) -> None:
        service = self.service(40)
        batch = self.begin(service, self.plain)
        service = self.with_tub(service, 300.0)
        batch.refresh_from_db()
        self.assertEqual(batch.pot, self.plain)

    def test_a_pot_that_left_something_out_is_never_taken_for_one_as_it_is_written(self) -> None:
        uses = [{"sauce": str(self.sauce.pk), "use": "nap"}]
        herbs = [roux(60, 60), add("milk-whole", 1, "L"), simmer(5), add("parsley", 9)]
        other = self.saved(name="Parsley", steps=herbs, target={"grade": "nappe"})
        dish = save_dish(
            self.kitchen, {"name": "Eggs", "sauces": [{**uses[0], "sauce": str(other.pk)}]}
        )
        lines = [{"dish": str(dish.pk), "portions": 6, "without": ["parsley"]}]
        service = save_service(self.kitchen, {"name": "Tea", "lines": lines})
        [pot] = self.pots(service)
        batch = self.begin(service, pot)
        tub = {"sauce": str(other.pk), "amount": {"value": 200, "unit": "mL"}, "age_days": 1}
        document = {**service.document, "on_hand": [tub]}
        change_service(service, document, service.revision)
        batch.refresh_from_db()
        self.assertEqual(batch.pot, pot)


class TwoMothers(KitchenTest):
    def setUp(self) -> None:
        super().setUp()
        self.dishes: list[tuple[str, str]] = []
        for liquid in ("milk-whole", "stock-fish"):
            for grade in ("nappe", "binding"):
                steps = [roux(60, 60), add(liquid, 1, "L"), simmer(5)]
                sauce = self.saved(name=f"{liquid} {grade}", steps=steps, target={"grade": grade})
                uses = [{"sauce": str(sauce.pk), "use": "nap"}]
                dish = save_dish(self.kitchen, {"name": f"{liquid} {grade}", "sauces": uses})
                self.dishes.append((liquid, str(dish.pk)))
        self.service = save_service(self.kitchen, {"name": "Lunch", "lines": self.lines(40, 10)})

    def lines(self, milk: int, fish: int) -> list[dict[str, Any]]:
        return [
            {"dish": dish, "portions": milk if liquid == "milk-whole" else fish}
            for liquid, dish in self.dishes
        ]

    def plan(self) -> Plan:
        self.service.refresh_from_db()
        return worked(self.kitchen, self.service.document, self.service.pinned).plan

    def begin(self, pot: str) -> Batch:
        path = f"/stove/of-service/{self.service.pk}"
        return Batch.objects.get(pk=self.client.call("POST", path, {"pot": pot}).body["id"])

    def test_edited_at_random_no_batch_comes_under_another_pot(self) -> None:
        dice = random.Random(4)
        liquids = {WHITE: "milk-whole", FISH: "stock-fish"}
        begun = {pot: self.begin(pot) for pot in liquids}
        for _ in range(6):
            lines = [dict(line) for line in self.service.document["lines"]]
            for line in lines:
                line["portions"] = dice.choice([1, 5, 30, 120])
            dice.shuffle(lines)
            document = {**self.service.document, "lines": lines}
            self.service = change_service(self.service, document, self.service.revision)
            plan = self.plan()
            for pot, batch in begun.items():
                batch.refresh_from_db()
                self.assertEqual(batch.pot, pot)
                [mother] = [one for one in plan.pots if one.key == pot]
                added = [s.ingredient for s in mother.sheet.steps if s.op == "add"]
                self.assertEqual(added, [liquids[pot]])
                told = self.client.call(
                    "POST", f"/stove/of-service/{self.service.pk}", {"pot": pot}
                )
                self.assertIn(told.status_code, (201, 409))
                if told.status_code == 201:  # more of it is planned by now, and more is begun
                    Batch.objects.filter(pk=told.body["id"]).update(status="left")

    def test_a_line_that_is_new_never_gets_what_was_another_s(self) -> None:
        gone = self.service.document["lines"][3]["id"]
        lines = self.service.document["lines"][:3]
        document = {
            **self.service.document,
            "lines": [*lines, {"dish": self.dishes[0][1], "portions": 9}],
        }
        self.service = change_service(self.service, document, self.service.revision)
        ids = [line["id"] for line in self.service.document["lines"]]
        self.assertNotIn(gone, ids)
        self.assertEqual(len(set(ids)), 4)

    def test_what_is_in_the_plan_no_more_is_told(self) -> None:
        self.begin(FISH)
        run_up = self.client.call("POST", "/run-ups", {"service_id": self.service.pk}).body
        document = {**self.service.document, "lines": self.service.document["lines"][:2]}
        self.service = change_service(self.service, document, self.service.revision)
        row = RunUp.objects.get(pk=run_up["id"])
        gathered = ready(row).gathered(document_of(row))
        self.assertIn(f"pot:{FISH}#1", at_the_stove(row))
        told = [str(one) for one in gathered.remarks]
        self.assertTrue(any("in the plan no more" in one and FISH in one for one in told), told)
        listed = self.client.call("GET", f"/stove/of-service/{self.service.pk}").body
        self.assertEqual([one["pot"] for one in listed], [FISH])

    def test_ranks_of_before_become_what_they_were(self) -> None:
        """The larger was the first: milk here."""
        batch = self.begin(WHITE)
        Batch.objects.filter(pk=batch.pk).update(pot="mother-1")
        document = {**self.service.document, "pans": {"mother-2": "stewpan"}}
        Service.objects.filter(pk=self.service.pk).update(document=document)
        self.client.call("POST", "/run-ups", {"service_id": self.service.pk})
        row = RunUp.objects.get()
        marks = {
            "pot:mother-2#1": {"began": 600.0},
            "grill:3#1": {"began": 5.0},
            "prep:leek:0": {"began": 1.0},
        }
        RunUp.objects.filter(pk=row.pk).update(document={**row.document, "marks": marks})
        rename_old_keys(apps.get_app_config("run_up"))
        batch.refresh_from_db()
        row.refresh_from_db()
        self.service.refresh_from_db()
        self.assertEqual(batch.pot, WHITE)
        self.assertEqual(list(self.service.document["pans"]), [FISH])
        self.assertEqual(set(row.document["marks"]), {f"pot:{FISH}#1", "grill:3", "prep:leek:0"})
        before = row.document
        rename_old_keys(apps.get_app_config("run_up"))
        row.refresh_from_db()
        self.assertEqual(row.document, before)

    def test_what_is_made_first_went_by_the_number_of_its_step(self) -> None:
        white = use([add("milk-whole", 1, "L")], grams(300), name="White")
        onion = use(
            [add("onion", 1, "kg"), {**white, "amount": grams(90)}], grams(200), name="Onion"
        )
        filling = self.saved(name="Filling", steps=[add("cream-35", 1, "dL"), onion], target={})
        uses = [{"sauce": str(filling.pk), "use": "over"}]
        dish = save_dish(self.kitchen, {"name": "Buns", "sauces": uses})
        lines = [{"dish": str(dish.pk), "portions": 8}]
        self.service = save_service(self.kitchen, {"name": "Tea", "lines": lines})
        pot = f"own-{filling.pk}~as-is"
        self.begin(pot)
        old = {f"{pot}/1": f"{pot}/onion", f"{pot}/1.1": f"{pot}/onion/white"}
        for before, now in old.items():
            self.assertEqual(Batch.objects.filter(pot=now).update(pot=before), 1)
        document = {**self.service.document, "pans": dict.fromkeys(old, "stewpan")}
        Service.objects.filter(pk=self.service.pk).update(document=document)
        self.client.call("POST", "/run-ups", {"service_id": self.service.pk})
        row = RunUp.objects.get()
        marks = {f"pot:{pot}/1#1": {"began": 5.0}, f"weigh:{pot}/1.1": {"ended": 4.0}}
        marks |= {f"wash:pot:{pot}/1.1#1": {"ended": 9.0}, f"pot:{pot}#1": {"began": 6.0}}
        RunUp.objects.filter(pk=row.pk).update(document={**row.document, "marks": marks})
        for _ in range(2):  # the second time there is nothing left to do
            rename_old_keys(apps.get_app_config("run_up"))
            self.service.refresh_from_db()
            row.refresh_from_db()
            pots = set(Batch.objects.values_list("pot", flat=True))
            self.assertEqual(pots, {pot, *old.values()})
            self.assertEqual(set(self.service.document["pans"]), set(old.values()))
            self.assertEqual(
                set(row.document["marks"]),
                {
                    f"pot:{pot}/onion#1",
                    f"weigh:{pot}/onion/white",
                    f"wash:pot:{pot}/onion/white#1",
                    f"pot:{pot}#1",
                },
            )

    def test_of_several_batches_each_keeps_its_number_whatever_becomes_of_the_others(self) -> None:
        path = f"/stove/of-service/{self.service.pk}"
        body = {"pot": WHITE, "one_more": True}
        first, second = (
            Batch.objects.get(pk=self.client.call("POST", path, body).body["id"]) for _ in range(2)
        )
        self.client.call("POST", "/run-ups", {"service_id": self.service.pk})
        row = RunUp.objects.get()
        act(self.client, first.pk, one("left"))
        self.assertEqual(set(at_the_stove(row)), {f"pot:{WHITE}#2"})
        third = Batch.objects.get(pk=self.client.call("POST", path, body).body["id"])
        act(self.client, first.pk, one("back"))
        for batch in (first, second, third):
            batch.refresh_from_db()
        self.assertEqual([batch.number for batch in (first, second, third)], [3, 2, 1])

    def test_minutes_left_of_a_running_step_go_by_what_is_known_of_it(self) -> None:
        batch = self.begin(WHITE)
        self.client.call("POST", "/run-ups", {"service_id": self.service.pk})
        row = RunUp.objects.get()
        act(self.client, batch.pk, go(0, 1), go(1, 2))
        whole = at_the_stove(row)[f"pot:{WHITE}#1"].left
        later = timezone.now() + timedelta(minutes=3)
        with mock.patch("django.utils.timezone.now", lambda: later):
            after = at_the_stove(row)[f"pot:{WHITE}#1"].left
            act(self.client, batch.pk, timer(9 * 60))
            timed = at_the_stove(row)[f"pot:{WHITE}#1"].left
        assert whole is not None and after is not None and timed is not None
        self.assertAlmostEqual(whole - after, 3.0, delta=0.2)
        self.assertAlmostEqual(timed, 9.0, delta=0.3)  # its own timer says how long it still is
