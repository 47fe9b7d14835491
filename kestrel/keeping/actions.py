"""Putting sauces away and what becomes of them, one transaction each."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from typing import Any, NamedTuple

from django.db import transaction
from django.utils import timezone
from pydantic import TypeAdapter

from kestrel.accounts.models import Kitchen, User
from kestrel.keeping.events import AnyEvent, Drawn, Thrown, WasNotSo, counted
from kestrel.keeping.models import Event, Kept
from kestrel.larder.actions import core_kitchen, rules_of
from kestrel.larder.models import Pan
from kestrel.live import tell
from kestrel.stove.following import as_cooked
from kestrel.stove.models import Batch
from saucier.check import check, larder_of
from saucier.errors import BadInput
from saucier.heat import Pan as CorePan
from saucier.keeping import (
    Cooling,
    CoolingSeen,
    Rules,
    cool,
    freezing,
    keeps,
    place_named,
    places,
    read_rules,
    seen_cooling,
    use_by,
)
from saucier.kitchen import Kitchen as CoreKitchen
from saucier.pot import EMPTY, Pot
from saucier.rescue import brought_back
from saucier.sheet import read_sheet, write_sheet
from saucier.watch import Following, with_mends
from saucier.words import Sentence, plain, say

LEAST_G = 1.0
_COOLING = TypeAdapter(Cooling)


@dataclass(frozen=True, slots=True)
class PutAway:
    """What is to be put away: ``grams`` of it (None: all there is), in ``trays`` of ``tray`` (one of the
    larder's pans), ``from_c`` warm (None: as it was), under film where ``covered``."""

    grams: float | None
    tray: str
    trays: int = 1
    from_c: float | None = None
    covered: bool = True


def through(batch: Batch) -> Following:
    """A batch that is cooked, as it was. Raises :class:`BadInput` (``batch``) where there is nothing of it,
    or not yet."""
    found = as_cooked(batch).following
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
    share = grams / pot.total_g
    pieces = tuple(piece.share(share) for piece in pot.pieces)
    return pot._replace(balance=EMPTY.plus(pot.balance, share), pieces=pieces)


def left_of(batch: Batch, pot: Pot, grams: float | None) -> Pot:
    """So much of what is not put away yet of ``batch`` (None: all of that). Raises :class:`BadInput`
    (``grams`` or ``batch``)."""
    there = pot.total_g - sum(batch.kept.values_list("grams", flat=True))
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
    pot = left_of(batch, through(batch).checked.final.pot, given.grams)
    tray = tray_of(kitchen, given.tray)
    rules = rules_of(kitchen)
    return [
        cool(pot, rules, place, tray, given.trays, given.from_c, given.covered)
        for place in places().values()
    ]


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
        return there
    found = through(batch)
    final = found.checked.final
    pot, rules = left_of(batch, final.pot, given.grams), rules_of(kitchen)
    tray = tray_of(kitchen, given.tray)
    cooling = cool(pot, rules, place_named(place), tray, given.trays, given.from_c, given.covered)
    how_long, now = keeps(final.pot, rules.chilled_days), timezone.now()
    made_at = (batch.ended_at or now) + timedelta(minutes=utc_offset_min)
    kept = Kept.objects.create(
        kitchen=kitchen,
        key=key,
        batch=batch,
        name=batch.plan["name"],
        grams=round(pot.total_g, 1),
        grade=final.thickness.grade or "",
        viscosity_pa_s=final.thickness.viscosity_pa_s,
        allergens=sorted(final.pot.allergens),
        sheet=write_sheet(with_mends(found.checked.sheet, found.mends)),
        place=place,
        tray=given.tray,
        trays=given.trays,
        cooling=plain(cooling),
        rules=rules.model_dump(mode="json"),
        use_by=use_by(made_at, how_long),
        keeps=str(how_long.words),
        for_when=for_when,
        put_at=now,
        put_by=user,
    )
    told_of(kept)
    return kept


@transaction.atomic
def happen(kitchen: Kitchen, user: User, kept: Kept, given: Sequence[AnyEvent]) -> list[Event]:
    """``given`` happened to ``kept``, in order; what is there already is passed over. Raises
    :class:`BadInput` (``events[n].field``)."""
    kept = Kept.objects.select_for_update().get(pk=kept.pk)
    told = []
    for number, one in enumerate(given):
        there = Event.objects.filter(kitchen=kitchen, key=one.key).first()
        if there is None:
            try:
                data = _makes_sense(kept, one)
            except BadInput as bad:
                raise bad.under(f"events[{number}]") from None
            there = Event.objects.create(
                kitchen=kitchen,
                kept=kept,
                key=one.key,
                kind=one.kind,
                data=data,
                at=min(timezone.now(), max(kept.put_at, one.at)),
                by=user,
            )
        told.append(there)
    told_of(kept)
    return told


def _makes_sense(kept: Kept, one: AnyEvent) -> dict[str, Any]:
    data: dict[str, Any] = one.model_dump(mode="json", exclude={"key", "at", "kind"})
    left = left_g(kept)
    if isinstance(one, Thrown) and one.grams is None:
        data["grams"] = left
    if isinstance(one, Drawn | Thrown):
        if left < LEAST_G:
            raise BadInput.at("grams", "nothing-is-left-of-it")
        if data["grams"] > left + 0.5:
            raise BadInput.at("grams", "so-much-is-not-left", left_g=left)
    if isinstance(one, WasNotSo):
        of = kept.events.filter(key=one.of).first()
        if of is None or of.kind == "corrected" or of not in counted(list(kept.events.all())):
            raise BadInput.at("of", "is-no-event-of-it")
    return data


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


def probed(kept: Kept) -> list[tuple[float, float]]:
    """What a probe read of it since it was put away, by device or by hand: (minute, °C), in order."""
    read = [
        (_minutes(kept, at), value)
        for at, value in kept.batch.readings.filter(kind="probe", at__gte=kept.put_at).values_list(
            "at", "value"
        )
    ]
    read += [
        (_minutes(kept, one.at), float(one.data["celsius"]))
        for one in counted(list(kept.events.all()))
        if one.kind == "temperature"
    ]
    return sorted(read)


def _minutes(kept: Kept, at: datetime) -> float:
    return round(max(0.0, (at - kept.put_at).total_seconds() / 60.0), 2)


def cooling_of(kept: Kept) -> Cooling:
    """What was reckoned for it when it was put away."""
    return _COOLING.validate_python(kept.cooling)


def seen_of(kept: Kept) -> CoolingSeen | None:
    """Its cooling as a probe has it. None: nothing was read."""
    return seen_cooling(cooling_of(kept), rules_then(kept), probed(kept))


def back_of(kept: Kept, left: float) -> dict[str, Any] | None:
    """How ``left`` grams of it come back, warmed and let down to their grade."""
    kitchen, sheet = core_kitchen(kept.kitchen), read_sheet(kept.sheet)
    rules = rules_of(kept.kitchen)
    try:
        back = brought_back(sheet, kept.grade or None, kitchen)
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
        own = [
            set(larder_of(read_sheet(one.sheet), kitchen)) for one in version.sauce.versions.all()
        ]
        there = larder_of(read_sheet(kept.sheet), kitchen)
        planned = larder_of(read_sheet(kept.batch.sheet), kitchen)
    except BadInput:  # what it was made with is not known any more: it is nobody's sauce then
        return Apart([str(say("kept.unknown"))], [])

    def named(keys: Iterable[str]) -> list[str]:
        return sorted(kitchen.larder[key].spoken_name for key in keys)

    strange = [key for key in there if any(key not in one for one in own)]
    return Apart(named(strange), named(planned.keys() - there.keys()))


def freezing_of(kept: Kept) -> Sentence | None:
    """What freezing does to it; None where it cannot be reckoned any more."""
    try:
        return freezing(check(read_sheet(kept.sheet), core_kitchen(kept.kitchen)).final.pot)
    except BadInput:
        return None


def rules_then(kept: Kept) -> Rules:
    """The rules that were in force."""
    return read_rules(kept.rules)


def told_of(kept: Kept) -> None:
    """Screens that show ``kept`` look again."""
    transaction.on_commit(lambda: tell(kept.kitchen_id, "kept", {"id": kept.pk}))
