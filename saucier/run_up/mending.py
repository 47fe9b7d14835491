"""When a plan does not come out: what is short, when and by how much, and the smallest changes that
mend it, each tried before it is offered."""

import itertools
import threading
from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

from saucier.run_up.build import Gathered
from saucier.run_up.document import Extra, RunUp
from saucier.run_up.means import unit
from saucier.run_up.sheets import clock
from saucier.timing import Problem, Schedule, Task, Use
from saucier.timing.solver import Effort, Impossible, plan
from saucier.words import Sentence, say

QUICK = Effort(seconds=1.2, wall=3.0)
ENOUGH = 0.15
"""A change counts where it leaves nothing late, and of the minutes past what harms no more than so
much."""


@dataclass(frozen=True, slots=True)
class Short:
    """What is short (``hands``, ``rings``, ``oven``, ``things``), from when to when, by how many."""

    what: str
    start: float
    end: float
    by: int
    words: Sentence


@dataclass(frozen=True, slots=True)
class Mend:
    """A change that was tried: the run-up ``after`` it, in words, and what it leaves: minutes late and
    past what harms."""

    key: str
    words: Sentence
    after: RunUp
    late: float
    harmed: float


Build = Callable[[RunUp], Gathered]
"""The run-up made anew from another document."""


def wants_mending(schedule: Schedule) -> bool:
    """Whether anything is late, or stands past what harms it."""
    return schedule.value("late") > 0.0 or schedule.value("harmed") > 0.5


def short_of(
    problem: Problem, schedule: Schedule, stop: threading.Event | None = None
) -> tuple[Short, ...]:
    """Which of the things that are limited is short: with so many more of it the plan comes out much
    better, and when in that plan they are wanted."""
    before = _badness(schedule)
    found = []
    for what in ("hands", "rings", "things", "oven"):
        for by in (1, 2, 6):
            if stop and stop.is_set():
                break
            eased = _eased(problem, what, by)
            try:
                better = plan(eased, QUICK, stop=stop, until="harmed")
            except Impossible:
                break
            if _badness(better) > 0.5 * before:
                continue
            start, end = _overflow(problem, eased, better, what)
            if end > start:
                words = say(f"short.{what}", by=by, start=clock(start), end=clock(end))
                found.append((_badness(better), Short(what, start, end, by, words)))
            break
    return tuple(one for _, one in sorted(found, key=lambda pair: pair[0]))


def mends(
    gathered: Gathered,
    schedule: Schedule,
    build: Build,
    tried: Callable[[int, int], bool] | None = None,
    stop: threading.Event | None = None,
) -> tuple[Mend, ...]:
    """Changes that mend the day's plan, the smallest first. ``tried`` is told how many of how many were
    tried, and says whether to go on."""
    before = _badness(schedule)
    candidates = list(_candidates(gathered, schedule))
    found: list[Mend] = []
    for number, (key, words, doc) in enumerate(candidates):
        if tried and not tried(number, len(candidates)):
            break
        try:
            answer = plan(build(doc).problem(0), QUICK, stop=stop, until="harmed")
        except Impossible:
            continue
        late, harmed = answer.value("late"), answer.value("harmed")
        if late <= 0.0 and _badness(answer) <= ENOUGH * before:
            found.append(Mend(key, words, doc, late, harmed))
    return tuple(found)


def _badness(schedule: Schedule) -> float:
    return 10.0 * schedule.value("late") + schedule.value("harmed")


def _eased(problem: Problem, what: str, by: int) -> Problem:
    """The problem with ``by`` more of something."""
    if what == "oven":
        return replace(
            problem, ovens=tuple(replace(one, shelves=one.shelves + by) for one in problem.ovens)
        )
    if what == "hands":
        more = tuple(unit("cook", f"more {n}") for n in range(by))
        return replace(
            problem,
            cooks=(*problem.cooks, *more),
            tasks=tuple(_with(t, frozenset({*t.cooks, *more})) for t in problem.tasks),
            washes=tuple(_with(t, frozenset({*t.cooks, *more})) for t in problem.washes),
        )
    pool = "ring:" if what == "rings" else "gear:"

    def wider(units: frozenset[str]) -> frozenset[str]:
        if not any(name.startswith(pool) for name in units):
            return units
        kind = "any" if what == "rings" else sorted(units)[0]
        return frozenset({*units, *(f"{pool}{kind} more {n}" for n in range(by))})

    def task(one: Task) -> Task:
        return replace(one, uses=tuple(Use(wider(u.units), u.start, u.end) for u in one.uses))

    return replace(
        problem,
        tasks=tuple(task(one) for one in problem.tasks),
        washes=tuple(task(one) for one in problem.washes),
    )


def _with(task: Task, cooks: frozenset[str]) -> Task:
    return replace(task, cooks=cooks) if task.cooks else task


def _overflow(
    problem: Problem, eased: Problem, schedule: Schedule, what: str
) -> tuple[float, float]:
    """From when to when, in the plan with more of it, more is taken than there is."""
    taken: dict[frozenset[str], list[tuple[float, float]]] = {}
    there: dict[frozenset[str], int] = {}
    shelves = frozenset({"oven"})
    for task in eased.tasks:
        at = schedule.starts[task.key]
        if task.done:
            continue
        if what == "hands" and task.cooks:
            everybody = frozenset(problem.cooks)
            there[everybody] = len(everybody)
            taken.setdefault(everybody, []).extend(
                (at + o, at + o + m) for o, m in task.pieces("all")
            )
        elif what == "oven" and task.baking:
            there[shelves] = sum(oven.shelves for oven in problem.ovens)
            taken.setdefault(shelves, []).extend([(at, at + task.minutes)] * task.baking.shelves)
        elif what in ("rings", "things"):
            pool = "ring:" if what == "rings" else "gear:"
            for use in task.uses:
                units = frozenset(n for n in use.units if n.startswith(pool) and " more " not in n)
                if units:
                    end = task.minutes if use.end is None else use.end
                    there[units] = len(units)
                    taken.setdefault(units, []).append((at + use.start, at + end))
    over: list[tuple[float, float]] = []
    for units, spans in taken.items():
        edges = sorted({edge for span in spans for edge in span})
        for a, b in itertools.pairwise(edges):
            if sum(s <= a and b <= e for s, e in spans) > there[units]:
                over.append((a, b))
    return (min(a for a, _ in over), max(b for _, b in over)) if over else (0.0, 0.0)


def _candidates(gathered: Gathered, schedule: Schedule) -> Iterator[tuple[str, Sentence, RunUp]]:
    """Changes to try, the smallest first."""
    doc = gathered.doc
    sittings = [key for key, by in schedule.late.items() if by > 0.0] or ["1"]
    for more in (10.0, 20.0):
        yield (
            f"over-{more:.0f}",
            say("mend.over", minutes=doc.served_over + more),
            doc.model_copy(update={"served_over": doc.served_over + more}),
        )
    for minutes in (8.0, 15.0, 30.0):
        late = {str(sitting): by for sitting, by in doc.late_by.items()}
        for sitting in sittings:
            late[sitting] = late.get(sitting, 0.0) + minutes
        yield (
            f"later-{minutes:.0f}",
            say("mend.later", minutes=minutes),
            doc.model_copy(update={"late_by": late}),
        )
    served = min(gathered.served.values())
    taken = {cook.name for cook in gathered.means.cooks}
    helper = next(name for n in range(1, 30) if (name := f"Helper {n}") not in taken)
    for before, after in ((20.0, 10.0), (45.0, 15.0), (120.0, 20.0), (240.0, 100.0)):
        extra = Extra(kind="cook", name=helper, start=served - before, end=served + after)
        yield (
            f"hands-{before:.0f}",
            say("mend.hands", start=clock(served - before), end=clock(served + after)),
            doc.model_copy(update={"extra": (*doc.extra, extra)}),
        )
    for line in gathered.plan.lines:
        if line.refused or not line.layout or line.id in doc.ahead:
            continue
        if line.dish.filled == "cold" and line.id not in doc.same_day:
            continue
        yield (
            f"ahead-{line.id}",
            say("mend.ahead", dish=line.called),
            doc.model_copy(update={"ahead": (*doc.ahead, line.id)}),
        )
    ring = Extra(kind="ring", name="a ring more", start=None, end=None)
    yield (
        "ring",
        say("mend.ring"),
        doc.model_copy(update={"extra": (*doc.extra, ring)}),
    )
