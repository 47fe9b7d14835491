"""Signing in and out, and the first account."""

from typing import cast

from django.contrib.auth import authenticate, login, logout
from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from ninja import Router

from kestrel.accounts import actions
from kestrel.accounts.auth import BACKEND, KitchenRequest, anyone, cooking_at
from kestrel.accounts.models import User
from kestrel.accounts.schemas import FirstAccount, KitchenWays, SignIn, Who
from kestrel.door.tries import remember, tried
from kestrel.problems import Message
from saucier.errors import BadInput

router = Router(tags=["accounts"])


def _who(request: HttpRequest) -> dict[str, object]:
    user = request.user
    kitchen = user.kitchens.order_by("pk").first() if user.is_authenticated else None
    shared = bool(request.session.get("shared"))
    cook = cooking_at(request, kitchen) if kitchen else None
    named = cook or (user if user.is_authenticated and not shared else None)
    return {
        "session_id": user.pk if user.is_authenticated else None,
        "id": named.pk if named else None,
        "username": user.get_username() or None,
        "called": named.called if named else None,
        "shared": shared,
        "kitchen": kitchen.name if kitchen else None,
        "ways": kitchen,
        "begun": bool(kitchen and kitchen.begun),
        "first_visit": actions.has_no_account(),
    }


@router.get("/me", response=Who, auth=None)
def me(request: HttpRequest):
    """Who is asking; answers without signing in, too, and hands out the CSRF cookie."""
    get_token(request)
    return _who(request)


@router.put("/ways", response={200: Who})
def set_ways(request: HttpRequest, given: KitchenWays):
    """How this kitchen writes figures and money, in every place and print."""
    kitchen = cast(KitchenRequest, request).kitchen
    for name, value in given.dict().items():
        setattr(kitchen, name, value)
    kitchen.save(update_fields=list(given.dict()))
    return _who(request)


@router.post("/sign-in", response={200: Who, 429: Message}, auth=anyone)
def sign_in(request: HttpRequest, response: HttpResponse, given: SignIn):
    """Sign in. Too many tries from one place, or from everywhere: a minute's wait, before a password is
    looked at; too many wrong ones for a name from one place: ten minutes'."""

    def right() -> User | None:
        return authenticate(request, username=given.username, password=given.password)

    user = tried(request, given.username, right)
    if user is None:
        raise BadInput.at("password", "sign-in-does-not-match")
    login(request, user)
    remember(response, given.username)
    return _who(request)


@router.post("/sign-out", response=Who, auth=anyone)
def sign_out(request: HttpRequest):
    logout(request)
    return _who(request)


@router.post("/first", response={200: Who}, auth=anyone)
def first_account(request: HttpRequest, response: HttpResponse, given: FirstAccount):
    """Make the first account and its kitchen; refused once there is one."""

    def opened() -> User:
        return actions.open_first_kitchen(given.kitchen, given.username, given.password)

    actions.still_first()
    login(request, tried(request, given.username, opened), backend=BACKEND)
    remember(response, given.username)
    return _who(request)
