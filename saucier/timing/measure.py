"""What a plan comes to, reckoned from its starts alone."""

from collections.abc import Mapping

from saucier.timing.problem import TICKS, Problem, lasting
from saucier.timing.schedule import STAGES, Stage


def measured(problem: Problem, starts: Mapping[str, float]) -> dict[Stage, float]:
    """Minutes of each stage for ``starts``: late, harmed, suffers and waits as the planner weighs them,
    and how long before the end one begins."""
    tasks = {task.key: task for task in problem.tasks}
    late = late_by_group(problem, starts)

    def end(key: str) -> float:
        return starts[key] + lasting(tasks[key].minutes) / TICKS

    out: dict[Stage, float] = dict.fromkeys(STAGES, 0.0)
    out["late"] = sum(late.values())

    def wait(over: float, longest: float | None, weight: int) -> None:
        out["suffers" if weight else "waits"] += max(weight, 1) * over
        if longest is not None:
            out["harmed"] += max(weight, 1) * max(0.0, over - longest)

    for link in problem.links:
        before, after = tasks[link.before], tasks[link.after]
        if link.counted and (before.start is None or after.start is None):
            wait(
                starts[link.after] - end(link.before) - lasting(link.at_least) / TICKS,
                link.longest,
                link.suffers,
            )
    for heat in problem.heats:
        if tasks[heat.before].start is None:
            wait(min(starts[key] for key in heat.those) - end(heat.before), None, 0)
    for serving in problem.servings:
        if not tasks[serving.task].done:
            by = late[serving.group or serving.task]
            wait(serving.at + by - end(serving.task), serving.longest, serving.suffers)
    free = [starts[task.key] for task in problem.tasks if task.start is None]
    out["begin"] = problem.end - min(free) if free else 0.0
    return out


def late_by_group(problem: Problem, starts: Mapping[str, float]) -> dict[str, float]:
    """Minutes each group that is served together is late by."""
    tasks = {task.key: task for task in problem.tasks}
    late: dict[str, float] = {}
    for serving in problem.servings:
        group, task = serving.group or serving.task, tasks[serving.task]
        over = starts[task.key] + lasting(task.minutes) / TICKS - serving.at
        late[group] = max(late.get(group, 0.0), 0.0 if task.done else over)
    return late
