"""Photographs of a batch: made small, and with nothing in them of where or by what they were taken."""

import io
from datetime import datetime

from django.core.files.uploadedfile import UploadedFile
from django.db import transaction
from django.utils import timezone
from PIL import Image, ImageOps

from kestrel.accounts.models import User
from kestrel.live import tell
from kestrel.same_thing import refuse_other_thing
from kestrel.stove.models import Batch, Photo
from saucier.errors import BadInput

MOST_BYTES = 6 * 1024 * 1024
MOST_PIXELS = 50_000_000
MOST_OF_A_BATCH = 24
LONGEST_SIDE = 1280
_KINDS = ("JPEG", "PNG", "WEBP")


def keep_photo(
    batch: Batch, user: User, file: "UploadedFile[bytes]", key: str, at: datetime, step: int
) -> Photo:
    """``file`` as a photograph of ``batch`` at a step; one with this ``key`` that is there already is told
    again. Raises :class:`BadInput` (field ``file`` or ``step``)."""
    there = Photo.objects.filter(kitchen=batch.kitchen, key=key).first()
    if there is not None:
        refuse_other_thing(there.batch_id, batch.pk)
        return there
    if not 0 <= step <= len(batch.plan["cards"]):
        raise BadInput.at("step", "is-not-a-step-of-it", step=step, last=len(batch.plan["cards"]))
    if batch.photos.count() >= MOST_OF_A_BATCH:
        raise BadInput.at("file", "so-many-photos", most=MOST_OF_A_BATCH)
    jpeg, (width, height) = made_small(file)
    with transaction.atomic():
        photo, _ = Photo.objects.get_or_create(
            kitchen=batch.kitchen,
            key=key,
            defaults={
                "batch": batch,
                "step": step,
                "at": max(batch.started_at, min(at, timezone.now())),
                "by": user,
                "jpeg": jpeg,
                "width": width,
                "height": height,
            },
        )
        transaction.on_commit(lambda: tell(batch.kitchen_id, "batch", {"id": batch.pk}))
    return photo


def made_small(file: "UploadedFile[bytes]") -> tuple[bytes, tuple[int, int]]:
    """The picture in ``file`` as a JPEG of at most :data:`LONGEST_SIDE` pixels a side, upright, its pixels
    alone. Raises :class:`BadInput` (field ``file``)."""
    if (file.size or 0) > MOST_BYTES:
        raise BadInput.at("file", "photo-is-too-large", most_mb=MOST_BYTES / 1024 / 1024)
    try:
        with Image.open(file.file or file, formats=_KINDS) as picture:
            if picture.width * picture.height > MOST_PIXELS:
                raise BadInput.at("file", "photo-has-too-many-pixels")
            picture.draft("RGB", (2 * LONGEST_SIDE, 2 * LONGEST_SIDE))
            upright = ImageOps.exif_transpose(picture).convert("RGB")
    except BadInput:
        raise
    except Exception:  # whatever a broken file makes of the decoder: it is no picture
        raise BadInput.at("file", "is-no-photo") from None
    upright.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
    bare = Image.new("RGB", upright.size)  # pixels alone: no place, no camera, no comment
    bare.paste(upright)
    made = io.BytesIO()
    bare.save(made, "JPEG", quality=80, optimize=True)
    return made.getvalue(), bare.size
