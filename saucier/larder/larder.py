"""Ingredients by key, and the larder that ships, read from ``ingredients.csv``."""

import csv
import re
import unicodedata
from collections.abc import Iterable, Iterator, Mapping
from difflib import get_close_matches
from functools import cached_property, lru_cache
from pathlib import Path

from saucier.errors import BadInput
from saucier.larder.ingredient import Ingredient
from saucier.larder.row import ingredient_from_row
from saucier.words import one_of


@lru_cache(maxsize=20_000)
def plain_name(name: str) -> str:
    """``name`` without accents, case and punctuation. Kept: the names of a larder are asked again and again.

    >>> plain_name("Crème fraîche 30%")
    'creme fraiche 30 %'
    """
    folded = unicodedata.normalize("NFKD", name.lower().replace("œ", "oe").replace("’", "'"))
    bare = "".join(sign for sign in folded if not unicodedata.combining(sign))
    bare = re.sub(r"\b([dl])'", r"\1 ", bare).replace("'", "")
    spaced = re.sub(r"(\d)%", r"\1 %", re.sub(r"[^a-z0-9% ]+", " ", bare))
    return " ".join(spaced.split())


class Larder(Mapping[str, Ingredient]):
    """Ingredients by key. Looking up what is not there raises :class:`BadInput` with the
    nearest keys."""

    def __init__(self, rows: Iterable[Ingredient]) -> None:
        self._rows = {row.key: row for row in rows}

    def __getitem__(self, key: str) -> Ingredient:
        try:
            return self._rows[key]
        except KeyError:
            near = self.called(key) or get_close_matches(key, self._rows, n=3, cutoff=0.5)
            code = "is-not-in-the-larder-but-near-one" if near else "is-not-in-the-larder"
            raise BadInput.at("ingredient", code, key=key[:60], near=one_of(near)) from None

    def called(self, name: str) -> list[str]:
        """Keys of what shops or recipes call ``name``."""
        plain = " ".join(name.lower().replace("-", " ").replace("_", " ").split())
        return [
            row.key
            for row in self._rows.values()
            if plain == row.name.lower() or plain in (alias.lower() for alias in row.aliases)
        ]

    @cached_property
    def by_name(self) -> dict[str, str]:
        """Every name and alias in plain words, to its key; a row's own name counts before aliases."""
        keys: dict[str, str] = {}
        for row in self._rows.values():
            keys.setdefault(plain_name(row.name), row.key)
        for row in self._rows.values():
            for alias in row.aliases:
                keys.setdefault(plain_name(alias), row.key)
        return keys

    @cached_property
    def by_words(self) -> tuple[tuple[frozenset[str], str, str], ...]:
        """Names of several words: the words, in whatever order, the name, its key."""
        return tuple(
            (frozenset(name.split()), name, key)
            for name, key in self.by_name.items()
            if " " in name
        )

    def __iter__(self) -> Iterator[str]:
        return iter(self._rows)

    def __len__(self) -> int:
        return len(self._rows)

    def __contains__(self, key: object) -> bool:
        return key in self._rows

    def with_rows(self, rows: Iterable[Ingredient]) -> "Larder":
        """This larder with ``rows`` in place of those of the same keys, new ones last."""
        return Larder([*self._rows.values(), *rows])


@lru_cache(maxsize=1)
def shipped_larder() -> Larder:
    """The larder that comes with Kestrel Fog."""
    with Path(__file__).with_name("ingredients.csv").open(encoding="utf-8", newline="") as file:
        return Larder([ingredient_from_row(row) for row in csv.DictReader(file)])
