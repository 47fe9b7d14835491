"""schema.org Recipe in JSON-LD: writing one, and finding one in what a cook pastes."""

from collections.abc import Iterable, Iterator
from html.parser import HTMLParser
from typing import Any

from saucier.cards import Card, cards, cards_inside
from saucier.check import check
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet
from saucier.strict import load
from saucier.thickness import spoken_grade
from saucier.units import SPOONS, Amount
from saucier.words import say


def to_json_ld(sheet: Sheet, kitchen: Kitchen) -> dict[str, Any]:
    """``sheet`` as a schema.org Recipe. Salt to a target is written as it comes out."""
    checked = check(sheet, kitchen)
    told, first = cards(checked), cards_inside(checked, kitchen)
    final = checked.final
    recipe: dict[str, Any] = {
        "@context": "https://schema.org",
        "@type": "Recipe",
        "name": sheet.name,
        "recipeCategory": str(say("recipe-category")),
        "recipeYield": f"{final.pot.yield_ml:.0f} mL",
        "totalTime": f"PT{max(1, round(final.pot.minutes))}M",
        "recipeIngredient": ingredient_lines(
            [*(card for pot in first for card in pot.cards), *told]
        ),
        "recipeInstructions": [
            *(
                {
                    "@type": "HowToSection",
                    "name": pot.sheet.name,
                    "itemListElement": _how_to(pot.cards),
                }
                for pot in first
            ),
            *_how_to(told),
        ],
        "nutrition": {
            "@type": "NutritionInformation",
            "servingSize": "100 g",
            "calories": f"{100 * final.figures.kcal / max(final.pot.total_g, 1e-9):.0f} kcal",
            "fatContent": f"{final.figures.fat_pct:.1f} g",
        },
    }
    if sheet.cover and sheet.cover.text:
        recipe["description"] = sheet.cover.text
    if sheet.cover and sheet.cover.author:
        recipe["author"] = {"@type": "Person", "name": sheet.cover.author}
    if final.thickness.grade:
        recipe["keywords"] = str(say("keywords", grade=spoken_grade(final.thickness.grade)))
    return recipe


def _how_to(told: Iterable[Card]) -> list[dict[str, str]]:
    return [
        {"@type": "HowToStep", "name": str(card.title), "text": instruction(card)} for card in told
    ]


def ingredient_lines(told: list[Card]) -> list[str]:
    """What to weigh, a line each, in cooking order; a sauce made for it by what goes into that."""
    return [
        f"{spoken(weighed.amount)} {_lower(weighed.name)}"
        for card in told
        for weighed in card.weighed
        if weighed.ingredient
    ]


def spoken(amount: Amount) -> str:
    """An amount as a recipe writes it: at most four digits, pieces without a word."""
    if amount.measure:
        return f"{_by_hand(amount.measure.count)} {amount.measure.name}"
    if amount.unit == "piece":
        return _by_hand(amount.value)
    if amount.unit in SPOONS:
        return f"{_by_hand(amount.value)} {amount.unit}"
    return f"{_digits(amount.value)} {amount.unit}"


_FRACTIONS = {0.125: "⅛", 0.25: "¼", 0.375: "⅜", 0.5: "½", 0.625: "⅝", 0.75: "¾", 0.875: "⅞"}


def _by_hand(value: float) -> str:
    """A count of spoons in fractions, where it is one."""
    whole = int(value)
    part = _FRACTIONS.get(round(value - whole, 3))
    if part is None:
        return _digits(value)
    return f"{whole} {part}" if whole else part


def _digits(value: float) -> str:
    text = f"{value:.4g}"
    return text if "e" not in text else f"{value:.0f}"


def instruction(card: Card) -> str:
    """A card's words in one line, with what it weighs."""
    weighed = ", ".join(f"{spoken(w.amount)} {_lower(w.name)}" for w in card.weighed)
    parts = [str(card.do), *map(str, card.lines), str(say("until", cue=card.cue))]
    return " ".join([f"({weighed})", *parts] if weighed else parts)


def _lower(name: str) -> str:
    return name[:1].lower() + name[1:]


def find_recipe(text: str) -> dict[str, Any] | None:
    """The first schema.org Recipe in ``text``: JSON-LD as it is, or inside a saved web page;
    None where there is none."""
    for document in _documents(text):
        for node in _nodes(document):
            kinds = node.get("@type")
            kinds = kinds if isinstance(kinds, list) else [kinds]
            if any(str(kind).rpartition("/")[2] == "Recipe" for kind in kinds):
                return node
    return None


def _documents(text: str) -> Iterator[Any]:
    for part in (text, *_scripts(text)):
        try:
            yield load(part)
        except BadInput:
            continue


def _nodes(document: Any, depth: int = 0) -> Iterator[dict[str, Any]]:
    if depth > 8:
        return
    if isinstance(document, list):
        for part in document:
            yield from _nodes(part, depth + 1)
    elif isinstance(document, dict):
        yield document
        for key in ("@graph", "mainEntity", "mainEntityOfPage"):
            yield from _nodes(document.get(key), depth + 1)


class _Scripts(HTMLParser):
    def __init__(self) -> None:
        super().__init__()
        self.found: list[str] = []
        self._inside = False

    def handle_starttag(self, tag: str, attrs: list[tuple[str, str | None]]) -> None:
        self._inside = tag == "script" and ("type", "application/ld+json") in attrs

    def handle_data(self, data: str) -> None:
        if self._inside:
            self.found.append(data)

    def handle_endtag(self, tag: str) -> None:
        self._inside = False


def _scripts(text: str) -> list[str]:
    if "<script" not in text.lower():
        return []
    parser = _Scripts()
    parser.feed(text)
    return parser.found


def texts(value: Any) -> list[str]:
    """The words in a field that may be a text, a list, or steps and sections of them."""
    if isinstance(value, str):
        return [line for line in value.splitlines() if line.strip()]
    if isinstance(value, list):
        return [line for part in value for line in texts(part)]
    if isinstance(value, dict):
        return texts(value.get("itemListElement") or value.get("text") or value.get("name"))
    return []
