"""Switching a sheet from one school to another, and telling what that moved."""

from dataclasses import dataclass

from saucier.check import check
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.schools.cheese import CHEESE_HEAT, CHEESES
from saucier.schools.cream import THICKENER
from saucier.schools.infusion import INFUSION
from saucier.schools.measuring import MEASURING
from saucier.schools.roux import FAT_TO_FLOUR, LIQUID_IN, SIMMER
from saucier.schools.school import School
from saucier.sheet import Sheet
from saucier.solve import goal_of, rounded_for_kitchen, solve
from saucier.units import Amount

SCHOOLS: tuple[School, ...] = (
    FAT_TO_FLOUR,
    LIQUID_IN,
    SIMMER,
    INFUSION,
    CHEESE_HEAT,
    CHEESES,
    THICKENER,
    MEASURING,
)


@dataclass(frozen=True, slots=True)
class Switched:
    """The sheet after a switch, and ``changes`` in words."""

    sheet: Sheet
    changes: tuple[str, ...]


def school_named(key: str) -> School:
    """The school called ``key``. Raises :class:`BadInput` (field ``school``)."""
    for school in SCHOOLS:
        if school.key == key:
            return school
    known = ", ".join(school.key for school in SCHOOLS)
    raise BadInput.at(
        "school", f"“{key[:40]}” is not a question cooks differ on", f"Use one of {known}"
    )


def switch(sheet: Sheet, school_key: str, choice: str, kitchen: Kitchen) -> Switched:
    """``sheet`` following ``choice``, solved for the same target again and rounded.

    Raises :class:`BadInput`: field ``school`` or ``choice`` where there is nothing to switch.
    """
    school = school_named(school_key)
    if choice not in {option.key for option in school.choices}:
        raise BadInput.at(
            "choice",
            f"“{choice[:40]}” is not one of them",
            f"Use one of {', '.join(option.key for option in school.choices)}",
        )
    if school.followed(sheet) is None:
        raise BadInput.at(
            "school",
            f"“{school.question}” does not arise in this sauce",
            "Add the step it is about first",
        )
    before = check(sheet, kitchen)
    goal = goal_of(sheet)
    if goal.volume is None:
        # No yield asked for: the batch stays as large as it is.
        goal = goal_of(sheet, volume=Amount(before.final.pot.total_ml, "mL"))
    followed = school.followed(sheet) == choice
    rewritten = sheet if followed else school.rewrite(sheet, choice, kitchen)
    turned = solve(rewritten, goal, kitchen).sheet
    turned = rounded_for_kitchen(turned, goal, kitchen).sheet
    why = next(option for option in school.choices if option.key == choice)
    return Switched(turned, (f"{why.name}: {why.why}", *consequences(sheet, turned, kitchen)))


def consequences(was: Sheet, now: Sheet, kitchen: Kitchen) -> tuple[str, ...]:
    """What differs between two ways of making a sauce, in words with numbers."""
    before, after = check(was, kitchen), check(now, kitchen)
    a, b = before.as_dict(), after.as_dict()
    told = []
    flour = before.final.pot.balance.flour, after.final.pot.balance.flour
    if abs(flour[1] - flour[0]) > 0.02 * max(flour) and max(flour) > 1:
        told.append(f"flour {flour[0]:.0f} → {flour[1]:.0f} g")
    for key, name, unit, least, digits in (
        ("minutes", "time", "min", 0.1, 1),
        ("fat_pct", "fat", "%", 0.1, 1),
        ("salt_pct", "salt", "%", 0.02, 2),
        ("alcohol_pct", "alcohol left", "%", 0.02, 2),
        ("acid_pct", "acid", "%", 0.01, 2),
        ("temperature_c", "leaves the ring at", "°C", 2, 0),
        ("cost", "cost", "", 0.02, 2),
    ):
        if abs(b[key] - a[key]) >= least:
            told.append(f"{name} {a[key]:.{digits}f} → {b[key]:.{digits}f} {unit}".rstrip())
    if a["viscosity_pa_s"] and b["viscosity_pa_s"]:
        edges = [s["viscosity_high_pa_s"] / s["viscosity_low_pa_s"] for s in (a, b)]
        if abs(edges[1] / edges[0] - 1.0) > 0.05:
            told.append(f"how sure: a factor {edges[0]:.1f} → {edges[1]:.1f} from edge to edge")
    if len(was.steps) != len(now.steps):
        told.append(f"steps {len(was.steps)} → {len(now.steps)}")
    told += [f"new: {text}" for text in b["warnings"] if text not in a["warnings"]]
    told += [f"no longer: {text}" for text in a["warnings"] if text not in b["warnings"]]
    return tuple(told)
