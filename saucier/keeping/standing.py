"""How long a finished sauce stands hot under film before it suffers: told here once, for the plan of a service, the
cook who keeps it hot and the second sitting."""

from dataclasses import dataclass

from saucier import constants as K
from saucier.keeping.shelf_life import made_for_its_service
from saucier.pot import Pot
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class Standing:
    """A sauce stands hot for ``minutes`` at most; each of them costs it ``suffers`` (0 to 9); and why in words."""

    minutes: float
    suffers: int
    words: Sentence


def stands_hot(pot: Pot, *, green: bool = False, mother: bool = False) -> Standing:
    """How long ``pot`` stands hot, covered. ``green``: its colour is a herb's or a leaf's; ``mother``: other sauces
    are made of it. Usual kitchen figures (docs/model.md 6), not the rules for hot holding, which come first.

    >>> from saucier.check import check
    >>> from saucier.testing import add, reduce_to, sheet
    >>> cream = check(sheet(add("cream-35", 250), reduce_to(share=0.6))).final.pot
    >>> stands_hot(cream).minutes
    60.0
    """
    kind = _kind(pot, green)
    minutes, suffers = _STANDS[kind]
    if mother and kind == "roux":
        minutes = K.MOTHER_WAITS_MIN
    return Standing(minutes, suffers, say(f"stands.{kind}"))


_STANDS = {
    "delicate": (K.DELICATE_WAITS_MIN, 6),
    "green": (K.GREEN_WAITS_MIN, 4),
    "cheese": (K.CHEESE_WAITS_MIN, 2),
    "roux": (K.ROUX_WAITS_MIN, 1),
    "rich-cream": (K.RICH_CREAM_WAITS_MIN, 3),
    "cream": (K.CREAM_WAITS_MIN, 1),
}
"""Minutes and what each of them costs, by what the sauce stands by."""


def _kind(pot: Pot, green: bool) -> str:
    if made_for_its_service(pot):
        return "delicate"
    if green:
        return "green"
    if "cheese" in pot.delicate:
        return "cheese"
    if pot.balance.thickener > 0.0:
        return "roux"
    return "rich-cream" if pot.fat_share >= K.EMULSION_CAUTION else "cream"
