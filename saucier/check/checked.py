"""Checking a sheet: its steps played through a pot, the state after each."""

from dataclasses import dataclass, fields

from saucier.check.earned import learned_of, model_spread_of
from saucier.check.prepared import DEFAULT_KITCHEN, prepare
from saucier.check.state import Figures, State
from saucier.check.vague import vagueness
from saucier.check.whole import remarks_on_whole
from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.pot import Pot
from saucier.seasoning import salt_gap
from saucier.sheet import Sheet
from saucier.steps import Reduce, Setting, Simmer
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True, kw_only=True)
class FinalFigures(Figures):
    """A sauce at its end: with the warnings of its steps, and against the salt asked for what is
    left to add, how far over it is, and the unsalted liquid that evens it out, g."""

    salt_to_add_g: float | None = None
    salt_over_g: float | None = None
    salt_liquid_g: float | None = None


@dataclass(frozen=True, slots=True)
class CheckedSheet:
    """A sheet with the ``settings`` of its steps and the state after each, in ``pan``;
    ``assumed`` says what had to be taken for granted."""

    sheet: Sheet
    settings: tuple[Setting, ...]
    steps: tuple[State, ...]
    pan: Pan
    assumed: tuple[Sentence, ...]

    @property
    def final(self) -> State:
        if self.steps:
            return self.steps[-1]
        return State(Pot(), self.pan, self.sheet.target.serving_c)

    @property
    def figures(self) -> FinalFigures:
        """The state after the last step, with what its steps warned of and the salt to add."""
        final = self.final
        # A roux that comes later holds the cheese too.
        bound = final.pot.starch_holds
        passing = (
            w
            for s in self.steps[:-1]
            for w in s.warnings
            if w.code not in _MENDED_LATER and not (w.code == "no-starch" and bound)
        )
        said = {str(w): w for w in (*passing, *final.warnings)}
        told = {name: getattr(final.figures, name) for name in _FIGURES}
        told["warnings"] = tuple(said.values())
        target = self.sheet.target.salt_pct
        if target is not None:
            gap = salt_gap(final.pot.balance, target)
            told["salt_to_add_g"] = round(gap.to_add_g, 2)
            told["salt_over_g"] = round(gap.over_g, 2)
            told["salt_liquid_g"] = round(gap.liquid_g, 1)
        return FinalFigures(**told)


_FIGURES = tuple(field.name for field in fields(Figures))


def check(sheet: Sheet, kitchen: Kitchen = DEFAULT_KITCHEN, pan: Pan | None = None) -> CheckedSheet:
    """Play ``sheet`` through a pot and say how it is after every step, in ``pan`` (None: the one it would be made in).

    Raises :class:`BadInput` naming the step and field where it cannot be played.

    >>> from saucier.testing import add, roux, sheet, simmer
    >>> white = sheet(roux(60, 60), add('milk-whole', 1, 'L'), simmer(5))
    >>> found = check(white)
    >>> found.final.thickness.grade, round(found.final.pot.yield_ml)
    ('nappe', 1105)
    """
    prepared = prepare(sheet, kitchen, pan)
    pots = list(prepared.walk())
    reached_for = () if sheet.pan else (_assumed_pan(prepared.pan, kitchen),)
    assumed = (*reached_for, *learned_of(prepared))
    spread = vagueness(prepared, pots[-1]) if pots else 0.0
    for number, remark in remarks_on_whole(sheet, pots):
        pots[number] = pots[number].saying(remark)
    serving_c = sheet.target.serving_c
    model = model_spread_of(prepared)
    states = tuple(
        State(
            pot, prepared.pan, serving_c, spread, model, isinstance(step, Simmer | Reduce), before
        )
        for pot, step, before in zip(pots, sheet.steps, [Pot(), *pots][: len(pots)], strict=True)
    )
    return CheckedSheet(sheet, prepared.settings, states, prepared.pan, assumed)


def _assumed_pan(pan: Pan, kitchen: Kitchen) -> Sentence:
    if kitchen.pans:
        return say("pan-assumed", pan=pan.name)
    return say("bare-pan-assumed", diameter_cm=pan.diameter_cm)


_MENDED_LATER = {"emulsion-caution"}
"""True after the step they stand at, and no longer worth saying once the sauce is done."""
