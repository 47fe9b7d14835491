"""A live server, a kitchen in it, and a browser signed in."""

import atexit
import socket
import time
from collections.abc import Callable
from contextlib import ExitStack
from functools import cache
from typing import Any

from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from django.test import Client
from selenium import webdriver
from selenium.common.exceptions import StaleElementReferenceException, WebDriverException
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement
from selenium.webdriver.support.ui import WebDriverWait

from browser_tests.browser import WAITING, chromium, resize
from browser_tests.server import ServedAsItIs
from kestrel.accounts.actions import open_kitchen
from kestrel.door.tries import forget_tries
from kestrel.larder.actions import add_pan
from kestrel.sauces.actions import save_new
from kestrel.sauces.models import Sauce
from kestrel.tests.flushing import Flushes
from saucier.sheet import read_sheet
from saucier.testing import CHEESE_SAUCE

PASSWORD = "quiet-ridge-42"
PATIENCE_S = 20.0
"""How long a test waits for what should come: a machine that tests two suites at once can be slow. (How soon
something comes is measured by tests of its own.)"""
PAN = {"name": "sauteuse 24", "shape": "sloped", "diameter_cm": 24, "depth_cm": 8, "tare_g": 1180}


AGE = 20
"""Tests after which a new browser is opened: one for all of them grows to a gigabyte, and slows."""


class _Opened:
    """The browser of test class after test class, which each test empties."""

    def __init__(self) -> None:
        self._stack, self._driver, self.tests = ExitStack(), None, 0
        atexit.register(self._stack.close)

    def driver(self) -> webdriver.Chrome:
        if self._driver is None or self.tests >= AGE:
            self._stack.close()
            self._driver, self.tests = self._stack.enter_context(chromium()), 0
        return self._driver


OPENED = _Opened()


@cache
def free_port() -> int:
    """One for all the tests: what the browser keeps of the application's files it need not fetch again."""
    with socket.create_server(("localhost", 0)) as tried:
        return int(tried.getsockname()[1])


class BrowserTest(Flushes, StaticLiveServerTestCase):
    """``self.driver`` is a browser of 1280 × 800; ``self.user`` works in ``self.kitchen``."""

    server_thread_class = ServedAsItIs

    @classmethod
    def setUpClass(cls) -> None:
        cls.port = free_port()
        super().setUpClass()
        cls.driver = OPENED.driver()

    def setUp(self) -> None:
        OPENED.tests += 1
        forget_tries()
        self.user = open_kitchen("Refectory", "ada", PASSWORD)
        self.kitchen = self.user.kitchens.get()
        self.kitchen.begun = True
        self.kitchen.save(update_fields=["begun"])
        add_pan(self.kitchen, **PAN)
        resize(self.driver, 1280, 800)
        self._leave()
        self.driver.delete_all_cookies()
        self.driver.execute_script("localStorage.clear(); sessionStorage.clear()")
        self.driver.get_log("browser")

    def tearDown(self) -> None:
        self._all_sent()
        errors = [
            line["message"]
            for line in self.driver.get_log("browser")
            # Refusals are answers the interface shows; the browser logs each as an error.
            if not any(f"status of {code}" in line["message"] for code in (401, 409, 422, 429))
        ]
        # What a page still asks for, its kitchen gone, is answered by an end of its session: it would end the next test's.
        self._leave()
        self.server_thread.wait_until_answered(PATIENCE_S)
        self.assertEqual(errors, [])

    def _leave(self) -> None:
        """To a page that asks for nothing, where this browser keeps what it keeps."""
        self.driver.get(f"{self.live_server_url}/static/icon.svg")

    def _all_sent(self) -> None:
        """Wait until what was done last has reached the server: the kitchen goes with the test."""
        for _ in range(100):
            try:
                waiting = self.driver.execute_async_script(WAITING)
            except WebDriverException:  # no page of ours
                return
            if not waiting:
                break
            time.sleep(0.05)
        time.sleep(0.2)  # what is looked at once more after it

    def saved(self, **change: Any) -> Sauce:
        return save_new(self.kitchen, self.user, read_sheet({**CHEESE_SAUCE, **change}))

    def sign_in(self, driver: Any = None) -> None:
        """Put the session cookie of a signed-in client into the browser."""
        client = Client()
        client.force_login(self.user, backend="django.contrib.auth.backends.ModelBackend")
        cookie = {"name": "sessionid", "value": client.cookies["sessionid"].value, "path": "/"}
        (driver or self.driver).add_cookie(cookie)

    def go(self, path: str) -> None:
        self.driver.get(self.live_server_url + path)

    def offline(self, off: bool) -> None:
        """No network for this browser, until it has one again, at the test's end at the latest."""
        if off:
            self.addCleanup(self.offline, False)
        self.driver.execute_cdp_cmd("Network.enable", {})
        conditions = {"latency": 0, "downloadThroughput": -1, "uploadThroughput": -1}
        self.driver.execute_cdp_cmd(
            "Network.emulateNetworkConditions", {"offline": off, **conditions}
        )

    def wait(
        self, condition: Callable[[], Any], what: str = "", seconds: float = PATIENCE_S
    ) -> Any:
        """What ``condition`` returns once it is true; fails after so many seconds."""

        def ready(_: Any) -> Any:
            try:
                return condition()
            except (StaleElementReferenceException, IndexError):
                return False

        try:
            return WebDriverWait(self.driver, seconds, 0.05).until(ready)
        except WebDriverException as late:
            raise AssertionError(
                f"waited in vain for {what or condition}; page:\n{self.said()}"
            ) from late

    def said(self) -> str:
        """What the page says. Asked of the browser: the driver's own reading of a page's text is slow."""
        return self.driver.execute_script("return document.body?.innerText ?? ''")

    def see(self, text: str, seconds: float = PATIENCE_S) -> None:
        """Wait until the page says ``text``."""
        self.wait(lambda: text in self.said(), repr(text), seconds)

    def find(self, css: str, seconds: float = PATIENCE_S) -> WebElement:
        return self.wait(lambda: self.driver.find_elements(By.CSS_SELECTOR, css)[0], css, seconds)

    def all(self, css: str) -> list[WebElement]:
        return self.driver.find_elements(By.CSS_SELECTOR, css)

    def press(self, name: str) -> None:
        """Click the button or link that says ``name``, once it can be."""
        xpath = (
            f"//*[self::button or self::a or @role='radio' or @role='tab']"
            f"[normalize-space()={name!r} or @aria-label={name!r}]"
        )

        def ready() -> WebElement | None:
            first = self.driver.find_elements(By.XPATH, xpath)[0]
            return first if first.is_enabled() else None

        self.wait(ready, name).click()

    def pick(self, name: str) -> None:
        """Click ``name`` in the menu that is open."""
        xpath = f"//*[contains(@class,'n-dropdown-option')][normalize-space()={name!r}]"
        self.wait(lambda: self.driver.find_elements(By.XPATH, xpath)[0], name).click()

    def choose(self, label: str, option: str, typed: str = "") -> None:
        """Pick ``option`` in the select labelled ``label``, narrowed by what is ``typed``."""
        self.find(f'[aria-label="{label}"]').click()
        if typed:
            self.key(typed)
        xpath = f"//*[contains(@class,'n-base-select-option')][normalize-space()={option!r}]"
        self.wait(lambda: self.driver.find_elements(By.XPATH, xpath)[0], option).click()

    def enter(self, label: str, text: str) -> WebElement:
        """Type ``text`` in place of what stands in the field labelled ``label``."""
        field = self.find(f'input[aria-label="{label}"], textarea[aria-label="{label}"]')
        field.click()
        field.send_keys(Keys.CONTROL, "a")
        field.send_keys(text)
        return field

    def key(self, *keys: str) -> None:
        self.driver.switch_to.active_element.send_keys(*keys)

    def shape(self, css: str, attribute: str) -> str:
        return self.find(css).get_attribute(attribute) or ""

    def overflow(self) -> list[str]:
        """What sticks out of the page on the right, by class or tag."""
        return self.driver.execute_script(
            """const wide = document.documentElement.scrollWidth > innerWidth
               const out = [...document.querySelectorAll('main *')].filter((e) => {
                 const box = e.getBoundingClientRect()
                 return box.width && box.right > innerWidth + 1 && !e.closest('.scroll, .sheet table')
               })
               return (wide ? ['page'] : []).concat(out.map((e) => e.className.toString() || e.tagName))"""
        )
