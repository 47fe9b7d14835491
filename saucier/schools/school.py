"""What a school is: a question, its choices, how to tell and how to switch."""

from collections.abc import Callable
from dataclasses import dataclass

from saucier.kitchen import Kitchen
from saucier.sheet import Sheet
from saucier.steps import (
    AnyStep,
)
from saucier.units import Amount
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class Choice:
    """One answer, and why cooks give it."""

    key: str
    name: Sentence
    why: Sentence


@dataclass(frozen=True, slots=True)
class School:
    """A question cooks answer differently, with the keys of its ``choices``; ``followed`` says
    which one a sheet follows (None where the question does not arise), ``rewrite`` makes it follow
    another."""

    key: str
    choices: tuple[str, ...]
    followed: Callable[[Sheet, Kitchen], str | None]
    rewrite: Callable[[Sheet, str, Kitchen], Sheet]

    @property
    def question(self) -> Sentence:
        return say(f"school.{self.key}.question")

    def choice(self, key: str) -> Choice:
        return Choice(
            key, say(f"school.{self.key}.{key}.name"), say(f"school.{self.key}.{key}.why")
        )


@dataclass(frozen=True, slots=True)
class Followed:
    """A question that arises in a sheet, and what it follows."""

    key: str
    question: Sentence
    followed: str
    choices: tuple[Choice, ...]


def with_steps(sheet: Sheet, steps: list[AnyStep]) -> Sheet:
    return sheet.model_copy(update={"steps": tuple(steps)})


def with_method(sheet: Sheet, **changes: object) -> Sheet:
    return sheet.model_copy(update={"method": sheet.method.model_copy(update=changes)})


def index_of(sheet: Sheet, kind: type | tuple[type, ...]) -> int | None:
    return next((n for n, step in enumerate(sheet.steps) if isinstance(step, kind)), None)


def grams_amount(value: float) -> Amount:
    return Amount(round(value, 1), "g")
