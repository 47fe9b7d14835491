"""An act that is sent twice happens once, and a save whose answer was lost is no conflict."""

from typing import Any

from kestrel.accounts.models import Answered, Invite
from kestrel.larder.models import Pan
from kestrel.sauces.models import Sauce
from kestrel.service.models import Dish, Service
from kestrel.stove.models import Batch, Device
from kestrel.tests.clients import KitchenTest
from saucier.testing import CHEESE_SAUCE

PAN = {"name": "P", "shape": "straight", "diameter_cm": 20, "depth_cm": 9}


class SentTwice(KitchenTest):
    def send(self, path: str, body: Any, key: str = "a-key-of-mine", method: str = "POST") -> Any:
        return self.client.call(method, path, body, HTTP_KESTREL_ACT=key)

    def test_everything_that_is_made_is_made_once(self) -> None:
        sauce = self.saved()
        dish_document = {
            "name": "Gratin",
            "sauces": [{"sauce": str(sauce.pk), "use": "nap"}],
        }
        made = self.client.call("POST", "/dishes", {"document": dish_document})
        self.assertEqual(made.status_code, 201, made.content)
        service = {"name": "Noon", "lines": [{"dish": str(made.body["id"]), "portions": 4}]}
        for number, (path, body, model) in enumerate(
            (
                ("/sauces", {"sheet": CHEESE_SAUCE}, Sauce),
                (f"/sauces/{sauce.pk}/copy", None, Sauce),
                ("/dishes", {"document": dish_document}, Dish),
                ("/services", {"document": service}, Service),
                ("/stove", {"sauce_id": sauce.pk}, Batch),
                ("/stove/free", {"name": "A", "pan": ""}, Batch),
                ("/larder/pans", PAN, Pan),
            )
        ):
            with self.subTest(path):
                before = model.objects.count()
                first = self.send(path, body, f"key-number-{number}")
                again = self.send(path, body, f"key-number-{number}")
                self.assertEqual(first.status_code, 201, first.content)
                self.assertEqual((again.status_code, again.body), (201, first.body))
                self.assertEqual(model.objects.count(), before + 1)

    def test_a_token_is_kept_nowhere(self) -> None:
        for path, body, secret in (
            ("/devices", {"name": "Scale", "kind": "scale"}, "token"),
            ("/people/invites", {}, "path"),
        ):
            made = self.send(path, body, f"key-of{path.replace('/', '-')}")
            self.assertEqual(made.status_code, 201, made.content)
            self.assertNotIn("Kestrel-Told-Once", made.headers)
            told = made.body[secret].removeprefix("/join/")
            for row in Answered.objects.all():
                self.assertNotIn(told.encode(), bytes(row.body))
            again = self.send(path, body, f"key-of{path.replace('/', '-')}")
            self.assertEqual(again.status_code, 409)
            self.assertIn("told once", again.body["message"])
        self.assertEqual((Device.objects.count(), Invite.objects.count()), (1, 1))

    def test_the_same_key_for_something_else_is_told(self) -> None:
        self.send("/larder/pans", PAN)
        other = self.send("/larder/pans", {**PAN, "name": "Q"})
        self.assertEqual(other.status_code, 409)
        self.assertIn("another", other.body["message"])
        self.assertEqual(Pan.objects.count(), 1)

    def test_what_was_refused_may_come_again_under_its_key(self) -> None:
        self.fields(self.send("/larder/pans", {**PAN, "name": ""}))
        self.assertEqual(self.send("/larder/pans", PAN).status_code, 201)
        self.assertEqual(Answered.objects.count(), 1)

    def test_a_key_is_its_senders_alone(self) -> None:
        self.send("/larder/pans", PAN)
        theirs = self.other.call("POST", "/larder/pans", PAN, HTTP_KESTREL_ACT="a-key-of-mine")
        self.assertEqual(theirs.status_code, 201)
        self.assertEqual(Pan.objects.count(), 2)

    def test_a_bad_key_is_told(self) -> None:
        self.assertEqual(self.fields(self.send("/larder/pans", PAN, "short")), ["Kestrel-Act"])

    def test_what_reckons_only_keeps_nothing(self) -> None:
        self.send("/work/check", {"sheet": CHEESE_SAUCE})
        self.assertFalse(Answered.objects.exists())


class SavedAlready(KitchenTest):
    def test_a_save_sent_again_is_accepted(self) -> None:
        sauce = self.saved()
        body = {"sheet": {**CHEESE_SAUCE, "name": "Other"}, "base_version": 1}
        for _ in range(3):
            saved = self.client.call("PUT", f"/sauces/{sauce.pk}", body)
            self.assertEqual((saved.status_code, saved.body["version"]), (200, 2))
        # What differs from it is a conflict as ever.
        body["sheet"] = {**CHEESE_SAUCE, "name": "Third"}
        self.assertEqual(self.client.call("PUT", f"/sauces/{sauce.pk}", body).status_code, 409)

    def test_services_and_rows_too(self) -> None:
        made = self.client.call("POST", "/services", {"document": {"name": "Noon", "lines": []}})
        body = {"document": {"name": "Noon, later", "lines": []}, "revision": 1}
        path = f"/services/{made.body['id']}"
        answers = [self.client.call("PUT", path, body) for _ in range(2)]
        self.assertEqual([one.status_code for one in answers], [200, 200])
        self.assertEqual(answers[1].body["revision"], 2)
        row = self.client.call("GET", "/larder/ingredients/milk-whole").body["row"]
        row = {"row": {**row, "price_per_kg": "1.25"}, "revision": 0}
        answers = [self.client.call("PUT", "/larder/ingredients", row) for _ in range(2)]
        self.assertEqual([one.status_code for one in answers], [200, 200])

    def test_what_was_deleted_says_so(self) -> None:
        sauce = self.saved()
        self.client.call("DELETE", f"/sauces/{sauce.pk}")
        body = {"sheet": {**CHEESE_SAUCE, "name": "Other"}, "base_version": 1}
        refused = self.client.call("PUT", f"/sauces/{sauce.pk}", body)
        self.assertEqual(self.fields(refused), ["sauce"])
        self.assertIn("deleted", refused.body["problems"][0]["message"])
        made = self.client.call("POST", "/services", {"document": {"name": "Noon", "lines": []}})
        path = f"/services/{made.body['id']}"
        self.client.call("DELETE", path)
        body = {"document": {"name": "Noon", "lines": []}, "revision": 1}
        self.assertEqual(self.fields(self.client.call("PUT", path, body)), ["revision"])

    def test_dishes_of_another_kitchen_are_refused_when_saved(self) -> None:
        theirs = Dish.objects.create(
            kitchen=self.stranger.kitchens.get(), name="T", document={"name": "T", "sauces": []}
        )
        for key in (str(theirs.pk), "999999", "x"):
            lines = [{"dish": key, "portions": 4}]
            body = {"document": {"name": "Noon", "lines": lines}}
            refused = self.client.call("POST", "/services", body)
            self.assertEqual(self.fields(refused), ["lines[0].dish"], key)
