"""Practice: asked, answered, kept for each cook."""

from typing import Annotated, cast

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router, Schema, Status
from pydantic import Field

from kestrel.accounts.auth import KitchenRequest
from kestrel.practice import actions
from kestrel.practice.actions import Standing
from kestrel.practice.models import Round
from kestrel.problems import Message
from saucier.practice import Marked, Question

router = Router(tags=["practice"])


class AskIn(Schema):
    """Of which ``kind`` (None: what was missed of late)."""

    kind: str | None = None


class AskedOut(Schema):
    """A question, to be answered under its ``id``."""

    id: int
    question: Question


class AnswerIn(Schema):
    """Keys of choices, in order where an order is asked for; or the second a falling pot was stopped at."""

    given: Annotated[list[Annotated[str, Field(max_length=40)]], Field(min_length=1, max_length=12)]


class MarkedOut(Schema):
    """How it was marked, and how the cook stands now."""

    marked: Marked
    standing: list[Standing]


@router.get("", response=list[Standing])
def standing(request: HttpRequest):
    """How the cook stands at each kind."""
    asking = cast(KitchenRequest, request)
    return actions.standing(asking.kitchen, asking.user)


@router.post("", response={201: AskedOut})
def ask(request: HttpRequest, given: AskIn):
    """A question made of this kitchen's own sauces and pans."""
    asking = cast(KitchenRequest, request)
    row, question = actions.ask(asking.kitchen, asking.user, given.kind)
    return Status(201, {"id": row.pk, "question": question})


@router.post("/{round_id}", response={200: MarkedOut, 404: Message})
def answer(request: HttpRequest, round_id: int, given: AnswerIn):
    """An answer, marked against the model."""
    asking = cast(KitchenRequest, request)
    row = get_object_or_404(Round, kitchen=asking.kitchen, user=asking.user, pk=round_id)
    mark = actions.answered(row, given.given)
    return {"marked": mark, "standing": actions.standing(asking.kitchen, asking.user)}
