"""A sheet as Markdown: to send, to pin up, to keep in a folder of notes."""

from saucier.cards import cards
from saucier.check import check
from saucier.exchange.json_ld import spoken
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet
from saucier.thickness import spoken_grade
from saucier.words import say


def to_markdown(sheet: Sheet, kitchen: Kitchen) -> str:
    """``sheet`` in Markdown: what it makes, what to weigh, the steps with their cues."""
    checked = check(sheet, kitchen)
    final, told = checked.figures, cards(checked)

    def told_as(code: str, **facts: object) -> str:
        return str(say(f"markdown.{code}", **facts))

    lines = [
        f"# {sheet.name}",
        "",
        told_as(
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
    lines += [told_as("weigh"), "|---:|---|---|"]
    for card in told:
        for weighed in card.weighed:
            spoons = spoken(weighed.spoons) if weighed.spoons else ""
            lines.append(f"| {spoken(weighed.amount)} | {weighed.name} | {spoons} |")
    lines.append("")
    for number, (card, step) in enumerate(zip(told, sheet.steps, strict=True), 1):
        lines.append(f"{number}. **{card.title}.** {card.do}")
        lines += [f"   - {line}" for line in card.lines]
        lines.append(f"   *{card.cue}*")
        if step.note:
            lines.append(told_as("note", note=step.note))
    lines.append("")
    if final.allergens:
        lines.append(told_as("allergens", allergens=final.allergens))
    lines += [told_as("mind", what=warning) for warning in final.warnings]
    lines += ["", told_as("estimates"), ""]
    return "\n".join(lines)
