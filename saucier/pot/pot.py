"""A pot of sauce at one moment: what is in it and what it has been through."""

from dataclasses import dataclass
from typing import NamedTuple

from saucier import constants as K
from saucier.pot.balance import EMPTY, Balance
from saucier.pot.pieces import Piece


@dataclass(frozen=True, slots=True)
class Remark:
    """Something to tell the cook at one step: ``code`` for programs, ``text`` in kitchen words."""

    code: str
    text: str


@dataclass(frozen=True, slots=True)
class SetAside:
    """A share of the pot kept back, g of it, for ``purpose``."""

    purpose: str
    mass_g: float


class Pot(NamedTuple):
    """What is in the pot after a step.

    ``balance`` is the sauce; ``pieces`` sit in it with their own water, fat and salt.
    ``boiled_min``: minutes at the boil since flour went in (it thickens fully only there).
    ``wetted``: something with 40 % water or more has gone in, so that it is a liquid.
    ``hottest_c``: the hottest it has been since yolk went in. ``minutes``: time at the stove
    so far. ``delicate``: what in it must not boil any more. ``chilled``: it has been cold.
    ``remarks`` belong to the last step only.
    """

    balance: Balance = EMPTY
    temperature_c: float = 20.0
    boiled_min: float = 0.0
    wetted: bool = False
    hottest_c: float = 20.0
    allergens: frozenset[str] = frozenset()
    cost: float = 0.0
    minutes: float = 0.0
    remarks: tuple[Remark, ...] = ()
    pieces: tuple[Piece, ...] = ()
    set_aside: tuple[SetAside, ...] = ()
    delicate: frozenset[str] = frozenset()
    chilled: bool = False

    @property
    def flour_given(self) -> float:
        """Share of the flour's thickening that has come out.

        Before any boil the whole of it is counted, and the check says "not boiled": a cook
        asks how thick it will be, not how thick cold flour is (model.md 3).
        """
        minutes = self.boiled_min
        if minutes <= 0.0 or minutes >= K.BOILED_FULL_MIN:
            return 1.0
        if minutes < 1.0:
            return (
                K.BOILED_SHARE_AT_ONCE + (K.BOILED_SHARE_1_MIN - K.BOILED_SHARE_AT_ONCE) * minutes
            )
        return K.BOILED_SHARE_1_MIN + (1.0 - K.BOILED_SHARE_1_MIN) * (minutes - 1.0) / (
            K.BOILED_FULL_MIN - 1.0
        )

    @property
    def yolk_set(self) -> bool:
        return self.hottest_c >= K.YOLK_SETS_C

    @property
    def pieces_g(self) -> float:
        return sum(piece.mass_g for piece in self.pieces) if self.pieces else 0.0

    @property
    def total_g(self) -> float:
        """Sauce and pieces, as the scale has them."""
        return self.balance.mass_g + self.pieces_g

    @property
    def total_ml(self) -> float:
        """The room sauce and pieces take, mL."""
        volume = self.balance.volume_ml
        if self.pieces:
            volume += sum(piece.content.volume_ml for piece in self.pieces)
        return volume

    @property
    def flour_g_per_l(self) -> float:
        """Flour (by its power) for each litre of water, for what starch protects."""
        water = self.balance.water
        return 1000.0 * self.balance.thickener / water if water > 0.0 else 0.0
