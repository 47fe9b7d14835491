"""A plan drawn together: what comes after what, and who does it, stays as it is; within that order every
task is moved to where least is waited. With the order given that is a plain linear question, answered
at once."""

import itertools
from collections.abc import Mapping
from dataclasses import dataclass

from saucier.timing.lanes import SOLVED, solver_for
from saucier.timing.model import Entry, Model, weighed
from saucier.timing.problem import TICKS, Problem, apart, lasting, ticks
from saucier.timing.schedule import Schedule

Span = tuple[int, int]


@dataclass(frozen=True, slots=True)
class _Placed:
    entry: Entry
    span: Span


def settled(problem: Problem, schedule: Schedule, number: int = 0) -> dict[str, float] | None:
    """Starts by task [min] that are no worse than those of ``schedule`` in any stage, and as good as
    its order allows in stage ``number`` and those after it. None where it cannot be told apart who
    does what."""
    model = Model(problem, bare=True)
    cp, at = model.cp, {key: ticks(start) for key, start in schedule.starts.items()}
    for key, washed in model.washed.items():
        cp.add(washed == (key in schedule.washed))
    order = _Order(problem, model, at, schedule)
    for entries in ([*model.entries, *model.held], model.touches):
        if not order.chained(entries):
            return None
    order.watched()
    order.ovens()
    goal = weighed(number, model.measures.of.__getitem__)
    for one in schedule.reached[:number]:
        cp.add(model.measures.of[one.stage] <= round(one.value * TICKS))
    cp.minimize(goal)
    for key, start in model.starts.items():
        cp.add_hint(start, at[key])
    solver = solver_for(0.05, 3.0)
    if solver.solve(cp) not in SOLVED:
        return None
    return {key: solver.value(start) / TICKS for key, start in model.starts.items()}


class _Order:
    """The order of a plan, put on a bare model."""

    def __init__(
        self, problem: Problem, model: Model, at: Mapping[str, int], schedule: Schedule
    ) -> None:
        self._problem, self._model, self._at, self._schedule = problem, model, at, schedule
        self._tasks = {task.key: task for task in (*problem.tasks, *problem.washes)}

    def chained(self, entries: list[Entry]) -> bool:
        """Every unit does what it does in the order it does it."""
        placed = sorted(
            (one for entry in entries if (one := self._placed(entry))),
            key=lambda one: (one.span, one.entry.where),
        )
        by_unit: dict[str, list[_Placed]] = {}
        for one in placed:
            unit = self._unit(one, by_unit)
            if unit is None:
                return False
            by_unit.setdefault(unit, []).append(one)
        cp = self._model.cp
        for unit, several in by_unit.items():
            # What is begun is a fact and may lie across others: only what is free forms a chain.
            free = [one for one in several if not one.entry.fixed]
            facts = [one for one in several if one.entry.fixed]
            pairs = [*itertools.pairwise(free), *itertools.product(free, facts)]
            for first, second in (*pairs, *itertools.product(facts, free)):
                if first.span[1] <= second.span[0]:
                    cp.add(second.entry.start >= first.entry.end)
            for gone in self._problem.away:
                if gone.unit == unit:
                    self._beside(several, (ticks(gone.start), ticks(gone.end)))
        return True

    def _beside(self, several: list[_Placed], gone: Span) -> None:
        for one in several:
            if one.entry.fixed:
                continue
            if one.span[1] <= gone[0]:
                self._model.cp.add(one.entry.end <= gone[0])
            elif one.span[0] >= gone[1]:
                self._model.cp.add(one.entry.start >= gone[1])

    def _unit(self, one: _Placed, by_unit: Mapping[str, list[_Placed]]) -> str | None:
        """Who does it: as the plan names them, else one who is free, the least able first."""
        if name := self._named(one.entry):
            return name
        if not one.entry.units:
            return "-"
        free = [
            unit
            for unit in sorted(one.entry.units)
            if not any(_overlap(one.span, other.span) for other in by_unit.get(unit, ()))
            and not any(
                gone.unit == unit and _overlap(one.span, (ticks(gone.start), ticks(gone.end)))
                for gone in self._problem.away
            )
        ]
        if not free:
            return min(one.entry.units) if one.entry.fixed else None
        return min(free, key=lambda unit: (-len(by_unit.get(unit, ())), unit))

    def _named(self, entry: Entry) -> str | None:
        kind, key, number = entry.where
        if not self._schedule.named:
            return None
        if kind == "hold":
            return self._schedule.pans[number] or None
        table = {
            "hands": self._schedule.hands,
            "touch": self._schedule.touched,
            "use": self._schedule.units,
        }[kind]
        names = table.get(key, ())
        return names[number] if number < len(names) else None

    def _placed(self, entry: Entry) -> _Placed | None:
        kind, key, number = entry.where
        if not entry.units or (key in self._model.washed and key not in self._schedule.washed):
            return None
        if entry.fixed:
            return _Placed(entry, entry.fixed)
        if kind == "hold":
            hold = self._problem.holds[number]
            ends = [self._at[one] + self._size(one) for one in hold.until]
            end = max(ends)
            if hold.wash and hold.wash in self._schedule.washed:
                end = self._at[hold.wash] + self._size(hold.wash)
            return _Placed(entry, (self._at[hold.first], end))
        start = self._at[key] + entry.offset
        return _Placed(entry, (start, start + entry.length))

    def _size(self, key: str) -> int:
        return lasting(self._tasks[key].minutes)

    def watched(self) -> None:
        """What is looked after one after the other stays so."""
        most = self._problem.pots_a_cook * len(self._problem.cooks)
        placed = [one for entry in self._model.watched if (one := self._placed(entry))]
        if len(placed) > most and most:
            self._in_order(placed)

    def _in_order(self, placed: list[_Placed]) -> None:
        for first in placed:
            for second in placed:
                if first.span[1] <= second.span[0] and not (
                    first.entry.fixed and second.entry.fixed
                ):
                    self._model.cp.add(second.entry.start >= first.entry.end)
        for gone in self._problem.away:
            if gone.unit in self._problem.cooks:
                self._beside(placed, (ticks(gone.start), ticks(gone.end)))

    def ovens(self) -> None:
        """What is in an oven one after the other stays so, with the time it takes to change."""
        inside = [task for task in self._problem.tasks if task.baking and not task.done]
        ovens = {oven.name: oven for oven in self._problem.ovens}
        for one in inside:
            for other in inside:
                name = self._schedule.oven.get(one.key)
                same = name is not None and name == self._schedule.oven.get(other.key)
                if not same or one is other or (one.begun and other.begun):
                    continue
                end = self._at[one.key] + self._size(one.key)
                if end > self._at[other.key] or name not in ovens:
                    continue
                gap = 0
                if one.baking and other.baking and apart(one.baking, other.baking):
                    gap = lasting(ovens[name].change_minutes(one.baking.at_c, other.baking.at_c))
                self._model.cp.add(
                    self._model.starts[other.key] >= self._model.end_of(one.key) + gap
                )
        for gone in self._problem.away:
            for one in inside:
                if self._schedule.oven.get(one.key) == gone.unit:
                    if self._at[one.key] + self._size(one.key) <= ticks(gone.start):
                        self._model.cp.add(self._model.end_of(one.key) <= ticks(gone.start))
                    elif self._at[one.key] >= ticks(gone.end):
                        self._model.cp.add(self._model.starts[one.key] >= ticks(gone.end))


def _overlap(one: Span, other: Span) -> bool:
    return one[0] < other[1] and other[0] < one[1]
