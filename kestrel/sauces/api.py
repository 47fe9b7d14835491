"""Saved sauces."""

from typing import Any, cast

from django.db.models import F, Q
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from kestrel.accounts.auth import KitchenRequest
from kestrel.problems import Message, Problems
from kestrel.sauces import actions
from kestrel.sauces.models import Sauce, SauceVersion
from kestrel.sauces.schemas import (
    ConflictOut,
    RenameIn,
    SauceLine,
    SauceOut,
    SaveIn,
    SheetIn,
    VersionOut,
)
from saucier.sheet import read_sheet

router = Router(tags=["sauces"])


def _sauce(request: HttpRequest, sauce_id: int) -> Sauce:
    return get_object_or_404(Sauce, kitchen=cast(KitchenRequest, request).kitchen, pk=sauce_id)


def _line(sauce: Sauce, newest: SauceVersion) -> dict[str, Any]:
    return {
        "id": sauce.pk,
        "name": sauce.name,
        "family": sauce.family,
        "version": sauce.version,
        "updated_at": sauce.updated_at,
        "outcome": newest.outcome,
    }


def _whole(sauce: Sauce) -> dict[str, Any]:
    newest = sauce.newest
    return {**_line(sauce, newest), "sheet": newest.sheet}


@router.get("", response=list[SauceLine])
def list_sauces(request: HttpRequest, q: str = ""):
    """The kitchen's sauces by name; every word of ``q`` must be in name or family."""
    kitchen = cast(KitchenRequest, request).kitchen
    newest = SauceVersion.objects.filter(
        number=F("sauce__version"), sauce__kitchen=kitchen, sauce__deleted_at=None
    )
    for word in q.split()[:8]:
        newest = newest.filter(Q(sauce__name__icontains=word) | Q(sauce__family__icontains=word))
    rows = newest.select_related("sauce").order_by("sauce__name", "sauce__pk").defer("sheet")
    return [_line(row.sauce, row) for row in rows]


@router.post("", response={201: SauceOut, 422: Problems})
def new_sauce(request: HttpRequest, given: SheetIn):
    kitchen, user = cast(KitchenRequest, request).kitchen, cast(KitchenRequest, request).user
    return Status(201, _whole(actions.save_new(kitchen, user, read_sheet(given.sheet))))


@router.get("/{sauce_id}", response={200: SauceOut, 404: Message})
def one_sauce(request: HttpRequest, sauce_id: int):
    return _whole(_sauce(request, sauce_id))


@router.put("/{sauce_id}", response={200: SauceOut, 409: ConflictOut, 422: Problems})
def save_sauce(request: HttpRequest, sauce_id: int, given: SaveIn):
    """Save a new version made from ``base_version``; 409 when that is no longer the newest."""
    user = cast(KitchenRequest, request).user
    sauce = _sauce(request, sauce_id)
    return _whole(actions.save_again(sauce, user, read_sheet(given.sheet), given.base_version))


@router.post("/{sauce_id}/copy", response={201: SauceOut})
def copy_sauce(request: HttpRequest, sauce_id: int):
    user = cast(KitchenRequest, request).user
    return Status(201, _whole(actions.copy(_sauce(request, sauce_id), user)))


@router.post("/{sauce_id}/rename", response={200: SauceOut, 409: ConflictOut, 422: Problems})
def rename_sauce(request: HttpRequest, sauce_id: int, given: RenameIn):
    user = cast(KitchenRequest, request).user
    sauce = _sauce(request, sauce_id)
    return _whole(actions.rename(sauce, user, given.name, given.base_version))


@router.delete("/{sauce_id}", response={204: None})
def delete_sauce(request: HttpRequest, sauce_id: int):
    """Off the list; `restore` undoes it. Batches keep what they were made from."""
    actions.delete(_sauce(request, sauce_id))
    return Status(204, None)


@router.post("/{sauce_id}/restore", response=SauceOut)
def restore_sauce(request: HttpRequest, sauce_id: int):
    sauce = _sauce(request, sauce_id)
    actions.restore(sauce)
    return _whole(sauce)


@router.get("/{sauce_id}/versions", response=list[VersionOut])
def versions(request: HttpRequest, sauce_id: int):
    """Every version, newest first."""
    rows = _sauce(request, sauce_id).versions.select_related("made_by")
    return [
        {
            "number": row.number,
            "made_at": row.made_at,
            "made_by": row.made_by.called if row.made_by else None,
            "note": row.note,
            "outcome": row.outcome,
            "sheet": row.sheet,
        }
        for row in rows
    ]
