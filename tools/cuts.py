"""Three pots cooked in the real interface while the server is killed and the network is cut, twenty times
each: every act that was pressed has to be there once, in order. Then two pots that boil down, one on a scale and one that
is looked at, with the network cut: by how much the minutes left step where it is cut, and where it is back.

``python -m tools.cuts [times]``"""

import json
import os
import random
import signal
import sqlite3
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from browser_tests.browser import WAITING, chromium
from saucier.testing import add, reduce_to
from standins.cooking import Cooking
from standins.pot import PotOnRing, Stuff
from tools.live import PASSWORD, ROOT, USERNAME, _wait_for

PORT = 8177
ADDRESS = f"http://127.0.0.1:{PORT}"


class Server:
    """The server with the demo kitchen; it can be killed as a power cut would."""

    def __init__(self, folder: str) -> None:
        self.database = str(Path(folder) / "demo.sqlite3")
        self._env = {**os.environ, "KESTREL_DB": self.database}
        for command in (["migrate", "--verbosity", "0"], ["load_demo"]):
            subprocess.run(
                [sys.executable, "manage.py", *command],
                cwd=ROOT,
                env=self._env,
                check=True,
                stdout=subprocess.DEVNULL,
            )
        self._process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        # Without the planner: nothing here is planned.
        self._process = subprocess.Popen(
            [
                *(sys.executable, "-m", "uvicorn", "kestrel.asgi:application"),
                *("--port", str(PORT), "--lifespan", "off", "--log-level", "error"),
            ],
            cwd=ROOT,
            env=self._env,
        )
        _wait_for(ADDRESS)

    def kill(self) -> None:
        assert self._process is not None
        self._process.send_signal(signal.SIGKILL)
        self._process.wait()


@contextmanager
def kitchen() -> Iterator[Server]:
    with tempfile.TemporaryDirectory() as folder:
        server = Server(folder)
        server.start()
        try:
            yield server
        finally:
            server.kill()


def _script(driver: Any, text: str, *args: Any) -> Any:
    return driver.execute_async_script(
        f"const done = arguments[arguments.length - 1]; {text}", *args
    )


_CALL = """
const token = () => (/csrftoken=([^;]*)/.exec(document.cookie) || [])[1] || ''
const call = (method, path, body) => fetch('/api' + path, {
  method, body: body && JSON.stringify(body),
  headers: {'Content-Type': 'application/json', 'X-CSRFToken': token()},
}).then((answer) => answer.json())
"""


def _pots(driver: Any) -> list[int]:
    driver.get(f"{ADDRESS}/enter")
    _script(
        driver,
        _CALL
        + "call('GET', '/accounts/me').then(() => call('POST', '/accounts/sign-in', arguments[0]))"
        ".then(() => done())",
        {"username": USERNAME, "password": PASSWORD},
    )
    return list(
        _script(
            driver,
            _CALL + "call('GET', '/sauces').then(async (all) => { const list = all.rows;"
            " const made = []; for (const one of list.slice(0, 3))"
            " made.push((await call('POST', '/stove', {sauce_id: one.id})).id); done(made) })",
        )
    )


def _offline(driver: Any, off: bool) -> None:
    driver.execute_cdp_cmd(
        "Network.emulateNetworkConditions",
        {"offline": off, "latency": 0, "downloadThroughput": -1, "uploadThroughput": -1},
    )


def _queued(driver: Any) -> int:
    """How many acts wait on the device."""
    return int(driver.execute_async_script(WAITING))


def main() -> None:
    times = int(sys.argv[1]) if len(sys.argv) > 1 else 20
    dice = random.Random(7)
    with kitchen() as server, chromium() as driver:
        driver.execute_cdp_cmd("Network.enable", {})
        pots = _pots(driver)
        driver.get(f"{ADDRESS}/stove/{pots[0]}")
        driver.execute_async_script(
            "const done = arguments[0]; navigator.serviceWorker.ready.then(() => setTimeout(done, 1500))"
        )
        # Every act that the interface makes is written down as it is kept on the device.
        note = (
            "const put = IDBObjectStore.prototype.put; IDBObjectStore.prototype.put = function(value, key) {"
            " if (String(key).startsWith('act.')) {"
            " const all = JSON.parse(sessionStorage.getItem('made') || '{}');"
            " all[value.act.key] = [value.batch, value.act.kind];"
            " sessionStorage.setItem('made', JSON.stringify(all)) } return put.call(this, value, key) }"
        )
        driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": note})
        reloads = 0
        for cut in range(2 * times):
            pot = dice.choice(pots)
            killed = cut % 2 == 0
            if killed:
                server.kill()
            else:
                _offline(driver, True)
            driver.get(f"{ADDRESS}/stove/{pot}")  # opened without the server
            reloads += 1
            _opened(driver)
            _press(driver, dice)
            if killed:
                server.start()
            else:
                _offline(driver, False)
            _press(driver, dice)
            if killed and dice.random() < 0.5:
                server.kill()  # in the middle of what is being sent
                server.start()
        deadline = time.monotonic() + 60.0
        while _queued(driver) and time.monotonic() < deadline:
            time.sleep(0.5)
        made = json.loads(driver.execute_script("return sessionStorage.getItem('made')") or "{}")
        waiting = _queued(driver)
        rows = sqlite3.connect(server.database).execute(
            "select key, batch_id, kind, taken from stove_act order by id"
        )
        there = list(rows)
        watched_through_cuts(driver, times, dice)
    keys = [key for key, *_ in there]
    lost = [key for key in made if key not in keys]
    order = [key for key in made if key in set(keys)]
    out_of_order = 0
    for pot in pots:
        mine = [key for key in order if made[key][0] == pot]
        kept = [key for key, batch, *_ in there if batch == pot]
        out_of_order += mine != kept
    print(
        f"{times} kills, {times} cuts, {reloads} openings without a server: {len(made)} acts made, "
        f"{len(there)} written down ({sum(taken for *_, taken in there)} taken), {waiting} still waiting, "
        f"{len(lost)} lost, {len(keys) - len(set(keys))} doubled, {out_of_order} pots out of order"
    )
    if not made or lost or waiting or len(keys) != len(set(keys)) or out_of_order:
        sys.exit(1)


def watched_through_cuts(driver: Any, times: int, dice: random.Random) -> None:
    """The minutes left of two pots that boil down, through ``times`` cuts: how far they step when the network goes, and
    when it is back."""
    steps: dict[tuple[str, str], list[float]] = {}
    pots = {how: _reduction(driver, how == "scale") for how in ("scale", "looks")}
    try:
        for cut in range(times):
            how = ("scale", "looks")[cut % 2]
            batch, cooking = pots[how]
            driver.get(f"{ADDRESS}/stove/{batch}")
            time.sleep(dice.uniform(4.0, 8.0))
            if how == "looks" and cut > 1:
                _look(driver, batch, cooking.pot.level_mm)
                time.sleep(2.0)
            before = _minutes_left(driver)
            _offline(driver, True)
            time.sleep(2.0)
            steps.setdefault((how, "at the cut"), []).append(_minutes_left(driver) - before)
            gone = dice.uniform(6.0, 40.0)
            time.sleep(gone)
            before = _minutes_left(driver)
            _offline(driver, False)
            for _ in range(200):
                if not driver.execute_script("return document.querySelector('.watching .ago')"):
                    break
                time.sleep(0.1)
            time.sleep(2.0)
            steps.setdefault((how, "at the return"), []).append(_minutes_left(driver) - before)
    finally:
        for _, cooking in pots.values():
            cooking.stop()
    for (how, when), each in sorted(steps.items()):
        most = max(abs(step) for step in each)
        print(f"{how}, {when}: {len(each)} times, the minutes step by {most:.1f} at most: {each}")


def _reduction(driver: Any, weighed: bool) -> tuple[int, Cooking]:
    """A pot of stock that is reduced in truth too, by a pot of the stand-ins: its batch and that pot, on a scale where it is
    ``weighed``."""
    pan = {"shape": "straight", "diameter_cm": 28, "depth_cm": 16, "tare_g": 2000}
    sheet = {
        "format": "kestrel-fog/sauce",
        "version": 1,
        "name": f"Reduced by {'weight' if weighed else 'looks'}",
        "steps": [{**add("stock-light", 1800), "temperature_c": 95}, reduce_to(share=0.4)],
        "pan": pan,
    }
    batch, token = _script(
        driver,
        _CALL
        + """const [sheet, weighed, name] = arguments
        call('POST', '/sauces', {sheet}).then(async (sauce) => {
          const batch = await call('POST', '/stove', {sauce_id: sauce.id})
          let token = ''
          if (weighed) {
            const device = await call('POST', '/devices', {name, kind: 'scale', simulated: true})
            token = device.token
            await call('PUT', `/devices/${device.id}`, {batch_id: batch.id})
          }
          done([batch.id, token])
        })""",
        sheet,
        weighed,
        f"Scale {random.randrange(10**6)}",
    )
    driver.get(f"{ADDRESS}/stove/{batch}")
    _opened(driver)
    driver.execute_script(
        "document.body.dispatchEvent(new KeyboardEvent('keydown', {key: ' ', bubbles: true}))"
    )
    pot = PotOnRing(Stuff(1764.0, 7.0, 29.0), 28.0, 3500.0, tare_g=2000.0, celsius=95.0)
    cooking = Cooking(pot, ADDRESS, token, stop_share=0.2)
    cooking.start()
    return batch, cooking


def _look(driver: Any, batch: int, level_mm: float) -> None:
    """Somebody says how deep it stands."""
    _script(
        driver,
        _CALL
        + """const [batch, mm] = arguments
        const at = new Date().toISOString()
        const act = {kind: 'saw', key: crypto.randomUUID(), at, step: 1, what: 'level', value: mm}
        call('POST', `/stove/${batch}/acts`, {sent_at: at, acts: [act]}).then(() => done())""",
        batch,
        level_mm,
    )


def _minutes_left(driver: Any) -> float:
    """The minutes on the screen; 0 where it is where it stops."""
    for _ in range(100):
        said = driver.execute_script(
            "return document.querySelector('.watching .left b')?.textContent ?? ''"
        )
        if said:
            figure = said.removesuffix("min")
            return float(figure) if figure.replace(".", "").isdigit() else 0.0
        time.sleep(0.1)
    raise RuntimeError(f"no minutes are shown at {driver.current_url}")


def _opened(driver: Any) -> None:
    """Wait until the pot is there, server or not."""
    for _ in range(200):
        if driver.execute_script("return !!document.querySelector('.forward')"):
            return
        time.sleep(0.05)
    raise RuntimeError(f"no pot is shown at {driver.current_url}")


def _press(driver: Any, dice: random.Random) -> None:
    """Some steps on and back, timers and looks, as fast as a thumb."""
    for _ in range(dice.randint(2, 5)):
        key = dice.choice((" ", " ", "Backspace", "t"))
        driver.execute_script(
            "document.body.dispatchEvent(new KeyboardEvent('keydown', {key: arguments[0], bubbles: true}))",
            key,
        )
        time.sleep(0.05 + 0.1 * dice.random())


if __name__ == "__main__":
    main()
