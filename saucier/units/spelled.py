"""Numbers as a cook says them, in figures: "two thirds of a cup", "a cup and a half", "about 350 g"."""

import re
import unicodedata

NUMBERS = {
    word: n
    for n, word in enumerate(
        [
            "one",
            "two",
            "three",
            "four",
            "five",
            "six",
            "seven",
            "eight",
            "nine",
            "ten",
            "eleven",
            "twelve",
        ],
        1,
    )
}
"""Numbers as they are spelled."""
_DOZEN = 12
_PARTS = {"half": 2, "third": 3, "quarter": 4, "fourth": 4, "fifth": 5, "eighth": 8}
_PLURALS = {f"{part}s": under for part, under in _PARTS.items()} | {"halves": 2}
_UNDER = {**_PARTS, **_PLURALS}
_COUNT = "|".join(("an?", *NUMBERS))
_PART = "|".join(sorted(_UNDER, key=len, reverse=True))
_ABOUT = re.compile(
    r"^\s*(?:(?:about|around|approx(?:imately)?\.?|ca?\.|circa|roughly|some|nearly|almost"
    r"|(?:just|a little|slightly) (?:over|under)|(?:an? )?(?:good|scant|generous))\s+|[~≈]\s*)",
    re.IGNORECASE,
)
_AND_A_PART = re.compile(
    rf"^\s*(?P<count>{_COUNT}|\d+)\s+and\s+(?:an?|one)\s+(?P<part>{_PART})\b(?:\s+of\s+an?\b)?",
    re.IGNORECASE,
)
_PARTS_OF = re.compile(
    rf"^\s*(?:(?P<count>{_COUNT}|\d+)[\s-]+)?(?P<part>{_PART})\s+(?:of\s+)?an?\s+", re.IGNORECASE
)
_COUNTED_PARTS = re.compile(
    rf"^\s*(?P<count>{_COUNT}|\d+)[\s-]+(?P<part>{_PART})\s+", re.IGNORECASE
)
_BARE_PART = re.compile(rf"^\s*(?P<part>{_PART})(?:\s+|$)", re.IGNORECASE)
_DOZENS = re.compile(r"^\s*(?P<half>half )?(?:an? )?dozen\b(?:\s+of\b)?", re.IGNORECASE)
_COUPLE = re.compile(r"^\s*(?:an? )?couple(?:\s+of)?\s+", re.IGNORECASE)
_COUNTED = re.compile(rf"^\s*(?P<count>{_COUNT})\s+", re.IGNORECASE)
_HALF_BEHIND = re.compile(
    rf"^\s*(?P<count>{_COUNT}|\d+)\s+(?P<unit>[a-z][a-z .]*?)\s+and\s+(?:an?|one)\s+(?P<part>{_PART})\s*$",
    re.IGNORECASE,
)


def without_about(text: str) -> tuple[str, bool]:
    """``text`` without what says that it is no more than about so much, and whether it was there.

    >>> without_about("about 350 g")
    ('350 g', True)
    """
    bare = _ABOUT.sub("", text, count=1)
    return bare, bare != text


def in_figures(text: str, *, alone: bool = False) -> str:
    """``text`` with the number at its head in figures. ``alone``: it is an amount and nothing else, so that "half cup"
    is no kind of cup, as half cream is a kind of cream.

    >>> in_figures("two thirds of a cup")
    '2/3 cup'
    >>> in_figures("a cup and a half", alone=True)
    '1 1/2 cup'
    """
    text = _with_plain_fractions(text)
    if alone and (behind := _HALF_BEHIND.match(text)):
        return f"{_number(behind['count'])} 1/{_under(behind)} {behind['unit']}"
    if more := _AND_A_PART.match(text):
        return f"{_number(more['count'])} 1/{_under(more)}{text[more.end() :]}"
    if dozens := _DOZENS.match(text):
        return f"{_DOZEN // 2 if dozens['half'] else _DOZEN}{text[dozens.end() :]}"
    for pattern in (_PARTS_OF, _COUNTED_PARTS, *((_BARE_PART,) if alone else ())):
        if part := pattern.match(text):
            over = _number(part.groupdict().get("count") or "one")
            return f"{over}/{_under(part)} {text[part.end() :]}"
    if couple := _COUPLE.match(text):
        return f"2 {text[couple.end() :]}"
    if counted := _COUNTED.match(text):
        return f"{_number(counted['count'])} {text[counted.end() :]}"
    return text


def _number(word: str) -> str:
    word = word.lower()
    return "1" if word in ("a", "an") else str(NUMBERS.get(word, word))


def _under(match: re.Match[str]) -> int:
    return _UNDER[match["part"].lower()]


def _with_plain_fractions(text: str) -> str:
    """Fraction signs as plain fractions: "1½" becomes "1 1/2"."""
    return "".join(
        f" {unicodedata.normalize('NFKC', sign)} "
        if unicodedata.decomposition(sign).startswith("<fraction>")
        else sign
        for sign in text
    ).replace("⁄", "/")
