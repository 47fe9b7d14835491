"""Checking a sheet: its steps played through a pot, the state after each."""

import math
from collections.abc import Iterator
from dataclasses import asdict, dataclass
from typing import Any, NamedTuple

from saucier import constants as K
from saucier.errors import BadInput
from saucier.heat import Pan, Stove, pan_for
from saucier.kitchen import Kitchen
from saucier.pot import Pot, Remark
from saucier.seasoning import salt_gap, salt_pct
from saucier.sheet import Sheet
from saucier.steps import AS_WRITTEN, Dust, Knobs, Move, Reduce, Roux, Setting, StepBase
from saucier.steps.base import amounts_in
from saucier.thickness import Thickness, assess, film_mm, raw_viscosity_pa_s, spoon_words
from saucier.units import SPOONS, Amount

FLOURED = (Roux, Dust)
"""Steps whose flour a solve is free to turn."""
DEFAULT_KITCHEN = Kitchen()


class State(NamedTuple):
    """The pot after a step, with everything a cook asks of it. A named tuple as :class:`Pot` is."""

    pot: Pot
    thickness: Thickness
    warnings: tuple[Remark, ...]
    pan: Pan

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
            "set_aside": [asdict(aside) for aside in pot.set_aside],
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
        return _state(Pot(), 0.0, self.sheet, self.pan, self.pan.capacity_ml, 0.0)

    def as_dict(self) -> dict[str, Any]:
        """The state after the last step at the top, ``steps`` with each, and the salt that is
        left to add."""
        final = self.final
        found = final.as_dict()
        passing = (
            w.text for s in self.steps[:-1] for w in s.warnings if w.code not in _MENDED_LATER
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
    """A sheet ready to be played at any setting of the knobs: only floats left."""

    sheet: Sheet
    settings: tuple[Setting, ...]
    moves: tuple[Move, ...]

    def walk(self, knobs: Knobs = AS_WRITTEN) -> Iterator[Pot]:
        """The pot after each step. Raises :class:`BadInput` under ``steps[i]``."""
        pot = Pot()
        for number, move in enumerate(self.moves):
            try:
                pot = move(pot._replace(remarks=()) if pot.remarks else pot, knobs)
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
        if isinstance(step, Reduce) and step.to != "nearly-dry":
            found = number
    return found


def thickening_by(sheet: Sheet) -> str:
    """What a solve may turn for the grade: ``flour``, ``reduction`` or ``nothing``."""
    if any(isinstance(step, FLOURED) for step in sheet.steps):
        return "flour"
    return "nothing" if free_reduction(sheet) is None else "reduction"


def prepare(sheet: Sheet, kitchen: Kitchen = DEFAULT_KITCHEN) -> Prepared:
    """Names and units of every step resolved. Raises :class:`BadInput` with the step's path."""
    stove = Stove(
        pan=sheet.pan.as_pan() if sheet.pan else kitchen.stove.pan,
        lid=sheet.lid,
        burner_w=sheet.burner.watts if sheet.burner else kitchen.stove.burner_w,
        efficiency=sheet.burner.efficiency if sheet.burner else kitchen.stove.efficiency,
    )
    free = free_reduction(sheet)
    settings = tuple(
        Setting(kitchen, stove, number == free, sheet.method.liquid_in)
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
    return Prepared(sheet, settings, tuple(moves))


def check(sheet: Sheet, kitchen: Kitchen = DEFAULT_KITCHEN) -> CheckedSheet:
    """Play ``sheet`` through a pot and say how it is after every step.

    Raises :class:`BadInput` naming the step and field where it cannot be played.
    """
    prepared = prepare(sheet, kitchen)
    pots = list(prepared.walk())
    volumes = [pot.total_ml for pot in pots]
    if sheet.pan:
        pan, assumed = sheet.pan.as_pan(), _NOTHING_ASSUMED
    else:
        pan = pan_for(max(volumes, default=1000.0))
        assumed = (
            f"no pan named: straight sides, {pan.diameter_cm:.0f} cm, "
            "sauce half as deep as the pan is wide",
        )
    capacity = pan.capacity_ml
    spread = vagueness(prepared, pots[-1]) if pots else 0.0
    states = tuple(
        _state(pot, volume, sheet, pan, capacity, spread)
        for pot, volume in zip(pots, volumes, strict=True)
    )
    return CheckedSheet(sheet, prepared.settings, states, pan, assumed)


def vagueness(prepared: Prepared, final: Pot) -> float:
    """What measures by hand, spoon and cup add to the uncertainty, as a standard share of the
    logarithm of η.

    Each vague amount is played again at its standard spread; what that does to the thickness
    is its share. Flour in a cup differs by a tenth or more between hands, and η goes with its
    3.7th power. Nothing is played where everything is weighed.
    """
    vague = [
        (number, name, spread)
        for number, step in enumerate(prepared.sheet.steps)
        for name, key, amount in amounts_in(step)
        if (spread := _spread_of(amount, key, prepared.settings[number]))
    ]
    if not vague or not final.wetted:
        return 0.0
    here = raw_viscosity_pa_s(final.balance, final.flour_given, final.yolk_set)
    square = 0.0
    for number, name, spread in vague:
        step, setting = prepared.sheet.steps[number], prepared.settings[number]
        more = step.with_amount(name, _amount_at(step, name).times(1.0 + spread))
        moves = list(prepared.moves)
        moves[number] = more.prepare(setting)
        try:
            pot = Prepared(prepared.sheet, prepared.settings, tuple(moves)).play()
        except BadInput:  # so little that a spoon more or less decides whether it boils dry
            continue
        there = raw_viscosity_pa_s(pot.balance, pot.flour_given, pot.yolk_set)
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


def thickness_of(pot: Pot, serving_c: float, spread: float = 0.0) -> Thickness:
    """How thick ``pot`` will be at ``serving_c`` °C; ``spread`` as :func:`vagueness`."""
    return assess(
        pot.balance,
        wetted=pot.wetted,
        flour_given=pot.flour_given,
        yolk_set=pot.yolk_set,
        temperature_c=serving_c,
        spread=spread,
    )


def _state(
    pot: Pot, volume_ml: float, sheet: Sheet, pan: Pan, capacity_ml: float, spread: float
) -> State:
    thickness = thickness_of(pot, sheet.target.serving_c, spread)
    remarks = _standing(pot, volume_ml, thickness, pan, capacity_ml)
    return State(pot, thickness, pot.remarks + remarks, pan)


def _standing(
    pot: Pot, volume_ml: float, thickness: Thickness, pan: Pan, capacity_ml: float
) -> tuple[Remark, ...]:
    """Remarks that follow from the state itself, whatever step led there."""
    found = []
    balance = pot.balance
    if pot.wetted and balance.thickener and pot.boiled_min == 0.0:
        found.append(
            Remark("not-boiled", "not boiled yet: the flour thickens fully only at the boil")
        )
    elif pot.wetted and 0.0 < pot.boiled_min < K.BOILED_FULL_MIN:
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
    elif pan.reactive and (balance.alcohol or balance.acid > 0.002 * balance.mass_g):
        found.append(
            Remark(
                "reactive-pan", "wine, lemon or yolk in bare metal turns grey: stainless or enamel"
            )
        )
    elif volume_ml > 0.8 * capacity_ml:
        found.append(Remark("pan-full", "the pan is over four fifths full: it may boil over"))
    return tuple(found)


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
