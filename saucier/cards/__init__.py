"""What a cook is told of each step, and of the pots made for it."""

from saucier.cards.card import Card, cards
from saucier.cards.inside import CardsInside, cards_inside

__all__ = ["Card", "CardsInside", "cards", "cards_inside"]
