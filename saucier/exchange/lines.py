"""One ingredient line of a recipe: its amount, its ingredient, or what could not be read."""

import re
import unicodedata
from dataclasses import dataclass
from typing import Literal

from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient, Larder, plain_name
from saucier.units import Amount, Dimension
from saucier.units.reading import checked_amount, split_amount
from saucier.words import Sentence, say

Status = Literal["read", "ours", "settle", "unread"]
NEAR = 80.0
"""Likeness (0 to 100) from which a name is offered as a guess for the cook to settle."""


@dataclass(frozen=True, slots=True)
class Between:
    """The edges of an amount that is ours."""

    least: Amount
    most: Amount


@dataclass(frozen=True, slots=True)
class ReadLine:
    """``text`` as it stood. ``status``: ``read`` and nothing to settle; ``ours`` where the recipe
    gives no amount and a usual one was put in, ``between`` its edges; ``settle`` with a guess
    or a gap that ``why`` tells; ``unread`` with neither. ``to_taste``: salted by tongue.
    ``guesses`` are keys that may be meant, the likeliest first. ``section`` is the heading it
    stands under. ``share_pct`` is what it has instead of an amount, of something to be found."""

    text: str
    status: Status
    ingredient: str | None
    amount: Amount | None
    why: Sentence | None = None
    to_taste: bool = False
    guesses: tuple[str, ...] = ()
    between: Between | None = None
    section: str = ""
    share_pct: float | None = None

    @property
    def optional(self) -> bool:
        """Whether its cook may leave it out."""
        return bool(OPTIONAL.search(self.text))

    @property
    def for_table(self) -> bool:
        """Whether it says it goes with the dish."""
        return bool(_FOR_TABLE.search(self.text))

    @property
    def unweighed(self) -> bool:
        """Whether it is known what is meant, and not what so many weigh: "4 pork chops"."""
        return self.why is not None and self.why.code in ("line.unit-unfit", "line.not-in-pieces")

    @property
    def blank(self) -> bool:
        """Whether it names its ingredient surely and says nothing of how much."""
        return self.why is not None and self.why.code == "line.no-amount"


IF_LIKED = " (optional)"
"""Put behind what a telling has only where it is wanted."""
_FOR_TABLE = re.compile(
    r"\b(?:(?:to|for) (?:serve|serving|garnish(?:ing)?|decorate|the table)|on the side)\b",
    re.IGNORECASE,
)
OPTIONAL = re.compile(
    r"\b(?:optional(?:ly)?|if (?:you )?(?:need(?:ed)?|lik(?:e|ed)|wish(?:ed)?|want(?:ed)?|necessary|have (?:any|some|it|one)))\b",
    re.IGNORECASE,
)
BULLET = re.compile(r"^[\s\-–•*·▢□]+")
_RANGE = re.compile(
    r"^(\d+(?:[.,]\d+|/0*[1-9]\d*)?)\s*(?:-|–|to|or)\s*(\d+(?:[.,]\d+|/0*[1-9]\d*)?)\b(?!/)"
)
_BESIDE = re.compile(
    r"^([\d.,/ ]+\s*[a-zA-Z]+)\s*/\s*[\d., /]+\s*(?:fl\.? |imperial |US )?[a-zA-Z]+"
)
_BRACKETS = re.compile(r"\(([^()]*)\)")
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
"""Numbers as a recipe spells them."""
_WORD_NUMBERS = {
    "a couple of": "2",
    "couple of": "2",
    "half a": "0.5",
    "half an": "0.5",
    "half": "0.5",
    "a": "1",
    "an": "1",
} | {word: str(n) for word, n in NUMBERS.items()}
_TO_TASTE = re.compile(
    r"\b(q\.? ?s\b\.?|tt$|trace$|pm$|to taste|as needed|to season|for seasoning)\b", re.IGNORECASE
)
_JUICE = re.compile(
    r"^(?:the )?(juice|zest)(?: and zest)? of (.+?) (lemon|lime|orange)s?\b.*$", re.IGNORECASE
)
_JUICED = re.compile(
    r"^(.+?) (lemon|lime|orange)s?,? \(?(?:the )?(juice|zest)e?d?(?: only)?\)?$", re.IGNORECASE
)
_TIMES = re.compile(r"^(\d+(?:/\d+)?) ?[x×] ?(?=\d)", re.IGNORECASE)
_PACKED = re.compile(
    r"^(?:pots?|tubs?|cartons?|ctns?|jars?|bottles?|packets?|packs?|pkts?|cans?|tins?|blocks?|bags?) (?:of )?"
)
_EACH_FIRST = re.compile(r"^[\d.,/ ]+\(")
_PACK_WORDS = re.compile(
    r"\b(?:tins?|cans?|jars?|packets?|packs?|pots?|tubs?|cartons?)\b", re.IGNORECASE
)
_PERCENT = re.compile(r"\d+(?:[.,]\d+)? ?%")
_PERCENT_NAMES = ("cream", "milk", "soft-cream", "cheese", "wine", "spirit")
"""Kinds whose name may hold a figure: "cream 35 %"."""
_SIZED = re.compile(
    r"^(?:large|small|big|good|generous|level|levelled|rounded|scant) ", re.IGNORECASE
)
_ABOUT = re.compile(
    r"^(?:about|around|approx(?:imately)?\.?|ca?\.|roughly|another) +", re.IGNORECASE
)
_VAGUE = re.compile(
    r"^(?:(?:a |an )?(?:little|some|bit of|touch of|good bit of|spoon(?:ful)? of|dollop of|squeeze(?: of)?"
    r"|sprinkle(?: of)?|sprinkling of|plenty of|lots of|enough|lump of|hint of)|a few|the|freshly|pm|qs|q\.s\.) +",
    re.IGNORECASE,
)
"""Said of no amount, or of one nobody could weigh."""
_FEW = re.compile(
    r"^a few +(?=(?:drops|sprigs|leaves|turns|slices|handfuls|cracks|threads)\b)", re.I
)
_FEW_ARE = 4
_BEHIND = re.compile(
    r"^(?P<name>[^\d(]*(?:\d\d ?%|[^\d\s(,:–-]))[\s,:–-]+(?P<amount>(?:about |ca\. ?)?\d(?:[\d.,/]*\d)?(?: ?\d/\d)?\s*[a-zA-Z]*\.?)$"
)
"""An amount behind its name: "Butter 40 g", "milk: 6 dl", "capers - 2 tbsp"."""
_HANDFUL_BEHIND = re.compile(
    r"^(?P<name>[^\d(]*[^\d\s(,:–-])[\s,:–-]+(?:an? )?(?P<measure>(?:small |large |good |big |generous )?"
    r"(?:handful|pinch|knob|bunch|sprig|dash|splash|squeeze|glug|grating)(?:e?s)?)$",
    re.IGNORECASE,
)
_BEHIND_SIZED = re.compile(
    r"^(?P<name>[^\d(]*[^\d\s(,:–-])[\s:–-]+(?P<amount>\d(?:[\d.,/]*\d)?(?: ?\d/\d)?(?: [a-zA-Z]+){0,2})(?P<rest>, .*|)$"
)
"""The same with more about it: "leeks 3 medium, sliced", "soured cream 3 heaped tbsp"."""
_WEIGHED_BEHIND = re.compile(r"^(.*\D)\s+-\s+((?:about )?\d[\d.,/]*\s*(?:g|kg|ml|cl|dl|l))$", re.I)
_MORE_OF_IT = re.compile(r"^(\d[\d.,]*)\s*(g|ml|tbsp)\b(.*?)\s*\+\s*(\d[\d.,]*)\s*\2\b.*$", re.I)
"""An amount in two parts: "40 g butter + 10 g to finish"."""
_NUMBER_BEHIND = re.compile(
    r"^([^\d(,]*[a-z])[\s:–-]+(one|two|three|four|five|six)(?: (small|large|medium))?$",
    re.IGNORECASE,
)
"""How many, spelled behind: "shallots two"."""
_PLUS = re.compile(
    r"^(\d[\d./ ]*?) ?(cups?|tbsps?|tablespoons?|tsps?|teaspoons?) (?:plus|and|\+|&) (\d[\d./ ]*?) ?(tbsps?|tablespoons?|tsps?|teaspoons?)\b ?",
    re.IGNORECASE,
)
"""An amount in two measures."""
_KEPT_IN = re.compile(r" in (?:oil|brine|water|syrup|their juice)\b", re.IGNORECASE)
_TWICE_BEHIND = re.compile(
    r"^([^\d(]*[^\d\s(,:–-])[\s,:–-]+(\d[\d.,]*)\s*(g|ml|tbsp)\s*\+\s*(\d[\d.,]*)\s*\3\b[^\d]*$",
    re.I,
)
"""The same behind its name: "butter 30 g + 30 g cold"."""
_HEAPED = re.compile(r"^(?:heaped|heaping|rounded) (tablespoon|teaspoon|tbsp|tbs|tsp)s? ")
SPOKEN = {
    "wine": "wine-white-dry",
    "lemon": "lemon-juice",
    "lime": "lime-juice",
    "herbs": "parsley",
    "spirit": "brandy",
    "starch": "corn-starch",
    "liquor": "stock-light",
}
"""What a cook says shortly, with what is usually meant where no amount is given with it."""
_BY_FAT = re.compile(r"-(?:\d+|whole|semi|skimmed)$")
"""How the keys end of milks and creams that differ by their fat."""
_JUICES = ("lemon-juice", "lime-juice")
_DIFFERS = {"pint": (568.0, 473.0), "quart": (1136.0, 946.0), "gill": (142.0, 118.0)}
"""mL of measures that are one size in one country and another in the next."""
_OF_COUNTRY = {
    f"{country} {unit}": sizes[n]
    for unit, sizes in _DIFFERS.items()
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
_DIFFERING = re.compile(r"(?<!imperial\s)(?<!us\s)\b(?=(?:pint|quart|gill)s?\b)", re.IGNORECASE)
_NARROW = 1.35
"""A range no wider than this factor is read as its middle, and told."""
_MANY, _MANY_G = 30, 500.0
"""So many, of so much together, may be grams whose unit was left out: "120 shallot"."""
_BY_COUNTRY = ("cup", "tbsp", "tsp")
"""Measures that differ a little by country: mL said beside them are the better word."""
_PLAIN = frozenset(
    [
        "fresh",
        "freshly",
        "finely",
        "coarsely",
        "roughly",
        "thinly",
        "chopped",
        "sliced",
        "diced",
        "grated",
        "shredded",
        "minced",
        "crushed",
        "peeled",
        "trimmed",
        "washed",
        "cold",
        "hot",
        "warm",
        "soft",
        "softened",
        "melted",
        "cubed",
        "large",
        "small",
        "medium",
        "good",
        "quality",
        "ripe",
        "dry",
        "whole",
        "ground",
        "plus",
        "extra",
        "more",
        "for",
        "of",
        "the",
        "and",
        "or",
        "at",
        "room",
        "temperature",
        "sifted",
        "level",
        "heaped",
        "heaping",
        "organic",
        "thick",
        "thin",
        "a",
        "few",
        "some",
        "into",
        "pieces",
        "cut",
        "lightly",
        "beaten",
        "picked",
        "leaves",
        "only",
        "strong",
        "sharp",
        "florets",
        "fillet",
        "fillets",
        "snipped",
        "cracked",
        "milled",
        "light",
        "reduced",
        "fat",
        "lean",
        "poaching",
        "aged",
        "trimmings",
        "about",
        "approx",
        "leftover",
        "homemade",
        "drained",
        "rinsed",
        "free",
        "range",
        "juiced",
        "smashed",
        "crumbled",
        "deseeded",
        "seeded",
        "skinned",
        "skinless",
        "bulb",
        "bulbs",
        "dusting",
        "fine",
        "very",
        "boiling",
        "tepid",
        "heated",
        "ready",
        "made",
        "your",
        "needed",
        "taste",
        "bruised",
        "torn",
        "stalks",
        "removed",
        "quartered",
        "halved",
        "cleaned",
        "wiped",
        "thawed",
        "frozen",
        "packed",
        "loosely",
        "tightly",
        "brought",
        "cooked",
        "raw",
        "plain",
        "nice",
        "in",
        "cubes",
        "chunks",
        "rings",
        "strips",
        "dice",
        "skin",
        "on",
        "off",
        "little",
        "to",
        "finish",
        "serve",
        "big",
        "clear",
        "unsweetened",
        "curly",
        "flat",
        "leaf",
        "brunoise",
        "julienne",
        "paysanne",
        "wedges",
        "shaved",
        "toasted",
        "bashed",
        "warmed",
        "chilled",
        "unpeeled",
        "coarse",
        "rind",
        "low",
        "sodium",
        "divided",
        "reserved",
        "optional",
        "if",
        "liked",
        "necessary",
        "wish",
        "you",
        "like",
        "de",
        "du",
        "d",
        "rape",
        "hache",
        "gousse",
        "gousses",
    ]
)
"""Words that do not change which ingredient is meant."""
_CHOOSING = frozenset(("and", "or", "with", "plus", "in", "from"))
_LIKE = re.compile(r"\b([\w-]+)[ -](?:style|type)\b ?", re.IGNORECASE)
_OR = re.compile(r"^([a-zA-ZÀ-ÿ][^,]*?),? or ([a-zA-ZÀ-ÿ][^,]*)$")
_TOLD = ("line.narrow-range", "line.first-of-two", "line.its-juice")
"""What is told beside a line that is read."""
_EXTRA = re.compile(
    r",? (?:plus|and|with) (?:some |a (?:little|bit|few) )?(?:extra|more)\b(?: (?:for|to) .*)?$",
    re.IGNORECASE,
)
"""More of it than the amount says, for the table: not the sauce's."""
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
    ('4 oz flour, a imperial pint of milk', 'a pint of milk')
    """
    text = _SHORT_PINT.sub(lambda short: "pint" if short[0][0] in "pP" else "quart", text)
    imperial, us = _IMPERIAL.search(text), _US.search(text)
    if bool(imperial) == bool(us):
        return text
    return _DIFFERING.sub("imperial " if imperial else "US ", text)


def respelled(text: str) -> str:
    """``text`` with what has several names under one.

    >>> respelled("the juice of half a lemon, 2 dl fish fond")
    'half a lemon juice, 2 dl fish stock'
    """
    for said, plain in _RESPELLED:
        text = said.sub(plain, text)
    return text


def read_line(text: str, kitchen: Kitchen) -> ReadLine:
    """What ``text``, a line such as "100 g plain flour, sifted", asks for.

    Never raises: what cannot be read says so. A range, a second unit that disagrees, a name
    only alike and a missing amount are for the cook to settle.
    """
    shown = " ".join(text.split())[:200]
    line = spelled(shown)
    line = respelled(BULLET.sub("", line.lower() if line.isupper() else line)).rstrip(" ,;.")
    if not line:
        return ReadLine(shown, "unread", None, None, say("line.empty"))
    if fruit := _JUICE.match(line):
        line = f"{fruit[2]} {fruit[3]} {fruit[1]}"
    elif fruit := _JUICED.match(line):
        line = f"{fruit[1]} {fruit[2]} {fruit[3]}"
    line = _EXTRA.sub("", line)
    to_taste = bool(_TO_TASTE.search(line))
    line = _TO_TASTE.sub("", line)
    inside = " ".join(_BRACKETS.findall(line))
    # "2 (400 g) tins", "2 onions (150 g each)"; else what stands behind is said of all of them.
    each = bool(_EACH_FIRST.match(line) or _PACK_WORDS.search(line) or "each" in inside.lower())
    line = " ".join(_BRACKETS.sub(" ", line).split()).replace(" ,", ",")
    if twice := _TWICE_BEHIND.match(line):
        line = f"{_value(twice[2]) + _value(twice[4]):g} {twice[3]} {twice[1]}"
    if weighed := _WEIGHED_BEHIND.match(line):
        line, inside = weighed[1], weighed[2]
    elif behind := _BEHIND.match(line):
        line = f"{_ABOUT.sub('', behind['amount'])} {behind['name']}"
    elif behind := _NUMBER_BEHIND.match(line):
        line = f"{NUMBERS[behind[2].lower()]} {behind[3] or ''} {behind[1]}"
    elif behind := _HANDFUL_BEHIND.match(line):
        line = f"1 {behind['measure']} {behind['name']}"
    elif behind := _BEHIND_SIZED.match(line):
        line = f"{behind['amount']} {behind['name']}{behind['rest']}"
    line = _KEPT_IN.sub("", line)
    if plus := _PLUS.match(line):
        line = _sum_of(plus, line)
    if more := _MORE_OF_IT.match(line):
        line = f"{_value(more[1]) + _value(more[4]):g} {more[2]}{more[3]}"
    line = _FEW.sub(f"{_FEW_ARE} ", _ABOUT.sub("", line))
    line = _VAGUE.sub("", line)
    times = 1.0
    if packs := _TIMES.match(line):
        times, line = _value(packs[1]), line[packs.end() :]
    named = plain_name(line) in kitchen.larder.by_name  # "half cream" is no half of cream
    for words, number in _WORD_NUMBERS.items():
        if not named and line.lower().startswith(f"{words} "):
            line = f"{number} {line[len(words) + 1 :]}"
            break
    doubt: Sentence | None = None
    if spread := _RANGE.match(line):
        low, high = (_value(spread[n]) for n in (1, 2))
        narrow = 0.0 < low <= high <= _NARROW * low
        code = "line.narrow-range" if narrow else "line.range"
        doubt = say(code, shown=spread[0], middle=0.5 * (low + high))
        line = f"{0.5 * (low + high):g} {line[spread.end() :]}"
    if both := _BESIDE.match(line):
        line = both[1] + line[both.end() :]
    return _matched(shown, line, inside, to_taste, doubt, kitchen, times, each=each)


def _matched(
    shown: str,
    line: str,
    inside: str,
    to_taste: bool,
    doubt: Sentence | None,
    kitchen: Kitchen,
    times: float,
    *,
    each: bool,
) -> ReadLine:
    count: float | None = None
    rest = line
    try:
        count, rest = split_amount(line)
        count *= times
    except BadInput:
        pass
    known = plain_name(line) in kitchen.larder.by_name  # "grating cheese" is no grating of it
    if count is None and not known and _unit_and_name(line, kitchen)[0] in kitchen.measures.names:
        count = times  # "pinch of saffron", "knob of butter"
    unit, name = _unit_and_name(rest, kitchen) if count is not None else ("", rest)
    if count is not None and unit in _OF_COUNTRY:
        count, unit = count * _OF_COUNTRY[unit], "mL"
    elif count is not None and (sizes := _DIFFERS.get(unit)):
        doubt = say("line.unit-differs", unit=unit, one_ml=sizes[0], other_ml=sizes[1])
        count, unit = count * sizes[0], "mL"
    if unit or inside:  # "300 ml pot double cream": packed so, and measured already
        name = _PACKED.sub("", name)
    key, sure, guesses = ingredient_named(name, kitchen.larder)
    if not sure and (spoken := SPOKEN.get(plain_name(name))):
        if count is None:
            key, sure, guesses = spoken, True, ()
        elif not unit and spoken in _JUICES and count <= _FEW_ARE:
            key, sure, guesses = spoken, True, ()
            doubt = doubt or say("line.its-juice")
    if key is None:
        why = say("line.not-by-that-name" if guesses else "line.unknown")
        amount = _amount(count, unit, None, kitchen) if count and unit else None
        return ReadLine(
            text=shown,
            status="settle" if guesses else "unread",
            ingredient=None,
            amount=amount,
            why=why,
            to_taste=to_taste,
            guesses=guesses,
        )
    row = kitchen.larder[key]
    if rest and (parts := re.match(r"parts?\b", rest)):
        why = say("line.share-of-what", shown=f"{count:g} {parts[0]}" if count else parts[0])
        return ReadLine(shown, "settle", key, None, why, guesses=guesses)
    if (percent := _PERCENT.search(line)) and row.role not in _PERCENT_NAMES and not unit:
        return ReadLine(
            text=shown,
            status="settle",
            ingredient=key,
            amount=None,
            why=say("line.share-of-what", shown=percent[0]),
            guesses=guesses,
            share_pct=_value(percent[0].rstrip(" %")),
        )
    amount = None if count is None else _amount(count, unit, row, kitchen)
    if inside and (amount is None or amount.dimension is not Dimension.WEIGHT or amount.measure):
        times = count or 1.0 if each else 1.0
        amount, doubt = _from_brackets(inside, times, row, kitchen, amount, doubt)
    # Salt and pepper without a number are seasoned by tongue in every kitchen.
    to_taste = to_taste or (count is None and row.role in ("salt", "spice"))
    if amount is None and to_taste:
        return ReadLine(
            text=shown,
            status="read" if sure else "settle",
            ingredient=key,
            amount=None,
            why=None if sure else say("line.meant"),
            to_taste=True,
            guesses=guesses,
        )
    if amount is None:
        why = say("line.no-amount")
        if count is None and not percent and re.search(r"\d", line):
            why = say("line.amount-unread")
        if count is not None:
            why = say("line.unit-unfit" if unit else "line.not-in-pieces", unit=unit)
        return ReadLine(
            text=shown,
            status="settle",
            ingredient=key,
            amount=None,
            why=why,
            to_taste=to_taste,
            guesses=guesses,
        )
    if doubt is None and _OR.match(name):
        doubt = say("line.first-of-two", name=row.name)
    many = amount.unit == "piece" and amount.value >= _MANY and amount.value % 5 == 0
    if many and row.grams(amount) >= _MANY_G:
        doubt = say("line.pieces-or-grams", count=amount.value)
    if not sure:
        return ReadLine(
            text=shown,
            status="settle",
            ingredient=key,
            amount=amount,
            why=say("line.meant"),
            to_taste=to_taste,
            guesses=guesses,
        )
    return ReadLine(
        text=shown,
        status="settle" if doubt and doubt.code not in _TOLD else "read",
        ingredient=key,
        amount=amount,
        why=doubt,
        to_taste=to_taste,
        guesses=guesses,
    )


def _from_brackets(
    inside: str,
    count: float,
    row: Ingredient,
    kitchen: Kitchen,
    amount: Amount | None,
    doubt: Sentence | None,
) -> tuple[Amount | None, Sentence | None]:
    """A weight in brackets is the better word: "1 (400 g) tin", "1 onion (150 g)", "2 level
    tablespoons (about 30 g)"; so is a measured volume where the unit differs by country."""
    try:
        value, rest = split_amount(_ABOUT.sub("", inside.strip()))
        unit, _ = _unit_and_name(f"{rest} of it", kitchen)  # a unit stands before something
        bracketed = _amount(value * count, unit, row, kitchen) if unit else None
    except BadInput:
        bracketed = None
    if bracketed is None or bracketed.measure:
        return amount, doubt
    vague = doubt or amount is None or amount.measure or amount.unit in _BY_COUNTRY
    if bracketed.dimension is not Dimension.WEIGHT and not vague:
        return amount, doubt
    return bracketed, None if doubt and doubt.code == "line.unit-differs" else doubt


def _sum_of(plus: re.Match[str], line: str) -> str:
    """ "1/4 cup plus 1 tablespoon flour" with one amount."""
    try:
        parts = [checked_amount(sum(map(_value, plus[n].split())), plus[n + 1]) for n in (1, 3)]
    except (BadInput, ValueError):
        return line
    if {one.dimension for one in parts} != {Dimension.VOLUME}:
        return line
    return f"{sum(one.value * one.definition.size for one in parts):g} ml {line[plus.end() :]}"


def _value(text: str) -> float:
    over, _, under = text.replace(",", ".").partition("/")
    return float(over) / float(under or 1)


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


def _unit_and_name(rest: str, kitchen: Kitchen) -> tuple[str, str]:
    """The unit at the head of ``rest`` ('' for pieces) and the name behind it."""
    if heaped := _HEAPED.match(rest):
        spoon = "teaspoon" if heaped[1] in ("teaspoon", "tsp") else "tablespoon"
        rest = f"heaped {spoon} {rest[heaped.end() :]}"
    unit, name = _unit_in(rest, kitchen)
    if not unit and _SIZED.match(rest):  # "2 large handfuls": as vague as a handful is
        unit, name = _unit_in(_SIZED.sub("", rest), kitchen)
    return (unit, name) if unit else ("", rest)


def _unit_in(rest: str, kitchen: Kitchen) -> tuple[str, str]:
    words = rest.split()
    names = kitchen.measures.names
    for length in (3, 2, 1):
        head = " ".join(words[:length]).strip(".,").lower()
        after = " ".join(words[length:])
        if len(words) <= length:
            continue
        singular = head.removesuffix("s")
        if singular in _DIFFERS or singular in _OF_COUNTRY:
            return singular, after.removeprefix("of ")
        if head in names or singular in names or f"{head[:-2]}" in names:
            # "1 walnut" is a nut; "1 walnut of butter" a measure. "1 stick celery" either way.
            if not (after.startswith("of ") or singular not in {"walnut"}):
                continue
            return singular if singular in names else head, after.removeprefix("of ")
        if length < 3 and _is_unit(head):
            return head, after.removeprefix("of ")
    return "", rest


def _is_unit(text: str) -> bool:
    try:
        checked_amount(1.0, text)
    except BadInput:
        return False
    return True


def _amount(count: float, unit: str, row: Ingredient | None, kitchen: Kitchen) -> Amount | None:
    """``count`` of ``unit`` of ``row``; None where it cannot be weighed."""
    try:
        if row is not None and unit and (measure := kitchen.measures.named(unit, row)):
            return measure.amount(count, row)
        amount = checked_amount(count, unit or "piece")
        if row is not None:
            row.grams(amount)
    except BadInput:
        return None
    return amount


def ingredient_named(name: str, larder: Larder) -> tuple[str | None, bool, tuple[str, ...]]:
    """The key meant by ``name``, whether that is sure, and guesses where it is not.

    Sure is a whole name or alias, with nothing beside it but words that change nothing.
    """
    known = larder.by_name
    if (share := _PERCENT.search(name)) and (key := _by_fat(name, share, larder)):
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
    if choice := _OR.match(name):
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
