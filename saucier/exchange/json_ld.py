"""A sheet written as a schema.org Recipe in JSON-LD."""

from collections.abc import Iterable
from typing import Any

from saucier.cards import Card, cards, cards_inside
from saucier.check import check
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet
from saucier.steps import AnyStep
from saucier.thickness import spoken_grade
from saucier.units import SPOONS, Amount
from saucier.units.spoons import in_parts
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
                    "itemListElement": _how_to(pot.cards, pot.sheet.steps),
                }
                for pot in first
            ),
            *_how_to(told, sheet.steps),
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


def _how_to(told: Iterable[Card], steps: Iterable[AnyStep]) -> list[dict[str, str]]:
    # No name beside the text: readers put it before the text, and say the step twice.
    return [
        {"@type": "HowToStep", "text": instruction(card, step)}
        for card, step in zip(told, steps, strict=True)
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
        return " + ".join(f"{_by_hand(part.value)} {part.unit}" for part in in_parts(amount))
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


def instruction(card: Card, step: AnyStep) -> str:
    """A card's words in one line, with what it weighs and the minutes the step gives."""
    weighed = ", ".join(f"{spoken(w.amount)} {_lower(w.name)}" for w in card.weighed)
    do = str(card.do)
    minutes = getattr(step, "minutes", None)
    if (
        minutes
        and card.timer_s
        and step.op in ("roux", "dust", "sweat", "infuse")
        and " min" not in do
    ):
        do = str(say("do-for", do=do.rstrip("."), minutes=minutes))
    parts = [do, *map(str, card.lines), str(say("until", cue=card.cue))]
    return " ".join([f"({weighed})", *parts] if weighed else parts)


def _lower(name: str) -> str:
    return name[:1].lower() + name[1:]
