"""What is told of plates that are finished when called."""

from dataclasses import dataclass

from saucier.words import Sentence


@dataclass(frozen=True, slots=True)
class CallStep:
    """What is done for a call, when, by whom, with what."""

    key: str
    name: Sentence
    start: float
    end: float
    cook: str
    where: str


@dataclass(frozen=True, slots=True)
class CallPlan:
    """A call: when its first hand moves, when it is at the pass, and its ``steps``. ``ideal_min`` is what it
    would take alone; ``waits_min`` what it is later by."""

    number: int
    line: int
    dish: Sentence
    portions: int
    table: str
    called_at: float
    begin: float
    out: float
    ideal_min: float
    waits_min: float
    steps: tuple[CallStep, ...]


@dataclass(frozen=True, slots=True)
class AtOnce:
    """So many calls of a line at the same moment: minutes from call to pass of the last of them, and
    what it waits for."""

    calls: int
    minutes: float
    waits_for: Sentence | None


@dataclass(frozen=True, slots=True)
class ToOrder:
    """A line that is finished when called: ``ready`` is what stands for it, ``alone_min`` the minutes of a
    call by itself, ``at_once`` what happens when several come together."""

    line: int
    dish: Sentence
    ready: tuple[Sentence, ...]
    alone_min: float
    at_once: tuple[AtOnce, ...]
