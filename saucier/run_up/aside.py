"""What is not a sauce, at the stove: in, turned, out, rested, as cards a cook goes through."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import pairwise

from saucier.cards import Card
from saucier.errors import BadInput
from saucier.run_up.library import Way
from saucier.steps import Hands
from saucier.words import Sentence, said, say

MOST_MIN = 600.0
MOST_PARTS = 30


@dataclass(frozen=True, slots=True)
class Aside:
    """Something beside the pots, called ``name``: its ``cards`` in order."""

    name: str
    cards: tuple[Card, ...]


@dataclass(frozen=True, slots=True)
class Part:
    """A part of a job as a run-up has it: what to ``do`` for ``minutes``, the ``cue``, the ``hands``."""

    do: str
    minutes: float
    cue: str = ""
    hands: Hands = "now-and-then"


def aside_of_parts(name: str, parts: Sequence[Part]) -> Aside:
    """``name`` done in ``parts``. Raises :class:`BadInput` by field."""
    name = _called(name)
    if not parts or len(parts) > MOST_PARTS:
        raise BadInput.at("parts", "aside-has-no-parts", most=MOST_PARTS)
    cards = []
    for number, part in enumerate(parts):
        if not 0.0 <= part.minutes <= MOST_MIN:
            raise BadInput.at(f"parts[{number}].minutes", "is-no-time-beside", most=MOST_MIN)
        cue = said(part.cue) if part.cue else say("aside.look")
        cards.append(_card(said(part.do), said(part.do), cue, part.minutes, part.hands))
    return Aside(name, tuple(cards))


def aside_of(name: str, way: Way, minutes: float | None = None) -> Aside:
    """``name`` cooked by ``way``, for ``minutes`` (None: as long as that way takes). Raises
    :class:`BadInput` by field.

    >>> from saucier.run_up.library import shipped_ways
    >>> fish = aside_of("Hake", shipped_ways()["sear"], 6)
    >>> [(str(card.title), card.timer_s) for card in fish.cards]
    [('Hake: in', 180), ('Hake: turn', 180), ('Hake: out, and rest', 240)]
    """
    name = _called(name)
    took = way.minutes if minutes is None else minutes
    if not 0.0 < took <= MOST_MIN:
        raise BadInput.at("minutes", "is-no-time-beside", most=MOST_MIN)
    return Aside(name, tuple(_cards(name, way, took)))


def _called(name: str) -> str:
    name = name.strip()
    if not 1 <= len(name) <= 60:
        raise BadInput.at("name", "aside-has-no-name")
    return name


def _cards(name: str, way: Way, minutes: float) -> Iterator[Card]:
    marks = [0.0, *sorted(share for share in way.turns if 0.0 < share < 1.0), 1.0]
    cue = said(way.look) if way.cue else say("aside.look")
    for number, (share, until) in enumerate(pairwise(marks)):
        part = minutes * (until - share)
        last = number == len(marks) - 2
        touch = "stir" if way.vessel == "pot" else "turn"
        then = say("aside.then-out" if last else f"aside.then-{touch}", minutes=round(part, 1))
        title = say(f"aside.{touch}" if number else "aside.in", name=name)
        yield _card(title, then, cue, part, way.hands)
    if way.rest:
        title, do = say("aside.out-and-rest", name=name), say("aside.rest", minutes=way.rest)
        yield _card(title, do, cue, way.rest, "none")
    elif way.sink:
        yield _card(say("aside.drain", name=name), say("aside.drained"), cue, 0.0, "all")
    else:
        yield _card(say("aside.out", name=name), say("aside.out-now"), cue, 0.0, "all")


def _card(title: Sentence, do: Sentence, cue: Sentence, minutes: float, hands: Hands) -> Card:
    return Card(title, do, cue, (), round(60.0 * minutes) or None, None, hands=hands)
