"""A kitchen in use is upgraded: databases made by earlier releases (tools/release_data.py), migrated to the head, read
as they read then."""

import gzip
import json
import math
import sqlite3
import subprocess
import sys
import tempfile
from datetime import datetime
from pathlib import Path
from typing import Any
from unittest import TestCase

from django.conf import settings

RELEASES = Path(__file__).parent / "releases"

_READ = """
import json, sys
from datetime import datetime
from unittest import mock
import django
django.setup()
from django.conf import settings
settings.ALLOWED_HOSTS = ["*"]
from kestrel.accounts.models import User
from kestrel.tests.clients import JsonClient
asked = json.load(sys.stdin)
now = datetime.fromisoformat(asked["now"])
told = {}
with mock.patch("django.utils.timezone.now", lambda: now):
    for username, paths in asked["paths"].items():
        client = JsonClient()
        client.force_login(
            User.objects.get(username=username), backend="django.contrib.auth.backends.ModelBackend"
        )
        told[username] = {}
        for path in paths:
            answer = client.call("GET", path)
            told[username][path] = [answer.status_code, answer.body]
json.dump(told, sys.stdout)
"""

_RECKONED = frozenset(
    (
        *(
            "cooling",
            "seen",
            "followed",
            "followed_why",
            "back",
            "waits",
            "spoons",
            "words",
            "freezing",
        ),
        *("now_min", "state", "missed", "planned", "use_by", "probed", "read"),
    )
)
"""What is worked out anew each time, by what is known today: neither a record nor a document."""


class Upgrades(TestCase):
    def test_every_record_journal_line_and_open_document_reads_the_same(self) -> None:
        releases = sorted(RELEASES.iterdir())
        self.assertTrue(releases)
        for release in releases:
            with self.subTest(release=release.name), tempfile.TemporaryDirectory() as folder:
                self._upgraded(release, Path(folder))

    def _upgraded(self, release: Path, folder: Path) -> None:
        database = folder / "kitchen.sqlite3"
        database.write_bytes(gzip.decompress((release / "kitchen.sqlite3.gz").read_bytes()))
        then = json.loads(gzip.decompress((release / "reads.json.gz").read_bytes()))
        before = _rows(database)
        self._run(database, ["manage.py", "migrate", "--verbosity", "0"])
        paths = {username: list(reads) for username, reads in then["reads"].items()}
        asked = json.dumps({"now": then["now"], "paths": paths})
        now = json.loads(self._run(database, ["-c", _READ], asked))
        compared = 0
        for username, reads in then["reads"].items():
            for path, was in reads.items():
                status, body = now[username][path]
                self.assertEqual(status, 200, (username, path, body))
                if "/records?" in path:
                    compared += self._same_record(was, body)
                elif path == "/people":
                    self._people_apart(body)
                else:
                    compared += self._same(was, body, f"{username} {path}")
        self.assertGreater(compared, 500)
        self._rows_stand(before, _rows(database))

    def _run(self, database: Path, command: list[str], given: str = "") -> str:
        env = {
            "KESTREL_DB": str(database),
            "DJANGO_SETTINGS_MODULE": "kestrel.settings",
            "PATH": "/usr/bin:/bin",
        }
        ran = subprocess.run(
            [sys.executable, "-W", "ignore", *command],
            input=given,
            env=env,
            cwd=settings.BASE_DIR,
            capture_output=True,
            text=True,
            check=False,
        )
        self.assertEqual(ran.returncode, 0, ran.stderr[-3000:])
        return ran.stdout

    def _same_record(self, was: list[dict[str, Any]], now: list[dict[str, Any]]) -> int:
        """Every line that was a row then is there, signed as then. What the release reckoned of a cooling ("by the
        probe") was no row: it is judged by its readings now."""
        told = [(line["at"], line["code"], line["name"], line["value"], line["by"]) for line in now]
        count = 0
        for line in was:
            if "by the probe" in line["what"]:
                continue
            self.assertIn(
                (line["at"], line["code"], line["name"], line["value"], line["by"]), told, line
            )
            count += 1
        stages = [line["met"] for line in now if "by readings" in line["what"]]
        if any("by the probe" in line["what"] for line in was):
            self.assertTrue(any("missed" in met for met in stages), stages)
        return count

    def _people_apart(self, people: dict[str, Any]) -> None:
        shown = [person["called"].casefold() for person in people["people"]]
        self.assertEqual(len(shown), len(set(shown)))

    def _same(self, was: Any, now: Any, where: str) -> int:
        """Everything that was told is told still; new fields may stand beside."""
        if isinstance(was, dict):
            count = 0
            for key, value in was.items():
                # A pot's cards as it is followed are reckoned as they are read; those it was planned with are kept.
                if key in _RECKONED or (key == "cards" and "followed" in was):
                    continue
                self.assertIn(key, now, where)
                count += self._same(value, now[key], f"{where}.{key}")
            return count
        if isinstance(was, list):
            self.assertEqual(len(was), len(now), where)
            return sum(
                self._same(one, other, f"{where}[{n}]")
                for n, (one, other) in enumerate(zip(was, now, strict=True))
            )
        if isinstance(was, float) and isinstance(now, float):
            # Reckoned again, in another order of sums: the last digits of a float are no difference.
            self.assertTrue(math.isclose(was, now, rel_tol=1e-9), f"{was} != {now}: {where}")
        else:
            self.assertEqual(was, now, where)
        return 1

    def _rows_stand(self, before: dict[str, list[Any]], after: dict[str, list[Any]]) -> None:
        """Rows of records hold what they held, to the letter."""
        for table, rows in before.items():
            self.assertEqual(rows, after[table], table)


def _rows(database: Path) -> dict[str, list[Any]]:
    """What stands in the tables of records, in the columns every release has."""
    columns = {
        "stove_act": "id, key, kind, step, data, at, taken, why",
        "stove_reading": "id, batch_id, kind, at, value",
        "keeping_event": "id, kept_id, key, kind, data, at",
        "keeping_kept": "id, key, batch_id, name, grams, grade, sheet, place, tray, trays, rules, use_by, put_at",
        "journal_entry": "id, batch_id, made_at, weighed_g, reached_pa_s, verdict, note",
        "journal_correction": "id, entry_id, key, weighed_g, verdict, note, why, at",
        "journal_served": "id, batch_id, key, portions, thrown_g, reason, film_g, at",
    }
    with sqlite3.connect(database) as connection:
        return {
            table: connection.execute(f"SELECT {names} FROM {table} ORDER BY id").fetchall()
            for table, names in columns.items()
        }


class TheFixture(TestCase):
    def test_it_holds_what_an_upgrade_has_to_stand(self) -> None:
        for release in RELEASES.iterdir():
            then = json.loads(gzip.decompress((release / "reads.json.gz").read_bytes()))
            datetime.fromisoformat(then["now"])
            self.assertEqual(set(then["reads"]), {"refectory", "keeper"})
            names = [one["called"] for one in then["reads"]["keeper"]["/people"]["people"]]
            self.assertEqual(names.count("Tove"), 2)
