"""What food is made of, in truth: round figures of their own, not the app's."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Food:
    """Shares of the weight; ``starch`` as wheat flour of the usual strength would bind; ``brings``: what a guest may have
    to go without; ``ml`` that a gram takes up."""

    water: float = 0.0
    fat: float = 0.0
    dry: float = 0.0
    alcohol: float = 0.0
    starch: float = 0.0
    salt: float = 0.0
    curd: float = 0.0
    brings: frozenset[str] = frozenset()
    ml: float = 1.0


def _food(brings: str = "", **shares: float) -> Food:
    return Food(brings=frozenset(brings.split()), **shares)


FOODS = {
    "butter-unsalted": _food("milk", water=0.16, fat=0.82, dry=0.02, ml=1.08),
    "spread-plant": _food(water=0.28, fat=0.70, dry=0.02, salt=0.005, ml=1.06),
    "oil-neutral": _food(fat=1.0, ml=1.09),
    "wheat-flour": _food("gluten", starch=1.0, ml=1.7),
    "rice-flour": _food(starch=1.1, ml=1.6),
    "rice-flour-waxy": _food(starch=1.3, ml=1.6),
    "corn-starch": _food(starch=2.0, ml=1.8),
    "potato-starch": _food(starch=2.2, ml=1.5),
    "milk-whole": _food("milk", water=0.875, fat=0.036, dry=0.088, salt=0.001, ml=0.97),
    "milk-lactose-free": _food("milk", water=0.875, fat=0.036, dry=0.088, salt=0.001, ml=0.97),
    "milk-rice": _food(water=0.89, fat=0.01, dry=0.099, salt=0.001, ml=0.98),
    "milk-oat": _food("gluten", water=0.905, fat=0.028, dry=0.065, salt=0.001, ml=0.98),
    "milk-soya": _food("soya", water=0.90, fat=0.020, dry=0.078, salt=0.001, ml=0.97),
    "cream-35": _food("milk", water=0.585, fat=0.35, dry=0.064, salt=0.001, ml=1.01),
    "stock-light": _food(water=0.972, dry=0.025, salt=0.003),
    "stock-vegetable": _food("celery", water=0.975, dry=0.021, salt=0.004),
    "stock-chicken": _food(water=0.965, fat=0.003, dry=0.029, salt=0.003),
    "stock-fish": _food("fish", water=0.972, dry=0.025, salt=0.003),
    "wine-white-dry": _food("alcohol sulphites", water=0.88, alcohol=0.095, dry=0.025, ml=1.01),
    "cheese-hard-alpine": _food("milk", water=0.36, fat=0.33, dry=0.295, salt=0.015, curd=1.0),
    "egg-yolk": _food("egg", water=0.50, fat=0.31, dry=0.19),
    "mustard-smooth": _food("mustard", water=0.75, fat=0.05, dry=0.15, salt=0.05),
    "salt": _food(salt=1.0, ml=0.8),
    "lemon-juice": _food(water=0.92, dry=0.08),
    "nutmeg": _food(dry=1.0, ml=2.0),
    "water": _food(water=1.0),
    "fish-white": _food("fish"),
    "poultry-breast": _food("meat"),
    "cauliflower": _food(),
    "potato": _food(),
    "leek": _food(),
    "celeriac": _food("celery"),
    "barley-pearl": _food("gluten"),
    "rice": _food(),
    "egg-whole": _food("egg"),
}

PER_UNIT_ML = {"mL": 1.0, "L": 1000.0, "tsp": 5.0, "tbsp": 15.0, "cup": 250.0}
PER_UNIT_G = {"g": 1.0, "kg": 1000.0}
PIECE_G = {"egg-yolk": 18.0}


def grams_of(key: str, amount: dict[str, object]) -> float:
    """Grams of an amount as it stands in a step. Raises KeyError for what this kitchen does not have."""
    value, unit = float(str(amount["value"])), str(amount["unit"])
    if unit in PER_UNIT_G:
        return value * PER_UNIT_G[unit]
    if unit == "piece":
        return value * PIECE_G[key]
    return value * PER_UNIT_ML[unit] / FOODS[key].ml
