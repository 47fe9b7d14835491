"""Keeping: what is cooling, what is in the fridge, and the record of it."""

from datetime import timedelta
from typing import Any, cast

from django.db.models import QuerySet, Sum
from django.db.models.functions import Coalesce
from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router, Status

from kestrel.accounts.auth import KitchenRequest
from kestrel.accounts.people import who_did
from kestrel.fields import Day
from kestrel.keeping import actions
from kestrel.keeping.actions import (
    PutAway,
    apart,
    back_of,
    freezing_of,
    frozen,
    left_g,
    through,
    warm_c,
)
from kestrel.keeping.events import Drawn, counted
from kestrel.keeping.models import Kept
from kestrel.keeping.records import as_csv, record
from kestrel.keeping.schemas import (
    BatchBegun,
    CoolIn,
    EventsIn,
    KeptLine,
    KeptOut,
    PutAwayIn,
    ReadPoint,
    RecordLine,
    RulesIn,
    RulesOut,
    WarmForServiceIn,
    Where,
)
from kestrel.keeping.trays import (
    TrayState,
    cooling_of,
    due_at,
    failed_words,
    measured_of,
    minutes_of,
    moment_of,
    rules_then,
    trays_of,
    with_readings,
)
from kestrel.keeping.warming import warm_for_service, warm_up
from kestrel.larder.actions import core_kitchen, rules_of, set_rules
from kestrel.larder.models import Pan
from kestrel.problems import Message
from kestrel.service.models import Service
from kestrel.stove.api import batch_of, label_told
from kestrel.stove.following import off_fire_at
from kestrel.stove.labels import Cooled, make_label
from kestrel.stove.models import Batch, Device, Label
from kestrel.stove.probes import yolk_read_c
from kestrel.stove.schemas import LabelOut, LabelsWanted, PotBegun
from kestrel.stove.typed import grams_typed, without_pan
from saucier.dish import HeatedThrough, heated_through
from saucier.dish.tint import is_green
from saucier.errors import BadInput, Problem
from saucier.keeping import Cooling, HoldingHot, held_hot, keeps, places, shipped_rules, use_by
from saucier.kitchen import Kitchen as CoreKitchen
from saucier.words import Sentence, say

router = Router(tags=["keeping"])
RECENT = timedelta(hours=24)
MOST_DAYS = 400
MOST_POSSIBLE = 12


def _kitchen(request: HttpRequest) -> Any:
    return cast(KitchenRequest, request).kitchen


def _kept(request: HttpRequest, kept_id: int) -> Kept:
    return get_object_or_404(_rows(request), pk=kept_id)


def _rows(request: HttpRequest) -> QuerySet[Kept]:
    rows = Kept.objects.filter(kitchen=_kitchen(request))
    rows = rows.select_related("batch__version__sauce")
    return with_readings(rows).prefetch_related("batch__version__sauce__versions")


def _line(kept: Kept, kitchen: CoreKitchen, trays: list[TrayState] | None = None) -> dict[str, Any]:
    trays = trays_of(kept) if trays is None else trays
    left, state, today = left_g(kept), "kept", timezone.localdate()
    there = [tray for tray in trays if not tray.gone] or trays
    use_by_day = min(tray.use_by for tray in there)
    failed = failed_words(trays)
    words: Sentence | None = None
    missed = False
    if left < actions.LEAST_G:
        state = "gone"
    elif frozen(kept):
        state, words = "frozen", failed
    else:
        ahead = (tray.forecast.words for tray in there if tray.forecast is not None)
        coming = next((one for one in ahead if one is not None), None)
        acted_at = max(
            (one.at for one in counted(list(kept.events.all())) if one.kind == "action"),
            default=None,
        )
        if coming is not None and acted_at is not None:
            # What was done about it counts until the next reading says otherwise.
            read_since = any(one.at > acted_at for tray in there for one in tray.measured)
            coming = coming if read_since else None
        words = failed or coming
        missed = coming is not None or (failed is not None and acted_at is None)
        if use_by_day < today:
            state, words = "over", say("kept.over")
        elif any(tray.facts.is_open for tray in there):
            state = "cooling"
        elif use_by_day == today:
            state, words = "today", words or say("kept.today")
    return {
        "id": kept.pk,
        "batch_id": kept.batch_id,
        "sauce_id": kept.batch.version.sauce_id if kept.batch.version else None,
        "code": f"B{kept.batch_id}",
        **{
            name: getattr(kept, name)
            for name in (
                "key",
                "name",
                "grams",
                "grade",
                "viscosity_pa_s",
                "allergens",
                "place",
                "tray",
                "trays",
                "put_at",
                "keeps",
                "for_when",
            )
        },
        **apart(kept, kitchen)._asdict(),
        "use_by": use_by_day,
        "age_days": max(0, (timezone.now() - kept.put_at).days),
        "left_g": round(left, 1),
        "state": state,
        "words": words,
        "missed": missed,
        "unshown": failed is not None and state != "gone",
    }


def _whole(kept: Kept) -> dict[str, Any]:
    events = list(kept.events.all())
    counts = {one.key for one in counted(events)}
    trays = trays_of(kept)
    line = _line(kept, core_kitchen(kept.kitchen), trays)
    return {
        **line,
        "back": back_of(kept, line["left_g"]),
        "freezing": freezing_of(kept),
        "cooling": cooling_of(kept),
        "off_fire_min": minutes_of(kept, kept.off_fire_at) if kept.off_fire_at else None,
        "lots": [_tray(kept, tray) for tray in trays],
        "read": [
            {name: getattr(one, name) for name in ReadPoint.model_fields}
            for one in measured_of(kept)[-300:]
        ],
        "devices": list(
            Device.objects.filter(kitchen=kept.kitchen_id, kind="probe", stopped_at=None)
        ),
        "now_min": round(minutes_of(kept, moment_of(kept)), 1),
        "rules": rules_then(kept).told,
        "events": [
            {
                "key": one.key,
                "kind": one.kind,
                "at": one.at,
                "data": one.data,
                "by": one.by_name,
                "void": one.key not in counts,
                "set_aside": one.set_aside,
            }
            for one in events
        ],
    }


def _tray(kept: Kept, tray: TrayState) -> dict[str, Any]:
    return {
        "number": tray.number,
        "stages": [
            {
                "to_c": stage.to_c,
                "limit_min": stage.limit_min,
                "verdict": stage.verdict,
                "at_least_min": stage.at_least_min,
                "at_most_min": stage.at_most_min,
                "due_min": stage.due_min,
                "words": stage.shown_by,
                "warmed_again": bool(stage.warmed_again),
            }
            for stage in tray.facts.stages
        ],
        "forecast": tray.forecast,
        "use_by": tray.use_by,
        "failed": tray.failed,
        "gone": tray.gone,
    }


@router.get("", response=list[KeptLine])
def in_keeping(request: HttpRequest, gone: bool = False):
    """What is kept, oldest first; with ``gone``, what is used up too."""
    kitchen = core_kitchen(_kitchen(request))
    # What is used up is most of it after a year: it is left out before anything is reckoned.
    there = [kept for kept in _rows(request) if gone or left_g(kept) >= actions.LEAST_G]
    return [_line(kept, kitchen) for kept in there]


@router.get("/where", response=Where)
def where(request: HttpRequest):
    """What could be put away now, in what and where, and the rules in force."""
    kitchen = _kitchen(request)
    rules = rules_of(kitchen)
    since = timezone.now() - RECENT
    batches = Batch.objects.filter(kitchen=kitchen).exclude(status=Batch.Status.LEFT)
    batches = batches.annotate(kept_g=Coalesce(Sum("kept__grams"), 0.0))
    possible = []
    recent = batches.exclude(kind=Batch.Kind.ASIDE).filter(started_at__gte=since)
    for batch in recent.order_by("-started_at")[:MOST_POSSIBLE]:
        try:
            found = through(batch)
        except BadInput:
            continue
        final = found.checked.final
        left = final.pot.total_g - batch.kept_g
        if left < actions.LEAST_G:
            continue
        how_long = keeps(final.pot, rules.chilled_days, yolk_read_c(batch))
        possible.append(
            {
                "batch_id": batch.pk,
                "name": batch.plan["name"],
                "grams": round(left, 0),
                "temperature_c": round(warm_c(batch, found), 0),
                "keeps": how_long.words,
                "use_by": use_by(off_fire_at(batch) or timezone.now(), how_long),
            }
        )
    return {
        "places": [one.told for one in places().values()],
        "trays": list(Pan.objects.filter(kitchen=kitchen).values_list("name", flat=True)),
        "rules": rules.told,
        "possible": possible,
    }


@router.post("/cooling", response={200: list[Cooling], 404: Message})
def cooling(request: HttpRequest, given: CoolIn):
    """How it would cool at each place, quickest first, and whether that is quick enough."""
    batch = batch_of(request, given.batch_id)
    return actions.cooled_everywhere(_kitchen(request), batch, _put_away(given, batch))


@router.post("", response={201: KeptOut, 404: Message})
def put_away(request: HttpRequest, given: PutAwayIn):
    """Put so much of a batch away. Sent twice it is put away once."""
    asking, batch = cast(KitchenRequest, request), batch_of(request, given.batch_id)
    kept = actions.put_away(
        asking.kitchen,
        asking.user,
        batch,
        _put_away(given, batch),
        key=given.key,
        place=given.place,
        for_when=given.for_when,
        utc_offset_min=given.utc_offset_min,
    )
    return Status(201, _whole(kept))


def _put_away(given: CoolIn, batch: Batch) -> PutAway:
    """As it was given, with its grams read as they are typed. Raises :class:`BadInput` (``grams``)."""
    problems: list[Problem] = []
    grams = given.grams
    if isinstance(grams, str):
        grams = grams_typed(grams, "grams", problems)
    if grams is not None and given.with_pan and not problems:
        grams = without_pan(grams, batch.plan["pan"], "grams", problems)
    if problems:
        raise BadInput(*problems)
    return PutAway(grams, given.tray, given.trays, given.from_c, given.covered)


@router.get("/rules", response=RulesOut)
def rules(request: HttpRequest):
    """The rule sets that ship, and the one this kitchen goes by."""
    shipped = [one.told for one in shipped_rules().values()]
    return {"chosen": rules_of(_kitchen(request)).told, "shipped": shipped}


@router.put("/rules", response={200: RulesOut})
def choose_rules(request: HttpRequest, given: RulesIn):
    """Go by a shipped rule set, or by one of its own. What was put away before keeps its own."""
    set_rules(_kitchen(request), given.rules)
    return rules(request)


@router.get("/holding", response={200: HoldingHot, 404: Message})
def holding(request: HttpRequest, batch_id: int, at_c: float, covered: bool):
    """A finished batch kept hot: what goes off it, how thick it is then, what brings it back."""
    found = through(batch_of(request, batch_id)).checked
    rules = rules_of(_kitchen(request))
    green = is_green(found.sheet, core_kitchen(_kitchen(request)))
    return held_hot(found.final.pot, found.pan, at_c, covered, rules.hot_c, green=green)


@router.get("/heating", response={200: HeatedThrough})
def heating(request: HttpRequest, depth_mm: float, oven_c: float, fan: bool, covered: bool):
    """A filled dish from the fridge until its middle is as hot as the rules want."""
    oven = "fan" if fan else "still"
    return heated_through(depth_mm, oven_c, oven, covered, rules_of(_kitchen(request)))


@router.get("/records", response={200: list[RecordLine]})
def records(request: HttpRequest, first: Day, last: Day, offset: int = 0):
    """The record from day to day, in order."""
    return _record(request, first, last, offset)


@router.get("/records.csv", response={200: None})
def records_csv(request: HttpRequest, first: Day, last: Day, offset: int = 0):
    """The same as CSV."""
    return HttpResponse(
        as_csv(_record(request, first, last, offset)),
        content_type="text/csv; charset=utf-8",
        headers={"Content-Disposition": f'attachment; filename="record-{first}-{last}.csv"'},
    )


def _record(request: HttpRequest, first: Day, last: Day, offset: int) -> list[dict[str, Any]]:
    if not 0 <= (last - first).days <= MOST_DAYS:
        raise BadInput.at("last", "record-is-too-long", most=MOST_DAYS)
    if not -840 <= offset <= 840:
        raise BadInput.at("offset", "is-no-offset")
    return record(_kitchen(request), first, last, offset)


@router.get("/code/{code}", response={200: KeptLine, 404: Message})
def by_code(request: HttpRequest, code: str):
    """What is kept under the code of a label, the newest of it."""
    number = code.strip().upper().removeprefix("B")
    if not (number.isascii() and number.isdigit() and len(number) < 12):
        return Status(404, {"message": "No such code."})
    rows = _rows(request)
    # Labels that were stuck on in another kitchen, and came with it, bear the codes of there.
    labelled = Label.objects.filter(kitchen=_kitchen(request), document__code=f"B{int(number)}")
    batches = {int(number), *labelled.values_list("batch_id", flat=True)}
    found = list(rows.filter(batch_id__in=batches))
    if not found:
        return Status(404, {"message": "Nothing is kept under that code."})
    if len({kept.batch_id for kept in found}) > 1:
        names = " and ".join(sorted({f"{kept.name} of {kept.put_at:%d %b}" for kept in found}))
        return Status(404, {"message": f"Two batches bear that code: {names}. Pick it below."})
    return _line(found[-1], core_kitchen(found[-1].kitchen))


@router.get("/{kept_id}", response={200: KeptOut, 404: Message})
def one_kept(request: HttpRequest, kept_id: int):
    return _whole(_kept(request, kept_id))


@router.post("/{kept_id}/events", response={200: KeptOut, 404: Message})
def happen(request: HttpRequest, kept_id: int, given: EventsIn):
    """What happened to it. Sent twice it happened once; it is never rewritten, only corrected."""
    asking = cast(KitchenRequest, request)
    kept = _kept(request, kept_id)
    actions.happen(asking.kitchen, asking.user, kept, given.events, given.sent_at)
    return _whole(_kept(request, kept_id))


@router.post("/{kept_id}/warm", response={201: BatchBegun, 404: Message})
def warm(request: HttpRequest, kept_id: int, given: Drawn):
    """So much of it on the stove: drawn from its tray, a pot that is warmed and let down. Sent twice it happens
    once."""
    asking = cast(KitchenRequest, request)
    doer = who_did(asking.kitchen, asking.user, given.done_by)
    batch = warm_up(asking.kitchen, doer, _kept(request, kept_id), given)
    return Status(201, {"batch_id": batch.pk})


@router.post("/for-service/{service_id}", response={201: BatchBegun, 404: Message, 409: PotBegun})
def warm_of_service(request: HttpRequest, service_id: int, given: WarmForServiceIn):
    """What a service takes of a sauce that is kept, on the stove. 409 where it asks before it draws on what nothing
    shows to have cooled in time."""
    asking = cast(KitchenRequest, request)
    service = get_object_or_404(Service, kitchen=asking.kitchen, pk=service_id)
    batch = warm_for_service(asking.kitchen, asking.user, service, given.task, given.use_unshown)
    return Status(201, {"batch_id": batch.pk})


@router.post("/{kept_id}/labels", response={201: list[LabelOut], 404: Message})
def labels_of_trays(request: HttpRequest, kept_id: int, given: LabelsWanted):
    """A label for each tray that is there: with its use-by as readings have shown it, or what still has to be shown
    by when."""
    kept, user = _kept(request, kept_id), cast(KitchenRequest, request).user
    made = [
        make_label(
            kept.batch,
            user,
            opens=request.build_absolute_uri(f"/stove/{kept.batch_id}"),
            copies=given.copies,
            mass_g=given.mass_g or kept.grams / kept.trays,
            utc_offset_min=given.utc_offset_min,
            cooled=Cooled(tray.use_by, tuple(due_at(kept, tray))),
        )
        for tray in trays_of(kept, ahead=False)
        if not tray.gone
    ]
    return Status(201, [label_told(one) for one in made])
