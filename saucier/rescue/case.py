"""A pot to be mended: the sheet that made it so far, and how thick it is wanted."""

from dataclasses import dataclass
from functools import cached_property

from saucier.check import CheckedSheet, Prepared, check, larder_of, prepare
from saucier.errors import BadInput
from saucier.heat import Stove
from saucier.kitchen import Kitchen
from saucier.larder import Ingredient
from saucier.pot import Pot
from saucier.rescue.seen import Seen, sheet_of_seen
from saucier.sheet import Sheet, SheetPan
from saucier.solve import Goal, solve
from saucier.steps import Cool, Setting, pan_of
from saucier.thickness import grade_named, grade_of, thickness_of
from saucier.units import Amount


@dataclass(frozen=True)
class Case:
    """``sheet`` makes the pot as it is now, in the pan it stands in: what goes in to mend it makes
    no other pan of it. ``wanted_pa_s`` is how thick it should be at
    ``serving_c``; None where nothing can be said of its thickness."""

    sheet: Sheet
    wanted_pa_s: float | None
    kitchen: Kitchen

    @cached_property
    def now(self) -> CheckedSheet:
        return check(self.sheet, self.kitchen)

    @property
    def pot(self) -> Pot:
        return self.now.final.pot

    @property
    def grade(self) -> str | None:
        """The grade wanted."""
        return None if self.wanted_pa_s is None else grade_of(self.wanted_pa_s)

    @property
    def salt_target_pct(self) -> float | None:
        return self.sheet.target.salt_pct

    @property
    def serving_c(self) -> float:
        return self.sheet.target.serving_c

    @cached_property
    def setting(self) -> Setting:
        """Where a remedy's steps are prepared: the sheet's own stove."""
        prepared: Prepared = prepare(self.sheet, self.kitchen)
        if prepared.settings:
            return Setting(
                self.kitchen,
                prepared.settings[-1].stove,
                liquid_in=self.sheet.method.liquid_in,
            )
        return Setting(self.kitchen, Stove())

    @cached_property
    def brought(self) -> dict[str, float]:
        """Grams of every ingredient weighed into it so far."""
        return larder_of(self.sheet, self.kitchen)

    def most_of(self, *roles: str) -> Ingredient | None:
        """Of the ingredients in it with one of ``roles``, the one there is most of."""
        larder = self.kitchen.larder
        keys = [key for key in self.brought if larder[key].role in roles]
        return larder[max(keys, key=self.brought.__getitem__)] if keys else None

    @property
    def liquid(self) -> Ingredient:
        """Its own liquid: what to let it down with."""
        return self.most_of("milk", "stock", "cream") or self.kitchen.larder["milk-whole"]


def case_of(sheet: Sheet, kitchen: Kitchen) -> Case:
    """A finished sauce against its own target. Raises :class:`BadInput`."""
    wanted = sheet.target.grade
    standing = _standing(sheet, kitchen)
    return Case(standing, grade_named(wanted).target if wanted else None, kitchen)


def _standing(sheet: Sheet, kitchen: Kitchen) -> Sheet:
    """``sheet`` with the pan it stands in named."""
    return sheet.model_copy(update={"pan": SheetPan.of(pan_of(sheet, kitchen))})


def case_at(
    sheet: Sheet,
    at: int,
    kitchen: Kitchen,
    viscosity_pa_s: float | None = None,
    amount: Amount | None = None,
) -> Case:
    """``sheet`` after its step ``at``, as it was found: ``viscosity_pa_s`` thick at serving
    temperature and ``amount`` of it, where these differ from what was predicted.

    After the last step the sheet's own target is wanted; before, what was predicted there, so
    that the steps still to come land where they should. Raises :class:`BadInput`.
    """
    if not 0 <= at < len(sheet.steps):
        raise BadInput.at("at", "there-is-no-step", at=at + 1, last=len(sheet.steps) - 1)
    standing = _standing(sheet, kitchen)
    so_far = standing.model_copy(update={"steps": sheet.steps[: at + 1]})
    predicted = check(so_far, kitchen).final
    last = at == len(sheet.steps) - 1
    wanted = grade_named(sheet.target.grade).target if last and sheet.target.grade else None
    if wanted is None:
        wanted = predicted.thickness.viscosity_pa_s
    if viscosity_pa_s is not None or amount is not None:
        size = amount or Amount(predicted.pot.yield_ml, "mL")
        try:
            so_far = solve(so_far, Goal(viscosity_pa_s, size), kitchen, as_found=True).sheet
        except BadInput as bad:
            raise bad.under("seen") from None
    return Case(so_far, wanted, kitchen)


def seen_pot(seen: Seen, kitchen: Kitchen) -> Case:
    """A pot the app has never seen, as a case. Raises :class:`BadInput` under ``seen``."""
    try:
        sheet = sheet_of_seen(seen, kitchen)
        wanted = grade_named(seen.wanted)
    except BadInput as bad:
        raise bad.under("seen") from None
    sheet = _standing(sheet, kitchen)
    pot = check(sheet, kitchen).final.pot
    if seen.temperature_c < pot.temperature_c - 0.5:
        cooled = Cool(to_c=seen.temperature_c)
        sheet = sheet.model_copy(update={"steps": (*sheet.steps, cooled)})
    target = sheet.target.model_copy(
        update={"grade": wanted.key, "serving_c": seen.serving_c, "volume": None}
    )
    return Case(sheet.model_copy(update={"target": target}), wanted.target, kitchen)


def lands(case: Case, pot: Pot) -> bool:
    """Whether ``pot`` has the grade wanted."""
    return thickness_of(pot, case.serving_c).grade == case.grade
