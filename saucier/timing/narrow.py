"""What of a problem decides how late, how harmed, how much what suffers waits. What can be made early
without harm (chopping, weighing out) decides nothing of that: where it finds its room before, the least
without it is the least with it."""

from dataclasses import replace

from saucier.timing.problem import Problem


def narrowed(problem: Problem) -> Problem:
    """``problem`` with only the tasks that are served, those of which a wait can harm or suffer, what heats
    up for them, and what is settled. Every plan of ``problem`` is one of it, no later, no more harmed and no
    more suffering: what is the least there is not more than the least here."""
    kept = {serving.task for serving in problem.servings}
    kept |= {heat.before for heat in problem.heats}
    kept |= {task.key for task in problem.tasks if task.start is not None}
    for link in problem.links:
        if link.counted and (link.suffers or link.longest is not None):
            kept |= {link.before, link.after}
    holds = tuple(
        replace(hold, until=until)
        for hold in problem.holds
        if hold.first in kept and (until := tuple(key for key in hold.until if key in kept))
    )
    washes = {hold.wash for hold in holds}
    return replace(
        problem,
        tasks=tuple(task for task in problem.tasks if task.key in kept),
        links=tuple(one for one in problem.links if one.before in kept and one.after in kept),
        heats=tuple(heat for heat in problem.heats if kept.issuperset(heat.those)),
        holds=holds,
        washes=tuple(wash for wash in problem.washes if wash.key in washes),
    )
