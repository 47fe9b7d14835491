"""`use`: another sauce stirred in, made for it in a pot of its own or taken from one that stands."""

import re
from collections.abc import Callable, Iterator
from typing import TYPE_CHECKING, Annotated, Any, Literal, NamedTuple, Self

from pydantic import ConfigDict, Discriminator, Field, Tag, model_validator

from saucier import constants as K
from saucier.document import AmountField, Celsius, Part
from saucier.errors import BadInput
from saucier.heat import Pan, heat_capacity_j_per_k, mixed_temperature_c, pot_heat_j_per_k
from saucier.kitchen import Kitchen
from saucier.pot import EMPTY, Pot, SetAside, spirits_mixed, starches_mixed
from saucier.roots import find_root
from saucier.steps.boiling import whisked_on_the_fire
from saucier.steps.making import PreparedSteps, free_ratio, load_of, pan_of, prepare_steps
from saucier.steps.method import Method
from saucier.steps.step import AS_WRITTEN, Knobs, Move, Setting, StepBase, Weighed
from saucier.steps.vessel import SheetBurner, SheetPan
from saucier.units import Amount, Dimension
from saucier.words import Sentence

if TYPE_CHECKING:
    from saucier.steps import AnyStep

MAX_DEPTH = 3
"""How deep a sauce may stand inside a sauce."""
_SETTLED = 1e-10
_AS_WRITTEN = 0.01
_LOOKED_AT = 1.5
"""Where more than this many times what is wanted goes in, it is looked at whether what is wanted
would boil dry."""
_DOUBLINGS = 12
_LEAST_TIMES, _MOST_TIMES = 1e-4, 1e4
"""A sauce made for another is made between a ten-thousandth and ten thousand times as written."""


class InnerSauce(Part):
    """Another sheet, as much of it as is cooked: its name, its steps, how and in what it is made."""

    model_config = ConfigDict(frozen=True, extra="ignore", allow_inf_nan=False)

    name: Annotated[str, Field(min_length=1, max_length=120)]
    method: Method = Method()
    pan: SheetPan | None = None
    burner: SheetBurner | None = None
    lid: bool = False
    strength: Annotated[float, Field(ge=0.2, le=5.0)] | None = None
    steps: Annotated[tuple["AnyStep", ...], Field(min_length=1, max_length=60)]


class ShareOfIt(Part):
    """A ``share`` of the other sauce as it is written; 1 is all of it."""

    share: Annotated[float, Field(gt=0, le=1)]


_SPOKEN = {
    "all": 1.0,
    "all of it": 1.0,
    "half": 0.5,
    "a third": 1 / 3,
    "two thirds": 2 / 3,
    "a quarter": 0.25,
    "three quarters": 0.75,
}


def _spoken_share(value: object) -> object:
    """The share in "all", "half" or "40 %"; anything else as it is."""
    if not isinstance(value, str):
        return value
    text = " ".join(value.lower().split())
    if text in _SPOKEN:
        return {"share": _SPOKEN[text]}
    percent = re.fullmatch(r"(\d+(?:[.,]\d+)?) ?%", text)
    return {"share": float(percent[1].replace(",", ".")) / 100.0} if percent else value


def _kind(value: object) -> str:
    given = isinstance(value, ShareOfIt) or (isinstance(value, dict) and "share" in value)
    return "share-of-it" if given else "amount"


class Use(StepBase):
    """Another sauce stirred in: an ``amount`` of it (so much is made), or a share of it as it is
    written, all of it being 1 and where nothing is said. Where it is ``ready`` it is taken from a pot that stands already.
    The open format carries its sheet along."""

    op: Literal["use"] = "use"
    sauce: InnerSauce
    amount: Annotated[
        Annotated[AmountField, Tag("amount")] | Annotated[ShareOfIt, Tag("share-of-it")],
        Discriminator(_kind),
    ] = ShareOfIt(share=1.0)
    ready: bool = False
    temperature_c: Celsius | None = None

    @model_validator(mode="before")
    @classmethod
    def _spoken(cls, data: Any) -> Any:
        if not isinstance(data, dict):
            return data
        if "share" in data and "amount" not in data:  # said of the step itself
            data = {**data, "amount": {"share": data["share"]}}
            del data["share"]
        amount = data.get("amount")
        if isinstance(amount, dict) and isinstance(amount.get("value"), str):
            share = _spoken_share(
                amount["value"]
            )  # "half" is of the sauce, whatever unit stands there
            data = {**data, "amount": share} if isinstance(share, dict) else data
        elif isinstance(amount, str):
            data = {**data, "amount": _spoken_share(amount)}
        return data

    @property
    def inside(self) -> InnerSauce | None:
        return None if self.ready else self.sauce

    def names(self) -> frozenset[str]:
        return frozenset().union(*(step.names() for step in self.sauce.steps))

    def prepare(self, setting: Setting) -> Move:
        return self.pouring(setting)

    def pouring(self, setting: Setting) -> "Pouring":
        """The move, which knows the other sauce. Raises :class:`BadInput` by field."""
        if setting.depth >= MAX_DEPTH:
            raise BadInput.at("sauce", "stands-too-many-sauces-deep", most=MAX_DEPTH)
        if isinstance(self.amount, Amount) and self.amount.dimension is Dimension.COUNT:
            raise BadInput.at("amount.unit", "a-sauce-is-not-counted-in")
        try:
            inside = prepare_steps(
                self.sauce,
                setting.kitchen,
                self._pan(setting),
                times=setting.times * self._about_times(setting.kitchen),
                depth=setting.depth + 1,
                serving_c=setting.serving_c,
                free=setting.free,
            )
            return Pouring(self, inside, setting)
        except BadInput as bad:
            raise (
                bad if bad.problems[0].field.startswith("sauce") else bad.under("sauce")
            ) from None

    def poured_ml(self, kitchen: Kitchen) -> float:
        if isinstance(self.amount, Amount):
            return 0.0  # counted with the amounts
        return self.amount.share * load_of(self.sauce, kitchen).makes

    def _about_times(self, kitchen: Kitchen) -> float:
        """About how many times as written it is made."""
        if self.ready or not isinstance(self.amount, Amount):
            return 1.0
        return self.amount.base / max(load_of(self.sauce, kitchen).makes, 1.0)

    def _pan(self, setting: Setting) -> Pan:
        times = setting.times * self._about_times(setting.kitchen)
        return pan_of(self.sauce, setting.kitchen, times)

    def turned(self, knobs: Knobs, setting: Setting) -> Self:
        changes: dict[str, object] = {}
        if isinstance(self.amount, Amount):
            changes["amount"] = self.amount.times(knobs.scale)
        if not self.ready:
            pouring = self.pouring(setting)
            changes["sauce"] = pouring.sauce_at(knobs)
        return self.model_copy(update=changes)

    def to_weigh(self, setting: Setting) -> list[Weighed]:
        made = self.pouring(setting).made(AS_WRITTEN)
        grams = self._grams(made)
        whole = isinstance(self.amount, Amount)
        return [
            Weighed(
                ingredient="",
                name=self.sauce.name,
                role="sauce",
                amount=self.amount
                if isinstance(self.amount, Amount)
                else Amount(float(f"{grams:.4g}") if grams < 10.0 else round(grams), "g"),
                grams=grams,
                spoons=None,
                field="amount" if whole else "",
            )
        ]

    def gathered(self, setting: Setting) -> list[tuple[str, float]]:
        if self.ready:
            return []
        pouring = self.pouring(setting)
        steps = zip(pouring.sauce_as_weighed().steps, pouring.inside.settings, strict=True)
        return [one for step, inside in steps for one in step.gathered(inside)]

    def _grams(self, made: Pot) -> float:
        amount = self.amount
        if not isinstance(amount, Amount):
            return amount.share * made.total_g
        if amount.dimension is Dimension.WEIGHT:
            return amount.base
        return amount.base * made.total_g / made.total_ml


class _Made(NamedTuple):
    """The other sauce as it is made, and what is to be said of its making, each once."""

    pot: Pot
    said: tuple[Sentence, ...]


class Pouring:
    """The move of a `use`: the other sauce made at the scale it is needed, its share stirred in.
    What is asked of it is kept for the last setting of the knobs: a solve asks again and again."""

    __slots__ = (
        "_free",
        "_kept",
        "_ratio",
        "_slope",
        "_step",
        "_stove",
        "_temperature_c",
        "_times",
        "_working",
        "inside",
    )

    def __init__(self, step: Use, inside: PreparedSteps, setting: Setting) -> None:
        self._step, self.inside, self._free = step, inside, setting.free
        self._ratio = free_ratio(step.sauce)
        self._temperature_c = step.temperature_c
        self._working, self._stove = K.LIQUID_IN_MINUTES[setting.liquid_in], setting.stove
        self._kept: tuple[Knobs, Knobs, _Made] | None = None
        self._times = step._about_times(setting.kitchen)
        self._slope: float | None = None

    def made(self, knobs: Knobs) -> Pot:
        """The other sauce, all that is made of it."""
        return self._at(knobs)[1].pot

    def knobs_inside(self, knobs: Knobs) -> Knobs:
        """At what setting of its own knobs the other sauce is made."""
        return self._at(knobs)[0]

    def pots(self, knobs: Knobs) -> Iterator[Pot]:
        """The other sauce after each of its steps, and before those the sauces inside it."""
        at = self.knobs_inside(knobs)
        for move in self.inside.moves:
            if isinstance(move, Pouring):
                yield from move.pots(at)
        yield from self.inside.walk(at)

    def sauce_at(self, knobs: Knobs) -> InnerSauce:
        """The other sauce as data, as it is made there."""
        at = self.knobs_inside(knobs)
        steps = zip(self.inside.steps, self.inside.settings, strict=True)
        turned = tuple(step.turned(at, setting) for step, setting in steps)
        return self._step.sauce.model_copy(update={"steps": turned})

    def sauce_as_weighed(self) -> InnerSauce:
        """The other sauce as it is weighed out: as written, where that is within a percent of what
        is made of it."""
        times = self.knobs_inside(AS_WRITTEN).scale
        return self._step.sauce if abs(times - 1.0) < _AS_WRITTEN else self.sauce_at(AS_WRITTEN)

    def _at(self, knobs: Knobs) -> tuple[Knobs, "_Made"]:
        if self._kept is None or self._kept[0] != knobs:
            self._kept = (knobs, *self._found(knobs))
        return self._kept[1:]

    def _play(self, at: Knobs) -> "_Made":
        """The other sauce played, with what is to be said of its making. Raises :class:`BadInput`
        under ``sauce``: where it boils dry, or makes nothing."""
        told: dict[str, Sentence] = {}
        pot = Pot()
        try:
            for pot in self.inside.walk(at):
                for remark in pot.remarks:
                    told[str(remark)] = remark
        except BadInput as bad:
            raise bad.under("sauce") from None
        if pot.total_g <= 0.0:
            raise BadInput.at("sauce.steps", "steps-make-nothing")
        return _Made(pot, tuple(told.values()))

    def _found(self, knobs: Knobs) -> tuple[Knobs, "_Made"]:
        step = self._step
        if step.ready:
            return AS_WRITTEN, self._play(AS_WRITTEN)
        at = self._turned(knobs, knobs.scale)
        if not isinstance(step.amount, Amount):
            return at, self._play(at)
        wanted = step.amount.base * knobs.scale
        by_weight = step.amount.dimension is Dimension.WEIGHT

        def made(times: float) -> tuple[_Made | None, float]:
            """What that many times as written makes; nothing where it boils dry."""
            try:
                one = self._play(self._turned(knobs, times))
            except BadInput:
                return None, 0.0
            return one, (one.pot.total_g if by_weight else one.pot.total_ml)

        def settled(times: float, one: _Made) -> tuple[Knobs, _Made]:
            """Told where so little is wanted that its minutes would boil it dry: that is not made
            up for by making far more and boiling most of it away."""
            if not self._slope or self._slope * times > _LOOKED_AT * wanted:
                self._slope = (made(1.1 * times)[1] - wanted) / (0.1 * times)
                if self._slope * times > _LOOKED_AT * wanted:
                    self._play(self._turned(knobs, wanted / self._slope))
            return self._turned(knobs, times), one

        # From where it was last: a solve, or a variant, asks for nearly the same again.
        last = before = self._times * knobs.scale
        start = 0.0
        for _ in range(_DOUBLINGS):
            start = made(before)[1]
            if start > 0.0:
                break
            before *= 2.0
        else:
            self._play(self._turned(knobs, last))
        made_before, slope = start, start / before
        times = min(_MOST_TIMES, max(_LEAST_TIMES, before * wanted / start))
        # What a pan boils off does not grow with the batch: a few secants settle it.
        for _ in range(12):
            one, size = made(times)
            if times != before:
                slope = (size - made_before) / (times - before)
            if one and abs(size - wanted) <= _SETTLED * wanted:
                self._times = times / knobs.scale
                return settled(times, one)
            before, made_before = times, size
            if not slope > 0.0:
                break
            times = min(_MOST_TIMES, max(_LEAST_TIMES, times + (wanted - size) / slope))
        times = self._bracketed(lambda x: made(x)[1] - wanted, before)
        return settled(times, self._play(self._turned(knobs, times)))

    @staticmethod
    def _bracketed(short: Callable[[float], float], about: float) -> float:
        """Where a sauce makes what is wanted of it, though it does not grow evenly. Raises
        :class:`BadInput` (field ``amount``) where so little cannot be made."""
        low = high = about
        while short(low) > 0.0 and low > _LEAST_TIMES:
            low /= 2.0
        while short(high) < 0.0 and high < _MOST_TIMES:
            high *= 2.0
        try:
            return find_root(short, low, high, _SETTLED * high)
        except ValueError:
            raise BadInput.at("amount", "so-much-of-it-cannot-be-made") from None

    def _turned(self, knobs: Knobs, times: float) -> Knobs:
        off = Knobs(scale=times, boil=knobs.boil, each=knobs.each)
        if not self._free:
            return off
        ratio = None if knobs.fat_to_flour is None else self._ratio
        return off._replace(flour=knobs.flour, fat_to_flour=ratio, share=knobs.share)

    def __call__(self, pot: Pot, knobs: Knobs) -> Pot:
        step, (inner, said) = self._step, self._at(knobs)[1]
        share = step._grams(inner) / inner.total_g
        if isinstance(step.amount, Amount):
            share *= knobs.scale
        temperature = self._temperature_c
        pieces = tuple(piece.share(share) for piece in inner.pieces)
        added = EMPTY.plus(inner.balance, share)
        mixed = mixed_temperature_c(
            pot_heat_j_per_k(pot),
            pot.temperature_c,
            heat_capacity_j_per_k(added),
            inner.temperature_c if temperature is None else temperature,
        )
        working = self._working if pot.balance.flour and not pot.wetted else 0.0
        filled = pot._replace(
            balance=pot.balance.plus(added),
            pieces=(*pot.pieces, *pieces),
            temperature_c=mixed,
            boiled_min=inner.boiled_min if not pot.balance.thickener else pot.boiled_min,
            wetted=pot.wetted or inner.wetted,
            chilled=pot.chilled or (inner.chilled and pot.total_g == 0.0),
            hottest_c=max(pot.hottest_c, inner.hottest_c) if added.yolk_protein else pot.hottest_c,
            allergens=pot.allergens | inner.allergens,
            cost=pot.cost + inner.cost * share,
            # One cook makes it as well, before or beside this one.
            minutes=pot.minutes + (0.0 if step.ready else inner.minutes) + working,
            remarks=pot.remarks if step.ready else (*pot.remarks, *said),
            set_aside=(
                *pot.set_aside,
                *(SetAside(one.purpose, share * one.mass_g) for one in inner.set_aside),
            ),
            delicate=pot.delicate | inner.delicate,
            lifted=(*pot.lifted, *(piece.share(share) for piece in inner.lifted)),
            sour_min=max(pot.sour_min, inner.sour_min),
            split=pot.split or inner.split,
            starch=starches_mixed(pot.starch, pot.balance.thickener, inner.starch, added.thickener),
            reduced=pot.reduced or inner.reduced,
            spirits=spirits_mixed(pot.spirits, pot.balance.alcohol, inner.spirits, added.alcohol),
            boil_liquid=_boil_liquid(pot, inner, added.cultured),
            flour_boil_min=max(pot.flour_boil_min, inner.flour_boil_min),
        )
        return whisked_on_the_fire(filled, working, self._stove) if working else filled


def _boil_liquid(pot: Pot, inner: Pot, cultured_g: float) -> float:
    """``Pot.boil_liquid`` of ``pot`` with what thickens like ``cultured_g`` of ``inner`` in it."""
    whole = pot.balance.cultured + cultured_g
    if whole <= 0.0:
        return 0.0
    return (pot.boil_liquid_g + inner.boil_liquid * cultured_g) / whole
