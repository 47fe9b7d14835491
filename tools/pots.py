"""Reductions as they go in truth, followed with readings, with looks alone, and with nothing: how far
"minutes left" is off, and how often the end lay where it was said to lie."""

import math
import random
import statistics
import sys
from collections import defaultdict
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace
from typing import Any

from saucier.check import CheckedSheet, check
from saucier.sheet import read_sheet
from saucier.thickness import grade_named
from saucier.thinning import thinned
from saucier.watch import Guess, Seen, watch
from standins.devices import Scale
from standins.pot import PotOnRing, Stuff, Truth

ASKED = (0.25, 0.5, 0.75)
EVERY_S = 5.0
MOST_READINGS = 160  # as a kitchen's server thins them
LONGEST_MIN = 90.0


@dataclass(frozen=True)
class Said:
    """What was said at one moment: minutes left with its edges, and what was true."""

    followed: str
    at: float
    value: float
    low: float
    high: float
    true: float


def sheet_of(dice: random.Random) -> tuple[CheckedSheet, str, float]:
    """A reduction of some kind in some pan, checked; what it stops by, and where."""
    pan = dice.choice(
        (("straight", 20, 10), ("straight", 24, 10), ("sloped", 24, 8), ("sloped", 28, 8))
    )
    ml = dice.choice((300, 500, 800, 1200)) * (pan[1] / 22.0) ** 2
    kind = dice.choice(("cream", "cream", "wine-cream", "stock", "veloute"))
    g = {"unit": "g"}
    steps: list[dict[str, Any]]
    if kind == "cream":
        steps = [{"op": "add", "ingredient": "cream-35", "amount": {"value": ml, **g}}]
        stops = (
            {"share": dice.uniform(0.55, 0.75)},
            {"grade": dice.choice(("light-coat", "nappe"))},
        )
    elif kind == "wine-cream":
        steps = [
            {"op": "add", "ingredient": "wine-white-dry", "amount": {"value": 0.3 * ml, **g}},
            {"op": "add", "ingredient": "cream-35", "amount": {"value": 0.7 * ml, **g}},
        ]
        stops = ({"share": dice.uniform(0.45, 0.7)}, {"grade": "light-coat"})
    elif kind == "stock":
        steps = [{"op": "add", "ingredient": "stock-light", "amount": {"value": 1.6 * ml, **g}}]
        stops = ({"share": dice.uniform(0.25, 0.6)},)
    else:
        roux = 0.045 * ml
        steps = [
            {
                "op": "roux",
                "fat": {"ingredient": "butter-unsalted", "amount": {"value": roux, **g}},
                "flour": {"ingredient": "wheat-flour", "amount": {"value": roux, **g}},
            },
            {"op": "add", "ingredient": "stock-light", "amount": {"value": ml, **g}},
        ]
        stops = ({"share": dice.uniform(0.7, 0.9)}, {"grade": "nappe"})
    stop = dice.choice(stops)
    heat = dice.choice(("rolling", "rolling", "lively"))
    document = {
        "name": kind,
        "steps": [*steps, {"op": "reduce", "to": stop, "heat": heat}],
        "pan": {"shape": pan[0], "diameter_cm": pan[1], "depth_cm": pan[2], "tare_g": 1200},
        "burner": {"kind": "gas", "watts": dice.choice((1800, 2500, 3500))},
    }
    what, where = next(iter(stop.items()))
    return check(read_sheet(document)), what, where


def pot_of(checked: CheckedSheet, truth: Truth, number: int | None = None) -> PotOnRing:
    """The pot as step ``number`` of ``checked`` (None: its last) finds it, on the ring it is to boil on."""
    number = len(checked.sheet.steps) - 1 if number is None else number
    before = checked.steps[number - 1].pot
    b = before.balance
    protein = b.thickening_protein + b.yolk_protein
    stuff = Stuff(
        b.water,
        b.fat,
        b.solids + protein + b.insoluble + b.salt,
        b.alcohol,
        b.flour,
        before.pieces_g,
    )
    pan, stove = checked.pan, checked.settings[number].stove
    return PotOnRing(
        stuff,
        width_cm=pan.diameter_cm,
        watts=stove.burner_w,
        efficiency=stove.efficiency,
        tare_g=pan.tare_g,
        heat=checked.sheet.steps[number].heat,
        sloped=pan.shape == "sloped",
        celsius=before.temperature_c,
        truth=truth,
    )


def of_pot(seed: int) -> list[Said]:
    """One reduction: all that was said of it. Empty where it never gets to its stop."""
    dice = random.Random(f"pot {seed}")
    checked, what, where = sheet_of(dice)
    truth = Truth.drawn(seed)
    pot = pot_of(checked, truth)
    scale = Scale(pot, seed)
    number = len(checked.sheet.steps) - 1
    full = pot.grams
    readings: list[Seen] = []
    truths: list[tuple[float, float, float, float]] = []
    while pot.minutes < LONGEST_MIN:
        value = scale.read()
        if value is not None:
            readings.append(Seen(pot.minutes, "scale", value))
        truths.append((pot.minutes, pot.grams, pot.level_mm, pot.eta))
        if _at_its_stop(pot, what, where, full):
            break
        pot.run(EVERY_S / 60.0)
    else:
        return []
    end = pot.minutes
    looks = list(_looks(dice, truths, pot.boiling_since, full))
    told = []
    for share in ASKED:
        now = share * end
        for followed, seen in (("nothing", []), ("scale", readings), ("looks", looks)):
            found = watch(checked, number, [one for one in seen if one.at_min <= now], now)
            assert found is not None
            left = found.minutes_left
            if left is not None:
                told.append(Said(followed, share, left.value, left.low, left.high, end - now))
    return told


@dataclass(frozen=True)
class Disturbed:
    """One disturbed reduction: ``kind`` of disturbance, seconds between readings, by how many minutes "stop" was told
    late (negative: early), and what was said on the way."""

    kind: str
    every_s: float
    late_min: float
    said: tuple[Said, ...]


KINDS = ("nothing", "taken out", "lid", "lean", "pan entered wrong", "foam")
INTERVALS_S = (2.0, 20.0, 60.0, 300.0)


def disturbed_pot(seed: int) -> Disturbed | None:
    """A reduction that is disturbed, followed by its scale (foam: by looks at its level): when "stop" is told against
    when it was true. None where it never comes to its stop, or boils too short to be disturbed."""
    dice = random.Random(f"disturbed {seed}")
    checked, what, where = sheet_of(dice)
    kind, every_s = dice.choice(KINDS), dice.choice(INTERVALS_S)
    truth = replace(Truth.drawn(seed), lid_min=0.0, turn_at_min=math.inf, leans=0.0)
    if kind == "pan entered wrong":
        truth = replace(truth, tare_off_g=dice.choice((-1, 1)) * dice.uniform(80.0, 200.0))
    pot = pot_of(checked, truth)
    scale = Scale(pot, seed)
    number = len(checked.sheet.steps) - 1
    full = pot.grams
    tick_min, at_min = 2.0 / 60.0, dice.uniform(1.5, 4.0)
    seen: list[Seen] = []
    alarm, told_at, said = math.inf, 0.0, []
    taken, lid_until, on_scale_g, on_scale_until = False, -1.0, 0.0, -1.0
    next_reading, end = 0.0, math.inf
    questions: list[tuple[float, Guess]] = []
    while pot.minutes < LONGEST_MIN:
        now = pot.minutes
        since = now - pot.boiling_since if pot.boiling_since is not None else -1.0
        if since >= at_min and not taken:
            taken = True
            if kind == "taken out":
                out = dice.uniform(0.1, 0.3)
                pot.stuff = pot.stuff.times(1.0 - out)
                full *= 1.0 - out
            elif kind == "lid":
                lid_until, on_scale_g, on_scale_until = now + 2.0, 350.0, now + 2.0
            elif kind == "lean":
                on_scale_g, on_scale_until = dice.uniform(80.0, 400.0), now + dice.uniform(0.3, 1.2)
        if now + 1e-9 >= next_reading:
            next_reading = now + every_s / 60.0
            _read(seen, kind, dice, pot, scale, on_scale_g if now < on_scale_until else 0.0)
            if now - told_at >= 0.75 or every_s > 18.0:
                told_at = now
                left = _minutes_left(checked, number, seen, now)
                if left is not None:
                    alarm = min(alarm, now + left.value) if left.value <= 0.01 else now + left.value
                    questions.append((now, left))
        if alarm <= now:
            break
        if end == math.inf and _at_its_stop(pot, what, where, full):
            end = now
        if now > end + 12.0:
            break
        pot.run(tick_min * (0.1 if now < lid_until else 1.0))
        pot.minutes = now + tick_min
    while end == math.inf and pot.minutes < LONGEST_MIN:
        end = pot.minutes if _at_its_stop(pot, what, where, full) else math.inf
        pot.run(tick_min)
    if end == math.inf or not taken or not questions:
        return None
    for share in ASKED:
        now, left = min(questions, key=lambda asked: abs(asked[0] - share * end))
        if now < end:
            said.append(Said(kind, share, left.value, left.low, left.high, end - now))
    return Disturbed(kind, every_s, min(alarm, pot.minutes) - end, tuple(said))


def _at_its_stop(pot: PotOnRing, what: str, where: float | str, full_g: float) -> bool:
    """Whether ``pot``, which began with ``full_g``, is in truth where its step stops."""
    if what == "grade":
        return pot.eta >= grade_named(str(where)).target
    return pot.grams <= full_g * float(where)


def _minutes_left(checked: CheckedSheet, number: int, seen: list[Seen], now: float) -> Guess | None:
    found = watch(checked, number, thinned(seen, MOST_READINGS), now)
    assert found is not None
    return found.minutes_left


def _read(
    seen: list[Seen], kind: str, dice: random.Random, pot: PotOnRing, scale: Scale, leaned_g: float
) -> None:
    """What is read at a moment: the scale, or, where it is foam that is tried, a level the foam lifts."""
    if kind == "foam":
        boils = pot.boiling_since is not None
        if boils and not any(one.what == "boils" for one in seen):
            seen.append(Seen(pot.minutes, "boils"))
        lifted = dice.uniform(0.0, 0.25) if boils else 0.0
        seen.append(
            Seen(pot.minutes, "level", pot.level_mm * (1.0 + lifted) + dice.gauss(0.0, 1.5))
        )
    elif (value := scale.read()) is not None:
        seen.append(Seen(pot.minutes, "scale", value + leaned_g))


def _looks(
    dice: random.Random,
    truths: list[tuple[float, float, float, float]],
    boils: float | None,
    full: float,
) -> list[Seen]:
    """What a cook without a scale says: that it boils, and every few minutes a level, a share that has
    gone, or a spoon; each as far off as looks are, and one eye off all along."""
    if boils is None:
        return []
    eye = math.exp(dice.gauss(0.0, 0.05))
    found = [
        Seen(0.0, "level", truths[0][2] * eye + dice.gauss(0.0, 1.5)),
        Seen(boils + dice.uniform(0.0, 0.4), "boils"),
    ]
    spoon = dice.gauss(0.0, 0.15)
    at = boils + dice.uniform(1.0, 3.0)
    for minute, grams, level, eta in truths:
        if minute < at:
            continue
        at = minute + dice.uniform(1.5, 4.0)
        kind = dice.choice(("level", "level", "gone", "spoon"))
        if kind == "level":
            found.append(Seen(minute, "level", max(0.5, level * eye + dice.gauss(0.0, 1.5))))
        elif kind == "gone":
            left = grams / full * eye * math.exp(dice.gauss(0.0, 0.12))
            quarters = round(4.0 * (1.0 - left)) / 4.0  # a quarter, half, three quarters
            if 0.0 < quarters < 1.0 and abs(1.0 - left - quarters) < 0.06:
                found.append(Seen(minute, "gone", quarters))
        elif eta > 0.03:
            seen = eta * math.exp(spoon + dice.gauss(0.0, 0.25))
            found.append(Seen(minute, "spoon", min(300.0, max(1e-3, seen))))
    return found


def disturbed(many: int) -> None:
    """How late "stop" is told where something disturbs the pot, by kind and by seconds between readings."""
    with ProcessPoolExecutor() as pool:
        found = [one for one in pool.map(disturbed_pot, range(many), chunksize=5) if one]
    print(f"{len(found)} of {many} disturbed pots came to their stop")
    print("disturbed by         every   pots   median late   latest   earliest   inside of 90 %")
    groups: dict[tuple[str, float], list[Disturbed]] = defaultdict(list)
    for one in found:
        groups[one.kind, one.every_s].append(one)
        groups["all", one.every_s].append(one)
        groups[one.kind, 0.0].append(one)
    for (kind, every_s), pots in sorted(groups.items()):
        late = [one.late_min for one in pots]
        said = [said for one in pots for said in one.said]
        inside = sum(one.low <= one.true <= one.high for one in said) / max(1, len(said))
        print(
            f"{kind:18} {every_s:6.0f} s {len(pots):5} {statistics.median(late):11.2f} min "
            f"{max(late):7.2f} {min(late):9.2f} {inside:14.0%}"
        )


def main() -> None:
    """``python -m tools.pots [how many] [disturbed]``."""
    many = int(sys.argv[1]) if len(sys.argv) > 1 else 200
    if "disturbed" in sys.argv:
        disturbed(many)
        return
    with ProcessPoolExecutor() as pool:
        batches = list(pool.map(of_pot, range(many), chunksize=5))
    reached = [told for told in batches if told]
    by: dict[tuple[str, float], list[Said]] = defaultdict(list)
    for told in reached:
        for one in told:
            by[one.followed, one.at].append(one)
    print(f"{len(reached)} of {many} pots came to their stop")
    print("followed by   at   pots  median off   90th pct   median off, %   inside of 90 %")
    for (followed, at), said in sorted(by.items(), key=lambda pair: (pair[0][0], pair[0][1])):
        off = sorted(abs(one.value - one.true) for one in said)
        share = statistics.median(abs(one.value - one.true) / one.true for one in said)
        inside = sum(one.low <= one.true <= one.high for one in said) / len(said)
        print(
            f"{followed:10} {at:5.0%} {len(said):6} {statistics.median(off):9.2f} min "
            f"{off[int(0.9 * (len(off) - 1))]:7.2f} min {share:12.0%} {inside:14.0%}"
        )


if __name__ == "__main__":
    main()
