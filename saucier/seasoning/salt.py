"""Salt as a share of the pot's mass (docs/model.md 5)."""

from dataclasses import dataclass

from saucier.pot import Balance


@dataclass(frozen=True, slots=True)
class SaltGap:
    """Distance from a salt target: ``to_add_g`` of salt, or ``over_g`` too much and the grams of
    unsalted liquid that would bring it down (``liquid_g``). Never negative."""

    target_pct: float
    to_add_g: float
    over_g: float
    liquid_g: float


def salt_pct(balance: Balance) -> float:
    """Salt, g per 100 g.

    >>> salt_pct(Balance(water=990, salt=10))
    1.0
    """
    mass = balance.mass_g
    return 100.0 * balance.salt / mass if mass > 0.0 else 0.0


def salt_needed_g(balance: Balance, target_pct: float, purity: float = 1.0) -> float:
    """Grams of salt (of which the share ``purity`` is salt) that bring ``balance`` to
    ``target_pct``; negative when it is already over.

    >>> round(salt_needed_g(Balance(water=1000), 0.8), 2)
    8.06
    """
    share = target_pct / 100.0
    return (share * balance.mass_g - balance.salt) / (purity - share)


def salt_gap(balance: Balance, target_pct: float) -> SaltGap:
    """What is left to add, or how far over.

    >>> gap = salt_gap(Balance(water=988, salt=12), 0.8)
    >>> gap.to_add_g, round(gap.over_g, 2), round(gap.liquid_g)
    (0.0, 4.0, 500)
    """
    needed = salt_needed_g(balance, target_pct)
    over = max(0.0, balance.salt - target_pct / 100.0 * balance.mass_g)
    liquid = over * 100.0 / target_pct if target_pct > 0.0 else 0.0
    return SaltGap(target_pct, max(0.0, needed), over, liquid)
