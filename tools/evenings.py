"""Evenings of a simulated kitchen in simulated time, and what a judge says of them who knows the truth. ``make evenings``
with ``N`` of them, from ``SEED`` on; one alone tells its story."""

import json
import os
import sys
import tempfile
import time
from datetime import UTC, datetime
from pathlib import Path
from typing import TYPE_CHECKING, Any

import django
import time_machine

if TYPE_CHECKING:
    from standins.evening import Evening, Verdict

BEGAN = datetime(2026, 5, 8, 14, 0, tzinfo=UTC)
PASSWORD = "quiet-ridge-42"  # noqa: S105 - of a kitchen that is thrown away


def played(seed: int) -> "tuple[Evening, Verdict]":
    """The evening of ``seed`` in a new kitchen of the database there is, which is left as it was; the same evening
    however slow the machine is."""
    from django.db import transaction
    from django.test import Client

    from kestrel.door.tries import forget_tries
    from kestrel.run_up.planner import Worker
    from saucier.timing.solver import Effort
    from standins.evening import App, judge, play

    # Effort is counted by what the solver did; the clock on the wall would make two evenings of one seed differ.
    worker = Worker(Effort(seconds=0.1, wall=600.0), watched=False, mends=False)
    forget_tries()  # each evening is the same hour at the door
    browser = Client(enforce_csrf_checks=True, raise_request_exception=False)

    def send(method: str, path: str, body: Any, token: str) -> tuple[int, Any]:
        client = Client() if token else browser
        said = {"Authorization": f"Bearer {token}"} if token else {"X-CSRFToken": csrf()}
        text = "" if body is None else json.dumps(body)
        answer = client.generic(
            method, f"/api{path}", text, content_type="application/json", headers=said
        )
        return answer.status_code, json.loads(answer.content) if answer.content else None

    def csrf() -> str:
        if "csrftoken" not in browser.cookies:
            browser.get("/api/accounts/me")
        return browser.cookies["csrftoken"].value

    with transaction.atomic(), time_machine.travel(BEGAN, tick=False) as clock:
        app = App(send, clock.move_to, lambda: worker.once() and None, BEGAN)
        account = {"username": "cook", "password": PASSWORD}
        app.ask("POST", "/accounts/first", {**account, "kitchen": "Evening"})
        app.ask("POST", "/accounts/sign-in", account)
        evening = play(seed, app)
        verdict = judge(evening)
        transaction.set_rollback(True)
    return evening, verdict


def main() -> None:
    many, first = int(sys.argv[1]), int(sys.argv[2])
    os.environ["DJANGO_SETTINGS_MODULE"] = "kestrel.test_settings"
    folder = tempfile.TemporaryDirectory(prefix="kestrel-evenings-")
    os.environ["KESTREL_TEST_DB"] = str(Path(folder.name) / "evenings.sqlite3")
    django.setup()
    from django.db import connection
    from django.test.utils import setup_test_environment

    setup_test_environment()
    connection.creation.create_test_db(verbosity=0)
    plates, missed, worst, seconds = 0, 0, 0, []
    for seed in range(first, first + many):
        began = time.process_time()
        evening, verdict = played(seed)
        seconds.append(time.process_time() - began)
        plates, missed = plates + verdict.plates, missed + len(verdict.grades_missed)
        worst += len(verdict.worst)
        if many == 1:
            print("\n".join(evening.story))
        print(f"seed {seed}: {verdict.plates} plates, {seconds[-1]:.1f} s of processor")
        for words in (*verdict.grades_missed, *verdict.short, *verdict.worst, *evening.unserved):
            print(f"  {words}")
    print(
        f"{many} evenings: {plates - missed} of {plates} plates in their grade, "
        f"{worst} that must never be, {sum(seconds) / many:.1f} s of processor each"
    )
    folder.cleanup()


if __name__ == "__main__":
    main()
