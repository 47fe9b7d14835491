"""What waiting does to a hot sauce in its pan, off the fire and under a lid: how warm it is then, how
thick, and what brings it back."""

import math
from dataclasses import dataclass
from typing import NamedTuple

from saucier import constants as K
from saucier.errors import BadInput
from saucier.heat import Pan, pot_heat_j_per_k
from saucier.keeping.standing import stands_hot
from saucier.pot import Pot
from saucier.roots import find_root
from saucier.thickness import grade_of, spoken_grade, thickness_of
from saucier.words import Sentence, say


class ProbeRead(NamedTuple):
    """What a probe read of a pot, and how long ago."""

    celsius: float
    minutes_ago: float


@dataclass(frozen=True, slots=True)
class Held:
    """A sauce after ``minutes``: its temperature [°C], grade, mL of its liquid that bring it back to
    where it was, and in words, with what the rule for hot holding says."""

    minutes: float
    temperature_c: float
    grade: str | None
    let_down_ml: float
    words: Sentence
    below_rule: bool
    probed_minutes_ago: float | None = None


def cooled_c(pot: Pot, pan: Pan, minutes: float, from_c: float | None = None) -> float:
    """°C after ``minutes`` under a lid in a kitchen, from ``from_c`` (None: as the pot is reckoned, off the boil):
    lumped, through lid, wall and floor alike. A big pot keeps its heat, a small one does not.

    >>> from saucier.pot import Balance
    >>> pot = Pot(Balance(water=4000.0), temperature_c=95.0)
    >>> 80 < cooled_c(pot, Pan("28", "straight", 28, 16), 20) < 92
    True
    """
    surface = pan.surface_m2(pot.total_ml)
    wall = math.pi * pan.diameter_cm / 100.0 * pan.level_mm(pot.total_ml) / 1000.0
    loss = K.STANDING_W_M2_K * (2.0 * surface + wall)
    fall = math.exp(-loss * minutes * 60.0 / max(pot_heat_j_per_k(pot), 1.0))
    start_c = min(pot.temperature_c, 95.0) if from_c is None else from_c
    return K.KITCHEN_C + (start_c - K.KITCHEN_C) * fall


def held(
    pot: Pot,
    pan: Pan,
    minutes: float,
    serving_c: float,
    hot_c: float,
    read: ProbeRead | None = None,
) -> Held:
    """``pot`` after ``minutes`` in ``pan``. Where a probe ``read`` it, it cools on from that reading, however old;
    only where none did, from what the sheet makes of it. ``hot_c``: hot holding by the rules in force."""
    if read is None:
        at_c = cooled_c(pot, pan, minutes)
    else:
        at_c = cooled_c(pot, pan, read.minutes_ago, read.celsius)
    before = thickness_of(pot, serving_c).viscosity_pa_s
    after = thickness_of(pot, at_c).viscosity_pa_s
    grade = None if after is None else grade_of(after)
    ml = _let_down(pot, at_c, before) if before and after and after > 1.05 * before else 0.0
    below = at_c < hot_c
    since_read = read is not None and read.minutes_ago > K.PROBE_FRESH_MIN
    if since_read:
        code = "held.below-since-read" if below else "held.fine-since-read"
    else:
        code = "held.below" if below else "held.fine"
    words = say(
        code,
        minutes=minutes,
        read_c=read.celsius if read else 0.0,
        ago_min=read.minutes_ago if read else 0.0,
        at_c=at_c,
        grade=spoken_grade(grade) if grade else say("held.no-grade"),
        ml=ml,
        rule_c=hot_c,
    )
    return Held(
        minutes, at_c, grade, ml, words, below, None if read is None else round(read.minutes_ago, 1)
    )


@dataclass(frozen=True, slots=True)
class HeldHot:
    """A sauce kept hot for ``minutes``: g that went off it as steam, its grade then (None: none can be given),
    mL of hot liquid that bring it back."""

    minutes: float
    lost_g: float
    grade: str | None
    let_down_ml: float


@dataclass(frozen=True, slots=True)
class HoldingHot:
    """How a sauce stands hot at ``at_c``: after so many minutes each, and in words whether that is hot enough by
    the rules, and what keeps it; ``stands``: how long it does before it suffers."""

    at_c: float
    covered: bool
    ok: bool
    after: tuple[HeldHot, ...]
    words: Sentence
    stands: Sentence


HELD_MIN = (30.0, 60.0, 120.0)


def held_hot(
    pot: Pot, pan: Pan, at_c: float, covered: bool, hot_c: float, *, green: bool = False
) -> HoldingHot:
    """``pot`` kept at ``at_c`` in ``pan``, under film or a film of butter (``covered``: nothing goes off) or
    open (docs/model.md 6), as long as it stands at all. ``hot_c``: hot holding by the rules in force; ``green``: its
    colour is a herb's. Raises :class:`BadInput` (``at_c``).

    >>> from saucier.pot import Balance
    >>> pot = Pot(Balance(water=900, solids=90, fat=85, thickener=60, flour=60), boiled_min=5)
    >>> pan = Pan("24", "straight", 24, 12)
    >>> [round(one.lost_g) for one in held_hot(pot, pan, 65, False, 63).after]
    [57, 113, 170]
    """
    if not 40.0 <= at_c <= 95.0:
        raise BadInput.at("at_c", "is-no-hot-holding", low=40.0, most=95.0)
    before = thickness_of(pot, at_c).viscosity_pa_s
    per_min = 0.0 if covered else K.HOLD_KG_M2_H * pan.surface_m2(pot.total_ml) * 1000.0 / 60.0
    stands = stands_hot(pot, green=green)
    found = []
    for minutes in (*(m for m in HELD_MIN if m < stands.minutes), stands.minutes):
        lost = min(per_min * minutes, 0.9 * pot.balance.water)
        later = pot._replace(balance=pot.balance._replace(water=pot.balance.water - lost))
        after = thickness_of(later, at_c).viscosity_pa_s
        thicker = before and after and after > 1.05 * before
        ml = _let_down(later, at_c, before) if before and thicker else 0.0
        found.append(HeldHot(minutes, lost, None if after is None else grade_of(after), ml))
    ok = at_c >= hot_c
    code = ("holds" if covered else "open") if ok else "too-cool"
    how_long = say("held-hot.stands", minutes=stands.minutes, why=stands.words)
    words = say(f"held-hot.{code}", rule_c=hot_c)
    return HoldingHot(at_c, covered, ok, tuple(found), words, how_long)


def _let_down(pot: Pot, at_c: float, wanted_pa_s: float) -> float:
    def over(ml: float) -> float:
        thinner = pot._replace(balance=pot.balance._replace(water=pot.balance.water + ml))
        found = thickness_of(thinner, at_c).viscosity_pa_s
        return (found or 0.0) - wanted_pa_s

    most = 0.5 * pot.total_ml
    return find_root(over, 0.0, most, 0.5) if over(most) < 0.0 < over(0.0) else 0.0
