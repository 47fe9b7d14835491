"""The first minute of a kitchen, and how its figures are written."""

from kestrel.accounts.models import Kitchen
from kestrel.larder.models import Burner, Gear, Pan
from kestrel.tests.clients import KitchenTest
from saucier.testing import CHEESE_SAUCE

WAYS = {
    "temperature": "F",
    "measures": "us",
    "tablespoon_ml": 20,
    "decimals": ",",
    "dates": "iso",
    "currency": "kr",
}


class Beginning(KitchenTest):
    def test_what_is_ticked_is_there_once(self) -> None:
        usual = self.client.call("GET", "/larder/usual").body
        pans = [one["key"] for one in usual["pans"] if one["ticked"]]
        given = {"pans": pans, "hob": usual["hobs"][0]["key"], "gear": ["oven", "grill"]}
        self.assertFalse(self.client.call("GET", "/accounts/me").body["begun"])
        was = Pan.objects.filter(kitchen=self.kitchen).count()
        for _ in range(2):  # the answer may have been lost
            self.assertEqual(self.client.call("POST", "/larder/begin", given).status_code, 200)
        self.assertEqual(Pan.objects.filter(kitchen=self.kitchen).count(), was + len(pans))
        self.assertEqual(Burner.objects.filter(kitchen=self.kitchen).count(), 4)
        kinds = Gear.objects.filter(kitchen=self.kitchen).values_list("kind", flat=True)
        self.assertEqual(sorted(kinds), ["grill", "oven"])
        self.assertTrue(self.client.call("GET", "/accounts/me").body["begun"])

    def test_every_usual_thing_can_be_had(self) -> None:
        usual = self.client.call("GET", "/larder/usual").body
        for hob in usual["hobs"]:
            Kitchen.objects.filter(pk=self.kitchen.pk).update(begun=False)
            given = {
                "pans": [one["key"] for one in usual["pans"]],
                "hob": hob["key"],
                "gear": [one["kind"] for one in usual["gear"]],
            }
            answer = self.client.call("POST", "/larder/begin", given)
            self.assertEqual(answer.status_code, 200, answer.body)

    def test_later_is_a_way_too_and_nonsense_adds_nothing(self) -> None:
        bad = {"pans": ["cauldron"], "hob": "gas", "gear": []}
        answer = self.client.call("POST", "/larder/begin", bad)
        self.assertEqual(
            (answer.status_code, answer.body["problems"][0]["field"]), (422, "pans[0]")
        )
        self.assertEqual(Burner.objects.filter(kitchen=self.kitchen).count(), 0)
        self.assertFalse(self.client.call("GET", "/accounts/me").body["begun"])
        self.client.call("POST", "/larder/begin", {})
        self.assertTrue(self.client.call("GET", "/accounts/me").body["begun"])


class Writing(KitchenTest):
    def test_words_follow_the_kitchen_and_nobody_elses_do(self) -> None:
        answer = self.client.call("PUT", "/accounts/ways", WAYS)
        self.assertEqual(answer.body["ways"], WAYS)
        told = str(self.client.call("POST", "/work/check", {"sheet": CHEESE_SAUCE}).body)
        self.assertIn("°F", told)
        self.assertNotIn("°C", told)
        other = str(self.other.call("POST", "/work/check", {"sheet": CHEESE_SAUCE}).body)
        self.assertIn("°C", other)
        self.assertNotIn("°F", other)

    def test_a_tablespoon_is_what_the_kitchen_has(self) -> None:
        recipe = {"text": "Sauce\n2 tbsp butter\n3 tablespoons flour\n500 ml milk"}

        def grams(client) -> float:
            lines = client.call("POST", "/work/read", recipe).body["reading"]["lines"]
            amount = lines[0]["amount"]
            unit = {"mL": 0.911, "tbsp": 15 * 0.911, "g": 1.0}[amount["unit"]]
            return amount["value"] * unit

        fifteen = grams(self.client)
        self.client.call("PUT", "/accounts/ways", WAYS)
        self.assertAlmostEqual(grams(self.client) / fifteen, 20 / 15, delta=0.01)

    def test_nonsense_names_the_field(self) -> None:
        for field, value in (
            ("temperature", "K"),
            ("measures", "troy"),
            ("tablespoon_ml", 17),
            ("decimals", ";"),
            ("dates", "moon"),
            ("currency", ""),
        ):
            answer = self.client.call("PUT", "/accounts/ways", {**WAYS, field: value})
            self.assertEqual(answer.status_code, 422, field)
            self.assertIn(field, str(answer.body))
        self.assertEqual(Kitchen.objects.get(pk=self.kitchen.pk).temperature, "C")
