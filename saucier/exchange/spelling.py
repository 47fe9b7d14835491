"""The same thing written in other ways: signs, other words for it, the pints of two countries."""

import re
import unicodedata

DIFFERS = {"pint": (568.0, 473.0), "quart": (1136.0, 946.0), "gill": (142.0, 118.0)}
"""mL of measures that are one size in one country and another in the next."""
OF_COUNTRY = {
    f"{country} {unit}": sizes[n]
    for unit, sizes in DIFFERS.items()
    for n, country in enumerate(("imperial", "us"))
}
_IMPERIAL = re.compile(
    r"\b(?:gills?|double cream|single cream|plain flour|cornflour|dessertspoons?|imperial)\b"
    r"|\b(?:oz|ounces?|lbs?|pounds?)\.?\s(?:of\s)?(?:plain\s|white\s|the\s)?flour\b",
    re.IGNORECASE,
)
_US = re.compile(
    r"\b(?:cups?|sticks?|all[ -]purpose|heavy (?:whipping )?cream|half[ -]and[ -]half|cornstarch|kosher)\b",
    re.IGNORECASE,
)
"""Words by which a recipe tells where its pints are from."""
_SHORT_PINT = re.compile(r"(?<=[\d½¼¾]\s)[pq]ts?\b\.?|(?<=[\d½¼¾])[pq]ts?\b\.?", re.IGNORECASE)
_A_VOWEL = re.compile(r"\b([Aa])(?= imperial\b)")
_DIFFERING = re.compile(r"(?<!imperial\s)(?<!us\s)\b(?=(?:pint|quart|gill)s?\b)", re.IGNORECASE)
_RESPELLED = (
    (
        re.compile(
            r"\b(?:knob|lump|piece) of (\w+),? (?:about )?the size of an egg\b", re.IGNORECASE
        ),
        r"50 g \1",
    ),
    (
        re.compile(
            r"\b(?:knob|lump|piece) of (\w+),? (?:about )?the size of a walnut\b", re.IGNORECASE
        ),
        r"walnut of \1",
    ),
    (
        re.compile(
            r"\b\d[\d./ ]* ?(?:(?:imperial |US )?pints?|cups?|oz|fl\.? oz|lbs?|quarts?|tbsps?|tablespoons?|sticks?) "
            r"\((?:about |approx\.? )?(\d[\d.,]* ?(?:k?g|[cmd]?l|lit(?:re|er)s?))\)",
            re.IGNORECASE,
        ),
        r"\1",
    ),
    (
        re.compile(
            r"\b(?:the )?juice of (half an?|an?|one|two|three|\d[\d./]*|[½¼]) (lemon|lime|orange)s?\b",
            re.IGNORECASE,
        ),
        r"\1 \2 juice",
    ),
    (re.compile(r"\bswiss brown mushrooms\b", re.IGNORECASE), "brown mushrooms"),
    (
        re.compile(
            r"\b(?!pasta |potato |the )(\w+) (?:cooking|poaching|braising) (?:water|liquid|liquor|juices)\b",
            re.IGNORECASE,
        ),
        r"\1 stock",
    ),
    (re.compile(r"\b(\w{3,} )(?:fond|fumet|bouillon|broth)\b", re.IGNORECASE), r"\1stock"),
    (
        re.compile(
            r"(\b(?:g|ml|tea-?spoons?|table-?spoons?|tsps?|tbsps?) (?:of )?|^)dijon\b(?! mustard|-)",
            re.I,
        ),
        r"\1dijon mustard",
    ),
    (re.compile(r"\bvin\.(?=\s|$|\d)", re.IGNORECASE), "vinegar"),
    (re.compile(r"\bfumet(?: de poisson)?\b", re.IGNORECASE), "fish stock"),
)
"""The same thing said in other words."""


def by_country(text: str) -> str:
    """``text`` with its pints named, where its other words tell which country's they are.

    >>> by_country("4 oz flour, a pint of milk"), by_country("a pint of milk")
    ('4 oz flour, an imperial pint of milk', 'a pint of milk')
    """
    text = _SHORT_PINT.sub(lambda short: "pint" if short[0][0] in "pP" else "quart", text)
    imperial, us = _IMPERIAL.search(text), _US.search(text)
    if bool(imperial) == bool(us):
        return text
    named = _DIFFERING.sub("imperial " if imperial else "US ", text)
    return _A_VOWEL.sub(r"\1n", named)


def respelled(text: str) -> str:
    """``text`` with what has several names under one.

    >>> respelled("the juice of half a lemon, 2 dl fish fond")
    'half a lemon juice, 2 dl fish stock'
    """
    for said, plain in _RESPELLED:
        text = said.sub(plain, text)
    return text


def spelled(text: str) -> str:
    """``text`` with one kind of dash and of fraction; "250ml" and "250 ml" alike."""
    plain = "".join(
        f" {unicodedata.normalize('NFKC', sign)}"
        if unicodedata.decomposition(sign).startswith("<fraction>")
        else sign
        for sign in text
    ).replace("⁄", "/")
    plain = re.sub(r"(\d)(?=[a-zA-Z])", r"\1 ", plain)
    return re.sub(r"[‐‑‒–—]", "-", plain).strip()
