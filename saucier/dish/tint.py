"""The colour of a sauce and of food, from what is in it: kitchen impressions, not spectra."""

import csv
from collections.abc import Iterable
from functools import lru_cache
from pathlib import Path

from saucier.check import larder_of
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient
from saucier.sheet import Sheet
from saucier.steps import Roux


@lru_cache(maxsize=1)
def _tints() -> dict[str, tuple[tuple[float, float, float], float]]:
    with Path(__file__).with_name("tints.csv").open(encoding="utf-8", newline="") as file:
        return {
            row["of"]: (
                (float(row["r"]), float(row["g"]), float(row["b"])),
                float(row["strength"]),
            )
            for row in csv.DictReader(file)
        }


def _of(row: Ingredient) -> tuple[tuple[float, float, float], float]:
    """The tint of a row: by the most words of its key that have one, else by its role."""
    tints = _tints()
    keys = [k for k in tints if k.startswith("key:") and f"-{k[4:]}-" in f"-{row.key}-"]
    return tints[max(keys, key=len)] if keys else tints[f"role:{row.role}"]


def colour_of(row: Ingredient) -> str:
    """The colour of an ingredient by itself, as "#rrggbb"."""
    return _hex(_of(row)[0])


def colour_of_sauce(sheet: Sheet, kitchen: Kitchen) -> str:
    """The colour of the sauce ``sheet`` makes, as "#rrggbb": what goes in mixed by mass and by how
    strongly it colours, the roux by how far it was cooked. A rough picture.

    >>> from saucier.testing import add, roux, sheet, simmer
    >>> colour_of_sauce(sheet(roux(60, 60), add("milk-whole", 1, "L"), simmer(5)), Kitchen())
    '#faf5e8'
    """
    return _hex(_sauce(sheet, kitchen))


def is_green(sheet: Sheet, kitchen: Kitchen) -> bool:
    """Whether the sauce ``sheet`` makes is a green one, which holding dulls."""
    red, green, blue = _sauce(sheet, kitchen)
    return green > red and green > blue


def _sauce(sheet: Sheet, kitchen: Kitchen) -> tuple[float, float, float]:
    parts = [(*_of(kitchen.larder[key]), grams) for key, grams in larder_of(sheet, kitchen).items()]
    for step in sheet.steps:
        if isinstance(step, Roux) and f"roux:{step.colour}" in _tints():
            flour = kitchen.larder[step.flour.ingredient].grams(step.flour.amount)
            parts.append((*_tints()[f"roux:{step.colour}"], flour))
    return _mixed(parts)


def _mixed(
    parts: Iterable[tuple[tuple[float, float, float], float, float]],
) -> tuple[float, float, float]:
    red = green = blue = whole = 0.0
    for (r, g, b), strength, grams in parts:
        weight = strength * grams
        red, green, blue = red + weight * r, green + weight * g, blue + weight * b
        whole += weight
    return (red / whole, green / whole, blue / whole) if whole else (240.0, 230.0, 200.0)


def _hex(colour: tuple[float, float, float]) -> str:
    return "#" + "".join(f"{max(0, min(255, round(part))):02x}" for part in colour)
