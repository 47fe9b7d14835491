"""A step that was left out as a sauce was cooked. No sheet has it: it keeps the numbers of the others."""

from typing import ClassVar, Literal

from saucier.pot import Pot
from saucier.steps.step import Hands, Knobs, Move, Setting, StepBase


class LeftOut(StepBase):
    """The step that ``was`` to be done there, and was not: nothing goes in, nothing happens."""

    hands: ClassVar[Hands] = "none"
    fire: ClassVar[bool] = False
    op: Literal["left-out"] = "left-out"
    was: StepBase

    def prepare(self, setting: Setting) -> Move:
        def move(pot: Pot, knobs: Knobs) -> Pot:
            return pot

        return move
