"""The size of a batch by what there is of one ingredient."""

from collections.abc import Callable

from saucier.errors import BadInput
from saucier.solve.goal import Have
from saucier.steps import FLOURED, Dust, Knobs, Pouring, PreparedSteps, Roux

Grams = Callable[[Knobs], float]


def used_of(have: Have, prepared: PreparedSteps) -> tuple[Grams, float]:
    """Grams of what there is that go in at any setting of the knobs, the sauces made for it
    included, and the grams there are. Raises :class:`BadInput` (field ``have``)."""
    kitchen = prepared.settings[0].kitchen
    row = kitchen.larder[have.ingredient]
    used = _used(row.key, prepared)
    if used is None:
        raise BadInput.at("have.ingredient", "is-not-weighed-into-this-sauce", name=row.name)
    try:
        return used, row.grams(have.amount)
    except BadInput as bad:
        raise bad.under("have.amount") from None


def _used(key: str, prepared: PreparedSteps) -> Grams | None:
    """Grams of ``key`` that go in; None where it does not stand in these steps at all."""
    plain = flour = fat = roux_flour = 0.0
    inside: list[tuple[Pouring, Grams]] = []
    for step, setting, move in zip(prepared.steps, prepared.settings, prepared.moves, strict=True):
        if isinstance(move, Pouring) and step.inside and (used := _used(key, move.inside)):
            inside.append((move, used))
        for weighed in step.to_weigh(setting):
            turned = isinstance(step, Dust) or weighed.field.startswith("flour")
            if isinstance(step, Roux) and turned:
                roux_flour += weighed.grams
            if weighed.ingredient != key:
                continue
            if not isinstance(step, FLOURED):
                plain += weighed.grams
            elif turned:
                flour += weighed.grams
            else:
                fat += weighed.grams
    if not (plain or flour or fat or inside):
        return None

    def grams(knobs: Knobs) -> float:
        flour_now = knobs.scale * knobs.flour
        if knobs.fat_to_flour is None:
            fat_now = fat * knobs.scale
        else:
            fat_now = roux_flour * flour_now * knobs.fat_to_flour if fat else 0.0
        made = sum(used(move.knobs_inside(knobs)) for move, used in inside)
        return plain * knobs.scale + flour * flour_now + fat_now + made

    return grams
