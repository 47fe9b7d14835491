"""Sauces within sauces, how sure it is, and a row from a packet, at the screen."""

from browser_tests.base import BrowserTest
from saucier.testing import add, simmer

WHITE = "White sauce for later"


class Inside(BrowserTest):
    def test_another_sauce_is_made_first_bought_and_cooked_beside(self) -> None:
        self.saved(name=WHITE)
        onions = [add("onion-puree", 600), simmer(3)]
        sauce = self.saved(
            name="Onion filling", family=None, method={}, steps=onions, target={"salt_pct": 0.9}
        )
        self.sign_in()
        self.go(f"/sauces/{sauce.pk}")
        self.see("saved, version 1")
        self.press("Other steps…")
        self.wait(
            lambda: next(
                one
                for one in self.all(".n-dropdown-option")
                if one.text.strip() == "Another sauce…"
            ),
            "the menu",
        ).click()
        self.press(WHITE)
        self.see(f"{WHITE} in")
        self.see("First, in")
        self.driver.execute_script("document.querySelectorAll('.step .dot')[2].click()")
        self.see("Melt the butter")

        # So much of it instead of all: what is made follows.
        self.enter(f"{WHITE}, amount", "300 g").send_keys("\n")
        self.see("First, in")
        self.wait(lambda: "300 g" in self.find(".inside p").text, "300 g made")
        self.enter(f"{WHITE}, amount", "half").send_keys("\n")
        self.wait(lambda: "stay over" in self.find(".inside p").text, "half stays over")
        self.enter(f"{WHITE}, amount", "lots").send_keys("\n")
        self.see("lots")
        self.wait(lambda: self.all(".step .problem"), "what is wrong with lots")
        self.enter(f"{WHITE}, amount", "all").send_keys("\n")
        self.wait(lambda: not self.all(".step .problem"), "all is right")
        # Its own amounts are typed over in place.
        self.enter("Wheat flour, plain, amount", "90 g").send_keys("\n")
        self.wait(
            lambda: "90 g" in self.shape('[aria-label="Wheat flour, plain, amount"]', "value")
        )
        self.assertEqual(self.overflow(), [])
        self.press("Save")
        self.see("saved, version 2")

        self.press("Cook it")
        self.see("Make first:")
        self.wait(lambda: len(self.all(".hob-strip .tile")) == 2, "two tiles")
        self.press(f"Make first: {WHITE}")
        self.see("Goes into Onion filling")
        self.see("White roux")


class Sure(BrowserTest):
    def test_the_chance_is_told_and_a_mend_is_taken_and_undone(self) -> None:
        sauce = self.saved()
        self.sign_in()
        self.go(f"/sauces/{sauce.pk}")
        self.see("that it lands in binding")
        before = self.find(".sure button b").text
        self.find(".sure button.plain").click()
        self.see("What makes the doubt")
        self.press("Do it: Hold some liquid back and bring it right by the spoon")
        self.see("changed since version 1")
        self.wait(
            lambda: (
                self.all(".sure button b")
                and self.find(".sure button b").text != before
                and "behind" not in self.shape(".sure", "class")
            ),
            "a better chance",
        )
        after = self.find(".sure button b").text
        self.assertGreater(int(after.split()[0]), int(before.split()[0]) + 10)
        self.press("Undo")
        self.wait(lambda: self.find(".sure button b").text == before, "as it was")


class Packet(BrowserTest):
    FIGURES = (
        ("Fat", "31"),
        ("Carbohydrate", "0,5"),
        ("of which sugars", "0.5"),
        ("Protein", "27"),
        ("Salt", "1.5"),
    )

    def test_a_row_from_its_label_and_found_by_its_name(self) -> None:
        self.sign_in()
        self.go("/larder")
        self.press("New ingredient")
        self.enter("Name", "Ridge wheel")
        self.choose("What it is", "cheese")
        for label, text in self.FIGURES:
            self.enter(label, text)
        self.see("Its protein is taken to thicken, as in cheese")
        self.enter("of which sugars", "5")
        self.see("sugars are over the carbohydrate")
        self.enter("of which sugars", "0.5")
        self.see("What is left is taken as water")
        self.press("Keep it")
        self.see("Ridge wheel is kept")
        self.enter("Search the larder", "ridge")
        self.see("Ridge wheel")

    def test_shop_names_find_the_kind(self) -> None:
        self.sign_in()
        self.go("/larder")
        self.see("Hard alpine cheese")
        self.enter("Search the larder", "parmesan")
        self.wait(lambda: len(self.all("tbody tr")) == 1, "one row")
        self.see("Hard grating cheese, parmesan style")
