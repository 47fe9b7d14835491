"""The mass balance: grams of everything that decides how a sauce behaves."""

from typing import NamedTuple

from saucier.constants import (
    CREAMY_SHARE,
    DENSITY_ALCOHOL,
    DENSITY_DRY,
    DENSITY_FAT,
    DENSITY_SALT,
    DENSITY_WATER,
    DRY_SHARE_OF_FLOUR,
    FLOUR_HOLDS_FAT,
    KCAL_PER_G,
)

_new = tuple.__new__


class Balance(NamedTuple):
    """Grams of each part of what is in a pot (or in one gram of an ingredient).

    ``flour`` counts flour and starch as bought; its own water and fat stand under ``water``
    and ``fat``, so only its dry share adds to the mass. These add no mass of their own:

    - ``thickener``: the same flour by its power against wheat flour in a white roux;
    - ``body``: what purées and gels thicken like, g of flour, without a boil; ``gel`` the part of
      it that a boil takes away; ``doubt`` how far off ``body`` may be, one standard spread;
    - ``butter``: fat that came as butter, oil or rendered fat; ``loose`` the part of it that
      nothing has whisked in;
    - ``cultured``: the part of ``body`` that a cultured cream keeps when it boils; it thickens no
      further as that boils down (``Pot.boil_liquid``);
    - ``acid`` (as citric) and ``sugar``, both within ``solids``.

    A named tuple, as :class:`Pot`: frozen like the dataclasses elsewhere, and four times quicker
    to make, which a check lives on. Source: docs/model.md 1, docs/model.md.
    """

    water: float = 0.0
    fat: float = 0.0
    flour: float = 0.0
    thickening_protein: float = 0.0
    yolk_protein: float = 0.0
    solids: float = 0.0
    salt: float = 0.0
    alcohol: float = 0.0
    insoluble: float = 0.0
    thickener: float = 0.0
    acid: float = 0.0
    sugar: float = 0.0
    body: float = 0.0
    gel: float = 0.0
    doubt: float = 0.0
    butter: float = 0.0
    loose: float = 0.0
    cultured: float = 0.0

    @property
    def mass_g(self) -> float:
        return (
            self.water
            + self.fat
            + DRY_SHARE_OF_FLOUR * self.flour
            + self.thickening_protein
            + self.yolk_protein
            + self.solids
            + self.salt
            + self.alcohol
            + self.insoluble
        )

    @property
    def volume_ml(self) -> float:
        """Volume at 65 °C, mL (docs/model.md 1)."""
        return (
            self.water / DENSITY_WATER
            + self.fat / DENSITY_FAT
            + (
                DRY_SHARE_OF_FLOUR * self.flour
                + self.thickening_protein
                + self.yolk_protein
                + self.solids
                + self.insoluble
            )
            / DENSITY_DRY
            + self.salt / DENSITY_SALT
            + self.alcohol / DENSITY_ALCOHOL
        )

    @property
    def swimming_fat_g(self) -> float:
        """Fat that swims on the sauce: loose, and more than its flour holds (docs/model.md 1).

        It is in the pot and in its fat; a cook who looks at "half" does not look at it.
        """
        swims = self.loose - FLOUR_HOLDS_FAT * self.flour
        return swims if swims > 0.0 else 0.0

    @property
    def liquid_g(self) -> float:
        """The sauce as a cook sees it: without the fat that swims on it."""
        return self.mass_g - self.swimming_fat_g

    @property
    def creamy(self) -> bool:
        """Whether its fat is (for a good part) held in droplets, as a cream's is: only such a
        sauce can split. Butter with a little wine under it is no cream."""
        return self.fat > 0.0 and self.fat - self.loose >= CREAMY_SHARE * self.fat

    @property
    def kcal(self) -> float:
        """Food energy, kcal, by the usual labelling factors."""
        k = KCAL_PER_G
        return (
            self.fat * k["fat"]
            + self.alcohol * k["alcohol"]
            + self.flour * k["flour"]
            + (self.thickening_protein + self.yolk_protein) * k["protein"]
            + self.solids * k["solids"]
        )

    def plus(self, other: "Balance", times: float = 1.0) -> "Balance":
        """This with ``times`` the other added. Written out: a check and its variants live on it."""
        w, f, fl, tp, yp, so, sa, al, ins, th, ac, su, bo, ge, do, bu, lo, cu = self
        W, F, FL, TP, YP, SO, SA, AL, INS, TH, AC, SU, BO, GE, DO, BU, LO, CU = other  # noqa: N806
        return _new(
            Balance,
            (
                w + W * times,
                f + F * times,
                fl + FL * times,
                tp + TP * times,
                yp + YP * times,
                so + SO * times,
                sa + SA * times,
                al + AL * times,
                ins + INS * times,
                th + TH * times,
                ac + AC * times,
                su + SU * times,
                bo + BO * times,
                ge + GE * times,
                do + DO * times,
                bu + BU * times,
                lo + LO * times,
                cu + CU * times,
            ),
        )

    def with_liquids(self, water: float, alcohol: float) -> "Balance":
        """This with ``water`` and ``alcohol`` grams in place of its own: what boiling does."""
        _, f, fl, tp, yp, so, sa, _, *rest = self
        return _new(Balance, (water, f, fl, tp, yp, so, sa, alcohol, *rest))

    def boiled(self) -> "Balance":
        """This once it has been at the boil: gels of soured milk let go."""
        if self.gel <= 0.0:
            return self
        left = 1.0 - self.gel / self.body
        return self._replace(body=self.body - self.gel, gel=0.0, doubt=self.doubt * left)

    def whisked(self) -> "Balance":
        """This with all its fat worked in: nothing swims any more."""
        return self._replace(loose=0.0) if self.loose else self


EMPTY = Balance()
