"""What is on hand is used first, where its age and nature allow: sauce with what it wants to be let
down, ready roux for butter and flour, stock and fresh pasta."""

from collections.abc import Iterable
from dataclasses import dataclass

from saucier import constants as K
from saucier.check import check
from saucier.errors import BadInput
from saucier.keeping import keeps
from saucier.kitchen import Kitchen
from saucier.rescue import as_thick_as, brought_back
from saucier.service.amiss import Amiss, amiss
from saucier.service.document import OnHand, Service
from saucier.sheet import Sheet
from saucier.solve import goal_of, solve
from saucier.steps import Roux
from saucier.thickness import LIQUID, spoken_grade, thickness_of
from saucier.units import Amount, Dimension
from saucier.words import Inside, Sentence, say

ROUX_OF = ("butter-unsalted", "wheat-flour")


@dataclass(frozen=True, slots=True)
class Used:
    """Made-ahead sauce used first: ``taken_ml`` of it, ``let_down``, ``ready_ml`` after;
    ``sheet`` is how the whole tub would come back, ``cost`` what was taken has cost; ``liquid_g`` of
    ``liquid`` (a key) let down what is taken. ``age_days`` as it was told."""

    sauce: str
    name: str
    taken_ml: float
    ready_ml: float
    let_down: Sentence
    sheet: Inside[Sheet]
    cost: float
    liquid: str = ""
    liquid_g: float = 0.0
    age_days: float = 0.0


@dataclass(frozen=True, slots=True)
class ReadyRoux:
    """``grams`` of ready roux of a ``colour`` for ``pot`` (all its batches): half of them stand for
    its butter, half for its flour."""

    pot: str
    colour: str
    grams: float


def used_first(
    service: Service,
    left: list[float],
    sauce: str,
    sheet: Sheet,
    grade: str | None,
    need_ml: float,
    kitchen: Kitchen,
) -> tuple[list[Used], list[Sentence]]:
    """What is on hand of ``sauce`` for ``need_ml``, oldest first, and what was refused.

    ``left`` holds the share of each entry that nobody took yet, and is drawn on.
    """
    used_sauces: list[Used] = []
    said: list[Sentence] = []
    there = [n for n, one in enumerate(service.on_hand) if one.sauce == sauce]
    for number in sorted(there, key=lambda n: -service.on_hand[n].age_days):
        one = service.on_hand[number]
        why = _refused(one, service, sheet, kitchen)
        if why:
            said.append(say("not-used", name=sheet.name, why=why))
            continue
        if need_ml <= 0.0:
            break
        if left[number] <= 0.0:
            continue
        try:
            used, share = _brought_back(one, left[number], sheet, grade, need_ml, kitchen)
        except BadInput as bad:
            said.append(say("not-used", name=sheet.name, why=bad.problems[0].message))
            continue
        used_sauces.append(used)
        left[number] *= 1.0 - share
        need_ml -= used.ready_ml
    return used_sauces, said


def _refused(one: OnHand, service: Service, sheet: Sheet, kitchen: Kitchen) -> Sentence | None:
    days = keeps(check(sheet, kitchen).final.pot, int(service.keep_days)).days
    return _too_old(one, days) if days else say("made-for-its-service")


def _brought_back(
    one: OnHand, left: float, sheet: Sheet, grade: str | None, need_ml: float, kitchen: Kitchen
) -> tuple[Used, float]:
    """What is ``left`` of it cooled, warmed again (thicker by what chilling adds), let down to its
    grade; and the share of that which ``need_ml`` takes. Raises :class:`BadInput` where it does not come to that."""
    assert one.sauce is not None
    ml = one.amount.base * left
    if one.amount.dimension is Dimension.WEIGHT:
        pot = check(sheet, kitchen).final.pot
        ml *= pot.total_ml / pot.total_g
    goal = goal_of(sheet, grade, Amount(ml, "mL"))
    made = as_thick_as(solve(sheet, goal, kitchen).sheet, one.viscosity_pa_s, kitchen)
    back = brought_back(made, grade, kitchen)
    final = back.pot
    grade_back = thickness_of(final, made.target.serving_c).grade
    if grade and one.viscosity_pa_s is not None and grade_back != grade:
        comes, wanted = spoken_grade(grade_back or LIQUID), spoken_grade(grade)
        raise BadInput.at("viscosity_pa_s", "comes-back-otherwise", grade=comes, wanted=wanted)
    ready = final.yield_ml
    share = min(1.0, need_ml / ready)
    # Only as much as is taken is let down: the rest goes back cold, as it was.
    poured, told = back.poured_g * share, say("no-let-down")
    if poured > 0.0:
        told = say("tub-let-down", ml=poured / back.liquid.density, name=back.liquid.spoken_name)
    used = Used(
        sauce=one.sauce,
        name=sheet.name,
        taken_ml=ml * share,
        ready_ml=ready * share,
        let_down=told,
        sheet=back.sheet,
        cost=final.cost * share,
        liquid=back.liquid.key if poured > 0.0 else "",
        liquid_g=poured,
        age_days=one.age_days,
    )
    return used, share


def _too_old(one: OnHand, chilled_days: float) -> Sentence | None:
    """Why it is past its days; ``chilled_days`` 0: its own label tells."""
    most = chilled_days if one.place == "fridge" else K.FREEZER_DAYS
    if most and one.age_days > most:
        return say("too-old", days=one.age_days, most_days=most)
    return None


def ingredients_there(
    service: Service, kitchen: Kitchen
) -> tuple[dict[str, float], list[Sentence], list[Amiss]]:
    """Grams of each ingredient on hand that may be used, what was refused, and what is amiss under
    ``on_hand[i]``: one nobody knows, an amount that does not fit it."""
    there: dict[str, float] = {}
    said: list[Sentence] = []
    wrong: list[Amiss] = []
    for number, one in enumerate(service.on_hand):
        if not one.ingredient:
            continue
        try:
            row = kitchen.larder[one.ingredient]
            grams = row.grams(one.amount)
        except BadInput as bad:
            field = "" if bad.problems[0].field == "ingredient" else ".amount"
            wrong += amiss(bad, f"on_hand[{number}]{field}")
            continue
        if too_old := _too_old(one, row.keeps_days):
            said.append(say("not-used", name=row.name, why=too_old))
        else:
            there[row.key] = there.get(row.key, 0.0) + grams
    return there, said, wrong


def roux_first(
    service: Service, pots: Iterable[tuple[str, int, Sheet]], kitchen: Kitchen
) -> tuple[list[ReadyRoux], list[Sentence]]:
    """Ready roux shared out over ``pots`` (key, batches, sheet), each as far as its butter and its
    flour of that colour go; and what is not used."""
    left: dict[str, float] = {}
    said: list[Sentence] = []
    for one in service.on_hand:
        if one.roux is None:
            continue
        if too_old := _too_old(one, K.ROUX_DAYS):
            said.append(say("not-used", name=say(f"ready-roux.{one.roux}"), why=too_old))
        else:
            left[one.roux] = left.get(one.roux, 0.0) + one.amount.base
    asked = set(left)
    shared_out = []
    for key, batches, sheet in pots:
        for step in sheet.steps:
            if not isinstance(step, Roux) or left.get(step.colour, 0.0) <= 0.0:
                continue
            if (step.fat.ingredient, step.flour.ingredient) != ROUX_OF:
                continue
            parts = (step.fat, step.flour)
            each = min(kitchen.larder[part.ingredient].grams(part.amount) for part in parts)
            grams = min(left[step.colour], 2.0 * batches * each)
            left[step.colour] -= grams
            shared_out.append(ReadyRoux(key, step.colour, grams))
    for colour in sorted(asked - {one.colour for one in shared_out}):
        said.append(say("not-used", name=say(f"ready-roux.{colour}"), why=say("no-pot-takes-it")))
    return shared_out, said
