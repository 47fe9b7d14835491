"""What is told of a sheet as a whole, each once, at the last step where something can still be done about it."""

from collections.abc import Iterator

from saucier import constants as K
from saucier.pot import Pot
from saucier.seasoning import salt_pct
from saucier.sheet import Sheet
from saucier.steps import Flame, Liaison, Reduce, Season
from saucier.words import Sentence, say


def remarks_on_whole(sheet: Sheet, pots: list[Pot]) -> Iterator[tuple[int, Sentence]]:
    """By the number of its step, what is to be said of ``sheet`` played to ``pots``."""
    if not pots:
        return
    for remark in (_salted_too_soon(sheet, pots), _raw_flour(pots), _raw_yolk(sheet, pots)):
        if remark is not None:
            yield remark
    yield from _flamed(sheet, pots)
    yield from _brined(pots)


def _salted_too_soon(sheet: Sheet, pots: list[Pot]) -> tuple[int, Sentence] | None:
    """The first salting before a reduction, where what it comes to in the end is over the target."""
    target = sheet.target.salt_pct
    if target is None or salt_pct(pots[-1].balance) <= target + K.OVER_SALTED_PCT:
        return None
    salted = None
    for number, step in enumerate(sheet.steps):
        if isinstance(step, Season) and salted is None:
            before = pots[number - 1].balance.salt if number else 0.0
            salted = number if pots[number].balance.salt > before else None
        elif isinstance(step, Reduce) and salted is not None:
            ends = salt_pct(pots[-1].balance)
            return salted, say("salted-too-soon", ends_pct=ends, target_pct=target)
    return None


def _raw_flour(pots: list[Pot]) -> tuple[int, Sentence] | None:
    """Flour that tastes raw in the end, told at the last step after which it could still be boiled."""
    final = pots[-1]
    if not final.wetted or not final.balance.thickener or final.boiled_min >= final.flour_boil_min:
        return None
    boils = [
        n for n, pot in enumerate(pots) if pot.wetted and pot.balance.thickener and not pot.delicate
    ]
    at = boils[-1] if boils else len(pots) - 1
    if final.boiled_min == 0.0:
        return at, say("not-boiled", full_min=final.flour_boil_min)
    return at, say("short-boil", minutes=final.boiled_min, full_min=final.flour_boil_min)


def _flamed(sheet: Sheet, pots: list[Pot]) -> Iterator[tuple[int, Sentence]]:
    """What alcohol a flame leaves, and what of it the rest of the sauce does."""
    for number, step in enumerate(sheet.steps):
        before = pots[number - 1].balance.alcohol if number else 0.0
        left = pots[number].balance.alcohol
        if isinstance(step, Flame) and left < before:
            yield number, say("flamed", alcohol=left, final=pots[-1].balance.alcohol)


def _brined(pots: list[Pot]) -> Iterator[tuple[int, Sentence]]:
    """Salted food that salts the sauce as it cooks in it, told where it comes in."""
    came_in: dict[str, int] = {}
    salt_there: dict[str, tuple[str, float, float]] = {}
    for number, pot in enumerate(pots):
        for piece in pot.pieces:
            if piece.salt_min > 0.0 and not piece.rinsed:
                came_in.setdefault(piece.key, number)
                _, at_first, _ = salt_there.get(piece.key, ("", piece.salt_put_g, 0.0))
                salt_there[piece.key] = piece.name, at_first, piece.content.salt
    mass, salt = pots[-1].balance.mass_g, pots[-1].balance.salt
    for key, (name, at_first, left) in salt_there.items():
        given = min(at_first - left, salt)  # some of it may have been strained out again
        if mass and (pct := 100.0 * given / mass) >= K.BRINE_TOLD_PCT:
            yield came_in[key], say("brined", name=name, given=given, pct=pct)


def _raw_yolk(sheet: Sheet, pots: list[Pot]) -> tuple[int, Sentence] | None:
    """Yolk that came in outside a liaison and is not cooked in the end, told where it came in."""
    final = pots[-1]
    if final.balance.yolk_protein <= 0.0 or final.yolk_set:
        return None
    came = [
        number
        for number, pot in enumerate(pots)
        if pot.balance.yolk_protein > (pots[number - 1].balance.yolk_protein if number else 0.0)
        and not isinstance(sheet.steps[number], Liaison)
    ]
    return (came[-1], say("yolk-raw", reached_c=final.hottest_c)) if came else None
