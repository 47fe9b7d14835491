"""How far the model may be off for a sauce, in a kitchen that has learned something."""

import math

from saucier.check.prepared import Prepared
from saucier.thickness import MODEL_SPREAD


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
