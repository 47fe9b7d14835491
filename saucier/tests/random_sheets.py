"""Random sheets: any steps in any order, and sauces a cook would write."""

import math
import random
from typing import Any

from saucier.larder import shipped_larder
from saucier.sheet import Sheet
from saucier.testing import grams, sheet
from saucier.thickness import GRADES

LARDER = list(shipped_larder().values())
PIECES = [row.key for row in LARDER if row.piece]
FATS = [row.key for row in LARDER if row.role == "fat"]
FLOURS = [row.key for row in LARDER if row.role == "flour"]
LIQUIDS = [r.key for r in LARDER if r.role in ("milk", "cream", "stock", "water", "wine", "spirit")]
CREAMS = ["cream-18", "cream-35", "cream-48", "creme-fraiche-30"]
HEATS = ["bare-simmer", "simmer", "lively", "rolling"]
PANS = [
    None,
    {"diameter_cm": 20},
    {"diameter_cm": 28, "shape": "sloped", "depth_cm": 9},
    {"diameter_cm": 26, "shape": "bowl", "depth_cm": 12, "reactive": True},
]


def _mass(dice: random.Random, low: float = 1.0, high: float = 2000.0) -> dict[str, Any]:
    return grams(round(math.exp(dice.uniform(math.log(low), math.log(high))), 2))


def _of(dice: random.Random, keys: list[str], *size: float) -> dict[str, Any]:
    return {"ingredient": dice.choice(keys), "amount": _mass(dice, *size)}


def random_stop(dice: random.Random) -> Any:
    kind = dice.choice(["share", "mass", "volume", "grade", "minutes", "taste", "dry", "to-taste"])
    if kind == "dry":
        return "nearly-dry"
    if kind == "to-taste":
        return kind
    return {
        kind: {
            "share": round(dice.uniform(0.005, 1.0), 3),
            "taste": round(dice.uniform(0.1, 1.0), 3),
            "mass": _mass(dice),
            "volume": {"value": dice.uniform(1, 2000), "unit": "mL"},
            "grade": dice.choice(GRADES).key,
            "minutes": dice.uniform(0, 60),
        }[kind]
    }


def random_step(dice: random.Random, depth: int = 0) -> dict[str, Any]:
    """One step of any kind, with any ingredient its field takes."""
    anything = [row.key for row in LARDER]
    op = dice.choice(
        [
            "start",
            "sear",
            "add",
            "add",
            "add",
            "roux",
            "dust",
            "sweat",
            "deglaze",
            "flame",
            "simmer",
            "simmer",
            "reduce",
            "reduce",
            "infuse",
            "strain",
            "lift",
            "melt",
            "liaison",
            "mount",
            "finish",
            "return",
            "use",
            "blend",
            "mend",
            "season",
            "reserve",
            "cool",
            "hold",
            "reheat",
        ]
    )
    step: dict[str, Any] = {"op": op}
    if op in ("add", "finish", "deglaze", "season", "melt", "mend", "mount", "dust"):
        step |= _of(dice, anything)
    elif op in ("sweat", "infuse", "return", "sear"):
        step |= _of(dice, PIECES if dice.random() < 0.9 else anything, 1, 500)
    if op == "start":
        step |= {"fat": _of(dice, FATS, 1, 200), "juices": _of(dice, ["pan-juices"], 1, 200)}
    elif op == "roux":
        step |= {
            "fat": _of(dice, FATS, 1, 300),
            "flour": _of(dice, FLOURS, 1, 300),
            "colour": dice.choice(["raw", "white", "blond", "brown", "dark"]),
        }
    elif op == "simmer":
        step |= {"minutes": dice.uniform(0, 90), "heat": dice.choice(HEATS)}
    elif op == "reduce":
        step |= {"to": random_stop(dice), "heat": dice.choice(HEATS)}
        if dice.random() < 0.3:
            step["minutes"] = dice.uniform(0, 40)
    elif op == "liaison":
        step |= {
            "yolk": {"ingredient": "egg-yolk", "amount": {"value": 2, "unit": "piece"}},
            "cream": _of(dice, [*CREAMS, "butter-unsalted"], 5, 300),
            "heat_to_c": dice.choice([None, 70, 80, 90]),
        }
    elif op == "return" and dice.random() < 0.4:
        step.pop("amount")
    if op == "return":
        step["how"] = dice.choice(["raw", "seared", "cooked"])
    elif op == "sear" and dice.random() < 0.7:
        step["fat"] = _of(dice, FATS, 1, 80)
    elif op == "use":
        inner = [random_step(dice, depth + 1) for _ in range(dice.randint(1, 4))]
        much = dice.choice([_mass(dice, 5, 900), {"share": dice.uniform(0.05, 1)}, "all", "half"])
        step |= {"sauce": {"name": "inner", "steps": inner}, "amount": much}
        step["ready"] = dice.random() < 0.2
        if depth > 1:
            return {"op": "flame"}
    elif op in ("lift", "blend") and dice.random() < 0.5:
        step["ingredient"] = dice.choice(PIECES)
    elif op == "season" and dice.random() < 0.6:
        step = {"op": op, "amount": {"to_salt_pct": dice.uniform(0, 3)}}
    elif op == "reserve":
        step["share"] = dice.uniform(0.01, 0.9)
    elif op == "cool":
        step["to_c"] = dice.uniform(0, 90)
    elif op == "hold":
        step |= {"minutes": dice.uniform(0, 200), "covered": dice.random() < 0.5}
    elif op == "reheat":
        step["to_c"] = dice.uniform(40, 100)
    return step


def any_sheet(dice: random.Random) -> Sheet:
    """Any steps in any order."""
    steps = [random_step(dice) for _ in range(dice.randint(1, 12))]
    pan = dice.choice(PANS)
    target = {"salt_pct": 0.8, "serving_c": dice.choice([20, 50, 65, 85])}
    return sheet(*steps, target=target, **({"pan": pan} if pan else {}))


def a_sauce(dice: random.Random) -> Sheet:
    """A sauce as a cook would write it: aromatics, wine, a liquid with or without a roux, cream, a
    reduction, cheese, butter, food put back; of any size and richness, turned ones too."""
    steps: list[dict[str, Any]] = []
    size = math.exp(dice.uniform(math.log(150), math.log(5000)))
    if dice.random() < 0.4:
        steps.append({"op": "add", **_of(dice, FATS, 0.01 * size, 0.1 * size)})
        steps.append({"op": "sweat", **_of(dice, ["shallot", "onion", "leek"], 10, 0.2 * size)})
    roux = dice.random() < 0.4
    if roux:
        fat, flour = (_of(dice, k, 0.02 * size, 0.1 * size) for k in (["butter-unsalted"], FLOURS))
        steps.append({"op": "roux", "fat": fat, "flour": flour})
    if dice.random() < 0.5:
        steps.append({"op": "add", **_of(dice, ["wine-white-dry", "brandy"], 20, 0.4 * size)})
        if not roux:
            steps.append({"op": "reduce", "to": dice.choice(["nearly-dry", {"share": 0.5}])})
    if roux or dice.random() < 0.6:
        keys = ["milk-whole", "stock-chicken", "stock-light"]
        steps.append({"op": "add", **_of(dice, keys, 0.3 * size, size)})
    if dice.random() < 0.7 or not roux:
        steps.append({"op": "add", **_of(dice, CREAMS, 0.1 * size, size)})
    if roux:
        steps.append({"op": "simmer", "minutes": dice.uniform(2, 8), "heat": "bare-simmer"})
    if not roux or dice.random() < 0.3:
        steps.append({"op": "reduce", "to": {"share": round(dice.uniform(0.3, 0.95), 3)}})
    if dice.random() < 0.3:
        steps.append({"op": "melt", **_of(dice, ["parmesan-style-hard", "cheese-blue"], 5, 80)})
    if dice.random() < 0.3:
        steps.append({"op": "return", **_of(dice, ["prawns-peeled", "scallops"], 20, 300)})
    if dice.random() < 0.2:
        steps.append({"op": "mount", "amount": _mass(dice, 5, 120)})
    return sheet(*steps)
