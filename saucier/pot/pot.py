"""A pot of sauce at one moment: what is in it and what it has been through."""

from dataclasses import dataclass
from typing import NamedTuple

from saucier import constants as K
from saucier.pot.balance import EMPTY, Balance
from saucier.pot.pieces import Piece
from saucier.words import Sentence


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
    ``remarks``, what to tell the cook of it, belong to the last step only. ``lifted``: food taken out to be put back, paid for
    and weighed already. ``sour_min``: minutes its flour boiled in much acid. ``split``: it has
    split, and stays so until a step mends it.
    """

    balance: Balance = EMPTY
    temperature_c: float = 20.0
    boiled_min: float = 0.0
    wetted: bool = False
    hottest_c: float = 20.0
    allergens: frozenset[str] = frozenset()
    cost: float = 0.0
    minutes: float = 0.0
    remarks: tuple[Sentence, ...] = ()
    pieces: tuple[Piece, ...] = ()
    set_aside: tuple[SetAside, ...] = ()
    delicate: frozenset[str] = frozenset()
    chilled: bool = False
    lifted: tuple[Piece, ...] = ()
    sour_min: float = 0.0
    split: bool = False

    @property
    def flour_given(self) -> float:
        """Share of the flour's thickening that has come out.

        Before any boil the whole of it is counted, and the check says "not boiled": a cook
        asks how thick it will be, not how thick cold flour is (docs/model.md 3).
        """
        return _given(self.boiled_min) * (
            1.0 - min(K.SOUR_MOST, K.SOUR_LOSS * self.sour_min / K.SOUR_MINUTES)
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
    def yield_g(self) -> float:
        """What the batch comes to, g: sauce and the aromatics left in it, not food finished in it."""
        return self.total_g - sum(piece.mass_g for piece in self.pieces if piece.food)

    @property
    def yield_ml(self) -> float:
        """What the batch comes to, mL, as :attr:`yield_g`."""
        return self.total_ml - sum(p.content.volume_ml for p in self.pieces if p.food)

    @property
    def fat_share(self) -> float:
        """Fat's share of the sauce's volume, φ."""
        volume = self.balance.volume_ml
        return self.balance.fat / K.DENSITY_FAT / volume if volume > 0.0 else 0.0

    @property
    def starch_holds(self) -> bool:
        """Flour enough in its water to hold cheese or soured cream."""
        return self.balance.thickener >= K.CHEESE_STARCH_SHARE * self.balance.water > 0.0

    @property
    def cream_fat_share(self) -> float:
        """Fat that came in droplets, as a share of the sauce's mass: what a cream brings."""
        mass = self.balance.mass_g
        return (self.balance.fat - self.balance.butter) / mass if mass > 0.0 else 0.0

    def saying(self, *remarks: Sentence) -> "Pot":
        """This with ``remarks`` of its last step added."""
        return self._replace(remarks=(*self.remarks, *remarks))

    def settled(self) -> "Pot":
        """This after a step: a cream whose fat has no room left has split, and stays so."""
        # With more water than half its fat it is nowhere near: nearly always.
        if self.split or not self.wetted or self.balance.fat < 2.0 * self.balance.water:
            return self
        if self.fat_share < K.EMULSION_SPLIT or not self.balance.creamy:
            return self
        return self._replace(split=True)

    @property
    def flour_g_per_l(self) -> float:
        """Flour (by its power) for each litre of water, for what starch protects."""
        water = self.balance.water
        return 1000.0 * self.balance.thickener / water if water > 0.0 else 0.0


def _given(minutes: float) -> float:
    """Share of flour's thickening that is there after ``minutes`` at the boil; all before any."""
    if minutes <= 0.0 or minutes >= K.BOILED_FULL_MIN:
        return 1.0
    if minutes < 1.0:
        return K.BOILED_SHARE_AT_ONCE + (K.BOILED_SHARE_1_MIN - K.BOILED_SHARE_AT_ONCE) * minutes
    return K.BOILED_SHARE_1_MIN + (1.0 - K.BOILED_SHARE_1_MIN) * (minutes - 1.0) / (
        K.BOILED_FULL_MIN - 1.0
    )
