"""Every place by axe-core, at a tablet's width and a phone's: nothing that is serious or critical."""

import re
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from django.core.management import call_command

from browser_tests.base import BrowserTest
from browser_tests.browser import resize
from kestrel.accounts.models import User
from kestrel.run_up.actions import of_service
from kestrel.sauces.models import Sauce
from kestrel.service.models import Dish, Service
from kestrel.stove.actions import start

AXE = Path(__file__).resolve().parent.parent / "web" / "node_modules" / "axe-core" / "axe.min.js"
RUN = """
const [of, done] = [document.querySelector(arguments[0]), arguments[1]]
const wanted = { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'], resultTypes: ['violations'] }
axe.run(of, wanted).then((found) => done(found.violations.flatMap((one) =>
  one.nodes.map((node) => [one.impact, one.id, node.target.join(' '), node.html]))))
"""
SHOWN = """
const main = document.querySelector('main')
const said = [...main.querySelectorAll('[aria-label], [placeholder], [aria-valuetext], [title]')].flatMap((one) =>
  ['aria-label', 'placeholder', 'aria-valuetext', 'title'].map((name) => one.getAttribute(name) || ''))
return [main.innerText, ...said]
"""
OTHER_WAYS = re.compile(r".{0,30}(?:°C|(?<![\d.])\d+\.\d+(?![\d.])).{0,20}")
NARROW_BARS = r'<button [^>]*class="bar '
"""Minutes drawn to scale in the run-up; each task can be pressed in the lists beside them too."""


class Axe(BrowserTest):
    def setUp(self) -> None:
        super().setUp()
        call_command("load_demo", verbosity=0)
        self.user = User.objects.get(username="refectory")
        self.kitchen = self.user.kitchens.get()
        self.driver.set_script_timeout(60)
        self.sign_in()

    def places(self) -> list[str]:
        sauce, dish = Sauce.objects.all()[0], Dish.objects.all()[0]
        service = Service.objects.all()[0]
        run_up = of_service(self.kitchen, service, 0)
        batch = start(self.kitchen, self.user, sauce.newest)
        return [
            *("/sauces", f"/sauces/{sauce.pk}", "/sauces/new", "/sauces/read", "/begin"),
            *("/dishes", f"/dishes/{dish.pk}", "/service", f"/service/{service.pk}"),
            *("/run-up", f"/run-up/{run_up.pk}", "/stove", f"/stove/{batch.pk}", "/fix"),
            *("/keeping", "/keeping/record", "/journal", "/journal/learning", "/journal/weeks"),
            *("/journal/practice", "/larder", "/kitchen"),
        ]

    def found(self, within: str = "html") -> list[tuple[str, str, str]]:
        """What axe finds serious or critical ``within`` an element of the page: how bad, by which rule, where."""
        self.driver.execute_script(AXE.read_text(encoding="utf-8"))
        rows: list[Any] = self.driver.execute_async_script(RUN, within)
        return [
            (impact, rule, target)
            for impact, rule, target, html in rows
            if impact in ("serious", "critical")
            and not (rule == "target-size" and re.match(NARROW_BARS, html))
        ]

    def test_places(self) -> None:
        """By axe; that nothing sticks out (320 px wide is also what 1280 px show at 400 %); and, for a kitchen that has
        neither, that there is no degree in Celsius and no decimal point."""
        self.kitchen.temperature, self.kitchen.measures, self.kitchen.decimals = "F", "us", ","
        self.kitchen.save()
        wrong, over, written = [], [], []
        for path in self.places():
            self.go(path)
            self.find("main h1, main h2, main h3")
            for width in (1280, 390):
                resize(self.driver, width, 800)
                wrong += [(width, path, *one) for one in self.found()]
            for width in (320, 640):
                resize(self.driver, width, 800)
                over += [(width, path, one) for one in self.overflow()]
            if path in ("/kitchen", "/begin"):  # they ask which of them
                continue
            for words in self.driver.execute_script(SHOWN):
                written += [(path, other.group()) for other in OTHER_WAYS.finditer(words)]
        self.assertEqual(wrong, [])
        self.assertEqual(over, [])
        self.assertEqual(written, [])

    def test_every_kind_of_practice_fits(self) -> None:
        self.go("/journal/practice")
        resize(self.driver, 320, 800)
        over = []
        for number in range(len(self.wait(lambda: self.all(".kind"), "the kinds"))):
            self.all(".kind")[number].click()
            self.wait(
                lambda at=number: self.all(".kind")[at].get_attribute("aria-pressed") == "true"
            )
            self.find(".question")
            over += [(number, one) for one in self.overflow()]
        self.assertEqual(over, [])

    def dialogs(self) -> Iterator[str]:
        """Opens one dialog after another and names it; whoever asks closes it before the next."""
        sauce = Sauce.objects.get(name__icontains="chicory")
        batch = start(self.kitchen, self.user, sauce.newest)
        for path, *presses in (
            ("/sauces", "New sauce"),
            ("/sauces", f"More for {sauce.name}", "Rename"),
            ("/sauces", f"More for {sauce.name}", "Tags…"),
            (f"/sauces/{sauce.pk}", "What if"),
            (f"/sauces/{sauce.pk}", "Fix it"),
            (f"/sauces/{sauce.pk}", "Which pan is quicker?"),
            (f"/sauces/{sauce.pk}", "More", "Versions…"),
            (f"/stove/{batch.pk}", "Fix it"),
            (f"/stove/{batch.pk}", "Note"),
            ("/larder", "New ingredient"),
            ("/sauces", "Show the keys"),
        ):
            self.go(path)
            self.find("main h1, main h2, main h3")
            self.press(presses[0])
            if len(presses) > 1:
                self.pick(presses[1])
            self.find("[role=dialog]")
            yield f"{path} {presses[-1]}"

    def test_dialogs(self) -> None:
        wrong = []
        resize(self.driver, 1280, 800)
        for name in self.dialogs():
            for width in (1280, 390):
                resize(self.driver, width, 800)
                wrong += [(width, name, *one) for one in self.found("[role=dialog]")]
                dialog = self.find("[role=dialog]")
                heading = dialog.find_elements("css selector", "h1, h2, h3, [role=heading]")
                if not heading or not (
                    dialog.get_attribute("aria-labelledby") or dialog.get_attribute("aria-label")
                ):
                    wrong.append((width, name, "unnamed or without a heading"))
            resize(self.driver, 1280, 800)
        self.assertEqual(wrong, [])

    def test_before_the_door(self) -> None:
        self.driver.delete_all_cookies()
        for path in ("/enter", "/join/no-such-link"):
            self.go(path)
            self.see("Kestrel Fog")
            self.assertEqual(self.found(), [])
        self.driver.get_log("browser")  # the answer that there is no such link

    def test_the_skip_link_goes_to_the_content(self) -> None:
        self.go("/sauces")
        self.find("main h1, main h2")
        first = self.driver.execute_script("return document.querySelector('a[href], button')")
        self.assertEqual(first.text or first.get_attribute("textContent"), "To the content")
        self.driver.execute_script("arguments[0].focus(); arguments[0].click()", first)
        self.wait(lambda: self.driver.switch_to.active_element.get_attribute("id") == "content")
