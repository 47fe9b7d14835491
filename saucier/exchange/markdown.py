"""A sheet as Markdown: to send, to pin up, to keep in a folder of notes."""

from collections.abc import Sequence

from saucier.cards import Card, cards, cards_inside
from saucier.check import check
from saucier.exchange.json_ld import spoken
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet
from saucier.steps import AnyStep
from saucier.thickness import spoken_grade
from saucier.words import say


def to_markdown(sheet: Sheet, kitchen: Kitchen) -> str:
    """``sheet`` in Markdown: what it makes, what to weigh, the steps with their cues; before them
    those of the sauces made for it."""
    checked = check(sheet, kitchen)
    final = checked.figures
    lines = [
        f"# {sheet.name}",
        "",
        _written(
            "makes",
            makes_ml=final.yield_ml,
            total_g=final.total_g,
            thick=spoken_grade(final.grade) if final.grade else final.reason,
            serving_c=final.serving_c,
            salt_pct=final.salt_pct,
            fat_pct=final.fat_pct,
            minutes=final.minutes,
        ),
        "",
    ]
    if sheet.cover and sheet.cover.text:
        lines += [sheet.cover.text, ""]
    first = cards_inside(checked, kitchen)
    for pot in first:
        lines += [_written("first", name=pot.sheet.name, pan=pot.pan, made_g=pot.made_g), ""]
        lines += _weighed_and_done(pot.cards, pot.sheet.steps)
    if first:
        lines += [_written("then", name=sheet.name), ""]
    lines += _weighed_and_done(cards(checked), sheet.steps)
    if final.allergens:
        lines.append(_written("allergens", allergens=final.allergens))
    lines += [_written("mind", what=warning) for warning in final.warnings]
    lines += ["", _written("estimates"), ""]
    return "\n".join(lines)


def _written(code: str, **facts: object) -> str:
    return str(say(f"markdown.{code}", **facts))


def _weighed_and_done(told: Sequence[Card], steps: Sequence[AnyStep]) -> list[str]:
    """What one pot wants weighed, and its steps."""
    lines = [_written("weigh"), "|---:|---|---|"]
    for card in told:
        for weighed in card.weighed:
            spoons = spoken(weighed.spoons) if weighed.spoons else ""
            lines.append(f"| {spoken(weighed.amount)} | {weighed.name} | {spoons} |")
    lines.append("")
    for number, (card, step) in enumerate(zip(told, steps, strict=True), 1):
        lines.append(f"{number}. **{card.title}.** {card.do}")
        lines += [f"   - {line}" for line in card.lines]
        lines.append(f"   *{card.cue}*")
        if step.note:
            lines.append(_written("note", note=step.note))
    return [*lines, ""]
