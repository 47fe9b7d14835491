"""Finding entries: by sauce, dish, cook, day, verdict, and by what was written."""

from datetime import UTC, date, datetime, time, timedelta

from django.db.models import F, Q, QuerySet
from django.utils import timezone
from django.utils.dateparse import parse_datetime
from ninja import Schema
from pydantic import Field

from kestrel.accounts.models import Kitchen
from kestrel.fields import Day
from kestrel.journal.models import Correction, Entry
from kestrel.service.actions import row_number
from kestrel.service.models import Dish, Service
from saucier.errors import BadInput


class Wanted(Schema):
    """Which entries: of a ``sauce`` or for a ``dish`` by number, by a ``cook`` by name, from a day to a day
    (by clocks ``offset`` min ahead of UTC), with a ``verdict``, with ``text`` in the note or the name. What is
    left out is not asked about."""

    sauce: int | None = None
    dish: int | None = None
    cook: str = ""
    first: Day | None = None
    last: Day | None = None
    verdict: str = ""
    text: str = ""
    offset: int = Field(default=0, ge=-840, le=840)


def found(kitchen: Kitchen, wanted: Wanted) -> QuerySet[Entry]:
    """The entries of ``kitchen`` that are ``wanted``, newest first. Raises :class:`BadInput` by field."""
    if wanted.first and wanted.last and wanted.last < wanted.first:
        raise BadInput.at("last", "is-before-the-first-day")
    rows = Entry.objects.filter(kitchen=kitchen)
    if wanted.verdict:
        if wanted.verdict not in Entry.Verdict.values:
            verdicts = tuple(str(one) for one in Entry.Verdict.labels)
            raise BadInput.at("verdict", "verdict-is-not-chosen", verdicts=verdicts)
        rows = rows.filter(_standing(kitchen, verdict=wanted.verdict))
    if wanted.sauce is not None:
        rows = rows.filter(batch__version__sauce_id=wanted.sauce)
    if wanted.dish is not None:
        rows = rows.filter(_for_dish(kitchen, wanted.dish))
    if wanted.cook:
        by = Q(batch__started_by__first_name=wanted.cook) | Q(
            batch__started_by__first_name="", batch__started_by__username=wanted.cook
        )
        rows = rows.filter(Q(batch__cook=wanted.cook) | Q(batch__cook="") & by)
    shift = timedelta(minutes=wanted.offset)
    if wanted.first is not None:
        rows = rows.filter(made_at__gte=_moment(wanted.first, time.min) - shift)
    if wanted.last is not None:
        rows = rows.filter(made_at__lte=_moment(wanted.last, time.max) - shift)
    if text := wanted.text.strip():
        named = Q(batch__version__sauce__name__icontains=text) | Q(batch__pot__icontains=text)
        rows = rows.filter(_standing(kitchen, note__icontains=text) | named)
    return rows


def _standing(kitchen: Kitchen, **wanted: str) -> Q:
    """Entries of which that holds as they stand: by their newest correction, where there is one."""
    newest = Correction.objects.filter(kitchen=kitchen).exclude(entry__corrections__pk__gt=F("pk"))
    corrected = Q(pk__in=newest.filter(**wanted).values("entry"))
    never = ~Q(pk__in=Correction.objects.filter(kitchen=kitchen).values("entry"))
    return corrected | Q(**wanted) & never


def _moment(day: date, at: time) -> datetime:
    return timezone.make_aware(datetime.combine(day, at), UTC)


def _for_dish(kitchen: Kitchen, number: int) -> Q:
    """Pots of services with that dish: of its sauces, or mothers of several."""
    dish = Dish.objects.filter(kitchen=kitchen, pk=number).first()
    if dish is None:
        return Q(pk=None)
    services = [
        pk
        for pk, document in Service.objects.filter(kitchen=kitchen).values_list("pk", "document")
        if any(row_number(line.get("dish")) == number for line in document.get("lines", []))
    ]
    sauces = [
        key for one in dish.document.get("sauces", []) if (key := row_number(one.get("sauce")))
    ]
    of_it = Q(batch__version__sauce_id__in=sauces) | Q(batch__version=None)
    return Q(batch__service_id__in=services) & of_it


def after(rows: QuerySet[Entry], older: str) -> QuerySet[Entry]:
    """``rows`` from the cursor ``older`` on. Raises :class:`BadInput` (field ``older``)."""
    if not older:
        return rows
    at, _, pk = older.rpartition("_")
    try:
        made_at, number = parse_datetime(at), int(pk)
    except ValueError:
        made_at, number = None, 0
    if made_at is None:
        raise BadInput.at("older", "is-not-a-cursor")
    return rows.filter(Q(made_at__lt=made_at) | Q(made_at=made_at, pk__lt=number))


def cooks_in(kitchen: Kitchen) -> list[str]:
    """Who cooked what stands in the journal."""
    rows = Entry.objects.filter(kitchen=kitchen).values_list(
        "batch__cook", "batch__started_by__first_name", "batch__started_by__username"
    )
    return sorted({cook or name or user or "" for cook, name, user in rows.distinct()} - {""})
