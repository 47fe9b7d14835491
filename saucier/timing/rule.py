"""The rule a cook goes by without a planner: longest first, back from the moment of serving.

The planner starts from it, and is measured against it.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from saucier.timing.problem import TICKS, Baking, Problem, Task, apart, lasting, ticks

Span = tuple[int, int]


@dataclass(frozen=True, slots=True)
class Ruled:
    """Starts by task [min]; ``unplaced`` found no room before the day begins."""

    starts: Mapping[str, float]
    unplaced: tuple[str, ...]


def by_rule(problem: Problem, first: Mapping[str, float] | None = None) -> Ruled:
    """Each task as late as what follows it, the hands and the things allow, those with the longest
    way to them first (or by ``first``, the greatest first); nothing is ever moved again."""
    return _Board(problem).filled(first)


class _Board:
    def __init__(self, problem: Problem) -> None:
        self._problem = problem
        self._busy: dict[str, list[Span]] = {}
        self._touched: dict[str, list[Span]] = {}
        self._watched: list[Span] = []
        self._baking: list[tuple[str, Baking, Span]] = []
        self._starts: dict[str, int] = {}
        self._tasks = {task.key: task for task in problem.tasks}
        for away in problem.away:
            span = (ticks(away.start), ticks(away.end))
            self._busy.setdefault(away.unit, []).append(span)
            self._touched.setdefault(away.unit, []).append(span)
        self._holds = {hold.first: hold for hold in problem.holds}
        washes = {task.key: task for task in problem.washes}
        self._wash = {
            hold.first: lasting(washes[hold.wash].minutes) if hold.wash else 0
            for hold in problem.holds
        }

    def filled(self, first: Mapping[str, float] | None) -> Ruled:
        problem = self._problem
        after: dict[str, list[tuple[str, int]]] = {key: [] for key in self._tasks}
        before: dict[str, list[str]] = {key: [] for key in self._tasks}
        for link in problem.links:
            after[link.before].append((link.after, lasting(link.at_least)))
            before[link.after].append(link.before)
        for heat in problem.heats:
            for key in heat.those:
                after[heat.before].append((key, 0))
                before[key].append(heat.before)
        latest = {key: ticks(problem.end) for key in self._tasks}
        for serving in problem.servings:
            latest[serving.task] = min(latest[serving.task], ticks(serving.at))
        way = first or _ways(self._tasks, before)
        unplaced: list[str] = []
        open_after = {key: len(after[key]) for key in self._tasks}
        ready = [key for key, count in open_after.items() if not count]
        for task in self._tasks.values():
            if task.start is not None:
                self._put(task, ticks(task.start))
        while ready:
            key = max(ready, key=lambda one: (way[one], one))
            ready.remove(key)
            task = self._tasks[key]
            if task.start is None:
                end = min(
                    [latest[key]]
                    + [self._starts[to] - lag for to, lag in after[key] if to in self._starts]
                )
                at = self._room(task, end - lasting(task.minutes))
                if at is None:
                    unplaced.append(key)
                else:
                    self._put(task, at)
            for one in before[key]:
                open_after[one] -= 1
                if not open_after[one]:
                    ready.append(one)
        return Ruled({key: at / TICKS for key, at in self._starts.items()}, tuple(sorted(unplaced)))

    def _room(self, task: Task, latest: int) -> int | None:
        low = ticks(self._problem.begin)
        if task.earliest is not None:
            low = max(low, ticks(task.earliest))
        at = latest
        while at >= low:
            clash = self._clash(task, at)
            if clash is None:
                return at
            at = min(at - 1, clash)
        return None

    def _clash(self, task: Task, at: int) -> int | None:
        """None where it fits at ``at``, else a start before which to look on."""
        for offset, minutes in task.pieces("all"):
            span = (at + lasting(offset), at + lasting(offset) + lasting(minutes))
            if task.cooks and not _free(self._busy, task.cooks, span):
                return at - 1
        for use in task.uses:
            end = task.minutes if use.end is None else use.end
            span = (at + lasting(use.start), at + lasting(end))
            if not _free(self._busy, use.units, span):
                return at - 1
        for offset in task.touches:
            span = (at + lasting(offset), at + lasting(offset) + 1)
            if task.cooks and not _free(self._touched, task.cooks, span):
                return at - 1
        most = self._problem.pots_a_cook * len(self._problem.cooks)
        for offset, minutes in task.pieces("now-and-then"):
            span = (at + lasting(offset), at + lasting(offset) + lasting(minutes))
            if most and _most_at_once(self._watched, span) >= most:
                return at - 1
        held = self._held(task, at)
        if held and not _free(self._busy, self._holds[task.key].units, held):
            return at - 1
        if task.baking and self._oven(task, at) is None and self._problem.ovens:
            return at - 1
        return None

    def _held(self, task: Task, at: int) -> Span | None:
        hold = self._holds.get(task.key)
        if hold is None:
            return None
        ends = [
            self._starts[key] + lasting(self._tasks[key].minutes)
            for key in hold.until
            if key in self._starts
        ]
        return at, max([at + lasting(task.minutes), *ends]) + self._wash[task.key]

    def _oven(self, task: Task, at: int) -> str | None:
        assert task.baking is not None
        for oven in self._problem.ovens:
            span = (at, at + lasting(task.minutes))
            there = [(baking, other) for name, baking, other in self._baking if name == oven.name]
            away = self._busy.get(oven.name, [])
            full = any(_overlap(span, one) for one in away)
            for baking, other in there:
                if apart(task.baking, baking):
                    change = lasting(oven.change_minutes(baking.at_c, task.baking.at_c))
                    back = lasting(oven.change_minutes(task.baking.at_c, baking.at_c))
                    full |= not (span[0] >= other[1] + change or other[0] >= span[1] + back)
            beside = [other for baking, other in there for _ in range(baking.shelves)]
            if not full and _most_at_once(beside, span) + task.baking.shelves <= oven.shelves:
                return oven.name
        return None

    def _put(self, task: Task, at: int) -> None:
        self._starts[task.key] = at
        if task.done:
            return
        for offset, minutes in task.pieces("all"):
            span = (at + lasting(offset), at + lasting(offset) + lasting(minutes))
            _take(self._busy, task.cooks, span)
        for use in task.uses:
            end = task.minutes if use.end is None else use.end
            _take(self._busy, use.units, (at + lasting(use.start), at + lasting(end)))
        for offset in task.touches:
            _take(self._touched, task.cooks, (at + lasting(offset), at + lasting(offset) + 1))
        for offset, minutes in task.pieces("now-and-then"):
            self._watched.append((at + lasting(offset), at + lasting(offset) + lasting(minutes)))
        if held := self._held(task, at):
            _take(self._busy, self._holds[task.key].units, held)
        if task.baking:
            oven = self._oven(task, at) or (
                self._problem.ovens[0].name if self._problem.ovens else ""
            )
            self._baking.append((oven, task.baking, (at, at + lasting(task.minutes))))


def _ways(tasks: Mapping[str, Task], before: Mapping[str, list[str]]) -> dict[str, int]:
    """The longest way to the end of each task, ticks."""
    known: dict[str, int] = {}

    def way(key: str) -> int:
        if key not in known:
            known[key] = 0  # a ring of links would have no plan anyway
            known[key] = lasting(tasks[key].minutes) + max(
                (way(one) for one in before[key]), default=0
            )
        return known[key]

    for key in tasks:
        way(key)
    return known


def _overlap(one: Span, other: Span) -> bool:
    return one[0] < other[1] and other[0] < one[1]


def _free(busy: Mapping[str, list[Span]], units: frozenset[str], span: Span) -> str | None:
    """The first of ``units`` free for ``span``; some name where nothing is wanted of anybody."""
    if not units or span[0] >= span[1]:
        return "-"
    for unit in sorted(units):
        if not any(_overlap(span, one) for one in busy.get(unit, ())):
            return unit
    return None


def _take(busy: dict[str, list[Span]], units: frozenset[str], span: Span) -> None:
    if units and span[0] < span[1]:
        unit = _free(busy, units, span) or min(units)
        busy.setdefault(unit, []).append(span)


def _most_at_once(spans: list[Span], inside: Span) -> int:
    near = [span for span in spans if _overlap(span, inside)]
    edges = [inside[0], *(start for start, _ in near if start > inside[0])]
    return max(sum(start <= edge < end for start, end in near) for edge in edges)
