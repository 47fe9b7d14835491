"""Where a sauce stands on what a guest goes without: what may take its place, tried before it is said."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from itertools import islice

from saucier.check import check
from saucier.dish import Dish
from saucier.errors import BadInput
from saucier.guests.exclusion import Exclusion, brings
from saucier.guests.variant import StandsOn, without
from saucier.kitchen import Kitchen
from saucier.larder import UNSAID, Ingredient
from saucier.sheet import Sheet
from saucier.swaps import candidates_for, ends_in_no_sauce, kept_as_thick
from saucier.words import Sentence, say

_TRIED, _OFFERED, _DEEP, _SOLVED = 6, 2, 4, 12
"""Rows tried for each ingredient, ways offered, how often a swap may uncover the next, and sauces solved
in all: a cook waits for the answer."""


@dataclass(frozen=True, slots=True)
class Instead:
    """``swaps`` (by key) with which every sauce of the dish comes to its grade, the ``words`` for it, and
    the allergens that come in with them."""

    swaps: Mapping[str, str]
    words: Sentence
    gains: tuple[str, ...]


def instead_of(
    dish: Dish,
    sheets: Mapping[str, Sheet],
    stands_on: StandsOn,
    excluded: tuple[Exclusion, ...],
    kitchen: Kitchen,
    swaps: Mapping[str, str],
) -> tuple[Instead, ...]:
    """What may take the place of what ``stands_on`` names, best first; nothing where nothing of the
    larder does. Each was tried: left out, solved for its grade, nothing split."""
    larder = kitchen.larder
    there = _allergens_of(dish, sheets, kitchen)
    search = _Search(dish, sheets, excluded, kitchen, there)
    offered = []
    for chosen in islice(search.working(stands_on.keys, swaps), _OFFERED):
        new = {old: to for old, to in chosen.items() if old not in swaps}
        before = frozenset().union(*(larder[key].allergens for key in new))
        after = frozenset().union(*(larder[key].allergens for key in new.values()))
        gains = tuple(sorted(after - before - there))
        pairs = tuple(_pair(larder[to], larder[old]) for old, to in new.items())
        words = say("instead-bringing" if gains else "instead", pairs=pairs, gains=gains)
        offered.append(Instead(chosen, words, gains))
    return tuple(offered)


@dataclass(slots=True)
class _Search:
    """Swaps looked for with which ``dish`` works without what is ``excluded``; ``there`` are the
    allergens it has anyhow."""

    dish: Dish
    sheets: Mapping[str, Sheet]
    excluded: tuple[Exclusion, ...]
    kitchen: Kitchen
    there: frozenset[str]
    solved: int = 0

    def working(
        self, keys: tuple[str, ...], swaps: Mapping[str, str], depth: int = _DEEP
    ) -> Iterator[dict[str, str]]:
        """Swaps for ``keys`` beside ``swaps``, the nearest first. A swap may uncover the next thing a
        sauce stands on (the cream once the milk is gone): that is swapped too."""
        missing, rest = self.kitchen.larder[keys[0]], keys[1:]
        may = _candidates(missing, self.there, self.excluded, self.kitchen)
        for row in may[:_TRIED]:
            chosen = {**swaps, missing.key: row.key}
            if rest:
                yield from islice(self.working(rest, chosen, depth), 1)
                continue
            try:
                made = without(self.dish, self.sheets, self.excluded, self.kitchen, chosen)
            except StandsOn as further:
                if depth > 0 and not set(further.keys) & set(chosen):
                    yield from islice(self.working(further.keys, chosen, depth - 1), 1)
                continue
            except BadInput:
                continue
            if all(self._comes_out(key, sheet) for key, sheet in made.sheets.items()):
                yield chosen

    def _comes_out(self, key: str, sheet: Sheet) -> bool:
        """Whether the changed ``sheet`` comes to the grade and the yield of the one written."""
        written = self.sheets[key]
        if sheet == written:
            return True
        if self.solved >= _SOLVED:
            return False
        self.solved += 1
        try:
            before = check(written, self.kitchen)
            made = check(kept_as_thick(sheet, before, self.kitchen), self.kitchen)
        except BadInput:
            return False
        return ends_in_no_sauce(before, made) is None


def _candidates(
    missing: Ingredient, there: frozenset[str], excluded: tuple[Exclusion, ...], kitchen: Kitchen
) -> list[Ingredient]:
    """Who may stand in and holds nothing excluded: who brings the fewest new allergens (``there`` are
    those the dish has anyhow) and animals first, then its own kind, then water."""
    may = [
        row
        for row in candidates_for(missing, kitchen.larder)
        if UNSAID not in row.animals and not brings(row.key, excluded, kitchen)
    ]
    return sorted(
        may,
        key=lambda row: (
            len(row.allergens - missing.allergens - there) + len(row.animals - missing.animals),
            row.role != missing.role,
            row.role != "water",
        ),
    )


def _allergens_of(dish: Dish, sheets: Mapping[str, Sheet], kitchen: Kitchen) -> frozenset[str]:
    keys = {one.ingredient for one in dish.solids} | {one.ingredient for one in dish.toppings}
    keys |= {key for s in sheets.values() for step in s.steps for key in step.names() if key}
    return frozenset().union(*(kitchen.larder[key].allergens for key in keys))


def _pair(new: Ingredient, old: Ingredient) -> Sentence:
    """One in place of the other, by their whole names where the short ones are one."""
    if new.spoken_name == old.spoken_name:
        return say("in-place-of", new=new.name.lower(), old=old.name.lower())
    return say("in-place-of", new=new.spoken_name, old=old.spoken_name)
