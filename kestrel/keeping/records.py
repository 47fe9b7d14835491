"""The record of temperatures and of what was made, in order: what an inspector asks for.

Every line is a row that is never rewritten, or is proved by such rows alone, with the readings it rests on.
"""

from collections.abc import Iterable, Iterator
from datetime import UTC, date, datetime, time, timedelta
from typing import Any

from django.utils import timezone

from kestrel.accounts.models import Kitchen
from kestrel.accounts.signing import SignedRow
from kestrel.keeping.models import Event, Kept
from kestrel.keeping.trays import (
    READING_KEY,
    Measured,
    TrayState,
    rules_then,
    trays_of,
    with_readings,
)
from kestrel.stove.models import Milestone
from saucier.cells import written
from saucier.keeping import CoolingReading, StageFact
from saucier.words import Sentence, say

COLUMNS = (
    *("at", "written_at", "batch", "name", "what", "value", "rule", "met"),
    *("by", "session", "source", "corrected"),
)
LATER = timedelta(minutes=2)
"""What was written down so much later than it is said to have happened, is told with both."""
_OVER_AFTER = timedelta(days=8)
"""A cooling is over so long after it was put away: its stages are looked for no further back."""


class _Record:
    """The record of a ``kitchen`` from ``begin`` to ``end``; moments in words by clocks ``shift`` ahead of UTC."""

    def __init__(self, kitchen: Kitchen, begin: datetime, end: datetime, shift: timedelta) -> None:
        self.kitchen, self.begin, self.end, self.shift = kitchen, begin, end, shift

    def lines(self) -> list[dict[str, Any]]:
        lines = [*self._made(), *self._put_away(), *self._stages(), *self._events()]
        return sorted(lines, key=lambda line: line["at"])

    def _line(
        self,
        at: datetime,
        batch_id: int,
        name: str,
        what: Sentence,
        row: SignedRow | None,
        **more: str,
    ) -> dict[str, Any]:
        by = row.by_name if row else ""
        session = row.session_name if row else ""
        return {
            "value": "",
            "rule": "",
            "met": "",
            "corrected": "",
            "source": "",
            "at": at,
            "written_at": _later(at, row.written_at) if row else None,
            "code": f"B{batch_id}",
            "name": name,
            "what": what,
            "by": by,
            "session": session if session != by else "",
            **({"source": str(say("source.imported"))} if row and row.imported_at else {}),
            **more,
        }

    def _made(self) -> Iterator[dict[str, Any]]:
        rows = Milestone.objects.filter(kitchen=self.kitchen, at__range=(self.begin, self.end))
        for row in rows:
            yield self._line(row.at, row.batch_id, row.name, say(f"record.{row.kind}"), row)

    def _put_away(self) -> Iterator[dict[str, Any]]:
        rows = Kept.objects.filter(kitchen=self.kitchen, put_at__range=(self.begin, self.end))
        for kept in rows:
            value = str(say("figure.grams", grams=kept.grams))
            if kept.put_c is not None:
                value += f", {say('figure.degrees', celsius=kept.put_c)}"
            yield self._line(
                kept.put_at,
                kept.batch_id,
                kept.name,
                say("record.put-away", tray=kept.tray, trays=kept.trays),
                kept,
                value=value,
                rule=rules_then(kept).told.name,
            )

    def _stages(self) -> Iterator[dict[str, Any]]:
        """Each stage of each tray that is decided: met, missed or not shown, by its readings alone."""
        rows = Kept.objects.filter(
            kitchen=self.kitchen, put_at__range=(self.begin - _OVER_AFTER, self.end)
        )
        for kept in with_readings(rows):
            for state in trays_of(kept, ahead=False):
                for cooling in state.facts.coolings:
                    for stage in cooling:
                        yield from self._stage(kept, state, stage)

    def _stage(self, kept: Kept, state: TrayState, stage: StageFact) -> Iterator[dict[str, Any]]:
        if stage.verdict == "open":
            return
        at = _decided_at(kept, state, stage)
        if not self.begin <= at <= self.end:
            return
        of = say("record.tray", number=state.number, trays=kept.trays) if kept.trays > 1 else ""
        yield self._line(
            at,
            kept.batch_id,
            kept.name,
            say("record.cooled", to_c=stage.to_c, of=of),
            None,
            value="; ".join(self._read(kept, state, one) for one in stage.rests_on),
            rule=str(say("record.within", limit_min=stage.limit_min)),
            met=str(stage.shown_by),
            source=_source(state.measured, stage.rests_on),
        )
        for warm in stage.warmed_again:
            again = kept.put_at + timedelta(minutes=warm.at_min)
            if self.begin <= again <= self.end:
                value = self._read(kept, state, warm)
                what = say("record.warmed-again", of=of)
                yield self._line(again, kept.batch_id, kept.name, what, None, value=value)

    def _read(self, kept: Kept, state: TrayState, reading: CoolingReading) -> str:
        """A reading with its moment, by the kitchen's clock; and as it was first written, where it was corrected."""
        at = kept.put_at + timedelta(minutes=reading.at_min)
        first = [one.celsius for one in state.measured if one.void and one.at_min == reading.at_min]
        code = "record.read-corrected" if first else "record.read"
        return str(
            say(
                code,
                celsius=reading.celsius,
                first_c=first[0] if first else 0.0,
                time=f"{at + self.shift:%H:%M}",
            )
        )

    def _events(self) -> Iterator[dict[str, Any]]:
        rows = Event.objects.filter(kitchen=self.kitchen, at__range=(self.begin, self.end))
        corrected = {
            one.data["of"]: one
            for one in Event.objects.filter(kitchen=self.kitchen, kind="corrected")
        }
        for one in rows.select_related("kept"):
            data = one.data
            correction = corrected.get(one.key)
            by = ""
            if correction is not None:
                why = correction.data["why"]
                by = f"{why} ({correction.by_name})" if correction.by_name else why
            source = _event_source(one)
            yield self._line(
                one.at,
                one.kept.batch_id,
                one.kept.name,
                say(
                    f"record.{'set-aside' if one.set_aside else one.kind}",
                    words=_words(one),
                    of=_tray_words(one),
                ),
                one,
                value=_value(data) or (str(say("record.unread")) if one.kind == "warmed" else ""),
                corrected=by,
                **_asked(data),
                **({"source": source} if source else {}),
            )


def record(kitchen: Kitchen, first: date, last: date, offset_min: int) -> list[dict[str, Any]]:
    """Every line from the day ``first`` to ``last``, by clocks ``offset_min`` ahead of UTC, in order."""
    shift = timedelta(minutes=offset_min)
    begin = timezone.make_aware(datetime.combine(first, time.min), UTC) - shift
    end = timezone.make_aware(datetime.combine(last, time.max), UTC) - shift
    return _Record(kitchen, begin, end, shift).lines()


def _later(at: datetime, written_at: datetime | None) -> datetime | None:
    """When it was written down, where that is not just then."""
    return written_at if written_at is not None and abs(written_at - at) > LATER else None


def _decided_at(kept: Kept, state: TrayState, stage: StageFact) -> datetime:
    """When a stage was decided: by the reading that shows it, or when it could not be shown any more."""
    if stage.verdict == "met" and stage.reached is not None:
        at_min = stage.reached.at_min
    elif stage.proved and stage.above is not None:
        at_min = stage.above.at_min
    elif stage.start_min is not None:
        at_min = stage.start_min + stage.limit_min
    else:
        at_min = stage.rests_on[-1].at_min if stage.rests_on else 0.0
    return min(state.as_of, kept.put_at + timedelta(minutes=at_min))


def _source(measured: Iterable[Measured], rests_on: Iterable[CoolingReading]) -> str:
    """What the readings came from: by hand, by which device, whether that one was only simulated."""
    marks = {(one.at_min, one.celsius) for one in rests_on}
    used = [one for one in measured if (one.at_min, one.celsius) in marks]
    words = []
    for one in used:
        if one.device:
            code = "source.simulated" if one.simulated else "source.device"
            words.append(str(say(code, name=one.device)))
        elif one.key.startswith(READING_KEY):
            words.append(str(say("source.some-device")))
        else:
            words.append(str(say("source.by-hand")))
        if one.clock_off_s:
            words.append(str(say("source.clock-off", minutes=one.clock_off_s / 60.0)))
        if one.imported:
            words.append(str(say("source.imported")))
    return ", ".join(dict.fromkeys(words))


def _event_source(event: Event) -> str:
    words = []
    if event.kind == "temperature":
        words.append(str(say("source.by-hand")))
    if off_s := event.data.get("clock_off_s"):
        words.append(str(say("source.clock-off", minutes=float(off_s) / 60.0)))
    if event.imported_at:
        words.append(str(say("source.imported")))
    return ", ".join(words)


def _asked(data: dict[str, Any]) -> dict[str, str]:
    """What a rule asks of a temperature, and whether what was read shows it."""
    if data.get("asked_c") is None:
        return {}
    met = "record.asked-met" if data.get("met") else "record.asked-not-shown"
    return {"rule": str(say("figure.at-least", celsius=data["asked_c"])), "met": str(say(met))}


def _value(data: dict[str, Any]) -> str:
    if data.get("celsius") is not None:
        return str(say("figure.degrees", celsius=data["celsius"]))
    if data.get("grams") is not None:
        return str(say("figure.grams", grams=data["grams"]))
    return ""


def _words(event: Event) -> str:
    data = event.data
    words = data.get("reason") or data.get("purpose") or data.get("words") or data.get("why") or ""
    if data.get("although"):
        words = f"{words} {say('record.although')}".strip()
    return str(words)


def _tray_words(event: Event) -> Sentence | str:
    number = event.data.get("tray")
    if number is None or event.kept.trays == 1:
        return ""
    return say("record.tray", number=number, trays=event.kept.trays)


def as_csv(lines: Iterable[dict[str, Any]]) -> str:
    """The record as CSV, one line each; a cell that a spreadsheet would reckon with is guarded."""
    return written(
        COLUMNS,
        (
            (
                line["at"].isoformat(timespec="seconds"),
                line["written_at"].isoformat(timespec="seconds") if line["written_at"] else "",
                line["code"],
                *(line[name] for name in COLUMNS[3:]),
            )
            for line in lines
        ),
    )
