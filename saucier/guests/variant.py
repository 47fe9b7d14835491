"""A guest's variant of a dish, from the same documents: what can be left out is, what takes another's
place does, and what a sauce stands on is told."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from saucier import constants as K
from saucier.check import check
from saucier.demand import PASTA_BASIS, use_named
from saucier.dish import Dish, Topping, is_pasta
from saucier.errors import BadInput, problem
from saucier.guests.exclusion import Exclusion, brings, raw_yolk_in, soft_yolk
from saucier.kitchen import Kitchen
from saucier.sheet import Sheet
from saucier.steps import AnyStep, Dust, Finish, Liaison, Roux, Sear, Start, Sweat, Use
from saucier.steps.step import amounts_in
from saucier.swaps import put_in_place
from saucier.words import Sentence, say

_LIQUIDS = ("milk", "cream", "soft-cream", "stock", "water", "juice", "puree")
_NO_SAUCE = frozenset({"empty", "only-fat", "no-liquid", "dry", "fat-on-liquid", "fat-with-juice"})
"""Why a pot is no sauce at all."""
_IF_NOTHING_ELSE = ("wine", "spirit")


@dataclass(frozen=True, slots=True)
class Variant:
    """``dish`` and ``sheets`` as the guest gets them, and ``told``: what was left out or changed."""

    dish: Dish
    sheets: Mapping[str, Sheet]
    told: tuple[Sentence, ...]


class StandsOn(BadInput):
    """Sauces that cannot do without what is excluded: ``keys`` of it, by the field ``without``."""

    def __init__(self, found: Mapping[str, tuple[str, str]], kitchen: Kitchen) -> None:
        # What it is made of first: in that the ways offered differ.
        self.keys = tuple(sorted(found, key=lambda key: found[key][1] != "liquid"))
        larder = kitchen.larder
        super().__init__(
            *(
                problem(
                    "without", f"stands-on.{as_what}", sauce=sauce, name=larder[key].spoken_name
                )
                for key, (sauce, as_what) in found.items()
            )
        )


def without(
    dish: Dish,
    sheets: Mapping[str, Sheet],
    excluded: tuple[Exclusion, ...],
    kitchen: Kitchen,
    swaps: Mapping[str, str] | None = None,
) -> Variant:
    """``dish`` and its ``sheets`` without what is ``excluded``, ``swaps`` made first.

    Steps that only add it go. Raises :class:`StandsOn` (field ``without``) for a sauce that cannot
    do without: its roux, its main liquid, its fat; :class:`BadInput` (``swaps.…``) for a swap that
    brings the excluded thing itself.
    """
    leaving = _Leaving(excluded, kitchen)
    dish, sheets = leaving.swapped(
        dish, {s.sauce: sheets[s.sauce] for s in dish.sauces}, swaps or {}
    )
    whole = sheets
    if excluded:
        dish = leaving.dish_without(dish)
        sheets = {key: leaving.sheet_without(sheet) for key, sheet in sheets.items()}
        if leaving.stands_on:
            raise StandsOn(leaving.stands_on, kitchen)
        made = {key: leaving.yolk_cooked(sheet) for key, sheet in sheets.items()}
        for key, sheet in made.items():
            leaving.look_whether_a_sauce(whole[key], sheet)
        if leaving.stands_on:
            raise StandsOn(leaving.stands_on, kitchen)
        sheets = made
    return Variant(dish, sheets, tuple(dict.fromkeys(leaving.told)))


@dataclass(slots=True)
class _Leaving:
    """What is left out of one dish while it is gone through; ``stands_on``: by ingredient, the sauce
    that cannot do without it and what it is there."""

    excluded: tuple[Exclusion, ...]
    kitchen: Kitchen
    told: list[Sentence] = field(default_factory=list)
    stands_on: dict[str, tuple[str, str]] = field(default_factory=dict)

    def hit(self, key: str) -> bool:
        return bool(key) and brings(key, self.excluded, self.kitchen)

    def _name(self, key: str) -> str:
        return self.kitchen.larder[key].spoken_name

    # Swaps.

    def swapped(
        self, dish: Dish, sheets: Mapping[str, Sheet], swaps: Mapping[str, str]
    ) -> tuple[Dish, Mapping[str, Sheet]]:
        for old, new in swaps.items():
            if old not in self.kitchen.larder or new not in self.kitchen.larder:
                raise BadInput.at(f"swaps.{old}", "swap-is-of-nothing-known", old=old, new=new)
            if self.hit(new):
                raise BadInput.at(f"swaps.{old}", "swap-brings-it-itself", name=self._name(new))
            dish, sheets = self._one_swap(dish, sheets, old, new)
        return dish, sheets

    def _one_swap(
        self, dish: Dish, sheets: Mapping[str, Sheet], old: str, new: str
    ) -> tuple[Dish, Mapping[str, Sheet]]:
        missing, row = self.kitchen.larder[old], self.kitchen.larder[new]
        changes: dict[str, Any] = {}
        for name in ("solids", "toppings"):
            parts = getattr(dish, name)
            changes[name] = tuple(
                part.model_copy(update={"ingredient": new}) if part.ingredient == old else part
                for part in parts
            )
        swapped = {
            key: sheet.model_copy(
                update={"steps": tuple(put_in_place(step, missing, row) for step in sheet.steps)}
            )
            for key, sheet in sheets.items()
        }
        put = dish.model_copy(update=changes)
        if put != dish or any(swapped[key] != sheets[key] for key in sheets):
            self.told.append(say("put-in-place", new=row.spoken_name, old=missing.spoken_name))
        return put, swapped

    # The dish.

    def dish_without(self, dish: Dish) -> Dish:
        changes: dict[str, Any] = {}
        for name in ("solids", "toppings"):
            kept = []
            for part in getattr(dish, name):
                coats = isinstance(part, Topping) and part.place == "coating"
                if self.hit(part.ingredient) or (not coats and self._soft(part.ingredient)):
                    self.told.append(say("left-out", name=self._name(part.ingredient)))
                else:
                    kept.append(part)
            changes[name] = tuple(kept)
        left = dish.model_copy(update=changes)
        self._note_lost_food(dish, left)
        return left

    def _note_lost_food(self, whole: Dish, left: Dish) -> None:
        """Note the food that ``whole`` stands on where ``left`` has none of it any more: all of its solids, or
        the pasta that a sauce is measured by. A sauce alone is not served for the dish."""
        larder = self.kitchen.larder
        by_pasta = any(
            use_named(used.use, self.kitchen).basis == PASTA_BASIS and not used.each
            for used in whole.sauces
        )
        pasta, pasta_left = (
            {solid.ingredient for solid in dish.solids if is_pasta(larder[solid.ingredient])}
            for dish in (whole, left)
        )
        lost = set[str]()
        if not left.solids:
            lost = {solid.ingredient for solid in whole.solids}
        elif by_pasta and not pasta_left:
            lost = pasta
        for key in sorted(lost):
            self.stands_on.setdefault(key, (whole.name, "food"))

    def _soft(self, key: str) -> bool:
        """Whether it is egg that may be soft, for a guest who eats none; egg in a coating is fried."""
        excluded = any(one.of_raw_yolk for one in self.excluded)
        return excluded and soft_yolk(self.kitchen.larder[key])

    # The sauces.

    def sheet_without(self, sheet: Sheet) -> Sheet:
        steps = self._steps(sheet.steps, sheet.name)
        return sheet if steps == sheet.steps else sheet.model_copy(update={"steps": steps})

    def look_whether_a_sauce(self, whole: Sheet, left: Sheet) -> None:
        """Note what ``whole`` cannot do without where ``left`` of it is no sauce any more: the yolk of an emulsion,
        or what made more of it than fat with a little juice."""
        if left.steps == whole.steps or not left.steps:
            return
        gone = {key for step in whole.steps for key in step.names() if key}
        gone -= {key for step in left.steps for key in step.names() if key}
        yolks = {key for key in gone if self.kitchen.larder[key].per_gram.yolk_protein > 0.0}
        was = check(whole, self.kitchen).final.thickness
        if was.grade is None and was.why_not != "companion":
            return
        lost = yolks if was.why_not == "companion" else set[str]()
        if not lost and check(left, self.kitchen).final.thickness.why_not in _NO_SAUCE:
            lost = yolks or gone
        for key in sorted(lost):
            self.stands_on.setdefault(key, (whole.name, "emulsion"))

    def _steps(self, steps: tuple[AnyStep, ...], sauce: str) -> tuple[AnyStep, ...]:
        main = self._main_liquid(steps)
        kept: list[AnyStep] = []
        for step in steps:
            hits = sorted(key for key in step.names() if self.hit(key))
            if not hits:
                kept.append(step)
            elif isinstance(step, Use) and step.inside:
                inside = self._steps(step.sauce.steps, step.sauce.name)
                made = step.sauce.model_copy(update={"steps": inside or step.sauce.steps})
                kept.append(step.model_copy(update={"sauce": made}))
            else:
                kept += self._step(step, hits, main, sauce)
        if steps and not kept and not self.stands_on:
            # Nothing of it was the main liquid, and yet nothing is left.
            key = next(key for step in steps for key in sorted(step.names()) if self.hit(key))
            self.stands_on.setdefault(key, (sauce, "all"))
        return tuple(kept)

    def _step(self, step: AnyStep, hits: list[str], main: str, sauce: str) -> list[AnyStep]:
        """What is left of a ``step`` that names what is excluded."""
        for key in hits:
            if as_what := self._stood_on(step, key, main):
                self.stands_on.setdefault(key, (sauce, as_what))
        self.told.append(say("sauce-without", sauce=sauce, names=tuple(map(self._name, hits))))
        if isinstance(step, Liaison):
            return self._cream_of(step)
        if isinstance(step, Sear) and not self.hit(step.ingredient):
            return [step.model_copy(update={"fat": None})]
        return []

    def _stood_on(self, step: AnyStep, key: str, main: str) -> str:
        """As what a sauce stands on ``key`` in ``step``; '' where it can be left out."""
        if key == main:
            return "liquid"
        if isinstance(step, Roux):
            return "fat" if key == step.fat.ingredient else "flour"
        if isinstance(step, Dust):
            return "flour"
        if isinstance(step, Use):
            return "all"
        if isinstance(step, Start | Sweat | Sear) and self.kitchen.larder[key].role == "fat":
            return "fat"
        return ""

    def _cream_of(self, step: Liaison) -> list[AnyStep]:
        """A liaison without yolk is its cream; without its cream it is nothing."""
        if self.hit(step.cream.ingredient):
            return []
        return [Finish(ingredient=step.cream.ingredient, amount=step.cream.amount)]

    def _main_liquid(self, steps: tuple[AnyStep, ...]) -> str:
        """The key of the liquid a sauce is made of: most of what pours, wine only where it is all."""
        grams: dict[str, float] = {}
        for step in steps:
            for _, key, amount in amounts_in(step):
                row = self.kitchen.larder[key] if key else None
                if row is not None and row.wet and row.role in (*_LIQUIDS, *_IF_NOTHING_ELSE):
                    grams[key] = grams.get(key, 0.0) + row.grams(amount)
        first = {k: g for k, g in grams.items() if self.kitchen.larder[k].role in _LIQUIDS}
        return max(first or grams, key=grams.__getitem__, default="")

    # Yolk that is not cooked.

    def yolk_cooked(self, sheet: Sheet) -> Sheet:
        """``sheet`` with its yolk cooked through, where the guest eats none that is not; where that
        would grain it, without yolk."""
        if not any(one.of_raw_yolk for one in self.excluded) or not self._raw(sheet):
            return sheet
        hotter = _with_steps(sheet, [_hotter(step) for step in sheet.steps])
        if not self._raw(hotter):
            self.told.append(say("yolk-cooked", sauce=sheet.name, to_c=K.YOLK_COOKED_C))
            return hotter
        steps: list[AnyStep] = []
        for step in sheet.steps:
            if isinstance(step, Liaison):
                steps += self._cream_of(step)
            elif isinstance(step, Use) and step.inside:
                inner = self.yolk_cooked(_as_sheet(step, sheet))
                steps.append(
                    step.model_copy(
                        update={"sauce": step.sauce.model_copy(update={"steps": inner.steps})}
                    )
                )
            elif not any(soft_yolk(self.kitchen.larder[key]) for key in step.names() if key):
                steps.append(step)
        self.told.append(say("yolk-left-out", sauce=sheet.name))
        return _with_steps(sheet, steps)

    def _raw(self, sheet: Sheet) -> bool:
        """Whether yolk in ``sheet`` is not cooked through, or grains."""
        checked = check(sheet, self.kitchen)
        grains = any(one.code == "yolk-grains" for state in checked.steps for one in state.warnings)
        return grains or raw_yolk_in(checked.final.pot)


def _hotter(step: AnyStep) -> AnyStep:
    if not isinstance(step, Liaison) or (step.heat_to_c or 0.0) >= K.YOLK_COOKED_C:
        return step
    return step.model_copy(update={"heat_to_c": K.YOLK_COOKED_C})


def _as_sheet(step: Use, outer: Sheet) -> Sheet:
    return outer.model_copy(update={"name": step.sauce.name, "steps": step.sauce.steps})


def _with_steps(sheet: Sheet, steps: list[AnyStep]) -> Sheet:
    return sheet.model_copy(update={"steps": tuple(steps)})
