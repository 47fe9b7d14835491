"""What a probe tells at a step: how warm it is against what the step asks for."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from saucier import constants as K
from saucier.check import CheckedSheet
from saucier.larder import Ingredient, Measures
from saucier.larder.ladled import ladled
from saucier.pot import Pot
from saucier.steps import Cool, Finish, Hold, Liaison, Melt, Mount, Reheat, Return, StepBase
from saucier.steps.enrich import Ladle
from saucier.words import Sentence, say

How = Literal["below", "there", "above"]


@dataclass(frozen=True, slots=True)
class Probed:
    """A probe's ``at_c`` against where it should be: from ``from_c`` (None: as cool as you like) to
    ``to_c`` (None: as hot as you like), ``how`` it stands to that, and what to do in words."""

    at_c: float
    from_c: float | None
    to_c: float | None
    how: How
    words: Sentence


def middle_c(row: Ingredient) -> float:
    """°C of the middle by the usual cautions; the kitchen's own rule comes first.

    >>> from saucier.larder import shipped_larder
    >>> middle_c(shipped_larder()["guinea-fowl"]), middle_c(shipped_larder()["fish-white"])
    (74.0, 63.0)
    """
    return K.MIDDLE_POULTRY_C if "poultry" in row.animals else K.MIDDLE_C


def probed_middle(at_c: float, middle_c: float) -> Probed:
    """The middle of a piece against the usual caution."""
    there = at_c >= middle_c
    words = say("probe.middle-there" if there else "probe.middle-below", middle_c=middle_c)
    return Probed(at_c, middle_c, None, "there" if there else "below", words)


def probed(checked: CheckedSheet, number: int, before: Pot, at_c: float) -> Probed | None:
    """What ``at_c`` tells at step ``number``, begun with the pot ``before``. None: the step asks for no
    temperature. At a liaison the probe is in the yolks."""
    if not 0 <= number < len(checked.sheet.steps):
        return _within(at_c, K.HOT_HOLDING_C, None, "probe.hold")
    step, setting = checked.sheet.steps[number], checked.settings[number]
    if isinstance(step, Liaison):
        bound = before.flour_g_per_l >= K.LIAISON_FLOUR_G_PER_L
        ladles = step.ladles(setting, before)
        return tempered(ladles, step.heat_to_c, at_c, bound, setting.kitchen.measures)
    if isinstance(step, Return):
        return probed_middle(at_c, middle_c(setting.ingredient(step.ingredient)))
    low, high, code = _asked(step)
    return None if code is None else _within(at_c, low, high, code)


def _asked(step: StepBase) -> tuple[float | None, float | None, str | None]:
    if isinstance(step, Melt):
        return None, K.CHEESE_MAX_C, "probe.cheese"
    if isinstance(step, Mount):
        return None, K.MOUNT_MAX_C, "probe.mount"
    if isinstance(step, Finish):
        return None, K.SOFT_CREAM_MAX_C, "probe.soft-cream"
    if isinstance(step, Reheat):
        return step.to_c, None, "probe.reheat"
    if isinstance(step, Cool):
        return None, step.to_c, "probe.cool"
    if isinstance(step, Hold):
        return K.HOT_HOLDING_C, None, "probe.hold"
    return None, None, None


def _within(at_c: float, low: float | None, high: float | None, code: str) -> Probed:
    how: How = "there"
    if low is not None and at_c < low:
        how = "below"
    if high is not None and at_c > high:
        how = "above"
    words = say(f"{code}-{'fine' if how == 'there' else how}", low_c=low, high_c=high)
    return Probed(at_c, low, high, how, words)


def tempered(
    ladles: Sequence[Ladle],
    heat_to_c: float | None,
    at_c: float,
    bound: bool,
    measures: Measures,
) -> Probed | None:
    """Yolks at ``at_c`` on their way through ``ladles`` of hot sauce and then up to ``heat_to_c``: which
    ladle is next, and how far it may take them. ``bound``: flour enough that they may simmer. ``measures``: the
    kitchen's, that it is told in.

    >>> from saucier.larder import shipped_measures
    >>> ladles = [Ladle(20.0, 20.0, 19.0), Ladle(30.0, 35.0, 29.0), Ladle(60.0, 50.0, 58.0)]
    >>> found = tempered(ladles, 80.0, 21.0, True, shipped_measures())
    >>> found.to_c, found.words.facts["number"]
    (35.0, 2)
    """
    if not ladles:
        return None
    for number, ladle in enumerate(ladles, start=1):
        if at_c < ladle.temperature_c - K.TEMPER_NEAR_C:
            words = say(
                "probe.ladle",
                number=number,
                ladles=len(ladles),
                much=ladled(ladle.sauce_ml, measures),
                to_c=ladle.temperature_c,
            )
            return Probed(at_c, None, ladle.temperature_c, "below", words)
    last = ladles[-1].temperature_c
    if heat_to_c is None:
        return Probed(at_c, None, K.TEMPER_MAX_C, "there", say("probe.all-in"))
    if at_c < heat_to_c - K.TEMPER_NEAR_C:
        code = "probe.yolk-warming" if at_c > last + K.TEMPER_NEAR_C else "probe.all-in-and-warm"
        return Probed(at_c, heat_to_c, None, "below", say(code, to_c=heat_to_c))
    most = None if bound else K.LIAISON_BARE_MAX_C
    if most is not None and at_c > most:
        return Probed(at_c, heat_to_c, most, "above", say("probe.yolk-too-hot", most_c=most))
    return Probed(at_c, heat_to_c, most, "there", say("probe.yolk-there"))
