"""Schools of correcting: made right at once, or thick (thin) on purpose and then brought right."""

from saucier.kitchen import Kitchen
from saucier.schools.school import School, index_of, with_steps
from saucier.sheet import Sheet
from saucier.steps import (
    Add,
    AnyStep,
    Cool,
    Correct,
    Deglaze,
    Finish,
    Hold,
    Liaison,
    Mount,
    Reserve,
    Roux,
    Season,
    thickening_by,
)

_LIQUIDS = ("milk", "stock", "water", "juice")
_LAST = (Season, Reserve, Cool, Hold)
"""What still comes after the sauce is judged."""
_BOILS_NO_MORE = (Liaison, Mount, Finish)
"""What a sauce is let down before: none of it bears the boil that what goes in wants."""


def _followed(sheet: Sheet, kitchen: Kitchen) -> str | None:
    at = index_of(sheet, Correct)
    if at is not None:
        step = sheet.steps[at]
        assert isinstance(step, Correct)
        return step.hold
    return "none" if sheet.target.grade and _thickened(sheet) else None


def _thickened(sheet: Sheet) -> bool:
    """Whether flour can be solved so that what is held back brings it right."""
    return thickening_by(sheet) == "flour"


def _rewrite(sheet: Sheet, choice: str, kitchen: Kitchen) -> Sheet:
    steps: list[AnyStep] = [step for step in sheet.steps if not isinstance(step, Correct)]
    if choice == "none":
        return with_steps(sheet, steps)
    at = len(steps)
    while at and isinstance(steps[at - 1], _LAST):
        at -= 1
    at = min(at, index_of(with_steps(sheet, steps), _BOILS_NO_MORE) or at)
    liquid = next(
        (
            step.ingredient
            for step in steps
            if isinstance(step, Add | Deglaze) and kitchen.larder[step.ingredient].role in _LIQUIDS
        ),
        "milk-whole",
    )
    roux = next((step for step in steps if isinstance(step, Roux)), None)
    own = {"fat": roux.fat.ingredient, "flour": roux.flour.ingredient} if roux else {}
    held = {"op": "correct", "hold": choice, "ingredient": liquid, **own}
    hold = Correct.model_validate(held)
    return with_steps(sheet, [*steps[:at], hold, *steps[at:]])


CORRECTING = School(
    "correcting",
    ("none", "liquid", "roux"),
    _followed,
    _rewrite,
)
