"""Which ingredients a clause speaks of, and how much of each."""

import re
import unicodedata
from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache

from saucier.exchange.lines import SPOKEN, ReadLine, read_line
from saucier.kitchen import Kitchen
from saucier.larder import Larder, plain_name
from saucier.units import Amount
from saucier.words import say

_NO_AMOUNT = say("line.no-amount")
Take = float | Amount | None
"""How much of a line a clause takes: a share, an amount, or (None) what is left of it."""

_KINDS: dict[str, tuple[str, ...]] = {
    "stock": ("stock",),
    "broth": ("stock",),
    "liquor": ("stock",),
    "cheese": ("cheese",),
    "cream": ("cream",),
    "milk": ("milk",),
    "wine": ("wine",),
    "spirit": ("spirit",),
    "butter": ("fat",),
    "oil": ("fat",),
    "flour": ("flour",),
    "starch": ("flour",),
    "herbs": ("herb",),
    "herb": ("herb",),
    "lemon": ("acid",),
    "pepper": ("spice",),
}
"""Words that mean whatever of that kind is listed."""
_NO_NAMES = frozenset(("mash", "glaze", "syrup", "brine"))
"""Names in the larder that a method says of other things."""
_DISH = re.compile(r" (?:sauce|gravy|soup|gratin|bake|cap|velout[ée]|croquettes?)\b")
_SHARE = re.compile(
    r"(?P<share>half|two[ -]thirds|(?:a|one) third|three[ -]quarters|(?:a|one) quarter)"
    r"(?: of)?(?: the| your)?(?: \w+)?\s*$"
)
_SHARES = {
    "half": 0.5,
    "two thirds": 2 / 3,
    "third": 1 / 3,
    "three quarters": 0.75,
    "quarter": 0.25,
}
_REST = re.compile(
    r"\b(?:the rest of(?: the)?|rest of the|remaining|the last|last of the|leftover)(?: [\w.]+){0,4}\s*$"
)
_COUNT = re.compile(r"^(?:(?:about|good|an?|one|two|three|four|half|five|six|eight|ten)\b|\d)")


@dataclass(frozen=True, slots=True)
class Mention:
    """A mention of the ingredient ``key``: listed on ``lines`` (numbers; none: not listed), of which
    it takes ``take``. ``read`` is what the words around it say, for one that is not listed."""

    key: str
    lines: tuple[int, ...]
    take: Take
    read: ReadLine


def folded(text: str) -> str:
    """``text`` in lower case, without accents."""
    apart = unicodedata.normalize("NFKD", text.lower())
    return "".join(sign for sign in apart if not unicodedata.combining(sign)).replace("’", "'")


def mentions_in(text: str, lines: Sequence[ReadLine], kitchen: Kitchen) -> list[Mention]:
    """The ingredients ``text`` names, in its order, found among ``lines`` first: a general word ("the
    stock") means what is listed of its kind."""
    said, found, end = folded(text), [], 0
    known, pattern = _known(_frozen(kitchen.larder))
    for match in pattern.finditer(said):
        word = plain_name(match[1])
        key = known.get(word)
        if key is None or key not in kitchen.larder:
            continue
        if _DISH.match(said, match.end()):  # "cheese sauce" names a dish, not what goes in
            continue
        if after := re.match(
            r", (\w+)(?=,|\.|$)", said[match.end() :]
        ):  # "cheese, alpine, off the heat"
            key = known.get(f"{after[1]} {word}", key)
        before = said[end : match.start()]
        numbers = _listed(word, key, lines, kitchen)
        take, read = _how_much(before, match[0], text, key, kitchen)
        found.append(Mention(key, numbers, take, read))
        end = match.end()
    return found


def _listed(word: str, key: str, lines: Sequence[ReadLine], kitchen: Kitchen) -> tuple[int, ...]:
    """The lines meant by ``word``: that ingredient's, else those named alike, else all of its kind."""
    larder = kitchen.larder
    there = [(n, larder[one.ingredient]) for n, one in enumerate(lines) if one.ingredient]
    if same := [n for n, row in there if row.key == key]:
        return tuple(same)
    last = word.split()[-1].removesuffix("s")
    role = larder[key].role
    alike = [
        n
        for n, row in there
        if row.role == role
        and re.search(rf"\b{re.escape(last)}", _all_names(row.name, row.aliases))
    ]
    if alike:
        return tuple(alike)
    if kinds := _KINDS.get(word):
        return tuple(n for n, row in there if row.role in kinds)
    kinds = _KINDS.get(last, ())
    return tuple(n for n, row in there if row.role in kinds and lines[n].blank)


def _all_names(name: str, aliases: tuple[str, ...]) -> str:
    return " ".join(plain_name(one) for one in (name, *aliases))


def _how_much(
    before: str, name: str, text: str, key: str, kitchen: Kitchen
) -> tuple[Take, ReadLine]:
    """What stands before the name: a share, a rest, or an amount read as a line of its own."""
    if share := _SHARE.search(before):
        word = re.sub(r"^(?:a|one)[ -]", "", share["share"].replace("-", " "))
        return _SHARES[word], ReadLine(name, "settle", key, None, _NO_AMOUNT)
    if _REST.search(before):
        return None, ReadLine(name, "settle", key, None, _NO_AMOUNT)
    near = re.split(r"[,;:]| (?:and|with|in|into|from|to|plus) ", before)[-1].split()
    for length in range(min(6, len(near)), 0, -1):
        head = " ".join(near[-length:])
        if not _COUNT.match(head):
            continue
        line = read_line(f"{head} {kitchen.larder[key].name}", kitchen)
        if line.status == "read" and line.amount is not None and line.ingredient == key:
            return line.amount, ReadLine(f"{head} {name}", "read", key, line.amount)
    return 1.0, ReadLine(name, "settle", key, None, _NO_AMOUNT)


def _frozen(larder: Larder) -> tuple[tuple[str, str], ...]:
    return tuple(sorted({**SPOKEN, **larder.by_name}.items()))


@lru_cache(maxsize=8)
def _known(names: tuple[tuple[str, str], ...]) -> tuple[dict[str, str], re.Pattern[str]]:
    known = {name: key for name, key in names if len(name) > 2 and name not in _NO_NAMES}
    longest = sorted(known, key=len, reverse=True)
    # Apostrophes and brackets of names are gone from both: what is left are words and spaces.
    body = "|".join(re.escape(name).replace(r"\ ", r"[ '-]+") for name in longest)
    return known, re.compile(rf"\b({body})(?:s|es)?\b")
