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


@lru_cache(maxsize=20_000)
def singular(name: str) -> str:
    """``name`` in plain words, each as of one.

    >>> singular("Cherry-tomatoes"), singular("leaves of bay"), singular("Swiss")
    ('cherry tomato', 'leaf of bay', 'swiss')
    """
    return " ".join(_one_of(word) for word in plain_name(name.replace("_", " ")).split())


_ODD = {
    "leaves": "leaf",
    "loaves": "loaf",
    "halves": "half",
    "calves": "calf",
    "chilies": "chilli",
    "chillies": "chilli",
}


def _one_of(word: str) -> str:
    if word in _ODD:
        return _ODD[word]
    for ending, instead, least in (
        ("ies", "y", 5),
        ("oes", "o", 4),
        ("ches", "ch", 5),
        ("shes", "sh", 5),
        ("sses", "ss", 5),
        ("ss", "ss", 3),
        ("us", "us", 3),
        ("is", "is", 3),
        ("s", "", 4),
    ):
        if word.endswith(ending) and len(word) >= least:
            return word[: -len(ending)] + instead
    return word


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

    @cached_property
    def _foods_in(self) -> Mapping[str, frozenset[str]]:
        return {key: frozenset(self._reached((key,))) for key in self._rows}

    @cached_property
    def _held_in(self) -> Mapping[str, frozenset[str]]:
        held: dict[str, frozenset[str]] = {}
        for key in self._rows:
            kinds = self._reached((key,), kinds_only=True)
            inside = [
                food for one in kinds if one in self._rows for food in self._rows[one].holds or ()
            ]
            held[key] = frozenset(self._reached(inside))
        return held

    def _reached(self, foods: Iterable[str], *, kinds_only: bool = False) -> set[str]:
        """``foods`` and, where one is a row, all that it is of and holds, and those in turn."""
        seen: set[str] = set()
        ahead = list(foods)
        while ahead:
            food = ahead.pop()
            if food not in seen:
                seen.add(food)
                row = self._rows.get(food)
                if row is not None:
                    ahead += row.of if kinds_only else (*row.of, *(row.holds or ()))
        return seen

    def foods_in(self, key: str) -> frozenset[str]:
        """Every food the row ``key`` is, is made of or holds, itself among them.

        >>> sorted(shipped_larder().foods_in("onion-puree"))
        ['allium', 'onion', 'onion-puree']
        """
        return self._foods_in[key]

    def held_in(self, key: str) -> frozenset[str]:
        """Every food the row ``key`` is made of or holds.

        >>> sorted(shipped_larder().held_in("onion-puree"))
        ['allium', 'onion']
        """
        return self._held_in[key]

    def kinds_unsaid_in(self, key: str) -> frozenset[str]:
        """Foods the row ``key`` holds of which no row says the kind: the mushrooms of a stock.

        >>> "mushroom" in shipped_larder().kinds_unsaid_in("stock-mushroom")
        True
        """
        rows = (self._rows[food] for food in self.foods_in(key) if food in self._rows)
        return frozenset(food for row in rows for food in row.holds or () if food not in self._rows)

    def foods_named(self, word: str) -> frozenset[str]:
        """The foods ``word`` means: what is called so, and every row that has it in its name; what is of one
        of them or holds it is told by :meth:`foods_in`. Empty: nobody knows it.

        >>> sorted(shipped_larder().foods_named("Hams"))
        ['ham', 'ham-cooked', 'ham-dry', 'stock-ham']
        """
        wanted = singular(word)
        if not wanted:
            return frozenset()
        found = set(self._foods_by_name.get(wanted, ()))
        found |= {key for key, name in self._names if f" {wanted} " in f" {name} "}
        return frozenset(found)

    @cached_property
    def _names(self) -> tuple[tuple[str, str], ...]:
        return tuple((key, singular(row.name)) for key, row in self._rows.items())

    @cached_property
    def _foods_by_name(self) -> Mapping[str, set[str]]:
        """Foods by what they are called: keys, names, aliases, and what other rows are said to be of or to hold."""
        named: dict[str, set[str]] = {}
        for key, row in self._rows.items():
            for name in (key, row.name, *row.aliases):
                named.setdefault(singular(name), set()).add(key)
            for food in (*row.of, *(row.holds or ())):
                named.setdefault(singular(food), set()).add(food)
        return named

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
