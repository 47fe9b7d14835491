"""What is wrong with single entries of a service, beside which the rest is planned."""

from collections.abc import Iterable
from dataclasses import dataclass

from saucier.errors import BadInput, Problem
from saucier.words import Sentence


@dataclass(frozen=True, slots=True)
class Amiss:
    """What is wrong with one entry of the service, at its ``field``; the rest is planned."""

    field: str
    code: str
    message: Sentence
    remedy: Sentence


def amiss(bad: BadInput, at: str) -> tuple[Amiss, ...]:
    """The problems of ``bad``, in the entry ``at``."""
    return told(bad.under(at).problems)


def told(problems: Iterable[Problem]) -> tuple[Amiss, ...]:
    return tuple(Amiss(p.field, p.code, p.message, p.remedy) for p in problems)


def cannot_be_made(sauce: str, bad: BadInput) -> BadInput:
    """That a dish's ``sauce`` cannot be made, by the field ``dish``; what is wrong with it is its own
    sheet's."""
    return BadInput.at("dish", "its-sauce-cannot-be-made", sauce=sauce, why=bad.problems[0].message)
