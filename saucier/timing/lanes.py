"""Solves side by side, each on one thread to a limit of deterministic time: the same question has the
same answer, on however busy a machine; the clock on the wall only stops what one would draw out.
"""

from collections.abc import Callable, Mapping, Sequence
from concurrent.futures import FIRST_COMPLETED, ThreadPoolExecutor, wait
from dataclasses import dataclass

from ortools.sat.python import cp_model

from saucier.timing.model import SEED, Model, weighed
from saucier.timing.schedule import Stage

SOLVED = (cp_model.OPTIMAL, cp_model.FEASIBLE)


@dataclass(frozen=True, slots=True)
class Kind:
    """A way of solving: parameters of the solver, and its deterministic time in a second on the wall of a
    machine of two cores."""

    pace: float
    parameters: Mapping[str, object]


LEARNS = {"use_new_integer_conflict_resolution": True}
"""How the solver learns from what failed, since 9.15: on 70 random services a fifth less harm from above, and from
below, or by steps, twice as soon through."""
CORES = Kind(
    0.75,
    {
        **LEARNS,
        "linearization_level": 0,
        "optimize_with_core": True,
        "use_sat_inprocessing": False,
    },
)
"""From below: what cannot all be had at once is put together until the rest can. By far the soonest
through where waits may not be long: it proves, and leaves a good plan only at its end. (Dynamic
precedences ended the whole process on one service of 300.)"""
STRONG = {"use_strong_propagation_in_disjunctive": True}
"""What one pair of hands cannot do at once looked at more closely: it pays where little can move, and one cook
does most."""
KEPT = Kind(1.1, {**CORES.parameters, **STRONG})
"""The same where every wait of the stages before is kept: a smaller question, and quicker by the clock."""
SUMS = Kind(0.14, LEARNS)
"""From above, with the linear relaxation: good plans soon, seldom proved."""
BOUNDS = Kind(0.11, {"linearization_level": 2})
"""The same with all the cuts there are, and the way of learning tried by most: what is done carefully."""
STEPS = Kind(0.28, {**LEARNS, "linearization_level": 1, "use_objective_lb_search": True})
"""The least that is still possible tried again and again: the best bound where it is far from nothing, which
is where the way from below sees least, and often the first through where what was before is kept."""
CUTS = Kind(0.12, {**LEARNS, **STRONG, "linearization_level": 2, "use_objective_lb_search": True})
"""The same with all the cuts there are: for what is not proved where the waits before are kept, the best bound
and the better plan."""
PART = Kind(0.045, {"cp_model_probing_level": 0, "symmetry_level": 0, "max_presolve_iterations": 1})
"""For a small part of a plan: what is found out beforehand does not pay."""
A_SOLVE = 0.01
"""Deterministic seconds put down for setting up a solve."""


def solver_for(seconds: float, wall: float, kind: Kind = SUMS) -> cp_model.CpSolver:
    """A solver on one thread, to a limit of deterministic ``seconds`` and a stop on the ``wall``."""
    solver = cp_model.CpSolver()
    put = solver.parameters
    put.random_seed = SEED
    put.num_workers = 1
    put.max_deterministic_time = seconds
    put.max_time_in_seconds = wall
    for name, value in kind.parameters.items():
        setattr(put, name, value)
    return solver


@dataclass(frozen=True, slots=True)
class Job:
    """``cp`` solved in one way, for at most so many ``seconds`` (of its pace)."""

    cp: cp_model.CpModel
    kind: Kind
    seconds: float


@dataclass(frozen=True, slots=True)
class Answer:
    """What came of a job: ``values`` of all variables (None: no plan found), the ``bound``, whether it is
    ``proved`` the least or that there is none, and ``seconds`` of its pace spent."""

    values: list[int] | None
    bound: float
    proved: bool
    seconds: float


def together(
    jobs: Sequence[Job],
    wall: float,
    stop: Callable[[], bool],
    first: Callable[[list[int]], None] | None = None,
) -> list[Answer]:
    """Answers of ``jobs``, side by side. Where the first is through the rest are stopped, and of no
    account: what is answered hangs on no race. ``first`` is told of the first plan there is, by the thread
    that calls."""
    solvers = [
        solver_for(max(A_SOLVE, job.seconds * job.kind.pace), wall, job.kind) for job in jobs
    ]
    watch = _First() if first else None
    with ThreadPoolExecutor(len(jobs)) as pool:
        told = [
            pool.submit(solver.solve, job.cp, watch if job is jobs[-1] else None)
            for solver, job in zip(solvers, jobs, strict=True)
        ]
        open_ = set(told)
        while open_:
            _, open_ = wait(open_, timeout=0.05, return_when=FIRST_COMPLETED)
            if first and watch and watch.values:
                first(watch.values)
                first = None
            through = told[0].done() and told[0].result() == cp_model.OPTIMAL
            if stop() or through:
                for solver in solvers:
                    solver.stop_search()
    answers = []
    for solver, job, status in zip(solvers, jobs, (one.result() for one in told), strict=True):
        response = solver.response_proto
        answers.append(
            Answer(
                list(response.solution) if status in SOLVED else None,
                solver.best_objective_bound if status in SOLVED else 0.0,
                status in (cp_model.OPTIMAL, cp_model.INFEASIBLE),
                (response.deterministic_time + A_SOLVE) / job.kind.pace,
            )
        )
        if status == cp_model.OPTIMAL:
            break
    return answers


class _First(cp_model.CpSolverSolutionCallback):
    """Keeps the first plan there is."""

    def __init__(self) -> None:
        super().__init__()
        self.values: list[int] = []

    def on_solution_callback(self) -> None:
        if not self.values:
            self.values = list(self.response_proto.solution)


class Lane:
    """A copy of the model in which parts are planned anew: the stage at hand first, what comes after
    it a little."""

    def __init__(self, model: Model, number: int, limit: float = 0.005) -> None:
        self._cp, self._limit = model.cp.clone(), limit

        def measure(stage: Stage) -> cp_model.IntVar:
            return self._cp.get_int_var_from_proto_index(model.measures.of[stage].index)

        self._cp.minimize(weighed(number, measure))

    def solved(
        self, values: Sequence[int], pinned: Mapping[int, int], wall: float, give: int = 0
    ) -> Answer:
        """What is ``pinned`` stays where it is, or within ``give`` ticks of that; ``values`` to begin from."""
        variables = self._cp.proto.variables
        domains = {index: list(variables[index].domain) for index in pinned}
        for index, value in pinned.items():
            low, high = domains[index][0], domains[index][-1]
            near = (max(low, value - give), min(high, value + give)) if give else (value, value)
            _put(variables[index].domain, near)
        hinted(self._cp, values)
        solver = solver_for(self._limit, min(2.0, wall), PART)
        status = solver.solve(self._cp)
        for index, domain in domains.items():
            _put(variables[index].domain, domain)
        response = solver.response_proto
        return Answer(
            list(response.solution) if status in SOLVED else None,
            0.0,
            status == cp_model.OPTIMAL,
            response.deterministic_time / PART.pace,
        )


def hinted(cp: cp_model.CpModel, values: Sequence[int]) -> None:
    """The plan ``values`` as the one to begin from."""
    cp.clear_hints()  # type: ignore[no-untyped-call]
    hint = cp.proto.solution_hint
    hint.vars.extend(range(len(values)))
    hint.values.extend(values)


def _put(domain: "Sequence[int]", values: Sequence[int]) -> None:
    domain.clear()  # type: ignore[attr-defined]
    domain.extend(values)  # type: ignore[attr-defined]
