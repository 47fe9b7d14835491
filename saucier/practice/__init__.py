"""Practice: questions made of a kitchen's own sauces and pans, marked against the model."""

from saucier.practice.asking import Asked, asked, next_kind
from saucier.practice.question import KINDS, Answer, Kind, Marked, Question, marked

__all__ = ["KINDS", "Answer", "Asked", "Kind", "Marked", "Question", "asked", "marked", "next_kind"]
