"""Writes on sauces, one transaction each."""

from typing import Any

from django.db import transaction
from django.utils import timezone

from kestrel.accounts.models import Kitchen, User
from kestrel.larder.actions import core_kitchen
from kestrel.problems import Conflict
from kestrel.room import room_for_another
from kestrel.sauces.models import Sauce, SauceVersion
from saucier.check import check
from saucier.errors import BadInput
from saucier.sheet import Sheet, differences, read_sheet, write_sheet
from saucier.words import plain, say

_OUTCOME = (
    "grade",
    "reason",
    "viscosity_pa_s",
    "volume_ml",
    "mass_g",
    "salt_pct",
    "minutes",
    "allergens",
)


@transaction.atomic
def save_new(kitchen: Kitchen, user: User, sheet: Sheet) -> Sauce:
    """A new sauce from ``sheet``. Raises :class:`saucier.BadInput` where it cannot be cooked."""
    room_for_another(Sauce, kitchen, "sheet")
    outcome = _outcome(kitchen, sheet)
    sauce = Sauce.objects.create(kitchen=kitchen, name=sheet.name, family=sheet.family or "")
    _add_version(sauce, user, sheet, outcome)
    return sauce


@transaction.atomic
def save_again(sauce: Sauce, user: User, sheet: Sheet, base_version: int) -> Sauce:
    """A new version of ``sauce``, made from ``base_version``.

    Raises :class:`Conflict`, with what differs, when another version was saved meanwhile.
    """
    sauce = Sauce.objects.select_for_update().get(pk=sauce.pk)
    if sauce.deleted_at is not None:
        raise BadInput.at("sauce", "was-deleted", name=sauce.name)
    if sauce.newest.sheet == write_sheet(sheet):
        return sauce  # nothing changed, or sent again when the answer was lost: no version for it
    if sauce.version != base_version:
        raise _conflict(sauce, sheet)
    outcome = _outcome(sauce.kitchen, sheet)
    sauce.version += 1
    sauce.name, sauce.family = sheet.name, sheet.family or ""
    sauce.save()
    _add_version(sauce, user, sheet, outcome)
    return sauce


@transaction.atomic
def copy(sauce: Sauce, user: User) -> Sauce:
    """A sauce of its own, starting from the newest version of ``sauce``."""
    sheet = read_sheet(sauce.newest.sheet)
    name = f"{sheet.name[:110]} (copy)"
    return save_new(sauce.kitchen, user, sheet.model_copy(update={"name": name}))


def rename(sauce: Sauce, user: User, name: str, base_version: int) -> Sauce:
    """A new version of ``sauce`` under another name."""
    sheet = read_sheet({**sauce.newest.sheet, "name": name})
    return save_again(sauce, user, sheet, base_version)


def delete(sauce: Sauce) -> None:
    """Take ``sauce`` off the list; :func:`restore` brings it back."""
    Sauce.objects.filter(pk=sauce.pk).update(deleted_at=timezone.now())


def restore(sauce: Sauce) -> None:
    Sauce.objects.filter(pk=sauce.pk).update(deleted_at=None)


def _add_version(sauce: Sauce, user: User, sheet: Sheet, outcome: dict[str, Any]) -> None:
    SauceVersion.objects.create(
        sauce=sauce,
        number=sauce.version,
        sheet=write_sheet(sheet),
        outcome=outcome,
        made_by=user,
    )


def _outcome(kitchen: Kitchen, sheet: Sheet) -> dict[str, Any]:
    figures = plain(check(sheet, core_kitchen(kitchen)).figures)
    return {key: figures[key] for key in _OUTCOME}


def _conflict(sauce: Sauce, yours: Sheet) -> Conflict:
    newest = sauce.newest
    return Conflict(
        say("saved-elsewhere", name=sauce.name),
        version=sauce.version,
        made_by=newest.made_by.called if newest.made_by else None,
        made_at=newest.made_at,
        sheet=newest.sheet,
        differences=plain(differences(read_sheet(newest.sheet), yours)),
    )


_LONGEST_TAG = 30


@transaction.atomic
def mark(sauce: Sauce, *, favourite: bool, tags: list[str]) -> None:
    """How ``sauce`` is found again. Raises :class:`BadInput` (``tags[i]``)."""
    kept: dict[str, str] = {}
    for number, tag in enumerate(tags):
        told = " ".join(tag.split())
        if not told or len(told) > _LONGEST_TAG or "|" in told:
            raise BadInput.at(f"tags[{number}]", "is-no-tag", longest=_LONGEST_TAG)
        kept.setdefault(told.lower(), told)
    sauce.favourite = favourite
    sauce.tags = "".join(("|", "|".join(kept.values()), "|")) if kept else ""
    # Not `updated_at`: nothing of the sauce itself has changed.
    Sauce.objects.filter(pk=sauce.pk).update(favourite=sauce.favourite, tags=sauce.tags)
