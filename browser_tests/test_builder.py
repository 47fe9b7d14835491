"""The builder: live consequences, bad input beside its field, undo, two windows."""

from selenium.webdriver.common.keys import Keys

from browser_tests.base import BrowserTest
from browser_tests.browser import chromium
from kestrel.sauces.actions import save_again
from kestrel.sauces.models import Sauce
from saucier.sheet import read_sheet
from saucier.testing import CHEESE_SAUCE, CREAM_REDUCTION

FLOUR = "Wheat flour, plain, amount"
MILK = "Whole milk, amount"
PAN = {"name": "sauteuse 24", "shape": "sloped", "diameter_cm": 24, "depth_cm": 8, "tare_g": 1180}


class Builder(BrowserTest):
    def open(self, **change: object) -> Sauce:
        sauce = self.saved(**change)
        self.sign_in()
        self.go(f"/sauces/{sauce.pk}")
        self.see("saved, version 1")
        return sauce

    def drawn(self) -> dict[str, str]:
        return {
            "mark": self.shape(".pot-now .mark", "transform"),
            "edge": self.shape(".pot-now .edge", "x"),
            "film": self.shape(".pot-now .film", "d"),
            "line": self.shape(".pot-now .line", "stroke-width"),
            "level": self.shape(".pot-now .level", "y1"),
        }

    def test_five_percent_more_flour_moves_every_picture(self) -> None:
        self.open(pan=PAN)
        before = self.drawn()
        self.enter(FLOUR, "84")
        self.wait(lambda: self.drawn()["mark"] != before["mark"], "the mark to move")
        after = self.drawn()
        for part, was in before.items():
            self.assertNotEqual(after[part], was, part)

    def test_cups_and_fractions_are_read(self) -> None:
        self.open()
        field = self.enter(MILK, "4 1/2 cups")
        field.send_keys(Keys.TAB)
        self.wait(lambda: field.get_attribute("value") == "4 ½ cups", "the amount in cups")

    def test_nonsense_stays_in_its_field_and_the_picture_stands(self) -> None:
        sauce = self.open()
        before = self.drawn()
        for text, words in (
            ("-5 g", "not more than zero"),
            ("0 g", "not more than zero"),
            ("plenty", "is not an amount"),
            ("3 barrels", "not a unit"),
            ("99999 kg", "more than any pot holds"),
        ):
            # At once, as it is pasted: the "3" of "3 barrels" is an amount on its way.
            field = self.find(f'[aria-label="{FLOUR}"]')
            field.click()
            self.driver.execute_script(
                "arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event('input'))",
                field,
                text,
            )
            self.see(words)
            self.assertEqual(field.get_attribute("value"), text)
            self.assertEqual(self.drawn(), before)
        self.key(Keys.TAB)
        self.assertEqual(self.find(f'[aria-label="{FLOUR}"]').get_attribute("value"), "99999 kg")
        self.press("Save")
        self.see("Not saved")
        self.assertEqual(sauce.versions.count(), 1)
        self.enter(FLOUR, "90 g")
        self.see("changed since version 1")
        self.find("summary").click()
        for label, text, words, good in (
            ("served at", "warm", "is not a number", "65"),
            ("salt, per 100 g", "-1", "too small", "0.9"),
            ("fat to flour, by weight", "99", "too much", "1"),
            ("Minutes", "-4", "too small", "5"),
            ("Yield", "3 pieces", "pieces are no yield", "2 L"),
        ):
            self.enter(label, text)
            self.see(words)
            self.enter(label, good)
            self.see("changed since version 1")

    def test_a_target_nobody_can_reach(self) -> None:
        self.open(**CREAM_REDUCTION)
        before = self.drawn()
        self.press("panade")
        self.see("The nearest this sauce can be is")
        self.assertEqual(self.drawn(), before)
        self.press("nappe")
        self.wait(lambda: self.find(".pot-now h2").text == "nappe")

    def test_target_scales_and_thickens(self) -> None:
        self.open()
        self.press("nappe")
        self.wait(lambda: self.find(".pot-now h2").text == "nappe")
        self.choose("Use", "Napped over the plate")
        self.enter("portions", "30")
        self.see("30 portions · 55 mL = 1650 mL")
        flour = float(self.find(f'[aria-label="{FLOUR}"]').get_attribute("value").split()[0])
        self.assertEqual(flour % 1, 0)

    def test_off_target_is_said_and_mended(self) -> None:
        self.open()
        self.enter(FLOUR, "40 g")
        self.see("Off its target.")
        self.press("Bring to target")
        self.wait(lambda: self.find(".pot-now h2").text == "binding")

    def test_only_so_much_milk(self) -> None:
        self.open()
        self.press("I have only so much of…")
        self.choose("Ingredient there is", "Whole milk")
        self.enter("How much there is", "lots")
        self.press("Scale to it")
        self.see("is not an amount")
        self.enter("How much there is", "900 ml")
        self.press("Scale to it")
        self.wait(lambda: self.find(f'[aria-label="{MILK}"]').get_attribute("value") == "0.9 L")

    def test_undo_and_redo(self) -> None:
        self.open()
        self.enter(FLOUR, "95 g").send_keys(Keys.ENTER)
        self.see("changed since version 1")
        self.key(Keys.CONTROL, "z")
        self.wait(lambda: self.find(f'[aria-label="{FLOUR}"]').get_attribute("value") == "80 g")
        self.see("saved, version 1")
        self.press("Redo")
        self.wait(lambda: self.find(f'[aria-label="{FLOUR}"]').get_attribute("value") == "95 g")

    def test_steps_come_go_and_move(self) -> None:
        self.open()
        self.press("Season")
        self.wait(lambda: len(self.all(".step")) == 6)
        self.press("Move step 6 up")
        self.wait(lambda: "nutmeg" in self.all(".step h3")[4].text)
        self.press("Take step 5 out")
        self.wait(lambda: len(self.all(".step")) == 5)
        self.key(Keys.CONTROL, "z")
        self.wait(lambda: len(self.all(".step")) == 6)

    def test_choosing_a_step_shows_the_pot_after_it(self) -> None:
        self.open()
        self.key(Keys.ARROW_DOWN)
        self.see("After step 1 of 5")
        self.see("a roux: no liquid in it yet")
        self.key(Keys.ESCAPE)
        self.see("The finished sauce")

    def test_unsaved_changes_survive_a_reload(self) -> None:
        self.open()
        self.enter(FLOUR, "97 g")
        self.see("changed since version 1")
        self.driver.refresh()
        self.see("unsaved changes were brought back")
        self.assertEqual(self.find(f'[aria-label="{FLOUR}"]').get_attribute("value"), "97 g")
        self.press("Save")
        self.see("saved, version 2")

    def test_second_window_is_shown_the_difference(self) -> None:
        sauce = self.open()
        with chromium() as second:
            second.get(f"{self.live_server_url}/static/icon.svg")
            self.sign_in(second)
            first, self.driver = self.driver, second
            try:
                self.go(f"/sauces/{sauce.pk}")
                self.enter(FLOUR, "101 g")
                self.see("changed since version 1")
                self.press("Save")
                self.see("saved, version 2")
            finally:
                type(self).driver = self.driver = first
        self.enter(MILK, "1.5 L")
        self.see("changed since version 1")
        self.press("Save")
        self.see("Saved from another window meanwhile")
        self.see("101 g")
        self.see("1.5 L")
        self.assertEqual(sauce.versions.count(), 2)
        self.press("Save mine as the next version")
        self.see("saved, version 3")
        amounts = [v.sheet["steps"][0]["flour"]["amount"]["value"] for v in sauce.versions.all()]
        self.assertEqual(amounts, [80, 101, 80])

    def test_taking_theirs(self) -> None:
        sauce = self.open()
        theirs = read_sheet({**CHEESE_SAUCE, "name": "theirs"})
        save_again(sauce, self.user, theirs, 1)
        self.enter(FLOUR, "70 g")
        self.see("changed since version 1")
        self.press("Save")
        self.press("Take theirs")
        self.see("saved, version 2")
        self.assertEqual(
            self.find('[aria-label="Name of the sauce"]').get_attribute("value"), "theirs"
        )

    def test_the_server_gone_loses_nothing(self) -> None:
        self.open()
        self.offline(True)
        self.enter(FLOUR, "88 g")
        self.see("does not answer")
        self.offline(False)
        self.driver.get_log("browser")
        self.enter(FLOUR, "89 g")
        self.see("changed since version 1")
