"""Write a whole kitchen to a file."""

from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser

from kestrel.accounts.models import User
from kestrel.whole.writing import write_kitchen


class Command(BaseCommand):
    help = "Write the kitchen of --username to FILE, a zip of open formats."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("file", type=Path)
        parser.add_argument("--username", required=True)

    def handle(self, *args: Any, **options: Any) -> None:
        user = User.objects.filter(username=options["username"], is_active=True).first()
        if user is None:
            raise CommandError(f"username: nobody is called {options['username']} here")
        with options["file"].open("wb") as out:
            write_kitchen(user.kitchens.order_by("pk")[0], out)
        self.stdout.write(f"Wrote {options['file']}.")
