"""A signed-in client that speaks JSON, and a kitchen to use it in."""

import json
from typing import Any

from django.test import Client, TestCase

from kestrel.accounts.actions import open_kitchen
from kestrel.door.tries import forget_tries
from kestrel.sauces.actions import save_new
from kestrel.sauces.models import Sauce
from saucier.sheet import read_sheet
from saucier.testing import CHEESE_SAUCE

PASSWORD = "quiet-ridge-42"


class JsonClient(Client):
    """Sends and reads JSON with the CSRF token a browser would send."""

    def __init__(self, **defaults: Any) -> None:
        super().__init__(enforce_csrf_checks=True, **defaults)

    def call(self, method: str, path: str, body: Any = None, **extra: Any) -> Any:
        if "csrftoken" not in self.cookies:
            self.get("/api/accounts/me")
        text = body if isinstance(body, str | bytes) else json.dumps(body)
        response = self.generic(
            method,
            f"/api{path}",
            "" if body is None else text,
            content_type="application/json",
            headers={"X-CSRFToken": self.cookies["csrftoken"].value},
            **extra,
        )
        response.body = json.loads(response.content) if response.content else None
        return response


def signed_in(user: Any) -> JsonClient:
    client = JsonClient()
    client.force_login(user, backend="django.contrib.auth.backends.ModelBackend")
    return client


class KitchenTest(TestCase):
    """A kitchen with a member, a client signed in as them, and a stranger's beside it."""

    @classmethod
    def setUpTestData(cls) -> None:
        cls.user = open_kitchen("Lower kitchen", "ada", PASSWORD)
        cls.kitchen = cls.user.kitchens.get()
        cls.stranger = open_kitchen("Upper kitchen", "ben", PASSWORD)

    def setUp(self) -> None:
        forget_tries()
        self.client = self.signed_in(self.user)
        self.other = self.signed_in(self.stranger)

    def signed_in(self, user: Any) -> JsonClient:
        return signed_in(user)

    def saved(self, **change: Any) -> Sauce:
        return save_new(self.kitchen, self.user, read_sheet({**CHEESE_SAUCE, **change}))

    def fields(self, response: Any) -> list[str]:
        self.assertEqual(response.status_code, 422, response.content)
        for problem in response.body["problems"]:
            self.assertTrue(problem["message"] and problem["remedy"])
        return [problem["field"] for problem in response.body["problems"]]
