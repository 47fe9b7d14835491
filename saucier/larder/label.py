"""A row of the larder from what is printed on a packet, without asking for water or casein."""

import math
import re
import unicodedata
from collections.abc import Container, Mapping
from dataclasses import dataclass

from saucier import constants as K
from saucier.errors import BadInput, Problem, problem
from saucier.larder.ingredient import ROLES, spoken_role
from saucier.larder.row import COLUMNS
from saucier.words import Sentence, say

PRINTED = ("fat", "carbohydrate", "sugars", "protein", "salt")
"""What every packet tells, g per 100 g."""
MAY_BE_PRINTED = ("fibre", "alcohol_vol")
"""What some tell besides: fibre, g per 100 g; alcohol, percent by volume."""
_STARCH_UNDER_PROTEIN = 3.0
_STARCH_POWER = 2.0
_SPREAD = 8.0


@dataclass(frozen=True, slots=True)
class _Kind:
    """What is so of nearly all of a role and is on no packet: where its ``protein`` counts (a column),
    ``ash`` and ``acid`` g per 100 g, ``density``, whether it stays a ``piece`` and the juice it gives,
    the ``body`` of its gel, and what it says it ``allergens`` by being it."""

    protein: str = "insoluble"
    ash: float = 1.0
    acid: float = 0.0
    density: float = 1.0
    piece: bool = False
    leak: float = 0.0
    body: float = 0.0
    allergens: str = ""


_PLAIN = _Kind()
_KINDS: dict[str, _Kind] = {
    "milk": _Kind("solids", 0.7, 0.15, 1.03, allergens="milk"),
    "cream": _Kind("solids", 0.5, 0.1, 1.0, allergens="milk"),
    "soft-cream": _Kind("solids", 0.7, 0.7, 1.01, body=5.0, allergens="milk"),
    "cheese": _Kind("thickening_protein", 1.7, 0.3, 1.07, allergens="milk"),
    "stock": _Kind("thickening_protein", 0.5, 0.1),
    "egg": _Kind("insoluble", 0.6, density=1.03, allergens="egg"),
    "fat": _Kind("solids", 0.1, density=0.915),
    "flour": _Kind(ash=0.5, density=0.55),
    "wine": _Kind("solids", 0.3, 0.55, 0.99, allergens="sulphites"),
    "spirit": _Kind("solids", 0.0, density=0.95),
    "juice": _Kind("solids", 0.4, 0.6, 1.04),
    "acid": _Kind("solids", 0.2, 5.0, 1.02),
    "salt": _Kind("solids", 0.3, density=1.2),
    "puree": _Kind(ash=0.6, acid=0.1, density=1.03, body=10.0),
    "aromatic": _Kind(ash=0.6, acid=0.1, density=0.95, piece=True, leak=15.0),
    "vegetable": _Kind(ash=0.7, acid=0.1, density=0.95, piece=True, leak=25.0),
    "solid": _Kind(ash=0.8, piece=True),
    "herb": _Kind(ash=1.5, density=0.5, piece=True),
    "spice": _Kind(ash=5.0, density=0.45),
    "nut": _Kind(ash=2.5, density=0.6, piece=True, allergens="nuts"),
    "fish": _Kind(ash=1.2, density=1.04, piece=True, leak=8.0, allergens="fish"),
    "seafood": _Kind(ash=1.5, density=1.03, piece=True, leak=15.0, allergens="crustaceans"),
    "meat": _Kind(ash=1.1, density=1.04, piece=True, leak=6.0),
}


@dataclass(frozen=True, slots=True)
class FromLabel:
    """The ``row`` as text, and what had to be taken for granted (``assumed``)."""

    row: dict[str, str]
    assumed: tuple[Sentence, ...]


def row_from_label(
    name: str, role: str, printed: Mapping[str, str], taken: Container[str] = ()
) -> FromLabel:
    """A row called ``name`` doing the work of ``role``, from the figures ``printed`` on its packet,
    g per 100 g; ``taken`` are keys there are already.

    Water is what is left to 100 g, less the ash such food has. Protein goes where that of its role
    goes: casein in cheese, gelatin in stock, dissolved in milk and cream, set in meat and fish; starch
    thickens in a flour alone. Raises :class:`BadInput` by field.

    >>> milk = row_from_label("Milk", "milk", dict(fat="3.6", carbohydrate="4.7", sugars="4.7",
    ...     protein="3.4", salt="0.1")).row
    >>> milk["water"], milk["solids"], milk["allergens"]
    ('87.5', '8.8', 'milk')
    """
    problems: list[Problem] = []
    figures = {field: _read(field, printed, problems) for field in (*PRINTED, *MAY_BE_PRINTED)}
    if not 1 <= len(name.strip()) <= 80:
        problems.append(problem("name", "name-is-empty-or-long"))
    if role not in ROLES:
        problems.append(problem("role", "is-none-of-these", shown=role[:40], known=ROLES))
    if figures["sugars"] > figures["carbohydrate"] and not problems:
        problems.append(
            problem("sugars", "more-sugars-than-carbohydrate", carbohydrate=figures["carbohydrate"])
        )
    together = sum(figures[f] for f in ("fat", "carbohydrate", "protein", "salt", "fibre"))
    if together > 100.0 + _CLOSES and not problems:
        problems.append(problem("fat", "label-adds-up-to-more", together_g=together))
    if problems:
        raise BadInput(*problems)
    kind = _KINDS.get(role, _PLAIN)
    columns = _parts(role, kind, figures, together)
    key = _key(name, taken)
    text = {
        "key": key,
        "name": name.strip(),
        "role": role,
        "allergens": _allergens(role, kind, figures),
        "origin": "label",
        "form": "piece" if kind.piece else "",
        "body_origin": "general" if kind.body else "",
    }
    told = {column: f"{value:.4g}" for column, value in columns.items() if value > 5e-5}
    row = {column: text.get(column, told.get(column, "")) for column in COLUMNS}
    return FromLabel(row, _assumed(role, kind, figures, columns))


_CLOSES = 2.0


def _parts(
    role: str, kind: _Kind, figures: Mapping[str, float], together: float
) -> dict[str, float]:
    """The columns of numbers."""
    starch = figures["carbohydrate"] - figures["sugars"]
    protein, fibre = figures["protein"], figures["fibre"]
    alcohol = figures["alcohol_vol"] * K.DENSITY_ALCOHOL / kind.density
    acid = kind.acid if role == "acid" else 0.0  # a vinegar's is on no packet
    ash = min(kind.ash, max(0.0, 100.0 - together))
    columns = {
        "fat": figures["fat"],
        "salt": figures["salt"],
        "solids": figures["sugars"] + ash + acid,
        "sugar": figures["sugars"],
        "alcohol": alcohol,
        "acid": kind.acid,
        "density": kind.density,
        "cup_density": kind.density,
        "spread_pct": _SPREAD,
        "leak_pct": kind.leak,
        "body": kind.body,
    }
    insoluble = fibre
    if role == "flour":
        # Dried to keep: what no packet tells of it is no water beyond that.
        left = 100.0 - K.WATER_OF_FLOUR - figures["fat"] - figures["salt"] - columns["solids"]
        columns["flour"] = max(0.0, left) / K.DRY_SHARE_OF_FLOUR
        columns["power"] = _STARCH_POWER if protein < _STARCH_UNDER_PROTEIN else 1.0
        insoluble = 0.0
    else:
        insoluble += starch
        if kind.protein == "insoluble":
            insoluble += protein
        else:
            columns[kind.protein] = columns.get(kind.protein, 0.0) + protein
    if role == "soft-cream":
        columns["boils_away_pct"] = 100.0
    columns["insoluble"] = insoluble
    left = 100.0 - together - ash - acid - alcohol
    columns["water"] = K.WATER_OF_FLOUR if role == "flour" else max(0.0, left)
    return columns


def _allergens(role: str, kind: _Kind, figures: Mapping[str, float]) -> str:
    if role == "flour":
        return "gluten" if figures["protein"] >= _STARCH_UNDER_PROTEIN else ""
    return kind.allergens


def _assumed(
    role: str, kind: _Kind, figures: Mapping[str, float], columns: Mapping[str, float]
) -> tuple[Sentence, ...]:
    code = "label.water-of-flour" if role == "flour" else "label.water"
    told = [say(code, water_g=columns["water"], ash_g=kind.ash)]
    if figures["protein"] > 0.0 and role != "flour":
        where = {"solids": "dissolved", "thickening_protein": "thickens"}
        code = where.get(kind.protein, "set")
        told.append(say(f"label.protein-{code}", role=spoken_role(role)))
    starch = figures["carbohydrate"] - figures["sugars"]
    if role != "flour" and starch >= 1.0:
        told.append(say("label.starch", starch_g=starch))
    if kind.body:
        told.append(say("label.body", body_g=kind.body))
    told.append(say("label.allergens"))
    return tuple(told)


def _key(name: str, taken: Container[str]) -> str:
    """A key of the name that is not taken yet."""
    folded = unicodedata.normalize("NFKD", name.lower())
    plain = "".join(sign for sign in folded if not unicodedata.combining(sign))
    bare = re.sub(r"[^a-z0-9]+", "-", plain).strip("-")[:50].strip("-") or "own"
    number, key = 2, bare
    while key in taken:
        key, number = f"{bare}-{number}", number + 1
    return key


def _read(field: str, printed: Mapping[str, str], problems: list[Problem]) -> float:
    text = str(printed.get(field) or "").strip().replace(",", ".").removesuffix("g").strip()
    text = text.removeprefix("<").strip()  # "<0.1 g" is as good as so little
    if not text:
        if field in PRINTED:
            problems.append(problem(field, "label-figure-is-missing"))
        return 0.0
    try:
        value = float(text)
    except ValueError:
        value = math.nan
    if not 0.0 <= value <= 100.0:
        problems.append(problem(field, "label-figure-is-no-number", text=text[:20]))
        return 0.0
    return value
