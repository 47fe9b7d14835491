"""A service into another kitchen and back, and one bad line beside good ones."""

import json

from django.core.management import call_command

from kestrel.accounts.models import User
from kestrel.larder.models import Pan
from kestrel.sauces.models import Sauce
from kestrel.service.models import Dish, Service
from kestrel.tests.clients import JsonClient, KitchenTest


class OneFile(KitchenTest):
    @classmethod
    def setUpTestData(cls) -> None:
        super().setUpTestData()
        call_command("load_demo", verbosity=0)

    def setUp(self) -> None:
        super().setUp()
        self.client = self.signed_in(User.objects.get(username="refectory"))
        self.valley = self.stranger.kitchens.get()

    def whole(self, client: JsonClient, pk: int) -> dict:
        return json.loads(client.get(f"/api/services/{pk}/whole.json").content)

    def test_into_another_kitchen_it_comes_to_the_same(self) -> None:
        for service in Service.objects.filter(name__in=["Night shift", "Visitors' Sunday"]):
            ours = self.whole(self.client, service.pk)
            text = json.dumps(ours)
            made = self.other.call("POST", "/services/file", {"text": text})
            self.assertEqual(made.status_code, 201, made.content)
            theirs = self.whole(self.other, made.body["id"])
            for key in ("serve", "matrix", "cautions"):
                self.assertEqual(theirs["production"][key], ours["production"][key], key)
            for mine, yours in zip(
                ours["production"]["weigh"], theirs["production"]["weigh"], strict=True
            ):
                for key in ("name", "grade", "pan", "batches", "feeds", "guests"):
                    self.assertEqual(mine[key], yours[key], key)
                grams = [[w["grams"] for w in one["weighed"]] for one in (mine, yours)]
                for one, other in zip(*grams, strict=True):  # theirs is another ring
                    self.assertAlmostEqual(one, other, delta=0.02 * one + 2)
            # A second time nothing is added but the service.
            counts = [m.objects.filter(kitchen=self.valley).count() for m in (Sauce, Dish, Pan)]
            self.other.call("POST", "/services/file", {"text": text})
            again = [m.objects.filter(kitchen=self.valley).count() for m in (Sauce, Dish, Pan)]
            self.assertEqual(counts, again)

    def test_what_is_no_such_file_is_refused_and_nothing_is_stored(self) -> None:
        good = self.whole(self.client, Service.objects.get(name="Night shift").pk)
        broken = json.loads(json.dumps(good))
        next(iter(broken["dishes"].values()))["margin_pct"] = -3
        for text, field in (
            ("what", "sheet"),
            ("{}", "format"),
            (json.dumps({**good, "sauces": None}), "sauces"),
            (json.dumps({**good, "service": 3}), "service"),
            (json.dumps(broken), "dishes"),
            (json.dumps({**good, "pans": [{"name": "x", "diameter_cm": -1}]}), "pans[0]"),
            (json.dumps({**good, "pans": [{"name": ["x"], "diameter_cm": 20}]}), "pans[0]"),
            (json.dumps({**good, "ingredients": [{"key": ["x"]}]}), "ingredients[0]"),
        ):
            with self.subTest(field):
                refused = self.other.call("POST", "/services/file", {"text": text})
                self.assertEqual(refused.status_code, 422)
                self.assertTrue(refused.body["problems"][0]["field"].startswith(field))
        self.assertFalse(Sauce.objects.filter(kitchen=self.valley).exists())

    def test_the_csv_says_what_the_wall_says(self) -> None:
        service = Service.objects.get(name="Visitors' Sunday")
        text = self.client.get(f"/api/services/{service.pk}/production.csv").content.decode()
        parts = {line.split(",")[0] for line in text.splitlines()[1:]}
        wanted = {"dish", "caution", "buy", "order", "pot", "weigh", "vessel", "serve", "sitting"}
        self.assertLessEqual(wanted | {"trimmings", "allergens"}, parts)
        self.assertIn("oat drink in place of whole milk", text)
        self.assertIn("stewpan 28 no. 2", text)

    def test_an_entry_that_cannot_be_read_is_left_out_and_nothing_of_it_is_kept(self) -> None:
        service = Service.objects.get(name="Night shift")
        document = json.loads(json.dumps(service.document))
        document["lines"][0]["portions"] = "many"
        document["on_hand"] = [{"sauce": "1", "amount": "3 pieces"}]
        worked = self.client.call("POST", "/services/work", {"document": document})
        self.assertEqual(worked.status_code, 200)
        unread = {one["field"] for one in worked.body["unread"]}
        self.assertEqual(unread, {"lines[0].portions", "on_hand[0].amount.unit"})
        plan = worked.body["plan"]
        self.assertEqual([line["refused"] for line in plan["lines"]], [True, False, False])
        self.assertEqual([line["number"] for line in plan["lines"]], [0, 1, 2])
        kept = {"document": document, "revision": service.revision}
        self.assertEqual(self.client.call("PUT", f"/services/{service.pk}", kept).status_code, 422)
        # What is wrong with the whole is refused as a whole.
        odd = self.client.call("POST", "/services/work", {"document": {**document, "name": ""}})
        self.assertEqual(odd.status_code, 422)

    def test_one_line_that_cannot_be_served_is_told_and_the_rest_is_planned(self) -> None:
        service = Service.objects.get(name="Night shift")
        document = {**service.document}
        document["lines"] = [*document["lines"], {**document["lines"][0], "without": ["milk"]}]
        worked = self.client.call("POST", "/services/work", {"document": document})
        self.assertEqual(worked.status_code, 200)
        plan = worked.body["plan"]
        self.assertEqual([line["refused"] for line in plan["lines"]], [False] * 3 + [True])
        self.assertEqual({a["field"] for a in plan["amiss"]}, {"lines[3].without"})
        offer = plan["lines"][3]["offers"][0]
        document["lines"][3]["swaps"] = offer["swaps"]
        again = self.client.call("POST", "/services/work", {"document": document}).body["plan"]
        self.assertFalse(again["lines"][3]["refused"])
        self.assertNotIn("milk", again["lines"][3]["allergens"])
