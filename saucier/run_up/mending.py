"""When a plan does not come out: what is short, when and by how much, and the smallest changes that
mend it, each tried before it is offered."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, replace

from saucier.run_up.build import Gathered
from saucier.run_up.document import Extra, RunUp
from saucier.run_up.means import unit
from saucier.run_up.sheets import clock
from saucier.timing import Oven, Problem, Schedule, Task, Use
from saucier.timing.solver import Effort, Impossible, plan
from saucier.words import Sentence, say

QUICK = Effort(seconds=0.25, wall=3.0)
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


def short_of(problem: Problem, schedule: Schedule) -> tuple[Short, ...]:
    """Which of the things that are limited is short: with enough of it, the plan comes out better."""
    before = _badness(schedule)
    found = []
    for what, eased in _eased(problem):
        try:
            better = plan(eased, QUICK)
        except Impossible:
            continue
        if _badness(better) < 0.5 * before:
            start, end, by = _overflow(problem, eased, better, what)
            if by:
                found.append(
                    (
                        _badness(better),
                        Short(
                            what,
                            start,
                            end,
                            by,
                            say(f"short.{what}", by=by, start=clock(start), end=clock(end)),
                        ),
                    )
                )
    return tuple(one for _, one in sorted(found, key=lambda pair: pair[0]))


def mends(
    gathered: Gathered,
    schedule: Schedule,
    build: Build,
    tried: Callable[[int, int], bool] | None = None,
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
            answer = plan(build(doc).problem(0), QUICK)
        except Impossible:
            continue
        late, harmed = answer.value("late"), answer.value("harmed")
        if late <= 0.0 and _badness(answer) <= ENOUGH * before:
            found.append(Mend(key, words, doc, late, harmed))
    return tuple(found)


def _badness(schedule: Schedule) -> float:
    return 10.0 * schedule.value("late") + schedule.value("harmed")


def _eased(problem: Problem) -> Iterator[tuple[str, Problem]]:
    """The problem with plenty of one thing."""
    more = tuple(unit("cook", f"more {n}") for n in range(6))
    yield (
        "hands",
        replace(
            problem,
            cooks=(*problem.cooks, *more),
            tasks=tuple(_with(t, cooks=frozenset({*t.cooks, *more})) for t in problem.tasks),
            washes=tuple(_with(t, cooks=frozenset({*t.cooks, *more})) for t in problem.washes),
        ),
    )
    for what, pool in (("rings", "ring:"), ("things", "gear:")):
        yield what, _plenty(problem, pool)
    yield (
        "oven",
        replace(problem, ovens=tuple(Oven(o.name, o.shelves + 6) for o in problem.ovens)),
    )


def _plenty(problem: Problem, pool: str) -> Problem:
    def wider(units: frozenset[str]) -> frozenset[str]:
        if not any(name.startswith(pool) for name in units):
            return units
        kind = sorted(units)[0]
        return frozenset({*units, *(f"{kind} more {n}" for n in range(4))})

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
) -> tuple[float, float, int]:
    """When, in the plan with plenty, more of it is taken than there is, and by how many at most."""
    spans: list[tuple[float, float]] = []
    there = len(problem.cooks)
    if what == "oven":
        there = sum(oven.shelves for oven in problem.ovens)
    units: set[str] = set()
    for task in eased.tasks:
        at = schedule.starts[task.key]
        if task.done:
            continue
        if what == "hands":
            spans += [(at + o, at + o + m) for o, m in task.pieces("all")]
        elif what == "oven" and task.baking:
            spans += [(at, at + task.minutes)] * task.baking.shelves
        elif what in ("rings", "things"):
            pool = "ring:" if what == "rings" else "gear:"
            for use in task.uses:
                if any(name.startswith(pool) for name in use.units):
                    end = task.minutes if use.end is None else use.end
                    names = {name for name in use.units if " more " not in name}
                    if what == "things" and len(names) > 2:
                        continue
                    units |= names
                    spans.append((at + use.start, at + end))
    if what in ("rings", "things"):
        there = len(units)
    edges = sorted({edge for span in spans for edge in span})
    over = [
        (a, b, sum(s <= a and b <= e for s, e in spans) - there)
        for a, b in zip(edges, edges[1:], strict=False)
    ]
    over = [one for one in over if one[2] > 0]
    if not over:
        return 0.0, 0.0, 0
    return over[0][0], over[-1][1], max(by for _, _, by in over)


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
        late = {**doc.late_by}
        for sitting in sittings:
            late[sitting] = late.get(sitting, 0.0) + minutes  # type: ignore[index]
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
        if line.refused or not line.layout or line.number in doc.ahead:
            continue
        if line.dish.filled == "cold" and line.number not in doc.same_day:
            continue
        yield (
            f"ahead-{line.number}",
            say("mend.ahead", dish=line.called),
            doc.model_copy(update={"ahead": (*doc.ahead, line.number)}),
        )
    ring = Extra(kind="ring", name="a ring more", start=None, end=None)
    yield (
        "ring",
        say("mend.ring"),
        doc.model_copy(update={"extra": (*doc.extra, ring)}),
    )
