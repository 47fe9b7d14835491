"""A sheet told step by step to the cook at the stove: facts of a step, put into sentences."""

from saucier.cards.card import Card, cards

__all__ = ["Card", "cards"]
