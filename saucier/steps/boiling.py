"""What all steps at the boil share: the time it takes, what pieces give back, what must not boil."""

from saucier import constants as K
from saucier.heat import Stove, boil_up_minutes, pot_heat_j_per_k
from saucier.pot import Balance, Piece, Pot, cook_all
from saucier.words import say

NOTHING_TO_BOIL = say("nothing-to-boil")

_MUST_NOT_BOIL = {
    "soft-cream": say("soft-cream-boiled"),
    "mounted": say("mounted-boiled"),
    "liaison": say("liaison-boiled", max_c=K.LIAISON_BARE_MAX_C),
    "cheese": say("cheese-boiled"),
}


def in_its_own_juice(pot: Pot, minutes: float) -> Pot:
    """A dry pot whose pieces give juice on the fire, such as tomatoes in a little oil: liquid after
    all. As it is where they give none."""
    if pot.wetted or not pot.pieces:
        return pot
    _, balance = cook_all(pot.pieces, pot.balance, max(minutes, 1.0))
    gives = balance.water - pot.balance.water
    return pot._replace(wetted=True) if gives >= K.JUICE_SHARE * pot.pieces_g else pot


def minutes_to_boil(pot: Pot, stove: Stove) -> float:
    return boil_up_minutes(pot_heat_j_per_k(pot), pot.temperature_c, stove)


def boiled(
    pot: Pot,
    balance: Balance,
    pieces: tuple[Piece, ...],
    boiled_min: float,
    minutes: float,
    *,
    gentle: bool = False,
) -> Pot:
    """``pot`` holding ``balance`` and ``pieces`` after ``boiled_min`` minutes at the boil,
    ``minutes`` of the cook's time in all, with a remark for whatever should not have boiled.
    ``gentle``: no more than the odd bubble, which cheese bears where starch holds it."""
    remarks = pot.remarks
    if pot.delicate:
        spared = {"cheese"} if gentle and pot.starch_holds else set()
        remarks += tuple(_MUST_NOT_BOIL[code] for code in sorted(pot.delicate - spared))
    sour = balance.thickener > 0.0 and balance.acid > K.SOUR_FROM * balance.mass_g
    return pot._replace(
        balance=balance.boiled(),
        temperature_c=K.BOIL_C,
        boiled_min=pot.boiled_min + boiled_min,
        hottest_c=K.BOIL_C if balance.yolk_protein else pot.hottest_c,
        minutes=pot.minutes + minutes,
        remarks=remarks,
        pieces=pieces,
        sour_min=pot.sour_min + boiled_min if sour else pot.sour_min,
    )
