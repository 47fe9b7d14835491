"""Solving in stages: never late, nothing waits past what harms it, what suffers waits least, then the
rest, then a later beginning; each with what was reached before as a bound.

A stage is first tried as a whole, which proves it best where it is small enough; then parts of the plan
(an hour of it, a few dishes) are planned anew while the rest stays, two at a time. Every solve runs on
one thread to a limit of deterministic time, so the same input gives the same plan; the clock on the
wall only stops what a slow machine would draw out, and that is told. Tried against it on services of
60 to 120 tasks, two cores: the solver's own search on eight threads left a third to twice as many
minutes past what harms, and another plan each time; interleaved (the same each time) twice to ten times
as many.
"""

import itertools
import math
import random
import threading
import time
from collections.abc import Callable, Iterator, Mapping, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace

from ortools.sat.python import cp_model

from saucier.timing.measure import late_by_group, measured
from saucier.timing.model import Expr, Model, weighed
from saucier.timing.problem import TICKS, Problem
from saucier.timing.rule import by_rule
from saucier.timing.schedule import STAGES, Reached, Schedule, Stage
from saucier.timing.settle import settled

SEED = 7
WINDOWS = ((0.0, 0.1), (4.0, 0.2), (15.0, 0.4), (60.0, 0.6))
"""Minutes either way within which a plan is moved so that every cook's tasks can be named, and the
deterministic seconds that may take."""
LANES = 2
"""Parts planned anew side by side."""
A_SOLVE = 0.01
"""Deterministic seconds put down for setting up a solve."""
A_SQUEEZE = 0.03
"""The most for asking whether there is a plan with so little of something."""
GIVE_UP = 24
"""Rounds in a row that found nothing better, after which a stage is left."""

SHARES = (0.05, 0.3, 0.35, 0.25, 0.05)
"""Of the effort, to each stage; what one does not need goes to the next."""
WHOLE = 0.08
"""The most deterministic seconds a stage is tried as a whole."""


@dataclass(frozen=True, slots=True)
class Effort:
    """How hard to try: deterministic ``seconds`` in all (one is several on the wall), and a stop on the
    ``wall``, in seconds."""

    seconds: float = 0.8
    wall: float = 10.0


class Impossible(Exception):
    """There is no plan at all, late or not: what is pinned, begun and away leaves none."""


def plan(
    problem: Problem,
    effort: Effort | None = None,
    found: Callable[[Schedule], None] | None = None,
    stop: threading.Event | None = None,
    near: Mapping[str, float] | None = None,
) -> Schedule:
    """The best plan of ``problem`` within ``effort``. ``found`` is told of every better one on the way
    (not named yet); setting ``stop`` ends it with the best so far. ``near`` are starts to begin from
    instead of a cook's rule: those of a plan that is changed a little. Raises :class:`Impossible`."""
    return _Search(problem, effort or Effort(), found, stop or threading.Event()).run(near)


class _Search:
    def __init__(
        self,
        problem: Problem,
        effort: Effort,
        found: Callable[[Schedule], None] | None,
        stop: threading.Event,
    ) -> None:
        self._problem, self._effort, self._found, self._stop = problem, effort, found, stop
        self._began = time.monotonic()
        self._random = random.Random(SEED)
        self._model = Model(problem)
        given = {task.key for task in problem.tasks if task.start is not None}
        self._free = {
            key: start.index for key, start in self._model.starts.items() if key not in given
        }
        self._sizes = {t.key: t.minutes * TICKS for t in (*problem.tasks, *problem.washes)}
        self._values: list[int] = []
        self._reached: list[Reached] = []
        self._until = self._began
        self._bit = False

    def run(self, near: Mapping[str, float] | None) -> Schedule:
        model = self._model
        for key, at in {**by_rule(self._problem).starts, **(near or {})}.items():
            if key in self._free:
                model.cp.add_hint(model.starts[key], round(at * TICKS))
        budget, shared = 0.0, 0.0
        for stage, share in zip(STAGES, SHARES, strict=True):
            budget += share * self._effort.seconds
            shared += share
            self._until = self._began + shared * self._effort.wall
            measure = model.measures.of[stage]
            spent, bound = self._whole(stage, min(WHOLE, budget / 3.0))
            squeezed, bound = self._squeeze(stage, bound, budget / 3.0)
            spent += squeezed
            self._settle(stage)
            if not self._over():
                spent += self._around(stage, bound, budget - spent)
            budget = max(0.0, budget - spent)
            value = self._values[measure.index]
            self._reached.append(Reached(stage, value / TICKS, min(bound, value) / TICKS))
            model.cp.add(measure <= value)
        schedule = self._named(self._schedule(self._reached))
        seconds = time.monotonic() - self._began
        return replace(schedule, seconds=seconds, stopped=self._bit or self._stop.is_set())

    def _over(self) -> bool:
        """Whether the clock on the wall, or somebody, ends this stage."""
        self._bit |= time.monotonic() > self._until
        return self._stop.is_set() or time.monotonic() > self._until

    def _left(self) -> float:
        """Seconds on the wall that a solve may take."""
        return max(0.3, self._until - time.monotonic())

    def _whole(self, stage: Stage, seconds: float) -> tuple[float, float]:
        """The stage tried as a whole; deterministic seconds spent, and its bound in ticks."""
        model, measure = self._model, self._model.measures.of[stage]
        model.cp.minimize(measure)
        self._hint(model.cp)
        solver = _solver(max(A_SOLVE, seconds), self._left())
        watch = None if self._values else _First(self)
        status = _solved(solver, model.cp, self._stop, watch)
        if status in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            self._take(list(solver.response_proto.solution), stage)
        elif not self._values:
            # So slow a machine, or so full a kitchen: any plan at all is wanted now.
            solver = _solver(4.0, 30.0)
            if _solved(solver, model.cp, self._stop, None) not in (
                cp_model.OPTIMAL,
                cp_model.FEASIBLE,
            ):
                raise Impossible
            self._take(list(solver.response_proto.solution), stage)
        return solver.response_proto.deterministic_time + A_SOLVE, solver.best_objective_bound

    def _squeeze(self, stage: Stage, bound: float, seconds: float) -> tuple[float, float]:
        """Half of what may still be saved is asked for outright, and less where that is not answered:
        whether a plan with so little exists is found, or found impossible, far sooner than the least
        is. Deterministic seconds spent, and the bound."""
        measure = self._model.measures.of[stage]
        spent, share = 0.0, 1.0 if stage in ("late", "harmed") else 0.5
        while spent < seconds and not self._over():
            value = self._values[measure.index]
            room = value - max(0, math.ceil(bound - 1e-6))
            if room <= 0 or share < 0.05:
                break
            asked = value - max(1, round(share * room))
            cp = self._model.cp.clone()
            cp.clear_objective()  # type: ignore[no-untyped-call]
            cp.add(cp.get_int_var_from_proto_index(measure.index) <= asked)
            _hinted(cp, self._values)
            solver = _solver(A_SQUEEZE, self._left())
            solver.parameters.linearization_level = 0
            status = _solved(solver, cp, self._stop, None)
            spent += solver.response_proto.deterministic_time + A_SOLVE
            if status in (cp_model.OPTIMAL, cp_model.FEASIBLE):
                self._take(list(solver.response_proto.solution), stage)
                share = min(0.5, share)
            elif status == cp_model.INFEASIBLE:
                bound = asked + 1.0
            else:
                share *= 0.5
        return spent, bound

    def _around(self, stage: Stage, bound: float, seconds: float) -> float:
        """Parts of the plan planned anew; deterministic seconds spent."""
        number = STAGES.index(stage)
        measure = self._model.measures.of[stage]
        lanes = [_Lane(self._model, number) for _ in range(LANES)]
        spent, width, dry = 0.0, 60.0, 0
        with ThreadPoolExecutor(LANES) as pool:
            while spent < seconds and dry < GIVE_UP and not self._over():
                if self._values[measure.index] <= bound + 0.5:
                    break
                parts = [self._part(width) for _ in range(LANES)]
                jobs = [
                    pool.submit(lane.solved, self._values, self._pinned(part), self._left())
                    for lane, part in zip(lanes, parts, strict=True)
                ]
                answers = [job.result() for job in jobs]
                spent += max(answer.seconds for answer in answers) + A_SOLVE
                better = [a.values for a in answers if a.values and self._beats(a.values, number)]
                if better:
                    self._take(min(better, key=self._rank), stage)
                dry = 0 if better else dry + 1
                through = all(answer.through for answer in answers)
                width = min(600.0, width * 1.15) if through else max(12.0, width * 0.85)
        return spent

    def _settle(self, stage: Stage) -> None:
        """The plan drawn together in the order it has."""
        number = STAGES.index(stage)
        starts = settled(self._problem, self._schedule(self._reached), number)
        if starts:
            moved = {index: round(starts[key] * TICKS) for key, index in self._free.items()}
            answer = _Lane(self._model, number).solved(self._values, moved, 2.0)
            if answer.values and self._beats(answer.values, number):
                self._take(answer.values, stage)

    def _part(self, width: float) -> set[str]:
        """Tasks to plan anew: those of some minutes, or some that are linked to each other."""
        starts = {key: self._values[index] for key, index in self._free.items()}
        if not starts:
            return set()
        anchor = self._random.choice(sorted(starts))
        if self._random.random() < 0.6:
            low, high = starts[anchor] - width, starts[anchor] + width
            return {k for k, at in starts.items() if at + self._sizes[k] >= low and at <= high}
        near = {anchor}
        links = self._problem.links
        while len(near) < width / 4.0:
            linked = {
                x for a in links if a.before in near or a.after in near for x in (a.before, a.after)
            } - near
            if not linked:
                anchor = self._random.choice(sorted(starts))
                linked = {anchor} - near or set()
                if not linked:
                    break
            near |= linked
        return near & starts.keys()

    def _pinned(self, part: set[str]) -> dict[int, int]:
        return {i: self._values[i] for key, i in self._free.items() if key not in part}

    def _rank(self, values: Sequence[int]) -> tuple[int, ...]:
        return tuple(values[self._model.measures.of[stage].index] for stage in STAGES)

    def _beats(self, values: Sequence[int], number: int) -> bool:
        return self._rank(values)[number:] < self._rank(self._values)[number:]

    def _take(self, values: list[int], stage: Stage) -> None:
        self._values = values
        if self._found:
            value = values[self._model.measures.of[stage].index] / TICKS
            self._found(self._schedule([*self._reached, Reached(stage, value, 0.0)]))

    def _hint(self, cp: cp_model.CpModel) -> None:
        if self._values:
            _hinted(cp, self._values)

    def _schedule(self, reached: Sequence[Reached]) -> Schedule:
        return _read(self._model, self._values.__getitem__, reached, self._began)

    def _named(self, schedule: Schedule) -> Schedule:
        """``schedule`` with every cook and thing named, moved a little where that needs it."""
        for window, seconds in WINDOWS:
            model = Model(self._problem, near=schedule.starts, window=window, named=True)
            for one in schedule.reached[:2]:
                model.cp.add(model.measures.of[one.stage] <= round(one.value * TICKS))
            changes = _changes(model)
            if window:
                changes = changes + 10 * model.measures.of["suffers"] + model.measures.of["waits"]
            model.cp.minimize(changes)
            solver = _solver(seconds, 3.0)
            if solver.solve(model.cp) not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
                continue
            values = list(solver.response_proto.solution)
            named = _read(model, values.__getitem__, schedule.reached, self._began)
            named = _wanted_washes(_with_names(named, model, values), self._problem)
            starts = settled(self._problem, named, 2) or named.starts
            came_to = measured(self._problem, starts)
            return replace(
                named,
                starts=starts,
                late=late_by_group(self._problem, starts),
                reached=tuple(replace(one, value=came_to[one.stage]) for one in named.reached),
            )
        return schedule


@dataclass(frozen=True, slots=True)
class _Answer:
    values: list[int] | None
    seconds: float
    through: bool


class _Lane:
    """A copy of the model in which parts are planned anew: the stage at hand first, what comes after
    it a little."""

    LIMIT = 0.005

    def __init__(self, model: Model, number: int) -> None:
        self._cp = model.cp.clone()

        def measure(stage: Stage) -> cp_model.IntVar:
            return self._cp.get_int_var_from_proto_index(model.measures.of[stage].index)

        self._cp.minimize(weighed(number, measure))

    def solved(self, values: Sequence[int], pinned: dict[int, int], wall: float) -> _Answer:
        variables = self._cp.proto.variables
        domains = {index: list(variables[index].domain) for index in pinned}
        for index, value in pinned.items():
            _put(variables[index].domain, (value, value))
        _hinted(self._cp, values)
        solver = _solver(self.LIMIT, min(2.0, wall))
        quick = solver.parameters  # a part is small: what is found out beforehand does not pay
        quick.cp_model_probing_level, quick.symmetry_level, quick.max_presolve_iterations = 0, 0, 1
        status = solver.solve(self._cp)
        for index, domain in domains.items():
            _put(variables[index].domain, domain)
        spent = solver.response_proto.deterministic_time
        if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            return _Answer(None, spent, False)
        return _Answer(list(solver.response_proto.solution), spent, status == cp_model.OPTIMAL)


class _First(cp_model.CpSolverSolutionCallback):
    """Tells of the first plan as soon as it is there."""

    def __init__(self, search: _Search) -> None:
        super().__init__()
        self._search = search
        self._told = False

    def on_solution_callback(self) -> None:
        if not self._told:
            self._told = True
            self._search._take(list(self.response_proto.solution), "late")


def _put(domain: "Sequence[int]", values: Sequence[int]) -> None:
    domain.clear()  # type: ignore[attr-defined]
    domain.extend(values)  # type: ignore[attr-defined]


def _hinted(cp: cp_model.CpModel, values: Sequence[int]) -> None:
    cp.clear_hints()  # type: ignore[no-untyped-call]
    hint = cp.proto.solution_hint
    hint.vars.extend(range(len(values)))
    hint.values.extend(values)


def _solver(seconds: float, wall: float) -> cp_model.CpSolver:
    solver = cp_model.CpSolver()
    put = solver.parameters
    put.random_seed = SEED
    put.num_workers = 1
    put.max_deterministic_time = seconds
    put.max_time_in_seconds = wall
    return solver


def _solved(
    solver: cp_model.CpSolver,
    cp: cp_model.CpModel,
    stop: threading.Event,
    watch: cp_model.CpSolverSolutionCallback | None,
) -> cp_model.CpSolverStatus:
    """Solved, or stopped from outside meanwhile."""
    over = threading.Event()

    def guard() -> None:
        while not over.wait(0.1):
            if stop.is_set():
                solver.stop_search()
                return

    thread = threading.Thread(target=guard, daemon=True)
    thread.start()
    try:
        return solver.solve(cp, watch)
    finally:
        over.set()
        thread.join()


def _read(
    model: Model, value_at: Callable[[int], int], reached: Sequence[Reached], began: float
) -> Schedule:
    """A plan from the solver's values, cooks not named yet."""

    def value(of: cp_model.IntVar) -> int:
        return value_at(of.index)

    return Schedule(
        starts={key: value(at) / TICKS for key, at in model.starts.items()},
        late={group: value(by) / TICKS for group, by in model.measures.late.items()},
        reached=tuple(
            replace(one, value=value(model.measures.of[one.stage]) / TICKS) for one in reached
        ),
        oven={
            key: model.problem.ovens[[value(one) for one in options].index(1)].name
            for key, options in model.ovens.items()
        },
        washed=frozenset(key for key, did in model.washed.items() if value(did)),
        seconds=time.monotonic() - began,
        named=False,
    )


def _changes(model: Model) -> Expr | int:
    """How often a task goes from one cook to another, between its pieces and touches."""
    by_task: dict[str, list[dict[str, cp_model.IntVar]]] = {}
    for (kind, key, _), options in model.chosen.items():
        if kind in ("hands", "touch") and len(options) > 1:
            by_task.setdefault(key, []).append(options)
    cost: list[Expr] = []
    for several in by_task.values():
        for one, other in _pairs(several):
            for unit in one.keys() & other.keys():
                moved = model.cp.new_bool_var("moved")
                model.cp.add(moved >= one[unit] - other[unit])
                cost.append(moved)
    return cp_model.LinearExpr.sum(cost)


def _pairs(
    several: Sequence[dict[str, cp_model.IntVar]],
) -> Iterator[tuple[dict[str, cp_model.IntVar], dict[str, cp_model.IntVar]]]:
    return itertools.pairwise(several)


def _wanted_washes(schedule: Schedule, problem: Problem) -> Schedule:
    """Without washes of pans that nobody wants again."""
    wanted = set()
    for number, hold in enumerate(problem.holds):
        again = any(
            pan == schedule.pans[number]
            and other != number
            and schedule.starts[problem.holds[other].first] > schedule.starts[hold.first]
            for other, pan in enumerate(schedule.pans)
        )
        if hold.wash and again:
            wanted.add(hold.wash)
    return replace(schedule, washed=schedule.washed & wanted)


def _with_names(schedule: Schedule, model: Model, values: Sequence[int]) -> Schedule:
    by_kind: dict[str, dict[str, list[str]]] = {"hands": {}, "touch": {}, "use": {}}
    pans: dict[int, str] = {}
    for (kind, key, number), options in model.chosen.items():
        unit = next((name for name, option in options.items() if values[option.index]), "")
        if kind == "hold":
            pans[number] = unit
        else:
            by_kind[kind].setdefault(key, []).append(unit)
    return replace(
        schedule,
        hands={key: tuple(units) for key, units in by_kind["hands"].items()},
        touched={key: tuple(units) for key, units in by_kind["touch"].items()},
        units={key: tuple(units) for key, units in by_kind["use"].items()},
        pans=tuple(pans.get(number, "") for number in range(len(model.problem.holds))),
        named=True,
    )
