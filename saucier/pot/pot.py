"""A pot of sauce at one moment: its balance and what it has been through."""

from dataclasses import dataclass

from saucier import constants as K
from saucier.pot.balance import EMPTY, Balance


@dataclass(frozen=True, slots=True)
class Remark:
    """Something to tell the cook at one step: ``code`` for programs, ``text`` in kitchen words."""

    code: str
    text: str


@dataclass(frozen=True, slots=True)
class Pot:
    """What is in the pot after a step.

    ``boiled_min``: minutes at the boil since flour went in (it thickens fully only there).
    ``wetted``: something with 40 % water or more has gone in, so that it is a liquid.
    ``hottest_c``: the hottest it has been since yolk went in. ``minutes``: time at the stove
    so far. ``remarks`` belong to the last step only.
    """

    balance: Balance = EMPTY
    temperature_c: float = 20.0
    boiled_min: float = 0.0
    wetted: bool = False
    hottest_c: float = 20.0
    allergens: frozenset[str] = frozenset()
    cost: float = 0.0
    minutes: float = 0.0
    remarks: tuple[Remark, ...] = ()

    @property
    def flour_given(self) -> float:
        """Share of the flour's thickening that has come out.

        Before any boil the whole of it is counted, and the check says "not boiled": a cook
        asks how thick it will be, not how thick cold flour is (model.md 3).
        """
        minutes = self.boiled_min
        if minutes <= 0.0 or minutes >= K.BOILED_FULL_MIN:
            return 1.0
        if minutes < 1.0:
            return (
                K.BOILED_SHARE_AT_ONCE + (K.BOILED_SHARE_1_MIN - K.BOILED_SHARE_AT_ONCE) * minutes
            )
        return K.BOILED_SHARE_1_MIN + (1.0 - K.BOILED_SHARE_1_MIN) * (minutes - 1.0) / (
            K.BOILED_FULL_MIN - 1.0
        )

    @property
    def yolk_set(self) -> bool:
        return self.hottest_c >= K.YOLK_SETS_C
