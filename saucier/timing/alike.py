"""Tasks that are the same but for their names (the second tray under the grill, the third board of celeriac):
which of them is done first is all the same, and a plan that says so is found and proved far sooner."""

from collections import defaultdict
from collections.abc import Hashable

from saucier.timing.problem import Problem


def alike(problem: Problem) -> list[list[str]]:
    """Keys of tasks that can change places in every plan, the others staying as they are, in their own order.

    >>> from saucier.timing import Link, Problem, Serving, Stretch, Task
    >>> chop = (Stretch(10.0, "all"),)
    >>> tasks = [Task(key, chop, frozenset(["Ada"])) for key in ("chop#1", "chop#2", "fill")]
    >>> links = [Link("chop#1", "fill"), Link("chop#2", "fill")]
    >>> alike(Problem(tuple(tasks), tuple(links), (Serving("fill", 60.0),), ("Ada",)))
    [['chop#1', 'chop#2']]
    """
    around: dict[str, list[Hashable]] = defaultdict(list)
    for link in problem.links:
        how = (link.at_least, link.longest, link.suffers, link.counted)
        around[link.before].append(("before", link.after, how))
        around[link.after].append(("after", link.before, how))
    for serving in problem.servings:
        around[serving.task].append(("served", serving))
    for heat in problem.heats:
        around[heat.before].append(("heats", heat.those))
        for key in heat.those:
            around[key].append(("heated", heat.before))
    for hold in problem.holds:  # a pan is one's own
        around[hold.first].append(("holds", hold.first))
        for key in hold.until:
            around[key].append(("held", hold.first))
    groups: dict[Hashable, list[str]] = defaultdict(list)
    for task in problem.tasks:
        if task.start is None:
            what = (task.stretches, task.cooks, task.uses, task.baking, task.touches, task.earliest)
            groups[what, frozenset(around[task.key])].append(task.key)
    return [keys for keys in groups.values() if len(keys) > 1]
