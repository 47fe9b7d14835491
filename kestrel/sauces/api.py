"""Saved sauces."""

from typing import Any, Literal, cast

from django.db.models import F, Q
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Status

from kestrel.accounts.auth import KitchenRequest
from kestrel.pages import InSpan, page_of
from kestrel.problems import Message
from kestrel.sauces import actions
from kestrel.sauces.models import Sauce, SauceVersion
from kestrel.sauces.schemas import (
    ConflictOut,
    MarksIn,
    RenameIn,
    SauceLine,
    SauceName,
    SauceOut,
    SaucePage,
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
        "cooked_at": sauce.cooked_at,
        "favourite": sauce.favourite,
        "tags": sauce.tag_list,
        "outcome": newest.outcome,
    }


def _whole(sauce: Sauce) -> dict[str, Any]:
    newest = sauce.newest
    return {**_line(sauce, newest), "sheet": newest.sheet}


_ORDERS: dict[str, tuple[Any, ...]] = {
    "name": ("sauce__name", "sauce__pk"),
    "cooked": (F("sauce__cooked_at").desc(nulls_last=True), "sauce__name", "sauce__pk"),
    "changed": ("-sauce__updated_at", "sauce__pk"),
}


@router.get("", response={200: SaucePage})
def list_sauces(
    request: HttpRequest,
    span: InSpan,
    q: str = "",
    tag: str = "",
    favourites: bool = False,
    sort: Literal["name", "cooked", "changed"] = "name",
):
    """The kitchen's sauces a page at a time: every word of ``q`` must be in name, family or tags."""
    newest = SauceVersion.objects.filter(
        number=F("sauce__version"),
        sauce__kitchen=cast(KitchenRequest, request).kitchen,
        sauce__deleted_at=None,
    )
    for word in q.split()[:8]:
        newest = newest.filter(
            Q(sauce__name__icontains=word)
            | Q(sauce__family__icontains=word)
            | Q(sauce__tags__icontains=word)
        )
    if tag:
        newest = newest.filter(sauce__tags__contains=f"|{tag}|")
    if favourites:
        newest = newest.filter(sauce__favourite=True)
    rows = newest.select_related("sauce").order_by(*_ORDERS[sort]).defer("sheet")
    return page_of(rows, span, lambda row: _line(row.sauce, row))


@router.get("/names", response=list[SauceName])
def sauce_names(request: HttpRequest):
    """Every sauce by name and kind alone, to choose from."""
    kitchen = cast(KitchenRequest, request).kitchen
    return Sauce.objects.filter(kitchen=kitchen, deleted_at=None).values("id", "name", "family")


@router.get("/tags", response=list[str])
def sauce_tags(request: HttpRequest):
    """The words this kitchen finds its sauces by."""
    rows = Sauce.objects.filter(kitchen=cast(KitchenRequest, request).kitchen, deleted_at=None)
    tagged = rows.exclude(tags="").only("tags")
    return sorted({tag for row in tagged for tag in row.tag_list}, key=str.lower)


@router.put("/{sauce_id}/marks", response={200: SauceLine, 404: Message})
def mark_sauce(request: HttpRequest, sauce_id: int, given: MarksIn):
    """A favourite or not, and its tags. No new version: nothing of the sauce changes."""
    sauce = _sauce(request, sauce_id)
    actions.mark(sauce, favourite=given.favourite, tags=given.tags)
    return _line(sauce, sauce.newest)


@router.post("", response={201: SauceOut})
def new_sauce(request: HttpRequest, given: SheetIn):
    kitchen, user = cast(KitchenRequest, request).kitchen, cast(KitchenRequest, request).user
    return Status(201, _whole(actions.save_new(kitchen, user, read_sheet(given.sheet))))


@router.get("/{sauce_id}", response={200: SauceOut, 404: Message})
def one_sauce(request: HttpRequest, sauce_id: int):
    return _whole(_sauce(request, sauce_id))


@router.put("/{sauce_id}", response={200: SauceOut, 409: ConflictOut})
def save_sauce(request: HttpRequest, sauce_id: int, given: SaveIn):
    """Save a new version made from ``base_version``; 409 when that is no longer the newest."""
    user = cast(KitchenRequest, request).user
    sauce = _sauce(request, sauce_id)
    return _whole(actions.save_again(sauce, user, read_sheet(given.sheet), given.base_version))


@router.post("/{sauce_id}/copy", response={201: SauceOut})
def copy_sauce(request: HttpRequest, sauce_id: int):
    user = cast(KitchenRequest, request).user
    return Status(201, _whole(actions.copy(_sauce(request, sauce_id), user)))


@router.post("/{sauce_id}/rename", response={200: SauceOut, 409: ConflictOut})
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
