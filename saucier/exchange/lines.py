"""One ingredient line of a recipe: its amount, its ingredient, or what could not be read."""

import re
from dataclasses import dataclass
from typing import Literal

from saucier.errors import BadInput
from saucier.exchange.names import OR, PERCENT, ingredient_named
from saucier.exchange.spelling import DIFFERS, OF_COUNTRY, respelled, spelled
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient, plain_name
from saucier.units import Amount, Dimension
from saucier.units.reading import checked_amount, split_amount
from saucier.units.spelled import NUMBERS, in_figures
from saucier.words import Sentence, say

Status = Literal["read", "ours", "settle", "unread"]


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
    r"^(?P<name>[^\d(]*[^\d\s(,:–-])[\s,:–-]+(?P<amount>\d(?:[\d.,/]*\d)?(?: ?\d/\d)?(?: [a-zA-Z]+){0,2})(?P<rest>, .*|)$"
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

_JUICES = ("lemon-juice", "lime-juice")
_NARROW = 1.35
"""A range no wider than this factor is read as its middle, and told."""
_MANY, _MANY_G = 30, 500.0
"""So many, of so much together, may be grams whose unit was left out: "120 shallot"."""
_BY_COUNTRY = ("cup", "tbsp", "tsp")
"""Measures that differ a little by country: mL said beside them are the better word."""
_TOLD = ("line.narrow-range", "line.first-of-two", "line.its-juice")
"""What is told beside a line that is read."""
_EXTRA = re.compile(
    r",? (?:plus|and|with) (?:some |a (?:little|bit|few) )?(?:extra|more)\b(?: (?:for|to) .*)?$",
    re.IGNORECASE,
)
"""More of it than the amount says, for the table: not the sauce's."""


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
    if not named:
        line = in_figures(line, alone=True)
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
    if count is not None and unit in OF_COUNTRY:
        count, unit = count * OF_COUNTRY[unit], "mL"
    elif count is not None and (sizes := DIFFERS.get(unit)):
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
    if (percent := PERCENT.search(line)) and row.role not in _PERCENT_NAMES and not unit:
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
    if doubt is None and OR.match(name):
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
        if singular in DIFFERS or singular in OF_COUNTRY:
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
