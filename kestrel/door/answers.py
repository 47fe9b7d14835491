"""What the door says where no route answers."""

from datetime import timedelta
from typing import Any

from django.http import JsonResponse

from saucier.errors import BadInput
from saucier.words import Sentence


class NotYours(Exception):
    """It is somebody else's to do: 403, and whose (``text``)."""

    def __init__(self, text: Sentence) -> None:
        super().__init__(text.code)
        self.text = text


def too_many(text: Sentence, wait: timedelta) -> JsonResponse:
    """The answer to somebody who is to ``wait``."""
    answer = JsonResponse({"message": str(text)}, status=429)
    answer["Retry-After"] = str(round(wait.total_seconds()))
    return answer


def refusal(bad: BadInput) -> dict[str, Any]:
    """The body of a 422."""
    fields = ("field", "code", "message", "remedy")
    return {
        "problems": [{name: str(getattr(one, name)) for name in fields} for one in bad.problems]
    }
