"""Pieces in a sauce, kept apart from it until they leak or are blended in (model.md 2)."""

import math
from dataclasses import dataclass

from saucier.constants import LEAK_MINUTES
from saucier.pot.balance import EMPTY, Balance


@dataclass(frozen=True, slots=True)
class Piece:
    """Pieces of one ingredient: their ``content`` now, and the juice still to leak, g."""

    key: str
    name: str
    content: Balance
    to_leak_g: float

    @property
    def mass_g(self) -> float:
        return self.content.mass_g

    def share(self, share: float) -> "Piece":
        return Piece(self.key, self.name, EMPTY.plus(self.content, share), self.to_leak_g * share)


def leak(piece: Piece, minutes: float) -> tuple[Piece, Balance]:
    """``piece`` after ``minutes`` of heat, and the juice it gave: its water with what is
    dissolved in it, in proportion.

    The rest to leak falls off exponentially; a piece never gives more than its water holds.
    """
    if piece.to_leak_g <= 0.0 or minutes <= 0.0:
        return piece, EMPTY
    content = piece.content
    soluble = content.water + content.solids + content.salt
    wanted = piece.to_leak_g * (1.0 - math.exp(-minutes / LEAK_MINUTES))
    given = min(wanted, 0.95 * soluble)
    share = given / soluble if soluble > 0.0 else 0.0
    juice = Balance(
        water=content.water * share,
        solids=content.solids * share,
        salt=content.salt * share,
        acid=content.acid * share,
        sugar=content.sugar * share,
    )
    return Piece(piece.key, piece.name, content.plus(juice, -1.0), piece.to_leak_g - wanted), juice


def leak_all(
    pieces: tuple[Piece, ...], balance: Balance, minutes: float
) -> tuple[tuple[Piece, ...], Balance]:
    """All ``pieces`` after ``minutes`` of heat, and ``balance`` with their juice in it."""
    if not pieces:
        return pieces, balance
    left = []
    for piece in pieces:
        piece, juice = leak(piece, minutes)
        left.append(piece)
        balance = balance.plus(juice)
    return tuple(left), balance
