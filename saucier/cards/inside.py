"""The cards of the sauces made for a sauce, each in a pot of its own."""

from dataclasses import dataclass

from saucier.cards.card import Card, cards
from saucier.check import CheckedSheet, Figures, pots_inside
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet


@dataclass(frozen=True, slots=True)
class CardsInside:
    """A sauce made for ``step`` of another, before it: by its ``cards``, in the pan called ``pan``,
    to its ``final`` figures. ``key`` tells it apart, ``of`` is that of the pot it is made for ('':
    the sauce itself). ``made_g`` of it are made, ``used_g`` go in."""

    key: str
    of: str
    step: int
    sheet: Sheet
    pan: str
    cards: tuple[Card, ...]
    final: Figures
    made_g: float
    used_g: float


def cards_inside(checked: CheckedSheet, kitchen: Kitchen) -> tuple[CardsInside, ...]:
    """The pots made before the sauce of ``checked``, in the order they are made in."""
    return tuple(
        CardsInside(
            key=pot.key,
            of=pot.of,
            step=pot.step,
            sheet=pot.sheet,
            pan=pot.checked.pan.name,
            cards=tuple(cards(pot.checked)),
            final=pot.checked.final.figures,
            made_g=pot.made_g,
            used_g=pot.used_g,
        )
        for pot in pots_inside(checked, kitchen)
    )
