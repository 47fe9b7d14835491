"""The planner tried on random services: ``make trial SERVICES=300``. Every plan is looked over by a checker of
its own, and set beside a cook's rule (longest first, back from serving)."""

import itertools
import statistics
import sys
import time

from saucier.run_up import RunUp, run_up
from saucier.run_up.tests.services import kitchen, random_service
from saucier.timing import STAGES, by_rule, measured
from saucier.timing.solver import Effort, plan
from saucier.timing.tests.checker import wrong_with
from saucier.timing.tests.random_problems import problem


def of_service(seed: int) -> dict[str, object]:
    """What came of one random service."""
    asked, means, over = random_service(seed)
    gathered = run_up(asked, kitchen(), means, RunUp(served_over=over))
    question = gathered.problem(0)
    ruled = by_rule(question)
    began = time.monotonic()
    first: list[float] = []
    found = plan(
        question,
        Effort(seconds=1.5, wall=6.0),
        lambda _: first.append(time.monotonic() - began),
    )
    return {
        "seed": seed,
        "tasks": len(question.tasks),
        "wrong": wrong_with(question, found),
        "first": first[0],
        "seconds": found.seconds,
        "plan": {one.stage: one.value for one in found.reached},
        "rule": None if ruled.unplaced else measured(question, ruled.starts),
        "proved": found.proved,
        "fresh": all(one.proved for one in found.reached[:3]),
    }


def services(count: int) -> None:
    told = [of_service(seed) for seed in range(count)]
    wrong = [one for one in told if one["wrong"]]
    print(f"{count} random services, {len(wrong)} with something wrong")
    for one in wrong[:5]:
        print("  ", one["seed"], one["wrong"][:2])
    sizes = [one["tasks"] for one in told]
    print(f"tasks {min(sizes)} to {max(sizes)}, median {statistics.median(sizes):.0f}")
    firsts = [one["first"] for one in told]
    print(f"first plan after {statistics.median(firsts):.2f} s, at most {max(firsts):.2f} s")
    fresh = sum(one["fresh"] for one in told)
    print(f"proved best {sum(one['proved'] for one in told)} of {count}, in what suffers {fresh}")
    both = [one for one in told if one["rule"]]
    print(
        f"the rule finds a plan for {len(both)}; there, median and sum of minutes, rule | planner:"
    )
    for stage in STAGES:
        rule = [one["rule"][stage] for one in both]
        ours = [one["plan"][stage] for one in both]
        print(
            f"  {stage:8} {statistics.median(rule):7.1f} {sum(rule):9.0f} |"
            f" {statistics.median(ours):7.1f} {sum(ours):9.0f}"
        )


def sixties(count: int) -> None:
    """Services of about 60 tasks at the usual effort: how often what is proved, and how long that takes."""
    found: list[dict[str, object]] = []
    seeds = itertools.count()
    while len(found) < count:
        asked, means, over = random_service(seed := next(seeds))
        question = run_up(asked, kitchen(), means, RunUp(served_over=over)).problem(0)
        if not 54 <= len(question.tasks) <= 66:
            continue
        planned = plan(question)
        found.append(
            {
                "cooks": len(question.cooks),
                "fresh": all(one.proved for one in planned.reached[:3]),
                "proved": planned.proved,
                "seconds": planned.seconds,
                "stopped": planned.stopped,
                "named": planned.named,
                "wrong": bool(wrong_with(question, planned)),
            }
        )
        print(f"  {seed}: {found[-1]}", flush=True)
    told = {name: sum(bool(one[name]) for one in found) for name in found[0] if name != "cooks"}
    seconds = statistics.median(one["seconds"] for one in found)
    print(
        f"{count} services of 54 to 66 tasks: proved in what suffers {told['fresh']}, in every aim"
        f" {told['proved']}, median {seconds:.1f} s, stopped by the clock {told['stopped']}, every cook's"
        f" tasks named {told['named']}, wrong {told['wrong']}"
    )
    for cooks in range(1, 5):
        these = [one for one in found if one["cooks"] == cooks]
        fresh, proved = (sum(one[name] for one in these) for name in ("fresh", "proved"))
        print(f"  {cooks} cooks: {fresh} and {proved} of {len(these)}")


def sizes() -> None:
    """First and final times, bound and gap by the number of tasks; the same plan twice."""
    for dishes in (3, 6, 8, 12, 17):
        question = problem(3, dishes, cooks=max(2, dishes // 3))
        began, first = time.monotonic(), []
        found = plan(question, None, lambda _, b=began, f=first: f.append(time.monotonic() - b))
        open_ = next((one for one in found.reached if not one.proved), None)
        gap = f"{open_.stage} {open_.value:.0f}, bound {open_.bound:.0f}" if open_ else "proved"
        again = plan(question)
        same = "same again" if again.starts == found.starts else "another the second time"
        wrong = wrong_with(question, found)
        print(
            f"{len(question.tasks):4} tasks: first {first[0]:.2f} s, {found.seconds:.1f} s, {gap},"
            f" {same}{', stopped by the clock' if found.stopped else ''}{', WRONG' if wrong else ''}"
        )


if __name__ == "__main__":
    sizes()
    sixties(40)
    services(int(sys.argv[1]) if len(sys.argv) > 1 else 40)
