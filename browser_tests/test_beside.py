"""Beside the sauce by its sheet: free hand, a pan of fish, what was poured by eye, label and photograph."""

import tempfile
from pathlib import Path

from PIL import Image
from selenium.webdriver.common.keys import Keys

from browser_tests.base import BrowserTest
from browser_tests.browser import resize
from kestrel.larder.models import Burner
from kestrel.sauces.models import Sauce
from kestrel.stove.models import Act, Batch, Label, Photo
from kestrel.stove.readings import add_device
from kestrel.tests.clients import JsonClient
from saucier.testing import add, roux, simmer
from standins.printer import Printer


class Beside(BrowserTest):
    def start_free(self, name: str) -> Batch:
        self.sign_in()
        self.go("/stove")
        self.press("Free hand")
        self.enter("What will it be?", name)
        self.key(Keys.ENTER)
        self.see("Press what goes in first")
        return Batch.objects.get()

    def put_in(self, kind: str, **amounts: str) -> None:
        self.press(kind)
        for name, text in amounts.items():
            self.enter(f"How much of {name.replace('_', ' ')}", text)
        self.press("It is in")

    def white(self) -> Batch:
        sauce = self.saved(
            name="White for the bake",
            steps=[roux(60, 60), add("milk-whole", 1000), simmer(5)],
            target={"grade": "nappe", "salt_pct": 0.9},
            pan={"shape": "straight", "diameter_cm": 20, "depth_cm": 10, "tare_g": 1200},
        )
        other = JsonClient()
        other.force_login(self.user, backend="django.contrib.auth.backends.ModelBackend")
        made = other.call("POST", "/stove", {"sauce_id": sauce.pk}).body
        self.sign_in()
        self.go(f"/stove/{made['id']}")
        self.see("Step 1 of 3")
        return Batch.objects.get(pk=made["id"])

    def test_free_hand_from_the_first_knob_of_butter_to_a_sauce(self) -> None:
        batch = self.start_free("Rye cap")
        self.press("Fat and flour")
        self.enter("How much of Butter, unsalted", "60")
        self.enter("How much of Wheat flour, plain", "many")
        self.press("It is in")
        self.see("many")  # refused, by its words
        self.assertEqual(Act.objects.filter(kind="added", taken=True).count(), 0)
        self.press("Fat and flour")
        self.enter("How much of Butter, unsalted", "60")
        self.enter("How much of Wheat flour, plain", "60")
        self.press("It is in")
        self.see("White roux")
        self.put_in("Pour or put in", Whole_milk="1 L")
        self.see("nappe")
        self.press("It boils")
        self.press("simmer")
        self.see("Off the boil")
        self.press("Take back")
        self.wait(lambda: len(Batch.objects.get().sheet["steps"]) == 2, "the boil taken back")
        self.press("It boils")
        self.press("simmer")
        self.see("Off the boil")
        self.press("Off the boil")
        self.press("Done. Weigh and judge")
        self.see("Which spoon does it look like?")
        self.press("Make a sauce of it")
        self.enter("Name of the sauce", "Rye cap by hand")
        self.press("Put it down")
        self.see("saved, version 1")
        sauce = Sauce.objects.get(name="Rye cap by hand")
        steps = sauce.versions.get().sheet["steps"]
        self.assertEqual([step["op"] for step in steps], ["roux", "add", "simmer", "hold"])
        self.assertEqual(Batch.objects.get(pk=batch.pk).status, "on")

    def test_free_hand_goes_on_without_a_network_and_each_thing_is_in_once(self) -> None:
        self.start_free("Rye cap")
        ready = "const done = arguments[0]; navigator.serviceWorker.ready.then(() => done())"
        self.driver.execute_async_script(ready)
        self.driver.refresh()
        self.see("Press what goes in first")
        self.offline(True)
        self.put_in("Fat and flour", **{"Butter,_unsalted": "40", "Wheat_flour,_plain": "40"})
        self.see("Roux")
        self.put_in("Pour or put in", Whole_milk="500")
        self.driver.refresh()
        self.see("No network: cooking goes on")
        self.see("Pour in")
        self.offline(False)
        self.wait(lambda: Act.objects.filter(kind="added").count() == 2, "both to arrive")
        self.see("500 g whole milk")
        steps = Batch.objects.get().sheet["steps"]
        self.assertEqual([step["op"] for step in steps], ["roux", "add"])
        self.driver.get_log("browser")

    def test_a_pan_of_fish_stands_on_its_ring_and_goes_on_by_the_space_bar(self) -> None:
        for number, name in enumerate(("back left", "front right")):
            Burner.objects.create(
                kitchen=self.kitchen, name=name, kind="gas", watts=2000 + number, takes_cm=24
            )
        self.sign_in()
        self.go("/stove")
        self.press("Fish, pasta, oven…")
        self.choose("What is it?", "White fish fillet", typed="white fish")
        self.press("Sear 8 min")
        self.enter("Minutes it takes", "6")
        self.press("It goes in now")
        self.see("White fish fillet: in")
        self.see("running: press to stop")
        self.choose("Ring of White fish fillet", "front right")
        self.key(Keys.ESCAPE)
        self.driver.execute_script("document.activeElement.blur()")
        self.key(Keys.SPACE)
        self.see("White fish fillet: turn")
        self.see("running: press to stop")  # by itself: nobody pressed the timer
        self.press("Hob")
        self.wait(lambda: "White fish fillet" in self.find(".rings").text, "the map")
        self.assertIn("front right", self.find(".hob-strip .where").text)
        self.find(".rings .pot").click()
        self.press("Done. Next: White fish fillet: out, and rest")
        self.press("Done")
        self.see("Done, and off the fire.")
        self.wait(lambda: Batch.objects.get().status == "done", "the server to hear of it")

    def test_what_was_poured_by_eye_is_told_by_the_jug(self) -> None:
        batch = self.white()
        self.key(Keys.SPACE)
        self.see("Step 2 of 3")
        self.find(".much").click()
        self.press("By the jug")
        self.enter("The jug held, mL of Whole milk", "1500")
        self.enter("The jug holds still, mL, Whole milk", "100")
        self.press("went in")
        self.see("give or take")
        self.see("What happened (1)")
        self.assertEqual(self.find(".much b").text, "1442 g")
        self.press("Fix it")
        self.see("Too thin")
        self.assertEqual(Batch.objects.get(pk=batch.pk).step, 1)

    def test_label_and_photograph_of_what_is_put_away(self) -> None:
        batch = self.white()
        for step in range(3):
            self.key(Keys.SPACE)
            self.wait(lambda n=step: Batch.objects.get(pk=batch.pk).step == n + 1, "the step")
        self.see("nothing to let in yet")
        self.enter("How many labels", "2")
        self.press("labels")
        self.see("waits for a label printer")
        _, token = add_device(self.kitchen, self.user, "By the fridge", "printer", True)
        with tempfile.TemporaryDirectory() as folder:
            printer = Printer(self.live_server_url, token, Path(folder))
            self.assertTrue(printer.print_next(), printer.trouble)
            self.assertFalse(printer.print_next())
            text = (Path(folder) / f"label-{Label.objects.get().pk}.txt").read_text()
        self.assertIn("White for the bake", text)
        self.assertIn("CONTAINS gluten, milk", text)
        self.see("2 × · printed")
        with tempfile.NamedTemporaryFile(suffix=".jpg") as file:
            Image.new("RGB", (2400, 1800), "wheat").save(file.name, "JPEG")
            self.offline(True)
            self.find('input[type="file"]').send_keys(file.name)
            self.wait(lambda: self.all("img.going")[0].get_property("naturalWidth"), "its picture")
            self.wait(lambda: self.find(".photos .problem"), "that it is not there yet")
            self.offline(False)
            self.driver.get_log("browser")
            self.wait(lambda: Photo.objects.count() == 1, "the photograph")
        self.assertEqual(max(Photo.objects.values_list("width", "height")[0]), 1280)
        self.wait(lambda: self.all(".photos a img"), "the picture")
        self.press("Again just so")
        self.press("Write it down")
        self.press("Its record")
        self.see("What happened")
        self.see("again just so")
        self.wait(lambda: self.all(".photos a img"), "the picture in the record")

    def test_nothing_sticks_out(self) -> None:
        self.start_free("Rye cap")
        self.put_in("Pour or put in", Whole_milk="500")
        self.see("500 g whole milk")
        for path in (f"/stove/{Batch.objects.get().pk}", "/stove?hob"):
            for width, height in ((390, 844), (640, 400), (1280, 800)):
                resize(self.driver, width, height)
                self.go(path)
                self.see("Rye cap")
                self.assertEqual(self.overflow(), [], (path, width))
        resize(self.driver, 1280, 800)
