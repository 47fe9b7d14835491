"""Plan run-ups as they are asked for, until stopped."""

import os
from typing import Any

from django.core.management.base import BaseCommand


class Command(BaseCommand):
    help = "The planner beside the web server: plans run-ups, one after the other."

    def handle(self, *args: Any, **options: Any) -> None:
        os.nice(15)  # below everybody who waits for a page
        from kestrel.run_up.planner import Worker  # heavy: the solver comes with it

        parent = os.getppid()
        # Whoever started it is gone: nobody would read what it writes.
        Worker().run(lambda: os.getppid() != parent)
