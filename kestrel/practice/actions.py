"""Asking and marking, one transaction each."""

from collections.abc import Sequence
from dataclasses import dataclass
from random import SystemRandom

from django.db import transaction
from django.db.models import Count, F
from django.utils import timezone
from pydantic import TypeAdapter

from kestrel.accounts.models import Kitchen, User
from kestrel.larder.actions import core_kitchen
from kestrel.practice.models import Round
from kestrel.sauces.models import SauceVersion
from saucier.errors import BadInput
from saucier.practice import KINDS, Answer, Kind, Marked, Question, asked, marked, next_kind
from saucier.sheet import read_sheet

_question = TypeAdapter(Question)
_answer = TypeAdapter(Answer)
SOME_SAUCES = 12
"""Sauces of the kitchen a question is looked for in."""
LATE, UNANSWERED = 12, 3


@dataclass(frozen=True, slots=True)
class Standing:
    """How somebody stands at one kind: how many answered, and the mean score of the latest (None: none)."""

    kind: Kind
    answered: int
    score: float | None


def standing(kitchen: Kitchen, user: User) -> list[Standing]:
    """How ``user`` stands at each kind."""
    scores = _scores(kitchen, user)
    done = Round.objects.filter(kitchen=kitchen, user=user, score__isnull=False).order_by()
    counts = dict(done.values_list("kind").annotate(Count("pk")))
    return [
        Standing(
            kind, counts.get(kind, 0), sum(late) / len(late) if (late := scores[kind]) else None
        )
        for kind in KINDS
    ]


def _scores(kitchen: Kitchen, user: User) -> dict[str, list[float]]:
    """The latest scores of each kind, oldest first."""
    found: dict[str, list[float]] = {kind: [] for kind in KINDS}
    for kind, late in found.items():
        done = Round.objects.filter(kitchen=kitchen, user=user, kind=kind, score__isnull=False)
        newest = done.order_by("-answered_at", "-pk").values_list("score", flat=True)[:LATE]
        late += [score for score in newest if score is not None][::-1]
    return found


@transaction.atomic
def ask(kitchen: Kitchen, user: User, kind: str | None) -> tuple[Round, Question]:
    """A question for ``user``, of ``kind`` (None: what they missed of late). Raises :class:`BadInput` (field
    ``kind``)."""
    if kind is not None and kind not in KINDS:
        raise BadInput.at("kind", "is-no-kind-of-practice", kinds=KINDS)
    dice = SystemRandom()
    of: Kind = next_kind(_scores(kitchen, user), dice) if kind is None else kind
    newest = SauceVersion.objects.filter(
        sauce__kitchen=kitchen, sauce__deleted_at=None, number=F("sauce__version")
    )
    rows = list(newest.values_list("sheet", flat=True))
    sheets = [read_sheet(row) for row in dice.sample(rows, min(SOME_SAUCES, len(rows)))]
    question, answer = asked(of, sheets, core_kitchen(kitchen), dice)
    # What was left unanswered is asked no more.
    left = Round.objects.filter(kitchen=kitchen, user=user, score=None).order_by("-pk")
    Round.objects.filter(pk__in=list(left.values_list("pk", flat=True)[UNANSWERED:])).delete()
    row = Round.objects.create(
        kitchen=kitchen,
        user=user,
        kind=of,
        question=_question.dump_python(question, mode="json"),
        answer=_answer.dump_python(answer, mode="json"),
    )
    return row, question


@transaction.atomic
def answered(row: Round, given: Sequence[str]) -> Marked:
    """What is ``given`` to a question, marked; a second answer does not count. Raises :class:`BadInput`
    (field ``given``)."""
    row = Round.objects.select_for_update().get(pk=row.pk)
    question, answer = _question.validate_python(row.question), _answer.validate_python(row.answer)
    if row.score is not None:
        return marked(question, answer, tuple(row.given or ()))
    mark = marked(question, answer, tuple(given))
    row.given, row.score, row.answered_at = list(given), mark.score, timezone.now()
    row.save(update_fields=["given", "score", "answered_at"])
    return mark
