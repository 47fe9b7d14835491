"""Which ingredients a clause speaks of, and how much of each."""

import re
import unicodedata
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from functools import lru_cache

from saucier.exchange.lines import SPOKEN, ReadLine, read_line
from saucier.exchange.spelling import respelled, spelled
from saucier.kitchen import Kitchen
from saucier.larder import Larder, plain_name
from saucier.units import Amount
from saucier.words import say

_NO_AMOUNT = say("line.no-amount")
_UNREAD = say("line.amount-unread")
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
_DISH = re.compile(
    r" (?:(?:cooking )?(?:water|liquid|liquor)|peel|skins?|sauce|gravy|soup|gratin|bake|cap|velout[ée]|croquettes?|one|thing|number)\b"
)
_SHARE = re.compile(
    r"(?P<share>half(?! an?\b)|two[ -]thirds|(?:a|one) third|three[ -]quarters|(?:a|one) quarter)"
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
_SHORTEST = 4
"""Letters of a word that may stand for a whole name."""
_SAME = re.compile(
    r"\b(?:(?:the |an )?(?:same|equal)(?: (?:amount|weight|quantity|measure))?(?: of)?|as much)(?: plain| white)?\s*$"
)
"""As much as of what was named before."""
_PARTS = re.compile(r"\b(?:\d[\d./]*|an?|one|two|three|four|half a) parts?(?: of)?\s*$")
"""A ratio: so much of what is not said."""
_ONE_OF = re.compile(r"\b(?:one|1|another) of(?: the| their| its)?\s*$")
"""Of the same measure once more: "a spoon of this and one of that"."""
_PART_OF = re.compile(
    r" (?:jus|drippings?|fat|bones|powder|seeds?|extract|essence|flakes|shells|oil)\b"
)
"""Makes another thing of what it stands behind, where no longer name is known."""
_NOT = re.compile(
    r"\b(?:no|never|without|instead of|rather than|(?:don't|dont|do not|never)(?: \w+)?)(?: any| the| more)?\s*$"
)
"""Before what is not to go in."""
_SIMILE = re.compile(
    r"\b(?:like|consistency of|thick(?:ness)? (?:of|as)|colour of|as thick as|texture of)(?: an?| the)?(?: \w+){0,2}\s*$"
)
_COUNT = re.compile(
    r"^(?:(?:pinch|knob|splash|handful|dash|grating|sprig|bunch|about|good|an?|one|two|three|four|half|five|six|eight|ten)\b|\d)"
)


_BEHIND = re.compile(
    r"[\s,(]*(?:- )?(?:(?:hot|cold|warm),? )?(?:(?:about|around|roughly|some|maybe|say|like|probably|perhaps|i use|of it"
    r"|call it|make it|that's|it was|i'd say|a good) ){0,2}(\d[\d.,/]*(?: \d/\d)? ?[a-z]+"
    r"|(?:one|two|three|half an?|an?) (?:ounce|pound|teaspoon|tablespoon|tsp|tbsp|cup|glass|pint|lit(?:re|er)|kilo)s?"
    r"|an? (?:(?:big|small|good|large|generous) )?(?:handful|knob|pinch|splash|drizzle|bunch|sprig))\??\)?(?: -)?"
    r"(?=\s*(?:[,;.)]|$|(?:and|then|which|that|i|for|in|into|until|till|go|goes)\b))"
)
"""An amount behind its name, told: "brandy about 30 ml and …"."""


@dataclass(frozen=True, slots=True)
class Mention:
    """A mention of the ingredient ``key``: listed on ``lines`` (numbers; none: not listed), of which
    it takes ``take``. ``read`` is what the words around it say, for one that is not listed."""

    key: str
    lines: tuple[int, ...]
    take: Take
    read: ReadLine


def folded(text: str) -> str:
    """``text`` in lower case, without accents, what has several names under one."""
    apart = unicodedata.normalize("NFKD", spelled(text).lower())
    bare = "".join(sign for sign in apart if not unicodedata.combining(sign)).replace("’", "'")
    return respelled(re.sub(r"(?<=[a-z])-(?:type|style)\b", "", bare))


def mentions_in(text: str, lines: Sequence[ReadLine], kitchen: Kitchen) -> list[Mention]:
    """The ingredients ``text`` names, in its order, found among ``lines`` first: a general word ("the
    stock") means what is listed of its kind."""
    said = folded(text)
    found = [
        (
            one.start,
            Mention(one.key, _listed(one.word, one.key, lines, kitchen), one.take, one.read),
        )
        for one in _named_in(said, kitchen)
        if one.key
    ]
    there = {n for _, mention in found for n in mention.lines}
    found += _shortly(said, lines, there, kitchen)
    return [mention for _, mention in sorted(found, key=lambda one: one[0])]


def _shortly(
    said: str, lines: Sequence[ReadLine], there: set[int], kitchen: Kitchen
) -> Iterator[tuple[int, Mention]]:
    """Listed lines that ``said`` calls by the last word of their name: "the jelly"."""
    known, _ = _known(_frozen(kitchen.larder))
    for n, line in enumerate(lines):
        if n in there or line.ingredient is None:
            continue
        row = kitchen.larder[line.ingredient]
        word = plain_name(row.name).split()[-1]
        wanted = rf"\b(?:the|and) {re.escape(word)}\b"
        if row.role == "fat":
            wanted = r"\b(?:melt|heat|warm) (?:the )?fat\b"
        elif len(word) < _SHORTEST or word in known or word.removesuffix("s") in known:
            continue
        if named := re.search(wanted, said):
            read = ReadLine(named[0], "settle", line.ingredient, None, _NO_AMOUNT)
            yield named.start(), Mention(line.ingredient, (n,), 1.0, read)


@dataclass(frozen=True, slots=True)
class _Named:
    """A name in a text: where, its word, its key, how much, what the words around say, and what
    stands ``before`` it that is not said of it."""

    start: int
    word: str
    key: str
    take: Take
    read: ReadLine
    before: str


def _named_in(said: str, kitchen: Kitchen) -> Iterator[_Named]:
    """Every name in ``said``, and at last, without a key, what stands behind them all."""
    end, last = 0, None
    known, pattern = _known(_frozen(kitchen.larder))
    for match in pattern.finditer(said):
        if match.start() < end:
            continue
        word = plain_name(match[1])
        key = known.get(word)
        if key is None or key not in kitchen.larder:
            continue
        if _PART_OF.match(said, match.end()):
            continue  # "veal drippings" are no veal
        before = said[end : match.start()]
        if _DISH.match(said, match.end()) or _SIMILE.search(before) or _NOT.search(before):
            continue  # "cheese sauce" names a dish, not what goes in; so does "like thick cream"
        if after := re.match(
            r", (\w+)(?=,|\.|$)", said[match.end() :]
        ):  # "cheese, alpine, off the heat"
            key = known.get(f"{after[1]} {word}", key)
        take, read = _how_much(before, match[0], key, kitchen, last)
        last = read.amount or last
        end = match.end()
        vague = read.amount is None or (take == read.amount and read.amount.measure)
        if vague and take is not None and (behind := _BEHIND.match(said, end)):
            line = read_line(f"{behind[1]} {kitchen.larder[key].name}", kitchen)
            if line.amount is not None and line.ingredient == key:
                said_so = f"{match[0]} {behind[1]}"
                read = ReadLine(said_so, line.status, key, line.amount, line.why)
                take, end = (line.amount if line.status == "read" else 1.0), behind.end()
        if read.why == _NO_AMOUNT and take == 1.0 and (bare := _BARE_BEHIND.match(said, end)):
            read = ReadLine(f"{match[0]} {bare[1]}", "settle", key, None, _UNREAD)
            end = bare.end()
        spent = take != 1.0 or read.amount is not None
        left = (
            before[: len(before) - len(_last_part(before))]
            if spent and end == match.end()
            else before
        )
        yield _Named(match.start(), word, key, take, read, left)
    yield _Named(len(said), "", "", None, ReadLine("", "unread", None, None), said[end:])


_BARE_BEHIND = re.compile(r" (\d{2,4})(?=[,.;)]|$)")
"""A number behind a name, without a unit: "milk 500"."""
_LOOSE = re.compile(
    r"(?<![a-z])(?:\d[\d.,/]*(?: \d/\d)?|half an?|an?|one|two|three|four|five|six) ?"
    r"(?:kg|g|grams?|ml|cl|dl|l|lit(?:re|er)s?|oz|ounces?|lbs?|pounds?|pints?|cups?|tbsps?|tablespoons?|tsps?|teaspoons?)\b"
    r"(?! left\b)(?! (?:per|a|each) (?:portion|person|head|cover))(?! (?:of )?(?:the |this |that |it\b)?(?:hot |finished |warm )?(?:sauce|mixture|mix|roux|liquid|it|jug|dish|pan|bowl|tin)\b)"
    r"(?: (?!and\b|then\b|in\b|into\b|to\b|until\b|with\b)[a-z'-]+){0,5}"
)
"""An amount of something, with the words after it."""
_LOOSE_HANDFUL = re.compile(
    r"\b(?:an?|some|two|three|\d+) (?:good |big |small |large |generous )?"
    r"(?:handful|pinch|splash|shake|spoon(?:ful)?|knob|dash|sprig|bunch|glug|slug|drizzle|dollop|glass)(?:e?s)?"
    r" of (?!(?:it|the|this|that|them|hot|sauce)\b)[a-z' -]{3,40}?(?=,|;|\.| and\b| then\b| in\b| to\b|$)"
)
"""The same by hand."""


def loose_amounts(text: str, kitchen: Kitchen) -> list[str]:
    """Amounts in ``text`` that belong to no ingredient it names: what is meant has to be asked."""
    found: list[str] = []
    for named in _named_in(folded(text), kitchen):
        found += [loose[0].strip() for loose in _LOOSE.finditer(named.before)]
        for loose in _LOOSE_HANDFUL.finditer(named.before):
            # What runs into a name that is known is said of that.
            if not named.key or loose.end() < len(named.before.rstrip()):
                found.append(loose[0].strip())
    return found


def _listed(word: str, key: str, lines: Sequence[ReadLine], kitchen: Kitchen) -> tuple[int, ...]:
    """The lines meant by ``word``: that ingredient's, else those named alike, else all of its kind."""
    larder = kitchen.larder
    there = [(n, larder[one.ingredient]) for n, one in enumerate(lines) if one.ingredient]
    if same := [n for n, row in there if row.key == key]:
        return tuple(same)
    last = re.sub(r"(?<=\w{3})s$", "", word.split()[-1])
    role = larder[key].role
    alike = [
        n
        for n, row in there
        if row.role == role
        and re.search(rf"\b{re.escape(last)}(?:s|es)?\b", _all_names(row.name, row.aliases))
    ]
    if alike:
        return tuple(alike)
    if kinds := _KINDS.get(word):
        found = [n for n, row in there if row.role in kinds]
        # "The cream" where only soured cream is listed, "the stock" where a cube is.
        instead = {"cream": "soft-cream", "stock": "seasoning"}.get(word, "")
        found = found or [
            n
            for n, row in there
            if row.role == instead and word in _all_names(row.name, row.aliases).split()
        ]
        return tuple(found)
    named = [
        n
        for n, row in there
        if any(
            plain_name(one).split()[-1] in (last, f"{last}s", f"{last}es")
            for one in (row.name, *row.aliases)
        )
    ]
    if len(named) == 1:  # "the peppercorns": green ones, where no others are listed
        return tuple(named)
    kinds = _KINDS.get(last, ())
    return tuple(n for n, row in there if row.role in kinds and lines[n].blank)


def _all_names(name: str, aliases: tuple[str, ...]) -> str:
    return " ".join(plain_name(one) for one in (name, *aliases))


def _how_much(
    before: str, name: str, key: str, kitchen: Kitchen, last: Amount | None
) -> tuple[Take, ReadLine]:
    """What stands before the name: a share, a rest, as much as the ``last``, or an amount read as a
    line of its own."""
    if parts := _PARTS.search(before):
        why = say("line.share-of-what", shown=parts[0].strip())
        return 1.0, ReadLine(f"{parts[0].strip()} {name}", "settle", key, None, why)
    if last is not None and last.unit != "piece" and _ONE_OF.search(before):
        one = last.times(1.0 / last.value)
        return one, ReadLine(f"1 {last.unit} {name}", "read", key, one)
    if last is not None and _SAME.search(before):
        return last, ReadLine(f"{before.split(',')[-1].strip()} {name}", "read", key, last)
    if share := _SHARE.search(before):
        word = re.sub(r"^(?:a|one)[ -]", "", share["share"].replace("-", " "))
        return _SHARES[word], ReadLine(name, "settle", key, None, _NO_AMOUNT)
    if _REST.search(before):
        return None, ReadLine(name, "settle", key, None, _NO_AMOUNT)
    last_part = _last_part(before)
    # "a splash (50 ml) of …" is read with its brackets; one left open says nothing.
    near = (last_part if ")" in last_part else last_part.replace("(", " ")).split()
    for length in range(min(6, len(near)), 0, -1):
        head = " ".join(near[-length:])
        if not _COUNT.match(head):
            continue
        line = read_line(f"{head} {kitchen.larder[key].name}", kitchen)
        if line.amount is not None and line.ingredient == key:
            read = ReadLine(f"{head} {name}", line.status, key, line.amount, line.why)
            return (line.amount if line.status == "read" else 1.0), read
        if re.fullmatch(r"\d[\d.,/]*(?: of(?: the)?)?", head):  # "90 of butter"
            return 1.0, ReadLine(f"{head} {name}", "settle", key, None, _UNREAD)
    return 1.0, ReadLine(name, "settle", key, None, _NO_AMOUNT)


def _last_part(before: str) -> str:
    """Of what stands before a name, what may be said of it."""
    return re.split(r"[,;:]| (?:and|with|in|into|from|to|plus) ", before)[-1]


def _frozen(larder: Larder) -> tuple[tuple[str, str], ...]:
    return tuple({**SPOKEN, **larder.by_name}.items())


@lru_cache(maxsize=8)
def _known(names: tuple[tuple[str, str], ...]) -> tuple[dict[str, str], re.Pattern[str]]:
    known = {name: key for name, key in names if len(name) > 2 and name not in _NO_NAMES}
    longest = sorted(known, key=len, reverse=True)
    # Apostrophes and brackets of names are gone from both: what is left are words and spaces.
    body = "|".join(re.escape(name).replace(r"\ ", r"[ '-]+") for name in longest)
    return known, re.compile(rf"\b({body})(?:s|es)?\b")
