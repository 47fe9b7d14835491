"""How much of something brings a pot to the thickness wanted."""

import itertools
import math
from collections.abc import Callable, Iterator, Sequence

from saucier.errors import BadInput
from saucier.pot import Pot
from saucier.rescue.case import Case, lands
from saucier.roots import find_root
from saucier.steps import AnyStep, advance
from saucier.thickness import log_excess
from saucier.units.rounding import coarsest

Steps = Callable[[float], Sequence[AnyStep]]
"""The steps of a remedy at a dose in g."""

_POINTS = 24


def after(case: Case, steps: Sequence[AnyStep]) -> Pot:
    """The pot after ``steps`` more. Raises :class:`BadInput`."""
    pot = case.pot
    for step in steps:
        pot = advance(pot, step.prepare(case.setting))
    return pot


def dose_for(case: Case, steps_at: Steps, least_g: float, most_g: float) -> float | None:
    """The smallest dose between ``least_g`` and ``most_g`` at which the pot is as thick as
    wanted; None where none does it. Looked for along a logarithmic row of doses first, as
    cheese and yolk thicken to a point and thin beyond it."""
    wanted = case.wanted_pa_s
    if wanted is None:
        return None

    def excess(log_dose: float) -> float:
        """log(η / wanted); NaN where the pot cannot be taken there."""
        try:
            pot = after(case, steps_at(math.exp(log_dose)))
        except BadInput:
            return math.nan
        off = log_excess(pot, wanted, case.serving_c)
        return off if math.isfinite(off) else math.nan

    low, high = math.log(least_g), math.log(most_g)
    at = [low + (high - low) * n / _POINTS for n in range(_POINTS + 1)]
    here = excess(at[0])
    for left, right in itertools.pairwise(at):
        there = excess(right)
        if not math.isnan(here) and not math.isnan(there) and (here > 0.0) != (there > 0.0):
            return math.exp(find_root(excess, left, right, 1e-6))
        here = there
    return None


def kitchen_dose(case: Case, steps_at: Steps, dose: float, step: float) -> float:
    """``dose`` to the coarsest fraction of ``step`` that keeps the grade; as it is where none
    does."""

    def made_at(fineness: float) -> Iterator[float]:
        size = step * fineness
        yield max(1, round(dose / size)) * size

    def keeps(rounded: float) -> bool:
        try:
            return lands(case, after(case, steps_at(rounded)))
        except BadInput:
            return False

    kept = coarsest(made_at, keeps)
    return round(kept[0], 6) if kept else dose
