"""A recipe from elsewhere made into a sheet, with everything that could not be read on show."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from saucier import constants as K
from saucier.check import check
from saucier.document import written_amount
from saucier.errors import BadInput
from saucier.exchange.json_ld import find_recipe, texts
from saucier.exchange.lines import ReadLine, read_line
from saucier.exchange.sentences import Method, Stop, read_method, sentences_of
from saucier.kitchen import Kitchen
from saucier.sheet import MAX_BYTES, Sheet, read_sheet
from saucier.units import Amount
from saucier.words import Sentence, say

MOST_LINES = 80
_STEEPED = ("bay-leaf", "clove", "peppercorns")
"""Whole spice: it gives its taste to the liquid and is taken out, not stirred in last."""
_METHOD_HEAD = re.compile(
    r"^\W*(method|directions|instructions|preparation|steps|how to)\b.*$", re.IGNORECASE
)
_INGREDIENTS_HEAD = re.compile(r"^\W*(ingredients|you need|what you need)\b\W*$", re.IGNORECASE)
_MAKES = re.compile(r"^\W*(serves|makes|yields?|for|enough for|servings?:?)\s.*\d", re.IGNORECASE)
_NUMBERED = re.compile(r"^\s*\d+[.)]\s+")


@dataclass(frozen=True, slots=True)
class Settled:
    """How a cook settled a line: so much of an ingredient, or left out (``ingredient`` None)."""

    ingredient: str | None
    amount: Amount | None = None


@dataclass(frozen=True, slots=True)
class Reading:
    """``lines`` as read, the ``sheet`` made of what is settled (None until something is),
    ``assumed`` what had to be taken for granted, ``unused`` the sentences nothing was taken
    from, ``beside`` the lines that go with the sauce and not into it. ``makes`` is what the
    recipe says it yields, in its own words; ``open_lines`` how many are still to settle."""

    name: str
    lines: tuple[ReadLine, ...]
    sheet: Sheet | None
    assumed: tuple[Sentence, ...]
    unused: tuple[str, ...]
    beside: tuple[Sentence, ...]
    makes: str
    open_lines: int = 0


def read_recipe(
    text: str, kitchen: Kitchen, settled: Mapping[int, Settled] | None = None
) -> Reading:
    """The recipe in ``text``: our own sheet, JSON-LD, a saved page that holds it, or plain text
    with a name, ingredient lines and a method. ``settled`` holds what the cook said of lines,
    by number from 0. Nothing is guessed silently: lines to settle stay out of the sheet.

    Raises :class:`BadInput` (field ``text`` or ``settled[i]``).
    """
    if not text.strip():
        raise BadInput.at("text", "text-is-empty")
    if len(text) > MAX_BYTES * 3:
        raise BadInput.at("text", "text-is-too-long", most_kb=MAX_BYTES * 3 // 1024)
    if '"kestrel-fog/sauce"' in text:
        ours = read_sheet(text)
        return Reading(
            name=ours.name, lines=(), sheet=ours, assumed=(), unused=(), beside=(), makes=""
        )
    node = find_recipe(text)
    name, given, told, makes = _from_json_ld(node) if node else _from_text(text)
    if not given:
        raise BadInput.at(
            "text",
            "has-no-ingredient-lines",
        )
    lines = tuple(read_line(line, kitchen) for line in given[:MOST_LINES])
    lines = _with_settled(lines, settled or {}, kitchen)
    method = read_method(sentences_of(told))
    sheet, assumed, beside = _sheet(name, lines, method, kitchen)
    if len(given) > MOST_LINES:
        assumed = (*assumed, say("assumed.first-lines", most=MOST_LINES))
    open_lines = sum(line.status != "read" for line in lines)
    return Reading(
        name=name,
        lines=lines,
        sheet=sheet,
        assumed=assumed,
        unused=method.unused,
        beside=beside,
        makes=makes,
        open_lines=open_lines,
    )


def _from_json_ld(node: Mapping[str, Any]) -> tuple[str, list[str], list[str], str]:
    made = texts(node.get("recipeYield"))
    return (
        str(node.get("name") or "Recipe").strip()[:120] or "Recipe",
        texts(node.get("recipeIngredient") or node.get("ingredients")),
        texts(node.get("recipeInstructions")),
        made[0][:80] if made else "",
    )


def _from_text(text: str) -> tuple[str, list[str], list[str], str]:
    lines = [line.strip() for line in text.splitlines()]
    lines = [line for line in lines if line]
    name, rest = lines[0].strip("# *")[:120], lines[1:]
    if re.match(r"^[\W\d]*\d", lines[0]):  # no name: the first line is an ingredient
        name, rest = "Recipe", lines
    given: list[str] = []
    told: list[str] = []
    method, makes = False, ""
    for line in rest:
        if _METHOD_HEAD.match(line):
            method = True
        elif _INGREDIENTS_HEAD.match(line):
            method = False
        elif not makes and not method and len(line) < 80 and _MAKES.match(line):
            makes = line
        elif method or (given and _NUMBERED.match(line)) or len(line) > 120:
            method = True
            told.append(_NUMBERED.sub("", line))
        else:
            given.append(line)
    return name, given, told, makes


def _with_settled(
    lines: tuple[ReadLine, ...], settled: Mapping[int, Settled], kitchen: Kitchen
) -> tuple[ReadLine, ...]:
    settled_lines = list(lines)
    for number, said in settled.items():
        field = f"settled[{number}]"
        if not 0 <= number < len(settled_lines):
            raise BadInput.at(field, "is-no-line-of-it", last=len(settled_lines) - 1)
        line = settled_lines[number]
        if said.ingredient is None:
            settled_lines[number] = ReadLine(line.text, "read", None, None, say("line.left-out"))
            continue
        try:
            row = kitchen.larder[said.ingredient]
            amount = said.amount or line.amount
            if amount is not None:
                row.grams(amount)
        except BadInput as bad:
            raise bad.under(field) from None
        if amount is None and row.role != "salt":
            raise BadInput.at(f"{field}.amount", "settled-without-amount")
        settled_lines[number] = ReadLine(
            text=line.text,
            status="read",
            ingredient=row.key,
            amount=amount,
            why=None,
            to_taste=amount is None,
        )
    return tuple(settled_lines)


@dataclass
class _Draft:
    """Lines sorted by what they do, and the steps made of them."""

    steps: list[dict[str, Any]]
    assumed: list[Sentence]

    def put(self, op: str, line: ReadLine, **rest: Any) -> None:
        assert line.amount is not None
        amount = written_amount(line.amount)
        self.steps.append({"op": op, "ingredient": line.ingredient, "amount": amount, **rest})

    def part(self, line: ReadLine) -> dict[str, Any]:
        assert line.amount is not None
        return {"ingredient": line.ingredient, "amount": written_amount(line.amount)}


_NOT_SAUCE = ("solid", "meat", "fish", "seafood")


def _sheet(
    name: str, lines: Sequence[ReadLine], method: Method, kitchen: Kitchen
) -> tuple[Sheet | None, tuple[Sentence, ...], tuple[Sentence, ...]]:
    """The sheet of the lines that are read, in the order sauces are made."""
    by_role: dict[str, list[ReadLine]] = {}
    beside, tasted = [], False
    for line in lines:
        if line.status != "read" or line.ingredient is None:
            continue
        role = kitchen.larder[line.ingredient].role
        if line.amount is None:
            tasted = tasted or role == "salt"
            if role != "salt":
                beside.append(say("beside.to-taste", line=line.text))
        elif role in _NOT_SAUCE:
            beside.append(say("beside.with-the-sauce", line=line.text))
        else:
            by_role.setdefault(role, []).append(line)
    draft = _Draft([], [say("assumed.range", shown=text) for text in method.ranges])
    _base(draft, by_role, method, kitchen)
    _enrich(draft, by_role, method)
    if tasted:
        draft.steps.append({"op": "season", "amount": {"to_salt_pct": K.USUAL_SALT_PCT}})
        draft.assumed.append(say("assumed.salt", salt_pct=K.USUAL_SALT_PCT))
    if not draft.steps:
        return None, tuple(draft.assumed), tuple(beside)
    sheet = _playable({"name": name, "steps": draft.steps}, draft, kitchen)
    return sheet, tuple(draft.assumed), tuple(beside)


def _playable(document: dict[str, Any], draft: _Draft, kitchen: Kitchen) -> Sheet | None:
    """The sheet, with steps that cannot be taken left out and told. A reduction further than there
    is water for stays as it was given: the pot is told as it becomes."""
    steps: list[dict[str, Any]] = document["steps"]
    while steps:
        sheet = read_sheet(document)
        try:
            checked = check(sheet, kitchen)
        except BadInput as bad:
            problem = bad.problems[0]
            del steps[int(re.sub(r"^steps\[(\d+)\].*$", r"\1", problem.field))]
            draft.assumed.append(say("assumed.step-left-out", why=problem.message))
            continue
        for state in checked.steps:
            draft.assumed += [w for w in state.pot.remarks if w.code == "stop-out-of-reach"]
        return sheet
    return None


def _take(by_role: dict[str, list[ReadLine]], *roles: str) -> list[ReadLine]:
    return [line for role in roles for line in by_role.pop(role, [])]


def _base(
    draft: _Draft, by_role: dict[str, list[ReadLine]], method: Method, kitchen: Kitchen
) -> None:
    """Aromatics, roux, wine boiled down, the liquids, the simmer."""
    flour, fat = _take(by_role, "flour"), _take(by_role, "fat")
    aromatics = _take(by_role, "aromatic", "vegetable")
    wine = _take(by_role, "wine", "spirit")
    stops = list(method.stops)
    sweating = bool(aromatics)
    if sweating or not flour:
        for line in fat:
            draft.put("add", line)
        for line in aromatics:
            minutes = method.sweat_minutes or K.USUAL_SWEAT_MIN
            draft.put("sweat", line, minutes=minutes)
        if sweating and method.sweat_minutes is None:
            draft.assumed.append(say("assumed.sweat", minutes=K.USUAL_SWEAT_MIN))
    roux_minutes = 2.0 if method.roux_minutes is None else min(30.0, method.roux_minutes)
    for number, line in enumerate(flour):
        colour = method.roux_colour
        if sweating or not fat or number:
            draft.put("dust", line, colour=colour, minutes=roux_minutes)
            continue
        first, *others = fat
        draft.steps.append(
            {
                "op": "roux",
                "fat": draft.part(first),
                "flour": draft.part(line),
                "colour": colour,
                "minutes": roux_minutes,
            }
        )
        for more in others:
            draft.put("add", more)
    if flour and method.roux_minutes is None:
        draft.assumed.append(say("assumed.roux", minutes=roux_minutes))
    liquids = _take(by_role, "milk", "stock", "water", "juice")
    boiled = " ".join(stop.up_to for stop in stops)
    cream = by_role.get("cream", [])
    if not flour or (stops and any(_mentioned(line, boiled, kitchen) for line in cream)):
        liquids += _take(by_role, "cream")
    _poured(draft, wine, liquids, stops, kitchen)
    if liquids:
        _steep(draft, by_role)
    if flour and liquids:
        simmer = method.simmer_minutes
        if simmer is None:
            simmer = K.USUAL_SIMMER_MIN
            draft.assumed.append(say("assumed.simmer", minutes=simmer))
        draft.steps.append({"op": "simmer", "minutes": min(simmer, 240.0)})


def _poured(
    draft: _Draft,
    wine: list[ReadLine],
    liquids: list[ReadLine],
    stops: Sequence[Stop],
    kitchen: Kitchen,
) -> None:
    """Wine and liquids with the reductions between them, in the order the method gives: each stop
    comes after what was named up to it (where nothing was, after the wine, then after all)."""
    waiting = [*wine, *liquids]
    for number, stop in enumerate(stops):
        named = [line for line in waiting if _mentioned(line, stop.up_to, kitchen)]
        if not named:
            first = number == 0 and len(stops) > 1 and wine
            named = [line for line in waiting if not first or line in wine]
        _pour(draft, named, wine)
        waiting = [line for line in waiting if line not in named]
        if wine or liquids:
            draft.steps.append(_reduce(stop))
    _pour(draft, waiting, wine)


def _pour(draft: _Draft, lines: Sequence[ReadLine], wine: Sequence[ReadLine]) -> None:
    for line in lines:
        draft.put("deglaze" if line in wine and draft.steps else "add", line)


def _mentioned(line: ReadLine, text: str, kitchen: Kitchen) -> bool:
    """Whether ``text`` names the ingredient of ``line``, by any word of its name or aliases."""
    if line.ingredient is None:
        return False
    row = kitchen.larder[line.ingredient]
    words = set(re.findall(r"[a-zà-ÿ]{4,}", " ".join([row.name, *row.aliases]).lower()))
    said = set(re.findall(r"[a-zà-ÿ]{4,}", text.lower()))
    return bool((words - _NO_NAME) & said)


_NO_NAME = {
    "light",
    "house",
    "white",
    "plain",
    "heavy",
    "double",
    "single",
    "thick",
    "with",
    "whole",
}
"""Words in names that a method says of other things."""


def _steep(draft: _Draft, by_role: dict[str, list[ReadLine]]) -> None:
    herbs = by_role.pop("herb", [])
    whole = [line for line in herbs if line.ingredient in _STEEPED]
    if rest := [line for line in herbs if line not in whole]:
        by_role["herb"] = rest
    for line in whole:
        draft.put("infuse", line, minutes=K.USUAL_STEEP_MIN)
        draft.assumed.append(say("assumed.steep", line=line.text, minutes=K.USUAL_STEEP_MIN))


def _reduce(stop: Stop) -> dict[str, Any]:
    step: dict[str, Any] = {"op": "reduce", "to": stop.to}
    if stop.minutes is not None:
        step["minutes"] = stop.minutes
    return step


def _enrich(draft: _Draft, by_role: dict[str, list[ReadLine]], method: Method) -> None:
    """Cream and cheese, yolks, soft cream, purées, seasoning: the end of the sauce."""
    cream = _take(by_role, "cream")
    yolks = _take(by_role, "egg")
    if yolks and cream:
        draft.steps.append(
            {"op": "liaison", "yolk": draft.part(yolks[0]), "cream": draft.part(cream[0])}
        )
        yolks, cream = yolks[1:], cream[1:]
        draft.assumed.append(say("assumed.liaison"))
    for line in cream:
        draft.put("add", line)
    for line in _take(by_role, "cheese"):
        draft.put("melt", line)
    for line in [*yolks, *_take(by_role, "soft-cream", "puree", "herb", "nut")]:
        draft.put("finish", line)
    for line in _take(by_role, "seasoning", "spice", "acid", "salt"):
        draft.put("season", line)
    for line in [one for lines in by_role.values() for one in lines]:
        draft.put("add", line)
