"""Schools of cream: what thickens it."""

from saucier.kitchen import Kitchen
from saucier.schools.school import School, grams_amount, index_of, with_steps
from saucier.sheet import Sheet
from saucier.steps import (
    Add,
    Reduce,
    Roux,
    Simmer,
)
from saucier.steps.reduce import Stop
from saucier.steps.step import Measured


# --- thickener for cream ---------------------------------------------------------------
def _cream_at(sheet: Sheet, kitchen: Kitchen) -> int | None:
    return next(
        (
            n
            for n, s in enumerate(sheet.steps)
            if isinstance(s, Add) and kitchen.larder[s.ingredient].role == "cream"
        ),
        None,
    )


def _thickener_followed(sheet: Sheet, kitchen: Kitchen) -> str | None:
    cream = _cream_at(sheet, kitchen)
    if cream is None or sheet.family not in ("cream-reduction", "cream-with-roux"):
        return None
    at = index_of(sheet, Roux)
    if at is None:
        late = any(n > cream and isinstance(s, Reduce) for n, s in enumerate(sheet.steps))
        return "reduction" if late else None
    roux = sheet.steps[at]
    assert isinstance(roux, Roux)
    return "beurre-manie" if roux.colour == "raw" else "roux"


def _thickener_rewrite(sheet: Sheet, choice: str, kitchen: Kitchen) -> Sheet:
    cream = _cream_at(sheet, kitchen)
    assert cream is not None
    steps = list(sheet.steps)
    kind = (
        {"colour": "raw", "minutes": 0.0}
        if choice == "beurre-manie"
        else {"colour": "white", "minutes": 2.0}
    )
    at = index_of(sheet, Roux)
    if choice != "reduction" and at is not None:
        steps[at] = steps[at].model_copy(update=kind)
    elif choice != "reduction":
        last = max(n for n, s in enumerate(steps) if n > cream and isinstance(s, Reduce))
        cream_step = steps[cream]
        assert isinstance(cream_step, Add)
        spoon = grams_amount(max(5.0, 0.03 * cream_step.amount.base))
        roux = Roux(
            fat=Measured(ingredient="butter-unsalted", amount=spoon),
            flour=Measured(ingredient="wheat-flour", amount=spoon),
            **kind,
        )
        steps[last : last + 1] = [Simmer(minutes=2), roux, Simmer(minutes=3, heat="bare-simmer")]
    else:
        assert at is not None
        before, after = steps[:at], steps[at + 1 :]
        # The minutes around the roux were its boil; the reduction has its own.
        if before and isinstance(before[-1], Simmer):
            before.pop()
        if after and isinstance(after[0], Simmer):
            after.pop(0)
        steps = [*before, Reduce(to=Stop(share=0.7)), *after]
    return with_steps(sheet, steps)


THICKENER = School(
    "thickener",
    ("reduction", "roux", "beurre-manie"),
    _thickener_followed,
    _thickener_rewrite,
)
