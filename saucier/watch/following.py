"""A sauce followed as it is cooked: what has been done as it was done, what is left from the pot there is."""

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace

from saucier import constants as K
from saucier.check import CheckedSheet, Figures, State, check, prepare
from saucier.kitchen import Kitchen
from saucier.pot import Pot
from saucier.sheet import Sheet
from saucier.steps import advance
from saucier.watch.again import Again, solved_again
from saucier.watch.belief import MASS, PACE, STRENGTH, Prior
from saucier.watch.found import as_found
from saucier.watch.seen import Seen
from saucier.watch.watching import Watched, Watching


@dataclass(frozen=True, slots=True)
class StepAsDone:
    """What is known of a step that was begun: all that was ``seen`` at it, and the ``minutes`` it took, or
    has taken so far."""

    seen: Sequence[Seen] = ()
    minutes: float = 0.0


@dataclass(frozen=True, slots=True)
class PotFollowed:
    """A sauce at step ``at``: the ``states`` after every step, those behind as they were found and those
    ahead as they follow; ``watched``: the step it is at, where it boils something off; ``off_g`` and
    ``strength``: how much more is in the pot than planned, and how much stronger it thickens; ``again``:
    what is still to come solved again, where it would not come out."""

    at: int
    states: tuple[Figures, ...]
    watched: Watched | None
    off_g: float
    strength: float
    again: Again | None


@dataclass
class _Known:
    """What is carried from one step to the next."""

    pot: Pot = field(default_factory=Pot)
    prior: Prior = field(default_factory=Prior)
    strength: float = 0.0
    spread: float = K.STRENGTH_SPREAD


def follow(
    sheet: Sheet,
    kitchen: Kitchen,
    at: int,
    done: Mapping[int, StepAsDone],
    planned: Sheet | None = None,
    ahead: int | None = None,
) -> PotFollowed:
    """``sheet`` with what was ``done`` of its steps by number, now at step ``at`` (one past the last: it
    is through). ``planned``: as it was begun, where other amounts went in; ``ahead``: the first step of
    which nothing has gone in yet. Raises :class:`BadInput` as checking does."""
    checked = check(sheet, kitchen)
    moves = prepare(sheet, kitchen, checked.pan).moves
    known = _Known()
    watched: Watched | None = None
    found: list[Pot] = []
    for number, move in enumerate(moves):
        before, known.pot = known.pot, advance(known.pot, move)
        step = done.get(number)
        if number <= at and step is not None:
            told = _take_in(known, checked, number, step, before, going_on=number == at)
            watched = told if number == at else watched
        found.append(known.pot)
    was = checked.steps
    last = min(at, len(was)) - 1
    off = found[last].total_g - was[last].pot.total_g if last >= 0 else 0.0
    states = tuple(
        _sure(State(pot, checked.pan, one.serving_c, one.spread).figures, known.spread)
        for pot, one in zip(found, was, strict=True)
    )
    first = min(at + 1 if ahead is None else ahead, len(moves))
    again = solved_again(
        sheet, planned or sheet, kitchen, first, found[first - 1] if first else Pot()
    )
    strength = math.exp(known.strength / K.FLOUR_EXPONENT)
    return PotFollowed(at, states, watched, off, strength, again)


def _take_in(
    known: _Known,
    checked: CheckedSheet,
    number: int,
    step: StepAsDone,
    before: Pot,
    *,
    going_on: bool,
) -> Watched | None:
    """What was seen at a step, taken into what is known. Of one that is going on, only how strong it is:
    where it will stop is as it was to be."""
    watching = Watching.of(checked, number, step.seen, step.minutes, known.prior, before)
    if watching is None:
        return None
    belief = watching.belief
    looked = any(one.what != "boils" for one in step.seen)
    if looked:
        off, spread = float(belief.mean[STRENGTH]), belief.spread(STRENGTH)
        # What is found of the strength is in the pot from here on, and not told twice.
        mass = None if going_on else belief.mass_g
        stops = watching.stops_at if going_on else None
        known.pot = as_found(known.pot, mass if stops is None else stops, off)
        known.strength, known.spread = known.strength + off, spread
        known.prior = replace(
            known.prior,
            pace=float(belief.mean[PACE]),
            pace_spread=math.hypot(belief.spread(PACE), K.PACE_SPREAD / 3.0),
            strength=0.0,
            strength_spread=spread,
            mass_spread=belief.spread(MASS) / max(1.0, belief.mass_g),
        )
    return watching.told() if going_on else None


def _sure(figures: Figures, spread: float) -> Figures:
    """``figures`` with the edges of its thickness drawn in by what a spoon has told."""
    eta, low, high = (
        figures.viscosity_pa_s,
        figures.viscosity_low_pa_s,
        figures.viscosity_high_pa_s,
    )
    if not (eta and low and high) or spread >= K.STRENGTH_SPREAD:
        return figures
    by = spread / K.STRENGTH_SPREAD
    return replace(
        figures,
        viscosity_low_pa_s=eta * (low / eta) ** by,
        viscosity_high_pa_s=eta * (high / eta) ** by,
    )
