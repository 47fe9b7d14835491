"""A sauce brought back from the cold: warmed, and let down to its grade."""

import math
from dataclasses import dataclass

from saucier import constants as K
from saucier.check import check, larder_of
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient
from saucier.pot import Pot
from saucier.rescue.case import case_at, case_of
from saucier.rescue.remedy import applied
from saucier.rescue.thickness import let_down
from saucier.roots import find_root
from saucier.sheet import Sheet
from saucier.steps import Add, AnyStep, Cool, InnerSauce, Reheat, Use
from saucier.thickness import thickness_of
from saucier.units import Amount, kitchen_round


@dataclass(frozen=True, slots=True)
class BroughtBack:
    """``sheet`` is how all of it comes back, ``pot`` what it is then. ``poured_g`` of ``liquid`` let it down
    (0: none needed); ``minutes`` until it is warm, on its ring; ``cold_grade``: what it would be unaltered."""

    sheet: Sheet
    pot: Pot
    liquid: Ingredient
    poured_g: float
    minutes: float
    cold_grade: str | None

    @property
    def poured_ml(self) -> float:
        return self.poured_g / self.liquid.density


def as_thick_as(made: Sheet, viscosity_pa_s: float | None, kitchen: Kitchen) -> Sheet:
    """``made`` as it was found, ``viscosity_pa_s`` thick at serving temperature (None: as reckoned), where that is another
    thickness: what thickens it is as strong as that, and nothing else of it changes. Raises :class:`BadInput` as
    checking does.

    >>> from saucier.check import DEFAULT_KITCHEN
    >>> from saucier.testing import add, roux, sheet, simmer
    >>> white = sheet(roux(66, 66), add("milk-whole", 1, "L"), simmer(5))
    >>> judged = as_thick_as(white, 0.4, DEFAULT_KITCHEN)
    >>> judged.strength, round(check(judged, DEFAULT_KITCHEN).final.thickness.viscosity_pa_s, 2)
    (0.848, 0.4)
    """
    reckoned = check(made, kitchen).final.thickness.viscosity_pa_s
    if (
        viscosity_pa_s is None
        or reckoned is None
        or abs(viscosity_pa_s / reckoned - 1.0) < _AS_RECKONED
    ):
        return made
    if (strength := _strength_of(made, viscosity_pa_s, kitchen)) is not None:
        return made.model_copy(update={"strength": strength})
    try:
        return case_at(made, len(made.steps) - 1, kitchen, viscosity_pa_s=viscosity_pa_s).sheet
    except BadInput:  # nothing in it can be turned to it: a cream stopped by the eye
        return made


def _strength_of(made: Sheet, viscosity_pa_s: float, kitchen: Kitchen) -> float | None:
    """How strong what thickens ``made`` would have to be for it to be so thick; None where that is not what makes it
    thick."""

    def off(log_times: float) -> float:
        strength = math.exp(log_times) * (made.strength or 1.0)
        turned = made.model_copy(update={"strength": strength})
        eta = check(turned, kitchen).final.thickness.viscosity_pa_s
        return math.inf if eta is None else math.log(eta / viscosity_pa_s)

    try:
        low, high = off(-_STRENGTHS), off(_STRENGTHS)
        if not low < 0.0 < high:
            return None
        top = _STRENGTHS
        while math.isinf(high) and top > _AS_RECKONED:  # stronger than so it is a dough
            top *= 0.5
            high = off(top)
        if math.isinf(high) or high <= 0.0:
            return None
        return round(math.exp(find_root(off, -_STRENGTHS, top, 1e-5)) * (made.strength or 1.0), 3)
    except BadInput:
        return None


_AS_RECKONED = 0.05
_STRENGTHS = 0.9
"""log of how far from its rows what thickens a sauce may be judged: between 0.4 and 2.5 times."""


def brought_back(made: Sheet, grade: str | None, kitchen: Kitchen) -> BroughtBack:
    """``made`` cooled, warmed again (thicker by what chilling adds), let down to the middle of ``grade``.
    Raises :class:`BadInput` as checking does."""
    back = made.model_copy(
        update={
            "steps": (*made.steps, Cool(to_c=K.FRIDGE_C), Reheat(to_c=K.BROUGHT_BACK_C)),
            "target": made.target.model_copy(update={"grade": grade}),
        }
    )
    # It comes back near the thick edge of its grade: bring it to the middle, as it was made.
    case = case_of(back, kitchen)
    found = thickness_of(case.pot, case.serving_c)
    whole, poured, eta = back, 0.0, found.viscosity_pa_s
    if case.wanted_pa_s and eta and eta > K.THICKER_AHEAD * case.wanted_pa_s:
        remedy = let_down(case, case.liquid)
        if remedy.refused is None:
            whole = applied(back, remedy)
            key = case.liquid.key
            poured = larder_of(whole, kitchen).get(key, 0.0) - larder_of(back, kitchen).get(
                key, 0.0
            )
    states = check(whole, kitchen).steps
    cold = states[len(made.steps)].pot.minutes
    return BroughtBack(
        whole,
        states[-1].pot,
        case.liquid,
        poured,
        states[-1].pot.minutes - cold,
        found.grade,
    )


def warmed_again(
    made: Sheet, grams: float, grade: str | None, to_c: float, kitchen: Kitchen
) -> Sheet:
    """The pot of so many ``grams`` of ``made`` from the fridge: warmed to ``to_c``, °C, in the middle, then let down to
    the middle of ``grade``. Raises :class:`BadInput` as checking does.

    >>> from saucier.check import DEFAULT_KITCHEN
    >>> from saucier.testing import add, roux, sheet, simmer
    >>> white = sheet(roux(66, 66), add("milk-whole", 1, "L"), simmer(5))
    >>> pot = warmed_again(white, 500.0, "nappe", 70.0, DEFAULT_KITCHEN)
    >>> [step.op for step in pot.steps], check(pot, DEFAULT_KITCHEN).final.thickness.grade
    (['use', 'reheat', 'add'], 'nappe')
    """
    back = brought_back(made, grade, kitchen)
    share = grams / check(made, kitchen).final.pot.total_g
    inner = InnerSauce(
        name=made.name,
        method=made.method,
        pan=made.pan,
        burner=made.burner,
        lid=made.lid,
        strength=made.strength,
        steps=(*made.steps, Cool(to_c=K.FRIDGE_C)),
    )
    drawn = Use(
        sauce=inner, amount=Amount(round(grams, 1), "g"), ready=True, temperature_c=K.FRIDGE_C
    )
    steps: list[AnyStep] = [drawn, Reheat(to_c=to_c)]
    if back.poured_g > 0.0:
        millilitres = kitchen_round(Amount(back.poured_ml * share, "mL"))
        steps.append(
            Add(ingredient=back.liquid.key, amount=millilitres, temperature_c=K.LET_DOWN_C)
        )
    target = made.target.model_copy(update={"grade": grade, "volume": None, "serves": None})
    return made.model_copy(
        update={"steps": tuple(steps), "target": target, "pan": None, "strength": None}
    )
