"""A sheet with its names and units resolved, ready to be played at any setting of the knobs."""

from dataclasses import dataclass

from saucier.errors import BadInput
from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet
from saucier.steps import (
    InnerSauce,
    Pouring,
    PreparedSteps,
    ShareOfIt,
    Use,
    pan_of,
    prepare_steps,
)

DEFAULT_KITCHEN = Kitchen()


@dataclass(frozen=True, slots=True)
class Prepared(PreparedSteps):
    """A ``sheet`` ready to be played."""

    sheet: Sheet

    @property
    def pans(self) -> tuple[Pan, ...]:
        """Its pan, and those of the sauces made for it, however deep."""
        return tuple(_pans(self))


def _pans(prepared: PreparedSteps) -> list[Pan]:
    inside = (move.inside for move in prepared.moves if isinstance(move, Pouring))
    return [prepared.pan, *(pan for one in inside for pan in _pans(one))]


def prepare(
    sheet: Sheet, kitchen: Kitchen = DEFAULT_KITCHEN, pan: Pan | None = None, times: float = 1.0
) -> Prepared:
    """Names and units of every step resolved, in ``pan`` (None: the one it would be made in,
    ``times`` as much of it). Raises :class:`BadInput` with the step's path."""
    pan = pan or pan_of(sheet, kitchen, times)
    _no_more_than_all(sheet)
    steps = prepare_steps(sheet, kitchen, pan, times=times, serving_c=sheet.target.serving_c)
    return Prepared(sheet.steps, steps.settings, steps.moves, pan, sheet)


def _no_more_than_all(sheet: Sheet) -> None:
    """Raises :class:`BadInput` at the step that takes more of a sauce than there is."""
    taken: list[tuple[InnerSauce, float]] = []
    for number, step in enumerate(sheet.steps):
        if not isinstance(step, Use) or step.ready or not isinstance(step.amount, ShareOfIt):
            continue
        share = step.amount.share + sum(one for sauce, one in taken if sauce == step.sauce)
        if share > 1.0 + 1e-9:
            raise BadInput.at(
                f"steps[{number}].amount",
                "more-than-all-of-it",
                name=step.sauce.name,
                share_pct=100.0 * share,
            )
        taken.append((step.sauce, step.amount.share))


def larder_of(sheet: Sheet, kitchen: Kitchen = DEFAULT_KITCHEN) -> dict[str, float]:
    """Grams of all that ``sheet`` takes from the larder by its amounts, by key; what the sauces
    made for it take is counted. Salt up to a target is no amount."""
    taken: dict[str, float] = {}
    for step, setting in zip(sheet.steps, prepare(sheet, kitchen).settings, strict=True):
        for key, grams in step.gathered(setting):
            taken[key] = taken.get(key, 0.0) + grams
    return taken
