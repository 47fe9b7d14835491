"""Tasks as the kitchen knows them: what is done, how much, what to look for, and what it is for."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from typing import Literal

from saucier.run_up.means import Skill
from saucier.steps import Hands
from saucier.timing import Baking, Hold, Link, Serving, Stretch, Task, Use
from saucier.words import Sentence

Kind = Literal[
    "prepare",
    "weigh",
    "pot",
    "side",
    "warm-up",
    "fill",
    "finish",
    "plate",
    "chill",
    "wash",
    "carry",
]


@dataclass(frozen=True, slots=True)
class Doing:
    """A part of a job: ``minutes`` of it, the ``hands`` it wants, what to ``do`` and look for."""

    minutes: float
    hands: Hands
    do: Sentence | str
    cue: Sentence | str = ""


@dataclass(frozen=True, slots=True)
class Touch:
    """Some twenty seconds at ``at`` minutes from the beginning."""

    at: float
    do: Sentence | str


@dataclass(frozen=True, slots=True)
class Keeps:
    """How long what was made may stand [min; None: as long as you like], what each minute costs it
    (0 to 9), and ``why``."""

    longest: float | None = None
    suffers: int = 0
    why: Sentence | str = ""


@dataclass(frozen=True, slots=True)
class Job:
    """One job: for ``lines`` of the service, on ``day`` 0 or the day before (-1). ``pot`` is the key
    under which the stove starts it."""

    key: str
    kind: Kind
    name: Sentence | str
    parts: tuple[Doing, ...]
    skill: Skill
    lines: tuple[int, ...] = ()
    amount: Sentence | str = ""
    touches: tuple[Touch, ...] = ()
    uses: tuple[Use, ...] = ()
    baking: Baking | None = None
    keeps: Keeps = Keeps()
    day: Literal[0, -1] = 0
    pot: str = ""
    note: Sentence | str = ""

    @property
    def minutes(self) -> float:
        return sum(part.minutes for part in self.parts)

    def lasting(self, minutes: float) -> "Job":
        """The same, taking ``minutes``: every part longer or shorter alike."""
        if self.minutes <= 0.0:
            return replace(self, parts=(replace(self.parts[0], minutes=minutes),))
        share = minutes / self.minutes
        return replace(
            self,
            parts=tuple(replace(part, minutes=part.minutes * share) for part in self.parts),
            touches=tuple(replace(touch, at=touch.at * share) for touch in self.touches),
            uses=tuple(
                replace(
                    use, start=use.start * share, end=None if use.end is None else use.end * share
                )
                for use in self.uses
            ),
        )

    def task(self, cooks: frozenset[str]) -> Task:
        """What the planner goes by."""
        return Task(
            key=self.key,
            stretches=tuple(Stretch(part.minutes, part.hands) for part in self.parts),
            cooks=cooks,
            uses=self.uses,
            baking=self.baking,
            touches=tuple(touch.at for touch in self.touches),
        )


@dataclass
class Board:
    """All jobs of a service and what ties them, as they are gathered."""

    jobs: dict[str, Job] = field(default_factory=dict)
    links: list[Link] = field(default_factory=list)
    servings: list[Serving] = field(default_factory=list)
    holds: list[Hold] = field(default_factory=list)
    heats: dict[str, list[str]] = field(default_factory=dict)
    washes: dict[str, Job] = field(default_factory=dict)
    remarks: list[Sentence] = field(default_factory=list)

    def add(self, job: Job) -> str:
        self.jobs[job.key] = job
        return job.key

    def follow(
        self, before: str, after: str, *, at_least: float = 0.0, only_order: bool = False
    ) -> None:
        """``after`` comes past ``before``, and what that made waits as long as it keeps."""
        keeps = Keeps() if only_order else self.jobs[before].keeps
        self.links.append(
            Link(before, after, at_least, keeps.longest, keeps.suffers, counted=not only_order)
        )

    def heat(self, before: str, after: str) -> None:
        """``before`` (an oven, a grill) is hot when the first of what wants it begins."""
        self.heats.setdefault(before, []).append(after)

    def named(self) -> Mapping[str, Job]:
        return {**self.jobs, **self.washes}
