"""What all steps at the boil share: the time it takes, what pieces give back, what must not boil."""

from saucier import constants as K
from saucier.heat import Stove, boil_up_minutes
from saucier.pot import Balance, Piece, Pot, Remark
from saucier.steps.base import pot_heat_j_per_k

NOTHING_TO_BOIL = Remark("nothing-to-boil", "nothing to boil yet: liquid goes in first")

_MUST_NOT_BOIL = {
    "soft-cream": Remark(
        "soft-cream-boiled",
        "soured cream, yogurt and thin creams split at the boil: stir them in last, off the heat",
    ),
    "mounted": Remark(
        "mounted-boiled", "butter whisked in falls out at the boil: mount it after this"
    ),
    "liaison": Remark(
        "liaison-boiled",
        f"too little flour for yolk to boil in: stay under {K.LIAISON_BARE_MAX_C:.0f} °C or it grains",
    ),
}


def minutes_to_boil(pot: Pot, stove: Stove) -> float:
    return boil_up_minutes(pot_heat_j_per_k(pot), pot.temperature_c, stove)


def boiled(
    pot: Pot, balance: Balance, pieces: tuple[Piece, ...], boiled_min: float, minutes: float
) -> Pot:
    """``pot`` holding ``balance`` and ``pieces`` after ``boiled_min`` minutes at the boil,
    ``minutes`` of the cook's time in all, with a remark for whatever should not have boiled."""
    remarks = pot.remarks
    if pot.delicate:
        remarks += tuple(_MUST_NOT_BOIL[code] for code in sorted(pot.delicate))
    return Pot(
        balance,
        K.BOIL_C,
        pot.boiled_min + boiled_min,
        pot.wetted,
        K.BOIL_C if balance.yolk_protein else pot.hottest_c,
        pot.allergens,
        pot.cost,
        pot.minutes + minutes,
        remarks,
        pieces,
        pot.set_aside,
        pot.delicate,
        pot.chilled,
    )
