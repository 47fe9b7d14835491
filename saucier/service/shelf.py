"""The pans of a kitchen as they are given out: counted, by number, washed between two pots."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from saucier import constants as K
from saucier.heat import BARE_PANS, POT_SHAPES, Load, Pan, pan_reached_for
from saucier.kitchen import Kitchen
from saucier.service.document import Service
from saucier.words import Sentence, say


@dataclass(frozen=True, slots=True)
class Given:
    """A pan given to a pot: what it is called (with its number where there are several such), what is
    to be said of it, and how many of them it gets at once."""

    called: Sentence | str
    notes: tuple[Sentence, ...] = ()
    at_once: int = 1


class Shelf:
    """Which pans there are, which are taken, and by which pot."""

    def __init__(
        self, service: Service, kitchen: Kitchen, pans: Sequence[Pan], warnings: list[Sentence]
    ) -> None:
        self._service, self._kitchen, self._warnings = service, kitchen, warnings
        self._by_name: dict[str, Pan] = {}
        for pan in pans:  # two rows of one name are two such pans
            there = self._by_name.get(pan.name)
            self._by_name[pan.name] = (
                replace(there, count=there.count + pan.count) if there else pan
            )
        pots = (pan for pan in self._by_name.values() if pan.shape in POT_SHAPES)
        # Bare metal last: it turns wine, lemon and yolk grey.
        self.pans = sorted(pots, key=lambda pan: (pan.reactive, pan.capacity_ml))
        self._users: dict[str, list[object]] = {}

    def chosen(self, key: str) -> Pan | None:
        """The pan the cook chose for ``key``; one the kitchen no longer has is said and passed over."""
        name = self._service.pans.get(key)
        if name is None:
            return None
        if name not in self._by_name:
            self._warnings.append(say("pan-gone", pan=name))
        return self._by_name.get(name)

    def knows(self, pan: Pan) -> bool:
        return pan.name in self._by_name

    def is_free(self, pan: Pan) -> bool:
        """Whether one such stands unused."""
        count = self._by_name[pan.name].count if self.knows(pan) else 1
        return len(self._users.get(pan.name, ())) < count

    def take(self, pan: Pan, name: object, batches: int = 1, mother: object = None) -> Given:
        """``pan`` given to the pot ``name``, for its ``batches`` as many of them as are free; what to
        say where another pot has it. What is poured from a ``mother`` may be finished in hers."""
        known = self._by_name.get(pan.name)
        if known is None:
            return Given(pan.name)
        users = self._users.setdefault(pan.name, [])
        free = known.count - len(users)
        if free <= 0:
            # The one that has been used longest ago, washed.
            number = len(users) % known.count
            before = users[number - known.count]
            users.append(name)
            called = self._called(known, (number + 1,))
            code = "pan-of-its-mother" if before == mother else "pan-wanted-twice"
            return Given(called, (say(code, pan=called, other=before),))
        taken = min(free, max(1, batches))
        numbers = tuple(range(len(users) + 1, len(users) + taken + 1))
        users += [name] * taken
        return Given(self._called(known, numbers), at_once=taken)

    @staticmethod
    def _called(pan: Pan, numbers: tuple[int, ...]) -> Sentence | str:
        if pan.count == 1:
            return pan.name
        return say("pan-and-number", pan=pan.name, numbers=numbers)

    def batches(self, ml: float, holds_ml: float) -> int:
        """In how many equal batches ``ml`` are made where a pan holds so much, and a whisk."""
        return max(1, math.ceil(ml / min(holds_ml, self._kitchen.whisk_ml) - 1e-9))

    def reached_for(self, load: Load, *, sour: bool = False) -> tuple[Pan, int]:
        """The pan for ``load``, and in how many equal batches: as few as the largest pan, filled to
        two thirds, and the whisk allow; of the pans that hold one the one a cook would reach for,
        free ones first, bare metal never for what is ``sour``."""
        if not self.pans:
            batches = self.batches(load.fullest, K.POT_FULLEST * BARE_PANS[-1].capacity_ml)
            return pan_reached_for(load.times(1.0 / batches)), batches
        pans = [pan for pan in self.pans if not (sour and pan.reactive)] or self.pans
        largest = max(pans, key=lambda pan: (not pan.reactive, pan.capacity_ml))
        batches = self.batches(load.fullest, K.POT_FULLEST * largest.capacity_ml)
        each = load.times(1.0 / batches)
        fits = [p for p in pans if each.fullest <= K.POT_FULLEST * p.capacity_ml] or [largest]
        free = [pan for pan in fits if self.is_free(pan)] or fits
        if each.goes_in > 0.0:
            return pan_reached_for(each, free), batches
        return free[0], batches

    def finished_in(
        self, key: str, need_ml: float, *, sour: bool = False
    ) -> tuple[Pan | None, int]:
        """The pan a branch of a mother is finished in and in how many equal parts: the one the cook
        chose, or the smallest free one that its fullest moment (``need_ml``) leaves a fifth of; where
        that is more than the largest takes, or than is whisked smooth, it is weighed out several
        times. None: her own."""
        chosen = self.chosen(key)
        if chosen is not None:
            return chosen, self.batches(need_ml, K.POT_HOLDS * chosen.capacity_ml)
        if not self.pans:
            return None, self.batches(need_ml, math.inf)
        largest = max(pan.capacity_ml for pan in self.pans)
        parts = self.batches(need_ml, K.FINISHED_FULL * largest)
        return self.free_for(need_ml / parts, sour=sour), parts

    def free_for(self, ml: float, *, sour: bool = False) -> Pan | None:
        """The smallest free pan that ``ml`` leave a fifth of, never bare metal for what is ``sour``."""
        for pan in self.pans:
            roomy = ml <= K.FINISHED_FULL * pan.capacity_ml and not (sour and pan.reactive)
            if roomy and self.is_free(pan):
                return pan
        return None
