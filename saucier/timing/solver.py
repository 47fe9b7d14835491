"""Solving in stages: never late, nothing waits past what harms it, what suffers waits least, then the
rest, then a later beginning; each with what was reached before as a bound.

What harms and what suffers is looked at in the tasks that decide it (``narrowed``), and the rest finds
its room around them: a smaller question, whose bound is one of the whole. A stage is tried as a whole,
in two ways side by side: from below, which proves what is best where it comes through, and from above,
which has a good plan soon; parts of that (an hour of it, a few dishes) are planned anew while the rest
stays, and what is still possible at the least is tried. What only waits, without harm, is planned by parts,
then with every wait of the stages before kept as it is: that is a far smaller question too, and often
answered for good.

Every solve runs on one thread to a limit of deterministic time, so the same input gives the same plan;
the clock on the wall only stops what a slow machine would draw out, and that is told. Tried on services
of 55 to 65 and of 100 tasks, two cores: from below, the least harm was proved in a second or two where the
solver's other ways (eight threads, interleaved, the linear relaxation) still harmed after eight.
"""

import math
import random
import threading
import time
from collections.abc import Callable, Mapping, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, replace

from ortools.sat.python import cp_model

from saucier.timing.lanes import (
    BOUNDS,
    CORES,
    CUTS,
    KEPT,
    STEPS,
    SUMS,
    Answer,
    Job,
    Kind,
    Lane,
    hinted,
    together,
)
from saucier.timing.model import SEED, Model
from saucier.timing.naming import named, read
from saucier.timing.narrow import narrowed
from saucier.timing.problem import TICKS, Problem
from saucier.timing.rule import by_rule
from saucier.timing.schedule import STAGES, Reached, Schedule, Stage
from saucier.timing.settle import settled

GIVE_UP = 24
"""Rounds in a row that found nothing better, after which a stage is left."""
SHARES: Mapping[Stage, float] = {
    "late": 0.03,
    "harmed": 0.27,
    "suffers": 0.42,
    "waits": 0.25,
    "begin": 0.03,
}
"""Of the effort, to each stage; what one does not need goes to the next."""
AHEAD = 0.2
"""Of the wall's seconds, how far a stage may be behind its share before the clock ends it."""
FRESH = STAGES.index("suffers")
"""The last stage that is looked at from below, and in the tasks that decide it."""
ABOVE, PARTS = 0.2, 0.4
"""Of such a stage's seconds, beside the way from below: for a good plan, and for parts of it anew; the rest is
for the bound."""
MANY = 60
"""Of more tasks the way from below is looked at for less long: it takes longer by the clock, and seldom comes."""
FIRST, THEN = 0.1, 0.2
"""Of a later stage's seconds, those for the whole, and for parts until both threads prove what was found."""
AGAIN = 1.0
"""Seconds for proving once more what was proved before cooks were named."""
SAID = 0.7
"""Seconds between two plans that are told on the way."""
JOINED = ((0, 0.02), (4 * TICKS, 0.05), (15 * TICKS, 0.1))
"""By how many ticks what was planned of the narrow question may move for the rest to find its room, and the
deterministic seconds that may take."""


@dataclass(frozen=True, slots=True)
class Effort:
    """How hard to try: about so many ``seconds`` on a machine of two cores, counted by what the solver
    did; and a stop on the ``wall``, in seconds. ``careful``: only in the way that is tried by most, for a
    question that ended a whole process before."""

    seconds: float = 9.0
    wall: float = 10.0
    careful: bool = False


class Impossible(Exception):
    """There is no plan at all, late or not: what is pinned, begun and away leaves none."""


def plan(
    problem: Problem,
    effort: Effort | None = None,
    found: Callable[[Schedule], None] | None = None,
    stop: threading.Event | None = None,
    near: Mapping[str, float] | None = None,
    until: Stage = "begin",
) -> Schedule:
    """The best plan of ``problem`` within ``effort``. ``found`` is told of every better one on the way
    (not named yet); setting ``stop`` ends it with the best so far. ``near`` are starts to begin from
    instead of a cook's rule: those of a plan that is changed a little. ``until`` is the last stage that
    is looked at: whether it comes out at all is known sooner. Raises :class:`Impossible`."""
    stages = STAGES[: STAGES.index(until) + 1]
    given = effort or Effort()
    stopped = stop or threading.Event()
    search = _Search(problem, given, found, stopped)
    narrow = narrowed(problem)
    if not given.careful and len(narrow.tasks) < len(problem.tasks):
        search.inside = _Search(narrow, given, None, stopped)
    return search.run(near, stages)


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
        self._model = Model(problem)
        given = {task.key for task in problem.tasks if task.start is not None}
        self._free = {
            key: start.index for key, start in self._model.starts.items() if key not in given
        }
        self._sizes = {t.key: t.minutes * TICKS for t in (*problem.tasks, *problem.washes)}
        self._values: list[int] = []
        self._reached: list[Reached] = []
        self._bound = 0.0
        self._kept = False
        self._until = self._began
        self._bit = False
        self._ended = threading.Event()  # what runs beside it is through
        self._random = random.Random(SEED)
        self.inside: _Search | None = None
        self.taken: Callable[[], None] | None = None

    def run(self, near: Mapping[str, float] | None, stages: Sequence[Stage]) -> Schedule:
        model = self._model
        for key, at in {**by_rule(self._problem).starts, **(near or {})}.items():
            if key in self._free:
                model.cp.add_hint(model.starts[key], round(at * TICKS))
        budget, shared = 0.0, 0.0
        total = sum(SHARES[stage] for stage in stages)
        for number, stage in enumerate(stages):
            budget += SHARES[stage] / total * self._effort.seconds
            shared += SHARES[stage] / total
            until = self._began + min(1.0, shared + AHEAD) * self._effort.wall
            budget = max(0.0, budget - self.reach(number, budget, until))
            self.hold(number, self._now(stage))
        schedule = self._proved_again(named(self._problem, self._schedule(self._reached)))
        seconds = time.monotonic() - self._began
        return replace(schedule, seconds=seconds, stopped=self._bit or self._stop.is_set())

    def reach(self, number: int, seconds: float, until: float) -> float:
        """Stage ``number`` as low as it comes in so many ``seconds``, ``until`` on the wall at the latest;
        seconds spent."""
        stage = STAGES[number]
        self._until, self._bound, self._kept = until, 0.0, False
        self._random = random.Random(SEED + number)
        spent = 0.0
        if self.inside is not None and 0 < number <= FRESH:
            spent = self._from_inside(self.inside, number, seconds)
            if self._through(stage) or self._now(stage) <= self.inside._now(stage):
                return spent
        if number <= FRESH and self._values and not self._effort.careful:
            spent += self._from_below(number, stage, seconds - spent)
        else:
            spent += self._from_above(number, stage, seconds - spent)
        if not (self._kept or self._through(stage)):
            self._over()  # whether the clock cut it short is told
        return spent

    def hold(self, number: int, most: int) -> None:
        """Stage ``number`` is to be no more than ``most`` from here on."""
        stage = STAGES[number]
        bound = min(self._bound, most) / TICKS
        self._reached.append(Reached(stage, most / TICKS, bound, self._kept))
        self._model.cp.add(self._model.measures.of[stage] <= most)
        if self.inside is not None:
            self.inside.hold(number, most)

    def _from_inside(self, inside: "_Search", number: int, seconds: float) -> float:
        """The stage in the tasks that decide it, the rest around them; seconds spent."""
        stage, tasks = STAGES[number], inside._tasks()
        inside.adopt({key: self._at(key) for key in tasks})
        around = [Lane(self._model, number, limit) for _, limit in JOINED]

        def joined(tries: int = 1) -> list[int] | None:
            pinned = {self._free[key]: inside._at(key) for key in tasks}
            for lane, (give, _) in zip(around[:tries], JOINED, strict=False):
                values = lane.solved(self._values, pinned, self._left(), give).values
                if values and self._beats(values, number):
                    return values
            return None

        said = time.monotonic()

        def say_so() -> None:
            """Somebody who waits hears of it now and then; nothing hangs on that."""
            nonlocal said
            if time.monotonic() - said > SAID and (values := joined()):
                said = time.monotonic()
                self._tell(values, stage, inside._bound)

        inside.taken = say_so if self._found else None
        spent = inside.reach(number, seconds, self._until)
        self._bit |= inside._bit
        self._bound = max(self._bound, inside._bound)
        if values := joined(len(JOINED)):
            self._take(values, stage)
        return spent

    def adopt(self, starts: Mapping[str, int]) -> None:
        """A plan with these ``starts`` to begin from, in place of a worse one."""
        pinned = {self._free[key]: at for key, at in starts.items()}
        answer = Lane(self._model, 0, JOINED[0][1]).solved(self._values, pinned, 2.0)
        fits = self._values and all(
            self._now(one.stage) <= round(one.value * TICKS) for one in self._reached
        )
        if answer.values and not (fits and not self._beats(answer.values, 0)):
            self._values = answer.values

    def _from_below(self, number: int, stage: Stage, seconds: float) -> float:
        """From below; meanwhile from above, by parts, and by the bound. Seconds spent."""

        def meanwhile() -> float:
            spent = self._whole(number, stage, ABOVE * seconds, SUMS)
            self._settle(number, stage)
            spent += self._around(number, stage, PARTS * seconds, lanes=1)
            if not self._through(stage) and not self._over():
                spent += self._whole(number, stage, seconds - spent, STEPS)
            return spent

        below_s = seconds * min(1.0, MANY / max(1, len(self._free)))
        return self._beside(number, stage, CORES, below_s, meanwhile)

    def _from_above(self, number: int, stage: Stage, seconds: float) -> float:
        """From above, and by parts; then what is proved with the waits before as they are. Seconds spent."""
        if not self._values:
            return self._whole(number, stage, seconds, BOUNDS)
        first_s = FIRST * seconds

        def meanwhile() -> float:
            self._settle(number, stage)
            return self._around(number, stage, first_s, lanes=1)

        spent = self._beside(number, stage, BOUNDS, first_s, meanwhile)
        if self._through(stage):
            return spent
        kept = not self._effort.careful and any(one.value > 0.0 for one in self._reached)
        spent += self._around(number, stage, THEN * seconds if kept else seconds - spent, lanes=2)
        return spent + self._within(number, stage, seconds - spent) if kept else spent

    def _beside(
        self, number: int, stage: Stage, kind: Kind, seconds: float, meanwhile: Callable[[], float]
    ) -> float:
        """The stage as a whole in one way for so many ``seconds``, and something else ``meanwhile``. Where the
        first comes through it is what counts, whatever the other had by then: no answer hangs on a race.
        Seconds spent."""
        self._ended = ended = threading.Event()
        cp = self._model.cp.clone()
        cp.minimize(cp.get_int_var_from_proto_index(self._model.measures.of[stage].index))
        hinted(cp, self._values)

        def whole() -> Answer:
            (answer,) = together([Job(cp, kind, seconds)], self._left(), self._stop.is_set)
            if answer.proved:
                ended.set()
            return answer

        with ThreadPoolExecutor(1) as pool:
            told = pool.submit(whole)
            spent = meanwhile()
            answer = told.result()
        self._ended = threading.Event()
        if answer.proved and answer.values:
            self._values, self._bound = answer.values, answer.bound
            self._tell(answer.values, stage)
            return answer.seconds  # how far the other came by then is a race
        self._best_of([answer], number, stage)
        return max(spent, answer.seconds)

    def _now(self, stage: Stage) -> int:
        return self._values[self._model.measures.of[stage].index]

    def _at(self, key: str) -> int:
        return self._values[self._model.starts[key].index]

    def _through(self, stage: Stage) -> bool:
        """Whether nothing better can be had in this stage."""
        return self._now(stage) <= self._bound + 0.5

    def _over(self) -> bool:
        """Whether the clock on the wall, or somebody, ends this stage."""
        self._bit |= time.monotonic() > self._until
        return self._stopped() or time.monotonic() > self._until

    def _stopped(self) -> bool:
        return self._stop.is_set() or self._ended.is_set()

    def _left(self) -> float:
        """Seconds on the wall that a solve may take."""
        return max(0.3, self._until - time.monotonic())

    def _whole(self, number: int, stage: Stage, seconds: float, *kinds: Kind) -> float:
        """The stage tried as a whole, in so many ways side by side; seconds spent."""
        cp = self._model.cp
        cp.minimize(self._model.measures.of[stage])
        if self._values:
            hinted(cp, self._values)
        if not (self._values or self._effort.careful):
            kinds = (CORES, SUMS)
        jobs = [Job(cp, kind, seconds) for kind in kinds]
        first = None if self._values else self._tell
        answers = together(jobs, self._left(), self._stopped, first)
        if not self._values and not any(answer.values for answer in answers):
            # So slow a machine, or so full a kitchen: any plan at all is wanted now.
            answers = together([Job(cp, BOUNDS, 40.0)], 30.0, self._stopped, first)
            if not answers[0].values:
                raise Impossible
        self._best_of(answers, number, stage)
        return max(answer.seconds for answer in answers)

    def _best_of(self, answers: Sequence[Answer], number: int, stage: Stage) -> None:
        self._bound = max(self._bound, self._least(answers))
        plans = [answer.values for answer in answers if answer.values]
        best = min(plans, key=lambda values: self._rank(values)[number:], default=None)
        if best and (not self._values or self._beats(best, number)):
            self._take(best, stage)

    def _proved_again(self, schedule: Schedule) -> Schedule:
        """``schedule``, now that every cook is named: what was proved with the waits before as they were and
        is not any more, for other waits are longer, is proved once more with those."""
        lost = [
            number
            for number, (was, now) in enumerate(zip(self._reached, schedule.reached, strict=True))
            if was.kept and not (now.kept or now.proved)
        ]
        pinned = {self._free[key]: round(schedule.starts[key] * TICKS) for key in self._tasks()}
        answer = (
            Lane(self._model, 0, JOINED[0][1]).solved(self._values, pinned, 2.0) if lost else None
        )
        if answer is None or not answer.values:
            return schedule
        self._values, reached = answer.values, list(schedule.reached)
        for number in lost:
            if self._now(STAGES[number]) == round(reached[number].value * TICKS):
                jobs = [Job(self._with_waits(number), kind, AGAIN) for kind in (KEPT, STEPS)]
                answers = together(jobs, 2.0, self._stopped)
                kept = self._least(answers) >= self._now(STAGES[number])
                reached[number] = replace(reached[number], kept=kept)
        return replace(schedule, reached=tuple(reached))

    def _within(self, number: int, stage: Stage, seconds: float) -> float:
        """The stage with the waits before as they are; seconds spent."""
        jobs = [Job(self._with_waits(number), kind, seconds) for kind in (KEPT, CUTS)]
        answers = together(jobs, self._left(), self._stopped)
        plans = [one.values for one in answers if one.values]
        best = min(plans, key=lambda values: self._rank(values)[number:], default=None)
        if best and self._beats(best, number):
            self._take(best, stage)
        self._kept = self._least(answers) >= self._now(stage)
        return max(one.seconds for one in answers)

    def _with_waits(self, number: int) -> cp_model.CpModel:
        """A model of stage ``number`` with every part of those before no more than it is now. Where their sum
        is proved the least, none of them can be less either: what hangs together so is one block."""
        cp = self._model.cp.clone()
        for before in self._reached[:number]:
            for part in self._model.measures.parts[before.stage]:
                flat = cp_model.FlatIntExpr(part)
                variables = [cp.get_int_var_from_proto_index(one.index) for one in flat.vars]
                now = sum(
                    c * self._values[one.index]
                    for one, c in zip(flat.vars, flat.coeffs, strict=True)
                )
                expr = cp_model.LinearExpr.weighted_sum(variables, flat.coeffs)
                cp.add(expr == now if before.proved and not before.kept else expr <= now)
        cp.minimize(cp.get_int_var_from_proto_index(self._model.measures.of[STAGES[number]].index))
        hinted(cp, self._values)
        return cp

    @staticmethod
    def _least(answers: Sequence[Answer]) -> int:
        """What nothing can be under, by the best of ``answers``."""
        return max((math.ceil(one.bound - 1e-6) for one in answers if one.values), default=0)

    def _tasks(self) -> list[str]:
        """Keys of the tasks that are free to move; a wash that is not done has no time of its own."""
        return [task.key for task in self._problem.tasks if task.key in self._free]

    def _around(self, number: int, stage: Stage, seconds: float, lanes: int) -> float:
        """Parts of the plan planned anew, so many side by side; seconds spent."""
        beside = [Lane(self._model, number) for _ in range(lanes)]
        spent, width, dry = 0.0, 60.0, 0
        with ThreadPoolExecutor(lanes) as pool:
            while spent < seconds and dry < GIVE_UP and not self._over():
                if self._through(stage):
                    break
                parts = [self._part(width) for _ in beside]
                jobs = [
                    pool.submit(lane.solved, self._values, self._pinned(part), self._left())
                    for lane, part in zip(beside, parts, strict=True)
                ]
                answers = [job.result() for job in jobs]
                spent += max(answer.seconds for answer in answers)
                was = self._values
                self._best_of(answers, number, stage)
                dry = 0 if self._values is not was else dry + 1
                through = all(answer.proved for answer in answers)
                width = min(600.0, width * 1.15) if through else max(12.0, width * 0.85)
        return spent

    def _settle(self, number: int, stage: Stage) -> None:
        """The plan drawn together in the order it has."""
        starts = settled(self._problem, self._schedule(self._reached), number)
        if starts:
            moved = {index: round(starts[key] * TICKS) for key, index in self._free.items()}
            answer = Lane(self._model, number).solved(self._values, moved, 2.0)
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
                linked = {anchor} - near
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
        self._values, self._kept = values, False
        self._tell(values, stage)
        if self.taken:
            self.taken()

    def _tell(self, values: list[int], stage: Stage = "late", bound: float = 0.0) -> None:
        """``found`` hears of a plan."""
        if self._found:
            value = values[self._model.measures.of[stage].index]
            now = Reached(stage, value / TICKS, min(max(bound, self._bound), value) / TICKS)
            self._found(self._read(values, [*self._reached, now]))

    def _schedule(self, reached: Sequence[Reached]) -> Schedule:
        return self._read(self._values, reached)

    def _read(self, values: Sequence[int], reached: Sequence[Reached]) -> Schedule:
        seconds = time.monotonic() - self._began
        return replace(read(self._model, values.__getitem__, reached), seconds=seconds)
