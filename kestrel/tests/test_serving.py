"""The page, what is said when it is not built, and the shape of every refusal."""

from pathlib import Path
from tempfile import TemporaryDirectory

from django.test import TestCase, override_settings

from kestrel.tests.clients import JsonClient, KitchenTest


class Page(TestCase):
    def test_every_place_is_the_one_page(self) -> None:
        with TemporaryDirectory() as folder:
            Path(folder, "index.html").write_text("<title>Kestrel Fog</title>", encoding="utf-8")
            with override_settings(WEB_DIST=Path(folder)):
                for path in ("/", "/sauces/3", "/stove", "/anything/else"):
                    response = self.client.get(path)
                    self.assertContains(response, "Kestrel Fog")
                    self.assertEqual(response["Cache-Control"], "no-cache")
                self.assertEqual(self.client.post("/sauces").status_code, 405)

    def test_unbuilt_says_what_to_run(self) -> None:
        with override_settings(WEB_DIST=Path("/nowhere")):
            response = self.client.get("/")
        self.assertContains(response, "make demo", status_code=503)


class Refusals(KitchenTest):
    def test_unknown_rows_are_404_without_a_trace(self) -> None:
        for path in ("/sauces/999", "/sauces/999/versions", "/stove/999"):
            response = self.client.call("GET", path)
            self.assertEqual(response.status_code, 404)
            self.assertNotIn(b"Traceback", response.content)

    def test_fields_missing_or_of_the_wrong_kind(self) -> None:
        for path, body, field in (
            ("/work/check", {}, "sheet"),
            ("/work/switch", {"sheet": {}}, "school"),
            ("/stove", {"sauce_id": "first"}, "sauce_id"),
            ("/journal", {}, "batch_id"),
            ("/accounts/sign-in", {"username": "ada"}, "password"),
        ):
            with self.subTest(path):
                fields = self.fields(self.client.call("POST", path, body))
                self.assertTrue(any(field in found for found in fields), fields)

    def test_signed_out_everything_is_401(self) -> None:
        client = JsonClient()
        for method, path in (
            ("GET", "/sauces"),
            ("GET", "/larder"),
            ("GET", "/stove"),
            ("GET", "/journal"),
            ("POST", "/work/check"),
            ("POST", "/work/solve"),
            ("POST", "/work/switch"),
            ("POST", "/work/pans"),
            ("GET", "/work/starts"),
        ):
            body = {"sheet": {}} if method == "POST" else None
            self.assertEqual(client.call(method, path, body).status_code, 401, path)
