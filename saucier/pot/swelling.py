"""How much of its thickening starch has given: it swells with heat, not with the clock (docs/model.md 3)."""

from typing import NamedTuple

from saucier import constants as K


class Starch(NamedTuple):
    """Flour or starch that went in together: its ``share`` of all that thickens the pot (0 to 1), the
    hottest it has been wet, °C, its minutes at :data:`K.SWOLLEN_C` and above, and the share of its power
    it loses when it is boiled on (``thins``: potato, arrowroot, tapioca)."""

    share: float
    hottest_c: float = 0.0
    boiled_min: float = 0.0
    thins: float = 0.0

    @property
    def given(self) -> float:
        """Share of its power that is there, 0 to 1, were none of it lost to boiling on."""
        return swollen(self.hottest_c, self.boiled_min, thins=self.thins > 0.0)

    @property
    def left(self) -> float:
        """Share of its power that boiling on has left it."""
        return 1.0 - self.thins * min(1.0, self.boiled_min / K.THINS_MIN)

    def heated(self, temperature_c: float, minutes: float) -> "Starch":
        """This after ``minutes`` at ``temperature_c``."""
        hot = minutes if temperature_c >= K.SWOLLEN_C else 0.0
        if temperature_c <= self.hottest_c and not hot:
            return self
        return Starch(
            self.share, max(self.hottest_c, temperature_c), self.boiled_min + hot, self.thins
        )


def swollen(hottest_c: float, boiled_min: float, *, thins: bool = False) -> float:
    """Share of its thickening starch has given that has been at ``hottest_c``, and ``boiled_min``
    minutes at the boil: g(T) = 0.92·(3x² − 2x³), x = (T − 62)/32, and from 94 °C on the rest in three
    minutes. What ``thins`` is full at the boil.

    >>> [round(swollen(celsius, 0.0), 3) for celsius in (60, 75, 85, 94)]
    [0.0, 0.332, 0.743, 0.92]
    >>> round(swollen(100, 1.5), 2), swollen(100, 3), swollen(94, 0, thins=True)
    (0.96, 1.0, 1.0)
    """
    if hottest_c >= K.SWOLLEN_C:
        if thins:
            return 1.0
        rest = min(1.0, boiled_min / K.BOILED_FULL_MIN)
        return K.SWOLLEN_SHARE + (1.0 - K.SWOLLEN_SHARE) * rest
    x = max(0.0, (hottest_c - K.SWELLS_FROM_C) / (K.SWOLLEN_C - K.SWELLS_FROM_C))
    return K.SWOLLEN_SHARE * (3.0 * x * x - 2.0 * x * x * x)


Starches = tuple[Starch, ...]


def starches_mixed(one: Starches, power: float, other: Starches, other_power: float) -> Starches:
    """The starches of two pots put together, of which ``power`` and ``other_power`` grams (as flour)
    thicken; one that knows of none of its starch has it all given.

    >>> raw = (Starch(1.0),)
    >>> [(part.share, part.given) for part in starches_mixed((), 30.0, raw, 10.0)]
    [(0.75, 1.0), (0.25, 0.0)]
    """
    whole = power + other_power
    if whole <= 0.0:
        return ()
    parts = [
        part._replace(share=part.share * grams / whole)
        for starches, grams in ((one, power), (other, other_power))
        for part in (starches or (_FULL if grams > 0.0 else ()))
    ]
    # What has given all it has is all alike.
    full = [part for part in parts if not part.thins and part.given >= 1.0]
    if len(full) > 1:
        rest = [part for part in parts if part not in full]
        parts = [full[0]._replace(share=sum(part.share for part in full)), *rest]
    return tuple(parts)


_FULL: Starches = (Starch(1.0, K.BOIL_C, K.BOILED_FULL_MIN),)
