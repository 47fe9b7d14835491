"""The first minute of a kitchen: what it has, from a usual set that is ready to tick."""

import tomllib
from functools import cache
from pathlib import Path
from typing import Any

from django.db import transaction

from kestrel.accounts.models import Kitchen
from kestrel.larder.actions import add_pan
from kestrel.larder.means import add_burner, add_gear
from saucier.errors import BadInput
from saucier.run_up import kinds


@cache
def usual() -> dict[str, list[dict[str, Any]]]:
    """Pans, hobs and gear to choose from, as ``usual.toml`` has them; gear with its kind's name."""
    path = Path(__file__).with_name("usual.toml")
    found = tomllib.loads(path.read_text(encoding="utf-8"))
    for one in found["gear"]:
        one["name"] = kinds()[one["kind"]]["name"]
    return found


@transaction.atomic
def begin(kitchen: Kitchen, pans: list[str], hob: str | None, gear: list[str]) -> None:
    """``kitchen`` has these; said once, the same again adds nothing. Raises :class:`BadInput` by field."""
    locked = Kitchen.objects.select_for_update().get(pk=kitchen.pk)
    if locked.begun:
        return
    shelves = usual()
    for number, key in enumerate(dict.fromkeys(pans)):
        pan = _chosen(shelves["pans"], "key", key, f"pans[{number}]")
        add_pan(kitchen, **{k: v for k, v in pan.items() if k not in ("key", "ticked")})
    if hob is not None:
        rings = _chosen(shelves["hobs"], "key", hob, "hob")
        for name, watts, takes_cm in rings["rings"]:
            add_burner(kitchen, name, takes_cm, kind=rings["kind"], watts=watts)
    for number, kind in enumerate(dict.fromkeys(gear)):
        add_gear(kitchen, _chosen(shelves["gear"], "kind", kind, f"gear[{number}]")["kind"], "")
    locked.begun = True
    locked.save(update_fields=["begun"])


def _chosen(among: list[dict[str, Any]], by: str, key: str, field: str) -> dict[str, Any]:
    for one in among:
        if one[by] == key:
            return one
    raise BadInput.at(field, "is-none-of-the-usual", key=key[:40])
