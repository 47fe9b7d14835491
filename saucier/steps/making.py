"""What is made in one pan: a sheet's steps, or those of a sauce inside one. Which pan, what of it a
solve may turn, and its steps prepared for playing."""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import TYPE_CHECKING, Protocol

from saucier import constants as K
from saucier.errors import BadInput
from saucier.heat import BARE_PANS, Load, Pan, Stove, pan_reached_for
from saucier.kitchen import Kitchen
from saucier.pot import Pot
from saucier.steps.aromatics import Dust, Lift, Strain
from saucier.steps.melt import Melt
from saucier.steps.method import Method
from saucier.steps.pan import Return, Sear
from saucier.steps.reduce import Reduce
from saucier.steps.reserve import Reserve
from saucier.steps.roux import Roux
from saucier.steps.simmer import Simmer
from saucier.steps.step import AS_WRITTEN, Knobs, Move, Setting, advance, amounts_in
from saucier.steps.vessel import SheetBurner, SheetPan

if TYPE_CHECKING:
    from saucier.steps import AnyStep

FLOURED = (Roux, Dust)
"""Steps whose flour a solve is free to turn."""


class Making(Protocol):
    """What is made in one pan: a sheet, or a sauce inside one."""

    @property
    def name(self) -> str: ...
    @property
    def method(self) -> Method: ...
    @property
    def pan(self) -> SheetPan | None: ...
    @property
    def burner(self) -> SheetBurner | None: ...
    @property
    def lid(self) -> bool: ...
    @property
    def strength(self) -> float | None: ...
    @property
    def steps(self) -> tuple["AnyStep", ...]: ...


# --- which pan -------------------------------------------------------------------------


def load_of(making: Making, kitchen: Kitchen) -> Load:
    """What ``making`` asks of its pan, from its amounts alone: nothing is played, so that the pan
    depends on what goes in and not on itself. Amounts that cannot be read count nothing here."""
    sauce = pieces = lifted = sears = fullest = 0.0
    widest_m2 = math.inf
    most = Load(0.0)
    for step in making.steps:
        for _, key, amount in amounts_in(step):
            try:
                row = kitchen.larder[key] if key else None
                ml = row.grams(amount) / row.density if row else amount.base
            except BadInput:
                continue
            if row is None or not row.piece:
                sauce += ml
            elif isinstance(step, Sear):  # out again before the sauce begins
                lifted += ml
                sears = max(sears, ml * row.density)
            else:
                pieces += ml
        if step.op == "use":
            sauce += step.poured_ml(kitchen)
        if isinstance(step, Return) and step.amount is None:
            pieces, lifted = pieces + lifted, 0.0
        if sauce + pieces > fullest:
            fullest = sauce + pieces
        widest_m2 = min(widest_m2, _widest_m2(step, sauce))
        if step.op in _ONLY_ADDS:
            continue
        if isinstance(step, Reduce):
            left = _left_of(step, sauce, pieces)
            if sauce + pieces > most.goes_in:
                most = Load(0.0, sauce + pieces, left + pieces, nearly_dry=step.stop is None)
            sauce = left
        elif isinstance(step, Strain | Lift):
            pieces, lifted = 0.0, lifted + pieces
        elif isinstance(step, Reserve):
            sauce, pieces = sauce * (1.0 - step.share), pieces * (1.0 - step.share)
    makes = sauce + pieces
    return Load(fullest, most.goes_in, most.left, sears, makes, widest_m2, most.nearly_dry)


_ONLY_ADDS = frozenset(["add", "roux", "melt", "simmer", "season", "sweat", "deglaze", "dust"])
"""Steps that take nothing out: most of them."""


def _widest_m2(step: "AnyStep", sauce_ml: float) -> float:
    """The open surface from which the minutes of ``step`` take no more of ``sauce_ml`` than a boil by minutes
    means to, m²."""
    minutes = step.minutes if isinstance(step, Simmer) else None
    if isinstance(step, Reduce) and step.stop is not None:
        minutes = step.stop.minutes
    if not minutes or not isinstance(step, Simmer | Reduce):
        return math.inf
    kg_per_m2 = K.EVAPORATION_KG_M2_H[step.heat] * minutes / 60.0
    return K.BOILED_BY_MINUTES_MOST * sauce_ml / 1000.0 / kg_per_m2


def _left_of(step: Reduce, sauce_ml: float, pieces_ml: float) -> float:
    """About what a reduction leaves of ``sauce_ml``, mL."""
    stop = step.stop
    if stop is None:
        return sauce_ml * K.NEARLY_DRY_SHARE
    amount = stop.mass or stop.volume
    if amount is not None:
        return min(sauce_ml, max(0.0, amount.base - pieces_ml))
    return sauce_ml * (stop.share or stop.taste or K.REDUCED_TO_ABOUT)


def pan_of(making: Making, kitchen: Kitchen, times: float = 1.0) -> Pan:
    """The pan ``times`` the batch of ``making`` is made in: its own, or the one a cook would reach
    for among the kitchen's."""
    if making.pan:
        return making.pan.as_pan()
    if kitchen.stove.pan:
        return kitchen.stove.pan
    return pan_reached_for(load_of(making, kitchen).times(times), kitchen.pans or BARE_PANS)


def stove_of(making: Making, kitchen: Kitchen, pan: Pan) -> Stove:
    """``pan`` on the ring ``making`` names, or the kitchen's."""
    return replace(
        kitchen.stove,
        pan=pan,
        lid=making.lid,
        burner_w=making.burner.watts if making.burner else kitchen.stove.burner_w,
        efficiency=making.burner.efficiency if making.burner else kitchen.stove.efficiency,
    )


# --- what a solve may turn -------------------------------------------------------------


def free_reduction(making: Making) -> int | None:
    """Index of the reduction a solve may move: the last one with a stop that is not ``fixed``, where there is no
    roux to thicken with."""
    if any(isinstance(step, FLOURED) for step in making.steps):
        return None
    last = None
    for number, step in enumerate(making.steps):
        if not isinstance(step, Reduce) or step.fixed:
            continue
        if (stop := step.stop) and stop.taste is None:
            last = number
    return last


def free_in(making: Making) -> tuple[str, frozenset[int]]:
    """What a solve may turn for the grade (``flour``, ``reduction``, ``cheese`` or ``nothing``), and the steps
    that hold it: the flour of its own; without any that of the sauces made for it; then its last
    reduction; then that of the last sauce made for it that has one; then the cheese melted into it."""
    own = frozenset(n for n, step in enumerate(making.steps) if isinstance(step, FLOURED))
    if own:
        return "flour", own
    inside = {
        number: thickening_by(step.inside)
        for number, step in enumerate(making.steps)
        if step.inside is not None
    }
    if floured := frozenset(n for n, by in inside.items() if by == "flour"):
        return "flour", floured
    last = free_reduction(making)
    if last is None:
        last = max((n for n, by in inside.items() if by == "reduction"), default=None)
    if last is not None:
        return "reduction", frozenset([last])
    cheese = frozenset(n for n, step in enumerate(making.steps) if isinstance(step, Melt))
    return ("cheese", cheese) if cheese else ("nothing", frozenset())


def thickening_by(making: Making) -> str:
    """What a solve may turn for the grade: ``flour``, ``reduction``, ``cheese`` or ``nothing``."""
    return free_in(making)[0]


def free_ratio(making: Making) -> float | None:
    """Fat to flour where a solve turns the flour; None: fat as it is written."""
    by, at = free_in(making)
    if by != "flour":
        return None
    inside = [making.steps[number].inside for number in sorted(at)]
    if not any(inside):
        return making.method.fat_to_flour
    ratios = [free_ratio(one) for one in inside if one is not None]
    return next((ratio for ratio in ratios if ratio is not None), None)


# --- prepared for playing --------------------------------------------------------------


@dataclass(frozen=True, slots=True)
class PreparedSteps:
    """Steps ready to be played in ``pan`` at any setting of the knobs: only floats left."""

    steps: tuple["AnyStep", ...]
    settings: tuple[Setting, ...]
    moves: tuple[Move, ...]
    pan: Pan

    def walk(self, knobs: Knobs = AS_WRITTEN) -> Iterator[Pot]:
        """The pot after each step. Raises :class:`BadInput` under ``steps[i]``."""
        pot, alike = Pot(), knobs.each is None
        for number, move in enumerate(self.moves):
            try:
                pot = advance(pot, move, knobs if alike else knobs.at(number))
            except BadInput as bad:
                raise bad.under(f"steps[{number}]") from None
            yield pot

    def play(self, knobs: Knobs = AS_WRITTEN) -> Pot:
        """The pot after the last step. Raises as :meth:`walk` does."""
        pot = Pot()
        for after in self.walk(knobs):
            pot = after
        return pot


def as_strong_as_judged(making: Making, kitchen: Kitchen) -> Kitchen:
    """``kitchen`` with what thickens ``making`` as strong as a cook judged it; as it is where nobody did."""
    if making.strength is None:
        return kitchen
    names = frozenset[str]().union(*(step.names() for step in making.steps))
    rows = (kitchen.larder[key] for key in names if key in kitchen.larder)
    stronger = [row.binding_by(making.strength) for row in rows]
    return replace(kitchen, larder=kitchen.larder.with_rows(stronger))


def prepare_steps(
    making: Making,
    kitchen: Kitchen,
    pan: Pan,
    *,
    times: float = 1.0,
    depth: int = 0,
    serving_c: float = K.REFERENCE_C,
    free: bool = True,
) -> PreparedSteps:
    """Names and units of every step resolved, in ``pan``. ``times`` the batch is about to be made,
    which the pans of sauces inside are chosen for; a solve may turn what it holds where ``free``.
    Raises :class:`BadInput` under ``steps[i]``, all there are."""
    kitchen = as_strong_as_judged(making, kitchen)
    stove = stove_of(making, kitchen, pan)
    turned = free_in(making)[1] if free else frozenset[int]()
    here = Setting(
        kitchen=kitchen,
        stove=stove,
        liquid_in=making.method.liquid_in,
        depth=depth,
        serving_c=serving_c,
        times=times,
    )
    at_turned = here._replace(free=True) if turned else here
    settings = tuple(at_turned if n in turned else here for n in range(len(making.steps)))
    moves: list[Move] = []
    problems: list[BadInput] = []
    for number, (step, setting) in enumerate(zip(making.steps, settings, strict=True)):
        try:
            moves.append(step.prepare(setting))
        except BadInput as bad:
            problems.append(bad.under(f"steps[{number}]"))
    if problems:
        raise BadInput(*(problem for bad in problems for problem in bad.problems))
    return PreparedSteps(making.steps, settings, tuple(moves), pan)
