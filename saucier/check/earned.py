"""How far the model may be off for a sauce, in a kitchen that has learned something."""

import math

from saucier.check.prepared import Prepared
from saucier.steps import Reduce, Simmer
from saucier.thickness import MODEL_SPREAD
from saucier.words import Sentence, say


def model_spread_of(prepared: Prepared) -> float:
    """What the model leaves open of log η, one standard spread: less where what thickens ``prepared`` has
    been learned of in its kitchen, by its share of all that does."""
    if not prepared.settings or not prepared.settings[0].kitchen.strengths:
        return MODEL_SPREAD
    strengths = prepared.settings[0].kitchen.strengths
    total = square = 0.0
    for key, power in thickeners_of(prepared).items():
        known = strengths.get(key)
        square += power * (known.model_spread if known else MODEL_SPREAD) ** 2
        total += power
    return math.sqrt(square / total) if total > 0.0 else MODEL_SPREAD


def thickeners_of(prepared: Prepared) -> dict[str, float]:
    """What thickens by its starch, by key: g, as flour."""
    found: dict[str, float] = {}
    for step, setting in zip(prepared.steps, prepared.settings, strict=True):
        for key, grams in step.gathered(setting):
            power = grams * setting.kitchen.larder[key].per_gram.thickener
            if power > 0.0:
                found[key] = found.get(key, 0.0) + power
    return found


def learned_of(prepared: Prepared) -> tuple[Sentence, ...]:
    """What ``prepared`` goes by because its kitchen has learned it: told, so that nothing is silent."""
    if not prepared.settings:
        return ()
    kitchen = prepared.settings[0].kitchen
    told = []
    if kitchen.strengths:
        for key in thickeners_of(prepared):
            if key in kitchen.strengths:
                name = kitchen.larder[key].spoken_name
                told.append(_goes_by("flour", kitchen.strengths[key].log, name=name))
    heats = {
        step.heat: pace
        for step, setting in zip(prepared.steps, prepared.settings, strict=True)
        if isinstance(step, Simmer | Reduce) and (pace := setting.stove.pace(step.heat))
    }
    told += [
        _goes_by("pan", pace.log, name=prepared.pan.name, heat=say(f"heat-{heat}"))
        for heat, pace in heats.items()
    ]
    return tuple(told)


def _goes_by(what: str, log: float, **names: object) -> Sentence:
    more = "more" if log >= 0.0 else "less"
    return say(f"goes-by.{what}-{more}", pct=100.0 * abs(math.exp(log) - 1.0), **names)
