"""Services with guests made up by dice: every family of sauce, inner sauces, tubs on hand, forced shares."""

import random
from typing import Any

from saucier.dish import Dish, read_dish
from saucier.service import Service, read_service
from saucier.sheet import Sheet
from saucier.testing import add, grams, melt, reduce_to, roux, sheet, simmer, use

WORDS = (
    *("milk", "gluten", "egg", "fish", "crustaceans", "molluscs", "celery", "mustard", "sulphites"),
    *("soya", "nuts", "cheese", "meat", "wine", "vegetarian", "vegan", "alcohol", "pork"),
    *("raw yolk", "butter-unsalted", "nutmeg", "stock-chicken", "dairy", "no meat"),
)
FOODS = (
    *(
        "onion",
        "garlic",
        "leek",
        "carrot",
        "mushroom",
        "tomato",
        "potato",
        "ham",
        "butter",
        "bacon",
    ),
    *("thyme", "parsley", "bay-leaf", "peppercorns", "grapes", "vinegar", "lemon", "maize", "rice"),
    *(
        "oats",
        "wheat",
        "coconut",
        "chicken",
        "veal",
        "prawn",
        "crab",
        "trout",
        "turmeric",
        "capers",
    ),
    *("anchovy", "salt", "pepper", "pasta", "bread", "sugar-white", "clove", "shallot", "celeriac"),
    *("cauliflower", "tofu", "walnuts", "spelt", "allium", "cheese-semi-hard", "milk-soya", "roe"),
)
"""Single foods: keys of the larder and plain names its rows use."""
_FATS = (
    "butter-unsalted",
    "butter-unsalted",
    "oil-neutral",
    "fat-pork",
    "fat-duck",
    "spread-plant",
)
_LIQUIDS = (
    *("milk-whole", "milk-whole", "milk-soya", "milk-oat", "stock-vegetable", "stock-chicken"),
    *("stock-ham", "stock-light", "stock-fish", "stock-veal", "stock-mushroom", "stock-shellfish"),
)
_FLOURS = ("wheat-flour", "wheat-flour", "wheat-flour", "rice-flour", "flour-spelt")
_SOLIDS = (
    *("leek", "potato", "ham-cooked", "bacon-streaky", "fish-white", "prawns-peeled", "egg-boiled"),
    *("egg-whole", "pasta-fresh", "cauliflower", "tofu", "poultry-cooked", "walnuts"),
)
_TOPPINGS = ("breadcrumbs", "parmesan-style-hard", "cheese-plant-melting", "butter-unsalted")


def _roux(dice: random.Random) -> dict[str, Any]:
    flour = dice.uniform(35, 75)
    return {
        **roux(0, 0, dice.choice(["white", "white", "blond"])),
        "fat": {"ingredient": dice.choice(_FATS), "amount": grams(flour)},
        "flour": {"ingredient": dice.choice(_FLOURS), "amount": grams(flour)},
    }


def _enriched(dice: random.Random) -> list[dict[str, Any]]:
    steps: list[dict[str, Any]] = []
    if dice.random() < 0.3:
        steps.append(add(dice.choice(["cream-35", "cream-soya"]), dice.uniform(40, 200)))
    if dice.random() < 0.3:
        steps.append(melt(dice.choice(["cheese-semi-hard", "cheese-plant-melting"]), 90))
    if dice.random() < 0.25:
        yolk = {"ingredient": "egg-yolk", "amount": grams(dice.choice([18, 36, 54]))}
        cream = {"ingredient": dice.choice(["cream-35", "cream-oat"]), "amount": grams(90)}
        to_c = dice.choice([None, 60, 72, 80, 85])
        steps.append({"op": "liaison", "yolk": yolk, "cream": cream, "heat_to_c": to_c})
    if dice.random() < 0.3:
        what = dice.choice(
            ["nutmeg", "mustard-smooth", "anchovy", "capers", "celery-salt", "curry-powder"]
        )
        steps.append({"op": "finish", "ingredient": what, "amount": grams(3)})
    return steps


def _sauce(dice: random.Random, depth: int = 0) -> list[dict[str, Any]]:
    kind = dice.random()
    if kind < 0.6 or depth:
        steps = [_roux(dice), add(dice.choice(_LIQUIDS), 1, "L")]
        if dice.random() < 0.2:
            steps.append(add(dice.choice(_LIQUIDS), dice.uniform(100, 600), "mL"))
        return [*steps, simmer(dice.choice([4, 8])), *_enriched(dice)]
    if kind < 0.75:
        wet = [add("wine-white-dry", 120), reduce_to(share=0.5), add(dice.choice(_LIQUIDS), 150)]
        return [*wet, add("cream-35", 300), reduce_to(share=0.62), *_enriched(dice)]
    if kind < 0.85:
        meat = dice.choice(["bacon-streaky", "prawns-peeled", "guinea-fowl"])
        sear = {"op": "sear", "ingredient": meat, "amount": grams(200)}
        pan = [{**sear, "fat": {"ingredient": dice.choice(_FATS), "amount": grams(15)}}]
        pan += [
            {"op": "deglaze", "ingredient": "brandy", "amount": grams(40)},
            add("cream-35", 400),
        ]
        return [*pan, reduce_to(share=0.7), {"op": "return", "ingredient": meat}]
    inner = use(_sauce(dice, depth + 1), dice.choice([grams(200), {"share": 0.5}]))
    return [add("onion-puree", 300), simmer(2), inner]


def guest_service(dice: random.Random) -> tuple[Service, dict[str, Dish], dict[str, Sheet]]:
    """Two to six lines, most of them for guests."""
    sheets: dict[str, Sheet] = {}
    for number in range(dice.randint(1, 2)):
        grade = dice.choice(["light-coat", "nappe", "nappe", "binding", None])
        sheets[f"s{number}"] = sheet(*_sauce(dice), name=f"sauce {number}", target={"grade": grade})
    dishes: dict[str, Dish] = {}
    lines: list[dict[str, Any]] = []
    for number in range(dice.randint(1, 3)):
        uses = dice.sample(list(sheets), k=min(len(sheets), dice.choice([1, 1, 2])))
        dishes[f"d{number}"] = read_dish(
            {
                "name": f"dish {number}",
                "sauces": [{"sauce": key, "use": dice.choice(["nap", "over"])} for key in uses],
                "solids": [
                    {"ingredient": key, "grams": 80}
                    for key in dice.sample(_SOLIDS, k=dice.choice([0, 1, 2]))
                ],
                "toppings": [
                    {"ingredient": key, "grams": 8}
                    for key in dice.sample(_TOPPINGS, k=dice.choice([0, 0, 1]))
                ],
            }
        )
        line = {"dish": f"d{number}", "portions": dice.choice([1, 2, 8, 30])}
        lines.append(line)
        if dice.random() < 0.8:
            words = dice.sample(FOODS if dice.random() < 0.5 else WORDS, k=dice.choice([1, 1, 2]))
            lines.append({**line, "portions": dice.choice([1, 2, 5]), "without": words})
    entries: list[dict[str, Any]] = []
    if dice.random() < 0.5:
        tub = {"sauce": dice.choice(list(sheets)), "amount": "2 L", "age_days": 1}
        entries = [tub, {"roux": "white", "amount": "60 g"}]
    force = {key: dice.choice(["share", "share", "own", "thicken"]) for key in sheets}
    forced = force if dice.random() < 0.5 else {}
    document = {"name": "guests", "lines": lines, "on_hand": entries, "force": forced}
    return read_service(document), dishes, sheets
