"""Who is asking, and in which kitchen."""

from collections.abc import Callable
from datetime import timedelta
from typing import Any, cast

from django.http import HttpRequest, HttpResponse, JsonResponse
from ninja.security import APIKeyCookie, SessionAuth

from kestrel.accounts.models import Kitchen, User
from kestrel.door.answers import too_many
from saucier.words import say


class KitchenRequest(HttpRequest):
    """A request that :data:`signed_in` let through."""

    user: User
    kitchen: Kitchen


class SignedIn(SessionAuth):
    """Lets members of a kitchen through, with CSRF checked, and puts it on the request."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Any:
        user = request.user
        if not user.is_authenticated:
            return None
        kitchen = user.kitchens.order_by("pk").first()
        if kitchen is None:
            return None
        cast(KitchenRequest, request).kitchen = kitchen
        return user


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
