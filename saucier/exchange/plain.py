"""A pasted text as plain lines: marks of formatting gone, tables as lines, shorthand written out."""

import html
import re

from saucier.exchange.page import words_of

_RULE = re.compile(r"^\|?[\s:|-]*-[\s:|-]*\|[\s:|-]*$")
_MARKS = re.compile(r"\*\*|__|`|~~|(?<![\w*])\*(?=\S)|(?<=\S)\*(?![\w*])")
"""Marks of bold, slanted and struck words."""
_KEYCAP = re.compile("^(\\d)\ufe0f?\u20e3\\s*")
_PICTURES = re.compile("[\u2600-\u27bf\ufe0f\u20e3\U0001f000-\U0001faff]")
_SPACES = re.compile("[\u00a0\u2000-\u200a\u202f]")
"""Spaces that hold words together, or apart by a little."""
_BOX = re.compile(r"^(\s*(?:[-*+]\s+)?)(?:\[[ xX]?\]|[☐☑✓✔□▢]|[▸▹►▶▪▫●○◦◆◇■→⇒»›‣⁃]\s)\s*")
_HEADING = re.compile(
    r"^(?:items?|ingredients?|qty|quantity|amounts?|units?|measures?|prep\w*|notes?|what|weights?|steps?|method|no\.?|#|)$",
    re.IGNORECASE,
)
"""What a table's heading says."""
_STEPS = re.compile(
    r"\b(?:steps?|method|what to do|directions?|instructions?|how)\b", re.IGNORECASE
)

_ABOUT = re.compile(
    r"^\W*(?:prep|cook|total|ready|takes|serves|feeds|makes|yield|difficulty|time)\b", re.IGNORECASE
)
"""Begins what is said of the whole recipe: "Serves: 4 | Cook: 20 min"."""
_FOR_SO_MANY = re.compile(r"^\W*ingredients? for (\d+ [a-z]+)\s*\|", re.IGNORECASE)
"""Heads batches for different numbers side by side."""
_COUNTED = re.compile(
    r"^[\d½¼¾⅓⅔][\d./½¼¾⅓⅔ ]*\s?(?:(?:k?g|[mcd]?l|oz|lbs?|pts?|tsps?|tbsps?|cups?)\b\.?\s+)?[a-zA-Z]{3,}"
)
"""An amount of something."""
_HTML = re.compile(r"<(?:li|p|br|div|h\d|ul|ol|td|tr)\b", re.IGNORECASE)
_SPELLED = re.compile(
    r"\b(?:two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|\w+teen|twenty|thirty|forty|fifty|sixty|seventy"
    r"|eighty|ninety|hundred|thousand)\b",
    re.IGNORECASE,
)
_SHARES = re.compile(r"(\b(?:two|one|a)[ -]thirds?\b|\bthree[ -]quarters\b)", re.IGNORECASE)
"""Shares that stay words."""
_N = r"(?:\d+(?:[.,]\d+)?(?:\s+\d/\d)?|\d/\d|\d*\s*[½¼¾⅓⅔⅛])"
_PARTED = r"(?:pounds?|pints?|lit(?:re|er)s?|cups?|lbs?|kilos?|hour|teaspoons?|tsp|ounces?|oz)\b)"
_MEASURED = r"pint|lit(?:re|er)|cup|table-?spoon|tea-?spoon|pound|ounce|glass|minute|kilo"
_UNIT = (
    r"(?:level |levelled |heaped |rounded |scant |generous |small |large )?"
    r"(?:table-?spoons?|tea-?spoons?|tbsps?|tsps?|cups?|ounces?|pounds?|pints?|lit(?:re|er)s?|grams?|kilos?|sticks?)\b"
)
_SHORT: tuple[tuple[re.Pattern[str], str], ...] = (
    (re.compile(r"\b(\d+(?:[-–]\d+)?)\s?['′’](?=[\s,.;)]|$)"), r"\1 min"),
    (re.compile(r"\ban? (?=\d{3}\b)"), ""),
    (re.compile(r"\b(?:an? )?couple (?:of )?(?:more )?(?=min)", re.IGNORECASE), "2 "),
    (re.compile(r"\b(?:an?|one) min(?:ute)?s? or two\b", re.IGNORECASE), "1-2 minutes"),
    (re.compile(r"\b(another|a further|one more) (?=min(?:ute)?\b)", re.IGNORECASE), r"\1 1 "),
    (re.compile(r"(?<=[.:] )\d{1,2}[.)] (?=[A-Z\d])"), ""),
    (re.compile(r"^\(([a-h])\) (?=[A-Z])"), r"1. "),
    (re.compile(r"\bflour,? (?:type |T ?|no\.? ?)(?:00|45|55|65|80|150|405|550|630|1050)\b", re.IGNORECASE), "flour"),
    (re.compile(r"\b(?:type |T ?)(?:00|45|55|65|80|150|405|550|630|1050)(?: (?=flour\b)|$)", re.IGNORECASE), ""),
    (re.compile(r"(?<=of )(?:its|their) (?:cooking )?(?=water\b)", re.IGNORECASE), "pasta "),
    (re.compile(r"(\d) ?(?:percent|per cent)\b", re.IGNORECASE), r"\1 %"),
    (re.compile(r"(\d) ?mils?\b", re.IGNORECASE), r"\1 ml"),
    (re.compile(rf"\bhalf an? (?={_UNIT})", re.IGNORECASE), "1/2 "),
    (re.compile(r"(?<![\d.])\.(?=\d)"), "0."),
    (re.compile(r"([\d½¼¾⅓⅔])-(?=(?:ounce|oz|gram|g|ml|cl|dl|litre|liter|lb|pound|pint|cup|tbsp|tsp|tablespoon|teaspoon|inch|minute|min)s?\b)", re.IGNORECASE), r"\1 "),
    (re.compile(r"\b(tea|table|dessert|)(spoon|cup)ful(s?)\b", re.IGNORECASE), r"\1\2\3"),
    (re.compile(r"\bfl\. ?(?=oz)", re.IGNORECASE), "fl "),
    (re.compile(r"\s*(?:\.{3,}|_{3,}|…+)\s*(?=\S)"), " "),
    (re.compile(r"\b(?:an?|one) (\w+) and a half\b(?= of\b)", re.IGNORECASE), r"1.5 \1"),
    (re.compile(rf"\b(?:an?|one) ({_MEASURED})s? and a half\b", re.IGNORECASE), r"1.5 \1"),
    (re.compile(r"\b(\d+) and a half (?=[a-z])", re.IGNORECASE), r"\1.5 "),
    (re.compile(r"\b(?:three|3)[ -]quarters (?:of an? )?(?=" + _PARTED, re.IGNORECASE), "3/4 "),
    (re.compile(r"\b(?:a |one )?quarter (?:of an? )?(?=" + _PARTED, re.IGNORECASE), "1/4 "),
    (re.compile(r"\b1/4 hour\b", re.IGNORECASE), "15 min"),
    (re.compile(r"\b3/4 hour\b", re.IGNORECASE), "45 min"),
    (re.compile(r"\b[Rr]ed\.\s*(?=(?:to|by|until|till|\d))"), "reduce "),
    (re.compile(r"\bs\s?[+&/]\s?p\b", re.IGNORECASE), "salt and pepper"),
    (re.compile(rf"\b({_N})\s?(?:(?:pcs?|pce|ea)\.?|no\.)(?=\s|$)", re.IGNORECASE), r"\1"),
    (re.compile(rf"({_N})\s?(?:tbs|tbls?|tblsp)\b\.?", re.IGNORECASE), r"\1 tbsp"),
    (re.compile(rf"\bone(?= {_UNIT})", re.IGNORECASE), "1"),
    (re.compile(rf"\ban?(?= {_UNIT}\W*$)", re.IGNORECASE), "1"),
    (re.compile(rf"\btwo(?= {_UNIT})", re.IGNORECASE), "2"),
    (re.compile(rf"\bthree(?= {_UNIT})", re.IGNORECASE), "3"),
    (re.compile(rf"({_N})\s?T\b(?:\.(?=\s+[a-z]))?(?=[\s.;,)]|$)"), r"\1 tbsp"),
    (re.compile(rf"({_N})\s?t\b(?:\.(?=\s+[a-z]))?(?=[\s.;,)]|$)"), r"\1 tsp"),
    (re.compile(r"(?<![\d.,])([1-9](?:\s+\d/\d)?|\d/\d|\d?\s?[½¼¾⅓⅔])\s?[cC](?:\.(?=\s+[a-z]|,|$)|(?=\s+[a-z]|,|$))"), r"\1 cup"),
    (
        re.compile(
            rf"({_N}\s?)((?i:fl\.?\s?oz|oz|lbs?|tbsps?|tbs|tbl|tsps?|k?g|gr|[mcd]?l|pts?|qts?))\.(?=\s+[a-z]|[,;)])"
        ),
        r"\1\2",
    ),
    (re.compile(r",? (?:fresh(?:ly)? )?from the mill\b", re.IGNORECASE), ""),
    (re.compile(r"^\((.*)\)\.?$"), r"\1"),
    (re.compile(r"\s[x×]\s?(\d{1,3})$"), r" \1"),
)  # fmt: skip
"""How kitchens shorten, and what it stands for."""


_SECONDS = re.compile(
    r"\b(\d{1,3})(?:\s?(?:-|–|to)\s?(\d{1,3}))?\s?(?:seconds?|secs?)\b", re.IGNORECASE
)


def _in_minutes(found: re.Match[str]) -> str:
    """ "30 seconds" as minutes, which is what everything else is told in."""
    middle = (float(found[1]) + float(found[2] or found[1])) / 2.0
    return f"{middle / 60.0:.2g} min"


def plain_line(line: str) -> str:
    """One line of :func:`plain_lines`; '' where it says nothing."""
    line = _KEYCAP.sub(r"\1. ", _SPACES.sub(" ", line))
    line = _PICTURES.sub("", _BOX.sub(r"\1", line)).strip()
    line = _BOX.sub(r"\1", _MARKS.sub("", line.lstrip("> ")))
    line = _SECONDS.sub(_in_minutes, re.sub(r"\s+//\s+", " · ", line))
    if _SPELLED.search(line):
        # Imported where it is used: the command line's plain check never needs it.
        from text_to_num import alpha2digit

        parts = _SHARES.split(line)
        line = "".join(part if n % 2 else alpha2digit(part, "en") for n, part in enumerate(parts))
    for short, full in _SHORT:
        line = short.sub(full, line)
    return line.strip()


_AMOUNT = re.compile(r"^[\d½¼¾⅓⅔][\d.,/½¼¾⅓⅔ ]*\s?[a-zA-Z]{0,5}$")


def _row(cells: list[str]) -> str:
    """A row of a table of ingredients as a line: what is said behind a whole amount is an aside."""
    told = [cell for cell in cells if cell]
    if re.search(r"[a-zA-Z] .{0,60}\d", cells[0]) and all(map(_AMOUNT.match, cells[1:])):
        told = cells[:1]  # batches side by side: the first
    whole = len(told) > 2 and re.match(r"^\d.*[a-zA-Z]$", told[1])
    return f"{' '.join(told[:2])}, {' '.join(told[2:])}" if whole else " ".join(told)


_POINT = re.compile(r"^[•▪●◦‣⁃*·–-]\s")


def _unbroken(lines: list[str]) -> list[str]:
    """``lines`` with those put together that were cut off inside one point of a list: "• 300 g fresh",
    "spinach"."""
    if sum(bool(_POINT.match(line)) for line in lines) < 3:
        return lines
    between = sum(
        bool(_POINT.match(a) and not _POINT.match(b) and _POINT.match(c))
        for a, b, c in zip(lines, lines[1:], lines[2:], strict=False)
    )
    found: list[str] = []
    for number, line in enumerate(lines):
        pointed = bool(found) and bool(_POINT.match(found[-1]))
        ends = number + 1 == len(lines) or not lines[number + 1] or _POINT.match(lines[number + 1])
        cut = between > 1 or (pointed and re.search(r"(?:,| of| and)$|\([^)]*$", found[-1]))
        if cut and pointed and ends and re.match(r"[a-z(]", line) and not line.endswith(":"):
            found[-1] += f" {line}"
        else:
            found.append(line)
    return found


def plain_lines(text: str) -> list[str]:
    """The lines of ``text`` that say anything, as one would type them by hand.

    >>> plain_lines("- [ ] **45g** butter\\n| Milk | 1 | l |\\n|---|---|---|\\n| 2 T. | flour | |\\nsweat 5'")
    ['- 45g butter', '2 tbsp flour', 'sweat 5 min']
    """
    text = words_of(text) if _HTML.search(text) else html.unescape(text)
    lines = _unbroken([line.strip() for line in text.splitlines()])
    found: list[str] = []
    steps = False
    for number, line in enumerate(lines):
        columns = re.split(r"\t+| {2,}", line)
        if _RULE.match(line) or (len(columns) > 1 and all(map(_HEADING.match, columns))):
            continue
        if people := _FOR_SO_MANY.match(line):
            found += ["Ingredients", f"For {people[1]}"]
            continue
        if sum(bool(_COUNTED.match(column)) for column in columns) > 1:  # several side by side
            found += columns
            continue
        cells = [cell.strip() for cell in re.split(r"\s*\|\s*", line.strip("|"))]
        about = sum(bool(_ABOUT.match(cell)) for cell in cells)
        listed = sum(bool(re.search(r"[a-zA-Z]{3}.{0,60}\d", cell)) for cell in cells)
        if "|" not in line or sum(":" in cell for cell in cells) > 1 or max(about, listed) > 1:
            steps = False
            found += cells
        elif (number + 1 < len(lines) and _RULE.match(lines[number + 1])) or all(
            _HEADING.match(cell) for cell in cells
        ):
            steps = bool(_STEPS.search(line))
            found += ["Method"] if steps else []
        elif steps:
            found.append(re.sub(r"^(\d+) (?=[A-Za-z])", r"\1. ", " ".join(filter(None, cells))))
        else:
            found.append(_row(cells))
    return [plain for line in found if re.search(r"\w", plain := plain_line(line))]
