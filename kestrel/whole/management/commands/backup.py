"""``manage.py backup``: a copy of the kitchen's file while it is in use."""

from typing import Any

from django.core.management.base import BaseCommand, CommandError, CommandParser
from django.utils import timezone

from kestrel.accounts.models import Kitchen
from kestrel.whole.backup import KEPT_DAYS, back_up, is_due
from saucier.errors import BadInput


class Command(BaseCommand):
    help = "A copy of the whole file, looked over."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument(
            "--daily",
            action="store_true",
            help=f"today's, in place of an earlier one; of the last {KEPT_DAYS} days",
        )
        parser.add_argument(
            "--if-wanted",
            action="store_true",
            help="a daily one, where a kitchen here wants that and there is none of today",
        )

    def handle(self, *_: Any, **given: Any) -> None:
        now = timezone.now()
        if given["if_wanted"] and not (
            is_due(now.date()) and Kitchen.objects.filter(daily_copies=True).exists()
        ):
            return
        try:
            made = back_up(now, daily=given["daily"] or given["if_wanted"])
        except BadInput as bad:
            raise CommandError(str(bad), returncode=2) from None
        self.stdout.write(f"{made.name}: {made.size / 1e6:.1f} MB, looked over and sound.")
