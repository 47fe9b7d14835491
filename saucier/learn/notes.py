"""What notes say again and again: themes found in them, counted."""

import re
import tomllib
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path

from saucier.words import Sentence, say

LEAST = 2
"""What is said in so many notes is said again."""


@dataclass(frozen=True, slots=True)
class Said:
    """A theme that was found in ``times`` of ``of`` notes (by their numbers, ``notes``), as a sentence."""

    theme: str
    words: Sentence
    times: int
    of: int
    notes: tuple[int, ...]


def said_again(notes: Sequence[str]) -> tuple[Said, ...]:
    """What ``notes`` say at least twice, the most often first.

    >>> said_again(["Too salty!", "a bit too thick", "salty again", "not salty"])[0].notes
    (0, 2)
    """
    found: dict[str, list[int]] = {}
    written = [note for note in notes if note.strip()]
    for number, note in enumerate(notes):
        for theme, pattern in _themes():
            if any(not _denied(note, match.start()) for match in pattern.finditer(note.lower())):
                found.setdefault(theme, []).append(number)
    said = [
        Said(
            theme,
            say(f"said.{theme}", times=len(at), of=len(written)),
            len(at),
            len(written),
            tuple(at),
        )
        for theme, at in found.items()
        if len(at) >= LEAST
    ]
    return tuple(sorted(said, key=lambda one: (-one.times, one.theme)))


_NOT = re.compile(r"\b(not|no|never|nothing|isn't|wasn't|without)\s+(\w+\s+)?$")


def _denied(note: str, at: int) -> bool:
    return bool(_NOT.search(note.lower()[:at]))


@lru_cache(maxsize=1)
def _themes() -> list[tuple[str, re.Pattern[str]]]:
    text = Path(__file__).with_name("themes.toml").read_text(encoding="utf-8")
    themes = tomllib.loads(text)
    return [
        (key, re.compile(r"\b(" + "|".join(map(re.escape, one["words"])) + r")\b"))
        for key, one in themes.items()
    ]
