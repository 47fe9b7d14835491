"""Cooking along."""

from collections.abc import Mapping
from typing import Any, cast

from django.http import HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import File, Form, Router, Status
from ninja.files import UploadedFile

from kestrel.accounts.auth import KitchenRequest
from kestrel.accounts.people import who_did
from kestrel.fields import Moment
from kestrel.larder.actions import core_kitchen
from kestrel.larder.means import library_of, means_of
from kestrel.problems import Message
from kestrel.sauces.actions import save_new
from kestrel.sauces.models import Sauce
from kestrel.sauces.work import Mended, mended
from kestrel.service.models import Service
from kestrel.stove import actions
from kestrel.stove.acts import ActsIn
from kestrel.stove.counting import counted, now_of
from kestrel.stove.doing import do
from kestrel.stove.following import (
    as_cooked,
    clashes,
    made_of,
    poured_g,
    told_of,
    waits,
)
from kestrel.stove.labels import make_label, text_of
from kestrel.stove.models import Batch, Label, Photo
from kestrel.stove.pans import sharing_a_pan
from kestrel.stove.photos import keep_photo
from kestrel.stove.probes import asks_of, probed_now, warms_to
from kestrel.stove.readings import readings_of
from kestrel.stove.schemas import (
    ActsOut,
    AheadOut,
    BatchLine,
    BatchOut,
    CorrectIn,
    FixHereIn,
    Hob,
    LabelOut,
    LabelsWanted,
    MakeSauceIn,
    PhotoOut,
    PotBegun,
    PotOfService,
    ReadingsOf,
    SauceMade,
    StartAsideIn,
    StartFreeIn,
    StartIn,
    StartPotIn,
)
from saucier.correction import Correction, SpoonSeen, correction_of, spoons_about
from saucier.errors import BadInput
from saucier.heat import POT_SHAPES, Pan, SideView
from saucier.run_up import Part, aside_of, aside_of_parts
from saucier.sheet import read_sheet, write_sheet
from saucier.watch import PotFollowed, ahead, case_found
from saucier.words import Sentence, say

router = Router(tags=["stove"])
photos = Router(tags=["stove"])


def batch_of(request: HttpRequest, batch_id: int) -> Batch:
    """The kitchen's batch; 404 for anybody else's."""
    kitchen = cast(KitchenRequest, request).kitchen
    rows = Batch.objects.select_related("version", "made_for").filter(kitchen=kitchen)
    return get_object_or_404(rows, pk=batch_id)


def _line(batch: Batch, sharing: Mapping[int, Sentence] | None = None) -> dict[str, Any]:
    """``sharing``: what is told of the pots that share a pan, where it is at hand."""
    sharing = sharing_a_pan(batch.kitchen) if sharing is None else sharing
    cards = batch.plan["cards"]
    at_end = batch.step >= len(cards)
    if batch.kind == Batch.Kind.FREE and not cards:
        title, cue, hands = say("free-empty"), say("free-empty-cue"), "now-and-then"
    elif at_end:
        title, cue, hands = say("at-the-end"), say("at-the-end-cue"), "now-and-then"
    else:
        card = cards[batch.step]
        title, cue, hands = card["title"], card["cue"], card.get("hands", "now-and-then")
    return {
        "id": batch.pk,
        "name": batch.plan["name"],
        "kind": batch.kind,
        "ring": batch.ring,
        "cook": batch.cook,
        "step": batch.step,
        "steps": len(cards),
        "title": title,
        "cue": cue,
        "hands": hands,
        "pan": "" if batch.kind == Batch.Kind.ASIDE else batch.plan["pan"]["name"],
        "shares_pan": sharing.get(batch.pk),
        "timers": batch.timers,
        "now": timezone.now(),
        "waits": waits(batch) if batch.status == Batch.Status.ON else None,
        "put_away": batch.put_away_at is not None,
    }


def _drawn(pan: dict[str, Any]) -> dict[str, Any] | SideView:
    """The pan of a plan with its outline, which batches of before do not have."""
    return pan if pan.get("outline") else SideView.of(Pan(**pan))


def _whole(batch: Batch) -> dict[str, Any]:
    acts = counted(batch)
    cooked = as_cooked(batch, acts)
    return {
        **_line(batch),
        "sauce_id": batch.version.sauce_id if batch.version else None,
        "version": batch.version.number if batch.version else None,
        "service_id": batch.service_id,
        "status": batch.status,
        "revision": batch.revision,
        "started_at": batch.started_at,
        "plan": {**batch.plan, "pan": _drawn(batch.plan["pan"])},
        "sheet": write_sheet(cooked.sheet),
        "began": batch.began,
        "cards": cooked.cards
        or [
            {**card, "left_out": number in cooked.left_out}
            for number, card in enumerate(batch.plan["cards"])
        ],
        "followed": cooked.followed,
        "followed_why": cooked.why,
        "spoons": _spoons(cooked.followed, batch.step),
        "acts": told_of(acts),
        "devices": list(batch.devices.all()),
        "poured_g": poured_g(batch),
        "probed": probed_now(batch, cooked.following),
        "asks": asks_of(batch),
        "reads_middle": warms_to(batch) is not None,
        "photos": [_photo(one) for one in batch.photos.defer("jpeg").select_related("by")],
        "labels": [label_told(one) for one in batch.labels.all()],
        "mends": batch.mends,
        "beside": [
            *(_beside(first, into=False) for first in batch.made_first.order_by("pk")),
            *([_beside(batch.made_for, into=True)] if batch.made_for else []),
        ],
    }


def _photo(photo: Photo) -> dict[str, Any]:
    told = {name: getattr(photo, name) for name in ("id", "step", "at", "width", "height")}
    return {**told, "by": photo.by.called if photo.by else ""}


def label_told(label: Label) -> dict[str, Any]:
    told = {
        name: getattr(label, name) for name in ("id", "copies", "document", "made_at", "printed_at")
    }
    return {**told, "text": text_of(label)}


def _spoons(followed: PotFollowed | None, step: int) -> tuple[SpoonSeen, ...]:
    """Spoons to pick from about where the pot is likely to be."""
    if followed is None or not followed.states:
        return ()
    eta = followed.states[min(step, len(followed.states) - 1)].viscosity_pa_s
    if followed.watched is not None:
        eta = followed.watched.viscosity_pa_s.value
    return spoons_about(min(30.0, max(0.06, eta))) if eta else ()


def _beside(batch: Batch, *, into: bool) -> dict[str, Any]:
    return {
        "id": batch.pk,
        "name": batch.plan["name"],
        "status": batch.status,
        "into": into,
    }


@router.get("", response=list[BatchLine])
def on_now(request: HttpRequest):
    """The pots that are on now."""
    kitchen = cast(KitchenRequest, request).kitchen
    batches = list(
        Batch.objects.filter(kitchen=kitchen, status=Batch.Status.ON).prefetch_related("devices")
    )
    told, sharing = clashes(batches), sharing_a_pan(kitchen)
    return [{**_line(batch, sharing), "clash": told.get(batch.pk)} for batch in batches]


@router.post("", response={201: BatchOut, 404: Message})
def start(request: HttpRequest, given: StartIn):
    """Start a saved sauce: its newest version, or the one named."""
    asking = cast(KitchenRequest, request)
    sauce = get_object_or_404(Sauce, kitchen=asking.kitchen, pk=given.sauce_id)
    version = get_object_or_404(sauce.versions, number=given.version or sauce.version)
    return Status(201, _whole(actions.start(asking.kitchen, asking.user, version)))


@router.post("/free", response={201: BatchOut})
def start_free(request: HttpRequest, given: StartFreeIn):
    """A pot cooked free hand: what goes in is logged as it does."""
    asking = cast(KitchenRequest, request)
    return Status(
        201, _whole(actions.start_free(asking.kitchen, asking.user, given.name, given.pan))
    )


@router.post("/asides", response={201: BatchOut})
def start_aside(request: HttpRequest, given: StartAsideIn):
    """What is no sauce: in, turned, out, rested."""
    asking = cast(KitchenRequest, request)
    if given.parts:
        parts = [Part(**part.dict()) for part in given.parts]
        aside = aside_of_parts(given.name, parts)
    else:
        way = library_of(asking.kitchen).way(given.way)
        aside = aside_of(given.name, way, given.minutes)
    batch = actions.start_aside(asking.kitchen, asking.user, aside, given.ingredient, given.task)
    return Status(201, _whole(batch))


@router.get("/hob", response=Hob)
def hob(request: HttpRequest):
    """What there is to cook on, who cooks, and the ways to cook what is no sauce."""
    kitchen = cast(KitchenRequest, request).kitchen
    means, ways = means_of(kitchen), library_of(kitchen).ways.values()
    return {
        "rings": [{"name": ring.name, "takes_cm": ring.takes_cm} for ring in means.rings],
        "pans": [pan.name for pan in means.pans if pan.shape in POT_SHAPES],
        "cooks": [cook.name for cook in means.cooks],
        "ways": [way for way in ways if way.minutes > 0.0],
    }


@router.get("/of-service/{service_id}", response={200: list[PotOfService], 404: Message})
def of_service(request: HttpRequest, service_id: int):
    """The batches of a service: on the stove, or done."""
    kitchen = cast(KitchenRequest, request).kitchen
    service = get_object_or_404(Service, kitchen=kitchen, pk=service_id)
    rows = Batch.objects.filter(service=service).exclude(status=Batch.Status.LEFT)
    return [
        {"id": row.pk, "pot": row.pot, "name": row.plan["name"], "status": row.status}
        for row in rows
    ]


@router.post(
    "/of-service/{service_id}",
    response={201: BatchOut, 404: Message, 409: PotBegun},
)
def start_pot(request: HttpRequest, service_id: int, given: StartPotIn):
    """Start a pot of a service as it is saved: one batch of it, in its sauces' versions there. 409 where as
    many as planned were begun, and where it asks before it draws on what nothing shows to have cooled in time."""
    asking = cast(KitchenRequest, request)
    service = get_object_or_404(Service, kitchen=asking.kitchen, pk=service_id)
    batch = actions.start_pot(
        asking.kitchen,
        asking.user,
        service,
        given.pot,
        one_more=given.one_more,
        use_unshown=given.use_unshown,
    )
    return Status(201, _whole(batch))


@router.get("/{batch_id}", response={200: BatchOut, 404: Message})
def one_batch(request: HttpRequest, batch_id: int):
    return _whole(batch_of(request, batch_id))


@router.get("/{batch_id}/ahead", response={200: AheadOut, 404: Message})
def what_is_ahead(request: HttpRequest, batch_id: int):
    """What will be believed of it by the minute, and after one more look: what a device goes by where the network is
    cut, and between two words of the server."""
    batch = batch_of(request, batch_id)
    found = as_cooked(batch).following
    watching = found.watching if found and batch.status == Batch.Status.ON else None
    return {
        "at": now_of(batch),
        "step": batch.step,
        "revision": batch.revision,
        "ahead": None if watching is None else ahead(watching),
    }


@router.get("/{batch_id}/readings", response={200: ReadingsOf, 404: Message})
def batch_readings(request: HttpRequest, batch_id: int):
    """What scales and probes read of it, from its beginning."""
    return readings_of(batch_of(request, batch_id))


@router.post("/{batch_id}/acts", response={200: ActsOut, 404: Message})
def act(request: HttpRequest, batch_id: int, given: ActsIn):
    """What was done at it, in order. An act that is sent again happens once; one that came too late is
    written down and says why it changed nothing."""
    asking = cast(KitchenRequest, request)
    batch = batch_of(request, batch_id)
    told = do(asking.kitchen, asking.user, batch, given.acts, given.sent_at)
    return {"acts": told, "batch": _whole(batch_of(request, batch_id))}


@router.post("/{batch_id}/fix", response={200: Mended, 404: Message})
def fix_here(request: HttpRequest, batch_id: int, given: FixHereIn):
    """What mends it, reckoned from the pot as it is now: what went in, and all that was seen of it."""
    batch = batch_of(request, batch_id)
    cooked = as_cooked(batch)
    if cooked.following is None:
        raise BadInput.at("batch", "no-pot-to-mend")
    kitchen = core_kitchen(batch.kitchen)
    return mended(case_found(cooked.following, kitchen), given.sign)


@router.post("/{batch_id}/correct", response={200: Correction, 404: Message})
def correct_here(request: HttpRequest, batch_id: int, given: CorrectIn):
    """How much of what was held back goes in, of the pot there is, seen to be so thick."""
    batch = batch_of(request, batch_id)
    found = as_cooked(batch).following
    if found is None:
        raise BadInput.at("batch", "no-pot-to-mend")
    return correction_of(found.checked, batch.step, given.seen_pa_s)


@router.post("/{batch_id}/sauce", response={201: SauceMade, 404: Message})
def make_sauce(request: HttpRequest, batch_id: int, given: MakeSauceIn):
    """A sauce made of it as it was cooked: what went in, how far it boiled down, how thick it was judged."""
    asking = cast(KitchenRequest, request)
    made = made_of(batch_of(request, batch_id))
    document = {**write_sheet(made), "name": given.name.strip()}
    sauce = save_new(asking.kitchen, asking.user, read_sheet(document))
    return Status(201, {"sauce_id": sauce.pk})


@router.post("/{batch_id}/photos", response={201: PhotoOut, 404: Message})
def add_photo(
    request: HttpRequest,
    batch_id: int,
    file: File[UploadedFile],
    key: Form[str],
    at: Form[Moment],
    step: Form[int],
    done_by: Form[int | None] = None,
):
    """A photograph: made small, and stripped of where it was taken. ``key`` and ``done_by`` as of an act."""
    asking = cast(KitchenRequest, request)
    taker = who_did(asking.kitchen, asking.user, done_by)
    return Status(201, _photo(keep_photo(batch_of(request, batch_id), taker, file, key, at, step)))


@photos.get("/{photo_id}", response={200: None, 404: Message})
def photo(request: HttpRequest, photo_id: int):
    """The picture, as JPEG."""
    kitchen = cast(KitchenRequest, request).kitchen
    found = get_object_or_404(Photo, kitchen=kitchen, pk=photo_id)
    return HttpResponse(
        bytes(found.jpeg),
        content_type="image/jpeg",
        headers={"Cache-Control": "private, max-age=31536000, immutable"},
    )


@router.post("/{batch_id}/labels", response={201: LabelOut, 404: Message})
def new_label(request: HttpRequest, batch_id: int, given: LabelsWanted):
    """A label for what is put away; printers fetch it, and it can be printed from the browser."""
    batch, user = batch_of(request, batch_id), cast(KitchenRequest, request).user
    made = make_label(
        batch,
        user,
        opens=request.build_absolute_uri(f"/stove/{batch.pk}"),
        copies=given.copies,
        mass_g=given.mass_g,
        utc_offset_min=given.utc_offset_min,
    )
    return Status(201, label_told(made))
