"""Switching a sheet from one school to another, and telling what that moved."""

from dataclasses import dataclass

from saucier.check import check
from saucier.consequences import consequences
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.schools.cheese import CHEESE_HEAT, CHEESES
from saucier.schools.correcting import CORRECTING
from saucier.schools.cream import THICKENER
from saucier.schools.infusion import INFUSION
from saucier.schools.measuring import MEASURING
from saucier.schools.roux import FAT_TO_FLOUR, LIQUID_IN, SIMMER
from saucier.schools.school import Followed, School
from saucier.sheet import Sheet
from saucier.solve import goal_of, rounded_for_kitchen, solve
from saucier.units import Amount
from saucier.words import Sentence, say

SCHOOLS: tuple[School, ...] = (
    FAT_TO_FLOUR,
    LIQUID_IN,
    SIMMER,
    INFUSION,
    CHEESE_HEAT,
    CHEESES,
    THICKENER,
    CORRECTING,
    MEASURING,
)


@dataclass(frozen=True, slots=True)
class Switched:
    """The sheet after a switch, and what ``changes``."""

    sheet: Sheet
    changes: tuple[Sentence, ...]


def followed_in(sheet: Sheet, kitchen: Kitchen) -> tuple[Followed, ...]:
    """The questions that arise in ``sheet``, and what it follows."""
    return tuple(
        Followed(
            school.key,
            school.question,
            followed,
            tuple(school.choice(key) for key in school.choices),
        )
        for school in SCHOOLS
        if (followed := school.followed(sheet, kitchen)) is not None
    )


def school_named(key: str) -> School:
    """The school called ``key``. Raises :class:`BadInput` (field ``school``)."""
    for school in SCHOOLS:
        if school.key == key:
            return school
    known = tuple(school.key for school in SCHOOLS)
    raise BadInput.at("school", "is-not-a-question-cooks-differ", key=key[:40], known=known)


def switch(sheet: Sheet, school_key: str, choice: str, kitchen: Kitchen) -> Switched:
    """``sheet`` following ``choice``, solved for the same target again and rounded.

    Raises :class:`BadInput`: field ``school`` or ``choice`` where there is nothing to switch.
    """
    school = school_named(school_key)
    if choice not in school.choices:
        raise BadInput.at(
            "choice",
            "is-not-one-of-them",
            choice=choice[:40],
            choices=school.choices,
        )
    if school.followed(sheet, kitchen) is None:
        raise BadInput.at(
            "school",
            "does-not-arise-in-this-sauce",
            question=school.question,
        )
    before = check(sheet, kitchen)
    goal = goal_of(sheet)
    if goal.volume is None:
        # No yield asked for: the batch stays as large as it is.
        goal = goal_of(sheet, volume=Amount(before.final.pot.yield_ml, "mL"))
    followed = school.followed(sheet, kitchen) == choice
    rewritten = sheet if followed else school.rewrite(sheet, choice, kitchen)
    turned = solve(rewritten, goal, kitchen).sheet
    turned = rounded_for_kitchen(turned, goal, kitchen).sheet
    now = school.choice(choice)
    chosen = say("chosen", name=now.name, why=now.why)
    return Switched(turned, (chosen, *consequences(sheet, turned, kitchen)))
