"""Which pan: the same sheet in each of a kitchen's own pans."""

from dataclasses import dataclass

from saucier.check import check
from saucier.errors import BadInput
from saucier.heat import Pan
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet, SheetPan
from saucier.solve import goal_of, solve
from saucier.units import Amount

FULLEST, EMPTIEST = 2 / 3, 0.12
"""A pot is at most two thirds full; under an eighth it is wide for the batch and catches."""


@dataclass(frozen=True, slots=True)
class PanAdvice:
    """A pan for the sheet: minutes at the stove, how full at the fullest (share), what boils
    off (g), minutes for twice the batch, and a verdict in words. ``fits`` is false where the
    pan cannot be used."""

    name: str
    fits: bool
    minutes: float | None
    fullest_share: float
    boiled_off_g: float | None
    minutes_doubled: float | None
    verdict: str


def advise(sheet: Sheet, pans: list[Pan], kitchen: Kitchen) -> list[PanAdvice]:
    """Every pan of ``pans`` for ``sheet``, solved for its target in each, quickest first."""
    found = [_advice(sheet, pan, kitchen) for pan in pans]
    return sorted(found, key=lambda one: (not one.fits, one.minutes or 1e9))


def _advice(sheet: Sheet, pan: Pan, kitchen: Kitchen) -> PanAdvice:
    try:
        minutes, fullest, lost = _in_pan(sheet, pan, 1.0, kitchen)
    except BadInput as bad:
        return PanAdvice(pan.name, False, None, 0.0, None, None, bad.problems[0].message)
    try:
        doubled = _in_pan(sheet, pan, 2.0, kitchen)[0]
    except BadInput:
        doubled = None
    fits, verdict = True, "fits"
    if fullest > 1.0:
        fits, verdict = False, "too small: it does not hold the batch"
    elif fullest > FULLEST:
        verdict = "full: over two thirds, mind the boil"
    elif fullest < EMPTIEST:
        verdict = "wide for so little: it catches and boils off fast"
    return PanAdvice(pan.name, fits, minutes, fullest, lost, doubled, verdict)


def _in_pan(sheet: Sheet, pan: Pan, times: float, kitchen: Kitchen) -> tuple[float, float, float]:
    """Minutes, fullest share and grams boiled off for ``times`` the batch in ``pan``."""
    volume = Amount(times * check(sheet, kitchen).final.pot.yield_ml, "mL")
    placed = sheet.model_copy(update={"pan": SheetPan.of(pan)})
    checked = check(solve(placed, goal_of(placed, volume=volume), kitchen).sheet, kitchen)
    fullest = max((s.pot.total_ml for s in checked.steps), default=0.0) / pan.capacity_ml
    masses = [0.0, *(s.pot.total_g for s in checked.steps)]
    lost = sum(
        before - after
        for before, after, step in zip(masses, masses[1:], checked.sheet.steps, strict=False)
        if step.op in ("simmer", "reduce", "hold")
    )
    return checked.final.pot.minutes, fullest, lost
