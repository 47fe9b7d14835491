"""Tests that empty the whole database: records that stay would not let them."""

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from django.db import connection
from django.db.migrations.executor import MigrationExecutor

from kestrel.append_only import AppendOnly, lay, lift, records


class Flushes:
    """Before :class:`TransactionTestCase`: what keeps records is put aside while the tables are emptied."""

    def _fixture_teardown(self: Any) -> None:
        lift_all()
        try:
            super()._fixture_teardown()  # type: ignore[misc]
        finally:
            for model in records():
                lay(model)


def lift_all() -> None:
    with connection.cursor() as cursor:
        for model in records():
            lift(cursor, model._meta.db_table)


class Migrates(Flushes):
    """Before :class:`TransactionTestCase` for tests that migrate back and forth: what keeps records is put aside, as
    the migrate command puts it aside."""

    def setUp(self: Any) -> None:
        lift_all()
        super().setUp()  # type: ignore[misc]

    def tearDown(self: Any) -> None:
        super().tearDown()  # type: ignore[misc]
        executor = MigrationExecutor(connection)
        executor.migrate(executor.loader.graph.leaf_nodes())
        for model in records():
            lay(model)


@contextmanager
def rewriting(model: type[AppendOnly]) -> Iterator[None]:
    """A test makes up history: the rows of ``model`` may be changed meanwhile, as nobody else can."""
    with connection.cursor() as cursor:
        lift(cursor, model._meta.db_table)
    try:
        yield
    finally:
        lay(model)
