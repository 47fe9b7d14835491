"""Schools of measuring: by weight, by spoon and cup."""

from typing import Any

from saucier.kitchen import Kitchen
from saucier.schools.school import School, index_of, with_steps
from saucier.sheet import Sheet
from saucier.steps import (
    FLOURED,
    Add,
    AnyStep,
    Roux,
)
from saucier.units import Amount, Dimension


# --- measuring -------------------------------------------------------------------------
def _measured_parts(step: AnyStep) -> list[str]:
    if isinstance(step, Roux):
        return ["fat", "flour"]
    return [""] if isinstance(step, (*FLOURED, Add)) else []


def _measuring_followed(sheet: Sheet, kitchen: Kitchen) -> str | None:
    at = index_of(sheet, FLOURED)
    if at is None:
        return None
    step = sheet.steps[at]
    amount = step.flour.amount if isinstance(step, Roux) else getattr(step, "amount", None)
    assert isinstance(amount, Amount)
    return "spoon" if amount.dimension is Dimension.VOLUME else "weight"


def _measuring_rewrite(sheet: Sheet, choice: str, kitchen: Kitchen) -> Sheet:
    larder = kitchen.larder
    steps: list[AnyStep] = []
    for step in sheet.steps:
        for part in _measured_parts(step):
            holder: Any = getattr(step, part) if part else step
            row = larder[holder.ingredient]
            grams = row.grams(holder.amount)
            if choice == "weight":
                amount = Amount(grams, "g")
            else:
                ml = grams / row.cup_density
                unit, size = (
                    ("tsp", 5.0) if ml < 15 else ("tbsp", 15.0) if ml < 120 else ("cup", 240.0)
                )
                amount = Amount(ml / size, unit)
            step = step.with_amount(f"{part}.amount" if part else "amount", amount)
        steps.append(step)
    return with_steps(sheet, steps)


MEASURING = School(
    "measuring",
    ("weight", "spoon"),
    _measuring_followed,
    _measuring_rewrite,
)
