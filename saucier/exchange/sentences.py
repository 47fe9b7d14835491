"""What a recipe's method says that a sheet can hold: minutes, how far to boil down, a grade of
heat. The rest stays words."""

import re
from dataclasses import dataclass, replace

_MINUTES = re.compile(
    r"(?:for\s+)?(?:about\s+|another\s+)?(\d+(?:[.,]\d+)?)(?:\s*(?:-|–|to)\s*(\d+(?:[.,]\d+)?))?\s*"
    r"(?:min(?:ute)?s?\b)",
    re.IGNORECASE,
)
_REDUCE = re.compile(r"\b(reduc\w*|boil\w* down|cook\w* down)\b", re.IGNORECASE)
_SHARES = (
    (re.compile(r"\bby (?:a |one )?half\b|\bto half\b|\bby 50 ?%", re.IGNORECASE), 0.5),
    (re.compile(r"\bby (?:a|one) third\b|\bto two[ -]thirds\b", re.IGNORECASE), 2 / 3),
    (re.compile(r"\bby two[ -]thirds\b|\bto (?:a|one) third\b", re.IGNORECASE), 1 / 3),
    (re.compile(r"\bby (?:a|one) quarter\b|\bto three[ -]quarters\b", re.IGNORECASE), 0.75),
    (re.compile(r"\bby three[ -]quarters\b|\bto (?:a|one) quarter\b", re.IGNORECASE), 0.25),
)
_COATS = re.compile(
    r"\bcoats?\b.{0,30}\bspoon\b|\buntil (?:it |the sauce )?(?:coats?|thickened|thickens|thick)\b",
    re.IGNORECASE,
)
_TASTE = re.compile(r"\b(to|until it) tastes?\b", re.IGNORECASE)
_DRY = re.compile(r"\b(nearly|almost) (dry|gone|evaporated)\b|\bau sec\b|\bsyrup", re.IGNORECASE)
_SIMMER = re.compile(r"\b(simmer\w*|bubbl\w*|boil\w*)\b", re.IGNORECASE)
_COOK = re.compile(r"\b(thicken\w*|cook\w*)\b", re.IGNORECASE)
"""Said of a simmer, and of much else: counts as one only where no sentence says it plainly."""
_ROUX = re.compile(r"\b(roux|flour)\b", re.IGNORECASE)
_SWEAT = re.compile(
    r"\b(sweat\w*|soft|soften\w*|fry|saut\w*|translucent|without colou?r\w*)\b", re.IGNORECASE
)
_AROMATIC = re.compile(
    r"\b(onions?|shallots?|leeks?|garlic|celery|carrots?|mushrooms?|fennel)\b", re.IGNORECASE
)
_COLOURS = (
    ("blond", re.compile(r"\b(blond|straw|golden)\b", re.IGNORECASE)),
    ("brown", re.compile(r"\b(brown roux|brown(?:s|ed)?)\b", re.IGNORECASE)),
)


@dataclass(frozen=True, slots=True)
class Stop:
    """A reduction: ``to`` where, as a sheet writes it, with the ``minutes`` said beside it and all
    that was said ``up_to`` it, which tells what is in the pot by then."""

    to: str | dict[str, str | float]
    minutes: float | None
    up_to: str = ""

    @property
    def share(self) -> float | None:
        """The share it stops at; None where it is another kind of stop."""
        share = self.to.get("share") if isinstance(self.to, dict) else None
        return float(share) if share is not None else None


@dataclass(frozen=True, slots=True)
class Method:
    """What the sentences say. Minutes None where nothing was said; ``unused`` are sentences that
    nothing was taken from."""

    roux_minutes: float | None
    roux_colour: str
    simmer_minutes: float | None
    sweat_minutes: float | None
    stops: tuple[Stop, ...]
    unused: tuple[str, ...]
    ranges: tuple[str, ...]


def sentences_of(texts: list[str]) -> list[str]:
    """Single sentences out of paragraphs."""
    return [
        part.strip()
        for text in texts
        for part in re.split(r"(?<=[.!?])\s+(?=[A-Z“\"(])", text)
        if part.strip()
    ]


def read_method(sentences: list[str]) -> Method:
    """The method in ``sentences``. Never raises: what says nothing is handed back unused."""
    roux = simmer = sweat = cooked = None
    colour = "white"
    stops: list[Stop] = []
    unused: list[str] = []
    ranges: list[str] = []
    for number, sentence in enumerate(sentences):
        minutes = _minutes(sentence, ranges)
        used = True
        if _reduces(sentence) and (stop := _stop(sentence, minutes)):
            stops.append(replace(stop, up_to=" ".join(sentences[: number + 1])))
        elif _ROUX.search(sentence) and minutes is not None and roux is None:
            roux = minutes
        elif _sweats(sentence) and minutes is not None and sweat is None:
            sweat = minutes
        elif _SIMMER.search(sentence) and minutes is not None and simmer is None:
            simmer = minutes
        elif _COOK.search(sentence) and minutes is not None and cooked is None:
            cooked = (minutes, sentence)
        else:
            used = False
        for name, words in _COLOURS:
            if _ROUX.search(sentence) and words.search(sentence):
                colour, used = name, True
        if not used:
            unused.append(sentence)
    if cooked and simmer is None:
        simmer = cooked[0]
    elif cooked:
        unused.append(cooked[1])
    return Method(
        roux_minutes=roux,
        roux_colour=colour,
        simmer_minutes=simmer,
        sweat_minutes=sweat,
        stops=tuple(stops),
        unused=tuple(unused),
        ranges=tuple(ranges),
    )


def _reduces(sentence: str) -> bool:
    """Whether it boils something down: by that word, or until it is nearly dry."""
    boils = _SIMMER.search(sentence) or _COOK.search(sentence)
    return bool(_REDUCE.search(sentence) or (boils and _DRY.search(sentence)))


def _sweats(sentence: str) -> bool:
    """Whether it softens aromatics rather than simmering the sauce."""
    if _SIMMER.search(sentence):
        return False
    cooks_aromatics = _COOK.search(sentence) and _AROMATIC.search(sentence)
    return bool(_SWEAT.search(sentence) or cooks_aromatics)


def _minutes(sentence: str, ranges: list[str]) -> float | None:
    match = _MINUTES.search(sentence)
    if not match:
        return None
    low = float(match[1].replace(",", "."))
    if match[2] is None:
        return low
    ranges.append(match[0].strip())
    return 0.5 * (low + float(match[2].replace(",", ".")))


def _stop(sentence: str, minutes: float | None) -> Stop | None:
    """Where the sentence stops a reduction; None where it does not say how far."""
    if _DRY.search(sentence):
        return Stop("nearly-dry", minutes)
    for words, share in _SHARES:
        if words.search(sentence):
            return Stop({"share": round(share, 4)}, minutes)
    if _COATS.search(sentence):
        return Stop({"grade": _COAT}, minutes)
    if _TASTE.search(sentence):
        return Stop("to-taste", minutes)
    if minutes is not None and _REDUCE.search(sentence):
        return Stop({"minutes": minutes}, None)
    return None


_COAT = "light-coat"
"""What "coats the spoon" means of a cream boiled down."""
