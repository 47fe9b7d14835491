"""Batches that were cooked and written down, for tests of the journal."""

from datetime import timedelta
from typing import Any

from django.utils import timezone

from kestrel.accounts.models import Kitchen, User
from kestrel.journal.learning import lesson_of
from kestrel.journal.models import Entry
from kestrel.larder.models import Pan
from kestrel.sauces.models import Sauce
from kestrel.stove.actions import start
from kestrel.stove.models import Batch


def saucepan(kitchen: Kitchen) -> Pan:
    return Pan.objects.create(
        kitchen=kitchen,
        name="saucepan 20",
        shape="straight",
        diameter_cm=20,
        depth_cm=12,
        tare_g=1200,
    )


def cooked(
    kitchen: Kitchen,
    user: User,
    sauce: Sauce,
    *,
    off_g: float = 0.0,
    thicker: float = 1.0,
    days: int = 0,
    **said: Any,
) -> Entry:
    """A batch of a sauce, every step as long as it was planned, ``days`` ago, that came to so many grams more
    and so many times as thick as planned; ``said`` is its verdict and its note."""
    batch = start(kitchen, user, sauce.newest)
    began = timezone.now() - timedelta(days=days, hours=3)
    minutes = [0.0, *(state["minutes"] for state in batch.plan["states"])]
    batch.began = {
        str(n): (began + timedelta(minutes=at)).isoformat() for n, at in enumerate(minutes)
    }
    batch.step, batch.status = len(batch.plan["cards"]), Batch.Status.DONE
    batch.started_at, batch.ended_at = began, began + timedelta(minutes=minutes[-1])
    batch.save()
    final = batch.plan["final"]
    entry = Entry.objects.create(
        kitchen=kitchen,
        batch=batch,
        made_at=batch.ended_at,
        weighed_g=final["total_g"] + off_g,
        reached_pa_s=final["viscosity_pa_s"] * thicker,
        **{"verdict": "again", **said},
    )
    lesson_of(entry)
    return entry
