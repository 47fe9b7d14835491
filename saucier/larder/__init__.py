"""The larder: what ingredients are made of, as a kitchen's own editable copy."""

from saucier.larder.ingredient import ALLERGENS, Ingredient, Larder, shipped_larder

__all__ = ["ALLERGENS", "Ingredient", "Larder", "shipped_larder"]
