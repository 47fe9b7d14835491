"""Tests that empty the whole database: records that stay would not let them."""

from typing import Any

from django.db import connection

from kestrel.stays import NAME


class Flushes:
    """Before :class:`TransactionTestCase`: what keeps records is put aside while the tables are emptied."""

    def _fixture_teardown(self: Any) -> None:
        with connection.cursor() as cursor:
            cursor.execute(
                "SELECT name, sql FROM sqlite_master WHERE type = 'trigger' AND name LIKE %s",
                [f"{NAME}%"],
            )
            triggers = cursor.fetchall()
            for name, _ in triggers:
                cursor.execute(f'DROP TRIGGER "{name}"')
        try:
            super()._fixture_teardown()  # type: ignore[misc]
        finally:
            with connection.cursor() as cursor:
                for _, sql in triggers:
                    cursor.execute(sql)
