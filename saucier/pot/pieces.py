"""Pieces in a sauce, kept apart from it until they leak, fall apart or are blended in (docs/model.md 2)."""

import math
from typing import NamedTuple

from saucier.constants import FALL_APART_MINUTES, LEAK_MINUTES, RENDER_MINUTES
from saucier.pot.balance import EMPTY, Balance


class Piece(NamedTuple):
    """Pieces of one ingredient: their ``content`` now, the juice still ``to_leak_g``, what is still
    ``to_fall_g`` apart and the fat still ``to_render_g``, all g. ``ahead_g`` is juice given before its turn: what falls apart
    counts it. ``food``: cooked in the sauce or put back to finish in it, no part of its yield. ``put_g`` is what of it
    went in, ``salt_min`` the time constant of the salt it gives, minutes (0: with its juice alone), ``salt_put_g`` what it
    came with, ``rinsed``: rinsed or blanched before."""

    key: str
    name: str
    content: Balance
    to_leak_g: float = 0.0
    to_fall_g: float = 0.0
    ahead_g: float = 0.0
    food: bool = False
    to_render_g: float = 0.0
    put_g: float = 0.0
    salt_min: float = 0.0
    salt_put_g: float = 0.0
    rinsed: bool = False

    @property
    def mass_g(self) -> float:
        return self.content.mass_g

    def share(self, share: float) -> "Piece":
        return self._replace(
            content=EMPTY.plus(self.content, share),
            to_leak_g=self.to_leak_g * share,
            to_fall_g=self.to_fall_g * share,
            ahead_g=self.ahead_g * share,
            to_render_g=self.to_render_g * share,
            put_g=self.put_g * share,
            salt_put_g=self.salt_put_g * share,
        )


def cooked(piece: Piece, minutes: float) -> tuple[Piece, Balance]:
    """``piece`` after ``minutes`` of heat, and what of it is sauce now.

    First its juice, water with what is dissolved in it: what is left to leak falls off
    exponentially, and a piece never gives more than its water holds. Then, of soft vegetables, the
    flesh: so much of the piece has become sauce, its juice counted, as has had time to fall apart.

    >>> leek = Piece('leek', 'Leek', Balance(water=90, solids=5, insoluble=5), to_leak_g=20)
    >>> piece, juice = cooked(leek, 10)
    >>> round(piece.mass_g, 1), round(juice.mass_g, 1)
    (80.1, 19.9)
    """
    if minutes <= 0.0 or not (piece.to_leak_g > 0.0 or piece.to_fall_g > 0.0 or piece.to_render_g):
        return piece, EMPTY
    piece, fat = rendered(piece, minutes)
    content = piece.content
    soluble = content.water + content.solids + content.salt
    wanted = piece.to_leak_g * (1.0 - math.exp(-minutes / LEAK_MINUTES))
    given = min(wanted, 0.95 * soluble)
    share = given / soluble if soluble > 0.0 else 0.0
    sauce = Balance(
        water=content.water * share,
        solids=content.solids * share,
        salt=content.salt * share,
        acid=content.acid * share,
        sugar=content.sugar * share,
    )
    content = content.plus(sauce, -1.0)
    due = piece.to_fall_g * (1.0 - math.exp(-minutes / FALL_APART_MINUTES))
    ahead = piece.ahead_g + given
    mass = content.mass_g
    flesh = min(max(0.0, due - ahead), 0.95 * mass)
    if flesh > 0.0:
        fallen = EMPTY.plus(content, flesh / mass)
        sauce, content = sauce.plus(fallen), content.plus(fallen, -1.0)
    left = piece._replace(
        content=content,
        to_leak_g=piece.to_leak_g - wanted,
        to_fall_g=piece.to_fall_g - due,
        ahead_g=max(0.0, ahead - due),
    )
    return left, sauce.plus(fat) if fat.fat else sauce


def rendered(piece: Piece, minutes: float) -> tuple[Piece, Balance]:
    """``piece`` after ``minutes`` of heat, and the fat that ran out of it, which swims.

    >>> bacon = Piece('bacon', 'Bacon', Balance(water=46, fat=34, insoluble=20), to_render_g=20)
    >>> piece, fat = rendered(bacon, 8)
    >>> round(fat.fat, 1), round(piece.mass_g, 1)
    (14.7, 85.3)
    """
    if piece.to_render_g <= 0.0:
        return piece, EMPTY
    wanted = piece.to_render_g * (1.0 - math.exp(-minutes / RENDER_MINUTES))
    grams = min(wanted, 0.95 * piece.content.fat)
    fat = Balance(fat=grams, butter=grams, loose=grams)
    content = piece.content.plus(Balance(fat=grams), -1.0)
    return piece._replace(content=content, to_render_g=piece.to_render_g - wanted), fat


def cook_all(
    pieces: tuple[Piece, ...], balance: Balance, minutes: float
) -> tuple[tuple[Piece, ...], Balance]:
    """All ``pieces`` after ``minutes`` of heat, and ``balance`` with what they gave in it.

    >>> leek = Piece('leek', 'Leek', Balance(water=90, solids=5, insoluble=5), to_leak_g=20)
    >>> (left,), sauce = cook_all((leek,), Balance(water=100), 10)
    >>> round(left.mass_g + sauce.mass_g, 6)
    200.0
    """
    if not pieces:
        return pieces, balance
    left = []
    for piece in pieces:
        piece, sauce = cooked(piece, minutes)
        left.append(piece)
        balance = balance.plus(sauce)
    return _salted(tuple(left), balance, minutes)


def _salted(
    pieces: tuple[Piece, ...], balance: Balance, minutes: float
) -> tuple[tuple[Piece, ...], Balance]:
    """Salted food gives towards one concentration of salt in all the water, by its time; none takes it up."""
    giving = [n for n, piece in enumerate(pieces) if piece.salt_min > 0.0]
    if not giving or balance.water <= 0.0 or minutes <= 0.0:
        return pieces, balance
    salt = balance.salt + sum(pieces[n].content.salt for n in giving)
    water = balance.water + sum(pieces[n].content.water for n in giving)
    left = list(pieces)
    for n in giving:
        content = pieces[n].content
        over = content.salt - salt / water * content.water
        given = max(0.0, over) * (1.0 - math.exp(-minutes / pieces[n].salt_min))
        left[n] = pieces[n]._replace(content=content.plus(Balance(salt=given), -1.0))
        balance = balance.plus(Balance(salt=given))
    return tuple(left), balance
