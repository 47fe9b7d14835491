"""People of a kitchen, their passwords, and devices that several cooks share."""

from datetime import datetime, timedelta
from typing import Annotated, cast

from django.contrib.auth import login, logout, update_session_auth_hash
from django.http import Http404, HttpRequest, HttpResponse
from django.shortcuts import get_object_or_404
from django.utils import timezone
from ninja import Router, Schema, Status
from pydantic import Field

from kestrel.accounts import people
from kestrel.accounts.auth import BACKEND, KitchenRequest, anyone, as_owner, themselves
from kestrel.accounts.models import Invite, Membership, User
from kestrel.accounts.schemas import Name, Password
from kestrel.door.tries import remember, tried
from kestrel.once import TOLD_ONCE
from kestrel.problems import Message
from saucier.errors import BadInput

router = Router(tags=["people"])
Called = Annotated[str, Field(max_length=200)]
Token = Annotated[str, Field(max_length=100)]


class Person(Schema):
    """Somebody of the kitchen: ``called`` in records; ``username`` is what they sign in with."""

    id: int
    username: str
    called: str
    owner: bool
    you: bool


class InviteOut(Schema):
    """An invitation that is open; ``for_name``: whose password it renews (None: for somebody new)."""

    id: int
    made_by: str
    expires_at: datetime
    for_name: str | None


class People(Schema):
    """``may``: whether who asks may invite and let go (an owner, on a device of their own)."""

    people: list[Person]
    invites: list[InviteOut]
    may: bool


class InviteIn(Schema):
    for_id: int | None = None


class InviteMade(InviteOut):
    """``path`` is the link's, told once."""

    path: str


class Invited(Schema):
    kitchen: str
    for_name: str | None


class JoinIn(Schema):
    token: Token
    username: Name = ""
    called: Called = ""
    password: Password


class OwnerIn(Schema):
    owner: bool


class PasswordIn(Schema):
    old: Password
    new: Password


class CalledIn(Schema):
    called: Called


class SharedIn(Schema):
    """``password`` of whose session it is, to have the device to oneself again."""

    shared: bool
    password: Password = ""


class CookingIn(Schema):
    """``id`` None: nobody for now; the next who cooks is asked for."""

    id: int | None


def _invite(row: Invite) -> dict[str, object]:
    return {
        "id": row.pk,
        "made_by": row.made_by.called if row.made_by else "",
        "expires_at": row.expires_at,
        "for_name": row.for_user.called if row.for_user else None,
    }


@router.get("", response=People)
def everybody(request: HttpRequest):
    """Who belongs to the kitchen, and what invitations are open."""
    asking = cast(KitchenRequest, request)
    rows = list(
        Membership.objects.filter(kitchen=asking.kitchen).select_related("user").order_by("pk")
    )
    mine = next((row for row in rows if row.user_id == asking.signed_in_as.pk), None)
    may = bool(mine and mine.owner) and not asking.session.get("shared")
    invites = Invite.objects.filter(
        kitchen=asking.kitchen, used_at=None, expires_at__gt=timezone.now()
    )
    return {
        "people": [
            {
                "id": row.user_id,
                "username": row.user.username,
                "called": row.user.called,
                "owner": row.owner,
                "you": row is mine,
            }
            for row in rows
        ],
        "invites": [_invite(row) for row in invites.select_related("made_by", "for_user")]
        if may
        else [],
        "may": may,
    }


@router.post("/invites", response={201: InviteMade, 403: Message, 409: Message})
def invite(request: HttpRequest, response: HttpResponse, given: InviteIn):
    """A link that lets somebody in, for three days; or gives a member a new password."""
    response[TOLD_ONCE] = "1"
    asking = as_owner(request)
    row, token = people.invite(asking.kitchen, asking.signed_in_as, given.for_id)
    return Status(201, {**_invite(row), "path": f"/join/{token}"})


@router.delete("/invites/{invite_id}", response={204: None, 403: Message, 404: Message})
def take_back(request: HttpRequest, invite_id: int):
    """The link no longer opens anything."""
    get_object_or_404(Invite, kitchen=as_owner(request).kitchen, pk=invite_id).delete()
    return Status(204, None)


@router.get("/join/{token}", auth=None, response={200: Invited, 404: Message})
def invited(request: HttpRequest, token: str):
    """Where a link leads, before anybody is signed in."""
    row = people.open_invite(token[:100])
    if row is None:
        raise Http404
    return {
        "kitchen": row.kitchen.name,
        "for_name": row.for_user.called if row.for_user else None,
    }


@router.post("/join", auth=anyone, response={200: Invited, 429: Message})
def join(request: HttpRequest, response: HttpResponse, given: JoinIn):
    """Take an invitation; who does is signed in."""
    row = people.open_invite(given.token)

    def joined() -> User:
        return people.join(given.token, given.username, given.called, given.password)

    user = tried(request, given.username, joined)
    login(request, user, backend=BACKEND)
    remember(response, user.username)
    assert row is not None  # else it could not have been taken
    return {"kitchen": row.kitchen.name, "for_name": None}


@router.put("/{user_id}", response={200: People, 403: Message, 404: Message})
def own(request: HttpRequest, user_id: int, given: OwnerIn):
    """An owner invites and lets go; there is always one."""
    people.own(as_owner(request).kitchen, user_id, given.owner)
    return everybody(request)


@router.delete("/{user_id}", response={204: None, 403: Message, 404: Message})
def let_go(request: HttpRequest, user_id: int):
    """Of this kitchen no longer; records go on naming them."""
    people.leave(as_owner(request).kitchen, user_id)
    return Status(204, None)


@router.post("/me/password", response={204: None, 403: Message, 429: Message})
def change_password(request: HttpRequest, given: PasswordIn):
    """Another password. This device stays signed in, every other is signed out."""
    user = themselves(request)
    tried(request, user.username, lambda: people.change_password(user, given.old, given.new))
    user.refresh_from_db()
    update_session_auth_hash(request, user)
    return Status(204, None)


@router.post("/me/sign-out-everywhere", response={204: None, 403: Message})
def sign_out_everywhere(request: HttpRequest):
    """Here too."""
    people.sign_out_everywhere(themselves(request))
    logout(request)
    return Status(204, None)


@router.put("/me/called", response={204: None, 403: Message})
def be_called(request: HttpRequest, given: CalledIn):
    """What records name you."""
    people.call(themselves(request), given.called)
    return Status(204, None)


# -- a device that several share


@router.put("/here/shared", response={204: None, 429: Message})
def share(request: HttpRequest, given: SharedIn):
    """Whether several cooks use this device: it stays signed in, asks only who is cooking, and opens
    nothing that is an owner's or somebody's own. Back again by the password only: anybody may stand at it."""
    if request.session.get("shared") and not given.shared:
        user = cast(KitchenRequest, request).signed_in_as
        if not tried(request, user.username, lambda: user.check_password(given.password)):
            raise BadInput.at("password", "password-is-not-that")
    request.session["shared"] = given.shared
    request.session.set_expiry(STAYS_S if given.shared else None)
    request.session.pop("cooking", None)
    return Status(204, None)


@router.put("/here/cooking", response={204: None, 404: Message})
def cooking(request: HttpRequest, given: CookingIn):
    """Who is cooking at this device: what is done from now on carries their name."""
    kitchen = cast(KitchenRequest, request).kitchen
    request.session.pop("cooking", None)
    if given.id is not None:
        cook = get_object_or_404(kitchen.members, pk=given.id, is_active=True)
        until = timezone.now() + COOKS_FOR
        request.session["cooking"] = [cook.pk, until.timestamp()]
    return Status(204, None)


STAYS_S = 400 * 24 * 3600
"""So long a shared device stays signed in."""
COOKS_FOR = timedelta(hours=8)
"""Then a shared device asks again."""
