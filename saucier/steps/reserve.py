"""`reserve`: a share of the pot set aside."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from saucier.errors import BadInput
from saucier.pot import EMPTY, Pot, SetAside
from saucier.steps.step import Knobs, Move, Setting, StepBase


class Reserve(StepBase):
    """A share set aside: for the top, for correcting, as garnish."""

    fire: ClassVar[bool] = False
    op: Literal["reserve"] = "reserve"
    share: Annotated[float, Field(gt=0, lt=1)]
    purpose: Literal["top", "correcting", "garnish", "pass"] = "top"

    def prepare(self, setting: Setting) -> Move:
        share, purpose = self.share, self.purpose

        def move(pot: Pot, knobs: Knobs) -> Pot:
            if not pot.total_g:
                raise BadInput.at("share", "nothing-in-the-pot-to-set")
            left = 1.0 - share
            return pot._replace(
                balance=EMPTY.plus(pot.balance, left),
                pieces=tuple(piece.share(left) for piece in pot.pieces),
                set_aside=(*pot.set_aside, SetAside(purpose, share * pot.total_g)),
            )

        return move
