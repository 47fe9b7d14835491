"""Which pan: the same sheet in each of a kitchen's own pans, the one to reach for first."""

from dataclasses import dataclass, replace

from saucier import constants as K
from saucier.check import check, meets_metal
from saucier.errors import BadInput
from saucier.heat import POT_SHAPES, Load, Pan, fills_well, pan_reached_for, stands_well
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet, SheetPan
from saucier.solve import goal_of, solve, stops_as_written
from saucier.steps import load_of
from saucier.units import Amount
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class PanAdvice:
    """A pan for the sheet: minutes at the stove, how full at the fullest (share), what boils
    off (g), minutes for twice the batch, and a verdict in words. ``fits`` is false where the
    pan cannot be used; ``recommended`` is the one to reach for, and its verdict says why."""

    name: str
    fits: bool
    minutes: float | None
    fullest_share: float
    boiled_off_g: float | None
    minutes_doubled: float | None
    verdict: Sentence
    recommended: bool = False


@dataclass(frozen=True, slots=True)
class WhichPan:
    """Pans for a sheet: the one a cook would reach for first, then those that fit, quickest first.
    ``ring_decides`` where most are equally quick."""

    pans: tuple[PanAdvice, ...]
    ring_decides: bool


def which_pan(sheet: Sheet, pans: list[Pan], kitchen: Kitchen) -> WhichPan:
    """Every pan of ``pans`` for ``sheet``, solved for its target in each.

    >>> from saucier.testing import add, roux, sheet, simmer
    >>> from saucier.kitchen import Kitchen
    >>> white = sheet(roux(60, 60), add('milk-whole', 1, 'L'), simmer(5))
    >>> pans = [Pan('28', 'straight', 28, 14), Pan('16', 'straight', 16, 9)]
    >>> which_pan(white, pans, Kitchen()).pans[0].name
    '16'
    """
    load = load_of(sheet, kitchen)
    sour = any(meets_metal(state.pot.balance) for state in check(sheet, kitchen).steps)
    advice = [_advice(sheet, pan, kitchen, load, sour) for pan in pans]
    fit = {one.name for one in advice if one.fits}
    pots = [
        p for p in pans if p.name in fit and p.shape in POT_SHAPES and not (sour and p.reactive)
    ]
    best = pan_reached_for(load, pots) if pots else None
    told = sorted(
        (
            _recommended(one, best, load) if best and one.name == best.name else one
            for one in advice
        ),
        key=lambda one: (not one.recommended, not one.fits, one.minutes or 1e9),
    )
    return WhichPan(tuple(told), _ring_decides(told))


def _ring_decides(advice: list[PanAdvice]) -> bool:
    """Whether more than half of three pans or more take as long as the quickest."""
    took = [one.minutes for one in advice if one.fits and one.minutes is not None]
    alike = [minutes for minutes in took if minutes - min(took) < K.PANS_ALIKE_MIN]
    return len(took) > 2 and len(alike) > len(took) / 2


def _recommended(one: PanAdvice, pan: Pan, load: Load) -> PanAdvice:
    why = one.verdict
    if load.goes_in > 0.0 and not stands_well(load, pan):
        why = say("pan.smallest-that-holds-it", stands=why)
    elif load.goes_in > 0.0:
        why = say("pan.wide-for-boiling-down", stands=why)
    return replace(one, verdict=say("pan.reached-for", why=why), recommended=True)


def _advice(sheet: Sheet, pan: Pan, kitchen: Kitchen, load: Load, sour: bool) -> PanAdvice:
    try:
        minutes, fullest, lost = _in_pan(sheet, pan, 1.0, kitchen)
    except BadInput as bad:
        return PanAdvice(
            name=pan.name,
            fits=False,
            minutes=None,
            fullest_share=0.0,
            boiled_off_g=None,
            minutes_doubled=None,
            verdict=bad.problems[0].message,
        )
    try:
        doubled = _in_pan(sheet, pan, 2.0, kitchen)[0]
    except BadInput:
        doubled = None
    fits, verdict = True, _verdict(load, pan, fullest)
    if fullest > 1.0:
        fits, verdict = False, say("pan.too-small")
    elif pan.reactive and sour:
        verdict = say("pan.bare-metal", stands=verdict)
    return PanAdvice(
        name=pan.name,
        fits=fits,
        minutes=minutes,
        fullest_share=fullest,
        boiled_off_g=lost,
        minutes_doubled=doubled,
        verdict=verdict,
    )


def _verdict(load: Load, pan: Pan, fullest: float) -> Sentence:
    """How the batch stands in a pan that holds it."""
    if fullest > K.POT_FULLEST:
        return say("pan.over-two-thirds")
    if load.goes_in > 0.0:
        stands = say(
            "pan.levels",
            in_mm=pan.level_mm(load.goes_in),
            left_mm=pan.level_mm(load.left),
        )
        if stands_well(load, pan):
            return say("pan.stands", levels=stands)
        if pan.level_mm(load.left) < K.REDUCE_LEFT_MM:
            return say("pan.catches-at-the-end", levels=stands)
        return say("pan.wide-for-so-little", levels=stands)
    if fills_well(load, pan):
        return say("pan.well-filled", fill_pct=100 * fullest)
    if fullest < K.POT_HARDLY_FILLED:
        return say("pan.boils-off-fast")
    return say("pan.filled", fill_pct=100 * fullest)


def _in_pan(sheet: Sheet, pan: Pan, times: float, kitchen: Kitchen) -> tuple[float, float, float]:
    """Minutes, fullest share and grams boiled off for ``times`` the batch in ``pan``."""
    volume = Amount(times * check(sheet, kitchen).final.pot.yield_ml, "mL")
    placed = stops_as_written(sheet, kitchen).model_copy(update={"pan": SheetPan.of(pan)})
    checked = check(solve(placed, goal_of(placed, volume=volume), kitchen).sheet, kitchen)
    fullest = max((s.pot.total_ml for s in checked.steps), default=0.0) / pan.capacity_ml
    masses = [0.0, *(s.pot.total_g for s in checked.steps)]
    lost = sum(
        before - after
        for before, after, step in zip(masses, masses[1:], checked.sheet.steps, strict=False)
        if step.op in ("simmer", "reduce", "hold")
    )
    return checked.final.pot.minutes, fullest, lost
