"""``manage.py restore FILE``: a copy into an empty place, compared row by row."""

from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import connections

from kestrel.whole.backup import restore
from saucier.errors import BadInput


class Command(BaseCommand):
    help = "Takes a copy into KESTREL_DB, where there is no kitchen yet."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", type=Path)

    def handle(self, *_: Any, **given: Any) -> None:
        connections.close_all()
        try:
            told = restore(given["file"], Path(settings.DB))
        except BadInput as bad:
            raise CommandError(str(bad), returncode=2) from None
        for one in told:
            if one.here or one.there:
                self.stdout.write(f"{one.table:32} {one.here:7} of {one.there:7} rows, the same")
        rows = sum(one.here for one in told)
        self.stdout.write(f"Restored into {settings.DB}: {rows} rows in {len(told)} tables.")
