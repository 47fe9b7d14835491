"""The record of temperatures and of what was made, in order: what an inspector asks for."""

from collections.abc import Iterable, Iterator
from datetime import UTC, date, datetime, time, timedelta
from typing import Any

from django.utils import timezone

from kestrel.accounts.models import Kitchen
from kestrel.keeping.actions import cooling_of, rules_then, seen_of
from kestrel.keeping.models import Event, Kept
from kestrel.stove.models import Batch
from saucier.cells import written
from saucier.keeping import CoolingSeen, StageMet
from saucier.words import Sentence, say

COLUMNS = ("at", "batch", "name", "what", "value", "rule", "met", "by", "corrected")


def record(kitchen: Kitchen, first: date, last: date, offset_min: int) -> list[dict[str, Any]]:
    """Every line from the day ``first`` to ``last``, by clocks ``offset_min`` ahead of UTC, in order."""
    shift = timedelta(minutes=offset_min)
    begin = timezone.make_aware(datetime.combine(first, time.min), UTC) - shift
    end = timezone.make_aware(datetime.combine(last, time.max), UTC) - shift
    lines = [
        *_made(kitchen, begin, end),
        *_kept(kitchen, begin, end),
        *_events(kitchen, begin, end),
    ]
    return sorted(lines, key=lambda line: line["at"])


def _line(at: datetime, batch: Batch, what: Sentence, by: Any, **more: str) -> dict[str, Any]:
    told = {"value": "", "rule": "", "met": "", "corrected": ""}
    return {
        **told,
        "at": at,
        "code": f"B{batch.pk}",
        "name": batch.plan["name"],
        "what": what,
        "by": by.called if by else "",
        **more,
    }


def _made(kitchen: Kitchen, begin: datetime, end: datetime) -> Iterator[dict[str, Any]]:
    rows = Batch.objects.filter(kitchen=kitchen, started_at__range=(begin, end))
    for batch in rows.select_related("started_by"):
        yield _line(batch.started_at, batch, say("record.began"), batch.started_by)
    done = Batch.objects.filter(kitchen=kitchen, ended_at__range=(begin, end))
    for batch in done.select_related("started_by"):
        what = "record.done" if batch.status == Batch.Status.DONE else "record.left"
        assert batch.ended_at is not None
        yield _line(batch.ended_at, batch, say(what), batch.started_by)


def _kept(kitchen: Kitchen, begin: datetime, end: datetime) -> Iterator[dict[str, Any]]:
    rows = Kept.objects.filter(kitchen=kitchen, put_at__range=(begin, end))
    for kept in rows.select_related("batch", "put_by"):
        rules = rules_then(kept)
        yield _line(
            kept.put_at,
            kept.batch,
            say("record.put-away", tray=kept.tray, trays=kept.trays),
            kept.put_by,
            value=str(say("figure.grams", grams=kept.grams)),
            rule=rules.told.name,
        )
        for at, stage, met in _stages(kept):
            if begin <= at <= end:
                yield _line(
                    at,
                    kept.batch,
                    say("record.cooled", to_c=stage.to_c),
                    None,
                    value=f"{stage.took_min:.0f} min" if stage.took_min is not None else "",
                    rule=f"{stage.limit_min:.0f} min",
                    met=met,
                )


def _stages(kept: Kept) -> Iterator[tuple[datetime, StageMet, str]]:
    """Each stage of its cooling that is over, as a probe has it; by the sum alone nothing is claimed."""
    seen: CoolingSeen | None = seen_of(kept)
    if seen is None:
        return
    begins = cooling_of(kept).clock_from_min / seen.pace
    for stage in seen.stages:
        over = begins + (stage.limit_min if stage.took_min is None else stage.took_min)
        at = kept.put_at + timedelta(minutes=over)
        if at <= timezone.now():
            yield at, stage, "yes" if stage.met else "no"


def _events(kitchen: Kitchen, begin: datetime, end: datetime) -> Iterator[dict[str, Any]]:
    rows = Event.objects.filter(kitchen=kitchen, at__range=(begin, end))
    corrected = {
        one.data["of"]: one.data["why"]
        for one in Event.objects.filter(kitchen=kitchen, kind="corrected")
    }
    for one in rows.select_related("kept__batch", "by"):
        data = one.data
        value = ""
        if "celsius" in data:
            value = str(say("figure.degrees", celsius=data["celsius"]))
        elif data.get("grams") is not None:
            value = str(say("figure.grams", grams=data["grams"]))
        words = (
            data.get("reason") or data.get("purpose") or data.get("words") or data.get("why") or ""
        )
        yield _line(
            one.at,
            one.kept.batch,
            say(f"record.{one.kind}", words=words),
            one.by,
            value=value,
            corrected=corrected.get(one.key, ""),
        )


def as_csv(lines: Iterable[dict[str, Any]]) -> str:
    """The record as CSV, one line each; a cell that a spreadsheet would reckon with is guarded."""
    return written(
        COLUMNS,
        (
            (
                *(line["at"].isoformat(timespec="seconds"), line["code"]),
                *(line[name] for name in COLUMNS[2:]),
            )
            for line in lines
        ),
    )
