"""Copies of a file that is in use, and back: row by row the same, or nothing at all."""

import os
import sqlite3
import stat
import subprocess
import sys
import tempfile
import threading
import time
from contextlib import closing
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any
from unittest import mock

from django.conf import settings
from django.core.management import CommandError, call_command
from django.test import TransactionTestCase, override_settings

from kestrel.accounts.actions import open_kitchen
from kestrel.accounts.models import Kitchen
from kestrel.larder.models import Pan
from kestrel.sauces.actions import save_new
from kestrel.tests.clients import PASSWORD, JsonClient
from kestrel.tests.databases import write_empty_database
from kestrel.whole.backup import KEPT_DAYS, back_up, compared, copies, restore
from saucier.errors import BadInput
from saucier.sheet import read_sheet
from saucier.testing import CHEESE_SAUCE

NOW = datetime(2026, 11, 27, 12, 0, tzinfo=UTC)


class Copies(TransactionTestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name)
        given = override_settings(
            BACKUPS=self.folder / "backups",
            DB=Path(str(settings.DATABASES["default"]["TEST"]["NAME"])),
        )
        given.enable()
        self.addCleanup(given.disable)
        self.user = open_kitchen("Lower kitchen", "ada", PASSWORD)
        save_new(self.user.kitchens.get(), self.user, read_sheet(CHEESE_SAUCE))

    def copy(self) -> Path:
        return Path(settings.BACKUPS) / back_up(NOW).name

    def test_restored_it_is_row_by_row_the_same(self) -> None:
        copy = self.copy()
        self.assertEqual(stat.S_IMODE(copy.stat().st_mode), 0o600)
        self.assertEqual(stat.S_IMODE(copy.parent.stat().st_mode), 0o700)
        into = self.folder / "again.sqlite3"
        told = {one.table: one for one in restore(copy, into)}
        self.assertTrue(all(one.same for one in told.values()))
        self.assertEqual((told["accounts_user"].here, told["sauces_sauceversion"].here), (1, 1))
        with closing(sqlite3.connect(into)) as here, closing(sqlite3.connect(settings.DB)) as there:
            self.assertTrue(all(one.same for one in compared(here, there)))
        self.assertEqual(list(self.folder.glob(".half-*")), [])

    def test_while_somebody_writes_a_copy_is_whole(self) -> None:
        """Two rows are written in each transaction: a copy has both or neither."""
        over = threading.Event()

        def write() -> None:
            with closing(sqlite3.connect(settings.DB, timeout=5)) as db:
                number = 0
                while not over.is_set():
                    number += 1
                    for half in ("a", "b"):
                        db.execute(
                            "INSERT INTO accounts_kitchen (name, currency, created_at, daily_copies)"
                            " VALUES (?, 'x', '2026-01-01', 0)",
                            (f"{half}{number}",),
                        )
                    db.commit()
                    time.sleep(0.001)

        thread = threading.Thread(target=write)
        thread.start()
        try:
            for second in range(8):
                made = back_up(NOW + timedelta(seconds=second))
                with closing(sqlite3.connect(settings.BACKUPS / made.name)) as db:
                    rows = db.execute(
                        "SELECT substr(name, 2) FROM accounts_kitchen WHERE currency = 'x'"
                    )
                    names = [name for (name,) in rows]
                self.assertEqual(len(names), 2 * len(set(names)))
        finally:
            over.set()
            thread.join()
        self.assertGreater(len(names), 2)

    def test_nothing_is_written_over(self) -> None:
        copy = self.copy()
        there = self.folder / "there.sqlite3"
        restore(copy, there)
        before = there.read_bytes()
        with self.assertRaises(BadInput) as bad:
            restore(copy, there)
        self.assertEqual(bad.exception.problems[0].field, "into")
        self.assertEqual(there.read_bytes(), before)
        other = self.folder / "notes.txt"
        other.write_text("mine")
        with self.assertRaises(BadInput):
            restore(copy, other)
        self.assertEqual(other.read_text(), "mine")

    def test_into_one_that_is_migrated_but_empty(self) -> None:
        copy, into = self.copy(), self.folder / "fresh.sqlite3"
        empty = self.folder / "empty.sqlite3"
        empty.touch()
        self.assertTrue(restore(copy, empty))
        with closing(sqlite3.connect(copy)) as db, closing(sqlite3.connect(into)) as fresh:
            for (sql,) in db.execute("SELECT sql FROM sqlite_master WHERE name = 'accounts_user'"):
                fresh.execute(sql)
        self.assertTrue(restore(copy, into))

    def test_damaged_and_foreign_files_change_nothing_and_say_why(self) -> None:
        copy = self.copy()
        whole = copy.read_bytes()
        foreign = self.folder / "foreign.sqlite3"
        with closing(sqlite3.connect(foreign)) as db:
            db.execute("CREATE TABLE t (a)")
        newer = self.folder / "newer.sqlite3"
        newer.write_bytes(whole)
        with closing(sqlite3.connect(newer)) as db:
            db.execute(
                "INSERT INTO django_migrations (app, name, applied)"
                " VALUES ('sauces', '9999_later', '2027-01-01')"
            )
            db.commit()
        loose = self.folder / "loose.sqlite3"
        loose.write_bytes(whole)
        with closing(sqlite3.connect(loose)) as db:
            db.execute("UPDATE accounts_membership SET kitchen_id = 999")
            db.commit()
        scrawled = bytearray(whole)
        scrawled[4096:12000] = b"\xa5" * (12000 - 4096)
        for name, data in (
            ("nothing", b""),
            ("text", b"hello" * 1000),
            ("half", whole[: len(whole) // 2]),
            ("scrawled", bytes(scrawled)),
            ("zip", b"PK\x03\x04" + whole[4:]),
        ):
            (self.folder / f"{name}.sqlite3").write_bytes(data)
        for name in (
            *("nothing", "text", "half", "scrawled", "zip"),
            *("foreign", "newer", "loose", "missing"),
        ):
            with self.subTest(name):
                into = self.folder / "into.sqlite3"
                with self.assertRaises(BadInput) as bad:
                    restore(self.folder / f"{name}.sqlite3", into)
                told = bad.exception.problems[0]
                self.assertEqual(told.field, "file")
                self.assertTrue(told.message and told.remedy)
                self.assertFalse(into.exists())
                self.assertEqual(list(self.folder.glob(".half-*")), [])

    def test_one_of_each_day_for_a_week(self) -> None:
        by_hand = back_up(NOW - timedelta(days=40))
        for day in range(12):
            for hour in (1, 9):
                back_up(NOW + timedelta(days=day, hours=hour), daily=True)
        names = [one.name for one in copies()]
        self.assertIn(by_hand.name, names)
        days = sorted(name for name in names if name.startswith("day-"))
        self.assertEqual(len(days), KEPT_DAYS)
        self.assertEqual(days[-1], "day-2026-12-08.sqlite3")

    def test_a_copy_taken_away_while_they_are_listed_is_left_out(self) -> None:
        stays, goes = back_up(NOW), back_up(NOW + timedelta(minutes=1))
        status_of = Path.stat

        def vanishing(file: Path, **rest: bool) -> os.stat_result:
            if file.name == goes.name:
                file.unlink(missing_ok=True)
            return status_of(file, **rest)

        with mock.patch("pathlib.Path.stat", autospec=True, side_effect=vanishing):
            self.assertEqual([copy.name for copy in copies()], [stays.name])

    def test_by_command(self) -> None:
        call_command("backup", "--if-wanted", verbosity=0)
        self.assertEqual(copies(), [])
        Kitchen.objects.update(daily_copies=True)
        for _ in range(2):
            call_command("backup", "--if-wanted", stdout=_Nothing())
        [made] = copies()
        self.assertTrue(made.name.startswith("day-"))
        with self.assertRaises(CommandError) as refused:
            call_command("restore", str(Path(settings.BACKUPS) / made.name))
        self.assertEqual(refused.exception.returncode, 2)  # a kitchen is there
        self.assertEqual(Kitchen.objects.count(), 1)

    def test_a_full_disk_leaves_no_half(self) -> None:
        full = mock.patch("kestrel.whole.backup._sound", side_effect=OSError(28, "No space left"))
        with full, self.assertRaises(OSError):
            back_up(NOW)
        self.assertEqual(list(Path(settings.BACKUPS).iterdir()), [])

    def test_from_the_screen_by_owners_and_fetched_where_it_is_theirs_alone(self) -> None:
        client = JsonClient()
        client.force_login(self.user, backend="django.contrib.auth.backends.ModelBackend")
        made = client.call("POST", "/whole/copies").body
        told = client.call("PUT", "/whole/copies", {"daily": True}).body
        self.assertEqual((told["daily"], told["alone"], len(told["copies"])), (True, True, 1))
        fetched = client.get(f"/api/whole/copies/{made['name']}")
        self.assertTrue(b"".join(fetched.streaming_content).startswith(b"SQLite format 3"))
        for name in ("..%2Fkitchen.sqlite3", "x.sqlite3", "%2Fetc%2Fpasswd"):
            self.assertEqual(client.get(f"/api/whole/copies/{name}").status_code, 404)
        ben = open_kitchen("Upper kitchen", "ben", PASSWORD)
        refused = client.get(f"/api/whole/copies/{made['name']}")
        self.assertEqual(refused.status_code, 403)
        ben.membership_set.update(owner=False)
        other = JsonClient()
        other.force_login(ben, backend="django.contrib.auth.backends.ModelBackend")
        self.assertEqual(other.call("POST", "/whole/copies").status_code, 403)


class _Nothing:
    def write(self, text: str) -> Any:
        return len(text)


class ByMake(TransactionTestCase):
    def test_there_and_back_by_the_commands_of_the_readme(self) -> None:
        root = settings.BASE_DIR
        with tempfile.TemporaryDirectory() as folder:
            one, other = Path(folder) / "one.sqlite3", Path(folder) / "other.sqlite3"

            def run(database: Path, *command: str) -> subprocess.CompletedProcess[str]:
                env = {
                    "PATH": "/usr/bin:/bin",
                    "KESTREL_DB": str(database),
                    "KESTREL_SECRET": "s" * 60,
                    "DJANGO_SETTINGS_MODULE": "kestrel.settings",
                }
                return subprocess.run(
                    [sys.executable, "manage.py", *command],
                    cwd=root,
                    env=env,
                    capture_output=True,
                    text=True,
                    check=False,
                )

            write_empty_database(one)
            self.assertEqual(run(one, "migrate", "--verbosity", "0").returncode, 0)
            run(one, "load_demo")
            made = run(one, "backup")
            self.assertEqual(made.returncode, 0, made.stderr)
            name = made.stdout.partition(":")[0]
            back = run(other, "restore", str(Path(folder) / "one-copies" / name))
            self.assertEqual(back.returncode, 0, back.stderr)
            self.assertIn("sauces_sauceversion", back.stdout)
            with closing(sqlite3.connect(one)) as here, closing(sqlite3.connect(other)) as there:
                told = compared(here, there)
            self.assertTrue(all(row.same for row in told))
            self.assertGreater(sum(row.here for row in told), 300)
            self.assertEqual(run(other, "check").returncode, 0)
            again = run(other, "restore", str(Path(folder) / "one-copies" / name))
            self.assertEqual(again.returncode, 2)
            self.assertIn("has a kitchen in it", again.stderr)
            self.assertEqual(Pan.objects.count(), 0)
