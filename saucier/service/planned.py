"""What a planned service is made of: needs asked of branches, branches taken from pots."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from saucier.check import CheckedSheet, State
from saucier.dish import Dish, InRounds, Layout, SauceNeed
from saucier.errors import BadInput
from saucier.heat import Pan
from saucier.mother import Offer
from saucier.service.document import Line, Service
from saucier.service.on_hand import ReadyRoux, Used
from saucier.sheet import Sheet
from saucier.words import Sentence, one_of, said, say


def going_without(name: str, words: tuple[str, ...]) -> Sentence:
    """A sauce or a dish, and what its guest goes without."""
    return say("going-without", name=name, words=one_of(words)) if words else said(name)


@dataclass(frozen=True, slots=True)
class Asked:
    """One need of one line: ``line`` is its number, ``branch`` the branch that meets it."""

    line: int
    dish: str
    branch: str
    need: SauceNeed


@dataclass(frozen=True, slots=True)
class BranchPlan:
    """One finished sauce: what it is asked for, what is ``made_ml``, from which pot, and why it has
    one of its own where it does. ``sheet`` cooks it (a mother's branch takes her in), ``final`` is
    what it comes to. ``from_stock_ml`` was there already, and counts in its ``cost``."""

    key: str
    sauce: str
    name: str
    grade: str | None
    asked: tuple[Asked, ...]
    need_ml: float
    from_stock_ml: float
    pot: str
    sheet: Sheet
    final: State
    cost: float
    film_ml: float = 0.0
    made_ml: float = 0.0
    base_g: float = 0.0
    let_down_g: float = 0.0
    let_down_share: float = 0.0
    bound_g: float = 0.0
    why: Sentence | None = None
    can_share: bool = False
    pan: str = ""


@dataclass(frozen=True, slots=True)
class PotPlan:
    """One pot, a mother or a sauce of its own: one of ``batches`` as ``sheet`` in ``pan``, filled to
    ``fill_share``, ``minutes`` each. ``made_g`` of all batches, ``taken_g`` by the branches, ``film_g``
    and ``left_g`` what is not."""

    key: str
    name: Sentence | str
    mother: bool
    sheet: Sheet
    checked: CheckedSheet
    batches: int
    pan: Pan
    fill_share: float
    minutes: float
    made_g: float
    made_ml: float
    taken_g: float
    film_g: float
    left_g: float
    thickest: str
    notes: tuple[Sentence, ...]
    offers: tuple[Offer, ...]


@dataclass(frozen=True, slots=True)
class LinePlan:
    """One line: its dish (after what it goes ``without``), needs, vessels, rounds, what it costs
    and brings. ``finish`` is what is still done with it, ``on_plate`` tells the grade of each
    sauce at the plate's temperature."""

    line: Line
    dish: Dish
    needs: tuple[SauceNeed, ...]
    branches: tuple[str, ...]
    left_out: tuple[Sentence, ...]
    layout: Layout | None
    rounds: tuple[InRounds, ...]
    finish: Sentence | None = None
    on_plate: tuple[Sentence, ...] = ()
    allergens: frozenset[str] = frozenset()
    cost: float = 0.0

    @property
    def called(self) -> Sentence:
        """The dish as it is told apart on paper: for whom without what, at which sitting."""
        called = going_without(self.dish.name, self.line.without)
        return say("second-sitting", name=called) if self.line.sitting == 2 else called

    @property
    def cost_each(self) -> float:
        return self.cost / self.line.portions


@dataclass(frozen=True, slots=True)
class Plan:
    """The whole service. ``used`` is sauce on hand used first, ``roux`` ready roux, ``there`` grams
    of ingredients on hand; ``warnings`` what to mind; ``by_recipe_ml`` what would be left over had
    each dish made its sauces apart, by halves of their recipes."""

    service: Service
    lines: tuple[LinePlan, ...]
    branches: tuple[BranchPlan, ...]
    pots: tuple[PotPlan, ...]
    used: tuple[Used, ...]
    roux: tuple[ReadyRoux, ...]
    there: Mapping[str, float]
    warnings: tuple[Sentence, ...]
    by_recipe_ml: float

    def to_cook(self, key: str) -> tuple[str, str, Sheet]:
        """What is cooked under ``key``, a pot or a branch: the key it is weighed out under (a sauce
        in its own pot goes by the pot's), the sauce it is ('' for a mother) and one batch of it.
        Raises :class:`BadInput` (field ``pot``)."""
        mothers = {pot.key: pot for pot in self.pots if pot.mother}
        if key in mothers:
            return key, "", mothers[key].sheet
        for branch in self.branches:
            if branch.pot and key in (branch.key, branch.pot):
                poured = branch.pot in mothers
                return branch.key if poured else branch.pot, branch.sauce, branch.sheet
        raise BadInput.at("pot", "is-none-of-its-pots", key=key[:60])

    @property
    def left_ml(self) -> float:
        """What is made beyond the needs and what clings, mL."""
        return sum(
            b.made_ml + b.from_stock_ml - b.need_ml - b.film_ml for b in self.branches
        ) + sum(pot.left_g * pot.made_ml / pot.made_g for pot in self.pots if pot.mother)


@dataclass
class Wanted:
    """A branch being gathered: what is asked of it so far, and what of that is there already. A
    guest's ``variant`` is not the sauce that stands made in the fridge."""

    key: str
    sauce: str
    sheet: Sheet
    grade: str | None
    film_ml: float
    variant: bool = False
    asked: list[Asked] = field(default_factory=list)
    used: list[Used] = field(default_factory=list)

    @property
    def need_ml(self) -> float:
        return sum(one.need.volume_ml for one in self.asked)

    @property
    def from_stock_ml(self) -> float:
        return sum(one.ready_ml for one in self.used)

    @property
    def stock_cost(self) -> float:
        return sum(one.cost for one in self.used)

    @property
    def to_make_ml(self) -> float:
        return max(0.0, self.need_ml - self.from_stock_ml) + self.film_ml

    def told(self) -> dict[str, Any]:
        """What a branch says of itself, however it is made."""
        return {
            "key": self.key,
            "sauce": self.sauce,
            "name": self.sheet.name,
            "grade": self.grade,
            "asked": tuple(self.asked),
            "need_ml": self.need_ml,
            "from_stock_ml": self.from_stock_ml,
        }
