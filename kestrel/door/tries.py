"""How often somebody may try a password: by place, and all places together, before any is hashed."""

import threading
from collections.abc import Callable
from typing import TypeVar

from django.conf import settings
from django.core import signing
from django.http import HttpRequest, HttpResponse
from limits import RateLimitItemPerHour, RateLimitItemPerMinute
from limits.storage import MemoryStorage
from limits.strategies import MovingWindowRateLimiter

Found = TypeVar("Found")

_FROM_ONE_PLACE = (RateLimitItemPerMinute(10), RateLimitItemPerHour(60))
_FROM_ALL = (RateLimitItemPerMinute(40),)
_FROM_A_KNOWN_DEVICE = (RateLimitItemPerMinute(10),)
COOKIE = "been-here"
"""Says of a device that a name has signed in on it: those who hammer elsewhere do not keep it out."""
WAIT_S = 60
LOOKS_AT_PASSWORDS = ("/sign-in", "/first", "/join", "/password", "/here/shared")
"""Ends of paths where a password is looked at."""
_LASTS_S = 400 * 24 * 3600
_WAITS_S = 4.0

_limiter = MovingWindowRateLimiter(MemoryStorage())  # one process serves
_one_at_a_time = threading.BoundedSemaphore(1)
"""Hashing takes a whole processor: strangers get one, however many they are."""


class TooManyTries(Exception):
    """Not now: nothing was looked at."""


def tried(request: HttpRequest, name: str, look: Callable[[], Found]) -> Found:
    """What ``look``, which hashes a password given for ``name``, finds. Raises :class:`TooManyTries`
    before it, where there were too many."""
    place = request.META.get("REMOTE_ADDR") or "nowhere"
    if _name_in(request.COOKIES.get(COOKIE)) == name:
        # By name as well, so that a cookie carried elsewhere opens no second door.
        if not _may(_FROM_A_KNOWN_DEVICE, "device", name):
            raise TooManyTries
        return look()
    if not (_may(_FROM_ONE_PLACE, "place", place) and _may(_FROM_ALL, "all")):
        raise TooManyTries
    if not _one_at_a_time.acquire(timeout=_WAITS_S):
        raise TooManyTries
    try:
        return look()
    finally:
        _one_at_a_time.release()


def none_left(place: str, cookie: str | None) -> bool:
    """Whether a try from ``place`` would be refused now; nothing is counted. A device that is known by its
    ``cookie`` has tries of its own."""
    if _name_in(cookie) is not None:
        return False
    here = all(_limiter.test(limit, "place", place) for limit in _FROM_ONE_PLACE)
    return not (here and all(_limiter.test(limit, "all") for limit in _FROM_ALL))


def _may(limits: tuple[RateLimitItemPerMinute | RateLimitItemPerHour, ...], *of: str) -> bool:
    return all(_limiter.hit(limit, *of) for limit in limits)


def _signer() -> signing.TimestampSigner:
    return signing.TimestampSigner(salt=COOKIE)


def _name_in(cookie: str | None) -> str | None:
    """Whose ``cookie`` it is; None where it is nobody's."""
    try:
        return _signer().unsign(cookie or "", max_age=_LASTS_S)
    except signing.BadSignature:
        return None


def remember(response: HttpResponse, name: str) -> None:
    """This device is known from now on as one ``name`` signs in on."""
    response.set_cookie(
        COOKIE,
        _signer().sign(name),
        max_age=_LASTS_S,
        secure=settings.HTTPS,
        httponly=True,
        samesite="Lax",
    )


def forget_tries() -> None:
    """As if nobody had tried yet."""
    _limiter.storage.reset()
