"""Acts at a batch, as a screen sends them."""

import itertools
from typing import Any

from django.utils import timezone

_keys = itertools.count()


def one(kind: str, **more: Any) -> dict[str, Any]:
    """An act of now."""
    at = timezone.now().isoformat()
    return {"key": f"act-number-{next(_keys)}", "at": at, "kind": kind, **more}


def go(from_step: int, to_step: int) -> dict[str, Any]:
    return one("go", from_step=from_step, to_step=to_step)


def saw(step: int, what: str, value: float = 1.0) -> dict[str, Any]:
    return one("saw", step=step, what=what, value=value)


def timer(seconds: int, name: str = "step") -> dict[str, Any]:
    return one("timer-on", name=name, seconds=seconds)


def act(client: Any, batch: int, *acts: dict[str, Any]) -> Any:
    body = {"acts": list(acts), "sent_at": timezone.now().isoformat()}
    return client.call("POST", f"/stove/{batch}/acts", body)
