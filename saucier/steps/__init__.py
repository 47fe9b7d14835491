"""The steps of a sauce, one class each. A new step is a class here and a place in ``AnyStep``."""

from typing import Annotated, get_args

from pydantic import Field

from saucier.steps.add import Add
from saucier.steps.aromatics import Dust, Infuse, Lift, Strain, Sweat
from saucier.steps.correct import Correct
from saucier.steps.enrich import Blend, Finish, Liaison, Mend, Mount
from saucier.steps.keep import Cool, Hold, Reheat
from saucier.steps.left_out import LeftOut
from saucier.steps.making import (
    FLOURED,
    Making,
    PreparedSteps,
    free_ratio,
    free_reduction,
    load_of,
    pan_of,
    prepare_steps,
    thickening_by,
)
from saucier.steps.melt import Melt
from saucier.steps.method import Method
from saucier.steps.pan import Deglaze, Flame, Return, Sear, Start
from saucier.steps.reduce import Reduce
from saucier.steps.reserve import Reserve
from saucier.steps.roux import Roux
from saucier.steps.season import Season
from saucier.steps.simmer import Simmer
from saucier.steps.step import AS_WRITTEN, Hands, Knobs, Move, Setting, StepBase, Weighed, advance
from saucier.steps.use import InnerSauce, Pouring, ShareOfIt, Use
from saucier.steps.vessel import SheetBurner, SheetPan

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
STEPS: dict[str, type[StepBase]] = {
    step.model_fields["op"].default: step for step in get_args(_Steps)
}
OPS: tuple[str, ...] = tuple(STEPS)

InnerSauce.model_rebuild(_types_namespace={"AnyStep": AnyStep})
Use.model_rebuild()

__all__ = [
    "AS_WRITTEN",
    "FLOURED",
    "OPS",
    "STEPS",
    "Add",
    "AnyStep",
    "Blend",
    "Cool",
    "Correct",
    "Deglaze",
    "Dust",
    "Finish",
    "Flame",
    "Hands",
    "Hold",
    "Infuse",
    "InnerSauce",
    "Knobs",
    "LeftOut",
    "Liaison",
    "Lift",
    "Making",
    "Melt",
    "Mend",
    "Method",
    "Mount",
    "Move",
    "Pouring",
    "PreparedSteps",
    "Reduce",
    "Reheat",
    "Reserve",
    "Return",
    "Roux",
    "Sear",
    "Season",
    "Setting",
    "ShareOfIt",
    "SheetBurner",
    "SheetPan",
    "Simmer",
    "Start",
    "StepBase",
    "Strain",
    "Sweat",
    "Use",
    "Weighed",
    "advance",
    "free_ratio",
    "free_reduction",
    "load_of",
    "pan_of",
    "prepare_steps",
    "thickening_by",
]
