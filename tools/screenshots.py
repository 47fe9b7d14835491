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


RECIPE = """Gratin sauce as they make it on the ridge (for 8)
Butter and flour to a white roux, two minutes. Whisk in 1 litre of milk, a ladle at a time, and let it simmer for
ten minutes. Off the heat stir in alpine cheese and a little mustard. A scrape of nutmeg, salt.
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
        driver.get(cheese)
        wait_for(driver, lambda d: d.find_elements(By.CSS_SELECTOR, ".pot-now .sure"))
        shoot(driver, "builder")
        resize(driver, 390, 844)
        shoot(driver, "builder-390")
        resize(driver, 1280, 800)
        driver.get(cheese)
        press(driver, "What if")
        press(driver, "Pin to compare")
        driver.find_element(By.CSS_SELECTOR, "input[type=range]").send_keys(
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
        _watching(driver, next(href for name, href in links.items() if "guinea" in name))
        _hob(driver, address)
        _keeping(driver, address)
        driver.get(f"{address}/journal")
        shoot(driver, "journal")
        driver.get(f"{address}/journal/learning")
        shoot(driver, "journal-taught")
        driver.get(f"{address}/kitchen")
        wait_for(driver, lambda d: d.find_elements(By.CSS_SELECTOR, "section.people li"))
        shoot(driver, "kitchen")
        driver.get(f"{address}/larder")
        shoot(driver, "larder")


def _run_up(driver: WebDriver, address: str) -> None:
    """The large service's plan with a task pressed."""

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


def _watching(driver: WebDriver, sauce: str) -> None:
    """A liquor that boils down over a scale, some minutes in."""
    driver.get(sauce)
    press(driver, "Cook it")
    for _ in range(4):
        click(driver, ".forward")
    wait_for(driver, lambda d: d.find_elements(By.CSS_SELECTOR, ".watching"))
    driver.execute_async_script(_CALL + _READINGS)
    time.sleep(1.5)
    shoot(driver, "stove-watching")


def _hob(driver: WebDriver, address: str) -> None:
    """A cap cooked free hand, a pan of hake and what else is on, each on its ring."""
    driver.execute_async_script(_CALL + _ON_THE_HOB)
    driver.get(f"{address}/stove?hob")
    wait_for(driver, lambda d: d.find_elements(By.CSS_SELECTOR, ".rings .pot"))
    shoot(driver, "stove-hob")


def _keeping(driver: WebDriver, address: str) -> None:
    """A finished sauce put away, some minutes of its cooling read by a probe."""
    kept = driver.execute_async_script(_CALL + _PUT_AWAY)
    driver.get(f"{address}/keeping/{kept}")
    wait_for(driver, lambda d: d.find_elements(By.CSS_SELECTOR, ".cooling"))
    shoot(driver, "keeping")


_CALL = """
const done = arguments[arguments.length - 1]
const token = /csrftoken=([^;]*)/.exec(document.cookie)[1]
const call = async (method, path, body, more) => (await fetch('/api' + path, {
  method, body: JSON.stringify(body),
  headers: { 'Content-Type': 'application/json', 'X-CSRFToken': token, ...more },
})).json()
"""
_ON_THE_HOB = """
;(async () => {
  const act = (id, ...acts) => call('POST', `/stove/${id}/acts`, {
    sent_at: new Date().toISOString(),
    acts: acts.map((one) => ({ ...one, key: crypto.randomUUID(), at: new Date().toISOString() })),
  })
  const of = (ingredient, value, unit) => ({ ingredient, amount: { value, unit } })
  const { rings, cooks } = await (await fetch('/api/stove/hob')).json()
  const on = await (await fetch('/api/stove')).json()
  const cap = await call('POST', '/stove/free', { name: 'Cap for the rye toasts', pan: '' })
  const hake = await call('POST', '/stove/asides', { name: 'Hake', way: 'sear', minutes: 6, ingredient: 'fish-white' })
  await act(cap.id,
    { kind: 'added', put: { op: 'roux', fat: of('butter-unsalted', 60, 'g'), flour: of('wheat-flour', 60, 'g') } },
    { kind: 'added', put: { op: 'add', ...of('milk-whole', 600, 'mL') } })
  await act(hake.id, { kind: 'timer-on', name: 'step', seconds: 171 })
  const pots = [hake, cap, ...on]
  for (const [n, pot] of pots.slice(0, rings.length).entries())
    await act(pot.id, { kind: 'stands', ring: rings[n].name, cook: cooks[n % cooks.length] ?? '' })
  done()
})()
"""
_PUT_AWAY = """
;(async () => {
  const { possible, trays } = await (await fetch('/api/keeping/where')).json()
  const kept = await call('POST', '/keeping', {
    key: crypto.randomUUID(), batch_id: possible.at(-1).batch_id, tray: trays.at(-1), place: 'cold-room', from_c: 82 })
  const made = await call('POST', '/devices', { name: 'Blue probe', kind: 'probe', simulated: true })
  await call('PUT', `/devices/${made.id}`, { batch_id: kept.batch_id, kept_key: kept.key, tray: 1 })
  const began = Date.now()
  const readings = kept.cooling.curve.slice(0, 22).map((point) => ({
    temperature_c: Math.round(10 * (point.hottest_c + 2 * Math.sin(point.at_min))) / 10,
    at: new Date(began + 66_000 * point.at_min).toISOString() }))
  await call('POST', '/readings', readings, { Authorization: `Bearer ${made.token}` })
  done(kept.id)
})()
"""
_READINGS = """
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
