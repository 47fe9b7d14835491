"""Copies of the whole file of a server that runs, and back again into an empty place.

A copy is SQLite's own online one, looked over before it counts. It holds every kitchen of the server, with
sign-ins: who may read it may read everything.
"""

import hashlib
import os
import sqlite3
import tempfile
from collections.abc import Iterator
from contextlib import closing, contextmanager
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta
from pathlib import Path

from django.conf import settings
from django.db.migrations.loader import MigrationLoader

from saucier.errors import BadInput

KEPT_DAYS = 7
_DAILY = "day-"
_BY_HAND = "copy-"
SUFFIX = ".sqlite3"
_HEAD = b"SQLite format 3\x00"


@dataclass(frozen=True, slots=True)
class Copy:
    """A copy in the folder of copies: its ``name`` there, when it was made, how many bytes."""

    name: str
    made_at: datetime
    size: int


@dataclass(frozen=True, slots=True)
class Compared:
    """A table here and in the copy: how many rows each, and whether all of them are the same."""

    table: str
    here: int
    there: int
    same: bool


def copies() -> list[Copy]:
    """The copies there are, newest first."""
    there = []
    for file in settings.BACKUPS.glob(f"*{SUFFIX}"):
        try:
            there.append(_copy_in(file))
        except FileNotFoundError:  # taken away between being listed and being looked at
            continue
    return sorted(there, key=lambda copy: copy.made_at, reverse=True)


def _copy_in(file: Path) -> Copy:
    status = file.stat()
    return Copy(file.name, datetime.fromtimestamp(status.st_mtime, UTC), status.st_size)


def back_up(now: datetime, *, daily: bool = False) -> Copy:
    """A copy of the file as it is, while it is in use. A ``daily`` one takes the place of that day's, and
    those of more than :data:`KEPT_DAYS` days ago go; others stay until somebody takes them away."""
    folder: Path = settings.BACKUPS
    folder.mkdir(parents=True, exist_ok=True, mode=0o700)
    name = f"{_DAILY}{now:%Y-%m-%d}" if daily else f"{_BY_HAND}{now:%Y-%m-%dT%H%M%S}"
    file = folder / f"{name}{SUFFIX}"
    with _beside(file) as half:
        with _both(settings.DB, half) as (source, target):
            source.backup(target)
            target.execute("PRAGMA journal_mode=DELETE")
            _sound(target)
        Path(half).replace(file)
    if daily:
        _forget_old(now.date())
    return _copy_in(file)


def is_due(today: date) -> bool:
    """Whether there is no daily copy of ``today`` yet."""
    return not (settings.BACKUPS / f"{_DAILY}{today:%Y-%m-%d}{SUFFIX}").exists()


def _forget_old(today: date) -> None:
    for file in settings.BACKUPS.glob(f"{_DAILY}*{SUFFIX}"):
        try:
            day = date.fromisoformat(file.stem.removeprefix(_DAILY))
        except ValueError:
            continue
        if today - day >= timedelta(days=KEPT_DAYS):
            file.unlink(missing_ok=True)


def restore(copy: Path, into: Path) -> list[Compared]:
    """The file ``into``, which is not there yet or empty, as ``copy`` has it, compared row by row. It is as
    old as the copy: ``migrate`` brings it up to date.

    Raises :class:`BadInput` (``file`` or ``into``), and then nothing was changed.
    """
    _looked_over(copy)
    if into.exists() and into.stat().st_size and _has_rows(into):
        raise BadInput.at("into", "there-is-a-kitchen", path=str(into))
    with _beside(into) as half:
        with _both(copy, half) as (source, target):
            source.backup(target)
            _sound(target)
            told = compared(target, source)
        if not all(one.same for one in told):
            raise BadInput.at("file", "copy-is-damaged", why="rows differ")
        for suffix in ("-wal", "-shm"):
            into.with_name(into.name + suffix).unlink(missing_ok=True)
        Path(half).replace(into)
    return told


def compared(here: sqlite3.Connection, there: sqlite3.Connection) -> list[Compared]:
    """Every table of both, all rows in order of their numbers."""
    tables = sorted({*_tables(here), *_tables(there)})
    told = []
    for table in tables:
        (mine, my_sum), (theirs, their_sum) = _rows(here, table), _rows(there, table)
        told.append(Compared(table, mine, theirs, my_sum == their_sum))
    return told


def _tables(db: sqlite3.Connection) -> set[str]:
    rows = db.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
    return {name for (name,) in rows if not name.startswith("sqlite_")}


def _rows(db: sqlite3.Connection, table: str) -> tuple[int, str]:
    if table not in _tables(db):
        return 0, "none"
    digest, count = hashlib.sha256(), 0
    for row in db.execute(f'SELECT * FROM "{table}" ORDER BY 1'):
        digest.update(repr(row).encode("utf-8", "surrogatepass"))
        count += 1
    return count, digest.hexdigest()


def _looked_over(copy: Path) -> None:
    """Raises :class:`BadInput` (``file``) where ``copy`` is no copy of a kitchen's file, or damaged, or newer
    than this program."""
    try:
        with copy.open("rb") as file:
            head = file.read(len(_HEAD))
    except OSError as gone:
        raise BadInput.at("file", "copy-cannot-be-opened", why=gone.strerror or str(gone)) from None
    if head != _HEAD:
        raise BadInput.at("file", "is-no-copy")
    try:
        with closing(sqlite3.connect(_uri(copy), uri=True)) as db:
            _sound(db)
            if "django_migrations" not in _tables(db) or "sauces_sauce" not in _tables(db):
                raise BadInput.at("file", "is-no-copy")
            applied = set(db.execute("SELECT app, name FROM django_migrations"))
    except sqlite3.DatabaseError as damaged:
        raise BadInput.at("file", "copy-is-damaged", why=damaged) from None
    known = set(MigrationLoader(None).disk_migrations)
    if newer := sorted(applied - known):
        raise BadInput.at("file", "copy-is-newer", what=".".join(newer[0]))


def _sound(db: sqlite3.Connection) -> None:
    """Raises :class:`BadInput` (``file``) where SQLite finds anything wrong with ``db``."""
    found = [text for (text,) in db.execute("PRAGMA integrity_check(3)")]
    if found != ["ok"]:
        raise BadInput.at("file", "copy-is-damaged", why="; ".join(found))
    if db.execute("PRAGMA foreign_key_check").fetchone() is not None:
        raise BadInput.at("file", "copy-is-damaged", why="rows point at what is not there")


def _has_rows(file: Path) -> bool:
    """Whether there is anything in ``file`` that could be lost; what is no database counts as such."""
    try:
        with closing(sqlite3.connect(_uri(file), uri=True)) as db:
            if "accounts_user" not in _tables(db):
                return bool(_tables(db))
            found: tuple[int] = db.execute("SELECT count(*) FROM accounts_user").fetchone()
            return found[0] > 0
    except sqlite3.DatabaseError:
        return True


@contextmanager
def _both(read: Path, written: str) -> Iterator[tuple[sqlite3.Connection, sqlite3.Connection]]:
    with (
        closing(sqlite3.connect(_uri(read), uri=True)) as source,
        closing(sqlite3.connect(written)) as target,
    ):
        yield source, target


@contextmanager
def _beside(file: Path) -> Iterator[str]:
    """The name of a file beside ``file``, its owner's alone; gone at the end where it was not moved."""
    handle, name = tempfile.mkstemp(dir=file.parent, prefix=".half-")
    os.close(handle)
    try:
        yield name
    finally:
        for suffix in ("", "-wal", "-shm", "-journal"):
            Path(name + suffix).unlink(missing_ok=True)


def _uri(file: Path) -> str:
    return f"{file.resolve().as_uri()}?mode=ro"
