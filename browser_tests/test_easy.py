"""Easy for everyone: keys that a focused control keeps, nothing typed lost, a recipe told without amounts."""

from selenium.webdriver.common.keys import Keys

from browser_tests.base import BrowserTest
from kestrel.stove.actions import start


class Keyboard(BrowserTest):
    def focused(self) -> str:
        return self.driver.switch_to.active_element.get_attribute("aria-label") or ""

    def test_from_the_top_of_the_builder_to_the_first_amount(self) -> None:
        self.sign_in()
        self.go(f"/sauces/{self.saved().pk}")
        self.see("Hard alpine cheese off the heat")
        self.driver.find_element("tag name", "body").click()
        presses = (Keys.TAB, Keys.ENTER, Keys.TAB, Keys.ENTER)
        for key in presses:
            self.key(key)
        self.wait(lambda: "amount" in self.focused(), "an amount has the focus")
        self.assertLessEqual(len(presses), 5)
        first = self.focused()
        # Enter goes on from amount to amount, Shift back.
        self.key(Keys.ENTER)
        self.wait(lambda: self.focused() != first)
        self.key(Keys.SHIFT + Keys.ENTER)
        self.wait(lambda: self.focused() == first)
        # What is typed is typed: no shortcut takes it.
        self.key(Keys.CONTROL, "a")
        self.key("9", Keys.BACKSPACE, "85 g")
        self.assertEqual(self.driver.switch_to.active_element.get_attribute("value"), "85 g")

    def test_arrows_among_choices_and_one_stop_for_the_tab_key(self) -> None:
        self.sign_in()
        self.go(f"/sauces/{self.saved().pk}")
        self.see("Hard alpine cheese off the heat")
        chosen = self.find('.grades [aria-checked="true"]')
        stops = self.all('.grades [role=radio][tabindex="0"]')
        self.assertEqual(stops, [chosen])
        was = chosen.text
        chosen.send_keys(Keys.ARROW_RIGHT)
        self.wait(lambda: self.find('.grades [aria-checked="true"]').text != was)
        self.assertEqual(
            self.driver.switch_to.active_element.text,
            self.find('.grades [aria-checked="true"]').text,
        )

    def test_a_focused_control_keeps_its_keys_at_the_stove(self) -> None:
        self.sign_in()
        batch = start(self.kitchen, self.user, self.saved().newest)
        self.go(f"/stove/{batch.pk}")
        self.see("Step 1 of")
        self.press("Note")
        field = self.find("[role=dialog] textarea, [role=dialog] input")
        field.send_keys("two  words", Keys.BACKSPACE, " t n f 1")
        self.assertEqual(field.get_attribute("value"), "two  word t n f 1")
        self.see("Step 1 of")

    def test_the_sheet_of_keys_is_about_where_one_is(self) -> None:
        self.sign_in()
        self.go("/sauces")
        self.see("New sauce")
        self.key("?")
        self.see("Here")
        here = self.find("[role=dialog] dl").text
        self.assertIn("new sauce", here)
        self.assertNotIn("timer", here)


class NothingLost(BrowserTest):
    def test_a_dialog_asks_before_what_was_typed_goes(self) -> None:
        self.sign_in()
        self.go("/larder")
        self.press("New ingredient")
        self.enter("Name", "Ridge wheel")
        self.key(Keys.ESCAPE)
        self.see("What you typed is not kept yet.")
        self.press("Go on with it")
        self.assertEqual(
            self.find('[role=dialog] [aria-label="Name"]').get_attribute("value"), "Ridge wheel"
        )
        self.press("Close")
        self.press("Throw it away")
        self.wait(lambda: not self.all("[role=dialog]"))

    def test_a_told_recipe_its_amounts_ours_until_they_are_typed_over(self) -> None:
        self.sign_in()
        self.go("/sauces/read")
        told = "Cheese sauce. Make a roux of butter and flour, 2 minutes. Whisk in milk, simmer 5 minutes. Off the heat stir in cheese."
        self.find("textarea").send_keys(told)
        self.press("Read it")
        self.see("with an amount of ours")
        flour = self.find('[aria-label="Amount for: flour"]').get_attribute("value")
        milk = self.find('[aria-label="Amount for: milk"]')
        milk.send_keys(Keys.CONTROL, "a")
        milk.send_keys("2 L")
        self.wait(
            lambda: self.find('[aria-label="Amount for: flour"]').get_attribute("value") != flour
        )
        self.assertEqual(milk.get_attribute("value"), "2 L")
        # Left and come back to: still there.
        self.go("/journal")
        self.go("/sauces/read")
        self.wait(
            lambda: self.find('[aria-label="Amount for: milk"]').get_attribute("value") == "2 L"
        )
        self.press("Open it as a sauce")
        self.see("White roux")


class Found(BrowserTest):
    def test_starred_tagged_and_more_as_one_scrolls(self) -> None:
        for n in range(45):
            self.saved(name=f"Sauce {n:02}")
        self.sign_in()
        self.go("/sauces")
        self.see("45 sauces")
        self.wait(lambda: len(self.all(".list li")) >= 40)
        self.driver.execute_script("document.querySelector('main').scrollTo(0, 1e6)")
        self.wait(lambda: len(self.all(".list li")) == 45, "all of them, once scrolled to the end")
        self.press("Favourite: Sauce 07")
        self.press("★ Favourites")
        self.see("1 sauce")
        self.press("More for Sauce 07")
        self.pick("Tags…")
        self.enter("Tags, with commas between", "winter, gratin")
        self.press("Keep")
        self.press("winter")
        self.wait(lambda: [one.text for one in self.all(".list h2")] == ["Sauce 07"])


class Figures(BrowserTest):
    def test_a_kitchen_in_fahrenheit_and_ounces(self) -> None:
        self.sign_in()
        self.go("/kitchen")
        self.press("°F")
        self.press("ounces, cups")
        self.press("2,5")

        def written() -> bool:
            self.kitchen.refresh_from_db()
            return (self.kitchen.temperature, self.kitchen.measures, self.kitchen.decimals) == (
                "F",
                "us",
                ",",
            )

        self.wait(written, "all three, pressed one after the other")
        self.go(f"/sauces/{self.saved().pk}")
        self.see("Hard alpine cheese off the heat")
        served = self.find('[aria-label="served at"]')
        self.assertEqual(served.get_attribute("value"), "149")
        page = self.find("main").text
        self.assertNotIn("°C", page)
        self.assertIn("0,9", page)
        self.assertIn("oz (", page)
        served.send_keys(Keys.CONTROL, "a")
        served.send_keys("140", Keys.TAB)
        self.wait(lambda: "at 140 °F" in self.find("main").text, "served at 140 °F")
