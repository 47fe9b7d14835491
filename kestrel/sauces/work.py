"""A sheet worked out for the screen: the core's answers put together."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from saucier.along import Along, along
from saucier.cards import Card, CardsInside, cards, cards_inside
from saucier.check import FinalFigures, State, check
from saucier.consequences import told
from saucier.demand import enough_for, need_for, with_serves
from saucier.document import amount_field
from saucier.errors import BadInput
from saucier.exchange import MeantFor, Reading, Settled, read_recipe
from saucier.heat import SideView
from saucier.kitchen import Kitchen
from saucier.rescue import Case, Remedy, likely, remedies, salt_remedies
from saucier.schools import Followed, followed_in, switch
from saucier.sheet import Serves, Sheet, read_part, read_sheet, write_sheet
from saucier.solve import (
    Goal,
    Have,
    Unreachable,
    goal_of,
    rounded_for_kitchen,
    solve,
    stops_as_written,
)
from saucier.steps import thickening_by
from saucier.units import Amount, kitchen_round
from saucier.what_if import AtTemperature, Lever, levers, pulled, thickness_curve
from saucier.words import Sentence, say

_AS_ASKED = 0.06
"""A yield nearer than this to what is asked for is what is asked for."""


@dataclass(frozen=True, slots=True)
class NeedForEach:
    """What is to be made, how that comes about, and energy and cost of what each (or each hundred)
    served takes, called ``told_for``."""

    volume_ml: float
    lines: tuple[Sentence, ...]
    told_for: str
    each_kcal: float
    each_cost: float
    portions: float
    each: float
    enough: Sentence | None = None


@dataclass(frozen=True, slots=True)
class Worked:
    """A sheet with all its consequences: the pot at its end and after every step, the cards, those
    of the pots made for it (``inside``), what
    its reductions pass on the way down, the need behind its yield, what a solve may turn (``free``),
    the schools it follows, what mends its salt. ``changes``: what a switch of school moved."""

    sheet: Sheet
    final: FinalFigures
    steps: tuple[State, ...]
    cards: list[Card]
    inside: tuple[CardsInside, ...]
    along: tuple[Along, ...]
    pan: SideView
    assumed: tuple[Sentence, ...]
    need: NeedForEach | None
    free: str
    schools: tuple[Followed, ...]
    salt_remedies: tuple[Sentence, ...]
    changes: tuple[Sentence, ...] = ()


def worked(sheet: Sheet, kitchen: Kitchen, changes: tuple[Sentence, ...] = ()) -> Worked:
    """``sheet`` with everything that follows from it."""
    checked = check(sheet, kitchen)
    final, serves = checked.figures, sheet.target.serves
    return Worked(
        sheet=sheet,
        final=final,
        steps=checked.steps,
        cards=cards(checked),
        inside=cards_inside(checked, kitchen),
        along=along(checked),
        pan=SideView.of(checked.pan),
        assumed=checked.assumed,
        need=_need(serves, final, kitchen) if serves else None,
        free=thickening_by(sheet),
        schools=followed_in(sheet, kitchen),
        salt_remedies=salt_remedies(checked, kitchen),
        changes=changes,
    )


def _need(serves: Serves, final: FinalFigures, kitchen: Kitchen) -> NeedForEach:
    need = need_for(serves, kitchen)
    share = need.use.told_times / need.count
    # Where the yield is not what is asked for ("only so much milk"), it is told for how many it does.
    enough = None
    if final.yield_ml and abs(final.yield_ml / need.volume_ml - 1.0) > _AS_ASKED:
        enough = enough_for(final.yield_ml, serves, kitchen).told
    return NeedForEach(
        need.volume_ml,
        need.lines,
        need.use.told_for,
        final.kcal * share,
        final.cost * share,
        need.portions,
        need.each,
        enough,
    )


def moved_to_its_pan(sheet: Sheet, written_in: dict[str, Any], kitchen: Kitchen) -> Sheet:
    """``sheet``, put into the pan and onto the ring it names, with its stops by minutes at the share they reached where
    it stood before (``written_in``: ``pan`` and ``burner``). As it is where it could not be made there."""
    try:
        before = read_sheet({**write_sheet(sheet), **written_in})
        steps = stops_as_written(before, kitchen).steps
    except BadInput:
        return sheet
    return sheet.model_copy(update={"steps": steps})


def solved(
    sheet: Sheet,
    kitchen: Kitchen,
    serves: dict[str, Any] | None,
    have: tuple[str, Any] | None,
    exact: bool,
) -> Worked:
    """``sheet`` solved for its target (or for what there is), rounded unless ``exact``.

    With ``serves``, or ``target.serves``, the yield follows from it; with ``have`` the yield
    follows from the ingredient, and the target is set to what came out.
    """
    wanted = read_part(Serves, serves, "target.serves") if serves else sheet.target.serves
    if have is None and wanted is not None:
        sheet, _ = with_serves(sheet, wanted, kitchen)
    if not sheet.steps:  # a new sheet: the target is set before the first step
        return worked(sheet, kitchen)
    goal = goal_of(sheet, have=_have(have) if have else None)
    try:
        solution = solve(sheet, goal, kitchen).sheet
    except BadInput as bad:
        if isinstance(bad, Unreachable) and bad.nearest and not exact:
            bad.nearest = rounded_for_kitchen(bad.nearest, Goal(), kitchen).sheet
        raise bad.under("target") if bad.problems[0].field in ("grade", "volume") else bad from None
    if not exact:
        solution = rounded_for_kitchen(solution, goal, kitchen).sheet
    if have is not None:
        solution = _yield_as_it_comes(solution, kitchen)
    return worked(solution, kitchen)


def switched(sheet: Sheet, kitchen: Kitchen, school: str, choice: str) -> Worked:
    """``sheet`` after a switch of school, with what changed."""
    made = switch(sheet, school, choice, kitchen)
    return worked(made.sheet, kitchen, made.changes)


def _have(have: tuple[str, Any]) -> Have:
    try:
        return Have(have[0], amount_field(have[1]))
    except BadInput as bad:
        raise bad.under("have.amount") from None


def _yield_as_it_comes(sheet: Sheet, kitchen: Kitchen) -> Sheet:
    litres = check(sheet, kitchen).final.pot.yield_ml / 1000.0
    volume = kitchen_round(Amount(litres, "L"))
    serves = sheet.target.serves
    if serves is not None and (enough := enough_for(volume.base, serves, kitchen)).portions:
        # The use stays: asked for so many as there is enough for.
        serves = serves.model_copy(update={"portions": enough.portions, "count": None})
    target = sheet.target.model_copy(update={"volume": volume, "serves": serves})
    return sheet.model_copy(update={"target": target})


def read_typed(sheet: dict[str, Any], kitchen: Kitchen) -> Sheet:
    """A sheet as it stands in the browser, where amounts may be typed in the kitchen's own
    measures. Raises :class:`BadInput` by field."""
    return read_sheet(sheet, kitchen)


@dataclass(frozen=True, slots=True)
class AfterStep:
    """The pot after a step, for a plot along the steps."""

    title: Sentence
    mass_g: float
    viscosity_pa_s: float | None
    minutes: float


@dataclass(frozen=True, slots=True)
class WhatIf:
    """A sheet with its levers pulled: the state, the pot ``along`` the steps, and thickness against
    temperature."""

    sheet: Sheet
    levers: list[Lever]
    final: FinalFigures
    along: list[AfterStep]
    curve: list[AtTemperature]


def what_if(sheet: Sheet, kitchen: Kitchen, pulls: dict[str, float]) -> WhatIf:
    """``sheet`` with levers pulled."""
    turned = pulled(sheet, pulls, kitchen)
    checked = check(turned, kitchen)
    after = [
        AfterStep(card.title, state.pot.total_g, state.thickness.viscosity_pa_s, state.pot.minutes)
        for card, state in zip(cards(checked), checked.steps, strict=True)
    ]
    return WhatIf(turned, levers(sheet, kitchen), checked.figures, after, thickness_curve(checked))


@dataclass(frozen=True, slots=True)
class Mended:
    """A pot ``now``, what is ``likely`` wrong with it, and the remedies of one ``sign``."""

    sheet: Sheet
    now: FinalFigures
    wanted_grade: str | None
    wanted_pa_s: float | None
    likely: list[str]
    sign: str | None
    remedies: list[Remedy]


def mended(case: Case, sign: str | None) -> Mended:
    """What is likely wrong with ``case``, and the remedies of ``sign`` (None: of what the
    numbers speak for, or none)."""
    speaking = likely(case)
    chosen = sign or (speaking[0] if speaking else None)
    return Mended(
        sheet=case.sheet,
        now=case.now.figures,
        wanted_grade=case.grade,
        wanted_pa_s=case.wanted_pa_s,
        likely=speaking,
        sign=chosen,
        remedies=remedies(case, chosen) if chosen else [],
    )


@dataclass(frozen=True, slots=True)
class RecipeRead:
    """A recipe as it was read, and the pot of its sheet where there is one."""

    reading: Reading
    final: FinalFigures | None


def read_from(
    text: str, kitchen: Kitchen, settled: dict[int, Settled], wanted: MeantFor | None
) -> RecipeRead:
    """A recipe read, with the sheet made of it worked out where there is one."""
    reading = read_recipe(text, kitchen, settled, wanted)
    return RecipeRead(reading, check(reading.sheet, kitchen).figures if reading.sheet else None)


@dataclass(frozen=True, slots=True)
class Moved:
    """A sauce that a change of the larder moves, and how."""

    sauce_id: int
    name: str
    changes: tuple[Sentence, ...]


def moved_by(
    before: Kitchen, after: Kitchen, sheets: Iterable[tuple[int, dict[str, Any]]]
) -> list[Moved]:
    """Which of the ``sheets`` (by sauce) a change of the larder moves, and by how much."""
    moved = []
    for sauce_id, data in sheets:
        sheet = read_sheet(data)
        try:
            changes = told(check(sheet, before), check(sheet, after))
        except BadInput as bad:
            changes = (say("no-longer-made", why=bad.problems[0].message),)
        if changes:
            moved.append(Moved(sauce_id, sheet.name, changes))
    return moved
