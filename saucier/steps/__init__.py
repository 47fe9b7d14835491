"""The steps of a sauce, one class each. A new step is a class here and a place in ``AnyStep``."""

from typing import Annotated

from pydantic import Field

from saucier.steps.add import Add
from saucier.steps.base import AS_WRITTEN, Knobs, Move, Setting, StepBase, Weighed, Words
from saucier.steps.melt import Melt
from saucier.steps.reduce import Reduce
from saucier.steps.roux import Roux
from saucier.steps.season import Season
from saucier.steps.simmer import Simmer

AnyStep = Annotated[
    Roux | Add | Simmer | Reduce | Melt | Season,
    Field(discriminator="op"),
]
OPS = ("roux", "add", "simmer", "reduce", "melt", "season")

__all__ = [
    "AS_WRITTEN",
    "OPS",
    "Add",
    "AnyStep",
    "Knobs",
    "Melt",
    "Move",
    "Reduce",
    "Roux",
    "Season",
    "Setting",
    "Simmer",
    "StepBase",
    "Weighed",
    "Words",
]
