"""What was seen of a pot that boiled down, as the sheet of a sauce: it stops where the pot was seen to be."""

from saucier.check import check
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet
from saucier.steps import AnyStep, Reduce, Simmer
from saucier.steps.reduce import Stop
from saucier.units import Amount, kitchen_round
from saucier.watch.following import Following

_SEEN_OTHERWISE = 0.02
"""A pot that was seen to weigh within 2 % of the sum is as the sum has it."""


def as_seen(sheet: Sheet, found: Following, kitchen: Kitchen) -> Sheet:
    """``sheet``, cooked by the clock, with each boil that came to another weight than its minutes make stopped at what it
    came to; as it is where nothing was seen. Raises :class:`BadInput` as checking does."""
    reckoned = check(sheet, kitchen).steps
    if len(reckoned) != len(found.checked.steps):
        return sheet  # something was put in between: its minutes are no longer one boil's
    steps: list[AnyStep] = []
    for step, sum_, seen in zip(sheet.steps, reckoned, found.checked.steps, strict=True):
        grams = seen.pot.total_g
        if isinstance(step, Simmer) and abs(grams / sum_.pot.total_g - 1.0) > _SEEN_OTHERWISE:
            stop = Stop(mass=kitchen_round(Amount(grams, "g")))
            step = Reduce(to=stop, heat=step.heat)
        steps.append(step)
    return sheet.model_copy(update={"steps": tuple(steps)})
