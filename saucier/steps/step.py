"""What every step of a sauce is: data in the sheet, a move of the pot. Its words are in ``saucier.cards``.

A new step is one class beside these, listed in ``saucier.steps``.
"""

from abc import ABC, abstractmethod
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import TYPE_CHECKING, Annotated, ClassVar, Literal, NamedTuple, Self

from pydantic import Field

from saucier import constants as K
from saucier.document import AmountField, IngredientKey, Part
from saucier.errors import BadInput
from saucier.heat import Stove
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient
from saucier.pot import Pot
from saucier.units import Amount

if TYPE_CHECKING:
    from saucier.steps.making import Making


class Knobs(NamedTuple):
    """What may be turned while the steps stay as they are.

    ``scale`` multiplies every amount, ``flour`` the flour of the roux on top of that,
    ``fat_to_flour`` (None: as written) ties its fat, ``share`` (None: as written) is where the
    sheet's free reduction stops, as a share of the mass before it. So far a solve turns them; the
    rest is how a cook's hands and a kitchen's pans are off: ``boil`` times what boils off in a
    minute, ``eye`` times where the eye stops a reduction, ``each`` what is so of each step by itself.
    """

    scale: float = 1.0
    flour: float = 1.0
    fat_to_flour: float | None = None
    share: float | None = None
    boil: float = 1.0
    eye: float = 1.0
    each: "tuple[Knobs, ...] | None" = None

    def at(self, step: int) -> "Knobs":
        """These at one step, with what is so of that step alone."""
        if self.each is None:
            return self
        own = self.each[step]
        return Knobs(
            self.scale * own.scale,
            self.flour * own.flour,
            self.fat_to_flour,
            self.share,
            self.boil * own.boil,
            own.eye,
            own.each,
        )


AS_WRITTEN = Knobs()

Move = Callable[[Pot, Knobs], Pot]
"""A prepared step: names and units resolved, only floats left to work with."""


def advance(pot: Pot, move: Move, knobs: Knobs = AS_WRITTEN) -> Pot:
    """``pot`` after one more step, with that step's remarks alone."""
    return move(pot._replace(remarks=()) if pot.remarks else pot, knobs).settled()


class Setting(NamedTuple):
    """Where a step happens: the kitchen, the sheet's own stove, whether a solve is ``free`` to turn
    what this step holds, the school by which liquid meets roux, how many sauces ``depth`` it stands
    in others, the temperature it is served at, °C, and how many ``times`` the batch as written is
    about to be made: what pans inside are chosen for."""

    kitchen: Kitchen
    stove: Stove
    free: bool = False
    liquid_in: str = "cold-gradual"
    depth: int = 0
    serving_c: float = K.REFERENCE_C
    times: float = 1.0

    def ingredient(self, key: str, field: str = "") -> Ingredient:
        """The larder's row for ``key``; problems come back under ``field``."""
        try:
            return self.kitchen.larder[key]
        except BadInput as bad:
            raise bad.under(field) if field else bad from None


@dataclass(frozen=True, slots=True)
class Weighed:
    """One thing to have ready for a step: ``amount`` as the sheet says, its ``grams``, and
    ``spoons`` where a spoon or cup is useful."""

    ingredient: str
    name: str
    role: str
    amount: Amount
    grams: float
    spoons: Amount | None
    field: str


def grams_of(setting: Setting, ingredient: str, amount: Amount, field: str = "") -> float:
    """Grams of ``ingredient`` in ``amount``. Raises :class:`BadInput` under ``field``."""
    row = setting.ingredient(ingredient, field)
    try:
        return row.grams(amount)
    except BadInput as bad:
        raise bad.under(f"{field}.amount" if field else "amount") from None


def weighed_of(setting: Setting, ingredient: str, amount: Amount, field: str = "") -> Weighed:
    """``amount`` of ``ingredient`` on the scale. Raises :class:`BadInput` under ``field``."""
    grams = grams_of(setting, ingredient, amount, field)
    row = setting.ingredient(ingredient)
    path = f"{field}.amount" if field else "amount"
    return Weighed(
        ingredient=row.key,
        name=row.name,
        role=row.role,
        amount=amount,
        grams=grams,
        spoons=row.in_spoons(grams),
        field=path,
    )


class Measured(Part):
    """So much of an ingredient."""

    ingredient: IngredientKey
    amount: AmountField

    def grams(self, setting: Setting, field: str = "") -> float:
        """Grams of it. Raises :class:`BadInput` under ``field``."""
        return grams_of(setting, self.ingredient, self.amount, field)

    def weighed(self, setting: Setting, field: str = "") -> Weighed:
        """This on the scale. Raises :class:`BadInput` under ``field``."""
        return weighed_of(setting, self.ingredient, self.amount, field)

    def times(self, factor: float) -> Self:
        return self.model_copy(update={"amount": self.amount.times(factor)})


def amounts_in(step: "StepBase") -> Iterator[tuple[str, str, Amount]]:
    """Every amount of ``step`` as written: its field, its ingredient's key, the amount."""
    kind = type(step)
    names = _HOLD_AMOUNTS.get(kind)
    if names is None:
        names = tuple(name for name in kind.model_fields if name in _AMOUNTS)
        _HOLD_AMOUNTS[kind] = names
    for name in names:
        value = getattr(step, name)
        if isinstance(value, Amount):
            yield name, getattr(step, "ingredient", ""), value
        elif isinstance(value, Measured):
            yield f"{name}.amount", value.ingredient, value.amount


_AMOUNTS = frozenset(["amount", "fat", "flour", "juices", "yolk", "cream"])
"""Fields of steps that hold an amount, or so much of an ingredient."""
_HOLD_AMOUNTS: dict[type["StepBase"], tuple[str, ...]] = {}


Hands = Literal["all", "now-and-then", "none"]
"""Whether a cook stands at it throughout, looks in now and then, or can leave it alone."""


class StepBase(Part, ABC):
    """Common to all steps. ``note`` is the cook's own word on it; ``hands`` it wants while it goes
    on, and ``fire``: whether its pot stands on a ring."""

    hands: ClassVar[Hands] = "all"
    fire: ClassVar[bool] = True
    note: Annotated[str, Field(max_length=500)] | None = None

    def names(self) -> frozenset[str]:
        """Keys of every ingredient it speaks of, whether it puts it in, takes it out or holds it
        back: what a guest goes without is looked for here."""
        own = getattr(self, "ingredient", None)
        keys = {key for _, key, _ in amounts_in(self) if key}
        return frozenset(keys | {own} if own else keys)

    @property
    def inside(self) -> "Making | None":
        """The sauce that is made for this step in a pot of its own; None for nearly all."""
        return None

    def poured_ml(self, kitchen: Kitchen) -> float:
        """About how much it pours in beside its amounts, mL."""
        return 0.0

    @abstractmethod
    def prepare(self, setting: Setting) -> Move:
        """This step with names and units resolved. Raises :class:`BadInput` by field."""

    def turned(self, knobs: Knobs, setting: Setting) -> Self:
        """This step as data after a solve turned ``knobs``."""
        return self

    def to_weigh(self, setting: Setting) -> list[Weighed]:
        """What has to be ready for it."""
        return []

    def gathered(self, setting: Setting) -> list[tuple[str, float]]:
        """Keys and grams of all it takes from the larder, that of a sauce made for it included."""
        return [(one.ingredient, one.grams) for one in self.to_weigh(setting) if one.ingredient]

    def weighed_after(self, setting: Setting, before: Pot, after: Pot) -> list[Weighed]:
        """As :meth:`to_weigh`, with what only playing the step tells (salt up to a target)."""
        return self.to_weigh(setting)

    def with_amount(self, field: str, amount: Amount) -> Self:
        """This step with the amount at ``field`` (as named by :meth:`to_weigh`) replaced."""
        head, _, rest = field.rpartition(".")
        if head:
            part = getattr(self, head)
            return self.model_copy(update={head: part.model_copy(update={rest: amount})})
        return self.model_copy(update={rest: amount})

    def timer_minutes(self, before: Pot, after: Pot) -> float | None:
        """Minutes a timer should run for it, None where the eye decides."""
        return None


class OneIngredient(StepBase):
    """A step about so much of one ingredient, which scales with the batch."""

    ingredient: IngredientKey
    amount: AmountField

    def turned(self, knobs: Knobs, setting: Setting) -> Self:
        return self.model_copy(update={"amount": self.amount.times(knobs.scale)})

    def to_weigh(self, setting: Setting) -> list[Weighed]:
        return [weighed_of(setting, self.ingredient, self.amount)]
