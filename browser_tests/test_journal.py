"""The journal in the real interface: looked through, set beside each other, cooked again, learned from."""

from selenium.webdriver.common.by import By

from browser_tests.base import BrowserTest
from browser_tests.browser import resize
from kestrel.journal.models import Entry, Served
from kestrel.larder.actions import core_kitchen
from kestrel.larder.models import Learnt
from kestrel.practice.models import Round
from kestrel.sauces.models import Sauce, SauceVersion
from kestrel.tests.entries import cooked, saucepan


class Journal(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        saucepan(self.kitchen)
        self.sauce = self.saved()
        self.sign_in()

    def cooked(self, sauce: Sauce, days: int, note: str = "", thicker: float = 1.5) -> Entry:
        told = {"off_g": -30.0, "thicker": thicker, "verdict": "nearly", "note": note}
        return cooked(self.kitchen, self.user, sauce, days=days, **told)

    def shown(self) -> int:
        return len(self.all("ol > li.sheet"))

    def test_an_empty_journal_teaches_the_first_step(self) -> None:
        for path in ("", "/learning", "/weeks"):
            self.go(f"/journal{path}")
            self.find(".empty")
            self.assertEqual(self.overflow(), [])

    def test_looked_through_and_the_address_keeps_it(self) -> None:
        other = self.saved(name="Leek sauce")
        for days, note in ((3, "too salty"), (2, "too salty again"), (1, "fine")):
            self.cooked(self.sauce, days, note)
        self.cooked(other, 4)
        self.go("/journal")
        self.wait(lambda: self.shown() == 4, "four batches")
        self.enter("In notes and names", "salty")
        self.wait(lambda: self.shown() == 2, "two with salt")
        self.see("2 found")
        self.driver.refresh()
        self.wait(lambda: self.shown() == 2, "still two")
        self.press("All of them")
        self.wait(lambda: self.shown() == 4, "all again")
        self.choose("sauce", self.sauce.name)
        self.wait(lambda: self.shown() == 3, "those of one sauce")
        self.see("too salty, in 2 of 3 notes")
        self.see("3 batches put together")

    def test_two_beside_each_other_and_one_cooked_again(self) -> None:
        self.cooked(self.sauce, 2, "in the wide pan")
        self.cooked(self.sauce, 1, thicker=0.4)
        self.go("/journal")
        self.wait(lambda: self.shown() == 2, "two batches")
        for button in self.all(".acts button[aria-pressed]"):
            button.click()
        self.press("Set the two beside each other")
        self.find(".only input")
        rows = self.wait(lambda: len(self.all("tbody tr")), "lines")
        self.find(".only input").click()
        self.wait(lambda: 0 < len(self.all("tbody tr")) < rows, "fewer lines")
        self.go("/journal")
        self.wait(lambda: self.shown() == 2, "two batches")
        self.press("Cook it again as it turned out")
        self.wait(lambda: SauceVersion.objects.filter(sauce=self.sauce).count() == 2, "a version")
        self.see("Simmer")
        self.assertIn(f"/sauces/{self.sauce.pk}", self.driver.current_url)

    def test_what_was_written_is_corrected_beside_what_stood_before(self) -> None:
        self.cooked(self.saved(), 1, note="as ever")
        self.go("/journal")
        self.press("Correct…")
        self.enter("It weighed", "lots")
        self.press("Write it so")
        self.see("“lots”")
        self.enter("It weighed", "1234 g")
        self.enter("Why", "the scale was off")
        self.press("Write it so")
        self.see("1.23 kg")
        self.see("by ada: the scale was off. Before:")
        entry = Entry.objects.get()
        self.assertEqual((entry.corrections.count(), entry.stands.weighed_g), (1, 1234.0))
        self.assertNotEqual(entry.weighed_g, 1234.0)

    def test_what_they_taught_is_gone_by_and_taken_back(self) -> None:
        for days in range(6, 0, -1):
            self.cooked(self.sauce, days)
        self.go("/journal/learning")
        self.see("thickens")
        self.assertEqual(core_kitchen(self.kitchen).strengths, {})
        flour = "//li[contains(., 'thickens')]//button[normalize-space()={!r}]"
        self.driver.find_element(By.XPATH, flour.format("Go by it")).click()
        self.wait(lambda: Learnt.objects.filter(dropped_at=None).exists(), "gone by")
        self.see("Gone by")
        self.see("as it is gone by already")
        self.assertIn("wheat-flour", core_kitchen(self.kitchen).strengths)
        self.wait(lambda: self.driver.find_elements(By.XPATH, flour.format("Undo")), "Undo")
        self.driver.find_element(By.XPATH, flour.format("Undo")).click()
        self.wait(lambda: not Learnt.objects.filter(dropped_at=None).exists(), "taken back")
        for width in (390, 1280):
            resize(self.driver, width, 800)
            self.assertEqual(self.overflow(), [])

    def test_afterwards_and_the_weeks(self) -> None:
        entry = self.cooked(self.sauce, 1)
        self.go(f"/stove/{entry.batch_id}")
        self.see("Afterwards")
        self.enter("Portions that went out", "many")
        self.press("Write it down")
        self.see("is no number of portions")
        self.enter("Portions that went out", "8")
        self.enter("Thrown away", "300")
        self.press("Write it down")
        self.see("Say in a word why")
        self.press("too much made")
        self.press("Write it down")
        self.see("8 portions went out. 300 g thrown away, too much made.")
        self.assertEqual(Served.objects.count(), 1)
        self.go("/journal/weeks")
        self.see("300 g thrown away")
        for width in (390, 1280):
            resize(self.driver, width, 800)
            self.assertEqual(self.overflow(), [])

    def test_practice(self) -> None:
        self.go("/journal/practice")
        self.find(".question h2")
        for name in ("the spoon", "the flour", "the level", "what mends it"):
            self.driver.find_element(
                By.XPATH, f"//button[contains(@class,'kind')][contains(., '{name}')]"
            ).click()
            self.find(f"section.question[aria-label='{name}']")
            self.wait(lambda: self.all(".choice:enabled"), "choices")
            self.key("b")  # by its letter, no mouse
            self.see("Another")
            self.assertEqual(len(self.all(".choice.right")), 1)
            # The other choices cannot be taken any more.
            self.assertFalse(self.all(".choice:enabled"))
        stop = "//button[contains(@class,'kind')][contains(., 'when to stop')]"
        self.driver.find_element(By.XPATH, stop).click()
        self.see("Put it on the fire")
        self.press("Put it on the fire")
        self.see("Off the fire")
        self.key(" ")
        self.see("too much left: stopped early")
        order = "//button[contains(@class,'kind')][contains(., 'the order')]"
        self.driver.find_element(By.XPATH, order).click()
        self.see("the liaison. In which order?")
        row = Round.objects.latest("pk")
        for key in row.answer["right"]:
            words = next(c["words"] for c in row.question["choices"] if c["key"] == key)
            self.driver.find_element(By.XPATH, f"//button[span={words!r}]").click()
        self.press("So it goes")
        self.see("Right.")
        scored = {one.kind for one in Round.objects.filter(user=self.user, score__isnull=False)}
        self.assertEqual(scored, {"spoon", "flour", "level", "remedy", "stop", "order"})
        for width in (390, 1280):
            resize(self.driver, width, 800)
            self.assertEqual(self.overflow(), [])
