"""The shell: places, keys, lists, and that nothing sticks out at any width."""

from selenium.webdriver.common.keys import Keys

from browser_tests.base import BrowserTest
from browser_tests.browser import resize
from kestrel.larder.models import Pan
from kestrel.sauces.models import Sauce
from kestrel.stove.actions import start
from saucier.testing import CREAM_REDUCTION


class Places(BrowserTest):
    def test_digits_and_the_keys_sheet(self) -> None:
        self.sign_in()
        self.go("/sauces")
        self.see("Start with a sauce")
        for digit, words in (
            ("9", "Press a row to correct it"),
            ("8", "Nothing written down"),
            ("7", "Nothing is kept"),
            ("6", "Pick the spoon that looks like it"),
            ("5", "No pot is on"),
            ("4", "A run-up is the plan of who does what when"),
            ("3", "Nothing planned"),
            ("2", "No dishes yet"),
        ):
            self.key(digit)
            self.see(words)
        self.key("?")
        self.see("go to Journal")
        self.key(Keys.ESCAPE)
        self.go("/nowhere")
        self.see("Nothing here")

    def test_list_search_copy_rename_delete_undo(self) -> None:
        self.saved()
        self.saved(**{**CREAM_REDUCTION, "name": "Juniper cream"})
        self.sign_in()
        self.go("/sauces")
        self.see("Juniper cream")
        self.key("/")
        self.key("juni")
        self.wait(lambda: len(self.all(".list li")) == 1)
        self.press("More for Juniper cream")
        self.driver.find_element(
            "xpath", "//*[contains(@class,'n-dropdown-option')][.='Copy']"
        ).click()
        self.see("Juniper cream (copy)")
        self.press("More for Juniper cream (copy)")
        self.wait(lambda: self.visible_option("Rename")).click()
        self.enter("New name", " ")
        self.press("Rename")
        self.see("Give the sauce a name")
        self.enter("New name", "Juniper cream, winter")
        self.press("Rename")
        self.see("Juniper cream, winter")
        self.press("More for Juniper cream, winter")
        self.wait(lambda: self.visible_option("Delete")).click()
        self.see("is off the list")
        self.wait(lambda: len(self.all(".list li")) == 1)
        self.press("Bring it back")
        self.wait(lambda: len(self.all(".list li")) == 2)
        self.assertEqual(Sauce.objects.filter(deleted_at=None).count(), 3)

    def visible_option(self, name: str):
        found = self.driver.find_elements(
            "xpath", f"//*[contains(@class,'n-dropdown-option')][.={name!r}]"
        )
        return next((element for element in found if element.is_displayed()), None)

    def test_pans_with_nonsense_and_sense(self) -> None:
        self.sign_in()
        self.go("/larder?shelf=pans")
        self.enter("Pan name", "saucepan 18")
        self.enter("Across the rim, cm", "wide")
        self.press("Add the pan")
        self.see("is not a number")
        self.enter("Across the rim, cm", "18")
        self.enter("Empty weight, g", "900")
        self.press("Add the pan")
        self.see("18 cm across")
        self.press("Take saucepan 18 away")
        self.wait(lambda: Pan.objects.filter(kitchen=self.kitchen).count() == 1)
        self.see("is off the list")
        self.press("Bring it back")
        self.wait(lambda: Pan.objects.filter(kitchen=self.kitchen, name="saucepan 18", tare_g=900))

    def test_nothing_sticks_out_at_any_width(self) -> None:
        sauce = self.saved()
        batch = start(self.kitchen, self.user, sauce.newest)
        self.sign_in()
        for width, height in ((390, 844), (1280, 800), (1920, 1080)):
            resize(self.driver, width, height)
            for path, words in (
                ("/sauces", "cheese sauce"),
                (f"/sauces/{sauce.pk}", "saved, version 1"),
                ("/sauces/new?start=Velouté", "not saved yet"),
                (f"/stove/{batch.pk}", "Step 1 of 5"),
                ("/journal", "Journal"),
                ("/larder", "Press a row to correct it"),
            ):
                with self.subTest(width=width, path=path):
                    self.go(path)
                    self.see(words)
                    self.assertEqual(self.overflow(), [])

    def test_targets_are_big_enough_for_thumbs(self) -> None:
        sauce = self.saved()
        batch = start(self.kitchen, self.user, sauce.newest)
        self.sign_in()
        for path, words, least in (
            (f"/stove/{batch.pk}", "Step 1 of 5", 64),
            (f"/sauces/{sauce.pk}", "saved, version 1", 40),
        ):
            self.go(path)
            self.see(words)
            small = self.driver.execute_script(
                """return [...document.querySelectorAll('main button')]
                     .filter((b) => b.offsetParent && b.getBoundingClientRect().height < arguments[0])
                     .map((b) => b.textContent.trim())""",
                least,
            )
            self.assertEqual(small, [], path)
