"""What a method says, clause by clause: what is done, for how long, how far. The rest stays words."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Literal

from saucier.heat.evaporation import Heat
from saucier.units import Dimension
from saucier.units.spelled import NUMBERS
from saucier.units.table import unit_named

Act = Literal[
    "melt",
    "sweat",
    "add",
    "mix",
    "cook",
    "simmer",
    "reduce",
    "infuse",
    "strain",
    "blend",
    "season",
    "deglaze",
    "flame",
    "out",
    "mount",
    "over",
    "poach",
    "elsewhere",
]

_VERBS: Mapping[Act, str] = {
    "melt": r"melt(?!ed butter)|heat|warm(?! (?:milk|water|stock|cream|plates?)\b)|foam|froth",
    "sweat": r"sweat|soften|fry|saut[ée]|brown(?! (?:mushrooms?|sugar|butter|onions?|stock|bread|flour|table)\b)|colou?r|gently cook|cook gently|stew",
    "add": (
        "add|moisten|chuck|bung|slosh|lob|plop|dump|swirl in|swirl|drizzle in|stream in|pour|stir in|stir|whisk in|whisk|tip|throw|put|sprinkle over|sprinkle in|sprinkle|dust|scatter in|tear in"
        "|beat in|fold in|work in|drop in|in goes|goes in|go in|in with|grate in|return|let down|thin|use"
        "|temper|finish|sharpen|squeeze in|squeeze|enrich|start"
    ),
    "mix": "mix(?!ed (?:mushrooms|herbs|leaves|peppercorns)\\b)|beat|knead|slake|combine|blend together|make",
    "cook": r"cook(?!ing (?:cream|liquid|liquor|water|juices)\b)|let|leave|keep|thicken(?!ed cream)|wilt",
    "simmer": r"simmer|bubble|boil(?!ing (?:water|stock|milk)\b)|bring",
    "reduce": "reduce(?!d[ -](?:fat|stock|cream|sodium))|boil down|boil it down|boil it right down|boil hard down|boil away|cook down|cook it down|down by|down to|down till|down until",
    "infuse": "infuse|steep|soak",
    "strain": "rub|strain(?!ed (?:yogurt|yoghurt|milk|stock|liquor))|sieve|pass",
    "blend": "blend until|blend|whizz|liquidi[sz]e|pur[ée]e|blitz",
    "season": "season|salt it|taste|salt",
    "deglaze": "deglaze",
    "flame": "flame|flamb[ée]|ignite|light it",
    "out": "remove|take(?! colou?r| on)|get|grab|save|pull|discard|fish out|lift|set aside|keep warm|reserve|tip most",
    "mount": "mount|monter",
    "over": (
        "pour over|pour it over|pour the sauce over|spoon over|spoon it over|spoon the sauce over|serve|nap"
        "|fill|toss with|toss|lay|cover|wrap|spread|garnish|scatter over|scatter with|scatter|top with|on top|coat"
    ),
    "poach": "poach",
    "elsewhere": (
        "bake|grill|roast|steam|toast(?! for\\b)|preheat|wash|peel|chop|slice|drain|dice|trim|chill|rinse"
        "|simmer the (?:pasta|vegetables)|gratinate|freeze|crush|grate(?! in\\b)|shred|cut"
    ),
}
_ENDS = r"(?:s|es|ed|d|ing|ned|ped|ted|ting|ming|ring|red|ling)?"


def _words(act: Act) -> list[str]:
    """The verbs of ``act``, each with what must not follow it."""
    return re.split(r"\|(?![^()]*\))", _VERBS[act])


def _length(word: str) -> int:
    """Letters of a verb without what must not follow: the longest is looked for first."""
    return len(word.partition("(?!")[0])


def _verb_pattern(act: Act) -> str:
    words = sorted(_words(act), key=_length, reverse=True)
    # "chopped parsley" is parsley: what is done to food beforehand is no act of the method.
    ends = r"(?:s|es|ing|ping|ming)?" if act == "elsewhere" else _ENDS
    return "|".join(word if re.search(r" (?![^()]*\))", word) else word + ends for word in words)


_ALL = re.compile(
    r"\b(?:"
    + "|".join(
        f"(?P<{act}>{_verb_pattern(act)})"
        for act in sorted(_VERBS, key=lambda act: -max(map(_length, _words(act))))
    )
    + r")\b",
    re.IGNORECASE,
)
_ADVERBS = (
    r"(?:(?:and|then|now|next|gradually|slowly|gently|finally|carefully|lastly|meanwhile|immediately"
    r"|quickly|just|finely|thinly|roughly|coarsely|when[^,]{0,40},|once[^,]{0,40},|off the heat,?|in another pan,?|you|I|we|it|let it"
    r"|which|the sauce is|is|are|for the \w+,?)\s+){0,6}"
)
_ANY_VERB = re.sub(r"\?P<\w+>", "?:", _ALL.pattern)
_NEXT_IN = (
    r",(?=\s+(?:the )?[a-z]+(?: [a-z]+)? in(?:,|\.|$| and\b| slowly| hot| gradually| bit by bit))"
)
"""Before what comes in next: "…, stock in and down by half"."""
_NEXT_PAN = r",(?=\s+(?:a )?(?:very )?(?:hot|big|dry|wide|heavy|large) (?:frying )?pan\b)"
_NEXT_WEIGHED = r",(?![^()]{0,80}\))(?=\s+\d+(?:[.,]\d+)? ?(?:k?g|[mcd]?l|tbsp|tsp)\b|\s+\d+(?: ?(?:-|–|to) ?\d+)? ?min(?:ute)?s? (?:at|on) (?:the|a) (?:boil|simmer)\b)"
"""Before what is told with its amount, or the minutes of it."""
_MEANWHILE = r"(?:stirring|whisking|beating|skimming|scraping|shaking)\b"
"""Done all the while: no act of its own."""
_CLAUSE = re.compile(
    rf"\s*(?:[;:]|{_NEXT_IN}|{_NEXT_PAN}|{_NEXT_WEIGHED}|,?\s+(?:and )?then\b|\.(?=\s|$)|(?:,|\band\b|\bthen\b|[—–]|\s-\s)(?!\s+{_MEANWHILE})(?=\s+{_ADVERBS}{_ANY_VERB}))\s*",
    re.IGNORECASE,
)
_WORDS = NUMBERS | {"a": 1, "an": 1}
_N = r"(?:\d+(?:[.,]\d+)?|" + "|".join(sorted(_WORDS, key=len, reverse=True)) + r")"
_MINUTES = re.compile(
    rf"\b(?:for\s+)?(?:(?:about|around|another|a further|a good|like|some|roughly|maybe|at least|up to|the last|the next)\s+)*({_N})(?:\s*(?:-|–|to|or)\s*({_N}))?\s*"
    r"(?:more\s+)?(?:min(?:ute)?s?\b)",
    re.IGNORECASE,
)
_HOURS = re.compile(r"\b(half an hour|(?:a good |a |about )?half hour|an hour)\b", re.IGNORECASE)
_SIMMER_BARE = re.compile(
    r"\b(?:simmer|roux|cook|boil)\w*\s+(\d{1,3})(?:\s*(?:-|–)\s*(\d{1,3}))?$", re.I
)
_SHARES = (
    (
        re.compile(
            r"\bby (?:about )?(?:a |one )?(?:half|1/2|½)|\bto (?:about )?(?:half|1/2|½)|\bby 50 ?%|\bhalve",
            re.I,
        ),
        0.5,
    ),
    (
        re.compile(
            r"\bby (?:about )?(?:a third|one third|1/3|⅓)|\bto (?:about )?(?:two[ -]thirds|2/3|⅔)",
            re.I,
        ),
        2 / 3,
    ),
    (
        re.compile(
            r"\bby (?:about )?(?:two[ -]thirds|2/3|⅔)|\bto (?:about )?(?:a third|one third|1/3|⅓)",
            re.I,
        ),
        1 / 3,
    ),
    (
        re.compile(
            r"\bby (?:about )?(?:a fifth|one fifth|1/5)|\bto (?:about )?(?:four[ -]fifths|4/5)",
            re.I,
        ),
        0.8,
    ),
    (
        re.compile(
            r"\bby (?:about )?(?:a quarter|one quarter|1/4|¼)|\bto (?:about )?(?:three[ -]quarters|3/4|¾)",
            re.I,
        ),
        0.75,
    ),
    (
        re.compile(
            r"\bby (?:about )?(?:three[ -]quarters|3/4|¾)|\bto (?:about )?(?:a quarter|one quarter|1/4|¼)",
            re.I,
        ),
        0.25,
    ),
)
_PERCENT = re.compile(r"\b(to|by) (?:about )?(\d{1,2}) ?(?:%|per ?cent)", re.IGNORECASE)
_LEFT = {
    "half": 0.5,
    "a third": 0.3333,
    "a quarter": 0.25,
    "a fifth": 0.2,
    "two thirds": 0.6667,
    "three quarters": 0.75,
}
_IS_LEFT = re.compile(
    r"\b(" + "|".join(_LEFT) + r")(?: of (?:it|the \w+))? (?:is left|remains|left)\b", re.IGNORECASE
)
_TO_AMOUNT = re.compile(
    r"\b(?:to|(?:until|till) (?:there(?:'s| is| are)|you have|i have|it is|it's|you(?:'re| are) left with|what is left is)) (?:about |around |roughly |only |just )?(\d+(?:[.,]\d+)?) ?(ml|dl|cl|l|lit(?:re|er)s?|tbsps?|tablespoons?|teaspoons?|tsps?|cups?|k?g|grams?)\b",
    re.IGNORECASE,
)
_COATS = re.compile(
    r"\b(?:coat(?:s|ed|ing)?|naps?)\b.{0,30}\bspoon\b|\b(?:until|till) (?:it |the sauce )?coat(?:s|ed)?\b",
    re.IGNORECASE,
)
_THICK = re.compile(
    r"\b(?:until|till) (?:it |the sauce )?(?:is )?thick(?:ened|ens)?\b", re.IGNORECASE
)
"""A look so vague that minutes said beside it count before it."""
_TASTE = re.compile(r"\b(to|until it) tastes?\b", re.IGNORECASE)
_GRADE = re.compile(
    r"\bto (?:a |an )?(pouring|light coat|nappe|binding)\b|\bto (?:a )?(napp)(?:ant|[ée])\b",
    re.IGNORECASE,
)
"""A grade by its name, as one cook tells another."""
_DRY = re.compile(
    r"\b(nearly|almost) (completely |all )?(dry|gone|evaporated|disappeared|nothing)\b|\bmostly (?:evaporated|gone)\b|\bau sec\b|\bto (?:a )?glaze\b|\bto dry(?:ness)?\b|\b(?:until|till) (?:it is |it's |all )?(?:gone|evaporated|dry|absorbed)\b|\bto (?:almost |next to )?nothing\b|\bsyrup"
    r"|\balmost nothing\b|\b(?:nearly|almost) (?:entirely|dry|all)\b|\bboil(?:s|ed)? (?:it )?away\b|\balmost completely\b",
    re.IGNORECASE,
)
_REDUCES = re.compile(
    r"\b(reduc\w*|halve it|let it halve|down (?:by|to|till|until)|boil\w* (?:\w+ ){0,2}down|cook\w* (?:it )?down)\b",
    re.IGNORECASE,
)
_BOILS = re.compile(r"\b(simmer\w*|bubbl\w*|boil\w*|cook\w*)\b", re.IGNORECASE)
_COLOURS = (
    ("blond", re.compile(r"\b(blond|straw|golden)\b", re.IGNORECASE)),
    ("brown", re.compile(r"\b(brown roux|nut[- ]brown|brown(?:s|ed)?)\b", re.IGNORECASE)),
)
_NO_COLOUR = re.compile(
    r"\b(?:without|not|no) (?:\w+ ){0,2}(?:colou?r\w*|brown\w*)\b", re.IGNORECASE
)
_WHEN = re.compile(
    r"\b(?:when|once|as soon as|if|until|till)\s+(?:it|they|that|this|the \w+)(?:['’](?:s|re)| is| are| has| have)\s+"
    r"(?:(?:nice|nicely|all|just|well|lightly|really|and) )*\w+",
    re.IGNORECASE,
)
"""Said of when something is done, or of how far it goes: its verb is not what is done."""
_AT_HEAT = re.compile(
    r"\b(?:off|away from|from|over|on|to|at|with)\b(?: \w+){0,4} (?:heat|flame|boil|simmer)\b"
    r"|\b(?:low|medium|high|gentle|moderate) heat\b",
    re.I,
)
"""Said of the fire, where "heat" is no verb."""
_INTO_PAN = re.compile(r"\b(?:in|into|in to) (?:a|the|your) (?:\w+ ){0,2}\w*pan\b", re.IGNORECASE)
_BLENDED_WITH = re.compile(
    r"\bblend\w* (?!hot\b|(?:the )?sauce\b|it\b|all\b|everything\b)(?:in\b|(?:\w+ ){1,16}(?:into|with|to a)\b)",
    re.IGNORECASE,
)
"""Of one thing stirred into another: nothing is blended smooth."""
_HELPERS = ("let", "leave", "keep", "start", "use")
_OVEN = re.compile(
    r"\b(?:1[4-9]\d|2[0-4]\d) ?(?:(?:°|º|degrees)(?! ?F)|C\b)"
    r"|\b(?:2[5-9]\d|[345]\d\d) ?(?:°|º|degrees|F\b)",
    re.IGNORECASE,
)
"""An oven's heat, or a fryer's, where nobody says so: no sauce is ever so hot."""
_OFF_HEAT = re.compile(
    r"\b(?:off|from|away from) the (?:heat|flame|fire|stove)\b|\boff heat\b", re.I
)
_HEATS: tuple[tuple[Heat, re.Pattern[str]], ...] = (
    (
        "bare-simmer",
        re.compile(
            r"\b(?:odd bubble|barely|bare|very gently|trembl\w+|(?:very )?slowly|just under the boil)\b",
            re.IGNORECASE,
        ),
    ),
    (
        "rolling",
        re.compile(r"\b(?:hard|fast|rapid(?:ly)?|rolling|high heat|fierce(?:ly)?)\b", re.I),
    ),
    ("lively", re.compile(r"\b(?:lively|brisk(?:ly)?|medium-high)\b", re.IGNORECASE)),
)
_RESTS = re.compile(
    r"\b(?:cools?|chills?|chilled|sets?|rests?|stands?|wait|hold|film)\b", re.IGNORECASE
)
_COAT = "light-coat"
"""What "coats the spoon" means of a cream boiled down."""


@dataclass(frozen=True, slots=True)
class Stop:
    """A reduction: ``to`` where, as a sheet writes it, with the ``minutes`` said beside it."""

    to: str | dict[str, Any]
    minutes: float | None
    by_look: bool = False
    """Nothing is said of boiling down: where there is flour, that thickens it."""

    @property
    def measured(self) -> bool:
        """Whether it is so much that is left."""
        return isinstance(self.to, dict) and bool(self.to.keys() & {"volume", "mass"})


@dataclass(frozen=True, slots=True)
class Clause:
    """A piece of a sentence with one verb at most. ``sentence`` counts sentences from 0.
    ``rests``: it cools, sets or stands. ``shown`` is a range as it stood, where its middle was taken for the ``minutes``."""

    text: str
    sentence: int
    act: Act | None
    minutes: float | None = None
    stop: Stop | None = None
    colour: str | None = None
    off_heat: bool = False
    rests: bool = False
    heat: Heat | None = None
    shown: str = ""


_GO_ON: tuple[Act, ...] = ("add", "mix", "mount")
"""What is done on with the next thing, where no other verb is said."""
_SENTENCE = re.compile(
    r"(?<=[.!?])\s+(?=[A-Z“\"(])|(?<=[.!?])(?<!\bc\.)(?<!\bca\.)(?<!\bmin\.)\s+(?=[a-z])"
)
"""Between sentences; an abbreviation ends one only where a capital follows."""


def sentences_of(texts: list[str]) -> list[str]:
    """Single sentences out of paragraphs.

    >>> sentences_of(["Melt the butter. Add flour, c. 2 min."])
    ['Melt the butter.', 'Add flour, c. 2 min.']
    """
    return [
        part.strip()
        for text in texts
        for part in _SENTENCE.split(text)
        if part.strip() and not _CUE.match(part) and not part.rstrip().endswith("?")
    ]


_CUE = re.compile(r"\s*until:", re.IGNORECASE)
"""What to look for, in a sentence of its own: it says nothing to do."""
_TELLS = re.compile(
    rf"^\W*{_ADVERBS}(?:"
    + "|".join(_VERBS[act] for act in _VERBS if act not in ("season", "elsewhere", "blend"))
    + r")\b(?! of\b)",
    re.IGNORECASE,
)


def tells(text: str) -> bool:
    """Whether any clause of ``text`` begins by saying what to do.

    >>> tells("Melt the butter, add the flour."), tells("50 g butter, melted; 1 onion")
    (True, False)
    """
    # "2.5 L milk, warm" says how it is, not what to do.
    told = (clause for clause in _CLAUSE.split(text) if clause.strip(" .,").lower() != "warm")
    return any(_TELLS.match(clause) for clause in told)


def clauses_of(sentences: list[str]) -> list[Clause]:
    """Every clause of ``sentences``, in order. Never raises.

    >>> [(c.act, c.minutes) for c in clauses_of(["Stir in the flour and cook for a minute."])]
    [('add', None), ('cook', 1.0)]
    """
    found: list[Clause] = []
    for number, sentence in enumerate(sentences):
        for text in _CLAUSE.split(sentence):
            if text := text.strip(" ,."):
                clause = _clause(text, number)
                before = found[-1] if found and found[-1].sentence == number else None
                if clause.act is None and before and before.act in _GO_ON:
                    clause = replace(clause, act=before.act)  # "stir in cheese, then the yolks"
                found.append(clause)
    return found


def _clause(text: str, sentence: int) -> Clause:
    doing = text
    for beside in (_AT_HEAT, _WHEN):
        doing = beside.sub(lambda at: " " * len(at[0]), doing)
    verb = _ALL.search(doing)
    if verb and verb[0].lower() in _HELPERS:  # "let it flame": what it is let do is what is done
        verb = _ALL.search(doing, verb.end()) or verb
    if verb and verb[0].lower() == "salt" and doing[: verb.start()].strip():
        verb = _ALL.search(doing, verb.end())  # "butter and a pinch of salt": no verb
    act: Act | None = verb.lastgroup if verb else None  # type: ignore[assignment]
    if act == "out" and _INTO_PAN.search(text):
        act = "add"
    if act == "blend" and _BLENDED_WITH.search(text):
        act = "mix"
    if _OVEN.search(text) and act != "add":
        act = "elsewhere"
    minutes, shown = _minutes(text)
    stop = _stop(text, minutes) if act not in ("elsewhere", "over") else None
    if stop and (_REDUCES.search(text) or act in ("simmer", "cook", "reduce")):
        act = "reduce"
    elif act == "reduce" and stop is None:
        act = "simmer"
    heat = next((name for name, words in _HEATS if words.search(text)), None)
    colour = None
    if not _NO_COLOUR.search(text):
        colour = next((name for name, words in _COLOURS if words.search(text)), None)
    return Clause(
        text=text,
        sentence=sentence,
        act=act,
        minutes=minutes,
        stop=stop if act == "reduce" else None,
        colour=colour,
        off_heat=bool(_OFF_HEAT.search(text)),
        heat=heat,
        rests=bool(_RESTS.search(text)) and not _BOILS.search(text),
        shown=shown,
    )


def _minutes(text: str) -> tuple[float | None, str]:
    """The minutes said in ``text``, and the range they were the middle of."""
    match = _MINUTES.search(text) or _SIMMER_BARE.search(text)
    if not match:
        hours = _HOURS.search(text)
        return (None, "") if not hours else (30.0 if "half" in hours[1].lower() else 60.0, "")
    low = _number(match[1])
    if match[2] is None:
        return low, ""
    return 0.5 * (low + _number(match[2])), match[0].strip()


def _number(text: str) -> float:
    return float(_WORDS.get(text.lower(), 0) or text.replace(",", "."))


def _stands_thick(text: str, minutes: float | None) -> bool:
    timed = minutes is not None or not _COATS.search(text)
    return timed and not _REDUCES.search(text)


def _stop(text: str, minutes: float | None) -> Stop | None:
    """Where ``text`` stops a reduction; None where it does not say how far."""
    boils = _REDUCES.search(text) or _BOILS.search(text)
    if _DRY.search(text) and boils:
        return Stop("nearly-dry", minutes)
    if _REDUCES.search(text):
        for words, share in _SHARES:
            if words.search(text):
                return Stop({"share": round(share, 4)}, minutes)
        if (percent := _PERCENT.search(text)) and 0 < int(percent[2]) < 100:
            left = int(percent[2]) if percent[1].lower() == "to" else 100 - int(percent[2])
            return Stop({"share": left / 100}, minutes)
    if boils and (remains := _IS_LEFT.search(text)):
        return Stop({"share": _LEFT[remains[1].lower()]}, minutes)
    if boils and (amount := _TO_AMOUNT.search(text)):
        unit = unit_named(amount[2])
        kind = "mass" if unit.dimension is Dimension.WEIGHT else "volume"
        value = float(amount[1].replace(",", "."))
        return Stop({kind: {"value": value, "unit": unit.name}}, minutes)
    if boils and (grade := _GRADE.search(text)):
        return Stop({"grade": (grade[1] or "nappe").lower().replace(" ", "-")}, minutes)
    if boils and (_COATS.search(text) or (minutes is None and _THICK.search(text))):
        return Stop({"grade": _COAT}, minutes, by_look=_stands_thick(text, minutes))
    if not _REDUCES.search(text):
        return None
    if _TASTE.search(text):
        return Stop("to-taste", minutes)
    return Stop({"minutes": minutes}, None) if minutes is not None else None
