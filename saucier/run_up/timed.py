"""A run-up as it was planned: every job with its time, its cook, its things, and what waits for what."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from saucier.check import check
from saucier.kitchen import Kitchen
from saucier.run_up.build import Day, Gathered
from saucier.run_up.holding import Held, held
from saucier.run_up.jobs import Job, Kind
from saucier.run_up.means import named
from saucier.steps import Hands
from saucier.timing import Problem, Reached, Schedule, Stage, lasting
from saucier.words import Sentence, say

State = Literal["planned", "going", "done"]


@dataclass(frozen=True, slots=True)
class TimedPart:
    """A part of a job: when, for how long, with what hands, and whose."""

    at: float
    minutes: float
    hands: Hands
    do: Sentence
    cue: Sentence
    cook: str


@dataclass(frozen=True, slots=True)
class TimedTouch:
    at: float
    do: Sentence
    cook: str


@dataclass(frozen=True, slots=True)
class Thing:
    """Something of the kitchen that is taken from ``start`` to ``end``; ``lane`` is what it is called,
    ``pool`` what it is (ring, gear, pan, oven)."""

    pool: str
    lane: str
    start: float
    end: float


@dataclass(frozen=True, slots=True)
class Wait:
    """What a job made waits ``minutes`` for the job ``until``, of at most ``longest``, and ``why``;
    ``held`` is what that does to a sauce."""

    until: str
    minutes: float
    longest: float | None
    suffers: int
    why: Sentence
    held: Held | None = None

    @property
    def harmed(self) -> bool:
        return self.longest is not None and self.minutes > self.longest + 0.26


@dataclass(frozen=True, slots=True)
class Block:
    """One job as it was planned. ``after`` and ``waits`` tie it to others."""

    key: str
    kind: Kind
    day: Day
    name: Sentence
    amount: Sentence
    note: Sentence
    lines: tuple[int, ...]
    start: float
    end: float
    parts: tuple[TimedPart, ...]
    touches: tuple[TimedTouch, ...]
    things: tuple[Thing, ...]
    waits: tuple[Wait, ...]
    after: tuple[str, ...]
    cooks: tuple[str, ...]
    pinned: bool
    state: State
    pot: str


@dataclass(frozen=True, slots=True)
class Aim:
    """How far a stage came, in words and minutes, and its bound."""

    stage: Stage
    words: Sentence
    value: float
    bound: float
    proved: bool


@dataclass(frozen=True, slots=True)
class TimedDay:
    """One day of a run-up. ``late`` are minutes by sitting, ``gap`` is what may still be saved of the
    first aim that is not proved best; ``ok``: in time, and nothing stands past what harms it."""

    day: Day
    blocks: tuple[Block, ...]
    aims: tuple[Aim, ...]
    late: Mapping[str, float]
    begin: float
    end: float
    proved: bool
    gap: float
    seconds: float
    stopped: bool
    ok: bool
    verdict: Sentence
    spoils: tuple[Sentence, ...]


def timed(
    gathered: Gathered, day: Day, problem: Problem, schedule: Schedule, kitchen: Kitchen
) -> TimedDay:
    """``schedule`` told job by job."""
    board, doc = gathered.board, gathered.doc
    named_jobs = board.named()
    ends = {
        task.key: schedule.starts[task.key] + lasting(task.minutes) / 2.0
        for task in (*problem.tasks, *problem.washes)
    }
    tasks = {task.key: task for task in (*problem.tasks, *problem.washes)}
    pans = _pans(problem, schedule, ends)
    held_by = _sauces(gathered, kitchen)
    blocks = []
    for key, job in named_jobs.items():
        if key not in tasks or (job.kind == "wash" and key not in schedule.washed):
            continue
        start, end = schedule.starts[key], ends[key]
        mark = gathered.happened.get(key)
        state: State = "planned" if mark is None else "going" if mark.over is None else "done"
        parts = _parts(job, schedule, start)
        touches = _touches(job, schedule, start)
        cooks = [part.cook for part in parts] + [touch.cook for touch in touches]
        blocks.append(
            Block(
                key=key,
                kind=job.kind,
                day=day,
                name=_said(job.name),
                amount=_said(job.amount),
                note=_said(job.note),
                lines=job.lines,
                start=start,
                end=end,
                parts=parts,
                touches=touches,
                things=(*_things(job, schedule, start, end), *pans.get(key, ())),
                waits=_waits(gathered, problem, key, schedule, ends, held_by),
                after=tuple(
                    dict.fromkeys(
                        link.before for link in problem.links if link.after == key and link.counted
                    )
                ),
                cooks=tuple(dict.fromkeys(cook for cook in cooks if cook)),
                pinned=key in doc.pins,
                state=state,
                pot=job.pot,
            )
        )
    blocks.sort(key=lambda block: (block.start, block.end, block.key))
    aims = tuple(_aim(one, problem) for one in schedule.reached)
    first_open = next((one for one in schedule.reached if not one.proved), None)
    late = {group: by for group, by in schedule.late.items() if by > 0.0}
    harmed = [wait for block in blocks for wait in block.waits if wait.harmed]
    return TimedDay(
        day=day,
        blocks=tuple(blocks),
        aims=aims,
        late=late,
        begin=min((block.start for block in blocks), default=problem.begin),
        end=max((block.end for block in blocks), default=problem.end),
        proved=schedule.proved,
        gap=first_open.gap if first_open else 0.0,
        seconds=schedule.seconds,
        stopped=schedule.stopped,
        ok=not late and not harmed,
        verdict=_verdict(late, harmed),
        spoils=_spoils(blocks, board.jobs),
    )


def _said(words: Sentence | str) -> Sentence:
    return words if isinstance(words, Sentence) else say("said", words=words)


def _verdict(late: Mapping[str, float], harmed: list[Wait]) -> Sentence:
    if late:
        return say("plan.late", minutes=max(late.values()))
    if harmed:
        past = max(wait.minutes - (wait.longest or 0.0) for wait in harmed)
        return say("plan.harmed", count=len(harmed), minutes=past)
    return say("plan.ok")


def _spoils(blocks: list[Block], jobs: Mapping[str, Job]) -> tuple[Sentence, ...]:
    """What spoils by waiting and could be made earlier another way."""
    told = []
    for block in blocks:
        for wait in block.waits:
            if wait.harmed:
                told.append(
                    say(
                        "plan.spoils",
                        name=block.name,
                        minutes=wait.minutes,
                        longest=wait.longest or 0.0,
                        why=wait.why,
                    )
                )
    return tuple(dict.fromkeys(told))


def _aim(one: Reached, problem: Problem) -> Aim:
    shown = one.value if one.stage != "begin" else problem.end - one.value
    bound = one.bound if one.stage != "begin" else problem.end - one.bound
    return Aim(one.stage, say(f"aim.{one.stage}"), shown, bound, one.proved)


def _parts(job: Job, schedule: Schedule, start: float) -> tuple[TimedPart, ...]:
    names = list(schedule.hands.get(job.key, ()))
    parts, at, cook, open_piece = [], start, "", False
    for part in job.parts:
        if part.hands == "all" and part.minutes > 0.0:
            if not open_piece and names:
                cook = named(names.pop(0))
            open_piece = True
        elif part.minutes > 0.0:
            open_piece = False
        shown = cook if part.hands != "none" else ""
        parts.append(
            TimedPart(at, part.minutes, part.hands, _said(part.do), _said(part.cue), shown)
        )
        at += part.minutes
    return tuple(parts)


def _touches(job: Job, schedule: Schedule, start: float) -> tuple[TimedTouch, ...]:
    names = schedule.touched.get(job.key, ())
    return tuple(
        TimedTouch(start + touch.at, _said(touch.do), named(names[n]) if n < len(names) else "")
        for n, touch in enumerate(job.touches)
    )


def _things(job: Job, schedule: Schedule, start: float, end: float) -> list[Thing]:
    things = []
    for name, use in zip(schedule.units.get(job.key, ()), job.uses, strict=False):
        if name:
            last = end if use.end is None else start + use.end
            things.append(Thing(name.partition(":")[0], named(name), start + use.start, last))
    if oven := schedule.oven.get(job.key):
        things.append(Thing("oven", named(oven), start, end))
    return things


def _pans(
    problem: Problem, schedule: Schedule, ends: Mapping[str, float]
) -> dict[str, tuple[Thing, ...]]:
    found: dict[str, tuple[Thing, ...]] = {}
    for number, hold in enumerate(problem.holds):
        if number >= len(schedule.pans) or not schedule.pans[number]:
            continue
        end = max(ends[key] for key in hold.until)
        pan = Thing("pan", named(schedule.pans[number]), schedule.starts[hold.first], end)
        found[hold.first] = (*found.get(hold.first, ()), pan)
    return found


def _waits(
    gathered: Gathered,
    problem: Problem,
    key: str,
    schedule: Schedule,
    ends: Mapping[str, float],
    sauces: "Mapping[str, _Sauce]",
) -> tuple[Wait, ...]:
    jobs = gathered.board.named()
    waits = []
    for link in problem.links:
        if link.before != key or not link.counted:
            continue
        minutes = schedule.starts[link.after] - ends[key] - link.at_least
        what = None
        if key in sauces and minutes >= 3.0:
            what = sauces[key].held(minutes)
        waits.append(
            Wait(
                link.after,
                max(0.0, minutes),
                link.longest,
                link.suffers,
                _said(jobs[key].keeps.why),
                what,
            )
        )
    for serving in problem.servings:
        if serving.task == key and serving.longest is not None:
            by = schedule.late.get(serving.group, 0.0)
            minutes = max(0.0, serving.at + by - ends[key])
            waits.append(Wait("", minutes, serving.longest, serving.suffers, say("keeps.plated")))
    return tuple(waits)


@dataclass(frozen=True, slots=True)
class _Sauce:
    sheet_key: str
    gathered: Gathered
    kitchen: Kitchen

    def held(self, minutes: float) -> Held | None:
        plan = self.gathered.plan
        for pot in plan.pots:
            if pot.key == self.sheet_key:
                return held(pot.final.pot, pot.pan, minutes, pot.final.serving_c)
        for branch in plan.branches:
            if branch.key == self.sheet_key:
                checked = check(branch.sheet, self.kitchen)
                return held(branch.final.pot, checked.pan, minutes, branch.final.serving_c)
        return None


def _sauces(gathered: Gathered, kitchen: Kitchen) -> dict[str, _Sauce]:
    return {
        key: _Sauce(job.pot, gathered, kitchen)
        for key, job in gathered.board.jobs.items()
        if job.pot and key.startswith("pot:")
    }
