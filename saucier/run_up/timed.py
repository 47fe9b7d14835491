"""A run-up as it was planned: every job with its time, its cook, its things, and what waits for what."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from saucier import constants as K
from saucier.check import State
from saucier.keeping import Held, held
from saucier.run_up.build import Day, Gathered
from saucier.run_up.document import Happened
from saucier.run_up.jobs import Job, Kind
from saucier.run_up.means import named
from saucier.service import Plan
from saucier.steps import Hands
from saucier.timing import TICKS, Problem, Reached, Schedule, Stage, lasting
from saucier.words import Sentence, say

Stands = Literal["planned", "going", "done"]


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
    ``held`` is what that does to a sauce, ``harmed``: it is longer than that."""

    until: str
    minutes: float
    longest: float | None
    suffers: int
    why: Sentence
    held: Held | None = None
    harmed: bool = False


def stands(mark: Happened | None) -> Stands:
    """Whether a job is planned, going or done, by what happened of it (None: nothing yet).

    >>> stands(None), stands(Happened(began=60.0)), stands(Happened(began=60.0, over=70.0))
    ('planned', 'going', 'done')
    """
    return "planned" if mark is None else "going" if mark.over is None else "done"


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
    state: Stands
    pot: str


@dataclass(frozen=True, slots=True)
class Aim:
    """How far a stage came, in words and minutes, and its bound (None: none that says anything);
    ``kept``: proved the best with every wait of the aims before as it is."""

    stage: Stage
    words: Sentence
    value: float
    bound: float | None
    proved: bool
    kept: bool


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


def timed(gathered: Gathered, day: Day, problem: Problem, schedule: Schedule) -> TimedDay:
    """``schedule`` told job by job."""
    doc = gathered.doc
    jobs = gathered.board.named()
    ends = {
        task.key: schedule.starts[task.key] + lasting(task.minutes) / TICKS
        for task in (*problem.tasks, *problem.washes)
    }
    pans = _pans(problem, schedule, ends)
    sauces = _sauces(gathered.plan)
    blocks = []
    for key, job in jobs.items():
        if key not in ends or (job.kind == "wash" and key not in schedule.washed):
            continue
        start, end = schedule.starts[key], ends[key]
        mark = gathered.happened.get(key)
        state = stands(mark)
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
                waits=_waits(job, sauces.get(job.pot), problem, schedule, ends, gathered.hot_c),
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
    first_open = next((one for one in schedule.reached if not (one.proved or one.kept)), None)
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
        spoils=_spoils(blocks),
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


def _spoils(blocks: list[Block]) -> tuple[Sentence, ...]:
    """What spoils by waiting."""
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
    shown: float = one.value
    bound: float | None = one.bound
    if one.stage == "begin":
        shown = problem.end - one.value
        bound = problem.end - one.bound if one.bound > 0.0 else None
    return Aim(one.stage, say(f"aim.{one.stage}"), shown, bound, one.proved, one.kept)


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
    job: Job,
    sauce: State | None,
    problem: Problem,
    schedule: Schedule,
    ends: Mapping[str, float],
    hot_c: float,
) -> tuple[Wait, ...]:
    waits = []
    for link in problem.links:
        if link.before != job.key or not link.counted:
            continue
        minutes = max(0.0, schedule.starts[link.after] - ends[job.key] - link.at_least)
        what = None
        if sauce and minutes >= K.HOLDING_TOLD_MIN:
            what = held(sauce.pot, sauce.pan, minutes, sauce.serving_c, hot_c)
        why = _said(job.keeps.why)
        past = _past(minutes, link.longest)
        waits.append(Wait(link.after, minutes, link.longest, link.suffers, why, what, past))
    for one in problem.servings:
        if one.task == job.key and one.longest is not None:
            by = schedule.late.get(one.group, 0.0)
            minutes = max(0.0, one.at + by - ends[job.key])
            past = _past(minutes, one.longest)
            why = say("keeps.plated")
            waits.append(Wait("", minutes, one.longest, one.suffers, why, harmed=past))
    return tuple(waits)


def _past(minutes: float, longest: float | None) -> bool:
    """Whether it waits too long, by more than the planner's clock can tell."""
    return longest is not None and minutes > longest + 0.5 / TICKS + 0.01


def _sauces(plan: Plan) -> dict[str, State]:
    """What each pot, branch and sauce made first comes to, by its key."""
    return {
        **{first.key: first.made.checked.final for first in plan.first},
        **{pot.key: pot.final for pot in plan.pots},
        **{branch.key: branch.final for branch in plan.branches},
    }
