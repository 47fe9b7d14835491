"""The whole kitchen, out and in."""

import tempfile
from datetime import datetime
from typing import cast

from django.conf import settings
from django.http import FileResponse, Http404, HttpRequest
from django.utils import timezone
from django.utils.text import slugify
from ninja import File, Router, Schema, Status
from ninja.files import UploadedFile

from kestrel.accounts.auth import KitchenRequest, as_owner
from kestrel.accounts.models import Kitchen
from kestrel.door.answers import NotYours
from kestrel.problems import Message
from kestrel.whole.backup import KEPT_DAYS, back_up, copies
from kestrel.whole.reading import MOST_UPLOAD, is_empty, read_kitchen
from kestrel.whole.writing import write_kitchen
from saucier.errors import BadInput
from saucier.words import say

router = Router(tags=["whole kitchen"])


class TakenIn(Schema):
    """How many of each were taken in."""

    counts: dict[str, int]


class WholeKitchen(Schema):
    """``empty``: a kitchen can be taken in."""

    name: str
    empty: bool


@router.get("", response=WholeKitchen)
def about(request: HttpRequest):
    """Whether a whole kitchen can be taken in here."""
    kitchen = cast(KitchenRequest, request).kitchen
    return {"name": kitchen.name, "empty": is_empty(kitchen)}


class CopyOut(Schema):
    name: str
    made_at: datetime
    size: int


class Copies(Schema):
    """Copies of the server's file, newest first; ``daily``: one of each day is kept for ``days``. ``alone``:
    no other kitchen is in them, so that they may be fetched."""

    copies: list[CopyOut]
    daily: bool
    days: int
    folder: str
    alone: bool


class DailyIn(Schema):
    daily: bool


def _copies(kitchen: Kitchen) -> dict[str, object]:
    return {
        "copies": copies(),
        "daily": kitchen.daily_copies,
        "days": KEPT_DAYS,
        "folder": str(settings.BACKUPS),
        "alone": Kitchen.objects.count() == 1,
    }


@router.get("/copies", response={200: Copies, 403: Message})
def list_copies(request: HttpRequest):
    return _copies(as_owner(request).kitchen)


@router.post("/copies", response={201: CopyOut, 403: Message})
def make_copy(request: HttpRequest):
    """A copy of the whole file as it is now, beside it on the machine that serves."""
    as_owner(request)
    return Status(201, back_up(timezone.now()))


@router.put("/copies", response={200: Copies, 403: Message})
def keep_daily(request: HttpRequest, given: DailyIn):
    """Whether one of each day is kept, for a week."""
    kitchen = as_owner(request).kitchen
    kitchen.daily_copies = given.daily
    kitchen.save(update_fields=["daily_copies"])
    return _copies(kitchen)


@router.get("/copies/{name}", response={200: None, 403: Message, 404: Message})
def fetch_copy(request: HttpRequest, name: str):
    """A copy, to keep elsewhere. Only where no other kitchen is in it."""
    as_owner(request)
    if Kitchen.objects.count() > 1:
        raise NotYours(say("copy-has-other-kitchens"))
    if name not in {one.name for one in copies()}:
        raise Http404
    try:
        copy = (settings.BACKUPS / name).open("rb")
    except FileNotFoundError:  # taken away since it was listed
        raise Http404 from None
    return FileResponse(copy, as_attachment=True, filename=name)


@router.get("/kitchen.zip", response={200: None})
def export(request: HttpRequest):
    """Everything of this kitchen as one zip of open formats (docs/formats/kitchen)."""
    kitchen = cast(KitchenRequest, request).kitchen
    file = tempfile.TemporaryFile()  # noqa: SIM115  the response closes it
    write_kitchen(kitchen, file)
    file.seek(0)
    name = slugify(kitchen.name) or "kitchen"
    return FileResponse(
        file, as_attachment=True, filename=f"{name}.zip", content_type="application/zip"
    )


@router.post("", response={201: TakenIn})
def take_in(request: HttpRequest, file: File[UploadedFile]):
    """A whole kitchen into this one, which is empty: all of it, or nothing."""
    asking = cast(KitchenRequest, request)
    if (file.size or 0) > MOST_UPLOAD:
        raise BadInput.at("file", "file-in-zip-is-too-large", most_mb=MOST_UPLOAD / 1024 / 1024)
    opened = file.file or file
    return Status(201, {"counts": read_kitchen(asking.kitchen, asking.user, opened)})
