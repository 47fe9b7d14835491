"""Something stirred into the pot: what it becomes, and what may go wrong as it goes in."""

from saucier import constants as K
from saucier.heat import mixed_temperature_c, pot_heat_j_per_k
from saucier.larder import Ingredient
from saucier.pot import EMPTY, Piece, Pot, Starch, spirits_mixed, starches_mixed
from saucier.pot.evaporation import UNSIMMERED
from saucier.words import Sentence, say


def put_in(
    pot: Pot,
    row: Ingredient,
    grams: float,
    temperature_c: float | None,
    minutes: float = 0.0,
    remarks: tuple[Sentence, ...] = (),
    *,
    juice_share: float | None = None,
    rinsed: bool = False,
) -> Pot:
    """``pot`` with ``grams`` of ``row`` stirred in at ``temperature_c`` (None: the pot's own),
    which takes ``minutes`` and calls for ``remarks``.

    ``rinsed`` or blanched first, pieces bring half their salt. Pieces join the pieces; all else becomes sauce. With ``juice_share`` they are food that
    finishes in it and gives so much of its weight as juice.
    """
    temperature = pot.temperature_c
    if temperature_c is not None and temperature_c != temperature:
        temperature = mixed_temperature_c(
            pot_heat_j_per_k(pot), temperature, row.heat_j_per_gk * grams, temperature_c
        )
    balance, pieces, remarks = pot.balance, pot.pieces, pot.remarks + remarks
    if row.piece:
        food = juice_share is not None
        leak = row.leak_share if juice_share is None else juice_share
        falls = 0.0 if food else row.falls_share
        content = EMPTY.plus(row.per_gram, grams)
        if rinsed:
            content = content._replace(salt=K.RINSED_KEEPS * content.salt)
        piece = Piece(
            key=row.key,
            name=row.name,
            content=content,
            to_leak_g=leak * grams,
            to_fall_g=falls * grams,
            ahead_g=0.0,
            food=food,
            # What comes back to finish has given its fat in the pan it was coloured in.
            to_render_g=0.0 if food else row.renders_share * grams,
            put_g=grams,
            salt_min=row.salt_min,
            salt_put_g=content.salt,
            rinsed=rinsed,
        )
        pieces = (*pieces, piece)
    else:
        if _curdles(pot, row):
            remarks = (*remarks, _CURDLES)
        balance = balance.plus(row.per_gram, grams)
    if _spits(pot, row):
        remarks = (*remarks, _SPITS)
    allergens = pot.allergens
    starch, wants = pot.starch, pot.flour_boil_min
    if power := row.per_gram.thickener * grams:
        new = (Starch(1.0, thins=row.thins_share),)
        wants = pot.flour_boil_min if pot.boiled_min < pot.flour_boil_min else 0.0
        wants = max(wants, _boils_raw_taste_off(row))
        starch = starches_mixed(starch, pot.balance.thickener, new, power)
    spirits = pot.spirits
    if alcohol := row.per_gram.alcohol * grams:
        spirits = spirits_mixed(spirits, pot.balance.alcohol, UNSIMMERED, alcohol)
    delicate = pot.delicate
    if splits_when_boiled(row) and not balance.thickener:
        delicate = delicate | {"soft-cream" if row.role == "soft-cream" else "thin-cream"}
    # By place, not by name: put_in is most of what a check does.
    return Pot(
        balance,
        temperature,
        # Flour that comes in later has not boiled yet, whatever the pot has been through.
        0.0 if row.per_gram.thickener else pot.boiled_min,
        pot.wetted or (not row.piece and row.wet),
        max(pot.hottest_c, temperature) if balance.yolk_protein else 0.0,
        allergens if row.allergens <= allergens else allergens | row.allergens,
        pot.cost + row.cost(grams),
        pot.minutes + minutes,
        remarks,
        pieces,
        pot.set_aside,
        delicate,
        *pot[12:16],
        starch,
        pot.reduced,
        spirits,
        pot.boil_liquid,
        wants,
    )


def _boils_raw_taste_off(row: Ingredient) -> float:
    """Minutes at the boil that take the raw taste off flour that met no fat first; starches have less of one, root
    starches none."""
    if row.thins_share > 0.0:
        return 0.0
    return K.STARCH_RAW_MIN if row.power >= K.PURE_STARCH_POWER else K.FLOUR_RAW_MIN


_SPITS = say("spits")


def _spits(pot: Pot, row: Ingredient) -> bool:
    """Something wet onto hot fat with nothing in it yet that would take the heat."""
    return (
        pot.temperature_c >= K.HOT_FAT_C
        and not pot.wetted
        and row.per_gram.water >= K.WET_INGREDIENT
        and pot.balance.loose >= K.HOT_FAT_G
        and pot.balance.flour <= 0.0
    )


_CURDLES = say("curdles")


def _curdles(pot: Pot, row: Ingredient) -> bool:
    dairy = row.role in ("milk", "cream", "soft-cream") and row.per_gram.fat < K.STABLE_CREAM_FAT
    if not dairy or pot.balance.thickener:
        return False
    mass = pot.balance.mass_g
    return mass > 0.0 and pot.balance.acid / mass > K.CURDLING_ACID


def splits_when_boiled(row: Ingredient) -> bool:
    """Soured cream, yogurt and thin creams: under about 30 % fat they split at the boil."""
    return row.role in ("soft-cream", "cream") and row.per_gram.fat < K.STABLE_CREAM_FAT
