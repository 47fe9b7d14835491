"""An ingredient, and the shipped larder read from ``ingredients.csv`` (one line each)."""

import csv
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from difflib import get_close_matches
from functools import lru_cache
from pathlib import Path

from saucier import constants as K
from saucier.errors import BadInput
from saucier.heat import heat_capacity_j_per_k
from saucier.pot import Balance
from saucier.units import Amount, Dimension, kitchen_round

ALLERGENS = (
    "gluten",
    "crustaceans",
    "molluscs",
    "fish",
    "egg",
    "milk",
    "celery",
    "mustard",
    "sulphites",
    "soya",
    "nuts",
    "peanut",
    "sesame",
    "lupin",
)

# Where a row's figures come from: general knowledge of food composition, the label such a
# product usually carries, or a mass balance of what goes into it.
ORIGINS = {
    "general": "general knowledge",
    "label": "typical label",
    "balance": "mass balance",
}


@dataclass(frozen=True, slots=True)
class Ingredient:
    """One row of the larder.

    ``per_gram`` is the balance of one gram. ``density`` (g/mL) serves weights and jugs,
    ``cup_density`` (g/mL) spoons and cups, where packing matters. ``piece_g`` is the weight
    of one piece, 0 where it is not counted. ``power`` is the thickening of a gram of it as
    flour against wheat. ``spread_pct`` says how far such products differ from the row.
    ``piece``: it stays a piece in the sauce, apart from it, and gives back ``leak_share`` of its
    weight as juice over a few minutes' heat. ``heat_j_per_gk`` is its heat capacity, J/(g·K).
    """

    key: str
    name: str
    role: str
    per_gram: Balance
    density: float
    cup_density: float
    piece_g: float
    power: float
    allergens: frozenset[str]
    price_per_kg: float
    origin: str
    spread_pct: float
    piece: bool = False
    leak_share: float = 0.0
    heat_j_per_gk: float = 0.0

    @property
    def spoken_name(self) -> str:
        """The name as it runs in a sentence: "butter" for "Butter, unsalted"."""
        short = self.name.partition(",")[0]
        return short[:1].lower() + short[1:]

    @property
    def wet(self) -> bool:
        return self.per_gram.water >= K.WET_INGREDIENT

    def grams(self, amount: Amount) -> float:
        """Grams in ``amount``. Raises :class:`BadInput` (field ``unit``) for pieces of what is
        not counted.

        >>> shipped_larder()["milk-whole"].grams(Amount(1, "L"))
        1030.0
        """
        if amount.dimension is Dimension.WEIGHT:
            return amount.base
        if amount.dimension is Dimension.VOLUME:
            spooned = amount.unit in ("tsp", "tbsp", "cup")
            return amount.base * (self.cup_density if spooned else self.density)
        if not self.piece_g:
            raise BadInput.at(
                "unit", f"{self.name} is not counted in pieces", "Give a weight or a volume"
            )
        return amount.base * self.piece_g

    def amount_of(self, grams: float, like: Amount) -> Amount:
        """``grams`` of this in the unit of ``like``."""
        return like.times(grams / self.grams(like))

    def in_spoons(self, grams: float) -> Amount | None:
        """``grams`` in the spoon or cup that suits it, rounded; None where none is useful."""
        ml = grams / self.cup_density
        if self.piece_g and grams >= 0.75 * self.piece_g:
            return kitchen_round(Amount(grams / self.piece_g, "piece"))
        if ml < 1.0 or ml > 2400.0:
            return None
        unit, size = ("tsp", 5.0) if ml < 15.0 else ("tbsp", 15.0) if ml < 60.0 else ("cup", 240.0)
        return kitchen_round(Amount(ml / size, unit))


class Larder(Mapping[str, Ingredient]):
    """Ingredients by key. Looking up what is not there raises :class:`BadInput` with the
    nearest keys."""

    def __init__(self, rows: Iterable[Ingredient]) -> None:
        self._rows = {row.key: row for row in rows}

    def __getitem__(self, key: str) -> Ingredient:
        try:
            return self._rows[key]
        except KeyError:
            near = get_close_matches(key, self._rows, n=3, cutoff=0.5)
            raise BadInput.at(
                "ingredient",
                f"“{key[:60]}” is not in the larder",
                f"Did you mean {' or '.join(near)}?" if near else "Pick one from the larder",
            ) from None

    def __iter__(self):  # type: ignore[no-untyped-def]
        return iter(self._rows)

    def __len__(self) -> int:
        return len(self._rows)

    def __contains__(self, key: object) -> bool:
        return key in self._rows


PARTS = (
    "water",
    "fat",
    "flour",
    "thickening_protein",
    "yolk_protein",
    "solids",
    "salt",
    "alcohol",
    "insoluble",
)
"""Columns that close to 100 g, flour counting its dry share only."""


def closing_sum(row: Mapping[str, float]) -> float:
    """What the parts of a row add up to, g per 100 g (should be 100 ± 2)."""
    return sum(
        row.get(part, 0.0) * (K.DRY_SHARE_OF_FLOUR if part == "flour" else 1.0) for part in PARTS
    )


def ingredient_from_row(row: Mapping[str, str]) -> Ingredient:
    """An ingredient from a row of text, per 100 g as in ``ingredients.csv``.

    What the parts leave open to 100 g is counted as insoluble, so that a pot weighs what was
    put in it. Raises :class:`BadInput` naming the column.
    """
    numbers: dict[str, float] = {}
    for column in (*PARTS, *_OTHER_NUMBERS):
        text = (row.get(column) or "").strip()
        try:
            numbers[column] = float(text) if text else 0.0
        except ValueError:
            raise BadInput.at(
                column, f"“{text[:20]}” is not a number", "Give grams per 100 g"
            ) from None
    total = closing_sum(numbers)
    if abs(total - 100.0) > 2.0:
        raise BadInput.at(
            "composition",
            f"{row.get('key')} adds up to {total:.1f} g",
            "It should close to 100 ± 2 g",
        )
    per_gram = {part: numbers[part] / 100.0 for part in PARTS}
    per_gram["insoluble"] += (100.0 - total) / 100.0
    power = numbers["power"]
    allergens = frozenset((row.get("allergens") or "").split())
    unknown = allergens - set(ALLERGENS)
    if unknown:
        raise BadInput.at(
            "allergens", f"{min(unknown)} is not on the list", f"Use {', '.join(ALLERGENS)}"
        )
    balance = Balance(
        **per_gram,
        thickener=per_gram["flour"] * power,
        acid=numbers["acid"] / 100.0,
        sugar=numbers["sugar"] / 100.0,
    )
    return Ingredient(
        key=row["key"],
        name=row["name"],
        role=row["role"],
        per_gram=balance,
        density=numbers["density"],
        cup_density=numbers["cup_density"],
        piece_g=numbers["piece_g"],
        power=power,
        allergens=allergens,
        price_per_kg=numbers["price_per_kg"],
        origin=row["origin"],
        spread_pct=numbers["spread_pct"],
        piece=row.get("form") == "piece",
        leak_share=numbers["leak_pct"] / 100.0,
        heat_j_per_gk=heat_capacity_j_per_k(balance),
    )


_OTHER_NUMBERS = (
    "acid",
    "sugar",
    "density",
    "cup_density",
    "piece_g",
    "power",
    "price_per_kg",
    "spread_pct",
    "leak_pct",
)


@lru_cache(maxsize=1)
def shipped_larder() -> Larder:
    """The larder that comes with Kestrel Fog."""
    with Path(__file__).with_name("ingredients.csv").open(encoding="utf-8", newline="") as file:
        return Larder([ingredient_from_row(row) for row in csv.DictReader(file)])
