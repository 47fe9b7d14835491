"""From a planned service to the jobs of its run-up, and to what the planner is asked."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, replace
from typing import Literal

from saucier import constants as K
from saucier.errors import BadInput
from saucier.kitchen import Kitchen
from saucier.run_up.dishes import heat_ovens, lay_dish, lay_mise_en_place
from saucier.run_up.document import Happened, RunUp, There, minute_of
from saucier.run_up.jobs import Board, Job
from saucier.run_up.kitchen import At
from saucier.run_up.library import Library
from saucier.run_up.means import SKILLS, Cook, Means, Ring, unit
from saucier.run_up.pots import hold_pans, lay_pots
from saucier.run_up.sides import lay_preparing, lay_thawing
from saucier.service import BranchPlan, LinePlan, Plan
from saucier.timing import Away, Heat, Hold, Problem, Serving, Task
from saucier.words import Sentence, say

Day = Literal[0, -1]
USUAL_SERVING = (720.0, 795.0)
"""When it is served where the service does not say: noon, and an hour and a quarter on."""
DAY_BEFORE = (-660.0, -420.0)
"""The afternoon before, 13:00 to 17:00, minutes from midnight of the day itself."""


@dataclass(frozen=True)
class Gathered:
    """All jobs of a run-up on their ``board``, the moments of ``served`` by sitting, and the kitchen as it
    is that day; ``remarks`` are what to know of it, ``happened`` what is begun or over, said or not;
    ``hot_c`` hot holding by the rules in force."""

    board: Board
    served: Mapping[int, float]
    means: Means
    doc: RunUp
    plan: Plan
    remarks: tuple[Sentence, ...]
    happened: Mapping[str, Happened]
    hot_c: float

    def problem(self, day: Day = 0) -> Problem:
        """What the planner is asked of one day."""
        return _problem(self, day)

    @property
    def days(self) -> tuple[Day, ...]:
        """The days on which there is something to do, the first first."""
        return tuple(d for d in (-1, 0) if any(job.day == d for job in self.board.jobs.values()))


def run_up(
    plan: Plan, kitchen: Kitchen, means: Means, doc: RunUp, library: Library | None = None
) -> Gathered:
    """The jobs of ``plan`` in a kitchen with ``means``, as ``doc`` has it. Raises :class:`BadInput` by
    field."""
    served = serving_times(plan, doc)
    means = _that_day(means, doc, served[1])
    at = At(plan, kitchen, means, library or Library.of(), doc)
    lines = [line for line in plan.lines if not line.refused]
    ahead = _ahead(lines, doc) - frozenset(doc.to_order)
    days = _days(plan, ahead)
    lay_pots(at, days)
    for line in lines:
        moment = served[line.line.sitting]
        if line.id in doc.to_order:
            lay_mise_en_place(at, line, moment)
        else:
            lay_dish(at, line, moment, line.id in ahead)
    lay_preparing(at)
    lay_thawing(at)
    heat_ovens(at)
    hold_pans(at)
    board = at.board
    for key, minutes in doc.minutes.items():
        if key in board.jobs:
            board.jobs[key] = board.jobs[key].lasting(minutes)
    remarks = [*board.remarks, *(say(f"assumed.{what}") for what in means.assumed)]
    if not plan.service.serve_at:
        remarks.append(say("assumed.serve-at"))
    remarks += _no_longer_there(board, doc)
    return Gathered(
        board,
        served,
        means,
        doc,
        plan,
        tuple(dict.fromkeys(remarks)),
        _happened(board, doc.marks),
        kitchen.hot_c,
    )


def _no_longer_there(board: Board, doc: RunUp) -> list[Sentence]:
    """Tasks that were begun, or done, and are none of this plan any more: nothing done is forgotten unsaid."""
    return [
        say("mark-of-no-task" if mark.over is None else "mark-of-no-task-done", key=key)
        for key, mark in doc.marks.items()
        if key not in board.jobs
    ]


def _happened(board: Board, marks: Mapping[str, Happened]) -> dict[str, Happened]:
    """What is marked, and what must have been done before it though nobody said so: a pot that is on was
    weighed out."""
    happened = {key: mark for key, mark in marks.items() if key in board.jobs}
    before: dict[str, list[str]] = {}
    for link in board.links:
        if link.counted:
            before.setdefault(link.after, []).append(link.before)
    for heat, those in board.heats.items():
        for key in those:
            before.setdefault(key, []).append(heat)
    open_ = list(happened)
    while open_:
        key = open_.pop()
        for one in before.get(key, ()):
            if one not in happened and board.jobs[one].day == board.jobs[key].day:
                over = happened[key].began
                began = max(-2880.0, over - board.jobs[one].minutes)
                happened[one] = Happened(began=began, over=over)
                open_.append(one)
    return happened


def serving_times(plan: Plan, doc: RunUp) -> dict[int, float]:
    """The minute each sitting is served."""
    told: list[float] = []
    for clock in plan.service.serve_at:
        at = 60.0 * int(clock.split(":")[0]) + int(clock.split(":")[1])
        told.append(at if not told or at >= told[0] else at + 1440.0)
    first = told[0] if told else USUAL_SERVING[0]
    second = told[1] if len(told) > 1 else first + USUAL_SERVING[1] - USUAL_SERVING[0]
    by = doc.late_by
    return {1: first + by.get("1", 0.0), 2: second + by.get("2", 0.0)}


def _that_day(means: Means, doc: RunUp, near: float) -> Means:
    cooks = list(means.cooks)
    if doc.cooks:
        cooks = [_cook(one, near) for one in doc.cooks]
    rings = list(means.rings)
    for extra in doc.extra:
        if extra.kind == "cook":
            cooks.append(Cook(extra.name))
        else:
            strong = max(rings, key=lambda ring: ring.stove.net_w)
            rings.append(Ring(extra.name, strong.burner))
    names = [cook.name for cook in cooks]
    for number, name in enumerate(names):
        if name in names[:number]:
            raise BadInput.at(f"cooks[{number}].name", "is-there-twice", name=name)
    return replace(means, cooks=tuple(cooks), rings=tuple(rings))


def _cook(there: There, near: float) -> Cook:
    start = None if there.comes is None else minute_of(there.comes, near)
    end = None if there.goes is None else minute_of(there.goes, near)
    return Cook(there.name, frozenset(there.can or SKILLS), start, end)


def _ahead(lines: Iterable[LinePlan], doc: RunUp) -> frozenset[int]:
    """Lines filled the day before: those filled cold, and those the cook puts there."""
    found = set()
    for line in lines:
        can = line.layout is not None or line.dish.filled == "cold"
        cold = line.dish.filled == "cold" and line.layout is not None
        if can and (cold or line.id in doc.ahead) and line.id not in doc.same_day:
            found.add(line.id)
    return frozenset(found)


def _days(plan: Plan, ahead: frozenset[int]) -> dict[str, int]:
    """The day of each pot and branch: the day before where all it is for is made then, and a mother
    where any of what is poured from her is."""
    days: dict[str, int] = {}
    for branch in plan.branches:
        days[branch.key] = -1 if branch.asked and _ids(plan, branch) <= ahead else 0
    for pot in plan.pots:
        poured = [branch for branch in plan.branches if branch.pot == pot.key]
        days[pot.key] = min((days[branch.key] for branch in poured), default=0)
    for first in plan.first:
        days[first.key] = days.get(first.of, 0)
    return days


def _ids(plan: Plan, branch: BranchPlan) -> set[int]:
    """The lines that eat of ``branch``."""
    return {plan.lines[asked.line].id for asked in branch.asked}


# -- the planner's question


def _problem(gathered: Gathered, day: Day) -> Problem:
    board, doc, means = gathered.board, gathered.doc, gathered.means
    inside = {key: job for key, job in board.jobs.items() if job.day == day}
    tasks = tuple(_task(job, gathered) for job in inside.values())
    links = tuple(link for link in board.links if link.before in inside and link.after in inside)
    if day == 0:
        servings = tuple(one for one in board.servings if one.task in inside)
        begin = min(gathered.served.values()) - 60.0 * K.EARLIEST_H
        end = max(gathered.served.values()) + 240.0
    else:
        begin, close = DAY_BEFORE
        followed = {link.before for link in links}
        servings = tuple(Serving(key, close, "before") for key in inside if key not in followed)
        end = close + 300.0
    if doc.now is not None and day == 0:
        begin = max(begin, doc.now)
    # However late it has become, what is left still finds room.
    marks = [mark for key, mark in gathered.happened.items() if key in inside]
    ended = max((m.began if m.over is None else m.over for m in marks), default=begin)
    end = max(end, max(begin, ended) + 60.0 * K.EARLIEST_H)
    holds = tuple(_held(hold, inside) for hold in board.holds if hold.first in inside)
    washes = tuple(
        _task(job, gathered)
        for key, job in board.washes.items()
        if any(hold.wash == key for hold in holds)
    )
    cooks = tuple(unit("cook", cook.name) for cook in means.cooks)
    return Problem(
        tasks=tasks,
        links=links,
        servings=servings,
        cooks=cooks,
        ovens=means.ovens(),
        heats=tuple(
            Heat(key, found)
            for key, those in board.heats.items()
            if key in inside and (found := tuple(one for one in those if one in inside))
        ),
        holds=holds,
        washes=washes,
        away=_away(gathered, begin, end, day),
        begin=begin,
        end=end,
        pots_a_cook=K.POTS_A_COOK,
    )


def _held(hold: Hold, inside: Mapping[str, Job]) -> Hold:
    return replace(hold, until=tuple(key for key in hold.until if key in inside))


def _task(job: Job, gathered: Gathered) -> Task:
    doc = gathered.doc
    task = job.task(gathered.means.cooks_that_can(job.skill))
    if mark := gathered.happened.get(job.key):
        lasted = job.minutes
        if mark.over is not None:
            lasted = max(0.0, mark.over - mark.began)
        elif doc.now is not None:  # still going on: it is not over before now
            left = 0.5 if mark.left is None else mark.left
            least = left if mark.left is not None else lasted
            lasted = max(least, doc.now - mark.began + left)
        began = job.lasting(lasted).task(task.cooks)
        done = mark.over is not None
        return replace(began, start=mark.began, begun=True, done=done)
    pin = doc.pins.get(job.key)
    if pin is None or (doc.now is not None and pin < doc.now):  # it was not begun then
        return task
    return replace(task, start=pin)


def _away(gathered: Gathered, begin: float, end: float, day: Day) -> tuple[Away, ...]:
    """When who and what is not there. Hours of a cook are those of the day itself; what is there for so
    long only, or falls out, does so by the moment, whichever day that is."""
    gone: list[Away] = []
    low, high = begin - 60.0, end + 600.0

    def there(name: str, start: float | None, end: float | None) -> None:
        if start is not None:
            gone.append(Away(name, low, min(start, high)))
        if end is not None:
            gone.append(Away(name, max(end, low), high))

    for extra in gathered.doc.extra:
        there(unit(extra.kind, extra.name), extra.start, extra.end)
    helpers = {extra.name for extra in gathered.doc.extra if extra.kind == "cook"}
    for cook in gathered.means.cooks:
        if day == 0 and cook.name not in helpers:
            there(unit("cook", cook.name), cook.start, cook.end)
    for one in gathered.doc.out:
        start = low if one.start is None else one.start
        gone.append(Away(one.what, start, high if one.end is None else one.end))
    return tuple(one for one in gone if one.end > one.start)
