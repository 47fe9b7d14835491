"""The whole kitchen, out and in."""

import tempfile
from typing import cast

from django.http import FileResponse, HttpRequest
from django.utils.text import slugify
from ninja import File, Router, Schema, Status
from ninja.files import UploadedFile

from kestrel.accounts.auth import KitchenRequest
from kestrel.problems import Problems
from kestrel.whole.reading import MOST_UPLOAD, is_empty, read_kitchen
from kestrel.whole.writing import write_kitchen
from saucier.errors import BadInput

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


@router.post("", response={201: TakenIn, 422: Problems})
def take_in(request: HttpRequest, file: File[UploadedFile]):
    """A whole kitchen into this one, which is empty: all of it, or nothing."""
    asking = cast(KitchenRequest, request)
    if (file.size or 0) > MOST_UPLOAD:
        raise BadInput.at("file", "file-in-zip-is-too-large", most_mb=MOST_UPLOAD / 1024 / 1024)
    opened = file.file or file
    return Status(201, {"counts": read_kitchen(asking.kitchen, asking.user, opened)})
