"""An evening played: the day before a sauce is made ahead and put away, then a service of three dishes for twelve."""

import random
from collections.abc import Generator
from dataclasses import dataclass, field
from typing import Any

import simpy

from standins.evening.app import App
from standins.evening.cooking import Cook, Cooking, Kitchen, PutAway
from standins.evening.dishes import DISHES, EXCLUDED, SAUCES, dish_document, drawn
from standins.evening.foods import FOODS
from standins.evening.pots import Pot, Tray
from standins.evening.truth import Hidden

GUESTS = 12
DAY_MIN = 1440.0
BEGINS = 14 * 60.0
"""Two in the afternoon of the day before: minute 0."""
READ_EVERY_MIN = 10.0
_G_PER_ML = 1.04
_SHORT = 0.08
"""Share of a line's sauce that may be missing on the plate before it is said to be short."""
Steps = Generator[Any, Any, Any]

PANS = (("saucepan 16", 16, 9, 860), ("saucepan 20", 20, 11, 1240), ("pot 24", 24, 14, 1900))


@dataclass
class Plate:
    """What a line's guests got of one sauce: how thick it was in truth, which grade was wanted, and all that was in it."""

    line: str
    guests: float
    sauce: str
    wanted: str
    eta: float
    grams: float
    brings: frozenset[str]
    without: tuple[str, ...]


@dataclass
class Evening:
    """All that happened, as it truly did."""

    hidden: Hidden
    app: App
    kitchen: Kitchen
    dishes: list[str]
    excluded: str
    story: list[str] = field(default_factory=list)
    plates: list[Plate] = field(default_factory=list)
    dead_ends: list[str] = field(default_factory=list)
    unserved: list[str] = field(default_factory=list)
    """Lines that were refused and for which nothing was offered: their guest is told so."""
    short: list[str] = field(default_factory=list)
    """Lines that got less sauce than they were to."""

    def tell(self, words: str) -> None:
        minute = BEGINS + self.app.minute
        day, minute = divmod(minute, DAY_MIN)
        self.story.append(f"{int(day)} {int(minute) // 60:02}:{int(minute) % 60:02}  {words}")


def play(seed: int, app: App) -> Evening:
    """The evening of ``seed``, in a kitchen that is empty before."""
    hidden = Hidden.drawn(seed)
    dice = random.Random(f"what is cooked {seed}")
    env = simpy.Environment()
    kitchen = Kitchen(env, app, hidden, {name: (cm, tare) for name, cm, _, tare in PANS})
    evening = Evening(hidden, app, kitchen, drawn(dice), dice.choice(EXCLUDED))
    kitchen.tell, kitchen.dead_end = evening.tell, evening.dead_ends.append
    env.process(_Evening(evening, dice).whole())
    env.run()
    return evening


class _Evening:
    def __init__(self, evening: Evening, dice: random.Random) -> None:
        self.evening, self.dice = evening, dice
        self.kitchen, self.app = evening.kitchen, evening.app
        self.env = self.kitchen.env
        self.sauces: dict[str, int] = {}
        self.plan: dict[str, Any] = {}
        self.service: dict[str, Any] = {}
        self.over: dict[str, simpy.Event] = {}
        self.made_of: dict[str, dict[str, Any]] = {}
        self.names: dict[str, str] = {}

    def whole(self) -> Steps:
        self._set_up()
        ahead = self.dice.choice([DISHES[key][1] for key in self.evening.dishes])
        self.evening.tell(
            f"tonight: {', '.join(DISHES[key][0] for key in self.evening.dishes)}; "
            f"one guest goes without {self.evening.excluded}; ahead: {SAUCES[ahead]['name']}"
        )
        yield from self._ahead(ahead)
        yield self.env.timeout(max(0.0, DAY_MIN - BEGINS + 15 * 60.0 - self.env.now))
        self.kitchen.now()
        if not self._written():
            return
        yield from self._cook_service()

    # -- the day before

    def _set_up(self) -> None:
        app, kitchen = self.app, self.kitchen
        kitchen.now()
        for name, cm, depth, tare in PANS:
            pan = {"name": name, "diameter_cm": cm, "depth_cm": depth, "tare_g": tare}
            app.ask("POST", "/larder/pans", pan)
        tray = {"name": "tray 30", "shape": "tray", "diameter_cm": 30, "width_cm": 20}
        app.ask("POST", "/larder/pans", {**tray, "depth_cm": 6, "tare_g": 700, "count": 4})
        for name in kitchen.rings:
            app.ask("POST", "/larder/burners", {"name": name, "kind": "gas", "watts": 2500})
        for gear in ("oven", "boiling-pot", "frying-pan"):
            app.ask("POST", "/larder/gear", {"kind": gear})
        for cook in kitchen.cooks.values():
            app.ask("POST", "/larder/cooks", {"name": cook.truth.name})
        for key in (DISHES[dish][1] for dish in self.evening.dishes):
            self.sauces[key] = app.needed("POST", "/sauces", {"sheet": SAUCES[key]})["id"]

    def _ahead(self, key: str) -> Steps:
        """A sauce made and put away, with a probe in its tray."""
        app, kitchen = self.app, self.kitchen
        made = app.ask("POST", "/stove", {"sauce_id": self.sauces[key]})
        if made is None:
            return
        cook = kitchen.cooks["Tove"]
        pot = yield from Cooking(kitchen, cook, made).whole()
        place = self.dice.choice(("ice-stirred", "ice-stirred", "ice-bath", "blast"))
        weighed = cook.weighs(pot)
        kept = app.ask(
            "POST",
            "/keeping",
            {
                "batch_id": made["id"],
                "grams": f"{weighed} g",
                "tray": "tray 30",
                "trays": 1,
                "place": place,
                "key": "put-away-1",
            },
        )
        self.evening.tell(f"{weighed} g of it put away, {place}, at {pot.celsius:.0f} °C")
        tray = Tray(pot, place, self.evening.hidden, self.env.now)
        probe = app.ask("POST", "/devices", {"name": "probe", "kind": "probe", "simulated": True})
        if kept is None or probe is None:
            return
        kept_truth = PutAway(
            kept["id"], made["id"], self.env.now, pot.grams, cook.truth.scale_g, tray
        )
        kitchen.put_away.append(kept_truth)
        in_tray = {"batch_id": made["id"], "kept_key": kept["key"], "tray": 1}
        app.ask("PUT", f"/devices/{probe['id']}", in_tray)
        for _ in range(18):
            reads = round(tray.to(self.env.now) + self.dice.gauss(0.0, 0.3), 1)
            kitchen.now()
            at = app.moment.isoformat()
            app.ask("POST", "/readings", [{"temperature_c": reads, "at": at}], probe["token"])
            yield self.env.timeout(READ_EVERY_MIN)
        app.ask("PUT", f"/devices/{probe['id']}", {"batch_id": None})
        tray.place = "fridge"
        kitchen.kept_of[self.sauces[key]] = tray

    # -- the service

    def _written(self) -> bool:
        """The service written as its screen leads to it: lines, what each refusal offers, what is in the fridge."""
        app = self.app
        lines: list[dict[str, Any]] = []
        for key in self.evening.dishes:
            document = dish_document(key, self.sauces[DISHES[key][1]])
            dish = app.needed("POST", "/dishes", {"document": document})
            self.made_of[str(dish["id"])] = document
            line = {"dish": str(dish["id"])}
            lines.append({**line, "portions": GUESTS - 1})
            lines.append({**line, "portions": 1, "without": [self.evening.excluded]})
        date = self.app.moment.date().isoformat()
        document = {
            "format": "kestrel-fog/service",
            "version": 1,
            "name": "Evening",
            "date": date,
            "serve_at": ["19:00"],
            "lines": lines,
        }
        document["on_hand"] = [
            {
                "sauce": str(kept["sauce_id"]),
                "amount": {"value": int(kept["left_g"]), "unit": "g"},
                "age_days": kept["age_days"],
                "viscosity_pa_s": kept["viscosity_pa_s"],
            }
            for kept in app.ask("GET", "/keeping") or []
            if kept["sauce_id"] is not None
            and kept["state"] != "over"
            and not (kept["brings"] or kept["lacks"])  # the screen offers only what is that sauce
        ]
        for _ in range(6):
            worked = app.ask("POST", "/services/work", {"document": document})
            if worked is None:
                self.evening.dead_ends.append("the service cannot be worked out")
                return False
            refused = [line for line in worked["plan"]["lines"] if line["refused"]]
            if not refused:
                break
            for line in refused:
                offers = (
                    offer
                    for offer in line["offers"]
                    if set(offer["swaps"].values()) <= FOODS.keys()
                )
                offer = next(offers, None)
                at = lines[line["number"]]
                if offer is None:
                    self.evening.unserved.append(f"{line['called']}")
                    at["portions"] = 0
                    continue
                self.evening.tell(f"{line['called']}: {offer['words']}")
                at["swaps"] = {**at.get("swaps", {}), **offer["swaps"]}
            lines[:] = [line for line in lines if line["portions"]]
        saved = app.ask("POST", "/services", {"document": document})
        if saved is None:
            self.evening.dead_ends.append("the service cannot be saved")
            return False
        self.service, self.plan = saved, worked["plan"]
        return True

    def _cook_service(self) -> Steps:
        app, kitchen = self.app, self.kitchen
        run_up = app.ask("POST", "/run-ups", {"service_id": self.service["id"]})
        app.planned()
        run_up = app.ask("GET", f"/run-ups/{run_up['id']}")
        if run_up is None or run_up["planned"] is None:
            self.evening.dead_ends.append("the run-up has no plan")
            return
        kitchen.run_up = run_up
        lines = [
            (sheet["cook"], line)
            for sheet in run_up["planned"]["sheets"]
            for line in sheet["lines"]
        ]
        blocks = [block for day in run_up["planned"]["days"] for block in day["blocks"]]
        self.over = {block["key"]: self.env.event() for block in blocks}
        for block in blocks:
            mine = [(cook, line) for cook, line in lines if line["job"] == block["key"]]
            self.env.process(self._task(block, mine))
        yield self.env.all_of(list(self.over.values()))

    def _from_midnight(self) -> float:
        return self.env.now + BEGINS - DAY_MIN

    def _task(self, block: dict[str, Any], lines: list[tuple[str, dict[str, Any]]]) -> Steps:
        """A task of the plan: not before its time, and not before what it waits for is over."""
        yield self.env.all_of([self.over[key] for key in block["after"] if key in self.over])
        yield self.env.timeout(max(0.0, block["start"] - self._from_midnight()))
        key, kitchen = block["key"], self.kitchen
        names = [name for name, _ in lines] or block["cooks"]
        cook = kitchen.cooks[names[0]] if names else next(iter(kitchen.cooks.values()))
        if block["kind"] == "pot":
            yield from self._pot(block, cook)
        else:
            yield from self._work(block, lines)
        if block["kind"] in ("plate", "carry"):
            self._served(block)
        self.over[key].succeed()

    def _work(self, block: dict[str, Any], lines: list[tuple[str, dict[str, Any]]]) -> Steps:
        """What is no sauce: hands at the moments its sheet says, and the time between."""
        kitchen = self.kitchen
        rings = [thing for thing in block["things"] if thing["pool"] == "ring"]
        ring = (yield kitchen.free_rings.get()) if rings else None
        began, first = self.env.now, block["start"]
        for name, line in sorted(lines, key=lambda pair: pair[1]["at"]):
            yield self.env.timeout(max(0.0, began + line["at"] - first - self.env.now))
            yield from kitchen.cooks[name].busy(line["minutes"])
        yield self.env.timeout(max(0.0, began + block["end"] - first - self.env.now))
        if ring is not None:
            kitchen.free_rings.put(ring)
        kitchen.mark(block["key"], "over")

    def _pot(self, block: dict[str, Any], cook: Cook) -> Steps:
        kitchen, app = self.kitchen, self.app
        kitchen.now()
        service = self.service["id"]
        if block["key"].startswith("warm:"):
            begun = app.ask("POST", f"/keeping/for-service/{service}", {"task": block["key"]})
            batch = None if begun is None else app.ask("GET", f"/stove/{begun['batch_id']}")
        else:
            pot = block["key"].removeprefix("pot:").partition("#")[0]
            batch = app.ask("POST", f"/stove/of-service/{service}", {"pot": pot})
        if batch is None:
            self.evening.dead_ends.append(f"{block['name']} cannot be begun")
            return
        key = block["key"].removeprefix("pot:").partition("#")[0]
        kitchen.pots[key] = yield from Cooking(kitchen, cook, batch, block["key"]).whole()

    # -- the plate

    def _served(self, block: dict[str, Any]) -> None:
        lines = {line["number"]: line for line in self.plan["lines"]}
        branches = {branch["key"]: branch for branch in self.plan["branches"]}
        for number in block["lines"]:
            line = lines[number]
            for need, key in zip(line["needs"], line["branches"], strict=False):
                self._plate(line, branches[key], need["volume_ml"])

    def _plate(self, line: dict[str, Any], branch: dict[str, Any], wanted_ml: float) -> None:
        """What the line takes of its sauce: first what was warmed of it, where the plan counts on that, then what was
        made."""
        serving_c = branch["final"]["serving_c"]
        solids = self._beside(line)
        left_g = wanted_ml * _G_PER_ML
        for pot in self._pots_of(branch):
            portion = pot.take(left_g)
            if portion.grams < 1.0:
                continue
            left_g -= portion.grams
            plate = Plate(
                line["called"],
                line["line"]["portions"],
                branch["name"],
                branch["grade"],
                portion.eta(serving_c),
                portion.grams,
                portion.brings() | solids,
                tuple(line["line"]["without"]),
            )
            self.evening.plates.append(plate)
            self.evening.tell(
                f"served: {plate.line}, {plate.grams:.0f} g of {plate.sauce}, {plate.eta:.2f} Pa·s"
            )
        if left_g > _SHORT * wanted_ml:
            self.evening.short.append(f"{line['called']}: {left_g:.0f} g of {branch['name']}")

    def _pots_of(self, branch: dict[str, Any]) -> list[Pot]:
        pots = self.kitchen.pots
        warmed = [pots[key] for key in pots if key.startswith(f"warm:{branch['sauce']}:")]
        made = pots.get(branch["key"]) or pots.get(branch["pot"])
        first = warmed if branch["from_stock_ml"] > 0.0 else []
        return [*first, *([made] if made is not None else [])]

    def _beside(self, line: dict[str, Any]) -> frozenset[str]:
        """What stands on the plate beside the sauce, as the line says that it is served."""
        dish = self.made_of[line["line"]["dish"]]
        swaps, left_out = line["line"]["swaps"], line["left_out"]
        solids = [solid["ingredient"] for solid in dish["solids"]]
        served = [key for key in solids if f"no {self._called(key)}" not in left_out]
        return frozenset[str]().union(*(FOODS[swaps.get(key, key)].brings for key in served))

    def _called(self, key: str) -> str:
        """What the app calls a food within a sentence."""
        if key not in self.names:
            row = self.app.needed("GET", f"/larder/ingredients/{key}")["row"]
            self.names[key] = row["name"][0].lower() + row["name"][1:]
        return self.names[key]
