"""What a trainer asks, and how an answer is marked: codes, numbers and pictures' figures."""

import math
from dataclasses import dataclass
from typing import Literal

from saucier.errors import BadInput
from saucier.heat import SideView
from saucier.words import Sentence

Kind = Literal["spoon", "boils", "level", "flour", "stop", "order", "remedy"]
KINDS: tuple[Kind, ...] = ("spoon", "boils", "level", "flour", "stop", "order", "remedy")


@dataclass(frozen=True, slots=True)
class Offered:
    """One answer that can be given."""

    key: str
    words: Sentence | str


@dataclass(frozen=True, slots=True)
class SpoonShown:
    """A spoon to look at: its sauce's viscosity and film."""

    viscosity_pa_s: float
    film_mm: float


@dataclass(frozen=True, slots=True)
class PotShown:
    """A pan with a level in it, and where that stood ``before``, mm."""

    pan: SideView
    level_mm: float
    before_mm: float


@dataclass(frozen=True, slots=True)
class Fallen:
    """A moment of a pot that boils down: seconds on the screen, its level, its spoon (0: none)."""

    at_s: float
    level_mm: float
    viscosity_pa_s: float
    film_mm: float


@dataclass(frozen=True, slots=True)
class Question:
    """A question of a ``kind``, in words; answered by one of ``choices``, by all of them in ``order``, or by
    stopping a pot that ``falls``."""

    kind: Kind
    ask: Sentence
    choices: tuple[Offered, ...] = ()
    order: bool = False
    spoon: SpoonShown | None = None
    pot: PotShown | None = None
    pan: SideView | None = None
    falls: tuple[Fallen, ...] = ()


@dataclass(frozen=True, slots=True)
class Answer:
    """What is right: keys of choices in order, or ``at_s`` of a pot that falls, with the grams there were at
    each moment, ``grams``, those ``wanted_g``; ``close`` gives part of the marks to other keys; of an order
    only what must come ``before`` what counts. ``why`` says it."""

    right: tuple[str, ...]
    why: Sentence
    close: tuple[tuple[str, float], ...] = ()
    before: tuple[tuple[str, str], ...] = ()
    wanted_g: float = 0.0
    grams: tuple[float, ...] = ()


@dataclass(frozen=True, slots=True)
class Marked:
    """``score`` from 0 to 1, what was ``right``, ``why``, and by how many percent a stop was ``off``."""

    score: float
    right: tuple[str, ...]
    why: Sentence
    off_pct: float | None = None


STOP_MISSED = 0.15
"""A stop so far off the weight wanted (a share of it) scores nothing."""


def marked(question: Question, answer: Answer, given: tuple[str, ...]) -> Marked:
    """``given`` (keys, or the second a pot was stopped at) held against the ``answer``. Raises
    :class:`BadInput` (field ``given``)."""
    if question.falls:
        return _stopped(question, answer, given)
    keys = [choice.key for choice in question.choices]
    if any(key not in keys for key in given) or len(set(given)) != len(given):
        raise BadInput.at("given", "is-no-answer-to-it")
    if len(given) != (len(keys) if question.order else 1):
        raise BadInput.at("given", "is-no-answer-to-it")
    if question.order:
        held = sum(given.index(one) < given.index(other) for one, other in answer.before)
        score = held / max(1, len(answer.before))
    else:
        close = dict(answer.close)
        score = 1.0 if given[0] == answer.right[0] else close.get(given[0], 0.0)
    return Marked(score, answer.right, answer.why)


def _stopped(question: Question, answer: Answer, given: tuple[str, ...]) -> Marked:
    try:
        (text,) = given
        at_s = float(text)
    except ValueError:
        raise BadInput.at("given", "is-no-answer-to-it") from None
    if not math.isfinite(at_s):
        raise BadInput.at("given", "is-no-answer-to-it")
    times = [moment.at_s for moment in question.falls]
    at_s = min(max(at_s, times[0]), times[-1])
    n = max(1, next((n for n, at in enumerate(times) if at >= at_s), len(times) - 1))
    share = (at_s - times[n - 1]) / max(1e-9, times[n] - times[n - 1])
    grams = answer.grams[n - 1] + share * (answer.grams[n] - answer.grams[n - 1])
    off = grams / answer.wanted_g - 1.0
    return Marked(max(0.0, 1.0 - abs(off) / STOP_MISSED), answer.right, answer.why, 100.0 * off)
