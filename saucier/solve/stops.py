"""Stops by minutes belong to the batch and the pan they were written for (docs/model.md 2)."""

from saucier import constants as K
from saucier.check import check
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet
from saucier.steps import AnyStep, Reduce, Simmer
from saucier.steps.reduce import Stop, share_left


def _may_go_by_minutes(step: AnyStep) -> bool:
    """Whether ``step`` may be one that boils down for so many minutes (a simmer: where no starch is in it), and
    its minutes are not pinned."""
    if isinstance(step, Simmer):
        return not step.pinned and not step.lid and step.minutes > 0.0
    return (
        isinstance(step, Reduce)
        and not step.pinned
        and step.stop is not None
        and step.stop.minutes is not None
    )


def stops_as_written(sheet: Sheet, kitchen: Kitchen) -> Sheet:
    """``sheet`` with its stops by minutes turned into the shares those minutes reach as it is written, in its own pan:
    so it can be scaled, or put into another pan, and its minutes told anew. The minutes it was written with
    stay beside the stop. The same sheet where none is.

    >>> from saucier.testing import add, reduce_to, sheet
    >>> from saucier.kitchen import Kitchen
    >>> cream = sheet(add("cream-35", 500), reduce_to(minutes=3))
    >>> step = stops_as_written(cream, Kitchen()).steps[1]
    >>> round(step.to.share, 2), step.minutes
    (0.82, 3.0)
    """
    if not any(_may_go_by_minutes(step) for step in sheet.steps):
        return sheet
    states = check(sheet, kitchen).steps
    steps: list[AnyStep] = []
    for number, step in enumerate(sheet.steps):
        before, after = states[number - 1].pot if number else None, states[number].pot
        if before is None or not _may_go_by_minutes(step) or not before.wetted:
            steps.append(step)
            continue
        share = share_left(before, after)
        minutes = step.minutes if isinstance(step, Simmer) else _minutes_of(step)
        starchy = before.balance.thickener > 0.0
        if isinstance(step, Simmer) and (starchy or share > K.HARDLY_BOILED_DOWN):
            steps.append(step)  # it keeps its minutes: what it loses is told anew
            continue
        heat = step.heat if isinstance(step, Simmer | Reduce) else "simmer"
        steps.append(
            Reduce(to=Stop(share=min(1.0, share)), heat=heat, minutes=minutes, note=step.note)
        )
    if tuple(steps) == sheet.steps:
        return sheet
    return sheet.model_copy(update={"steps": tuple(steps)})


def _minutes_of(step: AnyStep) -> float:
    assert isinstance(step, Reduce) and step.stop is not None and step.stop.minutes is not None
    return step.stop.minutes
