"""“I haven't got…”: what may stand in for an ingredient, re-solved for grade, yield and salt."""

from dataclasses import dataclass
from typing import Any

from saucier import constants as K
from saucier.check import CheckedSheet, check, larder_of
from saucier.consequences import consequences
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.larder import ROLES, Ingredient, Larder
from saucier.sheet import Sheet
from saucier.solve import Goal, goal_of, rounded_for_kitchen, solve
from saucier.steps import Add, AnyStep, Reduce, Simmer, Sweat, Use
from saucier.steps.put_in import splits_when_boiled
from saucier.steps.step import Measured
from saucier.thickness import LIQUID, grade_named, spoken_grade
from saucier.units import Amount
from saucier.words import Sentence, say

MOST, MOST_OF_A_ROLE = 12, 6
_BESIDE: dict[str, tuple[str, ...]] = {
    "milk": ("stock", "cream"),
    "stock": ("milk", "water"),
    "cream": ("soft-cream", "milk"),
    "soft-cream": ("cream",),
    "wine": ("spirit", "stock"),
    "spirit": ("wine",),
    "juice": ("stock",),
    "fish": ("seafood",),
    "seafood": ("fish",),
    "meat": ("fish",),
}
"""Roles that stand in for one another, beside a role's own."""
_BY_WHAT_IT_BRINGS = {"acid": "acid", "salt": "salt", "fat": "fat"}
"""Roles swapped gram for gram of what they are there for."""


@dataclass(frozen=True, slots=True)
class Swap:
    """``ingredient`` in place of another: the ``sheet`` solved again, ``changes``, the
    allergens it ``gains`` and ``loses``; ``refused`` says why it does not go, with no sheet."""

    ingredient: str
    name: str
    same_role: bool
    sheet: Sheet | None = None
    changes: tuple[Sentence, ...] = ()
    gains: tuple[str, ...] = ()
    loses: tuple[str, ...] = ()
    refused: Sentence | None = None


def swaps_for(sheet: Sheet, key: str, kitchen: Kitchen) -> list[Swap]:
    """What may stand in for ``key`` in ``sheet``: the nearest kin on top, then its own role, then the
    nearest in fat and water, at most :data:`MOST`; those that do not go last.

    Raises :class:`BadInput` (field ``ingredient``) for what is not in the sheet.

    >>> from saucier.testing import add, roux, sheet, simmer
    >>> from saucier.kitchen import Kitchen
    >>> white = sheet(roux(60, 60), add('milk-whole', 1, 'L'), simmer(5))
    >>> swaps_for(white, 'milk-whole', Kitchen())[0].ingredient
    'milk-semi'
    """
    missing = kitchen.larder[key]
    if not _grams(sheet, key, kitchen):
        raise BadInput.at("ingredient", "is-not-in-this-sauce", name=missing.name)
    candidates = candidates_for(missing, kitchen.larder)
    by_role = {role: [row for row in candidates if row.role == role] for role in ROLES}
    shown = {row.key for rows in by_role.values() for row in rows[:MOST_OF_A_ROLE]}
    candidates = [row for row in candidates if row.key in shown][:MOST]
    swaps = [_swap(sheet, missing, row, kitchen) for row in candidates]
    return sorted(swaps, key=lambda swap: swap.refused is not None)


def candidates_for(missing: Ingredient, larder: Larder) -> list[Ingredient]:
    """Rows of ``larder`` that may stand in for ``missing``, the nearest first."""
    roles = (missing.role, *_BESIDE.get(missing.role, ()))
    may = [row for row in larder.values() if row.key != missing.key and _stands_in(missing, row)]
    # Of its own role the nearest; of another as the larder has them, the usual first.
    return sorted(
        may,
        key=lambda row: (
            -_kinship(missing, row),
            roles.index(row.role) if row.role in roles else len(roles),
            _distance(missing, row) if row.role == missing.role else 0.0,
        ),
    )


def _stands_in(missing: Ingredient, row: Ingredient) -> bool:
    """Whether a cook would take ``row`` for ``missing``: kin of it; where either is of no kin, one
    of its role or of a role that stands in for it."""
    if missing.kin and row.kin:
        return bool(_kinship(missing, row))
    return row.role == missing.role or row.role in _BESIDE.get(missing.role, ())


def _kinship(missing: Ingredient, row: Ingredient) -> float:
    """How near they are in kin: the more of their families they share, the nearer."""
    shared = set(missing.kin) & set(row.kin)
    return len(shared) / len({*missing.kin, *row.kin}) if shared else 0.0


def _distance(a: Ingredient, b: Ingredient) -> float:
    parts = zip(a.per_gram, b.per_gram, strict=True)
    return sum(abs(x - y) for x, y in parts) + (0.5 if a.piece != b.piece else 0.0)


def _swap(sheet: Sheet, missing: Ingredient, row: Ingredient, kitchen: Kitchen) -> Swap:
    same = row.role == missing.role
    name = row.name
    try:
        swapped = sheet.model_copy(
            update={"steps": tuple(put_in_place(step, missing, row) for step in sheet.steps)}
        )
        before, there = check(sheet, kitchen), check(swapped, kitchen)
        solved = kept_as_thick(swapped, before, kitchen)
        after = check(solved, kitchen)
    except BadInput as bad:
        return Swap(row.key, name, same, refused=bad.problems[0].told)
    old, new = _grams(sheet, missing.key, kitchen), _grams(solved, row.key, kitchen)
    new -= _grams(sheet, row.key, kitchen)
    if why := _no_swap(row, old, new, before, after):
        return Swap(row.key, name, same, refused=why)
    was, now = before.final.pot.allergens, there.final.pot.allergens
    first = say(
        "swapped",
        old_g=old,
        old=missing.spoken_name,
        new_g=new,
        new=row.spoken_name,
    )
    told = (first, *consequences(sheet, solved, kitchen))
    return Swap(
        ingredient=row.key,
        name=name,
        same_role=same,
        sheet=solved,
        changes=(*told, *_may_boil(solved, row)),
        gains=tuple(sorted(now - was)),
        loses=tuple(sorted(was - now)),
    )


def kept_as_thick(swapped: Sheet, before: CheckedSheet, kitchen: Kitchen) -> Sheet:
    """``swapped`` solved for the yield and, where the sauce ``before`` had a grade, for that. What thickens nothing (a
    garnish, a herb) needs no solving. Raises :class:`BadInput` where the grade is lost."""
    volume = Amount(before.final.pot.yield_ml, "mL")
    asked = before.sheet.target.grade
    grade, eta = before.final.thickness.grade, before.final.thickness.viscosity_pa_s
    if grade is None or eta is None or grade == LIQUID:
        goal = Goal(None, volume)
    elif grade == asked:
        goal = goal_of(before.sheet, volume=volume)
    else:  # as thick as it is, a little inside its grade so that rounding keeps it
        goal = Goal(grade_named(grade).inside(eta), volume)
    try:
        solved = solve(swapped, goal, kitchen).sheet
        return rounded_for_kitchen(solved, goal, kitchen).sheet
    except BadInput:
        if _as_good(before, check(swapped, kitchen)):
            return swapped
        raise


def _as_good(before: CheckedSheet, after: CheckedSheet) -> bool:
    """Whether ``after`` ends in a sauce of the same grade, no nearer to splitting, much the same yield."""
    yields = after.final.pot.yield_ml / max(before.final.pot.yield_ml, 1e-9)
    return (
        after.final.thickness.grade == before.final.thickness.grade
        and after.final.emulsion == before.final.emulsion
        and abs(yields - 1.0) < K.OVER_YIELD
    )


def _no_swap(
    row: Ingredient, old_g: float, new_g: float, before: CheckedSheet, after: CheckedSheet
) -> Sentence | None:
    """Why ``row`` is none for what was there: far more of it, far longer, or no sauce in the end; None where it is one.
    What is only weaker or stronger takes as much as its strength says."""
    weaker = row.strength < 1.0 or row.role in ("herb", "spice", "aromatic", "acid", "seasoning")
    if new_g > K.SWAP_TOO_MUCH * old_g and not weaker:
        return say("takes-too-much", grams=new_g, old_g=old_g)
    hours = after.final.pot.minutes / max(before.final.pot.minutes, 10.0)
    if hours > K.SWAP_TOO_LONG:
        return say("takes-too-long", times=hours)
    return ends_in_no_sauce(before, after)


def ends_in_no_sauce(before: CheckedSheet, after: CheckedSheet) -> Sentence | None:
    """That ``after`` is no sauce any more where ``before`` was one, and why; None where it is."""
    was, now = before.final.thickness.grade, after.final.thickness.grade
    if after.final.pot.split and not before.final.pot.split:
        return say("ends-in-no-sauce", what=say("emulsion-split"))
    if was not in (None, LIQUID) and now in (None, LIQUID):
        reason = after.final.thickness.reason
        return say("ends-in-no-sauce", what=reason or spoken_grade(LIQUID))
    return None


def put_in_place(step: AnyStep, missing: Ingredient, row: Ingredient) -> AnyStep:
    """``step`` with ``row`` wherever ``missing`` stood, so much of it as does the same."""
    changes: dict[str, Any] = {}
    for name, value in step.__dict__.items():
        if isinstance(value, Measured) and value.ingredient == missing.key:
            amount = _as_much(value.amount, missing, row)
            changes[name] = value.model_copy(update={"ingredient": row.key, "amount": amount})
        elif value == missing.key:  # named without an amount of its own as well: held back, lifted
            changes[name] = row.key
    written = getattr(step, "amount", None)
    if changes.get("ingredient") and isinstance(written, Amount):
        changes["amount"] = _as_much(written, missing, row)
    if isinstance(step, Use):
        inside = tuple(put_in_place(inner, missing, row) for inner in step.sauce.steps)
        changes["sauce"] = step.sauce.model_copy(update={"steps": inside})
    if isinstance(step, Sweat) and changes.get("ingredient") and not row.piece:
        # A powder does not sweat: it is stirred in.
        return Add(ingredient=row.key, amount=changes.get("amount", step.amount), note=step.note)
    return step.model_copy(update=changes) if changes else step


def _as_much(amount: Amount, missing: Ingredient, row: Ingredient) -> Amount:
    grams = missing.grams(amount)
    if missing.strength != row.strength and _kinship(missing, row):
        return Amount(grams * missing.strength / row.strength, "g")
    part = _BY_WHAT_IT_BRINGS.get(missing.role)
    if part and row.role == missing.role:
        there, here = getattr(missing.per_gram, part), getattr(row.per_gram, part)
        if there > 0.0 and here > 0.0:
            return Amount(grams * there / here, "g")
    if missing.wet and row.wet and not missing.piece and not row.piece:
        return Amount(grams / missing.density, "mL")
    return Amount(grams, "g")


def _grams(sheet: Sheet, key: str, kitchen: Kitchen) -> float:
    """Grams of ``key`` that go in, into the sauces made for it too."""
    return larder_of(sheet, kitchen).get(key, 0.0)


def _may_boil(sheet: Sheet, row: Ingredient) -> tuple[Sentence, ...]:
    """Whether what came in may boil, where that is the question."""
    if row.role not in ("cream", "soft-cream"):
        return ()
    at = max(n for n, step in enumerate(sheet.steps) if row.key in step.names())
    boils = any(isinstance(step, Simmer | Reduce) for step in sheet.steps[at + 1 :])
    if not splits_when_boiled(row):
        return (say("rich-enough-to-simmer", name=row.spoken_name),)
    if boils:
        return (say("splits-where-it-boils", name=row.spoken_name),)
    return (say("must-not-boil-after", name=row.spoken_name),)
