"""Looks a plan over minute by minute, by nothing of the planner's own: what is wrong with it, in words."""

import itertools
from collections.abc import Iterator
from itertools import groupby

from saucier.timing import TICKS, Problem, Schedule, Stretch, Task

HALF = 1.0 / TICKS


def up(minutes: float) -> float:
    """Minutes rounded up to the planner's clock."""
    whole = round(minutes * TICKS, 4)
    return (int(whole) + (whole > int(whole))) / TICKS


def wrong_with(problem: Problem, schedule: Schedule) -> list[str]:
    """Everything the plan does that cannot be done; nothing where it can be cooked."""
    if not schedule.named:
        return ["nobody is named"]
    return [*_times(problem, schedule), *_things(problem, schedule), *_ovens(problem, schedule)]


def _length(task: Task) -> float:
    return up(task.minutes)


def _times(problem: Problem, schedule: Schedule) -> Iterator[str]:
    tasks = {task.key: task for task in problem.tasks}
    start = schedule.starts
    for task in problem.tasks:
        if task.start is not None:
            if abs(start[task.key] - task.start) > HALF:
                yield f"{task.key} was to begin at {task.start}, not at {start[task.key]}"
            continue
        if start[task.key] < problem.begin - 1e-6:
            yield f"{task.key} begins before the day"
        if task.earliest is not None and start[task.key] < task.earliest - HALF:
            yield f"{task.key} begins too early"
    for link in problem.links:
        before, after = tasks[link.before], tasks[link.after]
        if before.start is not None and after.start is not None:
            continue
        gap = start[link.after] - start[link.before] - _length(before)
        if gap < link.at_least - 1e-6:
            yield f"{link.after} begins {gap} min after {link.before}, not {link.at_least}"
    for heat in problem.heats:
        end = start[heat.before] + _length(tasks[heat.before])
        if tasks[heat.before].start is None and any(start[key] < end for key in heat.those):
            yield f"{heat.before} is not over in time"
    for serving in problem.servings:
        task = tasks[serving.task]
        late = schedule.late.get(serving.group or serving.task, 0.0)
        if not task.done and start[task.key] + _length(task) > serving.at + late + 1e-6:
            yield f"{serving.task} is over after it is served"


def _windows(task: Task, parts: tuple[Stretch, ...], hands: str) -> list[tuple[float, float]]:
    """Neighbouring parts that want such hands, as the cook sees them: one go."""
    found: list[tuple[float, float]] = []
    at = 0.0
    for wanted, several in groupby((p for p in parts if p.minutes > 0), lambda p: p.hands == hands):
        minutes = sum(part.minutes for part in several)
        if wanted:
            found.append((up(at), up(at) + up(minutes)))
        at += minutes
    return found


def _things(problem: Problem, schedule: Schedule) -> Iterator[str]:
    """Every cook, touch and thing is one unit of those that will do, there, and nowhere else."""
    busy: dict[str, list[tuple[float, float, str]]] = {}
    touched: dict[str, list[tuple[float, float, str]]] = {}
    watched: list[tuple[float, float]] = []
    every = [*problem.tasks, *(w for w in problem.washes if w.key in schedule.washed)]
    for task in every:
        if task.done:
            continue
        at = schedule.starts[task.key]
        names = schedule.hands.get(task.key, ())
        pieces = _windows(task, task.stretches, "all")
        if task.cooks and len(names) != len(pieces):
            yield f"{task.key}: {len(pieces)} pieces of work, {len(names)} cooks named"
        for name, (a, b) in zip(names, pieces, strict=False):
            if name not in task.cooks:
                yield f"{name} cannot do {task.key}"
            if not task.begun:
                busy.setdefault(name, []).append((at + a, at + b, task.key))
        for name, offset in zip(schedule.touched.get(task.key, ()), task.touches, strict=True):
            if name not in task.cooks:
                yield f"{name} cannot touch {task.key}"
            if not task.begun:
                touched.setdefault(name, []).append(
                    (at + up(offset), at + up(offset) + HALF, task.key)
                )
        for name, use in zip(schedule.units.get(task.key, ()), task.uses, strict=True):
            if name not in use.units:
                yield f"{name} will not do for {task.key}"
            end = task.minutes if use.end is None else use.end
            a = at + up(use.start)
            if not task.begun:
                busy.setdefault(name, []).append((a, a + up(end - use.start), task.key))
        if not task.begun:
            watched += [(at + a, at + b) for a, b in _windows(task, task.stretches, "now-and-then")]
    for number, hold in enumerate(problem.holds):
        tasks = {task.key: task for task in every}
        if all(tasks[key].done for key in hold.until):
            continue
        name = schedule.pans[number]
        if name not in hold.units:
            yield f"{name} will not do for {hold.first}"
        end = max(schedule.starts[key] + _length(tasks[key]) for key in hold.until)
        later = [
            schedule.starts[other.first]
            for n, other in enumerate(problem.holds)
            if n != number
            and schedule.pans[n] == name
            and schedule.starts[other.first] >= schedule.starts[hold.first]
        ]
        if later and hold.wash in schedule.washed:
            if schedule.starts[hold.wash] < end - 1e-6:
                yield f"{name} is washed before it is empty"
            end = schedule.starts[hold.wash] + _length(tasks[hold.wash])
        elif later:
            yield f"{name} is wanted again after {hold.first} and was not washed"
        busy.setdefault(name, []).append((schedule.starts[hold.first], end, f"pan {hold.first}"))
    for away in problem.away:
        for table in (busy, touched):
            table.setdefault(away.unit, []).append((away.start, away.end, "away"))
    for what, table in (("does", busy), ("touches", touched)):
        for name, spans in table.items():
            ordered = sorted(span for span in spans if span[1] > span[0])
            for (_, end, one), (start, _, other) in itertools.pairwise(ordered):
                if start < end - 1e-6 and not one == other == "away":
                    yield f"{name} {what} {one} and {other} at once"
    for moment in {a for a, _ in watched}:
        there = [
            name
            for name in problem.cooks
            if not any(a.unit == name and a.start <= moment < a.end for a in problem.away)
        ]
        pots = sum(a <= moment < b for a, b in watched)
        if pots > problem.pots_a_cook * len(there) and problem.cooks:
            yield f"{pots} pots are to be looked after by {len(there)} at {moment}"


def _ovens(problem: Problem, schedule: Schedule) -> Iterator[str]:
    for oven in problem.ovens:
        inside = [
            (schedule.starts[t.key], schedule.starts[t.key] + _length(t), t)
            for t in problem.tasks
            if t.baking and not t.done and schedule.oven.get(t.key) == oven.name
        ]
        for moment in {a for a, _, _ in inside}:
            shelves = sum(t.baking.shelves for a, b, t in inside if a <= moment < b and t.baking)
            if shelves > oven.shelves:
                yield f"{shelves} shelves of {oven.name} at {moment}"
        for n, (a, b, one) in enumerate(inside):
            for c, d, other in inside[n + 1 :]:
                warm, cool = one.baking, other.baking
                if not warm or not cool or (one.begun and other.begun):
                    continue
                if abs(warm.at_c - cool.at_c) <= warm.give_c + cool.give_c:
                    continue
                gap = c - b if a < c else a - d
                change = (cool.at_c - warm.at_c) * (1 if a < c else -1)
                needed = change / oven.heats if change > 0 else -change / oven.cools
                if gap < needed - HALF:
                    yield f"{oven.name}: {one.key} and {other.key} {gap} min apart"
    missing = [t.key for t in problem.tasks if t.baking and not t.done and problem.ovens]
    for key in missing:
        if key not in schedule.oven:
            yield f"{key} is in no oven"
