"""What the machine does wrong is told in words, and nothing is half written."""

import errno
import os
import sqlite3
import stat
import tempfile
from pathlib import Path
from unittest import TestCase, mock

from django.conf import settings
from django.db import OperationalError, connection
from django.test import Client, TransactionTestCase

from kestrel.accounts.actions import open_kitchen
from kestrel.private import keep_private, secret_in
from kestrel.sauces.models import Sauce
from kestrel.tests.clients import PASSWORD, JsonClient, KitchenTest
from saucier.testing import CHEESE_SAUCE


class HeldFile(TransactionTestCase):
    """A second process holds the lock on the kitchen's file."""

    def test_503_and_again(self) -> None:
        user = open_kitchen("Lower kitchen", "ada", PASSWORD)
        client = JsonClient()
        client.force_login(user, backend="django.contrib.auth.backends.ModelBackend")
        client.get("/api/accounts/me")
        with connection.cursor() as cursor:
            cursor.execute("PRAGMA busy_timeout = 200")
        other = sqlite3.connect(connection.settings_dict["NAME"], isolation_level=None)
        other.execute("BEGIN IMMEDIATE")
        try:
            refused = client.call("POST", "/sauces", {"sheet": CHEESE_SAUCE})
            self.assertEqual(client.call("GET", "/sauces").status_code, 200)  # reading goes on
        finally:
            other.execute("ROLLBACK")
            other.close()
        self.assertEqual(refused.status_code, 503)
        self.assertIn("try again", refused.body["message"])
        self.assertTrue(refused["Retry-After"])
        self.assertFalse(Sauce.objects.exists())
        again = client.call("POST", "/sauces", {"sheet": CHEESE_SAUCE})
        self.assertEqual(again.status_code, 201)


class FullDisk(KitchenTest):
    def test_503_in_words_and_nothing_half_written(self) -> None:
        for error in (
            OperationalError("database or disk is full"),
            OSError(errno.ENOSPC, "No space left on device"),
        ):
            with mock.patch("kestrel.sauces.actions._add_version", side_effect=error):
                refused = self.client.call("POST", "/sauces", {"sheet": CHEESE_SAUCE})
            self.assertEqual(refused.status_code, 503, error)
            self.assertIn("disk is full", refused.body["message"])
            self.assertFalse(Sauce.objects.exists())

    def test_a_session_that_cannot_be_kept_is_told_too(self) -> None:
        """What fails outside every route, as the answer goes out."""
        self.client.raise_request_exception = False
        with mock.patch(
            "django.contrib.sessions.backends.db.SessionStore.load",
            side_effect=OperationalError("attempt to write a readonly database"),
        ):
            refused = self.client.get("/api/sauces")
        self.assertEqual(refused.status_code, 503)
        self.assertIn("cannot be written", refused.json()["message"])

    def test_a_fault_of_ours_is_500_without_a_trace(self) -> None:
        self.client.raise_request_exception = False
        with mock.patch("kestrel.sauces.actions.save_new", side_effect=RuntimeError("secret")):
            answer = self.client.call("POST", "/sauces", {"sheet": CHEESE_SAUCE})
        self.assertEqual(answer.status_code, 500)
        self.assertNotIn(b"secret", answer.content)


class OutsideTheRoutes(KitchenTest):
    def test_in_json_with_a_message(self) -> None:
        for path in ("/api/nothing-here", "/api/sauces/1/nothing"):
            answer = self.client.get(path)
            self.assertEqual((answer.status_code, list(answer.json())), (404, ["message"]))
        elsewhere = Client().get("/", headers={"Host": "elsewhere.example"})
        self.assertEqual((elsewhere.status_code, list(elsewhere.json())), (400, ["message"]))

    def test_docs_are_for_those_signed_in_and_need_no_network(self) -> None:
        for path in ("/api/docs", "/api/openapi.json"):
            self.assertEqual(JsonClient().get(path).status_code, 401)
        page = self.client.get("/api/docs")
        self.assertContains(page, "swagger-ui-bundle.js")
        self.assertNotIn(b"//cdn", page.content)
        self.assertEqual(
            self.client.get("/api/openapi.json").json()["info"]["title"], "Kestrel Fog"
        )

    def test_files_of_the_interface_carry_what_pages_carry(self) -> None:
        page = self.client.get("/")
        file = self.client.get("/static/ninja/swagger-ui.css")
        self.assertEqual(file.status_code, 200)
        for name in (
            "Content-Security-Policy",
            "X-Content-Type-Options",
            "X-Frame-Options",
            "Referrer-Policy",
            "Cross-Origin-Opener-Policy",
        ):
            self.assertTrue(page[name])
            self.assertEqual(file[name], page[name], name)


class Private(TestCase):
    def test_an_empty_key_heals_and_a_wide_one_is_closed(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "var" / "secret_key"
            made = secret_in(file)
            self.assertGreater(len(made), 40)
            self.assertEqual(secret_in(file), made)
            self.assertEqual(stat.S_IMODE(file.stat().st_mode), 0o600)
            file.chmod(0o644)
            self.assertEqual(secret_in(file), made)
            self.assertEqual(stat.S_IMODE(file.stat().st_mode), 0o600)
            file.write_text("")
            healed = secret_in(file)
            self.assertGreater(len(healed), 40)
            self.assertEqual(secret_in(file), healed)
            self.assertEqual([one.name for one in file.parent.iterdir()], ["secret_key"])

    def test_the_database_and_what_is_beside_it(self) -> None:
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "kitchen.sqlite3"
            for suffix in ("", "-wal"):
                file.with_name(file.name + suffix).touch(mode=0o644)
            keep_private(file)
            modes = {stat.S_IMODE(one.stat().st_mode) for one in Path(folder).iterdir()}
            self.assertEqual(modes, {0o600})

    def test_hosts_with_spaces(self) -> None:
        from kestrel.settings import _several

        with mock.patch.dict(os.environ, {"KESTREL_HOSTS": " kitchen.example , pass.local,, "}):
            self.assertEqual(_several("KESTREL_HOSTS"), ["kitchen.example", "pass.local"])
        self.assertIn("localhost", settings.ALLOWED_HOSTS)
