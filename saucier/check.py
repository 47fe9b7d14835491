"""Checking a sheet: its steps played through a pot, the state after each."""

import math
from collections.abc import Iterator
from dataclasses import asdict, dataclass
from functools import cached_property
from typing import Any

from saucier import constants as K
from saucier.errors import BadInput
from saucier.heat import BARE_PANS, Load, Pan, Stove, pan_reached_for
from saucier.kitchen import Kitchen
from saucier.pot import Balance, Pot, Remark
from saucier.seasoning import salt_gap, salt_pct
from saucier.sheet import Sheet
from saucier.steps import (
    AS_WRITTEN,
    Dust,
    Knobs,
    Lift,
    Move,
    Reduce,
    Reserve,
    Return,
    Roux,
    Sear,
    Season,
    Setting,
    StepBase,
    Strain,
    advance,
)
from saucier.steps.base import amounts_in
from saucier.thickness import (
    Thickness,
    film_mm,
    raw_viscosity_of,
    spoon_words,
    thickness_of,
)
from saucier.units import SPOONS, Amount

FLOURED = (Roux, Dust)
"""Steps whose flour a solve is free to turn."""
DEFAULT_KITCHEN = Kitchen()


@dataclass(frozen=True)
class State:
    """The pot after a step in its ``pan``, with everything a cook asks of it, worked out when it is
    asked: most who check a sheet look at its end alone. ``spread`` is what is vague in it."""

    pot: Pot
    pan: Pan
    serving_c: float
    spread: float = 0.0

    @cached_property
    def thickness(self) -> Thickness:
        return thickness_of(self.pot, self.serving_c, self.spread)

    @cached_property
    def warnings(self) -> tuple[Remark, ...]:
        """What its step called for, and what follows from the state itself."""
        return self.pot.remarks + _standing(self.pot, self.thickness, self.pan)

    @property
    def emulsion(self) -> str:
        return self.thickness.emulsion or "stable"

    def as_dict(self) -> dict[str, Any]:
        """Plain data for JSON, rounded to what the figures can bear."""
        pot, thickness = self.pot, self.thickness
        balance = pot.balance
        mass = balance.mass_g
        return {
            "mass_g": round(mass, 3),
            "volume_ml": round(balance.volume_ml, 3),
            "pieces_g": round(pot.pieces_g, 3),
            "total_g": round(pot.total_g, 3),
            "total_ml": round(pot.total_ml, 3),
            "pieces": [
                {"name": piece.name, "mass_g": round(piece.mass_g, 1)} for piece in pot.pieces
            ],
            "set_aside": [asdict(aside) for aside in pot.set_aside]
            + [{"purpose": "lifted", "mass_g": piece.mass_g} for piece in pot.lifted],
            "yield_g": round(pot.yield_g, 3),
            "yield_ml": round(pot.yield_ml, 3),
            "viscosity_pa_s": _significant(thickness.viscosity_pa_s),
            "viscosity_low_pa_s": _significant(thickness.low_pa_s),
            "viscosity_high_pa_s": _significant(thickness.high_pa_s),
            "grade": thickness.grade,
            "reason": thickness.reason,
            "serving_c": thickness.temperature_c,
            "temperature_c": round(self.pot.temperature_c, 1),
            "salt_pct": round(salt_pct(balance), 4),
            "fat_pct": round(100.0 * balance.fat / mass, 3) if mass else 0.0,
            "fat_volume_share": round(thickness.fat_volume_share, 4),
            "acid_pct": round(100.0 * balance.acid / mass, 3) if mass else 0.0,
            "sugar_pct": round(100.0 * balance.sugar / mass, 3) if mass else 0.0,
            "alcohol_pct": round(100.0 * balance.alcohol / mass, 3) if mass else 0.0,
            "water_pct": round(100.0 * balance.water / mass, 3) if mass else 0.0,
            "flour_pct": round(100.0 * balance.flour / mass, 3) if mass else 0.0,
            "emulsion": self.emulsion,
            "kcal": round(balance.kcal + sum(p.content.kcal for p in pot.pieces), 1),
            "cost": round(self.pot.cost, 3),
            "minutes": round(self.pot.minutes, 1),
            "level_mm": round(self.pan.level_mm(pot.total_ml), 2),
            "film_mm": _significant(film_mm(thickness.viscosity_pa_s))
            if thickness.viscosity_pa_s is not None
            else None,
            "looks": spoon_words(thickness.viscosity_pa_s)
            if thickness.viscosity_pa_s is not None
            else thickness.reason,
            "allergens": sorted(self.pot.allergens),
            "warnings": [remark.text for remark in self.warnings],
        }


@dataclass(frozen=True, slots=True)
class CheckedSheet:
    """A sheet with the ``settings`` of its steps and the state after each, in ``pan``;
    ``assumed`` says what had to be taken for granted."""

    sheet: Sheet
    settings: tuple[Setting, ...]
    steps: tuple[State, ...]
    pan: Pan
    assumed: tuple[str, ...]

    @property
    def final(self) -> State:
        if self.steps:
            return self.steps[-1]
        return State(Pot(), self.pan, self.sheet.target.serving_c)

    def as_dict(self) -> dict[str, Any]:
        """The state after the last step at the top, ``steps`` with each, and the salt that is
        left to add."""
        final = self.final
        found = final.as_dict()
        # A roux that comes later holds the cheese too.
        bound = final.pot.starch_holds
        passing = (
            w.text
            for s in self.steps[:-1]
            for w in s.warnings
            if w.code not in _MENDED_LATER and not (w.code == "no-starch" and bound)
        )
        found["warnings"] = list(dict.fromkeys([*passing, *found["warnings"]]))
        target = self.sheet.target.salt_pct
        if target is not None:
            gap = salt_gap(final.pot.balance, target)
            found["salt_to_add_g"] = round(gap.to_add_g, 2)
            found["salt_over_g"] = round(gap.over_g, 2)
            found["salt_liquid_g"] = round(gap.liquid_g, 1)
        found["assumed"] = list(self.assumed)
        found["pan"] = asdict(self.pan)
        found["steps"] = [state.as_dict() for state in self.steps]
        return found


@dataclass(frozen=True, slots=True)
class Prepared:
    """A sheet ready to be played in ``pan`` at any setting of the knobs: only floats left."""

    sheet: Sheet
    settings: tuple[Setting, ...]
    moves: tuple[Move, ...]
    pan: Pan

    def walk(self, knobs: Knobs = AS_WRITTEN) -> Iterator[Pot]:
        """The pot after each step. Raises :class:`BadInput` under ``steps[i]``."""
        pot = Pot()
        for number, move in enumerate(self.moves):
            try:
                pot = advance(pot, move, knobs)
            except BadInput as bad:
                raise bad.under(f"steps[{number}]") from None
            yield pot

    def play(self, knobs: Knobs = AS_WRITTEN) -> Pot:
        """The pot after the last step. Raises as :meth:`walk` does."""
        pot = Pot()
        for pot in self.walk(knobs):  # noqa: B007 - the last one is wanted
            pass
        return pot


def free_reduction(sheet: Sheet) -> int | None:
    """Index of the reduction a solve may move: the last one with a stop, where there is no
    roux to thicken with."""
    if any(isinstance(step, FLOURED) for step in sheet.steps):
        return None
    found = None
    for number, step in enumerate(sheet.steps):
        if isinstance(step, Reduce) and (stop := step.stop) and stop.taste is None:
            found = number
    return found


def thickening_by(sheet: Sheet) -> str:
    """What a solve may turn for the grade: ``flour``, ``reduction`` or ``nothing``."""
    if any(isinstance(step, FLOURED) for step in sheet.steps):
        return "flour"
    return "nothing" if free_reduction(sheet) is None else "reduction"


def load_of(sheet: Sheet, kitchen: Kitchen) -> Load:
    """What ``sheet`` asks of its pan, from its amounts alone: nothing is played, so that the pan
    depends on what goes in and not on itself. Amounts that cannot be read count nothing here."""
    sauce = pieces = lifted = sears = fullest = 0.0
    most = Load(0.0)
    for step in sheet.steps:
        for _, key, amount in amounts_in(step):
            try:
                row = kitchen.larder[key] if key else None
                ml = row.grams(amount) / row.density if row else amount.base
            except BadInput:
                continue
            if row is None or not row.piece:
                sauce += ml
            elif isinstance(step, Sear):  # out again before the sauce begins
                lifted += ml
                sears = max(sears, ml * row.density)
            else:
                pieces += ml
        if isinstance(step, Return) and step.amount is None:
            pieces, lifted = pieces + lifted, 0.0
        if sauce + pieces > fullest:
            fullest = sauce + pieces
        if step.op in _ONLY_ADDS:
            continue
        if isinstance(step, Reduce):
            left = _left_of(step, sauce, pieces)
            if sauce + pieces > most.goes_in:
                most = Load(0.0, sauce + pieces, left + pieces)
            sauce = left
        elif isinstance(step, Strain | Lift):
            pieces, lifted = 0.0, lifted + pieces
        elif isinstance(step, Reserve):
            sauce, pieces = sauce * (1.0 - step.share), pieces * (1.0 - step.share)
    return Load(fullest, most.goes_in, most.left, sears)


_ONLY_ADDS = frozenset(["add", "roux", "melt", "simmer", "season", "sweat", "deglaze", "dust"])
"""Steps that take nothing out: most of them."""


def _left_of(step: Reduce, sauce_ml: float, pieces_ml: float) -> float:
    """About what a reduction leaves of ``sauce_ml``, mL."""
    stop = step.stop
    if stop is None:
        return sauce_ml * K.NEARLY_DRY_SHARE
    amount = stop.mass or stop.volume
    if amount is not None:
        return min(sauce_ml, max(0.0, amount.base - pieces_ml))
    return sauce_ml * (stop.share or stop.taste or _REDUCED_TO)


_REDUCED_TO = 0.6
"""About where a reduction to a grade, or for some minutes, ends."""


def pan_of(sheet: Sheet, kitchen: Kitchen, times: float = 1.0) -> Pan:
    """The pan ``times`` the batch of ``sheet`` is made in: its own, or the one a cook would reach
    for among the kitchen's."""
    if sheet.pan:
        return sheet.pan.as_pan()
    if kitchen.stove.pan:
        return kitchen.stove.pan
    return pan_reached_for(load_of(sheet, kitchen).times(times), kitchen.pans or BARE_PANS)


def prepare(sheet: Sheet, kitchen: Kitchen = DEFAULT_KITCHEN, pan: Pan | None = None) -> Prepared:
    """Names and units of every step resolved, in ``pan`` (None: :func:`pan_of`). Raises
    :class:`BadInput` with the step's path."""
    pan = pan or pan_of(sheet, kitchen)
    stove = Stove(
        pan=pan,
        lid=sheet.lid,
        burner_w=sheet.burner.watts if sheet.burner else kitchen.stove.burner_w,
        efficiency=sheet.burner.efficiency if sheet.burner else kitchen.stove.efficiency,
    )
    free = free_reduction(sheet)
    settings = tuple(
        Setting(kitchen, stove, number == free, sheet.method.liquid_in, 0, sheet.target.serving_c)
        for number in range(len(sheet.steps))
    )
    moves: list[Move] = []
    problems: list[BadInput] = []
    for number, (step, setting) in enumerate(zip(sheet.steps, settings, strict=True)):
        try:
            moves.append(step.prepare(setting))
        except BadInput as bad:
            problems.append(bad.under(f"steps[{number}]"))
    if problems:
        raise BadInput(*(problem for bad in problems for problem in bad.problems))
    return Prepared(sheet, settings, tuple(moves), pan)


def check(sheet: Sheet, kitchen: Kitchen = DEFAULT_KITCHEN) -> CheckedSheet:
    """Play ``sheet`` through a pot and say how it is after every step.

    Raises :class:`BadInput` naming the step and field where it cannot be played.
    """
    prepared = prepare(sheet, kitchen)
    pots = list(prepared.walk())
    pan = prepared.pan
    assumed = _NOTHING_ASSUMED if sheet.pan else (_assumed_pan(pan, kitchen),)
    spread = vagueness(prepared, pots[-1]) if pots else 0.0
    salted = _salted_too_soon(sheet, pots)
    if salted is not None:
        pots[salted[0]] = pots[salted[0]].saying(salted[1])
    serving_c = sheet.target.serving_c
    states = tuple(State(pot, pan, serving_c, spread) for pot in pots)
    return CheckedSheet(sheet, prepared.settings, states, pan, assumed)


def _assumed_pan(pan: Pan, kitchen: Kitchen) -> str:
    if kitchen.pans:
        return f"no pan named: the {pan.name} is taken. The pan matters: name yours"
    return (
        f"no pan named: straight sides, {pan.diameter_cm:.0f} cm, is taken. "
        "The pan matters: name yours"
    )


def _salted_too_soon(sheet: Sheet, pots: list[Pot]) -> tuple[int, Remark] | None:
    """The first salting before a reduction, where what it comes to in the end is over the target."""
    target = sheet.target.salt_pct
    if target is None or not pots or salt_pct(pots[-1].balance) <= target + _OVER_SALTED:
        return None
    salted = None
    for number, step in enumerate(sheet.steps):
        if isinstance(step, Season) and salted is None:
            before = pots[number - 1].balance.salt if number else 0.0
            salted = number if pots[number].balance.salt > before else None
        elif isinstance(step, Reduce) and salted is not None:
            ends = salt_pct(pots[-1].balance)
            return salted, Remark(
                "salted-too-soon",
                f"salted before it is boiled down: it ends at {ends:.2f} %, over {target:g} %",
            )
    return None


_OVER_SALTED = 0.03


def vagueness(prepared: Prepared, final: Pot) -> float:
    """What measures by hand, spoon and cup, and shares by eye, add to the uncertainty, as a
    standard share of the logarithm of η.

    Each vague amount is played again at its standard spread; what that does to the thickness
    is its share. Flour in a cup differs by a tenth or more between hands, and η goes with its
    3.7th power; "by half" is 0.42 to 0.65 in practice. Nothing is played where all is weighed.
    """
    sheet, settings = prepared.sheet, prepared.settings
    vague: list[tuple[int, StepBase]] = []
    for number, step in enumerate(sheet.steps):
        if isinstance(step, Reduce) and (spread := step.eye_spread):
            vague.append((number, step.missed(1.0 + spread)))
        for name, key, amount in amounts_in(step):
            if spread := _spread_of(amount, key, settings[number]):
                more = _amount_at(step, name).times(1.0 + spread)
                vague.append((number, step.with_amount(name, more)))
    if not vague or not final.wetted:
        return 0.0
    here = raw_viscosity_of(final)
    square = 0.0
    for number, more_of_it in vague:
        moves = list(prepared.moves)
        moves[number] = more_of_it.prepare(settings[number])
        try:
            pot = Prepared(sheet, settings, tuple(moves), prepared.pan).play()
        except BadInput:  # so little that a spoon more or less decides whether it boils dry
            continue
        there = raw_viscosity_of(pot)
        if 0.0 < here < math.inf and 0.0 < there < math.inf:
            square += math.log(there / here) ** 2
    return math.sqrt(square)


def _amount_at(step: StepBase, name: str) -> Amount:
    return next(amount for field, _, amount in amounts_in(step) if field == name)


def _spread_of(amount: Amount, key: str, setting: Setting) -> float:
    """Standard share by which ``amount`` differs between hands; nothing for what is weighed."""
    if amount.measure:
        return amount.measure.spread
    if amount.unit in SPOONS and key and setting.kitchen.larder[key].role == "flour":
        return K.SPOON_SPREAD
    return 0.0


def _standing(pot: Pot, thickness: Thickness, pan: Pan) -> tuple[Remark, ...]:
    """Remarks that follow from the state itself, whatever step led there."""
    found = []
    balance, volume_ml, capacity_ml = pot.balance, pot.total_ml, pan.capacity_ml
    if pot.wetted and balance.thickener and pot.boiled_min == 0.0:
        found.append(
            Remark("not-boiled", "not boiled yet: the flour thickens fully only at the boil")
        )
    elif pot.wetted and balance.thickener and 0.0 < pot.boiled_min < K.BOILED_FULL_MIN:
        found.append(
            Remark("short-boil", f"boiled {pot.boiled_min:g} min: give it {K.BOILED_FULL_MIN:g}")
        )
    warning = _EMULSION_WORDS.get(thickness.emulsion or "")
    if warning:
        found.append(Remark(f"emulsion-{thickness.emulsion}", warning))
    if volume_ml > capacity_ml:
        found.append(
            Remark(
                "pan-overflows",
                f"{volume_ml:.0f} mL does not fit the pan, it holds {capacity_ml:.0f} mL",
            )
        )
    elif volume_ml > 0.8 * capacity_ml:
        found.append(Remark("pan-full", "the pan is over four fifths full: it may boil over"))
    if pan.reactive and meets_metal(balance):
        found.append(
            Remark(
                "reactive-pan", "wine, lemon or yolk in bare metal turns grey: stainless or enamel"
            )
        )
    return tuple(found)


def meets_metal(balance: Balance) -> bool:
    """Whether bare aluminium or iron would turn it grey: wine, acid, yolk."""
    return (
        balance.alcohol > 0.0
        or balance.yolk_protein > 0.0
        or balance.acid > K.REACTIVE_ACID * balance.mass_g
    )


_EMULSION_WORDS = {
    "caution": "the cream is getting rich: watch it, stop soon",
    "oily": "likely to turn oily: bring back a little water off the heat",
    "split": "the cream has split: too little water left to hold the fat",
}


_NOTHING_ASSUMED: tuple[str, ...] = ()
_MENDED_LATER = {"not-boiled", "short-boil", "emulsion-caution"}
"""True after the step they stand at, and no longer worth saying once the sauce is done."""


def _significant(value: float | None) -> float | None:
    return None if value is None else float(f"{value:.5g}")
