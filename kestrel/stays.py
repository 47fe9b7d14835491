"""Rows that stay as they were written: the database itself refuses to change or delete them.

A later migration that alters such a table makes it anew in SQLite, and its triggers go: it lays them again.
"""

from collections.abc import Sequence

from django.db import migrations

NAME = "stays"
TABLES = (
    *("stove_act", "stove_reading", "keeping_event"),
    *("journal_entry", "journal_served", "journal_correction"),
)
"""Tables whose rows stay."""


def stay(table: str, columns: Sequence[str]) -> migrations.RunSQL:
    """A migration after which rows of ``table`` are not deleted, nor changed in ``columns``. What is only a
    pointer to somebody who may go (who did it, with which device) is not among them."""
    changed = ", ".join(f'"{column}"' for column in columns)
    return migrations.RunSQL(
        [
            f'CREATE TRIGGER "{NAME}_{table}_update" BEFORE UPDATE OF {changed} ON "{table}" '
            f"BEGIN SELECT RAISE(ABORT, 'a record stays as it was written'); END",
            f'CREATE TRIGGER "{NAME}_{table}_delete" BEFORE DELETE ON "{table}" '
            f"BEGIN SELECT RAISE(ABORT, 'a record stays as it was written'); END",
        ],
        [
            f'DROP TRIGGER IF EXISTS "{NAME}_{table}_update"',
            f'DROP TRIGGER IF EXISTS "{NAME}_{table}_delete"',
        ],
    )
