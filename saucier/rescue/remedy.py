"""A remedy: what to do about a sauce, its price, and where it leads."""

from collections.abc import Iterable
from dataclasses import dataclass, field

from saucier.check import State, check
from saucier.errors import BadInput
from saucier.rescue.case import Case
from saucier.sheet import Sheet
from saucier.steps import AnyStep
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class Remedy:
    """``title`` and ``do`` tell the cook; ``steps`` are the same as steps of a sheet, empty where
    nothing goes into the pot. ``minutes`` and ``cost`` are its price, ``loses_g`` what is lost
    on the way. ``after`` is the pot afterwards. ``refused`` says why it cannot be done, and
    then nothing else counts. ``notes`` are what else it moves.
    """

    way: str
    title: Sentence
    do: tuple[Sentence, ...] = ()
    steps: tuple[AnyStep, ...] = ()
    minutes: float = 0.0
    cost: float = 0.0
    loses_g: float = 0.0
    after: State | None = None
    refused: Sentence | None = None
    notes: tuple[Sentence, ...] = field(default=())


def applied(sheet: Sheet, remedy: Remedy) -> Sheet:
    """``sheet`` with the steps of ``remedy`` at its end."""
    return sheet.model_copy(update={"steps": (*sheet.steps, *remedy.steps)})


def refused(way: str, title: Sentence, why: Sentence) -> Remedy:
    return Remedy(way, title, refused=why)


def remedy_of(
    case: Case,
    way: str,
    title: Sentence,
    do: Iterable[Sentence],
    steps: Iterable[AnyStep] = (),
    *,
    loses_g: float = 0.0,
    minutes: float | None = None,
) -> Remedy:
    """A remedy with its price and its consequences worked out; refused where the steps cannot
    be taken. ``minutes`` None: what the steps take."""
    steps = tuple(steps)
    mended = Remedy(way, title, tuple(do), steps)
    try:
        after = check(applied(case.sheet, mended), case.kitchen).final
    except BadInput as bad:
        return refused(way, title, bad.problems[0].told)
    before = case.now.final
    took = after.pot.minutes - before.pot.minutes if minutes is None else minutes
    return Remedy(
        way=way,
        title=title,
        do=tuple(do),
        steps=steps,
        minutes=took,
        cost=after.pot.cost - before.pot.cost,
        loses_g=loses_g,
        after=after,
        refused=None,
        notes=_notes(case, before, after),
    )


_NOTED = {"salt_pct": 0.02, "fat_pct": 0.3, "acid_pct": 0.05, "yield_ml": 5.0}
"""Figures told where a remedy moves them by so much."""


def _notes(case: Case, before: State, after: State) -> tuple[Sentence, ...]:
    """What else a remedy moves: salt, fat, thickness, size, where these move enough to taste."""
    old, new = before.figures, after.figures
    told = [
        say(f"remedy-moves-{name}", was=getattr(old, name), now=getattr(new, name))
        for name, least in _NOTED.items()
        if abs(getattr(new, name) - getattr(old, name)) >= least
    ]
    target = case.salt_target_pct
    if (
        target is not None
        and new.salt_pct < target - 0.02
        and after.pot.total_g > before.pot.total_g
    ):
        grams = new.mass_g * (target - new.salt_pct) / (100.0 - target)
        told.append(say("salt-again", target_pct=target, grams=grams))
    warned = {str(one) for one in old.warnings}
    told += [one for one in new.warnings if str(one) not in warned]
    if fresh := sorted(set(new.allergens) - set(old.allergens)):
        told.append(say("brings-allergens", allergens=tuple(fresh)))
    return tuple(told)
