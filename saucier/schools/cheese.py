"""Schools of cheese: on or off the heat, one or two."""

from saucier.kitchen import Kitchen
from saucier.schools.school import School, grams_amount, index_of, with_steps
from saucier.sheet import Sheet
from saucier.steps import (
    Melt,
)


# --- cheese ----------------------------------------------------------------------------
def _cheese_heat_followed(sheet: Sheet, kitchen: Kitchen) -> str | None:
    at = index_of(sheet, Melt)
    return None if at is None else getattr(sheet.steps[at], "heat", "off")


def _cheese_heat_rewrite(sheet: Sheet, choice: str, kitchen: Kitchen) -> Sheet:
    return with_steps(
        sheet,
        [
            step.model_copy(update={"heat": choice}) if isinstance(step, Melt) else step
            for step in sheet.steps
        ],
    )


_TASTE_CHEESE = "parmesan-style-hard"


def _cheeses_followed(sheet: Sheet, kitchen: Kitchen) -> str | None:
    count = sum(isinstance(step, Melt) for step in sheet.steps)
    return None if not count else "one" if count == 1 else "two"


def _cheeses_rewrite(sheet: Sheet, choice: str, kitchen: Kitchen) -> Sheet:
    melts = [step for step in sheet.steps if isinstance(step, Melt)]
    if (choice == "one") == (len(melts) == 1):
        return sheet
    first = melts[0]
    at = index_of(sheet, Melt)
    assert at is not None
    others = [step for step in sheet.steps if not isinstance(step, Melt)]
    if choice == "one":
        amount = grams_amount(sum(step.amount.base for step in melts))
        new = [first.model_copy(update={"amount": amount})]
    else:
        # One to melt, one for taste: a third of the weight in a drier, saltier cheese.
        taste = _TASTE_CHEESE if first.ingredient != _TASTE_CHEESE else "cheese-semi-hard"
        new = [
            first.model_copy(update={"amount": first.amount.times(2 / 3)}),
            first.model_copy(update={"ingredient": taste, "amount": first.amount.times(1 / 3)}),
        ]
    return with_steps(sheet, [*others[:at], *new, *others[at:]])


CHEESE_HEAT = School(
    "cheese-heat",
    ("off", "low"),
    _cheese_heat_followed,
    _cheese_heat_rewrite,
)
CHEESES = School(
    "cheeses",
    ("one", "two"),
    _cheeses_followed,
    _cheeses_rewrite,
)
