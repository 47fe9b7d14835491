from kestrel.larder.actions import core_kitchen
from kestrel.larder.models import OwnIngredient, Pan
from kestrel.tests.clients import KitchenTest
from saucier.testing import CHEESE_SAUCE


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


class OwnRows(KitchenTest):
    KEY = "/larder/ingredients/milk-whole"

    def changed(self, **cells: str) -> dict:
        return {**self.client.call("GET", self.KEY).body["row"], **cells}

    def save(self, row: dict, revision: int, client=None):
        body = {"row": row, "revision": revision}
        return (client or self.client).call("PUT", "/larder/ingredients", body)

    def test_two_windows_do_not_overwrite_each_other(self) -> None:
        self.assertEqual(self.save(self.changed(price_per_kg="1.3"), 0).status_code, 200)
        second = self.save(self.changed(price_per_kg="9"), 0)
        self.assertEqual(second.status_code, 409)
        self.assertEqual(second.body["row"]["price_per_kg"], "1.3")
        self.assertEqual(self.save(self.changed(price_per_kg="9"), 1).body["revision"], 2)

    def test_back_as_it_came(self) -> None:
        self.save(self.changed(salt="0.3"), 0)
        own = {r["key"]: r for r in self.client.call("GET", "/larder").body["ingredients"]}
        self.assertTrue(own["milk-whole"]["own"])
        self.client.call("DELETE", self.KEY)
        found = self.client.call("GET", self.KEY).body
        self.assertEqual((found["revision"], found["row"]["salt"]), (0, "0.1"))

    def test_one_of_their_own_retires_without_breaking_sauces(self) -> None:
        row = self.changed(key="milk-of-the-ridge", name="Ridge milk")
        self.save(row, 0)
        sheet = {**CHEESE_SAUCE, "steps": [*CHEESE_SAUCE["steps"]]}
        sheet["steps"][1] = {**sheet["steps"][1], "ingredient": "milk-of-the-ridge"}
        self.assertEqual(self.client.call("POST", "/sauces", {"sheet": sheet}).status_code, 201)
        self.client.call("DELETE", "/larder/ingredients/milk-of-the-ridge")
        keys = [r["key"] for r in self.client.call("GET", "/larder").body["ingredients"]]
        self.assertNotIn("milk-of-the-ridge", keys)
        self.assertEqual(self.client.call("POST", "/work/check", {"sheet": sheet}).status_code, 200)

    def test_nonsense_names_the_column(self) -> None:
        for cells, field in (
            ({"water": "-3"}, "water"),
            ({"fat": "lots"}, "fat"),
            ({"fat": "40"}, "composition"),
            ({"density": "0"}, "density"),
            ({"name": ""}, "name"),
            ({"role": "sorcery"}, "role"),
            ({"allergens": "dust"}, "allergens"),
            ({"usable_pct": "140"}, "usable_pct"),
        ):
            with self.subTest(field):
                self.assertIn(field, self.fields(self.save(self.changed(**cells), 0)))
        self.assertIn("ingredient", self.fields(self.client.call("GET", "/larder/ingredients/x")))

    def test_csv_out_report_in(self) -> None:
        text = self.client.get("/api/larder/csv").content.decode()
        report = self.client.call("POST", "/larder/csv", {"text": text, "keep": True}).body
        self.assertEqual(report["kept"], 0)
        text = "key,price_per_kg\nmilk-whole,1.45\nsalt,free\n"
        report = self.client.call("POST", "/larder/csv", {"text": text}).body
        self.assertEqual([r["status"] for r in report["rows"]], ["changed", "refused"])
        self.assertEqual(self.client.call("GET", self.KEY).body["revision"], 0)
        kept = self.client.call("POST", "/larder/csv", {"text": text, "keep": True}).body["kept"]
        self.assertEqual(kept, 1)
        self.assertEqual(self.client.call("GET", self.KEY).body["row"]["price_per_kg"], "1.45")
        refused = self.client.call("POST", "/larder/csv", {"text": "a,b\n1,2"})
        self.assertIn("csv", self.fields(refused))

    def test_measures(self) -> None:
        body = {"name": "big scoop", "of": "cheese", "size": 80, "unit": "g", "kind": "ladle"}
        made = self.client.call("PUT", "/larder/measures", body).body
        again = self.client.call("PUT", "/larder/measures", {**body, "size": 85}).body
        self.assertEqual((made["id"], again["size"]), (again["id"], 85))
        path = f"/larder/measures/{made['id']}"
        self.assertEqual(self.other.call("DELETE", path).status_code, 404)
        self.assertEqual(self.client.call("DELETE", path).status_code, 204)
        for change, field in (({"of": "clouds"}, "of"), ({"size": ""}, "size")):
            refused = self.client.call("PUT", "/larder/measures", {**body, **change})
            self.assertIn(field, self.fields(refused))


class KeptBefore(KitchenTest):
    def test_a_row_kept_before_a_column_came_takes_that_of_the_shipped_one(self) -> None:
        row = self.client.call("GET", "/larder/ingredients/chives").body["row"]
        old = {name: text for name, text in row.items() if name not in ("kin", "strength")}
        OwnIngredient.objects.create(
            kitchen=self.kitchen, key="chives", row={**old, "price_per_kg": "44"}
        )
        core = core_kitchen(self.kitchen).larder["chives"]
        self.assertEqual((core.price_per_kg, core.kin), (44.0, ("soft-herb", "onion")))
        read = self.client.call("GET", "/larder/ingredients/chives").body["row"]
        self.assertEqual((read["price_per_kg"], read["kin"]), ("44", "soft-herb onion"))


class FromAPacket(KitchenTest):
    PACKET = {
        "name": "Ridge cheese",
        "role": "cheese",
        "fat": "31",
        "carbohydrate": "0",
        "sugars": "0",
        "protein": "27",
        "salt": "1.5",
    }

    def test_it_is_worked_out_looked_over_and_kept(self) -> None:
        found = self.client.call("POST", "/larder/from-label", self.PACKET).body
        self.assertEqual(
            (found["row"]["key"], found["row"]["thickening_protein"]), ("ridge-cheese", "27")
        )
        self.assertTrue(any("water" in one for one in found["assumed"]))
        kept = self.client.call("PUT", "/larder/ingredients", {"row": found["row"], "revision": 0})
        self.assertEqual(kept.status_code, 200)
        again = self.client.call("POST", "/larder/from-label", self.PACKET).body
        self.assertEqual(again["row"]["key"], "ridge-cheese-2")

    def test_nonsense_names_the_field(self) -> None:
        for change, field in (
            ({"fat": "lots"}, "fat"),
            ({"protein": ""}, "protein"),
            ({"sugars": "5"}, "sugars"),
            ({"role": "gravel"}, "role"),
            ({"name": " "}, "name"),
        ):
            refused = self.client.call("POST", "/larder/from-label", {**self.PACKET, **change})
            self.assertEqual(self.fields(refused), [field])


class HabitsOfTheKitchen(KitchenTest):
    def habit(self, what: str, value: object):
        return self.client.call("PUT", "/larder/habits", {"what": what, "value": value})

    def uses(self, client) -> dict:
        return {use["key"]: use for use in client.call("GET", "/larder").body["uses"]}

    def test_their_own_nap_and_film(self) -> None:
        self.assertEqual(self.habit("nap", "70").status_code, 204)
        self.assertEqual(self.habit("film", 50).status_code, 204)
        nap = self.uses(self.client)["nap"]
        self.assertEqual((nap["per_ml"], nap["usual_ml"], nap["own"]), (70, 55, True))
        sheet = {
            **CHEESE_SAUCE,
            "target": {"grade": "binding", "serves": {"use": "nap", "count": 10, "margin_pct": 0}},
        }
        need = self.client.call("POST", "/work/check", {"sheet": sheet}).body["need"]
        self.assertEqual(need["volume_ml"], 750)
        self.assertEqual(self.uses(self.other)["nap"]["per_ml"], 55)
        self.habit("whisk", "5000")
        catalogue = self.client.call("GET", "/larder").body
        self.assertEqual((catalogue["whisk_ml"], catalogue["usual_whisk_ml"]), (5000, 12000))
        self.habit("nap", None)
        self.assertFalse(self.uses(self.client)["nap"]["own"])

    def test_nonsense_names_the_field(self) -> None:
        for what, value, field in (
            ("wave", 3, "what"),
            ("nap", -3, "value"),
            ("nap", "lots", "value"),
            ("film", 9000, "value"),
            ("whisk", 0, "value"),
        ):
            self.assertIn(field, self.fields(self.habit(what, value)))
