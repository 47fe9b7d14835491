"""What readings prove of a cooling: a stage of the rules is met or missed only by them, else it is not shown.

No sum, fit or default has a say here. The rule and its cases: docs/model.md 18.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal, NamedTuple

from saucier.keeping.rules import Rules, Stage
from saucier.words import Sentence, say

Verdict = Literal["met", "missed", "open", "not-shown"]
_WORST_FIRST: tuple[Verdict, ...] = ("missed", "not-shown", "open", "met")
PROBE_ERROR_C = 1.0
"""A probe is taken to be right within so much, °C."""
WARM_AGAIN_C = 2.0
"""So far above a limit a reading is not the probe's error: it was warmed again, °C."""


class CoolingReading(NamedTuple):
    """What was measured in the middle: ``celsius`` at ``at_min``, minutes on the clock of the case."""

    at_min: float
    celsius: float

    @property
    def place(self) -> tuple[float, float]:
        """Its place among the others: in time order, of one moment the warmest first, as what cools."""
        return self.at_min, -self.celsius


@dataclass(frozen=True, slots=True)
class StageFact:
    """What readings prove of one stage, down to ``to_c`` within ``limit_min``.

    It took ``at_least_min`` and ``at_most_min`` minutes (None: no reading says so). ``proved``: missed by the
    readings' own span, not only for want of one in time. The readings it rests on: the last before the clock
    began (``start``, None: the end of cooking, ``start_min``, or unknown), the first below where it begins
    (``below``), the last still above ``to_c`` (``above``), the one that shows it (``reached``).
    ``due_min``: until when a reading would show it (None: nothing can any more). ``warmed_again``: readings
    after it was met that are above it. ``shown_by`` says it all in words, with what reading would show it.
    """

    to_c: float
    limit_min: float
    verdict: Verdict
    at_least_min: float | None
    at_most_min: float | None
    proved: bool
    start_min: float | None
    start: CoolingReading | None
    below: CoolingReading | None
    above: CoolingReading | None
    reached: CoolingReading | None
    due_min: float | None
    warmed_again: tuple[CoolingReading, ...]
    shown_by: Sentence

    @property
    def rests_on(self) -> tuple[CoolingReading, ...]:
        """The readings the verdict rests on, in order."""
        marks = {mark for mark in (self.start, self.below, self.above, self.reached) if mark}
        return tuple(sorted(marks, key=lambda mark: mark.place))


@dataclass(frozen=True, slots=True)
class CoolingFacts:
    """What is proved of one lot: its ``stages`` (the worst of all its coolings, by stage), and each of the
    ``coolings`` of its own, where it was warmed again past where the rule begins."""

    stages: tuple[StageFact, ...]
    coolings: tuple[tuple[StageFact, ...], ...]

    @property
    def met(self) -> bool:
        """Whether every stage is shown to be met."""
        return all(stage.verdict == "met" for stage in self.stages)

    @property
    def failed(self) -> bool:
        """Whether a stage was missed, or can no longer be shown: both have the same consequences."""
        return any(stage.verdict in ("missed", "not-shown") for stage in self.stages)

    @property
    def is_open(self) -> bool:
        """Whether a reading can still show a stage."""
        return any(stage.verdict == "open" for stage in self.stages)


def cooling_facts(
    rules: Rules,
    readings: Sequence[tuple[float, float]],
    off_fire_min: float | None,
    now_min: float,
) -> CoolingFacts:
    """What ``readings`` ((minute, °C), each ± 1 °C) prove under ``rules`` at ``now_min``.

    ``off_fire_min``: the end of cooking (None: unknown; being put away is no start). Readings before it are of
    the cooking and count for nothing. Those of the pot before it was shared out belong to every tray.

    >>> from saucier.keeping.rules import shipped_rules
    >>> rules = shipped_rules()["one-step-10"]
    >>> read = [(5, 66), (12, 61), (100, 9.5), (115, 8)]
    >>> stage, = cooling_facts(rules, read, 0.0, 240.0).stages
    >>> stage.verdict, stage.at_least_min, stage.at_most_min
    ('met', 0.0, 95.0)
    """
    after_cooking = sorted(
        (
            CoolingReading(float(at_min), float(celsius))
            for at_min, celsius in readings
            if off_fire_min is None or at_min >= off_fire_min
        ),
        key=lambda reading: reading.place,
    )
    coolings = tuple(
        tuple(
            _stage_fact(
                stage, rules.from_c, own, after_cooking, off_fire_min if not n else None, now_min
            )
            for stage in rules.stages
        )
        for n, own in enumerate(_coolings(after_cooking, rules.from_c))
    )
    worst = tuple(
        min(of_stage, key=lambda fact: _WORST_FIRST.index(fact.verdict))
        for of_stage in zip(*reversed(coolings), strict=True)
    )
    return CoolingFacts(worst, coolings)


def _coolings(readings: Sequence[CoolingReading], from_c: float) -> list[list[CoolingReading]]:
    """``readings`` by cooling: one well above where the rule begins, after one below it, opens another."""
    coolings: list[list[CoolingReading]] = [[]]
    begun = False
    for reading in readings:
        if begun and reading.celsius >= from_c + WARM_AGAIN_C:
            coolings.append([])
            begun = False
        begun = begun or reading.celsius < from_c
        coolings[-1].append(reading)
    return coolings


def _stage_fact(
    stage: Stage,
    from_c: float,
    own: Sequence[CoolingReading],
    everything: Sequence[CoolingReading],
    off_fire_min: float | None,
    now_min: float,
) -> StageFact:
    """One stage of one cooling. ``own``: its readings; ``everything``: those after it too, which a reading that
    shows it has to stand up to."""
    to_c, limit = stage.to_c, stage.minutes
    below = next((reading for reading in own if reading.celsius < from_c), None)
    hot = [reading for reading in own if below is None or reading.place < below.place]
    start = hot[-1] if hot else None
    start_min = start.at_min if start else off_fire_min
    due_min = None if start_min is None else start_min + limit
    reached = _reached(to_c, below, own, everything, due_min)
    before = [
        one for one in own if one.celsius > to_c and (reached is None or one.place < reached.place)
    ]
    above = before[-1] if before else None
    at_least = max(0.0, above.at_min - below.at_min) if above and below else None
    at_most = reached.at_min - start_min if reached and start_min is not None else None
    late = due_min is not None and any(
        reading.celsius > to_c and reading.at_min > due_min for reading in own
    )
    proved = at_least is not None and at_least > limit
    verdict: Verdict
    if at_most is not None and at_most <= limit:
        verdict, proved = "met", False
    elif proved or late:
        verdict = "missed"
    elif due_min is not None and now_min <= due_min:
        verdict = "open"
    else:
        verdict = "not-shown"
    warmed = tuple(
        reading
        for reading in everything
        if verdict == "met"
        and reached
        and reading.place > reached.place
        and reading.celsius > to_c + WARM_AGAIN_C
    )
    return StageFact(
        to_c=to_c,
        limit_min=limit,
        verdict=verdict,
        at_least_min=at_least,
        at_most_min=at_most,
        proved=proved,
        start_min=start_min,
        start=start,
        below=below,
        above=above,
        reached=reached,
        due_min=due_min if verdict == "open" else None,
        warmed_again=warmed,
        shown_by=_words(verdict, proved, stage, at_least, at_most, start_min, now_min),
    )


def _reached(
    to_c: float,
    below: CoolingReading | None,
    own: Sequence[CoolingReading],
    everything: Sequence[CoolingReading],
    due_min: float | None,
) -> CoolingReading | None:
    """The first reading that shows ``to_c``: the next of its cooling, and all of any until it is due, are not
    above it by more than a probe is off. What is heated again later undoes nothing."""
    if below is None:
        return None
    for reading in everything:
        if reading.place < below.place or reading.celsius > to_c:
            continue
        following = [one for one in own if one.place > reading.place][:1]
        until_due = [
            one
            for one in everything
            if due_min is not None and reading.place < one.place and one.at_min <= due_min
        ]
        if all(one.celsius <= to_c + PROBE_ERROR_C for one in (*following, *until_due)):
            return reading
    return None


def _words(
    verdict: Verdict,
    proved: bool,
    stage: Stage,
    at_least: float | None,
    at_most: float | None,
    start_min: float | None,
    now_min: float,
) -> Sentence:
    limit = {"to_c": stage.to_c, "limit_min": stage.minutes}
    if verdict == "met":
        return say("cooled.met", **limit, at_most_min=at_most)
    if verdict == "missed" and proved:
        return say("cooled.missed", **limit, at_least_min=at_least)
    if verdict == "missed":
        return say("cooled.not-in-time", **limit)
    if verdict == "open":
        assert start_min is not None
        return say("cooled.open", **limit, left_min=start_min + stage.minutes - now_min)
    if start_min is None:
        return say("cooled.no-start", **limit)
    if at_most is None:
        return say("cooled.no-reading", **limit)
    return say("cooled.between", **limit, at_least_min=at_least or 0.0, at_most_min=at_most)
