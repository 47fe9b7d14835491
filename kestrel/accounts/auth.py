"""Who is asking, and in which kitchen."""

from typing import Any, cast

from django.http import HttpRequest, JsonResponse
from ninja.security import APIKeyCookie, SessionAuth

from kestrel.accounts.models import Kitchen, User


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


def locked_out(request: HttpRequest, *args: Any, **kwargs: Any) -> JsonResponse:
    """What somebody is told who guessed too often."""
    text = "Too many tries. Wait ten minutes, then try again."
    return JsonResponse({"message": text}, status=429)


signed_in = SignedIn()
anyone = AnyoneWithCsrf()
