"""The kitchen's own page: somebody invited comes in, a shared device asks who is cooking, a copy is made.
And an answer that is lost on the way: what is pressed again happens once."""

from pathlib import Path
from tempfile import TemporaryDirectory

from django.conf import settings
from django.test import override_settings
from selenium.webdriver.support.expected_conditions import alert_is_present
from selenium.webdriver.support.ui import WebDriverWait

from browser_tests.base import PASSWORD, BrowserTest
from kestrel.accounts.models import User
from kestrel.accounts.people import invite, join
from kestrel.api import api
from kestrel.sauces.actions import delete
from kestrel.sauces.models import Sauce, SauceVersion
from kestrel.stove.models import Batch

NEW = "lower-meadow-77"
LOSES_ONE = """
const real = window.fetch
let lost = 0
window.fetch = async (...given) => {
  const answer = await real(...given)
  const asked = given[0]
  if (asked.method === 'POST' && new URL(asked.url).pathname === '/api/PLACE' && !lost++)
    throw new TypeError('Failed to fetch')
  return answer
}
"""


class People(BrowserTest):
    def test_somebody_invited_comes_in(self) -> None:
        self.sign_in()
        self.go("/kitchen")
        self.press("Invite somebody")
        link = self.find("section.people code").text
        self.see("It is shown only now")
        self.press("Sign out here")
        self.see("weighed before they are cooked")
        self.driver.get(link)
        self.see("You are invited into Refectory")
        self.enter("Name to sign in with", "tove")
        self.enter("Called in records", "Tove")
        self.enter("Password", "short")
        self.press("Come in")
        self.see("at least 10 characters")
        self.enter("Password", NEW)
        self.press("Come in")
        self.see("Sauces")
        self.assertEqual(self.find("nav .name").text, "Tove")
        self.go("/kitchen")
        self.see("(you)")
        self.assertNotIn("Invite somebody", self.find("main").text)  # an owner's
        self.assertEqual(User.objects.get(username="tove").kitchens.get(), self.kitchen)
        self.driver.get(link)
        self.see("This link is over, or was used")
        self.driver.get_log("browser")  # where the browser counts that answer as an error

    def test_a_shared_tablet_asks_only_who_is_cooking(self) -> None:
        _, token = invite(self.kitchen, self.user)
        tove = join(token, "tove", "Tove", NEW)
        sauce = self.saved()
        self.sign_in()
        self.go("/kitchen")
        self.press("Share this device")
        self.see("Several cooks share it")
        self.assertNotIn("Your password", self.find("main").text)
        self.go(f"/sauces/{sauce.pk}")
        self.see("Who is cooking?")
        self.press("Tove")
        self.wait(lambda: self.find("nav .name").text == "Tove")
        self.press("Cook it")
        self.wait(lambda: Batch.objects.filter(started_by=tove).exists(), "a batch of hers")
        self.go("/stove")  # a reload knows her still
        self.wait(lambda: self.find("nav .name").text == "Tove")
        self.find("nav .who").click()
        self.press("ada")
        self.wait(lambda: self.find("nav .name").text == "ada")
        self.find("nav .who").click()
        self.press("This device")
        self.press("It is mine alone")
        self.see("is not your password")
        self.enter("Password", PASSWORD)
        self.press("It is mine alone")
        self.see("Your password")

    def test_a_password_is_changed(self) -> None:
        self.sign_in()
        self.go("/kitchen")
        self.enter("Your password", "wrong")
        self.enter("A new password", NEW)
        self.press("Change the password")
        self.see("is not your password")
        self.enter("Your password", PASSWORD)
        self.press("Change the password")
        self.see("Your other devices are signed out")
        self.user.refresh_from_db()
        self.assertTrue(self.user.check_password(NEW))
        self.go("/sauces")  # signed in still
        self.wait(lambda: self.find("nav .name"))

    def test_a_copy_is_made_and_told(self) -> None:
        self.sign_in()
        with TemporaryDirectory() as folder:
            given = override_settings(
                BACKUPS=Path(folder), DB=Path(str(settings.DATABASES["default"]["TEST"]["NAME"]))
            )
            with given:
                self.go("/kitchen")
                self.see("None yet.")
                self.press("Copy everything now")
                self.see("MB")
                [made] = list(Path(folder).glob("copy-*.sqlite3"))
                self.assertGreater(made.stat().st_size, 100_000)
                self.see("Fetch it")


class ItsDescription(BrowserTest):
    def test_the_api_describes_itself_without_a_network(self) -> None:
        self.sign_in()
        self.go("/api/docs")
        # The first to ask waits until the description is put together: seconds, on a busy machine.
        self.find(".opblock-tag[data-tag=sauces]", seconds=30).click()
        self.see("/api/sauces/{sauce_id}")
        routes = [
            one for path in api.get_openapi_schema()["paths"].values() for one in path.values()
        ]
        told = {one.get_attribute("data-tag") for one in self.all(".opblock-tag")}
        self.assertEqual(told, {tag for one in routes for tag in one["tags"]})
        names = self.driver.execute_script(
            "return performance.getEntriesByType('resource').map((one) => new URL(one.name).host)"
        )
        self.assertEqual(set(names), {self.live_server_url.removeprefix("http://")})


class LostAnswers(BrowserTest):
    def lose(self, place: str) -> None:
        """The first answer of ``place`` is lost on its way, in every page from now on."""
        made = self.driver.execute_cdp_cmd(
            "Page.addScriptToEvaluateOnNewDocument", {"source": LOSES_ONE.replace("PLACE", place)}
        )
        self.addCleanup(
            self.driver.execute_cdp_cmd,
            "Page.removeScriptToEvaluateOnNewDocument",
            {"identifier": made["identifier"]},
        )

    def test_a_sauce_that_is_saved_again_is_there_once(self) -> None:
        self.sign_in()
        self.lose("sauces")
        self.go("/sauces/new")
        self.enter("Name of the sauce", "Juniper cream")
        self.press("Save")
        self.see("does not answer")
        self.wait(lambda: Sauce.objects.count() == 1)
        self.press("Save")
        self.wait(lambda: "/sauces/new" not in self.driver.current_url)
        self.assertEqual((Sauce.objects.count(), SauceVersion.objects.count()), (1, 1))
        self.assertIn(f"/sauces/{Sauce.objects.get().pk}", self.driver.current_url)

    def test_a_pot_that_is_put_on_again_after_a_reload_is_on_once(self) -> None:
        sauce = self.saved()
        self.sign_in()
        self.lose("stove")
        self.go(f"/sauces/{sauce.pk}")
        self.press("Cook it")
        self.see("does not answer")
        self.wait(lambda: Batch.objects.count() == 1)
        self.driver.refresh()  # where one more answer would be lost
        self.press("Cook it")
        self.see("does not answer")
        self.press("Cook it")
        self.wait(lambda: "/stove/" in self.driver.current_url)
        self.assertEqual(Batch.objects.count(), 1)


class DeletedMeanwhile(BrowserTest):
    def test_what_was_typed_is_saved_as_a_new_one(self) -> None:
        sauce = self.saved()
        self.sign_in()
        self.go(f"/sauces/{sauce.pk}")
        self.enter("Name of the sauce", "Cheese sauce, mine")
        self.wait(lambda: self.find("input.title").get_attribute("value") == "Cheese sauce, mine")
        delete(sauce)
        self.press("Save")
        alert = WebDriverWait(self.driver, 10).until(alert_is_present())
        self.assertIn("was deleted from another window", alert.text)
        alert.accept()
        self.wait(lambda: Sauce.objects.filter(name="Cheese sauce, mine").exists(), "a new sauce")
        mine = Sauce.objects.get(name="Cheese sauce, mine")
        self.assertNotEqual(mine.pk, sauce.pk)
        sauce.refresh_from_db()
        self.assertIsNotNone(sauce.deleted_at)
