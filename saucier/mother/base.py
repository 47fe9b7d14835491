"""The base of a sauce: its roux and its liquid, told apart by composition and never by name."""

from dataclasses import dataclass

from saucier import constants as K
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient
from saucier.pot import EMPTY, Balance
from saucier.sheet import Sheet
from saucier.steps import Add, AnyStep, Reserve, Roux, Simmer
from saucier.words import Sentence, all_of, say

_LIQUIDS = ("milk", "stock", "water")


_USUAL = frozenset({"butter-unsalted", "wheat-flour"})
"""What a roux is made of where nothing is said."""


@dataclass(frozen=True, slots=True)
class Base:
    """``fat`` and ``flour`` of the roux with ``ratio`` g fat to a gram flour, its ``colour`` and
    ``roux_minutes``; ``liquids`` by key with their shares by mass, in at ``liquid_c``; simmered
    ``minutes`` at ``heat``. ``liquid`` is a gram of them together. ``additions`` are the steps a
    branch takes after it, ``total_ml`` what the sheet they come from makes."""

    fat: Ingredient
    flour: Ingredient
    ratio: float
    colour: str
    roux_minutes: float
    liquids: tuple[tuple[Ingredient, float], ...]
    liquid_c: float
    minutes: float
    heat: str
    liquid: Balance
    additions: tuple[AnyStep, ...]

    @property
    def rows(self) -> tuple[Ingredient, ...]:
        """All that is in it."""
        return (self.fat, self.flour, *(row for row, _ in self.liquids))

    @property
    def allergens(self) -> frozenset[str]:
        return frozenset().union(*(row.allergens for row in self.rows))

    @property
    def identity(self) -> str:
        """What she is made of, in keys: the same however much is made, and whoever pours from her."""
        main = max(self.liquids, key=lambda liquid: liquid[1])[0]
        return f"{self.colour}-{main.key}-{self.fat.key}-{self.flour.key}"

    @property
    def name(self) -> Sentence:
        """What it is called, for the eye only: nothing is matched by it. A fat or a flour that is not the usual is
        named: of two pots on the stove, one of them for a guest, a cook takes the right one by its name."""
        parts = [row.spoken_name for row in (self.fat, self.flour) if row.key not in _USUAL]
        if parts:
            return say(f"base.{self.colour}-of", parts=all_of(parts), liquid=_liquid(self))
        return say(f"base.{self.colour}", liquid=_liquid(self))


def base_of(sheet: Sheet, kitchen: Kitchen) -> Base | Sentence:
    """The base ``sheet`` begins with, or why it has none to share.

    A base is a roux in an empty pot, milk, stock or water into it, and its simmer. What else goes
    in before the simmer is taken as an addition, boiled in the branch.

    >>> from saucier.testing import add, roux, sheet, simmer
    >>> from saucier.kitchen import Kitchen
    >>> white = sheet(roux(60, 60), add('milk-whole', 1, 'L'), simmer(5))
    >>> base = base_of(white, Kitchen())
    >>> base.colour, round(base.ratio, 2), base.minutes
    ('white', 1.0, 5.0)
    """
    steps = sheet.steps
    if not steps or not isinstance(steps[0], Roux) or steps[0].colour == "raw":
        return say("begins-with-no-roux")
    roux = steps[0]
    larder = kitchen.larder
    liquids: list[tuple[Ingredient, float]] = []
    early: list[AnyStep] = []
    simmer: Simmer | None = None
    liquid_c, at = 20.0, 1
    for step in steps[1:]:
        if isinstance(step, Simmer):
            simmer = step
            at += 1
            break
        if not isinstance(step, Add):
            break
        row = larder[step.ingredient]
        if row.role in _LIQUIDS and not early:
            liquids.append((row, row.grams(step.amount)))
            liquid_c = 20.0 if step.temperature_c is None else step.temperature_c
        else:
            early.append(step)
        at += 1
    if not liquids:
        return say("no-liquid-into-its-roux")
    if early:
        early.append(Simmer(minutes=K.BRANCH_BOIL_MIN, heat="bare-simmer"))
    # What is kept back is the dish's business here, not the pot's.
    rest = tuple(step for step in steps[at:] if not isinstance(step, Reserve))
    total = sum(grams for _, grams in liquids)
    balance = EMPTY
    for row, grams in liquids:
        balance = balance.plus(row.per_gram, grams / total)
    fat, flour = larder[roux.fat.ingredient], larder[roux.flour.ingredient]
    flour_g = flour.grams(roux.flour.amount)
    return Base(
        fat=fat,
        flour=flour,
        ratio=fat.grams(roux.fat.amount) / flour_g,
        colour=roux.colour,
        roux_minutes=roux.minutes,
        liquids=tuple((row, grams / total) for row, grams in liquids),
        liquid_c=liquid_c,
        minutes=simmer.minutes if simmer else 5.0,
        heat=simmer.heat if simmer else "simmer",
        liquid=balance,
        additions=(*early, *rest),
    )


def same_base(one: Base, other: Base) -> Sentence | None:
    """None where the two can be made in one pot; else what differs.

    >>> from saucier.testing import add, roux, sheet, simmer
    >>> from saucier.kitchen import Kitchen
    >>> kitchen = Kitchen()
    >>> milk = base_of(sheet(roux(60, 60), add('milk-whole', 1, 'L'), simmer(5)), kitchen)
    >>> more = base_of(sheet(roux(90, 90), add('milk-whole', 2, 'L'), simmer(9)), kitchen)
    >>> same_base(milk, more) is None
    True
    """
    if one.colour != other.colour:
        return say("other-roux", one=one.colour, other=other.colour)
    if _apart(one.liquid, other.liquid) > K.SAME_LIQUID:
        return say("other-part", one=_liquid(one), other=_liquid(other))
    if _apart(one.fat.per_gram, other.fat.per_gram) > K.SAME_LIQUID:
        return say("other-part", one=one.fat.spoken_name, other=other.fat.spoken_name)
    if _apart(one.flour.per_gram, other.flour.per_gram) > 4 * K.SAME_LIQUID:
        return say("other-part", one=one.flour.spoken_name, other=other.flour.spoken_name)
    if one.allergens != other.allergens:
        extra = sorted(one.allergens ^ other.allergens)
        return say("only-one-brings", allergens=tuple(extra))
    return None


def _apart(one: Balance, other: Balance) -> float:
    return max(abs(a - b) for a, b in zip(one, other, strict=True))


def _liquid(base: Base) -> object:
    return all_of([row.spoken_name for row, _ in base.liquids])
