"""Stops by minutes belong to the batch and the pan they were written for (docs/model.md 2)."""

from collections.abc import Iterable, Iterator, Sequence

from saucier import constants as K
from saucier.check import check
from saucier.kitchen import Kitchen
from saucier.pot import Pot
from saucier.sheet import Sheet
from saucier.steps import AS_WRITTEN, AnyStep, Reduce, Setting, Simmer, Use
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
    if not any(_may_go_by_minutes(step) for step in _every_step(sheet.steps)):
        return sheet
    checked = check(sheet, kitchen)
    steps = _kept(sheet.steps, [state.pot for state in checked.steps], checked.settings)
    return sheet if steps == sheet.steps else sheet.model_copy(update={"steps": steps})


def _every_step(steps: Iterable[AnyStep]) -> Iterator[AnyStep]:
    """``steps`` and those of the sauces made inside them."""
    for step in steps:
        yield step
        if step.inside is not None:
            yield from _every_step(step.inside.steps)


def _kept(
    steps: tuple[AnyStep, ...], pots: Sequence[Pot], settings: Sequence[Setting]
) -> tuple[AnyStep, ...]:
    """``steps``, played to ``pots``, with stops by minutes as the shares they reached; in sauces made inside them too."""
    kept: list[AnyStep] = []
    before = Pot()
    for step, after, setting in zip(steps, pots, settings, strict=True):
        if isinstance(step, Use) and not step.ready:
            kept.append(_kept_inside(step, setting))
        elif _may_go_by_minutes(step) and before.wetted:
            kept.append(_by_share(step, before, after))
        else:
            kept.append(step)
        before = after
    return tuple(kept)


def _kept_inside(step: Use, setting: Setting) -> Use:
    if not any(_may_go_by_minutes(inner) for inner in _every_step(step.sauce.steps)):
        return step
    pouring = step.pouring(setting)
    pots = list(pouring.inside.walk(pouring.knobs_inside(AS_WRITTEN)))
    steps = _kept(step.sauce.steps, pots, pouring.inside.settings)
    return step.model_copy(update={"sauce": step.sauce.model_copy(update={"steps": steps})})


def _by_share(step: AnyStep, before: Pot, after: Pot) -> AnyStep:
    """``step`` by the share its minutes reached; a simmer that binds or hardly boils down keeps its minutes: what it
    loses is told anew."""
    share = share_left(before, after)
    if isinstance(step, Simmer):
        if before.balance.thickener > 0.0 or share > K.HARDLY_BOILED_DOWN:
            return step
        minutes, fixed = step.minutes, True  # a simmer was no reduction a solve may turn
    else:
        assert isinstance(step, Reduce)
        minutes, fixed = _minutes_of(step), step.fixed
    to = Stop(share=min(1.0, share))
    return Reduce(to=to, heat=step.heat, minutes=minutes, fixed=fixed, note=step.note)


def _minutes_of(step: Reduce) -> float:
    assert step.stop is not None and step.stop.minutes is not None
    return step.stop.minutes
