"""Writes on the larder, and the core's view of a kitchen."""

from dataclasses import asdict

from django.db import transaction

from kestrel.accounts.models import Kitchen
from kestrel.larder.models import Burner, Pan
from saucier.errors import BadInput
from saucier.kitchen import Kitchen as CoreKitchen
from saucier.sheet import SheetBurner, SheetPan, read_part


def core_kitchen(kitchen: Kitchen) -> CoreKitchen:
    """What the core needs to know of ``kitchen``. All kitchens cook from the shipped larder
    until they can edit their own copy."""
    return CoreKitchen()


@transaction.atomic
def add_pan(kitchen: Kitchen, **measures: object) -> Pan:
    """A pan for ``kitchen``. Raises :class:`BadInput` by field."""
    pan = read_part(SheetPan, measures, "")
    if not pan.name.strip():
        raise BadInput.at("name", "is empty", "Say what you call the pan")
    core = pan.as_pan()
    return Pan.objects.create(kitchen=kitchen, **{**asdict(core), "name": core.name.strip()})


@transaction.atomic
def add_burner(kitchen: Kitchen, name: str, **rating: object) -> Burner:
    """A burner for ``kitchen``. Raises :class:`BadInput` by field."""
    burner = read_part(SheetBurner, rating, "")
    if not 1 <= len(name.strip()) <= 60:
        raise BadInput.at("name", "is empty or too long", "Say what you call the ring")
    return Burner.objects.create(
        kitchen=kitchen, name=name.strip(), kind=burner.kind, watts=burner.watts
    )
