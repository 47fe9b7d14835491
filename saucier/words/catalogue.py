"""The catalogue: every sentence by its code, one folder to a language, one file to a room."""

import tomllib
from collections.abc import Iterator
from functools import cache
from pathlib import Path
from typing import Any

LANGUAGE = "en"
REMEDY = ":remedy"
"""What is wrong with an input has two sentences: the second's code ends so."""
_SHELVES = [Path(__file__).parent]


def add_shelf(folder: Path) -> None:
    """Sentences of a program that stands on the core: ``folder/<language>/*.toml``."""
    if folder not in _SHELVES:
        _SHELVES.append(folder)
        sentences.cache_clear()


@cache
def sentences(language: str = LANGUAGE) -> dict[str, str]:
    """Every template of ``language`` by its code. Raises :class:`ValueError` where two have one."""
    templates: dict[str, str] = {}
    for shelf in _SHELVES:
        for path in sorted((shelf / language).glob("*.toml")):
            for code, words in _entries(tomllib.loads(path.read_text(encoding="utf-8"))):
                if code in templates:
                    raise ValueError(f"{path.name}: {code} is in the catalogue already")
                templates[code] = words
    return templates


def _entries(table: dict[str, Any], under: str = "") -> Iterator[tuple[str, str]]:
    """Codes and sentences of a table; those of a table in it are called by both names."""
    for name, words in table.items():
        if isinstance(words, dict):
            yield from _entries(words, f"{under}{name}.")
        elif isinstance(words, list):
            yield f"{under}{name}", words[0]
            yield f"{under}{name}{REMEDY}", words[1]
        else:
            yield f"{under}{name}", words


def template(code: str) -> str:
    """The template of ``code``, to be filled in with :meth:`str.format`."""
    return sentences()[code]
