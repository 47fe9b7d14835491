"""The planner: tasks back from the moments of serving, with the hands and the things there are.

It knows nothing of sauces: ``saucier.run_up`` makes its tasks of a service.
"""

from saucier.timing.measure import measured
from saucier.timing.problem import (
    TICKS,
    Away,
    Baking,
    Hands,
    Heat,
    Hold,
    Link,
    Oven,
    Problem,
    Serving,
    Stretch,
    Task,
    Use,
    lasting,
    ticks,
)
from saucier.timing.rule import by_rule
from saucier.timing.schedule import STAGES, Reached, Schedule, Stage

__all__ = [
    "STAGES",
    "TICKS",
    "Away",
    "Baking",
    "Hands",
    "Heat",
    "Hold",
    "Link",
    "Oven",
    "Problem",
    "Reached",
    "Schedule",
    "Serving",
    "Stage",
    "Stretch",
    "Task",
    "Use",
    "by_rule",
    "lasting",
    "measured",
    "ticks",
]
