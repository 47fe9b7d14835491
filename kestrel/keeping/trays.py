"""What is known of each tray of what was put away: its readings, what they prove, how it goes on, until when it keeps."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from functools import lru_cache

from django.db.models import Max, Prefetch, QuerySet
from django.utils import timezone
from pydantic import TypeAdapter

from kestrel.keeping.events import counted
from kestrel.keeping.models import Event, Kept
from kestrel.stove.counting import now_of
from kestrel.stove.models import Reading
from kestrel.stove.probes import READ_OFF, read_off
from saucier.keeping import (
    Cooling,
    CoolingFacts,
    Forecast,
    Rules,
    cooling_facts,
    expected_of,
    forecast,
    place_named,
    put_away_at,
    read_rules,
)
from saucier.words import Sentence

_COOLING = TypeAdapter(Cooling)
READING_KEY = "reading-"
"""A device's reading is named by this and its number, where a line of the record corrects it."""
_PUT_KEY = "put-away"
_ALL_OVER_MIN = 2.0 * 24 * 60
"""More than any stage of any rule lasts."""


@dataclass(frozen=True, slots=True)
class Measured:
    """A temperature that was measured: ``at_min`` minutes after it was put away. ``key`` names it where it is
    corrected; ``tray`` None: of the pot before it was shared out (``shared``), or nobody said of which. ``void``: a
    later line corrected it."""

    key: str
    at: datetime
    at_min: float
    celsius: float
    tray: int | None
    shared: bool
    device: str
    simulated: bool
    clock_off_s: float
    imported: bool
    void: bool


@dataclass(frozen=True, slots=True)
class TrayState:
    """A tray ``as_of`` a moment: what was ``measured`` of it, what that proves (``facts``), how it goes on (None:
    nothing is open), until when it keeps by that, and whether it is ``gone``."""

    number: int
    as_of: datetime
    measured: tuple[Measured, ...]
    facts: CoolingFacts
    forecast: Forecast | None
    use_by: date
    gone: bool

    @property
    def failed(self) -> bool:
        """Whether it was not cooled in time, or nothing can show any more that it was."""
        return self.facts.failed and not self.gone


def cooling_of(kept: Kept) -> Cooling:
    """What was reckoned for it when it was put away."""
    return _COOLING.validate_python(kept.cooling)


def rules_then(kept: Kept) -> Rules:
    """The rules that were in force when it was put away: it is judged by them, whatever the kitchen goes by now."""
    return read_rules(kept.rules)


def minutes_of(kept: Kept, at: datetime) -> float:
    """Minutes from when it was put away."""
    return (at - kept.put_at).total_seconds() / 60.0


def moment_of(kept: Kept) -> datetime:
    """This moment; where a simulated device is ahead of it, its newest reading."""
    now = now_of(kept.batch)
    ahead = (
        Reading.objects.filter(batch=kept.batch_id, simulated=True, at__gt=now)
        .order_by("at")
        .last()
    )
    return ahead.at if ahead else now


def measured_of(kept: Kept) -> list[Measured]:
    """Every temperature that was measured of it, by device or by hand, in order; those that were corrected too, and
    what they were corrected to."""
    found = [*_by_devices(kept), *_by_hand(kept)]
    corrections = {one.data["of"]: one.data for one in kept.events.all() if one.kind == "corrected"}
    whole: list[Measured] = []
    for one in found:
        correction = corrections.get(one.key)
        whole.append(replace(one, void=correction is not None))
        if correction is not None and correction.get("celsius") is not None:
            whole.append(replace(one, celsius=float(correction["celsius"])))
    return sorted(whole, key=lambda one: (one.at_min, -one.celsius))


def _by_devices(kept: Kept) -> tuple[Measured, ...]:
    rows = Reading.objects.filter(batch=kept.batch_id, kind="probe")
    newest = rows.aggregate(newest=Max("pk"))["newest"]
    only_tray = sum(lot.trays for lot in kept.batch.kept.all()) == 1
    return () if newest is None else _read_by_devices(kept, _stamp(kept), newest, only_tray)


def _stamp(kept: Kept) -> str:
    """What tells a row from any other that ever bore its number: what is kept in memory goes by it."""
    return f"{kept.key} {kept.written_at} {kept.put_at}"


@lru_cache(maxsize=64)
def _read_by_devices(kept: Kept, stamp: str, newest: int, only_tray: bool) -> tuple[Measured, ...]:
    """What devices read of it until the row ``newest``: read once, since a probe may send for hours, and what it
    sent is never rewritten."""
    rows = Reading.objects.filter(batch=kept.batch_id, kind="probe", pk__lte=newest)
    found = []
    for row in rows.order_by("at", "pk"):
        pot = row.at < kept.put_at
        if not (pot or row.kept_key == kept.key or (not row.kept_key and only_tray)):
            continue  # of another lot, or nobody said of which tray
        found.append(
            Measured(
                key=f"{READING_KEY}{row.pk}",
                at=row.at,
                at_min=minutes_of(kept, row.at),
                celsius=row.value,
                tray=None if pot else row.tray or _only_tray(kept),
                shared=pot,
                device=row.device_name,
                simulated=row.simulated,
                clock_off_s=row.clock_off_s,
                imported=row.imported_at is not None,
                void=False,
            )
        )
    return tuple(found)


def _by_hand(kept: Kept) -> Iterator[Measured]:
    typed: list[tuple[str, datetime, float, int | None, float, bool]] = []
    if kept.put_c is not None:
        typed.append((_PUT_KEY, kept.put_at, kept.put_c, None, 0.0, kept.imported_at is not None))
    typed += [
        (
            event.key,
            event.at,
            float(event.data["celsius"]),
            event.data.get("tray"),
            float(event.data.get("clock_off_s", 0.0)),
            event.imported_at is not None,
        )
        for event in kept.events.all()
        if event.kind == "temperature"
    ]
    typed += [  # of the pot, at the stove, before it was shared out
        (act.key, act.at, float(act.data["value"]), None, 0.0, act.imported_at is not None)
        for act in read_off(kept.batch)
        if act.at <= kept.put_at
    ]
    for key, at, celsius, tray, clock_off_s, imported in typed:
        pot = at <= kept.put_at
        yield Measured(
            key=key,
            at=at,
            at_min=minutes_of(kept, at),
            celsius=celsius,
            tray=None if pot else tray or _only_tray(kept),
            shared=pot,
            device="",
            simulated=False,
            clock_off_s=clock_off_s,
            imported=imported,
            void=False,
        )


def _only_tray(kept: Kept) -> int | None:
    return 1 if kept.trays == 1 else None


def with_readings(rows: QuerySet[Kept]) -> QuerySet[Kept]:
    """``rows`` with what :func:`trays_of` asks of each, fetched at once."""
    return rows.select_related("batch", "kitchen").prefetch_related(
        "events",
        "batch__devices",
        "batch__kept",
        Prefetch("batch__acts", READ_OFF, to_attr="probe_acts"),
    )


def trays_of(kept: Kept, *, ahead: bool = True) -> list[TrayState]:
    """Each tray as it is known now; ``ahead``: with how it goes on."""
    measured, now = measured_of(kept), moment_of(kept)
    return [_tray(kept, number, measured, now, ahead=ahead) for number in range(1, kept.trays + 1)]


def _tray(
    kept: Kept, number: int, measured: Sequence[Measured], now: datetime, *, ahead: bool
) -> TrayState:
    """One tray. Readings of the pot before it was shared out are of each; where nobody said of which tray one
    is, it proves nothing of any."""
    mine = tuple(one for one in measured if one.tray == number or (one.tray is None and one.shared))
    read = tuple((one.at_min, one.celsius) for one in mine if not one.void)
    off_fire = None if kept.off_fire_at is None else minutes_of(kept, kept.off_fire_at)
    now_min = minutes_of(kept, now)
    # Long after the last of it nothing can be open any more: what was proved then stands.
    newest_min = max([0.0, off_fire or 0.0, *(at_min for at_min, _ in read)])
    facts = _facts(kept, _stamp(kept), read, off_fire, min(now_min, newest_min + _ALL_OVER_MIN))
    events = counted(list(kept.events.all()))
    gone = any(one.kind == "thrown" and one.data.get("tray") == number for one in events)
    goes_on = None
    if ahead and facts.is_open and not gone:
        goes_on = _forecast(kept, _stamp(kept), read, off_fire, int(now_min))
    return TrayState(number, now, mine, facts, goes_on, _use_by(kept, facts), gone)


@lru_cache(maxsize=256)
def _facts(
    kept: Kept,
    stamp: str,
    read: tuple[tuple[float, float], ...],
    off_fire: float | None,
    now_min: float,
) -> CoolingFacts:
    return cooling_facts(rules_then(kept), read, off_fire, now_min)


@lru_cache(maxsize=256)
def _forecast(
    kept: Kept,
    stamp: str,
    read: tuple[tuple[float, float], ...],
    off_fire: float | None,
    now_min: int,
) -> Forecast | None:
    """Kept for screens that ask again: what was put away is never rewritten."""
    rules, cooling = rules_then(kept), cooling_of(kept)
    facts = cooling_facts(rules, read, off_fire, float(now_min))
    place = place_named(kept.place)
    expected = expected_of([(one.at_min, one.hottest_c) for one in cooling.curve], place.bottom_c)
    known = kept.put_c if kept.put_c is not None else expected.from_c
    expected = put_away_at(expected, known, 1.5 if kept.put_c is not None else 6.0)
    after = [one for one in read if one[0] >= 0.0]
    return forecast(rules, facts, after, 0.0, float(now_min), expected)


def made_on(kept: Kept) -> date:
    """The day its cooking ended."""
    return timezone.localdate(kept.off_fire_at or kept.put_at)


def _use_by(kept: Kept, facts: CoolingFacts) -> date:
    """What was not shown to have cooled in time keeps no longer than the day it was made."""
    return min(kept.use_by, made_on(kept)) if facts.failed else kept.use_by


def failed_words(states: Sequence[TrayState]) -> Sentence | None:
    """What failed first, in words; None: nothing did."""
    for state in states:
        for stage in state.facts.stages:
            if stage.verdict in ("missed", "not-shown") and not state.gone:
                return stage.shown_by
    return None


def due_at(kept: Kept, state: TrayState) -> list[tuple[float, datetime]]:
    """Of each stage that is open: how cold, and by when a reading has to show it."""
    return [
        (stage.to_c, kept.put_at + timedelta(minutes=stage.due_min))
        for stage in state.facts.stages
        if stage.due_min is not None
    ]


def corrected_event(kept: Kept, key: str) -> bool:
    """Whether ``key`` names something of it that can be corrected, and was not yet."""
    events: list[Event] = list(kept.events.all())
    if any(one.kind == "corrected" and one.data["of"] == key for one in events):
        return False
    if any(one.key == key and one.kind != "corrected" for one in events):
        return True
    return any(one.key == key for one in measured_of(kept))
