"""Services of the demo kitchen's dishes, real and random, for whoever times them."""

import json
import random
from functools import cache
from pathlib import Path

from saucier.dish import Dish, read_dish
from saucier.heat import Pan, Stove
from saucier.kitchen import Kitchen
from saucier.run_up import Cook, Means, Ring, gear_of
from saucier.service import Plan, Service, plan_service, read_service
from saucier.sheet import Sheet, SheetBurner, read_sheet

DEMO = Path(__file__).resolve().parents[3] / "demo"


@cache
def demo() -> tuple[dict[str, Dish], dict[str, Sheet], tuple[Pan, ...], dict[str, object]]:
    """Dishes, sauces, pans of the demo kitchen, and what else it says of itself."""

    def each(folder: str) -> dict[str, object]:
        return {p.stem: json.loads(p.read_text()) for p in sorted((DEMO / folder).glob("*.json"))}

    about = json.loads((DEMO / "kitchen.json").read_text())
    return (
        {key: read_dish(data) for key, data in each("dishes").items()},
        {key: read_sheet(data) for key, data in each("sauces").items()},
        tuple(Pan(**pan) for pan in about["pans"]),
        about,
    )


def demo_service(name: str) -> Service:
    return read_service(json.loads((DEMO / "services" / f"{name}.json").read_text()))


def kitchen() -> Kitchen:
    _, _, pans, _ = demo()
    return Kitchen(stove=Stove(burner_w=3500, efficiency=0.45), pans=pans)


def planned(service: Service) -> Plan:
    dishes, sheets, pans, _ = demo()
    return plan_service(service, dishes, sheets, kitchen(), list(pans))


def means(cooks: int = 2, rings: int = 4, **can: frozenset[str]) -> Means:
    """The demo kitchen with so many cooks and rings; ``can`` limits a cook to some skills."""
    _, _, pans, about = demo()
    names = [f"Cook {n + 1}" for n in range(cooks)]
    limits = dict(zip(names, can.values(), strict=False))
    return Means.of(
        cooks=[Cook(name, limits[name]) if name in limits else Cook(name) for name in names],
        rings=[
            Ring(b["name"], SheetBurner(watts=b["watts"]), b["takes_cm"]) for b in about["burners"]
        ][:rings],
        gear=[gear_of(**{"name": "", **gear}) for gear in about["gear"]],
        pans=pans,
    )


def random_service(seed: int) -> tuple[Plan, Means, float]:
    """Two to nine dishes of the demo kitchen, portions, sittings and brigade by chance; and over how many
    minutes it goes out."""
    chance = random.Random(seed)
    dishes, _, _, _ = demo()
    lines = []
    for key in chance.sample(sorted(dishes), chance.randint(2, 9)):
        line = {"dish": key, "portions": chance.choice([2, 4, 6, 8, 12, 16, 24])}
        if chance.random() < 0.25:
            line["sitting"] = 2
        lines.append(line)
    service = read_service(
        {"name": f"random {seed}", "serve_at": ["12:00", "13:15"], "lines": lines}
    )
    brigade = means(chance.randint(1, 4), chance.randint(2, 4))
    return planned(service), brigade, chance.choice([5.0, 10.0, 20.0])
