"""Where a recipe's name, ingredient lines, sections and method stand, in a page or in plain text."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Any

from saucier.errors import BadInput
from saucier.exchange.lines import BULLET, read_line
from saucier.exchange.page import find_recipe, texts
from saucier.exchange.plain import plain_line, plain_lines
from saucier.exchange.sentences import tells
from saucier.exchange.spelling import by_country
from saucier.kitchen import Kitchen
from saucier.units.reading import split_amount
from saucier.units.spelled import NUMBERS

_METHOD_HEAD = re.compile(
    r"^\W*(method(?: of \w+)?|directions|instructions|preparation|procedure|process|technique|steps|how to\b.*|what to do)\W*$",
    re.IGNORECASE,
)
_METHOD_TOLD = re.compile(
    r"^\W*(?:method|directions|instructions|preparation|procedure|process|technique)\s*[:.–—-]\s+(\S.+)$",
    re.IGNORECASE,
)
_INGREDIENTS_HEAD = re.compile(
    r"^\W*(?:ingredients(?: for [^:]{2,40}(?=:))?|commodities|(?:what )?you(?:'ll| will)? need|what you need|list)\b\s*"
    r"(?:\((?P<makes>[^)]*)\))?\s*(?::\s*(?P<rest>.+)|\W*)$",
    re.IGNORECASE,
)
_EATERS = "portions?|servings?|people|persons?|pers|ptns?|pax|covers|guests|plates"
_MAKES = re.compile(
    r"^\W*((?:serves|feeds|makes|yields?|for|enough for|servings?|portions?|batch|per)\b:?\s.*"
    r"(?:\d|two|three|four|five|six|eight|ten|twelve).*|\d+ (?:" + _EATERS + r")\b.*"
    r"|pour \d+ (?:l|lit(?:re|er)s?|personnes?|pers|portions?|couverts?)\b\W*)$",
    re.IGNORECASE,
)
_MAKES_IN_TITLE = re.compile(
    r"\s*[(,–-]+\s*((?:serves|makes|for|staff,?)?\s*(?:about )?"
    r"(?:\d+|two|three|four|five|six|eight|ten|twelve)\b[^()]*)\)?$",
    re.IGNORECASE,
)
_ABOUT_IT = re.compile(
    r"^\W*(?:prep(?:aration)?|cook(?:ing)?|active|inactive|hands-on|total|ready|resting|chilling|time)(?: time)?\s*:(?=.*\d).{0,50}$"
    r"|^\W*(?:difficulty|course|cuisine"
    r"|used? for|goes with|nutrition(?: per \w+)?|source|from|author|dish|component|recipe|station|date|by|cost|allergens?|storage|equipment|shelf life"
    r"|calories(?: per \w+)?|rating|tags?|keywords?|category|portion size)\s*:.*$"
    r"|^\W*\d[\d.]* from \d+ (?:votes?|reviews?)\W*$"
    r"|^\W*(?:print|jump to|save|share|pin|rate)(?: (?:this )?recipe)?\W*$"
    r"|^\W*(?:prep\w*|cook\w*|total|ready|takes)(?: time| in)? \d+ ?(?:min|hour|hr)\w*\.?(?:,? serves \d+)?\W*$",
    re.IGNORECASE,
)
"""What is said of a recipe: neither ingredient nor method."""
_AFTER_HEAD = re.compile(
    r"^\W*(?:nutrition(?: (?:facts|information))?|notes?|tips?|storage|variations?|comments?|reviews?|faqs?)\W*$",
    re.IGNORECASE,
)
"""What stands behind the recipe."""
_VARIES = re.compile(
    r"^\W*(?:(?:variations?|variants?|notes?|tips?|to vary|make ahead|to store|to freeze|leftovers)\s*[.:–—-]\s|variations? on\b"
    r"|(?:\w+ ){1,3}sauce\s*[:–—-]\s*(?:stir|add|omit|make|as|use|replace|substitute|proceed)\b)",
    re.IGNORECASE,
)
"""The same, said in one line with what it says."""
_NUMBERED = re.compile(
    r"^\s*(?:(?:step )?\d+\s*[.)/]|step \d+:?)\s+",
    re.IGNORECASE,
)
_UNIT = r"(?:k?g|[mcd]?l|oz|lbs?|tsps?|tbsps?|cups?)\b"
_ALONE = re.compile(
    rf"^\W*(?:[\d½¼¾⅓⅔][\d./½¼¾⅓⅔]*\s?{_UNIT}\.? [^.,;]{{2,40}}|[^\d.,;]{{3,40}} [\d½¼¾][\d./]*\s?{_UNIT})\W*$",
    re.IGNORECASE,
)
"""One thing and how much of it."""
_STEP_HEAD = re.compile(r"^\W*step \d+\W*$", re.IGNORECASE)
_BARE_NUMBER = re.compile(r"^\s*\d{1,2}\s+(?=[A-Z][a-z]+ [a-z])")
_LABEL = re.compile(r"^[A-Za-zÀ-ÿ' -]{3,30}:\s+(?=\S)")
_SECTION = re.compile(
    r"^\W*(?:for (?:the )?)?(?P<name>[A-Za-zÀ-ÿ' -]{3,40}?)\s*:\s*$", re.IGNORECASE
)
_SECTION_FOR = re.compile(r"^\W*for the (?P<name>[A-Za-zÀ-ÿ' -]{3,40})$", re.IGNORECASE)
_SAUCE_WORDS = re.compile(
    r"\b(sauce|roux|b[ée]chamel|velout[ée]|panade|cream|mornay|soubise|liaison|base)\b",
    re.IGNORECASE,
)
_USES = (
    (r"\bcroquettes?\b", "croquettes"),
    (r"\b(pasta|macaroni) bake\b|\bbaked (pasta|macaroni)\b|\bmac(aroni)? cheese\b", "pasta-baked"),
    (r"\b(pasta|ribbons|gnocchi|spaghetti|tagliatelle|macaroni|noodles)\b", "toss"),
    (r"\b(toasts?|rarebit)\b", "toast"),
    (r"\bpancakes?\b", "filling"),
    (r"\b(gratin|pie|bake)\b", "enrobe"),
    (r"\b(rice|mash|barley|grains|chips)\b", "over"),
)
"""Words in a name that tell what the sauce is for."""
LONG = 120
_FEW_WORDS = 6
"""Up to so many, names alone are a line of a list, whatever sign it ends with."""
MOST_LINES = 80
"""Ingredient lines that are read; no recipe has more."""
MOST_TOLD = 8_000
_MOST_PARTS = 30
_MOST_LINES_LOOKED_AT = 400
_MOST_ON_A_LINE = 600
"""Signs of a method, and of one line, that are looked at: whatever is pasted is answered at once."""


@dataclass(frozen=True, slots=True)
class Line:
    """An ingredient line as it stands, under its ``section``'s heading ('' for none)."""

    text: str
    section: str = ""


@dataclass
class Layout:
    """``given`` ingredient lines (``cut``: there were more), ``told`` paragraphs of method
    (``told_cut``: likewise), what it ``makes`` in its words."""

    name: str
    given: list[Line] = field(default_factory=list)
    told: list[str] = field(default_factory=list)
    makes: str = ""
    cut: bool = False
    told_cut: bool = False

    def sauce_section(self, kitchen: Kitchen) -> str | None:
        """The section that is the sauce's; None where no section says so. Of several sauces the one
        with flour in it, else the last."""
        named = dict.fromkeys(one.section for one in self.given if _SAUCE_WORDS.search(one.section))
        for section in reversed(named):
            keys = [
                read_line(one.text, kitchen).ingredient
                for one in self.given
                if one.section == section
            ]
            if any(key is not None and kitchen.larder[key].role == "flour" for key in keys):
                return section
        return next(reversed(named), None)

    @property
    def use(self) -> str:
        """What a recipe of this name is usually for; napped over the plate where it does not say."""
        return next(
            (use for words, use in _USES if re.search(words, self.name, re.IGNORECASE)), "nap"
        )

    @property
    def portions(self) -> float | None:
        """How many it says it serves; None where it says nothing, or a volume."""
        words = self.makes.lower()
        if re.search(r"\d\s*(?:ml|cl|dl|l|litres?|liters?|g|kg|cups?|pints?)\b", words):
            return None
        counted = re.search(rf"\b(\d{{1,3}}) (?:{_EATERS})\b", words) or re.search(
            r"\b(\d{1,3})\b", words
        )
        if counted:
            return float(counted[1])
        return next(
            (float(n) for word, n in NUMBERS.items() if re.search(rf"\b{word}\b", words)), None
        )


def layout_of(text: str, kitchen: Kitchen) -> Layout:
    """The recipe in ``text``: JSON-LD, a saved page, or plain text."""
    text = by_country(text)
    node = find_recipe(text)
    found = _of_node(node) if node else _of_text(text, kitchen)
    found.cut = len(found.given) > MOST_LINES
    split = [
        Line(part, line.section)
        for line in found.given[:MOST_LINES]
        for part in split_line(line.text[:_MOST_ON_A_LINE], kitchen)
    ]
    found.cut = found.cut or len(split) > MOST_LINES
    found.given = split[:MOST_LINES]
    left, told = MOST_TOLD, []
    for paragraph in found.told:
        told.append(paragraph[:left])
        left -= len(told[-1])
    found.told_cut = sum(map(len, found.told)) > MOST_TOLD
    found.told = [paragraph for paragraph in told if paragraph]
    return found


def _of_node(node: Mapping[str, Any]) -> Layout:
    made = texts(node.get("recipeYield"))
    name = str(node.get("name") or "Recipe").strip()[:120] or "Recipe"
    given = _plain(node.get("recipeIngredient") or node.get("ingredients"))
    told = [_unnumbered(line) for line in _plain(node.get("recipeInstructions"))]
    found = Layout(name, told=told, makes=made[0][:80] if made else "")
    _sort_sections(found, given)
    return found


def _plain(field: Any) -> list[str]:
    """What a field of a recipe says, a plain line each."""
    return [plain for line in texts(field) if (plain := plain_line(line))]


def _unnumbered(line: str) -> str:
    """``line`` without the number of its step: "2 Melt the butter", never "2 Tbs olive oil"."""
    if numbered := _NUMBERED.match(line):
        return line[numbered.end() :]
    bare = _BARE_NUMBER.match(line)
    return line[bare.end() :] if bare and tells(line[bare.end() :]) else line


def _sort_sections(found: Layout, lines: list[str]) -> None:
    section = ""
    for line in lines:
        if head := _section(line):
            section = head
        else:
            found.given.append(Line(line, section))


def _section(line: str) -> str:
    head = _SECTION.match(line) or _SECTION_FOR.match(line)
    return head["name"].strip() if head else ""


def _of_text(text: str, kitchen: Kitchen) -> Layout:
    lines = [
        part
        for line in plain_lines(text)[:_MOST_LINES_LOOKED_AT]
        for part in _headed_inside(line[: MOST_TOLD + 1])
    ]
    found, rest = _titled(lines, kitchen)
    section, method, headed = "", False, False
    prose = any(line.endswith(".") and not _surely_listed(line, kitchen) for line in rest)
    for number, line in enumerate(rest):
        if found.given and found.told and (_AFTER_HEAD.match(line) or _VARIES.match(line)):
            break
        if _ABOUT_IT.match(line) or _STEP_HEAD.match(line):
            continue
        acts = bool(found.given) and (_acts(line, kitchen) or _again(line, found.given, kitchen))
        if _METHOD_HEAD.match(line):
            method = headed = True
        elif told := _METHOD_TOLD.match(line):
            method = headed = True
            found.told.append(told[1])
        elif head := _INGREDIENTS_HEAD.match(line):
            method = headed = False
            found.makes = found.makes or (head["makes"] or "")
            if head["rest"]:
                found.given.append(Line(head["rest"], section))
        elif not found.makes and len(line) < 80 and _MAKES.match(line) and not _told(line):
            found.makes = line.strip("() ")
        elif not method and (named := _section(line)):
            section = named
        elif not method and _heads(line, rest[number + 1 : number + 2], kitchen):
            section = line
        elif not (headed or acts) and (listed := _listed_in(line, kitchen)):
            found.given.append(Line(listed, section))
        elif method and not headed and _ALONE.match(line) and not tells(line):
            found.given.append(Line(line, section))  # nobody knows it, and it is one of the list
        elif method or _told(line) or (found.given and _unnumbered(line) != line) or acts:
            method = method or acts or tells(line) or not _whole_list(line, kitchen)
            if method and prose and found.told and _goes_on(found.told[-1], line):
                found.told[-1] += f" {line}"
            elif method:
                found.told.append(_unnumbered(line))
            else:
                found.given.append(Line(line, section))
        else:
            bare = _LABEL.sub("", line, count=1)
            found.given.append(Line(bare if _counted(bare) else line, section))
    return found


_OPEN_END = re.compile(
    r"(?:,|\b(?:and|or|the|an?|of|with|in|into|for|to|by|until|till|it))$", re.IGNORECASE
)


def _goes_on(before: str, line: str) -> bool:
    """Whether ``line`` is the rest of a sentence that was cut where a page ended."""
    if before.endswith((".", "!", "?", ":", ";")):
        return False
    if _OPEN_END.search(before):
        return bool(re.match(r"[a-z(\d]", line))
    return bool(re.match(r"[a-z(]", line)) and not tells(line)


_INSIDE = re.compile(
    r"^(?P<name>[^:]{0,80}?)\.?\s*\b(?P<head>ingredients?:\s)(?P<rest>.+)$", re.IGNORECASE
)


def _headed_inside(line: str) -> list[str]:
    """``line`` as several where it has a heading inside: "A sauce. Ingredients: 50 g butter, … Melt …"."""
    inside = _INSIDE.match(line)
    if not inside or len(line) < LONG:
        return [line]
    given, *told = re.split(r"(?<=[a-z)])\. +(?=[A-Z][a-z]+ )", inside["rest"], maxsplit=1)
    return [*filter(None, [inside["name"]]), f"{inside['head']}{given}", *told]


def _titled(lines: list[str], kitchen: Kitchen) -> tuple[Layout, list[str]]:
    """The recipe's name from its first line, and the lines after it."""
    if not lines:
        return Layout("Recipe"), []
    if _INGREDIENTS_HEAD.match(lines[0]) or _METHOD_HEAD.match(lines[0]):
        return Layout("Recipe"), lines
    first = re.sub(r"^(?:dish|recipe|name|title)\s*:\s*", "", lines[0].strip("# *"), flags=re.I)
    if _surely_listed(first, kitchen, names=False) or (
        re.match(r"^[\W\d]*\d", first) and read_line(first, kitchen).ingredient
    ):
        return Layout("Recipe"), lines
    if two := re.match(
        r"^([^.]{3,60})\. +((?:serves|for|makes)\b[^.]{1,40})(?:\. +(.+)|\.?)$",
        first,
        re.IGNORECASE,
    ):
        return Layout(two[1], makes=two[2]), [*filter(None, [two[3]]), *lines[1:]]
    if section := _section(lines[0]):  # "For the white sauce:" names it, and heads its list
        return Layout(section[:1].upper() + section[1:]), lines
    short = len(first) <= 60 and not re.search(r"[.!?;] +[A-Z]", first)
    if len(first) > LONG or (_told(first) and "." in first and not (short and not tells(first))):
        head, colon, tail = first.partition(":")
        if colon and len(head) <= 60:
            return Layout(head), [tail.strip(), *lines[1:]]
        return Layout("Recipe"), lines
    makes = ""
    counted = _MAKES_IN_TITLE.search(first)
    if counted and not re.search(r"votes?|stars?|rating|k?cal|min", counted[1], re.IGNORECASE):
        makes, first = counted[1].strip(), first[: counted.start()].strip()
    return Layout(first[:120] or "Recipe", makes=makes), lines[1:]


def _told(line: str) -> bool:
    """Whether ``line`` is told, as a method is, rather than listed."""
    words = line.split()
    if len(line) > LONG and (tells(line) or not line.count(",") > len(words) / 6):
        return True
    if _OVEN_ON.match(line):
        return True
    rest = re.split(r"(?<=[a-z)])\. +(?=[A-Z])|: (?=[a-z])", line, maxsplit=1)
    if len(rest) > 1 and tells(rest[1]):
        return True
    ends = line.rstrip().endswith((".", "!")) and len(words) >= 5
    sentences = bool(re.search(r"[a-z)]\. +\w", line)) and len(words) >= 6
    return (ends or sentences) and not re.match(
        r"^\W*[\d½¼¾][\d.,/½¼¾ ]*(?:k?g|[mcd]?l|tsps?|tbsps?|tbs|cups?|oz|lbs?|fl)\b",
        line,
        re.IGNORECASE,
    )


def _again(line: str, given: list[Line], kitchen: Kitchen) -> bool:
    """Whether a line only names what is listed already with its amount: a method in short."""
    read = [read_line(part, kitchen) for part in split_line(line, kitchen)]
    if not all(one.blank for one in read):
        return False
    there = [read_line(part, kitchen) for one in given for part in split_line(one.text, kitchen)]
    weighed = {one.ingredient for one in there if one.amount is not None}
    return all(one.ingredient in weighed for one in read)


_OVEN_ON = re.compile(
    r"^\W*(?:pre-?heat|heat|turn on|set) (?:the |your )?(?:oven|grill|broiler)\b", re.IGNORECASE
)
_DOWN = re.compile(r"\bdown (?:by|to|till|until)\b|\boff the heat\b", re.IGNORECASE)


_TIMED = re.compile(r"\b\d+(?: ?(?:-|–) ?\d+)? ?min(?:ute)?s?\b", re.IGNORECASE)
_GOES = re.compile(
    r"^(?:[a-z]+ ){1,3}(?:on|in|off|out)(?:,|$| (?:and|for|till?|until)\b)", re.IGNORECASE
)
"""Short for what goes where: "pasta on, 10 min"."""


_TAKE = re.compile(r"^\W*(?:take|use|you(?:'ll| will)? need|have ready):? +(?=\d)", re.IGNORECASE)
_MEASURE_FIRST = re.compile(
    r"^(?:squeeze|drizzle|splash|sprinkle|dusting|grating) (?!the\b|over\b|in\b|with\b|out\b)\w+(?: \w+)?$",
    re.IGNORECASE,
)


def _acts(line: str, kitchen: Kitchen) -> bool:
    """Whether a short line says what to do, as "- sweat shallot in butter 5 min" does."""
    bare = re.sub(r"^\W+", "", line)
    if re.match(r"^(?:\w+ )?\w+ of ", bare, re.IGNORECASE) or _MEASURE_FIRST.match(bare):
        return False  # "squeeze of lemon" is a measure, no act
    if any(short.search(bare) for short in (_DOWN, _GOES, _TIMED)) and not _counted(bare):
        return True
    return tells(bare) and read_line(bare, kitchen).status != "read" and not _counted(bare)


def _listed_in(line: str, kitchen: Kitchen) -> str:
    """What ``line`` lists, without its number or the label in front ("Kneaded butter: 20 g butter,
    20 g flour"); '' where it lists nothing."""
    fronts = (line, _unnumbered(line), _LABEL.sub("", line, count=1), _TAKE.sub("", line))
    for number, bare in enumerate(fronts):
        if (number == 0 or bare != line) and _surely_listed(bare, kitchen, names=number == 0):
            return bare
    return ""


def _surely_listed(line: str, kitchen: Kitchen, *, names: bool = True) -> bool:
    """Whether a line is one ingredient with its amount, or several, and nothing else, whatever
    sign it ends with; with ``names`` also a few words that only name one."""
    if len(line) > LONG or tells(line):
        return False
    read = [read_line(part, kitchen) for part in split_line(line, kitchen)]
    if not all(one.status == "read" or one.blank for one in read):
        return False
    given = any(one.amount is not None or one.to_taste or one.optional for one in read)
    return given or (names and len(line.split()) <= _FEW_WORDS)


def _whole_list(line: str, kitchen: Kitchen) -> bool:
    """Whether a long line is a list: all of it ingredients."""
    parts = split_line(line, kitchen) if len(line) <= _MOST_ON_A_LINE else []
    return len(parts) > 2 and all(read_line(part, kitchen).ingredient for part in parts)


def _heads(line: str, after: list[str], kitchen: Kitchen) -> bool:
    """Whether a bare short line is the heading of a section: no ingredient itself, and one follows."""
    if len(line) > 40 or re.search(r"[\d½¼¾⅓⅔⅛.,;]", line) or not after:
        return False
    sauce = re.search(r"\b(?:sauce|cream|panade|roux)$", line.strip(), re.IGNORECASE)
    if read_line(line, kitchen).ingredient and not sauce:
        return False
    return _counted(after[0]) or (
        not after[0].islower() and _surely_listed(after[0], kitchen, names=False)
    )


def _counted(text: str) -> bool:
    try:
        return bool(split_amount(re.sub(r"^\W+", "", text))[1])
    except BadInput:
        return False


def _weighed(text: str, kitchen: Kitchen) -> bool:
    """Whether ``text`` begins with an amount in a unit, of something known."""
    if not re.match(r"^[\d½¼¾⅓⅔][\d.,/½¼¾⅓⅔ ]*\s?[a-zA-Z]", text.strip()):
        return False
    line = read_line(text, kitchen)
    return line.ingredient is not None and line.amount is not None and line.amount.unit != "piece"


_EACH = re.compile(
    r"^(?P<amount>[\d½¼¾][\d.,/ ]*\s*[a-zA-Z]+\.?)\s+(?:of )?each(?: of)?:? (?P<names>.+)$"
)
"""One amount for several: "25 g each butter and flour"."""
_SLAKED = re.compile(
    r",? (?:slaked|mixed|blended|whisked|loosened|dissolved) (?:with|in|into) (?=\d|a )",
    re.IGNORECASE,
)
_MADE_OF = re.compile(r"^[^()]*\(([^()]*)\)[^\w]*$")
"""Something with what it is made of: "500 ml white sauce (35 g butter, 35 g flour, 500 ml milk)"."""
_ZEST_AND_JUICE = re.compile(
    r"^(?:(?:finely )?(?:grated )?(?:the )?(?:zest and juice|juice and zest) of (\d|half an?|an?|one|½)? ?(?:large |small )?(lemon|lime|orange)s?"
    r"|(\d|½)? ?(?:large |small )?(lemon|lime|orange)s?, ?(?:finely )?(?:grated )?(?:zest and juice|juice and zest|zested and juiced|juiced and zested))\b.*$",
    re.IGNORECASE,
)
_STUCK = re.compile(r",? (?:studded|spiked|stuck|pricked) with ", re.IGNORECASE)
_BETWEEN = (r"\s*[;·•]\s*", r"\s+/\s+", r"\s*,\s*(?:and\s+)?", r"\s+(?:and|&|\+)\s+")


def split_line(text: str, kitchen: Kitchen) -> list[str]:
    """``text`` in single ingredients where it is several: "salt, white pepper and nutmeg".

    Left whole where a part is none ("1 onion, finely chopped"), and where an amount may be meant of
    all of them ("25 g butter and flour").
    """
    bare = BULLET.sub("", text.strip()).rstrip(".")
    if each := _EACH.match(bare):
        names = [
            name for name in re.split(r"\s*,\s*(?:and\s+)?|\s+(?:and|&)\s+", each["names"]) if name
        ]
        lines = [f"{each['amount']} {name}" for name in names]
        if len(lines) > 1 and all(read_line(line, kitchen).ingredient for line in lines):
            return lines
    if both := _ZEST_AND_JUICE.match(bare):
        count, fruit = (both[1] or both[3] or "1"), (both[2] or both[4])
        return [f"{count} {fruit} zest", f"{count} {fruit} juice"]
    inside = _MADE_OF.match(bare)
    if inside and not read_line(bare, kitchen).ingredient:
        parts = re.split(r"\s*,\s*", inside[1])
        if len(parts) > 1 and all(_weighed(part, kitchen) for part in parts):
            return parts
    stuck = _SLAKED.split(bare)
    if len(stuck) == 2 and stuck[0].count("(") > stuck[0].count(")"):
        stuck = [bare]
    if len(stuck) != 2 and not re.search(r"[,;]", bare):
        stuck = _STUCK.split(bare)
    if len(stuck) == 2 and all(read_line(part, kitchen).ingredient for part in stuck):
        return stuck
    for between in _BETWEEN:
        parts = [part for part in re.split(between, bare) if part.strip()]
        if not 2 <= len(parts) <= _MOST_PARTS:
            continue
        semi = between == _BETWEEN[0]
        if not semi and any(bracketed in part for part in parts for bracketed in ("(", ")")):
            parts = _outside_brackets(bare, between)
            if len(parts) < 2:
                continue
        if sum(_weighed(part, kitchen) for part in parts) > 1:
            # "60 g butter, 60 g flour, blond": words go with what they are said of.
            known_at = [n for n, part in enumerate(parts) if read_line(part, kitchen).ingredient]
            edges = [0, *(n for n in known_at if n), len(parts)]
            parts = [", ".join(parts[a:b]) for a, b in pairwise(edges)]
        read = [read_line(part, kitchen) for part in parts]
        known = sum(one.ingredient is not None for one in read)
        if known < len(parts) and not (known >= 2 and known >= len(parts) - len(parts) // 3):
            continue
        if known < len(parts) and max(len(part.split()) for part in parts) > 6:
            continue
        amounts = [one.amount is not None or one.to_taste for one in read]
        if between in _BETWEEN[2:] and amounts[0] and not all(amounts) and len(parts) < 4:
            # "25 g butter and flour" may mean each; "100 g cheese, gruyère" says which.
            roles = [kitchen.larder[one.ingredient].role for one in read if one.ingredient]
            if between == _BETWEEN[3] or len(set(roles)) < len(parts):
                continue
        return [piece for part in parts for piece in split_line(part, kitchen)]
    return [text]


def _outside_brackets(text: str, between: str) -> list[str]:
    """``text`` split at ``between`` where no bracket is open."""
    parts, start, depth = [], 0, 0
    for found in re.finditer(rf"[()]|{between}", text):
        if found[0] in "()":
            depth += 1 if found[0] == "(" else -1
        elif depth <= 0:
            parts.append(text[start : found.start()])
            start = found.end()
    return [part for part in (*parts, text[start:]) if part.strip()]
