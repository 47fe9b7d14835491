"""A sheet as Markdown: to send, to pin up, to keep in a folder of notes."""

from saucier.cards import cards
from saucier.check import check
from saucier.exchange.json_ld import spoken
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet
from saucier.thickness import spoken_grade


def to_markdown(sheet: Sheet, kitchen: Kitchen) -> str:
    """``sheet`` in Markdown: what it makes, what to weigh, the steps with their cues."""
    checked = check(sheet, kitchen)
    found, told = checked.as_dict(), cards(checked)
    grade = found["grade"]
    thick = spoken_grade(grade) if grade else found["reason"]
    lines = [
        f"# {sheet.name}",
        "",
        f"Makes {found['yield_ml']:.0f} mL, {found['total_g']:.0f} g. **{thick}** at "
        f"{found['serving_c']:g} °C. Salt {found['salt_pct']:.2f} %, fat {found['fat_pct']:.1f} %. "
        f"About {found['minutes']:.0f} min at the stove.",
        "",
    ]
    if sheet.cover and sheet.cover.text:
        lines += [sheet.cover.text, ""]
    lines += ["| weigh | | spoons |", "|---:|---|---|"]
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
            lines.append(f"   Note: {step.note}")
    lines.append("")
    if found["allergens"]:
        lines.append(f"Allergens: {', '.join(found['allergens'])}.")
    lines += [f"Mind: {text}." for text in found["warnings"]]
    lines += ["", "Thickness and times are estimates; taste, and look at the spoon.", ""]
    return "\n".join(lines)
