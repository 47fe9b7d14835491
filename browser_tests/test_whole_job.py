"""The job from a cold start: an empty kitchen, a sauce, the stove, the journal."""

from selenium.webdriver.common.keys import Keys

from browser_tests.base import PASSWORD, BrowserTest
from kestrel.accounts.models import Kitchen, User
from kestrel.journal.models import Entry
from kestrel.larder.models import Burner, Pan
from kestrel.sauces.models import Sauce


class ColdStart(BrowserTest):
    def test_first_visit_to_a_written_down_batch(self) -> None:
        User.objects.all().delete()
        self.go("/")
        self.see("A fresh kitchen")
        self.enter("Kitchen", "Lower refectory")
        self.enter("Name", "bea")
        self.enter("Password", "short")
        self.press("Open the kitchen")
        self.see("Take a longer, less common one")
        self.enter("Password", PASSWORD)
        self.press("Open the kitchen")

        # The first minute: what it has, ticked ready; then a sauce worked through, which nothing keeps.
        self.see("What does Lower refectory have?")
        self.press("stewpan 28")
        self.press("Four electric rings")
        self.press("So it is: show me a sauce")
        self.see("A white sauce, worked through.")
        kitchen = Kitchen.objects.get(name="Lower refectory")
        self.assertEqual(Pan.objects.filter(kitchen=kitchen, name="stewpan 28").count(), 1)
        self.assertEqual(Burner.objects.filter(kitchen=kitchen, kind="electric").count(), 4)
        self.press("I see")
        self.driver.execute_script("localStorage.clear()")
        self.go("/sauces")
        self.see("Start with a sauce")
        self.driver.find_element("xpath", "//button[b='Cheese sauce']").click()
        self.see("Hard alpine cheese off the heat")
        self.choose("Use", "Cap on toast")
        self.see("20 slices · 50 mL = 1000 mL")
        self.enter("portions", "5")
        self.see("5 portions × 2 slices = 10")
        self.enter("a portion, slices", "4")
        self.see("20 slices · 50 mL = 1000 mL")
        self.see("spreading")
        self.enter("Name of the sauce", "Rye toast cap")
        self.press("Save")
        self.see("saved, version 1")
        self.assertIn("/sauces/", self.driver.current_url)
        sauce = Sauce.objects.get()
        self.assertEqual(sauce.name, "Rye toast cap")
        self.assertEqual(sauce.newest.outcome["grade"], "spreading")

        self.press("Cook it")
        self.see("Step 1 of 6")
        for step in range(2, 7):
            self.key(Keys.SPACE)
            self.see(f"Step {step} of 6")
        self.key(Keys.SPACE)
        self.see("What does it weigh?")
        self.press("Write it down")
        self.see("A verdict is not chosen")
        self.enter("Weighed", "1.05 kg")
        self.find('[role=radio][title^="mounds"]').click()
        self.press("Again just so")
        self.enter("Note", "Edge to edge.")
        self.press("Write it down")
        self.see("1 batch")
        self.see("1.05 kg")
        self.see("Edge to edge.")
        self.see("No pot is on")
        entry = Entry.objects.get()
        self.assertEqual(entry.weighed_g, 1050)
        self.assertEqual(entry.verdict, "again")


class SigningIn(BrowserTest):
    def test_wrong_then_right_then_out(self) -> None:
        self.go("/journal")
        self.enter("Name", "ada")
        self.enter("Password", "wrong")
        self.press("Sign in")
        self.see("do not match")
        self.enter("Password", PASSWORD)
        self.press("Sign in")
        self.see("Nothing written down yet")
        self.find("[title^='ada']").click()
        self.press("Sign out here")
        self.see("Sign in")


class AtTheStove(BrowserTest):
    def test_timer_survives_reload_and_windows_agree(self) -> None:
        sauce = self.saved()
        self.sign_in()
        self.go(f"/sauces/{sauce.pk}")
        self.press("Cook it")
        self.see("start the timer")
        self.key("t")
        self.see("running: press to stop")
        self.driver.refresh()
        self.see("running: press to stop")
        shown = self.find(".timer b").text
        self.assertRegex(shown, r"^(2:00|1:5\d)$")
        self.assertRegex(self.find(".hob-strip .time").text, r"^(2:00|1:[45]\d)$")

        from kestrel.stove.models import Batch
        from kestrel.tests.acts import act, go
        from kestrel.tests.clients import JsonClient

        other = JsonClient()
        other.force_login(self.user, backend="django.contrib.auth.backends.ModelBackend")
        act(other, Batch.objects.get().pk, go(0, 2))  # another window moves on: this one follows
        self.see("Step 3 of 5")

    def test_left_and_put_back(self) -> None:
        sauce = self.saved()
        self.sign_in()
        self.go(f"/sauces/{sauce.pk}")
        self.press("Cook it")
        self.press("Take it off")
        self.see("No pot is on")
        self.press("Put it back")
        self.see("Step 1 of 5")
