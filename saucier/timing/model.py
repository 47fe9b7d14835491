"""The planner's question as a constraint model (docs/model.md 16): OR-Tools CP-SAT.

Cooks, and things that are alike, are limits on how many run at once, one for every set that alone can
do something: who does what is named afterwards (``named``), which is the same model with an interval
for every one who could.
"""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field, replace
from itertools import combinations, pairwise

from ortools.sat.python import cp_model

from saucier.timing.alike import alike
from saucier.timing.problem import Hold, Problem, Task, apart, lasting, ticks
from saucier.timing.schedule import STAGES, Stage

SEED = 7
Expr = cp_model.LinearExpr
Where = tuple[str, str, int]
"""What an entry is of: its kind (hands, touch, use, hold), the task's key and which of its own."""


@dataclass(frozen=True, slots=True)
class Entry:
    """One of ``units`` is taken from ``start`` to ``end``; where ``present`` is given, perhaps."""

    where: Where
    units: frozenset[str]
    start: Expr
    size: Expr | int
    end: Expr
    offset: int = 0
    length: int = 0
    """Where in its task it lies, ticks; a hold is as long as it takes."""
    fixed: tuple[int, int] | None = None
    """Begun already: from when to when."""
    present: cp_model.IntVar | None = None


@dataclass
class Measures:
    """What is made small, by stage, in ticks: the sum ``of`` its ``parts``; ``late`` by group."""

    of: dict[Stage, cp_model.IntVar] = field(default_factory=dict)
    parts: dict[Stage, list[Expr]] = field(default_factory=dict)
    late: dict[str, cp_model.IntVar] = field(default_factory=dict)


class Model:
    """The model of ``problem``. With ``near`` (starts in minutes) every task begins within ``window``
    minutes of those; ``named``: each cook and thing by itself; ``bare``: nothing is limited, whoever
    asks for it adds the order of things."""

    def __init__(
        self,
        problem: Problem,
        near: Mapping[str, float] | None = None,
        window: float = 0.0,
        named: bool = False,
        bare: bool = False,
    ) -> None:
        self.problem, self.named = problem, named
        self.cp = cp_model.CpModel()
        self._low, self._high = ticks(problem.begin), ticks(problem.end)
        self._span = _span(problem)
        self._near = {key: ticks(at) for key, at in (near or {}).items()}
        self._window = ticks(window)
        self.starts: dict[str, cp_model.IntVar] = {}
        self.washed: dict[str, cp_model.IntVar] = {}
        self.ovens: dict[str, list[cp_model.IntVar]] = {}
        self.chosen: dict[Where, dict[str, cp_model.IntVar]] = {}
        self._kinds: dict[frozenset[str], list[Entry]] = {}
        self._tasks = {task.key: task for task in (*problem.tasks, *problem.washes)}
        for task in self._tasks.values():
            self.starts[task.key] = self._start_of(task)
        for wash in problem.washes:
            self.washed[wash.key] = self.cp.new_bool_var(f"washed {wash.key}")
        for one, next_ in (pair for keys in alike(problem) for pair in pairwise(keys)):
            self.cp.add(self.starts[one] <= self.starts[next_])
        self.measures = self._measured()
        self.entries = [*self._hands(), *self._uses()]
        self.held = list(self._holds())
        self.touches = list(self._touches())
        self.watched = list(self._watched())
        if bare:
            return
        self._share([*self.entries, *self.held])
        self._share(self.touches)
        self._now_and_then()
        self._bake()

    # -- starts, order, lateness

    def _start_of(self, task: Task) -> cp_model.IntVar:
        if task.start is not None:
            return self.cp.new_constant(ticks(task.start))
        low = self._low if task.earliest is None else max(self._low, ticks(task.earliest))
        high = max(low, self._high - _size(task))
        if task.key in self._near:
            at = min(high, max(low, self._near[task.key]))  # what was planned may be past by now
            low, high = max(low, at - self._window), min(high, at + self._window)
        return self.cp.new_int_var(low, high, task.key)

    def end_of(self, key: str) -> Expr:
        return self.starts[key] + _size(self._tasks[key])

    def _measured(self) -> Measures:
        cp, told = self.cp, Measures()
        span = self._span
        harmed: list[Expr] = []
        suffers: list[Expr] = []
        waits: list[Expr] = []

        def wait(over: Expr, longest: float | None, weight: int, name: str) -> None:
            (suffers if weight else waits).append(max(weight, 1) * over)
            if longest is not None:
                past = cp.new_int_var(0, 4 * span, f"past {name}")
                cp.add(past >= over - ticks(longest))
                harmed.append(max(weight, 1) * past)

        for link in self.problem.links:
            before, after = self._tasks[link.before], self._tasks[link.after]
            gap = self.starts[link.after] - self.end_of(link.before) - lasting(link.at_least)
            settled = before.start is not None and after.start is not None
            if not settled:
                cp.add(gap >= 0)
            if not settled and link.counted:
                wait(gap, link.longest, link.suffers, f"{link.before} {link.after}")
        for heat in self.problem.heats:
            if self._tasks[heat.before].start is None:
                first = cp.new_int_var(self._low - span, self._high, f"first after {heat.before}")
                cp.add_min_equality(first, [self.starts[key] for key in heat.those])
                cp.add(first >= self.end_of(heat.before))
                wait(first - self.end_of(heat.before), None, 0, heat.before)
        for serving in self.problem.servings:
            group = serving.group or serving.task
            if group not in told.late:
                told.late[group] = cp.new_int_var(0, span, f"late {group}")
            if self._tasks[serving.task].done:
                continue
            ready = ticks(serving.at) + told.late[group] - self.end_of(serving.task)
            cp.add(ready >= 0)
            wait(ready, serving.longest, serving.suffers, f"{serving.task} served")
        begin = cp.new_int_var(self._low, self._high, "begin")
        free = [self.starts[task.key] for task in self.problem.tasks if task.start is None]
        if free:
            cp.add_min_equality(begin, free)
        else:
            cp.add(begin == self._high)
        late: list[Expr] = list(told.late.values())
        parts: tuple[list[Expr], ...] = (late, harmed, suffers, waits, [self._high - begin])
        for stage, several in zip(STAGES, parts, strict=True):
            told.parts[stage] = several
            told.of[stage] = cp.new_int_var(0, 10_000_000, stage)
            # A sum of starts: a variable for each wait made proofs five times as slow.
            cp.add(told.of[stage] == cp_model.LinearExpr.sum(several))
        return told

    # -- who and what

    def _hands(self) -> Iterable[Entry]:
        for task in self._tasks.values():
            present = self.washed.get(task.key)
            if task.done:
                continue
            for number, (at, minutes) in enumerate(task.pieces("all")):
                yield self._entry(
                    ("hands", task.key, number), task, task.cooks, at, minutes, present
                )

    def _touches(self) -> Iterable[Entry]:
        for task in self.problem.tasks:
            if task.done:
                continue
            for number, at in enumerate(task.touches):
                yield self._entry(("touch", task.key, number), task, task.cooks, at, 0.5, None)

    def _uses(self) -> Iterable[Entry]:
        for task in self._tasks.values():
            present = self.washed.get(task.key)
            if task.done:
                continue
            for number, use in enumerate(task.uses):
                end = task.minutes if use.end is None else use.end
                yield self._entry(
                    ("use", task.key, number), task, use.units, use.start, end - use.start, present
                )

    def _entry(
        self,
        where: Where,
        task: Task,
        units: frozenset[str],
        at: float,
        minutes: float,
        present: cp_model.IntVar | None,
    ) -> Entry:
        size = lasting(minutes)
        start = self.starts[task.key] + lasting(at)
        fixed = None
        if task.begun and task.start is not None:
            fixed = (ticks(task.start) + lasting(at), ticks(task.start) + lasting(at) + size)
        return Entry(where, units, start, size, start + size, lasting(at), size, fixed, present)

    def _holds(self) -> Iterable[Entry]:
        """Pans: until they are emptied where that is the end of it, else until washed or for good."""
        crowded = self._crowded([hold.units for hold in self.problem.holds])
        begun: dict[frozenset[str], int] = {}
        for number, hold in enumerate(self.problem.holds):
            first = self._tasks[hold.first]
            if all(self._tasks[key].done for key in hold.until):
                continue
            start = self.starts[hold.first]
            end = self.cp.new_int_var(self._low, self._high + self._span, f"hold {number}")
            for key in hold.until:
                self.cp.add(end >= self.end_of(key))
            if hold.units in crowded:
                self._washed_after(hold, end)
            else:  # there is one for each: none is wanted again
                self.cp.add(end >= self._high)
            size = self.cp.new_int_var(0, 4 * self._span, f"held {number}")
            self.cp.add(size == end - start)
            where = ("hold", hold.first, number)
            if first.begun:  # it is in its pan, whatever else was planned with it
                begun[hold.units] = begun.get(hold.units, 0) + 1
                if begun[hold.units] > len(hold.units):
                    continue
            yield Entry(where, hold.units, start, size, end)

    def _washed_after(self, hold: Hold, end: cp_model.IntVar) -> None:
        if hold.wash is None:
            self.cp.add(end >= self._high)
            return
        washed = self.washed[hold.wash]
        self.cp.add(end >= self._high).only_enforce_if(~washed)
        self.cp.add(end == self.end_of(hold.wash)).only_enforce_if(washed)
        for key in hold.until:
            self.cp.add(self.starts[hold.wash] >= self.end_of(key)).only_enforce_if(washed)

    @staticmethod
    def _crowded(sets: list[frozenset[str]]) -> set[frozenset[str]]:
        """Those of ``sets`` of which more are wanted than there are units, alone or with others."""
        found: set[frozenset[str]] = set()
        for together in closed(sets):
            inside = [units for units in sets if units <= together]
            if len(inside) > len(together):
                found.update(inside)
        return found

    def _share(self, entries: Iterable[Entry]) -> None:
        """No more at once than there are units: for each set that alone will do for something."""
        held = [entry for entry in entries if entry.units]
        away = self.problem.away
        by_unit: dict[str, list[cp_model.IntervalVar]] = {}
        for units in closed(entry.units for entry in held):
            inside = [entry for entry in held if entry.units <= units]
            gone = [(ticks(a.start), ticks(a.end)) for a in away if a.unit in units]
            if len(inside) + len(gone) <= len(units):
                continue
            self._at_once(inside, len(units), gone)
        if not self.named:
            self._placed([entry for entry in held if entry.where[0] == "use"])
            return
        for entry in held:
            self._name(entry, by_unit)
        for unit, intervals in by_unit.items():
            for one in away:
                if one.unit == unit:
                    start, end = ticks(one.start), ticks(one.end)
                    intervals.append(
                        self.cp.new_fixed_size_interval_var(start, end - start, f"away {unit}")
                    )
            self.cp.add_no_overlap(intervals)

    def _placed(self, entries: list[Entry]) -> None:
        """What stays where it was put (a pot on its ring) takes a unit of one kind: those that will do for
        the same things are alike. Limits on how many run at once do not see that."""
        alike: dict[frozenset[frozenset[str]], set[str]] = {}
        sets = {entry.units for entry in entries}
        for unit in set().union(*sets):
            alike.setdefault(frozenset(one for one in sets if unit in one), set()).add(unit)
        kinds = [frozenset(kind) for kind in alike.values()]
        for kind in sorted(kinds, key=sorted):
            if kind not in sets or any(kind < units for units in sets):
                self._kinds[kind] = []
        for entry in entries:
            options = [kind for kind in self._kinds if kind <= entry.units]
            if entry.fixed or not options:
                continue
            if len(options) == 1:
                self._kinds[options[0]].append(entry)
                continue
            chosen = [self.cp.new_bool_var(f"{entry.where} on {min(one)}") for one in options]
            self.cp.add(sum(chosen) == (1 if entry.present is None else entry.present))
            for kind, choice in zip(options, chosen, strict=True):
                self._kinds[kind].append(replace(entry, present=choice))
        for kind, several in self._kinds.items():
            gone = [(ticks(a.start), ticks(a.end)) for a in self.problem.away if a.unit in kind]
            if len(several) + len(gone) > len(kind):
                self._at_once(several, len(kind), gone)

    def _at_once(self, inside: list[Entry], capacity: int, gone: list[tuple[int, int]]) -> None:
        """No more than ``capacity`` of ``inside`` at once, less by one for each span of ``gone``."""
        fixed = [*gone, *(entry.fixed for entry in inside if entry.fixed)]
        intervals, demands = [], []
        for start, end, demand in stacked(fixed, capacity):
            intervals.append(self.cp.new_fixed_size_interval_var(start, end - start, "settled"))
            demands.append(demand)
        for entry in inside:
            if not entry.fixed:
                intervals.append(self._interval(entry, entry.present, "any"))
                demands.append(1)
        self.cp.add_cumulative(intervals, demands, capacity)

    def _interval(
        self, entry: Entry, present: cp_model.IntVar | None, of: str
    ) -> cp_model.IntervalVar:
        name = f"{entry.where} {of}"
        if present is None:
            return self.cp.new_interval_var(entry.start, entry.size, entry.end, name)
        return self.cp.new_optional_interval_var(entry.start, entry.size, entry.end, present, name)

    def _name(self, entry: Entry, by_unit: dict[str, list[cp_model.IntervalVar]]) -> None:
        options: dict[str, cp_model.IntVar] = {}
        for unit in sorted(entry.units):
            option = self.cp.new_bool_var(f"{entry.where} by {unit}")
            options[unit] = option
            if not entry.fixed:
                by_unit.setdefault(unit, []).append(self._interval(entry, option, unit))
        if entry.present is None:
            self.cp.add_exactly_one(options.values())
        else:
            self.cp.add(sum(options.values()) == entry.present)
        self.chosen[entry.where] = options

    def _watched(self) -> Iterable[Entry]:
        for task in self.problem.tasks:
            if not task.done:
                for number, (at, minutes) in enumerate(task.pieces("now-and-then")):
                    where = ("watch", task.key, number)
                    yield self._entry(where, task, frozenset(self.problem.cooks), at, minutes, None)

    def _now_and_then(self) -> None:
        """About three pots a cook who is there."""
        cooks = self.problem.cooks
        each = self.problem.pots_a_cook
        entries = self.watched
        gone = [(ticks(a.start), ticks(a.end)) for a in self.problem.away if a.unit in cooks]
        if cooks and len(entries) + each * len(gone) > each * len(cooks):
            self._at_once(entries, each * len(cooks), gone * each)

    # -- the oven

    def _bake(self) -> None:
        ovens = self.problem.ovens
        tasks = [task for task in self.problem.tasks if task.baking and not task.done]
        if not tasks or not ovens:
            return
        for task in tasks:
            assert task.baking is not None
            self.ovens[task.key] = [
                self.cp.new_bool_var(f"{task.key} in {oven.name}")
                if len(ovens) > 1
                else self.cp.new_constant(1)
                for oven in ovens
            ]
            roomy = [
                literal
                for literal, oven in zip(self.ovens[task.key], ovens, strict=True)
                if oven.shelves >= task.baking.shelves
            ]
            self.cp.add_exactly_one(roomy or self.ovens[task.key])
        for number, oven in enumerate(ovens):
            gone = [
                (ticks(a.start), ticks(a.end)) for a in self.problem.away if a.unit == oven.name
            ]
            intervals = [
                self.cp.new_fixed_size_interval_var(start, end - start, "away")
                for start, end in gone
            ]
            demands = [oven.shelves] * len(gone)
            for task in tasks:
                assert task.baking is not None
                if task.begun:
                    continue
                literal = self.ovens[task.key][number]
                intervals.append(
                    self.cp.new_optional_interval_var(
                        self.starts[task.key],
                        _size(task),
                        self.end_of(task.key),
                        literal,
                        f"{task.key} {oven.name}",
                    )
                )
                demands.append(min(task.baking.shelves, oven.shelves))
            begun = [task for task in tasks if task.begun]
            settled = [
                (ticks(task.start or 0.0), ticks(task.start or 0.0) + _size(task))
                for task in begun
                for _ in range(task.baking.shelves if task.baking else 1)
            ]
            for start, end, demand in stacked(settled, oven.shelves):
                intervals.append(self.cp.new_fixed_size_interval_var(start, end - start, "begun"))
                demands.append(demand)
            self.cp.add_cumulative(intervals, demands, oven.shelves)
            for one, other in combinations(tasks, 2):
                self._apart(one, other, number)

    def _apart(self, one: Task, other: Task, number: int) -> None:
        if one.baking is None or other.baking is None or not apart(one.baking, other.baking):
            return
        if one.begun and other.begun:
            return
        oven = self.problem.ovens[number]
        both = [self.ovens[one.key][number], self.ovens[other.key][number]]
        first = self.cp.new_bool_var(f"{one.key} before {other.key}")
        change = lasting(oven.change_minutes(one.baking.at_c, other.baking.at_c))
        back = lasting(oven.change_minutes(other.baking.at_c, one.baking.at_c))
        self.cp.add(self.starts[other.key] >= self.end_of(one.key) + change).only_enforce_if(
            [*both, first]
        )
        self.cp.add(self.starts[one.key] >= self.end_of(other.key) + back).only_enforce_if(
            [*both, ~first]
        )


def _size(task: Task) -> int:
    return lasting(task.minutes)


WEIGHTS = (4096, 256, 16, 1)
"""Of a stage and those after it, where they are made small together."""


def weighed(number: int, measure: Callable[[Stage], cp_model.IntVar]) -> Expr | int:
    """Stage ``number`` first, what comes after it a little."""
    terms = [w * measure(stage) for w, stage in zip(WEIGHTS, STAGES[number:], strict=False)]
    return cp_model.LinearExpr.sum(terms)


def closed(sets: Iterable[frozenset[str]]) -> list[frozenset[str]]:
    """The different ``sets``, and what those that overlap are together: where no more run at once
    than each of them holds, nearly always each can be given a unit.

    >>> [sorted(one) for one in closed([frozenset("ab"), frozenset("bc"), frozenset("d")])]
    [['d'], ['a', 'b'], ['b', 'c'], ['a', 'b', 'c']]
    """
    found = {one for one in sets if one}
    grown = True
    while grown:
        grown = False
        for one, other in combinations(sorted(found, key=sorted), 2):
            if one & other and not one <= other and not other <= one and len(found) < 40:
                union = one | other
                if union not in found:
                    found.add(union)
                    grown = True
    return sorted(found, key=lambda one: (len(one), sorted(one)))


def stacked(spans: Iterable[tuple[int, int]], most: int) -> list[tuple[int, int, int]]:
    """Spans that are settled as a profile of how many run at once, never over ``most``: facts do not
    make a plan impossible.

    >>> stacked([(0, 4), (2, 6), (2, 3)], 2)
    [(0, 2, 1), (2, 4, 2), (4, 6, 1)]
    """
    spans = [(start, end) for start, end in spans if end > start]
    edges = sorted({edge for span in spans for edge in span})
    found: list[tuple[int, int, int]] = []
    for start, end in pairwise(edges):
        count = min(most, sum(a <= start and end <= b for a, b in spans))
        if not count:
            continue
        if found and found[-1][1] == start and found[-1][2] == count:
            found[-1] = (found[-1][0], end, count)
        else:
            found.append((start, end, count))
    return found


def _span(problem: Problem) -> int:
    """The longest that anything can last or be late: what is begun lies outside the plan's own day, and
    so may what it was to be served at."""
    moments = [problem.begin, problem.end, *(serving.at for serving in problem.servings)]
    for task in problem.tasks:
        if task.start is not None:
            moments += [task.start, task.start + task.minutes]
    return ticks(max(moments)) - ticks(min(moments))
