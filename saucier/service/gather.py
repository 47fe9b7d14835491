"""From the lines of a service to what is wanted of the stove: each line by itself, so that one that
cannot be served takes nothing from the others."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field

from saucier.check import check
from saucier.dish import Dish, SauceNeed, finish_of, in_rounds, layout_of, needs_of
from saucier.errors import BadInput, Problem
from saucier.guests import Exclusion, Instead, StandsOn, exclusions, instead_of, without
from saucier.kitchen import Kitchen
from saucier.larder import Larder
from saucier.service.amiss import Amiss, amiss, cannot_be_made, told
from saucier.service.document import Line, Service
from saucier.service.planned import Asked, LinePlan, Wanted, called, going_without, short_key
from saucier.sheet import Sheet
from saucier.sheet.salting import with_salt_target
from saucier.steps import AnyStep, InnerSauce, Reserve, Use
from saucier.thickness import spoken_grade
from saucier.words import Sentence, say

_LONGEST_NAME = 120


@dataclass(slots=True)
class Gathered:
    """The lines as planned so far, the sauces ``wanted`` for them by key, what is ``amiss``."""

    lines: list[LinePlan] = field(default_factory=list)
    wanted: dict[str, Wanted] = field(default_factory=dict)
    amiss: list[Amiss] = field(default_factory=list)


@dataclass(frozen=True, slots=True)
class _Made:
    """A line's dish and sauces as its guest gets them."""

    dish: Dish
    sheets: Mapping[str, Sheet]
    told: tuple[Sentence, ...]
    excluded: tuple[Exclusion, ...]


def gather(
    service: Service,
    dishes: Mapping[str, Dish],
    sheets: Mapping[str, Sheet],
    kitchen: Kitchen,
    unread: Sequence[Problem] = (),
) -> Gathered:
    """Every line of ``service`` with what it wants; one that cannot be served is ``refused``, with
    the reason in ``amiss`` and the swaps with which it can. ``unread`` are problems of lines nobody
    could read."""
    found = Gathered(amiss=list(told(unread)))
    for number, line in enumerate(service.lines):
        at, offers = f"lines[{number}]", list[Instead]()
        if any(problem.field.startswith(at) for problem in unread):
            nobody = Dish(name=str(say("a-line-not-read")))
            found.lines.append(_refused(number, line, nobody, (), kitchen))
            continue
        try:
            made = _made(line, dishes, sheets, kitchen, offers)
            found.lines.append(_line(number, line, made, service, sheets, kitchen, found.wanted))
        except BadInput as bad:
            found.amiss += amiss(bad, at)
            dish = dishes.get(line.dish) or Dish(name=str(say("a-dish-off-the-list")))
            found.lines.append(_refused(number, line, dish, tuple(offers), kitchen))
    return found


def _made(
    line: Line,
    dishes: Mapping[str, Dish],
    sheets: Mapping[str, Sheet],
    kitchen: Kitchen,
    offers: list[Instead],
) -> _Made:
    """The line's dish as it is served. Raises :class:`BadInput` by the line's fields, what may stand
    in put into ``offers``."""
    if line.dish not in dishes:
        raise BadInput.at("dish", "is-not-among-the-dishes")
    dish = dishes[line.dish]
    if line.vessel is not None:
        dish = dish.model_copy(update={"vessel": line.vessel})
    own = {used.sauce: _sheet(used.sauce, sheets) for used in dish.sauces}
    excluded = exclusions(line.without, kitchen.larder)
    try:
        made = without(dish, own, excluded, kitchen, line.swaps)
    except StandsOn as bad:
        offers += instead_of(dish, own, bad, excluded, kitchen, line.swaps)
        raise
    if (dish.solids or dish.sauces) and not (made.dish.solids or made.dish.sauces):
        raise BadInput.at("without", "nothing-is-left-for-the-guest")
    return _Made(made.dish, made.sheets, made.told, excluded)


def _line(
    number: int,
    line: Line,
    made: _Made,
    service: Service,
    sheets: Mapping[str, Sheet],
    kitchen: Kitchen,
    wanted: dict[str, Wanted],
) -> LinePlan:
    dish = made.dish
    needs = needs_of(dish, line.portions, kitchen)
    layout = layout_of(dish, line.portions, needs, kitchen.larder)
    tubs = {one.sauce for one in service.on_hand if one.sauce}
    asked: list[tuple[str, Wanted]] = []
    for need in needs:
        sheet = made.sheets[need.sauce]
        if need.salt_pct is not None:
            sheet = with_salt_target(sheet, need.salt_pct)
        grade = need.grade or sheet.target.grade
        changed = sheet.steps != sheets[need.sauce].steps
        # Nobody knows what a tub has met: a guest's is made fresh.
        apart = changed or (bool(made.excluded) and need.sauce in tubs)
        key = _key(need, grade, _marks(line, need, made.excluded) if apart else [])
        there = wanted.get(key)
        if there is None:
            _played(sheet, kitchen)
            if apart:
                sheet = _named_apart(sheet, sheets[need.sauce], line.without, kitchen.larder)
            plain = tuple(step for step in sheet.steps if not isinstance(step, Reserve))
            there = Wanted(
                key=key,
                sauce=need.sauce,
                # In the grade it is wanted in, which the stove corrects and mends it to.
                sheet=sheet.model_copy(
                    update={
                        "steps": plain,
                        "target": sheet.target.model_copy(update={"grade": grade}),
                    }
                ),
                grade=grade,
                film_ml=kitchen.film_ml,
                variant=apart,
                as_written=not changed,
            )
        there.excluded = tuple(dict.fromkeys((*there.excluded, *made.excluded)))
        asked.append((key, there))
    # Nothing of it can fail any more: now the line asks.
    for need, (key, one) in zip(needs, asked, strict=True):
        wanted.setdefault(key, one).asked.append(Asked(number, dish.name, key, need))
    return LinePlan(
        number=number,
        line=line,
        dish=dish,
        name=dish.name,
        called=called(dish.name, line, kitchen.larder),
        needs=tuple(needs),
        branches=tuple(key for key, _ in asked),
        left_out=made.told,
        layout=layout,
        rounds=tuple(in_rounds(one, line.portions) for one in dish.rounds),
        finish=finish_of(dish, layout),
        remarks=tuple(
            remark
            for need, (_, one) in zip(needs, asked, strict=True)
            if (remark := _other_grade(need, one))
        ),
    )


def _named_apart(sheet: Sheet, written: Sheet, without: tuple[str, ...], larder: Larder) -> Sheet:
    """``sheet`` with its name saying what its guest goes without, and so of each sauce inside it that is not as it is in
    ``written``: of two pots on the stove a cook takes the right one by its name."""
    as_written = tuple(_inside(written.steps))

    def named(name: str) -> str:
        whole = str(going_without(name, without, larder))
        longer = len(whole) - _LONGEST_NAME
        # What is cut off a name is never what tells the two apart.
        shorter = name[: max(1, len(name) - longer)] if longer > 0 else name
        return str(going_without(shorter, without, larder))[:_LONGEST_NAME]

    def renamed(step: AnyStep) -> AnyStep:
        if not isinstance(step, Use) or step.inside is None or step.inside in as_written:
            return step
        inside = step.inside
        changes = {"name": named(inside.name), "steps": tuple(map(renamed, inside.steps))}
        return step.model_copy(update={"sauce": inside.model_copy(update=changes)})

    changes = {"name": named(sheet.name), "steps": tuple(map(renamed, sheet.steps))}
    return sheet.model_copy(update=changes)


def _inside(steps: Iterable[AnyStep]) -> Iterator[InnerSauce]:
    """Every sauce that is made inside ``steps``, and inside those."""
    for step in steps:
        if isinstance(step, Use) and step.inside is not None:
            yield step.inside
            yield from _inside(step.inside.steps)


def _marks(line: Line, need: SauceNeed, excluded: Iterable[Exclusion]) -> list[str]:
    """What tells a variant from every other of its sauce."""
    marks = sorted(one.word for one in excluded)
    marks += sorted(f"{old}:{new}" for old, new in line.swaps.items())
    return marks if need.salt_pct is None else [*marks, f"salt {need.salt_pct:g}"]


def _key(need: SauceNeed, grade: str | None, marks: Iterable[str]) -> str:
    """The key of a branch."""
    return short_key("~".join([need.sauce, grade or "as-is", *marks]))


def _other_grade(need: SauceNeed, one: Wanted) -> Sentence | None:
    """That a sauce is planned in another grade than its use asks for, or in none: as its sheet says."""
    usual = spoken_grade(need.use.grade)
    if one.grade is None:
        return say(
            "planned-without-a-grade", name=one.sheet.name, use=need.use.name.lower(), usual=usual
        )
    if one.grade != need.use.grade:
        facts = {"name": one.sheet.name, "use": need.use.name.lower(), "usual": usual}
        return say("planned-in-another-grade", grade=spoken_grade(one.grade), **facts)
    return None


def _played(sheet: Sheet, kitchen: Kitchen) -> None:
    """Raises :class:`BadInput` (field ``dish``) for a sauce that cannot be made as it is written."""
    try:
        check(sheet, kitchen)
    except BadInput as bad:
        raise cannot_be_made(sheet.name, bad) from None


def _refused(
    number: int, line: Line, dish: Dish, offers: tuple[Instead, ...], kitchen: Kitchen
) -> LinePlan:
    """A line that cannot be served as it is asked for."""
    return LinePlan(
        number=number,
        line=line,
        dish=dish,
        name=dish.name,
        called=called(dish.name, line, kitchen.larder),
        needs=(),
        branches=(),
        left_out=(),
        layout=None,
        rounds=(),
        refused=True,
        offers=offers,
    )


def _sheet(key: str, sheets: Mapping[str, Sheet]) -> Sheet:
    if key not in sheets:
        raise BadInput.at("dish", "uses-a-sauce-not-there", key=key)
    return sheets[key]
