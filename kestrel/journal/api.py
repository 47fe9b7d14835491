"""What happened, plan beside actual; what became of it; what it teaches."""

import statistics
from datetime import date
from typing import Any, cast

from django.db.models import Prefetch, QuerySet
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Query, Router, Status

from kestrel.accounts.auth import KitchenRequest
from kestrel.fields import Day
from kestrel.journal import actions
from kestrel.journal.after import kept_g, made_g, say_served
from kestrel.journal.again import again, compared
from kestrel.journal.finding import Wanted, after, cooks_in, found
from kestrel.journal.learning import catch_up, take, taught
from kestrel.journal.models import Correction, Entry, Served
from kestrel.journal.schemas import (
    AgainOut,
    BatchesBeside,
    Choices,
    CorrectionIn,
    EntryIn,
    EntryOut,
    EntryPage,
    LearningOut,
    SauceSaid,
    ServedIn,
    ServedOut,
    ThingIn,
    UndoIn,
)
from kestrel.journal.weeks import MOST_WEEKS, Weeks, weeks
from kestrel.larder.learnt import drop
from kestrel.problems import Message
from kestrel.sauces.models import Sauce
from kestrel.service.models import Dish
from kestrel.stove.api import batch_of
from kestrel.stove.models import Batch, Milestone, Photo
from saucier.errors import BadInput
from saucier.learn import said_again
from saucier.thickness import grade_of
from saucier.words import say

router = Router(tags=["journal"])
PAGE = 50
MOST_SAID = 400
"""The newest batches of a sauce that are put together."""


def _kitchen(request: HttpRequest) -> Any:
    return cast(KitchenRequest, request).kitchen


def _whole(rows: QuerySet[Entry]) -> QuerySet[Entry]:
    """``rows`` with all that is told of them; of photographs only that they are there, not their pictures."""
    pictures = Prefetch("batch__photos", Photo.objects.only("pk", "batch"))
    rows = rows.select_related("batch__version", "batch__service")
    unread = ("batch__sheet", "batch__version__sheet", "batch__version__outcome")
    began = Prefetch("batch__milestones", Milestone.objects.filter(kind="began"))
    return rows.prefetch_related(pictures, "corrections", began).defer(
        *unread, "batch__service__document"
    )


def _entry_of(request: HttpRequest, entry_id: int) -> Entry:
    entry: Entry = get_object_or_404(
        _whole(Entry.objects.filter(kitchen=_kitchen(request))), pk=entry_id
    )
    return entry


def _entry(entry: Entry) -> dict[str, Any]:
    batch = entry.batch
    final = batch.plan["final"]
    # The scale has the pieces, too; plans from before they were told apart had none.
    planned_g = final.get("total_g", final["mass_g"])
    if batch.kind == Batch.Kind.FREE:  # cooked free hand it had no plan
        final, planned_g = dict.fromkeys(final), None
    stands = entry.stands
    reached = stands.reached_pa_s
    minutes = (batch.ended_at - batch.started_at).total_seconds() / 60 if batch.ended_at else None
    return {
        "id": entry.pk,
        "batch_id": batch.pk,
        "name": batch.plan["name"],
        "sauce_id": batch.version.sauce_id if batch.version else None,
        "version": batch.version.number if batch.version else None,
        "service": batch.service.name if batch.service else None,
        "service_id": batch.service_id,
        "cook": batch.cook or next((one.by_name for one in batch.milestones.all()), ""),
        "by": entry.by_name,
        "session": entry.session_name if entry.session_name != entry.by_name else "",
        "photos": [photo.pk for photo in batch.photos.all()],
        "made_at": entry.made_at,
        "plan": {
            "mass_g": planned_g,
            **{key: final[key] for key in ("viscosity_pa_s", "grade", "minutes")},
        },
        "plan_low_pa_s": final["viscosity_low_pa_s"],
        "plan_high_pa_s": final["viscosity_high_pa_s"],
        "actual": {
            "mass_g": stands.weighed_g,
            "viscosity_pa_s": reached,
            "grade": grade_of(reached) if reached is not None else None,
            "minutes": minutes,
        },
        "mass_off_pct": 100.0 * (stands.weighed_g / planned_g - 1.0)
        if stands.weighed_g is not None and planned_g
        else None,
        "verdict": stands.verdict,
        "verdict_words": stands.get_verdict_display(),
        "note": stands.note,
        "corrections": _corrections(entry),
        "mends": [say("mended", sign=mend["sign"], title=mend["title"]) for mend in batch.mends],
    }


def _corrections(entry: Entry) -> list[dict[str, Any]]:
    """Each with what stood before it."""
    rows = list(entry.corrections.all())
    before: list[Entry | Correction] = [entry, *rows]
    return [
        {
            "at": row.at,
            "by": row.by_name,
            "why": row.why,
            "was": {
                "mass_g": was.weighed_g,
                "grade": grade_of(was.reached_pa_s) if was.reached_pa_s is not None else None,
                "verdict_words": was.get_verdict_display(),
                "note": was.note,
            },
        }
        for row, was in zip(rows, before, strict=False)
    ]


@router.get("", response={200: EntryPage})
def list_entries(request: HttpRequest, wanted: Query[Wanted], older: str = ""):
    """A page of the journal, newest first, of what is wanted, from the cursor ``older`` on."""
    everything = found(_kitchen(request), wanted)
    rows = list(_whole(after(everything, older))[: PAGE + 1])
    more = len(rows) > PAGE
    rows = rows[:PAGE]
    return {
        "entries": [_entry(entry) for entry in rows],
        "total": everything.count(),
        "older": f"{rows[-1].made_at.isoformat()}_{rows[-1].pk}" if more else None,
    }


@router.get("/choices", response=Choices)
def choices(request: HttpRequest):
    """Sauces, dishes, cooks and verdicts it can be looked through by."""
    kitchen = _kitchen(request)
    sauces = Sauce.objects.filter(kitchen=kitchen, versions__batches__entry__isnull=False)
    dishes = Dish.objects.filter(kitchen=kitchen, deleted_at=None)
    return {
        "sauces": [{"key": str(row.pk), "name": row.name} for row in sauces.distinct()],
        "dishes": [{"key": str(row.pk), "name": row.name} for row in dishes],
        "cooks": cooks_in(kitchen),
        "verdicts": [{"key": key, "name": str(name)} for key, name in Entry.Verdict.choices],
    }


@router.get("/of-batch/{batch_id}", response={200: EntryOut, 404: Message})
def entry_of_batch(request: HttpRequest, batch_id: int):
    """What was written down of a batch."""
    rows = _whole(Entry.objects.all())
    return _entry(get_object_or_404(rows, batch=batch_of(request, batch_id)))


@router.get("/of-sauce/{sauce_id}", response={200: SauceSaid, 404: Message})
def of_sauce(request: HttpRequest, sauce_id: int):
    """The batches of a sauce put together, and what their notes say again and again."""
    sauce = get_object_or_404(Sauce, kitchen=_kitchen(request), pk=sauce_id)
    rows = list(_whole(Entry.objects.filter(batch__version__sauce=sauce))[:MOST_SAID])
    verdicts = {str(key): 0 for key in Entry.Verdict.values}
    for row in rows:
        verdicts[row.stands.verdict] += 1
    told = [_entry(row) for row in rows]
    off = [one["mass_off_pct"] for one in told if one["mass_off_pct"] is not None]
    factors = [
        one["actual"]["viscosity_pa_s"] / one["plan"]["viscosity_pa_s"]
        for one in told
        if one["actual"]["viscosity_pa_s"] and one["plan"]["viscosity_pa_s"]
    ]
    notes = [row.stands.note for row in rows]
    return {
        "batches": len(rows),
        "verdicts": verdicts,
        "mass_off_pct": statistics.median(off) if off else None,
        "thickness_factor": statistics.median(factors) if factors else None,
        "said": [
            {"words": one.words, "notes": [notes[at] for at in one.notes][:6]}
            for one in said_again(notes)
        ],
    }


@router.post("", response={201: EntryOut, 404: Message, 409: Message})
def write_down(request: HttpRequest, given: EntryIn):
    """Weigh, judge and write down; the batch comes off the stove."""
    batch = batch_of(request, given.batch_id)
    reached = given.reached_pa_s
    if reached is not None and (isinstance(reached, bool) or not isinstance(reached, int | float)):
        raise BadInput.at("reached_pa_s", "is-no-thickness")
    entry = actions.write_down(
        batch,
        cast(KitchenRequest, request).user,
        weighed=given.weighed,
        with_pan=given.with_pan,
        reached_pa_s=reached,
        verdict=given.verdict,
        note=given.note,
    )
    return Status(201, _entry(entry))


@router.post("/{entry_id}/corrections", response={201: EntryOut, 404: Message})
def correct(request: HttpRequest, entry_id: int, given: CorrectionIn):
    """What was written of a finished batch, anew: beside what stood before, with the reason."""
    entry = _entry_of(request, entry_id)
    actions.correct(entry, cast(KitchenRequest, request).user, **given.dict())
    return Status(201, _entry(_entry_of(request, entry_id)))


@router.get("/beside", response={200: BatchesBeside, 404: Message})
def beside(request: HttpRequest, one: int, other: int):
    """Two batches beside each other: what went in, how long, what came out, what was said."""
    if one == other:
        raise BadInput.at("other", "is-the-same")
    here, there = _entry_of(request, one), _entry_of(request, other)
    return {"one": _entry(here), "other": _entry(there), "lines": compared(here, there)}


@router.post("/{entry_id}/again", response={201: AgainOut, 404: Message})
def cook_again(request: HttpRequest, entry_id: int):
    """A new version of its sauce, as it turned out: what went in, as long as it took."""
    asking = cast(KitchenRequest, request)
    sauce = again(_entry_of(request, entry_id), asking.user)
    return Status(201, {"sauce_id": sauce.pk, "version": sauce.version})


@router.get("/of-batch/{batch_id}/served", response={200: ServedOut, 404: Message})
def served(request: HttpRequest, batch_id: int):
    """What became of a batch, as it was said last."""
    return _served(batch_of(request, batch_id))


@router.post("/of-batch/{batch_id}/served", response={201: ServedOut, 404: Message})
def say_what_became(request: HttpRequest, batch_id: int, given: ServedIn):
    """Portions that went out, what was thrown away, the emptied pot. Said again, the last word counts; what
    was said before stays written down."""
    asking = cast(KitchenRequest, request)
    batch = batch_of(request, batch_id)
    say_served(batch, asking.user, **given.dict())
    return Status(201, _served(batch))


def _served(batch: Batch) -> dict[str, Any]:
    row = Served.objects.filter(batch=batch).last()
    return {
        "portions": row.portions if row else None,
        "thrown_g": row.thrown_g if row else None,
        "reason": row.reason if row else "",
        "film_g": row.film_g if row else None,
        "made_g": round(made_g(batch), 1),
        "kept_g": round(kept_g(batch), 1),
        "said": row is not None,
    }


@router.get("/weeks", response={200: Weeks})
def by_week(request: HttpRequest, first: Day, last: Day, offset: int = 0):
    """Made, served, kept and thrown away, week by week, and what to plan instead."""
    if not date(2000, 1, 1) <= first <= date(2999, 1, 1):
        raise BadInput.at("first", "is-no-day-of-the-journal")
    if not 0 <= (last - first).days <= 7 * MOST_WEEKS:
        raise BadInput.at("last", "weeks-too-long", most=MOST_WEEKS)
    return weeks(_kitchen(request), first, last, max(-840, min(840, offset)))


@router.get("/learning", response=LearningOut)
def learning(request: HttpRequest):
    """What this kitchen's batches teach: before and after, by how many, and what is gone by."""
    kitchen = _kitchen(request)
    to_read = catch_up(kitchen)
    return {"things": taught(kitchen), "to_read": to_read}


@router.post("/learning", response={200: LearningOut})
def go_by_it(request: HttpRequest, given: ThingIn):
    """Go by what the batches say of it from now on. Nothing that was written down changes."""
    asking = cast(KitchenRequest, request)
    take(asking.kitchen, asking.user, (given.kind, given.of, given.at))
    return learning(request)


@router.post("/learning/undo", response={200: LearningOut})
def undo_learning(request: HttpRequest, given: UndoIn):
    """Back to what was gone by before, or to the usual."""
    drop(_kitchen(request), (given.kind, given.of, given.at), all_of_it=given.all_of_it)
    return learning(request)
