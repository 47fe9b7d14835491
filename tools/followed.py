"""Sheets with amounts by eye, cooked in truth by other physics and followed: how often the weight that is believed covers
the true one, and how wide it is against the doubt of what went in.

``python -m tools.followed [how many]``."""

import math
import random
import sys
from collections import defaultdict
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace
from typing import Any, NamedTuple

from saucier import constants as K
from saucier.check import check, hand_spread
from saucier.kitchen import Kitchen
from saucier.sheet import read_sheet
from saucier.units import SPOONS, Amount
from saucier.watch import PutIn, Seen, StepAsDone, as_put, follow
from standins.devices import Scale
from standins.pot import PotOnRing, Stuff, Truth
from tools.pots import pot_of

KITCHEN = Kitchen()
TICK_MIN = 0.1
LONGEST_MIN = 60.0
ASKED = (0.0, 0.35, 0.7, 1.0)
"""Shares of a boil at which it is asked what the pot weighs."""
POURED_OFF = 0.02
"""Standard share by which what is weighed or read off a jug is off in truth."""
MOST_COUNTED = 8.0
"""Who would count more of one measure takes a larger one."""
STOPPED_OFF = 0.04
"""Standard share by which a cook who stops by what is said stops too early or too late."""
LOOKS = ("nothing", "level", "gone", "spoon", "weighed", "scale")


class Believed(NamedTuple):
    """What was believed of a pot's weight, g, at one moment of one boil, and what it was in truth; ``doubt_g``: nine in
    ten of what went in, to either side. ``followed``: how it was looked at."""

    followed: str
    boil: int
    share: float
    low: float
    high: float
    true: float
    doubt_g: float

    @property
    def covers(self) -> bool:
        return self.low <= self.true <= self.high


@dataclass(frozen=True)
class Followed:
    """One sheet: the measures its amounts were written in, and what was believed on the way."""

    measures: tuple[str, ...]
    believed: tuple[Believed, ...]


class _Written:
    """A sheet as it is drawn: its steps, and the measures its amounts are written in."""

    def __init__(self, dice: random.Random) -> None:
        self.dice = dice
        self.steps: list[dict[str, Any]] = []
        self.measures: list[str] = []
        self.heat = dice.choice(("rolling", "rolling", "lively"))

    def some(self, key: str, grams: float) -> dict[str, Any]:
        """About so many grams of an ingredient, in any measure that fits it, or weighed."""
        row, dice = KITCHEN.larder[key], self.dice
        fits = [
            measure
            for measure in KITCHEN.measures
            if KITCHEN.measures.named(measure.name, row) is measure
            and (measure.of or (measure.unit == "mL" and row.wet) or measure.kind == "spoon")
        ]
        spoons = [unit for unit in SPOONS if row.role in K.BY_THE_SPOON]
        choice = dice.choice([None, *spoons, *fits, *fits])
        if choice is None:
            return {"value": round(grams), "unit": "g"}
        single = Amount(1.0, choice) if isinstance(choice, str) else choice.amount(1.0, row)
        count = round(2.0 * grams / row.grams(single)) / 2.0
        if not 0.5 <= count <= MOST_COUNTED:
            return {"value": round(grams), "unit": "g"}
        if isinstance(choice, str):
            self.measures.append(choice)
            return {"value": count, "unit": choice}
        self.measures.append(choice.name)
        amount = choice.amount(count, row)
        by = {"name": choice.name, "count": count, "spread_pct": 100.0 * choice.spread}
        return {"value": amount.value, "unit": amount.unit, "measure": by}

    def add(self, key: str, grams: float, **more: Any) -> None:
        self.steps.append({"op": "add", "ingredient": key, "amount": self.some(key, grams), **more})

    def reduce(self, share: float) -> None:
        stop = {"share": round(share, 2)}
        self.steps.append({"op": "reduce", "to": stop, "heat": self.heat})


def _drawn(dice: random.Random) -> _Written:
    """A sauce of one boil or two, with fat, pieces that stay or are taken out, and flour now and then."""
    made = _Written(dice)
    size = dice.choice((300.0, 500.0, 800.0))
    made.add(dice.choice(("butter-unsalted", "oil-neutral")), dice.uniform(10.0, 40.0))
    if dice.random() < 0.4:
        pieces = dice.choice(("bacon-streaky", "onion", "garlic", "celery"))
        grams = {"bacon-streaky": 100.0, "onion": 90.0, "garlic": 10.0, "celery": 80.0}[pieces]
        made.add(pieces, grams)
        made.steps[-1] |= {"op": "sweat", "minutes": dice.choice((4, 8))}
        if dice.random() < 0.6:
            made.steps.append({"op": "lift", "ingredient": pieces})
    floured = dice.random() < 0.4
    if floured:
        flour = {"ingredient": "wheat-flour", "amount": made.some("wheat-flour", 0.055 * size)}
        made.steps.append({"op": "dust", **flour})
    liquids = (
        ("stock-light", "milk-whole") if floured else ("wine-white-dry", "stock-light", "cream-35")
    )
    made.add(dice.choice(liquids), size)
    if dice.random() < 0.5:
        made.reduce(dice.uniform(0.5, 0.8))
        other = (
            ("stock-light", "milk-whole") if floured else ("cream-35", "cream-35", "stock-light")
        )
        made.add(dice.choice(other), dice.uniform(0.2, 0.5 if floured else 1.2) * size)
    made.reduce(dice.uniform(0.6, 0.85))
    return made


def _off(written: dict[str, Any], dice: random.Random) -> dict[tuple[int, str], PutIn]:
    """What went in, in truth: each amount as far off as hands are."""
    sheet = read_sheet(written)
    put = {}
    for number, step in enumerate(sheet.steps):
        for weighed in step.to_weigh(check(sheet, KITCHEN).settings[number]):
            amount = getattr(step, weighed.field)
            row = KITCHEN.larder[weighed.ingredient]
            spread = hand_spread(amount, row.role) or POURED_OFF
            grams = weighed.grams * math.exp(dice.gauss(0.0, spread))
            put[number, weighed.field] = PutIn(grams)
    return put


def of_sheet(seed: int) -> Followed | None:
    """One sheet cooked and followed; None where it cannot be cooked as it was drawn."""
    dice = random.Random(f"followed {seed}")
    drawn = _drawn(dice)
    width = dice.choice((20, 24))
    pan = {"shape": "straight", "diameter_cm": width, "depth_cm": 14, "tare_g": 1200}
    burner = {"kind": "gas", "watts": dice.choice((1800, 2500, 3500))}
    written = {"name": f"by eye {seed}", "steps": drawn.steps, "pan": pan, "burner": burner}
    sheet = read_sheet(written)
    planned = check(sheet, KITCHEN)
    put = _off(written, dice)
    true = check(as_put(written, put), KITCHEN)
    truth = replace(Truth.drawn(seed), poured=1.0, lid_min=0.0, turn_at_min=math.inf)
    followed = dice.choice(LOOKS)
    done = {number: StepAsDone(minutes=1.0) for number in range(len(sheet.steps))}
    believed: list[Believed] = []
    pot: PotOnRing | None = None
    boils = [number for number, step in enumerate(sheet.steps) if step.op == "reduce"]
    for boil, number in enumerate(boils):
        before = true.steps[number - 1].pot
        if pot is None:
            pot = pot_of(true, truth, number)
        else:
            _pour(pot, true, number, put)
        doubt = K.NINE_IN_TEN * _doubt_g(planned, number)
        step = sheet.steps[number]
        stop = step.stop.share * math.exp(dice.gauss(0.0, STOPPED_OFF))
        moments = _boiled(pot, stop, before.pieces_g)
        if moments is None:
            return None
        seen = list(_seen(dice, followed, moments))
        end = moments[-1].at_min
        for share in ASKED:
            now = share * end
            done[number] = StepAsDone([look for look in seen if look.at_min <= now], now)
            watched = follow(sheet, KITCHEN, number, done).watched
            if watched is None:
                return None
            true_g = min(moments, key=lambda moment: abs(moment.at_min - now)).grams
            mass = watched.mass_g
            believed.append(Believed(followed, boil, share, mass.low, mass.high, true_g, doubt))
    return Followed(tuple(drawn.measures), tuple(believed))


def _pour(pot: PotOnRing, true: Any, number: int, put: dict[tuple[int, str], PutIn]) -> None:
    """Into ``pot``, which has boiled down, what went in before its next boil."""
    grams = put[number - 1, "amount"].grams
    row = KITCHEN.larder[true.sheet.steps[number - 1].ingredient]
    per = row.per_gram
    was = pot.grams
    s = pot.stuff
    dry = 1.0 - per.water - per.fat - per.alcohol
    pot.stuff = Stuff(
        s.water + grams * per.water,
        s.fat + grams * per.fat,
        s.dry + grams * dry,
        s.alcohol + grams * per.alcohol,
        s.starch,
        s.bits,
    )
    pot.celsius = (was * pot.celsius + grams * 10.0) / (was + grams)
    pot.minutes, pot.boiling_since = 0.0, None


def _doubt_g(planned: Any, number: int) -> float:
    """The standard doubt of what has gone in before step ``number``, g: what was told by eye, and as far as jugs and
    scales are off. What boiled away takes its share of it along."""
    square = 0.0
    for at in range(number):
        step, setting = planned.sheet.steps[at], planned.settings[at]
        for weighed in step.to_weigh(setting):
            row = KITCHEN.larder[weighed.ingredient]
            spread = hand_spread(getattr(step, weighed.field), row.role)
            square += (spread * weighed.grams) ** 2
    total = planned.steps[number - 1].pot.total_g
    return math.sqrt(square + (K.POURED_SPREAD * total) ** 2)


class _Moment(NamedTuple):
    at_min: float
    grams: float
    level_mm: float
    eta: float
    shows_g: float
    boils: bool
    full_g: float


def _boiled(pot: PotOnRing, share: float, pieces_g: float) -> list[_Moment] | None:
    """``pot`` boiled until so much of its liquid is left; None where it takes too long."""
    full, moments = pot.grams, []
    scale = Scale(pot, 1)
    while pot.minutes < LONGEST_MIN:
        shows = scale.read()
        moments.append(
            _Moment(
                pot.minutes,
                pot.grams,
                pot.level_mm,
                pot.eta,
                math.nan if shows is None else shows,
                pot.boiling_since is not None,
                full,
            )
        )
        if pot.grams - pieces_g <= share * (full - pieces_g):
            return moments
        pot.run(TICK_MIN)
    return None


def _seen(dice: random.Random, followed: str, moments: list[_Moment]) -> Iterator[Seen]:
    """What is seen of a boil by somebody who ``followed`` it in that way, at times of their own."""
    if followed == "nothing":
        return
    if followed == "scale":
        for moment in moments[::2]:
            if math.isfinite(moment.shows_g):
                yield Seen(moment.at_min, "scale", moment.shows_g)
        return
    boiling = [moment for moment in moments if moment.boils]
    if not boiling:
        return
    yield Seen(boiling[0].at_min + dice.uniform(0.0, 0.3), "boils")
    eye = math.exp(dice.gauss(0.0, 0.05))
    for moment in sorted(dice.sample(boiling, min(len(boiling), dice.randint(1, 3)))):
        if followed == "weighed":
            grams = moment.grams + 1200.0 + dice.gauss(0.0, 5.0)
            yield Seen(moment.at_min, "scale", grams, by_hand=True)
        elif followed == "level":
            level = moment.level_mm * eye + dice.gauss(0.0, 1.5)
            yield Seen(moment.at_min, "level", max(0.5, level))
        elif followed == "gone":
            gone = 1.0 - moment.grams / moment.full_g * eye * math.exp(dice.gauss(0.0, 0.12))
            quarters = round(4.0 * gone) / 4.0  # a quarter, half, three quarters
            if 0.0 < quarters < 1.0 and abs(gone - quarters) < 0.06:
                yield Seen(moment.at_min, "gone", quarters)
        elif moment.eta > 0.03:
            eta = moment.eta * math.exp(dice.gauss(0.0, 0.3))
            yield Seen(moment.at_min, "spoon", min(300.0, eta))


def _tried(many: int) -> list[Followed]:
    with ProcessPoolExecutor() as pool:
        return [made for made in pool.map(of_sheet, range(many), chunksize=4) if made]


def main() -> None:
    many = int(sys.argv[1]) if len(sys.argv) > 1 else 300
    sheets = _tried(many)
    kinds = sorted({name for sheet in sheets for name in sheet.measures})
    print(f"{len(sheets)} of {many} sheets were cooked, with {len(kinds)} kinds of measure by eye:")
    print("  " + ", ".join(kinds))
    groups: dict[tuple[str, int, str], list[Believed]] = defaultdict(list)
    for sheet in sheets:
        for belief in sheet.believed:
            at = f"{belief.share:.0%}"
            for group in ((belief.followed, belief.boil, at), ("all", belief.boil, at)):
                groups[group].append(belief)
            groups["all", -1, "at all"].append(belief)
    print("followed by  boil    at      n   covers   width against doubt: middle, most")
    for (followed, boil, at), beliefs in sorted(groups.items()):
        covers = sum(belief.covers for belief in beliefs) / len(beliefs)
        widths = sorted((belief.high - belief.low) / 2.0 / belief.doubt_g for belief in beliefs)
        which = "all " if boil < 0 else f"{boil + 1}   "
        print(
            f"{followed:12} {which} {at:>6} {len(beliefs):6} {covers:8.0%} "
            f"{widths[len(widths) // 2]:18.2f} {widths[-1]:7.2f}"
        )


if __name__ == "__main__":
    main()
