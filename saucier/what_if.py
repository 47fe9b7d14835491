"""What if: pull a lever of a sauce and see what follows, before anything is cooked."""

import math
from collections.abc import Mapping
from dataclasses import dataclass

from saucier.check import CheckedSheet, prepare
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.pot import Pot
from saucier.sheet import Sheet
from saucier.steps import Knobs, Melt, Simmer, free_ratio, free_reduction, thickening_by
from saucier.steps.reduce import share_left
from saucier.thickness import thickness_of
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class Lever:
    """Something to pull: its ``value`` now, between ``low`` and ``high`` in steps of ``step``."""

    key: str
    name: Sentence
    unit: str
    value: float
    low: float
    high: float
    step: float


def _lever(key: str, unit: str, value: float, low: float, high: float, step: float) -> Lever:
    return Lever(
        key=key, name=say(f"lever.{key}"), unit=unit, value=value, low=low, high=high, step=step
    )


def levers(sheet: Sheet, kitchen: Kitchen) -> list[Lever]:
    """What can be pulled in ``sheet``. Raises :class:`BadInput` as a check does."""
    there = []
    if thickening_by(sheet) == "flour":
        there.append(_lever("flour", "%", 100, 40, 180, 1))
    at = free_reduction(sheet)
    if at is not None:
        pots = [Pot(), *prepare(sheet, kitchen).walk()]
        before, after = pots[at], pots[at + 1]
        share = 100.0 * share_left(before, after) if before.total_g else 50.0
        floor = max(30.0, 100.0 * _floor(before, after) + 4.0)
        there.append(_lever("reduction", "%", round(share), round(floor), 100, 1))
    if (number := _longest_simmer(sheet)) is not None:
        step = sheet.steps[number]
        assert isinstance(step, Simmer)
        most = _longest_that_goes(sheet, number, max(40.0, 2.0 * step.minutes), kitchen)
        there.append(_lever("simmer", "min", step.minutes, 0, most, 1))
    if any(isinstance(step, Melt) for step in sheet.steps):
        there.append(_lever("cheese", "%", 100, 0, 250, 5))
    if sheet.steps:
        there.append(_lever("yield", "%", 100, 25, 400, 5))
        there.append(_lever("serving", "°C", sheet.target.serving_c, 20, 95, 1))
    return there


def pulled(sheet: Sheet, pulls: Mapping[str, float], kitchen: Kitchen) -> Sheet:
    """``sheet`` with levers pulled to the values of ``pulls``. Nothing is solved: that is the
    point. Raises :class:`BadInput` (field ``pulls.KEY``) for what cannot be pulled so."""
    there = {lever.key: lever for lever in levers(sheet, kitchen)}
    for key, value in pulls.items():
        if key not in there:
            raise BadInput.at(f"pulls.{key[:40]}", "no-such-lever", levers=tuple(there))
        lever = there[key]
        if not lever.low <= value <= lever.high:
            raise BadInput.at(
                f"pulls.{key}",
                "lever-out-of-reach",
                value=value,
                unit=lever.unit,
                low=lever.low,
                high=lever.high,
            )
    steps = list(sheet.steps)
    longest = _longest_simmer(sheet)
    for number, step in enumerate(steps):
        if isinstance(step, Simmer) and number == longest and "simmer" in pulls:
            steps[number] = step.model_copy(update={"minutes": pulls["simmer"]})
        if isinstance(step, Melt) and "cheese" in pulls:
            # Never quite none: an amount is more than zero.
            dose = max(pulls["cheese"] / 100.0, 1e-3)
            steps[number] = step.model_copy(update={"amount": step.amount.times(dose)})
    prepared = prepare(sheet.model_copy(update={"steps": tuple(steps)}), kitchen)
    knobs = Knobs(
        scale=pulls.get("yield", 100.0) / 100.0,
        flour=pulls.get("flour", 100.0) / 100.0,
        fat_to_flour=free_ratio(sheet) if "flour" in pulls else None,
        share=pulls["reduction"] / 100.0 if "reduction" in pulls else None,
    )
    turned = tuple(
        step.turned(knobs, setting) for step, setting in zip(steps, prepared.settings, strict=True)
    )
    target = sheet.target
    if "serving" in pulls:
        target = target.model_copy(update={"serving_c": pulls["serving"]})
    return sheet.model_copy(update={"steps": turned, "target": target})


@dataclass(frozen=True, slots=True)
class AtTemperature:
    """How thick a sauce is at ``temperature_c``; None with ``set_`` true where it has set."""

    temperature_c: float
    viscosity_pa_s: float | None
    set: bool


def thickness_curve(checked: CheckedSheet) -> list[AtTemperature]:
    """The finished sauce from the fridge to the boil, every 5 °C."""
    pot = checked.final.pot
    return [_at(pot, 5.0 * n) for n in range(1, 20)]


def _at(pot: Pot, temperature_c: float) -> AtTemperature:
    thickness = thickness_of(pot, temperature_c)
    return AtTemperature(temperature_c, thickness.viscosity_pa_s, thickness.why_not == "set")


def _longest_simmer(sheet: Sheet) -> int | None:
    simmers = [(step.minutes, -n) for n, step in enumerate(sheet.steps) if isinstance(step, Simmer)]
    return -max(simmers)[1] if simmers else None


def _longest_that_goes(sheet: Sheet, number: int, most: float, kitchen: Kitchen) -> float:
    """The most minutes the simmer at ``number`` can have before the pot boils dry."""
    step = sheet.steps[number]
    assert isinstance(step, Simmer)
    while most > step.minutes:
        steps = list(sheet.steps)
        steps[number] = step.model_copy(update={"minutes": most})
        try:
            prepare(sheet.model_copy(update={"steps": tuple(steps)}), kitchen).play()
        except BadInput:
            most = max(step.minutes, math.floor(0.75 * most))
        else:
            break
    return most


def _floor(before: Pot, after: Pot) -> float:
    """The share of its liquid that a reduction leaves when it is boiled as dry as it goes."""
    left = after.balance.liquid_g
    driest = left - after.balance.water - after.balance.alcohol
    return driest / max(left + before.total_g - after.total_g, 1e-9)
