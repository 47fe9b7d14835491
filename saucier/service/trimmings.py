"""What trimming leaves over, by kind, and the stock it makes: for this service first, else to put by."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from saucier import constants as K
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient
from saucier.words import Sentence, say

_STOCK_OF = {
    "shells": "stock-shellfish",
    "fish": "stock-fish",
    "poultry": "stock-chicken",
    "meat": "stock-veal",
    "greens": "stock-vegetable",
    "mushrooms": "stock-mushroom",
}
_NO_GOOD = (
    "cabbage",
    "beetroot",
    "chicory",
    "sprouts",
    "kale",
    "turnip",
    "broccoli",
    "cauliflower",
)
"""Trimmings that make a stock bitter, sulphurous or red: told, and thrown away."""


_WORTH_TELLING_G = 50.0


@dataclass(frozen=True, slots=True)
class Trimmings:
    """``grams`` of a ``kind`` left over, of ``names``; they make ``stock_ml`` of ``stock`` (a key, ''
    for what is no good for one), of which ``here_ml`` goes into this service."""

    kind: str
    grams: float
    names: tuple[str, ...]
    stock: str
    stock_ml: float
    here_ml: float
    words: Sentence


def trimmings_of(
    trimmed: Iterable[tuple[str, float]], used_g: Mapping[str, float], kitchen: Kitchen
) -> tuple[Trimmings, ...]:
    """Trimmings by kind. ``trimmed`` gives grams taken off each ingredient (bought less usable, both
    raw), ``used_g`` what the service uses of each, stocks among it."""
    larder = kitchen.larder
    by_kind: dict[str, dict[str, float]] = {}
    for key, grams in trimmed:
        kind = _kind(larder[key])
        if kind and grams >= _WORTH_TELLING_G:
            there = by_kind.setdefault(kind, {})
            there[key] = there.get(key, 0.0) + grams
    told = []
    for kind, rows in by_kind.items():
        grams = sum(rows.values())
        names = tuple(larder[key].spoken_name for key in rows)
        stock = _STOCK_OF.get(kind, "")
        stock = stock if stock in larder else ""
        ml = K.STOCK_ML_PER_G[kind] * grams if stock else 0.0
        if ml < K.STOCK_WORTH_ML:
            stock, ml = "", 0.0
        here = min(ml, used_g.get(stock, 0.0) / larder[stock].density) if stock else 0.0
        facts: dict[str, object] = {"names": names, "grams": grams, "ml": ml, "here_ml": here}
        facts["stock"] = larder[stock].spoken_name if stock else ""
        code = "no-stock" if not stock else "for-this" if here >= ml else "part" if here else "by"
        told.append(
            Trimmings(kind, grams, names, stock, ml, here, say(f"trimmings.{code}", **facts))
        )
    return tuple(sorted(told, key=lambda one: -one.grams))


def _kind(row: Ingredient) -> str:
    """What kind of trimmings a row leaves; '' for none worth telling."""
    if row.usable_share >= 1.0:
        return ""
    if "crustaceans" in row.animals:
        return "shells"
    if "fish" in row.animals:
        return "fish"
    if "poultry" in row.animals:
        return "poultry"
    if row.role == "meat":
        return "meat"
    if row.role not in ("aromatic", "vegetable", "solid", "herb") or row.animals:
        return ""
    if "mushroom" in row.key:
        return "mushrooms"
    return "scraps" if any(word in row.key for word in _NO_GOOD) else "greens"
