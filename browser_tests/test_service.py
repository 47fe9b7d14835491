"""A service from nothing to the production sheet; pots and dishes flow both ways; two windows."""

from tempfile import NamedTemporaryFile

from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from browser_tests.base import BrowserTest
from browser_tests.browser import resize
from kestrel.sauces.actions import save_again
from kestrel.service.actions import change_dish, change_service, save_dish, save_service
from kestrel.service.file import written
from kestrel.service.models import Dish, Service
from saucier.sheet import read_sheet
from saucier.testing import CHEESE_SAUCE, add, roux, simmer

WHITE = {
    "name": "White sauce",
    "target": {"grade": "nappe"},
    "steps": [roux(60, 60), add("milk-whole", 1, "L"), simmer(5)],
}
KEPT = (
    "return Object.entries(localStorage).filter(([k]) => /^kestrel[.](service|dish)[.]/.test(k))"
    ".map(([, v]) => v).join()"
)
"""What the browser keeps of unsaved changes."""


class Services(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        self.cheese = self.saved()
        self.white = self.saved(**WHITE, family=None, method={})
        self.sign_in()

    def planned(self) -> Service:
        for name, sauce, use in (
            ("Leeks", self.white, "nap"),
            ("Cauliflower", self.cheese, "over"),
        ):
            save_dish(
                self.kitchen,
                {
                    "name": name,
                    "sauces": [{"sauce": str(sauce.pk), "use": use}],
                    "solids": [{"ingredient": name.lower().rstrip("s"), "grams": 150}],
                },
            )
        lines = [{"dish": str(dish.pk), "portions": 20} for dish in Dish.objects.order_by("pk")]
        return save_service(self.kitchen, {"name": "Lunch", "lines": lines})

    def node(self, words: str) -> None:
        """Press what the picture shows under ``words``."""
        xpath = f"//*[local-name()='g'][@role='button'][contains(normalize-space(), {words!r})]"
        self.wait(lambda: self.driver.find_elements(By.XPATH, xpath)[0], words).click()

    def follow(self, words: str) -> None:
        """The link whose first words are ``words``."""
        xpath = f"//a[b[normalize-space()={words!r}]]"
        self.wait(lambda: self.driver.find_elements(By.XPATH, xpath)[0], words).click()

    def part(self, number: int) -> None:
        """Press a part of the dish in its list."""
        css = 'nav[aria-label="Parts of the dish"] > button'
        self.wait(lambda: self.all(css)[number], "a part").click()

    def portions(self, dish: str) -> str:
        return self.find(f'[aria-label="Portions of {dish}"]').get_attribute("value") or ""

    def test_from_an_empty_kitchen_to_the_sheet(self) -> None:
        self.go("/service")
        self.see("Nothing planned")
        self.press("New service")
        self.see("Which dish first?")
        self.press("A dish that is not there yet")
        self.see("No dishes yet")
        self.follow("Something else")
        self.press("+ sauce")
        self.choose("Sauce 1", "White sauce")
        self.press("+ food")
        self.enter("Dish name", " ")
        self.see("The name is empty")
        self.enter("Grams 1", "none")
        self.press("Keep and serve it")
        self.see("“none” is not a number")
        self.see("Not kept: mend the entry marked first.")
        self.enter("Dish name", "Potatoes in white sauce")
        self.see("grams “none” is not a number")
        self.enter("Grams 1", "180,5")
        self.see("potato")
        self.press("Keep and serve it")
        self.see("of sauce needed")
        self.assertEqual(Dish.objects.get().document["solids"][0]["grams"], 180.5)
        self.node("White sauce")
        self.see("30 mL clings to pot and whisk")
        self.press("Filling")
        self.see("1 small ladle")
        self.press("Production sheet")
        self.see("To buy and have ready")
        self.see("Whole milk")
        self.press("Allergens, cost")
        self.see("gluten")
        self.enter("Name of the service", "Thursday")
        self.press("Save")
        self.see("Saved.")
        self.assertEqual(Service.objects.get().name, "Thursday")
        self.go(f"/service/{Service.objects.get().pk}/sheet")
        self.see("Potatoes in white sauce")

    def test_both_ways_force_and_undo(self) -> None:
        self.go(f"/service/{self.planned().pk}")
        self.node("White roux with whole milk")
        self.see("Mother pot: White roux with whole milk")
        self.enter("Make instead, L", "0.001")
        self.press("Portions follow")
        self.see("out of reach")
        self.enter("Make instead, L", "6")
        self.press("Portions follow")
        self.wait(lambda: float(self.portions("Leeks")) > 35)
        self.key(Keys.CONTROL, "z")
        self.wait(lambda: self.portions("Leeks") == "20")
        self.node("cheese sauce")
        self.press("a pot of its own")
        self.see("On its own: you gave it its own")
        self.press("as it comes")
        self.wait(lambda: "you gave it" not in self.find(".detail").text)
        self.enter("Portions of Leeks", "0")
        self.see("0 is too small")
        self.enter("Portions of Leeks", "40")
        self.wait(lambda: "0 is too small" not in self.find(".lines").text)
        self.enter("Portions in all", "120")
        self.press("Scale")
        self.wait(lambda: self.portions("Leeks") == "80")

    def test_short_of_milk_and_guests_without(self) -> None:
        self.go(f"/service/{self.planned().pk}")
        self.press("Production sheet")
        self.press("Short of Whole milk")
        self.enter("How much is there?", "little")
        self.press("What can be served?")
        self.see("is not an amount")
        self.enter("How much is there?", "1 L")
        self.press("What can be served?")
        self.press("Serve all alike")
        self.wait(lambda: float(self.portions("Leeks")) < 20)
        self.press("More about line 2")
        self.choose("Without, line 2", "cheese", typed="cheese")
        self.see("without cheese")
        self.press("Allergens, cost")
        self.see("Cauliflower, without cheese")

    def test_a_pot_from_the_sheet_to_the_stove_and_back(self) -> None:
        service = self.planned()
        self.go(f"/service/{service.pk}")
        self.press("Production sheet")
        self.find('article [aria-label^="Cook White roux"]').click()
        self.see("Step 1 of 3")
        self.press("to its service")
        self.see("on the stove")
        self.press("on the stove")
        # One press a step: those made while one is under way are an elbow's, and do not count.
        for there in ("Step 1 of 3", "Step 2 of 3", "Step 3 of 3"):
            self.see(there)
            self.key(" ")
        self.see("What does it weigh?")
        self.press("Again just so")
        self.press("Write it down")
        self.see("✓ cooked")
        self.see("Cook another")

    def test_a_sauce_changed_since_is_told_and_taken(self) -> None:
        service = self.planned()
        changed = {**CHEESE_SAUCE, "target": {**CHEESE_SAUCE["target"], "grade": "nappe"}}
        save_again(self.cheese, self.user, read_sheet(changed), 1)
        self.go(f"/service/{service.pk}")
        self.see("was changed since: this service keeps version 1")
        self.press("Take version 2")
        self.wait(lambda: "was changed since" not in self.find(".right").text)
        self.assertEqual(Service.objects.get().pinned[str(self.cheese.pk)], 2)

    def test_a_dish_survives_a_reload_undo_and_another_window(self) -> None:
        self.planned()
        dish = Dish.objects.order_by("pk")[0]
        name = '[aria-label="Dish name"]'
        self.go("/dishes")
        self.see("Something else")
        self.key("n")
        self.enter("Dish name", "Leeks again")
        self.wait(lambda: "Leeks again" in str(self.driver.execute_script(KEPT)))
        self.driver.refresh()
        self.see("not kept was brought back")
        self.assertEqual(self.find(name).get_attribute("value"), "Leeks again")
        self.press("Start over")
        self.wait(lambda: self.find(name).get_attribute("value") == "New dish")
        self.go("/dishes")
        self.find(f"a.open[href='/dishes/{dish.pk}']").click()
        self.part(0)
        self.enter("mL 1", "70")
        self.wait(lambda: '"per_ml":70' in str(self.driver.execute_script(KEPT)))
        self.key(Keys.CONTROL, "z")
        self.wait(lambda: '"per_ml":70' not in str(self.driver.execute_script(KEPT)))
        self.enter("mL 1", "80")
        change_dish(dish, {**dish.document, "name": "Theirs"}, 1)
        self.press("Keep the dish")
        self.press("Put mine in its place")
        self.wait(lambda: Dish.objects.get(pk=dish.pk).revision == 3)
        kept = Dish.objects.get(pk=dish.pk)
        self.assertEqual((kept.name, kept.document["sauces"][0]["per_ml"]), (dish.name, 80))

    def test_a_dish_is_seen_pressed_and_pulled(self) -> None:
        self.go("/dishes")
        self.follow("Layered bake")
        self.see("Salt of the mouthful")
        edge = '[role=slider][aria-label^="How thick"]'
        before = float(self.find(edge).get_attribute("aria-valuenow"))
        self.find(edge).send_keys(Keys.ARROW_UP)
        self.wait(lambda: float(self.find(edge).get_attribute("aria-valuenow")) > before + 0.3)
        self.key(Keys.CONTROL, "z")
        self.wait(lambda: float(self.find(edge).get_attribute("aria-valuenow")) == before)
        self.find('g.band[aria-label^="breadcrumbs"]').send_keys(Keys.ENTER)
        self.enter("Topping by area 1", "0,1")
        self.see("2.9 mm breadcrumbs")
        self.part(3)
        self.choose("Way 1", "Simmer")
        self.press("Keep the dish")
        self.see("is kept")
        kept = Dish.objects.get().document
        self.assertEqual(kept["toppings"][0]["g_per_cm2"], 0.1)
        self.assertEqual(kept["solids"][0]["way"], "boil-tender")
        # On a plate a pool runs as wide as so much of it does.
        self.go("/dishes")
        self.follow("On a pool")
        self.see("mL runs")
        pool = '[role=slider][aria-label^="How much"]'
        ml = float(self.find(pool).get_attribute("aria-valuenow"))
        self.find(pool).send_keys(Keys.ARROW_DOWN, Keys.ARROW_DOWN)
        self.wait(lambda: float(self.find(pool).get_attribute("aria-valuenow")) < ml - 2)

    def test_a_service_comes_in_from_a_file(self) -> None:
        text = written(self.planned())
        with NamedTemporaryFile("w", suffix=".json", encoding="utf-8") as file:
            file.write(text)
            file.flush()
            self.go("/service")
            self.find('[aria-label="A service from a file"]').send_keys(file.name)
            self.see("of sauce needed")
        self.assertEqual(Service.objects.count(), 2)
        self.assertEqual(Dish.objects.count(), 2)  # those it had already, word for word
        with NamedTemporaryFile("w", suffix=".json") as file:
            file.write("{}")
            file.flush()
            self.go("/service")
            self.find('[aria-label="A service from a file"]').send_keys(file.name)
            self.see("Everything as JSON")
        self.assertEqual(Service.objects.count(), 2)

    def test_a_guest_whose_sauce_stands_on_it_gets_what_stands_in(self) -> None:
        self.go(f"/service/{self.planned().pk}")
        self.press("More about line 1")
        self.choose("Without, line 1", "vegan: anything of animals (vegan)", typed="vegan")
        self.key(Keys.ESCAPE)
        self.see("stands on butter")
        self.see("not served yet")
        self.see("of sauce needed")  # the other line is planned all the same
        self.press("Use it")
        self.wait(lambda: "not served yet" not in self.find(".lines").text)
        self.press("Production sheet")
        self.see("Guests first")
        self.see("Plant spread")
        self.press("Allergens, cost")
        row = self.driver.find_element(By.XPATH, "//tr[contains(., 'vegan')]").text
        self.assertNotIn("milk", row)
        self.key(Keys.CONTROL, "z")
        self.see("not served yet")

    def test_two_windows_and_a_reload_in_the_middle(self) -> None:
        service = self.planned()
        self.go(f"/service/{service.pk}")
        self.see("of sauce needed")
        change_service(service, {**service.document, "name": "Dinner"}, 1)
        self.enter("Portions of Leeks", "33")
        self.press("Save")
        self.see("Somebody else was first")
        self.press("Take theirs")
        self.wait(
            lambda: (
                self.find('[aria-label="Name of the service"]').get_attribute("value") == "Dinner"
            )
        )
        self.enter("Portions of Leeks", "41")
        self.wait(lambda: "41" in str(self.driver.execute_script(KEPT)))
        self.driver.refresh()
        self.wait(lambda: self.portions("Leeks") == "41")

    def test_nothing_sticks_out(self) -> None:
        service = self.planned()
        for width in (390, 1280, 1920):
            resize(self.driver, width, 850)
            for path in (
                "/service",
                f"/service/{service.pk}",
                f"/service/{service.pk}/sheet",
                "/dishes",
                f"/dishes/{Dish.objects.order_by('pk')[0].pk}",
                "/larder?shelf=uses",
            ):
                self.go(path)
                self.find("main h1, main h2, main h3, .right")
                self.assertEqual(self.overflow(), [], (width, path))
