"""Which ingredient a name means: whole names, names in another order, kinds of a thing, what is alike."""

import re
from pathlib import Path

from saucier.larder import Larder, plain_name

NEAR = 80.0
"""Likeness (0 to 100) from which a name is offered as a guess for the cook to settle."""
PERCENT = re.compile(r"\d+(?:[.,]\d+)? ?%")
_BY_FAT = re.compile(r"-(?:\d+|whole|semi|skimmed)$")
"""How the keys end of milks and creams that differ by their fat."""
_PLAIN = frozenset(Path(__file__).with_name("plain_words.txt").read_text("utf-8").split())
"""Words that do not change which ingredient is meant."""
_CHOOSING = frozenset(("and", "or", "with", "plus", "in", "from"))
_LIKE = re.compile(r"\b([\w-]+)[ -](?:style|type)\b ?", re.IGNORECASE)
OR = re.compile(r"^([a-zA-ZÀ-ÿ][^,]*?),? or ([a-zA-ZÀ-ÿ][^,]*)$")


def ingredient_named(name: str, larder: Larder) -> tuple[str | None, bool, tuple[str, ...]]:
    """The key meant by ``name``, whether that is sure, and guesses where it is not.

    Sure is a whole name or alias, with nothing beside it but words that change nothing.
    """
    known = larder.by_name
    if (share := PERCENT.search(name)) and (key := _by_fat(name, share, larder)):
        return key, True, ()
    if first := _first_of(name, larder):
        return first, True, ()
    if plain_name(name) in known:
        return known[plain_name(name)], True, ()
    # "Milk, semi-skimmed" before the "milk" in it.
    if (any_order := _in_any_order(plain_name(name), larder)) is not None:
        return any_order, True, ()
    if (head := plain_name(name.partition(",")[0])) in known:
        return known[head], True, ()
    if like := _LIKE.search(name):
        return _of_a_kind(name, like, larder)
    words = plain_name(name.partition(",")[0])
    best = _longest_name_in(words.split(), known)
    if best:
        left = set(words.split()) - set(best.split()) - {f"{best.split()[-1]}s"}
        if left <= _PLAIN:
            return known[best], True, ()
        return known[best], False, (known[best], *_alike(words, known, known[best]))
    guesses = _alike(words, known, None)
    return None, False, guesses


def _by_fat(name: str, share: re.Match[str], larder: Larder) -> str | None:
    """The milk or cream whose fat is the share said: "whipping cream 35 %"."""
    bare = " ".join((name[: share.start()] + name[share.end() :]).replace("fat", "").split())
    key, sure, _ = ingredient_named(bare, larder) if bare else (None, False, ())
    if key is None or not sure or larder[key].role not in ("cream", "milk", "soft-cream"):
        return None
    pct = float(share[0].strip("% ").replace(",", "."))
    off = {
        one.key: abs(100.0 * one.per_gram.fat - pct)
        for one in larder.values()
        if one.key == key or (one.role == larder[key].role and _BY_FAT.search(one.key))
    }
    nearest = min(off, key=lambda one: (off[one], one != key))
    return nearest if off[nearest] <= 0.1 * pct + 0.2 else None


def _of_a_kind(
    name: str, like: re.Match[str], larder: Larder
) -> tuple[str | None, bool, tuple[str, ...]]:
    """ "Gruyère-type cheese": what is named, where the larder has it; else the kind, to be settled."""
    kind = _LIKE.sub("", name).strip()
    for named in (
        (f"{like[1]} {kind}", f"{like[1]} {kind.split()[-1]}", like[1]) if kind else (like[1],)
    ):
        if len(kind.split()) <= 3 and (key := larder.by_name.get(plain_name(named))) is not None:
            return key, True, ()
    key, sure, guesses = ingredient_named(kind, larder) if kind else (None, False, ())
    if key is not None and larder[key].role == "cheese":  # "cheese" alone is no kind of it
        return key, False, (key, *guesses)
    return key, sure, guesses


def _first_of(name: str, larder: Larder) -> str | None:
    """Of "panna / single cream" what is known, where that is one thing; of "butter or margarine" the
    first."""
    if choice := OR.match(name):
        key, sure, _ = ingredient_named(choice[1], larder)
        other, known, _ = ingredient_named(choice[2], larder)
        return key if sure and (known or other) else None
    parts = [part.strip() for part in re.split(r"\s*/\s*", name)]
    if len(parts) < 2 or not all(re.match(r"[a-zA-ZÀ-ÿ]", part) for part in parts):
        return None
    read = [ingredient_named(part, larder) for part in parts]
    keys = {key for key, sure, _ in read if key is not None and sure}
    return (
        keys.pop() if len(keys) == 1 and all(sure or key is None for key, sure, _ in read) else None
    )


def _longest_name_in(words: list[str], known: dict[str, str]) -> str:
    """The longest name that stands in ``words``, one of it or several; '' for none."""
    best = ""
    for start in range(len(words)):
        for end in range(start + 1, len(words) + 1):
            said = " ".join(words[start:end])
            name = said if said in known else said.removesuffix("s")
            if name in known and len(name) > len(best):
                best = name
    return best


def _in_any_order(words: str, larder: Larder) -> str | None:
    """The key whose whole name is among ``words`` in any order, with nothing beside it that could
    change it: "stock, veal", "mature firm cheese". The longest such name, if it is one thing's."""
    said = set(words.split())
    if len(said) < 2 or said & _CHOOSING:
        return None
    fit = [
        (len(name), key) for of, name, key in larder.by_words if of <= said and said - of <= _PLAIN
    ]
    longest = max((length for length, _ in fit), default=0)
    keys = {key for length, key in fit if length == longest}
    return keys.pop() if len(keys) == 1 else None


def _alike(words: str, known: dict[str, str], but: str | None) -> tuple[str, ...]:
    # Imported where it is used: the command line's plain check never needs it.
    from rapidfuzz import fuzz, process

    alike = process.extract(
        words, known.keys(), scorer=fuzz.token_set_ratio, limit=8, score_cutoff=NEAR
    )
    keys = dict.fromkeys(known[alias] for alias, _, _ in alike)
    return tuple(key for key in keys if key != but)[:3]
