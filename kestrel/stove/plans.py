"""What is predicted for a batch when it is started."""

from dataclasses import dataclass
from datetime import date
from typing import Any

from kestrel.stove.models import Batch
from saucier.along import Along, along
from saucier.cards import Card, cards
from saucier.check import Figures, FinalFigures, check
from saucier.heat import Pan, SideView
from saucier.kitchen import Kitchen as CoreKitchen
from saucier.sheet import Sheet
from saucier.words import Sentence, plain


@dataclass(frozen=True, slots=True)
class BatchPlan:
    """What was predicted when a batch was started: at its end, after every step, in what pan, with
    the cards to cook it by. Batches of before have no ``along``. ``middle_c``: where the middle of what is
    no sauce should come to, by the usual cautions (None: it has none). ``pan_told``: that it stands in another pan than
    it was meant for (None: it does not). ``stands_in``: that pan, whole (None: a batch of before), in which it stays
    whatever goes in and whatever becomes of the larder. ``keeps_until``: it was kept before, and being warmed again makes it keep
    no longer (None: it was not)."""

    name: str
    target_grade: str | None
    final: FinalFigures
    states: tuple[Figures, ...]
    cards: tuple[Card, ...]
    pan: SideView
    along: tuple[Along, ...] = ()
    middle_c: float | None = None
    pan_told: Sentence | None = None
    stands_in: Pan | None = None
    keeps_until: date | None = None


def keeps_until(batch: Batch) -> date | None:
    """The day until which what ``batch`` was made of is used, where that was kept before; None where it was not."""
    day = batch.plan.get("keeps_until")
    return date.fromisoformat(day) if day else None


def plan_of(sheet: Sheet, core: CoreKitchen, pan_told: Sentence | None = None) -> dict[str, Any]:
    """What is predicted for a sheet: the final state, each step's state and card, what its
    reductions pass on the way down, the pan."""
    checked = check(sheet, core)
    plan = BatchPlan(
        name=checked.sheet.name,
        target_grade=checked.sheet.target.grade,
        final=checked.figures,
        states=tuple(state.figures for state in checked.steps),
        cards=tuple(cards(checked)),
        pan=SideView.of(checked.pan),
        along=along(checked),
        pan_told=pan_told,
        stands_in=checked.pan,
    )
    told: dict[str, Any] = plain(plan)
    return told
