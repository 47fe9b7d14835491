"""The run-up in the real interface: planned, pressed, drawn, mended, called, on a phone."""

import threading
import time
from datetime import timedelta

from django.utils import timezone
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys

from browser_tests.base import BrowserTest
from browser_tests.browser import resize
from kestrel.larder.actions import add_pan
from kestrel.larder.means import add_burner, add_cook
from kestrel.run_up.models import Planning, RunUp
from kestrel.run_up.planner import Worker
from kestrel.service.actions import change_service, save_dish, save_service
from saucier.timing.solver import Effort


class RunUps(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        for name, watts in (("left", 2500), ("right", 3500)):
            add_burner(self.kitchen, name=name, kind="gas", watts=watts)
        for name in ("Ilse", "Toma"):
            add_cook(self.kitchen, name, [])
        for name in ("saucepan 20", "stewpan 24"):
            add_pan(self.kitchen, name=name, shape="straight", diameter_cm=22, depth_cm=12)
        sauce = self.saved()
        self.dish = save_dish(
            self.kitchen,
            {
                "name": "Hake under cheese",
                "sauces": [{"sauce": str(sauce.pk), "use": "nap"}],
                "solids": [
                    {"ingredient": "fish-white", "grams": 150},
                    {"ingredient": "potato", "grams": 150},
                ],
            },
        )
        lines = [{"dish": str(self.dish.pk), "portions": 8}]
        self.service = save_service(
            self.kitchen, {"name": "Lunch", "serve_at": ["12:00"], "lines": lines}
        )
        self.over = threading.Event()
        worker = Worker(Effort(seconds=0.5, wall=3.0))
        self.planner = threading.Thread(target=worker.run, args=(self.over.is_set,))
        self.planner.start()
        self.sign_in()

    def tearDown(self) -> None:
        self.over.set()
        self.planner.join()
        super().tearDown()

    def planned(self) -> None:
        """Wait until nothing is being planned any more, and the plan is there."""

        def through() -> bool:
            going = Planning.objects.filter(state__in=Planning.OPEN).exists()
            return bool(not going and self.all(".lanes .bar") and not self.all(".progress"))

        self.wait(through, "a plan", 40.0)
        time.sleep(0.3)  # what was told last is drawn

    def bar(self, words: str) -> object:
        css = f"button.bar.hands[aria-label*='{words}']"
        return self.wait(lambda: self.all(css)[0], words)

    def test_from_a_service_to_its_plan_and_what_a_task_waits_for(self) -> None:
        self.go(f"/service/{self.service.pk}")
        self.press("Run-up")
        self.planned()
        self.see("nothing stands past its limit")
        for name in ("Ilse", "Toma", "left", "right"):
            self.see(name)
        self.bar("Portion and dry").send_keys(Keys.ENTER)
        self.see("5 min earlier")
        self.find('section[aria-label="The task"]')
        follows = self.all(".bar.follows")
        self.assertTrue(follows)
        self.press("Begin")
        self.planned()
        self.see("Not after all")
        row = RunUp.objects.get()
        self.assertEqual(len(row.document["marks"]), 1)

    def test_a_task_drawn_where_it_spoils_says_why_and_where_it_does_not_stays(self) -> None:
        self.go(f"/service/{self.service.pk}")
        self.press("Run-up")
        self.planned()
        poach, top = self.bar("Poach"), self.find(".next").rect["y"]
        ActionChains(self.driver).click_and_hold(poach).move_by_offset(-400, 0).release().perform()
        self.see(
            "Not moved to", seconds=40.0
        )  # the planner stands back behind all that runs beside
        self.see("is the most")
        self.assertEqual(self.find(".next").rect["y"], top)  # nothing moved under the hand
        self.press("Leave it")
        self.assertEqual(RunUp.objects.get().document["pins"], {})
        prep = self.bar("Portion and dry")
        ActionChains(self.driver).click_and_hold(prep).move_by_offset(-30, 0).release().perform()
        self.wait(lambda: RunUp.objects.get().document["pins"], "a pin")
        self.planned()
        self.wait(lambda: self.all(".bar.pinned"), "a pinned task")
        self.press("Undo")
        self.wait(lambda: not RunUp.objects.get().document["pins"], "no pin")

    def test_a_cook_is_taken_off_and_the_plan_follows(self) -> None:
        self.go(f"/service/{self.service.pk}")
        self.press("Run-up")
        self.planned()
        self.press("Take Toma off")
        self.wait(lambda: len(self.all(".lane.cook")) == 1, "one cook left")
        self.planned()
        self.enter("Name of one more cook", "Aud")
        self.press("Add")
        self.wait(lambda: len(self.all(".lane.cook")) == 2, "two cooks")

    def test_one_dish_tonight_in_two_taps(self) -> None:
        self.go(f"/dishes/{self.dish.pk}")
        self.press("Tonight")
        self.press("Plan it")
        self.planned()
        self.see("Hake under cheese, 4 at")

    def test_plates_when_called(self) -> None:
        self.go(f"/service/{self.service.pk}")
        self.press("Run-up")
        self.planned()
        self.find(".dish input[type=checkbox]").click()
        self.press("Calls")
        self.see("from call to pass")
        self.enter("Table", "7")
        self.press("Hake under cheese")
        self.see("table 7")
        self.press("Gone out")
        self.wait(lambda: not self.all(".calls ol li"), "no call left")

    def test_run_sheets_and_a_phone(self) -> None:
        tomorrow = (timezone.localdate() + timedelta(days=1)).isoformat()
        change_service(self.service, {**self.service.document, "date": tomorrow}, 1)
        self.go(f"/service/{self.service.pk}")
        self.press("Run-up")
        self.planned()
        number = RunUp.objects.get().pk
        self.go(f"/run-up/{number}/sheets")
        self.see("Ilse")
        self.assertGreater(len(self.all("tbody tr")), 8)
        resize(self.driver, 390, 844)
        self.go(f"/run-up/{number}")
        self.planned()
        wide = self.driver.execute_script("return document.documentElement.scrollWidth")
        self.assertLessEqual(wide, 390)
        first = self.find(".next .first b")
        self.assertGreater(first.size["height"], 30)

    def test_cooks_and_things_are_entered_in_the_larder(self) -> None:
        self.go("/larder?shelf=brigade")
        self.see("Toma")
        self.enter("Cook's name", "Aud")
        self.press("Add the cook")
        self.see("Aud")
        self.enter("Name of the thing", "deck oven")
        self.press("Add it")
        self.see("deck oven")
        self.driver.find_elements(By.XPATH, "//button[b[normalize-space()='Sear']]")[0].click()
        self.enter("Sear: cooks, min", "11").send_keys(Keys.TAB)
        self.see("yours")
        self.enter("What the way is called", "Poach in oil")
        self.find(".ways form button[type=submit]").click()
        self.see("10 min on a ring")
        self.enter("Poach in oil: cooks, min", "14").send_keys(Keys.TAB)
        self.see("14 min on a ring")
        self.press("Take it away")
        self.wait(lambda: "Poach in oil" not in self.find(".ways ul").text, "it gone")
        self.press("Bring it back")
        self.see("14 min on a ring")
