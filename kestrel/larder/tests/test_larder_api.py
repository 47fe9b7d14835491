from kestrel.larder.models import Pan
from kestrel.tests.clients import KitchenTest


class Larder(KitchenTest):
    def test_catalogue(self) -> None:
        found = self.client.call("GET", "/larder").body
        self.assertGreaterEqual(len(found["ingredients"]), 40)
        self.assertEqual(found["grades"][0]["key"], "pouring")
        self.assertIsNone(found["grades"][-1]["high_pa_s"])
        self.assertTrue(all(row["origin"] for row in found["ingredients"]))

    def test_pans_are_the_kitchens_own(self) -> None:
        body = {"name": "sauteuse", "shape": "sloped", "diameter_cm": 24, "tare_g": 900}
        made = self.client.call("POST", "/larder/pans", body)
        self.assertEqual(made.status_code, 201)
        self.assertEqual(made.body["depth_cm"], 12)
        self.assertEqual(self.other.call("GET", "/larder").body["pans"], [])
        path = f"/larder/pans/{made.body['id']}"
        self.assertEqual(self.other.call("DELETE", path).status_code, 404)
        self.assertEqual(self.client.call("DELETE", path).status_code, 204)
        self.assertFalse(Pan.objects.exists())

    def test_burners_too(self) -> None:
        body = {"name": "back ring", "kind": "induction", "watts": 2000}
        made = self.client.call("POST", "/larder/burners", body)
        self.assertEqual(made.status_code, 201)
        path = f"/larder/burners/{made.body['id']}"
        self.assertEqual(self.other.call("DELETE", path).status_code, 404)
        for change, field in (
            ({"watts": 0}, "watts"),
            ({"kind": "coal"}, "kind"),
            ({"name": ""}, "name"),
        ):
            refused = self.client.call("POST", "/larder/burners", {**body, **change})
            self.assertIn(field, self.fields(refused))
        self.assertEqual(self.client.call("DELETE", path).status_code, 204)

    def test_nonsense_names_the_field(self) -> None:
        for change, field in (
            ({"diameter_cm": -3}, "diameter_cm"),
            ({"diameter_cm": "wide"}, "diameter_cm"),
            ({"tare_g": -1}, "tare_g"),
            ({"shape": "square"}, "shape"),
            ({"name": " "}, "name"),
        ):
            body = {"name": "x", "diameter_cm": 20, **change}
            self.assertIn(field, self.fields(self.client.call("POST", "/larder/pans", body)))
