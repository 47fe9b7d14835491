"""Dishes: which sauces, used how, over which solids, in which vessel; what they ask of the stove."""

from saucier.dish.document import (
    KINDS,
    Dish,
    DishSauce,
    Rounds,
    Solid,
    Topping,
    Vessel,
    kind_of,
    read_dish,
    spoken_kind,
    write_dish,
)
from saucier.dish.finish import HeatedThrough, finish_of, heated_through, through_minutes
from saucier.dish.layout import Layout, layout_of, vessels_for
from saucier.dish.needs import SauceNeed, is_pasta, needs_of
from saucier.dish.plate import AtTable, at_the_table, on_plate_c
from saucier.dish.rounds import InRounds, in_rounds
from saucier.dish.seen import DishSeen, seen
from saucier.dish.starts import DishStart, dish_starts

__all__ = [
    "KINDS",
    "AtTable",
    "Dish",
    "DishSauce",
    "DishSeen",
    "DishStart",
    "HeatedThrough",
    "InRounds",
    "Layout",
    "Rounds",
    "SauceNeed",
    "Solid",
    "Topping",
    "Vessel",
    "at_the_table",
    "dish_starts",
    "finish_of",
    "heated_through",
    "in_rounds",
    "is_pasta",
    "kind_of",
    "layout_of",
    "needs_of",
    "on_plate_c",
    "read_dish",
    "seen",
    "spoken_kind",
    "through_minutes",
    "vessels_for",
    "write_dish",
]
