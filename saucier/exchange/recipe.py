"""A recipe from elsewhere made into a sheet, with everything that could not be read on show."""

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from typing import Any

from saucier import constants as K
from saucier.check import check
from saucier.errors import BadInput
from saucier.exchange.blanks import MeantFor, filled, with_amounts
from saucier.exchange.drafts import Made, steps_of
from saucier.exchange.layout import MOST_LINES, MOST_TOLD, layout_of
from saucier.exchange.lines import ReadLine, read_line
from saucier.exchange.link import sheet_in
from saucier.exchange.making import made_of
from saucier.exchange.sentences import clauses_of, sentences_of
from saucier.exchange.telling import NOT_SAUCE
from saucier.kitchen import Kitchen
from saucier.sheet import MAX_BYTES, Sheet, read_sheet
from saucier.units import Amount
from saucier.words import Sentence, say


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
    recipe says it yields, in its own words; ``open_lines`` how many are still to settle;
    ``ours`` how many have an amount of ours, reckoned for ``wanted``."""

    name: str
    lines: tuple[ReadLine, ...]
    sheet: Sheet | None
    assumed: tuple[Sentence, ...]
    unused: tuple[str, ...]
    beside: tuple[Sentence, ...]
    makes: str
    open_lines: int = 0
    ours: int = 0
    wanted: MeantFor = field(default_factory=MeantFor)


def read_recipe(
    text: str,
    kitchen: Kitchen,
    settled: Mapping[int, Settled] | None = None,
    wanted: MeantFor | None = None,
) -> Reading:
    """The recipe in ``text``: our own sheet, a link that holds one, JSON-LD, a saved page that holds it, or plain text:
    a list and a method, or only told. ``settled`` holds what the cook said of lines, by number from
    0. Nothing is guessed silently: lines to settle stay out of the sheet, and an amount the recipe
    does not give is reckoned for ``wanted`` (by default for as many as it says it serves) and marked.

    Raises :class:`BadInput` (field ``text``, ``settled[i]``, ``wanted.use`` or ``wanted.grade``).
    """
    if not text.strip():
        raise BadInput.at("text", "text-is-empty")
    if len(text) > MAX_BYTES * 3:
        raise BadInput.at("text", "text-is-too-long", most_kb=MAX_BYTES * 3 // 1024)
    text = sheet_in(text) or text
    if '"kestrel-fog/sauce"' in text:
        ours = read_sheet(text)
        return Reading(
            name=ours.name, lines=(), sheet=ours, assumed=(), unused=(), beside=(), makes=""
        )
    layout = layout_of(text, kitchen)
    if wanted is None:
        wanted = MeantFor(layout.use, layout.portions or MeantFor().portions)
    lines = [replace(read_line(line.text, kitchen), section=line.section) for line in layout.given]
    beside = _beside(lines, layout.sauce_section(kitchen))
    lines = _shares_of_base(lines, text, kitchen)
    sentences = sentences_of(layout.told)
    settling = _Settling(settled or {}, kitchen)
    given = len(lines)
    made = _made(settling.of(lines), sentences, beside, kitchen, given=given)
    if not made.lines:
        raise BadInput.at("text", "has-no-ingredient-lines")
    if len(made.lines) > len(lines):  # those the method added can be settled too
        lines = [*lines, *made.lines[len(lines) :]]
        made = _made(settling.of(lines), sentences, beside, kitchen, given=given)
    settling.checked(len(made.lines))
    try:
        amounts = filled(made, wanted, kitchen)
    except BadInput as bad:
        raise bad.under("wanted") from None
    steps = steps_of(made, amounts.amounts, kitchen)
    assumed = [*made.assumed, *amounts.assumed]
    if made.tasted:
        steps.append({"op": "season", "amount": {"to_salt_pct": K.USUAL_SALT_PCT}})
        assumed.append(say("assumed.salt", salt_pct=K.USUAL_SALT_PCT))
    if layout.cut:
        assumed.append(say("assumed.first-lines", most=MOST_LINES))
    if layout.told_cut:
        assumed.append(say("assumed.first-of-method", most=MOST_TOLD))
    sheet = _playable(
        {"name": layout.name, "target": amounts.target, "steps": steps}, assumed, kitchen
    )
    read = with_amounts(made.lines, amounts)
    for n in made.beside:
        key = read[n].ingredient
        food = key is not None and kitchen.larder[key].role in NOT_SAUCE
        if read[n].blank or (
            food and read[n].unweighed
        ):  # food beside the sauce needs no amount to be known for what it is
            read[n] = replace(read[n], status="read")
        elif n in beside and read[n].ingredient is None:  # nor to be known, under another heading
            read[n] = replace(read[n], status="read", why=say("line.left-out"))
    return Reading(
        name=layout.name,
        lines=tuple(read),
        sheet=sheet,
        assumed=tuple(dict.fromkeys(assumed)),
        unused=tuple(one for n, one in enumerate(sentences) if n not in made.used),
        beside=_told_beside(read, made.beside, kitchen),
        makes=layout.makes,
        open_lines=sum(line.status in ("settle", "unread") for line in read),
        ours=len(amounts.between),
        wanted=wanted,
    )


_PER_LITRE = re.compile(
    r"\b(?:per|for each|to each|to a) (?:lit(?:re|er)|l|kg|kilo) (?:of )?([a-z][a-z ]{2,20})", re.I
)


def _shares_of_base(lines: list[ReadLine], text: str, kitchen: Kitchen) -> list[ReadLine]:
    """Lines given as shares ("butter 8 %") of what the recipe is written for: a litre of milk, or
    what stands at 100 %."""
    if not any(line.share_pct is not None for line in lines):
        return lines
    base = next((line for line in lines if line.share_pct == 100.0), None)
    grams = 1000.0
    if base is None and (per := _PER_LITRE.search(text)):
        base = read_line(f"1 l {per[1].strip()}", kitchen)
        if base.status != "read" or base.ingredient is None or base.amount is None:
            return lines
        grams = kitchen.larder[base.ingredient].grams(base.amount)
        if not any(line.ingredient == base.ingredient for line in lines):
            lines = [base, *lines]
    if base is None:
        return lines
    return [
        replace(line, status="read", why=None, amount=Amount(line.share_pct * grams / 100.0, "g"))
        if line.share_pct is not None
        else line
        for line in lines
    ]


def _beside(lines: list[ReadLine], section: str | None) -> frozenset[int]:
    """Lines that stand in another ``section`` than the sauce's, and what nobody knows that goes with
    the dish."""
    return frozenset(
        n
        for n, line in enumerate(lines)
        if (section is not None and line.section not in ("", section))
        or (line.for_table and line.status == "unread")
    )


def _made(
    lines: list[ReadLine],
    sentences: list[str],
    beside: frozenset[int],
    kitchen: Kitchen,
    *,
    given: int,
) -> Made:
    """The steps of what is settled: lines still open are known to the method, and left out of it."""
    out = frozenset(
        n
        for n, line in enumerate(lines)
        if line.ingredient is None or (line.status != "read" and not line.blank)
    )
    return made_of(lines, clauses_of(sentences), kitchen, beside | out, given=given)


def _told_beside(
    lines: Sequence[ReadLine], beside: set[int], kitchen: Kitchen
) -> tuple[Sentence, ...]:
    told = []
    for n, line in enumerate(lines):
        if line.ingredient is None or line.status in ("settle", "unread"):
            continue
        role = kitchen.larder[line.ingredient].role
        if n in beside and line.optional:
            told.append(say("beside.optional", line=line.text))
        elif n in beside or role in NOT_SAUCE:
            told.append(say("beside.with-the-sauce", line=line.text))
        elif line.amount is None and line.to_taste and role != "salt":
            told.append(say("beside.to-taste", line=line.text))
    return tuple(told)


class _Settling:
    """What the cook said of lines, put over what was read of them."""

    def __init__(self, settled: Mapping[int, Settled], kitchen: Kitchen) -> None:
        self.settled, self.kitchen = settled, kitchen

    def checked(self, count: int) -> None:
        for number in self.settled:
            if not 0 <= number < count:
                raise BadInput.at(f"settled[{number}]", "is-no-line-of-it", last=count - 1)

    def of(self, lines: list[ReadLine]) -> list[ReadLine]:
        return [
            self._one(line, number, self.settled[number]) if number in self.settled else line
            for number, line in enumerate(lines)
        ]

    def _one(self, line: ReadLine, number: int, said: Settled) -> ReadLine:
        field = f"settled[{number}]"
        if said.ingredient is None:
            return ReadLine(
                line.text, "read", None, None, say("line.left-out"), section=line.section
            )
        try:
            row = self.kitchen.larder[said.ingredient]
            amount = said.amount or line.amount
            if amount is not None:
                row.grams(amount)
        except BadInput as bad:
            raise bad.under(field) from None
        if amount is None and row.role != "salt":
            if line.blank or line.ingredient != row.key:  # "yes, that one": how much is ours to say
                return ReadLine(
                    line.text, "settle", row.key, None, say("line.no-amount"), section=line.section
                )
            raise BadInput.at(f"{field}.amount", "settled-without-amount")
        return ReadLine(
            text=line.text,
            status="read",
            ingredient=row.key,
            amount=amount,
            why=None,
            to_taste=amount is None,
            section=line.section,
        )


def _playable(document: dict[str, Any], assumed: list[Sentence], kitchen: Kitchen) -> Sheet | None:
    """The sheet, with steps that cannot be taken left out and told. A reduction further than there
    is water for stays as it was given: the pot is told as it becomes."""
    steps: list[dict[str, Any]] = document["steps"]
    while steps:
        try:
            sheet = read_sheet(document)
            checked = check(sheet, kitchen)
        except BadInput as bad:
            problem = bad.problems[0]
            at = re.match(r"^steps\[(\d+)\]", problem.field)
            if at is None:
                return None
            del steps[int(at[1])]
            assumed.append(say("assumed.step-left-out", why=problem.message))
            continue
        for state in checked.steps:
            assumed += [w for w in state.pot.remarks if w.code == "stop-out-of-reach"]
        return sheet
    return None
