"""The run-up: a service as timed jobs, back from the moment of serving (docs/model.md 8)."""

from saucier.run_up.aside import Aside, Part, aside_of, aside_of_parts
from saucier.run_up.build import Gathered, run_up, serving_times
from saucier.run_up.document import RunUp, minute_of, read_run_up, write_run_up
from saucier.run_up.jobs import Board, Job, Keeps
from saucier.run_up.library import Library, Way, new_way, read_way, shipped_ways
from saucier.run_up.means import SKILLS, Cook, Gear, Means, Ring, Skill, gear_of, kinds, named, unit

__all__ = [
    "SKILLS",
    "Aside",
    "Board",
    "Cook",
    "Gathered",
    "Gear",
    "Job",
    "Keeps",
    "Library",
    "Means",
    "Part",
    "Ring",
    "RunUp",
    "Skill",
    "Way",
    "aside_of",
    "aside_of_parts",
    "gear_of",
    "kinds",
    "minute_of",
    "named",
    "new_way",
    "read_run_up",
    "read_way",
    "run_up",
    "serving_times",
    "shipped_ways",
    "unit",
    "write_run_up",
]
