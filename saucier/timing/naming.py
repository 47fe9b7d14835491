"""Every cook and thing of a plan named, the plan moved a little where that needs it."""

import itertools
from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace

from ortools.sat.python import cp_model

from saucier.timing.lanes import SOLVED, solver_for
from saucier.timing.measure import late_by_group, measured
from saucier.timing.model import Expr, Model
from saucier.timing.problem import TICKS, Problem
from saucier.timing.schedule import STAGES, Reached, Schedule, Stage
from saucier.timing.settle import settled

WINDOWS = (
    (0.0, 3, 0, 0.05),
    (4.0, 5, 5, 0.05),
    (4.0, 5, 3, 0.05),
    (15.0, 5, 3, 0.1),
    (4.0, 3, 0, 0.05),
    (4.0, 2, 0, 0.08),
    (15.0, 2, 0, 0.2),
    (60.0, 2, 0, 0.6),
)
"""Minutes either way within which a plan is moved so that every cook's tasks can be named; how many of the
stages are held to what they came to, and of how many every single wait; and the deterministic seconds that
may take."""


def named(problem: Problem, schedule: Schedule) -> Schedule:
    """``schedule`` with every cook and thing named; as it was where that cannot be done."""
    waits = _single_waits(problem, schedule)
    for window, held, every, seconds in WINDOWS:
        if every and not waits:
            continue
        model = Model(problem, near=schedule.starts, window=window, named=True)
        for stage in STAGES[:every]:
            for part, most in zip(model.measures.parts[stage], waits[stage], strict=True):
                model.cp.add(part <= most)
        for one in schedule.reached[:held]:
            model.cp.add(model.measures.of[one.stage] <= round(one.value * TICKS))
        changes = _changes(model)
        if window:
            changes = changes + 10 * model.measures.of["suffers"] + model.measures.of["waits"]
        model.cp.minimize(changes)
        solver = solver_for(seconds, 3.0)
        if solver.solve(model.cp) not in SOLVED:
            continue
        values = list(solver.response_proto.solution)
        found = read(model, values.__getitem__, schedule.reached)
        found = _wanted_washes(_with_names(found, model, values), problem)
        starts = settled(problem, found, 2) or found.starts
        came_to = measured(problem, starts)
        kept = _still(waits, _single_waits(problem, replace(schedule, starts=starts)))
        return replace(
            found,
            starts=starts,
            late=late_by_group(problem, starts),
            reached=tuple(
                replace(
                    one,
                    value=came_to[one.stage],
                    kept=one.kept and one.stage in kept and came_to[one.stage] < one.value + 1e-6,
                )
                for one in found.reached
            ),
        )
    return schedule


def _single_waits(problem: Problem, schedule: Schedule) -> dict[Stage, list[int]]:
    """Every part of what is made small, by stage, as the plan has it [ticks]; {} where it cannot be told."""
    model = Model(problem, near=schedule.starts, window=0.0, bare=True)
    model.cp.minimize(cp_model.LinearExpr.sum(list(model.measures.of.values())))
    solver = solver_for(0.05, 2.0)
    if solver.solve(model.cp) not in SOLVED:
        return {}
    return {
        stage: [solver.value(part) for part in parts]
        for stage, parts in model.measures.parts.items()
    }


def _still(before: Mapping[Stage, list[int]], now: Mapping[Stage, list[int]]) -> set[Stage]:
    """Stages of which it still holds what was proved with every wait of those before as it was: none of
    those is longer now."""
    held: set[Stage] = set()
    for stage in STAGES if before and now else ():
        held.add(stage)
        pairs = zip(before[stage], now[stage], strict=False)
        if len(before[stage]) != len(now[stage]) or any(was < is_now for was, is_now in pairs):
            break
    return held


def read(model: Model, value_at: Callable[[int], int], reached: Sequence[Reached]) -> Schedule:
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
        for one, other in itertools.pairwise(several):
            for unit in sorted(one.keys() & other.keys()):
                moved = model.cp.new_bool_var("moved")
                model.cp.add(moved >= one[unit] - other[unit])
                cost.append(moved)
    return cp_model.LinearExpr.sum(cost)


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
