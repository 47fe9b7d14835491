"""What the planner answers: when each task begins, who does it with what, and how good that is."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Literal

Stage = Literal["late", "harmed", "suffers", "waits", "begin"]
STAGES: tuple[Stage, ...] = ("late", "harmed", "suffers", "waits", "begin")
"""What is made as small as can be, one after the other: minutes late, minutes waited past what is
harmless, minutes what suffers waits (times how much), other waits, and how early one has to begin."""


@dataclass(frozen=True, slots=True)
class Reached:
    """How far a stage came: its ``value`` and the ``bound`` nothing can be under, both in minutes.
    ``kept``: proved the least with every wait of the stages before as it is."""

    stage: Stage
    value: float
    bound: float
    kept: bool = False

    @property
    def proved(self) -> bool:
        """Whether no plan that is as good in the stages before is better in this one."""
        return self.value - self.bound < 1e-6

    @property
    def gap(self) -> float:
        """How much of the value may still be saved, a share of it.

        >>> Reached("waits", 40.0, 30.0).gap
        0.25
        """
        return max(0.0, self.value - self.bound) / max(abs(self.value), 1.0)


@dataclass(frozen=True, slots=True)
class Schedule:
    """``starts`` by task [min]; ``late`` by the group that is served [min]; ``hands`` names the cook of
    each attended piece by task (in the order of its pieces), ``touched`` of each touch, ``units`` what each
    use of it gets, ``pans`` what each hold gets, ``oven`` its oven. ``washed`` are the washes done.
    ``reached`` tells each stage; ``seconds`` how long it took, ``stopped``: before it was through."""

    starts: Mapping[str, float]
    late: Mapping[str, float] = field(default_factory=dict)
    reached: tuple[Reached, ...] = ()
    hands: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    touched: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    units: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    pans: tuple[str, ...] = ()
    oven: Mapping[str, str] = field(default_factory=dict)
    washed: frozenset[str] = frozenset()
    seconds: float = 0.0
    stopped: bool = False
    named: bool = True

    @property
    def proved(self) -> bool:
        """Whether each stage is proved the least there is, those of waits at least with the waits before
        them as they are."""
        return len(self.reached) == len(STAGES) and all(
            one.proved or one.kept for one in self.reached
        )

    def value(self, stage: Stage) -> float:
        """What a stage came to; 0 where it was not asked."""
        return next((one.value for one in self.reached if one.stage == stage), 0.0)
