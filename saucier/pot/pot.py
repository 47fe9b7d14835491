"""A pot of sauce at one moment: what is in it and what it has been through."""

from dataclasses import dataclass
from typing import NamedTuple

from saucier import constants as K
from saucier.pot.balance import EMPTY, Balance
from saucier.pot.evaporation import UNSIMMERED, Spirits, boil_off, simmered
from saucier.pot.pieces import Piece
from saucier.pot.swelling import Starches
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
    split, and stays so until a step mends it. ``starch``: what thickens it, by how hot it has been; empty:
    nothing, or all of it given. ``reduced``: a cream in it has been boiled down. ``spirits``: its alcohol, by how long it has simmered; empty: not at all. ``boil_liquid``: the most
    water and alcohol in it as a boil began, g for each gram a cultured cream thickens like: that it thickens once it has boiled.
    ``flour_boil_min``: minutes at the boil after which its flour no longer tastes raw.
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
    starch: Starches = ()
    reduced: bool = False
    spirits: Spirits = ()
    boil_liquid: float = 0.0
    flour_boil_min: float = 0.0

    @property
    def flour_given(self) -> float:
        """Share of the flour's thickening that is there once it is cooked out: all but what acid and
        boiling on have taken of it."""
        left = sum(part.share * part.left for part in self.starch) if self.starch else 1.0
        return left * self._sour_left

    @property
    def flour_given_now(self) -> float:
        """Share of the flour's thickening that is there now, by the heat it has had."""
        if not self.starch:
            return self._sour_left
        return sum(part.share * part.given * part.left for part in self.starch) * self._sour_left

    @property
    def starch_swollen(self) -> float:
        """Share of the starch that has swollen, whatever boiling on took of its power; it never falls."""
        return sum(part.share * part.given for part in self.starch) if self.starch else 1.0

    @property
    def _sour_left(self) -> float:
        return 1.0 - min(K.SOUR_MOST, K.SOUR_LOSS * self.sour_min / K.SOUR_MINUTES)

    def boiled_down(self, balance: Balance, loss_g: float, minutes: float) -> Balance:
        """``balance``, this pot's with the juice of its pieces, less ``loss_g`` of vapour in ``minutes`` at the boil."""
        return boil_off(balance, loss_g, minutes, self.spirits or UNSIMMERED)

    def at_the_boil(self) -> "Pot":
        """This as it begins to boil: gels of soured milk let go, yolk sets."""
        balance = self.balance
        liquid_g = balance.water + balance.alcohol
        return self._replace(
            balance=balance.boiled(),
            temperature_c=K.BOIL_C,
            hottest_c=K.BOIL_C if balance.yolk_protein else self.hottest_c,
            boil_liquid=max(self.boil_liquid, liquid_g / balance.cultured)
            if balance.cultured
            else 0.0,
        )

    def simmered(self, minutes: float, water_share_left: float) -> "Pot":
        """This with its alcohol ``minutes`` longer at a simmer."""
        if self.balance.alcohol <= 0.0:
            return self._replace(spirits=()) if self.spirits else self
        spirits = self.spirits or UNSIMMERED
        return self._replace(spirits=simmered(spirits, minutes, water_share_left))

    def heated(self, temperature_c: float, minutes: float = 0.0) -> "Pot":
        """This with its starch ``minutes`` at ``temperature_c``; its own temperature is another's to say."""
        if not self.starch or not self.wetted:
            return self
        return self._replace(
            starch=tuple(part.heated(temperature_c, minutes) for part in self.starch)
        )

    @property
    def yolk_set(self) -> bool:
        return self.hottest_c >= K.YOLK_SETS_C

    @property
    def boil_liquid_g(self) -> float:
        """The most water and alcohol so much of its cultured cream has boiled in, g; 0: it has not."""
        return self.boil_liquid * self.balance.cultured

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

    def part(self, share: float) -> "Pot":
        """So much of it: sauce and pieces alike."""
        pieces = tuple(piece.share(share) for piece in self.pieces)
        return self._replace(balance=EMPTY.plus(self.balance, share), pieces=pieces)

    def saying(self, *remarks: Sentence) -> "Pot":
        """This with ``remarks`` of its last step added."""
        return self._replace(remarks=(*self.remarks, *remarks))

    def settled(self) -> "Pot":
        """This after a step: its starch has been as hot as the pot is; a cream whose fat has no room
        left has split, and stays so."""
        if self.starch and self.wetted:
            hot = self.temperature_c
            if any(part.hottest_c < hot for part in self.starch):
                return self.heated(hot).settled()
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
