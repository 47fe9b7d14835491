"""A batch as it really went: set beside another, and made a new version of its sauce."""

from dataclasses import dataclass
from typing import Any

from django.db import transaction

from kestrel.accounts.models import User
from kestrel.journal.learning import finished
from kestrel.journal.models import Entry
from kestrel.larder.actions import core_kitchen
from kestrel.sauces.actions import save_again, save_new
from kestrel.sauces.models import Sauce
from saucier.check import check, prepare
from saucier.errors import BadInput
from saucier.learn import as_it_went
from saucier.sheet import Sheet
from saucier.thickness import grade_of
from saucier.words import Sentence, say

ALIKE, ALIKE_MIN = 0.02, 0.1
"""Amounts, and minutes, nearer to each other than so are the same."""
_WORTH_TELLING_MIN = 1.0


@dataclass(frozen=True, slots=True)
class ComparedLine:
    """One line of two batches beside each other, as text; ``differs`` where it is not the same."""

    what: Sentence | str
    one: str
    other: str
    differs: bool


def turned_out(entry: Entry) -> Sheet:
    """``entry`` as a sheet that makes it again: what went in, as long as it took, to the weight it came to,
    aimed at the grade that was reached. Raises :class:`BadInput` (``entry``) where it cannot be played."""
    if entry.batch.drawn_key:  # its sheet is how it was warmed, not how it is made
        raise BadInput.at("entry", "was-only-warmed")
    done = finished(entry)
    if not done.sheet.steps:
        raise BadInput.at("entry", "nothing-was-cooked")
    core = core_kitchen(entry.kitchen)
    reached = entry.stands.reached_pa_s
    grade = grade_of(reached) if reached is not None else None
    return as_it_went(done, grade, core)


@transaction.atomic
def again(entry: Entry, user: User) -> Sauce:
    """A new version of the sauce of ``entry``, as it turned out; of a pot of no saved sauce, a new one.
    Raises :class:`BadInput` (``entry``)."""
    sheet = turned_out(entry)
    version = entry.batch.version
    if version is None or version.sauce.deleted_at is not None:
        return save_new(entry.kitchen, user, sheet)
    named = sheet.model_copy(update={"name": version.sauce.name})
    return save_again(version.sauce, user, named, version.sauce.version)


def compared(one: Entry, other: Entry) -> list[ComparedLine]:
    """Two batches beside each other: what went in, how long, what came out, what was said."""
    sides = [_side(entry) for entry in (one, other)]
    keys = [*sides[0], *(key for key in sides[1] if key not in sides[0])]
    lines = []
    for key in keys:
        here, there = (side.get(key) for side in sides)
        label = (here or there or ("", "", None))[0]
        texts = [told[1] if told else "" for told in (here, there)]
        numbers = [told[2] if told else None for told in (here, there)]
        alike = ALIKE_MIN if key.startswith("for ") else ALIKE
        lines.append(ComparedLine(label, texts[0], texts[1], _differs(texts, numbers, alike)))
    return lines


def _differs(texts: list[str], numbers: list[float | None], alike: float) -> bool:
    one, other = numbers
    if one is None or other is None:
        return texts[0] != texts[1]
    return abs(one - other) > alike * max(abs(one), abs(other))


_Told = dict[str, tuple[Any, str, float | None]]
"""By a key of its own: what it is, how it is told, and the number it is compared by."""


def _side(entry: Entry) -> _Told:
    batch, done = entry.batch, finished(entry)
    core = core_kitchen(entry.kitchen)
    told: _Told = {}
    number = batch.version.number if batch.version else None
    if number is not None:
        told["version"] = (say("compared.version"), str(number), None)
    told["pan"] = (say("compared.pan"), str(batch.plan["pan"]["name"]), None)
    told["ring"] = (say("compared.ring"), batch.ring, None)
    try:
        prepared = prepare(done.sheet, core)
        seen: dict[str, int] = {}
        for at, (step, setting) in enumerate(zip(prepared.steps, prepared.settings, strict=True)):
            for weighed in step.to_weigh(setting):
                key = f"{weighed.ingredient}"
                seen[key] = seen.get(key, 0) + 1
                text = str(
                    say(
                        "figure.grams" if weighed.grams >= 10 else "figure.tenths",
                        grams=weighed.grams,
                    )
                )
                told[f"in {key} {seen[key]}"] = (weighed.name, text, weighed.grams)
            if done.minutes.get(at, 0.0) >= _WORTH_TELLING_MIN:
                key = f"{step.op}"
                seen[key] = seen.get(key, 0) + 1
                name = say("compared.minutes", op=step.op)
                minutes = done.minutes[at]
                told[f"for {key} {seen[key]}"] = (
                    name,
                    str(say("figure.minutes", minutes=minutes)),
                    minutes,
                )
        final = check(done.sheet, core).figures
        told["salt"] = (
            say("compared.salt"),
            str(say("figure.salt", percent=final.salt_pct)),
            final.salt_pct,
        )
        told["fat"] = (
            say("compared.fat"),
            str(say("figure.fat", percent=final.fat_pct)),
            final.fat_pct,
        )
    except BadInput:
        pass  # what its larder has no more is left out; what came of it stands
    stands = entry.stands
    grams = stands.weighed_g
    told["came"] = (
        say("compared.came"),
        "" if grams is None else str(say("figure.grams", grams=grams)),
        grams,
    )
    reached = stands.reached_pa_s
    told["thick"] = (
        say("compared.thick"),
        "" if reached is None else str(say("figure.thick", pa_s=reached)),
        reached,
    )
    mends = "; ".join(mend["title"] for mend in batch.mends)
    told["mends"] = (say("compared.mends"), mends, None)
    told["verdict"] = (say("compared.verdict"), str(stands.get_verdict_display()), None)
    told["note"] = (say("compared.note"), stands.note, None)
    return told
