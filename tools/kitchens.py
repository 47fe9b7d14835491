"""Simulated kitchens with truths the app cannot see: whether what is learned from their batches covers
those, and how much more often a grade is hit with it."""

import math
import random
import statistics
import sys
from collections import defaultdict
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, field, replace
from typing import Any

from saucier import constants as K
from saucier.check import check, prepare
from saucier.errors import BadInput
from saucier.heat import Heat, Pace
from saucier.kitchen import Kitchen, Strength
from saucier.learn import Estimate, Finished, Observed, estimate, learned_strength, observed
from saucier.sheet import Sheet, read_sheet
from saucier.solve import goal_of, rounded_for_kitchen, solve
from saucier.steps.step import Knobs
from saucier.thickness import GRADES, grade_of, log_viscosity_of
from saucier.watch import as_found

BATCHES = 30
ASKED = (0, 5, 10, 20, 30)
TRIED = 5
"""Sauces cooked with what was learned by then, beside the same with the usual figures."""
PANS = (
    ("saucepan 20", "straight", 20, 12),
    ("stewpan 24", "straight", 24, 14),
    ("sauté 24", "sloped", 24, 8),
)
FLOUR = "wheat-flour"
USUAL = Kitchen()
_PASTE = 60.0
"""What boiled to a paste, Pa·s: it missed its grade, and a spoon says no more of it."""


@dataclass
class Truth:
    """What nobody in the kitchen knows. ``trouble``: none, another flour, a pan that drifts, a pan that is
    written down for another."""

    dice: random.Random
    trouble: str
    pace: dict[str, float] = field(default_factory=dict)
    lively: float = 0.0
    flour: float = 0.0
    kinds: dict[str, float] = field(default_factory=dict)

    @classmethod
    def drawn(cls, seed: int) -> "Truth":
        dice = random.Random(f"kitchen {seed}")
        trouble = dice.choice(("none", "none", "flour", "drift", "mislabelled"))
        hob = dice.gauss(0.0, 0.2)
        return cls(
            dice,
            trouble,
            {pan[0]: hob + dice.gauss(0.0, 0.25) for pan in PANS},
            dice.gauss(0.0, 0.15),
            dice.gauss(0.0, 0.11),
            {kind: dice.gauss(0.0, 0.12) for kind in ("white", "velouté", "cheese")},
        )

    def goes_on(self, batch: int) -> None:
        """What changes from one batch to the next."""
        if self.trouble == "flour" and batch == 12:
            self.flour = self.dice.gauss(0.0, 0.11)
        if self.trouble == "drift":
            self.pace = {pan: log + 0.012 for pan, log in self.pace.items()}

    def log_pace(self, pan: str, heat: str) -> float:
        return self.pace[pan] + (self.lively if heat == "lively" else 0.0)


def sheet_of(dice: random.Random) -> tuple[str, Sheet]:
    """A sauce somebody wants: of some kind, so much, in some pan, to some grade."""
    kind = dice.choice(("white", "white", "velouté", "cheese"))
    litres = dice.choice((1.0, 1.0, 1.5, 2.0))
    pan = dice.choice(PANS)
    liquid = "stock-light" if kind == "velouté" else "milk-whole"

    def grams(key: str, value: float) -> dict[str, Any]:
        return {"ingredient": key, "amount": {"value": value, "unit": "g"}}

    steps: list[dict[str, Any]] = [
        {
            "op": "roux",
            "fat": grams("butter-unsalted", 60 * litres),
            "flour": grams(FLOUR, 60 * litres),
        },
        {"op": "add", "ingredient": liquid, "amount": {"value": litres, "unit": "L"}},
        {
            "op": "simmer",
            "minutes": dice.choice((8, 15, 25, 35)),
            "heat": dice.choice(("simmer", "simmer", "simmer", "lively")),
        },
    ]
    if kind == "cheese":
        steps.append({"op": "melt", **grams("cheese-hard-alpine", 100 * litres)})
    grade = dice.choice(("light-coat", "nappe", "nappe", "binding"))
    return kind, read_sheet(
        {
            "name": kind,
            "steps": steps,
            "target": {"grade": grade, "volume": {"value": litres, "unit": "L"}},
            "pan": {"name": pan[0], "shape": pan[1], "diameter_cm": pan[2], "depth_cm": pan[3]},
        }
    )


@dataclass
class Cooked:
    """How a batch came out in truth: grams, log η, the minutes its simmer took."""

    grams: float
    log_eta: float
    minutes: float


def cooked(sheet: Sheet, kind: str, truth: Truth) -> Cooked | None:
    """``sheet`` cooked in that kitchen: its pace and its flour, this day's, this hand's. None: it boiled
    dry."""
    dice, simmer = truth.dice, 2
    heat, pan = sheet.steps[simmer].heat, sheet.pan.name
    kitchen = USUAL.knowing({FLOUR: Strength(truth.flour, 0.0, 0.0)}, {})
    longer = math.exp(dice.gauss(0.0, 0.10))
    step = sheet.steps[simmer].model_copy(update={"minutes": sheet.steps[simmer].minutes * longer})
    steps = tuple(step if n == simmer else one for n, one in enumerate(sheet.steps))
    prepared = prepare(sheet.model_copy(update={"steps": steps}), kitchen)
    # Another form than the app's: the longer it simmers, the thicker its skin and the less leaves it.
    form = (step.minutes / 15.0) ** -0.06
    boil = math.exp(truth.log_pace(pan, heat) + dice.gauss(0.0, 0.09)) * form
    try:
        pots = list(prepared.walk(Knobs(boil=boil)))
    except BadInput:
        return None
    pot = as_found(pots[-1], pots[-1].total_g * math.exp(dice.gauss(0.0, 0.012)))
    found = log_viscosity_of(pot, 65.0)
    thick = math.log(_PASTE) if found is None else min(found[0], math.log(_PASTE))
    log_eta = thick + truth.kinds[kind] + dice.gauss(0.0, 0.2)
    took = pots[simmer].minutes - pots[simmer - 1].minutes + dice.gauss(0.0, 0.3)
    return Cooked(pot.total_g, log_eta, took)


def written_down(sheet: Sheet, came: Cooked, truth: Truth) -> Finished:
    """What the cook wrote of it: a scale, a spoon picked from pictures, and now and then nonsense."""
    dice = truth.dice
    grams = came.grams + dice.gauss(0.0, 0.5 + 0.003 * came.grams)
    seen = came.log_eta + dice.gauss(0.0, 0.25)
    third = math.log(GRADES[1].high / GRADES[1].low) / 3.0
    seen = round(seen / third) * third
    if dice.random() < 0.04:
        grams += dice.choice((1100.0, -200.0))  # the pan with it; a ladle already gone
    if dice.random() < 0.04:
        seen += dice.choice((-1.2, 1.2))
    if truth.trouble == "mislabelled" and dice.random() < 0.25:
        other = next(pan for pan in PANS if pan[0] != sheet.pan.name)
        named = {"name": other[0], "shape": other[1], "diameter_cm": other[2], "depth_cm": other[3]}
        sheet = sheet.model_copy(update={"pan": type(sheet.pan).model_validate(named)})
    return Finished(sheet, {2: came.minutes}, grams, math.exp(seen))


@dataclass
class Told:
    """What is said of a kitchen: after so many batches whether truths were covered (by kind, with the
    trouble it has), how far off, and how many of the tried sauces hit their grade, with and without."""

    trouble: str
    covered: dict[tuple[str, int], list[tuple[bool, float, float]]]
    hit: dict[int, list[tuple[bool, bool]]]
    off: dict[int, list[tuple[float, float]]]


def kitchen_of(seed: int) -> Told:
    """One kitchen, from its first batch to its last."""
    truth = Truth.drawn(seed)
    dice = random.Random(f"sauces {seed}")
    records: dict[tuple[str, str, str], list[Observed]] = defaultdict(list)
    told = Told(truth.trouble, defaultdict(list), defaultdict(list), defaultdict(list))
    for batch in range(BATCHES + 1):
        estimates = {key: estimate(seen, spread_of(key[0]), batch) for key, seen in records.items()}
        if batch in ASKED:
            _ask(told, batch, truth, estimates, dice)
        truth.goes_on(batch)
        kind, sheet = sheet_of(dice)
        planned = planned_in(sheet, known(estimates))
        came = None if planned is None else cooked(planned, kind, truth)
        if planned is None or came is None:
            continue
        for one in observed(written_down(planned, came, truth)):
            records[one.kind, one.of, one.at].append(replace(one.seen, day=batch))
    return told


def spread_of(kind: str) -> float:
    return K.LEARNED_PACE_SPREAD if kind == "pace" else K.LEARNED_STRENGTH_SPREAD


def known(estimates: dict[tuple[str, str, str], Estimate]) -> Kitchen:
    paces: dict[tuple[str, Heat], Pace] = {}
    strengths: dict[str, Strength] = {}
    for (kind, of, at), one in estimates.items():
        if kind == "pace":
            paces[of, at] = Pace(one.log, one.spread)
        else:
            strengths[of] = learned_strength(one)
    return USUAL.knowing(strengths, paces)


def planned_in(sheet: Sheet, kitchen: Kitchen) -> Sheet | None:
    """``sheet`` as that kitchen's app has it weighed out."""
    try:
        goal = goal_of(sheet)
        return rounded_for_kitchen(solve(sheet, goal, kitchen).sheet, goal, kitchen).sheet
    except BadInput:
        return None


def _ask(
    told: Told,
    batch: int,
    truth: Truth,
    estimates: dict[tuple[str, str, str], Estimate],
    dice: random.Random,
) -> None:
    for (kind, of, at), one in estimates.items():
        if one.n < 2:
            continue
        true = truth.log_pace(of, at) if kind == "pace" else truth.flour
        covered = abs(true - one.log) <= K.NINE_IN_TEN * one.spread
        told.covered[kind, batch].append((covered, abs(true - one.log), abs(true)))
    kitchen = known(estimates)
    for _ in range(TRIED):
        kind, sheet = sheet_of(dice)
        hits, offs = [], []
        now = truth.dice.getstate()
        for where in (USUAL, kitchen):
            truth.dice.setstate(now)  # the same day, the same hand
            planned = planned_in(sheet, where)
            came = None if planned is None else cooked(planned, kind, truth)
            if planned is None or came is None:
                break
            eta = math.exp(came.log_eta)
            hits.append(grade_of(eta) == sheet.target.grade)
            aimed = check(planned, where).final.thickness.viscosity_pa_s
            offs.append(abs(math.log(eta / aimed)))
        if len(hits) == 2:
            told.hit[batch].append((hits[0], hits[1]))
            told.off[batch].append((offs[0], offs[1]))


def main(many: int) -> None:
    with ProcessPoolExecutor() as pool:
        kitchens = list(pool.map(kitchen_of, range(many), chunksize=4))
    print(
        f"{many} simulated kitchens, {BATCHES} batches each; told to lie within nine times in ten"
    )
    for kind in ("pace", "strength"):
        for batch in ASKED[1:]:
            rows = [one for k in kitchens for one in k.covered[kind, batch]]
            by = {
                trouble: [
                    o for k in kitchens if k.trouble == trouble for o in k.covered[kind, batch]
                ]
                for trouble in ("none", "flour", "drift", "mislabelled")
            }
            share = {name: _percent([c for c, _, _ in some]) for name, some in by.items()}
            off = statistics.median(100 * off for _, off, _ in rows)
            before = statistics.median(100 * was for _, _, was in rows)
            print(
                f"{kind:9} after {batch:2}: covered {_percent([c for c, _, _ in rows])} of {len(rows)} "
                f"({', '.join(f'{name} {text}' for name, text in share.items())}); "
                f"off {off:.0f} %, before {before:.0f} % (median)"
            )
    for batch in ASKED:
        rows = [one for k in kitchens for one in k.hit[batch]]
        offs = [one for k in kitchens for one in k.off[batch]]
        print(
            f"grade hit after {batch:2}: {_percent([b for _, b in rows])}, with the usual figures "
            f"{_percent([a for a, _ in rows])}, of {len(rows)}; median off by a factor "
            f"{math.exp(statistics.median(b for _, b in offs)):.2f} against "
            f"{math.exp(statistics.median(a for a, _ in offs)):.2f}"
        )


def _percent(flags: list[bool]) -> str:
    return f"{100.0 * sum(flags) / len(flags):.0f} %" if flags else "none"


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else 200)
