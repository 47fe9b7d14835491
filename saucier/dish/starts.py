"""Dishes to start from, read from ``starts.toml``: a new one is an entry there."""

import tomllib
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from pathlib import Path
from typing import Any


@dataclass(frozen=True, slots=True)
class DishStart:
    """A ready-made kind of dish: its ``document`` without sauces' names, and which ``families`` of sauce
    fit each of its uses, the best first."""

    key: str
    name: str
    why: str
    families: tuple[tuple[str, ...], ...]
    document: dict[str, Any]

    def with_sauces(self, sauces: Sequence[tuple[str, str]]) -> dict[str, Any]:
        """The document with ``sauces`` (key, family) in it: the best that fits each use, else the first
        there is; without any its sauces are left out."""
        uses = []
        for used, families in zip(self.document["sauces"], self.families, strict=True):
            fits = [key for family in families for key, own in sauces if own == family]
            if chosen := (fits or [key for key, _ in sauces])[:1]:
                uses.append({**used, "sauce": chosen[0]})
        return {**self.document, "sauces": uses}


@lru_cache(maxsize=1)
def dish_starts() -> tuple[DishStart, ...]:
    """All of them, in the order they are offered."""
    path = Path(__file__).with_name("starts.toml")
    rows = tomllib.loads(path.read_text(encoding="utf-8"))
    return tuple(
        DishStart(
            key,
            row["name"],
            row["why"],
            tuple(tuple(one) for one in row["families"]),
            {"format": "kestrel-fog/dish", "version": 1, "name": row["name"], **row["dish"]},
        )
        for key, row in rows.items()
    )
