"""A pan is under one pot at a time; the next free one is taken, and told."""

from typing import Any

from kestrel.larder.models import Pan
from kestrel.stove.following import as_cooked, made_of
from kestrel.stove.models import Batch
from kestrel.tests.acts import act, one
from kestrel.tests.clients import KitchenTest
from saucier.testing import add, reduce_to, roux, simmer


class Pans(KitchenTest):
    def setUp(self) -> None:
        super().setUp()
        for name, diameter, depth, count in (
            ("saucepan 16", 16, 9, 1),
            ("saucepan 20", 20, 12, 1),
            ("pot 24", 24, 14, 2),
            ("bowl", 20, 12, 5),
        ):
            Pan.objects.create(
                kitchen=self.kitchen,
                name=name,
                shape="bowl" if name == "bowl" else "straight",
                diameter_cm=diameter,
                depth_cm=depth,
                count=count,
            )
        self.white = self.saved(
            name="White", steps=[roux(60, 60), add("milk-whole", 1, "L"), simmer(5)]
        )

    def start(self, sauce: Any = None) -> dict[str, Any]:
        found = self.client.call("POST", "/stove", {"sauce_id": (sauce or self.white).pk})
        self.assertEqual(found.status_code, 201, found.content)
        return found.body

    def test_the_next_free_one_is_taken_and_told(self) -> None:
        pots = [self.start() for _ in range(4)]
        taken = [pot["pan"] for pot in pots]
        for name in set(taken):
            self.assertLessEqual(taken.count(name), Pan.objects.get(name=name).count)
        self.assertIsNone(pots[0]["plan"]["pan_told"])
        self.assertIn(f"The {taken[0]} is under White", pots[1]["plan"]["pan_told"])
        self.assertIn(taken[1], pots[1]["plan"]["pan_told"])
        self.assertEqual(pots[1]["sheet"]["pan"]["name"], taken[1])

    def test_where_none_is_free_that_is_told_and_nothing_is_refused(self) -> None:
        Pan.objects.exclude(name__in=("saucepan 20", "bowl")).delete()
        self.start()
        second = self.start()
        self.assertIn("no free pan takes this", second["plan"]["pan_told"])
        self.assertIn("is under White too", second["shares_pan"])

    def test_a_pot_that_is_off_frees_its_pan(self) -> None:
        first = self.start()
        act(self.client, first["id"], one("left"))
        self.assertEqual(self.start()["pan"], first["pan"])
        Batch.objects.filter(status="on").update(put_away_at=Batch.objects.first().started_at)
        self.assertEqual(self.start()["pan"], first["pan"])

    def test_a_stop_by_minutes_stops_where_it_would_have_in_its_own(self) -> None:
        cream = self.saved(name="Cream", steps=[add("cream-35", 500), reduce_to(minutes=6)])
        first, second = self.start(cream), self.start(cream)
        self.assertNotEqual(first["pan"], second["pan"])
        masses = [pot["plan"]["final"]["mass_g"] for pot in (first, second)]
        self.assertAlmostEqual(masses[0], masses[1], delta=2.0)
        minutes = [pot["plan"]["final"]["minutes"] for pot in (first, second)]
        self.assertGreater(abs(minutes[0] - minutes[1]), 0.5)

    def test_a_pan_that_is_picked_and_taken_is_told_by_its_field(self) -> None:
        pan = self.start()["pan"]
        refused = self.client.call("POST", "/stove/free", {"name": "cap", "pan": pan})
        self.assertEqual(self.fields(refused), ["pan"])
        self.assertEqual(
            self.client.call("POST", "/stove/free", {"name": "cap", "pan": ""}).status_code, 201
        )

    def does(self, pot: dict[str, Any], **said: Any) -> dict[str, Any]:
        found = act(self.client, pot["id"], one(**said))
        self.assertEqual(found.status_code, 200, found.content)
        return found.body["batch"]

    def stands_in(self, pot: dict[str, Any]) -> str:
        found = as_cooked(Batch.objects.get(pk=pot["id"])).following
        assert found is not None
        return found.checked.pan.name

    def test_it_stays_in_its_pan_whatever_goes_in(self) -> None:
        cream = self.saved(name="Cream", steps=[add("cream-35", 250), reduce_to(share=0.5)])
        pot = self.start(cream)
        for pan in ("saucepan 16", "saucepan 20", "pot 24"):
            wanted = self.does(pot, kind="stands", pan=pan)
            for grams in (60.0, 250.0, 900.0):
                self.does(pot, kind="put", step=0, field="amount", grams=grams, sure=True)
                self.assertEqual(self.stands_in(pot), pan)
            self.assertEqual(wanted["pan"], pan)

    def test_it_stays_in_its_pan_whatever_becomes_of_the_larder(self) -> None:
        pot = self.start()
        Pan.objects.filter(name=pot["pan"]).update(name="old one")
        Pan.objects.filter(name="pot 24").delete()
        self.assertEqual(self.stands_in(pot), pot["pan"])
        self.assertEqual(
            made_of(Batch.objects.get(pk=pot["id"])).pan.diameter_cm,
            pot["plan"]["pan"]["diameter_cm"],
        )

    def test_a_batch_of_before_stands_in_the_pan_of_that_name(self) -> None:
        pot = self.start()
        batch = Batch.objects.get(pk=pot["id"])
        del batch.plan["stands_in"]
        batch.plan["pan"]["name"] = "pot 24"
        batch.save()
        self.assertEqual(self.stands_in(pot), "pot 24")

    def test_the_pan_a_cook_says_it_is_in_is_the_one_it_is_in(self) -> None:
        cream = self.saved(name="Cream", steps=[add("cream-35", 500), reduce_to(minutes=6)])
        pot = self.start(cream)
        planned = as_cooked(Batch.objects.get(pk=pot["id"])).following
        other = "saucepan 16" if pot["pan"] != "saucepan 16" else "saucepan 20"
        moved = self.does(pot, kind="stands", ring="left", pan=other)
        self.assertEqual((moved["pan"], moved["plan"]["pan"]["name"]), (other, other))
        now = as_cooked(Batch.objects.get(pk=pot["id"])).following
        assert planned and now
        self.assertEqual(self.stands_in(pot), other)
        # Its minutes are told anew, its stop stays where it was meant.
        of = [found.checked.final.pot for found in (planned, now)]
        self.assertAlmostEqual(of[0].total_g, of[1].total_g, delta=3.0)
        self.assertGreater(abs(of[1].minutes - of[0].minutes), 1.0)
        self.assertEqual(self.does(pot, kind="stands", ring="right")["pan"], other)

    def test_no_pan_of_the_kitchen_is_told_by_its_field(self) -> None:
        pot = self.start()
        for pan in ("bowl", "wok", ""):
            refused = act(self.client, pot["id"], one("stands", pan=pan))
            self.assertEqual(self.fields(refused), ["acts[0].pan"], pan)

    def test_a_pot_put_back_on_tells_who_is_in_its_pan(self) -> None:
        first = self.start()
        self.does(first, kind="left")
        second = self.start()
        self.assertEqual(first["pan"], second["pan"])
        self.assertIsNone(second["shares_pan"])
        back = self.does(first, kind="back")
        self.assertIn("is under White too", back["shares_pan"])
        told = {pot["id"]: pot["shares_pan"] for pot in self.client.call("GET", "/stove").body}
        self.assertTrue(all(told.values()))
        moved = self.does(first, kind="stands", pan="pot 24")
        self.assertIsNone(moved["shares_pan"])
        self.assertEqual(self.client.call("GET", f"/stove/{second['id']}").body["shares_pan"], None)

    def test_free_hand_grows_in_no_pan_that_is_taken(self) -> None:
        taken = [self.start()["pan"] for _ in range(2)]
        free = self.client.call("POST", "/stove/free", {"name": "cap", "pan": ""}).body
        for amount in ("30 g", "700 mL"):
            put = {"op": "add", "ingredient": "milk-whole", "amount": amount}
            free = self.does(free, kind="added", put=put)
            self.assertNotIn(free["pan"], [pan for pan in taken if pan != "pot 24"])
            self.assertEqual(self.stands_in(free), free["pan"])
