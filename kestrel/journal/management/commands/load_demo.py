"""Load the demo kitchen, once. What a user entered is never touched."""

import json
from datetime import timedelta
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand
from django.db import transaction
from django.utils import timezone

from kestrel.accounts.actions import open_kitchen
from kestrel.accounts.models import Kitchen, User
from kestrel.journal.actions import write_down
from kestrel.journal.after import say_served
from kestrel.larder.actions import add_pan
from kestrel.larder.means import add_burner, add_cook, add_gear
from kestrel.run_up import actions as run_up
from kestrel.run_up.models import Planning
from kestrel.sauces.actions import save_new
from kestrel.sauces.models import Sauce
from kestrel.service.actions import save_dish, save_service
from kestrel.service.models import Dish
from kestrel.stove import actions as stove
from kestrel.stove.models import Batch
from saucier.sheet import read_sheet

DEMO = Path(settings.BASE_DIR) / "demo"


class Command(BaseCommand):
    help = "Load the demo kitchen from demo/ unless it is there already."

    def handle(self, *args: Any, **options: Any) -> None:
        about = json.loads((DEMO / "kitchen.json").read_text(encoding="utf-8"))
        if User.objects.filter(username=about["username"]).exists():
            self.stdout.write("The demo kitchen is there already; nothing was changed.")
            return
        with transaction.atomic():
            load(about)
        self.stdout.write(f"Loaded the demo kitchen “{about['kitchen']}”.")


def load(about: dict[str, Any]) -> User:
    """The demo kitchen ``about`` describes: its user, pans, sauces and logged batches."""
    user = open_kitchen(about["kitchen"], about["username"], about["password"])
    kitchen = user.kitchens.get()
    kitchen.begun = True  # what it has stands in its file
    kitchen.save(update_fields=["begun"])
    for pan in about["pans"]:
        add_pan(kitchen, **pan)
    for burner in about["burners"]:
        add_burner(kitchen, **burner)
    for gear in about["gear"]:
        add_gear(kitchen, **{"name": "", **gear})
    for cook in about["cooks"]:
        add_cook(kitchen, **cook)
    sauces: dict[str, Sauce] = {}
    for path in sorted((DEMO / "sauces").glob("*.json")):
        sauces[path.stem] = save_new(kitchen, user, read_sheet(path.read_bytes()))
    _load_services(kitchen, sauces, about["service_weekdays"])
    for logged in about["batches"]:
        ended_at = timezone.now() - timedelta(days=logged["days_ago"])
        began_at = ended_at - timedelta(minutes=logged["minutes"])
        batch = stove.start(kitchen, user, sauces[logged["sauce"]].newest, began_at)
        _cooked(batch, logged)
        entry = write_down(
            batch,
            user,
            weighed=logged["weighed"],
            with_pan=False,
            reached_pa_s=logged["reached_pa_s"],
            verdict=logged["verdict"],
            note=logged["note"],
            made_at=ended_at,
        )
        if served := logged.get("served"):
            said = {"thrown": "", "reason": "", "emptied": "", **served}
            say_served(entry.batch, user, key=f"demo-served-{batch.pk}", **said)
    return user


def _cooked(batch: Batch, logged: dict[str, Any]) -> None:
    """``batch`` as it was cooked: each step by its share of the minutes it took in all."""
    planned = [0.0, *(float(state["minutes"]) for state in batch.plan["states"])]
    slower = logged["minutes"] / max(1.0, planned[-1])
    batch.began = {
        str(step): (batch.started_at + timedelta(minutes=at * slower)).isoformat()
        for step, at in enumerate(planned)
    }
    batch.step, batch.cook = len(planned) - 1, logged.get("cook", "")
    batch.save(update_fields=["began", "step", "cook"])


def _load_services(kitchen: Kitchen, sauces: dict[str, Sauce], weekdays: dict[str, int]) -> None:
    """Dishes, services and run-ups of ``demo/``, which name sauces and dishes by their files; each service on
    the next of its ``weekdays`` (0: Monday)."""
    dishes: dict[str, Dish] = {}
    for path in sorted((DEMO / "dishes").glob("*.json")):
        document = json.loads(path.read_text(encoding="utf-8"))
        for used in document["sauces"]:
            used["sauce"] = str(sauces[used["sauce"]].pk)
        dishes[path.stem] = save_dish(kitchen, document)
    for path in sorted((DEMO / "services").glob("*.json")):
        document = json.loads(path.read_text(encoding="utf-8"))
        for line in document["lines"]:
            line["dish"] = str(dishes[line["dish"]].pk)
        # The next such weekday from tomorrow: a demo is always ahead of its service.
        day = timezone.localdate() + timedelta(days=1)
        while day.weekday() != weekdays[path.stem]:
            day += timedelta(days=1)
        service = save_service(kitchen, {**document, "date": day.isoformat()})
        said = json.loads((DEMO / "run-ups" / path.name).read_text(encoding="utf-8"))
        # Its run-up is planned as soon as a server with its planner runs.
        row = run_up.of_service(kitchen, service, 0)
        run_up.ask(run_up.change(row, said, row.revision), Planning.What.PLAN)
