"""What happened, plan beside actual."""

from typing import Any, cast

from django.db.models import Q
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from django.utils.dateparse import parse_datetime
from ninja import Router, Status

from kestrel.accounts.auth import KitchenRequest
from kestrel.journal import actions
from kestrel.journal.models import Entry
from kestrel.journal.schemas import EntryIn, EntryOut, EntryPage
from kestrel.problems import Message, Problems
from kestrel.stove.api import batch_of
from saucier.errors import BadInput
from saucier.thickness import grade_of
from saucier.words import say

router = Router(tags=["journal"])
PAGE = 50


def _entry(entry: Entry) -> dict[str, Any]:
    batch = entry.batch
    final = batch.plan["final"]
    # The scale has the pieces, too; plans from before they were told apart had none.
    planned_g = final.get("total_g", final["mass_g"])
    reached = entry.reached_pa_s
    minutes = (batch.ended_at - batch.started_at).total_seconds() / 60 if batch.ended_at else None
    return {
        "id": entry.pk,
        "batch_id": batch.pk,
        "name": batch.plan["name"],
        "sauce_id": batch.version.sauce_id if batch.version else None,
        "version": batch.version.number if batch.version else None,
        "service": batch.service.name if batch.service else None,
        "service_id": batch.service_id,
        "made_at": entry.made_at,
        "plan": {
            "mass_g": planned_g,
            **{key: final[key] for key in ("viscosity_pa_s", "grade", "minutes")},
        },
        "plan_low_pa_s": final["viscosity_low_pa_s"],
        "plan_high_pa_s": final["viscosity_high_pa_s"],
        "actual": {
            "mass_g": entry.weighed_g,
            "viscosity_pa_s": reached,
            "grade": grade_of(reached) if reached is not None else None,
            "minutes": minutes,
        },
        "mass_off_pct": 100.0 * (entry.weighed_g / planned_g - 1.0)
        if entry.weighed_g is not None and planned_g
        else None,
        "verdict": entry.verdict,
        "verdict_words": entry.get_verdict_display(),
        "note": entry.note,
        "mends": [say("mended", sign=mend["sign"], title=mend["title"]) for mend in batch.mends],
    }


@router.get("", response={200: EntryPage, 422: Problems})
def list_entries(request: HttpRequest, older: str = ""):
    """A page of the journal, newest first, from the cursor ``older`` on."""
    kitchen = cast(KitchenRequest, request).kitchen
    everything = Entry.objects.filter(kitchen=kitchen)
    page = everything
    if older:
        at, _, pk = older.rpartition("_")
        try:
            made_at, number = parse_datetime(at), int(pk)
        except ValueError:
            made_at, number = None, 0
        if made_at is None:
            raise BadInput.at("older", "is-not-a-cursor")
        page = page.filter(Q(made_at__lt=made_at) | Q(made_at=made_at, pk__lt=number))
    rows = list(page.select_related("batch__version", "batch__service")[: PAGE + 1])
    more = len(rows) > PAGE
    rows = rows[:PAGE]
    return {
        "entries": [_entry(entry) for entry in rows],
        "total": everything.count(),
        "older": f"{rows[-1].made_at.isoformat()}_{rows[-1].pk}" if more else None,
    }


@router.get("/of-batch/{batch_id}", response={200: EntryOut, 404: Message})
def entry_of_batch(request: HttpRequest, batch_id: int):
    """What was written down of a batch."""
    rows = Entry.objects.select_related("batch__version", "batch__service")
    return _entry(get_object_or_404(rows, batch=batch_of(request, batch_id)))


@router.post("", response={201: EntryOut, 409: Message, 422: Problems})
def write_down(request: HttpRequest, given: EntryIn):
    """Weigh, judge and write down; the batch comes off the stove."""
    batch = batch_of(request, given.batch_id)
    reached = given.reached_pa_s
    if reached is not None and (isinstance(reached, bool) or not isinstance(reached, int | float)):
        raise BadInput.at("reached_pa_s", "is-no-thickness")
    entry = actions.write_down(
        batch,
        weighed=given.weighed,
        with_pan=given.with_pan,
        reached_pa_s=reached,
        verdict=given.verdict,
        note=given.note,
    )
    return Status(201, _entry(entry))
