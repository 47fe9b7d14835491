"""Writes on the larder, and the core's view of a kitchen."""

from django.db import transaction

from kestrel.accounts.models import Kitchen
from kestrel.larder.models import Pan
from saucier.errors import BadInput
from saucier.kitchen import Kitchen as CoreKitchen
from saucier.sheet import SheetPan, read_part


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
    return Pan.objects.create(
        kitchen=kitchen,
        name=core.name.strip(),
        shape=core.shape,
        diameter_cm=core.diameter_cm,
        depth_cm=core.depth_cm,
        tare_g=core.tare_g,
    )
