"""Makes the fixture that proves a kitchen in use survives an upgrade: a database as this release makes it, and what
this release's API reads from it.

    python -m tools.release_data kestrel/tests/releases/2026-12

Run it once for a release, before its models change. Both the demo kitchen and a second kitchen with a simulated week
are in the database: cooling records by hand and by device, kept sauce, corrections, two people of one name, a service
half cooked, open documents. The moment of reading is kept with it, since ages and use-by days hang on it.
"""

import gzip
import json
import os
import shutil
import sys
import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any
from unittest import mock

BEGIN = datetime(2026, 11, 23, 8, 0, tzinfo=UTC)
"""When the simulated week begins: a Monday."""
WHITE_SAUCE = {
    "format": "kestrel-fog/sauce",
    "version": 1,
    "name": "White sauce for the ridge bake",
    "family": "white-sauce",
    "target": {"grade": "nappe", "volume": {"value": 3, "unit": "L"}},
    "steps": [
        {
            "op": "roux",
            "fat": {"ingredient": "butter-unsalted", "amount": {"value": 200, "unit": "g"}},
            "flour": {"ingredient": "wheat-flour", "amount": {"value": 200, "unit": "g"}},
            "minutes": 2,
        },
        {"op": "add", "ingredient": "milk-whole", "amount": {"value": 3, "unit": "L"}},
        {"op": "simmer", "minutes": 5},
    ],
}


class Clock:
    """The moment it is in the simulated week."""

    def __init__(self, now: datetime) -> None:
        self.now = now

    def forward(self, **by: float) -> None:
        self.now += timedelta(**by)

    @contextmanager
    def running(self) -> Iterator[None]:
        with mock.patch("django.utils.timezone.now", lambda: self.now):
            yield


def read_paths(client: Any) -> list[str]:
    """Paths of the API that read all records, journal lines and open documents of the signed-in kitchen."""
    paths = [
        "/keeping?gone=true",
        "/keeping/records?first=2026-11-01&last=2026-12-31",
        "/journal?limit=100",
        "/sauces?limit=100",
        "/dishes",
        "/services",
        "/run-ups",
        "/stove",
        "/people",
    ]
    for listed, path in (
        ("/keeping?gone=true", "/keeping/{}"),
        ("/dishes", "/dishes/{}"),
        ("/run-ups", "/run-ups/{}"),
    ):
        paths += [path.format(row["id"]) for row in client.call("GET", listed).body]
    for listed, path in (("/sauces", "/sauces/{}"), ("/services", "/services/{}")):
        body = client.call("GET", listed).body
        rows = (
            body
            if isinstance(body, list)
            else next(value for value in body.values() if isinstance(value, list))
        )
        paths += [path.format(row["id"]) for row in rows]
    from kestrel.stove.models import Batch

    user = client.session["_auth_user_id"]
    batches = Batch.objects.filter(kitchen__members=user).order_by("pk")
    return paths + [f"/stove/{pk}" for pk in batches.values_list("pk", flat=True)]


def build(folder: Path) -> None:
    from django.core.management import call_command

    from kestrel.accounts.models import Membership, User
    from kestrel.tests.clients import JsonClient

    clock = Clock(BEGIN)
    with clock.running():
        call_command("migrate", verbosity=0)
        call_command("load_demo")
        week(clock)
        reads: dict[str, dict[str, Any]] = {}
        for owner in Membership.objects.filter(owner=True).select_related("user"):
            client = JsonClient()
            client.force_login(owner.user, backend="django.contrib.auth.backends.ModelBackend")
            answers = reads[owner.user.username] = {}
            for path in read_paths(client):
                response = client.call("GET", path)
                assert response.status_code == 200, (path, response.content)
                answers[path] = response.body
        assert User.objects.filter(first_name="Tove").count() == 2
    folder.mkdir(parents=True, exist_ok=True)
    packed = json.dumps({"now": clock.now.isoformat(), "reads": reads}, sort_keys=True).encode()
    (folder / "reads.json.gz").write_bytes(gzip.compress(packed, mtime=0))


def week(clock: Clock) -> None:
    """A second kitchen and its week, all of it through the API."""
    from kestrel.accounts.actions import open_kitchen
    from kestrel.accounts.models import User
    from kestrel.tests.clients import PASSWORD, JsonClient

    owner = open_kitchen("Weather station", "keeper", PASSWORD)
    client = JsonClient()
    client.force_login(owner, backend="django.contrib.auth.backends.ModelBackend")
    keys = iter(range(10_000))

    def key() -> str:
        return f"release-{next(keys):05d}"

    def call(method: str, path: str, body: Any = None, by: Any = client) -> Any:
        response = by.call(method, path, body)
        assert response.status_code < 300, (method, path, response.status_code, response.content)
        return response.body

    def joined(username: str, called: str) -> Any:
        path = call("POST", "/people/invites", {})["path"]
        person = JsonClient()
        call(
            "POST",
            "/people/join",
            {
                "token": path.rsplit("/", 1)[1],
                "username": username,
                "called": called,
                "password": PASSWORD,
            },
            by=person,
        )
        return person

    tove, other_tove = joined("tove-one", "Tove"), joined("tove-two", "Tove")
    leaver = joined("leaver", "Runa")
    for pan in (
        {"name": "pot 28", "shape": "straight", "diameter_cm": 28, "depth_cm": 16, "tare_g": 2100},
        {
            "name": "tray 50 by 30",
            "shape": "tray",
            "diameter_cm": 50,
            "width_cm": 30,
            "depth_cm": 6.5,
        },
    ):
        call("POST", "/larder/pans", pan)
    sauce = call("POST", "/sauces", {"sheet": WHITE_SAUCE})["id"]
    probe = call("POST", "/devices", {"name": "blue probe", "kind": "probe", "simulated": True})

    def cook(by: Any, verdict: str, note: str) -> int:
        batch = call("POST", "/stove", {"sauce_id": sauce}, by=by)["id"]
        for step in range(3):
            act(by, batch, "go", from_step=step, to_step=step + 1)
            clock.forward(minutes=6)
        act(by, batch, "noted", text=note)
        call(
            "POST",
            "/journal",
            {
                "batch_id": batch,
                "weighed": "3210 g",
                "reached_pa_s": 0.7,
                "verdict": verdict,
                "note": note,
            },
            by=by,
        )
        return int(batch)

    def act(by: Any, batch: int, kind: str, **more: Any) -> None:
        document = {"key": key(), "at": clock.now.isoformat(), "kind": kind, **more}
        call(
            "POST",
            f"/stove/{batch}/acts",
            {"acts": [document], "sent_at": clock.now.isoformat()},
            by=by,
        )

    def put(by: Any, batch: int, **more: Any) -> int:
        asked = {
            "batch_id": batch,
            "tray": "tray 50 by 30",
            "trays": 1,
            "place": "cold-room",
            "key": key(),
        }
        return int(call("POST", "/keeping", {**asked, **more}, by=by)["id"])

    def happens(by: Any, kept: int, kind: str, **more: Any) -> str:
        event = {"key": key(), "at": clock.now.isoformat(), "kind": kind, **more}
        call("POST", f"/keeping/{kept}/events", {"events": [event]}, by=by)
        return str(event["key"])

    # Monday: cooled in time, by hand; drawn off; a reading typed wrongly and taken back.
    batch = cook(tove, "again", "just right")
    call("POST", f"/stove/{batch}/labels", {"copies": 2, "mass_g": 3000})
    kept = put(tove, batch, grams=3000.0, trays=2, from_c=80.0)
    for minutes, celsius in ((10, 66.0), (8, 62.0), (40, 30.0), (40, 9.0), (60, 5.0)):
        clock.forward(minutes=minutes)
        happens(tove, kept, "temperature", celsius=celsius)
    wrong = happens(other_tove, kept, "temperature", celsius=62.0)
    happens(other_tove, kept, "corrected", of=wrong, why="it was 6.2")
    happens(tove, kept, "drawn", grams=800.0, purpose="toast for the night shift")
    # Tuesday: too slow, by a device; an action written down.
    clock.forward(hours=20)
    batch = cook(other_tove, "nearly", "a little thin")
    kept = put(other_tove, batch, trays=1, from_c=85.0)
    call("PUT", f"/devices/{probe['id']}", {"batch_id": batch})
    for minutes, celsius in ((30, 62.0), (30, 60.0), (60, 55.0), (60, 48.0), (55, 44.0)):
        clock.forward(minutes=minutes)
        response = client.post(
            "/api/readings",
            json.dumps({"temperature_c": celsius}),
            content_type="application/json",
            headers={"Authorization": f"Bearer {probe['token']}"},
        )
        assert response.status_code == 200, response.content
    happens(other_tove, kept, "action", words="into ice, then thrown away")
    happens(other_tove, kept, "thrown", reason="too slow")
    # Wednesday: nobody read it; frozen, thawed; a pot abandoned and brought back.
    clock.forward(hours=20)
    batch = cook(leaver, "not-so", "caught at the bottom")
    kept = put(leaver, batch, trays=2)
    clock.forward(hours=6)
    happens(leaver, kept, "frozen")
    clock.forward(hours=12)
    happens(leaver, kept, "thawed")
    left = call("POST", "/stove", {"sauce_id": sauce}, by=leaver)["id"]
    act(leaver, left, "left")
    clock.forward(minutes=3)
    act(leaver, left, "back")
    # Thursday: a dish, a service with its first pot on, a run-up; a version more.
    clock.forward(hours=12)
    uses = [{"sauce": str(sauce), "use": "nap"}]
    dish = call(
        "POST", "/dishes", {"document": {"name": "Leeks under white sauce", "sauces": uses}}
    )["id"]
    service = call(
        "POST",
        "/services",
        {
            "document": {
                "name": "Weekend visitors",
                "date": "2026-11-28",
                "lines": [{"dish": str(dish), "portions": 30}, {"dish": str(dish), "portions": 12}],
            }
        },
    )["id"]
    from kestrel.service.models import Service
    from kestrel.service.work import worked

    row = Service.objects.get(pk=service)
    pot = worked(row.kitchen, row.document, row.pinned).plan.pots[0].key
    call("POST", f"/stove/of-service/{service}", {"pot": pot}, by=tove)
    call("POST", "/run-ups", {"service_id": service, "utc_offset_min": 60})
    saved = call("GET", f"/sauces/{sauce}")
    call(
        "PUT",
        f"/sauces/{sauce}",
        {"sheet": {**saved["sheet"], "name": "White sauce, ridge"}, "base_version": 1},
    )
    # Friday: somebody leaves; what they did keeps their name. An entry is corrected.
    clock.forward(hours=24)
    call("DELETE", f"/people/{User.objects.get(username='leaver').pk}")
    entry = call("GET", "/journal")["entries"][0]["id"]
    call(
        "POST",
        f"/journal/{entry}/corrections",
        {"key": key(), "weighed": "3180 g", "verdict": "nearly", "why": "read the scale wrongly"},
    )
    call("PUT", "/people/me/called", {"called": "The keeper"})


def main() -> int:
    if len(sys.argv) != 2:
        print("usage: python -m tools.release_data FOLDER", file=sys.stderr)
        return 2
    folder = Path(sys.argv[1])
    scratch = Path(tempfile.mkdtemp(prefix="kestrel-release-"))
    os.environ["KESTREL_DB"] = str(scratch / "kitchen.sqlite3")
    os.environ["DJANGO_SETTINGS_MODULE"] = "kestrel.settings"
    import django

    django.setup()
    from django.conf import settings
    from django.db import connection

    settings.ALLOWED_HOSTS = ["*"]
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
    build(folder)
    with connection.cursor() as cursor:
        cursor.execute("PRAGMA wal_checkpoint(TRUNCATE)")
        cursor.execute("DELETE FROM django_session")
        cursor.execute("VACUUM")
    connection.close()
    database = (scratch / "kitchen.sqlite3").read_bytes()
    (folder / "kitchen.sqlite3.gz").write_bytes(gzip.compress(database, mtime=0))
    shutil.rmtree(scratch)
    return 0


if __name__ == "__main__":
    sys.exit(main())
