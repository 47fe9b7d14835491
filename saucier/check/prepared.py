"""A sheet with its names and units resolved, ready to be played at any setting of the knobs."""

from collections.abc import Iterator
from dataclasses import dataclass

from saucier.check.pan import pan_of
from saucier.errors import BadInput
from saucier.heat import Pan, Stove
from saucier.kitchen import Kitchen
from saucier.pot import Pot
from saucier.sheet import Sheet
from saucier.steps import AS_WRITTEN, Dust, Knobs, Move, Reduce, Roux, Setting, advance

FLOURED = (Roux, Dust)
"""Steps whose flour a solve is free to turn."""
DEFAULT_KITCHEN = Kitchen()


@dataclass(frozen=True, slots=True)
class Prepared:
    """A sheet ready to be played in ``pan`` at any setting of the knobs: only floats left."""

    sheet: Sheet
    settings: tuple[Setting, ...]
    moves: tuple[Move, ...]
    pan: Pan

    def walk(self, knobs: Knobs = AS_WRITTEN) -> Iterator[Pot]:
        """The pot after each step. Raises :class:`BadInput` under ``steps[i]``."""
        pot = Pot()
        for number, move in enumerate(self.moves):
            try:
                pot = advance(pot, move, knobs)
            except BadInput as bad:
                raise bad.under(f"steps[{number}]") from None
            yield pot

    def play(self, knobs: Knobs = AS_WRITTEN) -> Pot:
        """The pot after the last step. Raises as :meth:`walk` does."""
        pot = Pot()
        for after in self.walk(knobs):
            pot = after
        return pot


def free_reduction(sheet: Sheet) -> int | None:
    """Index of the reduction a solve may move: the last one with a stop, where there is no
    roux to thicken with."""
    if any(isinstance(step, FLOURED) for step in sheet.steps):
        return None
    last = None
    for number, step in enumerate(sheet.steps):
        if isinstance(step, Reduce) and (stop := step.stop) and stop.taste is None:
            last = number
    return last


def thickening_by(sheet: Sheet) -> str:
    """What a solve may turn for the grade: ``flour``, ``reduction`` or ``nothing``."""
    if any(isinstance(step, FLOURED) for step in sheet.steps):
        return "flour"
    return "nothing" if free_reduction(sheet) is None else "reduction"


def prepare(sheet: Sheet, kitchen: Kitchen = DEFAULT_KITCHEN, pan: Pan | None = None) -> Prepared:
    """Names and units of every step resolved, in ``pan`` (None: :func:`pan_of`). Raises
    :class:`BadInput` with the step's path."""
    pan = pan or pan_of(sheet, kitchen)
    stove = Stove(
        pan=pan,
        lid=sheet.lid,
        burner_w=sheet.burner.watts if sheet.burner else kitchen.stove.burner_w,
        efficiency=sheet.burner.efficiency if sheet.burner else kitchen.stove.efficiency,
    )
    free = free_reduction(sheet)
    settings = tuple(
        Setting(
            kitchen=kitchen,
            stove=stove,
            free_reduction=number == free,
            liquid_in=sheet.method.liquid_in,
            depth=0,
            serving_c=sheet.target.serving_c,
        )
        for number in range(len(sheet.steps))
    )
    moves: list[Move] = []
    problems: list[BadInput] = []
    for number, (step, setting) in enumerate(zip(sheet.steps, settings, strict=True)):
        try:
            moves.append(step.prepare(setting))
        except BadInput as bad:
            problems.append(bad.under(f"steps[{number}]"))
    if problems:
        raise BadInput(*(problem for bad in problems for problem in bad.problems))
    return Prepared(sheet, settings, tuple(moves), pan)
