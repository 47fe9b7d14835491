"""The mass balance: grams of everything that decides how a sauce behaves."""

from typing import NamedTuple

from saucier.constants import (
    DENSITY_ALCOHOL,
    DENSITY_DRY,
    DENSITY_FAT,
    DENSITY_SALT,
    DENSITY_WATER,
    DRY_SHARE_OF_FLOUR,
    KCAL_PER_G,
)


class Balance(NamedTuple):
    """Grams of each part of what is in a pot (or in one gram of an ingredient).

    ``flour`` counts flour and starch as bought; its own water and fat stand under ``water``
    and ``fat``, so only its dry share adds to the mass. ``thickener`` is the same flour
    weighed by its power against wheat flour in a white roux; like ``acid`` (as citric) and
    ``sugar`` (both within ``solids``) it adds no mass. A named tuple, as :class:`Pot`: frozen
    like the dataclasses elsewhere, and four times quicker to make, which a check lives on. Source: model.md 1, docs/model.md.
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
        """Volume at 65 °C, mL (model.md 1)."""
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
        """This with ``times`` the other added."""
        return Balance(
            self.water + other.water * times,
            self.fat + other.fat * times,
            self.flour + other.flour * times,
            self.thickening_protein + other.thickening_protein * times,
            self.yolk_protein + other.yolk_protein * times,
            self.solids + other.solids * times,
            self.salt + other.salt * times,
            self.alcohol + other.alcohol * times,
            self.insoluble + other.insoluble * times,
            self.thickener + other.thickener * times,
            self.acid + other.acid * times,
            self.sugar + other.sugar * times,
        )

    def with_liquids(self, water: float, alcohol: float) -> "Balance":
        """This with ``water`` and ``alcohol`` grams in place of its own: what boiling does."""
        return Balance(
            water,
            self.fat,
            self.flour,
            self.thickening_protein,
            self.yolk_protein,
            self.solids,
            self.salt,
            alcohol,
            self.insoluble,
            self.thickener,
            self.acid,
            self.sugar,
        )


EMPTY = Balance()
