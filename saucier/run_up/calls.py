"""À la minute: plates finished when they are called. What stands ready for them, how long a call takes,
how many run at once, and when each call starts so that a table goes out together."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace

from saucier import constants as K
from saucier.keeping import made_for_its_service
from saucier.kitchen import Kitchen
from saucier.run_up.calls_told import AtOnce, CallPlan, CallStep, ToOrder
from saucier.run_up.dishes import finish_to_order
from saucier.run_up.document import Called, RunUp
from saucier.run_up.jobs import Board
from saucier.run_up.kitchen import At
from saucier.run_up.library import Library
from saucier.run_up.means import Means, named, unit
from saucier.run_up.pots import keeps_of
from saucier.run_up.sides import lay_sides
from saucier.service import LinePlan, Plan
from saucier.timing import Away, Link, Problem, Schedule, Serving
from saucier.timing.solver import Effort, plan
from saucier.words import Sentence, say

BRIEF = Effort(seconds=0.2, wall=1.5)
TOGETHER = (1, 2, 4, 6)
"""So many calls at once are tried, and said what the last of the most waits for."""


@dataclass
class Calls:
    """The calls of a service that is under way."""

    plan: Plan
    kitchen: Kitchen
    means: Means
    doc: RunUp
    library: Library

    def planned(self, calls: Sequence[Called]) -> tuple[CallPlan, ...]:
        """Every call that is not gone, each table together, as soon as can be."""
        waiting = [(n, call) for n, call in enumerate(calls) if not call.gone]
        lines = {line.id: line for line in self.plan.lines if not line.refused}
        waiting = [(n, call) for n, call in waiting if call.line in lines]
        if not waiting:
            return ()
        boards = [(n, call, self.board(lines[call.line], call.portions, n)) for n, call in waiting]
        problem = self._problem(boards)
        answer = plan(problem, BRIEF)
        return tuple(self._told(n, call, board, answer) for n, call, board in boards)

    def board(self, line: LinePlan, portions: int, number: int) -> Board:
        """The jobs of one call, by keys of its own."""
        layout = line.layout
        vessel = line.dish.vessel
        if layout and vessel:
            layout = replace(layout, vessels=math.ceil(portions / vessel.portions))
        one = replace(
            line, line=line.line.model_copy(update={"portions": float(portions)}), layout=layout
        )
        at = At(self.plan, self.kitchen, self.means, self.library, self.doc, hot=True)
        sides = lay_sides(at, one, 0)
        quick = tuple(
            key for key in sides if at.board.jobs[key].keeps.suffers >= K.A_LA_MINUTE_SUFFERS
        )
        at.board.jobs = {key: at.board.jobs[key] for key in quick}
        at.board.links = []
        finish_to_order(at, one, quick)
        return _renamed(at.board, f"call:{number}:")

    def to_order(self, line: LinePlan) -> ToOrder:
        """What a cook wants to know of a line before the evening."""
        told, alone = [], 0.0
        for count in TOGETHER:
            calls = [Called(line=line.id, portions=1, table=str(n), at=0.0) for n in range(count)]
            found = self.planned(calls)
            last = max(call.out for call in found)
            if count == 1:
                alone = last
            late = count == TOGETHER[-1] and last > alone + 1.0
            waits = self._waits_for(calls, last) if late else None
            told.append(AtOnce(count, last, waits))
        return ToOrder(line.id, line.called, self._ready(line), alone, tuple(told))

    def _ready(self, line: LinePlan) -> tuple[Sentence, ...]:
        by_key = {branch.key: branch for branch in self.plan.branches}
        told = []
        for key in dict.fromkeys(line.branches):
            branch = by_key[key]
            keeps = keeps_of(branch.sheet, branch.final.pot, self.kitchen)
            told.append(
                say(
                    "mise.sauce-delicate"
                    if made_for_its_service(branch.final.pot)
                    else "mise.sauce",
                    name=branch.name,
                    ml=branch.need_ml / max(line.line.portions, 1.0),
                    rule_c=K.HOT_HOLDING_C,
                    minutes=keeps.longest,
                )
            )
        at = At(self.plan, self.kitchen, self.means, self.library, self.doc)
        for key in lay_sides(at, line, 0):
            job = at.board.jobs[key]
            quick = job.keeps.suffers >= K.A_LA_MINUTE_SUFFERS
            where = "mise.raw" if quick else "mise.cooked"
            told.append(
                say(where, name=job.amount, minutes=job.keeps.longest or 240.0, how=job.name)
            )
        return tuple(told)

    def _waits_for(self, calls: Sequence[Called], last: float) -> Sentence | None:
        """Of hands, rings and things, with plenty of which the last call would be sooner."""
        best, named_best = last - 0.5, None
        strong = max(self.means.rings, key=lambda ring: ring.stove.net_w)
        more_rings = tuple(replace(strong, name=f"more {n}") for n in range(TOGETHER[-1]))
        eased = {
            "hands": replace(
                self.means,
                cooks=(
                    *self.means.cooks,
                    *(replace(self.means.cooks[0], name=f"more {n}") for n in range(6)),
                ),
            ),
            "rings": replace(self.means, rings=(*self.means.rings, *more_rings)),
            "gear": replace(
                self.means, gear=tuple(replace(one, count=one.count + 8) for one in self.means.gear)
            ),
        }
        for what, means in eased.items():
            found = Calls(self.plan, self.kitchen, means, self.doc, self.library).planned(calls)
            out = max(call.out for call in found)
            if out < best:
                best, named_best = out, say(f"call.waits-for.{what}")
        return named_best

    def _problem(self, boards: Iterable[tuple[int, Called, Board]]) -> Problem:
        tasks, links, servings = [], [], []
        begin = math.inf
        ideal = 0.0
        several = list(boards)
        together: dict[str, float] = {}
        for number, call, board in several:
            group = call.table or f"call {number}"
            together[group] = max(together.get(group, -math.inf), call.at + _longest(board))
        for number, call, board in several:
            begin = min(begin, call.at)
            ideal = max(ideal, _longest(board))
            group = call.table or f"call {number}"
            for job in board.jobs.values():
                task = job.task(self.means.cooks_that_can(job.skill))
                tasks.append(replace(task, earliest=call.at))
            links += board.links
            servings += [replace(one, at=together[group], group=group) for one in board.servings]
        cooks = tuple(unit("cook", cook.name) for cook in self.means.cooks)
        gone = tuple(
            Away(one.what, one.start if one.start is not None else begin - 60, one.end or 9999.0)
            for one in self.doc.out
        )
        end = max(call.at for _, call, _ in several) + ideal * (len(several) + 1) + 120.0
        return Problem(
            tuple(tasks),
            tuple(links),
            tuple(servings),
            cooks,
            ovens=self.means.ovens(),
            away=gone,
            begin=begin,
            end=end,
            pots_a_cook=K.POTS_A_COOK,
        )

    def _told(self, number: int, call: Called, board: Board, answer: Schedule) -> CallPlan:
        steps = []
        for key, job in board.jobs.items():
            cooks = answer.hands.get(key, ())
            where = ", ".join(named(name) for name in answer.units.get(key, ()) if name)
            start = answer.starts[key]
            steps.append(
                CallStep(
                    key,
                    job.name if isinstance(job.name, Sentence) else say("said", words=job.name),
                    start,
                    start + job.minutes,
                    named(cooks[0]) if cooks else "",
                    where or answer.oven.get(key, "").partition(":")[2],
                )
            )
        steps.sort(key=lambda step: step.start)
        line = next(one for one in self.plan.lines if one.id == call.line)
        alone = _longest(board)
        out = max(step.end for step in steps)
        return CallPlan(
            number=number,
            line=call.line,
            dish=line.called,
            portions=call.portions,
            table=call.table,
            called_at=call.at,
            begin=min(step.start for step in steps),
            out=out,
            ideal_min=alone,
            waits_min=max(0.0, out - call.at - alone),
            steps=tuple(steps),
        )


def _renamed(board: Board, prefix: str) -> Board:
    """The jobs of a call by keys of its own; what heats up for it is hot already."""
    kept = {key: job for key, job in board.jobs.items() if job.kind != "warm-up"}
    return Board(
        jobs={prefix + key: replace(job, key=prefix + key) for key, job in kept.items()},
        links=[
            Link(
                prefix + link.before, prefix + link.after, link.at_least, link.longest, link.suffers
            )
            for link in board.links
            if link.before in kept and link.after in kept
        ],
        servings=[
            Serving(prefix + one.task, one.at, one.group, one.longest, one.suffers)
            for one in board.servings
        ],
    )


def _longest(board: Board) -> float:
    """The longest way through the jobs of a call, minutes."""
    known: dict[str, float] = {}

    def way(key: str) -> float:
        if key not in known:
            before = [
                way(link.before) + max(0.0, link.at_least)
                for link in board.links
                if link.after == key
            ]
            lasts = math.ceil(board.jobs[key].minutes * 2 - 1e-6) / 2
            known[key] = lasts + max(before, default=0.0)
        return known[key]

    return max((way(key) for key in board.jobs), default=0.0)
