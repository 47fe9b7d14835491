"""What this kitchen cooks: saved sauces and dishes to draw an evening from."""

import random
from typing import Any

Document = dict[str, Any]


def _of(key: str, value: float, unit: str = "g") -> Document:
    return {"ingredient": key, "amount": {"value": value, "unit": unit}}


def _roux(grams: float, colour: str = "white") -> Document:
    butter, flour = _of("butter-unsalted", grams), _of("wheat-flour", grams)
    minutes = {"white": 2, "blond": 4, "raw": 0}[colour]
    return {"op": "roux", "fat": butter, "flour": flour, "colour": colour, "minutes": minutes}


def _add(key: str, value: float, unit: str = "mL", celsius: float = 5.0) -> Document:
    return {"op": "add", **_of(key, value, unit), "temperature_c": celsius}


def _simmer(minutes: float) -> Document:
    return {"op": "simmer", "minutes": minutes, "heat": "simmer"}


def _salt(pct: float) -> Document:
    return {"op": "season", "ingredient": "salt", "amount": {"to_salt_pct": pct}}


def _sauce(name: str, family: str, grade: str, pct: float, *steps: Document) -> Document:
    return {
        "format": "kestrel-fog/sauce",
        "version": 1,
        "name": name,
        "family": family,
        "target": {"grade": grade, "salt_pct": pct},
        "steps": [*steps, _salt(pct)],
    }


SAUCES = {
    "white": _sauce(
        "Plain white sauce",
        "white-sauce",
        "nappe",
        0.8,
        _roux(64),
        _add("milk-whole", 1000),
        _simmer(6),
    ),
    "cheese": _sauce(
        "Alpine cheese sauce",
        "cheese-sauce",
        "binding",
        0.9,
        _roux(72),
        _add("milk-whole", 1000),
        _simmer(6),
        {"op": "melt", **_of("cheese-hard-alpine", 100), "heat": "off"},
    ),
    "veloute": _sauce(
        "Velouté of the day",
        "veloute",
        "nappe",
        0.8,
        _roux(66, "blond"),
        _add("stock-chicken", 1000, celsius=80),
        _simmer(10),
        _add("cream-35", 80),
    ),
    "fish-veloute": _sauce(
        "Fish velouté",
        "veloute",
        "light-coat",
        0.8,
        _roux(52, "blond"),
        _add("stock-fish", 1000, celsius=80),
        _simmer(10),
        _add("cream-35", 80),
    ),
    "mustard-cream": _sauce(
        "Mustard cream",
        "cream-reduction",
        "light-coat",
        0.8,
        _add("cream-35", 600),
        {"op": "reduce", "to": {"share": 0.6}, "heat": "lively"},
        {"op": "season", **_of("mustard-smooth", 15)},
    ),
    "wine-cream": _sauce(
        "White wine cream",
        "cream-with-roux",
        "light-coat",
        0.8,
        _add("wine-white-dry", 200, celsius=18),
        {"op": "reduce", "to": {"share": 0.3}, "heat": "rolling"},
        _add("stock-light", 400, celsius=60),
        _add("cream-35", 250),
        _roux(22, "raw"),
        _simmer(5),
    ),
}

_TRAY = {
    "name": "tray 30",
    "shape": "tray",
    "diameter_cm": 30,
    "width_cm": 20,
    "depth_cm": 6,
    "portions": 6,
}
_BAKED = {"vessel": _TRAY, "finish": "oven", "finish_minutes": 20, "plate_c": 65}


def _solid(key: str, grams: float, **more: Any) -> Document:
    return {"ingredient": key, "grams": grams, **more}


DISHES: dict[str, tuple[str, str, Document, list[Document], Document]] = {
    "cauliflower": (
        "Cauliflower gratin",
        "cheese",
        {"use": "enrobe", "per_ml": 0.5},
        [_solid("cauliflower", 180)],
        _BAKED,
    ),
    "leeks": (
        "Leeks in white sauce",
        "white",
        {"use": "nap"},
        [_solid("leek", 150), _solid("potato", 100)],
        {"plate_c": 58},
    ),
    "celeriac": (
        "Celeriac gratin",
        "white",
        {"use": "enrobe", "per_ml": 0.6, "grade": "binding"},
        [_solid("celeriac", 180)],
        _BAKED,
    ),
    "poultry": (
        "Poultry in velouté",
        "veloute",
        {"use": "nap"},
        [_solid("poultry-breast", 150), _solid("rice", 50, state="dry")],
        {"plate_c": 60},
    ),
    "hake": (
        "White fish in velouté",
        "fish-veloute",
        {"use": "nap"},
        [_solid("fish-white", 150), _solid("potato", 150)],
        {"plate_c": 58},
    ),
    "mustard-poultry": (
        "Poultry in mustard cream",
        "mustard-cream",
        {"use": "nap"},
        [_solid("poultry-breast", 150)],
        {"plate_c": 60},
    ),
    "wine-fish": (
        "White fish in wine cream",
        "wine-cream",
        {"use": "nap"},
        [_solid("fish-white", 150), _solid("leek", 80)],
        {"plate_c": 58},
    ),
}
"""By key: its name, its sauce, how that is used, what stands in it, the rest."""

EXCLUDED = ("gluten", "milk", "fish", "alcohol", "celery", "mustard")
"""What the one guest goes without, as the app is told it."""


def drawn(dice: random.Random) -> list[str]:
    """Three dishes of three sauces."""
    keys = list(DISHES)
    while True:
        chosen = dice.sample(keys, 3)
        if len({DISHES[key][1] for key in chosen}) == 3:
            return chosen


def dish_document(key: str, sauce_id: int) -> Document:
    name, _, use, solids, more = DISHES[key]
    sauces = [{"sauce": str(sauce_id), **use}]
    head = {"format": "kestrel-fog/dish", "version": 1, "name": name}
    return {**head, "sauces": sauces, "solids": solids, **more}
