"""Every place by axe-core, at a tablet's width and a phone's: nothing that is serious or critical."""

import re
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
const done = arguments[0]
const wanted = { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'], resultTypes: ['violations'] }
axe.run(document, wanted).then((found) => done(found.violations.flatMap((one) =>
  one.nodes.map((node) => [one.impact, one.id, node.target.join(' '), node.html]))))
"""
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
            *("/sauces", f"/sauces/{sauce.pk}", "/sauces/new", "/sauces/read"),
            *("/dishes", f"/dishes/{dish.pk}", "/service", f"/service/{service.pk}"),
            *("/run-up", f"/run-up/{run_up.pk}", "/stove", f"/stove/{batch.pk}", "/fix"),
            *("/keeping", "/keeping/record", "/journal", "/journal/learning", "/journal/weeks"),
            *("/journal/practice", "/larder", "/kitchen"),
        ]

    def found(self) -> list[tuple[str, str, str]]:
        self.driver.execute_script(AXE.read_text(encoding="utf-8"))
        rows: list[Any] = self.driver.execute_async_script(RUN)
        return [
            (impact, rule, target)
            for impact, rule, target, html in rows
            if impact in ("serious", "critical")
            and not (rule == "target-size" and re.match(NARROW_BARS, html))
        ]

    def test_places(self) -> None:
        wrong = []
        for path in self.places():
            self.go(path)
            self.find("main h1, main h2, main h3")
            for width in (1280, 390):
                resize(self.driver, width, 800)
                wrong += [(width, path, *one) for one in self.found()]
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
