"""Things made while the server is killed and answers are cut: whatever was acknowledged is there, nothing
twice. ``make lost``."""

import http.client
import json
import random
import secrets
import sqlite3
import sys
import threading
import time
from collections import Counter
from contextlib import closing, suppress

from saucier.testing import CHEESE_SAUCE
from tools.cuts import ADDRESS, PORT, Server, kitchen
from tools.live import Session


def send_and_cut(session: Session, method: str, path: str, body: object, key: str) -> None:
    """The request arrives whole; the line is cut before its answer is read."""
    line = http.client.HTTPConnection("127.0.0.1", PORT, timeout=5)
    headers = {**session.headers(), "Kestrel-Act": key}
    with suppress(OSError, http.client.HTTPException):
        line.request(method, path, json.dumps(body), headers)
        assert line.sock is not None
        time.sleep(random.random() * 0.06)  # some of them while it is at work
    line.close()


def send(session: Session, path: str, body: object, key: str) -> int | None:
    """The status answered, None where none came."""
    line = http.client.HTTPConnection("127.0.0.1", PORT, timeout=10)
    with suppress(OSError, http.client.HTTPException):
        headers = {**session.headers(), "Kestrel-Act": key}
        line.request("POST", path, json.dumps(body), headers)
        status = line.getresponse().status
        line.close()
        return status
    line.close()
    return None


def killed(server: Server, session: Session, names: list[str], dice: random.Random) -> int:
    """Four sauces are sent while the server is killed at some moment; what was not answered is sent again
    after. How many were acknowledged before it died."""
    mine = [f"K{len(names) + n}" for n in range(4)]
    keys = {name: secrets.token_hex(12) for name in mine}
    answered: dict[str, int | None] = {}

    def work() -> None:
        for name in mine:
            sheet = {"sheet": {**CHEESE_SAUCE, "name": name}}
            answered[name] = send(session, "/api/sauces", sheet, keys[name])

    thread = threading.Thread(target=work)
    thread.start()
    time.sleep(dice.uniform(0.0, 0.25))
    server.kill()
    thread.join()
    server.start()
    before = sum(status == 201 for status in answered.values())
    for name in mine:
        if answered[name] is None:
            sheet = {"sheet": {**CHEESE_SAUCE, "name": name}}
            status = send(session, "/api/sauces", sheet, keys[name])
            if status != 201:
                raise RuntimeError(f"{name}: {status}")
    names += mine
    return before


def cut(session: Session, names: list[str]) -> None:
    """One sauce whose answer is cut, and which is sent again."""
    name, key = f"K{len(names)}", secrets.token_hex(12)
    body = {"sheet": {**CHEESE_SAUCE, "name": name}}
    send_and_cut(session, "POST", "/api/sauces", body, key)
    status = send(session, "/api/sauces", body, key)
    if status != 201:
        raise RuntimeError(f"{name}: {status}")
    names.append(name)


def main(times: int) -> None:
    dice = random.Random(7)
    names: list[str] = []
    with kitchen() as server:
        session = Session(ADDRESS)
        before = sum(killed(server, session, names, dice) for _ in range(times))
        for _ in range(times):
            cut(session, names)
        with closing(sqlite3.connect(server.database)) as db:
            rows = Counter(name for (name,) in db.execute("SELECT name FROM sauces_sauce"))
            sound = db.execute("PRAGMA integrity_check").fetchone()[0]
    lost = [name for name in names if not rows[name]]
    doubled = [name for name in names if rows[name] > 1]
    print(
        f"{times} kills, {times} cut answers: {len(names)} sauces acknowledged ({before} before a kill), "
        f"{len(lost)} lost, {len(doubled)} doubled; integrity_check {sound}"
    )
    sys.exit(1 if lost or doubled else 0)


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 20)
