"""Pictures of the main views, made from the demo kitchen: ``make screenshots``."""

import time
from collections.abc import Callable
from pathlib import Path

from selenium.webdriver.chrome.webdriver import WebDriver
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.support.ui import WebDriverWait

from browser_tests.browser import chromium, resize
from tools.live import PASSWORD, USERNAME, demo_server

FOLDER = Path(__file__).resolve().parent.parent / "docs" / "screenshots"
PORT = 8437


def sign_in(driver: WebDriver, address: str) -> None:
    driver.get(f"{address}/enter")
    for label, text in (("Name", USERNAME), ("Password", PASSWORD)):
        wait_for(driver, lambda d, la=label: d.find_element(By.CSS_SELECTOR, f"[aria-label={la}]"))
        driver.find_element(By.CSS_SELECTOR, f"[aria-label={label}]").send_keys(text)
    driver.find_element(By.CSS_SELECTOR, "button[type=submit]").click()
    wait_for(driver, lambda d: d.find_elements(By.CSS_SELECTOR, ".list li"))


def wait_for(driver: WebDriver, condition: Callable[[WebDriver], object]) -> None:
    WebDriverWait(driver, 20, ignored_exceptions=[Exception]).until(condition)


def shoot(driver: WebDriver, name: str) -> None:
    time.sleep(0.8)  # fonts and the last picture settle
    driver.save_screenshot(str(FOLDER / f"{name}.png"))
    print(f"docs/screenshots/{name}.png")


def click(driver: WebDriver, css: str, index: int = 0) -> None:
    wait_for(driver, lambda d: len(d.find_elements(By.CSS_SELECTOR, css)) > index)
    element = driver.find_elements(By.CSS_SELECTOR, css)[index]
    driver.execute_script("arguments[0].scrollIntoView({block: 'center'})", element)
    element.click()
    time.sleep(0.4)


def press(driver: WebDriver, words: str, tag: str = "button") -> None:
    """Click the first ``tag`` that says ``words``."""
    xpath = f'//{tag}[normalize-space()="{words}"]'
    wait_for(driver, lambda d: d.find_element(By.XPATH, xpath))
    driver.find_element(By.XPATH, xpath).click()
    time.sleep(0.6)


RECIPE = """Cheese sauce for a tray of leeks
60 g butter
60 g plain flour
1 L whole milk
1-2 cloves garlic
120 g ridge cheese, grated
salt to taste
Method
Cook the flour in the butter for 2 minutes. Simmer for 5 minutes. Serve at once.
"""


def main() -> None:
    FOLDER.mkdir(parents=True, exist_ok=True)
    with demo_server(PORT) as (address, _), chromium() as driver:
        sign_in(driver, address)
        shoot(driver, "sauces")
        links = {
            link.find_element(By.TAG_NAME, "h2").text: link.get_attribute("href")
            for link in driver.find_elements(By.CSS_SELECTOR, ".list a.open")
        }
        cheese = next(href for name, href in links.items() if "chicory" in name)
        cream = next(href for name, href in links.items() if "Mustard cream" in name)
        gratin = next(href for name, href in links.items() if "celeriac" in name)
        driver.get(cheese)
        wait_for(driver, lambda d: d.find_elements(By.CSS_SELECTOR, ".pot-now .sure"))
        shoot(driver, "builder")
        resize(driver, 390, 844)
        shoot(driver, "builder-390")
        resize(driver, 1280, 800)
        driver.get(cream)
        click(driver, ".step .dot", 5)
        shoot(driver, "builder-reduction")
        driver.get(cheese)
        press(driver, "What if")
        press(driver, "Pin to compare")
        driver.find_element(By.CSS_SELECTOR, ".n-slider-handle-wrapper").send_keys(
            *[Keys.ARROW_RIGHT] * 16
        )
        shoot(driver, "what-if")
        driver.get(f"{address}/fix")
        click(driver, '[role=radio][title*="mounds"]')
        shoot(driver, "fix-it")
        driver.get(f"{address}/sauces/read")
        click(driver, "textarea")
        driver.switch_to.active_element.send_keys(RECIPE)
        press(driver, "Read it")
        shoot(driver, "read-a-recipe")
        driver.get(f"{address}/dishes")
        press(driver, "Fennel and barley bake", "b")
        click(driver, "g.band", 5)
        shoot(driver, "dish")
        driver.get(f"{address}/dishes/new?start=pool")
        click(driver, 'nav[aria-label="Parts of the dish"] > button')
        shoot(driver, "dish-plate")
        driver.get(f"{address}/service")
        press(driver, "Visitors' Sunday", "h2")
        shoot(driver, "service")
        press(driver, "Production sheet")
        shoot(driver, "service-production")
        _run_up(driver, address)
        driver.get(cheese)
        click(driver, ".buttons button.n-button--primary-type")
        click(driver, ".timer")
        shoot(driver, "stove")
        for _ in range(6):
            click(driver, ".forward")
        shoot(driver, "stove-weighing")
        _correcting(driver, gratin)
        _watching(driver, next(href for name, href in links.items() if "guinea" in name))
        driver.get(f"{address}/journal")
        shoot(driver, "journal")
        driver.get(f"{address}/larder")
        shoot(driver, "larder")


def _run_up(driver: WebDriver, address: str) -> None:
    """The large service's plan with a task pressed, and an evening of calls."""

    def planned(name: str) -> None:
        driver.get(f"{address}/run-up")
        press(driver, name, "h2")
        WebDriverWait(driver, 180).until(
            lambda d: (
                d.find_elements(By.CSS_SELECTOR, ".lanes .bar")
                and not d.find_elements(By.CSS_SELECTOR, ".progress")
            )
        )

    planned("Visitors' Sunday")
    driver.find_element(By.CSS_SELECTOR, "button.bar.hands[aria-label*='Caraway']").send_keys(
        Keys.ENTER
    )
    shoot(driver, "run-up")
    planned("Night shift, to order")
    press(driver, "Calls")
    for dish in (0, 1, 2):
        click(driver, ".calls .dishes button", dish)
        wait_for(
            driver, lambda d, n=dish: len(d.find_elements(By.CSS_SELECTOR, ".calls ol li")) > n
        )
    shoot(driver, "run-up-calls")


def _correcting(driver: WebDriver, sauce: str) -> None:
    """A sauce made thick on purpose, at the step where the spoon says how much goes in."""
    driver.get(sauce)
    click(driver, "summary")
    select = '[aria-label="How it is brought right"]'
    wait_for(driver, lambda d: d.find_element(By.CSS_SELECTOR, select))
    box = driver.find_element(By.CSS_SELECTOR, select)
    driver.execute_script("arguments[0].scrollIntoView({block: 'center'})", box)
    box.click()
    option = "//*[contains(@class,'n-base-select-option')][contains(., 'liquid held back')]"
    wait_for(driver, lambda d: d.find_element(By.XPATH, option))
    driver.find_element(By.XPATH, option).click()
    time.sleep(1.0)
    press(driver, "Save")
    press(driver, "Cook it")
    for _ in range(3):
        click(driver, ".forward")
    click(driver, ".correct [role=radio]", 3)
    shoot(driver, "stove-correcting")


def _watching(driver: WebDriver, sauce: str) -> None:
    """A liquor that boils down over a scale, some minutes in."""
    driver.get(sauce)
    press(driver, "Cook it")
    for _ in range(4):
        click(driver, ".forward")
    wait_for(driver, lambda d: d.find_elements(By.CSS_SELECTOR, ".watching"))
    driver.execute_async_script(_READINGS)
    time.sleep(1.5)
    shoot(driver, "stove-watching")


_READINGS = """
const done = arguments[arguments.length - 1]
const token = /csrftoken=([^;]*)/.exec(document.cookie)[1]
const call = async (method, path, body, more) => (await fetch('/api' + path, {
  method, body: JSON.stringify(body),
  headers: { 'Content-Type': 'application/json', 'X-CSRFToken': token, ...more },
})).json()
;(async () => {
  const id = Number(location.pathname.split('/').at(-1))
  const made = await call('POST', '/devices', { name: 'Scale, front ring', kind: 'scale', simulated: true })
  await call('PUT', `/devices/${made.id}`, { batch_id: id })
  const watched = (await (await fetch(`/api/stove/${id}`)).json()).followed.watched
  const began = Date.now()
  const readings = []
  for (let second = 0; second <= 390; second += 10)
    readings.push({
      mass_g: Math.round(watched.scale_g - watched.g_per_min * 0.85 * Math.max(0, second / 60 - watched.boils_in_min)),
      at: new Date(began + 1000 * second).toISOString(),
    })
  await call('POST', '/readings', readings, { Authorization: `Bearer ${made.token}` })
  done()
})()
"""


if __name__ == "__main__":
    main()
