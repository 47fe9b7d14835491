"""Services made up by dice, for the tests and for the bench."""

import random
from typing import Any

from saucier.dish import Dish, read_dish
from saucier.sheet import Sheet
from saucier.testing import add, melt, roux, sheet, simmer


def random_service(
    dice: random.Random, lines: int
) -> tuple[Any, dict[str, Dish], dict[str, Sheet]]:
    """Sauces on a handful of bases in any grade, dishes over them, any portions."""
    sheets: dict[str, Sheet] = {}
    for number in range(max(3, lines // 4)):
        liquid, per = dice.choice(
            [("milk-whole", 60), ("stock-vegetable", 66), ("stock-chicken", 62)]
        )
        steps = [
            roux(per, per, dice.choice(["white", "white", "blond"])),
            add(liquid, 1, "L"),
            simmer(dice.choice([4, 6, 10])),
        ]
        if dice.random() < 0.4:
            steps.append(add("cream-35", dice.choice([40, 80, 120])))
        if dice.random() < 0.3:
            steps.append(melt("cheese-semi-hard", dice.choice([60, 120])))
        steps.append({"op": "season", "ingredient": "salt", "amount": {"to_salt_pct": 0.8}})
        grade = dice.choice(["light-coat", "nappe", "nappe", "binding", "binding", "spreading"])
        sheets[f"s{number}"] = sheet(*steps, target={"grade": grade})
    dishes: dict[str, Dish] = {}
    rows = []
    for number in range(lines):
        uses = [{"sauce": dice.choice(list(sheets)), "use": dice.choice(["nap", "over", "pool"])}]
        if dice.random() < 0.3:
            uses.append({"sauce": dice.choice(list(sheets)), "use": "cordon"})
        dishes[f"d{number}"] = read_dish(
            {
                "name": f"dish {number}",
                "sauces": uses,
                "solids": [{"ingredient": "leek", "grams": 120}],
                "margin_pct": dice.choice([0, 5, 10]),
            }
        )
        rows.append({"dish": f"d{number}", "portions": dice.choice([3, 6, 10, 14, 25])})
    return {"lines": rows}, dishes, sheets
