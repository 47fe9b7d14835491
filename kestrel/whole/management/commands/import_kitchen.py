"""Read a whole kitchen from a file, into a new one with a member of its own."""

from getpass import getpass
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.db import transaction

from kestrel.accounts.actions import open_kitchen
from kestrel.whole.reading import read_kitchen
from saucier.errors import BadInput


class Command(BaseCommand):
    help = "Open a new kitchen with --username and take FILE, made by export_kitchen, into it."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", type=Path)
        parser.add_argument("--username", required=True)
        parser.add_argument("--password", help="asked for where it is not given")

    def handle(self, *args: Any, **options: Any) -> None:
        password = options["password"] or getpass("Password: ")
        try:
            with transaction.atomic(), options["file"].open("rb") as opened:
                user = open_kitchen(options["file"].stem[:80], options["username"], password)
                counts = read_kitchen(user.kitchens.get(), user, opened)
        except OSError as missing:
            raise CommandError(f"file: {missing}", returncode=2) from None
        except BadInput as bad:
            raise CommandError(
                "; ".join(f"{one.field}: {one.told}" for one in bad.problems), returncode=2
            ) from None
        told = ", ".join(f"{count} {name}" for name, count in counts.items() if count)
        self.stdout.write(f"Took in {told}.")
