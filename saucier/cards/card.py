"""One step of a checked sheet as a card: its words, what is weighed for it, its timer."""

from dataclasses import dataclass

from saucier.cards.words import words_of
from saucier.check import CheckedSheet
from saucier.pot import Pot
from saucier.steps import Hands, LeftOut, Weighed
from saucier.words import Sentence


@dataclass(frozen=True, slots=True)
class Card:
    """One step: ``title``, what to ``do``, the ``cue`` to look for, ``lines`` to go through one by
    one, what is ``weighed`` for it, the ``remarks`` that belong to this step itself, ``timer_s``
    seconds to run (None: no timer), and ``scale_g``, the reading of the scale with the pan on it
    afterwards (None where the pan's tare is not known). ``hands``: what the step wants of a cook.
    ``left_out``: it was not done."""

    title: Sentence
    do: Sentence
    cue: Sentence
    weighed: tuple[Weighed, ...]
    timer_s: int | None
    scale_g: float | None
    lines: tuple[Sentence, ...] = ()
    remarks: tuple[Sentence, ...] = ()
    hands: Hands = "now-and-then"
    left_out: bool = False


def cards(checked: CheckedSheet) -> list[Card]:
    """The cards of a checked sheet, in order."""
    told = []
    before = Pot()
    for step, setting, state in zip(
        checked.sheet.steps, checked.settings, checked.steps, strict=True
    ):
        words = words_of(step, setting, before, state.pot)
        minutes = step.timer_minutes(before, state.pot)
        tare = checked.pan.tare_g
        told.append(
            Card(
                title=words.title,
                do=words.do,
                cue=words.cue,
                weighed=tuple(step.weighed_after(setting, before, state.pot)),
                timer_s=round(minutes * 60) if minutes else None,
                scale_g=tare + state.pot.total_g if tare else None,
                lines=words.lines,
                remarks=state.pot.remarks,
                hands=step.hands,
                left_out=isinstance(step, LeftOut),
            )
        )
        before = state.pot
    return told
