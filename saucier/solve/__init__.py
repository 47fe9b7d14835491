"""Solving backwards: from a grade, a yield or the one ingredient there is, to the amounts."""

from saucier.solve.goal import Goal, Have, goal_of
from saucier.solve.rounding import rounded_amounts, rounded_for_kitchen
from saucier.solve.solver import Solved, Unreachable, solve
from saucier.solve.stops import stops_as_written

__all__ = [
    "Goal",
    "Have",
    "Solved",
    "Unreachable",
    "goal_of",
    "rounded_amounts",
    "rounded_for_kitchen",
    "solve",
    "stops_as_written",
]
