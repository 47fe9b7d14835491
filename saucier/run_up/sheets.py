"""Run sheets: what each cook does when; as lines, as CSV, as a calendar with alarms."""

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import UTC, date, datetime, timedelta

from saucier.cells import written
from saucier.run_up.timed import TimedDay
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class RunLine:
    """One thing a cook does: ``at`` the minute, for ``minutes``, what, how much, what to look for. A
    touch takes no minutes to speak of. ``job`` is its key."""

    at: float
    minutes: float
    what: Sentence
    do: Sentence
    amount: Sentence
    cue: Sentence
    where: str
    job: str
    touch: bool


@dataclass(frozen=True, slots=True)
class RunSheet:
    """The lines of one ``cook``, in order of time."""

    cook: str
    lines: tuple[RunLine, ...]


def run_sheets(days: Iterable[TimedDay]) -> tuple[RunSheet, ...]:
    """A sheet for each cook that does anything, both days one after the other."""
    by_cook: dict[str, list[RunLine]] = {}
    none = say("said", words="")
    for day in days:
        for block in day.blocks:
            where = ", ".join(dict.fromkeys(t.lane for t in block.things if t.pool != "gear"))
            shown = False
            last = None
            for part in block.parts:
                if part.hands != "all" or part.minutes <= 0.0:
                    last = None
                    continue
                if last == part.cook:  # the same go: its parts are told at the stove
                    continue
                last = part.cook
                by_cook.setdefault(part.cook, []).append(
                    RunLine(
                        part.at,
                        part.minutes,
                        block.name,
                        part.do,
                        none if shown else block.amount,
                        part.cue,
                        where,
                        block.key,
                        False,
                    )
                )
                shown = True
            for touch in block.touches:
                by_cook.setdefault(touch.cook, []).append(
                    RunLine(touch.at, 0.0, block.name, touch.do, none, none, where, block.key, True)
                )
    return tuple(
        RunSheet(cook, tuple(sorted(lines, key=lambda line: (line.at, line.job))))
        for cook, lines in sorted(by_cook.items())
        if cook
    )


def clock(minute: float) -> str:
    """A minute of the day as a clock shows it; seconds are left away.

    >>> clock(725.5), clock(-30.0)
    ('12:05', '23:30')
    """
    whole = int(minute // 1)
    return f"{whole // 60 % 24:02d}:{whole % 60:02d}"


def run_csv(sheets: Iterable[RunSheet]) -> str:
    """All sheets as one table."""
    return written(
        ("cook", "at", "minutes", "what", "do", "amount", "cue", "where"),
        (
            (
                *(sheet.cook, clock(line.at), f"{line.minutes:g}"),
                *(line.what, line.do, line.amount, line.cue, line.where),
            )
            for sheet in sheets
            for line in sheet.lines
        ),
    )


def run_ics(sheets: Iterable[RunSheet], day: date, name: str, key: str) -> bytes:
    """The sheets as an iCalendar file (RFC 5545): an event a line, in the kitchen's own time, with an
    alarm a minute before; ``key`` makes the events' names unlike those of other run-ups."""
    from icalendar import Alarm, Calendar, Event  # heavy, and wanted here only

    calendar = Calendar()
    calendar.add("prodid", "-//Kestrel Fog//run-up//EN")
    calendar.add("version", "2.0")
    calendar.add("x-wr-calname", name)
    midnight = datetime(day.year, day.month, day.day)
    for sheet in sheets:
        for number, line in enumerate(sheet.lines):
            event = Event()
            begin = midnight + timedelta(minutes=round(line.at * 2) / 2)
            event.add("uid", f"{key}-{number}-{_slug(sheet.cook)}@kestrel-fog.invalid")
            event.add("dtstamp", datetime.now(UTC))
            event.add("dtstart", begin)
            event.add("dtend", begin + timedelta(minutes=max(0.5, line.minutes)))
            event.add("summary", f"{sheet.cook}: {line.what}")
            told = [str(one) for one in (line.do, line.amount, line.cue, line.where) if str(one)]
            event.add("description", "\n".join(told))
            alarm = Alarm()
            alarm.add("action", "DISPLAY")
            alarm.add("description", str(line.what))
            alarm.add("trigger", timedelta(minutes=-1))
            event.add_component(alarm)
            calendar.add_component(event)
    written: bytes = calendar.to_ical()
    return written


def _slug(text: str) -> str:
    return "".join(letter if letter.isalnum() else "-" for letter in text.lower())
