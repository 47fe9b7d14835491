"""The steps of a sauce, one class each. A new step is a class here and a place in ``AnyStep``."""

from typing import Annotated, get_args

from pydantic import Field

from saucier.steps.add import Add
from saucier.steps.aromatics import Dust, Infuse, Lift, Strain, Sweat
from saucier.steps.correct import Correct
from saucier.steps.enrich import Blend, Finish, Liaison, Mend, Mount
from saucier.steps.keep import Cool, Hold, Reheat
from saucier.steps.melt import Melt
from saucier.steps.pan import Deglaze, Flame, Return, Sear, Start
from saucier.steps.reduce import Reduce
from saucier.steps.roux import Roux
from saucier.steps.season import Season
from saucier.steps.share import InnerSauce, Reserve, Use
from saucier.steps.simmer import Simmer
from saucier.steps.step import AS_WRITTEN, Knobs, Move, Setting, StepBase, Weighed, advance

_Steps = (
    Start
    | Sear
    | Add
    | Roux
    | Dust
    | Sweat
    | Deglaze
    | Flame
    | Simmer
    | Reduce
    | Infuse
    | Strain
    | Lift
    | Melt
    | Liaison
    | Mount
    | Finish
    | Return
    | Use
    | Blend
    | Mend
    | Season
    | Reserve
    | Correct
    | Cool
    | Hold
    | Reheat
)
AnyStep = Annotated[_Steps, Field(discriminator="op")]
OPS: tuple[str, ...] = tuple(step.model_fields["op"].default for step in get_args(_Steps))

InnerSauce.model_rebuild(_types_namespace={"AnyStep": AnyStep})
Use.model_rebuild()

__all__ = [
    "AS_WRITTEN",
    "OPS",
    "Add",
    "AnyStep",
    "Blend",
    "Cool",
    "Correct",
    "Deglaze",
    "Dust",
    "Finish",
    "Flame",
    "Hold",
    "Infuse",
    "Knobs",
    "Liaison",
    "Lift",
    "Melt",
    "Mend",
    "Mount",
    "Move",
    "Reduce",
    "Reheat",
    "Reserve",
    "Return",
    "Roux",
    "Sear",
    "Season",
    "Setting",
    "Simmer",
    "Start",
    "StepBase",
    "Strain",
    "Sweat",
    "Use",
    "Weighed",
    "advance",
]
