"""Who is asking, and in which kitchen."""

import time
from collections.abc import Callable
from datetime import timedelta
from typing import Any, cast

from django.core.signals import request_finished
from django.dispatch import receiver
from django.http import HttpRequest, HttpResponse, JsonResponse
from ninja.security import APIKeyCookie, SessionAuth

from kestrel.accounts.models import Kitchen, Membership, User
from kestrel.accounts.signing import sign_as
from kestrel.door.answers import NotYours, too_many
from saucier.words import USUAL, go_by, say

BACKEND = "django.contrib.auth.backends.ModelBackend"


class KitchenRequest(HttpRequest):
    """A request that :data:`signed_in` let through."""

    user: User
    """Who is cooking: what is done carries their name."""
    signed_in_as: User
    """Whose session it is."""
    kitchen: Kitchen


@receiver(request_finished)
def _ways_end(**_: object) -> None:
    """The next request on this thread begins with the usual ways."""
    go_by(USUAL)


class SignedIn(SessionAuth):
    """Lets members of a kitchen through, with CSRF checked, and puts it on the request."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        user = request.user
        if not user.is_authenticated:
            return None
        kitchen = user.kitchens.order_by("pk").first()
        if kitchen is None:
            return None
        asking = cast(KitchenRequest, request)
        asking.kitchen, asking.signed_in_as = kitchen, user
        go_by(kitchen.ways)
        sign_as(user.called)
        asking.user = cooking_at(request, kitchen) or user
        return user


def cooking_at(request: HttpRequest, kitchen: Kitchen) -> User | None:
    """Who was picked to be cooking at a device that several share, where that is not too long ago."""
    picked = request.session.get("cooking") if request.session.get("shared") else None
    if not picked or picked[1] < time.time():
        return None
    return kitchen.members.filter(pk=picked[0], is_active=True).first()


def themselves(request: HttpRequest) -> User:
    """Who is signed in, on a device of their own. Raises :class:`NotYours` on a shared one."""
    if request.session.get("shared"):
        raise NotYours(say("is-a-shared-device"))
    return cast(KitchenRequest, request).signed_in_as


def as_owner(request: HttpRequest) -> KitchenRequest:
    """The request, of an owner of its kitchen on a device of their own. Raises :class:`NotYours`."""
    asking = cast(KitchenRequest, request)
    mine = Membership.objects.filter(kitchen=asking.kitchen, user=themselves(request), owner=True)
    if not mine.exists():
        raise NotYours(say("is-an-owners"))
    return asking


class AnyoneWithCsrf(APIKeyCookie):
    """Lets anyone through whose page came from here: for signing in."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        return True


def only_signed_in(view: Callable[..., HttpResponse]) -> Callable[..., HttpResponse]:
    """``view`` for those who are signed in; others are told to."""

    def shown(request: HttpRequest, **options: Any) -> HttpResponse:
        if not request.user.is_authenticated:
            return JsonResponse({"message": str(say("sign-in-first"))}, status=401)
        return view(request, **options)

    return shown


def locked_out(request: HttpRequest, *args: Any, **kwargs: Any) -> JsonResponse:
    """What somebody is told who guessed too often."""
    return too_many(say("too-many-wrong-passwords"), timedelta(minutes=10))


signed_in = SignedIn()
anyone = AnyoneWithCsrf()
