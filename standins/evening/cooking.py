"""Two cooks at two rings, who do what the screen's data says, one thing at a time."""

import math
import random
from collections.abc import Callable, Generator
from dataclasses import dataclass, field
from typing import Any

import simpy

from standins.evening.app import App
from standins.evening.foods import FOODS, grams_of
from standins.evening.pots import GRADES, Pot, Tray, grade_of
from standins.evening.truth import CookTruth, Hidden

Steps = Generator[Any, Any, Any]
BY_HAND_MIN = 0.25
"""What a cook takes to put one thing in, at the usual speed."""
LOOKS_EVERY_MIN = 2.5
MOST_FIXES = 3
_LOWEST = dict(GRADES)
_PASTE = 60.0


@dataclass
class Cooked:
    """A batch as it truly was: minutes of the evening, and what its cook said of it when it was written down. ``task``: of the run-up, where it was one."""

    batch: int
    name: str
    task: str
    scale_g: float
    began_min: float
    done_min: float | None = None
    said_g: float = 0.0
    said_pa_s: float = 0.0
    mended: int = 0
    middles: list[tuple[float, float]] = field(default_factory=list)
    """What a probe was read at, by the minute: as its middle truly was, °C."""


@dataclass
class PutAway:
    """What was put away of a batch, as it truly was."""

    kept: int
    batch: int
    at_min: float
    grams: float
    scale_g: float
    tray: Tray


class Cook:
    """One pair of hands."""

    def __init__(self, env: simpy.Environment, truth: CookTruth) -> None:
        self.env, self.truth = env, truth
        self.hands = simpy.Resource(env, capacity=1)
        self.dice = random.Random(truth.seed)

    def busy(self, minutes: float) -> Steps:
        """So many minutes of the sheet, as long as they take this cook, once there is nothing else in hand."""
        with self.hands.request() as free:
            yield free
            yield self.env.timeout(minutes * self.truth.slower)

    def weighs(self, pot: Pot) -> int:
        """What the pot holds by this cook's scale, g."""
        return round(pot.grams + self.dice.gauss(0.0, self.truth.scale_g))

    def judges(self, pot: Pot, celsius: float) -> float:
        """How thick it looks on the spoon, Pa·s at ``celsius``; no spoon says more of a paste."""
        return min(_PASTE, pot.eta(celsius) * math.exp(self.dice.gauss(0.0, self.truth.eye)))


class Kitchen:
    """What stands in it, and what its screens show."""

    def __init__(
        self,
        env: simpy.Environment,
        app: App,
        hidden: Hidden,
        pans: dict[str, tuple[float, float]],
    ) -> None:
        self.env, self.app, self.hidden, self.pans = env, app, hidden, pans
        self.rings = tuple(hidden.rings)
        self.free_rings = simpy.Store(env)
        self.free_rings.items.extend(self.rings)
        self.cooks = {truth.name: Cook(env, truth) for truth in hidden.cooks}
        self.pots: dict[str, Pot] = {}
        self.called: dict[str, Pot] = {}
        """Pots of tonight by the name of what is in them."""
        self.kept_of: dict[int, Tray] = {}
        """What stands in the fridge of a sauce, by the sauce's number."""
        self.cooked: list[Cooked] = []
        self.put_away: list[PutAway] = []
        self.run_up: dict[str, Any] | None = None
        self.tell: Callable[[str], None] = lambda words: None
        self.dead_end: Callable[[str], None] = lambda words: None

    def now(self) -> None:
        """The app's clock is the kitchen's."""
        self.app.at(self.env.now)

    def mark(self, key: str, event: str) -> None:
        """A task of the run-up begun or over."""
        if self.run_up is None:
            return
        self.now()
        path = f"/run-ups/{self.run_up['id']}/mark"
        body = {"key": key, "what": event, "revision": self.run_up["revision"]}
        answer = self.app.ask("POST", path, body)
        if answer is not None:
            self.run_up = answer


class Cooking:
    """One batch, from its first card to what is written down of it."""

    def __init__(self, kitchen: Kitchen, cook: Cook, batch: dict[str, Any], task: str = "") -> None:
        self.kitchen, self.cook, self.batch = kitchen, cook, batch
        self.env, self.app = kitchen.env, kitchen.app
        self.id = batch["id"]
        scale_g = cook.truth.scale_g
        self.truth = Cooked(self.id, batch["name"], task, scale_g, kitchen.env.now)
        kitchen.cooked.append(self.truth)
        self.dice = random.Random(f"{kitchen.hidden.seed} pot {self.id}")

    def whole(self) -> Steps:
        """Cooked by its cards; the pot there is in the end."""
        width, tare = self.kitchen.pans[self.batch["pan"]]
        ring = yield self.kitchen.free_rings.get()
        self.pot = Pot(self.batch["pan"], width, tare, self.kitchen.hidden, ring)
        self.kitchen.called[self.batch["name"]] = self.pot
        through = yield from self._cooked()
        self.kitchen.free_rings.put(ring)
        if through:
            self._written_down()
        return self.pot

    def _cooked(self) -> Steps:
        """Card by card, and mended in the end; whether it came through."""
        while self.batch["step"] < len(self.batch["cards"]):
            at = self.batch["step"]
            yield from self._step(self.batch["cards"][at], self.batch["sheet"]["steps"][at])
            if not self._acted({"kind": "go", "from_step": at, "to_step": at + 1}):
                return False
        yield from self._mended()
        yield from self.cook.busy(0.5)
        return True

    def _acted(self, *acts: dict[str, Any]) -> bool:
        self.kitchen.now()
        batch = self.app.do(self.id, *acts)
        if batch is None:
            self.kitchen.dead_end(f"{self.batch['name']}: {acts[0]['kind']} is refused")
            return False
        self.batch = batch
        return True

    # -- a card

    def _step(self, card: dict[str, Any], step: dict[str, Any]) -> Steps:
        for weighed in card["weighed"]:
            yield from self.cook.busy(BY_HAND_MIN)
            self._put_in(weighed, step)
        if step["op"] == "season" and not card["weighed"]:
            return
        yield from self._heated(step, card.get("timer_s"))

    def _put_in(self, weighed: dict[str, Any], step: dict[str, Any]) -> None:
        off = self.dice.gauss(0.0, self.cook.truth.scale_g / 3.0)
        grams = max(0.0, weighed["grams"] + off)
        if not weighed["ingredient"]:  # a sauce: what stands made of it
            source = self._made(weighed["name"])
            if source is None:
                self.kitchen.dead_end(f"{self.batch['name']}: no {weighed['name']} to pour")
                return
            poured = source.take(grams)
            if poured.grams < 0.9 * weighed["grams"]:
                self.kitchen.tell(f"only {poured.grams:.0f} g of {weighed['name']} are left")
                self._says(weighed, poured.grams)
            self.pot.pour_in(poured)
            return
        if self.dice.random() < 0.1 and grams > 100.0:  # poured over, seen, and said
            grams *= self.dice.uniform(1.03, 1.12)
            self._says(weighed, grams)
        self.pot.put_in(weighed["ingredient"], grams, step.get("temperature_c") or 20.0)

    def _says(self, weighed: dict[str, Any], grams: float) -> None:
        """Says that so much went in."""
        put = {"kind": "put", "step": self.batch["step"], "field": weighed["field"]}
        self._acted({**put, "grams": round(grams, 1)})

    def _made(self, name: str) -> Pot | None:
        if self.batch["plan"]["keeps_until"] is not None:  # it came out of the fridge
            tray = self.kitchen.kept_of[self.batch["sauce_id"]]
            tray.to(self.env.now)
            return tray.pot
        pot = self.kitchen.called.get(name)
        return pot if pot is not self.pot else None

    def _heated(self, step: dict[str, Any], timer_s: float | None) -> Steps:
        op, minutes = step["op"], step.get("minutes") or 0.0
        if op == "reduce":
            yield from self._boiled_down(step)
        elif op in ("simmer", "sweat", "infuse"):
            yield from self._to_the_boil()
            self._acted({"kind": "timer-on", "name": "step", "seconds": round(60.0 * minutes) or 1})
            yield from self._on(minutes, step.get("heat", "simmer"))
        elif op == "roux" and step.get("colour") != "raw":
            yield from self._on(minutes, "bare-simmer")
        elif op in ("liaison", "reheat", "mend"):
            target = step.get("heat_to_c") or step.get("to_c") or 75.0
            yield self.env.timeout(self.pot.heat_to(float(target)))
            yield from self._read_middle()
        elif timer_s:
            yield from self._on(timer_s / 60.0, "off")

    def _on(self, minutes: float, how: str) -> Steps:
        yield self.env.timeout(minutes)
        self.pot.heat(minutes, how)

    def _to_the_boil(self) -> Steps:
        took = self.pot.heat_to(99.0)
        yield self.env.timeout(took)

    def _boiled_down(self, step: dict[str, Any]) -> Steps:
        """On the fire until the screen says that it is there, with looks at the scale on the way."""
        yield from self._to_the_boil()
        for _ in range(60):
            reads = self.cook.weighs(self.pot) + round(self.pot.tare_g)
            at = self.batch["step"]
            if not self._acted({"kind": "saw", "step": at, "what": "scale", "value": reads}):
                return
            watched = (self.batch["followed"] or {}).get("watched")
            left = (watched or {}).get("minutes_left")
            if watched is None or watched["past"] is not None or left is None:
                return
            if left["value"] <= 0.25:
                return
            yield from self._on(min(LOOKS_EVERY_MIN, left["value"]), step.get("heat", "lively"))
        self.kitchen.dead_end(f"{self.batch['name']}: never boiled down")

    def _read_middle(self) -> Steps:
        """What the screen asks of a probe, until it is as warm as it asks."""
        for _ in range(10):
            if not self.batch["reads_middle"]:
                return
            celsius = round(self.pot.celsius + self.dice.gauss(0.0, 0.4), 1)
            self.truth.middles.append((self.env.now, self.pot.celsius))
            saw = {"kind": "saw", "step": self.batch["step"], "what": "probe", "value": celsius}
            if not self._acted(saw) or self.batch["asks"] is None:
                return
            yield from self._on(0.5, "lively")

    # -- the end

    def _mended(self) -> Steps:
        """Judged on the spoon against what is wanted, and mended by what the screen offers."""
        target = self.batch["sheet"]["target"]
        wanted = target["grade"]
        serving_c = target["serving_c"] or 65.0
        for _ in range(MOST_FIXES):
            seen = self.cook.judges(self.pot, serving_c)
            at = self.batch["step"]
            if not self._acted({"kind": "saw", "step": at, "what": "spoon", "value": seen}):
                return
            if wanted is None or grade_of(seen) == wanted:
                return
            sign = "too-thin" if seen < _LOWEST.get(wanted, 0.0) else "too-thick"
            self.kitchen.now()
            answer = self.app.ask("POST", f"/stove/{self.id}/fix", {"sign": sign})
            ways = [way for way in (answer or {}).get("remedies", []) if not way["refused"]]
            way = next((way for way in ways if self._can(way["steps"])), None)
            if way is None:
                offered = [
                    way["refused"] or way["title"] for way in (answer or {}).get("remedies", [])
                ]
                self.kitchen.dead_end(
                    f"{self.batch['name']}: {sign}, and no way these cooks know of {offered}"
                )
                return
            self.kitchen.tell(f"{self.batch['name']} looks {seen:.2f} Pa·s: {way['title']}")
            for step in way["steps"]:
                yield from self._mending(step)
            words = {"sign": sign, "title": way["title"], "do": way["do"]}
            if not self._acted({"kind": "mended", **words, "steps": way["steps"]}):
                return
            self.truth.mended += 1

    def _can(self, steps: list[dict[str, Any]]) -> bool:
        """Whether this kitchen has what such steps take, and its cooks do them."""
        parts = [part for step in steps for part in (step, step.get("fat"), step.get("flour"))]
        keys = {part["ingredient"] for part in parts if part and part.get("ingredient")}
        known = all(step["op"] in ("add", "simmer", "reduce", "roux") for step in steps)
        return bool(steps) and known and keys <= FOODS.keys()

    def _mending(self, step: dict[str, Any]) -> Steps:
        yield from self.cook.busy(BY_HAND_MIN)
        for part in (step, step.get("fat"), step.get("flour")):
            if part and part.get("ingredient"):
                grams = grams_of(part["ingredient"], part["amount"])
                self.pot.put_in(part["ingredient"], grams, step.get("temperature_c") or 20.0)
        if step["op"] == "simmer":
            yield from self._to_the_boil()
            yield from self._on(step["minutes"], step["heat"])
        if step["op"] == "reduce":
            mass = (step["to"].get("mass") or {}).get("value")
            yield from self._to_the_boil()
            for _ in range(120):
                if mass is None or self.cook.weighs(self.pot) <= mass:
                    break
                yield from self._on(0.5, step["heat"])

    def _written_down(self) -> None:
        self.kitchen.now()
        serving_c = self.batch["sheet"]["target"]["serving_c"] or 65.0
        truth = self.truth
        truth.done_min = self.env.now
        truth.said_g = self.cook.weighs(self.pot)
        truth.said_pa_s = round(self.cook.judges(self.pot, serving_c), 4)
        entry = {
            "batch_id": self.id,
            "weighed": f"{truth.said_g} g",
            "reached_pa_s": truth.said_pa_s,
            "verdict": "again",
        }
        if self.app.ask("POST", "/journal", entry) is None:
            self.kitchen.dead_end(f"{self.batch['name']}: cannot be written down")
        self.kitchen.tell(
            f"{self.batch['name']}: {self.pot.grams:.0f} g, "
            f"{self.pot.eta(serving_c):.2f} Pa·s ({grade_of(self.pot.eta(serving_c))})"
        )
