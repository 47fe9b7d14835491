"""Fix it, what if, swaps, a recipe read, a larder row corrected: through the real interface."""

from selenium.webdriver.common.keys import Keys

from browser_tests.base import BrowserTest
from browser_tests.browser import resize
from kestrel.larder.models import OwnIngredient
from kestrel.stove.models import Batch

RECIPE = """Cheese sauce for cauliflower
50 g butter
50 g plain flour
600 ml milk
75 g mystery cheese
a handful of moonlight
salt to taste
Method
Cook the flour for 2 minutes. Simmer for 5 minutes.
"""


class Judgement(BrowserTest):
    def test_a_pot_nobody_has_seen(self) -> None:
        self.sign_in()
        self.go("/fix")
        self.see("Pick the spoon that looks like it")
        self.find('[role=radio][title*="mounds"]').click()
        self.see("Let down with")
        first = self.find(".fix h3").text
        self.assertIn("whole milk", first)
        self.enter("How much", "200 mL")
        self.wait(lambda: self.find(".fix h3").text != first)
        self.enter("How hot", "12")
        self.see("Warm it to 40 °C or more")
        self.enter("How hot", "80")
        self.choose("Something else", "Caught on the bottom")
        self.see("do not scrape")
        for width in (390, 1920):
            resize(self.driver, width, 900)
            self.assertEqual(self.overflow(), [], width)

    def test_fix_in_the_builder_puts_steps_in_and_undo_takes_them_out(self) -> None:
        self.sign_in()
        self.go(f"/sauces/{self.saved().pk}")
        self.see("Hard alpine cheese off the heat")
        self.press("Fix it")
        self.press("Too thin")
        self.see("By the sum it is binding; as you say, it is not")
        self.find(".otherwise summary").click()
        self.find('.otherwise [role=radio][title*="drawn line stays"]').click()
        self.wait(lambda: "By the sum it is" not in self.said())  # the spoon says so itself
        self.see("Beurre manié")
        before = len(self.all(".step"))
        self.driver.find_elements("xpath", "//button[.='Put it into the sauce']")[0].click()
        self.wait(lambda: len(self.all(".step")) > before)
        self.key(Keys.CONTROL, "z")
        self.wait(lambda: len(self.all(".step")) == before)

    def test_a_remedy_at_the_stove_stands_in_the_journal(self) -> None:
        self.sign_in()
        self.go(f"/sauces/{self.saved().pk}")
        self.press("Cook it")
        self.see("Step 1 of")
        for _ in range(3):
            self.press_forward()
        self.press("Fix it")
        top = self.find("[role=dialog] h2").rect["y"]
        self.press("Lumps")
        self.see("Whisk hard")
        # What came in made the dialog longer, and moved nothing under the hand.
        self.assertEqual(self.find("[role=dialog] h2").rect["y"], top)
        self.driver.find_elements("xpath", "//button[.='Done so: write it down']")[0].click()
        self.see("Mended at step 4, lumps:")
        self.assertEqual(Batch.objects.get().mends[0]["title"], "Whisk hard")

    def press_forward(self) -> None:
        step = self.find(".now .label").text
        self.find(".forward").click()
        self.wait(lambda: self.find(".now .label").text != step)

    def test_haven_t_got_it(self) -> None:
        self.sign_in()
        self.go(f"/sauces/{self.saved().pk}")
        self.see("Whole milk in")
        self.find(".step:nth-child(2) .dot").click()
        self.press("I haven't got Whole milk")
        self.press("Take Semi-skimmed milk")
        self.see("Semi-skimmed milk in place of Whole milk")
        self.see("Semi-skimmed milk in")
        self.press("Back to before")
        self.see("Whole milk in")

    def test_what_if_pins_compares_and_keeps(self) -> None:
        self.sign_in()
        self.go(f"/sauces/{self.saved().pk}")
        self.see("Hard alpine cheese off the heat")
        was = self.find('[aria-label="Wheat flour, plain, amount"]').get_attribute("value")
        self.press("What if")
        self.press("Pin to compare")
        handle = self.find("input[type=range]")
        handle.send_keys(*[Keys.ARROW_RIGHT] * 12)
        self.see("112 %")
        self.wait(lambda: self.shape("figure .pinned", "d") != self.shape("figure .line", "d"))
        self.press("Keep it so")
        self.wait(
            lambda: (
                self.find('[aria-label="Wheat flour, plain, amount"]').get_attribute("value") != was
            )
        )

    def test_a_knob_widens_the_edge_and_shows_its_grams(self) -> None:
        self.sign_in()
        self.go(f"/sauces/{self.saved().pk}")
        self.see("Hard alpine cheese off the heat")
        edge = float(self.shape(".pot-now .edge", "width"))
        field = self.enter("Wheat flour, plain, amount", "1 scooped cup")
        self.wait(lambda: float(self.shape(".pot-now .edge", "width")) > 1.05 * edge)
        self.see("153 g")
        field.send_keys(Keys.ENTER)
        self.assertEqual(
            self.find('[aria-label="Wheat flour, plain, amount"]').get_attribute("value"),
            "1 scooped cup",
        )

    def test_a_recipe_is_read_settled_and_opened(self) -> None:
        self.sign_in()
        self.go("/sauces/read")
        self.enter("Recipe", RECIPE)
        self.press("Read it")
        self.see("4 of 6 lines read; 2 for you to settle")
        self.choose("Ingredient for: 75 g mystery cheese", "Blue cheese", typed="Blue ch")
        self.driver.find_elements("xpath", "//button[.='So it is']")[0].click()
        self.see("1 for you to settle")
        self.driver.find_elements("xpath", "//button[.='Leave it out']")[0].click()
        self.see("6 of 6 lines read")
        self.press("Open it as a sauce")
        self.see("Blue cheese off the heat")
        self.assertEqual(
            self.find('[aria-label="Name of the sauce"]').get_attribute("value"),
            "Cheese sauce for cauliflower",
        )

    def test_a_larder_row_is_corrected_told_beforehand_and_undone(self) -> None:
        self.saved()
        self.sign_in()
        self.go("/larder")
        self.enter("Search the larder", "alpine")
        self.press("Correct Hard alpine cheese")
        self.enter("Price", "40")
        self.see("1 sauce moves")
        self.enter("Fat", "lots")
        self.see("“lots” is not a number")
        self.enter("Fat", "32.5")
        # The reason goes once the core has answered, and what stands below it moves up.
        self.wait(lambda: "is not a number" not in self.find("form").text, "the reason to go")
        self.see("1 sauce moves")
        self.press("Keep it")
        self.see("Hard alpine cheese is kept")
        self.assertEqual(OwnIngredient.objects.get().row["price_per_kg"], "40")
        self.press("Undo")
        self.wait(lambda: not OwnIngredient.objects.exists())

    def test_measures_and_card_at_every_width(self) -> None:
        sauce = self.saved()
        self.sign_in()
        self.go("/larder?shelf=measures")
        self.enter("Measure name", "dipper")
        self.enter("Measure holds", "x")
        self.press("Keep it")
        self.see("“x” cannot be used")
        self.enter("Measure holds", "90")
        self.press("Keep it")
        self.see("dipper")
        for width in (390, 1280, 1920):
            resize(self.driver, width, 850)
            for path in (
                "/larder?shelf=measures",
                "/larder?shelf=pans",
                "/sauces/read",
                f"/sauces/{sauce.pk}/card?size=A5",
            ):
                self.go(path)
                self.find("main h1, main h2, article")
                self.assertEqual(self.overflow(), [], (width, path))
