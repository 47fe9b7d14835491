"""Remedies with a number: what mends a sauce that is not as it should be."""

from saucier.check import CheckedSheet
from saucier.kitchen import Kitchen
from saucier.seasoning import salt_gap

_CREAM = "cream-35"


def salt_remedies(checked: CheckedSheet, kitchen: Kitchen) -> tuple[str, ...]:
    """Three ways to bring a sauce that is over its salt target back to it; none where it is not.

    Amounts by mass balance: x of salt share q brings mass m with salt s to p where
    x = (s − p·m)/(p − q).
    """
    target = checked.sheet.target.salt_pct
    if target is None:
        return ()
    gap = salt_gap(checked.final.pot.balance, target)
    over, share = gap.over_g, target / 100.0
    if over <= 0.05 or share <= 0.0:
        return ()
    told = [f"{gap.liquid_g:.0f} g unsalted milk or stock let in"]
    cream = kitchen.larder[_CREAM].per_gram.salt
    if cream < share:
        told.append(f"or {over / (share - cream):.0f} g cream")
    salty = _saltiest(checked, kitchen)
    if salty is not None:
        name, grams, content = salty
        less = min(grams, over / (content - share)) if content > share else grams
        told.append(f"or {less:.0f} g less of the {name}, or a less salty one, next time")
    return tuple(told)


def _saltiest(checked: CheckedSheet, kitchen: Kitchen) -> tuple[str, float, float] | None:
    """Name, grams and salt share of the part that brings the most salt, salt itself apart."""
    brought: dict[str, float] = {}
    for step, setting in zip(checked.sheet.steps, checked.settings, strict=True):
        for weighed in step.to_weigh(setting):
            row = kitchen.larder.get(weighed.ingredient) if weighed.ingredient else None
            if row is not None and row.role != "salt":
                brought[row.key] = brought.get(row.key, 0.0) + weighed.grams
    best = max(
        brought, key=lambda key: brought[key] * kitchen.larder[key].per_gram.salt, default=""
    )
    if not best or kitchen.larder[best].per_gram.salt <= 0.0:
        return None
    row = kitchen.larder[best]
    return row.spoken_name, brought[best], row.per_gram.salt
