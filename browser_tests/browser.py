"""A headless Chromium for the browser tests and the screenshots."""

import shutil
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager

from selenium import webdriver
from selenium.webdriver.chrome.service import Service

FLAGS = (
    "--headless=new",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--hide-scrollbars",
    "--force-prefers-reduced-motion",
)

WAITING = """const done = arguments[0];
(async () => {
  if (!(await indexedDB.databases()).some((one) => one.name === 'kestrel-fog')) return done(0);
  const opening = indexedDB.open('kestrel-fog');
  opening.onerror = () => done(0);
  opening.onsuccess = () => {
    const keys = opening.result.transaction('kept').objectStore('kept').getAllKeys();
    keys.onsuccess = () => {
      opening.result.close();
      done(keys.result.filter((key) => String(key).startsWith('act.')).length);
    };
  };
})().catch(() => done(0))"""
"""How many acts wait on this device for the server."""


@contextmanager
def chromium(width: int = 1280, height: int = 800) -> Iterator[webdriver.Chrome]:
    """A browser with a fresh profile whose page is ``width`` × ``height`` px."""
    profile = tempfile.mkdtemp(prefix="kestrel-chromium-")
    options = webdriver.ChromeOptions()
    options.binary_location = shutil.which("chromium") or "/usr/bin/chromium"
    for flag in (*FLAGS, f"--user-data-dir={profile}"):
        options.add_argument(flag)
    options.set_capability("goog:loggingPrefs", {"browser": "SEVERE"})
    service = Service(shutil.which("chromedriver") or "/usr/bin/chromedriver")
    driver = webdriver.Chrome(options=options, service=service)
    try:
        resize(driver, width, height)
        yield driver
    finally:
        driver.quit()
        shutil.rmtree(profile, ignore_errors=True)


def resize(driver: webdriver.Chrome, width: int, height: int) -> None:
    """Give the page exactly this size, narrower than a window may be."""
    driver.execute_cdp_cmd(
        "Emulation.setDeviceMetricsOverride",
        {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False},
    )
