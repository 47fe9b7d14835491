"""Reductions, food and corrections as a cook meets them on the screen."""

from typing import Any

from selenium.webdriver.common.by import By

from browser_tests.base import BrowserTest
from kestrel.larder.actions import add_pan
from kestrel.service.actions import save_dish, save_service
from kestrel.stove.models import Batch
from saucier.testing import CHEESE_SAUCE, CREAM_REDUCTION, add, reduce_to

FISH: dict[str, Any] = {
    "name": "poached fish",
    "steps": [
        add("stock-fish", 800),
        add("fish-white", 400),
        {"op": "simmer", "minutes": 6},
        {"op": "lift", "ingredient": "fish-white"},
        reduce_to(share=0.4),
        add("cream-35", 200),
        {"op": "return", "ingredient": "fish-white", "how": "cooked"},
    ],
}


class Reductions(BrowserTest):
    def open(self, **change: Any) -> Any:
        sauce = self.saved(**change)
        self.sign_in()
        self.go(f"/sauces/{sauce.pk}")
        self.see("saved, version 1")
        return sauce

    def pick(self, number: int) -> None:
        self.wait(lambda: self.all(".step .dot")[number - 1]).click()

    def test_by_half_is_shown_with_its_spread_and_one_press_takes_the_grade(self) -> None:
        self.open(**CREAM_REDUCTION)
        self.pick(4)
        self.see("ends anywhere from 42 to 65 %")
        rows = [row.text for row in self.all(".way tbody tr")]
        self.assertTrue(any(row.startswith("is nappe") for row in rows), rows)
        self.assertTrue(any(row.startswith("turns oily") for row in rows), rows)
        self.press("Stop at nappe")
        self.see("Boil down to nappe")
        self.wait(lambda: self.find(".pot-now h2").text == "nappe")
        # It stays that grade when something before it changes.
        weighs = "//*[contains(@class,'pot-now')]//dt[.='Weighs']/following-sibling::dd"
        before = self.driver.find_element(By.XPATH, weighs).text
        self.enter("Cream 35 %, amount", "400 g")
        self.wait(
            lambda: (
                self.driver.find_element(By.XPATH, weighs).text != before
                and self.find(".pot-now h2").text == "nappe"
            ),
            "another weight, the same grade",
        )
        self.key("\ue00c")
        self.press("Save")
        self.see("Saved as version 2")

    def test_the_way_down_is_told_at_the_stove(self) -> None:
        self.open(**CREAM_REDUCTION)
        self.press("Cook it")
        for reached in (2, 3, 4):
            self.find(".forward").click()
            self.see(f"Step {reached} of")
        rows = self.wait(lambda: [row.text for row in self.all(".way-picture .mark text")])
        self.assertTrue(any(row.startswith("nappe") for row in rows), rows)
        self.assertNotIn("Stop here", self.find(".batch").text)

    def test_every_stop_can_be_chosen_and_typed_over(self) -> None:
        self.open(**CREAM_REDUCTION)
        self.pick(4)
        for kind, label, text, wrong in (
            ("so many minutes", "boil for", "4", "-1"),
            ("to taste", "planned to", "60", "300"),
            ("a weight", "Boil down to", "200 g", "three"),
            ("a share left", "boil down to", "55", "x"),
        ):
            self.choose("Stop at", kind)
            self.enter(label, wrong)
            self.wait(lambda: self.all(".step .problem"), f"{kind}: {wrong}")
            self.enter(label, text)
            self.wait(lambda: not self.all(".step .problem"), f"{kind}: {text}")
        self.choose("Stop at", "nearly dry")
        self.see("Boil down until nearly dry")

    def test_a_stop_nobody_can_reach_is_a_picture_not_a_refusal(self) -> None:
        self.open(**CREAM_REDUCTION)
        self.pick(4)
        self.enter("boil down to", "5")
        self.see("it would have stood")
        self.assertEqual(self.all(".step .problem"), [])
        self.see("no grade yet")

    def test_the_nearest_is_one_press_away(self) -> None:
        self.open(**CREAM_REDUCTION)
        self.press("panade")
        self.see("The nearest this sauce can be is spreading")
        self.press("Take the nearest")
        self.wait(lambda: self.find(".pot-now h2").text == "spreading")
        self.assertEqual(self.all(".for-what .problem"), [])
        self.press("Undo")
        self.wait(lambda: self.find(".pot-now h2").text == "light coat")

    def test_food_lifted_out_goes_back_without_being_bought_twice(self) -> None:
        self.open(**FISH, target={}, family=None)
        self.see("Lift out the white fish fillet")
        self.pick(4)
        self.see("to go back in")
        self.pick(7)
        self.see("White fish fillet, all of it")
        self.find('[aria-label="what was lifted out or seared"]').click()
        self.wait(
            lambda: self.all('[aria-label="White fish fillet, amount"]'), "an amount of its own"
        )

    def test_which_pan_says_which_and_why_first(self) -> None:
        add_pan(self.kitchen, name="pot 16", diameter_cm=16, depth_cm=9)
        self.open(**CREAM_REDUCTION)
        self.press("Which pan is quicker?")
        self.see("the one to reach for")
        first = self.find(".grid tbody tr")
        self.assertIn("the one to reach for", first.text)
        self.assertIn("sauteuse 24", first.text)  # it stands high enough in the wider

    def test_held_back_and_corrected_by_the_spoon(self) -> None:
        self.open(**{**CHEESE_SAUCE, "pan": {"name": "pot", "diameter_cm": 24, "depth_cm": 13}})
        self.find("summary").click()
        self.choose("How it is brought right", "thick, liquid held back")
        self.see("held back")
        self.press("Save")
        self.see("Saved as version 2")
        self.press("Cook it")
        [pot] = self.wait(Batch.objects.all, "a pot")
        at = next(n for n, step in enumerate(pot.sheet["steps"]) if step["op"] == "correct")
        for reached in range(2, at + 2):
            self.find(".forward").click()
            self.see(f"Step {reached} of")
        self.see("Which does it look like?")
        self.wait(lambda: self.all(".correct [role=radio]")[3]).click()
        self.see("goes in")
        self.see("more than planned")
        first = self.find(".correct .goes b").text
        self.all(".correct [role=radio]")[1].click()
        self.wait(
            lambda: self.find(".correct .goes b").text != first, "another spoon, another amount"
        )

    def test_the_pan_of_a_pot_is_open_to_the_cook(self) -> None:
        add_pan(self.kitchen, name="pot 28", diameter_cm=28, depth_cm=16)
        sauce = self.saved(**CREAM_REDUCTION)
        dish = save_dish(
            self.kitchen,
            {"name": "Hake", "sauces": [{"sauce": str(sauce.pk), "use": "pool", "per_ml": 60}]},
        )
        service = save_service(
            self.kitchen, {"name": "Supper", "lines": [{"dish": str(dish.pk), "portions": 8}]}
        )
        self.sign_in()
        self.go(f"/service/{service.pk}")
        self.see("cream reduction")
        label = "//*[name()='text'][contains(., 'in sauteuse 24') or contains(., 'in pot 28')]"
        node = self.wait(lambda: self.driver.find_elements(By.XPATH, label)[0], "the pot")
        was = "sauteuse 24" if "sauteuse" in node.text else "pot 28"
        other = "pot 28" if was == "sauteuse 24" else "sauteuse 24"
        node.click()
        self.see("In which pan")
        self.find('[aria-label="In which pan"]').click()
        option = f"//*[contains(@class,'n-base-select-option')][contains(., '{other}')]"
        self.wait(lambda: self.driver.find_elements(By.XPATH, option)[0], other).click()
        self.wait(
            lambda: self.driver.find_elements(
                By.XPATH, f"//*[name()='text'][contains(., 'in {other}')]"
            )
        )
        self.press("Save")
        self.wait(lambda: (service.refresh_from_db(), service.document.get("pans"))[1])
        self.assertIn(other, service.document["pans"].values())


class Phone(BrowserTest):
    def test_the_way_down_fits_a_phone(self) -> None:
        from browser_tests.browser import resize

        sauce = self.saved(**CREAM_REDUCTION)
        self.sign_in()
        resize(self.driver, 390, 844)
        self.go(f"/sauces/{sauce.pk}")
        self.wait(lambda: self.all(".step .dot")[3]).click()
        self.see("On the way down in this pan")
        self.assertEqual(self.overflow(), [])
        resize(self.driver, 1280, 800)
