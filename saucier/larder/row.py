"""A row of the larder as text, per 100 g: how it is kept, edited and exchanged."""

import math
import re
from collections.abc import Mapping

from saucier import constants as K
from saucier.errors import BadInput, Problem, problem
from saucier.heat import heat_capacity_j_per_k
from saucier.larder.ingredient import (
    ALLERGENS,
    ANIMALS,
    BODY_ORIGINS,
    ORIGINS,
    PLANT,
    ROLES,
    UNSAID,
    Ingredient,
)
from saucier.pot import Balance
from saucier.words import say

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

_LIMITS: dict[str, tuple[float, float, str]] = {
    **dict.fromkeys(PARTS, (0.0, 115.0, "g-per-100-g")),
    **dict.fromkeys(("acid", "sugar"), (0.0, 100.0, "g-per-100-g")),
    "density": (0.05, 3.0, "g-per-ml"),
    "cup_density": (0.05, 3.0, "g-per-ml"),
    "piece_g": (0.0, 20_000.0, "g-a-piece"),
    "power": (0.0, 5.0, "times-wheat-flour"),
    "price_per_kg": (0.0, 10_000.0, "money-per-kg"),
    "spread_pct": (0.0, 100.0, "percent"),
    "leak_pct": (0.0, 90.0, "percent-of-its-weight"),
    "falls_pct": (0.0, 95.0, "percent-of-its-weight"),
    "body": (0.0, 60.0, "g-of-flour"),
    "body_spread_pct": (0.0, 100.0, "percent"),
    "boils_away_pct": (0.0, 100.0, "percent-of-its-body"),
    "usable_pct": (1.0, 100.0, "percent-of-the-bought-weight"),
    "drained_pct": (5.0, 500.0, "percent-of-the-usable-weight"),
    "renders_pct": (0.0, 60.0, "percent-of-its-weight"),
    "thins_pct": (0.0, 90.0, "percent-of-its-thickening"),
    "smokes_c": (0.0, 300.0, "degrees-celsius"),
    "salt_min": (0.0, 500.0, "minutes"),
    "melts_c": (0.0, 100.0, "degrees-celsius"),
    "strings_c": (0.0, 100.0, "degrees-celsius"),
    "strength": (0.01, 200.0, "times-as-strong"),
    "pack_g": (0.0, 100_000.0, "g-a-pack"),
    "keeps_days": (0.0, 365.0, "days-in-the-fridge"),
}
"""Lowest and highest value of each number column, and what it is given in: a sentence of the catalogue."""
_WHEN_EMPTY = {
    "strength": 1.0,
    "usable_pct": 100.0,
    "drained_pct": 100.0,
    "body_spread_pct": K.BODY_SPREAD_PCT,
    "melts_c": K.CHEESE_MELTS_C,
    "strings_c": K.CHEESE_MAX_C,
}
COLUMNS = (
    "key",
    "name",
    "role",
    *PARTS,
    "acid",
    "sugar",
    "density",
    "cup_density",
    "piece_g",
    "power",
    "allergens",
    "animals",
    "price_per_kg",
    "origin",
    "spread_pct",
    "form",
    "leak_pct",
    "falls_pct",
    "body",
    "body_spread_pct",
    "boils_away_pct",
    "body_origin",
    "usable_pct",
    "drained_pct",
    "pack_g",
    "keeps_days",
    "renders_pct",
    "kin",
    "strength",
    "aliases",
    "of",
    "holds",
    "thins_pct",
    "smokes_c",
    "melts_c",
    "strings_c",
    "salt_min",
)
CLOSES_WITHIN = 2.0


def closing_sum(row: Mapping[str, float]) -> float:
    """What the parts of a row add up to, g per 100 g (should be 100 ± 2)."""
    return sum(
        row.get(part, 0.0) * (K.DRY_SHARE_OF_FLOUR if part == "flour" else 1.0) for part in PARTS
    )


def ingredient_from_row(row: Mapping[str, str]) -> Ingredient:
    """An ingredient from a row of text, per 100 g as in ``ingredients.csv``.

    What the parts leave open to 100 g is counted as insoluble, so that a pot weighs what was
    put in it. Raises :class:`BadInput` naming every column that is wrong.
    """
    problems: list[Problem] = []
    numbers = {column: _number(column, row, problems) for column in _LIMITS}
    key, name = (row.get("key") or "").strip(), (row.get("name") or "").strip()
    if not re.fullmatch(r"[a-z0-9]+(-[a-z0-9]+)*", key) or len(key) > 60:
        problems.append(problem("key", "key-is-no-key", key=key[:40]))
    if not 1 <= len(name) <= 80:
        problems.append(problem("name", "name-is-empty-or-long"))
    for column, known in (("role", ROLES), ("origin", ORIGINS), ("body_origin", BODY_ORIGINS)):
        if (row.get(column) or "") not in known:
            problems.append(
                problem(
                    column,
                    "is-none-of-these",
                    shown=(row.get(column) or "")[:40],
                    known=tuple(one for one in known if one),
                )
            )
    if (row.get("form") or "") not in ("", "piece"):
        problems.append(problem("form", "is-no-form"))
    allergens = frozenset((row.get("allergens") or "").replace(",", " ").split())
    if unknown := allergens - set(ALLERGENS):
        problems.append(
            problem(
                "allergens", "is-no-allergen", allergen=min(unknown), allergens=tuple(ALLERGENS)
            )
        )
    animals = frozenset((row.get("animals") or "").replace(",", " ").split())
    if odd := animals - {*ANIMALS, PLANT}:
        problems.append(
            problem("animals", "is-no-animal", word=min(odd), animals=(PLANT, *ANIMALS))
        )
    elif PLANT in animals and len(animals) > 1:
        problems.append(problem("animals", "is-plant-and-animal"))
    total = closing_sum(numbers)
    if abs(total - 100.0) > CLOSES_WITHIN and not problems:
        problems.append(
            problem(
                "composition",
                "does-not-close",
                key=key,
                total_g=total,
                within_g=CLOSES_WITHIN,
            )
        )
    if problems:
        raise BadInput(*problems)
    per_gram = {part: numbers[part] / 100.0 for part in PARTS}
    per_gram["insoluble"] += (100.0 - total) / 100.0
    power, body = numbers["power"], numbers["body"] / 100.0
    # Butter, oil and rendered fat come loose: they swim until something whisks them in.
    role = row["role"]
    loose = per_gram["fat"] if role == "fat" else 0.0
    balance = Balance(
        **per_gram,
        thickener=per_gram["flour"] * power,
        acid=numbers["acid"] / 100.0,
        sugar=numbers["sugar"] / 100.0,
        body=body,
        gel=body * numbers["boils_away_pct"] / 100.0,
        doubt=body * numbers["body_spread_pct"] / 100.0,
        butter=loose,
        loose=loose,
        cultured=body - body * numbers["boils_away_pct"] / 100.0 if role == "soft-cream" else 0.0,
    )
    return Ingredient(
        key=key,
        name=name,
        role=role,
        per_gram=balance,
        density=numbers["density"],
        cup_density=numbers["cup_density"],
        piece_g=numbers["piece_g"],
        power=power,
        allergens=allergens,
        price_per_kg=numbers["price_per_kg"],
        origin=row["origin"],
        spread_pct=numbers["spread_pct"],
        animals=_animals(animals, role, allergens),
        piece=row.get("form") == "piece",
        leak_share=numbers["leak_pct"] / 100.0,
        falls_share=numbers["falls_pct"] / 100.0,
        body_origin=row.get("body_origin") or "",
        heat_j_per_gk=heat_capacity_j_per_k(balance),
        usable_share=numbers["usable_pct"] / 100.0,
        drained_share=numbers["drained_pct"] / 100.0,
        pack_g=numbers["pack_g"],
        keeps_days=numbers["keeps_days"],
        renders_share=numbers["renders_pct"] / 100.0,
        kin=tuple((row.get("kin") or "").replace(",", " ").split()),
        strength=numbers["strength"],
        aliases=tuple(a.strip() for a in (row.get("aliases") or "").split(";") if a.strip()),
        of=_foods(row.get("of") or ""),
        holds=_holds(row.get("holds") or "", role),
        thins_share=numbers["thins_pct"] / 100.0,
        smokes_c=numbers["smokes_c"],
        melts_c=numbers["melts_c"],
        salt_min=numbers["salt_min"],
        strings_c=numbers["strings_c"],
    )


NOTHING = "-"
"""What a row says that holds nothing beside itself."""
_BY_THEMSELVES = (
    *("vegetable", "aromatic", "herb", "nut", "water", "egg", "milk", "cream", "fish", "seafood"),
    *("wine", "spirit", "flour", "salt"),
)
"""Roles of what usually is one food and nothing beside it, where the row does not say."""


def _holds(said: str, role: str) -> tuple[str, ...] | None:
    """What a row is made with; None: it does not say, and may be made of several things."""
    if said.strip() == NOTHING:
        return ()
    words = _foods(said)
    return words or (() if role in _BY_THEMSELVES else None)


def _foods(said: str) -> tuple[str, ...]:
    return tuple(said.lower().replace(",", " ").replace(";", " ").split())


_PLANTS = (
    "flour",
    "water",
    "wine",
    "spirit",
    "acid",
    "salt",
    "spice",
    "herb",
    "aromatic",
    "vegetable",
    "nut",
)
"""Roles that are of plants where nothing else is said."""


_USUALLY = {
    **dict.fromkeys(("milk", "cream", "soft-cream", "cheese"), ("milk",)),
    "egg": ("egg",),
    "fish": ("fish",),
    "seafood": ("crustaceans", "molluscs"),
    "meat": ("meat",),
}
"""What a role is of where neither the row nor its allergens tell: a cheese is of milk until it says plant."""


def _animals(said: frozenset[str], role: str, allergens: frozenset[str]) -> frozenset[str]:
    """What of animals is in a row: what it says, and what its allergens tell anyhow. Where neither
    does, what its role usually is of; of what may hold anything that is not said."""
    told = (said - {PLANT}) | (allergens & frozenset(ANIMALS))
    if said or told or role in _PLANTS:
        return told
    return frozenset(_USUALLY.get(role, (UNSAID,)))


def row_of(row: Ingredient) -> dict[str, str]:
    """``row`` as text again; :func:`ingredient_from_row` reads it back."""
    part = row.per_gram
    numbers = {name: 100.0 * getattr(part, name) for name in (*PARTS, "acid", "sugar")} | {
        "density": row.density,
        "cup_density": row.cup_density,
        "piece_g": row.piece_g,
        "power": row.power,
        "price_per_kg": row.price_per_kg,
        "spread_pct": row.spread_pct,
        "leak_pct": 100.0 * row.leak_share,
        "falls_pct": 100.0 * row.falls_share,
        "body": 100.0 * part.body,
        "body_spread_pct": 100.0 * part.doubt / part.body if part.body else 0.0,
        "boils_away_pct": 100.0 * part.gel / part.body if part.body else 0.0,
        "usable_pct": 100.0 * row.usable_share,
        "drained_pct": 100.0 * row.drained_share,
        "pack_g": row.pack_g,
        "keeps_days": row.keeps_days,
        "renders_pct": 100.0 * row.renders_share,
        "thins_pct": 100.0 * row.thins_share,
        "smokes_c": row.smokes_c,
        "salt_min": row.salt_min,
        "strength": 0.0 if row.strength == 1.0 else row.strength,
    }
    words = {
        "key": row.key,
        "name": row.name,
        "role": row.role,
        "allergens": " ".join(sorted(row.allergens)),
        "animals": " ".join(sorted(row.animals - {UNSAID}))
        or ("" if UNSAID in row.animals else PLANT),
        "origin": row.origin,
        "body_origin": row.body_origin,
        "form": "piece" if row.piece else "",
        "kin": " ".join(row.kin),
        "aliases": "; ".join(row.aliases),
        "of": " ".join(row.of),
        "holds": "" if row.holds is None else " ".join(row.holds) or NOTHING,
        # Nought is a figure here, and not one that is missing.
        "melts_c": "" if row.melts_c == K.CHEESE_MELTS_C else f"{row.melts_c:g}",
        "strings_c": "" if row.strings_c == K.CHEESE_MAX_C else f"{row.strings_c:g}",
    }
    told = {column: _told(value) for column, value in numbers.items()}
    return {column: words.get(column, told.get(column, "")) for column in COLUMNS}


def _told(value: float) -> str:
    """Six decimals at most; nothing for what is not there."""
    return f"{round(value, 6):g}" if abs(value) > 5e-7 else ""


def _number(column: str, row: Mapping[str, str], problems: list[Problem]) -> float:
    low, high, given_in = _LIMITS[column]
    text = row.get(column) or ""
    if not text and low <= 0.0:  # most of a row: what it has none of
        return _WHEN_EMPTY.get(column, 0.0)
    text = text.strip().replace(",", ".")
    if not text:
        if low > 0.0 and column not in _WHEN_EMPTY:
            problems.append(
                problem(column, "column-is-empty", given_in=say(f"given-in.{given_in}"))
            )
        return _WHEN_EMPTY.get(column, 0.0)
    try:
        value = float(text)
    except ValueError:
        value = math.nan
    if not math.isfinite(value):
        problems.append(
            problem(
                column, "column-is-no-number", text=text[:20], given_in=say(f"given-in.{given_in}")
            )
        )
        return 0.0
    # A balance rounded to 100 may leave a hair less than nothing.
    if not low - 0.01 <= value <= high and not (column == "insoluble" and value >= -CLOSES_WITHIN):
        problems.append(
            problem(
                column,
                "column-is-out-of-reach",
                value=value,
                low=low,
                high=high,
                given_in=say(f"given-in.{given_in}"),
            )
        )
        return 0.0
    return value
