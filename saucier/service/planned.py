"""What a planned service is made of: needs asked of branches, branches taken from pots."""

import hashlib
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from saucier.check import CheckedSheet, PotInside, State
from saucier.dish import Dish, InRounds, Layout, SauceNeed
from saucier.errors import BadInput
from saucier.guests import Exclusion, Instead, spoken_exclusion
from saucier.heat import Pan
from saucier.larder import Larder
from saucier.mother import Offer
from saucier.service.amiss import Amiss
from saucier.service.document import Line, Service
from saucier.service.on_hand import ReadyRoux, Used
from saucier.sheet import Sheet
from saucier.words import Inside, Sentence, one_of, said, say

_LONGEST_KEY = 200


def short_key(key: str) -> str:
    """``key``, in at most :data:`_LONGEST_KEY` characters: a digest of the whole stands for what is cut off, so
    that no two keys become one."""
    if len(key) <= _LONGEST_KEY:
        return key
    digest = hashlib.sha256(key.encode()).hexdigest()[:16]
    return f"{key[: _LONGEST_KEY - 17]}~{digest}"


def called(dish: str, line: Line, larder: Larder) -> Sentence:
    """A dish as it is told apart on paper: for whom without what, at which sitting."""
    name = going_without(dish, line.without, larder)
    return say("second-sitting", name=name) if line.sitting == 2 else name


def going_without(name: str, words: tuple[str, ...], larder: Larder) -> Sentence:
    """A sauce or a dish, and what its guest goes without."""
    spoken = tuple(spoken_exclusion(word, larder) for word in words)
    return say("going-without", name=name, words=one_of(spoken)) if words else said(name)


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
    one of its own where it does; ``guests`` are the lines that go without something, served of it
    first. ``sheet`` cooks it (a mother's branch takes her in), ``final`` is
    what it comes to: one of ``batches``, while ``made_ml``, ``base_g``, ``let_down_g`` and ``bound_g``
    are of all. ``in_pan`` is what its pan is called, with its number. ``from_stock_ml`` was there already, and counts in its ``cost``.
    ``as_written``: nothing of its sauce was left out or swapped for a guest."""

    key: str
    sauce: str
    name: str
    grade: str | None
    asked: tuple[Asked, ...]
    need_ml: float
    from_stock_ml: float
    pot: str
    sheet: Inside[Sheet]
    final: State
    cost: float
    film_ml: float = 0.0
    made_ml: float = 0.0
    base_g: float = 0.0
    let_down_g: float = 0.0
    let_down_share: float = 0.0
    bound_g: float = 0.0
    why: Sentence | None = None
    as_written: bool = True
    can_share: bool = False
    batches: int = 1
    pan: str = ""
    in_pan: Sentence | str = ""
    notes: tuple[Sentence, ...] = ()
    guests: tuple[Sentence, ...] = ()


@dataclass(frozen=True, slots=True)
class PotPlan:
    """One pot, a mother or a sauce of its own: one of ``batches`` as ``sheet`` in ``pan``, filled to
    ``fill_share``, ``minutes`` each. ``made_g`` of all batches, ``taken_g`` by the branches, ``film_g``
    and ``left_g`` what is not. ``in_pan`` is what its pan is called, with its number; ``guests`` are the
    lines it is made for that go without something: those pots come first, in clean things."""

    key: str
    name: Sentence | str
    mother: bool
    sheet: Inside[Sheet]
    checked: Inside[CheckedSheet]
    final: State
    batches: int
    pan: Pan
    in_pan: Sentence | str
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
    guests: tuple[Sentence, ...] = ()


@dataclass(frozen=True, slots=True)
class FirstPot:
    """A sauce made before the pot or branch ``of``, for it, in a pot of its own: one of ``batches``,
    ``made_g`` in ``pan``, of which ``used_g`` go in."""

    key: str
    of: str
    name: str
    pan: Pan
    in_pan: Sentence | str
    made_g: float
    used_g: float
    minutes: float
    batches: int
    made: Inside[PotInside]


@dataclass(frozen=True, slots=True)
class LinePlan:
    """One line, the ``number`` it has: its dish, ``called`` as it is told apart on paper (after what it goes ``without``), needs, vessels, rounds, what it costs
    and brings. ``remarks`` tell where its sauces differ from what their use asks for. ``refused``: it cannot be served as it is asked for (``Plan.amiss`` says why); ``offers``
    are the swaps with which it can. ``finish`` is what is still done with it, ``on_plate`` tells the grade of each
    sauce at the plate's temperature."""

    number: int
    line: Line
    dish: Inside[Dish]
    name: str
    called: Sentence
    needs: tuple[SauceNeed, ...]
    branches: tuple[str, ...]
    left_out: tuple[Sentence, ...]
    layout: Layout | None
    rounds: tuple[InRounds, ...]
    finish: Sentence | None = None
    remarks: tuple[Sentence, ...] = ()
    refused: bool = False
    offers: tuple[Instead, ...] = ()
    on_plate: tuple[Sentence, ...] = ()
    allergens: tuple[str, ...] = ()
    cost: float = 0.0
    cost_each: float = 0.0

    @property
    def id(self) -> int:
        """What tells it from every other line of its service, wherever it stands."""
        return self.number if self.line.id is None else self.line.id


@dataclass(frozen=True, slots=True)
class Plan:
    """The whole service. ``first`` are the pots made for others; ``used`` is sauce on hand used first, ``roux`` ready roux, ``there`` grams
    of ingredients on hand; ``warnings`` what to mind; ``needs_ml`` what is asked for, ``left_ml`` what
    is made beyond that and what clings; ``by_recipe_ml`` what would be left over had
    each dish made its sauces apart, by halves of their recipes. ``amiss`` is what is wrong with single
    entries, which are left out of it."""

    service: Service
    lines: tuple[LinePlan, ...]
    branches: tuple[BranchPlan, ...]
    pots: tuple[PotPlan, ...]
    first: tuple[FirstPot, ...]
    used: tuple[Used, ...]
    roux: tuple[ReadyRoux, ...]
    there: Inside[Mapping[str, float]]
    warnings: tuple[Sentence, ...]
    needs_ml: float
    left_ml: float
    by_recipe_ml: float
    amiss: tuple[Amiss, ...] = ()

    def to_cook(self, key: str) -> tuple[str, str, Sheet]:
        """What is cooked under ``key``, a pot or a branch: the key it is weighed out under (a sauce
        in its own pot goes by the pot's), the sauce it is ('' for a mother) and one batch of it.
        Raises :class:`BadInput` (field ``pot``)."""
        mothers = {pot.key: pot for pot in self.pots if pot.mother}
        if key in mothers:
            return key, "", mothers[key].sheet
        for first in self.first:
            if key == first.key:
                return key, "", first.made.sheet
        for branch in self.branches:
            if branch.pot and key in (branch.key, branch.pot):
                poured = branch.pot in mothers
                return branch.key if poured else branch.pot, branch.sauce, branch.sheet
        raise BadInput.at("pot", "is-none-of-its-pots", key=key[:60])

    def batches_of(self, key: str) -> int:
        """How many batches are cooked under ``key``, as :meth:`to_cook` gives it; 0: none."""
        found = {one.key: one.batches for one in self.branches}
        found |= {one.key: one.batches for one in self.pots}
        found |= {one.key: one.batches for one in self.first}
        return found.get(key, 0)


@dataclass
class Wanted:
    """A branch being gathered: what is asked of it so far, and what of that is there already. A
    guest's ``variant`` is not the sauce that stands made in the fridge; nothing ``excluded`` may come
    into it with anything it shares."""

    key: str
    sauce: str
    sheet: Sheet
    grade: str | None
    film_ml: float
    variant: bool = False
    as_written: bool = True
    excluded: tuple[Exclusion, ...] = ()
    asked: list[Asked] = field(default_factory=list)
    used: list[Used] = field(default_factory=list)

    @property
    def guest(self) -> bool:
        """Whether anybody who eats of it goes without something."""
        return bool(self.excluded)

    @property
    def need_ml(self) -> float:
        return sum(one.need.volume_ml for one in self.asked)

    @property
    def from_stock_ml(self) -> float:
        return sum(one.ready_ml for one in self.used)

    @property
    def enough_there(self) -> bool:
        """Whether nothing is made: what is there is all that is eaten, and no pot is cooked for a part of the margin."""
        margin_ml = sum(asked.need.margin_ml for asked in self.asked)
        return self.need_ml - margin_ml <= self.from_stock_ml

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
            "as_written": self.as_written,
        }
