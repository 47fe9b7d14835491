"""What every step of a sauce is: data in the sheet, a move of the pot. Its words are in ``saucier.cards``.

A new step is one class beside these, listed in ``saucier.steps``.
"""

from abc import ABC, abstractmethod
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Annotated, Any, NamedTuple, Self

from pydantic import (
    BaseModel,
    BeforeValidator,
    ConfigDict,
    Field,
    PlainSerializer,
    PlainValidator,
    WithJsonSchema,
)

from saucier import constants as K
from saucier.errors import BadInput
from saucier.heat import Stove, heat_capacity_j_per_k, mixed_temperature_c
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient
from saucier.pot import EMPTY, Piece, Pot
from saucier.units import UNITS, Amount, MeasuredBy, read_amount
from saucier.units.reading import checked_amount
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class Knobs:
    """What a solve may turn while the steps stay as they are.

    ``scale`` multiplies every amount, ``flour`` the flour of the roux on top of that,
    ``fat_to_flour`` (None: as written) ties its fat, ``share`` (None: as written) is where the
    sheet's free reduction stops, as a share of the mass before it.
    """

    scale: float = 1.0
    flour: float = 1.0
    fat_to_flour: float | None = None
    share: float | None = None


AS_WRITTEN = Knobs()

Move = Callable[[Pot, Knobs], Pot]
"""A prepared step: names and units resolved, only floats left to work with."""


def advance(pot: Pot, move: Move, knobs: Knobs = AS_WRITTEN) -> Pot:
    """``pot`` after one more step, with that step's remarks alone."""
    return move(pot._replace(remarks=()) if pot.remarks else pot, knobs).settled()


class Setting(NamedTuple):
    """Where a step happens: the kitchen, the sheet's own stove, whether this step is the
    reduction a solve is free to move, the school by which liquid meets roux, how many sauces deep
    it stands in others, and the temperature it is served at, °C."""

    kitchen: Kitchen
    stove: Stove
    free_reduction: bool = False
    liquid_in: str = "cold-gradual"
    depth: int = 0
    serving_c: float = K.REFERENCE_C

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


def amount_field(value: Any) -> Amount:
    """An amount from a document: text, or value and unit, where the value may be text too.
    Raises :class:`BadInput`."""
    if isinstance(value, Amount):
        return value
    if isinstance(value, str):
        return read_amount(value)
    if isinstance(value, dict):
        odd = sorted(set(value) - {"value", "unit", "measure"})
        if odd:
            raise BadInput.at(str(odd[0])[:40], "is-not-part-of-an-amount")
        number, unit = value.get("value"), value.get("unit")
        by = None if value.get("measure") is None else _measured_by(value["measure"])
        if not isinstance(unit, str):
            raise BadInput.at("unit", "unit-is-missing", units=tuple(UNITS))
        if isinstance(number, str):
            try:
                return read_amount(number, unit)
            except BadInput as bad:
                raise (
                    BadInput(*bad.problems) if bad.problems[0].field else bad.under("value")
                ) from None
        if isinstance(number, bool) or not isinstance(number, int | float):
            raise BadInput.at("value", "is-not-a-number-give-a")
        try:
            amount = checked_amount(float(number), unit)
            return Amount(amount.value, amount.unit, by) if by else amount
        except OverflowError:
            raise BadInput.at("value", "is-far-too-large") from None
    raise BadInput.at("", "is-not-an-amount")


def _measured_by(value: Any) -> MeasuredBy:
    """How an amount is measured by hand. Raises :class:`BadInput` under ``measure``."""
    if not isinstance(value, dict) or set(value) != {"name", "count", "spread_pct"}:
        raise BadInput.at("measure", "is-not-a-measure")
    name, count, spread = value["name"], value["count"], value["spread_pct"]
    numbers = all(
        isinstance(one, int | float) and not isinstance(one, bool) for one in (count, spread)
    )
    if not (isinstance(name, str) and 1 <= len(name) <= 40 and numbers):
        raise BadInput.at("measure", "is-not-a-measure")
    if not (0 < count <= 100_000 and 0 <= spread <= 100):
        raise BadInput.at("measure", "is-out-of-reach-a-count")
    return MeasuredBy(name, float(count), spread / 100.0)


def written_amount(amount: Amount) -> dict[str, Any]:
    """``amount`` as the sheet writes it."""
    found: dict[str, Any] = {"value": amount.value, "unit": amount.unit}
    if by := amount.measure:
        found["measure"] = {
            "name": by.name,
            "count": by.count,
            "spread_pct": round(100.0 * by.spread, 6),
        }
    return found


AmountField = Annotated[
    Amount,
    PlainValidator(amount_field),
    PlainSerializer(written_amount),
    WithJsonSchema(
        {
            "title": "Amount",
            "type": "object",
            "required": ["value", "unit"],
            "additionalProperties": False,
            "properties": {
                "value": {"type": "number", "exclusiveMinimum": 0},
                "unit": {"enum": list(UNITS)},
                "measure": {
                    "title": "Measured by hand",
                    "type": "object",
                    "required": ["name", "count", "spread_pct"],
                    "additionalProperties": False,
                    "properties": {
                        "name": {"type": "string", "minLength": 1, "maxLength": 40},
                        "count": {"type": "number", "exclusiveMinimum": 0},
                        "spread_pct": {"type": "number", "minimum": 0, "maximum": 100},
                    },
                },
            },
        }
    ),
]
"""An amount in the sheet; text such as "1 1/2 cups" is read too."""


def no_bool(value: Any) -> Any:
    if isinstance(value, bool):
        raise ValueError("must be a number")
    if isinstance(value, str):
        return value.strip().replace(",", ".")
    return value


Minutes = Annotated[float, BeforeValidator(no_bool), Field(ge=0, le=1440)]
Celsius = Annotated[float, BeforeValidator(no_bool), Field(ge=-30, le=260)]
Percent = Annotated[float, BeforeValidator(no_bool), Field(ge=0, le=20)]
IngredientKey = Annotated[str, Field(min_length=1, max_length=60)]


class Part(BaseModel):
    """A piece of the sheet: frozen, and strict about fields it does not know."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False)


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
    return Weighed(row.key, row.name, row.role, amount, grams, row.in_spoons(grams), path)


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


class StepBase(Part, ABC):
    """Common to all steps. ``note`` is the cook's own word on it."""

    note: Annotated[str, Field(max_length=500)] | None = None

    def names(self) -> frozenset[str]:
        """Keys of every ingredient it speaks of, whether it puts it in, takes it out or holds it
        back: what a guest goes without is looked for here."""
        own = getattr(self, "ingredient", None)
        keys = {key for _, key, _ in amounts_in(self) if key}
        return frozenset(keys | {own} if own else keys)

    @abstractmethod
    def prepare(self, setting: Setting) -> Move:
        """This step with names and units resolved. Raises :class:`BadInput` by field."""

    def turned(self, knobs: Knobs, setting: Setting) -> Self:
        """This step as data after a solve turned ``knobs``."""
        return self

    def to_weigh(self, setting: Setting) -> list[Weighed]:
        """What has to be ready for it."""
        return []

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


def put_in(
    pot: Pot,
    row: Ingredient,
    grams: float,
    temperature_c: float | None,
    minutes: float = 0.0,
    remarks: tuple[Sentence, ...] = (),
    *,
    juice_share: float | None = None,
) -> Pot:
    """``pot`` with ``grams`` of ``row`` stirred in at ``temperature_c`` (None: the pot's own),
    which takes ``minutes`` and calls for ``remarks``.

    Pieces join the pieces; all else becomes sauce. With ``juice_share`` they are food that
    finishes in it and gives so much of its weight as juice.
    """
    temperature = pot.temperature_c
    if temperature_c is not None and temperature_c != temperature:
        temperature = mixed_temperature_c(
            pot_heat_j_per_k(pot), temperature, row.heat_j_per_gk * grams, temperature_c
        )
    balance, pieces, remarks = pot.balance, pot.pieces, pot.remarks + remarks
    if row.piece:
        food = juice_share is not None
        leak = row.leak_share if juice_share is None else juice_share
        falls = 0.0 if food else row.falls_share
        content = EMPTY.plus(row.per_gram, grams)
        piece = Piece(row.key, row.name, content, leak * grams, falls * grams, 0.0, food)
        pieces = (*pieces, piece)
    else:
        if _curdles(pot, row):
            remarks = (*remarks, _CURDLES)
        balance = balance.plus(row.per_gram, grams)
    if _spits(pot, row):
        remarks = (*remarks, _SPITS)
    return pot._replace(
        balance=balance,
        temperature_c=temperature,
        # Flour that comes in later has not boiled yet, whatever the pot has been through.
        boiled_min=0.0 if row.per_gram.thickener else pot.boiled_min,
        wetted=pot.wetted or (row.wet and not row.piece),
        hottest_c=max(pot.hottest_c, temperature) if balance.yolk_protein else 0.0,
        allergens=pot.allergens | row.allergens,
        cost=pot.cost + row.cost(grams),
        minutes=pot.minutes + minutes,
        remarks=remarks,
        pieces=pieces,
    )


_SPITS = say("spits")


def _spits(pot: Pot, row: Ingredient) -> bool:
    """Something wet onto hot fat with nothing in it yet that would take the heat."""
    return (
        pot.temperature_c >= K.HOT_FAT_C
        and not pot.wetted
        and row.per_gram.water >= K.WET_INGREDIENT
        and pot.balance.loose >= K.HOT_FAT_G
        and pot.balance.flour <= 0.0
    )


_CURDLES = say("curdles")


def _curdles(pot: Pot, row: Ingredient) -> bool:
    dairy = row.role in ("milk", "cream", "soft-cream") and row.per_gram.fat < K.STABLE_CREAM_FAT
    if not dairy or pot.balance.thickener:
        return False
    mass = pot.balance.mass_g
    return mass > 0.0 and pot.balance.acid / mass > K.CURDLING_ACID


def pot_heat_j_per_k(pot: Pot) -> float:
    """J/K of sauce and pieces together."""
    heat = heat_capacity_j_per_k(pot.balance)
    for piece in pot.pieces:
        heat += heat_capacity_j_per_k(piece.content)
    return heat
