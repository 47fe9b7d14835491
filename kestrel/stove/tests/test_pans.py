"""A pan is under one pot at a time; the next free one is taken, and told."""

from typing import Any

from kestrel.larder.models import Pan
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
