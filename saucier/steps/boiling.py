"""What all steps at the boil share: the time it takes, what pieces give back, what must not boil."""

from dataclasses import replace

from saucier import constants as K
from saucier.heat import Stove, boil_up_minutes, pot_heat_j_per_k, warmed_c
from saucier.pot import Balance, Piece, Pot, cook_all
from saucier.words import Sentence, one_of, say

NOTHING_TO_BOIL = say("nothing-to-boil")

_MUST_NOT_BOIL = {
    "soft-cream": say("soft-cream-boiled"),
    "thin-cream": say("soft-cream-boiled"),
    "mounted": say("mounted-boiled"),
    "mounted-bare": say("mounted-boiled"),
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
    return boil_up_minutes(pot_heat_j_per_k(pot), pot.temperature_c, stove, pot.total_ml)


def whisked_on_the_fire(pot: Pot, minutes: float, stove: Stove) -> Pot:
    """``pot`` with its liquid whisked into its roux over the last ``minutes``: it warmed meanwhile."""
    heat = pot_heat_j_per_k(pot)
    return pot._replace(
        temperature_c=warmed_c(heat, pot.temperature_c, minutes, stove, pot.total_ml)
    )


def long_to_boil(pot: Pot, stove: Stove, minutes: float) -> tuple[Sentence, ...]:
    """What to say of a pot that takes ``minutes`` to the boil: that it is not for this ring, with what
    would do it, where they are too many."""
    if minutes <= K.LONG_TO_BOIL_MIN:
        return ()
    covered = minutes_to_boil(pot, replace(stove, lid=True))
    half_stove, half_ml = replace(stove, pan=None), 0.5 * pot.total_ml
    halves = boil_up_minutes(0.5 * pot_heat_j_per_k(pot), pot.temperature_c, half_stove, half_ml)
    stronger = minutes_to_boil(pot, replace(stove, burner_w=2.0 * stove.burner_w))
    never = minutes >= K.NEVER_BOILS_MIN
    ways = [
        say(code, minutes=way, **facts)
        for code, way, facts in (
            ("boils-with-a-lid", covered, {}),
            ("boils-on-a-ring", stronger, {"kw": 2.0 * stove.burner_w / 1000.0}),
            ("boils-in-two-pots", halves, {}),
        )
        if way <= K.LONG_TO_BOIL_MIN
    ]
    how_long = say("never-boils-here") if never else say("long-to-boil-here", hours=minutes / 60.0)
    return (
        say(
            "not-on-this-ring", what=how_long, ways=one_of(ways) if ways else say("no-way-to-boil")
        ),
    )


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
        spared = {"soft-cream", "thin-cream"} if pot.starch_holds else set[str]()
        if gentle and pot.starch_holds:
            spared.add("cheese")
        remarks += tuple(_MUST_NOT_BOIL[code] for code in sorted(pot.delicate - spared))
    sour = balance.thickener > 0.0 and balance.acid > K.SOUR_FROM * balance.mass_g
    for part in pot.starch:
        longer = part.boiled_min + boiled_min
        if part.thins and part.boiled_min <= K.ROOT_STARCH_MIN < longer:
            lost = part.share * part.thins * min(1.0, longer / K.THINS_MIN)
            remarks += (say("root-starch-thins", minutes=longer, lost_pct=100.0 * lost),)
    pot = pot.at_the_boil()
    water_left = balance.water / pot.balance.water if pot.balance.water > 0.0 else 1.0
    pot = pot.heated(K.BOIL_C, boiled_min).simmered(boiled_min, water_left)
    return pot._replace(
        balance=balance.boiled(),
        boiled_min=pot.boiled_min + boiled_min,
        minutes=pot.minutes + minutes,
        remarks=remarks,
        pieces=pieces,
        sour_min=pot.sour_min + boiled_min if sour else pot.sour_min,
    )
