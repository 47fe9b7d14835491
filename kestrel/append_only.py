"""Records: rows the database itself refuses to change, delete or replace.

A model is a record by being an :class:`AppendOnly`; its triggers are laid after every migration, since SQLite makes a
table anew to alter it, and its triggers go then. By hand rather than by a package: triggers hold against every client
of the file, not only against this application.
"""

from collections.abc import Iterable, Sequence
from typing import Any

from django.apps import AppConfig
from django.db import connections, migrations, models
from django.db.models.signals import post_migrate, pre_migrate
from django.dispatch import receiver

PREFIX = "append_only"
_BEFORE = "stays"
"""What triggers were called by until December 2026."""
REFUSED = "a record stays as it was written"


class AppendOnly(models.Model):
    """A row that is written once. Only its ``POINTERS`` may change: to somebody or something that may go."""

    POINTERS: tuple[str, ...] = ()

    class Meta:
        abstract = True


def records() -> list[type[AppendOnly]]:
    """Every model whose rows are records."""
    from django.apps import apps

    return [model for model in apps.get_models() if issubclass(model, AppendOnly)]


def trigger_names(model: type[AppendOnly]) -> set[str]:
    """The triggers that keep the rows of ``model``."""
    table = model._meta.db_table
    return {f"{PREFIX}_{table}_{act}" for act in ("update", "delete", "replace")}


@receiver(pre_migrate, dispatch_uid="append_only.lift")
def lift_before_migrations(sender: AppConfig, using: str, plan: Sequence[Any], **_: Any) -> None:
    """A migration alters tables, and fills their new columns: the triggers are laid again after it."""
    if plan:
        with connections[using].cursor() as cursor:
            for model in sender.get_models():
                if issubclass(model, AppendOnly):
                    lift(cursor, model._meta.db_table)


def lift(cursor: Any, table: str) -> None:
    """Takes the triggers of ``table`` away, those of before too."""
    for prefix in (_BEFORE, PREFIX):
        for act in ("update", "delete", "replace"):
            cursor.execute(f'DROP TRIGGER IF EXISTS "{prefix}_{table}_{act}"')


@receiver(post_migrate, dispatch_uid="append_only.lay")
def lay_after_migrations(sender: AppConfig, using: str, **_: Any) -> None:
    """Lay the triggers of an application's records anew."""
    for model in sender.get_models():
        if issubclass(model, AppendOnly):
            lay(model, using)


def lay(model: type[AppendOnly], using: str = "default") -> None:
    """The triggers of ``model`` as its table is now."""
    table = model._meta.db_table
    with connections[using].cursor() as cursor:
        # Asked of SQLite itself: Django's description of a table parses the whole of its SQL, each time.
        cursor.execute("SELECT name FROM pragma_table_info(%s)", [table])
        columns = [name for (name,) in cursor.fetchall()]
        if not columns:
            return
        fields = {_column(model, name) for name in model.POINTERS}
        kept = [column for column in columns if column not in fields]
        lift(cursor, table)
        changed = " OR ".join(f'OLD."{column}" IS NOT NEW."{column}"' for column in kept)
        cursor.execute(_trigger(table, "update", f'BEFORE UPDATE ON "{table}" WHEN {changed}'))
        cursor.execute(_trigger(table, "delete", f'BEFORE DELETE ON "{table}"'))
        # REPLACE deletes without a trigger of its own: what would be replaced is looked for before it goes in.
        same = " OR ".join(_same(together) for together in _unique(model, columns))
        taken = f'EXISTS (SELECT 1 FROM "{table}" WHERE {same})'
        cursor.execute(_trigger(table, "replace", f'BEFORE INSERT ON "{table}" WHEN {taken}'))


def _trigger(table: str, act: str, when: str) -> str:
    return f"CREATE TRIGGER \"{PREFIX}_{table}_{act}\" {when} BEGIN SELECT RAISE(ABORT, '{REFUSED}'); END"


def _unique(model: type[AppendOnly], known: Iterable[str]) -> list[list[str]]:
    """Columns that together tell a row from any other."""
    meta = model._meta
    unique = [[_column(model, field.name)] for field in meta.local_fields if field.unique]
    unique += [
        [_column(model, name) for name in constraint.fields]
        for constraint in meta.constraints
        if isinstance(constraint, models.UniqueConstraint)
    ]
    return [columns for columns in unique if set(columns) <= set(known)]


def _column(model: type[AppendOnly], name: str) -> str:
    return str(getattr(model._meta.get_field(name), "column"))  # noqa: B009  relations have none


def _same(columns: Sequence[str]) -> str:
    return "(" + " AND ".join(f'"{column}" = NEW."{column}"' for column in columns) + ")"


def guard(table: str, columns: Sequence[str]) -> migrations.RunSQL:
    """The triggers as migrations of before December 2026 laid them; they are laid anew after all of them."""
    changed = ", ".join(f'"{column}"' for column in columns)
    return migrations.RunSQL(
        [
            f'CREATE TRIGGER "{_BEFORE}_{table}_update" BEFORE UPDATE OF {changed} ON "{table}" '
            f"BEGIN SELECT RAISE(ABORT, '{REFUSED}'); END",
            f'CREATE TRIGGER "{_BEFORE}_{table}_delete" BEFORE DELETE ON "{table}" '
            f"BEGIN SELECT RAISE(ABORT, '{REFUSED}'); END",
        ],
        [
            f'DROP TRIGGER IF EXISTS "{_BEFORE}_{table}_update"',
            f'DROP TRIGGER IF EXISTS "{_BEFORE}_{table}_delete"',
        ],
    )
