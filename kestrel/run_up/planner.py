"""The planner's process: takes what is asked for, plans it, writes down how far it is. It runs beside
the web server and below everything else, so that no cook at the stove ever waits for it."""

import threading
import time
from collections.abc import Callable
from dataclasses import replace
from typing import Any

from django.db import OperationalError, connection
from django.utils import timezone
from pydantic import TypeAdapter

from kestrel.run_up import actions, work
from kestrel.run_up.models import Planning, RunUp
from saucier.errors import BadInput
from saucier.run_up import Gathered, write_run_up
from saucier.run_up.build import Day
from saucier.run_up.calls import Calls
from saucier.run_up.calls_told import CallPlan, ToOrder
from saucier.run_up.document import RunUp as Document
from saucier.run_up.mending import Mend, mends, short_of, wants_mending
from saucier.run_up.sheets import run_sheets
from saucier.run_up.timed import TimedDay, timed
from saucier.timing import Schedule
from saucier.timing.solver import Effort, Impossible, plan
from saucier.words import Sentence, going_by, plain, say

TOLD_EVERY = 0.3
"""Seconds between two writes of how far it is."""
ROUGH = Effort(seconds=0.3, wall=0.8)
MOVE = Effort(seconds=1.5, wall=4.0)
UNDER_WAY = Effort(seconds=1.5, wall=4.0)
"""Once cooking has begun an answer is wanted soon, and near the plan that everybody has in mind."""
EFFORT = Effort()


class Worker:
    """One planning at a time; ``effort`` is how hard each day is tried. ``watched``: a second thread says
    that it is alive and hears when it is to stop (not where one transaction is all there is, as in
    tests). ``mends``: changes that would mend a late plan are tried after it."""

    def __init__(
        self, effort: Effort = EFFORT, *, watched: bool = True, mends: bool = True
    ) -> None:
        self._effort, self._watched, self._mends = effort, watched, mends
        self._over: Callable[[], bool] = lambda: False

    def once(self) -> bool:
        """The next planning done; False where there is none."""
        job = actions.claim()
        if job is None:
            return False
        _Job(job, self._effort, self._watched, self._over, self._mends).done()
        return True

    def run(self, over: Callable[[], bool], pause: float = 0.1) -> None:
        """Plan until ``over``, which stops what is being planned too."""
        self._over = over
        while not over():
            if not self.once():
                time.sleep(pause)


class _Job:
    def __init__(
        self,
        job: Planning,
        effort: Effort,
        watched: bool,
        over: Callable[[], bool],
        mends: bool,
    ) -> None:
        self._job, self._is_watched, self._over, self._mends = job, watched, over, mends
        self._effort, self._careful = effort, job.lost > 0
        self._stop = threading.Event()
        self._told_at = 0.0
        self._kept = 0
        self._progress: dict[str, Any] = {}
        self._of = ""
        self._first: float | None = None
        self._began = time.monotonic()

    def done(self) -> None:
        over = threading.Event()
        watch = threading.Thread(target=self._watched, args=(over,), daemon=True)
        self._look()
        if self._is_watched:
            watch.start()
        state, answer = Planning.State.DONE, {}
        try:
            answer = self._answered()
        except BadInput as bad:
            state = Planning.State.FAILED
            answer = {"problems": [{"field": p.field, "message": str(p)} for p in bad.problems]}
        except Impossible:
            state, answer = Planning.State.FAILED, {"words": str(say("planning.impossible"))}
        except RunUp.DoesNotExist:
            state = Planning.State.FAILED
        finally:
            over.set()
            if self._is_watched:
                watch.join()
        rows = Planning.objects.filter(pk=self._job.pk)
        if self._over() or rows.filter(again=True).exists():
            # This process ends, or somebody's act goes first: it is taken up again.
            rows.update(state=Planning.State.WAITING, cancel=False, again=False)
        else:
            rows.update(state=state, answer=answer, ended_at=timezone.now())

    def _watched(self, over: threading.Event) -> None:
        """Says it is alive, and hears when somebody asks it to stop."""
        while not over.wait(0.4):
            try:
                self._look()
            except OperationalError:  # somebody else writes just now: the next time then
                continue
        connection.close()

    def _look(self) -> None:
        rows = Planning.objects.filter(pk=self._job.pk)
        rows.update(beat_at=timezone.now())
        if self._over() or not rows.filter(cancel=False).exists():
            self._stop.set()

    def _answered(self) -> dict[str, Any]:
        row = RunUp.objects.select_related("kitchen", "service").get(pk=self._job.run_up_id)
        with going_by(row.kitchen.ways):  # what is planned is kept in words
            return self._answer_of(row)

    def _answer_of(self, row: RunUp) -> dict[str, Any]:
        ready = work.ready(row)
        self._of = ready.of  # before anything of it can change
        document = work.document_of(row)
        if self._job.what == Planning.What.MOVE:
            return self._moved(row, ready, document)
        if self._job.what == Planning.What.CALL and row.planned:
            told = {**row.planned, "calls": plain(_calls(ready, document))}
            RunUp.objects.filter(pk=row.pk).update(planned=told)
            return {}
        return self._planned(row, ready, document)

    # -- a plan

    def _planned(self, row: RunUp, ready: work.Ready, document: Document) -> dict[str, Any]:
        try:
            return self._planned_as(row, ready, ready.gathered(document), document)
        except Impossible:
            if not document.pins:
                raise
        # Pins are a wish: where they leave no way the rest is still planned, and they are told.
        free = document.model_copy(update={"pins": {}})
        gathered = ready.gathered(free)
        told = (*gathered.remarks, say("planning.pins-let-go", number=len(document.pins)))
        return self._planned_as(row, ready, replace(gathered, remarks=told), free)

    def _planned_as(
        self, row: RunUp, ready: work.Ready, gathered: Gathered, document: Document
    ) -> dict[str, Any]:
        under_way = document.now is not None
        near = _starts(row) if under_way else None
        problems = {day: gathered.problem(day) for day in gathered.days}

        def planned(effort: Effort, near: dict[int, dict[str, float] | None]) -> list[Schedule]:
            return [
                plan(
                    problem,
                    replace(effort, careful=self._careful),
                    self._tell,
                    self._stop,
                    near.get(day),
                )
                for day, problem in problems.items()
            ]

        def told_of(schedules: list[Schedule]) -> dict[str, Any]:
            days = [
                timed(gathered, day, problem, schedule)
                for (day, problem), schedule in zip(problems.items(), schedules, strict=True)
            ]
            return _told(gathered, days, ready, document, row.planned or {})

        # A plan to look at within the second, then the good one.
        effort = UNDER_WAY if under_way else self._effort
        first = min(ROUGH, effort, key=lambda one: one.seconds)
        rough = planned(first, dict.fromkeys(problems, near))
        told = told_of(rough)
        self._keep(row, told)
        starts: dict[int, dict[str, float] | None] = {
            day: dict(one.starts) for day, one in zip(problems, rough, strict=True)
        }
        schedules = rough if first == effort else planned(effort, starts)
        told = told_of(schedules)
        if document.to_order:
            told["to_order"] = plain(_to_order(gathered, ready, document))
        today = next(
            ((problems[d], s) for d, s in zip(problems, schedules, strict=True) if d == 0), None
        )
        self._keep(row, told)
        tries = self._mends and not self._stop.is_set() and not self._careful
        if today and tries and wants_mending(today[1]):
            self._say({"stage": "mending"})
            told["short"] = plain(short_of(*today, self._stop))
            offered = mends(gathered, today[1], ready.gathered, self._tried, self._stop)
            said = write_run_up(document)
            told["mends"] = [_offer(one, said) for one in offered]
            told["mended"] = True
            self._keep(row, told)
        return {}

    def _keep(self, row: RunUp, told: dict[str, Any]) -> None:
        """What is planned so far, for whoever looks."""
        RunUp.objects.filter(pk=row.pk).update(planned=told, planned_of=self._of)
        self._kept += 1
        self._say(self._progress)

    def _tried(self, number: int, of: int) -> bool:
        self._say({"stage": "mending", "tried": number, "of": of})
        return not self._stop.is_set()

    def _tell(self, schedule: Schedule) -> None:
        now = time.monotonic()
        if self._first is None:
            self._first = now - self._began
        if now - self._told_at >= TOLD_EVERY:
            self._told_at = now
            self._say(
                {
                    "stage": schedule.reached[-1].stage,
                    "reached": {one.stage: one.value for one in schedule.reached},
                    "bounds": {one.stage: one.bound for one in schedule.reached},
                    "first_s": self._first,
                    "seconds": now - self._began,
                }
            )

    def _say(self, progress: dict[str, Any]) -> None:
        self._progress = {**progress, "kept": self._kept}
        Planning.objects.filter(pk=self._job.pk).update(progress=self._progress)

    # -- a move that is tried

    def _moved(self, row: RunUp, ready: work.Ready, document: Document) -> dict[str, Any]:
        """The task begun when the cook put it, where that harms nothing; else why not. What was refused
        is not kept."""
        key, at = str(self._job.asked["key"]), float(self._job.asked["at"])
        before = _now_planned(row)
        pinned = document.model_copy(update={"pins": {**document.pins, key: at}})
        gathered = ready.gathered(pinned)
        day: Day = -1 if gathered.board.jobs[key].day else 0
        problem = gathered.problem(day)
        try:
            schedule = plan(
                problem, replace(MOVE, careful=self._careful), None, self._stop, _starts(row)
            )
        except Impossible:
            return {"refused": str(say("move.impossible")), "key": key, "at": at}
        found = timed(gathered, day, problem, schedule)
        why = _worse(found, before.get(day, {}))
        if why and not self._job.asked.get("anyway"):
            return {"refused": str(why), "key": key, "at": at}
        own = _own(pinned, row)
        updated = RunUp.objects.filter(pk=row.pk, revision=row.revision)
        if not updated.update(document=write_run_up(own), revision=row.revision + 1):
            return {"refused": str(say("saved-elsewhere", name=row.name)), "key": key, "at": at}
        row.refresh_from_db()
        days = sorted({**before, day: plain(found)}.items())
        told = {**(row.planned or {}), "days": [one for _, one in days]}
        told["sheets"] = plain(run_sheets(_DAYS.validate_python(told["days"])))
        self._of = work.ready(row).of
        self._keep(row, told)
        return {"moved": key, "at": at}


_DAYS = TypeAdapter(list[TimedDay])


def _to_order(gathered: Gathered, ready: work.Ready, document: Document) -> list[ToOrder]:
    calls = Calls(ready.plan, ready.kitchen, gathered.means, document, ready.library)
    lines = [line for line in ready.plan.lines if line.id in document.to_order]
    return [calls.to_order(line) for line in lines if not line.refused]


def _told(
    gathered: Gathered,
    days: list[TimedDay],
    ready: work.Ready,
    document: Document,
    before: dict[str, Any],
) -> dict[str, Any]:
    lines = [line for line in ready.plan.lines if not line.refused]
    return {
        "days": plain(days),
        "sheets": plain(run_sheets(days)),
        "served": {str(s): gathered.served[s] for s in sorted({n.line.sitting for n in lines})},
        "remarks": plain(gathered.remarks),
        "lines": [
            {
                "number": line.id,
                "name": str(line.called),
                "portions": line.line.portions,
                "filled": line.layout is not None,
                "cold": line.dish.filled == "cold" and line.layout is not None,
            }
            for line in lines
        ],
        "lanes": {
            "cooks": [cook.name for cook in gathered.means.cooks],
            "rings": [ring.name for ring in gathered.means.rings],
        },
        "to_order": [o for o in before.get("to_order", []) if o["line"] in document.to_order],
        "calls": plain(_calls(ready, document)),
        "mends": [],
        "short": [],
        "mended": False,
    }


def _offer(mend: Mend, said: dict[str, Any]) -> dict[str, Any]:
    """A change as it is offered: only what it changes, whatever else is said meanwhile."""
    change = {key: new for key, new in write_run_up(mend.after).items() if new != said.get(key)}
    told = {name: plain(getattr(mend, name)) for name in ("key", "words", "late", "harmed")}
    return {**told, "change": change}


def _calls(ready: work.Ready, document: Document) -> tuple[CallPlan, ...]:
    if not document.calls:
        return ()
    means = ready.gathered(document).means
    calls = Calls(ready.plan, ready.kitchen, means, document, ready.library)
    return calls.planned(document.calls)


def _starts(row: RunUp) -> dict[str, float]:
    """When each task was planned to begin, last time."""
    days = (row.planned or {}).get("days", [])
    return {block["key"]: float(block["start"]) for day in days for block in day["blocks"]}


def _own(document: Document, row: RunUp) -> Document:
    """``document`` without what the stove says anyhow."""
    stove = work.at_the_stove(row)
    marks = {key: mark for key, mark in document.marks.items() if key not in stove}
    return document.model_copy(update={"marks": marks})


def _now_planned(row: RunUp) -> dict[int, dict[str, Any]]:
    return {day["day"]: day for day in (row.planned or {}).get("days", [])}


def _worse(found: TimedDay, before: dict[str, Any]) -> Sentence | None:
    """What a move would spoil that is well now."""
    late = sum(found.late.values())
    if late > sum((before.get("late") or {}).values()) + 0.5:
        return say("move.late", minutes=max(found.late.values()))
    harmed = [(block, wait) for block in found.blocks for wait in block.waits if wait.harmed]
    was = {
        (block["key"], wait["until"])
        for block in before.get("blocks", [])
        for wait in block["waits"]
        if wait["harmed"]
    }
    fresh = [(b, w) for b, w in harmed if (b.key, w.until) not in was]
    if not fresh:
        return None
    block, wait = max(fresh, key=lambda pair: pair[1].minutes - (pair[1].longest or 0.0))
    return say(
        "move.harmed",
        name=block.name,
        minutes=wait.minutes,
        longest=wait.longest or 0.0,
        why=wait.why,
    )
