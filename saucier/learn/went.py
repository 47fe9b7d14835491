"""A batch as it really went, as a sheet that makes it again."""

from typing import Any

from saucier.check import DEFAULT_KITCHEN, check, prepare
from saucier.kitchen import Kitchen
from saucier.learn.record import Finished, boiled_minutes
from saucier.rescue import as_thick_as
from saucier.sheet import Sheet, SheetPan
from saucier.steps import AnyStep, Reduce, Simmer
from saucier.steps.reduce import Stop
from saucier.units import Amount, kitchen_round


def as_it_went(batch: Finished, grade: str | None, kitchen: Kitchen = DEFAULT_KITCHEN) -> Sheet:
    """The sheet of ``batch`` with what went in, in its pan, simmered as long as it was, boiled down to the
    weight it came to, as thick as it was judged, and aimed at the ``grade`` that was reached (None: as it was). Raises
    :class:`BadInput` as checking does."""
    prepared = prepare(batch.sheet, kitchen)
    checked = check(batch.sheet, kitchen)
    off_g = 0.0 if batch.weighed_g is None else batch.weighed_g - checked.final.pot.total_g
    boiled = boiled_minutes(prepared, batch.minutes)
    last = max(
        (n for n, one in enumerate(batch.sheet.steps) if isinstance(one, Reduce)), default=None
    )
    steps: list[AnyStep] = []
    for number, step in enumerate(batch.sheet.steps):
        took = boiled.get(number)
        if isinstance(step, Simmer) and took:
            step = step.model_copy(update={"minutes": round(took, 1)})
        elif number == last and batch.weighed_g is not None:
            grams = checked.steps[number].pot.total_g + off_g
            stop = Stop(mass=kitchen_round(Amount(grams, "g")))
            step = step.model_copy(update={"to": stop, "minutes": None})
        steps.append(step)
    target = batch.sheet.target
    final = checked.final.pot
    made = 1.0 + off_g / max(1.0, final.total_g)
    changes: dict[str, Any] = {"volume": kitchen_round(Amount(final.yield_ml * made, "mL"))}
    if grade is not None:
        changes["grade"] = grade
    pan = batch.sheet.pan or SheetPan.of(prepared.pan)
    made_so = {"steps": tuple(steps), "target": target.model_copy(update=changes), "pan": pan}
    went = batch.sheet.model_copy(update=made_so)
    # What the spoon said wins over the sum: made again just so, it is told as it was.
    return as_thick_as(went, batch.reached_pa_s, kitchen)
