"""Files of kitchens for servers and commands that tests run beside them."""

import sqlite3
from contextlib import closing
from pathlib import Path

from django.db import connection


def write_empty_database(file: Path) -> None:
    """Write a migrated database with nobody in it to ``file``: the tests' own, as it is between two of them.
    (Migrating an empty one takes a quarter of a minute.)"""
    with (
        closing(sqlite3.connect(connection.settings_dict["NAME"])) as source,
        closing(sqlite3.connect(file)) as target,
    ):
        source.backup(target)
        target.execute("PRAGMA journal_mode=DELETE")
        [kitchens] = target.execute("SELECT count(*) FROM accounts_kitchen").fetchone()
        assert kitchens == 0, "an earlier test left a kitchen behind"
