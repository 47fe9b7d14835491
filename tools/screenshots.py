"""Pictures of the main views, made from the demo kitchen: ``make screenshots``."""

import time
from collections.abc import Callable
from pathlib import Path

from selenium.webdriver.chrome.webdriver import WebDriver
from selenium.webdriver.common.by import By
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
        cream = next(href for name, href in links.items() if "Juniper" in name)
        driver.get(cheese)
        wait_for(driver, lambda d: d.find_elements(By.CSS_SELECTOR, ".pot-now .mark"))
        shoot(driver, "builder")
        resize(driver, 1920, 1080)
        shoot(driver, "builder-1920")
        resize(driver, 390, 844)
        shoot(driver, "builder-390")
        resize(driver, 1280, 800)
        driver.get(cream)
        click(driver, ".step .dot", 6)
        shoot(driver, "builder-reduction")
        driver.get(f"{address}/sauces/new?start=Two-cheese sauce with yolk")
        click(driver, "summary")
        click(driver, ".step .dot", 5)
        shoot(driver, "builder-liaison")
        driver.get(cheese)
        click(driver, ".buttons button.n-button--primary-type")
        click(driver, ".timer")
        shoot(driver, "stove")
        for _ in range(6):
            click(driver, ".forward")
        shoot(driver, "stove-weighing")
        driver.get(f"{address}/journal")
        shoot(driver, "journal")
        driver.get(f"{address}/larder")
        shoot(driver, "larder")


if __name__ == "__main__":
    main()
