"""Every family on the screen: its steps, its schools, its pans, its nonsense."""

from selenium.webdriver.common.by import By

from browser_tests.base import BrowserTest
from kestrel.larder.actions import add_pan
from kestrel.larder.means import add_burner
from saucier.starts import STARTS
from saucier.testing import CHEESE_SAUCE, trial_of


class Families(BrowserTest):
    def test_every_start_opens_and_every_step_shows_its_pot(self) -> None:
        self.sign_in()
        for start in trial_of(STARTS, 8):
            with self.subTest(start.name):
                self.go(f"/sauces/new?start={start.name}")
                self.see("not saved yet")
                dots = self.all(".step .dot")
                self.assertEqual(len(dots), len(start.steps))
                for number in range(len(start.steps)):
                    self.driver.execute_script(
                        "document.querySelectorAll('.step .dot')[arguments[0]].click()", number
                    )
                    self.see(f"After step {number + 1} of {len(start.steps)}")
                self.assertEqual(self.overflow(), [])
                self.assertEqual(self.all(".middle .problem"), [])

    def test_every_step_can_be_added_and_taken_out(self) -> None:
        sauce = self.saved()
        self.saved(name="another sauce")
        self.sign_in()
        self.go(f"/sauces/{sauce.pk}")
        self.see("saved, version 1")
        for name in (
            "Used pan",
            "Deglaze",
            "Sweat",
            "Dust with flour",
            "Steep",
            "Strain",
            "Liaison",
            "Mount with butter",
            "Finish off the heat",
            "Food back in",
            "Blend",
            "Set aside",
            "Cool",
            "Hold hot",
            "Reheat",
            "Flame",
        ):
            with self.subTest(name):
                before = len(self.all(".step"))
                self.press("Other steps…")
                self.menu(name).click()
                self.wait(lambda n=before: len(self.all(".step")) == n + 1, name)
                self.see("changed since version 1")
        self.press("Other steps…")
        self.menu("Another sauce…").click()
        self.press("another sauce")
        self.see("another sauce in")
        self.press("Save")
        self.see("saved, version 2")

    def menu(self, name: str):
        xpath = f"//*[contains(@class,'n-dropdown-option')][normalize-space()={name!r}]"
        return self.wait(
            lambda: next(e for e in self.driver.find_elements(By.XPATH, xpath) if e.is_displayed()),
            name,
        )

    def test_ladles_pieces_and_what_is_set_aside(self) -> None:
        self.sign_in()
        self.go("/sauces/new?start=Gratin liaison")
        self.see("Set aside for the top")
        self.driver.execute_script(
            "[...document.querySelectorAll('.step')].find((s) => s.textContent.includes('Liaison'))"
            ".querySelector('.dot').click()"
        )
        self.see("sauce in:")
        self.go("/sauces/new?start=Mushroom cream velouté")
        self.see("Of it pieces")

    def test_nonsense_in_new_settings(self) -> None:
        self.sign_in()
        self.go("/sauces/new?start=Gratin liaison")
        self.see("not saved yet")
        for dot, label, text, words, good in (
            (3, "warm to", "boiling", "is not a number", "80"),
            (5, "of the pot", "120", "is too much", "20"),
            (5, "of the pot", "-3", "is too small", "20"),
            (3, "Egg yolk, amount", "some", "is not an amount", "3 pieces"),
        ):
            with self.subTest(label=label, text=text):
                self.driver.execute_script(
                    "document.querySelectorAll('.step .dot')[arguments[0]].click()", dot
                )
                self.enter(label, text)
                self.see(words)
                self.enter(label, good)
                self.wait(lambda: not self.all(".middle .problem"))


class Schools(BrowserTest):
    def test_a_switch_says_what_changed_and_goes_back(self) -> None:
        sauce = self.saved()
        self.sign_in()
        self.go(f"/sauces/{sauce.pk}")
        self.find("summary").click()
        self.choose("Fat to flour", "equal spoonfuls, about 1.75 : 1")
        self.see("a film of fat may show")
        self.wait(
            lambda: any("fat" in li.text and "→" in li.text for li in self.all(".changes li"))
        )
        self.choose("Infusion", "aromatics steeped in the liquid")
        self.see("Steeped milk in")
        self.press("Back to before")
        self.see("Whole milk in")
        self.assertEqual(self.find(".pot-now h2").text, "binding")

    def test_which_pan_and_ring(self) -> None:
        add_pan(self.kitchen, name="stewpan 28", diameter_cm=28, depth_cm=16, tare_g=2600)
        add_burner(self.kitchen, name="back ring", kind="induction", watts=1000)
        sauce = self.saved()
        self.sign_in()
        self.go(f"/sauces/{sauce.pk}")
        self.press("Which pan is quicker?")
        self.see("twice the batch")
        rows = self.wait(lambda: self.all("tbody tr"))
        self.assertEqual(len(rows), 2)
        rows[-1].find_element(By.TAG_NAME, "button").click()
        self.see("With the pan")
        before = self.find(".sum").text
        self.choose("Ring", "back ring: induction, 1000 W")
        self.wait(lambda: self.find(".sum").text != before)

    def test_too_salty_shows_three_ways(self) -> None:
        steps = [
            *CHEESE_SAUCE["steps"],
            {"op": "season", "ingredient": "salt", "amount": {"value": 20, "unit": "g"}},
        ]
        sauce = self.saved(steps=steps)
        self.sign_in()
        self.go(f"/sauces/{sauce.pk}")
        self.see("unsalted milk or stock let in")
        self.assertEqual(len(self.all(".remedies li")), 3)
