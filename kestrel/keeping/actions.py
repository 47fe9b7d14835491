"""Putting sauces away and what becomes of them, one transaction each."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Any, NamedTuple

from django.db import transaction
from django.db.models import F
from django.utils import timezone

from kestrel.accounts.models import Kitchen, User
from kestrel.accounts.people import who_did
from kestrel.keeping.events import AnyEvent, Drawn, Temperature, Thrown, WasNotSo, counted
from kestrel.keeping.models import Event, Kept
from kestrel.keeping.trays import corrected_event, failed_words, moment_of, trays_of
from kestrel.larder.actions import core_kitchen, rules_of
from kestrel.larder.models import Pan
from kestrel.live import tell
from kestrel.same_thing import refuse_other_thing
from kestrel.stove.counting import now_of
from kestrel.stove.following import came_out, off_fire_at
from kestrel.stove.models import Batch
from kestrel.stove.plans import keeps_until
from kestrel.stove.probes import last_probe, yolk_read_c
from saucier.check import check
from saucier.errors import BadInput
from saucier.heat import Pan as CorePan
from saucier.keeping import (
    Cooling,
    cool,
    cooled_c,
    freezing,
    keeps,
    place_named,
    places,
    use_by,
)
from saucier.kitchen import Kitchen as CoreKitchen
from saucier.pot import Pot
from saucier.rescue import as_thick_as, brought_back
from saucier.sheet import read_sheet, write_sheet
from saucier.units import Dimension
from saucier.watch import Following, as_made
from saucier.words import Sentence, plain, say

LEAST_G = 1.0
CLOCK_OFF = timedelta(seconds=2)
"""A sender's clock that is off by less is taken as right."""


@dataclass(frozen=True, slots=True)
class PutAway:
    """What is to be put away: ``grams`` of it (None: all there is), in ``trays`` of ``tray`` (one of the
    larder's pans), under film where ``covered``; ``from_c`` as it was measured (None: nobody did, and it is taken as
    its last reading has it, or the sum)."""

    grams: float | None
    tray: str
    trays: int = 1
    from_c: float | None = None
    covered: bool = True


def through(batch: Batch) -> Following:
    """A batch that is cooked, as it was. Raises :class:`BadInput` (``batch``) where there is nothing of it,
    or not yet."""
    found = came_out(batch)
    if found is None or batch.kind == Batch.Kind.ASIDE or batch.status == Batch.Status.LEFT:
        raise BadInput.at("batch", "nothing-to-put-away")
    if batch.status == Batch.Status.ON and batch.step < len(batch.plan["cards"]):
        raise BadInput.at("batch", "is-not-through")
    return found


def part_of(pot: Pot, grams: float | None) -> Pot:
    """So many grams of ``pot``. Raises :class:`BadInput` (``grams``)."""
    if grams is None:
        return pot
    if not LEAST_G <= grams <= 1.5 * pot.total_g:
        raise BadInput.at("grams", "more-than-there-was", there_g=pot.total_g)
    return pot.part(grams / pot.total_g)


def left_of(batch: Batch, pot: Pot, grams: float | None) -> Pot:
    """So much of what is not put away yet of ``batch`` (None: all of that). Raises :class:`BadInput`
    (``grams`` or ``batch``)."""
    there = left_of_it(batch, pot)
    if there < LEAST_G:
        raise BadInput.at("batch", "all-of-it-is-put-away")
    if grams is not None and batch.kept.exists() and grams > there + 0.5:
        raise BadInput.at("grams", "more-than-there-was", there_g=there)
    return part_of(pot, there if grams is None and there < pot.total_g else grams)


def tray_of(kitchen: Kitchen, name: str) -> CorePan:
    """One of the larder's pans. Raises :class:`BadInput` (``tray``)."""
    found = Pan.objects.filter(kitchen=kitchen, name=name).first()
    if found is None:
        raise BadInput.at("tray", "is-no-pan-of-yours", name=name[:60])
    return found.core()


def cooled_everywhere(kitchen: Kitchen, batch: Batch, given: PutAway) -> list[Cooling]:
    """What cooling comes to at each place, quickest first. Raises :class:`BadInput` by field."""
    found = through(batch)
    pot = left_of(batch, found.checked.final.pot, given.grams)
    tray = tray_of(kitchen, given.tray)
    rules = rules_of(kitchen)
    from_c = given.from_c if given.from_c is not None else warm_c(batch, found)
    return [
        cool(pot, rules, place, tray, given.trays, from_c, given.covered, bench_min(batch))
        for place in places().values()
    ]


def bench_min(batch: Batch) -> float:
    """How long ``batch`` is off the fire, minutes."""
    off_fire = off_fire_at(batch)
    return 0.0 if off_fire is None else max(0.0, (now_of(batch) - off_fire).total_seconds() / 60.0)


def warm_c(batch: Batch, found: Following) -> float:
    """How warm ``batch`` is where nobody measures it now: cooled on from what a probe read last, else from what the
    sheet makes of it at the end of its cooking."""
    read, stood_min = last_probe(batch), bench_min(batch)
    pan = found.checked.pan
    if read is not None:
        return cooled_c(found.now, pan, min(read.minutes_ago, stood_min), read.celsius)
    return cooled_c(found.now, pan, stood_min, min(100.0, found.now.temperature_c))


@transaction.atomic
def put_away(
    kitchen: Kitchen,
    user: User,
    batch: Batch,
    given: PutAway,
    *,
    key: str,
    place: str,
    for_when: date | None,
    utc_offset_min: int = 0,
) -> Kept:
    """``given`` of ``batch``, cooling at ``place``; with a ``key`` that is there already, what was put away
    then. Raises :class:`BadInput` by field."""
    there = Kept.objects.filter(kitchen=kitchen, key=key).first()
    if there is not None:
        refuse_other_thing(there.batch_id, batch.pk)
        return there
    found = through(batch)
    final = found.checked.final
    pot, rules = left_of(batch, final.pot, given.grams), rules_of(kitchen)
    tray = tray_of(kitchen, given.tray)
    from_c = given.from_c if given.from_c is not None else warm_c(batch, found)
    cooling = cool(
        pot, rules, place_named(place), tray, given.trays, from_c, given.covered, bench_min(batch)
    )
    now, off_fire = now_of(batch), off_fire_at(batch)
    how_long = keeps(final.pot, rules.chilled_days, yolk_read_c(batch))
    made_at = (off_fire or now) + timedelta(minutes=utc_offset_min)
    kept = Kept.objects.create(
        kitchen=kitchen,
        key=key,
        batch=batch,
        name=batch.plan["name"],
        grams=round(pot.total_g, 1),
        grade=final.thickness.grade or "",
        viscosity_pa_s=final.thickness.viscosity_pa_s,
        allergens=sorted(final.pot.allergens),
        sheet=write_sheet(as_made(found)),
        place=place,
        tray=given.tray,
        trays=given.trays,
        cooling=plain(cooling),
        rules=rules.model_dump(mode="json"),
        use_by=min(use_by(made_at, how_long), keeps_until(batch) or date.max),
        keeps=str(how_long.words),
        for_when=for_when,
        off_fire_at=min(off_fire, now) if off_fire else None,
        put_c=given.from_c,
        put_at=now,
        put_by=user,
    )
    if left_of_it(batch, final.pot) < LEAST_G and batch.status == Batch.Status.ON:
        # It stands on no ring any more; that it is done is still to be written down.
        Batch.objects.filter(pk=batch.pk).update(
            put_away_at=now, ring="", timers=[], revision=F("revision") + 1
        )
        transaction.on_commit(lambda: tell(kitchen.pk, "batch", {"id": batch.pk}))
    told_of(kept)
    return kept


def left_of_it(batch: Batch, pot: Pot) -> float:
    """Grams of ``batch``, finished as ``pot``, that are not put away."""
    return pot.total_g - sum(batch.kept.values_list("grams", flat=True))


@transaction.atomic
def happen(
    kitchen: Kitchen,
    user: User,
    kept: Kept,
    given: Sequence[AnyEvent],
    sent_at: datetime | None = None,
) -> list[Event]:
    """``given`` happened to ``kept``, in order; what is there already is passed over. ``sent_at``: what the sender's
    clock showed (None: as ours). Raises :class:`BadInput` (``events[n].field``); then nothing of it is written."""
    off = timezone.now() - sent_at if sent_at else timedelta()
    if abs(off) < CLOCK_OFF:
        off = timedelta()
    kept = Kept.objects.select_for_update().get(pk=kept.pk)
    told = []
    for number, one in enumerate(given):
        there = Event.objects.filter(kitchen=kitchen, key=one.key).first()
        try:
            if there is None:
                doer = who_did(kitchen, user, one.done_by)
                there = written_down(kitchen, doer, kept, one, off)
            else:
                refuse_other_thing((there.kept_id, there.kind), (kept.pk, one.kind))
        except BadInput as bad:
            raise bad.under(f"events[{number}]") from None
        told.append(there)
    told_of(kept)
    return told


def written_down(
    kitchen: Kitchen, user: User, kept: Kept, one: AnyEvent, off: timedelta = timedelta()
) -> Event:
    """``one`` in the record of ``kept``; the clock it was told by is ``off``. Raises :class:`BadInput` by field."""
    data = _makes_sense(kept, one)
    try:
        at = one.at + off
    except OverflowError:
        at = moment_of(kept)
    earliest = kept.put_at
    if isinstance(one, Temperature):  # it may be of the pot, before it was put away
        earliest = kept.off_fire_at or kept.batch.started_at
    if off:
        data["clock_off_s"] = round(-off.total_seconds(), 1)
    return Event.objects.create(
        kitchen=kitchen,
        kept=kept,
        key=one.key,
        kind=one.kind,
        data=data,
        at=min(moment_of(kept), max(earliest, at)),
        by=user,
    )


def _makes_sense(kept: Kept, one: AnyEvent) -> dict[str, Any]:
    data: dict[str, Any] = one.model_dump(
        mode="json", exclude={"key", "at", "kind", "done_by"}, exclude_none=True
    )
    tray = getattr(one, "tray", None)
    if tray is not None and tray > kept.trays:
        raise BadInput.at("tray", "is-no-tray-of-it", trays=kept.trays)
    left = left_g(kept)
    if isinstance(one, Thrown) and one.grams is None:
        data["grams"] = left
    if isinstance(one, Drawn | Thrown):
        if isinstance(one.grams, str):
            data["grams"] = grams_of(kept, one.grams)
        if left < LEAST_G:
            raise BadInput.at("grams", "nothing-is-left-of-it")
        if data["grams"] > left + 0.5:
            raise BadInput.at("grams", "so-much-is-not-left", left_g=left)
    if isinstance(one, Drawn) and not one.although:
        states = [
            state for state in trays_of(kept, ahead=False) if one.tray in (None, state.number)
        ]
        if (failed := failed_words(states)) is not None:
            raise BadInput.at("although", "asks-before-it-is-used", failed=failed)
        if min(state.use_by for state in states) < timezone.localdate() and not frozen(kept):
            raise BadInput.at("although", "is-past-its-day")
    if isinstance(one, WasNotSo) and not corrected_event(kept, one.of):
        raise BadInput.at("of", "is-no-event-of-it")
    return data


def grams_of(kept: Kept, text: str) -> float:
    """Grams of what is kept in ``text``, where a bare number is grams: "600 mL", "3 ladles". Raises :class:`BadInput`
    (``grams``)."""
    ladles = core_kitchen(kept.kitchen).measures
    try:
        amount = ladles.read_of_sauce(text, "g")
    except BadInput as bad:
        raise bad.all_at("grams") from None
    if amount.dimension is Dimension.COUNT:
        raise BadInput.at("grams", "another-sauce-in-pieces")
    if amount.dimension is Dimension.WEIGHT:
        return round(amount.base, 1)
    return round(amount.base * g_per_ml(kept), 1)


def g_per_ml(kept: Kept) -> float:
    """How much a millilitre of what is kept weighs, g."""
    final = kept.batch.plan["final"]
    return max(0.5, float(final["mass_g"]) / max(1.0, float(final["volume_ml"])))


def left_g(kept: Kept) -> float:
    """Grams that are left of it."""
    gone = sum(
        float(one.data["grams"])
        for one in counted(list(kept.events.all()))
        if one.kind in ("drawn", "thrown")
    )
    return max(0.0, kept.grams - gone)


def fate_of(kept: Kept) -> tuple[float, float, list[str]]:
    """Grams of it that are still there, grams that were thrown away, and why."""
    thrown = [one for one in counted(list(kept.events.all())) if one.kind == "thrown"]
    grams = sum(float(one.data["grams"]) for one in thrown)
    return left_g(kept), grams, [str(one.data.get("reason") or "") for one in thrown]


def frozen(kept: Kept) -> bool:
    """Whether it is in the freezer now."""
    moves = [one for one in counted(list(kept.events.all())) if one.kind in ("frozen", "thawed")]
    return bool(moves) and moves[-1].kind == "frozen"


def back_of(kept: Kept, left: float) -> dict[str, Any] | None:
    """How ``left`` grams of it come back, warmed and let down to their grade."""
    kitchen, sheet = core_kitchen(kept.kitchen), read_sheet(kept.sheet)
    rules = rules_of(kept.kitchen)
    try:
        made = as_thick_as(sheet, kept.viscosity_pa_s, kitchen)
        back = brought_back(made, kept.grade or None, kitchen)
    except BadInput:
        return None
    share = left / max(1.0, check(sheet, kitchen).final.pot.total_g)
    if share <= 0.0:
        return None
    return {
        "ml": round(back.poured_ml * share, 0),
        "liquid": back.liquid.spoken_name,
        "minutes": round(back.minutes * share, 1),
        "cold_grade": back.cold_grade,
        "reheat_c": rules.reheat_c,
        "reheat_minutes": rules.reheat_minutes,
    }


class Apart(NamedTuple):
    """What tells kept sauce from the sauce it is of, by name: what it ``brings`` that is not in every version
    (it mended it, or the sauce is made without it by now; for a guest who asks, it is not that sauce: a kind of
    meat has no allergen), and what it ``lacks`` that was to go in, and was left out."""

    brings: list[str]
    lacks: list[str]


def apart(kept: Kept, kitchen: CoreKitchen) -> Apart:
    """What tells ``kept`` from its sauce; of what was cooked free hand, nothing."""
    version = kept.batch.version
    if version is None:
        return Apart([], [])
    try:
        own = [_ingredients(one.sheet) for one in version.sauce.versions.all()]
        there = _ingredients(kept.sheet)
        # What was warmed and put away again was to be what its sauce is.
        planned = _ingredients(version.sheet if kept.batch.drawn_key else kept.batch.sheet)
        spoken = {key: kitchen.larder[key].spoken_name for key in there | planned}
    except BadInput:  # what it was made with is not known any more: it is nobody's sauce then
        return Apart([str(say("kept.unknown"))], [])

    strange = [key for key in there if any(key not in one for one in own)]
    return Apart(
        sorted(spoken[key] for key in strange), sorted(spoken[key] for key in planned - there)
    )


def _ingredients(document: dict[str, Any]) -> frozenset[str]:
    """Keys of all that is in a sheet, in what it takes ready from a pot that stands too. Raises :class:`BadInput` as
    reading does."""
    return frozenset[str]().union(*(step.names() for step in read_sheet(document).steps))


def freezing_of(kept: Kept) -> Sentence | None:
    """What freezing does to it; None where it cannot be reckoned any more."""
    try:
        return freezing(check(read_sheet(kept.sheet), core_kitchen(kept.kitchen)).final.pot)
    except BadInput:
        return None


def told_of(kept: Kept) -> None:
    """Screens that show ``kept`` look again."""
    transaction.on_commit(lambda: tell(kept.kitchen_id, "kept", {"id": kept.pk}))
