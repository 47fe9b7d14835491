from django.test import TestCase

from kestrel.accounts.models import User
from kestrel.tests.clients import PASSWORD, JsonClient, KitchenTest


class FirstVisit(TestCase):
    def test_first_account_is_made_once(self) -> None:
        client = JsonClient()
        self.assertTrue(client.call("GET", "/accounts/me").body["first_visit"])
        body = {"username": "ada", "password": PASSWORD, "kitchen": "Lower kitchen"}
        made = client.call("POST", "/accounts/first", body)
        self.assertEqual(made.status_code, 200)
        self.assertEqual(made.body["kitchen"], "Lower kitchen")
        self.assertEqual(client.call("GET", "/sauces").status_code, 200)
        again = JsonClient().call("POST", "/accounts/first", {**body, "username": "eve"})
        self.assertEqual(again.status_code, 422)
        self.assertEqual(User.objects.count(), 1)

    def test_weak_and_empty_are_named(self) -> None:
        body = {"username": " ", "password": "short", "kitchen": ""}
        refused = JsonClient().call("POST", "/accounts/first", body)
        fields = [p["field"] for p in refused.body["problems"]]
        self.assertEqual(fields, ["username", "kitchen", "password"])
        self.assertFalse(User.objects.exists())


class SigningIn(KitchenTest):
    def test_in_and_out(self) -> None:
        client = JsonClient()
        self.assertEqual(client.call("GET", "/sauces").status_code, 401)
        entered = client.call(
            "POST", "/accounts/sign-in", {"username": "ada", "password": PASSWORD}
        )
        self.assertEqual(entered.body["username"], "ada")
        self.assertEqual(client.call("GET", "/sauces").status_code, 200)
        self.assertIsNone(client.call("POST", "/accounts/sign-out").body["username"])
        self.assertEqual(client.call("GET", "/sauces").status_code, 401)

    def test_wrong_password_names_the_field_then_waits(self) -> None:
        client = JsonClient()
        body = {"username": "ada", "password": "wrong"}
        codes = [client.call("POST", "/accounts/sign-in", body).status_code for _ in range(9)]
        self.assertEqual(codes[0], 422)
        self.assertEqual(codes[-1], 429)
        right = client.call("POST", "/accounts/sign-in", {**body, "password": PASSWORD})
        self.assertEqual(right.status_code, 429)

    def test_csrf_is_asked_for(self) -> None:
        for path in ("/api/accounts/sign-in", "/api/sauces", "/api/work/check"):
            response = self.client.post(path, {}, content_type="application/json")
            self.assertEqual(response.status_code, 403, path)

    def test_headers_are_safe(self) -> None:
        response = self.client.get("/")
        self.assertIn("frame-ancestors 'none'", response["Content-Security-Policy"])
        self.assertEqual(response["X-Content-Type-Options"], "nosniff")
        self.assertTrue(JsonClient().get("/").cookies["csrftoken"]["samesite"])
